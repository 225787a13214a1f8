"""The model by which a figure is learned: held against scipy's own conjugate, against kitchens of known truth, against one wild bake."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from pancount.core.book.learning import COUNTED, STATED, Prior, Shares, learnt

PRIOR = Prior(0.11, 0.02)
PLAIN = Shares(odd=0.0, unlike=0.0)
"""Neither odd bakes nor unlike kitchens: the conjugate model alone."""


def bakes(number: int, truth: float = 0.125, strays: float = 0.01, seed: int = 7) -> list[float]:
    return list(np.random.default_rng(seed).normal(truth, strays, number))


def moments(values: list[float]) -> tuple[float, float, float, float]:
    """The normal–inverse-gamma after these bakes, by its textbook update: mean, weight, shape, scale."""
    n, x = len(values), np.array(values)
    before, freedom = 3.0, 4.0
    mean = (before * PRIOR.usual + x.sum()) / (before + n)
    scale = freedom / 2 * PRIOR.noise**2 + 0.5 * ((x - x.mean()) ** 2).sum() + before * n * (x.mean() - PRIOR.usual) ** 2 / (2 * (before + n))
    return mean, before + n, freedom / 2 + n / 2, scale


@pytest.mark.parametrize("number", [1, 3, 10, 30])
class TestAgainstAReference:
    """Without odd bakes the figure is the conjugate posterior: scipy.stats' t and normal_inverse_gamma."""

    def test_usual_and_range(self, number):
        """The usual, how sure it is and its range are those of the marginal t."""
        values = bakes(number)
        mean, weight, shape, scale = moments(values)
        marginal = stats.t(2 * shape, loc=mean, scale=np.sqrt(scale / (shape * weight)))
        figure = learnt(values, PRIOR, PLAIN).figure
        low, high = marginal.interval(STATED)
        assert figure.usual == pytest.approx(mean, abs=3e-5)
        assert (figure.low, figure.high) == (pytest.approx(low, abs=2e-4), pytest.approx(high, abs=2e-4))
        assert figure.sure == pytest.approx(marginal.std(), rel=0.03)

    def test_how_far_a_bake_strays(self, number):
        """How far bakes stray is the mean of the spread under scipy's normal_inverse_gamma, drawn from it."""
        values = bakes(number)
        mean, weight, shape, scale = moments(values)
        _, variance = stats.normal_inverse_gamma(mean, weight, shape, scale).rvs(size=40_000, random_state=np.random.default_rng(1))
        assert learnt(values, PRIOR, PLAIN).figure.strays == pytest.approx(float(np.sqrt(variance).mean()), rel=0.03)


def test_nothing_is_the_trades_figure():
    """Before any bake the figure is the trade's, and as unsure as three bakes are."""
    found = learnt([], PRIOR, PLAIN)
    assert (found.figure.usual, found.moved, found.odd) == (pytest.approx(0.11), (0.11,), ())
    assert found.figure.low < 0.11 - 0.5 * PRIOR.noise / np.sqrt(3)


class TestOneWildBake:
    """One bake that lies far off moves the figure by less than a tenth of its error."""

    @pytest.mark.parametrize("number", [2, 3, 5, 10, 30])
    @pytest.mark.parametrize("wild", [-0.12, 0.32, 0.45])
    def test_moves_little(self, number, wild):
        others = bakes(number - 1)
        before, after = learnt(others, PRIOR).figure.usual, learnt([*others, wild], PRIOR).figure.usual
        assert abs(after - before) < abs(wild - before) / 10

    def test_is_told(self):
        """It is told as odd, and the others are not."""
        odd = learnt([*bakes(9), 0.31], PRIOR).odd
        assert odd[-1] > 0.95
        assert max(odd[:-1]) < 0.5

    def test_first_of_all(self):
        """Even as the very first bake, beyond all that is known of kitchens, it moves little."""
        assert abs(learnt([0.40], PRIOR).figure.usual - 0.11) < 0.029


class TestKitchensOfKnownTruth:
    """The truth lies within the stated range about as often as is said; bench/learning.py prints the table of four figures."""

    @pytest.mark.parametrize("number", [3, 10, 30])
    def test_as_often_as_it_says(self, number):
        """Kitchens as the model takes them (one in five unlike the trade), one odd bake in ten: at 240 kitchens, four in five give or take three standard errors."""
        random, hits, kitchens = np.random.default_rng(number), 0, 240
        for _ in range(kitchens):
            strays = PRIOR.noise * np.sqrt(2 / random.gamma(2))
            truth = random.normal(PRIOR.usual, 2.5 * PRIOR.noise if random.random() < 0.2 else strays / np.sqrt(3))
            times = np.where(random.random(number) < 0.1, 6.0, 1.0)
            figure = learnt(list(random.normal(truth, strays * times)), PRIOR).figure
            hits += figure.low <= truth <= figure.high
        assert abs(hits / kitchens - STATED) < 3 * np.sqrt(STATED * (1 - STATED) / kitchens)

    def test_more_bakes_are_surer(self):
        widths = [learnt(bakes(n), PRIOR).figure.high - learnt(bakes(n), PRIOR).figure.low for n in (3, 10, 30)]
        assert widths == sorted(widths, reverse=True)
        assert widths[-1] < widths[0] / 3


class TestAlways:
    """What holds for any bakes."""

    @given(st.lists(st.floats(-0.02, 0.45), max_size=12))
    def test_in_order_and_finite(self, values):
        found = learnt(values, PRIOR)
        figure = found.figure
        assert figure.low <= figure.usual <= figure.high
        assert figure.sure > 0
        assert figure.strays > 0
        assert all(0 <= share <= 1 for share in found.odd)
        assert len(found.odd) == len(values)
        assert len(found.moved) == len(values) + 1

    @given(st.lists(st.floats(0.05, 0.2), min_size=1, max_size=8), st.randoms(use_true_random=False))
    def test_the_order_of_bakes_changes_nothing(self, values, random):
        shuffled = list(values)
        random.shuffle(shuffled)
        assert learnt(shuffled, PRIOR).figure.usual == pytest.approx(learnt(values, PRIOR).figure.usual, abs=1e-6)

    @given(st.lists(st.floats(0.08, 0.16), min_size=2, max_size=8), st.floats(-0.5, 0.5), st.floats(0.2, 20))
    def test_by_another_measure_it_is_the_same(self, values, moved, times):
        """Told in another unit, the figure is the same in that unit."""
        there = learnt([times * one + moved for one in values], Prior(times * PRIOR.usual + moved, times * PRIOR.noise)).figure
        assert there.usual == pytest.approx(times * learnt(values, PRIOR).figure.usual + moved, abs=1e-5 * times)

    def test_the_last_forty_count(self):
        """A kitchen that changed its oven forty bakes ago is learned from those."""
        assert learnt([*bakes(100, truth=0.2), *bakes(COUNTED, truth=0.12)], PRIOR) == learnt(bakes(COUNTED, truth=0.12), PRIOR)
