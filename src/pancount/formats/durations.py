"""Durations as schema.org writes them (ISO 8601-1:2019, 5.5.2, recalled from memory)."""

import re

_DURATION = re.compile(r"P(?:(\d+(?:[.,]\d+)?)W)?(?:(\d+(?:[.,]\d+)?)D)?(?:T(?:(\d+(?:[.,]\d+)?)H)?(?:(\d+(?:[.,]\d+)?)M)?(?:(\d+(?:[.,]\d+)?)S)?)?")
MINUTES = (7 * 1440, 1440, 60, 1, 1 / 60)
"""In a week, a day, an hour, a minute and a second."""


def iso_duration(minutes: float) -> str:
    """A time as a duration, to the second.

    >>> iso_duration(90), iso_duration(0.5), iso_duration(2160)
    ('PT1H30M', 'PT30S', 'P1DT12H')
    """
    seconds = round(minutes * 60)
    days, seconds = divmod(seconds, 86_400)
    hours, seconds = divmod(seconds, 3_600)
    whole, seconds = divmod(seconds, 60)
    day = f"{days}D" if days else ""
    time = "".join(f"{number}{unit}" for number, unit in ((hours, "H"), (whole, "M"), (seconds, "S")) if number)
    return f"P{day}{'T' + time if time else ''}" if day or time else "PT0S"


def minutes_of(text: object) -> float | None:
    """The minutes in a duration; None for what is none.

    >>> minutes_of("PT1H30M"), minutes_of("P1DT12H"), minutes_of("an hour")
    (90.0, 2160.0, None)
    """
    found = _DURATION.fullmatch(text.strip()) if isinstance(text, str) else None
    if not found or not any(found.groups()):
        return None
    return sum(float(number.replace(",", ".")) * worth for number, worth in zip(found.groups(), MINUTES, strict=True) if number)
