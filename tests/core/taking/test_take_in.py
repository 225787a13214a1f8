"""A recipe as a whole: what the dough may be, what is asked, what is settled, and the formula made of it."""

import random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from core.taking.corpus import cases
from pancount.core.base import most
from pancount.core.base.errors import TooMuch
from pancount.core.count.solve import solve
from pancount.core.formula.gauges import character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.pans.pan import RoundPan
from pancount.core.pantry.ingredients import pantry_with
from pancount.core.pantry.measures import System
from pancount.core.taking.dough import Dough
from pancount.core.taking.habits import CupWeighing, Habits, Kitchen
from pancount.core.taking.make import make_formula
from pancount.core.taking.page import Page
from pancount.core.taking.take_in import take_in
from pancount.core.taking.taken import Settled

CARD = """Squash rolls (makes 16)

For the paste:
25 g bread flour
125 ml milk

For the dough:
4 cups bread flour
1 cup mashed squash
1 egg
1/4 cup soft butter, plus more for the pan
2 tsp salt
1 packet dry yeast

For the wash:
1 yolk, beaten with 1 tbsp milk

Method
1. Wake the yeast at 43 °C, 5–10 min.
2. Bake 190 °C / 320 °F, 18–20 min."""


def read(text: str, settled=(), **kitchen):
    return take_in(text, settled, Kitchen(**kitchen))


def figure(taken, key: str):
    return next(f for f in taken.figures if f.key == key)


def thing(taken, text: str, part: int = 0):
    return next(t for line in taken.lines if line.text == text for t in line.things if t.part == part)


PROSE = """Plain rolls
Scald 1 cup milk. Add 1/4 cup butter, 1 tsp fine salt. Dissolve 1 cube of fresh yeast in 1/4 cup warm water.
Mix with 1 egg and 4 1/2 cups bread flour. Let rise 1 hour. Brush with 2 tbsp melted butter and bake at 200 °C."""


def test_a_card_without_a_list():
    """What its sentences measure is taken, each thing once; what is brushed on is no dough; they stay its steps."""
    taken = read(PROSE)
    things = [(t.amount, t.name, t.where) for line in taken.lines for t in line.things]
    assert things == [
        ("1 cup", "Whole milk", "dough"),
        ("¼ cup", "Butter", "dough"),
        ("1 tsp", "Fine salt", "dough"),
        ("1 cube", "Fresh yeast", "dough"),
        ("¼ cup", "Water", "dough"),
        ("1", "Egg", "dough"),
        ("4½ cups", "Bread flour", "dough"),
        ("2 tbsp", "Butter", "wash"),
    ]
    told = [(step.kind, step.text) for step in make_formula(taken)[0].ways[0].steps]
    assert told == [
        ("scald", "Scald 1 cup milk"),
        ("add", "Add 1/4 cup butter, 1 tsp fine salt"),
        ("dissolve", "Dissolve 1 cube of fresh yeast in 1/4 cup warm water"),
        ("mix", "Mix with 1 egg and 4 1/2 cups bread flour"),
        ("rise", "Let rise 1 hour"),
        ("wash", "Brush with 2 tbsp melted butter"),
        ("bake", "Bake at 200 °C"),
    ]
    assert not [t for line in read(f"Rolls\n500 g flour\n{PROSE}").lines if line.kind == "step" for t in line.things]
    german = read("Zopf\nAlles mischen: 500 g Mehl, 250 ml Milch. Mit 1 Eigelb bestreichen, mit 2 EL Mohn bestreuen.")
    assert [t.where for line in german.lines for t in line.things] == ["dough", "dough", "wash", "topping"]
    assert not [t for line in read("Thank you for the 3 jars of honey.").lines for t in line.things]  # a letter


