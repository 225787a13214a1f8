"""Each rise of a way as it will be today: along the dough's own temperature, as a range, and elsewhere if it has to be.

A rise keeps what was told of it (so long, so warm, with so much yeast); place, today's temperatures and this way's yeast carry it from there.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.optimize import brentq

from pancount.core.base.derived import Derived, Input
from pancount.core.base.models import Frozen
from pancount.core.count.learned import Learned
from pancount.core.formula.gauges import Character
from pancount.core.formula.steps import Lasts
from pancount.core.heat.climate import Climate
from pancount.core.heat.cooling import Course, Stay, course, forms
from pancount.core.heat.rising import Dough, Rise, Told, carried, rules
from pancount.core.method.filled import Filled

USUAL_DOUGH_C = 25.0
"""A rise that is told for no temperature. Common practice, no source. [°C]"""
COLD_TOLD_C = 12.0
"""A rise that is told for less is one in a fridge or a cellar. Common practice, no source. [°C]"""
FREEZER_C = -18.0
TUB = (2.2, 2.5)
"""A rise to double needs a tub of so many times the dough's volume. Common practice, no source."""
DOUGH_ML_PER_G = 0.9
"""Fresh dough, mixed: a little less than its weight in water. Common practice, no source. [ml/g]"""
COLD_MIN = 12 * 60.0
"""How long a rise in the fridge is planned for, where nothing else says: a night and a little. Common practice, no source. [min]"""
POINTS = 36
"""Of a course that is drawn."""


class CoursePoint(Frozen):
    """How warm the dough, and what is around it, are at a time. [min from where the course begins, °C]"""

    minute: float
    dough_c: float
    around_c: float


class Elsewhere(Frozen):
    """A rise in the fridge where it stands in the room now, or in the room where it stands in the fridge. Times from when it goes there. [min]"""

    place: Literal["fridge", "room"]
    first_min: float
    """How long it stands in the room before it goes into the fridge, since it would not get there otherwise."""
    look_min: float
    usual_min: float
    too_far_min: float


class RiseFigures(Frozen):
    """A rise as it will be today. Times from its beginning; None where it does not get there within a week. [min]"""

    step: int
    told: Lasts
    told_c: float
    told_yeast: float
    """With how much it was told. [% of flour]"""
    around_c: float
    begins_c: float
    """How warm the dough is when it begins. [°C]"""
    look_min: float | None
    usual_min: float | None
    ready_by_min: float | None
    too_far_min: float | None
    factor: float | None
    widened: float
    course: tuple[CoursePoint, ...]
    elsewhere: Elsewhere | None
    says: str


@dataclass(frozen=True, slots=True)
class Mass:
    """What rises: so much dough in one, and pieces of so much once it is divided. [g]"""

    dough_g: float
    piece_g: float


@dataclass(frozen=True, slots=True)
class Stood:
    """A step that the dough goes through: how warm it begins, along what course, and where it is a rise, what was told and what comes of it."""

    step: int
    course: Course
    minutes: float
    told: Told | None = None
    rise: Rise | None = None


def around(one: Filled, climate: Climate) -> float:
    """How warm it is where a step happens. [°C]"""
    if one.place == "fridge":
        return climate.fridge_c
    if one.place == "freezer":
        return FREEZER_C
    return climate.warm_c if one.place == "warm" else climate.room_c


def dough_of(character: Character) -> Dough:
    """What of a dough makes it rise."""
    gauge = {key: one.value for key, one in character.gauges.items()}
    return Dough(yeast=gauge["yeast"], salt=gauge["salt"], sugar=gauge["sugars"])


