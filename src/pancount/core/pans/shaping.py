"""Shaping: how long, thick and wide a piece of a weight comes out, and what another weight would make of it.

All by volume: a piece of m grams has m/ρ millilitres, whatever its shape. Rules follow by arithmetic; that a rounded
ball sits as about a half ball is common practice, no source.
"""

from dataclasses import dataclass
from math import cbrt, pi, sqrt
from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base.derived import Derived, Unit, derived
from pancount.core.base.models import Centimetres, Frozen
from pancount.core.pans.pan import DOUGH_G_PER_ML, RISE, dome_diameter_cm

ShapeKind = Literal["ball", "disc", "rope", "knot", "ring", "log"]


class Shaping(Frozen):
    """How a piece is shaped, with the one measure that is kept when its weight changes. [cm]"""

    kind: ShapeKind = "ball"
    thickness_cm: Centimetres | None = None
    """Of a rope across, of a disc through."""
    length_cm: Centimetres | None = None
    """Of a rope, or of a log that is cut into pieces."""
    diameter_cm: Centimetres | None = None
    """Of a disc."""
    overlap_cm: Annotated[float, Field(ge=0, le=100)] = 2.0
    """Of a rope's ends where they close a ring."""


SHAPES: dict[ShapeKind, tuple[str, str, float]] = {
    "ball": ("Ball", "", 0.0),
    "disc": ("Rolled out", "thickness_cm", 0.6),
    "rope": ("Rope", "thickness_cm", 2.0),
    "knot": ("Knot", "thickness_cm", 1.6),
    "ring": ("Ring", "thickness_cm", 2.6),
    "log": ("Cut from a log", "length_cm", 30.0),
}
"""What each shape is called, the measure it starts from, and that measure's usual size: common practice, no source. [cm]"""


@dataclass(frozen=True, slots=True)
class Shaped:
    """A piece as shaped. What does not belong to its shape is None. [cm]"""

    kind: ShapeKind
    piece_g: float
    across_cm: float
    """Its width as it lies on the sheet, before it rises."""
    length_cm: float | None = None
    thickness_cm: float | None = None
    opening_cm: float | None = None
    """Of a ring, as shaped."""
    risen_opening_cm: float | None = None
    """Of a ring when doubled; 0 where it has closed."""
    slice_cm: float | None = None
    """Of a log: how far apart the cuts are."""
    cuts: int | None = None
    """Of a log: the pieces along it."""


def rope_cm(piece_g: float, thickness_cm: float) -> float:
    """Length of a rope: 4·m / (ρ·π·d²). [cm]

    >>> round(rope_cm(85, 1.6), 1)
    38.4
    """
    return 4 * piece_g / (DOUGH_G_PER_ML * pi * thickness_cm**2)


def rope_thickness_cm(piece_g: float, length_cm: float) -> float:
    """Thickness of a rope of a length. [cm]"""
    return sqrt(4 * piece_g / (DOUGH_G_PER_ML * pi * length_cm))


def disc_cm(piece_g: float, thickness_cm: float) -> float:
    """Diameter of a piece rolled out to a thickness: √(4·m / (ρ·π·t)). [cm]"""
    return sqrt(4 * piece_g / (DOUGH_G_PER_ML * pi * thickness_cm))


def disc_thickness_cm(piece_g: float, diameter_cm: float) -> float:
    """Thickness of a piece rolled out to a diameter: m / (ρ·area). [cm]"""
    return 4 * piece_g / (DOUGH_G_PER_ML * pi * diameter_cm**2)


KNOT_ROPES = 3.2
"""A knot lies about as wide as its rope's length over this. Common practice, no source."""


def shape(shaping: Shaping, piece_g: float, pieces: int) -> Shaped:
    """A piece of a weight as shaped. `pieces` is how many are cut from one log."""
    kind = shaping.kind
    if kind == "ball" or piece_g <= 0:
        return Shaped("ball", piece_g, dome_diameter_cm(max(piece_g, 0.0)))
    if kind == "disc":
        if shaping.diameter_cm is not None:
            thickness = disc_thickness_cm(piece_g, shaping.diameter_cm)
            return Shaped(kind, piece_g, shaping.diameter_cm, thickness_cm=thickness)
        thickness = shaping.thickness_cm or SHAPES[kind][2]
        return Shaped(kind, piece_g, disc_cm(piece_g, thickness), thickness_cm=thickness)
    if kind == "log":
        length, cuts = shaping.length_cm or SHAPES[kind][2], max(1, pieces)
        thickness = rope_thickness_cm(piece_g * cuts, length)
        return Shaped(kind, piece_g, thickness, length_cm=length, thickness_cm=thickness, slice_cm=length / cuts, cuts=cuts)
    if shaping.length_cm is not None:
        length, thickness = shaping.length_cm, rope_thickness_cm(piece_g, shaping.length_cm)
    else:
        thickness = shaping.thickness_cm or SHAPES[kind][2]
        length = rope_cm(piece_g, thickness)
    if kind == "ring":
        # The rope's middle line closes to a circle once its ends overlap.
        middle = max(0.0, length - shaping.overlap_cm) / pi
        opening, risen = max(0.0, middle - thickness), max(0.0, middle - thickness * sqrt(RISE))
        across = middle + thickness
        return Shaped(kind, piece_g, across, length, thickness, opening_cm=opening, risen_opening_cm=risen)
    across = length / KNOT_ROPES if kind == "knot" else length
    return Shaped(kind, piece_g, across, length, thickness)


