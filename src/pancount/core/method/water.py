"""How warm the dough's liquid must be for the dough to come out as warm as is wanted, both ways it is reckoned in the trade."""

from dataclasses import replace

from pancount.core.base.derived import Derived, Input
from pancount.core.base.models import Frozen
from pancount.core.heat.balance import (
    HOTTEST_INTO_FLOUR_C,
    HOTTEST_ON_YEAST_C,
    ICE_UNDER_C,
    Body,
    by_rule,
    mixed_c,
    rule_friction_c,
    water_for,
)
from pancount.core.heat.climate import Climate
from pancount.core.heat.foods import BOWLS
from pancount.core.method.bowl import Bowl

DIFFER_C = 2.0
"""From here both schools are shown. Common practice, no source. [°C]"""


class Cure(Frozen):
    """What would help where the wanted dough is not to be had, with its number."""

    says: str
    temp_c: float | None
    """How warm something else would have to be; None where the dough itself is taken as it comes."""


class WaterFigures(Frozen):
    """The liquid for a wanted dough temperature, and what comes of it."""

    name: str
    """One line, or all that are poured together."""
    weight_g: float
    wanted_c: float
    needed_c: float
    """What it would have to be. [°C]"""
    stands: str
    """`water`, `ice`, `too_hot` or `too_cold`."""
    pour_c: float
    pour_g: float
    ice_g: float
    reached_c: float
    machine_min: float
    hand_min: float
    """How long it is worked, by machine and by hand: what its friction goes by. [min]"""
    rule_c: float | None
    """By the rule of thumb; None where it differs by no more than 2 °C, or cannot be told."""
    says: str
    wakes_says: str
    """What comes of pouring it as warm as yeast is woken in it, where that is much warmer than the dough asks for; blank where it is not."""
    cures: tuple[Cure, ...]


def friction_c(bowl: Bowl, climate: Climate) -> float:
    """What mixing warms the dough by. [°C]"""
    return bowl.machine_min * climate.machine_c_min + bowl.hand_min * climate.hand_c_min


def _with_bowl(bowl: Bowl, climate: Climate) -> list[Body]:
    others = list(bowl.others)
    if climate.bowl != "none" and climate.bowl_weighs_g > 0:
        others.append(Body(f"The {climate.bowl} bowl", climate.bowl_weighs_g, BOWLS[climate.bowl], climate.room_c))
    return others


def water_figures(bowl: Bowl, wanted_c: float, climate: Climate) -> tuple[WaterFigures | None, dict[str, Derived]]:
    """The liquid for a wanted dough, with its workings; None where no liquid goes in that could be warmed or cooled."""
    liquid, others = bowl.liquid, _with_bowl(bowl, climate)
    if liquid is None:
        return None, {}
    warms = friction_c(bowl, climate)
    hottest = HOTTEST_ON_YEAST_C if bowl.on_yeast else HOTTEST_INTO_FLOUR_C
    coldest_c = climate.tap_c if bowl.is_water else climate.fridge_c
    found = water_for(others, liquid, wanted_c, warms, coldest_c, hottest, may_be_ice=bowl.is_water)
    flour_c = climate.room_c if climate.flour_c is None else climate.flour_c
    rule = by_rule(wanted_c, warms, flour_c, climate.room_c)
    figures = {
        "water": _working(liquid, others, found.water_c, wanted_c, warms),
        "water_rule": _rule_working(rule, wanted_c, flour_c, climate.room_c, warms),
    }
    return (
        WaterFigures(
            name=liquid.name,
            weight_g=liquid.mass_g,
            wanted_c=wanted_c,
            needed_c=found.water_c,
            stands=found.stands,
            pour_c=found.pour_c,
            pour_g=found.pour_g,
            ice_g=found.ice_g,
            reached_c=found.reached_c,
            machine_min=bowl.machine_min,
            hand_min=bowl.hand_min,
            rule_c=rule if abs(rule - found.water_c) > DIFFER_C else None,
            wakes_says=_wakes_says(bowl, others, liquid, found.water_c, wanted_c, warms),
            says=_says(liquid.name, found.stands, hottest, bowl.on_yeast),
            cures=_cures(others, liquid, found.stands, found.pour_c, found.reached_c, wanted_c, warms),
        ),
        figures,
    )


