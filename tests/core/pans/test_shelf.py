"""Pans of every shape: what they hold, what they promise, and what stands in for them."""

from math import pi

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from pancount.core.count.count import one_target
from pancount.core.count.solve import solve
from pancount.core.formula.formula import Usual
from pancount.core.pans.compared import Wanted, in_pan, slices, stand_ins
from pancount.core.pans.depths import depths, rungs
from pancount.core.pans.fills import FILL_UNITS, fill_rule, fills, pan_size
from pancount.core.pans.measured import measure, named_size
from pancount.core.pans.pan import (
    SHAPES,
    SOLIDS,
    CupTray,
    Griddle,
    IronPan,
    LiddedTin,
    LoafTin,
    Pan,
    RectanglePan,
    RingPan,
    RoundPan,
    SheetPan,
    SquarePan,
    Stone,
    area_cm2,
    inside_cm2,
    level_cm,
    measured_ml,
    solid,
    volume_ml,
)
from pancount.core.pans.shelf import ShelfPan, common_pans, materials
from strategies import pans


def scaled(pan, by):
    """The same shape with every measure multiplied; what was measured by water goes with the cube."""
    changes = {k: v * by for k, v in pan.__dict__.items() if k.endswith("_cm") and v is not None}
    if measured_ml(pan) is not None:
        changes["brim_ml"] = measured_ml(pan) * by**3
    return pan.model_copy(update=changes)


LOAF = LoafTin(name="Two-pound tin", length_cm=23, width_cm=13, base_length_cm=20, base_width_cm=11, depth_cm=7)
TALL = LoafTin(name="Two-pound tin", length_cm=20, width_cm=11, base_length_cm=18.5, base_width_cm=9.5, depth_cm=11)
RIMMED = RectanglePan(name="Rimmed pan", length_cm=33, width_cm=23, depth_cm=4.6)


def test_every_shape_has_its_solid():
    """A shape without one could not be drawn or filled."""
    assert set(SHAPES) == set(SOLIDS)
    assert all(model.model_fields["shape"].default == shape for shape, (_, model, _) in SHAPES.items())
    assert {bake for _, _, bake in SHAPES.values()} <= set(fills())


@pytest.mark.parametrize(
    ("pan", "ml", "area"),
    [
        # Worked by hand: h/6·(top + 4·middle + base); the middle of 23 × 13 and 20 × 11 is 21.5 × 12.
        (LOAF, 7 / 6 * (299 + 4 * 258 + 220), 258),
        (SquarePan(side_cm=20, depth_cm=5), 2000, 400),
        (LiddedTin(length_cm=33, width_cm=10, depth_cm=10), 3300, 330),
        # A ring of 25 with a tube of 7, straight: π·(25² − 7²)/4·9
        (RingPan(diameter_cm=25, hole_cm=7, depth_cm=9), 3.14159265 * (625 - 49) / 4 * 9, 3.14159265 * 144),
        # Twelve cups 7 across the top and 5 at the base, 3.2 deep: a frustum each
        (CupTray(cups=12, diameter_cm=7, base_diameter_cm=5, depth_cm=3.2), 12 * 3.14159265 * 3.2 / 12 * (49 + 35 + 25), 12 * 3.14159265 * 9),
        (Griddle(diameter_cm=25), 0, 3.14159265 * 625 / 4),
        (Stone(length_cm=38, width_cm=30), 0, 1140),
    ],
)
def test_what_a_pan_holds(pan, ml, area):
    """Brim volume and area at mid-height."""
    found = measure(pan)
    assert (found.volume_ml, found.area_cm2) == (pytest.approx(ml), pytest.approx(area))


def test_water_beats_measures():
    """A tin that holds 2 000 g of water holds 2 000 ml, whatever its measures say; by how much they are off is told."""
    tin = LOAF.model_copy(update={"brim_ml": 2000})
    found = measure(tin)
    assert (found.volume_ml, found.measured_ml) == (2000, 2000)
    assert found.off == pytest.approx(1809.5 / 2000 - 1)
    assert level_cm(tin, 2000) == pytest.approx(7)
    assert level_cm(tin, 1000) < level_cm(LOAF, 1000)


@pytest.mark.parametrize(
    ("name", "dough_g", "size_cm"),
    [
        ("Two-pound tin", 907.18474, None),
        ("1 lb loaf", 453.59237, None),
        ("half-pound", 226.796185, None),
        ("9 × 13", None, (22.86, 33.02)),
        ("9x13 inch", None, (22.86, 33.02)),
        ("33 × 23", None, (33, 23)),  # too large for inches
        ("8½ × 4½ in", None, (21.59, 11.43)),
        ("30 cm iron pan", None, (30,)),
        ("9 in round", None, (22.86,)),
        ("Grandmother's", None, None),
        ("Pan 3", None, None),
    ],
)
def test_what_a_name_promises(name, dough_g, size_cm):
    """Pounds of dough, or a size; a number alone is neither."""
    promise = named_size(name)
    assert promise.dough_g == (None if dough_g is None else pytest.approx(dough_g))
    assert promise.size_cm == (None if size_cm is None else pytest.approx(size_cm))


