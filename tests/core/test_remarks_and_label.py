"""Notes worth reading, only where they apply; ingredients and allergens through everything that is in a bun."""

import pytest

from pancount.core.formula import Beside, BesideKind, Formula, Line, Role, Stage, StageKind
from pancount.core.gauges import character
from pancount.core.label import contents
from pancount.core.pantry import Composition, Ingredient, pantry_with
from pancount.core.practice import Practice
from pancount.core.reckon import reckon
from pancount.core.remarks import APPLIES, CAUTIONS, cautions, drinks, remark_rules, remarks
from strategies import PANTRY, line_of

FLOUR, SALT, YEAST = line_of("Bread flour", percent=100), line_of("Fine salt", percent=1.9), line_of("Instant yeast", percent=1)
WATER = line_of("Water", percent=62)


def of(*lines: Line, kind: StageKind = StageKind.DOUGH, **more: object) -> Formula:
    return Formula.model_validate({"name": "x", "stages": (Stage(name="Dough", kind=kind, lines=lines),), **more})


def told(formula: Formula) -> dict[str, object]:
    reckoned = reckon(formula)
    found = remarks(formula, reckoned, character(formula, reckoned, PANTRY, Practice()), PANTRY)
    return {remark.key: remark for remark in found}


def beside(kind: BesideKind, *names: str) -> dict[str, object]:
    return {"beside": (Beside(name="b", kind=kind, lines=tuple(Line(name=name, weight_g=10) for name in names)),)}


def test_an_ordinary_dough_has_nothing_to_say():
    """Flour, water, salt and yeast."""
    assert told(of(FLOUR, WATER, SALT, YEAST)) == {}


@pytest.mark.parametrize(
    ("lines", "key", "says"),
    [
        ((FLOUR, WATER, line_of("Fine salt", percent=1.4), YEAST), "salt_low", "Salt is 1.42 %"),
        ((FLOUR, WATER, YEAST), "salt_low", "Salt is 0.02 %"),
        ((FLOUR, WATER, line_of("Fine salt", percent=2.6), YEAST), "salt_high", "Salt is 2.62 %"),
        ((FLOUR, WATER, SALT, line_of("Instant yeast", percent=0.1)), "yeast_low", "Yeast is 0.1 %"),
        ((FLOUR, WATER, SALT, line_of("Fresh yeast", percent=7)), "yeast_high", "2.33 % as instant"),
        ((FLOUR, WATER, SALT), "no_leaven", "no yeast, starter or baking powder"),
        ((FLOUR, WATER, SALT, YEAST, line_of("Sugar", percent=12)), "sugar_slows", "Sugars are 11.98 %"),
        ((FLOUR, WATER, SALT, line_of("Instant yeast", percent=0.5), line_of("Sugar", percent=15)), "leaven_for_sugar", "about 0.9 % is usual"),
        ((FLOUR, SALT, YEAST, line_of("Yogurt", percent=50)), "acid", "Yogurt: 50 %"),
        ((FLOUR, WATER, SALT, YEAST, line_of("Cinnamon, ground", percent=1)), "spice", "Cinnamon, ground: 1 %"),
        ((FLOUR, WATER, SALT, YEAST, line_of("Linseed", percent=5), line_of("Sunflower seeds", percent=5)), "thirsty", "about 11.5 % water"),
        ((FLOUR, WATER, SALT, YEAST, Line(name="Sourdough starter", role=Role.LEAVEN, percent=20)), "starter_whole", "no hydration"),
        ((FLOUR, WATER, SALT, YEAST, Line(name="Lye", role=Role.FLAVOUR, percent=1)), "lye_in_dough", "Lye stands in the dough"),
    ],
)
def test_each_applies_where_it_should(lines, key, says):
    """With its figure, its reason and its source, at the line that it is about."""
    remark = told(of(*lines))[key]
    assert says in remark.says
    assert remark.source
    assert remark.at == () or remark.at[:2] == ("stages", 0)


@pytest.mark.parametrize(
    ("formula", "key"),
    [
        (of(FLOUR, WATER, line_of("Fine salt", percent=1.5), YEAST), "salt_low"),  # 1.51 with the flour's own
        (of(FLOUR, WATER), "salt_low"),  # still being written
        (of(FLOUR, WATER), "no_leaven"),
        (of(line_of("Bread flour", percent=90), WATER, SALT, line_of("Sourdough starter", percent=20)), "yeast_low"),
        (of(FLOUR, WATER, SALT, YEAST, line_of("Linseed", percent=5), kind=StageKind.SOAKER), "thirsty"),
        (of(line_of("Bread flour", percent=90), WATER, SALT, line_of("Sourdough starter", percent=20)), "no_leaven"),
        (of(FLOUR, WATER, SALT, line_of("Instant yeast")), "no_leaven"),  # its amount is open, not nothing
        (of(FLOUR, WATER, SALT, line_of("Baking powder", percent=3)), "no_leaven"),
        (of(FLOUR, WATER, SALT, YEAST, line_of("Yogurt", percent=10)), "acid"),
        (of(FLOUR, WATER, SALT, YEAST, line_of("Cinnamon, ground", percent=0.3)), "spice"),
    ],
)
def test_each_keeps_quiet_where_it_should(formula, key):
    """Just inside the line, soaked, or meant."""
    assert key not in told(formula)


