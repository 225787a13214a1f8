"""The core's data files, and the fill rules: loaded once and validated."""

import csv
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from pancount.core.base import Frozen
from pancount.core.units import CM_PER_IN, G_PER_OZ

FillPer = Literal["area", "volume", "share"]


BRAN_SMALLER = 0.25
"""By how much bread of all wholemeal or rye is smaller than white. Common practice, no source."""


class FillRule(Frozen):
    """How much dough a kind of bake is usually given: by pan area [g/cm²], by brim volume [g/ml], or as the share of the brim volume that the dough takes as divided."""

    key: str
    label: str
    per: FillPer
    pieces: Literal["one", "touching", "apart"]
    """One slab or loaf to a pan, pieces that meet, or pieces apart on a sheet."""
    low: float
    high: float
    gap_cm: float
    """Between pieces as baked, where they lie apart. [cm]"""
    loss_low: float
    loss_high: float
    """What baking takes, as a share of the raw piece."""
    bake_min: float
    """How long one load is usually in the heat. [min]"""
    baked_low: float
    baked: float
    baked_high: float
    """Specific volume of what is baked: low, usual, high; under a lid, what comes to the lid at its usual fill. [ml/g]"""
    rim: float
    """How much risen dough stands in the pan on purpose, over what that holds: cups and tin loaves dome above the rim."""
    source: str

    @property
    def usual(self) -> float:
        """The middle of the band."""
        return (self.low + self.high) / 2

    @property
    def loss(self) -> float:
        """The middle of what baking takes."""
        return (self.loss_low + self.loss_high) / 2

    def baked_ml(self, dough_g: float, loss: float, bran: float = 0.0) -> float:
        """The volume that so much dough bakes to. `loss` is what baking takes, `bran` how much of its flour is wholemeal or rye,
        both as shares: bread of all wholemeal or rye is a quarter smaller. Common practice, no source. [ml]"""
        return dough_g * (1 - loss) * self.baked * (1 - BRAN_SMALLER * bran)


class Counted(Frozen):
    """What is counted rather than weighed, and what one is worth. [g]"""

    key: str
    label: str
    ingredient: str
    each_g: float
    source: str


def rows(name: str) -> list[dict[str, Any]]:
    """The rows of a data file, by the names in its header."""
    text = files("pancount.core").joinpath("data", name).read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


@cache
def fills() -> dict[str, FillRule]:
    """Fill rules by key, each with its source."""
    return {row["key"]: FillRule(**row) for row in rows("fills.csv")}


@cache
def counted() -> dict[str, Counted]:
    """What a limit may be counted in, by key."""
    return {row["key"]: Counted(**row) for row in rows("counted.csv")}


FILL_UNITS: dict[str, tuple[FillPer, float]] = {
    "g/cm²": ("area", 1.0),
    "oz/in²": ("area", G_PER_OZ / CM_PER_IN**2),
    "g/ml": ("volume", 1.0),
    "% full": ("share", 0.01),
}
"""What a fill may be typed in: what it is per, and its worth. Pizza bakers' thickness factor is in oz/in²: 1 is 4.394 g/cm²."""
