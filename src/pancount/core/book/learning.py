"""How a kitchen's figure is learned from its bakes: a small model, stated here and nowhere else.

A bake strays from the kitchen's usual as a normal distribution does; one bake in ten is odd, and strays six times as far (the contaminated
normal of Tukey 1960, recalled from memory). What the trade says counts as three bakes: normal–inverse-gamma, the conjugate prior of a normal
with mean and spread unknown (Gelman and others, Bayesian Data Analysis, 3.3; recalled from memory). One kitchen in five is unlike the trade, and
lies two and a half times a bake's straying about its figure. Without odd bakes and unlike kitchens that has a closed form, which the tests hold it
against; with them it is summed over a grid of usual and spread. What is told by a factor is learned on its logarithm.

Nothing here says why a figure is what it is.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy import stats
from scipy.special import logsumexp

PRIOR_BAKES = 3.0
"""So many bakes the trade's figure is worth. Common practice, no source."""
PRIOR_FREEDOM = 4.0
"""How sure the trade is of how far bakes stray: degrees of freedom. Common practice, no source."""
ODD, ODD_TIMES = 0.1, 6.0
"""One bake in ten strays so many times as far."""
UNLIKE, UNLIKE_TIMES = 0.2, 2.5
"""One kitchen in five is unlike the trade: its usual lies about the trade's by so many times what a bake is expected to stray."""
COUNTED = 40
"""So many of the last bakes count: kitchens change, and flour does."""
STATED = 0.8
"""How often a figure lies within the range that is stated: four times in five."""
USUALS, SPREADS = 121, 23
"""Points of the grid."""
LIKELY_ODD = 0.8
"""From here a bake is told as odd."""

Numbers = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Prior:
    """The trade's figure, and how far it expects a single bake to stray from a kitchen's usual, as a standard deviation."""

    usual: float
    noise: float


@dataclass(frozen=True, slots=True)
class Figure:
    """What is known of a figure after so many bakes. `low` to `high`: where the usual lies, four times in five."""

    usual: float
    sure: float
    """How far the usual may be off: standard deviation."""
    low: float
    high: float
    strays: float
    """How far a single bake strays: standard deviation."""


@dataclass(frozen=True, slots=True)
class Learnt:
    """A figure after all bakes; its usual after each of them, the trade's first; and how likely each bake is an odd one."""

    figure: Figure
    moved: tuple[float, ...]
    odd: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Shares:
    """How many bakes are odd, and how many kitchens unlike the trade."""

    odd: float = ODD
    unlike: float = UNLIKE


def learnt(values: Sequence[float], prior: Prior, shares: Shares = Shares()) -> Learnt:  # frozen
    """A kitchen's figure from what its bakes showed, the oldest first; of more than `COUNTED` the last."""
    return _learnt(tuple(values[-COUNTED:]), prior, shares)


@lru_cache(maxsize=4096)
def _learnt(values: tuple[float, ...], prior: Prior, shares: Shares) -> Learnt:
    x = np.array(values)
    first = _Grid.around(x, prior)
    coarse = first.posterior(x, shares)
    moved = [float(np.sum(weights * first.usuals[:, None])) for weights in coarse]
    grid = first.narrowed(coarse[-1])
    weights = grid.posterior(x, shares)[-1]
    of_usual, of_spread = weights.sum(axis=1), weights.sum(axis=0)
    usual = float(of_usual @ grid.usuals)
    low, high = (float(np.interp(at, np.cumsum(of_usual) - of_usual / 2, grid.usuals)) for at in ((1 - STATED) / 2, (1 + STATED) / 2))
    figure = Figure(
        usual=usual, sure=float(np.sqrt(of_usual @ (grid.usuals - usual) ** 2)), low=low, high=high, strays=float(of_spread @ grid.spreads)
    )  # fmt: skip
    return Learnt(figure, (prior.usual, *moved[1:-1], usual) if len(x) else (prior.usual,), grid.odds(x, weights, shares.odd))


@dataclass(frozen=True, slots=True)
class _Grid:
    """Usuals and spreads that are weighed, with what the trade thinks of each pair."""

    usuals: Numbers
    spreads: Numbers
    prior: Prior

    @classmethod
    def around(cls, x: Numbers, prior: Prior) -> "_Grid":
        """All that is possible by the trade, and by any bake that is no wilder than all odd ones are."""
        near = x[np.abs(x - np.median(np.append(x, prior.usual))) <= 4 * ODD_TIMES * prior.noise] if len(x) else x
        low, high = min(prior.usual, *near, prior.usual), max(prior.usual, *near, prior.usual)
        usuals = np.linspace(low - 2 * prior.noise, high + 2 * prior.noise, USUALS)
        return cls(usuals, prior.noise * np.geomspace(0.08, 6.0, SPREADS), prior)

    def narrowed(self, weights: Numbers) -> "_Grid":
        """As fine a grid where the usual really lies."""
        of_usual = weights.sum(axis=1)
        middle = float(of_usual @ self.usuals)
        step = self.usuals[1] - self.usuals[0]
        wide = max(float(np.sqrt(of_usual @ (self.usuals - middle) ** 2)), step / 2)
        return _Grid(np.linspace(middle - 6 * wide, middle + 6 * wide, USUALS), self.spreads, self.prior)

    def _trade(self, unlike: float) -> Numbers:
        """The logarithm of what the trade thinks, of each pair; spreads stand apart by equal factors."""
        a, b = PRIOR_FREEDOM / 2, PRIOR_FREEDOM / 2 * self.prior.noise**2
        variance = self.spreads**2
        spread: Numbers = stats.invgamma.logpdf(variance, a, scale=b) + 2 * np.log(self.spreads)
        usual: Numbers = stats.norm.logpdf(self.usuals[:, None], self.prior.usual, self.spreads / np.sqrt(PRIOR_BAKES))
        with np.errstate(divide="ignore"):
            wide: Numbers = np.log(unlike) + stats.norm.logpdf(self.usuals[:, None], self.prior.usual, UNLIKE_TIMES * self.prior.noise)
        both: Numbers = np.logaddexp(np.log1p(-unlike) + usual, wide) + spread
        return both

    def _both(self, x: Numbers, odd: float) -> tuple[Numbers, Numbers]:
        """The logarithms of how likely each bake is at each pair: as a usual one, and as an odd one."""
        off = (x[:, None, None] - self.usuals[None, :, None]) / self.spreads
        log_spread = np.log(self.spreads) + 0.5 * np.log(2 * np.pi)
        as_usual: Numbers = np.log1p(-odd) - 0.5 * off**2 - log_spread
        with np.errstate(divide="ignore"):
            as_odd: Numbers = np.log(odd) - 0.5 * (off / ODD_TIMES) ** 2 - log_spread - np.log(ODD_TIMES)
        return as_usual, as_odd

    def posterior(self, x: Numbers, shares: Shares) -> Numbers:
        """How likely each pair is, before any bake and after each."""
        as_usual, as_odd = self._both(x, shares.odd)
        told = np.concatenate((self._trade(shares.unlike)[None], np.logaddexp(as_usual, as_odd)))
        log = np.cumsum(told, axis=0)
        found: Numbers = np.exp(log - logsumexp(log, axis=(1, 2), keepdims=True))
        return found

    def odds(self, x: Numbers, weights: Numbers, odd: float) -> tuple[float, ...]:
        """How likely each bake is an odd one."""
        as_usual, as_odd = self._both(x, odd)
        share = np.exp(as_odd - np.logaddexp(as_usual, as_odd))
        return tuple(float(one) for one in np.sum(share * weights[None], axis=(1, 2)))
