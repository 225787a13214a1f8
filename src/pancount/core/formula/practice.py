"""How a kitchen reckons where bakers disagree. Each choice names its schools; the first is the default."""

from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.formula.reckon import School

YeastSchool = Literal["3 : 1.2 : 1", "2.5 : 1.25 : 1"]
"""Fresh, active dry and instant yeast by weight, for the same rise."""

SUGAR_TOLERANT = "Sugar-tolerant instant yeast"
"""A strain for doughs of much sugar; by weight as instant yeast."""

YEAST_FORMS: dict[YeastSchool, dict[str, float]] = {
    "3 : 1.2 : 1": {"Fresh yeast": 3, "Active dry yeast": 1.2, "Instant yeast": 1, SUGAR_TOLERANT: 1},
    "2.5 : 1.25 : 1": {"Fresh yeast": 2.5, "Active dry yeast": 1.25, "Instant yeast": 1, SUGAR_TOLERANT: 1},
}
"""Common practice, no source."""


class Practice(Frozen):
    """The schools that a kitchen follows."""

    starter: School = "joined"
    """Whether a starter's flour and water join the totals, or it stands apart as one line. Same grams either way."""
    yeast: YeastSchool = "3 : 1.2 : 1"

    def as_instant(self, name: str) -> float:
        """What one gram of a yeast is worth in instant yeast; 0 for what is no yeast. [g]"""
        form = YEAST_FORMS[self.yeast].get(name)
        return 1 / form if form else 0.0
