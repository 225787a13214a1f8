"""Pans held against each other: what so much dough makes of each, how it cuts, and what else would take it."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import pi

from pancount.core.base.models import Frozen, SomeGrams, Word
from pancount.core.pans.depths import Depths, depths, past_rim
from pancount.core.pans.fills import FillRule, fill_is, fill_rule, pan_size
from pancount.core.pans.measured import Measured, measure
from pancount.core.pans.pan import AnyPan, Pan, lies_free, solid
from pancount.core.pans.shelf import ShelfPan


@dataclass(frozen=True, slots=True)
class Slices:
    """How it cuts: "3 × 4" of so wide and so high, or wedges. [cm]"""

    words: str
    pieces: int
    width_cm: float
    length_cm: float
    height_cm: float


SLICE_CM = 1.5
"""A slice of a tin loaf. Common practice, no source. [cm]"""
PIECE_CM = 7.0
"""About the side of a square cut from a slab, and the outer edge of a wedge. Common practice, no source. [cm]"""


def slices(pan: AnyPan, baked_cm: float) -> Slices:
    """How what is baked in a pan is usually cut: a tin in slices, a slab in squares, a round in wedges, cups not at all."""
    found = solid(pan)
    length, width = found.section(0.5)
    if found.count > 1:
        return Slices("one from each cup", found.count, length, length, baked_cm)
    if found.form != "rectangle":
        wedges = max(4, 2 * round(pi * length / PIECE_CM / 2))
        return Slices("wedges", wedges, pi * length / wedges, (length - (width if found.form == "ring" else 0)) / 2, baked_cm)
    if pan.shape in ("loaf", "lidded"):
        return Slices("slices", max(1, int(length / SLICE_CM)), width, SLICE_CM, baked_cm)
    across, down = max(1, round(length / PIECE_CM)), max(1, round(width / PIECE_CM))
    return Slices(f"{down} × {across}", across * down, length / across, width / down, baked_cm)


@dataclass(frozen=True, slots=True)
class InPan:
    """So much dough in a pan. `keeps_g` is what the pan wants to be as full as the one it is held against."""

    pan: AnyPan
    measured: Measured
    dough_g: float
    depths: Depths
    past_rim: bool
    fill: float
    fill_is: str
    slices: Slices
    wants_low_g: float
    wants_g: float
    wants_high_g: float
    keeps_g: float
    keeps_share: float
    """Of the dough in the first pan: 1.035 is 3.5 % more."""


def in_pan(pan: AnyPan, dough_g: float, rule: FillRule, first: AnyPan) -> InPan:
    """What so much dough makes of a pan, and what the pan wants by the fill rule; `first` is the pan the others are held against.

    Swapping pans keeps thickness for slabs (scale by area) and fill for tins (scale by volume). Common practice, no source.
    """
    size, deep = pan_size(pan, rule), depths(pan, dough_g, rule)
    keeps = size / pan_size(first, rule)
    fill = dough_g / size
    return InPan(
        pan=pan,
        measured=measure(pan),
        dough_g=dough_g,
        depths=deep,
        past_rim=past_rim(pan, dough_g, rule),
        fill=fill,
        fill_is=fill_is(fill, rule.low, rule.high),
        slices=slices(pan, deep.baked_cm),
        wants_low_g=rule.low * size,
        wants_g=rule.usual * size,
        wants_high_g=rule.high * size,
        keeps_g=dough_g * keeps,
        keeps_share=keeps,
    )


class Wanted(Frozen):
    """So much dough of a kind, in this pan so far."""

    dough_g: SomeGrams
    fill_kind: Word
    pan: Pan


@dataclass(frozen=True, slots=True)
class StandIn:
    """A pan of the shelf, or several alike, that would take the dough: how far each is from as full as now."""

    key: int
    """Which pan of those asked about."""
    pans: int
    in_pan: InPan
    off: float
    """The fill over the present fill, less 1."""
    words: str


MOST_PANS = 6


def stand_ins(wanted: Wanted, shelf: Iterable[tuple[int, ShelfPan]]) -> tuple[StandIn, ...]:
    """What else on the shelf would take this dough, best first: nearest to as full as it is now, fewest pans.

    Pans that would be filled outside of the usual band by more than a quarter, or that the risen dough would leave, are
    left out, as are flat ones for a dough that needs sides.
    """
    rule = fill_rule(wanted.fill_kind)
    now = wanted.dough_g / pan_size(wanted.pan, rule)
    needs_sides = not lies_free(wanted.pan)
    found = []
    for key, shelved in shelf:
        pan = shelved.pan
        if pan == wanted.pan or (needs_sides and lies_free(pan) and pan.shape != "sheet"):
            continue
        for pans in range(1, min(shelved.owned, MOST_PANS) + 1):
            inside = in_pan(pan, wanted.dough_g / pans, rule, wanted.pan)
            if inside.past_rim or not rule.low * 0.75 <= inside.fill <= rule.high * 1.25:
                continue
            found.append(StandIn(key, pans, inside, inside.fill / now - 1, _words(inside, pans, now)))
    return tuple(sorted(found, key=lambda s: (abs(s.off) + 0.05 * (s.pans - 1), s.key)))


def _words(inside: InPan, pans: int, now: float) -> str:
    off = inside.fill / now - 1
    how = "as full" if abs(off) < 0.02 else f"{abs(off) * 100:.0f} % {'fuller' if off > 0 else 'shallower'}"
    return f"{pans} of them, {how}" if pans > 1 else how
