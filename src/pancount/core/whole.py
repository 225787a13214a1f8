"""Everything that stands on the formula and count screen, from one call."""

from pancount.core.base import Frozen
from pancount.core.count import Count, CountResult, solve
from pancount.core.formula import Formula
from pancount.core.gauges import Character, character
from pancount.core.label import Contents, contents
from pancount.core.panned import Panned, panned
from pancount.core.pantry import Pantry
from pancount.core.practice import Practice
from pancount.core.reckon import Reckoned, reckon, weight_of
from pancount.core.remarks import Remark, remarks
from pancount.core.rows import Row, whole_rows


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
    count_ratio: float
    """The count's flour over that of the batch as written."""
    pan: Panned | None


def whole_count(formula: Formula, count: Count, pantry: Pantry, practice: Practice) -> Whole:
    """Reckon the formula, look into its dough, solve the count and look into the pan. Raises what `reckon` raises."""
    reckoned = reckon(formula, practice.starter)
    dough = character(formula, reckoned, pantry, practice)
    result = solve(formula, count, reckoned)
    flour_g = result.quantities["flour_g"].value
    return Whole(
        formula=reckoned,
        rows=whole_rows(formula, reckoned),
        character=dough,
        remarks=remarks(formula, reckoned, dough, pantry),
        contents=contents(formula, reckoned, pantry),
        count=result,
        count_g=tuple(tuple(weight_of(line.percent, flour_g) for line in stage.lines) for stage in reckoned.stages),
        stage_count_g=tuple(weight_of(stage.bowl_percent, flour_g) for stage in reckoned.stages),
        count_ratio=flour_g / reckoned.flour_g,
        pan=panned(formula, count, result),
    )
