"""Ways to make one dough: what a way makes of the formula, another dose of yeast in it, and two ways side by side."""

from collections.abc import Iterator
from difflib import SequenceMatcher
from itertools import count
from typing import TypeVar

from pancount.core.base import most
from pancount.core.base.errors import CannotChange
from pancount.core.base.models import Frozen
from pancount.core.formula.formula import Beside, Formula, Line, Stage, Way, each_line, with_line
from pancount.core.formula.gauges import character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.formula.stages import main_stage
from pancount.core.formula.step_kinds import kind_of
from pancount.core.formula.steps import OtherPercent, Step, Takes
from pancount.core.pantry.ingredients import Pantry

LEAST_YEAST = 1e-4
"""Less than this is no dose. [% of flour]"""


def way_number(formula: Formula, key: str) -> int:
    """Which way goes by a key; the first for none, and where it is gone."""
    return next((n for n, way in enumerate(formula.ways) if key and way.key == key), 0)


def way_of(formula: Formula, key: str) -> Way:
    """The way that goes by a key; an empty one where the formula has none yet."""
    return formula.ways[way_number(formula, key)] if formula.ways else Way()


def in_way(formula: Formula, key: str) -> Formula:
    """The formula as a way has it: with its own stages, where it has any, and its own percentages."""
    way = way_of(formula, key)
    if way.stages is not None:
        formula = formula.model_copy(update={"stages": way.stages})
    told = {one.key: one.percent for one in way.changed}
    for s, n, line in each_line(formula) if told else ():
        if line.key in told:
            formula = with_line(formula, s, n, percent=told[line.key], weight_g=None, band=None)
    return formula


def with_way(formula: Formula, number: int, way: Way) -> Formula:
    """The formula with one of its ways changed, or one more."""
    return formula.model_copy(update={"ways": (*formula.ways[:number], way, *formula.ways[number + 1 :])})


Called = TypeVar("Called", Line, Stage, Beside)


def keyed(formula: Formula) -> Formula:
    """The formula with a key on every line and stage and on what is beside the dough, so that steps can call them; those there are stay."""
    parts: list[Stage | Beside] = [*formula.stages, *formula.beside, *(stage for way in formula.ways for stage in way.stages or ())]
    taken = {part.key for part in parts} | {line.key for part in parts for line in part.lines}
    free = (key for n in count(1) if (key := f"k{n}") not in taken)

    def with_key(one: Called) -> Called:
        return one if one.key else one.model_copy(update={"key": next(free)})

    def all_keyed(some: tuple[Stage, ...]) -> tuple[Stage, ...]:
        return tuple(with_key(stage.model_copy(update={"lines": tuple(map(with_key, stage.lines))})) for stage in some)

    ways = tuple(way if way.stages is None else way.model_copy(update={"stages": all_keyed(way.stages)}) for way in formula.ways)
    beside = tuple(map(with_key, formula.beside))
    return formula.model_copy(update={"stages": all_keyed(formula.stages), "beside": beside, "ways": ways})


def with_yeast(formula: Formula, key: str, yeast: float, pantry: Pantry, practice: Practice) -> Formula:
    """A way with so much yeast, as instant, in all: the dough's own makes up what other stages do not bring. [% of flour]

    Its rises keep the dose that their times were told for. Raises `CannotChange` where the dough itself has no yeast, or what is made before
    it brings more; and what `reckon` raises.
    """
    formula, number = keyed(formula), way_number(formula, key)
    way, dough = way_of(formula, key), in_way(formula, key)
    reckoned, main = reckon(dough, practice.starter), main_stage(dough)
    gauge = character(dough, reckoned, pantry, practice).gauges["yeast"]
    own = {one.line: one.percent for one in gauge.brings if one.stage == main and not one.apart and one.percent > 0}
    if not own:
        raise CannotChange("The dough itself has no yeast to change. Give it a line of yeast first.")
    others = gauge.value - sum(own.values())
    if yeast - others < LEAST_YEAST:
        raise CannotChange(f"What is made before the dough brings {others:.2g} % already, so {yeast:.2g} % cannot be had: use less there.")
    times = (yeast - others) / sum(own.values())
    changed = {one.key: one.percent for one in way.changed}
    changed |= {dough.stages[main].lines[n].key: reckoned.stages[main].lines[n].percent * times for n in own}
    return with_way(
        formula,
        number,
        way.model_copy(
            update={
                "steps": tuple(_told_for(step, gauge.value) for step in way.steps),
                "changed": tuple(OtherPercent(key=line, percent=percent) for line, percent in changed.items()),
            }
        ),
    )


def _told_for(step: Step, yeast: float) -> Step:
    """A rise with the dose that its times were told for, where that is not told yet."""
    if kind_of(step).does != "rises" or step.told_yeast is not None:
        return step
    return step.model_copy(update={"told_yeast": yeast})


class StepPair(Frozen):
    """A step of one way beside that of another; None where a side has none."""

    ours: int | None
    theirs: int | None
    alike: bool


