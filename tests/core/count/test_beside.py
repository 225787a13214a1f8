"""What is beside the dough, in a count."""

from math import pi

import pytest

from conftest import make_formula
from pancount.core.count.count import Count, one_target
from pancount.core.count.whole import whole_count
from pancount.core.formula.beside import pot_water_g, strengths
from pancount.core.formula.formula import Beside, BesideKind, Line, Usual
from pancount.core.formula.practice import Practice
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import RectanglePan, RoundPan
from pancount.core.pantry.ingredients import pantry_with
from pancount.core.pantry.role import Role
from strategies import PANTRY


class TestBeside:
    """Wash by surface, topping by area inside a border, oil by the inside of pans, a bath by the pot."""

    def whole(self, beside: Beside, count: Count, usual: Usual, kit: Kit):
        formula = make_formula(("Bread flour", Role.FLOUR, 100), ("Water", Role.LIQUID, 60)).model_copy(
            update={"beside": (beside,), "usual": usual}
        )
        return whole_count(formula, count, pantry_with(()), Practice(), kit).beside[0]

    LINE = (Line(name="Olive oil", role=Role.FAT, weight_g=20),)
    ROUND = RoundPan(diameter_cm=30, depth_cm=5)

    def test_wash_goes_with_the_surface(self):
        """Eight times as many pieces of an eighth the weight show twice the surface."""
        wash = Beside(kind=BesideKind.WASH, lines=self.LINE, serves=10)
        usual = Usual(piece_g=80)
        large = self.whole(wash, one_target(pieces=10, piece_g=80), usual, Kit())
        small = self.whole(wash, one_target(pieces=80, piece_g=10), usual, Kit())
        assert large.times == pytest.approx(1)
        assert small.times == pytest.approx(2)

    def test_topping_stops_at_its_border(self):
        """A round of 30 with a border of 1 shows 28 across: from 40 × 30, of which 38 × 28 is topped."""
        slab = Usual(pieces_per_pan=1, fill_kind="pan_pizza", pan=RectanglePan(length_cm=40, width_cm=30, depth_cm=3), piece_g=500)
        topping = Beside(kind=BesideKind.TOPPING, lines=self.LINE, serves=1, border_cm=1)
        found = self.whole(topping, one_target(self.ROUND, pans=1), slab, Kit())
        assert found.times == pytest.approx(pi * 14**2 / (38 * 28))

    def test_oil_goes_with_the_inside(self):
        """Base and sides of two rounds against those of one rectangle."""
        slab = Usual(pieces_per_pan=1, fill_kind="pan_pizza", pan=RectanglePan(length_cm=40, width_cm=30, depth_cm=3), piece_g=500)
        oil = Beside(kind=BesideKind.PAN_OIL, lines=self.LINE, serves=1)
        found = self.whole(oil, one_target(self.ROUND, pans=2), slab, Kit())
        assert found.times == pytest.approx(2 * (pi * 15**2 + pi * 30 * 5) / (1200 + 2 * 70 * 3))

    def test_a_bath_fills_the_pot(self):
        """A pot of 6 litres takes 3 600 g of water; 5 % soda stays 5 %, whatever is baked."""
        bath = Beside(kind=BesideKind.BATH, lines=(Line(name="Water", role=Role.LIQUID, weight_g=2000), Line(name="Baking soda", role=Role.LEAVEN, weight_g=100)))
        kit = Kit(pot_ml=6000)
        assert pot_water_g(kit) == 3600
        for pieces in (6, 60):
            assert self.whole(bath, one_target(pieces=pieces), Usual(), kit).times == pytest.approx(1.8)
        (soda,) = strengths(bath, PANTRY)
        assert (soda.percent, soda.low, soda.high) == (5, 3, 7)
        assert strengths(Beside(kind=BesideKind.WASH, lines=self.LINE), PANTRY) == ()
