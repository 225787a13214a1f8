"""Times in the oven for another piece, and what an oven is set to."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.formula.steps import Lasts, Step, Warmth
from pancount.core.heat.baking import dial_c, piece_minutes, slab_minutes
from pancount.core.heat.climate import Climate
from pancount.core.method.bakes import Piece, bake_figures, dial_words
from pancount.core.method.filled import filled

USUAL = Climate()
masses = st.floats(5, 3000)


@given(st.floats(1, 120), masses, masses, masses)
def test_more_takes_longer(written, was, one, other):
    """And as told for what it was told for, piece or slab."""
    for minutes in (piece_minutes, slab_minutes):
        assert minutes(written, was, was, 0) == pytest.approx(written)
        assert (minutes(written, was, one, 0) <= minutes(written, was, other, 0)) == (one <= other)


def baked(low: float, high: float, told_g: float, now_g: float, climate: Climate = USUAL, **heat: float):
    step = Step(kind="bake", lasts=Lasts.of(low, high), heat=Warmth(**heat) if heat else None)
    return bake_figures(0, filled(step, 12), Piece(now=now_g, told=told_g, slab=False), climate, enriched=True)[0]


def test_a_hundred_grams_and_eighty_five():
    """Common practice, no source: 100 g buns bake 15 minutes at 200 °C; 85 g ones are looked at from 12 and take some 13½."""
    same, small = baked(15, 15, 100, 100, low_c=200, high_c=200), baked(15, 15, 100, 85, low_c=200, high_c=200)
    assert (same.usual_min, same.dial) == (15, "200 °C")
    assert small.look_min == pytest.approx(12, abs=0.5)
    assert small.usual_min == pytest.approx(13.5, abs=0.1)
    assert (small.middle.low_c, small.middle.high_c) == (88, 93)


def test_a_crumb_is_not_baked_in_a_minute():
    """Colour needs its time."""
    assert baked(15, 15, 100, 2, low_c=200, high_c=200).usual_min == 5


@pytest.mark.parametrize(
    ("climate", "dial"),
    [
        (Climate(), "200 °C"),
        (Climate(oven_fan=True), "180 °C"),
        (Climate(oven_error_c=10), "190 °C"),
        (Climate(heat_unit="F"), "390 °F"),
        (Climate(heat_unit="gas"), "gas mark 6"),
        (Climate(heat_unit="gas", oven_fan=True), "gas mark 4"),
    ],
)
def test_what_the_dial_says(climate, dial):
    """Fan 20 °C cooler (common practice, no source); 392 °F is set as 390; an oven that is 10 °C too hot is set 10 lower."""
    assert baked(15, 15, 100, 100, climate, low_c=200, high_c=200).dial == dial
    assert dial_c(200, fan=False, error_c=0) == 200


def test_beyond_every_gas_mark():
    """A pizza oven has none: degrees are told instead."""
    assert dial_words(300, "gas") == "300 °C"
