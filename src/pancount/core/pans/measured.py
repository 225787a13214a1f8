"""What a pan measures and holds, and whether that is what its name promises."""

import re
from dataclasses import dataclass
from typing import Literal

from pancount.core.base.units import CM_PER_IN, G_PER_OZ
from pancount.core.pans.fills import fill_rule
from pancount.core.pans.pan import AnyPan, Solid, area_cm2, inside_cm2, measured_ml, reckoned_ml, solid, volume_ml

POUNDS = re.compile(r"\b(one|two|three|half|\d+(?:[.½]\d*)?)[- ]?(?:pound|lb)s?\b", re.IGNORECASE)
NUMBER = r"(\d+(?:[.,]\d+)?(?:½)?)"
TWO = re.compile(rf"{NUMBER}\s*[×x]\s*{NUMBER}\s*(cm|in|inch|inches|\"|″)?", re.IGNORECASE)
ONE = re.compile(rf"{NUMBER}\s*(cm|in|inch|inches|\"|″)(?![a-z])", re.IGNORECASE)
OUTSIDE = re.compile(r"\b(outside|außen)\b", re.IGNORECASE)
WORDS = {"one": 1.0, "two": 2.0, "three": 3.0, "half": 0.5}
INCH_OVER = 16
"""A name's measures without a unit are inches up to this, and centimetres over it. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class Promise:
    """What a pan's name promises: dough, or a size. None where it does not speak of it. [g, cm]"""

    dough_g: float | None = None
    size_cm: tuple[float, ...] | None = None


def _figure(text: str) -> float:
    return float(text.replace("½", "").replace(",", ".")) + (0.5 if "½" in text else 0.0)


def named_size(name: str) -> Promise:
    """What a pan's name promises.

    >>> named_size("Two-pound tin").dough_g
    907.18474
    >>> named_size("9 × 13").size_cm
    (22.86, 33.02)
    >>> named_size("30 cm iron pan").size_cm, named_size("Blue one").size_cm
    ((30.0,), None)
    """
    if OUTSIDE.search(name):
        return Promise()  # its rim's size, as shelves and racks go by
    if found := POUNDS.search(name):
        told = found[1].lower()
        return Promise(dough_g=(WORDS.get(told) or _figure(told)) * 16 * G_PER_OZ)
    if found := TWO.search(name):
        numbers: tuple[float, ...] = (_figure(found[1]), _figure(found[2]))
        unit = (found[3] or "").lower()
    elif found := ONE.search(name):
        numbers, unit = (_figure(found[1]),), found[2].lower()
    else:
        return Promise()
    inches = unit != "cm" and (bool(unit) or max(numbers) <= INCH_OVER)
    worth = CM_PER_IN if inches else 1.0
    return Promise(size_cm=tuple(round(n * worth, 3) for n in numbers))


@dataclass(frozen=True, slots=True)
class Measured:
    """What a pan measures and holds, and how its name and its water agree with that."""

    solid: Solid
    area_cm2: float
    volume_ml: float
    """The one that is used: by water where measured."""
    reckoned_ml: float
    measured_ml: float | None
    off: float | None
    """How far the reckoned volume is from the measured, as a share of the measured."""
    inside_cm2: float
    promise: Promise
    promise_is: Literal["kept", "less", "more", "none"]
    """What it takes, or how large it is, against what its name promises."""
    promised_share: float | None
    """By how much: 0.1 is a tenth more than promised."""


KEPT = 0.05
"""A name is kept to where size or dough is within this. Common practice, no source."""


def measure(pan: AnyPan) -> Measured:
    """A pan's figures. A pound tin's promise is held against the dough that usually fills it, a size against its top."""
    by_water, by_measures = measured_ml(pan), reckoned_ml(pan)
    promise, share = named_size(pan.name), None
    if promise.dough_g is not None and volume_ml(pan):
        rule = fill_rule("lidded_tin" if pan.shape == "lidded" else "open_tin")
        low, high = rule.low * volume_ml(pan), rule.high * volume_ml(pan)
        share = 0.0 if low <= promise.dough_g <= high else (rule.usual * volume_ml(pan)) / promise.dough_g - 1
    elif promise.size_cm is not None:
        share = _against(promise.size_cm, solid(pan)) - 1
    told: Literal["kept", "less", "more", "none"] = "none"
    if share is not None:
        told = "kept" if abs(share) <= KEPT else "more" if share > 0 else "less"
    return Measured(
        solid=solid(pan),
        area_cm2=area_cm2(pan),
        volume_ml=volume_ml(pan),
        reckoned_ml=by_measures,
        measured_ml=by_water,
        off=by_measures / by_water - 1 if by_water else None,
        inside_cm2=inside_cm2(pan),
        promise=promise,
        promise_is=told,
        promised_share=share,
    )


def _against(size_cm: tuple[float, ...], found: Solid) -> float:
    """A pan's top over the size its name tells, by area; by length alone where the name is one number and the pan is longer than
    wide, since that says nothing of its width."""
    a, b = found.top
    if len(size_cm) > 1:
        return a * b / (size_cm[0] * size_cm[1])
    long = max(a, b) if found.form == "rectangle" else a
    return long / size_cm[0] if found.form == "rectangle" and a != b else (long / size_cm[0]) ** 2
