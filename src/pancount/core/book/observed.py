"""What one bake says of the kitchen's figures: losses, rises against the model, friction, the oven, how evenly and how quickly hands work."""

from collections.abc import Sequence
from statistics import stdev

from pancount.core.base.models import Brief, Frozen
from pancount.core.bench.bake import Bake
from pancount.core.bench.begun import Begun
from pancount.core.bench.running import MINUTE, TaskNow
from pancount.core.bench.state import BakeNow, Ground
from pancount.core.count.counter import Aim
from pancount.core.count.learned import FigureName, learned_of
from pancount.core.formula.step_kinds import kind_of
from pancount.core.formula.ways import way_of

LEAST_PIECES = 4
"""Of fewer pieces weighed off nothing is said about how evenly they are divided. Common practice, no source."""
LEAST_MIXED_MIN = 3.0
"""Mixing that is shorter says nothing about friction: a thermometer's half degree would be most of it. Common practice, no source. [min]"""
LEAST_HANDS_MIN = 0.5
"""What was told as shorter was ticked off afterwards, not timed. Common practice, no source. [min]"""


class Observed(Frozen):
    """What a bake says of one figure; in the figure's own unit."""

    figure: FigureName
    of: Brief = ""
    way: Brief = ""
    value: float
    usual: float | None = None
    """What stood in without the book, where it goes by the formula or the kind of step; None for the trade's one figure."""


def observed_of(
    ground: Ground, bake: Bake, now: BakeNow, bench_loss: float | None, bake_loss: float | None, weighed: Sequence[Sequence[float]]
) -> tuple[Observed, ...]:
    """All that a bake says; `weighed`: the pieces of each target as they were weighed off. [g]"""
    begun, found = ground.begun, list[Observed]()
    usual = begun.formula.usual
    if bench_loss is not None:
        found.append(Observed(figure="bench_loss", value=bench_loss, usual=usual.bench_loss))
    if bake_loss is not None:
        kind = begun.count.targets[0].fill_kind or usual.fill_kind
        found.append(Observed(figure="bake_loss", of=kind, value=bake_loss, usual=_unlearned_loss(begun)))
    found += [Observed(figure="spread_g", value=stdev(pieces)) for pieces in weighed if len(pieces) >= LEAST_PIECES and stdev(pieces) > 0]
    found += _rises(begun, now)
    found += _hands(begun, now)
    if (oven := _oven(begun, bake)) is not None:
        found.append(oven)
    if (friction := _friction(begun, now.dough.measured_c)) is not None:
        found.append(friction)
    return tuple(found)


def _unlearned_loss(begun: Begun) -> float:
    """The baking loss that stands in where nothing was learned."""
    return Aim(begun.count.targets[0], begun.formula.usual).bake_loss


def _took(task: TaskNow) -> float | None:
    """How long something was under way; None where it was not told, or ticked off at once. [min]"""
    if task.began_s is None or task.done_s is None or task.status != "done":
        return None
    minutes = (task.done_s - task.began_s) / MINUTE
    return minutes if minutes >= LEAST_HANDS_MIN else None


def _rises(begun: Begun, now: BakeNow) -> list[Observed]:
    """Rises of the dough in the room, over what the model says without what was learned before: for a dough as warm as it was measured."""
    way, found = way_of(begun.formula, begun.count.way), list[Observed]()
    for task in now.tasks:
        figures = next((one for one in now.rises if one.step == task.step), None)
        minutes = _took(task)
        if figures is None or not figures.usual_min or minutes is None or task.on or way.steps[task.step].place == "fridge":
            continue
        known = learned_of(begun.count.learned, "rise", task.kind, way.key)
        model = figures.usual_min / (known.value if known else begun.climate.rise_factor)
        found.append(Observed(figure="rise", of=task.kind, way=way.key, value=minutes / model))
    return found


def _hands(begun: Begun, now: BakeNow) -> list[Observed]:
    """What goes by pieces, for each piece; and how long the oven takes to be hot."""
    way, found = way_of(begun.formula, begun.count.way), list[Observed]()
    pieces = sum(one.pieces for one in now.making.targets) if now.making else 0
    for task in now.tasks:
        minutes, step = _took(task), way.steps[task.step]
        kind = kind_of(step)
        if minutes is None or task.load >= 0 or task.mix > 0 or task.on:
            continue
        if kind.piece_s and pieces and kind.hands == "all":
            usual = step.lasts.usual_min / pieces if step.lasts else kind.piece_s / 60
            found.append(Observed(figure="minutes", of=kind.key, way=way.key, value=minutes / pieces, usual=usual))
        elif kind.key == "preheat":
            found.append(Observed(figure="minutes", of=kind.key, way=way.key, value=minutes, usual=(step.lasts or kind.lasts).usual_min))
    return found


def _oven(begun: Begun, bake: Bake) -> Observed | None:
    """By how much the oven was hotter than it was set to."""
    measured, dial = bake.latest("oven_c"), next((one.dial_c for one in begun.method.bakes if one.dial_c is not None), None)
    return None if measured is None or dial is None else Observed(figure="oven_error_c", value=measured - dial)


def _friction(begun: Begun, dough_c: float | None) -> Observed | None:
    """What a minute of mixing warmed the dough by, where it was mixed by machine alone or by hand alone."""
    water = begun.method.water
    if dough_c is None or water is None:
        return None
    machine, hand = water.machine_min, water.hand_min
    if machine >= LEAST_MIXED_MIN and hand < machine / 4:
        return Observed(figure="machine_c_min", value=begun.climate.machine_c_min + (dough_c - water.reached_c) / machine)
    if hand >= LEAST_MIXED_MIN and machine < hand / 4:
        return Observed(figure="hand_c_min", value=begun.climate.hand_c_min + (dough_c - water.reached_c) / hand)
    return None
