"""Measures: what a cup, a spoon, a packet or a pinch is, and whose cup and spoon it is."""

from enum import StrEnum
from functools import cache
from typing import Literal

from pancount.core.base.datafiles import rows
from pancount.core.base.models import Frozen


class System(StrEnum):
    """Whose cup and spoon."""

    US = "us"
    METRIC = "metric"
    BRITISH = "british"
    """A page of today: cups of 240 to 250 ml."""
    AUSTRALIAN = "australian"
    IMPERIAL = "imperial"
    """An old British book: cups of 284 ml."""


Kind = Literal["weight", "jug", "cup", "spoon", "vague", "count", "percent"]
"""weight: g, oz · jug: ml, pint · cup, spoon: by their fill · vague: a pinch, a glug · count: by the piece."""


class Measure(Frozen):
    """A measure. `size` is its worth in each system: grams for a weight, millilitres for a volume, none for a count.

    `low` and `high` say how far filling it may be out, as factors.
    """

    key: str
    label: str
    kind: Kind
    size: dict[System, float]
    low: float = 1
    high: float = 1
    source: str = ""

    @property
    def differs(self) -> bool:
        """Whether it is not the same everywhere."""
        return len(set(self.size.values())) > 1


@cache
def measures() -> dict[str, Measure]:
    """Measures by key. Plain units are pint's (US cup, spoons, pints; imperial ones); sources stand in the file."""
    # Imported here: it takes most of a second, which the start of the application need not wait for.
    import pint

    units: pint.UnitRegistry[float] = pint.UnitRegistry()

    def size(row: dict[str, str]) -> dict[System, float]:
        if not row["us"]:
            return {}
        unit = "g" if row["kind"] == "weight" else "ml"
        return {system: float(units(row[system] or row["us"]).to(unit).magnitude) for system in System}

    return {
        row["key"]: Measure(
            key=row["key"],
            label=row["label"],
            kind=row["kind"],
            size=size(row),
            low=float(row["low"] or 1),
            high=float(row["high"] or 1),
            source=row["source"],
        )
        for row in rows(__name__, "measures.csv")
    }
