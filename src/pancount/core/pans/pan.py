"""Pans: inside measures, and what they hold.

Every shape is a solid whose level sections go evenly from a base to a top: one table of solids (`SOLIDS`) gives areas,
volumes, the depth that dough reaches, and the drawing. Volumes of sloping sides follow the prismatoid rule
h/6·(A_top + 4·A_mid + A_base), which is exact for them.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from math import cbrt, hypot, pi
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from pancount.core.base.models import Centimetres, Frozen, Name

DOUGH_G_PER_ML = 1.10
"""Density of dough as mixed. Common practice, no source. [g/ml]"""

RISE = 2.0
"""'Doubled': the volume a dough is usually baked at, over its volume as divided. Common practice, no source."""

Millilitres = Annotated[float, Field(ge=0.01, le=1_000_000)]


class _Named(Frozen):
    """A pan's name is not its size."""

    name: Name = ""


class _Deep(_Named):
    """A pan with sides. Water to the brim, weighed, is what it holds: 1 g of it is 1 ml. [cm, ml]"""

    depth_cm: Centimetres
    brim_ml: Millilitres | None = None
    """What it holds by water, where it was measured; that beats what its measures say."""


def _corners_fit(corner_cm: float | None, *sides_cm: float | None) -> None:
    """Raises where round corners are larger than half of the shortest side."""
    shortest = min(side for side in sides_cm if side is not None)
    if corner_cm is not None and 2 * corner_cm > shortest:
        raise ValueError("the corners' radius can be at most half of the shortest side")


class _Oblong(_Deep):
    """A rectangle by its inside measures at the top; straight sides where no base is given."""

    length_cm: Centimetres
    width_cm: Centimetres
    base_length_cm: Centimetres | None = None
    base_width_cm: Centimetres | None = None
    corner_cm: Centimetres | None = None
    """Radius of its corners, seen from above; sharp where not given."""

    @model_validator(mode="after")
    def _corners_inside(self) -> Self:
        _corners_fit(self.corner_cm, self.length_cm, self.width_cm, self.base_length_cm, self.base_width_cm)
        return self


class _Disc(_Deep):
    """A round by its inside diameter at the top; straight sides where no base is given."""

    diameter_cm: Centimetres
    base_diameter_cm: Centimetres | None = None


class RectanglePan(_Oblong):
    """A rectangular pan."""

    shape: Literal["rectangle"] = "rectangle"


class SquarePan(_Deep):
    """A square by its inside side at the top; straight sides where no base is given."""

    shape: Literal["square"] = "square"
    side_cm: Centimetres
    base_side_cm: Centimetres | None = None
    corner_cm: Centimetres | None = None
    """Radius of its corners, seen from above; sharp where not given."""

    @model_validator(mode="after")
    def _corners_inside(self) -> Self:
        _corners_fit(self.corner_cm, self.side_cm, self.base_side_cm)
        return self


class RoundPan(_Disc):
    """A round pan."""

    shape: Literal["round"] = "round"


class IronPan(_Disc):
    """A round pan of cast iron, with a handle."""

    shape: Literal["iron"] = "iron"


class LoafTin(_Oblong):
    """A loaf tin, its sides sloping from the top to the base."""

    shape: Literal["loaf"] = "loaf"


class LiddedTin(_Oblong):
    """A tin with a lid: what rises has to stop at the brim."""

    shape: Literal["lidded"] = "lidded"


class RingPan(_Disc):
    """A ring: round outside, with a tube in the middle."""

    shape: Literal["ring"] = "ring"
    hole_cm: Centimetres
    """The tube's diameter at the top."""
    base_hole_cm: Centimetres | None = None
    """The tube's diameter at the base; the same where it is not given."""

    @model_validator(mode="after")
    def _hole_inside(self) -> Self:
        if self.hole_cm >= self.diameter_cm or (self.base_hole_cm or self.hole_cm) >= (
            self.base_diameter_cm or self.diameter_cm
        ):
            raise ValueError("the hole must be smaller than the ring around it")
        return self


class CupTray(_Disc):
    """A tray of round cups, all alike. What it holds by water is all its cups together."""

    shape: Literal["cups"] = "cups"
    cups: Annotated[int, Field(ge=1, le=200)]


class SheetPan(_Deep):
    """A flat sheet with a low rim."""

    shape: Literal["sheet"] = "sheet"
    length_cm: Centimetres
    width_cm: Centimetres


