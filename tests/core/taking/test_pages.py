"""Whole pages: what each line is, what it makes, and what the method says of heat and time."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pancount.core.pans.pan import RectanglePan, RoundPan, SquarePan
from pancount.core.taking.facts import disagreements, facts
from pancount.core.taking.pages import classify, makes, title, without_number
from pancount.core.taking.vocabulary import shipped_names

NAMES = shipped_names()


def kinds(text: str) -> list[str]:
    return [line.kind for line in classify(text, NAMES)]


CARD = """Squash rolls (makes 16)

4 cups bread flour
1 cup mashed squash
a pinch of salt

For the glaze:
1 egg, beaten

Method
1. Mix it all.
Knead 10 min."""

NO_HEADINGS = """Yogurt flatbreads
300 g plain flour
200 g yogurt
Mix the flour and the yogurt to a soft dough.
Rest for 20 minutes.
Cook on a hot griddle."""

GERMAN = """Kümmelknoten
Ergibt 12 Stück

Zutaten:
500 g Mehl
1 TL Salz

Zubereitung:
Alles verkneten.
Backen bei 220 °C."""


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        (CARD, "title blank ingredient ingredient ingredient blank heading ingredient blank heading step step"),
        (NO_HEADINGS, "title ingredient ingredient step step step"),
        (GERMAN, "title yield blank heading ingredient ingredient blank heading step step"),
        ("500 g flour\n300 g water\n10 g salt", "ingredient ingredient ingredient"),  # no title
        ("INGREDIENTS\n2 eggs\nMETHOD\nBake.", "heading ingredient heading step"),
        ("Buns\n\nDough\n500 g flour\n\nTopping\n50 g sesame", "title blank heading ingredient blank heading ingredient"),
        ("Method:\nMix.\n\nFor the wash:\n1 egg\n", "heading step blank heading ingredient blank"),  # ingredients again
        ("Dear neighbour,\nthank you for the flowers.", "title note"),
        ("Dear neighbour,\nthank you for the honey.", "title note"),  # a sentence is no ingredient
        ("", "blank"),
        ("Notes\nKeeps two days.", "heading note"),
        ("Rolls\nPrep time 20 min\nIngredients\n1x 2x 3x\nUS - metric\n500 g flour", "title note heading note note ingredient"),
        ("Lock buns\n2 eggs", "title ingredient"),
        ("Bialys\nDough\n300 g flour\n\nOnion filling\n1 onion", "title heading ingredient blank heading ingredient"),
        ("Knots\nSponge:\n50 g flour\nDough:\nSponge\n450 g flour", "title heading ingredient heading note ingredient"),
        ("Rolls\n500 g flour\nIngredients for the glaze:\n1 egg", "title ingredient heading ingredient"),
        ("Ingredients\n500 g flour\nbrokkle sauce\n10 g salt", "heading ingredient ingredient ingredient"),
        ("flour 3 cups\nmilk 1 cup", "ingredient ingredient"),  # no title
        ("Bread\nflour 1000 g 100 %\ntotal dough 1700 g", "title ingredient note"),
        ("Barbari\nDough\n450 g flour\nRoomal (glaze)\n1 tbsp flour", "title heading ingredient heading ingredient"),
        ("Loaf\nLevain\n40 g flour\n40 g water\nDough\nall the levain\n400 g flour", "title heading ingredient ingredient heading note ingredient"),
        ("Buns\n500 g flour\nMix and bake.\nMakes 12 buns.", "title ingredient step yield"),
        ("1. Tangzhong\n20 g flour\n2. Dough\nall of the tangzhong\n330 g flour\n1. Mix.", "heading ingredient heading note ingredient step"),
        ("levain (build overnight)\n30 g rye\ndough\nall of levain (keep 20 g)\n400 g rye", "heading ingredient heading note ingredient"),
        ("Bagels — formula for 5 kg flour\n5 kg flour\nnon-stick spray", "title ingredient note"),
        ("Flatbreads\nflour: 400 g\noil - 2 tbsp\ngarlic (3 cloves)", "title ingredient ingredient ingredient"),
        ("Pan bread\nPoolish: 50 g flour, 50 g water\nNext day: all the poolish, 350 g flour, 200 g water", "title ingredient ingredient"),
    ],
)
def test_what_each_line_is(text, expected):
    """Title, yield, headings, ingredients, steps and notes."""
    assert kinds(text) == expected.split()


def test_headings_say_what_is_kept_out():
    """Glaze, filling and bath are not dough; a sponge and a dough are."""
    text = (
        "Bagels\nFor the sponge:\n100 g flour\nDough:\n400 g flour\nFor the honey bath:\n1 tbsp honey\nTopping:\n50 g sesame\n"
        "Zum Bestreichen:\n1 Eigelb\nFor boiling: 2 l water"
    )
    found = {line.text: (line.group, line.apart) for line in classify(text, NAMES) if line.kind == "ingredient"}
    assert found == {
        "100 g flour": ("Sponge", ""),
        "400 g flour": ("Dough", ""),
        "1 tbsp honey": ("Honey bath", "bath"),
        "50 g sesame": ("Topping", "topping"),
        "1 Eigelb": ("Bestreichen", "wash"),
        "For boiling: 2 l water": ("Boiling", "bath"),  # a label heads its own line
    }


@pytest.mark.parametrize(
    ("line", "pieces", "pans", "pan"),
    [
        ("Makes 12", 12, None, None),
        ("Makes 12–16 rolls", 12, None, None),
        ("Yield: 1 dozen buns", 12, None, None),
        ("Makes two 9-inch pans", None, 2, RoundPan(diameter_cm=22.86, depth_cm=5)),
        ("Yield: one 9 x 13-inch pan of 12 buns", 12, 1, RectanglePan(length_cm=33.02, width_cm=22.86, depth_cm=5)),
        ("Makes a 30 cm round pan", None, 1, RoundPan(diameter_cm=30, depth_cm=5)),
        ("Makes 1 20 cm square tin", None, 1, SquarePan(side_cm=20, depth_cm=5)),
        ("Ergibt 12 Brötchen", 12, None, None),
        ("Für 2 Bleche", None, 2, None),
        ("Zutaten für 10 Brötchen", 10, None, None),
        ("(8 bagels, ~ 110 g each)", 8, None, None),
        ("two loaves", 2, None, None),
        ("9x13 pan", None, 1, RectanglePan(length_cm=33.02, width_cm=22.86, depth_cm=5)),  # no unit, so small is inches
        ("20 x 30 pan", None, 1, RectanglePan(length_cm=30, width_cm=20, depth_cm=5)),
        ("Ingredients (makes 8)", 8, None, None),
        ("Serves 8\nEquipment: 23 cm round tin", None, 1, RoundPan(diameter_cm=23, depth_cm=5)),
        ("for 3 hours", None, None, None),
        ("Makes a lot", None, None, None),
    ],
)
def test_what_it_makes(line, pieces, pans, pan):
    """Pieces, pans and the pan's size."""
    found = makes(classify(f"Buns\n{line}\n500 g flour", NAMES), NAMES)
    assert (found.pieces, found.pans, found.pan) == (pieces, pans, pan)


