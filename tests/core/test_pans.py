"""Where pieces sit, and how the dough stands in the pan."""

from itertools import combinations
from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.count import one_target
from pancount.core.formula import Usual
from pancount.core.layout import lay_out
from pancount.core.pan import RectanglePan, RoundPan
from pancount.core.panned import panned
from pancount.core.solve import solved

RIMMED = RectanglePan(length_cm=33, width_cm=23, depth_cm=4.6)
sizes = st.floats(5, 80)


@given(
    st.integers(1, 90),
    st.one_of(
        st.builds(RectanglePan, length_cm=sizes, width_cm=sizes, depth_cm=st.just(5)),
        st.builds(RoundPan, diameter_cm=sizes, depth_cm=st.just(5)),
    ),
)
def test_every_piece_has_its_room_inside_the_pan(pieces, pan):
    """No two pieces are nearer than the room told, and none is nearer to the rim than half of it."""
    layout = lay_out(pieces, pan)
    assert layout is not None
    assert len(layout.places) == pieces
    near = layout.room_cm * (1 - 1e-6)
    for a, b in combinations(layout.places, 2):
        assert hypot(a.x_cm - b.x_cm, a.y_cm - b.y_cm) >= near
    for place in layout.places:
        if isinstance(pan, RoundPan):
            r = pan.diameter_cm / 2
            assert hypot(place.x_cm - r, place.y_cm - r) <= r - near / 2
        else:
            assert near / 2 <= place.x_cm <= pan.length_cm - near / 2
            assert near / 2 <= place.y_cm <= pan.width_cm - near / 2


@pytest.mark.parametrize(
    ("pieces", "pan", "words"),
    [
        (12, RIMMED, "3 × 4"),
        (7, RIMMED, "1 × 4 and 3"),  # a last row that is short
        (1, RIMMED, "1 × 1"),
        (7, RoundPan(diameter_cm=26, depth_cm=5), "6 around 1"),
        (1, RoundPan(diameter_cm=26, depth_cm=5), "one in the middle"),
        (5, RoundPan(diameter_cm=26, depth_cm=5), "a ring of 5"),
    ],
)
def test_it_is_told_as_a_baker_would(pieces, pan, words):
    """The arrangement in words."""
    assert lay_out(pieces, pan).words == words


def test_none_and_too_many_are_not_drawn():
    """Nothing to draw, or too much to draw one by one."""
    assert lay_out(0, RIMMED) is None
    assert lay_out(401, RIMMED) is None


class TestPanned:
    """One full pan of a count."""

    def look(self, rolls, pan=RIMMED, usual=None, **pins):
        formula = rolls.model_copy(update={"usual": usual or Usual()})
        result, counter, solution = solved(formula, one_target(pan, **pins))
        return panned(counter, solution, result.loads[0], 0) if result.loads else None

    def test_depth_and_fill(self, rolls):
        """12 × 77 g in 759 cm²: 924 ÷ 1.1 ÷ 759 = 1.107 cm, twice that doubled; 1.217 g/cm² is usual for buns."""
        pan = self.look(rolls, pieces=24, piece_g=77)
        assert (pan.depths.divided_cm, pan.depths.doubled_cm) == (pytest.approx(1.1067, abs=1e-4), pytest.approx(2.2135, abs=1e-4))
        assert (pan.fill_is, pan.past_rim, pan.layout.words) == ("in", False, "3 × 4")

    def test_past_the_rim(self, rolls):
        """A doubled dough that stands above the rim is told."""
        assert self.look(rolls, pieces=12, piece_g=170).past_rim
        assert self.look(rolls, pieces=12, piece_g=170).fill_is == "over"

    def test_a_tin_is_filled_by_volume(self, rolls):
        """1 100 g in 2 541 ml is 0.433 g/ml, usual for an open tin."""
        tin = RectanglePan(length_cm=21, width_cm=11, depth_cm=11)
        pan = self.look(rolls, tin, Usual(pieces_per_pan=1, fill_kind="open_tin"), piece_g=1100, pans=1)
        assert (pan.fill_per, pan.fill_is, pan.layout) == ("volume", "in", None)
        assert pan.fill == pytest.approx(1100 / 2541)

    def test_nothing_to_draw(self, rolls):
        """Without a pan, without a piece, or in a fight there is no drawing."""
        assert self.look(rolls, None) is None
        assert self.look(rolls, divide_g=10, piece_g=80) is None
        assert self.look(rolls, flour_g=1, dough_g=1000) is None
