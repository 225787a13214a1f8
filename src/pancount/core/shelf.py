"""The shelf: the kitchen's own pans, what each is made of and does in the oven, and pans held against each other."""

import re
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache
from math import pi
from typing import Annotated, Literal

from pydantic import Field, TypeAdapter

from pancount.core.base import Frozen, SomeGrams, Word, Words
from pancount.core.count import fill_rule, pan_size
from pancount.core.limits import lies_free
from pancount.core.pan import (
    AnyPan,
    Pan,
    Solid,
    area_cm2,
    inside_cm2,
    measured_ml,
    reckoned_ml,
    solid,
    volume_ml,
)
from pancount.core.panned import Depths, depths, fill_is, past_rim
from pancount.core.tables import FillRule, rows
from pancount.core.units import CM_PER_IN, G_PER_OZ


class ShelfPan(Frozen):
    """A pan that the kitchen owns. What it is called is kept apart from its size, which is the pan's own."""

    pan: Pan
    material: Word | None = None
    colour: Words = ""
    sticks: bool = False
    owned: Annotated[int, Field(ge=0, le=1000)] = 1
    note: Words = ""


class Material(Frozen):
    """What a pan is made of, and what that does in the oven."""

    key: str
    label: str
    in_the_oven: str
    source: str


class CommonPan(Frozen):
    """A size to start from."""

    pan: Pan
    source: str
    nominal_ml: float | None = None
    """What makers and cooks say that it holds. None where they say nothing, or not the same. [ml]"""


@cache
def materials() -> dict[str, Material]:
    """What pans are made of, by key."""
    return {row["key"]: Material(**row) for row in rows("materials.csv")}


@cache
def common_pans() -> tuple[CommonPan, ...]:
    """Common sizes, by shape."""
    read: TypeAdapter[AnyPan] = TypeAdapter(Pan)
    return tuple(
        CommonPan(
            pan=read.validate_python({k: v for k, v in row.items() if v and k not in ("source", "nominal_ml")}),
            source=row["source"],
            nominal_ml=float(row["nominal_ml"]) if row["nominal_ml"] else None,
        )
        for row in rows("pans.csv")
    )


POUNDS = re.compile(r"\b(one|two|three|half|\d+(?:[.½]\d*)?)[- ]?(?:pound|lb)s?\b", re.IGNORECASE)
NUMBER = r"(\d+(?:[.,]\d+)?(?:½)?)"
TWO = re.compile(rf"{NUMBER}\s*[×x]\s*{NUMBER}\s*(cm|in|inch|inches|\"|″)?", re.IGNORECASE)
ONE = re.compile(rf"{NUMBER}\s*(cm|in|inch|inches|\"|″)(?![a-z])", re.IGNORECASE)
OUTSIDE = re.compile(r"\b(outside|außen)\b", re.IGNORECASE)
WORDS = {"one": 1.0, "two": 2.0, "three": 3.0, "half": 0.5}
INCH_OVER = 16
"""A name's measures without a unit are inches up to this, and centimetres over it. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class Promise:
    """What a pan's name promises: dough, or a size. None where it does not speak of it. [g, cm]"""

    dough_g: float | None = None
    size_cm: tuple[float, ...] | None = None


def _figure(text: str) -> float:
    return float(text.replace("½", "").replace(",", ".")) + (0.5 if "½" in text else 0.0)


def named_size(name: str) -> Promise:
    """What a pan's name promises.

    >>> named_size("Two-pound tin").dough_g
    907.18474
    >>> named_size("9 × 13").size_cm
    (22.86, 33.02)
    >>> named_size("30 cm iron pan").size_cm, named_size("Blue one").size_cm
    ((30.0,), None)
    """
    if OUTSIDE.search(name):
        return Promise()  # its rim's size, as shelves and racks go by
    if found := POUNDS.search(name):
        told = found[1].lower()
        return Promise(dough_g=(WORDS.get(told) or _figure(told)) * 16 * G_PER_OZ)
    if found := TWO.search(name):
        numbers: tuple[float, ...] = (_figure(found[1]), _figure(found[2]))
        unit = (found[3] or "").lower()
    elif found := ONE.search(name):
        numbers, unit = (_figure(found[1]),), found[2].lower()
    else:
        return Promise()
    inches = unit != "cm" and (bool(unit) or max(numbers) <= INCH_OVER)
    worth = CM_PER_IN if inches else 1.0
    return Promise(size_cm=tuple(round(n * worth, 3) for n in numbers))


@dataclass(frozen=True, slots=True)
class Measured:
    """What a pan measures and holds, and how its name and its water agree with that."""

    solid: Solid
    area_cm2: float
    volume_ml: float
    """The one that is used: by water where measured."""
    reckoned_ml: float
    measured_ml: float | None
    off: float | None
    """How far the reckoned volume is from the measured, as a share of the measured."""
    inside_cm2: float
    promise: Promise
    promise_is: Literal["kept", "less", "more", "none"]
    """What it takes, or how large it is, against what its name promises."""
    promised_share: float | None
    """By how much: 0.1 is a tenth more than promised."""


KEPT = 0.05
"""A name is kept to where size or dough is within this. Common practice, no source."""


def measure(pan: AnyPan) -> Measured:
    """A pan's figures. A pound tin's promise is held against the dough that usually fills it, a size against its top."""
    by_water, by_measures = measured_ml(pan), reckoned_ml(pan)
    promise, share = named_size(pan.name), None
    if promise.dough_g is not None and volume_ml(pan):
        rule = fill_rule("lidded_tin" if pan.shape == "lidded" else "open_tin")
        low, high = rule.low * volume_ml(pan), rule.high * volume_ml(pan)
        share = 0.0 if low <= promise.dough_g <= high else (rule.usual * volume_ml(pan)) / promise.dough_g - 1
    elif promise.size_cm is not None:
        share = _against(promise.size_cm, solid(pan)) - 1
    told: Literal["kept", "less", "more", "none"] = "none"
    if share is not None:
        told = "kept" if abs(share) <= KEPT else "more" if share > 0 else "less"
    return Measured(
        solid=solid(pan),
        area_cm2=area_cm2(pan),
        volume_ml=volume_ml(pan),
        reckoned_ml=by_measures,
        measured_ml=by_water,
        off=by_measures / by_water - 1 if by_water else None,
        inside_cm2=inside_cm2(pan),
        promise=promise,
        promise_is=told,
        promised_share=share,
    )


def _against(size_cm: tuple[float, ...], found: Solid) -> float:
    """A pan's top over the size its name tells, by area; by length alone where the name is one number and the pan is longer than
    wide, since that says nothing of its width."""
    a, b = found.top
    if len(size_cm) > 1:
        return a * b / (size_cm[0] * size_cm[1])
    long = max(a, b) if found.form == "rectangle" else a
    return long / size_cm[0] if found.form == "rectangle" and a != b else (long / size_cm[0]) ** 2


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

