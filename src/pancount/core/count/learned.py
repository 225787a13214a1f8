"""What a kitchen learned of a formula from its bakes and took: it stands in where the usual did, in the count, in the method, in the day.

A count carries it, as it carries how warm it is today: the same formula in another kitchen goes by the trade's.
"""

from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base.models import Brief, Frozen, Word

MOST_LEARNED = 200
"""Figures of one formula: its losses, and each rise and each piece of handwork of each of its ways."""

FigureName = Literal["bench_loss", "bake_loss", "rise", "rise_all", "minutes", "spread_g", "oven_error_c", "machine_c_min", "hand_c_min"]
"""`rise`, and `rise_all` for all of a kitchen's: so many times as long as the model says. `minutes`: what a kind of step takes in all, or each piece of it where it goes by pieces. [min]"""


class Learned(Frozen):
    """A figure as it was taken: what it is, how far a single bake strays from it, from how many bakes, and when."""

    figure: FigureName
    of: Brief = ""
    """Of what: a kind of baking for a loss in the heat, a kind of step for a rise or for minutes."""
    way: Brief = ""
    """In which way of the formula, by key; blank where it goes for all."""
    value: Annotated[float, Field(ge=-1000, le=1000)]
    sure: Annotated[float, Field(ge=0, le=1000)]
    """How far the figure itself may be off, standard deviation; of what is told by a factor, as a share."""
    strays: Annotated[float, Field(ge=0, le=1000)]
    """How far a single bake strays from it, standard deviation; of what is told by a factor, as a share."""
    bakes: Annotated[int, Field(ge=0, le=1_000_000)]
    on: Word
    """The day on which it was taken: 2026-11-30."""


KitchensOwn = Annotated[tuple[Learned, ...], Field(max_length=MOST_LEARNED)]


def learned_of(known: tuple[Learned, ...], figure: FigureName, of: str = "", way: str = "") -> Learned | None:
    """What was learned of something; None where nothing was, or was not taken."""
    return next((one for one in known if (one.figure, one.of, one.way) == (figure, of, way)), None)
