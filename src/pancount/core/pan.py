"""Pans: inside measures, and what they hold."""

from collections.abc import Callable
from math import cbrt, pi
from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base import Centimetres, Frozen, Name

DOUGH_G_PER_ML = 1.10
"""Density of dough as mixed. Common practice, no source. [g/ml]"""

RISE = 2.0
"""'Doubled': the volume a dough is usually baked at, over its volume as divided. Common practice, no source."""


class RectanglePan(Frozen):
    """A straight-sided rectangle by its inside measures. Its name is not its size. [cm]"""

    shape: Literal["rectangle"] = "rectangle"
    name: Name = ""
    length_cm: Centimetres
    width_cm: Centimetres
    depth_cm: Centimetres


class RoundPan(Frozen):
    """A straight-sided round by its inside measures. [cm]"""

    shape: Literal["round"] = "round"
    name: Name = ""
    diameter_cm: Centimetres
    depth_cm: Centimetres


Pan = Annotated[RectanglePan | RoundPan, Field(discriminator="shape")]


def rectangle_area(pan: RectanglePan) -> float:
    """Inside area, length × width. [cm²]

    >>> rectangle_area(RectanglePan(length_cm=33, width_cm=23, depth_cm=5))
    759.0
    """
    return pan.length_cm * pan.width_cm


def round_area(pan: RoundPan) -> float:
    """Inside area, π·d²/4. [cm²]

    >>> round(round_area(RoundPan(diameter_cm=30.48, depth_cm=5)))
    730
    """
    return pi * pan.diameter_cm**2 / 4


AREA_OF: dict[str, Callable[..., float]] = {"rectangle": rectangle_area, "round": round_area}


def area_cm2(pan: RectanglePan | RoundPan) -> float:
    """Inside area of any pan. [cm²]"""
    return AREA_OF[pan.shape](pan)


def volume_ml(pan: RectanglePan | RoundPan) -> float:
    """Brim volume of a straight-sided pan: area × depth. [ml]"""
    return area_cm2(pan) * pan.depth_cm


def dough_depth_cm(dough_g: float, area: float) -> float:
    """Depth of level dough as divided: mass ÷ density ÷ area. [cm]

    >>> round(dough_depth_cm(924, 759), 2)
    1.11
    """
    return dough_g / DOUGH_G_PER_ML / area


def dome_diameter_cm(piece_g: float, rise: float = 1.0) -> float:
    """Diameter of a round piece that sits as a half ball, risen to `rise` times its volume. [cm]

    (12·V/π)^(1/3) with V the volume of the piece. That a rounded piece sits as about a half ball is
    common practice, no source: it is for drawing, not for weighing.
    """
    return cbrt(12 * piece_g / DOUGH_G_PER_ML * rise / pi)
