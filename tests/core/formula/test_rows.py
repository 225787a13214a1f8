"""Two views, one truth: the whole formula and the formula as mixed keep each other right to the last gram."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from pancount.core.base.errors import CannotChange, CoreError
from pancount.core.formula.formula import Formula, Line, Stage, StageKind, each_line
from pancount.core.formula.reckon import reckon
from pancount.core.formula.rows import RowChange, ShownPercent, change_row, set_shown_percent, whole_rows
from pancount.core.pantry.role import Role
from strategies import line_of, mixed_formulas

BUN = Formula(
    name="bun",
    stages=(
        Stage(name="Paste", kind=StageKind.PASTE, lines=(line_of("Bread flour", percent=5), line_of("Whole milk", percent=19.2))),
        Stage(name="Dough", lines=(line_of("Bread flour", percent=75), line_of("Plain flour", percent=20), line_of("Whole milk", percent=34),
                                   line_of("Fine salt", percent=1.8), Line(name="Egg", role=Role.EGG))),
    ),
)  # fmt: skip


def rows(formula: Formula) -> dict[str, tuple[float, float]]:
    return {row.name: (row.percent, row.weight_g) for row in whole_rows(formula, reckon(formula))}


@given(mixed_formulas())
def test_the_rows_are_the_dough(formula):
    """Every gram that reaches the dough stands in one row, and the parts of a row add up to it."""
    reckoned = reckon(formula)
    found = whole_rows(formula, reckoned)
    assert sum(row.weight_g for row in found) == pytest.approx(reckoned.weight_g)
    assert sum(row.percent for row in found) == pytest.approx(reckoned.total_percent)
    for row in found:
        assert sum(part.weight_g for part in row.parts) == pytest.approx(row.weight_g)
    assert sum(len(row.parts) for row in found) == len(list(each_line(formula)))


@given(mixed_formulas(), st.data(), st.booleans())
def test_a_row_typed_is_a_row_read(formula, data, in_percent):
    """Whatever is typed in the whole formula stands there after, in grams or percent; the other rows' grams stay."""
    reckoned = reckon(formula)
    row = data.draw(st.sampled_from([r for r in whole_rows(formula, reckoned) if r.role is not Role.FLOUR]))
    value = data.draw(st.floats(0.1, 3)) * (row.percent if in_percent else row.weight_g)
    change = RowChange(name=row.name, role=row.role, **{"percent" if in_percent else "weight_g": value})
    try:
        changed = change_row(formula, change, "joined")
    except CannotChange as told:
        assert "other stages" in str(told)
        return
    after = rows(changed)
    assert after[row.name][0 if in_percent else 1] == pytest.approx(value, rel=1e-6)
    if row.name != "Sourdough starter":
        for name, (_, weight_g) in rows(formula).items():
            assert name == row.name or after[name][1] == pytest.approx(weight_g, rel=1e-6)


@given(mixed_formulas(), st.data())
def test_typed_as_it_stands_changes_nothing(formula, data):
    """Whole formula, as mixed and back is the identity."""
    reckoned = reckon(formula)
    row = data.draw(st.sampled_from(whole_rows(formula, reckoned)))
    assume(row.role is not Role.FLOUR)
    again = change_row(formula, RowChange(name=row.name, role=row.role, percent=row.percent), "joined")
    before, after = rows(formula), rows(again)
    assert {k: v[1] for k, v in after.items()} == pytest.approx({k: v[1] for k, v in before.items()}, rel=1e-6)


def test_the_dough_gives_way_and_the_paste_stays():
    """53.2 % milk in all becomes 60: the paste keeps its 19.2, the dough takes 40.8."""
    changed = change_row(BUN, RowChange(name="Whole milk", role=Role.LIQUID, percent=60), "joined")
    assert [line.percent for _, _, line in each_line(changed) if line.name == "Whole milk"] == [19.2, pytest.approx(40.8)]


