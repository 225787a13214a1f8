"""Kinds of step: what each usually takes, looks like, needs, and what to take care of."""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from pancount.core.base.datafiles import rows
from pancount.core.formula.steps import Decides, Hands, Lasts, Place, Step, Warmth

Does = Literal["", "rises", "cold", "warms", "ahead", "loads"]
"""What is special about a kind: dough `rises` in it, lies `cold`, `warms` again; it is done `ahead` of what needs it; it goes by `loads`."""
Group = Literal["before", "dough", "rise", "shape", "heat", "after", "any"]


@dataclass(frozen=True, slots=True)
class StepKind:
    """A kind of step and what it usually is. Times in minutes; `piece_s` is what each piece takes, in seconds, where it goes by pieces."""

    key: str
    label: str
    group: Group
    lasts: Lasts
    by: Decides
    hands: Hands
    touches: int
    touch_min: float
    piece_s: float
    place: Place
    heat: Warmth | None
    does: Does
    works: float
    """How much of its time the dough is worked so that it warms, 0 to 1."""
    look: str
    if_not: str
    again_min: float
    waits_min: float | None
    waits_cost: str
    caution: str
    source: str


@cache
def step_kinds() -> dict[str, StepKind]:
    """Kinds of step by key, in the order in which they usually come."""
    return {row["kind"]: _kind(row) for row in rows(__name__, "step_kinds.csv")}


def _kind(row: dict[str, str]) -> StepKind:
    low = float(row["low"])
    usual, high = float(row["usual"] or low), float(row["high"] or row["usual"] or low)
    return StepKind(
        key=row["kind"],
        label=row["label"],
        group=row["group"],  # type: ignore[arg-type]
        lasts=Lasts(low_min=low, usual_min=usual, high_min=high),
        by=row["by"],  # type: ignore[arg-type]
        hands=row["hands"],  # type: ignore[arg-type]
        touches=int(row["touches"] or 1),
        touch_min=float(row["touch_min"] or 0),
        piece_s=float(row["piece_s"] or 0),
        place=row["place"],  # type: ignore[arg-type]
        heat=Warmth(low_c=float(row["heat_low"]), high_c=float(row["heat_high"])) if row["heat_low"] else None,
        does=row["does"],  # type: ignore[arg-type]
        works=float(row["works"] or 0),
        look=row["look"],
        if_not=row["if_not"],
        again_min=float(row["again_min"] or 0),
        waits_min=float(row["waits_min"]) if row["waits_min"] else None,
        waits_cost=row["waits_cost"],
        caution=row["caution"],
        source=row["source"],
    )


def kind_of(step: Step) -> StepKind:
    """The kind of a step."""
    return step_kinds()[step.kind]
