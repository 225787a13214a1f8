"""Checks against things outside the project. Each names its source beside it."""

from math import pi, sqrt

import pytest
from pint import UnitRegistry
from scipy.integrate import dblquad, quad

from conftest import make_formula
from pancount.core.base.units import LENGTH_UNITS, WEIGHT_UNITS
from pancount.core.count.count import one_target
from pancount.core.count.solve import solve
from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.formula.gauges import character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.pans.fills import fills
from pancount.core.pans.pan import RectanglePan, RoundPan, area_cm2, dome_diameter_cm, level_cm, volume_ml
from pancount.core.pantry.ingredients import pantry, pantry_with
from pancount.core.pantry.role import Role
from pancount.demo.weir_house import BUNS, OTHERS


class TestUnits:
    """Source: pint's unit registry, which follows the international yard and pound agreement of 1959."""

    registry = UnitRegistry()

    @pytest.mark.parametrize("unit", WEIGHT_UNITS)
    def test_weights(self, unit):
        """Every weight unit is worth what pint says."""
        assert WEIGHT_UNITS[unit] == pytest.approx(self.registry.Quantity(1, unit).to("gram").magnitude, rel=1e-12)

    @pytest.mark.parametrize("unit", LENGTH_UNITS)
    def test_lengths(self, unit):
        """Every length unit is worth what pint says."""
        name = {"in": "inch"}.get(unit, unit)
        assert LENGTH_UNITS[unit] == pytest.approx(self.registry.Quantity(1, name).to("cm").magnitude, rel=1e-12)

    def test_thickness_factor(self):
        """1 oz/in² is 4.394 g/cm² (worked out by pint)."""
        pint = self.registry.Quantity(1, "ounce / inch ** 2").to("gram / cm ** 2").magnitude
        assert WEIGHT_UNITS["oz"] / LENGTH_UNITS["in"] ** 2 == pytest.approx(pint)
        assert pint == pytest.approx(4.394, abs=5e-4)


class TestGeometry:
    """Source: numerical integration by scipy."""

    @pytest.mark.parametrize("diameter", [12.0, 26.0, 30.48])
    def test_round(self, diameter):
        """Area of a round pan, integrated strip by strip."""
        r = diameter / 2
        area, _ = quad(lambda x: 2 * sqrt(max(0.0, r * r - x * x)), -r, r)
        pan = RoundPan(diameter_cm=diameter, depth_cm=4)
        assert area_cm2(pan) == pytest.approx(area, rel=1e-6)
        assert volume_ml(pan) == pytest.approx(area * 4, rel=1e-6)

    def test_rectangle(self):
        """Volume of a rectangle, integrated over its floor."""
        volume, _ = dblquad(lambda y, x: 4.6, 0, 33, 0, 23)
        assert volume_ml(RectanglePan(length_cm=33, width_cm=23, depth_cm=4.6)) == pytest.approx(volume)

    def test_half_ball(self):
        """A drawn piece holds its dough: the half ball's slices sum to its volume."""
        r = dome_diameter_cm(77) / 2
        volume, _ = quad(lambda z: pi * (r * r - z * z), 0, r)
        assert volume == pytest.approx(77 / 1.10)

    def test_depth_times_area_is_the_dough(self):
        """Level dough of the told depth holds the dough, at 1.10 g/ml (common practice, no source)."""
        assert level_cm(RectanglePan(length_cm=33, width_cm=23, depth_cm=4.6), 924 / 1.10) * 759 * 1.10 == pytest.approx(924)


class TestFactsOfTheTrade:
    """Common practice, no source, unless a source is named."""

    @pytest.mark.parametrize(
        ("water_g", "flour_g", "percent", "scaled_flour_g", "scaled_water_g"),
        [
            (100, 160, 62.5, 200, 125),  # a worked example of baker's percentage
            (650, 1000, 65, 400, 260),
            (300, 500, 60, 1500, 900),
        ],
    )
    def test_bakers_percentage(self, water_g, flour_g, percent, scaled_flour_g, scaled_water_g):
        """Water over flour, and the water for another flour."""

        def dough(**water: float) -> Formula:
            flour = Line(name="Flour", role=Role.FLOUR, weight_g=flour_g)
            return Formula(stages=(Stage(lines=(flour, Line(name="Water", role=Role.LIQUID, **water))),))

        assert reckon(dough(weight_g=water_g)).liquid_percent == percent
        result = solve(dough(weight_g=water_g), one_target(flour_g=scaled_flour_g, bench_loss=0)).result
        assert result.quantities["dough_g"].value - scaled_flour_g == pytest.approx(scaled_water_g)

    def test_poolish_counts_into_the_whole(self):
        """A poolish is as much water as flour; 20 % of the flour in it leaves the whole formula at its hydration."""
        poolish = Stage(lines=(Line(name="f", role=Role.FLOUR, weight_g=200), Line(name="w", role=Role.LIQUID, weight_g=200)))
        dough = Stage(lines=(Line(name="f", role=Role.FLOUR, weight_g=800), Line(name="w", role=Role.LIQUID, weight_g=500)))
        assert reckon(Formula(stages=(poolish, dough))).liquid_percent == 70

    def test_pan_swap(self):
        """A 12 in round is 730 cm² and a 9 × 13 in pan 755: 3.5 % more."""
        round_pan = area_cm2(RoundPan(diameter_cm=12 * 2.54, depth_cm=5))
        oblong = area_cm2(RectanglePan(length_cm=13 * 2.54, width_cm=9 * 2.54, depth_cm=5))
        assert (round(round_pan), round(oblong)) == (730, 755)
        assert oblong / round_pan - 1 == pytest.approx(0.035, abs=1e-3)

    def test_remainder_of_a_kilo_and_a_bit(self):
        """1 290 g at 75 g is 17 pieces and 15 g over."""
        result = solve(make_formula(("f", Role.FLOUR, 100)), one_target(divide_g=1290, piece_g=75)).result
        assert (result.quantities["pieces.0"].value, result.quantities["remainder_g"].value) == (17, 15)

    @pytest.mark.parametrize("formula", [BUNS, *(formula for formula, _ in OTHERS)], ids=lambda f: f.name)
    def test_the_demo_kitchen_bakes_bread(self, formula):
        """Salt 1.5 to 2.5 %, and yeast 0.3 to 1.2 % instant: what doughs of these kinds are given."""
        gauges = character(formula, reckon(formula), pantry_with(()), Practice()).gauges
        assert 1.5 <= gauges["salt"].value <= 2.5
        assert 0.3 <= gauges["yeast"].value <= 1.2


def test_every_table_row_has_its_source():
    """A figure without a source, or the words that it has none, would look surer than it is."""
    assert all(rule.source and rule.low < rule.high for rule in fills().values())


def test_the_pantry_is_over_a_hundred_with_no_name_twice():
    """Completion offers each ingredient once, under any of its names, in either language."""
    for names_of in (lambda i: (i.name, *i.also), lambda i: (i.name, *i.also_de)):
        names = [name.casefold() for item in pantry() for name in names_of(item)]
        assert len(names) == len(set(names))
    assert len(pantry()) >= 240
    assert {item.role for item in pantry()} == set(Role)
