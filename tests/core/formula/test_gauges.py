"""What a dough is: gauges that are the sum of what each line brings, bands, and words."""

import pytest
from hypothesis import given

from pancount.core.formula.formula import Formula, Line, Span, Stage, StageKind
from pancount.core.formula.gauges import SHARE_OF, character, gauge_rules, styles
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.pantry.ingredients import Composition, Ingredient, pantry_with
from pancount.core.pantry.role import Role
from strategies import PANTRY, line_of, mixed_formulas


def of(*lines: Line, **more: object) -> Formula:
    return Formula.model_validate({"name": "x", "stages": (Stage(name="Dough", lines=lines),), **more})


def look(formula: Formula, pantry=PANTRY, practice: Practice | None = None):
    return character(formula, reckon(formula), pantry, practice or Practice())


FLOUR = line_of("Bread flour", percent=100)


@given(mixed_formulas())
def test_contributions_sum_to_the_gauge(formula):
    """Every figure is what its lines bring; liquid is the reckoning's own."""
    dough, reckoned = look(formula), reckon(formula)
    for gauge in dough.gauges.values():
        assert sum(one.percent for one in gauge.brings if not one.apart) == pytest.approx(gauge.value, abs=1e-9)
        assert sum(one.percent for one in gauge.brings if one.apart) == pytest.approx(gauge.apart, abs=1e-9)
        for one in gauge.brings:
            figures = reckoned.stages[one.stage]
            assert one.percent == pytest.approx(figures.lines[one.line].percent * figures.reach * one.holds / 100)
    assert dough.gauges["liquid"].value == pytest.approx(reckoned.liquid_percent)


@given(mixed_formulas())
def test_gauges_are_linear_in_the_lines(formula):
    """Twice of every line is the same dough."""
    twice = formula.model_copy(update={"flour_g": 2 * formula.flour_g, "stages": tuple(s.model_copy(update={"lines": tuple(
        line.model_copy(update={"weight_g": None if line.weight_g is None else 2 * line.weight_g}) for line in s.lines
    )}) for s in formula.stages)})  # fmt: skip
    ours, theirs = look(formula), look(twice)
    for key, gauge in ours.gauges.items():
        assert theirs.gauges[key].value == pytest.approx(gauge.value)


def test_milk_egg_and_butter_bring_their_water():
    """Milk 53.2 %, egg 11 % and butter 12 % bring 47, 8 and 2 points, by the pantry's 88.2, 76.2 and 17 g in 100 g."""
    gauge = look(of(FLOUR, line_of("Whole milk", percent=53.2), line_of("Egg", percent=11), line_of("Butter", percent=12))).gauges["water"]
    assert [round(one.percent) for one in gauge.brings] == [47, 8, 2]
    assert gauge.value == pytest.approx(53.2 * 0.882 + 11 * 0.762 + 12 * 0.17)


def test_what_is_folded_in_keeps_its_water():
    """16 % leek is told apart; mashed squash is in the dough."""
    folded = Stage(name="Folded in", kind=StageKind.INCLUSIONS, lines=(line_of("Leek", percent=16), line_of("Cheddar", percent=10)))
    base = of(FLOUR, line_of("Water", percent=78))
    dough = look(base.model_copy(update={"stages": (*base.stages, folded)}))
    assert dough.gauges["water"].value == pytest.approx(78)
    assert dough.gauges["water"].apart == pytest.approx(16 * 0.83 + 10 * 0.37)
    assert (dough.gauges["fat"].value, dough.gauges["fat"].apart) == (0, pytest.approx(16 * 0.003 + 3.4))
    assert dough.feel.key == "slack"
    mashed = look(of(FLOUR, line_of("Water", percent=30), line_of("Squash, mashed", percent=40)))
    assert mashed.gauges["water"].value == pytest.approx(30 + 40 * 0.88)


