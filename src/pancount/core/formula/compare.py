"""Two formulas side by side on the same flour: line by line and gauge by gauge, differences first."""

from dataclasses import dataclass
from typing import Literal

from pancount.core.base.errors import CannotChange
from pancount.core.base.models import Frozen
from pancount.core.formula.formula import Formula, Line, Spot, Stage, StageKind, at, with_stage
from pancount.core.formula.gauges import Character, GaugeName, character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import Reckoned, reckon, weight_of, with_flour_made_up
from pancount.core.formula.stages import main_stage
from pancount.core.formula.ways import ComparedWay, bring_way, compared_ways
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.role import Role

ALIKE, GAUGE_ALIKE = 0.005, 0.05
"""Lines, and gauges, that differ by less than this are the same to the baker. [%]"""


@dataclass(frozen=True, slots=True)
class LineAt:
    """Where a line stands."""

    stage: int
    line: int


class ComparedLine(Frozen):
    """An ingredient in a stage, on both sides; None where a side has none of it."""

    stage: str
    kind: StageKind
    name: str
    role: Role | None
    ours: LineAt | None
    theirs: LineAt | None
    ours_percent: float | None
    theirs_percent: float | None
    ours_g: float | None
    theirs_g: float | None
    differs: float
    """Ours less theirs. [%]"""
    alike: bool


class ComparedGauge(Frozen):
    """A gauge on both sides. [%]"""

    key: GaugeName
    ours: float
    theirs: float
    differs: float
    alike: bool


class Compared(Frozen):
    """Two formulas on the same flour, what differs most first."""

    flour_g: float
    lines: tuple[ComparedLine, ...]
    gauges: tuple[ComparedGauge, ...]
    ours: Character
    theirs: Character
    ways: tuple[ComparedWay, ...]
    same: bool
    """Line by line; their ways may differ."""


def _slot(formula: Formula, s: int) -> tuple[StageKind, int]:
    """What a stage is matched by: its kind, and of several of one kind, which it is."""
    kind = formula.stages[s].kind
    return kind, sum(stage.kind is kind for stage in formula.stages[:s])


class _Side:
    """One formula's lines by stage and name."""

    def __init__(self, formula: Formula, pantry: Pantry, practice: Practice) -> None:
        self.formula = formula
        self.reckoned: Reckoned = reckon(formula, practice.starter)
        self.character = character(formula, self.reckoned, pantry, practice)
        self.found: dict[tuple[tuple[StageKind, int], str, int], LineAt] = {}
        for s, stage in enumerate(formula.stages):
            slot = _slot(formula, s)
            for n, line in enumerate(stage.lines):
                if line.blank:
                    continue
                known = pantry.find(line.name)
                name = (known.name if known else line.name).casefold()
                nth = 0
                while (slot, name, nth) in self.found:
                    nth += 1
                self.found[(slot, name, nth)] = LineAt(s, n)

    def line(self, spot: LineAt) -> Line:
        return self.formula.stages[spot.stage].lines[spot.line]

    def percent(self, spot: LineAt | None) -> float | None:
        return None if spot is None else self.reckoned.stages[spot.stage].lines[spot.line].percent


def compare(ours: Formula, theirs: Formula, flour_g: float, pantry: Pantry, practice: Practice) -> Compared:
    """Both formulas on the same total flour. Stages go together by kind, lines by ingredient. Raises what `reckon` raises."""
    left, right = _Side(ours, pantry, practice), _Side(theirs, pantry, practice)
    lines = []
    for key in dict.fromkeys((*left.found, *right.found)):
        mine, other = left.found.get(key), right.found.get(key)
        side, spot = (left, mine) if mine is not None else (right, other)
        assert spot is not None
        line, stage = side.line(spot), side.formula.stages[spot.stage]
        a, b = left.percent(mine), right.percent(other)
        differs = (a or 0.0) - (b or 0.0)
        lines.append(
            ComparedLine(
                stage=stage.name,
                kind=stage.kind,
                name=line.name,
                role=line.role,
                ours=mine,
                theirs=other,
                ours_percent=a,
                theirs_percent=b,
                ours_g=None if a is None else weight_of(a, flour_g),
                theirs_g=None if b is None else weight_of(b, flour_g),
                differs=differs,
                alike=mine is not None and other is not None and abs(differs) < ALIKE,
            )
        )
    gauges = []
    for gauge in left.character.gauges:
        x, y = left.character.gauges[gauge].value, right.character.gauges[gauge].value
        gauges.append(ComparedGauge(key=gauge, ours=x, theirs=y, differs=x - y, alike=abs(x - y) < GAUGE_ALIKE))
    return Compared(
        flour_g=flour_g,
        lines=tuple(sorted(lines, key=_rank)),
        gauges=tuple(sorted(gauges, key=_rank)),
        ours=left.character,
        theirs=right.character,
        ways=compared_ways(ours, theirs),
        same=all(line.alike for line in lines),
    )


