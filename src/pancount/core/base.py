"""What every model of the core shares."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints


class Frozen(BaseModel):
    """A value: never changed in place, strict about unknown fields, finite in every number."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


PLAIN = r"^[^\x00-\x08\x0b-\x1f]*$"
"""Any text but control characters: PostgreSQL cannot store NUL, and a PDF cannot show the others."""

Name = Annotated[str, StringConstraints(max_length=300, strip_whitespace=True, pattern=PLAIN)]
"""A name in any script, up to 300 characters. May be blank while it is being typed."""
Words = Annotated[str, StringConstraints(max_length=300, pattern=PLAIN)]
"""A few words, up to 300 characters."""
Word = Annotated[str, StringConstraints(min_length=1, max_length=40, strip_whitespace=True, pattern=PLAIN)]
Text = Annotated[str, StringConstraints(max_length=10_000, pattern=PLAIN)]

Grams = Annotated[float, Field(ge=0, le=10_000_000)]
"""A weight, 0 to 10 000 000. [g]"""
SomeGrams = Annotated[float, Field(gt=0, le=10_000_000)]
"""A weight above nothing. [g]"""
Centimetres = Annotated[float, Field(gt=0, le=1_000)]
"""An inside measure of a pan, above 0 up to 1 000. [cm]"""
