"""Rounding to a scale's step so that what is printed adds up to the printed total."""

from collections.abc import Sequence
from decimal import ROUND_FLOOR, ROUND_HALF_UP, Decimal

FINER = 6
"""Decimal places of a step below which an amount counts as whole: floating point is no reason to round."""


def to_step(amount: float | Decimal, step: Decimal) -> Decimal:
    """The multiple of `step` nearest to `amount`, halves up.

    >>> to_step(77.25, Decimal("0.1"))
    Decimal('77.3')
    """
    return ((Decimal(amount) / step).quantize(Decimal(1), ROUND_HALF_UP) * step).quantize(step)


def _share_out(amounts: Sequence[Decimal], step: Decimal, carried: Decimal) -> list[Decimal]:
    """Multiples of `step`, each next to its amount, summing to the multiple nearest the sum plus `carried`.

    As many are rounded up as the sum needs: those where it makes the relative error least, so that flour gives way
    before salt and yeast. With amounts of one size this is the method of largest remainders.
    """
    in_steps = [round(amount / step, FINER) for amount in amounts]
    printed = [q.to_integral_value(ROUND_FLOOR) for q in in_steps]
    total = ((sum(amounts, Decimal(0)) + carried) / step).quantize(Decimal(1), ROUND_HALF_UP)
    up = int(total - sum(printed))

    def worse_by(i: int) -> tuple[bool, Decimal]:
        """Relative error of rounding up, less that of rounding down; what is whole already comes last."""
        q, over = in_steps[i], in_steps[i] - printed[i]
        return over == 0, (1 - 2 * over) / q if q else Decimal("Infinity")

    for i in sorted(range(len(amounts)), key=worse_by)[:up]:
        printed[i] += 1
    return [(q * step).quantize(step) for q in printed]


def apportion(amounts: Sequence[float], steps: Sequence[Decimal]) -> list[Decimal]:
    """Round each amount to its own step so that they sum to the total as the coarsest scale shows it.

    Finest step first; what rounding the fine lines moved is made good in the coarser ones. Each printed amount is
    within one step of its own, and the sum within half the coarsest step in use.

    >>> apportion([33.3, 33.3, 33.4], [Decimal(1)] * 3)
    [Decimal('33'), Decimal('33'), Decimal('34')]
    """
    exact = [Decimal(amount) for amount in amounts]
    printed = list(exact)
    carried = Decimal(0)
    for step in sorted(set(steps)):
        group = [i for i, own in enumerate(steps) if own == step]
        rounded = _share_out([exact[i] for i in group], step, carried)
        carried += sum((exact[i] for i in group), Decimal(0)) - sum(rounded, Decimal(0))
        for i, value in zip(group, rounded, strict=True):
            printed[i] = value
    return printed
