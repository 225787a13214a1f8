"""Two ways of one formula side by side, for one count."""

from pancount.core.base.models import Frozen
from pancount.core.count.count import Count
from pancount.core.formula.compare import Compared, compare
from pancount.core.formula.formula import Formula
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.formula.ways import StepPair, in_way, paired, way_of
from pancount.core.heat.climate import Climate
from pancount.core.method.method import Method, whole_method
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Pantry


class SideBySide(Frozen):
    """The count's way as ours, and another as theirs."""

    ours: Method
    theirs: Method
    pairs: tuple[StepPair, ...]
    compared: Compared
    """The doughs that they make, on the same flour."""


def side_by_side(
    formula: Formula, count: Count, other: str, pantry: Pantry, practice: Practice, kit: Kit, climate: Climate, looking_at: int = 0
) -> SideBySide:
    """The way that a count names beside another, by its key. Raises what `whole_method` raises."""
    ours, theirs = (count, count.model_copy(update={"way": other}))
    doughs = [in_way(formula, one.way) for one in (ours, theirs)]
    methods = [whole_method(formula, one, pantry, practice, kit, climate, looking_at) for one in (ours, theirs)]
    flour_g = reckon(doughs[0], practice.starter).flour_g
    return SideBySide(
        ours=methods[0],
        theirs=methods[1],
        pairs=paired(way_of(formula, ours.way), way_of(formula, other)),
        compared=compare(doughs[0], doughs[1], flour_g, pantry, practice),
    )
