"""What a solved count makes, and what its labels ask for."""

from pancount.core.count.count import Count
from pancount.core.count.counter import Counter
from pancount.core.count.relations import of
from pancount.core.count.selling import Sold, sold
from pancount.core.count.solver import Solution
from pancount.core.formula.beside import Lots, Made, is_slab, on_each_g
from pancount.core.formula.formula import Formula


def made_of(counter: Counter, solution: Solution, only: int | None = None) -> Made:
    """What a solved count makes, of one target where `only` names it: its own pieces, and the dough that they take."""
    values, lots = solution.values, []
    for i, aim in enumerate(counter.aims):
        if only not in (None, i):
            continue
        pieces, pans = values[of("pieces", i)], values.get(of("pans", i), 0.0)
        slab = is_slab(aim.kind, values.get(of("pieces_per_pan", i), 0))
        lots.append(Lots(pieces, values[of("piece_g", i)], aim.pan, pans, slab))
    dough = values["flour_g"] / counter.written_flour_g
    if only is not None:
        dough *= sum(lot.pieces * lot.piece_g for lot in lots) / values["divide_g"] if values["divide_g"] else 0.0
    return Made(dough, tuple(lots))


def label_weight(
    formula: Formula, written: Made, count: Count, counter: Counter, solution: Solution, i: int
) -> Sold | None:
    """What a target's label asks for, with what stays on a piece; None where it has no label, or nothing is made of it."""
    label_g, pieces = count.targets[i].label_g, int(solution.values[of("pieces", i)])
    if label_g is None or not pieces:
        return None
    on_it_g = on_each_g(formula, written, made_of(counter, solution, i), counter.kit)
    return sold(label_g, pieces, solution.values[of("bake_loss", i)], counter.kit.spread_g, count.rules, on_it_g)
