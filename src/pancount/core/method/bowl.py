"""What is in the bowl while the dough is made, how warm each thing goes in, and how long it is worked."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cache
from itertools import groupby

from pancount.core.base.datafiles import rows
from pancount.core.base.words import listed
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
ALL_WATER = 99.0
"""Water in 100 g of what may be had as ice: water itself. [g]"""
_DEGREES = re.compile(r"(-?\d+(?:[.,]\d+)?)\s*°\s*C")


@dataclass(frozen=True, slots=True)
class Bowl:
    """All that is in the dough by the end of mixing."""

    liquid: Body | None
    """What is warmed or cooled to suit; all of what is poured together before there is flour, which can only be as warm as it is. None where
    nothing is."""
    others: tuple[Body, ...]
    is_water: bool
    on_yeast: bool
    """Whether yeast goes into that liquid before flour does."""
    wakes_c: float | None
    """How warm it must be at least for the yeast that is woken in it; None where none is. [°C]"""
    machine_min: float
    hand_min: float
    last: int
    """The last step of mixing; −1 where no step mixes."""


@cache
def _goes_in_at() -> tuple[tuple[tuple[str, ...], str, bool, str, float], ...]:
    return tuple(
        (tuple(filter(None, row["words"].split(";"))), row["role"], bool(row["milk"]), row["at"], float(row["celsius"] or 0)) for row in rows(__name__, "goes_in_at.csv")
    )


@dataclass(frozen=True, slots=True)
class _Part:
    """One thing that goes into the bowl."""

    body: Body
    step: int = -1
    water_g: float | None = None
    """Water in 100 g of a liquid that may be warmed or cooled to suit; None for anything else."""
    on_yeast: bool = False
    wakes_c: float | None = None
    poured: bool = False
    """Whether it is a liquid that goes in before there is flour, as warm as the others of its step."""


def told_c(line: Line, way: Way) -> float | None:
    """How warm a line goes in where the baker said so for this way, or its note does. [°C]"""
    if line.key and (told := next((one.temp_c for one in way.warm if one.key == line.key), None)) is not None:
        return told
    degrees = _DEGREES.findall(line.note)
    return float(degrees[-1].replace(",", ".")) if degrees else None


def line_c(line: Line, way: Way, climate: Climate, pantry: Pantry) -> float:
    """How warm a line goes in: as it is told, or as such things are kept. [°C]"""
    if (told := told_c(line, way)) is not None:
        return told
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
    parts, machine, hand, last, floury = list[_Part](), 0.0, 0.0, -1, False

    def stage(s: int, share: float) -> _Part:
        made = next((strand for strand in strands if strand.kind == "stage" and strand.spot == s), None)
        return _Part(_stage_body(formula, s, weights, _made_c(steps, made, climate), pantry, share))

    joined = {takes.spot[0] for some in goes_in for takes in some if takes.what == "stage"}
    joined |= {takes.spot[0] for i in mixing for takes in goes_in[i] if takes.what == "line"}
    for part in flow(formula).into(main) if mixing else ():
        if part.source not in joined:  # it goes in though no step says so, neither of it nor of its lines
            parts.append(stage(part.source, part.share))
    for i in mixing:
        one = steps[i]
        lines = [(thing, formula.stages[thing.spot[0]].lines[thing.spot[1]]) for thing in goes_in[i] if thing.what == "line"]
        roles = {line.role for _, line in lines}
        floury |= Role.FLOUR in roles
        for thing, line in lines:
            on_yeast, poured = Role.LEAVEN in roles and Role.FLOUR not in roles, (not floury or one.kind.key == "wake") and told_c(line, way) is None
            parts.append(_line_part(i, one, line, thing.weight_g or 0.0, line_c(line, way, climate, pantry), pantry, on_yeast=on_yeast, poured=poured))
        parts += [stage(thing.spot[0], thing.share) for thing in goes_in[i] if thing.what == "stage"]  # what is beside the dough goes into no bowl
        if one.kind.works:
            last = i
            minutes = one.lasts.usual_min * one.kind.works
            machine, hand = (machine + minutes, hand) if one.place == "mixer" else (machine, hand + minutes)
    parts = list(_as_poured(parts))
    n = _liquid(parts)
    return Bowl(
        liquid=parts[n].body if n >= 0 else None,
        others=tuple(part.body for m, part in enumerate(parts) if m != n),
        is_water=n >= 0 and _is_water(parts[n]),
        on_yeast=n >= 0 and parts[n].on_yeast,
        wakes_c=parts[n].wakes_c if n >= 0 else None,
        machine_min=machine,
        hand_min=hand,
        last=last,
    )


def _line_part(i: int, one: Filled, line: Line, grams: float, temp_c: float, pantry: Pantry, *, on_yeast: bool, poured: bool) -> _Part:
    """Some of a line. A liquid that yeast is woken in is as warm as that is told, unless it is told by itself."""
    known = pantry.find(line.name)
    holds = known.composition if known else None
    liquid = line.role is Role.LIQUID and holds is not None and holds.water >= WATERY and grams > 0
    poured = poured and liquid
    wakes = one.heat if poured and one.kind.key == "wake" else None
    body = Body(line.name, grams, specific_heat(holds), wakes.middle_c if wakes else temp_c)
    return _Part(body, i, holds.water if liquid and holds else None, on_yeast, wakes.low_c if wakes else None, poured)


def _as_poured(parts: Sequence[_Part]) -> Iterable[_Part]:
    """The liquids that are poured together as one, and all else as it is."""
    yield from (part for part in parts if not part.poured)
    for _, some in groupby((part for part in parts if part.poured), key=lambda part: part.step):
        together = tuple(some)
        bodies = [part.body for part in together]
        mass, holds = sum(body.mass_g for body in bodies), sum(body.holds for body in bodies)
        as_kept = sum(body.holds * body.temp_c for body in bodies) / holds
        waters = [part.water_g for part in together if part.water_g is not None]
        yield replace(together[0], body=Body(listed([body.name for body in bodies]), mass, holds / mass, as_kept), water_g=min(waters))


def _stage_body(formula: Formula, s: int, weights: Weights, temp_c: float, pantry: Pantry, share: float) -> Body:
    """A stage as it goes in: what it weighs once it is made, and the heat that its lines hold for each gram."""
    holds, mass = 0.0, 0.0
    for line, grams in zip(formula.stages[s].lines, weights.lines[s], strict=True):
        known = pantry.find(line.name)
        holds, mass = holds + (grams or 0.0) * specific_heat(known.composition if known else None), mass + (grams or 0.0)
    name = stage_name(formula.stages[s])
    return Body(name, weights.stages[s] * share, holds / mass if mass else specific_heat(None), temp_c)


def _is_water(part: _Part) -> bool:
    return part.water_g is not None and part.water_g >= ALL_WATER


def _liquid(parts: Sequence[_Part]) -> int:
    """Which is warmed or cooled to suit: water where there is a good part of it, else the most of the watery liquids; −1 for none."""
    found = [(part.body.mass_g, n) for n, part in enumerate(parts) if part.water_g is not None]
    most = max((mass for mass, _ in found), default=0.0)
    return max(((_is_water(parts[n]) and mass >= most / 2, mass, n) for mass, n in found), default=(False, 0.0, -1))[2]
