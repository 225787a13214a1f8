"""Exact extremes of a percentage whose weights are only known within bands.

A percentage of flour is Σ share·weight ÷ Σ flour·weight, and flour stands in both halves. Each weight may lie anywhere
in its band, so the extremes are those of a linear-fractional function over a box: each lies at a corner. Dinkelbach's
iteration (1967, Management Science 13:492, recalled from memory) finds the corner in a few rounds: given a guess λ,
take each weight at the end that makes Σ (share − λ·flour)·weight largest, and the ratio there is the next λ.
"""

from collections.abc import Sequence
from typing import NamedTuple

MOST_ROUNDS = 50
"""Each round moves to a better corner; a handful is usual."""


class Term(NamedTuple):
    """One line in a percentage: its weight [g], what share of it counts (both as low, usual, high), and as flour."""

    low_g: float
    usual_g: float
    high_g: float
    share_low: float
    share: float
    share_high: float
    flour: float


class Range(NamedTuple):
    """A percentage of flour: the least it can be, the usual, and the most. [%]"""

    low: float
    usual: float
    high: float

    @property
    def width(self) -> float:
        """How far the ends are apart. [%]"""
        return self.high - self.low


def usual(terms: Sequence[Term]) -> float | None:
    """The percentage at the usual weights; None without flour. [%]"""
    flour = sum(t.flour * t.usual_g for t in terms)
    return 100 * sum(t.share * t.usual_g for t in terms) / flour if flour > 0 else None


def _extreme(terms: Sequence[Term], start: float, *, most: bool) -> float | None:
    guess = start
    for _ in range(MOST_ROUNDS):
        counted = flour = 0.0
        for t in terms:
            share = t.share_high if most else t.share_low
            weight = t.high_g if (share - guess * t.flour > 0) is most else t.low_g
            counted += share * weight
            flour += t.flour * weight
        if flour <= 0:
            return None
        reached = counted / flour
        if abs(reached - guess) <= 1e-13 * max(1.0, abs(guess)):
            break
        guess = reached
    return 100 * guess


def range_of(terms: Sequence[Term]) -> Range | None:
    """The percentage with its exact extremes. None where there is no flour, or where it may be none.

    >>> flour, milk = Term(140, 150, 160, 0, 0, 0, 1), Term(70, 75, 80, 1, 1, 1, 0)
    >>> [round(p, 1) for p in range_of([flour, milk])]
    [43.8, 50.0, 57.1]
    """
    middle = usual(terms)
    if middle is None:
        return None
    low, high = (_extreme(terms, middle / 100, most=most) for most in (False, True))
    return Range(min(low, middle), middle, max(high, middle)) if low is not None and high is not None else None


def widths(terms: Sequence[Term]) -> list[float]:
    """How wide the range would be if each line alone were uncertain. [%]

    With one weight uncertain the percentage goes one way as it grows, so its ends are those of the band.
    """
    counted = sum(t.share * t.usual_g for t in terms)
    flour = sum(t.flour * t.usual_g for t in terms)
    found = []
    for t in terms:
        rest, flour_rest = counted - t.share * t.usual_g, flour - t.flour * t.usual_g
        ends = [
            (rest + share * weight) / (flour_rest + t.flour * weight)
            for share in (t.share_low, t.share_high)
            for weight in (t.low_g, t.high_g)
            if flour_rest + t.flour * weight > 0
        ]
        found.append(100 * (max(ends) - min(ends)) if ends else 0.0)
    return found
