"""The temperature of a mix, and of the water that gives a wanted one.

Heat is kept: what the warm give, the cold take, Σ m·c·(T − T_mix) = 0, with friction and a cold bowl counted in.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from pancount.core.heat.foods import MELTING_J_G, parts

ICE_UNDER_C = 1.0
"""Water is not to be had colder than this without ice in it. [°C]"""
HOTTEST_INTO_FLOUR_C = 50.0
HOTTEST_ON_YEAST_C = 43.0
"""What yeast bears: of water that the flour cools first, and of water that it is stirred into. Common practice, no source. [°C]"""


@dataclass(frozen=True, slots=True)
class Body:
    """Something in the bowl: so many grams, so warm, holding so much heat a gram."""

    name: str
    mass_g: float
    j_per_gk: float
    temp_c: float

    @property
    def holds(self) -> float:
        """Heat for each degree. [J/K]"""
        return self.mass_g * self.j_per_gk


def mixed_c(bodies: Sequence[Body], ice_g: float = 0.0) -> float:
    """The temperature all come to, with so much ice at 0 °C melted in them. Needs something that holds heat. [°C]

    >>> water = [Body("a", 100, 4.18, 10), Body("b", 100, 4.18, 30)]
    >>> round(mixed_c(water), 6)
    20.0
    """
    holds = sum(body.holds for body in bodies) + ice_g * parts()["water"]
    return (sum(body.holds * body.temp_c for body in bodies) - ice_g * MELTING_J_G) / holds


@dataclass(frozen=True, slots=True)
class WaterFor:
    """The water that gives a wanted dough, and what is in the way of it."""

    water_c: float
    """What its temperature would have to be, whether it can be had or not. [°C]"""
    stands: Literal["water", "ice", "too_hot", "too_cold"]
    pour_c: float
    """How warm the water that is poured is: the tap's where ice does the rest, what yeast bears where more would be needed. [°C]"""
    ice_g: float
    pour_g: float
    reached_c: float
    """The dough that comes of it: the wanted one, unless it is too hot or too cold for that. [°C]"""


def water_for(
    others: Sequence[Body], liquid: Body, wanted_c: float, warms_c: float, coldest_c: float, hottest_c: float, *, may_be_ice: bool = True
) -> WaterFor:
    """The water (or other liquid) for a wanted dough temperature: `others` is all but it, `warms_c` what mixing warms the dough by.

    `coldest_c` is what it is to be had at. Where water would be under 1 °C, part of it is ice; where all of it as ice would not do, that is the
    coldest dough there is. Where it would be hotter than yeast bears, it stays at that and the dough comes out cooler.
    """
    holds, grams = liquid.holds, liquid.mass_g

    def dough(pour_c: float, ice_g: float = 0.0) -> float:
        poured = Body(liquid.name, grams - ice_g, liquid.j_per_gk, pour_c)
        return mixed_c([*others, poured], ice_g) + warms_c

    above = sum(body.holds * (body.temp_c - wanted_c) for body in others)
    water_c = wanted_c - (above + (sum(body.holds for body in others) + holds) * warms_c) / holds
    if water_c > hottest_c:
        return WaterFor(water_c, "too_hot", hottest_c, 0.0, grams, dough(hottest_c))
    if water_c >= (ICE_UNDER_C if may_be_ice else coldest_c - 0.5):
        return WaterFor(water_c, "water", water_c, 0.0, grams, wanted_c)
    if not may_be_ice:
        return WaterFor(water_c, "too_cold", coldest_c, 0.0, grams, dough(coldest_c))
    ice_g = holds * (coldest_c - water_c) / (MELTING_J_G + liquid.j_per_gk * coldest_c)
    if ice_g > grams:
        return WaterFor(water_c, "too_cold", coldest_c, grams, 0.0, dough(coldest_c, grams))
    return WaterFor(water_c, "ice", coldest_c, ice_g, grams - ice_g, wanted_c)


RULE_BASE_C, RULE_TIMES = 6.0, 1.7
"""Friction as the rule of thumb has it, in degrees of the water: so much without any kneading, and so much for each degree that kneading
warms the dough by. Common practice, no source: 5 to 7 by hand and 12 to 14 for ten minutes of machine."""


def rule_friction_c(warms_c: float) -> float:
    """What the rule of thumb calls friction, for a dough that is warmed by so much. [°C of the water]

    >>> rule_friction_c(4)
    12.8
    """
    return RULE_BASE_C + RULE_TIMES * warms_c


def by_rule(wanted_c: float, warms_c: float, *told_c: float) -> float:
    """The bakers' rule of thumb: the wanted temperature once for friction and once for each that is told (flour, room, and a preferment), less
    all of them. Common practice, no source. [°C]

    >>> by_rule(26, 0, 20, 22)
    30.0
    """
    return wanted_c * (len(told_c) + 1) - sum(told_c) - rule_friction_c(warms_c)
