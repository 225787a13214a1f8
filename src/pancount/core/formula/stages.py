"""Stages as a directed graph: what each kind of stage does, where each goes, and how much of it reaches the dough.

Where a stage goes is linear in its lines: what reaches the dough of a line is its weight times the stage's `reach`.
Which flour and water a preferment, a paste or a soaker holds, and that they are part of the whole, is common practice,
no source.
"""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache
from graphlib import CycleError, TopologicalSorter
from typing import Any, Literal

from pydantic import field_validator

from pancount.core.base.datafiles import rows
from pancount.core.base.errors import FedTwice, NoSuchStage, StageLoop
from pancount.core.base.models import Frozen
from pancount.core.formula.formula import BesideKind, Formula, Stage, StageKind

MORE_THAN_ALL = 1e-9
"""Shares that come to more than 1 by no more than this are all of it: floating point is no mistake of the baker's."""


class KindRule(Frozen):
    """A kind of stage: what it does, and for one that holds part of the flour, how much of it and how wet it usually is."""

    kind: StageKind
    label: str
    words: tuple[str, ...]
    """Words in a stage's name that tell its kind."""
    does: Literal["ferments", "cooks", "soaks", "mixes", "late"]
    hydration: float | None
    """Usual liquid over its own flour. [%]"""
    low: float | None
    high: float | None
    flour: float | None
    """The usual share of all flour in it. [%]"""
    yeast: float
    """The usual yeast over its own flour, as instant. [%]"""
    salt: bool
    """Whether it holds its share of the dough's salt, as dough kept from an earlier bake does."""
    source: str

    @field_validator("hydration", "low", "high", "flour", mode="before")
    @classmethod
    def _blank(cls, value: object) -> object:
        return None if value == "" else value


class BesideRule(Frozen):
    """A kind of thing beside the dough: what it is scaled with, and what to take care of."""

    kind: BesideKind
    label: str
    words: tuple[str, ...]
    per: Literal["pieces", "surface", "area", "inside", "dough", "pot"]
    """`surface`: what shows; `area`: the same inside a border on a slab; `inside`: base and sides of the pans; `pot`: the
    kitchen's pot of it serves the whole batch."""
    caution: str
    source: str


@cache
def kinds() -> dict[StageKind, KindRule]:
    """Kinds of stage, in the order in which they are usually made."""
    return {StageKind(row["kind"]): KindRule.model_validate(_worded(row)) for row in rows(__name__, "stages.csv")}


@cache
def beside_kinds() -> dict[BesideKind, BesideRule]:
    """Kinds of things beside the dough."""
    return {BesideKind(row["kind"]): BesideRule.model_validate(_worded(row)) for row in rows(__name__, "beside.csv")}


def _worded(row: dict[str, Any]) -> dict[str, Any]:
    return row | {"words": tuple(row["words"].split(";"))}


def _says(name: str, words: Iterable[str]) -> bool:
    """Whether one of the words stands in a name, whole."""
    spaced = " " + re.sub(r"[^\w-]+", " ", name.casefold()) + " "
    return any(f" {word} " in spaced for word in words)


def kinds_named(names: Sequence[str]) -> tuple[StageKind, ...]:
    """What stages are by their names. One of them is the dough: where none is called so, the last that is not late."""
    found = [
        next((kind for kind, rule in kinds().items() if _says(name, rule.words)), StageKind.DOUGH) for name in names
    ]
    if found and StageKind.DOUGH not in found:
        late = (StageKind.LATE, StageKind.INCLUSIONS)
        found[max((n for n, kind in enumerate(found) if kind not in late), default=0)] = StageKind.DOUGH
    return tuple(found)


def beside_named(name: str) -> BesideKind:
    """What something beside the dough is by its name; a topping where that tells nothing."""
    return next((kind for kind, rule in beside_kinds().items() if _says(name, rule.words)), BesideKind.TOPPING)


FERMENTS = frozenset(kind for kind, rule in kinds().items() if rule.does == "ferments")
BEFORE = frozenset(kind for kind, rule in kinds().items() if rule.does in ("ferments", "cooks", "soaks"))
"""Kinds that are made before the dough and go into it."""


