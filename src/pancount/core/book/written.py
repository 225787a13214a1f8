"""A bake that was not at the bench, written in by hand with as much or as little as is known: made into the events that the bench would have kept."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Annotated
from uuid import UUID, uuid5

from pydantic import Field

from pancount.core.base.models import Brief, Frozen, Words
from pancount.core.bench.events import (
    Added,
    Began,
    Deed,
    Done,
    Ended,
    Event,
    Key,
    Measurement,
    Noted,
    Piece,
    Pour,
    Weighed,
)
from pancount.core.bench.plan import Plan
from pancount.core.bench.running import MINUTE
from pancount.core.bench.state import Ground
from pancount.core.formula.steps import Minutes
from pancount.core.pantry.role import Role

MOST_WRITTEN = 120
"""Lines, or steps, that are told otherwise."""
WRITER = "book"
Warm = Annotated[float, Field(ge=-40, le=400)]
Weight = Annotated[float, Field(gt=0, le=200_000)]


class LineTold(Frozen):
    """What went in of a line, by its key. [g]"""

    line: Key
    g: Pour


class StepTold(Frozen):
    """How long a step took, by its key. [min]"""

    task: Key
    minutes: Minutes


class Written(Frozen):
    """What is known of a bake; what is left open stays so."""

    who: Brief = ""
    lines: Annotated[tuple[LineTold, ...], Field(max_length=MOST_WRITTEN)] = ()
    water_g: Annotated[float, Field(ge=-20_000, le=20_000)] | None = None
    """Added at the mixer, or left out below nothing. [g]"""
    dough_c: Warm | None = None
    room_c: Warm | None = None
    oven_c: Warm | None = None
    middle_c: Warm | None = None
    dough_g: Weight | None = None
    """On the scale before it was divided."""
    pieces: Annotated[tuple[Weight, ...], Field(max_length=200)] = ()
    """As they were weighed off; of several things in the order of the count."""
    steps: Annotated[tuple[StepTold, ...], Field(max_length=MOST_WRITTEN)] = ()
    note: Words = ""


def written_events(ground: Ground, told: Written, name: UUID, begun_s: float, seen: Mapping[str, int] | None = None, *, ends: bool = True) -> tuple[Event, ...]:
    """What is known as events of the bench, written by who has `seen` all that was said before; times as planned, moved by how long steps took.

    Ids are made of `name`: told twice under it, it is told once. [s since 1970, UTC]
    """
    saw, found = dict(seen or {}), list[Event]()
    first = max(saw.values(), default=0) + 1
    for clock, (at_s, deed) in enumerate(_deeds(ground, told, begun_s, ends=ends), first):
        found.append(Event(id=uuid5(name, f"book {clock - first}"), writer=WRITER, clock=clock, saw=saw, at_s=at_s, who=told.who, what=deed))
    return tuple(found)


def _pieces(ground: Ground, weights: Sequence[float]) -> Iterator[Piece]:
    """Weights as pieces of what was made, in the order of the count: as many of each as was meant, and what is over of the last."""
    targets = [n for n, target in enumerate(ground.begun.sheet.targets) for _ in range(target.pieces)]
    for n, g in enumerate(weights):
        yield Piece(target=targets[min(n, len(targets) - 1)] if targets else 0, g=g)


def _deeds(ground: Ground, told: Written, begun_s: float, *, ends: bool) -> Iterator[tuple[float, Deed]]:
    plan = ground.plan
    for line in told.lines:
        yield begun_s, Weighed(line=line.line, g=line.g)
    if told.water_g:
        yield begun_s, _water(plan, told.water_g)
    for name in ("room_c", "oven_c"):
        if (value := getattr(told, name)) is not None:
            yield begun_s, Measurement(what=name, value=value)
    minutes, late_s, at_s = {one.task: one.minutes for one in told.steps}, 0.0, begun_s
    for key in plan.order:
        todo = plan.todos.get(key)
        if todo is None or key not in minutes:
            continue
        at_s = begun_s + todo.begin_min * MINUTE + late_s
        yield at_s, Began(task=key)
        at_s += minutes[key] * MINUTE
        late_s += (minutes[key] - todo.lasts_min) * MINUTE
        yield at_s, Done(task=key)
    if told.dough_c is not None:
        yield at_s, Measurement(what="dough_c", value=told.dough_c)
    if told.dough_g is not None:
        yield at_s, Measurement(what="dough_g", value=told.dough_g)
    for piece in _pieces(ground, told.pieces):
        yield at_s, piece
    if told.middle_c is not None:
        yield at_s, Measurement(what="middle_c", value=told.middle_c)
    if told.note.strip():
        yield at_s, Noted(text=told.note)
    if ends:
        planned = max((one.begin_min + one.lasts_min for one in plan.todos.values()), default=0.0)
        yield max(at_s, begun_s + planned * MINUTE + late_s), Ended(how="done")


def _water(plan: Plan, g: float) -> Deed:
    """To the liquid that there is most of, else by itself."""
    own = [one for one in plan.lines.values() if one.what == "line" and one.role is Role.LIQUID and one.meant_g]
    largest = max(own, key=lambda one: one.meant_g or 0.0, default=None)
    return Added(line=largest.key if largest else None, name="" if largest else "Water", g=g)
