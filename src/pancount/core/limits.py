"""Limits: at most so much of something. A count that is open goes up to them; one that is pinned is held against them.

Each limit says its need as one number in the unit of its amount: grams of flour, eggs, mixes, loads, minutes.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from math import ceil, inf
from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base import Frozen, Name
from pancount.core.derived import Derived, derived
from pancount.core.kit import POT_GAP_CM, Kit, mixes_needed
from pancount.core.packing import Packing, fit_rectangles, pack
from pancount.core.pan import AnyPan, Griddle, SheetPan, Stone, solid

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
class Room:
    """What takes the pieces of one target at a time: `holders` sheets or pans at once, each with `each` pieces.

    `holders` is None where the pieces lie in it directly, as in a pot.
    """

    holders: int | None
    each: int
    packing: Packing | None = None

    @property
    def pieces(self) -> int:
        """In one load."""
        return self.each * (1 if self.holders is None else self.holders)

    def loads(self, pieces: float) -> int:
        """How many loads so many pieces are; pans are filled before the next is begun."""
        return ceil(ceil(pieces / self.each) / (self.holders or 1)) if self.each else 0


@dataclass(frozen=True, slots=True)
class Lot:
    """The pieces of one target as kit sees them. [cm, min]"""

    pan: AnyPan | None
    pieces_per_pan: int
    raw_across_cm: float
    baked_across_cm: float
    gap_cm: float
    bake_min: float


def lies_free(pan: AnyPan | None) -> bool:
    """Whether pieces lie on it and are not held by sides: nothing told, a sheet, a stone or a griddle."""
    return pan is None or isinstance(pan, SheetPan | Stone | Griddle)


def outline_cm(pan: AnyPan) -> tuple[float, ...]:
    """The room a pan takes on a shelf: its top, with nothing for the rim. [cm]"""
    found = solid(pan)
    if found.form == "rectangle":
        return found.top
    across = found.top[0]
    if found.count == 1:
        return across, across
    rows = max(1, round(found.count**0.5 * 0.8))
    return across * 1.2 * ceil(found.count / rows), across * 1.2 * rows


def sheet_room(lot: Lot, kit: Kit) -> Packing | None:
    """How many lie on one sheet: on the target's own, or else on the kitchen's. None where neither is known or a pan holds them."""
    flat = lot.pan if lot.pan is not None else kit.sheet
    if flat is None or not lies_free(flat):
        return None
    return pack(flat, lot.baked_across_cm, lot.gap_cm)


def _sheets(lot: Lot, kit: Kit, at_once: int) -> Room | None:
    """Sheets side by side: as many on each as lie apart on it, or as the count has on the target's own."""
    packing = sheet_room(lot, kit)
    if lot.pan is None:
        return Room(min(at_once, kit.sheets), packing.holds, packing) if packing and packing.holds else None
    apart = packing if packing and packing.holds == lot.pieces_per_pan > 1 else None
    return Room(at_once, lot.pieces_per_pan, apart) if lot.pieces_per_pan else None


def oven_room(lot: Lot, kit: Kit) -> Room | None:
    """One load of the oven."""
    if lot.pan is None or isinstance(lot.pan, SheetPan):
        return _sheets(lot, kit, kit.shelves)
    if isinstance(lot.pan, Griddle):
        return None
    if isinstance(lot.pan, Stone):
        packing = sheet_room(lot, kit)
        return Room(1, packing.holds, packing) if packing and packing.holds else None
    if kit.oven_length_cm is None or kit.oven_width_cm is None:
        return None
    beside = fit_rectangles((kit.oven_length_cm, kit.oven_width_cm), outline_cm(lot.pan))
    return Room(kit.shelves * beside, lot.pieces_per_pan) if beside else None


def pot_room(lot: Lot, kit: Kit) -> Room | None:
    """One load of the bath pot: raw pieces that float beside each other."""
    if kit.pot is None:
        return None
    packing = pack(kit.pot, lot.raw_across_cm, POT_GAP_CM)
    return Room(None, packing.holds, packing) if packing.holds else None


def griddle_room(lot: Lot, kit: Kit) -> Room | None:
    """One load of the griddle."""
    griddle = lot.pan if isinstance(lot.pan, Griddle) else kit.griddle
    if griddle is None:
        return None
    packing = pack(griddle, lot.raw_across_cm, lot.gap_cm)
    return Room(None, packing.holds, packing) if packing.holds else None


def fridge_room(lot: Lot, kit: Kit) -> Room | None:
    """One filling of the fridge: sheets or pans beside each other on each shelf."""
    if kit.fridge_length_cm is None or kit.fridge_width_cm is None:
        return None
    holder = lot.pan or kit.sheet
    if holder is None:
        return None
    beside = kit.fridge_shelves * fit_rectangles((kit.fridge_length_cm, kit.fridge_width_cm), outline_cm(holder))
    if not beside:
        return None
    if lies_free(lot.pan):
        return _sheets(lot, kit, beside)
    return Room(beside, lot.pieces_per_pan) if lot.pieces_per_pan else None


def _heat_room(lot: Lot, kit: Kit) -> Room | None:
    return griddle_room(lot, kit) if isinstance(lot.pan, Griddle) else oven_room(lot, kit)


ROOMS: dict[str, Callable[[Lot, Kit], Room | None]] = {
    "oven": oven_room,
    "pot": pot_room,
    "griddle": griddle_room,
    "fridge": fridge_room,
    "by_when": _heat_room,
}


@lru_cache(maxsize=4096)
def room_of(kind: LimitKind, lot: Lot, kit: Kit) -> Room | None:
    """What takes one load of a target, for limits that are counted in loads. None where the kit is not known. Remembered."""
    room = ROOMS.get(kind)
    return room(lot, kit) if room else None


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


def linear(limit: Limit, ground: Ground, total_percent: float) -> float | None:
    """The most flour that a limit on flour, an ingredient or the bowl allows. None for other limits and where it says nothing. [g]"""
    if limit.kind == "flour":
        return limit.amount
    if limit.kind == "ingredient":
        share = ground.shares.get(limit.ingredient.casefold())
        return limit.amount * (limit.each_g or 1.0) / share if share else None
    if limit.kind == "bowl" and ground.bowl_g:
        return limit.amount * ground.bowl_g * 100 / total_percent
    return None


def load_takes(limit: Limit, lot: Lot) -> float:
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
            total += room.loads(pieces) * load_takes(limit, lot)
    return total if known else None


def most_pieces(limit: Limit, lot: Lot, ground: Ground, taken: float) -> float:
    """The most pieces of one target that a limit counted in loads allows, when others have `taken` of it. inf where it says nothing."""
    room = room_of(limit.kind, lot, ground.kit)
    if room is None:
        return inf
    loads = int((limit.amount - taken) / load_takes(limit, lot) + 1e-9)
    return max(0, loads) * room.pieces


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