@dataclass(frozen=True, slots=True)
class Part:
    """A share of one stage that goes into another."""

    source: int
    target: int
    share: float


@dataclass(frozen=True, slots=True)
class Flow:
    """Where every stage of a formula goes."""

    parts: tuple[Part, ...]
    reach: tuple[float, ...]
    """Of each stage, the share that ends up in the dough; the rest is kept back."""
    order: tuple[int, ...]
    """Stages so that what goes into one comes before it."""
    main: int
    """The stage that is the dough itself; −1 where there is no stage."""

    def into(self, stage: int) -> tuple[Part, ...]:
        """What goes into a stage."""
        return tuple(part for part in self.parts if part.target == stage)

    def out_of(self, stage: int) -> tuple[Part, ...]:
        """Where a stage goes; nothing for one that is part of the finished dough itself."""
        return tuple(part for part in self.parts if part.source == stage)


def main_stage(formula: Formula) -> int:
    """The dough itself: the first stage of that kind, else the last that is neither late nor inclusions; −1 for none."""
    found = [s for s, stage in enumerate(formula.stages) if stage.kind is StageKind.DOUGH]
    if found:
        return found[0]
    late = (StageKind.LATE, StageKind.INCLUSIONS)
    return max((s for s, stage in enumerate(formula.stages) if stage.kind not in late), default=len(formula.stages) - 1)


def stage_name(stage: Stage) -> str:
    """What a stage is called: its name, else what it is."""
    return stage.name or kinds()[stage.kind].label


def flow(formula: Formula) -> Flow:
    """Where every stage goes, and how much of it reaches the dough.

    A stage of which nothing is told goes wholly into the dough, if it is of a kind that is made before it; else it is
    part of the dough. Raises `NoSuchStage`, `FedTwice` or `StageLoop` at the feed that is wrong.
    """
    main = main_stage(formula)
    if not any(stage.feeds for stage in formula.stages):
        parts = tuple(
            Part(s, main, 1.0) for s, stage in enumerate(formula.stages) if s != main and stage.kind in BEFORE
        )
        last = [] if main < 0 else [main]
        order = (*(s for s in range(len(formula.stages)) if s != main), *last)
        return Flow(parts, (1.0,) * len(formula.stages), order, main)
    return _told_flow(formula, main)


def _told_flow(formula: Formula, main: int) -> Flow:
    by_key = {stage.key: s for s, stage in enumerate(formula.stages) if stage.key}
    parts: list[Part] = []
    for s, stage in enumerate(formula.stages):
        if not stage.feeds:
            if s != main and stage.kind in BEFORE:
                parts.append(Part(s, main, 1.0))
            continue
        for f, feed in enumerate(stage.feeds):
            if feed.into not in by_key:
                raise NoSuchStage(
                    f"{stage_name(stage)} goes into a stage that is not there any more. Choose where it goes.",
                    ("stages", s, "feeds", f),
                )
            parts.append(Part(s, by_key[feed.into], feed.share))
        if (told := sum(feed.share for feed in stage.feeds)) > 1 + MORE_THAN_ALL:
            raise FedTwice(
                f"{told:.0%} of {stage_name(stage)} is put to use, more than there is.".replace("%", " %"),
                ("stages", s, "feeds", len(stage.feeds) - 1),
            )
    graph: dict[int, set[int]] = {s: set() for s in range(len(formula.stages))}
    for part in parts:
        graph[part.target].add(part.source)
    try:
        order = tuple(TopologicalSorter(graph).static_order())
    except CycleError as error:
        circle = error.args[1]
        raise StageLoop(
            f"{' goes into '.join(stage_name(formula.stages[s]) for s in circle)}: a stage cannot go into itself. "
            "Take one of these ways out.",
            ("stages", circle[0], "feeds"),
        ) from error
    reach = [0.0] * len(formula.stages)
    for s in reversed(order):
        out = [part for part in parts if part.source == s]
        reach[s] = sum(part.share * reach[part.target] for part in out) if out else 1.0
    return Flow(tuple(parts), tuple(reach), order, main)
