"""Stages as a graph: where each goes, how much of it reaches the dough, and what is refused."""

import pytest
from hypothesis import given

from pancount.core.base.errors import FedTwice, NoSuchStage, StageLoop
from pancount.core.formula.formula import Feed, Formula, Line, Stage, StageKind, without_blank_lines
from pancount.core.formula.reckon import reckon
from pancount.core.formula.stages import BEFORE, FERMENTS, beside_named, flow, kinds, kinds_named
from pancount.core.pantry.role import Role
from strategies import line_of, mixed_formulas


def stage(name: str, *feeds: tuple[str, float], kind: StageKind = StageKind.LEVAIN, flour_g: float = 100) -> Stage:
    """A stage of as much flour as water, called by its own name."""
    lines = (line_of("Bread flour", weight_g=flour_g), line_of("Water", weight_g=flour_g))
    return Stage(name=name, key=name, kind=kind, lines=lines, feeds=tuple(Feed(into=k, share=s) for k, s in feeds))


def dough(flour_g: float = 800) -> Stage:
    return stage("dough", kind=StageKind.DOUGH, flour_g=flour_g)


def test_what_is_made_before_the_dough_goes_into_it_of_itself():
    """A poolish needs no telling; late additions are part of the dough, and feed nothing."""
    late = Stage(name="after 20 min", kind=StageKind.LATE, lines=(line_of("Fine salt", weight_g=18),))
    formula = Formula(stages=(stage("poolish", kind=StageKind.POOLISH), dough(), late))
    flows = flow(formula)
    assert [(part.source, part.target, part.share) for part in flows.parts] == [(0, 1, 1.0)]
    assert flows.reach == (1.0, 1.0, 1.0)


def test_a_starter_in_steps_with_seed_kept_back():
    """First step wholly into the second, nine tenths of that into the dough: 90 % of both reaches it."""
    formula = Formula(stages=(stage("one", ("two", 1)), stage("two", ("dough", 0.9)), dough(820)))
    assert flow(formula).reach == pytest.approx((0.9, 0.9, 1.0))
    reckoned = reckon(formula)
    # By hand: 100 + 100 g flour, nine tenths of it 180 g, and 820 g in the dough.
    assert reckoned.flour_g == pytest.approx(1000)
    assert reckoned.stages[1].bowl_g == pytest.approx(400)
    assert reckoned.stages[1].kept_back_g == pytest.approx(40)
    assert reckoned.weight_g == pytest.approx(2000)


def test_half_into_each_of_two():
    """A stage may go into two others."""
    formula = Formula(stages=(stage("a", ("b", 0.5), ("dough", 0.5)), stage("b", ("dough", 1)), dough()))
    assert flow(formula).reach == pytest.approx((1, 1, 1))
    assert reckon(formula).stages[1].bowl_g == pytest.approx(300)


@pytest.mark.parametrize(
    ("stages", "error", "at", "says"),
    [
        ((stage("a", ("a", 1)), dough()), StageLoop, ("stages", 0, "feeds"), "cannot go into itself"),
        ((stage("a", ("b", 1)), stage("b", ("a", 1)), dough()), StageLoop, ("stages",), "goes into"),
        ((stage("a", ("gone", 1)), dough()), NoSuchStage, ("stages", 0, "feeds", 0), "not there any more"),
        ((stage("a", ("dough", 0.7), ("b", 0.7)), stage("b"), dough()), FedTwice, ("stages", 0, "feeds", 1), "140 %"),
    ],
)
def test_what_cannot_be_is_refused_with_a_sentence(stages, error, at, says):
    """Loops, stages that are gone, and more than all of one."""
    with pytest.raises(error, match=says) as told:
        reckon(Formula(stages=stages))
    assert told.value.at[: len(at)] == at


def test_what_boils_off_is_made_up_where_the_paste_goes():
    """242 g of paste that weighs 226 g cooked: 16 g of water go into the dough, and the dough stays what it was."""
    paste = Stage(
        name="paste", kind=StageKind.PASTE, boiled_off=16 / 242,
        lines=(line_of("Bread flour", weight_g=50), line_of("Whole milk", weight_g=192)),
    )  # fmt: skip
    reckoned = reckon(Formula(stages=(paste, dough(950))))
    (fed,) = reckoned.stages[1].fed
    assert (fed.weight_g, fed.made_up_g) == pytest.approx((226, 16))
    assert reckoned.weight_g == pytest.approx(242 + 1900)


