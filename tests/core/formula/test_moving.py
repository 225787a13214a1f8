"""Moving flour and liquid between stages: the whole formula never moves."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from pancount.core.base.errors import CannotChange, FedTwice, StageLoop
from pancount.core.base.models import Band
from pancount.core.formula.formula import Formula, Stage, StageKind, with_line
from pancount.core.formula.moving import NewStage, cooked, feed, keep_back, move_in, move_out, straight
from pancount.core.formula.reckon import reckon
from pancount.core.formula.rows import whole_rows
from pancount.core.formula.stages import kinds
from strategies import line_of, mixed_formulas

BUN = Formula(
    name="milk buns",
    stages=(
        Stage(
            name="Dough",
            lines=(
                line_of("Bread flour", percent=100), line_of("Whole milk", percent=53.2), line_of("Egg", percent=11),
                line_of("Butter", percent=12), line_of("Fine salt", percent=1.8), line_of("Instant yeast", percent=0.9),
            ),
        ),
    ),
)  # fmt: skip
HOLDS = [kind for kind, rule in kinds().items() if rule.hydration is not None]


def whole(formula: Formula) -> dict[str, float]:
    """Every ingredient's grams in the dough."""
    return {row.name: row.weight_g for row in whole_rows(formula, reckon(formula)) if row.weight_g > 1e-9}


def amounts(stage: Stage) -> dict[str, float | None]:
    return {line.name: line.percent if line.weight_g is None else line.weight_g for line in stage.lines}


def test_cook_a_twentieth_of_the_flour_with_its_milk():
    """5 % of the flour with four parts of milk (common practice for a cooked-flour paste): 5 and 20, 95 and 33.2 stay."""
    moved = move_in(BUN, NewStage(kind=StageKind.PASTE, flour_percent=5, hydration=400))
    paste, dough = moved.stages
    assert (paste.name, paste.kind) == ("Cooked-flour paste", StageKind.PASTE)
    assert amounts(paste) == pytest.approx({"Bread flour": 5, "Whole milk": 20})
    assert (amounts(dough)["Bread flour"], amounts(dough)["Whole milk"]) == pytest.approx((95, 33.2))
    assert whole(moved) == pytest.approx(whole(BUN))


def test_ferment_a_fifth_as_a_poolish():
    """A poolish is as much water as flour, with a pinch of the dough's own yeast (common practice)."""
    moved = move_in(BUN, NewStage(kind=StageKind.POOLISH, flour_percent=20, hydration=100, yeast_percent=0.2))
    assert amounts(moved.stages[0]) == pytest.approx({"Bread flour": 20, "Whole milk": 20, "Instant yeast": 0.04})
    assert amounts(moved.stages[1])["Instant yeast"] == pytest.approx(0.86)


@pytest.mark.parametrize("kind", HOLDS)
@given(percent=st.floats(1, 40), share=st.floats(0.1, 1), yeast=st.sampled_from([0, 0.3]))
def test_into_a_stage_and_out_again_is_the_same(kind, percent, share, yeast):
    """For every kind of stage, in percent and in grams: the identity."""
    by_weight = BUN.model_copy(
        update={"stages": (BUN.stages[0].model_copy(update={"lines": tuple(
            line.model_copy(update={"percent": None, "weight_g": (line.percent or 0) * 7}) for line in BUN.stages[0].lines
        )}),)}
    )  # fmt: skip
    for formula in (BUN, by_weight):
        new = NewStage(kind=kind, flour_percent=percent, hydration=53.2 / percent * 100 * share, yeast_percent=yeast) if (
            53.2 / percent * 100 * share <= 1000
        ) else NewStage(kind=kind, flour_percent=percent, hydration=100, yeast_percent=yeast)  # fmt: skip
        if new.hydration * percent / 100 > 53.2:
            continue
        moved = move_in(formula, new)
        assert whole(moved) == pytest.approx(whole(formula))
        for back in (move_out(moved, 0), straight(moved)):
            assert [s.name for s in back.stages] == ["Dough"]
            assert amounts(back.stages[0]) == pytest.approx(amounts(formula.stages[0]))


@given(mixed_formulas())
def test_a_straight_dough_is_the_same_whole_formula(formula):
    """However its stages feed each other, putting all of them back keeps what reaches the dough."""
    made = straight(formula)
    assert whole(made) == pytest.approx(whole(formula), rel=1e-6)
    assert all(not s.fed for s in reckon(made).stages)


