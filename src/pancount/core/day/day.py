"""A day as a baker tells it: what is to be ready when, who is there, what stays where it was put.

Times of a day are minutes from the midnight it begins at: 450 is half past seven, -120 ten in the evening before. [min]
"""

from typing import Annotated, Literal, Self

from pydantic import AfterValidator, Field, model_validator

from pancount.core.base import most
from pancount.core.base.models import Brief, Frozen, Name, Word
from pancount.core.heat.climate import RoomC

DAY_MIN = 1440
FIRST_MIN, LAST_MIN = -4 * DAY_MIN, 3 * DAY_MIN
"""From four days before to three days after. [min]"""

def _in_calendar(date: str) -> str:
    year, month, day = (int(part) for part in date.split("-"))
    leap = year % 4 == 0 and (year % 100 != 0 or year % 400 == 0)
    if day > (29 if leap and month == 2 else MONTH_DAYS[month - 1]):
        raise ValueError("there is no such day")
    return date


MONTH_DAYS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
At = Annotated[float, Field(ge=FIRST_MIN, le=LAST_MIN)]
"""A time of the day or of those around it. [min from its midnight]"""
Clock = Annotated[float, Field(ge=0, le=DAY_MIN)]
"""A time by the clock. [min]"""
Date = Annotated[str, Field(pattern=r"^20\d{2}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$"), AfterValidator(_in_calendar)]
Edge = Literal["begin", "end"]


class Absence(Frozen):
    """When a baker has no hands: asleep, or away. Over midnight where it ends before it begins."""

    why: Literal["asleep", "away"] = "away"
    baker: Annotated[int, Field(ge=0, le=1)] | None = None
    """Which; None is all of them."""
    begins_min: Clock
    ends_min: Clock
    day: Annotated[int, Field(ge=-4, le=3)] | None = None
    """On which day it begins: 0 the day itself, -1 the one before. None: each day."""


class TimePin(Frozen):
    """A time that stays: a step begins, or ends, just then."""

    step: Annotated[int, Field(ge=0, lt=most.STEPS)]
    kind: Word
    """What the step was when it was pinned; where the way has another there now, the pin is told and not kept."""
    edge: Edge = "begin"
    at_min: At


class Mark(Frozen):
    """What has happened of a step."""

    step: Annotated[int, Field(ge=0, lt=most.STEPS)]
    kind: Word
    began_min: At | None = None
    ended_min: At | None = None

    @model_validator(mode="after")
    def _happened(self) -> Self:
        if self.began_min is None and self.ended_min is None:
            raise ValueError("say when it began, or when it ended")
        if self.began_min is not None and self.ended_min is not None and self.ended_min < self.began_min:
            raise ValueError("it ended before it began")
        return self


class DayProduct(Frozen):
    """One count of a day, in one of its formula's ways."""

    key: Word
    """Its own in this day, for as long as it is in it."""
    formula_id: Annotated[int, Field(ge=1, le=2**31 - 1)]
    revision: Annotated[int, Field(ge=1, le=2**31 - 1)] | None = None
    """None: as it lies on the desk."""
    name: Name = ""
    """What it was called when it was put in."""
    way: Brief = ""
    """By key; blank for the count's."""
    pieces: Annotated[int, Field(ge=1, le=2_000)] | None = None
    pans: Annotated[int, Field(ge=1, le=200)] | None = None
    """Where neither is said, as the count has it."""
    ready_min: At | None = None
    """None: when the day is to be ready."""
    fresh: bool = False
    """As fresh as can be: lying counts twice."""
    from_min: At | None = None
    """Nothing of it begins before."""
    pins: Annotated[tuple[TimePin, ...], Field(max_length=most.STEPS)] = ()
    marks: Annotated[tuple[Mark, ...], Field(max_length=most.STEPS)] = ()
    not_yet: Annotated[tuple[Annotated[int, Field(ge=0, lt=most.STEPS)], ...], Field(max_length=most.STEPS)] = ()
    """Steps that were told for a time that has passed and have not begun: while a day runs, all else that was told has happened as told."""


class ToldStart(Frozen):
    """Where the baker was told that what hangs together begins, by its first step: when that begins, or ends, where it is taken out of something."""

    product: Word
    step: Annotated[int, Field(ge=0, lt=most.STEPS)]
    edge: Edge = "begin"
    at_min: At


ASLEEP = Absence(why="asleep", begins_min=22 * 60, ends_min=5 * 60)


class Day(Frozen):
    """All that is told of a day."""

    name: Name = ""
    date: Date
    """The day on which it is to be ready."""
    ready_min: At | None = 450
    """None: as soon as can be."""
    starts_min: At | None = None
    """Nothing begins before."""
    now_min: At | None = None
    """It is running: what was told for before has happened as told, where nothing else is marked."""
    bakers: Annotated[tuple[Name, ...], Field(min_length=1, max_length=2)] = ("",)
    absences: Annotated[tuple[Absence, ...], Field(max_length=most.ABSENCES)] = (ASLEEP,)
    products: Annotated[tuple[DayProduct, ...], Field(max_length=most.DAY_PRODUCTS)] = ()
    room_c: RoomC | None = None
    warm_c: RoomC | None = None
    fridge_c: Annotated[float, Field(ge=-2, le=15)] | None = None
    """Where they are not as usual."""
    ovens: Annotated[int, Field(ge=1, le=10)] | None = None
    shelves: Annotated[int, Field(ge=1, le=50)] | None = None
    sheets: Annotated[int, Field(ge=1, le=200)] | None = None
    """Where there are not as many as in the kitchen's kit."""
    told: Annotated[tuple[ToldStart, ...], Field(max_length=most.DAY_PRODUCTS * most.STEPS)] = ()
    """The timetable that the baker goes by."""

    @model_validator(mode="after")
    def _keys_differ(self) -> Self:
        keys = [one.key for one in self.products]
        if len(set(keys)) < len(keys):
            raise ValueError("two of its products have the same key")
        return self


def clock_words(at_min: float) -> str:
    """A time by the clock, without its day.

    >>> clock_words(450), clock_words(-20), clock_words(1500.4)
    ('7:30', '23:40', '1:00')
    """
    minutes = round(at_min) % DAY_MIN
    return f"{minutes // 60}:{minutes % 60:02d}"


def day_of(at_min: float) -> int:
    """On which day a time lies: 0 the day itself, -1 the one before."""
    return round(at_min) // DAY_MIN