def baked_across_cm(shaped: Shaped, rise: float) -> float:
    """Its width at `rise` times its volume. A disc grows mostly upward; a rope keeps its length, so that it grows by the square
    root in thickness; all else by the cube root.

    Common practice, no source. [cm]
    """
    if shaped.kind == "disc":
        return shaped.across_cm * (1 + 0.1 * (rise - 1))
    if shaped.kind in ("rope", "knot", "ring"):
        return shaped.across_cm + (shaped.thickness_cm or 0.0) * (sqrt(rise) - 1)
    return shaped.across_cm * cbrt(rise)


def shaped_figures(shaping: Shaping, shaped: Shaped) -> dict[str, Derived]:
    """The worked-out measures of a shape, each with its working."""
    found: dict[str, Derived] = {}
    piece: tuple[str, float, Unit] = ("Raw piece", shaped.piece_g, "g")
    density: tuple[str, float, Unit] = ("Density of dough", DOUGH_G_PER_ML, "density")
    thick, long = shaped.thickness_cm or 0.0, shaped.length_cm or 0.0
    if shaped.kind == "ball":
        found["shape_across"] = derived(
            "Ball, across", shaped.across_cm, "cm", "A rounded piece sits as about a half ball.",
            "∛(12 × {piece} ÷ {density} ÷ π)", piece=piece, density=density,
        )  # fmt: skip
    elif shaped.kind == "disc" and shaping.diameter_cm is not None:
        found["shape_thickness"] = derived(
            "Rolled out, thick", thick, "cm", "Rolled out, the piece is as thick as its volume over its area.",
            "4 × {piece} ÷ ({density} × π × {across}²)",
            piece=piece, density=density, across=("Across", shaped.across_cm, "cm"),
        )  # fmt: skip
    elif shaped.kind == "disc":
        found["shape_across"] = derived(
            "Rolled out, across", shaped.across_cm, "cm", "Rolled out to a thickness, the piece is as wide as its volume asks.",
            "√(4 × {piece} ÷ ({density} × π × {thick}))", piece=piece, density=density, thick=("Thickness", thick, "cm"),
        )  # fmt: skip
    elif shaped.kind == "log":
        cuts: tuple[str, float, Unit] = ("Pieces along the log", shaped.cuts or 1, "count")
        length: tuple[str, float, Unit] = ("Length of the log", long, "cm")
        found["shape_slice"] = derived(
            "Cut every", shaped.slice_cm or 0.0, "cm", "The cuts share the log evenly.", "{long} ÷ {cuts}", long=length, cuts=cuts
        )
        found["shape_thickness"] = derived(
            "Log, thick", thick, "cm", "The log is as thick as the volume of all its pieces over its length.",
            "√(4 × {cuts} × {piece} ÷ ({density} × π × {long}))", piece=piece, density=density, long=length, cuts=cuts,
        )  # fmt: skip
    elif shaping.length_cm is not None:
        found["shape_thickness"] = derived(
            "Rope, thick", thick, "cm", "A rope of a length is as thick as its volume asks.",
            "√(4 × {piece} ÷ ({density} × π × {long}))", piece=piece, density=density, long=("Length", long, "cm"),
        )  # fmt: skip
    else:
        found["shape_length"] = derived(
            "Rope, long", long, "cm", "A rope of a thickness is as long as its volume asks: half the piece, half as long.",
            "4 × {piece} ÷ ({density} × π × {thick}²)", piece=piece, density=density, thick=("Thickness", thick, "cm"),
        )  # fmt: skip
    if shaped.opening_cm is not None:
        found["shape_opening"] = derived(
            "Opening", shaped.opening_cm, "cm", "The rope closes to a circle; its own thickness takes from the opening.",
            "({long} − {overlap}) ÷ π − {thick}", long=("Rope", long, "cm"),
            overlap=("Overlap", shaping.overlap_cm, "cm"), thick=("Thickness", thick, "cm"),
        )  # fmt: skip
        found["shape_risen_opening"] = derived(
            "Opening when doubled", shaped.risen_opening_cm or 0.0, "cm", "Doubled, the rope is as long and √2 as thick, so the opening is smaller.",
            "({long} − {overlap}) ÷ π − {thick} × √{rise}", long=("Rope", long, "cm"),
            overlap=("Overlap", shaping.overlap_cm, "cm"), thick=("Thickness", thick, "cm"), rise=("Rise", RISE, "count"),
        )  # fmt: skip
    return found