def test_a_name_is_not_a_size():
    """Two tins of one name: 907 g is in the band of the small one, and less than usual for the tall one."""
    assert measure(LOAF).promise_is == "kept"
    tall = measure(TALL.model_copy(update={"brim_ml": 2600}))
    assert (tall.promise_is, tall.promised_share > 0.2) == ("more", True)
    nine = RoundPan(name="9 in round", diameter_cm=23.5, depth_cm=5)
    assert measure(nine).promised_share == pytest.approx((23.5 / 22.86) ** 2 - 1)


def test_same_dough_in_a_smaller_pan_is_taller():
    """900 g in 759 and in 400 cm²: deeper as the area is less, fuller, and over the rim when doubled."""
    small = SquarePan(side_cm=20, depth_cm=4)
    first, second = (in_pan(pan, 900, fill_rule("pull_apart_buns"), RIMMED) for pan in (RIMMED, small))
    assert second.depths.divided_cm / first.depths.divided_cm == pytest.approx(759 / 400)
    assert (first.fill_is, second.fill_is, second.past_rim) == ("in", "over", True)
    assert second.keeps_g == pytest.approx(900 * 400 / 759)


def test_a_lid_stops_the_dough():
    """Under a lid the loaf is as high as the tin."""
    tin, rule = LiddedTin(length_cm=33, width_cm=10, depth_cm=10), fill_rule("lidded_tin")
    assert depths(tin, 1500, rule).baked_cm == 10
    assert depths(LoafTin(length_cm=33, width_cm=10, depth_cm=10), 1500, rule).baked_cm > 10


@pytest.mark.parametrize(
    ("pan", "words", "pieces"),
    [
        (RIMMED, "3 × 5", 15),
        (LOAF, "slices", 14),
        (RoundPan(diameter_cm=23, depth_cm=5), "wedges", 10),
        (CupTray(cups=6, diameter_cm=9, depth_cm=4), "one from each cup", 6),
        (RingPan(diameter_cm=25, hole_cm=7, depth_cm=9), "wedges", 12),
    ],
)
def test_how_it_is_cut(pan, words, pieces):
    """Slices of a tin, squares of a slab, wedges of a round, one from each cup."""
    found = slices(pan, 5)
    assert (found.words, found.pieces) == (words, pieces)


class TestStandIns:
    """What else on the shelf would take this?"""

    SHELF = (
        (1, ShelfPan(pan=RIMMED)),
        (2, ShelfPan(pan=SquarePan(name="28", side_cm=28, depth_cm=5))),
        (3, ShelfPan(pan=RoundPan(name="small", diameter_cm=20, depth_cm=5), owned=3)),
        (4, ShelfPan(pan=Griddle(diameter_cm=30))),
        (5, ShelfPan(pan=LoafTin(length_cm=10, width_cm=6, depth_cm=5))),
        (6, ShelfPan(pan=RectanglePan(name="shallow", length_cm=33, width_cm=23, depth_cm=1.5))),
    )

    def test_best_first(self):
        """Of a rimmed pan's dough: the square of 784 cm² first, then two rounds of 628, then what strays more."""
        found = stand_ins(Wanted(dough_g=924, fill_kind="pull_apart_buns", pan=RIMMED), self.SHELF)
        assert [(one.key, one.pans) for one in found][:2] == [(2, 1), (3, 2)]
        assert found[0].off == pytest.approx(759 / 784 - 1)
        assert found[0].words == "3 % shallower"

    def test_what_cannot_take_it_is_left_out(self):
        """No griddle for a dough that needs sides, no tin that would overflow, no rim too low, and not the pan itself."""
        found = stand_ins(Wanted(dough_g=924, fill_kind="pull_apart_buns", pan=RIMMED), self.SHELF)
        assert {one.key for one in found} == {2, 3}


@pytest.mark.parametrize("kind", ["focaccia", "pull_apart_buns"])
@given(pans, st.floats(0.3, 3))
def test_a_slab_scales_by_the_square(kind, pan, by):
    """A pan s times as large takes s² of the dough at the same thickness."""
    rule = fill_rule(kind)
    assert pan_size(scaled(pan, by), rule) == pytest.approx(by**2 * pan_size(pan, rule))


@given(pans.filter(lambda pan: volume_ml(pan)), st.floats(0.3, 3))
def test_a_tin_scales_by_the_cube(pan, by):
    """A tin s times as large takes s³ of the dough at the same fill; cups by their share too."""
    for kind in ("open_tin", "cups"):
        rule = fill_rule(kind)
        assert pan_size(scaled(pan, by), rule) == pytest.approx(by**3 * pan_size(pan, rule))


