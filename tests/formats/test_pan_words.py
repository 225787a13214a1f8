"""Pans, shapes and loads as they are said on paper."""

import pytest

from pancount.core.count.loads import Turns
from pancount.core.pans.packing import pack
from pancount.core.pans.pan import CupTray, LoafTin, RingPan, SheetPan, SquarePan
from pancount.core.pans.shaping import SHAPES, Shaping, shape
from pancount.formats.pan_words import pan_words, shape_words, turns_words


@pytest.mark.parametrize(
    ("pan", "unit", "words"),
    [
        (SquarePan(name="Square tin", side_cm=28, depth_cm=5), "cm", "Square tin, 28 × 28 cm"),
        (LoafTin(length_cm=22.86, width_cm=12.7, base_length_cm=20, depth_cm=7), "in", "9 × 5 in"),
        (RingPan(name="Ring", diameter_cm=25, hole_cm=7, depth_cm=9), "cm", "Ring, 25 cm across with a hole of 7"),
        (CupTray(cups=12, diameter_cm=7, depth_cm=3), "cm", "12 cups 7 cm across"),
    ],
)
def test_pans(pan, unit, words):
    """By their top, in the kitchen's unit."""
    assert pan_words(pan, unit) == words


@pytest.mark.parametrize(
    ("kind", "words"),
    [
        ("ball", "round up: a ball about 6.7 cm across"),
        ("disc", "roll out to 12.8 cm across, 0.6 cm thick"),
        ("rope", "a rope 24.6 cm long, 2 cm thick"),
        ("knot", "a rope 38.4 cm long, 1.6 cm thick, knotted"),
        ("ring", "a rope 14.6 cm long, 2.6 cm thick, closed to a ring with an opening of 1.4 cm (0.3 cm when doubled)"),
        ("log", "a log 30 cm long, 6.3 cm thick: 12 pieces, cut every 2.5 cm"),
    ],
)
def test_shapes(kind, words):
    """85 g in each shape, by its usual measure; worked by hand from 77.3 ml."""
    assert kind in SHAPES
    assert shape_words(shape(Shaping(kind=kind), 85, 12), "cm") == words


def test_a_ring_that_closes():
    """Said, so that the rope is rolled thinner."""
    assert "closes as it doubles" in shape_words(shape(Shaping(kind="ring", thickness_cm=4), 85, 1), "cm")


def test_loads():
    """How many, what lies on each, and how long the last one waits."""
    packing = pack(SheetPan(length_cm=46, width_cm=33, depth_cm=2.5), 9, 4)
    oven = Turns("oven", None, packing, 9, 5, 2, 18, 3, 4, 16.0, 32.0)
    assert turns_words(oven) == f"Oven: 3 loads of up to 18 (9 on each sheet, {packing.words}); the last waits 32 min"
    fridge = Turns("fridge", None, None, 12, 2, 4, 48, 1, 24, None, None)
    assert turns_words(fridge) == "Fridge: 1 load of up to 48"