@given(mixed_formulas(), st.data())
def test_taking_any_one_stage_out_keeps_the_whole(formula, data):
    """What went into it goes on to where it went."""
    assume(len(formula.stages) > 1)
    gone = data.draw(st.integers(0, len(formula.stages) - 2))
    assert whole(move_out(formula, gone)) == pytest.approx(whole(formula), rel=1e-6)


@pytest.mark.parametrize(
    ("new", "says"),
    [
        (NewStage(kind=StageKind.POOLISH, flour_percent=60, hydration=100), "takes 60 % Whole milk"),
        (NewStage(kind=StageKind.SPONGE, flour_percent=20, hydration=60, liquid="Water"), "no Water"),
        (NewStage(kind=StageKind.SPONGE, flour_percent=20, hydration=60, flour="Rye flour"), "no flour"),
        (NewStage(kind=StageKind.SPONGE, flour_percent=20, hydration=60, yeast_percent=5), "takes 1 % Instant yeast"),
    ],
)
def test_the_dough_has_only_so_much(new, says):
    """What is not there cannot be moved, and it says what is there."""
    with pytest.raises(CannotChange, match=says):
        move_in(BUN, new)


def test_bands_go_along_and_come_back():
    """A cup's uncertainty is shared out with the flour, and joined again."""
    banded = Formula(stages=(Stage(name="Dough", lines=(
        line_of("Bread flour", weight_g=600, band=Band(low_g=560, usual_g=600, high_g=660)), line_of("Water", weight_g=400),
    )),))  # fmt: skip
    moved = move_in(banded, NewStage(kind=StageKind.SPONGE, flour_percent=50, hydration=60))
    assert moved.stages[0].lines[0].band == Band(low_g=280, usual_g=300, high_g=330)
    assert move_out(moved, 0).stages[0].lines[0].band == banded.stages[0].lines[0].band


def test_seed_kept_back_scales_with_the_stage():
    """20 g of 220 g: 200 g go on, and with twice the batch 40 g are kept."""
    levain = Stage(name="levain", kind=StageKind.LEVAIN, lines=(
        line_of("Sourdough starter", weight_g=20), line_of("Bread flour", weight_g=100), line_of("Water", weight_g=100)))  # fmt: skip
    dough = Stage(name="Dough", lines=(line_of("Bread flour", weight_g=900), line_of("Water", weight_g=500)))
    kept = keep_back(Formula(stages=(levain, dough)), 0, 20)
    assert reckon(kept).stages[0].kept_back_g == pytest.approx(20)
    twice = kept.model_copy(update={"stages": tuple(s.model_copy(update={"lines": tuple(
        line.model_copy(update={"weight_g": 2 * (line.weight_g or 0)}) for line in s.lines)}) for s in kept.stages)})  # fmt: skip
    assert reckon(twice).stages[0].kept_back_g == pytest.approx(40)
    # In percent too: the dough's own flour makes up what is kept, and all of it is 100 again.
    part = keep_back(move_in(BUN, NewStage(kind=StageKind.LEVAIN, flour_percent=10, hydration=100)), 0, 20)
    assert amounts(part.stages[1])["Bread flour"] == pytest.approx(91)
    assert reckon(part).total_percent == pytest.approx(178.9 - 1)
    with pytest.raises(CannotChange, match="makes 220 g"):
        keep_back(kept, 0, 220)
    with pytest.raises(CannotChange, match="goes into another"):
        keep_back(kept, 1, 20)


def test_what_the_scale_says_of_a_paste():
    """242 g went in and 226 g came out; what cannot be is asked about."""
    moved = move_in(BUN, NewStage(kind=StageKind.PASTE, flour_percent=5, hydration=384))
    put = cooked(moved, 0, 226)
    assert reckon(put).stages[0].boiled_off_g == pytest.approx(16)
    assert whole(put) == pytest.approx(whole(BUN))
    assert cooked(put, 0, 242).stages[0].boiled_off == 0
    for grams, says in ((300, "cannot come out"), (30, "cannot have boiled off")):
        with pytest.raises(CannotChange, match=says):
            cooked(moved, 0, grams)