def test_numbers_without_a_unit():
    """One too large for anything else makes grams of all, and says so; eggs stay eggs. Alone, small ones are asked about."""
    taken = read("Leek focaccia\n500 strong flour\n400 water\n10 fine salt\n2 eggs")
    assert [t.band.usual_g for line in taken.lines for t in line.things][:3] == [500, 400, 10]
    assert thing(taken, "10 fine salt").state == "no unit: read as grams"
    assert thing(taken, "2 eggs").amount == "2"
    asked = thing(read("Rolls\n3 strong flour\n2 water"), "3 strong flour")
    assert (asked.band, asked.asks) == (None, "What does 3 of it weigh?")


def test_the_text_is_kept_as_it_was():
    """Line by line, whatever they were taken to be."""
    assert "\n".join(line.text for line in read(CARD).lines) == CARD


class TestFigures:
    """What the dough may be."""

    def test_by_hand(self):
        """500 g flour, 300 g water, 100 g milk of 88.2 % water, 10 g salt, 5 g instant yeast; all weighed."""
        taken = read("500 g bread flour\n300 g water\n100 g whole milk\n10 g fine salt\n5 g instant yeast")
        assert figure(taken, "liquid").usual == pytest.approx(80)
        assert figure(taken, "water").usual == pytest.approx((300 + 88.2 + 10 * 0.002 + 5 * 0.05) / 5)
        # 10 g, 0.1 g in the milk, and traces in water, flour and yeast
        assert figure(taken, "salt").usual == pytest.approx((10 + 0.1 + 0.03 + 0.05 + 0.0065) / 5, abs=0.002)
        assert figure(taken, "yeast").usual == pytest.approx(1)
        assert taken.flour.usual_g == 500

    def test_yeasts_as_instant(self):
        """3 fresh : 1.2 active dry : 1 instant."""
        for line in ("15 g fresh yeast", "6 g active dry yeast", "5 g instant yeast"):
            assert figure(read(f"500 g flour\n{line}"), "yeast").usual == pytest.approx(1)

    def test_the_line_behind_the_range_is_named_with_its_cure(self):
        """Four cups of flour matter more than a cup of squash."""
        water = figure(read(CARD), "water")
        assert water.blame == "Bread flour"
        assert water.share > 0.5
        assert water.cure == "Weigh it once, as you fill it: 4 cups."
        assert water.low < water.usual < water.high

    def test_what_is_kept_out_does_not_count(self):
        """A wash, pan oil and bench flour are in no figure."""
        plain = "500 g flour\n300 g water"
        more = plain + "\n50 g flour for dusting\n1 egg, for brushing\n2 tbsp olive oil for the pan"
        assert read(plain).figures == read(more).figures

    def test_percent_of_flour(self):
        """A formula in percent alone is reckoned on 1 000 g; one with its flour weighed, on that."""
        assert thing(read("Bread flour 100 %\nWater 65 %"), "Water 65 %").band.usual_g == pytest.approx(650)
        assert thing(read("400 g bread flour\nWater 65 %"), "Water 65 %").band.usual_g == pytest.approx(260)
        assert figure(read("400 g bread flour\nWater 65 %"), "liquid").usual == pytest.approx(65)

    @pytest.mark.parametrize("text", ["", "300 g water", "zibrul", "0 g flour\n10 g salt", "1 cup"])
    def test_without_flour_there_are_no_figures(self, text):
        assert read(text).figures == ()

    @given(st.lists(st.sampled_from([c.line for c in cases()]), min_size=1, max_size=12), st.randoms())
    @settings(max_examples=60)
    def test_what_the_baker_has_lies_in_the_range(self, lines, rng: random.Random):
        """However the open answers turn out, and whatever each line weighs then, every figure is in its range."""
        page = Page("\n".join([*lines, "3 cups bread flour"]), (), Kitchen())
        dough = Dough(page, page.habits)
        weighed = rng.choice(dough.ways)
        flour = 0.0
        counted = dict.fromkeys(dough.ranges, 0.0)
        for line in weighed:
            grams = rng.uniform(line.band.low_g, line.band.high_g)
            flour += grams * line.flour
            for key in counted:
                counted[key] += grams * rng.uniform(line.shares[key][0], line.shares[key][2])
        for key, found in dough.ranges.items():
            assert found.low - 1e-6 <= 100 * counted[key] / flour <= found.high + 1e-6
            assert found.low <= found.usual <= found.high

    @given(st.lists(st.sampled_from([c.line for c in cases()]), min_size=1, max_size=10))
    @settings(max_examples=40)
    def test_answers_never_widen_a_range(self, lines):
        """Saying how a cup is filled leaves every range within what it was."""
        text = "\n".join([*lines, "3 cups bread flour"])
        before = {f.key: f for f in read(text).figures}
        for way in ("scooped", "spooned"):
            for f in read(text, habits=Habits(cup_way=way)).figures:
                assert before[f.key].low - 1e-9 <= f.low
                assert f.high <= before[f.key].high + 1e-9