@pytest.mark.parametrize(
    ("starter", "base_g", "shown"),
    [
        ("joined", 1000, [20, 90, 60, 2]),  # School A: 100 g of the 200 g starter is flour, so all flour is 1 000 g
        ("apart", 900, [200 / 9, 100, 600 / 9, 20 / 9]),  # School B: the same grams over the 900 g beside it
    ],
)
def test_two_schools_have_the_same_grams(starter, base_g, shown):
    """A starter's flour joins the totals, or stands apart. Common practice, no source; worked by hand."""
    lines = (
        line_of("Sourdough starter", weight_g=200), line_of("Bread flour", weight_g=900),
        line_of("Water", weight_g=600), line_of("Fine salt", weight_g=20),
    )  # fmt: skip
    reckoned = reckon(Formula(stages=(Stage(lines=lines),)), starter)
    assert (reckoned.flour_g, reckoned.base_g) == pytest.approx((1000, base_g))
    assert [line.shown_percent for line in reckoned.stages[0].lines] == pytest.approx(shown)
    assert reckoned.weight_g == 1720
    assert reckoned.liquid_percent == pytest.approx(70)  # 600 g and the starter's 100 g


@given(mixed_formulas())
def test_every_gram_is_in_a_bowl_or_kept_or_gone(formula):
    """What is weighed for the stages is the dough, the seed kept back, and nothing else; steam is made up."""
    reckoned, flows = reckon(formula), flow(formula)
    for s, figures in enumerate(reckoned.stages):
        came = sum(fed.weight_g + fed.made_up_g for fed in figures.fed)
        assert figures.bowl_g == pytest.approx(figures.weight_g + came)
        went = sum(part.share for part in flows.out_of(s)) if flows.out_of(s) else 1.0
        left = figures.bowl_g - figures.boiled_off_g
        assert figures.kept_back_g == pytest.approx(left * (1 - went), abs=1e-6)
    roots = [s for s in range(len(formula.stages)) if not flows.out_of(s)]
    assert sum(reckoned.stages[s].bowl_g for s in roots) == pytest.approx(reckoned.weight_g)
    assert sum(part.weight_g for part in reckoned.flours) == pytest.approx(reckoned.flour_g)


def test_every_kind_has_its_rule():
    """A kind without a row could not be shown; those made before the dough hold flour and liquid."""
    assert set(kinds()) == set(StageKind)
    assert FERMENTS < BEFORE
    assert all(kinds()[kind].hydration is not None for kind in BEFORE)


@pytest.mark.parametrize(
    ("names", "found"),
    [
        (["Poolish, overnight", "Dough"], ["poolish", "dough"]),
        (["Cooked-flour paste", "Bun dough"], ["paste", "dough"]),
        (["Levain build 1", "Levain build 2", "Final dough"], ["levain", "levain", "dough"]),
        (["Sourdough"], ["dough"]),  # the only stage is the dough, whatever it is called
        (["Vorteig", "Hauptteig", "Folded in"], ["sponge", "dough", "inclusions"]),
        (["Soaker", "Mash", "Old dough", "Autolyse", "Mix"], ["soaker", "mash", "old_dough", "autolyse", "dough"]),
        ([], []),
    ],
)
def test_a_stages_name_tells_its_kind(names, found):
    """As bakers head their lists, in English and German."""
    assert list(kinds_named(names)) == found


def test_what_is_beside_the_dough_by_its_name():
    """Words that tell what it is; a topping where none does."""
    assert [beside_named(name) for name in ("Egg wash", "Soda bath", "For the pan", "Filling", "Seeds")] == [
        "wash", "bath", "pan_oil", "filling", "topping",
    ]  # fmt: skip


def test_a_stage_that_only_gathers_others_is_kept():
    """Saving drops stages without lines, but not one that another goes into."""
    final = Stage(name="dough", key="dough", kind=StageKind.DOUGH, lines=(Line(),))
    formula = Formula(stages=(stage("levain", ("dough", 0.8)), final))
    kept = without_blank_lines(formula)
    assert [s.name for s in kept.stages] == ["levain", "dough"]
    assert reckon(kept).weight_g == pytest.approx(160)


def test_a_starter_counts_as_flour_only_where_it_is_one():
    """A line with a hydration splits; a yeast does not."""
    lines = (Line(name="flour", role=Role.FLOUR, weight_g=500), Line(name="odd", role=Role.LEAVEN, weight_g=100))
    whole = reckon(Formula(stages=(Stage(lines=lines),)))
    split = reckon(Formula(stages=(Stage(lines=(lines[0], lines[1].model_copy(update={"hydration": 60}))),)))
    assert (whole.flour_g, split.flour_g) == pytest.approx((500, 562.5))
