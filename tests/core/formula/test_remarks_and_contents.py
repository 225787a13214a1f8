"""Notes worth reading, only where they apply; ingredients and allergens through everything that is in a bun."""

import pytest

from pancount.core.base.scale import Scale
from pancount.core.count.count import one_target
from pancount.core.count.whole import whole_count
from pancount.core.formula.beside import strengths
from pancount.core.formula.changes import FreeOf, SwapOne, change_formula
from pancount.core.formula.contents import contents
from pancount.core.formula.formula import Beside, BesideKind, Formula, Line, Stage, StageKind, Usual, Way
from pancount.core.formula.gauges import character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.formula.remarks import APPLIES, CAUTIONS, cautions, drinks, remark_rules, remarks
from pancount.core.formula.steps import Step
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Composition, Ingredient, pantry_with
from pancount.core.pantry.role import Role
from pancount.core.sheet.weigh import weigh_sheet
from strategies import PANTRY, line_of

FLOUR, SALT, YEAST = line_of("Bread flour", percent=100), line_of("Fine salt", percent=1.9), line_of("Instant yeast", percent=1)
WATER = line_of("Water", percent=62)


def of(*lines: Line, kind: StageKind = StageKind.DOUGH, **more: object) -> Formula:
    return Formula.model_validate({"name": "x", "stages": (Stage(name="Dough", kind=kind, lines=lines),), **more})


def by(*steps: str) -> tuple[Way, ...]:
    """One way, as told in these words."""
    return (Way(steps=tuple(Step(text=text) for text in steps)),)


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
        ((FLOUR, WATER, YEAST), "salt_low", "Salt is 0.017 %"),
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
        """Half a poolish of 100 g of water: 50 go in, all of which baking takes; and a line at nothing is not named."""
        poolish = Stage(name="p", kind=StageKind.POOLISH, feeds=({"into": "d", "share": 0.5},), lines=(line_of("Water", weight_g=100), line_of("Egg", weight_g=0)))
        found = self.see(Formula.model_validate({"name": "x", "stages": (poolish, self.DOUGH.model_copy(update={"key": "d"}))}))
        assert ("Egg", 0) not in [(one.name, one.weight_g) for one in found.ingredients]
        assert "egg" not in {one.allergen for one in found.contains}

    def test_an_open_amount_still_brings_its_allergen(self):
        """Butter as needed is butter."""
        assert "milk" in {one.allergen for one in self.see(of(FLOUR, line_of("Butter"))).contains}


def test_water_is_listed_by_what_baking_leaves_of_it():
    """600 g of water in 1 018 g of dough that loses a tenth: 498 are left, which is less than the 500 g of flour that it would
    have stood before."""
    formula = of(line_of("Bread flour", weight_g=500), line_of("Water", weight_g=510), line_of("Fine salt", weight_g=8))
    found = contents(formula, reckon(formula), PANTRY).ingredients
    assert [one.name for one in found] == ["Bread flour", "Water", "Fine salt"]
    assert found[1].weight_g == pytest.approx(510 - 0.10 * 1018)


def test_composed_foods_send_to_the_packet_wherever_allergens_are_told():
    """In contents; where a swap takes butter for margarine; and where a dough is made dairy-free."""
    formula = of(FLOUR, WATER, SALT, YEAST, line_of("Butter", percent=10), **beside(BesideKind.TOPPING, "Sausage"))
    found = contents(formula, reckon(formula), PANTRY)
    assert (found.read_packet, [one.allergen for one in found.contains]) == (("Sausage",), ["milk", "wheat"])
    swapped = change_formula(formula, SwapOne(stage=0, line=4, to="Margarine"), PANTRY, Practice())
    assert (swapped.lost, swapped.read_packet) == (("milk",), ("Margarine",))
    freed = change_formula(formula, FreeOf(allergen="milk"), PANTRY, Practice())
    assert any("Only the packet tells whether milk is in" in says and "Sausage" in says for says in freed.says)


def test_what_the_kitchen_changed_before_keeps_what_ships():
    """A pantry of an earlier release says nothing of packets and bran."""
    old = Ingredient.model_validate({"name": "Sausage", "role": "inclusion", "own": True})
    rye = Ingredient.model_validate({"name": "Rye flour", "role": "flour", "own": True, "bran": False})
    pantry = pantry_with((old, rye))
    assert (pantry.find("Sausage").read_packet, pantry.find("Rye flour").bran) == (True, False)