class TestQuestions:
    """Asked where the answer moves the dough."""

    def test_most_first_and_each_with_its_effect(self):
        """The salt moves its figure most; every answer says what it makes of it."""
        asked = read(CARD).questions
        assert 2 <= len(asked) <= 6
        moves = [q.moves for q in asked]
        assert moves == sorted(moves, reverse=True)
        salt = next(q for q in asked if q.key == "salt")
        assert [(e.option, e.figure) for e in salt.effects] == [(o, "Salt") for o in ("Fine salt", "Flaky salt", "Coarse salt")]
        assert salt.effects[0].usual > salt.effects[1].usual
        way = next(q for q in asked if q.key == "cup_way")
        assert {e.option: round(e.usual) for e in way.effects if e.figure == "Liquid"} or way.effects[0].figure == "True water"

    def test_an_answer_is_what_the_figure_becomes(self):
        """The effect that was shown is the figure once it is answered, to the digits that weights then have (a narrower band bears more)."""
        for q in read(CARD).questions:
            for effect in q.effects:
                then = read(CARD, habits=Habits(**{q.key: effect.option}))
                assert next(f.usual for f in then.figures if f.label == effect.figure) == pytest.approx(effect.usual, rel=1e-3)

    def test_what_does_not_matter_is_not_asked(self):
        """A recipe in grams asks nothing; one egg in ten kilos neither."""
        assert read("500 g bread flour\n300 g water\n10 g fine salt\n5 g instant yeast").questions == ()
        assert "egg" not in {q.key for q in read("10 kg bread flour\n6 kg water\n1 egg").questions}

    def test_answered_ones_come_last_with_their_answer(self):
        """They can be changed."""
        asked = read(CARD, habits=Habits(salt="Fine salt")).questions
        assert asked[-1].key == "salt"
        assert asked[-1].answer == "Fine salt"
        assert all(q.answer is None for q in asked[:-1])

    def test_the_page_may_say_whose_cups_it_uses(self):
        """Sticks and °F are US, a German page is metric; then it is not asked."""
        american = read("2 cups all-purpose flour\n1 stick butter\n1 cup milk")
        assert american.hint == "us"
        assert "system" not in {q.key for q in american.questions}
        german = read("2 Tassen Mehl\n1 EL Zucker\n1 TL Salz")
        assert german.hint == "metric"
        assert read("2 cups strong flour, 1 stick butter\nBake at 190 °C").hint is None


    def test_whose_cups_is_said_for_one_recipe(self):
        """The baker's word stands before the page's own, and that before the kitchen's: the cup is the author's."""
        text, kitchen = "2 cups all-purpose flour\n1 cup water", Kitchen(habits=Habits(system="metric"))
        water = [thing(take_in(text, (), kitchen, system), "1 cup water").band.usual_g for system in (None, System.BRITISH, System.IMPERIAL)]
        assert water == [237, 245, 285]
        assert thing(take_in("1 cup water", (), kitchen), "1 cup water").band.usual_g == 250