def told_of(one: Filled, has: Dough, along: Course, climate: Climate, known: Learned | None = None) -> Told:
    """What is told of a rise: for the dough that it has, where it was not told for another dose. One that is told for a fridge means a dough that
    goes in as warm as this one does, and cools: most of such a rise happens before it is cold. How much longer it takes here than the model says: as
    the kitchen learned of this rise, else of all of them."""
    yeast = has.yeast if one.step.told_yeast is None else one.step.told_yeast
    warm = one.heat.middle_c if one.heat else USUAL_DOUGH_C
    cools = course(along.begins_c, [Stay(max(one.lasts.usual_min, 1.0), warm, along.stays[-1].half_min)]) if warm < COLD_TOLD_C else None
    low, usual, high = one.lasts.low_min, one.lasts.usual_min, one.lasts.high_min
    if low == high:
        low, high = usual * (1 - rules()["one_time"]), usual * (1 + rules()["one_time"])
    slower, strays = (known.value, known.strays) if known else (climate.rise_factor, None)
    return Told(low, usual, high, warm, Dough(yeast, has.salt, has.sugar), cools, slower, strays)


@dataclass(frozen=True, slots=True)
class Standing:
    """A dough and where it stands: all that its rises go by but its yeast, and how warm single steps are."""

    steps: Sequence[Filled]
    own: Sequence[int]
    """The steps that it goes through, in order."""
    begins_c: float
    climate: Climate
    mass: Mass
    has: Dough
    known: Mapping[str, Learned]
    """What the kitchen learned of its rises, by kind of step."""

    def through(self, now: Dough, warmth: Mapping[int, float] | None = None) -> list[Stood]:
        """What each step comes to in another dose, and with some steps in another warmth. [°C]"""
        temp_c, divided, found = self.begins_c, False, list[Stood]()
        for i in self.own:
            one = self.steps[i]
            if not one.on_chain:
                continue
            warm = (warmth or {}).get(i)
            along = self.along(one, temp_c, warm, divided=divided)
            if one.kind.does == "rises":
                told = told_of(one, self.has, along, self.climate, self.known.get(one.kind.key))
                rise = carried(told, now, along)
                minutes = along.minutes if rise.usual_min is None else rise.usual_min
                found.append(Stood(i, along, minutes, told, rise))
            else:
                found.append(Stood(i, along, one.lasts.usual_min))
            temp_c = float(along.at(np.array([found[-1].minutes]))[0])
            divided |= one.kind.group == "shape"
        return found

    def along(self, one: Filled, begins_c: float, warm_c: float | None = None, *, divided: bool) -> Course:
        """The course of a step that the dough begins so warm."""
        form = forms()["pieces" if divided else "bowl"]
        half = form.half_time(self.mass.piece_g if divided else self.mass.dough_g)
        stays = [Stay(max(one.lasts.usual_min, 1.0), around(one, self.climate) if warm_c is None else warm_c, half)]
        if one.place == "fridge" and one.step.room_first_min:
            stays.insert(0, Stay(one.step.room_first_min, self.climate.room_c, half))
        return course(begins_c, stays)


def rise_figures(stood: Stood, one: Filled, climate: Climate, now: Dough) -> tuple[RiseFigures, Derived]:
    """A rise for the screen, with its working."""
    assert stood.told is not None and stood.rise is not None
    told, rise, along = stood.told, stood.rise, stood.course
    return (
        RiseFigures(
            step=stood.step,
            told=one.lasts,
            told_c=told.temp_c,
            told_yeast=told.dough.yeast,
            around_c=along.stays[-1].around_c,
            begins_c=along.begins_c,
            look_min=rise.look_min,
            usual_min=rise.usual_min,
            ready_by_min=rise.ready_by_min,
            too_far_min=rise.too_far_min,
            factor=rise.factor if rise.usual_min is not None else None,
            widened=rise.widened,
            course=drawn(along, rise.too_far_min or rise.ready_by_min or told.high_min),
            elsewhere=_elsewhere(told, now, along, one, climate),
            says="" if rise.usual_min is not None else "It does not get there within a week like this: more yeast, or somewhere warmer.",
        ),
        _working(told, rise, along, now),
    )


