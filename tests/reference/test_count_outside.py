"""The count and its pans against the outside: numerical integration, published packings, worked examples, facts of the trade."""

from itertools import combinations
from math import hypot, pi, sqrt

import pytest
from hypothesis import given, settings
from scipy.integrate import quad

from pancount.core.base.units import CM_PER_IN, G_PER_OZ
from pancount.core.count.selling import tolerance
from pancount.core.pans.fills import fill_rule, pan_size
from pancount.core.pans.packing import pack
from pancount.core.pans.pan import Griddle, LoafTin, RectanglePan, RingPan, RoundPan, Stone, area_cm2, solid, volume_ml
from pancount.core.pans.shaping import rope_cm
from pancount.core.pans.shelf import common_pans
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
            if found.form == "rectangle":  # four corners of a quarter disc each, in place of four squares
                return found.count * (a * b - 4 * found.corner_cm**2 + pi * found.corner_cm**2)
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


IN_A_CIRCLE = (
    1, 2, 2.1547, 2.4142, 2.7013, 3, 3, 3.3048, 3.6131, 3.8130, 3.9238, 4.0296, 4.2361, 4.3284, 4.5214, 4.6154, 4.7920, 4.8637, 4.8637,
    5.1223,
)  # fmt: skip
"""Radius of the smallest circle that holds n unit circles, n = 1 to 20. Graham, Lubachevsky, Nurmela and Östergård, "Dense packings
of congruent circles in a circle", Discrete Mathematics 181 (1998), recalled from memory."""
IN_A_SQUARE = (
    2, 3.4142, 3.9319, 4, 4.8284, 5.3282, 5.7321, 5.8637, 6, 6.7474, 7.0225, 7.1450, 7.4631, 7.7327, 7.8637, 8, 8.5327, 8.6564, 8.9077,
    8.9781,
)  # fmt: skip
"""Side of the smallest square that holds n unit circles, n = 1 to 20. Peikert et al. (1992) and Nurmela and Östergård, "Packing up
to 50 equal circles in a square", Discrete & Computational Geometry 18 (1997), recalled from memory."""


class TestPacking:
    """Against the published tables of optimal packings, for 1 to 20 circles."""

    @pytest.mark.parametrize(("n", "ratio"), list(enumerate(IN_A_CIRCLE, 1)))
    def test_on_a_griddle(self, n, ratio):
        """One just wide enough for n takes n; one too narrow for n never takes n."""
        assert pack(Griddle(diameter_cm=10 * ratio * 1.0001), 10, 0).holds >= n
        assert pack(Griddle(diameter_cm=10 * ratio * 0.998), 10, 0).holds < n

    @pytest.mark.parametrize(("n", "side"), list(enumerate(IN_A_SQUARE, 1)))
    def test_in_a_square(self, n, side):
        """The same of a stone, by its side."""
        fits, too_small = (Stone(length_cm=5 * side * by, width_cm=5 * side * by) for by in (1.0001, 0.998))
        assert pack(fits, 10, 0).holds >= n
        assert pack(too_small, 10, 0).holds < n

    @pytest.mark.parametrize("pan", [Griddle(diameter_cm=33), Stone(length_cm=34, width_cm=31)], ids=["griddle", "stone"])
    @pytest.mark.parametrize(("across", "gap"), [(9.3, 0), (7.7, 1.5), (6.1, 2.5)])
    def test_what_is_drawn_lies_apart_and_inside(self, pan, across, gap):
        """Each from the next by the gap, none over the edge, and as many as are told."""
        found = pack(pan, across, gap)
        spots = [(place.x_cm, place.y_cm) for place in found.places]
        assert len(spots) == found.holds
        assert all(hypot(a[0] - b[0], a[1] - b[1]) >= (across + gap) * 0.9999 for a, b in combinations(spots, 2))
        if isinstance(pan, Griddle):
            assert all(hypot(x - 16.5, y - 16.5) <= 16.5 - across / 2 + 1e-4 for x, y in spots)
        else:
            assert all(across / 2 - 1e-4 <= x <= 34 - across / 2 + 1e-4 and across / 2 - 1e-4 <= y <= 31 - across / 2 + 1e-4 for x, y in spots)

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


NOMINAL_ML = {
    "9 × 13 in pan": 15, "8 × 8 in pan": 8, "9 × 9 in pan": 10, "8 in round": 6, "9 in round": 8, "10 in round": 11,
    "8½ × 4½ in loaf": 6, "9 × 5 in loaf": 8, "33 cm lidded tin": 14,
}  # fmt: skip
"""US cups (236.6 ml) that home-baking handbooks give for a pan by its name, recalled from memory."""


@pytest.mark.parametrize(("name", "cups"), NOMINAL_ML.items())
def test_nominal_capacity_of_common_pans(name, cups):
    """A pan's slope and corners make it hold what its name is said to, within 5 %."""
    pan = next(one.pan for one in common_pans() if one.pan.name == name)
    assert volume_ml(pan) == pytest.approx(cups * 236.588, rel=0.05)


@pytest.mark.parametrize(("part", "litres"), [("1/1", 9.0), ("2/3", 5.5), ("1/2", 4.0), ("1/3", 2.5)])
def test_nominal_capacity_of_gastronorm(part, litres):
    """EN 631 containers 65 mm deep, as makers give them, recalled from memory; within 5 %."""
    pan = next(one.pan for one in common_pans() if one.pan.name.startswith(f"GN {part}"))
    assert volume_ml(pan) == pytest.approx(1000 * litres, rel=0.05)


class TestFactsOfTheTrade:
    """Common practice, no source."""

    def test_thickness_factor(self):
        """A 14 in round at 0.1 oz/in² takes 15.4 oz: 436 g."""
        area = area_cm2(RoundPan(diameter_cm=14 * CM_PER_IN, depth_cm=3))
        assert 0.1 * G_PER_OZ / CM_PER_IN**2 * area == pytest.approx(15.39 * G_PER_OZ, rel=1e-3)

    def test_a_dozen_buns_in_nine_by_thirteen(self):
        """12 buns of 70 to 85 g are what a 9 × 13 pan of pull-apart rolls is given."""
        rule, size = fill_rule("pull_apart_buns"), pan_size(RectanglePan(length_cm=33, width_cm=22.9, depth_cm=5), fill_rule("pull_apart_buns"))
        assert rule.low * size <= 12 * 70 <= 12 * 85 <= rule.high * size

    def test_pretzel_ropes(self):
        """An 85 g pretzel is rolled to 40 to 60 cm, about a finger (1.3 to 1.6 cm) thick."""
        assert 38 <= rope_cm(85, 1.6) <= rope_cm(85, 1.3) <= 60
