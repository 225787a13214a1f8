"""Pans, shapes and loads in a baker's words, for paper."""

from typing import Literal

from pancount.core.base.units import LENGTH_UNITS
from pancount.core.count.loads import Turns
from pancount.core.pans.pan import AnyPan, solid
from pancount.core.pans.shaping import Shaped

LengthUnit = Literal["cm", "in"]


def length(cm: float, unit: LengthUnit) -> str:
    """A length in the kitchen's unit, to a tenth.

    >>> length(25.4, "in"), length(1.64, "cm")
    ('10', '1.6')
    """
    return f"{cm / LENGTH_UNITS[unit]:.1f}".removesuffix(".0")


def pan_words(pan: AnyPan, unit: LengthUnit) -> str:
    """A pan's name and inside size at the top in the kitchen's unit.

    >>> from pancount.core.pans.pan import RoundPan
    >>> pan_words(RoundPan(name="iron pan", diameter_cm=25.4, depth_cm=5), "in")
    'iron pan, 10 in across'
    """
    found = solid(pan)
    a, b = (length(cm, unit) for cm in found.top)
    if found.form == "rectangle":
        size = f"{a} × {b} {unit}"
    elif found.form == "ring":
        size = f"{a} {unit} across with a hole of {b}"
    else:
        size = f"{found.count} cups {a} {unit} across" if found.count > 1 else f"{a} {unit} across"
    return ", ".join(filter(None, (pan.name, size)))


def shape_words(shaped: Shaped, unit: LengthUnit) -> str:
    """How a piece is shaped, with its measures."""

    def say(cm: float | None) -> str:
        return f"{length(cm or 0.0, unit)} {unit}"

    if shaped.kind == "ball":
        return f"round up: a ball about {say(shaped.across_cm)} across"
    if shaped.kind == "disc":
        return f"roll out to {say(shaped.across_cm)} across, {say(shaped.thickness_cm)} thick"
    if shaped.kind == "log":
        return f"a log {say(shaped.length_cm)} long, {say(shaped.thickness_cm)} thick: {shaped.cuts} pieces, cut every {say(shaped.slice_cm)}"
    rope = f"a rope {say(shaped.length_cm)} long, {say(shaped.thickness_cm)} thick"
    if shaped.kind == "ring":
        closed = "closes as it doubles" if not shaped.risen_opening_cm else f"{say(shaped.risen_opening_cm)} when doubled"
        return f"{rope}, closed to a ring with an opening of {say(shaped.opening_cm)} ({closed})"
    return f"{rope}{', knotted' if shaped.kind == 'knot' else ''}"


HOLDS = {"oven": "on each sheet", "pot": "in the pot", "griddle": "on the griddle", "fridge": "on each sheet"}


def turns_words(turns: Turns) -> str:
    """How pieces go through the oven, the pot, the griddle or the fridge."""
    where = {"oven": "Oven", "pot": "Pot", "griddle": "Griddle", "fridge": "Fridge"}[turns.through]
    loads = f"{turns.loads} {'load' if turns.loads == 1 else 'loads'} of up to {turns.per_load}"
    if turns.packing is not None:
        loads += f" ({turns.per_holder} {HOLDS[turns.through]}, {turns.packing.words})"
    if turns.wait_min:
        loads += f"; the last waits {turns.wait_min:.0f} min"
    return f"{where}: {loads}"
