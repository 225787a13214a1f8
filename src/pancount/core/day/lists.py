"""What is made of a timetable on paper: the day by time for the wall, the evening before, and all that is to be weighed, over all doughs."""

from collections.abc import Mapping, Sequence
from decimal import Decimal
from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.base.scale import Printed, Scale
from pancount.core.day.blocks import OUT_MIN
from pancount.core.day.day import DAY_MIN, Day, clock_words, day_of
from pancount.core.day.laying import Made, kit_of
from pancount.core.day.timetable import Doing, Timetable
from pancount.core.method.telling import minutes_words
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Pantry
from pancount.core.sheet.weigh import weigh_sheet

TOGETHER_MIN = 10.0
"""Touches of one product this near each other are one line. [min]"""
SOFTENS_MIN = 60.0
"""Butter out of the fridge so long before it goes in. Common practice, no source. [min]"""
EVENING_MIN = 16 * 60
"""The evening begins. [min]"""


class WallLine(Frozen):
    """A line of the wall sheet: when, whose, what. [min]"""

    begins_min: float
    ends_min: float
    product: int
    name: str
    what: str
    detail: str
    baker: int
    step: int
    """Its first, so that it can be known again."""
    load: int | None
    is_heat: bool
    caution: str


class Ahead(Frozen):
    """Something for the evening before. [min]"""

    at_min: float
    name: str
    what: str
    kind: Literal["touch", "out", "kit"]


class ToWeigh(Frozen):
    """A line to weigh: for which dough and in which bowl."""

    product: int
    dough: str
    bowl: str
    name: str
    note: str
    printed: Printed
    mixes: int


class InAll(Frozen):
    """An ingredient over all doughs."""

    name: str
    printed: Printed
    doughs: tuple[str, ...]


class MiseEnPlace(Frozen):
    """All that is to be weighed, dough by dough, and in all."""

    unit: str
    lines: tuple[ToWeigh, ...]
    in_all: tuple[InAll, ...]
    troubles: tuple[str, ...]


def wall(made: Timetable, cautions: Mapping[tuple[int, int], str]) -> tuple[WallLine, ...]:
    """The timetable by time: a line for each time that hands are needed, what belongs together in one. `cautions` by product and step."""
    found = list[WallLine]()
    by_block: dict[int, list[Doing]] = {}
    for one in made.doings:
        by_block.setdefault(one.block, []).append(one)
    for own in by_block.values():
        line: list[Doing] = []
        for one in sorted((one for one in own if one.hands or one.label.startswith("oven to")), key=_first):
            if line and _first(one) - max(map(_last, line)) > TOGETHER_MIN:
                found.append(_line(line, made, cautions, goes_on=True))
                line = []
            line.append(one)
        if line:
            found.append(_line(line, made, cautions, goes_on=False))
    return tuple(sorted(found, key=lambda one: (one.begins_min, one.product, one.step)))


def _first(one: Doing) -> float:
    return min((hands.begins_min for hands in one.hands), default=one.begins_min)


def _last(one: Doing) -> float:
    return max((hands.ends_min for hands in one.hands), default=one.ends_min)


def _line(own: Sequence[Doing], made: Timetable, cautions: Mapping[tuple[int, int], str], *, goes_on: bool) -> WallLine:
    """Touches as a line; what gives after them stands with the last of those that hang together."""
    first = own[0]
    said = list(dict.fromkeys(_said(one) for one in own))
    product = made.products[first.product]
    gap = next((gap for gap in made.giving if gap.before == first.block and gap.steps and gap.product == first.product), None)
    last = max(map(_last, own))
    then = ""
    if gap is not None and not goes_on and gap.ends_min - last > OUT_MIN and gap.place not in ("pot", "griddle", "oven"):
        then = f"then {gap.label}{_where(gap.place)}, {minutes_words(gap.ends_min - gap.begins_min)}"
    return WallLine(
        begins_min=min(map(_first, own)),
        ends_min=last,
        product=first.product,
        name=product.name,
        what=(f"{first.of}: " if first.of else "") + " · ".join(said),
        detail=then,
        baker=first.hands[0].baker if first.hands else 0,
        step=first.step,
        load=first.load,
        is_heat=any(one.place in ("oven", "pot", "griddle", "stove") for one in own),
        caution=" ".join(dict.fromkeys(filter(None, (cautions.get((one.product, one.step), "") for one in own)))),
    )


