"""What every model of the core shares."""

from collections.abc import Hashable
from functools import cache, lru_cache
from typing import Annotated, Any, Self, TypeVar, get_args

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints, model_validator


class Frozen(BaseModel):
    """A value: never changed in place, strict about unknown fields, finite in every number."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    @model_validator(mode="before")
    @classmethod
    def _truth_is_no_number(cls, data: Any) -> Any:
        """`true` is refused where a number is wanted: it would be taken for 1, one gram of salt."""
        if not isinstance(data, dict) or not any(value is True or value is False for value in data.values()):
            return data
        return {
            key: value if not isinstance(value, bool) or key in _truths(cls) else NOT_A_NUMBER for key, value in data.items()
        }


NOT_A_NUMBER = object()
"""Stands where a truth was sent, so that the field itself says what it must be."""


@cache
def _truths(model: type[BaseModel]) -> frozenset[str]:
    """Fields that may hold true or false."""
    return frozenset(
        name for name, field in model.model_fields.items() if field.annotation is Any or bool in (field.annotation, *get_args(field.annotation))
    )


Value = TypeVar("Value", bound=Hashable)

PLAIN = r"^[^\x00-\x08\x0b-\x1f]*$"
"""Any text but control characters: PostgreSQL cannot store NUL, and a PDF cannot show the others."""

Name = Annotated[str, StringConstraints(max_length=300, strip_whitespace=True, pattern=PLAIN)]
"""A name in any script, up to 300 characters. May be blank while it is being typed."""
Words = Annotated[str, StringConstraints(max_length=300, pattern=PLAIN)]
"""A few words, up to 300 characters."""
Brief = Annotated[str, StringConstraints(max_length=40, pattern=PLAIN)]
"""A word or two, or nothing."""
Word = Annotated[str, StringConstraints(min_length=1, max_length=40, strip_whitespace=True, pattern=PLAIN)]
Text = Annotated[str, StringConstraints(max_length=10_000, pattern=PLAIN)]

MOST_GRAMS = 10_000_000
LEAST_GRAMS = 1e-6
"""Far less than a grain of salt; below it a reckoning would be about dust. [g]"""
DUST = 1e-9
"""What is left of a sum that should be nothing; it is taken for nothing."""


def _without_dust(amount: float) -> float:
    return amount if amount >= DUST else 0.0


Grams = Annotated[float, Field(ge=0, le=MOST_GRAMS), AfterValidator(_without_dust)]
"""A weight, 0 to 10 000 000. [g]"""
Percent = Annotated[float, Field(ge=0, le=100_000), AfterValidator(_without_dust)]
"""Of all flour, 0 to 100 000. [%]"""
SomeGrams = Annotated[float, Field(ge=LEAST_GRAMS, le=MOST_GRAMS)]
"""A weight that there is something of. [g]"""
Portion = Annotated[float, Field(ge=0.0001, le=1)]
"""Part of a whole that there is something of."""
Centimetres = Annotated[float, Field(ge=0.01, le=1_000)]
"""A measure of a pan or a piece, from a tenth of a millimetre up to 1 000. [cm]"""


@lru_cache(maxsize=512)
def interned(value: Value) -> Value:
    """The first of all values equal to this one, so that what is remembered by it is found by identity, not field by field."""
    return value


class Band(Frozen):
    """A weight that is not certain: the least it may be, the usual, and the most. [g]"""

    low_g: Grams
    usual_g: Grams
    high_g: Grams

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if not self.low_g <= self.usual_g <= self.high_g:
            raise ValueError("low, usual and high must be in order")
        return self

    @classmethod
    def of(cls, low_g: float, usual_g: float, high_g: float) -> "Band":
        """A band that was worked out, in order; what would be less than nothing or more than can be weighed is cut off."""
        low, usual, high = (min(max(g, 0.0), MOST_GRAMS) for g in (low_g, usual_g, high_g))
        return cls(low_g=low, usual_g=usual, high_g=high)

    def times(self, low: float, usual: float, high: float) -> "Band":
        """Each end multiplied by its own factor, all three above 0 and in order."""
        return Band.of(self.low_g * low, self.usual_g * usual, self.high_g * high)

    def plus(self, other: "Band") -> "Band":
        """Both together."""
        return Band.of(self.low_g + other.low_g, self.usual_g + other.usual_g, self.high_g + other.high_g)
