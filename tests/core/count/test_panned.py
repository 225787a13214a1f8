"""One full pan of a count."""

import pytest

from pancount.core.count.count import one_target
from pancount.core.count.panned import panned
from pancount.core.count.solve import solve
from pancount.core.formula.formula import Usual
from pancount.core.pans.pan import RectanglePan

RIMMED = RectanglePan(length_cm=33, width_cm=23, depth_cm=4.6)


class TestPanned:
    """One full pan of a count."""

    def look(self, rolls, pan=RIMMED, usual=None, **pins):
        formula = rolls.model_copy(update={"usual": usual or Usual()})
        found = solve(formula, one_target(pan, **pins))
        return panned(found.counter, found.solution, found.result.loads[0], 0) if found.result.loads else None

    def test_depth_and_fill(self, rolls):
        """12 × 77 g in 759 cm²: 924 ÷ 1.1 ÷ 759 = 1.107 cm, twice that doubled; 1.217 g/cm² is usual for buns."""
        pan = self.look(rolls, pieces=24, piece_g=77)
        assert (pan.depths.divided_cm, pan.depths.doubled_cm) == (pytest.approx(1.1067, abs=1e-4), pytest.approx(2.2135, abs=1e-4))
        assert (pan.fill_is, pan.past_rim, pan.layout.words) == ("in", False, "3 × 4")

    def test_past_the_rim(self, rolls):
        """A doubled dough that stands above the rim is told."""
        assert self.look(rolls, pieces=12, piece_g=170).past_rim
        assert self.look(rolls, pieces=12, piece_g=170).fill_is == "over"

    def test_a_tin_is_filled_by_volume(self, rolls):
        """1 100 g in 2 541 ml is 0.433 g/ml, usual for an open tin."""
        tin = RectanglePan(length_cm=21, width_cm=11, depth_cm=11)
        pan = self.look(rolls, tin, Usual(pieces_per_pan=1, fill_kind="open_tin"), piece_g=1100, pans=1)
        assert (pan.fill_per, pan.fill_is, pan.layout) == ("volume", "in", None)
        assert pan.fill == pytest.approx(1100 / 2541)

    def test_nothing_to_draw(self, rolls):
        """Without a pan, without a piece, or in a fight there is no drawing."""
        assert self.look(rolls, None) is None
        assert self.look(rolls, divide_g=10, piece_g=80) is None
        assert self.look(rolls, flour_g=1, dough_g=1000) is None