class Griddle(_Named):
    """A round griddle: no sides."""

    shape: Literal["griddle"] = "griddle"
    diameter_cm: Centimetres


class Stone(_Named):
    """A stone or steel: no sides."""

    shape: Literal["stone"] = "stone"
    length_cm: Centimetres
    width_cm: Centimetres


AnyPan = (
    RectanglePan
    | SquarePan
    | RoundPan
    | IronPan
    | LoafTin
    | LiddedTin
    | RingPan
    | CupTray
    | SheetPan
    | Griddle
    | Stone
)
Pan = Annotated[AnyPan, Field(discriminator="shape")]

SHAPES: dict[str, tuple[str, type[AnyPan], str]] = {
    "rectangle": ("Rectangle", RectanglePan, "pull_apart_buns"),
    "square": ("Square", SquarePan, "pull_apart_buns"),
    "round": ("Round", RoundPan, "pull_apart_buns"),
    "iron": ("Iron pan", IronPan, "pan_pizza"),
    "loaf": ("Loaf tin", LoafTin, "open_tin"),
    "lidded": ("Lidded tin", LiddedTin, "lidded_tin"),
    "ring": ("Ring", RingPan, "open_tin"),
    "cups": ("Cup tray", CupTray, "cups"),
    "sheet": ("Sheet", SheetPan, "focaccia"),
    "griddle": ("Griddle", Griddle, "flatbread"),
    "stone": ("Stone or steel", Stone, "thin_pizza"),
}
"""Every shape: what it is called, its model, and the kind of bake that it is usually for (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Solid:
    """`count` like hollows, each a straight blend from its base to its top: rectangles, discs, or discs with a hole. [cm]"""

    form: Literal["rectangle", "disc", "ring"]
    top: tuple[float, ...]
    """Length and width; diameter twice; or outer diameter and hole."""
    base: tuple[float, ...]
    depth_cm: float
    """0 for what has no sides."""
    count: int = 1
    corner_cm: float = 0.0
    """Radius of a rectangle's corners, the same at every depth."""

    def section(self, share: float) -> tuple[float, ...]:
        """The measures at a share of the depth, 0 at the base and 1 at the brim. Above the brim they stay."""
        share = min(share, 1.0)
        (a, b), (c, d) = self.base, self.top
        return a + (c - a) * share, b + (d - b) * share

    def area(self, share: float) -> float:
        """The level area of all hollows at a share of the depth. [cm²]"""
        a, b = self.section(share)
        one = {"rectangle": a * b - (4 - pi) * self.corner_cm**2, "disc": pi * a * b / 4, "ring": pi * (a * a - b * b) / 4}[self.form]
        return self.count * one

    def volume(self, share: float = 1.0) -> float:
        """What the hollows hold up to a share of their depth, by the prismatoid rule. Above the brim sides go straight up. [ml]"""
        inside = min(share, 1.0)
        height = self.depth_cm * inside
        within = height / 6 * (self.area(0) + 4 * self.area(inside / 2) + self.area(inside))
        return within + max(0.0, share - 1.0) * self.depth_cm * self.area(1)

    def wall(self) -> float:
        """The area of the sides, up to the brim. [cm²]"""
        (a, b), (c, d), h = self.base, self.top, self.depth_cm
        if self.form == "rectangle":
            # Each pair of sides is two trapezia; its height leans by half of what the other measure gains.
            one = (a + c) * hypot(h, (d - b) / 2) + (b + d) * hypot(h, (c - a) / 2) - (8 - 2 * pi) * self.corner_cm * h
        else:
            one = pi * (a + c) / 2 * hypot(h, (c - a) / 2)
            if self.form == "ring":
                one += pi * (b + d) / 2 * hypot(h, (d - b) / 2)
        return self.count * one


def _rectangle(pan: RectanglePan | LoafTin | LiddedTin) -> Solid:
    base = (pan.base_length_cm or pan.length_cm, pan.base_width_cm or pan.width_cm)
    return Solid("rectangle", (pan.length_cm, pan.width_cm), base, pan.depth_cm, corner_cm=pan.corner_cm or 0.0)


def _square(pan: SquarePan) -> Solid:
    base = pan.base_side_cm or pan.side_cm
    return Solid("rectangle", (pan.side_cm, pan.side_cm), (base, base), pan.depth_cm, corner_cm=pan.corner_cm or 0.0)