def drawn(along: Course, until_min: float, points: int = POINTS) -> tuple[CoursePoint, ...]:
    """A course as it is drawn."""
    times, ends = np.linspace(0.0, until_min, points), np.cumsum([stay.minutes for stay in along.stays[:-1]])
    stays = [along.stays[n] for n in np.searchsorted(ends, times, side="right")]
    return tuple(
        CoursePoint(minute=float(minute), dough_c=float(dough), around_c=stay.around_c)
        for minute, dough, stay in zip(times, along.at(times), stays, strict=True)
    )


def _elsewhere(told: Told, now: Dough, along: Course, one: Filled, climate: Climate) -> Elsewhere | None:
    """The same rise in the fridge, after some time in the room where it must be; or in the room, where it is in the fridge."""
    half = along.stays[-1].half_min
    if one.place == "fridge":
        return _there(carried(told, now, course(along.begins_c, [Stay(told.usual_min, climate.room_c, half)])), "room", 0.0)

    def in_fridge(first_min: float) -> Rise:
        stays = [Stay(first_min, along.stays[-1].around_c, half), Stay(COLD_MIN, climate.fridge_c, half)]
        return carried(told, now, course(along.begins_c, stays))

    at_once = in_fridge(0.0)
    if at_once.usual_min is not None and at_once.usual_min <= COLD_MIN:
        return _there(at_once, "fridge", 0.0)
    here = carried(told, now, along).usual_min
    if here is None:
        return None

    def late(first_min: float) -> float:
        """How much too late it is, where it stands in the room for so long and then in the fridge."""
        usual = in_fridge(first_min).usual_min
        return COLD_MIN * 14 if usual is None else usual - first_min - COLD_MIN

    if late(here) > 0:
        return None
    first = float(brentq(late, 0.0, here, xtol=1.0))
    return _there(in_fridge(first), "fridge", first)


def _there(rise: Rise, place: Literal["fridge", "room"], first_min: float) -> Elsewhere | None:
    if rise.look_min is None or rise.usual_min is None or rise.too_far_min is None:
        return None
    look, usual, too_far = (max(0.0, minutes - first_min) for minutes in (rise.look_min, rise.usual_min, rise.too_far_min))
    return Elsewhere(place=place, first_min=first_min, look_min=look, usual_min=usual, too_far_min=too_far)


def _working(told: Told, rise: Rise, along: Course, now: Dough) -> Derived:
    usual = told.usual_min if rise.usual_min is None else rise.usual_min
    return Derived(
        "This rise, usually", usual, "min",
        "What the formula says of it, carried to today: by how warm the dough itself is all along, and by its yeast, salt and sugar."
        + ("" if told.slower == 1 else " This kitchen’s own bakes say by how much longer or shorter it takes here."),
        "{told} at {told_c} with {told_yeast} of yeast, times {factor}: today {yeast}, the dough {begins} at first where it is {around}; opened by {wide} to either side"
        + ("" if told.slower == 1 else "; of that, {own} is the kitchen’s own"),
        (
            Input("told", "As told", told.usual_min, "min"), Input("told_c", "Told for", told.temp_c, "celsius"),
            Input("told_yeast", "Told for yeast, as instant", told.dough.yeast, "percent"), Input("factor", "Longer by", usual / told.usual_min if told.usual_min else 1.0, "count"),
            Input("yeast", "Yeast, as instant", now.yeast, "percent"), Input("begins", "The dough begins at", along.begins_c, "celsius"),
            Input("around", "Around it", along.stays[-1].around_c, "celsius"), Input("wide", "The range opens by", rise.widened * 100, "percent"),
            *(() if told.slower == 1 else (Input("own", "Longer here than the model says", told.slower, "count"),)),
        ),
    )  # fmt: skip


def tub_says(dough_g: float, tub_ml: float | None) -> str:
    """What to say of a tub that is too small for a dough that is to double; blank where it has room, or is not known."""
    if tub_ml is None:
        return ""
    low, high = (dough_g * DOUGH_ML_PER_G * by / 1000 for by in TUB)
    if tub_ml / 1000 >= low:
        return ""
    return f"The tub is too small: {dough_g:.0f} g of dough need {low:.1f} to {high:.1f} l to double, it holds {tub_ml / 1000:.1f} l. Use two, or it runs over."
