"""What a kitchen bakes with besides its pans: the bowl, sheets and oven, the pot, the griddle, the fridge shelf."""

from math import ceil
from typing import Annotated

from pydantic import Field

from pancount.core.base.models import Centimetres, Frozen
from pancount.core.pans.pan import Griddle, RoundPan, SheetPan

BOWL_G_PER_ML = 0.37
STIFF_G_PER_ML = 0.25
"""How much dough a mixer's bowl takes, and how much of a stiff one, over what the bowl holds. Common practice, no source."""

POT_GAP_CM = 1.0
"""Between pieces that float. Common practice, no source. [cm]"""


def mixes_needed(dough_g: float, bowl_g: float) -> int:
    """How many mixes so much dough is, where the bowl takes so much; what is over but for floating point needs no other."""
    return ceil(dough_g / bowl_g * (1 - 1e-9))


class Kit(Frozen):
    """The kitchen's kit. What is not known is None, and limits nothing."""

    bowl_ml: Annotated[float, Field(ge=1, le=1_000_000)] | None = None
    """What the mixer's bowl holds to the brim."""
    bowl_g: Annotated[float, Field(ge=1, le=10_000_000)] | None = None
    """The most dough it mixes well, where the baker knows; that beats what its size says."""
    sheet: SheetPan | None = None
    sheets: Annotated[int, Field(ge=1, le=200)] = 2
    """How many sheets there are."""
    shelves: Annotated[int, Field(ge=1, le=50)] = 2
    """How many shelves bake at once."""
    ovens: Annotated[int, Field(ge=1, le=10)] = 1
    mixers: Annotated[int, Field(ge=1, le=10)] = 1
    pots: Annotated[int, Field(ge=1, le=10)] = 1
    griddles: Annotated[int, Field(ge=1, le=10)] = 1
    """How many of each there are; a day goes by that."""
    oven_length_cm: Centimetres | None = None
    oven_width_cm: Centimetres | None = None
    """One oven shelf, for pans beside each other."""
    pot_cm: Centimetres | None = None
    """The bath pot's inside diameter."""
    pot_ml: Annotated[float, Field(ge=1, le=1_000_000)] | None = None
    """What the pot holds to the brim."""
    griddle: Griddle | None = None
    fridge_length_cm: Centimetres | None = None
    fridge_width_cm: Centimetres | None = None
    fridge_shelves: Annotated[int, Field(ge=1, le=50)] = 1
    spread_g: Annotated[float, Field(ge=0, le=1000)] = 2.0
    """How evenly this baker divides: the standard deviation of a piece. [g]"""

    @property
    def pot(self) -> RoundPan | None:
        """The bath pot as what pieces lie in, side by side; its depth says nothing. None where it is not known."""
        return RoundPan(name="Pot", diameter_cm=self.pot_cm, depth_cm=1) if self.pot_cm is not None else None

    def most_dough_g(self, *, stiff: bool) -> float | None:
        """The most dough in one mix; less where it feels stiff. None where the bowl is not known. [g]"""
        if self.bowl_g is not None:
            return self.bowl_g
        if self.bowl_ml is None:
            return None
        return self.bowl_ml * (STIFF_G_PER_ML if stiff else BOWL_G_PER_ML)
