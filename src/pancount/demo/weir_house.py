"""Weir House kitchen: a home bakery by a canal lock, in no real place, with numbers of its own invention."""

import re
from decimal import Decimal
from functools import cache

from sqlalchemy.orm import Session

from pancount.core.base.scale import Scale
from pancount.core.count.count import Count, Pins, Target, TargetPins, one_target
from pancount.core.count.limits import Limit
from pancount.core.formula.formula import Beside, BesideKind, Feed, Formula, Line, Stage, StageKind, Usual, with_line
from pancount.core.formula.outlines import shipped_line
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import (
    AnyPan,
    CupTray,
    Griddle,
    IronPan,
    LiddedTin,
    LoafTin,
    RectanglePan,
    RingPan,
    RoundPan,
    SheetPan,
    SquarePan,
    Stone,
)
from pancount.core.pans.shaping import Shaping
from pancount.core.pans.shelf import ShelfPan
from pancount.demo.bench import at_the_bench
from pancount.demo.book import keep_book
from pancount.demo.methods import with_ways
from pancount.demo.saturday import saturday
from pancount.store.day import start_day
from pancount.store.formula import keep_new, put_on_desk, save_revision
from pancount.store.kitchen import ONLY_KITCHEN, Settings, open_kitchen
from pancount.store.pans import add_pan
from pancount.store.taking import Taking, start_taking

SCALES = Scale(step=Decimal(1), fine_step=Decimal("0.01"), fine_under=Decimal(25))
"""A 1 g scale, and a 0.01 g scale for small amounts."""

RIMMED: AnyPan = RectanglePan(name="Rimmed pan", length_cm=33, width_cm=23, depth_cm=4.6)
SQUARE_TIN = SquarePan(name="Square tin", side_cm=28, base_side_cm=27, depth_cm=5)
HALF_SHEET = SheetPan(name="Half sheet", length_cm=46, width_cm=33, depth_cm=2.5)
BLACK_PAN = RectanglePan(name="Black steel pan", length_cm=40, width_cm=30, base_length_cm=39, base_width_cm=29, depth_cm=3)
IRON_PAN = IronPan(name="Iron pan", diameter_cm=30, base_diameter_cm=26, depth_cm=5)
LOAF_TIN = LoafTin(
    name="Two-pound tin", length_cm=22, width_cm=11.5, base_length_cm=20.5, base_width_cm=10.5, depth_cm=11, brim_ml=2510
)
LONG_TIN = LoafTin(
    name="Two-pound tin, long", length_cm=27.5, width_cm=12, base_length_cm=25.5, base_width_cm=10.5, depth_cm=7.5
)
GRIDDLE = Griddle(name="Griddle", diameter_cm=25)
SHELF: tuple[ShelfPan, ...] = (
    ShelfPan(pan=RIMMED, material="aluminium_light", owned=2),
    ShelfPan(pan=SQUARE_TIN, material="steel_light", sticks=True),
    ShelfPan(pan=HALF_SHEET, material="aluminium_light", owned=2),
    ShelfPan(pan=BLACK_PAN, material="steel_dark", colour="black"),
    ShelfPan(pan=IRON_PAN, material="cast_iron", colour="black"),
    ShelfPan(pan=LOAF_TIN, material="steel_light", owned=2, note="The tall one from the market"),
    ShelfPan(pan=LONG_TIN, material="aluminium_dark", colour="grey"),
    ShelfPan(pan=LiddedTin(name="Lidded tin", length_cm=33, width_cm=10, depth_cm=10), material="steel_dark", colour="blue"),
    ShelfPan(
        pan=RingPan(name="Ring tin", diameter_cm=25, base_diameter_cm=21, hole_cm=7, base_hole_cm=9, depth_cm=9),
        material="aluminium_dark",
        sticks=True,
    ),
    ShelfPan(pan=CupTray(name="Twelve cups", cups=12, diameter_cm=7, base_diameter_cm=5, depth_cm=3.2), material="silicone"),
    ShelfPan(pan=RoundPan(name="9 in round", diameter_cm=23.5, depth_cm=5), material="aluminium_light"),
    ShelfPan(pan=GRIDDLE, material="cast_iron"),
    ShelfPan(pan=Stone(name="Oven stone", length_cm=38, width_cm=30), material="stone"),
)
"""Every shape there is."""

KIT = Kit(
    bowl_ml=4300,
    sheet=HALF_SHEET,
    sheets=2,
    shelves=2,
    oven_length_cm=48,
    oven_width_cm=38,
    pot_cm=26,
    pot_ml=6000,
    griddle=GRIDDLE,
    fridge_length_cm=50,
    fridge_width_cm=40,
    spread_g=1.5,
)


