"""The core's data files, loaded once and validated: the pantry and the fill rules."""

import csv
from functools import cache
from importlib.resources import files
from typing import Annotated, Any, Literal

from pydantic import Field

from pancount.core.base import Frozen, Name
from pancount.core.formula import Role


class Ingredient(Frozen):
    """A common ingredient: its name, what it does in a dough, and what else it is called."""

    name: Annotated[Name, Field(min_length=1)]
    role: Role
    also: tuple[str, ...] = ()


class FillRule(Frozen):
    """How much dough a kind of bake is usually given, by pan area [g/cm²] or by brim volume [g/ml]."""

    key: str
    label: str
    per: Literal["area", "volume"]
    low: float
    high: float
    source: str

    @property
    def usual(self) -> float:
        """The middle of the band."""
        return (self.low + self.high) / 2


def _rows(name: str) -> list[dict[str, Any]]:
    text = files("pancount.core").joinpath("data", name).read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


@cache
def pantry() -> tuple[Ingredient, ...]:
    """The ingredients that ship. Roles are common practice, no source."""
    return tuple(
        Ingredient(name=row["name"], role=row["role"], also=tuple(filter(None, row["also"].split(";"))))
        for row in _rows("pantry.csv")
    )


@cache
def fills() -> dict[str, FillRule]:
    """Fill rules by key, each with its source."""
    return {row["key"]: FillRule(**row) for row in _rows("fills.csv")}
