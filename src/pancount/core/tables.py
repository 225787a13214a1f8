"""The core's data files, and the fill rules: loaded once and validated."""

import csv
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from pancount.core.base import Frozen


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


def rows(name: str) -> list[dict[str, Any]]:
    """The rows of a data file, by the names in its header."""
    text = files("pancount.core").joinpath("data", name).read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


@cache
def fills() -> dict[str, FillRule]:
    """Fill rules by key, each with its source."""
    return {row["key"]: FillRule(**row) for row in rows("fills.csv")}
