"""Where pieces sit in a pan."""

from itertools import combinations
from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.pans.layout import lay_out
from pancount.core.pans.pan import RectanglePan, RoundPan

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
