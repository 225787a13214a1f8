"""How long a piece bakes, from the time written for another, and what an oven is to be set to."""

from functools import cache

from pancount.core.base.datafiles import rows

FAN_COOLER_C = 20.0
"""A fan oven is set about this much lower. Common practice, no source. [°C]"""
PIECE_POWER = 2 / 3
"""Of like shapes: heat reaches the middle by the square of the thickness, and thickness goes as the cube root of the mass."""
SLAB_POWER = 4 / 3
"""Of slabs, over their thickness: by its square where heat came from both faces alike, damped since the pan and the top are far from alike.
Common practice, no source."""
GAS_NEAR_C = 12
"""Marks are 10 to 20 °C apart, so one so near is meant. Common practice, no source. [°C]"""
LOOK = 0.9
"""When to look, over the usual time. Common practice, no source."""


@cache
def gas_marks() -> dict[float, float]:
    """Gas marks and their temperatures. [°C]"""
    return {float(row["mark"]): float(row["celsius"]) for row in rows(__name__, "gas_marks.csv")}


def gas_mark(celsius: float) -> float | None:
    """The nearest gas mark; None where none is near: gas ovens end at mark 9."""
    mark = min(gas_marks(), key=lambda one: abs(gas_marks()[one] - celsius))
    return mark if abs(gas_marks()[mark] - celsius) <= GAS_NEAR_C else None


def fahrenheit(celsius: float) -> float:
    """1.8 · C + 32. [°F]"""
    return celsius * 1.8 + 32


def dial_c(wanted_c: float, *, fan: bool, error_c: float) -> float:
    """What to set an oven to that is to be as hot as a still one at `wanted_c`; `error_c` is by how much it is hotter than it says. [°C]"""
    return wanted_c - (FAN_COOLER_C if fan else 0.0) - error_c


def piece_minutes(written_min: float, written_g: float, piece_g: float, least_min: float) -> float:
    """The time for a piece from that of another of its shape: t ∝ mass^⅔, never less than colour needs.

    >>> round(piece_minutes(15, 100, 85, 5), 1)
    13.5
    """
    return max(least_min, written_min * float((piece_g / written_g) ** PIECE_POWER))


def slab_minutes(written_min: float, written_cm: float, thick_cm: float, least_min: float) -> float:
    """The time for a slab from that of another: by its thickness, damped; never less than colour needs."""
    return max(least_min, written_min * float((thick_cm / written_cm) ** SLAB_POWER))
