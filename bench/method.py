"""A way of 25 steps with 6 rises: the Method endpoint against an empty endpoint of the same server in the same run, and the core alone.

As it is asked for with every key: without a time it must be ready, and with one, where what would make it so is sought for every rise.

Run: PYTHONPATH=src:bench .venv/bin/python bench/method.py
"""

import json
import timeit

from serving import against_empty, served

from pancount.core.count.count import Count, one_target
from pancount.core.formula.formula import Formula, Stage, StageKind, Way
from pancount.core.formula.practice import Practice
from pancount.core.formula.steps import Lasts, Step, Takes, Warmth
from pancount.core.heat.climate import Climate, Today
from pancount.core.method.method import whole_method
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import RectanglePan
from pancount.core.pantry.ingredients import pantry, pantry_with

ROLES = {item.name: item.role for item in pantry()}
WARM = Warmth(low_c=26, high_c=26)


def _stage(name: str, kind: StageKind, key: str, **grams: float) -> Stage:
    lines = [{"name": line.replace("_", " "), "role": ROLES[line.replace("_", " ")], "weight_g": weight} for line, weight in grams.items()]
    return Stage.model_validate({"name": name, "kind": kind, "key": key, "lines": lines})


FORMULA = Formula(
    name="Twenty-five steps",
    stages=(
        _stage("Paste", StageKind.PASTE, "p", Bread_flour=50, Whole_milk=200),
        _stage("Sponge", StageKind.SPONGE, "s", Bread_flour=300, Water=200, Instant_yeast=2),
        _stage("Dough", StageKind.DOUGH, "", Bread_flour=650, Whole_milk=200, Egg=110, Butter=120, Sugar=90, Fine_salt=19, Instant_yeast=5),
    ),
)
STEPS = (
    Step(kind="paste", of="p", takes=(Takes(what="rest", key="p"),)), Step(kind="cool_off", of="p"),
    Step(kind="mix", of="s", takes=(Takes(what="rest", key="s"),)), Step(kind="rise", of="s", lasts=Lasts.of(60, 90), heat=WARM),
    Step(kind="fold", of="s"), Step(kind="rise", of="s", lasts=Lasts.of(60, 90), heat=WARM),
    Step(kind="mix", takes=(Takes(what="stage", key="p"), Takes(what="stage", key="s"), Takes(what="rest"))), Step(kind="autolyse"),
    Step(kind="knead"), Step(kind="add"), Step(kind="test"),
    Step(kind="rise", lasts=Lasts.of(30, 40), heat=WARM), Step(kind="fold"), Step(kind="rise", lasts=Lasts.of(30, 40), heat=WARM),
    Step(kind="knock_back"), Step(kind="rise", lasts=Lasts.of(20, 30), heat=WARM), Step(kind="divide"), Step(kind="preshape"), Step(kind="rest"),
    Step(kind="shape"), Step(kind="proof", lasts=Lasts.of(45, 60), heat=WARM), Step(kind="preheat"), Step(kind="wash"), Step(kind="bake"), Step(kind="cool"),
)  # fmt: skip
WAYS = FORMULA.model_copy(update={"ways": (Way(steps=STEPS),)})
PAN = RectanglePan(name="Rimmed pan", length_cm=33, width_cm=23, depth_cm=4.6)
DAYS = {"from 0:00": Today(), "ready at 7, counter at 19 °C": Today(room_c=19, begins_min=21 * 60, ready_min=7 * 60)}


def measure(port: int, name: str, count: Count) -> None:
    """One day: the core alone, and the endpoint against the empty one."""
    body = json.dumps({"formula": WAYS.model_dump(mode="json"), "count": count.model_dump(mode="json")}).encode()
    (e50, e99), (m50, m99) = against_empty(port, "/api/reckon/method", body)
    reckoned = lambda: whole_method(WAYS, count, pantry_with(()), Practice(), Kit(), Climate())  # what is timed
    runs = min(timeit.repeat(reckoned, number=5, repeat=5)) / 5 * 1e3
    print(f"{len(STEPS)} steps, {name}: core {runs:.1f} ms")
    print(f"  empty p50 {e50:.2f} ms, p99 {e99:.2f} ms; method p50 {m50:.2f} ms, p99 {m99:.2f} ms")
    print(f"  ratio p50 {m50 / e50:.1f}, p99 {m99 / e99:.1f}")


def main() -> None:
    with served() as port:
        for name, now in DAYS.items():
            measure(port, name, one_target(PAN, pieces=24, pans=2).model_copy(update={"today": now}))


if __name__ == "__main__":
    main()
