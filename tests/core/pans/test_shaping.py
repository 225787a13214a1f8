"""Ropes, rings, rounds and logs."""

from math import pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.pans.shaping import (
    SHAPES,
    Shaping,
    disc_cm,
    disc_thickness_cm,
    rope_cm,
    rope_thickness_cm,
    shape,
    shaped_figures,
)


class TestShaping:
    """By volume: what a piece of a weight comes out as."""

    @given(st.floats(10, 500), st.floats(0.3, 5))
    def test_half_the_piece_is_half_as_long(self, piece, thick):
        """A rope of the same thickness."""
        assert rope_cm(piece / 2, thick) == pytest.approx(rope_cm(piece, thick) / 2)
        assert rope_thickness_cm(piece, rope_cm(piece, thick)) == pytest.approx(thick)
        assert disc_thickness_cm(piece, disc_cm(piece, thick)) == pytest.approx(thick)

    def test_a_ring(self):
        """110 g at 2.6 cm: a rope of 18.8 cm closes, less 2 of overlap, around 5.36 cm; 2.76 are open; doubled it is as long and √2 as thick: 1.68."""
        ring = shape(Shaping(kind="ring", thickness_cm=2.6), 110, 1)
        assert ring.length_cm == pytest.approx(4 * 110 / (1.1 * pi * 2.6**2))
        assert ring.opening_cm == pytest.approx((ring.length_cm - 2) / pi - 2.6)
        assert ring.risen_opening_cm == pytest.approx((ring.length_cm - 2) / pi - 2.6 * 2**0.5)
        assert shape(Shaping(kind="ring", thickness_cm=4), 110, 1).risen_opening_cm == 0

    def test_a_log(self):
        """12 pieces of 75 g from a log of 36 cm are cut every 3 cm; it is as thick as 900 g ask for."""
        log = shape(Shaping(kind="log", length_cm=36), 75, 12)
        assert (log.slice_cm, log.cuts) == (3, 12)
        assert pi / 4 * log.thickness_cm**2 * 36 * 1.1 == pytest.approx(900)

    @pytest.mark.parametrize("kind", SHAPES)
    def test_every_shape_has_figures_that_open(self, kind):
        """Each figure is what its inputs make, and none is nothing."""
        shaping = Shaping(kind=kind)
        shaped = shape(shaping, 85, 10)
        figures = shaped_figures(shaping, shaped)
        assert figures
        assert all(figure.value > 0 and figure.inputs for figure in figures.values())
        for figure in figures.values():
            assert all("{" + one.name + "}" in figure.reads for one in figure.inputs)
