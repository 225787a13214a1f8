"""How many pieces kit takes at once: the oven's shelves, the pot, the griddle, the fridge."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from math import ceil

from pancount.core.pans.kit import POT_GAP_CM, Kit
from pancount.core.pans.packing import Packing, fit_rectangles, pack
from pancount.core.pans.pan import AnyPan, Griddle, SheetPan, Stone, lies_free, solid


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
def room_of(kind: str, lot: Lot, kit: Kit) -> Room | None:
    """What takes one load of a lot, by where it goes; `by_when` is what heats it. None for anything else, and where the kit is not known. Remembered."""
    room = ROOMS.get(kind)
    return room(lot, kit) if room else None