class TestFeel:
    """Feel is true water, more for fat and sugars, less for wholemeal and rye: worked out by hand."""

    @pytest.mark.parametrize(
        ("lines", "figure", "word"),
        [
            ((FLOUR, line_of("Water", percent=57)), 57, "stiff"),
            # 57 true water, 14 fat, 12 sugars: 57 + 4.9 + 3.6
            ((FLOUR, line_of("Water", percent=54.6), line_of("Butter", percent=14 / 0.8111), line_of("Sugar", percent=12)), 57.54 + 4.9 + 3.59, "soft"),
            ((line_of("Wholemeal flour", percent=100), line_of("Water", percent=75)), 67, "soft"),
            ((line_of("Bread flour", percent=50), line_of("Rye flour", percent=50), WATER), 58, "firm"),
            ((line_of("Bread flour", percent=90), line_of("Rye sourdough", percent=20), WATER), 71.2, "soft"),
        ],
    )
    def test_by_hand(self, lines, figure, word):
        """To a tenth."""
        formula = of(*lines)
        found = character(formula, reckon(formula), PANTRY, Practice())
        assert (found.feels.value, found.feel.key) == (pytest.approx(figure, abs=0.1), word)
        assert found.stiff == (word == "stiff")

    def test_the_bowl_and_the_sheet_ask_the_feel(self):
        """Milk buns at 57 % true water are no stiff dough: the bowl takes as much as of any soft one, on screen and on paper."""
        lines = (FLOUR, line_of("Water", percent=52), line_of("Butter", percent=20), line_of("Sugar", percent=14), SALT, YEAST)
        kit, count = Kit(bowl_ml=4300), one_target(flour_g=1200)
        whole = whole_count(of(*lines), count, PANTRY, Practice(), kit)
        assert whole.character.gauges["water"].value < 58
        assert (whole.mixes.stiff, whole.mixes.bowl_g) == (False, pytest.approx(1591))
        assert weigh_sheet(of(*lines), count, Scale(), kit=kit).mixes == whole.mixes.mixes


class TestLye:
    """Lye under any of its names carries its caution, and never a strength; baking soda under any of its names is soda."""

    @pytest.mark.parametrize(
        "name",
        ["Lye", "caustic soda", "Caustic Soda (food grade)", "sodium hydroxide", "NaOH", "NaOH pearls", "Lauge", "Brezellauge", "Natronlauge 4 %",
         "Laugenperlen", "Ätznatron", "food-grade lye"],
    )  # fmt: skip
    def test_every_name_of_it(self, name):
        """In a bath with its caution and no strength; in a dough with another."""
        bath = of(FLOUR, WATER, SALT, YEAST, **beside(BesideKind.BATH, "Water", name))
        assert told(bath)["lye"].caution
        assert strengths(bath.beside[0].model_copy(update={"lines": (line_of("Water", weight_g=1000), Line(name=name, weight_g=40))}), PANTRY) == ()
        assert "lye_in_dough" in told(of(FLOUR, WATER, SALT, YEAST, Line(name=name, role=Role.FLAVOUR, percent=1)))

    @pytest.mark.parametrize(("name", "band"), [("Baking soda", (3, 7)), ("Natron", (3, 7)), ("Bicarb", (3, 7)), ("Honig", (0.5, 1)), ("Malt syrup", (0.5, 1))])
    def test_what_has_a_strength(self, name, band):
        """By what it is, in either language; and no caution of lye with it."""
        bath = Beside(name="Lauge", kind=BesideKind.BATH, lines=(line_of("Water", weight_g=1000), Line(name=name, weight_g=40)))
        (strength,) = strengths(bath, PANTRY)
        assert (strength.percent, strength.low, strength.high) == (pytest.approx(4), *band)
        assert ("lye" in told(of(FLOUR, WATER, SALT, YEAST, beside=(bath,)))) == (name in ("Honig", "Malt syrup"))

    def test_a_method_that_speaks_of_it(self):
        """Where the bath is told only in the steps."""
        assert "lye" in told(of(FLOUR, WATER, SALT, YEAST, ways=by("Dip each knot into the lye for 10 s.")))
        assert "lye" not in told(of(FLOUR, WATER, SALT, YEAST, ways=by("Rest on the flyer.", "Bathe in soda.")))


