"""Loads and mixes: how pieces go through oven, pot, griddle and fridge, and dough through the bowl."""

import pytest

from conftest import make_formula
from pancount.core.count.loads import mixes, turns
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import Griddle, RectanglePan, SheetPan
from pancount.core.pans.room import Lot, fridge_room, oven_room
from pancount.core.pantry.role import Role

SHEET = SheetPan(length_cm=46, width_cm=33, depth_cm=2.5)


def lot(pan=None, per_pan=0, across=9.0, minutes=16.0) -> Lot:
    return Lot(pan, per_pan, 7.0, across, 4.0, minutes)


class TestLoads:
    """Sheets a load, loads, and how long the last one waits."""

    KIT = Kit(sheet=SHEET, shelves=2, oven_length_cm=48, oven_width_cm=38, pot_cm=26, griddle=Griddle(diameter_cm=25))

    def test_sheets(self):
        """9 on a sheet, two sheets at once: 40 are 5 sheets in 3 loads, 4 in the last, which waits two loads."""
        (oven,) = turns(make_formula(("f", Role.FLOUR, 100)), lot(), 40, self.KIT)
        assert (oven.per_holder, oven.holders, oven.per_load, oven.loads, oven.last, oven.wait_min) == (9, 5, 18, 3, 4, 32)

    def test_pans_beside_each_other(self):
        """One pan of 33 × 23 lies on a shelf of 48 × 38 lengthwise; turned, two."""
        room = oven_room(lot(RectanglePan(length_cm=33, width_cm=23, depth_cm=5), 12), self.KIT)
        assert (room.holders, room.each, room.loads(24), room.loads(60)) == (4, 12, 1, 2)

    def test_kit_that_is_not_known(self):
        """Nothing is said of what nobody told."""
        assert turns(make_formula(("f", Role.FLOUR, 100)), lot(), 40, Kit()) == ()
        assert oven_room(lot(RectanglePan(length_cm=33, width_cm=23, depth_cm=5), 12), Kit(sheet=SHEET)) is None
        assert fridge_room(lot(), Kit(sheet=SHEET)) is None

    def test_a_griddle_takes_what_lies_on_it(self):
        """Rounds of 7 cm raw on a griddle of 25 cm."""
        formula = make_formula(("f", Role.FLOUR, 100)).model_copy(update={"styles": ("griddle",)})
        (griddle,) = turns(formula, lot(minutes=4), 10, self.KIT)
        assert (griddle.through, griddle.loads, griddle.wait_min) == ("griddle", -(-10 // griddle.per_load), 4 * (griddle.loads - 1))

    @pytest.mark.parametrize(("dough", "number"), [(1600, 1), (1600.0000001, 1), (1601, 2), (4801, 4), (0.5, 1)])
    def test_mixes_are_equal(self, dough, number):
        """As many as the bowl needs, each alike."""
        found = mixes(dough, 1600, stiff=False)
        assert (found.mixes, found.each_g) == (number, pytest.approx(dough / number))

    def test_a_stiff_dough_fills_the_bowl_less(self):
        """4.3 litres take 1 591 g of a soft dough and 1 075 g of a stiff one; what the baker says beats both."""
        kit = Kit(bowl_ml=4300)
        assert (kit.most_dough_g(stiff=False), kit.most_dough_g(stiff=True)) == (pytest.approx(1591), 1075)
        assert Kit(bowl_ml=4300, bowl_g=1200).most_dough_g(stiff=True) == 1200
