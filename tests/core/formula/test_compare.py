"""Two formulas side by side on the same flour, and bringing over."""

import pytest
from hypothesis import given

from pancount.core.base.errors import CannotChange
from pancount.core.formula.changes import Bring, MoveIn, change_formula
from pancount.core.formula.compare import BringOver, LineAt, bring_over, compare
from pancount.core.formula.formula import Formula, Stage, StageKind
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from strategies import PANTRY, line_of, mixed_formulas

PRACTICE = Practice()
RICH = Formula(name="rich bun", stages=(Stage(name="Dough", lines=(
    line_of("Bread flour", weight_g=500), line_of("Egg", weight_g=150), line_of("Butter", weight_g=200), line_of("Sugar", weight_g=60),
    line_of("Fine salt", weight_g=10), line_of("Instant yeast", weight_g=6))),))  # fmt: skip
POTATO = Formula(name="potato bun", stages=(
    Stage(name="Mash", kind=StageKind.MASH, lines=(line_of("Potato, boiled", percent=30),)),
    Stage(name="Dough", lines=(line_of("Bread flour", percent=100), line_of("Whole milk", percent=35), line_of("Egg", percent=10),
                               line_of("Butter", percent=12), line_of("Fine salt", percent=2), line_of("Instant yeast", percent=1.2)))))  # fmt: skip


def test_differences_first_on_the_same_flour():
    """500 g against percent: both on 1 000 g, what differs most first, what is alike last."""
    compared = compare(RICH, POTATO, 1000, PANTRY, PRACTICE)
    assert [line.name for line in compared.lines] == ["Whole milk", "Potato, boiled", "Butter", "Egg", "Sugar", "Bread flour", "Fine salt", "Instant yeast"]
    butter = next(line for line in compared.lines if line.name == "Butter")
    assert (butter.ours_g, butter.theirs_g, butter.differs) == pytest.approx((400, 120, 28))
    milk = compared.lines[0]
    assert (milk.ours, milk.ours_percent, milk.theirs) == (None, None, LineAt(1, 1))
    assert compared.gauges[0].key == "liquid"
    assert (compared.ours.richness.key, compared.theirs.richness.key) == ("rich", "enriched")
    assert not compared.same


@given(mixed_formulas())
def test_a_formula_is_the_same_as_itself(formula):
    """Nothing differs, line by line and gauge by gauge."""
    compared = compare(formula, formula, 1000, PANTRY, PRACTICE)
    assert compared.same
    assert all(gauge.differs == 0 for gauge in compared.gauges)
    assert sum(line.ours_g or 0 for line in compared.lines) >= reckon(formula).weight_g / reckon(formula).flour_g * 1000 - 1e-6


def test_stages_go_together_by_kind_and_lines_by_ingredient():
    """A poolish of another name is still the poolish, and "milk" is whole milk; a twice-named line has two rows."""
    ours = Formula(stages=(Stage(name="Overnight", kind=StageKind.POOLISH, lines=(line_of("Bread flour", percent=20),)),
                           Stage(lines=(line_of("Bread flour", percent=80), line_of("Whole milk", percent=50), line_of("Whole milk", percent=5)))))  # fmt: skip
    theirs = Formula(stages=(Stage(name="Poolish", kind=StageKind.POOLISH, lines=(line_of("Bread flour", percent=30),)),
                             Stage(lines=(line_of("Bread flour", percent=70), line_of("Whole milk", percent=50).model_copy(update={"name": "milk"})))))  # fmt: skip
    lines = {(line.kind, line.name, line.ours_percent, line.theirs_percent) for line in compare(ours, theirs, 1000, PANTRY, PRACTICE).lines}
    assert lines == {
        (StageKind.POOLISH, "Bread flour", 20, 30), (StageKind.DOUGH, "Bread flour", 80, 70),
        (StageKind.DOUGH, "Whole milk", 50, 50), (StageKind.DOUGH, "Whole milk", 5, None),
    }  # fmt: skip


def test_a_line_comes_over_at_its_percentage():
    """Their milk at 35 % of our 500 g is 175 g; their butter takes our butter's place, in grams as ours is."""
    with_milk = bring_over(RICH, BringOver(what="line", theirs=POTATO, stage=1, line=1))
    assert with_milk.stages[0].lines[-1].weight_g == pytest.approx(175)
    with_butter = bring_over(RICH, BringOver(what="line", theirs=POTATO, stage=1, line=3))
    assert [line.name for line in with_butter.stages[0].lines] == [line.name for line in RICH.stages[0].lines]
    assert with_butter.stages[0].lines[2].weight_g == pytest.approx(60)


def test_a_stage_comes_over_before_the_dough_or_in_the_place_of_its_kind():
    """Their mash comes first; brought twice, it takes its own place."""
    mashed = bring_over(RICH, BringOver(what="stage", theirs=POTATO, stage=0))
    assert [stage.kind for stage in mashed.stages] == [StageKind.MASH, StageKind.DOUGH]
    assert bring_over(mashed, BringOver(what="stage", theirs=POTATO, stage=0)) == mashed
    late = Formula(stages=(Stage(name="Folded in", kind=StageKind.INCLUSIONS, lines=(line_of("Leek", percent=16),)), *POTATO.stages))
    assert [s.kind for s in bring_over(RICH, BringOver(what="stage", theirs=late, stage=0)).stages] == [StageKind.DOUGH, StageKind.INCLUSIONS]


def test_flour_that_comes_over_in_percent_is_made_room_for():
    """Their poolish holds 20 % flour: our dough's own falls from 100 to 80."""
    theirs = Formula(stages=(Stage(name="Poolish", kind=StageKind.POOLISH, lines=(line_of("Bread flour", percent=20), line_of("Water", percent=20))),
                             Stage(lines=(line_of("Bread flour", percent=80),))))  # fmt: skip
    brought = bring_over(POTATO, BringOver(what="stage", theirs=theirs, stage=0))
    assert [line.percent for stage in brought.stages for line in stage.lines if line.name == "Bread flour"] == [20, 80]


@pytest.mark.parametrize(("stage", "line"), [(9, 0), (1, 9)])
def test_what_is_not_there_cannot_be_brought(stage, line):
    """Another window may have taken it away."""
    with pytest.raises(CannotChange, match="There is no such"):
        bring_over(RICH, BringOver(what="line", theirs=POTATO, stage=stage, line=line))


def test_a_change_tells_what_it_does():
    """Bringing their egg over: the lines and gauges that move, and no allergen lost that is still there."""
    changed = change_formula(RICH, Bring(what="line", theirs=POTATO, stage=1, line=2), PANTRY, PRACTICE)
    moved = [line for line in changed.compared.lines if abs(line.differs) > 0.01]
    assert [(line.name, line.differs) for line in moved] == [("Egg", pytest.approx(-20))]
    assert any("less set" in says for says in changed.says)
    assert (changed.gained, changed.lost) == ((), ())


def test_a_change_beyond_what_can_be_kept_is_refused():
    """Fifty stages are the most."""
    full = RICH.model_copy(update={"stages": RICH.stages * 50})
    with pytest.raises(CannotChange, match="beyond"):
        change_formula(full, MoveIn(kind=StageKind.SOAKER, flour_percent=0.1, hydration=0), PANTRY, PRACTICE)
