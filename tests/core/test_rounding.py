"""Printed lines add up to the printed total, on the scales the kitchen has."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import make_formula
from pancount.core.count import Count, one_target
from pancount.core.formula import Formula, Line, Role, Stage
from pancount.core.rounding import apportion, to_step
from pancount.core.scale import Scale
from pancount.core.sheet import PinsFight, weigh_sheet
from strategies import formulas

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


class TestSheet:
    """The weigh sheet."""

    SCALE = Scale(step=Decimal(1), fine_step=Decimal("0.01"), fine_under=Decimal(10))

    @given(formulas(), st.floats(10, 1e5), st.sampled_from([SCALE, Scale(), Scale(unit="oz", step=Decimal("0.125"))]))
    def test_everything_printed_adds_up(self, formula, flour_g, scale):
        """Lines to stages, stages to the total, and the total to the dough within half a step."""
        sheet = weigh_sheet(formula, one_target(flour_g=flour_g), scale)
        for stage in sheet.stages:
            assert sum(line.printed for line in stage.lines if line.printed is not None) == stage.printed
        assert sum(stage.printed for stage in sheet.stages) == sheet.printed_total
        exact = sum(line.exact_g for stage in sheet.stages for line in stage.lines)
        unit_g = 28.349523125 if scale.unit == "oz" else 1
        assert abs(float(sheet.printed_total) * unit_g - exact) <= float(scale.step) * unit_g / 2 + 1e-6 * exact

    def test_mixing_order_and_foot(self, rolls):
        """Lines stand as the formula has them; pieces, loss and leavings stand at the foot."""
        sheet = weigh_sheet(rolls, one_target(divide_g=1290, piece_g=75), self.SCALE)
        assert [line.name for line in sheet.stages[0].lines] == ["Bread flour", "Water", "Fine salt", "Instant yeast"]
        (made,) = sheet.targets
        assert (made.pieces, made.piece, sheet.remainder, sheet.bench_loss) == (17, 75, 15, 0.02)
        assert sheet.flour == 808  # 1 290 ÷ 0.98 ÷ 1.63

    def test_a_line_too_small_for_the_scale_is_flagged_with_a_cure(self, rolls):
        """0.8 g of yeast on a 1 g scale is printed as 1 and may be half a gram out: a finer scale. On one of 0.01 g it is not."""
        count = one_target(flour_g=80)
        sheet = weigh_sheet(rolls, count, Scale())
        assert sheet.stages[0].lines[3].off == pytest.approx(0.25)
        yeast, salt = sheet.cures
        assert yeast.startswith("Instant yeast: to 1 g it may be 62 % out. Cure: a scale of 0.01 g would do")
        assert salt.startswith("Fine salt: to 1 g it may be 31 % out.")
        assert weigh_sheet(rolls, count, self.SCALE).cures == ()

    def test_the_finest_scale_may_still_be_too_coarse(self):
        """Then the cure is a bigger mix: without water in the dough there is nothing to dilute it in."""
        formula = make_formula(("Flour", Role.FLOUR, 100), ("Instant yeast", Role.LEAVEN, 0.013))
        (cure,) = weigh_sheet(formula, one_target(flour_g=100), self.SCALE).cures
        assert cure == "Instant yeast: to 0.01 g it may be 38 % out. Cure: make a bigger mix."

    def test_many_coarse_lines_are_counted(self):
        """Forty lines of half a gram tell of four, and count the others."""
        formula = make_formula(("f", Role.FLOUR, 100), *((f"n{i}", Role.FLAVOUR, 0.5) for i in range(40)))
        cures = weigh_sheet(formula, one_target(flour_g=100), Scale()).cures
        assert (len(cures), cures[-1]) == (5, "And 36 more lines like these.")

    def test_an_open_amount_prints_as_needed(self):
        """A line without an amount is on the sheet, with no weight."""
        formula = Formula(stages=(Stage(lines=(Line(name="f", role=Role.FLOUR, weight_g=9), Line(name="salt"))),))
        assert weigh_sheet(formula, Count(), Scale()).stages[0].lines[1].printed is None

    def test_fighting_pins_make_no_sheet(self, rolls):
        """A sheet of numbers that do not hold would be weighed by someone."""
        with pytest.raises(PinsFight, match="flour, dough mixed"):
            weigh_sheet(rolls, one_target(flour_g=1000, dough_g=1), Scale())
