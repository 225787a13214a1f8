"""How much heat a food holds, by what it is made of."""

from functools import cache

from pancount.core.base.datafiles import rows
from pancount.core.pantry.ingredients import Composition

BOWLS = {"glass": 0.84, "steel": 0.50, "none": 0.0}
"""What a bowl is of, and its specific heat; handbook values, recalled from memory. [J/(g·K)]"""
MELTING_J_G = 334.0
"""What a gram of ice at 0 °C takes up to be water at 0 °C; handbook value, recalled from memory. [J/g]"""


@cache
def parts() -> dict[str, float]:
    """Specific heat of what foods are made of, near 20 °C. [J/(g·K)]"""
    return {row["part"]: float(row["j_per_g_k"]) for row in rows(__name__, "specific_heats.csv")}


def specific_heat(made_of: Composition | None) -> float:
    """A food's specific heat: the sum of its parts. What nobody has told counts as flour does. [J/(g·K)]

    >>> round(specific_heat(Composition(water=100)), 2)
    4.18
    """
    if made_of is None:
        return UNKNOWN_J_GK
    known = {"water": made_of.water, "protein": made_of.protein, "fat": made_of.fat, "carbohydrate": made_of.carbohydrate}
    rest = max(0.0, 100 - sum(known.values()))
    return sum(parts()[part] * share for part, share in (known | {"ash": rest}).items()) / 100


UNKNOWN_J_GK = 1.9
"""Of what is not in the pantry: between flour (1.9) and sugar (1.6), far below water. Common practice, no source. [J/(g·K)]"""
