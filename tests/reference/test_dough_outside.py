"""What a dough is, against things outside the project. Each check names its source beside it."""

import csv
from pathlib import Path

import pytest

from pancount.core.formula.formula import Formula, Stage, StageKind, each_line
from pancount.core.formula.gauges import character
from pancount.core.formula.moving import NewStage, move_in
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.demo.weir_house import BUNS, OTHERS
from strategies import PANTRY, line_of

FDC = "USDA FoodData Central, "
ROWS = list(csv.DictReader(Path(__file__).with_name("fdc_reference.csv").read_text(encoding="utf-8").splitlines()))
"""USDA FoodData Central (public domain), row by row. Its water is by difference, so it holds ash and alcohol."""
ALL = [BUNS, *(formula for formula, _ in OTHERS)]


def rows_of(name: str) -> list[dict[str, str]]:
    """The analyses that the pantry names for an ingredient: none, one, or two of the same food."""
    known = PANTRY.find(name)
    if known is None or not known.source.startswith(FDC):
        return []
    return [row for row in ROWS if row["fdc_food_name"] == known.source.removeprefix(FDC).split("; ")[0]]


def grams(row: dict[str, str], column: str) -> float:
    """A figure of a row. Sugars analysed as more than all carbohydrate (milk: 4.81 of 4.63) are all of it."""
    return min(float(row[column]), float(row["carbohydrate_g"])) if column == "sugars_g" else float(row[column])


IN_ROW = {"fat": ("fat_g", 1.0), "sugars": ("sugars_g", 1.0), "salt": ("sodium_mg", 0.0025), "protein": ("protein_g", 1.0)}
ASH = {"flavour": 6.5, "inclusion": 4.6}
"""Spices and seeds hold more ash than the 2 g of the rest. Recalled from memory. [g in 100 g]"""


@pytest.mark.parametrize("formula", ALL, ids=lambda f: f.name)
class TestAgainstOpenData:
    """Source: fdc_reference.csv. Reckoned here line by line from the file itself, by another way than the core's."""

    @pytest.mark.parametrize("gauge", IN_ROW)
    def test_what_each_line_brings(self, formula, gauge):
        """Fat, sugars, salt (sodium × 2.5) and flour protein of every line that has a row: to the pantry's two places."""
        column, factor = IN_ROW[gauge]
        found = character(formula, reckon(formula), PANTRY, Practice()).gauges[gauge]
        checked = 0
        for one in found.brings:
            line = formula.stages[one.stage].lines[one.line]
            held = [grams(row, column) * factor for row in rows_of(line.name) if row[column]]
            if held and line.name != "Fine salt":  # which counts as all salt, not by its sodium alone
                assert any(one.holds == pytest.approx(wanted, abs=0.0051) for wanted in held)
                checked += 1
        assert checked or gauge in ("sugars", "salt")

    def test_true_water_is_under_the_water_by_difference(self, formula):
        """Water by difference holds ash; so true water is a little under it."""
        reckoned = reckon(formula)
        for one in character(formula, reckoned, PANTRY, Practice()).gauges["water"].brings:
            line = formula.stages[one.stage].lines[one.line]
            by_difference = [float(row["water_by_difference_g"]) for row in rows_of(line.name)]
            if by_difference and line.role not in ("salt", "flour") and line.hydration is None:
                assert min(by_difference) - ASH.get(line.role, 2.1) <= one.holds <= max(by_difference) + 0.3


BREADS = {"Cardamom milk buns": (0.08, 0.12), "Oat and honey tin loaf": (0.10, 0.13), "Squash rolls": (0.08, 0.12)}
"""Bake loss by kind: buns 8–12 %, tin loaves 10–13 % of the dough. Common practice, no source."""


@pytest.mark.parametrize("formula", [f for f in ALL if f.name in BREADS], ids=lambda f: f.name)
def test_bread_has_62_percent_solids(formula):
    """Bread, rolls and buns hold at least 62 % total solids. Source: 21 CFR 136.110, recalled from memory.

    All the water that goes in, the flour's own too, less what bakes out, over what comes out of the oven; and no bread is
    so dry that less than a fifth of it is water (common practice, no source).
    """
    reckoned = reckon(formula)
    gauge = character(formula, reckoned, PANTRY, Practice()).gauges["water"]
    moisture = sum(
        reckoned.stages[s].lines[n].percent * PANTRY.find(line.name).composition.water / 100
        for s, n, line in each_line(formula)
        if line.role == "flour"
    )
    water, dough = gauge.value + gauge.apart + moisture, reckoned.total_percent
    for loss in BREADS[formula.name]:
        share = (water - loss * dough) / (dough * (1 - loss))
        assert 0.2 < share <= 0.38


class TestWorkedExamples:
    """Common practice, no source: the sums that bakers do by hand."""

    LEAN = Formula(name="lean", stages=(Stage(name="Dough", lines=(
        line_of("Bread flour", weight_g=1000), line_of("Water", weight_g=650), line_of("Fine salt", weight_g=20), line_of("Instant yeast", weight_g=6))),))  # fmt: skip

    @pytest.mark.parametrize(
        ("kind", "flour", "hydration", "stage", "dough"),
        [
            (StageKind.POOLISH, 20, 100, (200, 200), (800, 450)),  # as much water as flour
            (StageKind.BIGA, 30, 55, (300, 165), (700, 485)),
            (StageKind.SPONGE, 40, 60, (400, 240), (600, 410)),
            (StageKind.PASTE, 5, 500, (50, 250), (950, 400)),  # one part flour, five parts liquid
        ],
    )
    def test_flour_and_water_of_a_preferment(self, kind, flour, hydration, stage, dough):
        """Of a kilo of flour at 65 %."""
        moved = move_in(self.LEAN, NewStage(kind=kind, flour_percent=flour, hydration=hydration))
        assert [line.weight_g for line in moved.stages[0].lines] == pytest.approx(stage)
        assert [line.weight_g for line in moved.stages[1].lines[:2]] == pytest.approx(dough)

    def test_a_fifth_of_starter_is_a_tenth_of_the_flour(self):
        """200 g starter at 100 % in 900 g flour and 550 g water: a kilo of flour, 65 % hydration, 10 % prefermented."""
        lines = (line_of("Sourdough starter", weight_g=200), line_of("Bread flour", weight_g=900), line_of("Water", weight_g=550))
        formula = Formula(stages=(Stage(lines=lines),))
        reckoned = reckon(formula)
        gauges = character(formula, reckoned, PANTRY, Practice()).gauges
        assert (reckoned.flour_g, reckoned.liquid_percent) == pytest.approx((1000, 65))
        assert gauges["prefermented"].value == pytest.approx(10)
        assert gauges["water"].value == pytest.approx(65)

    @pytest.mark.parametrize(("school", "forms"), [("3 : 1.2 : 1", (30, 12, 10)), ("2.5 : 1.25 : 1", (25, 12.5, 10))])
    def test_yeast_by_weight(self, school, forms):
        """The same rise, in either school."""
        names = ("Fresh yeast", "Active dry yeast", "Instant yeast")
        assert [Practice(yeast=school).as_instant(name) * grams for name, grams in zip(names, forms, strict=True)] == pytest.approx([10] * 3)
