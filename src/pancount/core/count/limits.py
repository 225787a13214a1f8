"""Limits: at most so much of something. A count that is open goes up to them; one that is pinned is held against them.

Each limit says its need as one number in the unit of its amount: grams of flour, eggs, mixes, loads, minutes.
"""

from dataclasses import dataclass
from functools import cache
from math import inf
from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base.datafiles import rows
from pancount.core.base.derived import Derived, derived
from pancount.core.base.models import Frozen, Name, interned
from pancount.core.formula.formula import Formula
from pancount.core.formula.gauges import Character
from pancount.core.formula.reckon import Reckoned
from pancount.core.pans.kit import Kit, mixes_needed
from pancount.core.pans.room import Lot, room_of

LimitKind = Literal["flour", "ingredient", "bowl", "oven", "pot", "griddle", "fridge", "by_when"]


class Limit(Frozen):
    """At most this much."""

    kind: LimitKind
    amount: Annotated[float, Field(ge=0.001, le=10_000_000)]
    """Grams of flour or of an ingredient, or how many of `each_g`; mixes in the bowl; loads of the oven, the pot or the
    griddle; times the fridge shelf is filled; minutes until the last load must be out."""
    ingredient: Name = ""
    each_g: Annotated[float, Field(ge=0.001, le=10_000_000)] | None = None
    """What one is worth, where it is counted: an egg, a packet. [g]"""


SAYS: dict[LimitKind, tuple[str, str]] = {
    "flour": ("Flour in the bag", "What is needed is the flour of this count."),
    "ingredient": ("Of an ingredient", "What is needed is what all its lines in the dough come to."),
    "bowl": ("Mixes in the bowl", "The mixes are the dough mixed over what the bowl takes, up to whole."),
    "oven": ("Loads in the oven", "The loads are the sheets or pans over what the oven takes at once, up to whole."),
    "pot": ("Loads in the pot", "The loads are the pieces over what the pot takes at once, up to whole."),
    "griddle": ("Loads on the griddle", "The loads are the pieces over what the griddle takes at once, up to whole."),
    "fridge": ("Fillings of the fridge shelf", "The fillings are the sheets or pans over what the shelf takes, up to whole."),
    "by_when": ("Minutes to bake in", "The minutes are the loads times what each is in the heat."),
}
"""What each limit is called, and its rule: common practice, no source; it follows by arithmetic."""


@dataclass(frozen=True, slots=True)
class Ground:
    """What limits rest on besides the pieces: kit, the bowl for this dough, and each ingredient over flour."""

    kit: Kit
    bowl_g: float | None
    bran: float
    """How much of the flour is wholemeal or rye, as a share: such pieces bake smaller."""
    shares: dict[str, float]
    """Of flour, by the ingredient's name in lower case."""


@dataclass(frozen=True, slots=True)
class Batch:
    """What is held against limits."""

    flour_g: float
    dough_g: float
    lots: tuple[tuple[Lot, float], ...]
    """Each target with its pieces."""


def _load_takes(limit: Limit, lot: Lot) -> float:
    """What one load takes of a limit that is counted in loads: itself, or its minutes in the heat."""
    return lot.bake_min if limit.kind == "by_when" else 1.0


def need(limit: Limit, batch: Batch, ground: Ground) -> float | None:
    """What this batch needs, in the unit of the limit's amount. None where the limit says nothing of it."""
    if limit.kind == "flour":
        return batch.flour_g
    if limit.kind == "ingredient":
        share = ground.shares.get(limit.ingredient.casefold())
        return share * batch.flour_g / (limit.each_g or 1.0) if share else None
    if limit.kind == "bowl":
        return mixes_needed(batch.dough_g, ground.bowl_g) if ground.bowl_g else None
    total, known = 0.0, False
    for lot, pieces in batch.lots:
        room = room_of(limit.kind, lot, ground.kit)
        if room is not None:
            known = True
            total += room.loads(pieces) * _load_takes(limit, lot)
    return total if known else None


