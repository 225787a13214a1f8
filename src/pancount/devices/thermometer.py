"""A thermometer's reports: the Bluetooth Health Thermometer measurement, its value a 32-bit float of IEEE 11073-20601. Recalled from memory.

First the flags (bit 0: Fahrenheit; bit 1: a time follows; bit 2: a kind follows), then four bytes, the least first: a mantissa of 24 bits and
an exponent of ten of 8, both signed. Some mantissas are no numbers.
"""

from math import inf, nan

NO_NUMBERS = {0x7FFFFF: nan, 0x800000: nan, 0x7FFFFE: inf, 0x800002: -inf, 0x800001: nan}
"""Not a number, not at this resolution, over, under, kept for later."""
LEAST = 5


class NoMeasurement(ValueError):
    """Bytes that are no temperature."""


def float_of(data: bytes) -> float:
    """Four bytes as a number; NaN and infinities where they say so.

    >>> float_of(bytes([0x6C, 0x01, 0x00, 0xFF])), float_of(bytes([0xFF, 0xFF, 0x7F, 0x00]))
    (36.4, nan)
    """
    raw = int.from_bytes(data[:3], "little")
    if raw in NO_NUMBERS:
        return NO_NUMBERS[raw]
    mantissa, exponent = raw - (1 << 24) if raw & 0x800000 else raw, int.from_bytes(data[3:4], "little", signed=True)
    return mantissa / 10**-exponent if exponent < 0 else float(mantissa * 10**exponent)


def float_bytes(value: float, places: int = 1) -> bytes:
    """A number with so many places behind the point as four bytes."""
    mantissa: int = round(value * 10**places)
    return mantissa.to_bytes(3, "little", signed=True) + (-places).to_bytes(1, "little", signed=True)


def read(data: bytes) -> float:
    """A measurement in degrees Celsius. Raises `NoMeasurement` where the bytes hold none. [°C]

    >>> read(bytes([0x00]) + float_bytes(26.4)), round(read(bytes([0x01]) + float_bytes(212)), 6)
    (26.4, 100.0)
    """
    if len(data) < LEAST:
        raise NoMeasurement("That is no temperature.")
    value = float_of(data[1:5])
    if not -inf < value < inf:
        raise NoMeasurement("The thermometer shows no temperature: is its probe plugged in?")
    celsius = (value - 32) / 1.8 if data[0] & 1 else value
    if not -60 <= celsius <= 600:
        raise NoMeasurement(f"{celsius:.0f} °C is no temperature of a kitchen.")
    return celsius


def write(celsius: float | None, *, fahrenheit: bool = False) -> bytes:
    """A measurement's bytes, as a thermometer would send them; None where its probe is off."""
    flags = bytes([1 if fahrenheit else 0])
    if celsius is None:
        return flags + bytes([0xFF, 0xFF, 0x7F, 0x00])
    return flags + float_bytes(celsius * 1.8 + 32 if fahrenheit else celsius)
