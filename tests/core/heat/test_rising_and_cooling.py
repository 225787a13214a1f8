"""Rises and cooling: against the published form, scipy's integration, closed forms, and what bakers know."""

from math import log

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.integrate import quad, solve_ivp

from pancount.core.heat.cooling import Course, Stay, course, forms
from pancount.core.heat.rising import Dough, Told, bakers_yeast, carried, dose_rate, opened, rules

temps = st.floats(5, 40)
doughs = st.builds(Dough, st.floats(0.1, 3), st.floats(1.5, 2.5), st.floats(0, 20))
halves = st.floats(10, 300)


def steady(temp_c: float, minutes: float = 60) -> Course:
    return course(temp_c, [Stay(minutes, temp_c, 1.0)])


class TestCooling:
    """Newton's law."""

    @given(st.floats(0, 40), st.lists(st.tuples(st.floats(1, 600), st.floats(-18, 40), halves), min_size=1, max_size=3))
    def test_against_the_differential_equation(self, begins, stays):
        """dT/dt = ln 2 ÷ half-time · (around − T), by scipy's solver, stay after stay."""
        along = course(begins, [Stay(*stay) for stay in stays])
        temp, start = begins, 0.0
        for minutes, around, half in stays:
            solved = solve_ivp(lambda _, t, a=around, h=half: log(2) / h * (a - t), (0, minutes), [temp], rtol=1e-9, atol=1e-9)
            temp, start = float(solved.y[0, -1]), start + minutes
            assert along.at(np.array([start - 1e-9]))[0] == pytest.approx(temp, abs=1e-4)
        assert along.minutes == pytest.approx(start)

    def test_half_times_of_the_trade(self):
        """Common practice, no source: a covered bowl of 1 kg is half way in about 1.7 h, a thin tray in 0.6 h; more takes longer."""
        bowl, tray = forms()["bowl"], forms()["tray"]
        assert bowl.half_time(1000) == pytest.approx(1.7 * 60, rel=0.05)
        assert tray.half_time(1000) == pytest.approx(0.6 * 60, rel=0.05)
        assert course(25, [Stay(bowl.half_time(1000), 5, bowl.half_time(1000))]).at(np.array([bowl.half_time(1000)]))[0] == pytest.approx(15)
        assert bowl.half_time(8000) == pytest.approx(4 * bowl.half_time(1000), rel=0.01)  # as its surface to its mass


class TestCardinal:
    """The cardinal temperature model with inflection (Rosso and others 1993, its form recalled from memory)."""

    @staticmethod
    def published(t: float) -> float:
        low, best, most = 3.0, 32.5, 45.0
        return (t - most) * (t - low) ** 2 / ((best - low) * ((best - low) * (t - best) - (best - most) * (best + low - 2 * t)))

    @given(st.floats(3.01, 44.99))
    def test_its_form(self, t):
        assert bakers_yeast().rate(t) == pytest.approx(self.published(t))

    def test_at_its_cardinal_temperatures(self):
        """Nothing at the least and the most and beyond, one at the best, and level there."""
        yeast = bakers_yeast()
        assert (yeast.least_c, yeast.best_c, yeast.most_c) == (3, 32.5, 45)
        assert [yeast.rate(t) for t in (-5, 3, 45, 60)] == [0, 0, 0, 0]
        assert yeast.rate(32.5) == pytest.approx(1)
        assert yeast.rate(32.5 + 1e-4) == pytest.approx(yeast.rate(32.5 - 1e-4), abs=1e-7)
        assert all(0 <= yeast.rate(t) <= 1 for t in np.linspace(0, 50, 301))

    def test_as_bakers_know_it(self):
        """Common practice, no source: half as quick or less at 20 as at 28 °C; in the fridge a night for an hour."""
        yeast = bakers_yeast()
        assert 1.6 < yeast.rate(28) / yeast.rate(20) < 2.6
        assert yeast.rate(26) / yeast.rate(5) > 12