class Allowed:
    """What limits allow of a batch whose pieces are told target by target: dough, and what loads the earlier ones leave."""

    def __init__(self, limits: tuple[Limit, ...], ground: Ground, total_percent: float) -> None:
        self._limits, self._ground = limits, ground
        self._taken = [0.0] * len(limits)
        """Of each limit that is counted in loads, in its own unit."""
        most = (self._most_flour(limit, total_percent) for limit in limits)
        self.dough_g = min((flour for flour in most if flour is not None), default=inf) * total_percent / 100
        """The most dough that limits on flour, ingredients and the bowl allow; inf without one. [g]"""

    def _most_flour(self, limit: Limit, total_percent: float) -> float | None:
        """The most flour that a limit allows. None for those that are counted in loads, and where it says nothing. [g]"""
        if limit.kind == "flour":
            return limit.amount
        if limit.kind == "ingredient":
            share = self._ground.shares.get(limit.ingredient.casefold())
            return limit.amount * (limit.each_g or 1.0) / share if share else None
        if limit.kind == "bowl" and self._ground.bowl_g:
            return limit.amount * self._ground.bowl_g * 100 / total_percent
        return None

    def pieces(self, lot: Lot) -> float:
        """The most pieces of a lot for which there are loads left; inf where no limit speaks of it."""
        most = inf
        for limit, taken in zip(self._limits, self._taken, strict=True):
            if (room := room_of(limit.kind, lot, self._ground.kit)) is not None:
                loads = int((limit.amount - taken) / _load_takes(limit, lot) + 1e-9)
                most = min(most, max(0, loads) * room.pieces)
        return most

    def take(self, lot: Lot, pieces: float) -> None:
        """So many pieces of a lot have their loads."""
        for n, limit in enumerate(self._limits):
            if (room := room_of(limit.kind, lot, self._ground.kit)) is not None:
                self._taken[n] += room.loads(pieces) * _load_takes(limit, lot)


def enough(need_: float, amount: float) -> bool:
    """Whether there is as much as is needed, but for floating point."""
    return need_ <= amount * (1 + 1e-9)


def need_figure(limit: Limit, needed: float, batch: Batch, ground: Ground) -> Derived:
    """What a limit needs, with its working."""
    label, says = SAYS[limit.kind]
    if limit.kind == "flour":
        return derived(label, needed, "g", says, "{flour}", flour=("Flour", batch.flour_g, "g"))
    if limit.kind == "ingredient":
        share = ground.shares[limit.ingredient.casefold()]
        counted = limit.each_g is not None
        return derived(
            limit.ingredient, needed, "count" if counted else "g", says,
            "{flour} × {percent}" + (" ÷ {each}" if counted else ""),
            flour=("Flour", batch.flour_g, "g"), percent=(f"{limit.ingredient} over flour", share * 100, "percent"),
            each=("One", limit.each_g or 1.0, "g"),
        )  # fmt: skip
    if limit.kind == "bowl":
        return derived(
            label, needed, "count", says, "{dough} ÷ {bowl}, up to whole",
            dough=("Dough mixed", batch.dough_g, "g"), bowl=("The bowl takes", ground.bowl_g or 0.0, "g"),
        )  # fmt: skip
    parts, inputs = [], {}
    for i, (lot, pieces) in enumerate(batch.lots):
        room = room_of(limit.kind, lot, ground.kit)
        if room is None:
            continue
        loads = f"{{pieces{i}}} ÷ {{load{i}}}, up to whole"
        parts.append(f"({loads}) × {{min{i}}}" if limit.kind == "by_when" else loads)
        inputs[f"pieces{i}"] = ("Pieces", pieces, "count")
        inputs[f"load{i}"] = ("In one load", room.pieces, "count")
        inputs[f"min{i}"] = ("Each load", lot.bake_min, "min")
    unit = "min" if limit.kind == "by_when" else "count"
    return derived(label, needed, unit, says, " + ".join(parts), **inputs)  # type: ignore[arg-type]  # units of the three


class Counted(Frozen):
    """What is counted rather than weighed, and what one is worth. [g]"""

    key: str
    label: str
    ingredient: str
    each_g: float
    source: str


@cache
def counted() -> dict[str, Counted]:
    """What a limit may be counted in, by key."""
    return {row["key"]: Counted(**row) for row in rows(__name__, "counted.csv")}


def ground_of(formula: Formula, reckoned: Reckoned, kit: Kit, dough: Character) -> Ground:
    """What limits rest on: kit, the bowl for its dough as stiff as that is, how much smaller it bakes for its bran, and each ingredient over flour."""
    shares: dict[str, float] = {}
    for stage, figures in zip(formula.stages, reckoned.stages, strict=True):
        for line, figure in zip(stage.lines, figures.lines, strict=True):
            name = line.name.casefold()
            shares[name] = shares.get(name, 0.0) + figure.percent / 100
    return Ground(kit=interned(kit), bowl_g=kit.most_dough_g(stiff=dough.stiff), bran=dough.bran, shares=shares)
