"""The Count endpoint against an empty endpoint of the same server in the same run, and the core alone.

On a plain formula of 30 lines, as in the first slice, and on one of 60 lines in 6 stages that feed each other.

Run: PYTHONPATH=src:bench .venv/bin/python bench/reckon.py
"""

import json
import timeit

from serving import against_empty, served

from pancount.core.count.count import Count, one_target
from pancount.core.count.whole import whole_count
from pancount.core.formula.formula import Feed, Formula, Line, Stage, StageKind
from pancount.core.formula.practice import Practice
from pancount.core.pans.pan import RectanglePan
from pancount.core.pantry.ingredients import pantry, pantry_with
from pancount.core.pantry.role import Role

PLAIN = Formula(
    name="Thirty lines",
    stages=tuple(
        Stage(
            name=f"Stage {s}",
            lines=(
                Line(name="Bread flour", role=Role.FLOUR, weight_g=300),
                *(Line(name=f"Line {n}", role=Role.LIQUID, percent=7.3) for n in range(9)),
            ),
        )
        for s in range(3)
    ),
)
ROLES = {item.name: item.role for item in pantry()}
KINDS = (StageKind.LEVAIN, StageKind.LEVAIN, StageKind.PASTE, StageKind.SOAKER, StageKind.DOUGH, StageKind.INCLUSIONS)
NAMES = ("Whole milk", "Water", "Egg", "Butter", "Sugar", "Fine salt", "Instant yeast", "Honey", "Squash, mashed")
DEEP = Formula(
    name="Sixty lines",
    stages=tuple(
        Stage(
            name=f"Stage {s}",
            kind=kind,
            key=f"s{s}",
            feeds=(Feed(into="s1"),) if s == 0 else (Feed(into="s4", share=0.9),) if s == 1 else (),
            boiled_off=0.06 if kind is StageKind.PASTE else 0,
            lines=(
                Line(name="Bread flour", role=Role.FLOUR, weight_g=300),
                *(Line(name=name, role=ROLES[name], percent=7.3) for name in NAMES),
            ),
        )
        for s, kind in enumerate(KINDS)
    ),
)
PAN = RectanglePan(name="Rimmed pan", length_cm=33, width_cm=23, depth_cm=4.6)
COUNTS = {
    "pieces and pans pinned": one_target(PAN, pieces=24, pans=2),
    "with a remainder and its choices": one_target(PAN, divide_g=1290, piece_g=75),
    "with pins that fight": one_target(PAN, flour_g=1000, pieces=24, piece_g=40),
}


def main() -> None:
    with served() as port:
        for formula in (PLAIN, DEEP):
            for name, count in COUNTS.items():
                measure(port, f"{formula.name}, {name}", formula, count)


def measure(port: int, name: str, formula: Formula, count: Count) -> None:
    """One formula and count: the core alone, and the endpoint against the empty one."""
    body = json.dumps({"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")}).encode()
    (e50, e99), (c50, c99) = against_empty(port, "/api/reckon/count", body)
    reckoned = lambda: whole_count(formula, count, pantry_with(()), Practice())  # what is timed
    runs = min(timeit.repeat(reckoned, number=100, repeat=5)) / 100 * 1e6
    print(f"{name}: core {runs:.0f} µs")
    print(f"  empty p50 {e50:.2f} ms, p99 {e99:.2f} ms; count p50 {c50:.2f} ms, p99 {c99:.2f} ms")
    print(f"  ratio p50 {c50 / e50:.2f}, p99 {c99 / e99:.2f}")


if __name__ == "__main__":
    main()