def test_the_title_without_its_yield():
    """What stands in brackets behind the title is what it makes, unless it is something else."""
    for text in ("Squash rolls (makes 16)", "Squash rolls – makes 16", "Squash rolls (ca. 16 Stück)", "Squash rolls x 16"):
        lines = classify(f"{text}\n2 eggs", NAMES)
        assert (title(lines, NAMES), makes(lines, NAMES).pieces) == ("Squash rolls", 16)
    sheet = classify("Lean focaccia (Blech 30x40 cm)\n2 eggs", NAMES)
    assert title(sheet, NAMES) == "Lean focaccia"
    assert makes(sheet, NAMES).pan == RectanglePan(length_cm=40, width_cm=30, depth_cm=5)
    assert makes(classify("Buns (a dozen)\n2 eggs", NAMES), NAMES).pieces == 12
    assert title(classify("Loaf (oat and honey)\n2 eggs", NAMES), NAMES) == "Loaf (oat and honey)"


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("Bake at 190 °C for 18–20 min.", [("heat", 190, 190), ("time", 18, 20)]),
        ("Bake 190°C / 375°F, 25 minutes", [("heat", 190, 190), ("time", 25, 25)]),
        ("450°F (230°C), 15 min", [("heat", 230, 230), ("time", 15, 15)]),  # as it is given, not 232.2
        ("350 F for 1½ hours", [("heat", 176.67, 176.67), ("time", 90, 90)]),
        ("Gas mark 6, half an hour", [("heat", 200, 200), ("time", 30, 30)]),
        ("220 degrees, then 180 degrees", [("heat", 220, 220), ("heat", 180, 180)]),
        ("Milk at 43 °C", [("heat", 43, 43)]),
        ("Boil 30 seconds a side", [("time", 0.5, 0.5)]),
        ("a 23 × 33 cm tin", [("length", 33, 33)]),
        ("Über 8 Stunden bei 5 °C", [("time", 480, 480), ("heat", 5, 5)]),
        ("Rest 2\x1fh", [("time", 120, 120)]),  # whatever stands between them
        ("Let 2 in the bowl", []),
        ("Add 2 c flour", []),
    ],
)
def test_heat_time_and_length(text, expected):
    """In °C, minutes and cm; the second of a pair is the same again."""
    assert [(f.kind, f.low, f.high) for f in facts(text)] == expected


@pytest.mark.parametrize(
    ("text", "wrong"),
    [
        ("180 °C / 320 °F", True),
        ("180 °C / 350 °F", False),  # ovens are marked in steps
        ("180 °C / 356 °F", False),
        ("200 °C (180 °C fan)", False),  # a fan oven is cooler
        ("200 °C (200 °C fan)", True),
        ("9-inch (23 cm) pan", False),
        ("9-inch (30 cm) pan", True),
        ("375 °F (190 °C), gas mark 5", False),
        ("180 °C for 20 min", False),
    ],
)
def test_pairs_that_are_not_the_same(text, wrong):
    """Said in a sentence, with what the other one is."""
    assert bool(disagreements(text)) is wrong


@given(st.text(max_size=400))
@settings(max_examples=150)
def test_any_page_keeps_its_lines(text):
    """No text fails, and each line is there as it was."""
    assert [line.text for line in classify(text, NAMES)] == text.split("\n")
    facts(text)
    disagreements(text)
    without_number(text)
