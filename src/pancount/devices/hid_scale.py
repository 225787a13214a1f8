"""A scale's reports over USB: HID Point of Sale usage tables, usage page 0x8D, the scale data report. Recalled from memory.

Behind the report's number: status, unit, exponent of ten (signed), weight (16 bits, unsigned, least first).
"""

from pancount.core.base.units import G_PER_OZ
from pancount.core.bench.scale import Reading, ScaleStatus

USAGE_PAGE = 0x8D
DATA_REPORT = 3
LENGTH = 5
MOST_WEIGHT = 0xFFFF
MOST_G = 1e6
"""More than a ton is on no bench: it is no weight. [g]"""

STATUS: dict[int, ScaleStatus] = {1: "fault", 2: "zero", 3: "moving", 4: "steady", 5: "under", 6: "over", 7: "calibrate", 8: "rezero"}
UNITS: dict[int, tuple[str, float]] = {
    1: ("mg", 0.001),
    2: ("g", 1.0),
    3: ("kg", 1000.0),
    4: ("ct", 0.2),
    6: ("gr", 0.06479891),
    7: ("dwt", 1.55517384),
    8: ("t", 1e6),
    10: ("oz t", 31.1034768),
    11: ("oz", G_PER_OZ),
    12: ("lb", 16 * G_PER_OZ),
}
"""Unit of weight: what it is called and what one is worth. Taels (5) and short tons (9) differ by place or are no kitchen's, so they are not read. [g]"""


class NoReport(ValueError):
    """Bytes that are no scale data report."""


def read(report: int, data: bytes, at_s: float) -> Reading:
    """A report read: `data` behind its number. Raises `NoReport` where it is none of a scale's weight.

    >>> read(3, bytes([4, 2, 0, 0xDB, 0x01]), 0.0).g, read(3, bytes([4, 11, 0xFF, 0x64, 0x00]), 0.0).g
    (475.0, 283.49523125)
    """
    if report != DATA_REPORT or len(data) < LENGTH:
        raise NoReport("That is no report of a scale's weight.")
    status, unit, exponent = STATUS.get(data[0], "fault"), data[1], int.from_bytes(data[2:3], "little", signed=True)
    weight = int.from_bytes(data[3:5], "little")
    name, worth = UNITS.get(unit, (f"unit {unit}", 0.0))
    if not worth or not -9 <= exponent <= 6:
        return Reading(at_s=at_s, status=status, g=None, step_g=0.0, unit=name)
    step = worth * 10.0**exponent
    grams = weight * worth / 10.0**-exponent if exponent < 0 else weight * step
    if max(grams, step) > MOST_G:
        return Reading(at_s=at_s, status=status, g=None, step_g=0.0, unit=name)
    return Reading(at_s=at_s, status=status, g=-grams if status == "under" else grams, step_g=step, unit=name)


def write(status: ScaleStatus, unit: int, exponent: int, weight: int) -> bytes:
    """A report's bytes behind its number, as a scale would send them; a weight that does not fit is cut off at what does."""
    code = next(number for number, name in STATUS.items() if name == status)
    return bytes([code, unit]) + exponent.to_bytes(1, "little", signed=True) + min(abs(weight), MOST_WEIGHT).to_bytes(2, "little")
