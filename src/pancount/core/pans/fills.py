"""How full: fill rules by kind of bake, what a fill is measured against, and its usual band."""

from functools import cache
from typing import Literal

from pancount.core.base.datafiles import rows
from pancount.core.base.models import Frozen
from pancount.core.base.units import CM_PER_IN, G_PER_OZ
from pancount.core.pans.pan import DOUGH_G_PER_ML, AnyPan, area_cm2, volume_ml

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


@cache
def fills() -> dict[str, FillRule]:
    """Fill rules by key, each with its source."""
    return {row["key"]: FillRule(**row) for row in rows(__name__, "fills.csv")}


FILL_UNITS: dict[str, tuple[FillPer, float]] = {
    "g/cm²": ("area", 1.0),
    "oz/in²": ("area", G_PER_OZ / CM_PER_IN**2),
    "g/ml": ("volume", 1.0),
    "% full": ("share", 0.01),
}
"""What a fill may be typed in: what it is per, and its worth. Pizza bakers' thickness factor is in oz/in²: 1 is 4.394 g/cm²."""


def fill_rule(kind: str) -> FillRule:
    """The fill rule of this key; an unknown one reads as pull-apart buns, so that an old formula still opens."""
    return fills().get(kind, fills()["pull_apart_buns"])


def pan_size(pan: AnyPan, rule: FillRule) -> float:
    """What the fill is measured against: the pan's area [cm²], its brim volume [ml], or the dough that would fill it to the brim [g].

    What has no sides is measured by its area, whatever the rule.
    """
    if rule.per == "area" or not volume_ml(pan):
        return area_cm2(pan)
    return volume_ml(pan) * (DOUGH_G_PER_ML if rule.per == "share" else 1.0)


def fill_is(fill: float, low: float, high: float) -> str:
    """Where a fill lies against its usual band.

    >>> fill_is(1.2, 1.0, 1.45)
    'in'
    """
    return "under" if fill < low else "over" if fill > high else "in"