def _rank(one: ComparedLine | ComparedGauge) -> tuple[bool, float]:
    """What differs before what does not, the most first; what is alike stays in its order."""
    return one.alike, 0.0 if one.alike else -abs(one.differs)


class BringOver(Frozen):
    """What to bring over from another formula: one line, a whole stage, or a way."""

    what: Literal["line", "stage", "way"]
    theirs: Formula
    stage: Spot = 0
    line: Spot = 0
    way: Spot = 0


def bring_over(formula: Formula, wanted: BringOver) -> Formula:
    """Our formula with their way, or with their line or stage at the same percentage of all flour.

    A line takes the place of the one of its name in the stage of its kind, else it comes at its end; a stage takes the
    place of the one of its kind, else it comes before the dough. Its flour comes with it: where flours are given in
    percent, the largest of the dough makes room. Raises `CannotChange`, and what `reckon` raises.
    """
    if wanted.what == "way":
        return bring_way(formula, wanted.theirs, wanted.way)
    theirs, reckoned = wanted.theirs, reckon(wanted.theirs)
    if wanted.stage >= len(theirs.stages):
        raise CannotChange("There is no such stage in the other formula.", ("stages", wanted.stage))
    stage = theirs.stages[wanted.stage]
    lines = tuple(
        line.model_copy(update={"percent": figures.percent, "weight_g": None, "band": None})
        if figures.given != "open" else line
        for line, figures in zip(stage.lines, reckoned.stages[wanted.stage].lines, strict=True)
    )  # fmt: skip
    slot = _slot(theirs, wanted.stage)
    target = next((s for s in range(len(formula.stages)) if _slot(formula, s) == slot), None)
    if wanted.what == "stage":
        new = Stage(name=stage.name, kind=stage.kind, boiled_off=stage.boiled_off, lines=_as_ours(lines, formula))
        stages = list(formula.stages)
        if target is None:
            stages.insert(max(main_stage(formula), 0) if stage.kind not in LAST else len(stages), new)
        else:
            old = stages[target]
            stages[target] = new.model_copy(update={"key": old.key, "feeds": old.feeds})
        return with_flour_made_up(formula.model_copy(update={"stages": tuple(stages)}))
    if wanted.line >= len(lines):
        raise CannotChange("There is no such line in the other formula.", at(wanted.stage, wanted.line))
    line = lines[wanted.line]
    s = main_stage(formula) if target is None else target
    if s < 0:
        raise CannotChange("There is no stage to bring it into.")
    own = list(formula.stages[s].lines)
    there = [n for n, other in enumerate(own) if other.name.casefold() == line.name.casefold()]
    (line,) = _as_ours((line,), formula)
    own[there[0] if there else len(own) : (there[0] + 1) if there else len(own)] = [line]
    return with_flour_made_up(with_stage(formula, s, lines=tuple(own)))


LAST = (StageKind.DOUGH, StageKind.LATE, StageKind.INCLUSIONS)


def _as_ours(lines: tuple[Line, ...], formula: Formula) -> tuple[Line, ...]:
    """Lines given by weight where our flour is, so that the two ways are not mixed among flours."""
    ours = reckon(formula)
    if ours.flour_given == "percent":
        return lines
    return tuple(
        line if line.percent is None
        else line.model_copy(update={"weight_g": weight_of(line.percent, ours.flour_g), "percent": None})
        for line in lines
    )  # fmt: skip
