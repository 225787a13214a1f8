"""Weir House kitchen: a home bakery by a canal lock, in no real place, with numbers of its own invention."""

import re
from decimal import Decimal

from sqlalchemy.orm import Session

from pancount.core.count import Count, Pins
from pancount.core.formula import Formula, Line, Stage, Usual
from pancount.core.pan import RectanglePan, RoundPan
from pancount.core.pantry import pantry
from pancount.core.sheet import Scale
from pancount.store.formulas import keep_new, put_on_desk, save_revision
from pancount.store.kitchens import ONLY_KITCHEN, Settings, open_kitchen
from pancount.store.takings import Taking, start_taking

SCALES = Scale(step=Decimal(1), fine_step=Decimal("0.01"), fine_under=Decimal(25))
"""A 1 g scale, and a 0.01 g scale for small amounts."""

RIMMED = RectanglePan(name="Rimmed pan", length_cm=33, width_cm=23, depth_cm=4.6)
SQUARE_TIN = RectanglePan(name="Square tin", length_cm=28, width_cm=28, depth_cm=5)
HALF_SHEET = RectanglePan(name="Half sheet", length_cm=46, width_cm=33, depth_cm=2.5)
BLACK_PAN = RectanglePan(name="Black steel pan", length_cm=40, width_cm=30, depth_cm=3)
IRON_PAN = RoundPan(name="Iron pan", diameter_cm=30, depth_cm=5)
LOAF_TIN = RectanglePan(name="Two-pound tin", length_cm=21, width_cm=11, depth_cm=11)

_ROLES = {item.name: item.role for item in pantry()}


def _line(text: str) -> Line:
    """A line from "Whole milk 34 %, warm" or "Bread flour 600 g"."""
    found = re.fullmatch(r"(.+) ([\d.]+) (g|%)(?:, (.+))?", text)
    assert found, text
    name, amount, unit, note = found.groups()
    given = {"weight_g" if unit == "g" else "percent": float(amount)}
    return Line(name=name, role=_ROLES[name], note=note or "", **given)


def _stage(name: str, *lines: str) -> Stage:
    return Stage(name=name, lines=tuple(_line(text) for text in lines))


BUNS = Formula(
    name="Cardamom milk buns",
    styles=("enriched", "cooked-flour paste"),
    stages=(
        _stage("Cooked-flour paste", "Bread flour 5 %", "Whole milk 19.2 %, cook to 65 °C, cool to 30 °C"),
        _stage(
            "Dough",
            "Bread flour 95 %",
            "Whole milk 34 %, warm",
            "Egg 11 %, beaten",
            "Butter 12 %, soft, last",
            "Sugar 10 %",
            "Fine salt 1.8 %",
            "Instant yeast 0.9 %",
            "Cardamom, ground 0.3 %",
        ),
    ),
    usual=Usual(piece_g=77, pieces_per_pan=12, pans=2, pan=RIMMED),
)