def _round(pan: RoundPan | IronPan | CupTray) -> Solid:
    base = pan.base_diameter_cm or pan.diameter_cm
    cups = pan.cups if isinstance(pan, CupTray) else 1
    return Solid("disc", (pan.diameter_cm, pan.diameter_cm), (base, base), pan.depth_cm, cups)


def _ring(pan: RingPan) -> Solid:
    base = (pan.base_diameter_cm or pan.diameter_cm, pan.base_hole_cm or pan.hole_cm)
    return Solid("ring", (pan.diameter_cm, pan.hole_cm), base, pan.depth_cm)


def _flat(pan: SheetPan | Stone) -> Solid:
    size = (pan.length_cm, pan.width_cm)
    return Solid("rectangle", size, size, pan.depth_cm if isinstance(pan, SheetPan) else 0.0)


def _griddle(pan: Griddle) -> Solid:
    size = (pan.diameter_cm, pan.diameter_cm)
    return Solid("disc", size, size, 0.0)


SOLIDS: dict[str, Callable[..., Solid]] = {
    "rectangle": _rectangle,
    "square": _square,
    "round": _round,
    "iron": _round,
    "loaf": _rectangle,
    "lidded": _rectangle,
    "ring": _ring,
    "cups": _round,
    "sheet": _flat,
    "griddle": _griddle,
    "stone": _flat,
}
"""Each shape as a solid."""


@lru_cache(maxsize=512)
def solid(pan: AnyPan) -> Solid:
    """A pan as a solid."""
    return SOLIDS[pan.shape](pan)


@lru_cache(maxsize=512)
def area_cm2(pan: AnyPan) -> float:
    """Inside area at mid-height, of all cups together. [cm²]

    >>> area_cm2(RectanglePan(length_cm=33, width_cm=23, depth_cm=5))
    759.0
    >>> round(area_cm2(RoundPan(diameter_cm=30.48, depth_cm=5)))
    730
    """
    return solid(pan).area(0.5)


@lru_cache(maxsize=512)
def reckoned_ml(pan: AnyPan) -> float:
    """Brim volume by its measures; 0 for what has no sides. [ml]"""
    return solid(pan).volume()


def measured_ml(pan: AnyPan) -> float | None:
    """Brim volume by water, where it was measured. [ml]"""
    return pan.brim_ml if isinstance(pan, _Deep) else None


def volume_ml(pan: AnyPan) -> float:
    """What it holds to the brim: by water where measured, else by its measures. [ml]"""
    return measured_ml(pan) or reckoned_ml(pan)


def inside_cm2(pan: AnyPan) -> float:
    """The base and the sides: what is oiled. [cm²]"""
    found = solid(pan)
    return found.area(0) + found.wall()


@lru_cache(maxsize=4096)
def level_cm(pan: AnyPan, ml: float) -> float:
    """How deep a level `ml` stands, above the brim as if the sides went straight up. [cm]

    A pan that holds more by water than by its measures is filled that much slower.

    >>> round(level_cm(RectanglePan(length_cm=33, width_cm=23, depth_cm=5), 924 / 1.1), 2)
    1.11
    """
    found = solid(pan)
    if not found.depth_cm:
        return ml / found.area(0)
    ml *= found.volume() / volume_ml(pan)
    brim = found.volume()
    if ml >= brim:
        return found.depth_cm + (ml - brim) / found.area(1)
    if found.base == found.top:
        return ml / found.area(0)
    low, high = 0.0, 1.0
    for _ in range(50):
        middle = (low + high) / 2
        low, high = (middle, high) if found.volume(middle) < ml else (low, middle)
    return found.depth_cm * low


def dome_diameter_cm(piece_g: float, rise: float = 1.0) -> float:
    """Diameter of a round piece that sits as a half ball, risen to `rise` times its volume. [cm]

    (12·V/π)^(1/3) with V the volume of the piece. That a rounded piece sits as about a half ball is
    common practice, no source.

    >>> round(dome_diameter_cm(80, RISE), 1)
    8.2
    """
    return cbrt(12 * piece_g / DOUGH_G_PER_ML * rise / pi)


def lies_free(pan: AnyPan | None) -> bool:
    """Whether pieces lie on it and are not held by sides: nothing told, a sheet, a stone or a griddle."""
    return pan is None or isinstance(pan, SheetPan | Stone | Griddle)
