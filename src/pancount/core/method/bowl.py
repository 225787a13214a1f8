"""What is in the bowl while the dough is made, how warm each thing goes in, and how long it is worked."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

from pancount.core.base.datafiles import rows
from pancount.core.formula.formula import Formula, Line, Way
from pancount.core.formula.stages import flow, main_stage, stage_name
from pancount.core.heat.balance import Body
from pancount.core.heat.climate import Climate
from pancount.core.heat.foods import specific_heat
from pancount.core.method.filled import Filled
from pancount.core.method.timeline import Strand
from pancount.core.method.uses import GoesIn, Weights
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.role import Role

WATERY = 80.0
"""Water in 100 g from which a liquid is one that warms and cools a dough: water, milk, whey, beer. Common practice, no source. [g]"""
_DEGREES = re.compile(r"(-?\d+(?:[.,]\d+)?)\s*°\s*C")


@dataclass(frozen=True, slots=True)
class Bowl:
    """All that is in the dough by the end of mixing: `liquid` is which of the bodies is warmed or cooled to suit, −1 for none."""

    bodies: tuple[Body, ...]
    spots: tuple[tuple[int, ...], ...]
    liquid: int
    is_water: bool
    on_yeast: bool
    """Whether yeast goes into the liquid before flour does."""
    machine_min: float
    hand_min: float
    last: int
    """The last step of mixing; −1 where no step mixes."""


@cache
def _goes_in_at() -> tuple[tuple[tuple[str, ...], str, bool, str, float], ...]:
    return tuple(
        (tuple(filter(None, row["words"].split(";"))), row["role"], bool(row["milk"]), row["at"], float(row["celsius"] or 0)) for row in rows(__name__, "goes_in_at.csv")
    )


def line_c(line: Line, way: Way, climate: Climate, pantry: Pantry) -> float:
    """How warm a line goes in: as the baker said for this way, as its note says, or as such things are kept. [°C]"""
    if line.key and (told := next((one.temp_c for one in way.warm if one.key == line.key), None)) is not None:
        return told
    if degrees := _DEGREES.findall(line.note):
        return float(degrees[-1].replace(",", "."))
    note, known = line.note.casefold(), pantry.find(line.name)
    is_milk = known is not None and "milk" in known.allergens
    room = {"room": climate.room_c, "fridge": climate.fridge_c, "flour": climate.room_c if climate.flour_c is None else climate.flour_c}
    for words, role, milk, at, celsius in _goes_in_at():
        said = any(re.search(rf"(?<!\w){re.escape(word)}(?!\w)", note) for word in words) if words else True
        if said and role in ("", line.role) and (is_milk or not milk):
            return celsius if at == "told" else room[at]
    return climate.room_c


def _made_c(steps: Sequence[Filled], strand: Strand | None, climate: Climate) -> float:
    """How warm a stage is when it goes in: as its last step left it. [°C]"""
    last = steps[strand.steps[-1]] if strand else None
    if last is None:
        return climate.room_c
    if last.place == "fridge":
        return climate.fridge_c
    return max(last.heat.middle_c, climate.room_c) if last.kind.key == "cool_off" and last.heat else climate.room_c


def bowl_of(
    formula: Formula, way: Way, steps: Sequence[Filled], goes_in: Sequence[Sequence[GoesIn]], strands: Sequence[Strand], weights: Weights, climate: Climate, pantry: Pantry
) -> Bowl:
    """What mixing brings together: all that goes in on the dough before its first rise, stages that join it included."""
    main = main_stage(formula)
    dough = next((strand for strand in strands if strand.kind == "stage" and strand.spot == main), None)
    own = list(dough.steps) if dough else []
    mixing = [i for n, i in enumerate(own) if not any(steps[j].kind.does for j in own[: n + 1])]
    bodies, spots, machine, hand, on_yeast, last = list[Body](), list[tuple[int, ...]](), 0.0, 0.0, False, -1
    joined = {takes.spot[0] for some in goes_in for takes in some if takes.what == "stage"}
    for part in flow(formula).into(main) if mixing else ():
        if part.source not in joined:  # it goes in though no step says so
            made = next((strand for strand in strands if strand.kind == "stage" and strand.spot == part.source), None)
            bodies.append(_stage_body(formula, part.source, weights, _made_c(steps, made, climate), pantry, part.share))
            spots.append((part.source,))
    for i in mixing:
        one, roles = steps[i], set[Role | None]()
        for thing in goes_in[i]:
            if thing.what == "line":
                line = formula.stages[thing.spot[0]].lines[thing.spot[1]]
                roles.add(line.role)
                known = pantry.find(line.name)
                bodies.append(Body(line.name, thing.weight_g or 0.0, specific_heat(known.composition if known else None), line_c(line, way, climate, pantry)))
            elif thing.what == "stage":
                made = next((strand for strand in strands if strand.kind == "stage" and strand.spot == thing.spot[0]), None)
                bodies.append(_stage_body(formula, thing.spot[0], weights, _made_c(steps, made, climate), pantry, thing.share))
            else:
                continue  # what is beside the dough goes into no bowl
            spots.append(thing.spot)
        on_yeast |= Role.LEAVEN in roles and Role.LIQUID in roles and Role.FLOUR not in roles
        if one.kind.works:
            last = i
            minutes = one.lasts.usual_min * one.kind.works
            machine, hand = (machine + minutes, hand) if one.place == "mixer" else (machine, hand + minutes)
    liquid, is_water = _liquid(formula, bodies, spots, pantry)
    return Bowl(tuple(bodies), tuple(spots), liquid, is_water, on_yeast, machine, hand, last)


def _stage_body(formula: Formula, s: int, weights: Weights, temp_c: float, pantry: Pantry, share: float) -> Body:
    """A stage as it goes in: what it weighs once it is made, and the heat that its lines hold for each gram."""
    holds, mass = 0.0, 0.0
    for line, grams in zip(formula.stages[s].lines, weights.lines[s], strict=True):
        known = pantry.find(line.name)
        holds, mass = holds + (grams or 0.0) * specific_heat(known.composition if known else None), mass + (grams or 0.0)
    name = stage_name(formula.stages[s])
    return Body(name, weights.stages[s] * share, holds / mass if mass else specific_heat(None), temp_c)


def _liquid(formula: Formula, bodies: Sequence[Body], spots: Sequence[tuple[int, ...]], pantry: Pantry) -> tuple[int, bool]:
    """Which body is warmed or cooled to suit: water where there is a good part of it, else the most of the watery liquids."""
    found = list[tuple[bool, float, int]]()
    for n, (body, spot) in enumerate(zip(bodies, spots, strict=True)):
        if len(spot) != 2 or body.mass_g <= 0:
            continue
        line = formula.stages[spot[0]].lines[spot[1]]
        known = pantry.find(line.name)
        water = known.composition.water if known and known.composition else 0.0
        if line.role is Role.LIQUID and water >= WATERY:
            found.append((water >= 99, body.mass_g, n))
    if not found:
        return -1, False
    most = max(mass for _, mass, _ in found)
    water, _, n = max((water and mass >= most / 2, mass, n) for water, mass, n in found)
    return n, water