class TestRise:
    """A rise carried from what was told of it."""

    @given(temps, doughs, st.floats(20, 900), st.floats(1, 2))
    def test_at_what_was_told_it_is_what_was_told(self, temp, dough, low, times):
        told = Told(low, low * (1 + times) / 2, low * times, temp, dough)
        rise = carried(told, dough, steady(temp))
        assert (rise.look_min, rise.usual_min, rise.ready_by_min) == pytest.approx((told.low_min, told.usual_min, told.high_min), rel=2e-3)
        assert (rise.factor, rise.widened) == pytest.approx((1, 0), abs=4e-3)
        assert rise.too_far_min == pytest.approx(told.high_min * rules()["too_far"], rel=5e-3)

    @given(temps, temps, doughs, doughs)
    def test_at_a_steady_temperature_it_is_the_closed_form(self, was, now, told_dough, dough):
        """Time told × rate told ÷ rate now ÷ what the dose does; within the grid's own step."""
        told = Told(60, 75, 90, was, told_dough)
        rate = bakers_yeast().rate(now) / bakers_yeast().rate(was) * dose_rate(dough, told_dough)
        assume(75 / rate < 9_000)
        assert carried(told, dough, steady(now)).usual_min == pytest.approx(75 / rate, rel=2e-3)

    @given(st.floats(5, 32.5), st.floats(5, 32.5), doughs)
    def test_warmer_is_quicker_up_to_the_best(self, one, other, dough):
        assume(other - one > 0.1)
        told = Told(60, 75, 90, 26, dough)
        cool, warm = (carried(told, dough, steady(t)).usual_min for t in (one, other))
        assert warm is not None
        assert cool is None or warm < cool

    @given(st.floats(0.1, 3), st.floats(0.1, 3), st.floats(18, 30))
    def test_more_yeast_is_quicker(self, one, other, temp):
        """Time goes as dose to the power of −0.85 (common practice, no source)."""
        told = Told(60, 75, 90, 26, Dough(1))
        ours, theirs = (carried(told, Dough(dose), steady(temp)).usual_min for dose in (one, other))
        assert ours / theirs == pytest.approx((one / other) ** -0.85, rel=4e-3)

    @given(st.floats(15, 30), st.floats(2, 25), halves, st.floats(30, 600))
    def test_along_a_course_it_is_the_integral(self, begins, around, half, minutes):
        """What has risen by the usual end is what was told, by scipy's own quadrature."""
        told = Told(60, 75, 90, 26, Dough(1))
        along = course(begins, [Stay(minutes, around, half)])
        usual = carried(told, Dough(1), along).usual_min
        assume(usual is not None and usual < 3000)

        def rate(minute: float) -> float:
            return bakers_yeast().rate(float(along.at(np.array([minute]))[0]))

        assert quad(rate, 0, usual, limit=400)[0] == pytest.approx(told.needs(75), rel=5e-3)

    def test_how_far_a_range_opens(self):
        """Nothing where nothing differs, 15 % near by, up to 40 % into a fridge; to either side alike."""
        assert opened(1) == 0
        assert opened(1.5) == pytest.approx(0.15)
        assert opened(1 / 1.5) == pytest.approx(0.15)
        assert opened(1 / 12) == pytest.approx(0.4, abs=0.04)
        assert opened(0) == pytest.approx(0.4)

    def test_salt_and_sugar_slow_it(self):
        """By 4 % a tenth of a percent of salt over 2, by 2.5 % a percent of sugar over 6, to half (common practice, no source)."""
        assert Dough(1, 2.5, 0).slowed == pytest.approx(0.8)
        assert Dough(1, 2.0, 16).slowed == pytest.approx(0.75)
        assert Dough(1, 2.0, 60).slowed == 0.5
        assert Dough(1, 1.5, 3).slowed == 1

    def test_a_levain_counts_by_its_own_last_rise(self):
        """No yeast on either side: only how warm it is."""
        told = Told(180, 240, 300, 25, Dough(0))
        assert carried(told, Dough(0), steady(25)).usual_min == pytest.approx(240, rel=2e-3)
        assert carried(told, Dough(0), steady(22)).usual_min > 280

    def test_it_does_not_get_there_in_a_freezer(self):
        rise = carried(Told(60, 75, 90, 26, Dough(1)), Dough(1), steady(-5))
        assert (rise.usual_min, rise.look_min, rise.too_far_min) == (None, None, None)
