"""Selling by weight; what a scale cannot weigh well."""

from decimal import Decimal
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.count.selling import SAFE, SURE, sold, tolerance, tolerances
from pancount.core.count.small import dilute, small_weight


class TestSelling:
    """Labels: how far a piece may stray, and what to aim for."""

    @pytest.mark.parametrize(
        ("label", "rules", "grams"),
        [(50, "EU", 4.5), (51, "EU", 4.5), (150, "EU", 6.8), (155, "EU", 7.0), (35, "EU", 3.2), (250, "EU", 9), (400, "EU", 12), (750, "EU", 15), (80, "US", 5.4), (500, "US", 21.7), (30, "US", 3)],
    )
    def test_tolerance(self, label, rules, grams):
        """By the table of each; on a border both rows of the EU table agree."""
        assert tolerance(label, rules).of(label) == pytest.approx(grams)

    def test_outside_of_the_table(self):
        """A label too small or too large has no tolerance, and only the average is looked after."""
        found = sold(12_000, 10, 0.1, 5, "EU")
        assert (found.tolerance_g, found.least_g) == (None, None)
        assert found.overweight_g == pytest.approx(SAFE * 4.5 / 10**0.5)

    @pytest.mark.parametrize("rules", ["EU", "US"])
    def test_tables_have_no_gaps(self, rules):
        """Each row goes on where the one before ends, with a source; tolerances never fall."""
        table = tolerances(rules)
        assert all(a.up_to_g == b.over_g for a, b in pairwise(table))
        assert all(row.source for row in table)
        grams = [row.of(row.up_to_g) for row in table]
        assert grams == sorted(grams)

    def test_an_even_hand_aims_lower(self):
        """With no straying nothing is added; with more of it, what binds goes from the average to single pieces."""
        assert sold(80, 24, 0.1, 0, "EU").aim_baked_g == 80
        even, uneven = (sold(80, 24, 0.1, spread, "EU") for spread in (1.5, 6))
        assert "average" in even.says
        assert even.overweight_g == pytest.approx(SAFE * 1.35 / 24**0.5)
        assert uneven.overweight_g == pytest.approx(SURE * 5.4 - 9)
        assert uneven.aim_raw_g == pytest.approx(uneven.aim_baked_g / 0.9)


class TestSmallWeights:
    """What a scale cannot weigh well, and the cures."""

    def test_how_far_out(self):
        """2 g of yeast on a 1 g scale may be 25 % out; 25 g are weighed well; nothing is not small."""
        small = small_weight("Yeast", 2, Decimal(1), 1, 300, Decimal(1), 15)
        assert (small.off, small.finer_step) == (0.25, Decimal("0.01"))
        assert small_weight("Yeast", 25, Decimal(1), 1, 300, Decimal(1), 15) is None
        assert small_weight("Yeast", 0, Decimal(1), 1, 300, Decimal(1), 15) is None

    def test_once_for_all_mixes(self):
        """9 g for one of three mixes: 27 g once are weighed well."""
        assert small_weight("Yeast", 9, Decimal(1), 3, 0, Decimal(1), 0).at_once == 27

    @given(st.floats(0.05, 12), st.floats(150, 2000))
    def test_a_dilution_holds_what_was_wanted(self, amount, water):
        """What is taken has the wanted amount in it, within 3 %, and no more water than there is; the whole is weighed well."""
        found = dilute(amount, Decimal(1), water, Decimal(1))
        if found is None:
            return
        strength = found.whole / (found.whole + found.water)
        assert float(found.take * strength) == pytest.approx(amount, rel=0.03)
        assert found.whole >= 20
        assert float(found.take) - amount + float(found.water_left) == pytest.approx(water, abs=1)
        assert found.water_left > 0

    def test_too_little_water_to_dilute_in(self):
        """A dough with 30 g of water has none to spare."""
        assert dilute(2, Decimal(1), 30, Decimal(1)) is None
