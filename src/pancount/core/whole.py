"""Everything that stands on the formula and count screen, from one call."""

from dataclasses import dataclass
from typing import Literal

from pancount.core.base import Frozen
from pancount.core.beside import Made, as_written
from pancount.core.count import Count, CountResult, solve
from pancount.core.formula import Formula
from pancount.core.gauges import Character, character
from pancount.core.label import Contents, contents
from pancount.core.panned import Panned, panned
from pancount.core.pantry import Pantry
from pancount.core.practice import Practice
from pancount.core.reckon import Reckoned, ReckonedStage, reckon, weight_of
from pancount.core.remarks import Remark, remarks
from pancount.core.rows import Row, whole_rows


@dataclass(frozen=True, slots=True)
class Passing:
    """What comes into a stage or leaves it, as written and in the count; `source` and `share` where it comes from one."""

    what: Literal["fed", "made_up", "boiled_off", "kept_back"]
    source: int | None
    share: float
    weight_g: float
    count_g: float


def _passing(stage: ReckonedStage, ratio: float) -> tuple[Passing, ...]:
    found = []
    for fed in stage.fed:
        found.append(Passing("fed", fed.source, fed.share, fed.weight_g, fed.weight_g * ratio))
        if fed.made_up_g:
            found.append(Passing("made_up", fed.source, fed.share, fed.made_up_g, fed.made_up_g * ratio))
    if stage.boiled_off_g:
        found.append(Passing("boiled_off", None, 1.0, stage.boiled_off_g, stage.boiled_off_g * ratio))
    if stage.kept_back_g:
        found.append(Passing("kept_back", None, 1.0, stage.kept_back_g, stage.kept_back_g * ratio))
    return tuple(found)


class Whole(Frozen):
    """A formula as written, what its dough is, its count, and the pan."""

    formula: Reckoned
    rows: tuple[Row, ...]
    """The whole formula, ingredient by ingredient."""
    character: Character
    remarks: tuple[Remark, ...]
    contents: Contents
    count: CountResult
    count_g: tuple[tuple[float, ...], ...]
    """Each line's weight in the count, by stage, by line. [g]"""
    stage_count_g: tuple[float, ...]
    """What is in each stage's bowl in the count. [g]"""
    passing: tuple[tuple[Passing, ...], ...]
    """What comes into each stage and what leaves it."""
    row_count_g: tuple[float, ...]
    """Each row's weight in the count. [g]"""
    written: Made
    """What the dough as written makes of the formula's usual pieces and pans."""
    pan: Panned | None


def whole_count(formula: Formula, count: Count, pantry: Pantry, practice: Practice) -> Whole:
    """Reckon the formula, look into its dough, solve the count and look into the pan. Raises what `reckon` raises."""
    reckoned = reckon(formula, practice.starter)
    dough = character(formula, reckoned, pantry, practice)
    result = solve(formula, count, reckoned)
    flour_g = result.quantities["flour_g"].value
    rows, ratio = whole_rows(formula, reckoned), flour_g / reckoned.flour_g
    return Whole(
        formula=reckoned,
        rows=rows,
        character=dough,
        remarks=remarks(formula, reckoned, dough, pantry),
        contents=contents(formula, reckoned, pantry),
        count=result,
        count_g=tuple(tuple(weight_of(line.percent, flour_g) for line in stage.lines) for stage in reckoned.stages),
        stage_count_g=tuple(weight_of(stage.bowl_percent, flour_g) for stage in reckoned.stages),
        passing=tuple(_passing(stage, ratio) for stage in reckoned.stages),
        row_count_g=tuple(row.weight_g * ratio for row in rows),
        written=as_written(formula, reckoned),
        pan=panned(formula, count, result),
    )
