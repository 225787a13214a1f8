"""The count and its pans against the outside: numerical integration, published packings, worked examples, facts of the trade."""

from math import hypot, pi, sqrt

import pytest
from hypothesis import given, settings
from scipy.integrate import quad

from pancount.core.beside import STRENGTHS
from pancount.core.count import fill_rule, pan_size
from pancount.core.packing import pack
from pancount.core.pan import Griddle, LoafTin, RectanglePan, RingPan, RoundPan, area_cm2, solid, volume_ml
from pancount.core.selling import tolerance
from pancount.core.shaping import rope_cm
from pancount.core.shelf import common_pans
from pancount.core.tables import fills
from pancount.core.units import CM_PER_IN, G_PER_OZ
from strategies import pans


class TestGeometry:
    """Volumes and walls against integrals of their level sections, written here anew."""

    @settings(max_examples=40)
    @given(pans)
    def test_volume_by_integration(self, pan):
        """The integral of the level area from base to brim, the area from the measures of the shape."""
        found = solid(pan)

        def level(share: float) -> float:
            a, b = (low + (high - low) * share for low, high in zip(found.base, found.top, strict=True))
            if found.form == "rectangle":
                return found.count * a * b
            return found.count * pi / 4 * (a * a - (b * b if found.form == "ring" else 0.0))

        volume, _ = quad(lambda z: level(z / found.depth_cm), 0, found.depth_cm) if found.depth_cm else (0.0, 0.0)
        assert found.volume() == pytest.approx(volume, rel=1e-9)

    def test_cone_frustum_by_its_textbook_formula(self):
        """π·h/3·(R² + R·r + r²)."""
        pan = RoundPan(diameter_cm=26, base_diameter_cm=20, depth_cm=7)
        assert volume_ml(pan) == pytest.approx(pi * 7 / 3 * (13**2 + 13 * 10 + 10**2))

    def test_walls_of_a_pyramid_frustum_by_its_faces(self):
        """Four trapezia, each its mean width times its slant height."""
        pan = LoafTin(length_cm=23, width_cm=13, base_length_cm=20, base_width_cm=11, depth_cm=7)
        faces = 2 * (23 + 20) / 2 * hypot(7, 1) + 2 * (13 + 11) / 2 * hypot(7, 1.5)
        assert solid(pan).wall() == pytest.approx(faces)

    def test_ring_by_guldin(self):
        """A straight ring is its cross-section times the way of its middle (Pappus and Guldin)."""
        pan = RingPan(diameter_cm=25, hole_cm=7, depth_cm=9)
        assert volume_ml(pan) == pytest.approx(9 * 9 * pi * 16)


class TestPacking:
    """Circles in a circle: the proven ratios of outer to inner radius for n circles.

    Graham (1968) and others, as tabulated in "Packing of equal circles in a circle", recalled from memory:
    2: 2, 3: 1 + 2/√3, 4: 1 + √2, 5: 1 + √(2·(1 + 1/√5)), 6 and 7: 3.
    """

    RATIOS = ((1, 1.0), (2, 2.0), (3, 1 + 2 / sqrt(3)), (4, 1 + sqrt(2)), (5, 1 + sqrt(2 * (1 + 1 / sqrt(5)))), (7, 3.0))

    @pytest.mark.parametrize(("n", "ratio"), RATIOS)
    def test_as_many_as_proven_and_no_more(self, n, ratio):
        """A griddle just wide enough for n takes n; one a little narrower does not."""
        assert pack(Griddle(diameter_cm=10 * ratio * 1.0001), 10, 0).holds == n
        assert pack(Griddle(diameter_cm=10 * ratio * 0.999), 10, 0).holds < n

    def test_never_denser_than_the_densest(self):
        """π/√12 of the plane is the most that equal circles cover (Thue 1910, Fejes Tóth 1940)."""
        for across in (2, 3, 5):
            found = pack(Griddle(diameter_cm=60), across, 0)
            assert found.holds * across**2 / 60**2 < pi / sqrt(12)


