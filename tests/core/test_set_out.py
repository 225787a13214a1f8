"""Pieces set out on sheets, in the pot and on the griddle; loads, mixes, shapes, labels and small weights."""

from decimal import Decimal
from itertools import combinations, pairwise
from math import hypot, pi

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Point, box

from conftest import make_formula
from pancount.core.beside import pot_water_g, strengths
from pancount.core.count import Count, Limit, Pins, Target, TargetPins, one_target
from pancount.core.formula import Beside, BesideKind, Line, Role, Usual
from pancount.core.kit import Kit
from pancount.core.limits import Lot, fridge_room, oven_room
from pancount.core.loads import mixes, turns
from pancount.core.packing import fit_rectangles, pack, square_rows, staggered_rows
from pancount.core.pan import Griddle, RectanglePan, RoundPan, SheetPan, Stone
from pancount.core.pantry import pantry_with
from pancount.core.practice import Practice
from pancount.core.scale import Scale
from pancount.core.selling import SAFE, SURE, sold, tolerance, tolerances
from pancount.core.shaping import (
    SHAPES,
    Shaping,
    disc_cm,
    disc_thickness_cm,
    rope_cm,
    rope_thickness_cm,
    shape,
    shaped_figures,
)
from pancount.core.sheet import weigh_sheet
from pancount.core.small import dilute, small_weight
from pancount.core.whole import whole_count
from strategies import PANTRY

SHEET = SheetPan(length_cm=46, width_cm=33, depth_cm=2.5)


@given(st.floats(10, 80), st.floats(10, 80), st.floats(3, 20), st.floats(0, 6), st.booleans())
def test_nothing_overlaps_or_leaves_the_sheet(length, width, across, gap, disc):
    """Baked pieces keep their gap and stay on the sheet or in the pot: checked with a geometry library."""
    flat = Griddle(diameter_cm=length) if disc else Stone(length_cm=length, width_cm=width)
    found = pack(flat, across, gap)
    middle = length / 2
    edge = Point(middle, middle).buffer(middle * (1 + 1e-9), quad_segs=256) if disc else box(0, 0, length, width).buffer(1e-6)
    pieces = [Point(p.x_cm, p.y_cm).buffer(across / 2 * (1 - 1e-4)) for p in found.places]
    assert len(pieces) == found.holds or found.holds > 400
    assert all(edge.buffer(1e-3 * across).contains(piece) for piece in pieces)
    for a, b in combinations(found.places, 2):
        assert hypot(a.x_cm - b.x_cm, a.y_cm - b.y_cm) >= (across + gap) * (1 - 1e-9)


@given(st.floats(10, 60), st.floats(10, 60), st.floats(4, 16), st.floats(0, 5))
def test_rows_are_counted_one_by_one(length, width, across, gap):
    """Staggered rows against a count that lays piece after piece until none fits."""
    pitch, rows, y, n = across + gap, [], across / 2, 0
    while y + across / 2 <= width + 1e-9 and across <= length:
        x, own = across / 2 + (pitch / 2 if n % 2 else 0), 0
        while x + across / 2 <= length + 1e-9:
            x, own = x + pitch, own + 1
        rows.append(own)
        y, n = y + pitch * 3**0.5 / 2, n + 1
    assert staggered_rows(length, width, across, gap) == rows
    assert pack(Stone(length_cm=length, width_cm=width), across, gap).holds >= max(
        sum(rows), sum(square_rows(length, width, across, gap))
    )


@pytest.mark.parametrize(
    ("length", "width", "across", "way", "holds"),
    [
        # 13 cm from one to the next, staggered rows 11.3 apart
        (46, 33, 9, "staggered", 9),  # 3, 3, 3; straight there is room for two rows
        (39, 39, 9, "square", 9),  # 3 × 3; staggered 3, 2, 3
        (8, 8, 9, "square", 0),  # none
        (100, 9, 9, "square", 8),  # one row
    ],
)
def test_square_or_staggered(length, width, across, way, holds):
    """Whichever holds more; straight rows where they hold as many."""
    found = pack(Stone(length_cm=length, width_cm=width), across, 4)
    assert (found.way, found.holds) == (way, holds)