def test_flours_stay_a_hundred():
    """30 % plain flour in all: the largest other flour makes room."""
    changed = change_row(BUN, RowChange(name="Plain flour", role=Role.FLOUR, percent=30), "joined")
    assert {k: v[0] for k, v in rows(changed).items() if "flour" in k} == pytest.approx({"Bread flour": 70, "Plain flour": 30})
    more = change_row(BUN, RowChange(name="Bread flour", role=Role.FLOUR, percent=90), "joined")
    assert rows(more)["Plain flour"][0] == pytest.approx(10)
    assert more.stages[0] == BUN.stages[0]


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (RowChange(name="Whole milk", role=Role.LIQUID, percent=10), "19.2 % Whole milk stands in other stages"),
        (RowChange(name="Zibrul", role=Role.LIQUID, percent=10), "no Zibrul"),
        (RowChange(name="Whole milk", role=Role.LIQUID), "weight or the percent"),
        (RowChange(name="Bread flour", role=Role.FLOUR, percent=110), "not that much to give"),
    ],
)
def test_what_cannot_be_says_why(change, says):
    """Nothing goes below nothing."""
    with pytest.raises(CannotChange, match=says):
        change_row(BUN, change, "joined")


def test_the_only_flour_is_the_hundred():
    """There is nothing to take from."""
    only = Formula(stages=(Stage(lines=(line_of("Bread flour", percent=100),)),))
    with pytest.raises(CannotChange, match="only flour"):
        change_row(only, RowChange(name="Bread flour", role=Role.FLOUR, percent=80), "joined")


def test_an_open_line_gets_its_amount():
    """Egg without an amount takes what is typed."""
    changed = change_row(BUN, RowChange(name="Egg", role=Role.EGG, weight_g=110), "joined")
    assert rows(changed)["Egg"] == pytest.approx((11, 110))


class TestStarterApart:
    """School B: percentages over the flour beside the starter. Common practice, no source."""

    WEIGHED = Formula(stages=(Stage(lines=(
        line_of("Sourdough starter", weight_g=200), line_of("Bread flour", weight_g=900), line_of("Water", percent=60))),))  # fmt: skip
    LEAVEN = Formula(
        flour_g=1000,
        stages=(
            Stage(name="Levain", kind=StageKind.LEVAIN, lines=(line_of("Bread flour", percent=10), line_of("Water", percent=10))),
            Stage(name="Dough", lines=(line_of("Bread flour", percent=90), line_of("Water", percent=54), line_of("Fine salt", percent=1.8))),
        ),
    )  # fmt: skip

    @pytest.mark.parametrize(("formula", "at", "percent"), [(WEIGHED, (0, 2), 65), (WEIGHED, (0, 0), 30), (LEAVEN, (1, 1), 66), (LEAVEN, (1, 2), 2), (LEAVEN, (0, 0), 15)])
    def test_what_is_typed_is_shown_and_the_rest_keeps_its_grams(self, formula, at, percent):
        """The flour that is 100 % stays; so does every other line's weight."""
        before = reckon(formula, "apart")
        changed = set_shown_percent(formula, ShownPercent(stage=at[0], line=at[1], percent=percent), "apart")
        after = reckon(changed, "apart")
        assert after.base_g == pytest.approx(before.base_g)
        for s, n, _ in each_line(formula):
            figures, was = after.stages[s].lines[n], before.stages[s].lines[n]
            if (s, n) == at:
                assert figures.shown_percent == pytest.approx(percent)
            else:
                assert figures.weight_g == pytest.approx(was.weight_g)

    def test_joined_it_is_simply_typed(self):
        """Without the school there is nothing to convert."""
        changed = set_shown_percent(self.LEAVEN, ShownPercent(stage=1, line=1, percent=60), "joined")
        assert changed.stages[1].lines[1].percent == 60

    def test_a_line_that_is_gone(self):
        """Said, not guessed."""
        with pytest.raises(CannotChange, match="no such line"):
            set_shown_percent(self.LEAVEN, ShownPercent(stage=5, line=0, percent=1), "apart")

    @given(mixed_formulas())
    def test_both_schools_have_the_same_grams(self, formula):
        """Whatever the formula."""
        ours, theirs = reckon(formula, "joined"), reckon(formula, "apart")
        assert ours.weight_g == theirs.weight_g
        assert [f.weight_g for s in ours.stages for f in s.lines] == [f.weight_g for s in theirs.stages for f in s.lines]


def test_a_formula_without_flour_has_no_rows():
    """It says that flour is missing, in either view."""
    with pytest.raises(CoreError):
        change_row(Formula(), RowChange(name="Water", role=Role.LIQUID, percent=60), "joined")
