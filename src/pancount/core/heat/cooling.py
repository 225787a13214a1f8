"""How a mass of dough follows the temperature around it: Newton's law of cooling, with a half-time by mass and form."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from math import log

import numpy as np
from numpy.typing import NDArray

from pancount.core.base.datafiles import rows


@dataclass(frozen=True, slots=True)
class Form:
    """How a mass lies, and how long so many grams take to come half way to what is around them."""

    key: str
    label: str
    minutes: float
    grams: float
    power: float
    source: str

    def half_time(self, mass_g: float) -> float:
        """How long so much takes half way. [min]"""
        return self.minutes * float((mass_g / self.grams) ** self.power)


@cache
def forms() -> dict[str, Form]:
    """How masses lie, by key."""
    return {
        row["key"]: Form(row["key"], row["label"], float(row["minutes"]), float(row["grams"]), float(row["power"]), row["source"])
        for row in rows(__name__, "half_times.csv")
    }


@dataclass(frozen=True, slots=True)
class Stay:
    """Some time at one temperature around: on the counter, in the fridge. `half_min` is how long the mass takes half way."""

    minutes: float
    around_c: float
    half_min: float

    def after(self, begins_c: float) -> float:
        """How warm a mass that begins so warm is in the end. [°C]"""
        return self.around_c + (begins_c - self.around_c) * float(0.5 ** (self.minutes / self.half_min))


@dataclass(frozen=True, slots=True)
class Course:
    """The dough's own temperature along its stays, from where it begins."""

    begins_c: float
    stays: tuple[Stay, ...]

    @property
    def minutes(self) -> float:
        """How long all of it takes."""
        return sum(stay.minutes for stay in self.stays)

    def at(self, minutes: NDArray[np.float64]) -> NDArray[np.float64]:
        """The dough's temperature at each of these times; the last stay goes on after its end. [°C]"""
        found = np.full(minutes.shape, self.begins_c, dtype=np.float64)
        start, temp = 0.0, self.begins_c
        for n, stay in enumerate(self.stays):
            last = n == len(self.stays) - 1
            during = (minutes >= start) & ((minutes <= start + stay.minutes) | last)
            found[during] = stay.around_c + (temp - stay.around_c) * np.exp(-log(2) * (minutes[during] - start) / stay.half_min)
            temp = stay.after(temp)
            start += stay.minutes
        return found


def course(begins_c: float, stays: Sequence[Stay]) -> Course:
    """A course; stays of no time fall out."""
    return Course(begins_c, tuple(stay for stay in stays if stay.minutes > 0))
