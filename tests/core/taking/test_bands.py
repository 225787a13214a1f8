"""Exact extremes: nothing drawn from the bands lies outside, and some draw comes to each end."""

from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.taking.bands import Term, range_of, usual, widths


@st.composite
def terms(draw, flour: float | None = None) -> Term:
    low, middle, high = sorted(draw(st.lists(st.floats(1, 2000), min_size=3, max_size=3)))
    shares = sorted(draw(st.lists(st.floats(0, 1), min_size=3, max_size=3)))
    return Term(low, middle, high, *shares, draw(st.sampled_from([0.0, 1.0])) if flour is None else flour)


doughs = st.builds(lambda flour, rest: [flour, *rest], terms(flour=1.0), st.lists(terms(), max_size=7))


def ratio(weights: list[float], shares: list[float], dough: list[Term]) -> float:
    """Counted over flour, worked out plainly. [%]"""
    flour = sum(w * t.flour for w, t in zip(weights, dough, strict=True))
    return 100 * sum(w * s for w, s in zip(weights, shares, strict=True)) / flour


@given(doughs, st.data())
def test_the_true_value_stays_inside(dough, data):
    """Whatever each line really weighs within its band, and holds, the percentage is in the range."""
    weights = [data.draw(st.floats(t.low_g, t.high_g)) for t in dough]
    shares = [data.draw(st.floats(t.share_low, t.share_high)) for t in dough]
    found = range_of(dough)
    assert found.low - 1e-7 <= ratio(weights, shares, dough) <= found.high + 1e-7
    assert found.low <= found.usual <= found.high
    assert found.usual == pytest.approx(ratio([t.usual_g for t in dough], [t.share for t in dough], dough))


@given(doughs)
def test_some_draw_comes_to_each_end(dough):
    """Among the corners of the box one lies within 1 % of each end: it is tight, not a sum of errors."""
    found = range_of(dough)
    corners = list(product(*((t.low_g, t.high_g) for t in dough)))
    lowest = min(ratio(w, [t.share_low for t in dough], dough) for w in corners)
    highest = max(ratio(w, [t.share_high for t in dough], dough) for w in corners)
    assert found.low == pytest.approx(lowest, rel=0.01, abs=1e-9)
    assert found.high == pytest.approx(highest, rel=0.01, abs=1e-9)


def test_the_flour_is_in_both_halves():
    """Flour 140–160, milk 70–80: 70/160 to 80/140, not the naive 50 ± (6.7 + 6.7)."""
    found = range_of([Term(140, 150, 160, 0, 0, 0, 1), Term(70, 75, 80, 1, 1, 1, 0)])
    assert found == pytest.approx((43.75, 50, 57.142857))


@pytest.mark.parametrize(
    ("dough", "expected"),
    [
        ([], None),  # nothing
        ([Term(70, 75, 80, 1, 1, 1, 0)], None),  # no flour
        ([Term(0, 5, 10, 0, 0, 0, 1), Term(1, 1, 1, 1, 1, 1, 0)], None),  # flour that may be none has no top
        ([Term(100, 100, 100, 0.13, 0.13, 0.13, 1)], (13, 13, 13)),  # certain
    ],
)
def test_edges(dough, expected):
    """Without flour there is no percentage."""
    found = range_of(dough)
    assert found is None if expected is None else found == pytest.approx(expected)
    assert (usual(dough) is None) == (not any(t.flour for t in dough))


def test_widths_name_the_line_that_matters():
    """The flour, twice as uncertain as the milk, has the widest share; a certain line has none."""
    flour, milk, water = Term(130, 150, 170, 0, 0, 0, 1), Term(70, 75, 80, 1, 1, 1, 0), Term(20, 20, 20, 1, 1, 1, 0)
    found = widths([flour, milk, water])
    assert found[0] > found[1] > 1 > 1e-9 > found[2]


@given(doughs)
def test_a_width_is_the_range_of_one_uncertain_line(dough):
    """Worked out one by one, with every other line certain."""
    certain = [t._replace(low_g=t.usual_g, high_g=t.usual_g, share_low=t.share, share_high=t.share) for t in dough]
    for n, (term, width) in enumerate(zip(dough, widths(dough), strict=True)):
        alone = range_of([*certain[:n], term, *certain[n + 1 :]])
        assert width == pytest.approx(alone.width, abs=1e-6)
