"""The pantry: what an ingredient is made of, what a measure of it weighs, and where each figure comes from."""

from collections.abc import Hashable, Iterable
from functools import cache
from threading import Lock
from typing import Annotated, Any, Literal, Self

from cachetools import LRUCache, cached
from pydantic import Field, model_validator

from pancount.core.base import most
from pancount.core.base.datafiles import rows
from pancount.core.base.models import Band, Brief, Frozen, Name, SomeGrams, Word, Words
from pancount.core.pantry.role import Role

Share = Annotated[float, Field(ge=0, le=100)]
"""Grams in 100 g. [g]"""

Allergen = Literal[
    "wheat", "rye", "barley", "oats", "milk", "egg", "almonds", "walnuts", "hazelnuts", "pecans", "pistachios", "cashews",
    "macadamias", "brazil nuts", "pine nuts", "peanuts", "sesame", "soya", "sulphites", "mustard", "celery", "lupin", "fish", "crustaceans", "molluscs",
]  # fmt: skip
"""The EU's fourteen and the US's nine, cereals and nuts by their own names (Regulation (EU) 1169/2011 annex II and the
US FASTER Act, recalled from memory). Pine nuts are on the US list alone."""


class Composition(Frozen):
    """What 100 g hold. Ash and alcohol are the rest. [g]"""

    water: Share = 0
    fat: Share = 0
    protein: Share = 0
    carbohydrate: Share = 0
    sugars: Share = 0
    """Part of the carbohydrate."""
    salt: Share = 0
    """Salt to a baker: sodium × 2.5 (Regulation (EU) 1169/2011 annex I, recalled from memory), without what soda and baking
    powder bring; pure salt counts as all salt."""

    @model_validator(mode="after")
    def _fits(self) -> Self:
        if self.sugars > self.carbohydrate + 0.5:
            raise ValueError("sugars are part of the carbohydrate, so they cannot be more than it")
        total = self.water + self.fat + self.protein + self.carbohydrate
        if total > 102:
            raise ValueError(
                f"water, fat, protein and carbohydrate come to {total:g} g in 100 g; look at them once more"
            )
        return self


class MeasureWeight(Frozen):
    """What one measure of an ingredient weighs, filled in one way ("scooped", "packed", an egg's size; blank: any)."""

    measure: Word
    way: Brief = ""
    low_g: SomeGrams
    usual_g: SomeGrams
    high_g: SomeGrams
    source: Words = ""

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if not self.low_g <= self.usual_g <= self.high_g:
            raise ValueError("low, usual and high must be in order")
        return self

    @property
    def band(self) -> Band:
        """The weight alone."""
        return Band(low_g=self.low_g, usual_g=self.usual_g, high_g=self.high_g)


class Ingredient(Frozen):
    """An ingredient: its name, what it does in a dough, what it is made of, and what a measure of it weighs."""

    name: Annotated[Name, Field(min_length=1)]
    role: Role
    also: Annotated[tuple[Word, ...], Field(max_length=most.WAYS)] = ()
    """Other names, in English."""
    also_de: Annotated[tuple[Word, ...], Field(max_length=most.WAYS)] = ()
    """Names in German."""
    composition: Composition | None = None
    """None where nobody has said yet."""
    allergens: Annotated[tuple[Allergen, ...], Field(max_length=20)] = ()
    may_contain: Annotated[tuple[Allergen, ...], Field(max_length=20)] = ()
    """What its packet warns of. Nothing that ships has any: packets differ, so the kitchen says."""
    read_packet: bool = False
    """Whether makers differ in what they put in, so that only the packet in hand tells its allergens: sausage, margarine."""
    bran: bool = False
    """Wholemeal, or rye: it drinks, so that a dough of it feels stiffer than its water says."""
    hydration: Annotated[float, Field(ge=10, le=1000)] | None = None
    """Of a sourdough starter: its water per 100 of its flour. A line of it starts with this."""
    measures: Annotated[tuple[MeasureWeight, ...], Field(max_length=most.WAYS)] = ()
    source: Words = ""
    """Where the composition comes from."""
    own: bool = False
    """Whether the kitchen added or changed it."""

    @property
    def lactose(self) -> float:
        """Milk sugar in 100 g, which baker's yeast leaves alone: all sugars of milk, cream and the like, unless sweetened. [g]"""
        plain = "milk" in self.allergens and self.role in (Role.LIQUID, Role.DAIRY, Role.FAT)
        return self.composition.sugars if plain and self.composition else 0.0

    @property
    def names(self) -> tuple[str, ...]:
        """All names, its own first."""
        return (self.name, *self.also, *self.also_de)


def _measures() -> dict[str, list[MeasureWeight]]:
    found: dict[str, list[MeasureWeight]] = {}
    for row in rows(__name__, "weights.csv"):
        found.setdefault(row.pop("ingredient"), []).append(MeasureWeight.model_validate(row))
    return found


@cache
def pantry() -> tuple[Ingredient, ...]:
    """The ingredients that ship. Roles are common practice, no source; each figure carries its own."""
    measures = _measures()
    return tuple(
        Ingredient(
            name=row["name"],
            role=row["role"],
            also=_names(row["also"]),
            also_de=_names(row["also_de"]),
            composition=Composition.model_validate({key: row[key] for key in Composition.model_fields}),
            allergens=_names(row["allergens"]),
            read_packet=bool(row["read_packet"]),
            bran=bool(row["bran"]),
            hydration=float(row["hydration"]) if row["hydration"] else None,
            measures=tuple(measures.get(row["name"], ())),
            source=row["source"],
        )
        for row in rows(__name__, "pantry.csv")
    )


def _names(text: str) -> tuple[str, ...]:
    return tuple(filter(None, text.split(";")))


class Pantry:
    """Ingredients by any of their names, letter case aside; the first that has a name keeps it."""

    def __init__(self, ingredients: Iterable[Ingredient]) -> None:
        self.ingredients = tuple(ingredients)
        self.remembered: dict[Hashable, Any] = {}
        """What was worked out of it by whoever asked; it goes when the pantry goes."""
        self._by_name: dict[str, Ingredient] = {}
        for name_of in (lambda i: (i.name,), lambda i: i.names):
            for ingredient in self.ingredients:
                for name in name_of(ingredient):
                    self._by_name.setdefault(name.casefold(), ingredient)

    def find(self, name: str) -> Ingredient | None:
        """The ingredient that is called so, or None."""
        return self._by_name.get(name.strip().casefold())


MOST_REMEMBERED = 60_000
"""Names and measures in all pantries that are remembered; what ships has some 2 000, and each weighs up to a kilobyte."""


def _size(pantry: "Pantry") -> int:
    return sum(len(item.names) + len(item.measures) for item in pantry.ingredients)


REMEMBERED: LRUCache[Hashable, Pantry] = LRUCache(MOST_REMEMBERED, getsizeof=_size)


@cached(REMEMBERED, lock=Lock())
def pantry_with(own: tuple[Ingredient, ...]) -> Pantry:
    """The pantry as a kitchen has it: what ships, each as the kitchen changed it, then what the kitchen added."""
    changed = {ingredient.name: ingredient for ingredient in own}
    shipped = [_with_what_ships(changed.pop(item.name, item), item) for item in pantry()]
    return Pantry([*shipped, *changed.values()])


def _with_what_ships(item: Ingredient, shipped: Ingredient) -> Ingredient:
    """An ingredient that the kitchen changed before there was such a thing to say of it, with what ships of that."""
    unsaid = {"read_packet", "bran"} - item.model_fields_set
    return item.model_copy(update={field: getattr(shipped, field) for field in unsaid}) if unsaid else item