@pytest.mark.parametrize(
    ("formula", "key"),
    [
        (of(FLOUR, WATER, SALT, YEAST, **beside(BesideKind.BATH, "Water", "Lye")), "lye"),
        (of(FLOUR, WATER, SALT, YEAST, **beside(BesideKind.BATH, "Water", "Natronlauge 4 %")), "lye"),
        (of(FLOUR, WATER, SALT, YEAST, **beside(BesideKind.TOPPING, "Garlic", "Olive oil")), "garlic_oil"),
        (of(FLOUR, WATER, SALT, YEAST, **beside(BesideKind.FILLING, "Cream cheese")), "beside_filling"),
        (of(FLOUR, WATER, SALT, YEAST, kind=StageKind.PASTE), "hot_paste"),
    ],
)
def test_cautions_stand_first_and_cannot_be_put_to_rest(formula, key):
    """What can hurt someone stays in sight, on the sheet too."""
    rested = formula.model_copy(update={"rested": (key, "acid")})
    remark = told(rested)[key]
    assert remark.caution
    assert next(iter(told(rested))) in {*CAUTIONS, *(k for k in told(rested) if k.startswith("beside_"))}
    assert remark.says in cautions(rested, PANTRY)


def test_a_note_put_to_rest_comes_last_and_says_so():
    """It is still there, with its figure."""
    formula = of(FLOUR, SALT, line_of("Instant yeast", percent=2.5), line_of("Yogurt", percent=60), rested=("acid",))
    found = told(formula)
    assert list(found) == ["yeast_high", "acid"]
    assert (found["acid"].rested, found["yeast_high"].rested) == (True, False)


def test_every_note_has_its_words_and_its_rule():
    """A rule without words could not be shown; words without a rule never would be."""
    assert set(APPLIES) == set(remark_rules())
    assert all(PANTRY.find(name) for rule in remark_rules().values() for name in rule.ingredients)
    assert all(drinks(name) > 0 for name in remark_rules()["thirsty"].ingredients)


class TestContents:
    """Ingredients and allergens."""

    PASTE = Stage(name="Paste", kind=StageKind.PASTE, boiled_off=0.05, lines=(line_of("Bread flour", weight_g=50), line_of("Whole milk", weight_g=200)))
    DOUGH = Stage(name="Dough", lines=(line_of("Bread flour", weight_g=450), line_of("Whole milk", weight_g=100), line_of("Fine salt", weight_g=9)))

    def see(self, formula: Formula, pantry=PANTRY):
        return contents(formula, reckon(formula), pantry)

    def test_descending_by_weight_through_stages_and_beside(self):
        """Milk of paste, dough and wash is one; bench flour and bath are no ingredients by weight."""
        formula = Formula(name="x", stages=(self.PASTE, self.DOUGH), beside=(
            Beside(name="wash", kind=BesideKind.WASH, lines=(line_of("Egg", weight_g=20), line_of("Whole milk", weight_g=10))),
            Beside(name="bench", kind=BesideKind.BENCH, lines=(line_of("Rye flour", weight_g=30),)),
            Beside(name="pan", kind=BesideKind.PAN_OIL, lines=(line_of("Butter", weight_g=5),)),
        ))  # fmt: skip
        found = self.see(formula)
        assert [(one.name, one.weight_g) for one in found.ingredients] == [
            ("Bread flour", 500), ("Whole milk", 310), ("Egg", 20), ("Fine salt", 9), ("Butter", 5),
        ]  # fmt: skip
        assert sum(one.percent for one in found.ingredients) == pytest.approx(100)
        assert {one.allergen: one.names for one in found.contains} == {
            "egg": ("Egg",), "milk": ("Whole milk", "Butter"), "rye": ("Rye flour",), "wheat": ("Bread flour",),
        }  # fmt: skip

    def test_may_contain_only_what_it_does_not(self):
        """A packet's warning is passed on, unless the thing is in it anyway."""
        sesame = PANTRY.find("Sesame seeds").model_copy(update={"may_contain": ("peanuts", "wheat"), "own": True})
        formula = Formula(name="x", stages=(self.DOUGH,), beside=(Beside(lines=(line_of("Sesame seeds", weight_g=10),)),))
        found = self.see(formula, pantry_with((sesame,)))
        assert [(one.allergen, one.names) for one in found.may_contain] == [("peanuts", ("Sesame seeds",))]

    def test_what_the_pantry_does_not_know_is_named(self):
        """Nothing is said to be free of what nobody looked into."""
        own = Ingredient(name="Canal honey", role=Role.SUGAR, own=True)
        analysed = Ingredient(name="Lock syrup", role=Role.SUGAR, own=True, composition=Composition(sugars=70, carbohydrate=70))
        lines = (*self.DOUGH.lines, *(Line(name=name, role=Role.SUGAR, weight_g=5) for name in ("Canal honey", "Lock syrup", "Zibrul")))
        found = self.see(Formula(name="x", stages=(Stage(lines=lines),)), pantry_with((own, analysed)))
        assert found.unknown == ("Canal honey", "Zibrul")

    def test_what_is_kept_back_is_not_in_it_and_nothing_is_no_ingredient(self):
        """Half a poolish, and a line at nothing."""
        poolish = Stage(name="p", kind=StageKind.POOLISH, feeds=({"into": "d", "share": 0.5},), lines=(line_of("Water", weight_g=100), line_of("Egg", weight_g=0)))
        found = self.see(Formula.model_validate({"name": "x", "stages": (poolish, self.DOUGH.model_copy(update={"key": "d"}))}))
        assert ("Water", 50) in [(one.name, one.weight_g) for one in found.ingredients]
        assert "egg" not in {one.allergen for one in found.contains}

    def test_an_open_amount_still_brings_its_allergen(self):
        """Butter as needed is butter."""
        assert "milk" in {one.allergen for one in self.see(of(FLOUR, line_of("Butter"))).contains}
