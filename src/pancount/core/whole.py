"""Everything that stands on the formula and count screen, from one call."""

from pancount.core.base import Frozen
from pancount.core.count import Count, CountResult, solve
from pancount.core.formula import Formula
from pancount.core.panned import Panned, panned
from pancount.core.reckon import Reckoned, reckon, weight_of


class Whole(Frozen):
    """A formula as written, its count, and the pan; `count_g` is each line's weight in the count, by stage, by line."""

    formula: Reckoned
    count: CountResult
    count_g: tuple[tuple[float, ...], ...]
    stage_count_g: tuple[float, ...]
    pan: Panned | None


def whole_count(formula: Formula, count: Count) -> Whole:
    """Reckon the formula, solve the count and look into the pan. Raises what `reckon` raises."""
    reckoned = reckon(formula)
    result = solve(formula, count, reckoned)
    flour_g = result.quantities["flour_g"].value
    return Whole(
        formula=reckoned,
        count=result,
        count_g=tuple(tuple(weight_of(line.percent, flour_g) for line in stage.lines) for stage in reckoned.stages),
        stage_count_g=tuple(weight_of(stage.percent, flour_g) for stage in reckoned.stages),
        pan=panned(formula, count, result),
    )
