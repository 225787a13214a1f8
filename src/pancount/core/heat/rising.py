"""How a rise that a formula tells of itself goes under other conditions.

The model carries, it does not invent: at the temperature and the dose that the formula's times were told for, it gives those times back.
Temperature by the cardinal temperature model with inflection (Rosso and others 1993, recalled from memory), summed along the dough's own
temperature; yeast, salt and sugar by rules of the trade (`data/rises.csv`).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from itertools import accumulate, pairwise
from math import exp, inf, log

import numpy as np
from numpy.typing import NDArray
from scipy.integrate import cumulative_trapezoid

from pancount.core.base.datafiles import rows
from pancount.core.heat.cooling import Course

LONGEST_MIN = 7 * 24 * 60.0
"""No rise is looked for beyond a week. [min]"""
RAMP = np.linspace(0.0, 1.0, 240) ** 2
"""Points of each stay that a rise is summed over: close together at first, where a dough's warmth changes most."""

Numbers = NDArray[np.float64]


@cache
def rules() -> dict[str, float]:
    """The rules' figures, by key."""
    return {row["key"]: float(row["value"]) for row in rows(__name__, "rises.csv")}


@dataclass(frozen=True, slots=True)
class Cardinal:
    """Below which temperature a yeast stands still, where it is quickest, and above which it is done. [°C]"""

    least_c: float
    best_c: float
    most_c: float

    def rates(self, temps_c: Numbers) -> Numbers:
        """How quick it is at each temperature, over how quick it is at its best: 0 to 1."""
        t, low, best, most = temps_c, self.least_c, self.best_c, self.most_c
        above = (t - most) * (t - low) ** 2
        below = (best - low) * ((best - low) * (t - best) - (best - most) * (best + low - 2 * t))
        inside = (t > low) & (t < most)
        return np.where(inside, above / np.where(inside, below, 1.0), 0.0)

    def rate(self, temp_c: float) -> float:
        """The same at one temperature."""
        return float(self.rates(np.array([temp_c]))[0])


@cache
def bakers_yeast() -> Cardinal:
    """Baker's yeast."""
    row = rows(__name__, "yeasts.csv")[0]
    return Cardinal(float(row["least_c"]), float(row["best_c"]), float(row["most_c"]))


@dataclass(frozen=True, slots=True)
class Dough:
    """What of a dough makes it rise: instant yeast (or what is worth it), salt and sugar. [% of flour]"""

    yeast: float
    salt: float = 2.0
    sugar: float = 0.0

    @property
    def slowed(self) -> float:
        """What salt and sugar leave of the rate."""
        its = rules()
        salt = max(0.1, 1 - its["salt_slows"] * max(0.0, self.salt - its["salt_from"]))
        sugar = max(its["sugar_least"], 1 - its["sugar_slows"] * max(0.0, self.sugar - its["sugar_from"]))
        return salt * sugar


def dose_rate(dough: Dough, told: Dough) -> float:
    """How much quicker a dough rises for its yeast, salt and sugar than the one that the times were told for. Without yeast in either
    (a levain counts by its own last rise) only salt and sugar count."""
    yeast = (dough.yeast / told.yeast) ** rules()["yeast_power"] if dough.yeast > 0 and told.yeast > 0 else 1.0
    return float(yeast) * dough.slowed / told.slowed


@dataclass(frozen=True, slots=True)
class Told:
    """What a formula says of a rise: from so long to so long at one temperature, in one dough. [min, °C]

    `along` is the course that was meant where the dough is not as warm as that all along: in a fridge it cools first.
    """

    low_min: float
    usual_min: float
    high_min: float
    temp_c: float
    dough: Dough
    along: Course | None = None
    slower: float = 1.0
    """So many times as long as the model says: what a kitchen's own bakes showed."""
    strays: float | None = None
    """How far its own bakes strayed from that, as a share, where they were asked: then the range opens no further."""

    def needs(self, minutes: float) -> float:
        """How much rising a time told is: minutes at the yeast's best."""
        if self.along is not None:
            return risen(self.along, 1.0, minutes)
        return minutes * bakers_yeast().rate(min(self.temp_c, bakers_yeast().most_c - 1))


@dataclass(frozen=True, slots=True)
class Rise:
    """A rise under today's conditions, from its beginning. None where it does not get there within a week. [min]"""

    look_min: float | None
    usual_min: float | None
    ready_by_min: float | None
    too_far_min: float | None
    factor: float
    """How much longer than told it takes, at its usual; without end where it does not get there."""
    widened: float
    """What the range was opened by to either side, as a share."""


def opened(ratio: float) -> float:
    """How far a range opens where the rate is `ratio` of the one told: nothing at 1, `near` at one and a half, `widest` far away."""
    its = rules()
    far = abs(log(ratio)) if ratio > 0 else inf
    steep = -log(1 - its["near"] / its["widest"]) / log(1.5)
    return its["widest"] * (1 - exp(-steep * far))


def _so_far(course: Course, end_min: float) -> tuple[Numbers, Numbers]:
    """Times along a course, and how much has risen by each at a dose of one, in minutes at the yeast's best."""
    begins = [0.0, *accumulate(stay.minutes for stay in course.stays[:-1])]
    starts = [begin for begin in begins if begin < end_min] or [0.0]
    times = np.concatenate([begin + (end - begin) * RAMP for begin, end in pairwise([*starts, end_min])])
    return times, cumulative_trapezoid(bakers_yeast().rates(course.at(times)), times, initial=0.0)


def risen(course: Course, dose: float, upto_min: float) -> float:
    """How much rises along a course up to a time, in minutes at the yeast's best; `dose` as of `dose_rate`."""
    return float(_so_far(course, upto_min)[1][-1]) * dose


def whens(course: Course, dose: float, needed: Sequence[float]) -> list[float | None]:
    """When so much and so much has risen along a course; its last stay goes on. None for not within a week. [min]"""
    end, most = max(course.minutes, 1.0), max(needed)
    times, so_far = _so_far(course, end)
    while so_far[-1] * dose < most and end < LONGEST_MIN:
        end = min(end * 2, LONGEST_MIN)
        times, so_far = _so_far(course, end)
    return [float(np.interp(one, so_far * dose, times)) if so_far[-1] * dose >= one else None for one in needed]


def carried(told: Told, dough: Dough, course: Course) -> Rise:
    """A rise that was told for one temperature and dough, along a course and in another dough. At what was told it is what was told."""
    dose = dose_rate(dough, told.dough) / told.slower
    low, usual, high = whens(course, dose, [told.needs(minutes) for minutes in (told.low_min, told.usual_min, told.high_min)])
    ratio = 0.0 if usual is None else told.usual_min / usual if usual > 0 else 1.0  # of no time, at all, none is added
    wide = opened(ratio * told.slower) if told.strays is None else min(opened(ratio * told.slower), told.strays)
    latest = None if high is None else high * (1 + wide)
    return Rise(
        look_min=None if low is None else low * (1 - wide),
        usual_min=usual,
        ready_by_min=latest,
        too_far_min=None if latest is None else latest * rules()["too_far"],
        factor=1 / ratio if ratio else inf if usual is None else 1.0,
        widened=wide,
    )