class TestSettling:
    """By hand, and for good."""

    def test_a_weight_by_hand_is_what_it_is(self):
        taken = read(CARD, [Settled(written="4 cups bread flour", weight_g=560)])
        flour = thing(taken, "4 cups bread flour")
        assert (flour.band.low_g, flour.band.usual_g, flour.band.high_g) == (559.5, 560, 560.5)
        assert flour.settled

    @pytest.mark.parametrize(
        ("what", "field", "value"),
        [
            ({"name": "Rye flour"}, "name", "Rye flour"),
            ({"name": "zibrul", "role": "flour"}, "known", False),
            ({"where": "bench"}, "where", "bench"),
            ({"way": "spooned"}, "way", "spooned"),
        ],
    )
    def test_name_place_and_way(self, what, field, value):
        taken = read(CARD, [Settled(written="4 cups bread flour", **what)])
        assert getattr(thing(taken, "4 cups bread flour"), field) == value

    def test_the_size_of_an_egg(self):
        """For one line, whatever the kitchen's eggs are."""
        taken = read(CARD, [Settled(written="1 egg", way="XL")], habits=Habits(egg="S"))
        assert thing(taken, "1 egg").ways == ("S", "M", "L", "XL")
        assert thing(taken, "1 egg").band.usual_g == 66

    def test_one_of_the_things_on_a_line(self):
        """The butter for the pan, not the butter in the dough."""
        line = "1/4 cup soft butter, plus more for the pan"
        taken = read(CARD, [Settled(written=line, part=1, weight_g=10, where="dough")])
        assert thing(taken, line, 1).where == "dough"
        assert thing(taken, line, 0).band.usual_g == 56.8

    def test_an_alternative(self):
        """ "25 g fresh yeast or 1 packet dry yeast": the other one, with its own amount."""
        line = "25 g fresh yeast or 1 packet dry yeast"
        taken = read(line, [Settled(written=line, alternative=0)])
        assert thing(taken, line).band.usual_g == 7
        assert thing(taken, line).name == "Instant yeast"

    def test_what_a_line_is(self):
        """A note is made an ingredient, an ingredient a step."""
        text = "500 g flour\n2 cups of it"
        assert [line.kind for line in read(text, [Settled(written="2 cups of it", kind="note")]).lines] == ["ingredient", "note"]

    def test_it_stays_with_its_line_wherever_that_goes(self):
        """Lines above it change nothing; of two alike lines only the one it was said of is settled."""
        settled = [Settled(written="1 cup flour", nth=1, weight_g=99)]
        before = read("1 cup flour\n1 cup flour", settled)
        after = read("Buns\n\n2 eggs\n1 cup flour\n1 tsp salt\n1 cup flour", settled)
        for taken in (before, after):
            assert [t.settled for line in taken.lines if line.text == "1 cup flour" for t in line.things] == [False, True]

    def test_own_cup_shrinks_the_range(self):
        """Weighed once, the flour is no longer behind most of it as it was."""
        habits = Habits(cup_way="scooped", system="us")
        cup = CupWeighing(ingredient="Bread flour", measure="cup", way="scooped", count=2, weight_g=290)
        before, after = figure(read(CARD, habits=habits), "water"), figure(read(CARD, habits=habits, cups=(cup,)), "water")
        assert after.high - after.low < 0.8 * (before.high - before.low)


