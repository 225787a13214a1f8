"""Outlines: each is a dough of its kind, reckons, and lies where the trade has it."""

import pytest

from pancount.core.count.count import Count
from pancount.core.count.solve import solve
from pancount.core.formula.formula import complete
from pancount.core.formula.gauges import character
from pancount.core.formula.outlines import outlines
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.formula.remarks import remarks
from strategies import PANTRY

ALL = outlines()


@pytest.mark.parametrize("key", ALL)
class TestEach:
    """One after the other."""

    def test_it_can_be_kept_and_counted(self, key):
        """Flour is 100 %, every ingredient is known, and the count stands without a pin."""
        formula = ALL[key].formula
        complete(formula)
        assert sum(line.percent for stage in formula.stages for line in stage.lines if line.role == "flour") == 100
        found = solve(formula, Count()).result
        assert not found.fights
        assert found.quantities["pieces.0"].value >= 1

    def test_each_line_lies_in_its_own_band(self, key):
        """And its words on the ledger say that band."""
        outline = ALL[key]
        written = [line.written for stage in outline.formula.stages for line in stage.lines]
        assert len(written) == len(outline.lines)
        for line, words in zip(outline.lines, written, strict=True):
            assert line.low <= line.percent <= line.high
            assert words == (f"usually {line.low:g}–{line.high:g} % of the flour: common practice, no source" if line.low < line.high else "")

    def test_the_dough_lies_in_the_bands_of_its_style(self, key):
        """Water, fat, sugars, egg, salt, yeast and protein are as the styles' own table has them."""
        formula = ALL[key].formula
        dough = character(formula, reckon(formula), PANTRY, Practice())
        assert {gauge.lies for gauge in dough.gauges.values()} <= {"in", "free"}


def test_their_kinds_are_told_apart():
    """Ten of them, of styles as different as bagels and sweet dough; what can hurt someone is told from the start."""
    styles = {key: character(o.formula, reckon(o.formula), PANTRY, Practice()).style for key, o in ALL.items()}
    assert len(ALL) == 10
    assert set(styles.values()) == {"soft buns", "rich buns", "bagel", "pretzel", "flatbread", "focaccia", "pan pizza", "tin loaf"}
    knots = ALL["knot"].formula
    told = remarks(knots, reckon(knots), character(knots, reckon(knots), PANTRY, Practice()), PANTRY)
    assert any(remark.caution for remark in told)


def test_a_paste_is_cooked_flour_and_milk_of_the_same_dough():
    """Its flour is part of the hundred, and its liquid three to five times that: the handbook's band of the stage."""
    paste = ALL["paste_bun"].formula.stages[0]
    flour, milk = (line.percent for line in paste.lines)
    assert 3 <= milk / flour <= 5
    assert [line.stage for line in ALL["paste_bun"].lines][:3] == ["cooked-flour paste", "cooked-flour paste", ""]