def _said(one: Doing) -> str:
    return f"{one.label} (load {one.load + 1})" if one.load else one.label


def _where(place: str) -> str:
    return {"fridge": " in the fridge", "warm": " in the warm spot", "freezer": " in the freezer"}.get(place, "")


def cautions_of(day: Day, made: Sequence[Made]) -> dict[tuple[int, int], str]:
    """What to take care of, by product and step."""
    numbers = {one.key: n for n, one in enumerate(day.products)}
    return {(numbers[one.told.key], i): step.caution for one in made for i, step in enumerate(one.method.steps) if step.caution}


def evening_before(day: Day, made: Timetable, products: Sequence[Made], lines: Sequence[WallLine]) -> tuple[Ahead, ...]:
    """What is done the evening before, and what is to be taken out then since nobody is up in time for it."""
    numbers = {one.key: n for n, one in enumerate(day.products)}
    found = [Ahead(at_min=line.begins_min, name=line.name, what=line.what, kind="touch") for line in lines if day_of(line.begins_min) == -1 and line.begins_min % DAY_MIN >= EVENING_MIN]
    evening = max((ahead.at_min for ahead in found), default=-2.0 * 60)
    for one in products:
        number = numbers[one.told.key]
        used = {doing.step: doing.begins_min for doing in reversed(made.doings) if doing.product == number}
        for i, step in enumerate(one.method.steps):
            for goes in step.goes_in:
                if goes.what != "line" or i not in used:
                    continue
                note = one.formula.stages[goes.spot[0]].lines[goes.spot[1]].note.lower()
                if "soft" not in note:
                    continue
                out = used[i] - SOFTENS_MIN
                if not _awake(made, out):
                    found.append(Ahead(at_min=evening, name=one.formula.name, what=f"{goes.name} out of the fridge: it is to be soft by {clock_words(used[i])}", kind="out"))
                else:
                    found.append(Ahead(at_min=out, name=one.formula.name, what=f"{goes.name} out of the fridge, to be soft", kind="out"))
    return tuple(sorted(found, key=lambda one: (one.at_min, one.name, one.what)))


def _awake(made: Timetable, at: float) -> bool:
    return any(not any(begin <= at < end for begin, end in own) for own in made.away)


def mise_en_place(day: Day, products: Sequence[Made], scale: Scale, kit: Kit, pantry: Pantry, school: Literal["joined", "apart"] = "joined") -> MiseEnPlace:
    """All that is to be weighed, as the weigh sheets have it, so that both agree: each dough's lines, and each ingredient in all."""
    numbers = {one.key: n for n, one in enumerate(day.products)}
    lines, troubles, total = list[ToWeigh](), list[str](), dict[str, tuple[str, Decimal, list[str]]]()
    unit = scale.unit
    for one in products:
        try:
            sheet = weigh_sheet(one.formula, one.count, scale, (), school, kit_of(day, kit), pantry)
        except ValueError as error:
            troubles.append(f"{one.formula.name}: {error}")
            continue
        for stage, mixes in (*((stage, sheet.mixes) for stage in sheet.stages), *((stage, 1) for stage in sheet.beside)):
            for line in stage.lines:
                if line.printed is None or not line.printed:
                    continue
                lines.append(
                    ToWeigh(product=numbers[one.told.key], dough=one.formula.name, bowl=stage.name, name=line.name, note=line.note, printed=line.printed, mixes=mixes)
                )
                name, amount, doughs = total.get(line.name.casefold(), (line.name, Decimal(0), []))
                doughs.append(one.formula.name)
                total[line.name.casefold()] = (name, amount + line.printed * mixes, doughs)
    in_all = tuple(InAll(name=name, printed=amount, doughs=tuple(dict.fromkeys(doughs))) for name, amount, doughs in sorted(total.values(), key=lambda one: -one[1]))
    return MiseEnPlace(unit=unit, lines=tuple(lines), in_all=in_all, troubles=tuple(troubles))
