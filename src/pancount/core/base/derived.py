"""A worked-out figure with its working: what it is, the rule in words, how it reads, and what goes into it.

Limits, loads, shaping, selling and depths hand their figures on in this one shape, so that each opens on screen like the
quantities of the count.
"""

from dataclasses import dataclass
from typing import Literal

Unit = Literal["g", "cm", "cm2", "ml", "count", "min", "share", "density", "fill", "percent", "celsius", "kj"]


@dataclass(frozen=True, slots=True)
class Input:
    """What goes into a figure: its name in the reading, and what it is."""

    name: str
    label: str
    value: float
    unit: Unit


@dataclass(frozen=True, slots=True)
class Derived:
    """A figure. `reads` has its inputs' names in braces."""

    label: str
    value: float
    unit: Unit
    says: str
    reads: str
    inputs: tuple[Input, ...]


def derived(label: str, value: float, unit: Unit, says: str, reads: str, **inputs: tuple[str, float, Unit]) -> Derived:
    """A figure from its inputs by name, each with its label, value and unit.

    >>> derived("Twice", 4, "g", "Two of it.", "2 × {one}", one=("One", 2, "g")).inputs[0].label
    'One'
    """
    return Derived(label, value, unit, says, reads, tuple(Input(name, *told) for name, told in inputs.items()))
