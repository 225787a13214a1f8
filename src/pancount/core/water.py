"""True water: the water in every ingredient but the flour's own moisture, over all flour.

Bakers quote liquid %; dough behaves by true water, since milk, egg, butter and mash bring theirs. Common practice, no
source; what each ingredient holds stands in the pantry with its source.
"""

from pancount.core.formula import Formula, Role
from pancount.core.pantry import Pantry
from pancount.core.reckon import reckon


def true_water_percent(formula: Formula, pantry: Pantry) -> float:
    """True water over all flour. [%]

    An ingredient without a composition counts as water if it is a liquid, else as dry. Raises what `reckon` raises.
    """
    water = 0.0
    for stage, figures in zip(formula.stages, reckon(formula).stages, strict=True):
        for line, figure in zip(stage.lines, figures.lines, strict=True):
            if line.role is Role.FLOUR:
                continue
            known = pantry.find(line.name)
            if known is not None and known.composition is not None:
                water += figure.percent * known.composition.water / 100
            elif line.role is Role.LIQUID:
                water += figure.percent
    return water
