"""The weigh sheet."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import make_formula
from pancount.core.base.errors import PinsFight
from pancount.core.base.scale import Scale
from pancount.core.count.count import Count, Pins, Target, TargetPins, one_target
from pancount.core.count.limits import Limit
from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import RoundPan, SheetPan
from pancount.core.pantry.role import Role
from pancount.core.sheet.weigh import weigh_sheet
from sheets import adds_up
from strategies import formulas, line_of, mixed_formulas

SHEET = SheetPan(length_cm=46, width_cm=33, depth_cm=2.5)


class TestSheetForTheKitchen:
    """Per mix, with what the scale shows, and all that it makes at the foot."""

    KIT = Kit(bowl_g=1000, sheet=SHEET, shelves=2)

    def test_equal_mixes_add_up(self, rolls):
        """2 500 g of flour are 4 075 g: five mixes of 500 g flour; what is printed times five is the dough."""
        sheet = weigh_sheet(rolls, one_target(flour_g=2500), Scale(), kit=self.KIT)
        assert (sheet.mixes, sheet.flour, sheet.printed_total) == (5, 500, 815)
        assert sheet.targets[0].pieces == int(2500 * 1.63 * 0.98 / 80)

    def test_what_the_scale_shows(self, rolls):
        """Set to nothing with the bowl on, each line adds to what it shows."""
        (stage,) = weigh_sheet(rolls, one_target(flour_g=500), Scale()).stages
        assert [line.running for line in stage.lines] == [500, 800, 810, 815]

    def test_targets_at_the_foot(self, rolls):
        """Each with its weight, pan, loads, shape, and how light one may be that is sold."""
        count = Count(
            pins=Pins(flour_g=1000),
            targets=(
                Target(name="buns", pins=TargetPins(pieces=10, piece_g=80), label_g=70),
                Target(pins=TargetPins(pieces=1), pan=RoundPan(diameter_cm=30, depth_cm=5)),
            ),
            limits=(Limit(kind="flour", amount=1000),),
        )
        buns, pan = weigh_sheet(rolls, count, Scale(), kit=self.KIT).targets
        assert (buns.name, buns.pieces, buns.piece, buns.least) == ("buns", 10, 80, 61)
        assert (pan.pieces, pan.loads[0].pans, pan.pan.shape) == (1, 1, "round")
        assert buns.turns[0].through == "oven"


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


def test_the_sheet_counts_as_the_kitchen_does():
    """With the starter apart, 900 g is the 100 % on paper too; the grams are the same."""
    lines = (line_of("Sourdough starter", weight_g=200), line_of("Bread flour", weight_g=900), line_of("Water", weight_g=600))
    formula, count = Formula(name="x", stages=(Stage(lines=lines),)), one_target(flour_g=1000)
    joined, apart = (weigh_sheet(formula, count, Scale(), (), school) for school in ("joined", "apart"))
    assert (joined.flour, apart.flour) == (1000, 900)
    assert [line.printed for line in joined.stages[0].lines] == [line.printed for line in apart.stages[0].lines]
    assert (apart.stages[0].lines[1].percent, apart.total_percent) == (pytest.approx(100), pytest.approx(1700 / 9))


@given(mixed_formulas())
def test_every_bowl_on_the_sheet_adds_up(formula):
    """As printed: lines, what comes in, what boils off and what is kept."""
    for step, fine in (("1", "0.01"), ("5", None)):
        scale = Scale(step=step, fine_step=fine)
        sheet = weigh_sheet(formula, one_target(flour_g=1234.5), scale)
        assert adds_up(sheet)
