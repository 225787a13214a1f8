"""Rounding to a scale's step so that what is printed adds up to the printed total."""

from collections.abc import Sequence
from decimal import ROUND_FLOOR, ROUND_HALF_UP, Decimal


def to_step(amount: float | Decimal, step: Decimal) -> Decimal:
    """The multiple of `step` nearest to `amount`, halves up.

    >>> to_step(77.25, Decimal("0.1"))
    Decimal('77.3')
    """
    return (Decimal(amount) / step).quantize(Decimal(1), ROUND_HALF_UP) * step


def _largest_remainder(amounts: Sequence[Decimal], step: Decimal, carried: Decimal) -> list[Decimal]:
    """Multiples of `step`, each next to its amount, summing to the multiple nearest the sum plus `carried`."""
    in_steps = [amount / step for amount in amounts]
    floors = [q.to_integral_value(ROUND_FLOOR) for q in in_steps]
    total = ((sum(amounts, Decimal(0)) + carried) / step).quantize(Decimal(1), ROUND_HALF_UP)
    spare = int(total - sum(floors))
    by_remainder = sorted(range(len(amounts)), key=lambda i: in_steps[i] - floors[i], reverse=True)
    for i in by_remainder[:spare]:
        floors[i] += 1
    return [q * step for q in floors]


def apportion(amounts: Sequence[float], steps: Sequence[Decimal]) -> list[Decimal]:
    """Round each amount to its own step so that they sum to the total as the coarsest scale shows it.

    Largest remainder, finest step first; what rounding the fine lines moved is made good in the coarser
    ones. Each printed amount is within one step of its own, and the sum within half the coarsest step in use.
    Method: Hamilton's apportionment, common knowledge.

    >>> apportion([33.3, 33.3, 33.4], [Decimal(1)] * 3)
    [Decimal('33'), Decimal('33'), Decimal('34')]
    """
    exact = [Decimal(amount) for amount in amounts]
    printed = list(exact)
    carried = Decimal(0)
    for step in sorted(set(steps)):
        group = [i for i, own in enumerate(steps) if own == step]
        rounded = _largest_remainder([exact[i] for i in group], step, carried)
        carried += sum((exact[i] for i in group), Decimal(0)) - sum(rounded, Decimal(0))
        for i, value in zip(group, rounded, strict=True):
            printed[i] = value
    return printed