def _line(text: str, **more: object) -> Line:
    """A line from "Whole milk 34 %, warm" or "Bread flour 600 g"."""
    found = re.fullmatch(r"(.+?) ([\d.]+) (g|%)(?:, (.+))?", text)
    assert found, text
    name, amount, unit, note = found.groups()
    given = {"weight_g" if unit == "g" else "percent": float(amount)}
    return shipped_line(name, note=note or "", **given, **more)


def _stage(name: str, kind: StageKind, *lines: str | Line, **more: object) -> Stage:
    made = tuple(_line(line) if isinstance(line, str) else line for line in lines)
    return Stage.model_validate({"name": name, "kind": kind, "lines": made, **more})


def _beside(name: str, kind: BesideKind, *lines: str) -> Beside:
    return Beside(name=name, kind=kind, lines=tuple(map(_line, lines)))


BUNS = Formula(
    name="Cardamom milk buns",
    styles=("enriched", "cooked-flour paste"),
    stages=(
        _stage(
            "Cooked-flour paste",
            StageKind.PASTE,
            "Bread flour 5 %",
            "Whole milk 19.2 %, cook to 65 °C, cool to 30 °C",
            boiled_off=0.06,
        ),
        _stage(
            "Dough",
            StageKind.DOUGH,
            "Bread flour 95 %",
            _line("Whole milk 34 %, warm", held_back=0.1),
            "Egg 11 %, beaten",
            _line("Butter 12 %, soft, last", parts=3),
            "Sugar 10 %",
            "Fine salt 1.8 %",
            "Instant yeast 0.9 %",
            "Cardamom, ground 0.3 %",
        ),
    ),
    beside=(
        _beside("Wash", BesideKind.WASH, "Egg yolk 18 g, beaten", "Whole milk 15 g"),
        _beside("Topping", BesideKind.TOPPING, "Pearl sugar 40 g"),
        _beside("For the pans", BesideKind.PAN_OIL, "Butter 16 g, soft"),
    ),
    usual=Usual(piece_g=77, pieces_per_pan=12, pans=2, pan=RIMMED),
)

