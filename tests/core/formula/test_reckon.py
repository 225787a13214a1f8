"""Baker's percentage."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.base.errors import CoreError, FlourNotHundred, NoFlour, NoRole, NoRoomForFlour, Unnamed
from pancount.core.formula.formula import Formula, Line, Stage, complete
from pancount.core.formula.reckon import reckon, with_flour_made_up
from pancount.core.pantry.role import Role
from strategies import formulas


def of(*lines: Line, flour_g: float = 1000) -> Formula:
    return Formula(name="x", flour_g=flour_g, stages=(Stage(lines=lines),))


def flour(**amount: float) -> Line:
    return Line(name="flour", role=Role.FLOUR, **amount)


def water(**amount: float) -> Line:
    return Line(name="water", role=Role.LIQUID, **amount)


@pytest.mark.parametrize(
    ("formula", "flour_g", "percents"),
    [
        (of(flour(weight_g=160), water(weight_g=100)), 160, [100, 62.5]),  # all by weight
        (of(flour(percent=100), water(percent=62.5), flour_g=200), 200, [100, 62.5]),  # all in percent
        (of(flour(weight_g=450), flour(percent=10), water(percent=60)), 500, [90, 10, 60]),  # 10 % is of the whole
        (of(flour(percent=80), flour(percent=20), water(weight_g=50), flour_g=100), 100, [80, 20, 50]),  # mixed
        (of(flour(weight_g=100), flour(weight_g=0), water(percent=0)), 100, [100, 0, 0]),  # noughts count for nought
        (of(flour(weight_g=1e-3), water(weight_g=1e6)), 1e-3, [100, 1e11]),  # absurd, but reckoned
        (of(flour(percent=100)), 1000, [100]),  # only flour
    ],
)
def test_either_column_gives_the_other(formula, flour_g, percents):
    """Whichever the baker typed, all flour is 100 % and the other column follows."""
    reckoned = reckon(formula)
    assert reckoned.flour_g == pytest.approx(flour_g)
    assert [line.percent for line in reckoned.stages[0].lines] == pytest.approx(percents)
    assert [line.weight_g for line in reckoned.stages[0].lines] == pytest.approx([p * flour_g / 100 for p in percents])


def test_three_thirds_make_a_hundred():
    """Flours given to one decimal make 100 to within their rounding, and then exactly."""
    reckoned = reckon(of(flour(percent=33.3), flour(percent=33.3), flour(percent=33.3)))
    assert sum(line.weight_g for line in reckoned.stages[0].lines) == pytest.approx(1000)
    assert reckoned.total_percent == pytest.approx(100)


def test_every_flour_in_every_stage_counts():
    """Flour in a preferment is part of the 100 %."""
    formula = Formula(
        stages=(
            Stage(name="poolish", lines=(flour(weight_g=200), water(weight_g=200))),
            Stage(name="dough", lines=(flour(weight_g=800), water(weight_g=450))),
        )
    )
    reckoned = reckon(formula)
    assert (reckoned.flour_g, reckoned.liquid_percent) == (1000, 65)
    assert [stage.percent for stage in reckoned.stages] == [40, 125]


@pytest.mark.parametrize(
    ("formula", "error", "at"),
    [
        (Formula(), NoFlour, ("stages",)),
        (of(water(weight_g=100)), NoFlour, ("stages",)),
        (of(water(percent=60), flour(weight_g=0)), NoFlour, ("stages", 0, "lines", 1, "weight_g")),
        (of(flour()), NoFlour, ("stages", 0, "lines", 0, "weight_g")),
        (of(flour(percent=95), flour(percent=10)), FlourNotHundred, ("stages", 0, "lines", 0, "percent")),
        (of(water(percent=9), flour(percent=90)), FlourNotHundred, ("stages", 0, "lines", 1, "percent")),
        (of(flour(weight_g=10), flour(percent=100)), NoRoomForFlour, ("stages", 0, "lines", 1, "percent")),
    ],
)
def test_flour_that_cannot_be_the_hundred_says_where(formula, error, at):
    """Each error points at the line to mend."""
    with pytest.raises(error) as told:
        reckon(formula)
    assert told.value.at == at


def test_an_open_amount_is_told_and_not_counted():
    """ "Salt" without an amount is left out of the total, and said."""
    reckoned = reckon(of(flour(weight_g=100), Line(name="salt", role=Role.SALT)))
    assert (reckoned.total_percent, reckoned.notes[0].at) == (100, ("stages", 0, "lines", 1))
    assert "no amount" in reckoned.notes[0].text


def test_a_weight_in_the_percent_column_is_asked_about():
    """Over 1 000 % is reckoned, with a question."""
    assert "Is it grams?" in reckon(of(flour(percent=100), water(percent=1200))).notes[0].text
    assert not reckon(of(flour(percent=100), water(percent=999))).notes


@pytest.mark.parametrize(
    ("formula", "error", "at"),
    [
        (of(flour(percent=100)).model_copy(update={"name": ""}), Unnamed, ("name",)),
        (of(flour(percent=100), Line(percent=2, role=Role.SALT)), Unnamed, ("stages", 0, "lines", 1, "name")),
        (of(flour(percent=100), Line(name="zibrul", percent=2)), NoRole, ("stages", 0, "lines", 1, "role")),
    ],
)
def test_what_is_kept_has_names_and_roles(formula, error, at):
    """A draft may lack them; a revision may not."""
    reckon(formula)
    with pytest.raises(error) as told:
        complete(formula)
    assert told.value.at == at


def test_every_error_has_a_code_of_its_own():
    """An error without a code could not be told apart on screen."""
    found = {cls.code for cls in CoreError.__subclasses__()}
    assert len(found) == len(CoreError.__subclasses__())
    assert "core" not in found


@given(formulas(), st.floats(1e-3, 1e3))
def test_scaling_changes_every_weight_and_no_percentage(formula, factor):
    """A formula is its percentages."""

    def scaled(line: Line) -> Line:
        weight = None if line.weight_g is None else line.weight_g * factor
        return line.model_copy(update={"weight_g": weight})

    stages = tuple(s.model_copy(update={"lines": tuple(map(scaled, s.lines))}) for s in formula.stages)
    before, after = reckon(formula), reckon(formula.model_copy(update={"stages": stages}))
    assert after.flour_g == pytest.approx(before.flour_g * factor)
    assert after.total_percent == pytest.approx(before.total_percent)
    assert after.liquid_percent == pytest.approx(before.liquid_percent)


@given(formulas())
def test_the_parts_are_the_whole(formula):
    """Stages sum to the total, and flour lines to 100 %."""
    reckoned = reckon(formula)
    assert sum(s.weight_g for s in reckoned.stages) == pytest.approx(reckoned.weight_g)
    assert reckoned.weight_g == pytest.approx(reckoned.flour_g * reckoned.total_percent / 100)
    flours = [
        f.percent
        for stage, figures in zip(formula.stages, reckoned.stages, strict=True)
        for line, f in zip(stage.lines, figures.lines, strict=True)
        if line.role is Role.FLOUR
    ]
    assert sum(flours) == pytest.approx(100)


@pytest.mark.parametrize(
    ("percents", "made_up"),
    [
        ((95, 10), (90, 10)),  # the largest takes the rest
        ((80, 5, 5), (90, 5, 5)),
        ((60, 60), (40, 60)),  # of two alike, the first
        ((100, 100, 100), (100 / 3, 100 / 3, 100 / 3)),  # no rest to take: all are scaled
        ((100,), (100,)),
        ((0.5,), (100,)),
    ],
)
def test_flours_made_up_to_a_hundred(percents, made_up):
    """One press mends flours that do not make 100 %, and nothing else moves."""
    mended = with_flour_made_up(of(*(flour(percent=p) for p in percents), water(percent=60)))
    assert [line.percent for line in mended.stages[0].lines] == pytest.approx([*made_up, 60])
    assert reckon(mended).liquid_percent == 60


def test_flour_by_weight_is_not_made_up():
    """There is nothing to take the rest of."""
    for formula in (of(flour(weight_g=10), flour(percent=100)), of(water(percent=60)), Formula()):
        assert with_flour_made_up(formula) == formula
