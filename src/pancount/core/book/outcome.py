"""What a bake came to: scores on the kitchen's own scales, words, and what was measured of it when it was out."""

from typing import Annotated

from pydantic import Field

from pancount.core.base.models import Frozen, SomeGrams, Text, Word

USUAL_SCALES = ("Crust", "Crumb", "Height", "Flavour", "Evenness")
"""What bakers score. Common practice, no source."""
MOST_SCALES = 12
BEST = 5
"""Scores go from 1 to this."""

Score = Annotated[int, Field(ge=1, le=BEST, strict=True)]
Scores = Annotated[dict[Word, Score], Field(max_length=MOST_SCALES)]
Across = Annotated[float, Field(gt=0, le=200)]
"""A height or a breadth of what was baked. [cm]"""


class Outcome(Frozen):
    """What a bake came to, as the baker tells it; all of it may be left open."""

    scores: Scores = Field({})
    words: Text = ""
    wrong: Text = ""
    """What went wrong."""
    next_time: Text = ""
    baked_g: SomeGrams | None = None
    """What came out of the oven weighs, of so many pieces. [g]"""
    baked_pieces: Annotated[int, Field(ge=1, le=100_000)] | None = None
    """Of how many that is; None for all of them."""
    height_cm: Across | None = None
    across_cm: Across | None = None

    @property
    def score(self) -> float | None:
        """The mean of its scores; None where there is none. [1 to 5]"""
        return sum(self.scores.values()) / len(self.scores) if self.scores else None