OTHERS: tuple[tuple[Formula, Count], ...] = (
    (
        Formula(
            name="Oat and honey tin loaf",
            styles=("soft", "soaker"),
            stages=(
                _stage("Sponge", StageKind.SPONGE, "Bread flour 150 g", "Whole milk 150 g, 28 °C", "Instant yeast 2 g"),
                _stage("Soaker", StageKind.SOAKER, "Rolled oats 80 g", "Water 160 g, boiling, leave 30 min"),
                _stage(
                    "Dough",
                    StageKind.DOUGH,
                    "Bread flour 300 g",
                    "Wholemeal flour 150 g",
                    "Whole milk 60 g",
                    _line("Water 40 g", held_back=0.5),
                    "Honey 45 g",
                    "Butter 30 g, soft",
                    "Fine salt 12 g",
                    "Instant yeast 4 g",
                ),
            ),
            beside=(
                _beside("Topping", BesideKind.TOPPING, "Rolled oats 20 g"),
                _beside("For the tin", BesideKind.PAN_OIL, "Butter 8 g, soft"),
            ),
            usual=Usual(
                piece_g=1150, pieces_per_pan=1, pans=1, bench_loss=0.015, fill_kind="open_tin", fill=0.46, pan=LOAF_TIN
            ),
        ),
        one_target(LOAF_TIN, pans=2),
    ),
    (
        Formula(
            name="Tomato pan squares",
            styles=("lean", "pan pizza"),
            flour_g=600,
            stages=(
                _stage(
                    "Starter, first step",
                    StageKind.LEVAIN,
                    "Sourdough starter 2 %, ripe",
                    "Type 00 flour 4 %",
                    "Water 4 %, 26 °C, 6 h",
                    feeds=(Feed(into="second"),),
                ),
                _stage(
                    "Starter, second step",
                    StageKind.LEVAIN,
                    "Type 00 flour 10 %",
                    "Water 10 %, 26 °C, 4 h",
                    key="second",
                    feeds=(Feed(into="dough", share=0.9),),
                ),
                _stage(
                    "Dough",
                    StageKind.DOUGH,
                    "Type 00 flour 56.5 %",
                    "Bread flour 30 %",
                    _line("Water 56.5 %", held_back=0.1),
                    "Olive oil 4 %",
                    "Sugar 1 %",
                    "Fine salt 2.2 %",
                    "Instant yeast 0.3 %",
                    key="dough",
                ),
            ),
            beside=(
                _beside("For the pan", BesideKind.PAN_OIL, "Olive oil 15 g"),
                _beside(
                    "On top", BesideKind.TOPPING, "Tomatoes, chopped 250 g, drained", "Mozzarella 180 g", "Oregano, dried 1 g"
                ),
            ),
            usual=Usual(piece_g=780, pieces_per_pan=1, pans=1, fill_kind="pan_pizza", fill=0.65, pan=BLACK_PAN),
        ),
        one_target(BLACK_PAN),
    ),
    (
        Formula(
            name="Leek and thyme focaccia",
            styles=("wet", "overnight poolish"),
            stages=(
                _stage(
                    "Poolish, overnight", StageKind.POOLISH, "Bread flour 200 g", "Water 200 g", "Instant yeast 0.4 g"
                ),
                _stage(
                    "Dough",
                    StageKind.DOUGH,
                    "Bread flour 800 g",
                    _line("Water 580 g", held_back=0.1),
                    "Instant yeast 4 g",
                ),
                _stage("After 20 min", StageKind.LATE, "Fine salt 21 g", _line("Olive oil 50 g", parts=2)),
                _stage("Folded in", StageKind.INCLUSIONS, "Leek 160 g, softened and cold", "Thyme 4 g"),
            ),
            beside=(_beside("For the pan", BesideKind.PAN_OIL, "Olive oil 30 g"),),
            usual=Usual(
                piece_g=1370, pieces_per_pan=1, pans=1, bench_loss=0.03, fill_kind="focaccia", fill=0.9, pan=HALF_SHEET
            ),
        ),
        # A half sheet, and what is left in the round iron pan.
        Count(
            pins=Pins(flour_g=1000),
            targets=(
                Target(name="half sheet", pins=TargetPins(pans=1, fill=0.9), pan=HALF_SHEET),
                Target(name="what is left", pins=TargetPins(pieces=1, pieces_per_pan=1), pan=IRON_PAN),
            ),
        ),
    ),
    (
        Formula(
            name="Yogurt flatbreads",
            styles=("soft", "griddle"),
            stages=(
                _stage(
                    "Autolyse, 30 min",
                    StageKind.AUTOLYSE,
                    "Plain flour 500 g",
                    "Yogurt 250 g, not from the fridge",
                    "Water 90 g",
                ),
                _stage("Dough", StageKind.DOUGH, "Olive oil 20 g", "Honey 8 g", "Fine salt 9 g", "Instant yeast 4 g"),
            ),
            beside=(
                _beside("Topping, brushed on warm", BesideKind.TOPPING, "Butter 30 g", "Garlic 4 g", "Parsley 5 g"),
                _beside("For the bench", BesideKind.BENCH, "Plain flour 25 g"),
            ),
            usual=Usual(
                piece_g=85, pieces_per_pan=1, fill_kind="flatbread", shaping=Shaping(kind="disc", thickness_cm=0.4)
            ),
        ),
        one_target(pieces=10),
    ),
    (
        Formula(
            name="Caraway knots",
            styles=("stiff", "soda bath"),
            flour_g=800,
            stages=(
                _stage("Biga, overnight", StageKind.BIGA, "Bread flour 20 %", "Water 11 %, cool", "Instant yeast 0.05 %"),
                _stage(
                    "Dough",
                    StageKind.DOUGH,
                    "Bread flour 75 %",
                    "Rye flour 5 %",
                    "Water 41 %",
                    "Butter 5 %, soft",
                    "Malt syrup 2 %",
                    "Fine salt 1.9 %",
                    "Instant yeast 0.75 %",
                    "Caraway seed 1.2 %",
                ),
            ),
            beside=(
                _beside("Soda bath", BesideKind.BATH, "Water 2500 g", "Baking soda 125 g"),
                _beside("Topping", BesideKind.TOPPING, "Coarse salt 12 g"),
            ),
            usual=Usual(piece_g=85, fill_kind="knots_apart", shaping=Shaping(kind="knot", thickness_cm=1.6)),
        ),
        one_target(divide_g=1290, piece_g=75),
    ),
    (
        Formula(
            name="Malted seed bagels",
            styles=("stiff", "overnight chill", "honey bath"),
            stages=(
                _stage(
                    "Soaker, overnight", StageKind.SOAKER, "Sunflower seeds 60 g", "Sesame seeds 40 g", "Water 40 g, cool"
                ),
                _stage(
                    "Old dough, from the last batch",
                    StageKind.OLD_DOUGH,
                    "Bread flour 100 g",
                    "Water 58 g",
                    "Fine salt 2 g",
                    "Instant yeast 0.3 g",
                ),
                _stage(
                    "Dough",
                    StageKind.DOUGH,
                    "Bread flour 800 g",
                    "Wholemeal flour 100 g",
                    "Water 462 g, cool",
                    "Malt syrup 30 g",
                    "Fine salt 17 g",
                    "Instant yeast 2.7 g",
                ),
            ),
            beside=(
                _beside("Honey bath", BesideKind.BATH, "Water 4000 g", "Honey 30 g"),
                _beside("Topping", BesideKind.TOPPING, "Sesame seeds 30 g"),
            ),
            usual=Usual(
                piece_g=110, bench_loss=0.015, fill_kind="bagels_apart", shaping=Shaping(kind="ring", thickness_cm=2.6)
            ),
        ),
        Count(limits=(Limit(kind="oven", amount=1), Limit(kind="flour", amount=1500))),
    ),
    (
        Formula(
            name="Squash rolls",
            styles=("enriched", "mash"),
            stages=(
                _stage("Scald, an hour ahead", StageKind.SCALD, "Bread flour 60 g", "Water 60 g, boiling, cool to 30 °C"),
                _stage("Squash mash", StageKind.MASH, "Squash, mashed 240 g, dry and cool"),
                _stage(
                    "Dough",
                    StageKind.DOUGH,
                    "Bread flour 540 g",
                    _line("Whole milk 90 g", held_back=0.2),
                    "Egg 50 g",
                    "Butter 60 g, soft",
                    "Sugar 40 g",
                    "Fine salt 11 g",
                    "Instant yeast 6 g",
                ),
            ),
            beside=(
                _beside("Filling", BesideKind.FILLING, "Cream cheese 160 g, cold", "Chives 8 g"),
                _beside("Wash", BesideKind.WASH, "Egg yolk 18 g", "Whole milk 15 g"),
                _beside("For the bench", BesideKind.BENCH, "Bread flour 15 g"),
            ),
            usual=Usual(piece_g=68, pieces_per_pan=16, pans=1, pan=SQUARE_TIN),
        ),
        one_target(SQUARE_TIN),
    ),
)