@given(st.floats(20, 80), st.floats(20, 80), st.floats(5, 40), st.floats(5, 40))
def test_pans_on_a_shelf_fit_by_area_and_at_least_by_rows(length, width, a, b):
    """Never more than the area holds, never fewer than straight rows either way."""
    found = fit_rectangles((length, width), (a, b))
    rows = [int(length / x + 1e-9) * int(width / y + 1e-9) for x, y in ((a, b), (b, a))]
    assert max(rows) <= found <= length * width / (a * b) + 1e-9
    assert fit_rectangles((width, length), (b, a)) == found


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


class TestShaping:
    """By volume: what a piece of a weight comes out as."""

    @given(st.floats(10, 500), st.floats(0.3, 5))
    def test_half_the_piece_is_half_as_long(self, piece, thick):
        """A rope of the same thickness."""
        assert rope_cm(piece / 2, thick) == pytest.approx(rope_cm(piece, thick) / 2)
        assert rope_thickness_cm(piece, rope_cm(piece, thick)) == pytest.approx(thick)
        assert disc_thickness_cm(piece, disc_cm(piece, thick)) == pytest.approx(thick)

    def test_a_ring(self):
        """110 g at 2.6 cm: a rope of 18.8 cm closes, less 2 of overlap, around 5.36 cm; 2.76 are open; doubled it is as long and √2 as thick: 1.68."""
        ring = shape(Shaping(kind="ring", thickness_cm=2.6), 110, 1)
        assert ring.length_cm == pytest.approx(4 * 110 / (1.1 * pi * 2.6**2))
        assert ring.opening_cm == pytest.approx((ring.length_cm - 2) / pi - 2.6)
        assert ring.risen_opening_cm == pytest.approx((ring.length_cm - 2) / pi - 2.6 * 2**0.5)
        assert shape(Shaping(kind="ring", thickness_cm=4), 110, 1).risen_opening_cm == 0

    def test_a_log(self):
        """12 pieces of 75 g from a log of 36 cm are cut every 3 cm; it is as thick as 900 g ask for."""
        log = shape(Shaping(kind="log", length_cm=36), 75, 12)
        assert (log.slice_cm, log.cuts) == (3, 12)
        assert pi / 4 * log.thickness_cm**2 * 36 * 1.1 == pytest.approx(900)

    @pytest.mark.parametrize("kind", SHAPES)
    def test_every_shape_has_figures_that_open(self, kind):
        """Each figure is what its inputs make, and none is nothing."""
        shaping = Shaping(kind=kind)
        shaped = shape(shaping, 85, 10)
        figures = shaped_figures(shaping, shaped)
        assert figures
        assert all(figure.value > 0 and figure.inputs for figure in figures.values())
        for figure in figures.values():
            assert all("{" + one.name + "}" in figure.reads for one in figure.inputs)


class TestSelling:
    """Labels: how far a piece may stray, and what to aim for."""

    @pytest.mark.parametrize(
        ("label", "rules", "grams"),
        [(50, "EU", 4.5), (51, "EU", 4.5), (150, "EU", 6.8), (155, "EU", 7.0), (35, "EU", 3.2), (250, "EU", 9), (400, "EU", 12), (750, "EU", 15), (80, "US", 5.4), (500, "US", 21.7), (30, "US", 3)],
    )
    def test_tolerance(self, label, rules, grams):
        """By the table of each; on a border both rows of the EU table agree."""
        assert tolerance(label, rules).of(label) == pytest.approx(grams)

    def test_outside_of_the_table(self):
        """A label too small or too large has no tolerance, and only the average is looked after."""
        found = sold(12_000, 10, 0.1, 5, "EU")
        assert (found.tolerance_g, found.least_g) == (None, None)
        assert found.overweight_g == pytest.approx(SAFE * 4.5 / 10**0.5)

    @pytest.mark.parametrize("rules", ["EU", "US"])
    def test_tables_have_no_gaps(self, rules):
        """Each row goes on where the one before ends, with a source; tolerances never fall."""
        table = tolerances(rules)
        assert all(a.up_to_g == b.over_g for a, b in pairwise(table))
        assert all(row.source for row in table)
        grams = [row.of(row.up_to_g) for row in table]
        assert grams == sorted(grams)

    def test_an_even_hand_aims_lower(self):
        """With no straying nothing is added; with more of it, what binds goes from the average to single pieces."""
        assert sold(80, 24, 0.1, 0, "EU").aim_baked_g == 80
        even, uneven = (sold(80, 24, 0.1, spread, "EU") for spread in (1.5, 6))
        assert "average" in even.says
        assert even.overweight_g == pytest.approx(SAFE * 1.35 / 24**0.5)
        assert uneven.overweight_g == pytest.approx(SURE * 5.4 - 9)
        assert uneven.aim_raw_g == pytest.approx(uneven.aim_baked_g / 0.9)