def paired(ours: Way, theirs: Way) -> tuple[StepPair, ...]:
    """Steps of two ways side by side, in order: those of one kind on one thing stand together."""
    left, right = ([(step.kind, step.of) for step in way.steps] for way in (ours, theirs))
    found: list[StepPair] = []
    for tag, a, b, c, d in SequenceMatcher(None, left, right, autojunk=False).get_opcodes():
        if tag == "equal":
            found += [StepPair(ours=i, theirs=j, alike=_same(ours.steps[i], theirs.steps[j])) for i, j in zip(range(a, b), range(c, d), strict=True)]
        else:
            found += [StepPair(ours=i, theirs=None, alike=False) for i in range(a, b)]
            found += [StepPair(ours=None, theirs=j, alike=False) for j in range(c, d)]
    return tuple(found)


def _same(a: Step, b: Step) -> bool:
    """Whether two steps are the same to a baker, who does not see by which keys they go and for which dose a rise was told."""
    bare = [
        step.model_copy(update={"told_yeast": None, "takes": tuple(one.model_copy(update={"key": ""}) for one in step.takes)}) for step in (a, b)
    ]
    return bare[0] == bare[1]


class ComparedWay(Frozen):
    """A way on both sides, by its name; None where a side has none of it."""

    name: str
    ours: int | None
    theirs: int | None
    steps: tuple[StepPair, ...]
    alike: bool


def compared_ways(ours: Formula, theirs: Formula) -> tuple[ComparedWay, ...]:
    """The ways of two formulas side by side, those that differ first."""
    left, right = ({way.name.casefold(): n for n, way in reversed(list(enumerate(one.ways)))} for one in (ours, theirs))
    found = []
    for name in dict.fromkeys((*left, *right)):
        a, b = left.get(name), right.get(name)
        pairs = paired(ours.ways[a], theirs.ways[b]) if a is not None and b is not None else ()
        way = ours.ways[a] if a is not None else theirs.ways[right[name]]
        alike = a is not None and b is not None and all(pair.alike for pair in pairs) and _dough_of(ours.ways[a]) == _dough_of(theirs.ways[b])
        found.append(ComparedWay(name=way.name, ours=a, theirs=b, steps=pairs, alike=alike))
    return tuple(sorted(found, key=lambda one: one.alike))


def _dough_of(way: Way) -> tuple[object, ...]:
    """What a way has otherwise than its formula."""
    return way.stages, sorted(one.percent for one in way.changed), way.dough_c


def bring_way(formula: Formula, theirs: Formula, number: int) -> Formula:
    """Our formula with one of their ways, in place of the one of its name, else as one more. What its steps name is found here by name; what
    is not here stays named in the step, and is told. Raises `CannotChange` for a way that is not there, or one too many."""
    if number >= len(theirs.ways):
        raise CannotChange("There is no such way in the other formula.", ("ways", number))
    formula, theirs = keyed(formula), keyed(theirs)
    way = theirs.ways[number]
    at = next((n for n, own in enumerate(formula.ways) if own.name.casefold() == way.name.casefold()), len(formula.ways))
    if at == most.FORMULA_WAYS:
        raise CannotChange(f"There are {most.FORMULA_WAYS} ways already: take one away first.", ("ways",))
    if way.stages is None:
        here = dict(_places(formula))
        ours = {key: here[place] for place, key in _places(theirs) if place in here}
        way = _in_keys(way, ours)
    taken = {own.key for n, own in enumerate(formula.ways) if n != at}
    key = next(key for key in (way.key, *(f"way {n}" for n in range(1, len(taken) + 2))) if key not in taken)
    return with_way(formula, at, way.model_copy(update={"key": key}))


def _places(formula: Formula) -> Iterator[tuple[tuple[str, ...], str]]:
    """Everything that steps may call, by what it is and what it is called, with its key; the first of several alike comes last, so that it stays."""
    for stage in reversed(formula.stages):
        yield ("stage", stage.kind), stage.key
        for line in reversed(stage.lines):
            yield ("line", stage.kind, line.name.casefold()), line.key
    for one in reversed(formula.beside):
        yield ("beside", one.kind, one.name.casefold()), one.key


def _in_keys(way: Way, ours: dict[str, str]) -> Way:
    """A way that calls things by our keys; what has none here keeps a key that nothing has."""

    def key_of(key: str) -> str:
        return ours.get(key, f"not here {key}"[:40]) if key else ""

    def taken(one: Takes) -> Takes:
        return one.model_copy(update={"key": key_of(one.key)})

    return way.model_copy(
        update={
            "steps": tuple(step.model_copy(update={"of": key_of(step.of), "takes": tuple(map(taken, step.takes))}) for step in way.steps),
            "changed": tuple(one.model_copy(update={"key": key_of(one.key)}) for one in way.changed),
            "warm": tuple(one.model_copy(update={"key": key_of(one.key)}) for one in way.warm),
        }
    )
