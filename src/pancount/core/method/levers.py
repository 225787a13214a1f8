"""What would make a way end when it is to be: another dose of yeast, or another warmth for one of its rises."""

from collections.abc import Callable
from math import exp, log
from typing import Literal

from scipy.optimize import brentq

from pancount.core.base.models import Frozen
from pancount.core.heat.rising import bakers_yeast, rules

LEAST_TRIED, MOST_TRIED = 0.005, 12.0
"""Doses between which one is sought, in and far out of practice. [% of flour]"""
COLD_CORNER_C, WARM_SPOT_C = 10.0, 35.0
"""Below, a dough stands in a fridge; above, it dries out and tastes of it. Common practice, no source. [°C]"""
MOST_LEVERS = 6
"""Rises whose warmth is sought; those of a usual way are two or three."""


class Lever(Frozen):
    """One thing that would do it, all else as it is: a dose of yeast, as instant, for all rises [%], or how warm one step stands [°C]."""

    what: Literal["yeast", "warmth"]
    step: int | None
    """Which step it is; None of the yeast."""
    now: float
    needed: float | None
    """None where none does."""
    usual: bool
    """Whether it lies within practice."""
    says: str


def yeast_lever(late: Callable[[float], float], now: float) -> Lever:
    """The dose at which the way is not `late`; that falls as the dose grows. [min]"""

    def late_at(dose: float) -> float:
        return late(exp(dose))

    if now <= 0:
        return _none("yeast", None, now, "A levain’s rise is not set by a dose of yeast: change how warm it stands, or how long.")
    if late_at(log(MOST_TRIED)) > 0:
        return _none("yeast", None, now, "No dose of yeast is enough: begin sooner, or somewhere warmer.")
    if late_at(log(LEAST_TRIED)) < 0:
        return _none("yeast", None, now, "Even a trace of yeast is too quick: begin later, or put a rise into the fridge.")
    its, needed = rules(), exp(float(brentq(late_at, log(LEAST_TRIED), log(MOST_TRIED), xtol=2e-5)))
    usual = its["yeast_least"] <= needed <= its["yeast_most"]
    says = "" if usual else f"{needed:.2g} % is outside of practice ({its['yeast_least']:g} to {its['yeast_most']:g} %), so only a guess."
    return Lever(what="yeast", step=None, now=now, needed=needed, usual=usual, says=says)


def warmth_lever(late: Callable[[float], float], step: int, now_c: float) -> Lever:
    """How warm a rise must stand for the way not to be `late`; that falls as it gets warmer, up to the yeast's best. [min]"""
    coldest, best = bakers_yeast().least_c + 0.5, bakers_yeast().best_c
    if late(best) > 0:
        return _none("warmth", step, now_c, "Nowhere is warm enough for that.")
    if late(coldest) < 0:
        return _none("warmth", step, now_c, "Even in the fridge it would be too quick.")
    needed = float(brentq(late, coldest, best, xtol=1e-3))
    usual = COLD_CORNER_C <= needed <= WARM_SPOT_C
    return Lever(what="warmth", step=step, now=now_c, needed=needed, usual=usual, says="" if usual else "As cold as that is only a fridge: move it there, for longer.")


def _none(what: Literal["yeast", "warmth"], step: int | None, now: float, says: str) -> Lever:
    return Lever(what=what, step=step, now=now, needed=None, usual=False, says=says)