class TestSmallWeights:
    """What a scale cannot weigh well, and the cures."""

    def test_how_far_out(self):
        """2 g of yeast on a 1 g scale may be 25 % out; 25 g are weighed well; nothing is not small."""
        small = small_weight("Yeast", 2, Decimal(1), 1, 300, Decimal(1), 15)
        assert (small.off, small.finer_step) == (0.25, Decimal("0.01"))
        assert small_weight("Yeast", 25, Decimal(1), 1, 300, Decimal(1), 15) is None
        assert small_weight("Yeast", 0, Decimal(1), 1, 300, Decimal(1), 15) is None

    def test_once_for_all_mixes(self):
        """9 g for one of three mixes: 27 g once are weighed well."""
        assert small_weight("Yeast", 9, Decimal(1), 3, 0, Decimal(1), 0).at_once == 27

    @given(st.floats(0.05, 12), st.floats(150, 2000))
    def test_a_dilution_holds_what_was_wanted(self, amount, water):
        """What is taken has the wanted amount in it, within 3 %, and no more water than there is; the whole is weighed well."""
        found = dilute(amount, Decimal(1), water, Decimal(1))
        if found is None:
            return
        strength = found.whole / (found.whole + found.water)
        assert float(found.take * strength) == pytest.approx(amount, rel=0.03)
        assert found.whole >= 20
        assert float(found.take) - amount + float(found.water_left) == pytest.approx(water, abs=1)
        assert found.water_left > 0

    def test_too_little_water_to_dilute_in(self):
        """A dough with 30 g of water has none to spare."""
        assert dilute(2, Decimal(1), 30, Decimal(1)) is None


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


class TestSheetForTheKitchen:
    """Per mix, with what the scale shows, and all that it makes at the foot."""

    KIT = Kit(bowl_g=1000, sheet=SHEET, shelves=2)

    def test_equal_mixes_add_up(self, rolls):
        """2 500 g of flour are 4 075 g: five mixes of 500 g flour; what is printed times five is the dough."""
        sheet = weigh_sheet(rolls, one_target(flour_g=2500), Scale(), kit=self.KIT)
        assert (sheet.mixes, sheet.flour, sheet.printed_total) == (5, 500, 815)
        assert sheet.targets[0].pieces == int(2500 * 1.63 * 0.98 / 80)

    def test_what_the_scale_shows(self, rolls):
        """Set to nothing with the bowl on, each line adds to what it shows."""
        (stage,) = weigh_sheet(rolls, one_target(flour_g=500), Scale()).stages
        assert [line.running for line in stage.lines] == [500, 800, 810, 815]

    def test_targets_at_the_foot(self, rolls):
        """Each with its weight, pan, loads, shape, and how light one may be that is sold."""
        count = Count(
            pins=Pins(flour_g=1000),
            targets=(
                Target(name="buns", pins=TargetPins(pieces=10, piece_g=80), label_g=70),
                Target(pins=TargetPins(pieces=1), pan=RoundPan(diameter_cm=30, depth_cm=5)),
            ),
            limits=(Limit(kind="flour", amount=1000),),
        )
        buns, pan = weigh_sheet(rolls, count, Scale(), kit=self.KIT).targets
        assert (buns.name, buns.pieces, buns.piece, buns.least) == ("buns", 10, 80, 61)
        assert (pan.pieces, pan.loads[0].pans, pan.pan.shape) == (1, 1, "round")
        assert buns.turns[0].through == "oven"
