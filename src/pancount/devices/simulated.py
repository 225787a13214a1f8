"""A scale and a thermometer that are not there: they steady, drift, are noisy, overload, and say it in the bytes of real ones."""

from dataclasses import dataclass, field
from math import exp
from random import Random

from pancount.core.base.units import G_PER_OZ
from pancount.core.bench.scale import ScaleStatus
from pancount.devices import hid_scale, thermometer

GRAMS, OUNCES = 2, 11
STEADY_S = 0.35
"""How fast the pan of the scale follows what is on it. [s]"""
MOVES_G = 0.25
"""It says that it is still while it moves by no more between reports. [g]"""


@dataclass
class SimulatedScale:
    """A kitchen scale up to 5 kg in steps of a gram, or a tenth of an ounce."""

    load_g: float = 0.0
    """What is on it, truly."""
    noise_g: float = 0.12
    drift_g_min: float = 0.0
    most_g: float = 5_000.0
    unit: int = GRAMS
    exponent: int = 0
    plugged: bool = True
    frozen: bool = False
    pours_g_s: float = 0.0
    """What is being poured onto it."""
    random: Random = field(default_factory=lambda: Random(7))
    _pan_g: float = 0.0
    _last_g: float = 0.0
    _zero_g: float = 0.0
    _drifted_g: float = 0.0

    def step(self, seconds: float) -> None:
        """Let so much time pass."""
        self.load_g = max(0.0, self.load_g + self.pours_g_s * seconds)
        self._drifted_g += self.drift_g_min * seconds / 60
        self._last_g = self._pan_g
        self._pan_g += (self.load_g - self._pan_g) * (1 - exp(-seconds / STEADY_S))

    def zero(self) -> None:
        """Its zero key."""
        self._zero_g = self._pan_g + self._drifted_g

    def report(self) -> bytes | None:
        """What it says now; None where it is unplugged or frozen."""
        if not self.plugged or self.frozen:
            return None
        shown = self._pan_g + self._drifted_g - self._zero_g + self.random.gauss(0, self.noise_g)
        worth = (G_PER_OZ if self.unit == OUNCES else 1.0) * 10.0**self.exponent
        steps = round(shown / worth)
        return hid_scale.write(self._status(shown, steps), self.unit, self.exponent, steps)

    def _status(self, shown: float, steps: int) -> ScaleStatus:
        if self.load_g > self.most_g:
            return "over"
        if steps < 0:
            return "under"
        if abs(self._pan_g - self._last_g) > MOVES_G or self.pours_g_s:
            return "moving"
        return "zero" if steps == 0 else "steady"


@dataclass
class SimulatedThermometer:
    """A probe that comes to what it is put in."""

    around_c: float = 22.0
    fahrenheit: bool = False
    plugged: bool = True
    probe: bool = True
    random: Random = field(default_factory=lambda: Random(11))
    _probe_c: float = 22.0

    def step(self, seconds: float) -> None:
        """Let so much time pass."""
        self._probe_c += (self.around_c - self._probe_c) * (1 - exp(-seconds / 1.5))

    def report(self) -> bytes | None:
        """What it says now; None where it is unplugged."""
        if not self.plugged:
            return None
        return thermometer.write(self._probe_c + self.random.gauss(0, 0.03) if self.probe else None, fahrenheit=self.fahrenheit)