class TestOpenLines:
    """A line that is not understood becomes a question, not a guess."""

    @pytest.mark.parametrize(
        ("line", "asks"),
        [
            ("3 cups zibrul", "does not know zibrul"),
            ("salt", "It does not say how much fine salt. What do you put in?"),
            ("1 bunch honey", "What does 1 bunch of it weigh?"),
            ("a glug of olive oil", "may be anything from"),
            ("100 g butter, divided", "more than one place"),
            ("1 cup", "not understood"),
        ],
    )
    def test_what_is_open_is_said(self, line, asks):
        assert asks in thing(read(f"500 g flour\n{line}"), line).asks

    def test_what_may_be_a_stage_from_above_would_count_twice(self):
        """All of it is a note; a part of it is asked about; what only sounds like it is an ingredient."""
        page = "Levain:\n40 g flour\nPaste:\n20 g flour\nDough:\n400 g flour\n"
        assert read(f"{page}all the levain").lines[-1].kind == "note"
        assert "already" in thing(read(f"{page}50 g levain"), "50 g levain").asks
        assert thing(read(f"{page}50 g almond paste"), "50 g almond paste").asks == ""

    def test_a_stage_is_known_by_what_it_is_called_in_short(self):
        """ "all the levain" is the levain build of above; raisins are not asked about."""
        page = "Levain build, overnight:\n40 g flour\nDough:\n400 g flour\n"
        assert read(f"{page}all the levain").lines[-1].kind == "note"
        assert "already" in thing(read(f"{page}50 g levain"), "50 g levain").asks
        assert thing(read(f"{page}50 g raisins"), "50 g raisins").asks == ""

    def test_a_disagreement_is_told_with_what_was_taken(self):
        """Two cups of flour are not 400 g; the weight was taken."""
        taken = read("2 cups (400 g) bread flour")
        assert taken.lines[0].disagrees == ("2 cups and 400 g are not the same: 236–330 g against 400 g. Taken as 400 g.",)
        assert read("2 cups (300 g) bread flour").lines[0].disagrees == ()
        assert read(CARD).lines[-1].disagrees == ("190 °C and 320 °F are not the same: 320 °F is 160 °C.",)


class TestFormula:
    """The formula made of it."""

    def test_stages_beside_steps_and_text(self):
        """Headings become stages; wash and pan fat stand beside; each line keeps its text and band."""
        formula, count = make_formula(read(CARD))
        assert [(s.name, len(s.lines)) for s in formula.stages] == [("Paste", 2), ("Dough", 6)]
        assert {s.name: [line.name for line in s.lines] for s in formula.beside} == {
            "For the pan": ["Butter"],
            "Wash": ["Egg yolk", "Whole milk"],
        }
        flour = formula.stages[1].lines[0]
        assert (flour.weight_g, flour.written, flour.band.high_g) == (600, "4 cups bread flour", 698)
        assert formula.stages[0].lines[0].band is None  # 25 g is weighed
        assert formula.stages[1].lines[3].note == "softened"
        wake, bake, flagged = formula.ways[0].steps
        assert (flagged.kind, flagged.text) == ("note", "190 °C and 320 °F are not the same: 320 °F is 160 °C.")
        assert (wake.kind, wake.text, bake.kind, bake.text) == ("wake", "Wake the yeast at 43 °C, 5–10 min", "bake", "Bake 190 °C / 320 °F, 18–20 min")
        assert (bake.lasts.low_min, bake.lasts.high_min, bake.heat.high_c) == (18, 20, 190)
        assert count.targets[0].pins.pieces == 16
        assert solve(formula, count).result.quantities["flour_g"].value == pytest.approx(625)

    @pytest.mark.parametrize(
        ("line", "grams", "held"),
        [
            ("330 g water, hold back 30 g", 330, 30),
            ("300 g water + 30 g held back", 330, 30),
            ("330 g water, hold back 2 tbsp", 330, 2 * 14.78676),
            ("350 g water, held back", 350, 0),  # how much is not said
            ("350 g water, hold back 900 g", 350, 0),  # more than there is
        ],
    )
    def test_what_is_held_back_is_part_of_its_line(self, line, grams, held):
        """Not another line, and in the note as it was said."""
        formula, _ = make_formula(read(f"500 g flour\n{line}"))
        (water,) = (x for x in formula.stages[0].lines if x.name == "Water")
        assert (water.weight_g, water.weight_g * water.held_back) == (grams, pytest.approx(held))

    def test_kinds_of_stages_and_a_starter_with_its_flour(self):
        """Headings tell what each stage is; the page and the formula count the starter's flour alike."""
        taken = read("Levain:\n20 g sourdough starter\n50 g flour\n50 g water\nDough:\n450 g flour\n300 g water\nFolded in:\n100 g raisins")
        formula, _ = make_formula(taken)
        assert [stage.kind for stage in formula.stages] == ["levain", "dough", "inclusions"]
        assert formula.stages[0].lines[0].hydration == 100
        reckoned = reckon(formula)
        assert (reckoned.flour_g, reckoned.flour_g) == (510, taken.flour.usual_g)
        gauges = character(formula, reckoned, pantry_with(()), Practice()).gauges
        for key in ("liquid", "water", "salt", "sugars"):
            assert gauges[key].value == pytest.approx(figure(taken, key).usual)

    def test_the_formula_says_the_same_as_the_page(self):
        """Liquid % on the formula is the usual liquid % on the page."""
        taken = read(CARD)
        formula, _ = make_formula(taken)
        assert reckon(formula).liquid_percent == pytest.approx(figure(taken, "liquid").usual)

    def test_a_whole_pan_keeps_its_thickness(self):
        """Two 9-inch rounds: the flour is pinned with them, so the fill is the recipe's own."""
        formula, count = make_formula(read("Pan squares\nMakes two 9-inch pans\n500 g flour\n350 g water\n10 g salt"))
        assert count.targets[0].pan == RoundPan(diameter_cm=22.86, depth_cm=5)
        assert (count.targets[0].pins.pans, count.pins.flour_g) == (2, 500)
        result = solve(formula, count).result
        assert not result.fights
        assert result.quantities["piece_g.0"].value == pytest.approx(860 * 0.98 / 2, rel=1e-3)

    @given(st.lists(st.sampled_from([c.line for c in cases()] + ["Makes 12", "For the wash:", "Method:", "Mix."]), max_size=15))
    @settings(max_examples=60)
    def test_any_page_makes_a_formula(self, lines):
        """Nothing fails; each thing in the dough is a line, each thing beside it stands beside.

        What a second thing of a line holds back is part of the line before it.
        """
        taken = read("\n".join(lines))
        formula, _ = make_formula(taken)
        things = [t for line in taken.lines for t in line.things if not (t.part and t.state.startswith("held back"))]
        assert sum(len(s.lines) for s in formula.stages) == sum(t.where == "dough" for t in things)
        assert sum(len(s.lines) for s in formula.beside) == sum(t.where != "dough" for t in things)