@pytest.mark.parametrize(
    ("lines", "key", "value"),
    [
        ((FLOUR, line_of("Fresh yeast", percent=3)), "yeast", 1),  # 3 : 1.2 : 1
        ((FLOUR, line_of("Active dry yeast", percent=1.2)), "yeast", 1),
        ((FLOUR, line_of("Butter, salted", percent=10), line_of("Fine salt", percent=1.8)), "salt", 1.8 + 0.161 + 0.01),
        ((line_of("Bread flour", percent=50), line_of("Plain flour", percent=50)), "protein", (11.98 + 10.33) / 2),
        ((line_of("Bread flour", percent=90), line_of("Sourdough starter", percent=20)), "prefermented", 10),
        ((line_of("Bread flour", percent=90), line_of("Sourdough starter", percent=20)), "water", 10),
        ((FLOUR, line_of("Egg", percent=10), line_of("Egg yolk", percent=4)), "egg", 14),
        ((FLOUR, Line(name="Zibrul", role=Role.LIQUID, percent=60)), "water", 60),  # not known: a liquid is water
        ((FLOUR, Line(name="Zibrul", role=Role.DAIRY, percent=10)), "water", 3),  # not known: a guess, and said
    ],
)
def test_figures_by_hand(lines, key, value):
    """Each with its arithmetic in the row."""
    assert look(of(*lines)).gauges[key].value == pytest.approx(value, rel=2e-3)


def test_the_other_school_of_yeast():
    """2.5 : 1.25 : 1."""
    dough = look(of(FLOUR, line_of("Fresh yeast", percent=2.5)), practice=Practice(yeast="2.5 : 1.25 : 1"))
    assert dough.gauges["yeast"].value == pytest.approx(1)


def test_what_nobody_has_said_is_named():
    """The gauge that would be wrong names the ingredient; one that cannot be, does not."""
    gauges = look(of(FLOUR, Line(name="Brokkle", role=Role.DAIRY, percent=10))).gauges
    assert gauges["water"].unknown == gauges["fat"].unknown == ("Brokkle",)
    assert gauges["salt"].unknown == gauges["egg"].unknown == ()


@pytest.mark.parametrize(
    ("water", "feel"), [(57.9, "stiff"), (58, "firm"), (64.9, "firm"), (65, "soft"), (73, "slack"), (80, "slack"), (80.1, "wet")]
)
def test_feel_by_true_water(water, feel):
    """Under 58 stiff, to 64 firm, to 72 soft, to 80 slack, over 80 wet. Common practice, no source."""
    assert look(of(FLOUR, line_of("Water", percent=water))).feel.key == feel


@pytest.mark.parametrize(("fat", "word"), [(4.9, "lean"), (5, "soft"), (10, "enriched"), (25, "enriched"), (26, "rich")])
def test_richness_by_fat_and_sugars(fat, word):
    """Under 5 lean, to 10 soft, to 25 enriched, over 25 rich. Common practice, no source."""
    assert look(of(FLOUR, line_of("Olive oil", percent=fat))).richness.key == word


def test_bands_of_the_style_and_of_the_baker():
    """The style's words name its bands; the baker's own stand in their place, as shown to a tenth."""
    bagel = of(FLOUR, line_of("Water", percent=61), styles=("stiff", "honey bath"))
    assert (look(bagel).style, look(bagel).gauges["water"].lies) == ("bagel", "over")
    own = look(bagel.model_copy(update={"bands": {"water": Span(low=58, high=61)}})).gauges["water"]
    assert (own.of, own.lies, own.high) == ("formula", "in", 61)
    barely = of(FLOUR, line_of("Water", percent=60.04), styles=("bagel",))
    assert look(barely).gauges["water"].lies == "in"
    assert look(bagel).gauges["liquid"].lies == "free"


def test_the_kitchens_own_ingredient_is_used():
    """A changed composition changes the gauge, under any of its names."""
    own = Ingredient(name="Canal honey", role=Role.SUGAR, also=("lock honey",), composition=Composition(water=20, carbohydrate=80, sugars=78), own=True)
    dough = look(of(FLOUR, Line(name="Lock honey", role=Role.SUGAR, percent=10)), pantry_with((own,)))
    assert (dough.gauges["water"].value, dough.gauges["sugars"].value) == pytest.approx((2, 7.8))


def test_every_gauge_has_its_rule_and_every_band_its_gauge():
    """A gauge without words could not be shown, nor a band without a gauge."""
    assert set(gauge_rules()) == set(SHARE_OF)
    for style in styles():
        assert all(band.low < band.high and band.source for band in style.bands.values())