def test_where_a_stage_goes_is_told_and_taken_back():
    """A share of it, another share elsewhere, a loop refused, and nothing told again."""
    moved = move_in(move_in(BUN, NewStage(kind=StageKind.PASTE, flour_percent=5, hydration=400)),
                    NewStage(kind=StageKind.SPONGE, flour_percent=20, hydration=60))  # fmt: skip
    paste, sponge, dough = 0, 1, 2
    told = feed(moved, paste, sponge, 0.5)
    told = feed(told, paste, dough, None)  # what is left of it
    assert [way.share for way in told.stages[paste].feeds] == [0.5, 0.5]
    assert reckon(told).stages[sponge].bowl_g == pytest.approx(reckon(moved).stages[sponge].bowl_g + 125)
    assert whole(told) == pytest.approx(whole(BUN))
    with pytest.raises(FedTwice):
        feed(told, paste, dough, 0.6)
    with pytest.raises(StageLoop):
        feed(told, sponge, paste, 1)
    assert feed(feed(told, paste, sponge, 0), paste, dough, 0).stages[paste].feeds == ()


def test_a_line_without_an_amount_takes_what_comes_back():
    """Open salt in the dough, and salt in the stage: it has an amount again."""
    moved = move_in(BUN, NewStage(kind=StageKind.POOLISH, flour_percent=20, hydration=100, yeast_percent=0.2))
    opened = with_line(moved, 1, 5, percent=None)
    assert amounts(move_out(opened, 0).stages[0])["Instant yeast"] == pytest.approx(0.04)


def test_the_dough_itself_stays():
    """There is nothing to put it back into."""
    with pytest.raises(CannotChange, match="dough itself"):
        move_out(BUN, 0)
    with pytest.raises(CannotChange, match="no such stage"):
        move_out(BUN, 7)


@pytest.mark.parametrize(("yeast", "grams"), [("Instant yeast", 0.4), ("Fresh yeast", 1.2), ("Active dry yeast", 0.48)])
def test_yeast_goes_in_in_the_form_that_it_is(yeast, grams):
    """0.2 % as instant on 200 g of flour: fresh is three times, active dry 1.2 times as much. Baking powder stays where it is."""
    lines = (line_of("Bread flour", weight_g=1000), line_of("Water", weight_g=650), line_of("Baking powder", weight_g=30), line_of(yeast, weight_g=12))
    moved = move_in(Formula(stages=(Stage(lines=lines),)), NewStage(kind=StageKind.POOLISH, flour_percent=20, hydration=100, yeast_percent=0.2))
    poolish, dough = moved.stages
    assert (poolish.lines[-1].name, poolish.lines[-1].weight_g) == (yeast, pytest.approx(grams))
    assert dough.lines[2].weight_g == 30


def test_old_dough_has_its_share_of_salt():
    """A fifth of the flour takes a fifth of the salt; a poolish takes none; put back, all is as it was."""
    lines = (line_of("Bread flour", weight_g=1000), line_of("Water", weight_g=650), line_of("Fine salt", weight_g=20), line_of("Instant yeast", weight_g=10))
    straight_dough = Formula(stages=(Stage(lines=lines),))
    old = move_in(straight_dough, NewStage(kind=StageKind.OLD_DOUGH, flour_percent=20, hydration=65, yeast_percent=0.8))
    assert [(line.name, line.weight_g) for line in old.stages[0].lines][2:] == [("Instant yeast", pytest.approx(1.6)), ("Fine salt", pytest.approx(4))]
    assert [line.weight_g for line in straight(old).stages[0].lines] == pytest.approx([1000, 650, 20, 10])
    poolish = move_in(straight_dough, NewStage(kind=StageKind.POOLISH, flour_percent=20, hydration=100, yeast_percent=0.2))
    assert "Fine salt" not in [line.name for line in poolish.stages[0].lines]


def test_baking_powder_is_no_yeast():
    """A dough leavened by it alone has none to take."""
    lines = (line_of("Plain flour", weight_g=500), line_of("Water", weight_g=250), line_of("Baking powder", weight_g=15))
    with pytest.raises(CannotChange, match="no yeast"):
        move_in(Formula(stages=(Stage(lines=lines),)), NewStage(kind=StageKind.POOLISH, flour_percent=20, hydration=100, yeast_percent=0.2))