@given(pans, st.floats(1, 5000))
def test_level_dough_has_its_volume(pan, ml):
    """Up to where it stands, the pan holds what was put in: by water, where that was measured."""
    found, deep = solid(pan), level_cm(pan, ml)
    if not found.depth_cm:
        assert deep * found.area(0) == pytest.approx(ml)
    else:
        assert found.volume(deep / found.depth_cm) * volume_ml(pan) / found.volume() == pytest.approx(ml, rel=1e-6)


@given(pans)
def test_dragging_the_line_sets_the_fill_it_shows(pan):
    """Each rung's depth is where a dough of its fill stands."""
    rule = fill_rule("open_tin")
    size = pan_size(pan, rule)
    for rung in rungs(pan, size)[::7]:
        assert depths(pan, rung.fill * size, rule).divided_cm == pytest.approx(rung.depth_cm, rel=1e-5)


@given(pans)
def test_the_inside_is_more_than_the_base(pan):
    """What is oiled: the base, and the sides where there are any."""
    found = solid(pan)
    assert inside_cm2(pan) >= found.area(0) * (1 - 1e-9)
    assert (inside_cm2(pan) > found.area(0)) == (found.depth_cm > 0)


def test_common_sizes_can_be_put_on_the_shelf():
    """Each has a name, a source, and measures that a pan may have."""
    read = TypeAdapter(Pan)
    assert len(common_pans()) >= 30
    for one in common_pans():
        assert one.source and one.pan.name
        assert read.validate_python(one.pan.model_dump()) == one.pan
    assert {one.pan.shape for one in common_pans()} == set(SHAPES)
    assert all(material.source and material.in_the_oven for material in materials().values())


def test_a_hole_wider_than_the_ring_is_refused():
    """It would hold less than nothing."""
    with pytest.raises(ValidationError, match="smaller than the ring"):
        RingPan(diameter_cm=20, hole_cm=20, depth_cm=8)


def test_fills_of_every_kind_fill_the_pan(rolls):
    """Each rule's usual fill in a pan that suits it comes out as that fill; a cup is filled by its share."""
    for kind, pan in (("cups", CupTray(cups=12, diameter_cm=7, depth_cm=3)), ("open_tin", LOAF), ("focaccia", SheetPan(length_cm=46, width_cm=33, depth_cm=2.5)), ("pan_pizza", IronPan(diameter_cm=30, depth_cm=5))):
        formula = rolls.model_copy(update={"usual": Usual(fill_kind=kind, pieces_per_pan=12 if kind == "cups" else 1)})
        result = solve(formula, one_target(pan, pans=1, fill=fill_rule(kind).usual)).result
        dough = result.quantities["take_g.0"].value
        assert dough == pytest.approx(fill_rule(kind).usual * pan_size(pan, fill_rule(kind)))
        if kind == "cups":
            assert dough / 1.1 == pytest.approx(0.6 * volume_ml(pan))


def test_thickness_factor():
    """1 oz/in² is 4.394 g/cm²."""
    assert FILL_UNITS["oz/in²"][1] == pytest.approx(4.394, abs=5e-4)


def test_a_cup_tray_is_offered_inside_its_own_band():
    """Twelve cups at their usual fill stand above the rim when doubled, as they should: a tray like them is offered, and no warning made."""
    tray = CupTray(name="Twelve", cups=12, diameter_cm=7, base_diameter_cm=5, depth_cm=3.2)
    six = CupTray(name="Six", cups=6, diameter_cm=9, base_diameter_cm=7, depth_cm=4)
    dough_g = fill_rule("cups").usual * pan_size(tray, fill_rule("cups"))
    inside = in_pan(tray, dough_g, fill_rule("cups"), tray)
    assert inside.depths.doubled_cm > tray.depth_cm
    assert not inside.past_rim
    found = stand_ins(Wanted(dough_g=dough_g, fill_kind="cups", pan=tray), [(1, ShelfPan(pan=six, owned=2))])
    assert [one.in_pan.pan.name for one in found][:1] == ["Six"]


def test_round_corners_take_from_area_and_volume():
    """Four quarter discs in place of four squares, at every depth; and no more than half of the short side."""
    sharp, round_ = (RectanglePan(length_cm=30, width_cm=20, depth_cm=5, corner_cm=r) for r in (None, 4))
    assert area_cm2(sharp) - area_cm2(round_) == pytest.approx((4 - pi) * 16)
    assert volume_ml(sharp) - volume_ml(round_) == pytest.approx(5 * (4 - pi) * 16)
    with pytest.raises(ValidationError, match="half of the shortest side"):
        RectanglePan(length_cm=30, width_cm=20, depth_cm=5, corner_cm=10.1)