@pytest.mark.parametrize(
    ("formula", "key"),
    [
        (of(FLOUR, WATER, SALT, YEAST, ways=by("Cook the sugar to a dark caramel.")), "hot_sugar"),
        (of(FLOUR, WATER, SALT, YEAST, ways=by("Deep-fry at 180 °C.")), "deep_fat"),
        (of(FLOUR, WATER, SALT, YEAST, ways=by("Mit Dampf backen.")), "steam"),
        (of(FLOUR, WATER, SALT, YEAST, ways=by("Two minutes under the broiler.")), "broiler"),
        (of(FLOUR, WATER, SALT, YEAST, ways=by("Knead in a stand mixer.")), "mixer"),
        (of(FLOUR, WATER, SALT, YEAST, **beside(BesideKind.TOPPING, "Egg white", "Icing sugar")), "eaten_raw"),
        (of(FLOUR, WATER, SALT, YEAST, Line(name="Water", role=Role.LIQUID, percent=5, note="boiling"), kind=StageKind.SOAKER), "hot_paste"),
        (of(line_of("Bread flour", percent=90), WATER, SALT, line_of("Sourdough starter", percent=20), kind=StageKind.SCALD), "hot_paste"),
        (of(FLOUR, WATER, SALT, YEAST, line_of("Potato, boiled", percent=20), kind=StageKind.MASH), "hot_paste"),
    ],
)  # fmt: skip
def test_cautions_at_what_can_hurt(formula, key):
    """Told by what is done, or by what is hot; and not to be put to rest."""
    assert told(formula)[key].caution
    plain = of(FLOUR, WATER, SALT, YEAST, ways=by("Knead by hand, rest, bake until golden; cool on a rack."))
    assert key not in told(plain)


@pytest.mark.parametrize(
    ("lines", "key", "quiet"),
    [
        (line_of("Malt flour, diastatic", percent=1.5), "malt", line_of("Malt flour, non-diastatic", percent=1.5)),
        (line_of("Ascorbic acid", percent=0.03), "ascorbic", line_of("Ascorbic acid", percent=0.01)),
        (line_of("Butter", percent=30), "warm_butter", line_of("Butter", percent=12)),
    ],
)
def test_more_than_practice_uses(lines, key, quiet):
    """Over the figure it is told, under it not."""
    assert key in told(of(FLOUR, WATER, SALT, YEAST, lines))
    assert key not in told(of(FLOUR, WATER, SALT, YEAST, quiet))


@pytest.mark.parametrize(("percent", "is_told"), [(6, True), (4, False)])
def test_much_gluten(percent, is_told):
    """It is part of the flour."""
    lines = (line_of("Bread flour", percent=100 - percent), line_of("Wheat gluten", percent=percent), WATER, SALT, YEAST)
    assert ("gluten" in told(of(*lines))) == is_told


def test_sugar_that_slows_is_not_milks_own():
    """Milk powder at 20 % brings 10 % of lactose, which yeast leaves alone; and a strain for sweet doughs is not slowed."""
    milky = (FLOUR, WATER, SALT, YEAST, line_of("Milk powder, skimmed", percent=20), line_of("Sugar", percent=4))
    assert "sugar_slows" not in told(of(*milky))
    sweet = (*milky, line_of("Honey", percent=10))
    assert "12.2 %, milk's own left out" in told(of(*sweet))["sugar_slows"].says
    tolerant = tuple(line_of("Sugar-tolerant instant yeast", percent=1) if line is YEAST else line for line in sweet)
    assert not {"sugar_slows", "leaven_for_sugar"} & set(told(of(*tolerant)))


def test_salt_protein_and_egg_are_what_a_baker_means():
    """Soda's sodium is no salt, rye's protein no gluten, linseed no egg."""
    plain = of(FLOUR, WATER, SALT, YEAST)
    odd = of(line_of("Bread flour", percent=50), line_of("Rye flour", percent=50), WATER, SALT, YEAST, line_of("Baking soda", percent=2),
             line_of("Baking powder", percent=2), Line(name="Flax egg", role=Role.EGG, percent=10))  # fmt: skip
    was, now = (character(f, reckon(f), PANTRY, Practice()).gauges for f in (plain, odd))
    assert now["salt"].value == pytest.approx(was["salt"].value, abs=0.02)
    assert now["protein"].value == pytest.approx(was["protein"].value / 2)
    assert now["egg"].value == 0


def test_rye_in_a_tin_is_told_its_fill():
    """Half rye in an open tin; not on a sheet."""
    lines = (line_of("Bread flour", percent=50), line_of("Rye flour, dark", percent=50), WATER, SALT, YEAST)
    assert "Rye is 50 % of the flour" in told(of(*lines, usual=Usual(fill_kind="open_tin")))["rye_tin"].says
    assert "rye_tin" not in told(of(*lines, usual=Usual(fill_kind="buns_apart")))