@pytest.mark.parametrize("much", ["999999999 kg", "999999999", "0.000000001 g", "0 cups", "999999999 %", "999999999 cups", "1-999999999 cups", "1 cup minus 9 cups"])
@pytest.mark.parametrize("of", ["flour", "water", "eggs", "salt"])
def test_any_amount_whatever(much, of):
    """More than can be weighed is cut off at ten tonnes, less than nothing at nothing; a formula is made all the same."""
    cup = CupWeighing(ingredient="Water", measure="cup", count=0.1, weight_g=9e6)
    text = f"Big (makes 999999999)\n{much} {of}\n500 g flour\n{much} honey\nBake at 999999999 °F for 999999999 days in a 999999999 inch pan"
    taken = read(text, cups=(cup,))
    assert all(t.band is None or 0 <= t.band.low_g <= t.band.high_g <= 10_000_000 for line in taken.lines for t in line.things)
    make_formula(taken)


def test_any_text_is_taken_in():
    """Odd pages of all sorts: nothing fails, and the same page reads the same."""
    for text in ("\n" * 2000, "½" * 500, "1 cup\n" * 190, "x" * 60_000, "1/0 cups flour", "\u202e flour 500 g", "9" * 400 + " g flour"):
        assert read(text) == read(text)


def test_more_than_a_recipe_is_refused_and_not_cut():
    """Of more things than any recipe has; on one line, or on many."""
    for text in ("1 cup\n" * (most.RECIPE_THINGS + 1), "Mix 500 g flour with 300 g water and 10 g salt then add 7 g yeast.\n" * 60):
        with pytest.raises(TooMuch, match="more than 200 things to weigh"):
            read(text)
