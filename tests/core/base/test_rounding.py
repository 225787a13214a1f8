"""Rounding to a scale's step."""

from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from pancount.core.base.rounding import apportion, to_step

steps = st.sampled_from([Decimal(s) for s in ("0.01", "0.05", "0.1", "0.125", "0.5", "1", "2", "5")])


@given(st.lists(st.tuples(st.floats(0, 1e6), steps), min_size=1, max_size=60))
def test_printed_lines_sum_to_the_printed_total(lines):
    """Each line is a multiple of its step and within one of it; the sum is within half the coarsest step."""
    amounts, own = [a for a, _ in lines], [s for _, s in lines]
    printed = apportion(amounts, own)
    exact = sum(map(Decimal, amounts))
    assert abs(sum(printed) - exact) <= max(own) / 2
    for amount, step, shown in zip(amounts, own, printed, strict=True):
        assert shown >= 0
        assert shown % step == 0
        assert abs(shown - Decimal(amount)) <= step


def test_thirds():
    """Three thirds of 100 g print as 33, 33 and 34, not as 99."""
    assert sorted(apportion([100 / 3] * 3, [Decimal(1)] * 3)) == [33, 33, 34]


def test_flour_gives_way_before_salt():
    """1 000.6, 600.6 and 17.6 g come to 1 619: salt and water go up, and flour, which feels it least, goes down."""
    assert apportion([1000.6, 600.6, 17.6], [Decimal(1)] * 3) == [1000, 601, 18]


def test_whole_grams_stay():
    """What is whole already is printed as it is, whatever else is rounded."""
    assert apportion([1000.0, 18.4, 9.4, 3.4], [Decimal(1)] * 4)[0] == 1000


def test_a_fine_scale_shows_all_its_places():
    """9 g on a scale of 0.01 g is printed 9.00."""
    assert str(to_step(9.0, Decimal("0.01"))) == "9.00"
    assert [str(p) for p in apportion([9.0, 950.0], [Decimal("0.01"), Decimal(1)])] == ["9.00", "950"]
