"""Pieces apart on a sheet, in a pot and on a griddle; pans on a shelf."""

from itertools import combinations
from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Point, box

from pancount.core.pans.packing import fit_rectangles, pack, square_rows, staggered_rows
from pancount.core.pans.pan import Griddle, Stone


@given(st.floats(10, 80), st.floats(10, 80), st.floats(3, 20), st.floats(0, 6), st.booleans())
def test_nothing_overlaps_or_leaves_the_sheet(length, width, across, gap, disc):
    """Baked pieces keep their gap and stay on the sheet or in the pot: checked with a geometry library."""
    flat = Griddle(diameter_cm=length) if disc else Stone(length_cm=length, width_cm=width)
    found = pack(flat, across, gap)
    middle = length / 2
    edge = Point(middle, middle).buffer(middle * (1 + 1e-9), quad_segs=256) if disc else box(0, 0, length, width).buffer(1e-6)
    pieces = [Point(p.x_cm, p.y_cm).buffer(across / 2 * (1 - 1e-4)) for p in found.places]
    assert len(pieces) == found.holds or found.holds > 400
    assert all(edge.buffer(1e-3 * across).contains(piece) for piece in pieces)
    for a, b in combinations(found.places, 2):
        assert hypot(a.x_cm - b.x_cm, a.y_cm - b.y_cm) >= (across + gap) * (1 - 1e-9)


@given(st.floats(10, 60), st.floats(10, 60), st.floats(4, 16), st.floats(0, 5))
def test_rows_are_counted_one_by_one(length, width, across, gap):
    """Staggered rows against a count that lays piece after piece until none fits."""
    pitch, rows, y, n = across + gap, [], across / 2, 0
    while y + across / 2 <= width + 1e-9 and across <= length + 1e-9:
        x, own = across / 2 + (pitch / 2 if n % 2 else 0), 0
        while x + across / 2 <= length + 1e-9:
            x, own = x + pitch, own + 1
        rows.append(own)
        y, n = y + pitch * 3**0.5 / 2, n + 1
    assert staggered_rows(length, width, across, gap) == rows
    assert pack(Stone(length_cm=length, width_cm=width), across, gap).holds >= max(
        sum(rows), sum(square_rows(length, width, across, gap))
    )


@pytest.mark.parametrize(
    ("length", "width", "across", "way", "holds"),
    [
        # 13 cm from one to the next, staggered rows 11.3 apart
        (46, 33, 9, "staggered", 9),  # 3, 3, 3; straight there is room for two rows
        (39, 39, 9, "square", 9),  # 3 × 3; staggered 3, 2, 3
        (8, 8, 9, "square", 0),  # none
        (100, 9, 9, "square", 8),  # one row
    ],
)
def test_square_or_staggered(length, width, across, way, holds):
    """Whichever holds more; straight rows where they hold as many."""
    found = pack(Stone(length_cm=length, width_cm=width), across, 4)
    assert (found.way, found.holds) == (way, holds)


@given(st.floats(20, 80), st.floats(20, 80), st.floats(5, 40), st.floats(5, 40))
def test_pans_on_a_shelf_fit_by_area_and_at_least_by_rows(length, width, a, b):
    """Never more than the area holds, never fewer than straight rows either way."""
    found = fit_rectangles((length, width), (a, b))
    rows = [int(length / x + 1e-9) * int(width / y + 1e-9) for x, y in ((a, b), (b, a))]
    assert max(rows) <= found <= length * width / (a * b) + 1e-9
    assert fit_rectangles((width, length), (b, a)) == found