class TestPublishedTables:
    """Recalled from memory, as the data says."""

    @pytest.mark.parametrize(("label", "grams"), [(50, 4.5), (100, 4.5), (200, 9), (300, 9), (500, 15), (1000, 15)])
    def test_eu_table_is_continuous_at_its_borders(self, label, grams):
        """Directive 76/211/EEC, Annex I 2.4: shares and grams were chosen to meet."""
        assert tolerance(label, "EU").of(label) == pytest.approx(grams)

    @pytest.mark.parametrize(("pounds", "mav_pounds"), [(0.1, 0.008), (0.25, 0.016), (0.5, 0.028), (1.0, 0.044), (1.5, 0.056), (2.0, 0.070)])
    def test_us_table_in_its_own_pounds(self, pounds, mav_pounds):
        """NIST Handbook 133, Table 2-5 is in pounds; ours in grams agrees to its rounding."""
        grams = 453.59237
        assert tolerance(pounds * grams, "US").of(pounds * grams) == pytest.approx(mav_pounds * grams, abs=0.1)

    def test_gastronorm(self):
        """EN 631-1: 1/1 is 530 × 325 mm outside; halves and thirds divide it, and ours lie inside."""
        outside = {"1/1": (53, 32.5), "2/3": (35.4, 32.5), "1/2": (32.5, 26.5), "1/3": (32.5, 17.6)}
        for part, (length, width) in outside.items():
            pan = next(one.pan for one in common_pans() if one.pan.name.startswith(f"GN {part}"))
            assert length - 4 <= pan.length_cm <= length
            assert width - 4 <= pan.width_cm <= width
        assert pytest.approx(53, abs=0.5) == 2 * 26.5
        assert pytest.approx(53, abs=0.5) == 3 * 17.6


class TestFactsOfTheTrade:
    """Common practice, no source."""

    def test_thickness_factor(self):
        """A 14 in round at 0.1 oz/in² takes 15.4 oz: 436 g."""
        area = area_cm2(RoundPan(diameter_cm=14 * CM_PER_IN, depth_cm=3))
        assert 0.1 * G_PER_OZ / CM_PER_IN**2 * area == pytest.approx(15.39 * G_PER_OZ, rel=1e-3)

    def test_nine_by_five_is_about_two_litres(self):
        """The 9 × 5 in loaf tin is sold as 8 cups (1.9 l); its band for open tins holds 850 g."""
        tin = next(one.pan for one in common_pans() if one.pan.name == "9 × 5 in loaf")
        assert 1500 <= volume_ml(tin) <= 1950
        rule = fill_rule("open_tin")
        assert rule.low * volume_ml(tin) <= 850 <= rule.high * 1950

    def test_a_dozen_buns_in_nine_by_thirteen(self):
        """12 buns of 70 to 85 g are what a 9 × 13 pan of pull-apart rolls is given."""
        rule, size = fill_rule("pull_apart_buns"), pan_size(RectanglePan(length_cm=33, width_cm=22.9, depth_cm=5), fill_rule("pull_apart_buns"))
        assert rule.low * size <= 12 * 70 <= 12 * 85 <= rule.high * size

    def test_pretzel_ropes(self):
        """An 85 g pretzel is rolled to 40 to 60 cm, about a finger (1.3 to 1.6 cm) thick."""
        assert 38 <= rope_cm(85, 1.6) <= rope_cm(85, 1.3) <= 60

    @pytest.mark.parametrize(("kind", "low", "high"), [("pull_apart_buns", 0.08, 0.12), ("open_tin", 0.10, 0.13), ("flatbread", 0.08, 0.15), ("bagels_apart", 0.10, 0.14)])
    def test_baking_losses(self, kind, low, high):
        """Buns 8 to 12 %, tin loaves 10 to 13, flatbreads 8 to 15, bagels 10 to 14."""
        assert (fills()[kind].loss_low, fills()[kind].loss_high) == (low, high)

    def test_baths(self):
        """Soda 3 to 7 % of the water, honey or malt about 0.5 to 1 %."""
        assert STRENGTHS == {"soda": (3.0, 7.0), "honey": (0.5, 1.0), "malt": (0.5, 1.0)}

    def test_gaps(self):
        """Buns 3 to 5 cm apart when baked, pretzels 2 to 3."""
        assert 3 <= fills()["buns_apart"].gap_cm <= 5
        assert 2 <= fills()["knots_apart"].gap_cm <= 3