OTHERS: tuple[tuple[Formula, Count], ...] = (
    (
        Formula(
            name="Oat and honey tin loaf",
            styles=("soft", "soaker"),
            stages=(
                _stage("Soaker", "Rolled oats 80 g", "Water 160 g, boiling, leave 30 min"),
                _stage(
                    "Dough",
                    "Bread flour 450 g",
                    "Wholemeal flour 150 g",
                    "Whole milk 210 g",
                    "Water 40 g",
                    "Honey 45 g",
                    "Butter 30 g, soft",
                    "Fine salt 12 g",
                    "Instant yeast 6 g",
                ),
            ),
            usual=Usual(
                piece_g=1150, pieces_per_pan=1, pans=1, bench_loss=0.015, fill_kind="open_tin", fill=0.46, pan=LOAF_TIN
            ),
        ),
        Count(pins=Pins(pans=2), pan=LOAF_TIN),
    ),
    (
        Formula(
            name="Tomato pan squares",
            styles=("lean", "pan pizza"),
            flour_g=600,
            stages=(
                _stage(
                    "Dough",
                    "Type 00 flour 70 %",
                    "Bread flour 30 %",
                    "Water 70 %",
                    "Olive oil 4 %",
                    "Sugar 1 %",
                    "Fine salt 2.2 %",
                    "Instant yeast 0.5 %",
                ),
            ),
            usual=Usual(piece_g=780, pieces_per_pan=1, pans=1, fill_kind="pan_pizza", fill=0.65, pan=BLACK_PAN),
        ),
        Count(pan=BLACK_PAN),
    ),
    (
        Formula(
            name="Leek and thyme focaccia",
            styles=("wet", "overnight poolish"),
            stages=(
                _stage("Poolish, overnight", "Bread flour 200 g", "Water 200 g", "Instant yeast 0.4 g"),
                _stage(
                    "Dough",
                    "Bread flour 800 g",
                    "Water 580 g",
                    "Olive oil 50 g",
                    "Fine salt 21 g, after the rest",
                    "Instant yeast 4 g",
                ),
                _stage("Folded in", "Leek 160 g, softened and cold", "Thyme 4 g"),
            ),
            usual=Usual(
                piece_g=1370, pieces_per_pan=1, pans=1, bench_loss=0.03, fill_kind="focaccia", fill=0.9, pan=HALF_SHEET
            ),
        ),
        Count(pins=Pins(flour_g=1000, pans=1), pan=HALF_SHEET),
    ),
    (
        Formula(
            name="Yogurt flatbreads",
            styles=("soft", "griddle"),
            stages=(
                _stage(
                    "Dough",
                    "Plain flour 500 g",
                    "Yogurt 250 g, not from the fridge",
                    "Water 90 g",
                    "Olive oil 20 g",
                    "Honey 8 g",
                    "Fine salt 9 g",
                    "Instant yeast 4 g",
                ),
            ),
            usual=Usual(piece_g=85, pieces_per_pan=1, fill_kind="flatbread"),
        ),
        Count(pins=Pins(pieces=10)),
    ),
    (
        Formula(
            name="Caraway knots",
            styles=("stiff", "soda bath"),
            flour_g=800,
            stages=(
                _stage(
                    "Dough",
                    "Bread flour 95 %",
                    "Rye flour 5 %",
                    "Water 52 %",
                    "Butter 5 %, soft",
                    "Malt syrup 2 %",
                    "Fine salt 1.9 %",
                    "Instant yeast 0.8 %",
                    "Caraway seed 1.2 %",
                ),
            ),
            usual=Usual(piece_g=85),
        ),
        Count(pins=Pins(divide_g=1290, piece_g=75)),
    ),
    (
        Formula(
            name="Malted seed bagels",
            styles=("stiff", "overnight chill", "honey bath"),
            stages=(
                _stage(
                    "Dough",
                    "Bread flour 900 g",
                    "Wholemeal flour 100 g",
                    "Water 560 g, cool",
                    "Malt syrup 30 g",
                    "Fine salt 19 g",
                    "Instant yeast 3 g",
                    "Sunflower seeds 60 g",
                    "Sesame seeds 40 g",
                ),
            ),
            usual=Usual(piece_g=110, bench_loss=0.015),
        ),
        Count(pins=Pins(pieces=15)),
    ),
    (
        Formula(
            name="Squash rolls",
            styles=("enriched", "mash"),
            stages=(
                _stage(
                    "Dough",
                    "Bread flour 600 g",
                    "Squash, mashed 240 g, dry and cool",
                    "Whole milk 150 g",
                    "Egg 50 g",
                    "Butter 60 g, soft",
                    "Sugar 40 g",
                    "Fine salt 11 g",
                    "Instant yeast 6 g",
                ),
            ),
            usual=Usual(piece_g=68, pieces_per_pan=16, pans=1, pan=SQUARE_TIN),
        ),
        Count(pan=SQUARE_TIN),
    ),
)


def _with_line(formula: Formula, stage: int, line: int, percent: float) -> Formula:
    """The formula with one line's percentage as it was in an earlier revision."""
    lines = list(formula.stages[stage].lines)
    lines[line] = lines[line].model_copy(update={"percent": percent})
    stages = list(formula.stages)
    stages[stage] = stages[stage].model_copy(update={"lines": tuple(lines)})
    return formula.model_copy(update={"stages": tuple(stages)})


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
    if not open_kitchen(session, ONLY_KITCHEN, "Weir House kitchen", Settings(scale=SCALES)):
        return False
    for formula, count in OTHERS:
        keep_new(session, ONLY_KITCHEN, formula, count, "As first written")
    first = _with_line(_with_line(BUNS, 1, 3, 15), 1, 7, 0.4)
    state = keep_new(session, ONLY_KITCHEN, first, Count(pan=RIMMED), "As first written")
    for revised, note in (
        (_with_line(BUNS, 1, 7, 0.4), "Less butter: 15 was greasy"),
        (BUNS, "A little less cardamom"),
    ):
        state = save_revision(session, ONLY_KITCHEN, state.head.id, revised, state.head.latest_number, note)
    counted = Count(pins=Pins(pieces=24, pans=2), pan=RIMMED)
    put_on_desk(session, ONLY_KITCHEN, state.head.id, BUNS, counted, state.version)
    start_taking(session, ONLY_KITCHEN, Taking(text=CARD))
    return True
