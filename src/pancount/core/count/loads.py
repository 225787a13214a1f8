"""Sheets, loads and mixes: how the pieces of a target go through the oven, the pot, the griddle and the fridge, and the dough through the bowl."""

from dataclasses import dataclass
from math import ceil
from typing import Literal

from pancount.core.base.derived import Derived, derived
from pancount.core.count.limits import SAYS
from pancount.core.formula.formula import BesideKind, Formula
from pancount.core.pans.kit import Kit, mixes_needed
from pancount.core.pans.packing import Packing
from pancount.core.pans.pan import AnyPan, Griddle
from pancount.core.pans.room import Lot, Room, griddle_room, pot_room, room_of

Through = Literal["oven", "pot", "griddle", "fridge"]


@dataclass(frozen=True, slots=True)
class Turns:
    """How the pieces of a target go through one thing, load by load."""

    through: Through
    holder: AnyPan | None
    """What is drawn: a sheet, the pot, the griddle. None where pans hold the pieces."""
    packing: Packing | None
    per_holder: int
    """Pieces on one sheet, in one pan, or in the pot at once."""
    holders: int
    """Sheets or pans in all."""
    at_once: int
    """Sheets or pans in one load."""
    per_load: int
    loads: int
    last: int
    """Pieces in the last load."""
    load_min: float | None
    """How long each is in the heat."""
    wait_min: float | None
    """How long the last load waits while the others are in."""


def _turns(through: Through, holder: AnyPan | None, room: Room, pieces: int, minutes: float | None) -> Turns:
    loads = room.loads(pieces)
    last = pieces - max(0, loads - 1) * room.pieces
    return Turns(
        through=through,
        holder=holder,
        packing=room.packing,
        per_holder=room.each,
        holders=ceil(pieces / room.each),
        at_once=room.holders or 1,
        per_load=room.pieces,
        loads=loads,
        last=last,
        load_min=minutes,
        wait_min=minutes * max(0, loads - 1) if minutes is not None else None,
    )


def turns(formula: Formula, lot: Lot, pieces: int, kit: Kit) -> tuple[Turns, ...]:
    """Through what the pieces go, as far as the kit is known: the pot where there is a bath, the griddle for flatbreads
    without a pan, else the oven; and the fridge."""
    found: list[Turns] = []
    if pieces < 1:
        return ()
    bath = any(stage.kind is BesideKind.BATH for stage in formula.beside)
    if bath and (room := pot_room(lot, kit)) is not None:
        found.append(_turns("pot", kit.pot, room, pieces, None))
    on_griddle = isinstance(lot.pan, Griddle) or (lot.pan is None and "griddle" in formula.styles)
    if on_griddle:
        if (room := griddle_room(lot, kit)) is not None:
            griddle = lot.pan if isinstance(lot.pan, Griddle) else kit.griddle
            found.append(_turns("griddle", griddle, room, pieces, lot.bake_min))
    elif (room := room_of("oven", lot, kit)) is not None:
        holder = (lot.pan or kit.sheet) if room.packing is not None else None
        found.append(_turns("oven", holder, room, pieces, lot.bake_min))
    if not on_griddle and (room := room_of("fridge", lot, kit)) is not None:
        found.append(_turns("fridge", None, room, pieces, None))
    return tuple(found)


def turns_figures(found: tuple[Turns, ...], pieces: int) -> dict[str, Derived]:
    """Loads and pieces a sheet, each with its working."""
    figures: dict[str, Derived] = {}
    for one in found:
        figures[f"{one.through}_loads"] = derived(
            SAYS[one.through][0], one.loads, "count", SAYS[one.through][1], "{pieces} ÷ {load}, up to whole",
            pieces=("Pieces", pieces, "count"), load=("In one load", one.per_load, "count"),
        )  # fmt: skip
        figures[f"{one.through}_per_load"] = derived(
            "In one load", one.per_load, "count", "One load is what each sheet or pan holds, times how many are in at once.",
            "{each} × {at_once}", each=("On each", one.per_holder, "count"), at_once=("At once", one.at_once, "count"),
        )  # fmt: skip
        if one.packing is not None:
            figures[f"{one.through}_per_holder"] = derived(
                "Side by side", one.per_holder, "count",
                "Laid out with their width and the gap between them, in straight rows, staggered or in rings, whichever holds more.",
                f"{{across}} wide with {{gap}} between them: {one.packing.words}",
                across=("Across", one.packing.across_cm, "cm"), gap=("Gap", one.packing.gap_cm, "cm"),
            )  # fmt: skip
        if one.wait_min:
            figures[f"{one.through}_wait"] = derived(
                "The last load waits", one.wait_min, "min", "The last load waits while all before it are in the heat.",
                "({loads} − 1) × {each}", loads=("Loads", one.loads, "count"), each=("Each load", one.load_min or 0.0, "min"),
            )  # fmt: skip
    return figures


@dataclass(frozen=True, slots=True)
class Mixes:
    """How the dough goes through the bowl: equal mixes."""

    bowl_g: float
    """The most dough in one mix."""
    stiff: bool
    """Whether that is the lower limit of a stiff dough."""
    mixes: int
    each_g: float


def mixes(dough_g: float, bowl_g: float | None, *, stiff: bool) -> Mixes | None:
    """Equal mixes of so much dough; None where the bowl is not known."""
    if bowl_g is None:
        return None
    number = max(1, mixes_needed(dough_g, bowl_g))
    return Mixes(bowl_g, stiff, number, dough_g / number)


def mixes_figures(found: Mixes, dough_g: float) -> dict[str, Derived]:
    """The mixes and what is in each, with their workings."""
    return {
        "mixes": derived(
            SAYS["bowl"][0], found.mixes, "count", SAYS["bowl"][1] + (" A stiff dough strains the mixer, so less of it goes in." if found.stiff else ""),
            "{dough} ÷ {bowl}, up to whole", dough=("Dough mixed", dough_g, "g"), bowl=("The bowl takes", found.bowl_g, "g"),
        ),
        "mix": derived(
            "Each mix", found.each_g, "g", "The mixes are equal.", "{dough} ÷ {mixes}",
            dough=("Dough mixed", dough_g, "g"), mixes=("Mixes", found.mixes, "count"),
        ),
    }  # fmt: skip
