"""What goes in at each step, in grams, so that every gram of the formula goes in once or is said to be left.

A line is two things to the steps: what goes in at first, and what is held back. A step that names a line takes its share of either or
both; `rest` takes what nobody names of a stage's lines at first. What is held back goes in only where a step says so.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.formula.formula import Formula, Stage
from pancount.core.formula.stages import main_stage, stage_name
from pancount.core.formula.steps import Step, Takes

Half = Literal["first", "held_back"]
NEXT_TO_NOTHING = 1e-9


class GoesIn(Frozen):
    """Something that goes in at a step: what it is, where it stands, how much of it, and what that weighs in the count."""

    what: Literal["line", "stage", "beside"]
    spot: tuple[int, ...]
    """Stage and line; of a stage or of something beside the dough, which."""
    name: str
    share: float
    """Of the whole line."""
    weight_g: float | None
    """None where its amount is open."""
    held_back: bool
    parts: int
    """In how many goes."""


class Trouble(Frozen):
    """What does not come out even between the steps and the lines."""

    what: Literal["unused", "gone", "twice", "too_early"]
    says: str
    spot: tuple[int, ...]
    """Stage and line of what is unused or used twice; the step of what is gone."""


@dataclass(frozen=True, slots=True)
class Weights:
    """What each line and each stage comes to in the count, and what is beside the dough. [g]"""

    lines: tuple[tuple[float | None, ...], ...]
    stages: tuple[float, ...]
    beside: tuple[float, ...]


def stage_of(formula: Formula, key: str) -> int | None:
    """The stage that a step works on: by key, the dough itself where that is blank. None where there is no such stage."""
    if not key:
        main = main_stage(formula)
        return main if main >= 0 else None
    return next((s for s, stage in enumerate(formula.stages) if stage.key == key), None)


def beside_of(formula: Formula, key: str) -> int | None:
    """What is beside the dough by its key."""
    return next((b for b, one in enumerate(formula.beside) if key and one.key == key), None)


def _line_of(formula: Formula, key: str) -> tuple[int, int] | None:
    places = ((s, n) for s, stage in enumerate(formula.stages) for n, line in enumerate(stage.lines) if key and line.key == key)
    return next(places, None)


def _halves(stage: Stage, n: int, part: str) -> list[tuple[Half, float]]:
    """The parts of a line that `part` means, each with its share of the whole line."""
    held = stage.lines[n].held_back
    shares: list[tuple[Half, float]] = [("first", 1 - held), ("held_back", held)]
    return [(half, share) for half, share in shares if share > 0 and part in ("all", half)]


class _Ledger:
    """What is left of each half of each line, while the steps take from it."""

    def __init__(self, formula: Formula, weights: Weights) -> None:
        self.formula = formula
        self.weights = weights
        self.named: dict[tuple[int, int, Half], float] = {}
        """How much of it steps have named, 1 for all."""

    def name(self, s: int, n: int, takes: Takes) -> None:
        for half, _ in _halves(self.formula.stages[s], n, takes.part):
            self.named[(s, n, half)] = self.named.get((s, n, half), 0.0) + takes.share

    def goes_in(self, s: int, n: int, half: Half, share: float) -> GoesIn:
        line, weight = self.formula.stages[s].lines[n], self.weights.lines[s][n]
        whole = share * (line.held_back if half == "held_back" else 1 - line.held_back)
        return GoesIn(
            what="line",
            spot=(s, n),
            name=line.name,
            share=whole,
            weight_g=None if weight is None else weight * whole,
            held_back=half == "held_back",
            parts=line.parts,
        )


def uses(formula: Formula, steps: Sequence[Step], weights: Weights) -> tuple[tuple[tuple[GoesIn, ...], ...], tuple[Trouble, ...]]:
    """What goes in at each step, and what does not come out even. Never raises: a key that nothing has is told, not refused."""
    book, troubles = _Ledger(formula, weights), list[Trouble]()
    for i, step in enumerate(steps):
        for takes in step.takes:
            if takes.what == "line":
                if (at := _line_of(formula, takes.key)) is None:
                    troubles.append(Trouble(what="gone", spot=(i,), says=f"{takes.called or 'A line'} is not in the formula any more."))
                else:
                    book.name(*at, takes)
    found = [tuple(_taken(book, takes, i, troubles) for takes in step.takes) for i, step in enumerate(steps)]
    troubles += _left(book)
    return tuple(tuple(one for some in taken for one in some) for taken in found), tuple(troubles)


def _taken(book: _Ledger, takes: Takes, i: int, troubles: list[Trouble]) -> list[GoesIn]:
    formula = book.formula
    if takes.what == "line":
        at = _line_of(formula, takes.key)
        return [] if at is None else [book.goes_in(*at, half, takes.share) for half, _ in _halves(formula.stages[at[0]], at[1], takes.part)]
    if takes.what == "beside":
        b = beside_of(formula, takes.key)
        if b is None:
            troubles.append(Trouble(what="gone", spot=(i,), says=f"{takes.called or 'What goes on'} is not beside the dough any more."))
            return []
        return [_made("beside", b, formula.beside[b].name or str(formula.beside[b].kind), book.weights.beside[b], takes.share)]
    s = stage_of(formula, takes.key)
    if s is None:
        troubles.append(Trouble(what="gone", spot=(i,), says=f"{takes.called or 'A stage'} is not in the formula any more."))
        return []
    if takes.what == "stage":
        return [_made("stage", s, stage_name(formula.stages[s]), book.weights.stages[s], takes.share)]
    rest = []
    for n, line in enumerate(formula.stages[s].lines):
        left = 1 - book.named.get((s, n, "first"), 0.0)
        if not line.blank and line.held_back < 1 and left > NEXT_TO_NOTHING:
            rest.append(book.goes_in(s, n, "first", left))
            book.named[(s, n, "first")] = 1.0
    return rest


def _made(what: Literal["stage", "beside"], spot: int, name: str, weight_g: float, share: float) -> GoesIn:
    return GoesIn(what=what, spot=(spot,), name=name, share=share, weight_g=weight_g * share, held_back=False, parts=1)


def _left(book: _Ledger) -> list[Trouble]:
    """Lines that no step takes wholly, and those that steps take more of than there is."""
    found = []
    for s, stage in enumerate(book.formula.stages):
        for n, line in enumerate(stage.lines):
            if line.blank:
                continue
            for half, _ in _halves(stage, n, "all"):
                taken = book.named.get((s, n, half), 0.0)
                what = f"What is held back of {line.name or 'a line'}" if half == "held_back" else line.name or "A line"
                if taken < 1 - NEXT_TO_NOTHING:
                    much = "No step uses" if taken < NEXT_TO_NOTHING else f"Steps use only {taken:.0%} of".replace("%", " %")
                    found.append(Trouble(what="unused", spot=(s, n), says=f"{much} {what[:1].lower()}{what[1:]}." if half == "held_back" else f"{much} {what}."))
                elif taken > 1 + NEXT_TO_NOTHING:
                    found.append(Trouble(what="twice", spot=(s, n), says=f"{what} is used {taken:.2g} times over.".replace(" 2 times over", " twice")))
    return found