def _says(name: str, stands: str, hottest: float, on_yeast: bool) -> str:
    if stands == "too_hot":
        why = "yeast in it is scalded" if on_yeast else "it scalds the flour, and the yeast with it"
        return f"Over {hottest:g} °C {why}: no hotter than that."
    if stands == "too_cold":
        return "Not even all of the water as ice would do." if name.casefold() == "water" else f"{name} is not to be had as cold as that."
    return f"Under {ICE_UNDER_C:g} °C part of it must be ice." if stands == "ice" else ""


def _wakes_says(bowl: Bowl, others: list[Body], liquid: Body, needed_c: float, wanted_c: float, warms: float) -> str:
    if bowl.wakes_c is None or needed_c >= bowl.wakes_c:
        return ""
    warm = mixed_c([*others, replace(liquid, temp_c=bowl.wakes_c)]) + warms
    if warm - wanted_c <= DIFFER_C:
        return ""
    return f"Yeast is woken in it at {bowl.wakes_c:.0f} °C. Mixed in as warm as that it makes a dough of {warm:.0f} °C: let it cool first, or wake the yeast in a little of it."


def _cures(others: list[Body], liquid: Body, stands: str, pour_c: float, reached_c: float, wanted_c: float, warms: float) -> tuple[Cure, ...]:
    """Warm or chill the heaviest of the rest instead; or take the dough as it comes."""
    if stands not in ("too_hot", "too_cold"):
        return ()
    found = []
    heaviest = max(range(len(others)), key=lambda n: others[n].holds, default=None)
    if heaviest is not None and others[heaviest].holds > 0:
        rest = [body for n, body in enumerate(others) if n != heaviest]
        poured = Body(liquid.name, liquid.mass_g, liquid.j_per_gk, max(pour_c, 0.0))
        holds = sum(body.holds for body in [*rest, poured])
        one = others[heaviest]
        needed = (wanted_c - warms) + (holds * (wanted_c - warms) - sum(body.holds * body.temp_c for body in [*rest, poured])) / one.holds
        if -18 <= needed <= HOTTEST_INTO_FLOUR_C:
            verb = "Warm" if needed > one.temp_c else "Chill"
            found.append(Cure(says=f"{verb} {one.name.lower()}", temp_c=needed))
    found.append(Cure(says=f"Take the dough at {reached_c:.0f} °C: its rise is reckoned from that", temp_c=None))
    return tuple(found)


def _working(liquid: Body, others: list[Body], water_c: float, wanted_c: float, warms: float) -> Derived:
    """Σ m·c·(T − T_dough) = 0, with what mixing warms."""
    inputs = [
        Input("wanted", "The dough wanted", wanted_c, "celsius"),
        Input("warms", "Mixing warms it by", warms, "celsius"),
        Input("holds", f"{liquid.name} holds, a degree", liquid.holds / 1000, "kj"),
    ]
    for n, body in enumerate(others):
        above = body.holds * (body.temp_c - wanted_c) / 1000
        inputs.append(Input(f"of{n}", f"{body.name}, {body.mass_g:.0f} g at {body.temp_c:.0f} °C, against the dough", above, "kj"))
    all_holds = (sum(body.holds for body in others) + liquid.holds) / 1000
    inputs.append(Input("all", "All of it holds, a degree", all_holds, "kj"))
    brings = " + ".join(f"{{of{n}}}" for n in range(len(others)))
    return Derived(
        f"{liquid.name} for the dough", water_c, "celsius",
        "What the warm give, the cold take: all that goes in comes to the dough’s temperature, and mixing adds its own.",
        f"{{wanted}} − ({brings or '0'} + {{all}} × {{warms}}) ÷ {{holds}}", tuple(inputs),
    )  # fmt: skip


def _rule_working(rule: float, wanted_c: float, flour_c: float, room_c: float, warms: float) -> Derived:
    return Derived(
        "By the rule of thumb", rule, "celsius",
        "Three times the dough, less flour, room and friction, which the trade tells in degrees of the water. It knows nothing of eggs, butter or paste.",
        "3 × {wanted} − {flour} − {room} − {friction}",
        (
            Input("wanted", "The dough wanted", wanted_c, "celsius"), Input("flour", "Flour", flour_c, "celsius"), Input("room", "Room", room_c, "celsius"),
            Input("friction", "Friction", rule_friction_c(warms), "celsius"),
        ),
    )  # fmt: skip
