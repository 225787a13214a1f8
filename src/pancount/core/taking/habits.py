"""What a kitchen answers once: how it fills a cup, which salt it has; and what its own cups and spoons weigh."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache, cached_property
from typing import Annotated, Any, Literal

from pydantic import Field

from pancount.core.base.datafiles import entries
from pancount.core.base.models import Band, Brief, Frozen, Name, SomeGrams, Word, Words
from pancount.core.base.scale import Scale
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.pantry.ingredients import Ingredient, pantry
from pancount.core.pantry.measures import System, measures
from pancount.core.taking.vocabulary import Names, shipped_names


class Habits(Frozen):
    """Answers that a kitchen gave. None: not asked yet, so that either may be."""

    cup_way: Literal["scooped", "spooned"] | None = None
    system: System | None = None
    salt: Literal["Fine salt", "Flaky salt", "Coarse salt"] | None = None
    dry_yeast: Literal["Instant yeast", "Active dry yeast"] | None = None
    yeast: Literal["Fresh yeast", "Instant yeast", "Active dry yeast"] | None = None
    malt: Literal["Malt flour, non-diastatic", "Malt flour, diastatic"] | None = None
    egg: Literal["S", "M", "L", "XL"] | None = None
    squash: Literal["Squash, mashed", "Squash, canned"] | None = None


class Question(Frozen):
    """Something that the words of a recipe leave open, and the answers there are; the first stands in."""

    key: str
    asks: str
    options: dict[str, str]
    rare: tuple[str, ...] = ()
    """Options that are held possible only once they are chosen."""

    @property
    def possible(self) -> tuple[str, ...]:
        """What may be while nothing is chosen."""
        return tuple(option for option in self.options if option not in self.rare)


@cache
def questions() -> dict[str, Question]:
    """The questions, in the file's order."""
    found: dict[str, dict[str, Any]] = entries(__name__, "questions.toml")
    return {
        key: Question(
            key=key, asks=q["asks"], rare=tuple(q.get("rare", ())), options=q.get("options") or {name: name for name in q.get("ingredients", ())}
        )
        for key, q in found.items()
    }


REPEATS = {1: 0.04, 2: 0.03}
"""How far the same hand strays when it fills the same cup again, by how often it was weighed. Common practice, no source."""
REPEATS_AT_BEST = 0.02


class CupWeighing(Frozen):
    """The baker's own cup or spoon, weighed: so many of them came to so many grams."""

    ingredient: Annotated[Name, Field(min_length=1)]
    measure: Word
    way: Brief = ""
    count: Annotated[float, Field(ge=0.1, le=1000)] = 1
    weight_g: SomeGrams
    note: Words = ""

    @property
    def each_g(self) -> float:
        """One of them. [g]"""
        return self.weight_g / self.count


def own_band(weighings: list[CupWeighing], half_step_g: float) -> Band:
    """What one measure weighs after it was weighed once or more: the mean, as far out as the hand and the scale are.

    `half_step_g`: half a step of the scale. [g]
    """
    each = [w.each_g for w in weighings]
    mean = sum(each) / len(each)
    stray = REPEATS.get(len(each), REPEATS_AT_BEST) * mean + half_step_g / max(w.count for w in weighings)
    low, high = min(*each, mean - stray), max(*each, mean + stray)
    return Band.of(low, mean, high)


@dataclass(frozen=True)
class Kitchen:
    """What a kitchen brings to a reading: its ingredients, habits, cups and scale."""

    own: tuple[Ingredient, ...] = ()
    habits: Habits = field(default_factory=Habits)
    cups: tuple[CupWeighing, ...] = ()
    scale: Scale = field(default_factory=Scale)
    stated_ml: Mapping[str, float] = field(default_factory=dict)
    """What the page at hand says that its cup and spoons hold, by measure; that is believed. [ml]"""

    @cached_property
    def names(self) -> Names:
        """Every name it knows."""
        return Names(self.own, shipped_names()) if self.own else shipped_names()

    @cached_property
    def ingredients(self) -> dict[str, Ingredient]:
        """Every ingredient it knows, by its own name."""
        return {i.name: i for i in pantry()} | {i.name: i for i in self.own}

    @cached_property
    def cup_bands(self) -> dict[tuple[str, str, str], Band]:
        """Its own cups and spoons by ingredient, measure and way."""
        found: dict[tuple[str, str, str], list[CupWeighing]] = {}
        for cup in self.cups:
            if cup.measure in measures():
                found.setdefault((cup.ingredient, cup.measure, cup.way), []).append(cup)
        return {key: own_band(weighings, self.half_step_g(0)) for key, weighings in found.items()}

    def half_step_g(self, weight_g: float) -> float:
        """Half a step of the scale that a weight goes on. [g]"""
        unit = WEIGHT_UNITS[self.scale.unit]
        return float(self.scale.step_for(weight_g / unit)) * unit / 2
