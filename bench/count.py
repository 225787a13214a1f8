"""The whole count against an empty endpoint of the same server in the same run, and how it grows with targets, limits and lines.

Run: PYTHONPATH=src:bench .venv/bin/python bench/count.py
"""

import json

from serving import against_empty, served

from pancount.core.count.count import Count, Pins, Target, TargetPins
from pancount.core.count.limits import Limit
from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import Griddle, LoafTin, Pan, RectanglePan, RoundPan, SheetPan
from pancount.core.pantry.ingredients import pantry

SHEET = SheetPan(length_cm=46, width_cm=33, depth_cm=2.5)
KIT = Kit(
    bowl_ml=4300, sheet=SHEET, shelves=2, oven_length_cm=48, oven_width_cm=38, pot_cm=26, pot_ml=6000,
    griddle=Griddle(diameter_cm=25), fridge_length_cm=50, fridge_width_cm=40,
)  # fmt: skip
PANS: tuple[Pan | None, ...] = (
    None,
    RectanglePan(length_cm=33, width_cm=23, depth_cm=4.6),
    RoundPan(diameter_cm=26, depth_cm=5),
    LoafTin(length_cm=23, width_cm=13, base_length_cm=20, base_width_cm=11, depth_cm=7),
    None,
    SHEET,
)
LIMITS = (
    Limit(kind="flour", amount=25_000),
    Limit(kind="ingredient", ingredient="Egg", amount=200, each_g=50),
    Limit(kind="ingredient", ingredient="Instant yeast", amount=50, each_g=7),
    Limit(kind="bowl", amount=30),
    Limit(kind="oven", amount=20),
    Limit(kind="pot", amount=40),
    Limit(kind="fridge", amount=20),
    Limit(kind="by_when", amount=400),
)


def formula_of(lines: int) -> Formula:
    """A formula of so many lines out of the pantry, the first of them flour."""
    items = [item for item in pantry() if item.role != "flour"]
    own = [Line(name=item.name, role=item.role, percent=2.3) for item in items[: lines - 3]]
    named = [Line(name=name, role=role, percent=5) for name, role in (("Egg", "egg"), ("Instant yeast", "leaven"))]
    flour = Line.model_validate({"name": "Bread flour", "role": "flour", "percent": 100})
    return Formula(name="Bench", stages=(Stage(name="Dough", lines=(flour, *named, *own)),))


def count_of(targets: int, limits: int) -> Count:
    """Some targets pinned, the last left open; the flour pinned only where no limit says how much there is."""
    made = [Target(pins=TargetPins(pieces=10 + i, piece_g=50 + 7 * i), pan=PANS[i % 6]) for i in range(targets - 1)]
    last = Target(pins=TargetPins(piece_g=83), pan=None)
    return Count(pins=Pins(flour_g=None if limits else 9000), targets=(*made, last), limits=LIMITS[:limits])


CASES = (
    (1, 0, 10), (1, 0, 40), (1, 8, 40), (3, 4, 40), (6, 0, 40), (6, 8, 40), (6, 8, 10), (6, 8, 100), (12, 8, 40),
)  # fmt: skip
"""Targets, limits, lines. The aim is for six targets, eight limits and forty lines: p50 at most 4 times the empty one."""


def main() -> None:
    with served() as port:
        for targets, limits, lines in CASES:
            body = {
                "formula": formula_of(lines).model_dump(mode="json"),
                "count": count_of(targets, limits).model_dump(mode="json"),
                "kit": KIT.model_dump(mode="json"),
                "looking_at": targets - 1,
            }
            (e50, _), (c50, c99) = against_empty(port, "/api/reckon/count", json.dumps(body).encode())
            ratio = f"empty {e50:.2f} ms, count p50 {c50:.2f} ms, p99 {c99:.2f} ms, ratio {c50 / e50:.2f}"
            print(f"{targets} targets, {limits} limits, {lines} lines: {ratio}")


if __name__ == "__main__":
    main()