FORMULAS: tuple[tuple[Formula, Count], ...] = ((BUNS, one_target(RIMMED, pieces=24, pans=2)), *OTHERS)


@cache
def examples() -> tuple[tuple[Formula, Count], ...]:
    """Every formula of the demo kitchen with the ways it is made in and its count, for a kitchen that wants to look at some."""
    return tuple((with_ways(formula), count) for formula, count in FORMULAS)

CARD = """Squash rolls, the old card (makes 16)

4 cups bread flour
1 cup mashed squash
3/4 cup warm milk
1 egg
1/4 cup soft butter, plus more for the pan
2 heaped Tbsp sugar
2 tsp salt
1 packet dry yeast

For the wash:
1 yolk, beaten with 1 tbsp milk

Method
1. Wake the yeast in the warm milk, 38 to 43 °C, 5–10 min.
2. Mix with the rest and knead 10 min. Rise until doubled, 1½ h.
3. Divide into 16, round up, rise 45 min in the pan.
4. Wash the tops. Bake 190 °C / 375 °F, 18–20 min.
"""
"""A recipe that waits to be taken in, in cups."""


def fill_demo_kitchen(session: Session) -> bool:
    """Make the demo kitchen, once. True if it was made now."""
    if not open_kitchen(session, ONLY_KITCHEN, "Weir House kitchen", Settings(scale=SCALES, kit=KIT)):
        return False
    for shelved in SHELF:
        add_pan(session, ONLY_KITCHEN, shelved)
    (buns, pinned), *others = examples()
    for formula, count in others:
        keep_new(session, ONLY_KITCHEN, formula, count, "As first written")
    first = with_line(with_line(buns, 1, 3, percent=15.0), 1, 7, percent=0.4)
    state = keep_new(session, ONLY_KITCHEN, first, one_target(RIMMED), "As first written")
    for revised, note in (
        (with_line(buns, 1, 7, percent=0.4), "Less butter: 15 was greasy"),
        (buns, "A little less cardamom"),
    ):
        state = save_revision(session, ONLY_KITCHEN, state.head.id, revised, state.count, state.version, note)
    put_on_desk(session, ONLY_KITCHEN, state.head.id, buns, pinned, state.version)
    start_taking(session, ONLY_KITCHEN, Taking(text=CARD))
    start_day(session, ONLY_KITCHEN, saturday(session))
    at_the_bench(session, KIT, SCALES)
    keep_book(session, KIT, SCALES)
    return True
