"""Aiming a gauge at a wanted figure by letting one line give way. Linear, so it is met exactly."""

from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base.errors import CannotChange
from pancount.core.base.models import Frozen
from pancount.core.formula.formula import Formula, Spot, at, line_at, with_line
from pancount.core.formula.gauges import character, gauge_rules, share_in
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import flour_share, reckon, weight_of
from pancount.core.pantry.ingredients import Pantry

AimedAt = Literal["liquid", "water", "fat", "sugars", "egg", "salt", "yeast"]


class Aim(Frozen):
    """A gauge, the figure wanted of it [%], and the line that gives way."""

    gauge: AimedAt
    wanted: Annotated[float, Field(ge=0, le=1000)]
    stage: Spot
    line: Spot


def with_percent(formula: Formula, s: int, n: int, percent: float, flour_g: float) -> Formula:
    """The formula with a line at so much of its flour, given in grams or percent as it was. What was sure of it is not. [%]"""
    if formula.stages[s].lines[n].weight_g is None:
        return with_line(formula, s, n, percent=percent, band=None)
    return with_line(formula, s, n, weight_g=weight_of(percent, flour_g), band=None)


def aim(formula: Formula, aimed: Aim, pantry: Pantry, practice: Practice) -> Formula:
    """The formula with one line changed so that the gauge reads what is wanted; all flour stays as it is.

    Raises `CannotChange` where the line brings nothing to the gauge, is flour itself, or would have to be less than
    nothing, and what `reckon` raises.
    """
    s, n = aimed.stage, aimed.line
    line, stage = line_at(formula, s, n), formula.stages[s]
    name, label = line.name or "This line", gauge_rules()[aimed.gauge].label.lower()
    if flour_share(line):
        raise CannotChange(f"{name} is part of the 100 %, so it cannot give way. Choose another line.", at(s, n))
    reckoned = reckon(formula, practice.starter)
    holds = share_in(aimed.gauge, line, pantry.find(line.name), stage.kind, practice) * reckoned.stages[s].reach
    if not holds:
        raise CannotChange(f"{name} brings no {label}. Choose a line that does.", at(s, n))
    now = character(formula, reckoned, pantry, practice).gauges[aimed.gauge].value
    has = reckoned.stages[s].lines[n].percent
    percent = has + (aimed.wanted - now) / holds
    if percent < -1e-9:
        raise CannotChange(
            f"{name} would have to be less than nothing: without any of it, {label} is {now - has * holds:.1f} %.",
            at(s, n),
        )
    return with_percent(formula, s, n, max(0.0, percent), reckoned.flour_g)
