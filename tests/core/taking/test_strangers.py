"""Whole recipes in strangers' hands, each set with the share of its things that must be read right and may be wrong in silence.

First readings, before anything was done about them: seen 59 % right and 16 % silently wrong of 281 things; held_back 55 and 28 %
of 135; later 69 and 1 % of 94; blind 68 and 5.5 % of 128; last 66 and 4.3 % of 92; fresh 85
and 4.3 % of 93. Each set was written before anything was done about it, and in this order. The shares below are what is reached now.
"""

import pytest

from core.taking.strangers import Mark, recipes, score, shares
from pancount.core.pans.pan import RoundPan
from pancount.core.taking.habits import Kitchen
from pancount.core.taking.make import make_formula
from pancount.core.taking.take_in import take_in
from pancount.core.taking.taken import Settled, TakenIn, Thing

KITCHEN = Kitchen()


@pytest.mark.parametrize(
    ("file", "right", "wrong"),
    [("seen.txt", 0.98, 0.005), ("held_back.txt", 0.95, 0.01), ("later.txt", 0.95, 0.01), ("blind.txt", 0.88, 0.01), ("last.txt", 0.88, 0.01), ("fresh.txt", 0.95, 0.01)],
)
def test_the_share_that_is_read_right(file, right, wrong):
    """And the share that is wrong and not asked about, which matters more."""
    marks: list[Mark] = [mark for recipe in recipes(file) for mark in score(recipe, KITCHEN)]
    found = shares(marks)
    silent = [mark for mark in marks if mark.verdict == "wrong"]
    assert found["right"] >= right, found
    assert found["wrong"] <= wrong, silent


def read(text: str, *settled: Settled) -> TakenIn:
    return take_in(text, settled, KITCHEN)


def things(taken: TakenIn) -> dict[str, Thing]:
    return {thing.name: thing for line in taken.lines for thing in line.things}


BASE = "500 g bread flour\n300 g water\n10 g salt\n7 g instant yeast\n"


class TestGroups:
    """A heading that is not known to be dough is one question for all under it."""

    TEXT = f"Knots\nDough\n{BASE}\nMystery part\n40 g sesame seeds\n20 g honey"

    def test_it_is_asked_once_with_the_likeliest_answer(self):
        """Kept out of the dough until the baker says."""
        taken = read(self.TEXT)
        (head,) = (line for line in taken.lines if line.asks)
        assert (head.text, head.where) == ("Mystery part", "topping")
        assert things(taken)["Sesame seeds"].where == things(taken)["Honey"].where == "topping"

    def test_one_answer_settles_all_of_it(self):
        """In either direction, and nothing is asked any more."""
        taken = read(self.TEXT, Settled(written="Mystery part", where="dough"))
        assert not any(line.asks for line in taken.lines)
        assert things(taken)["Sesame seeds"].where == things(taken)["Honey"].where == "dough"

    @pytest.mark.parametrize(
        ("heading", "where"),
        [
            ("To boil", "bath"), ("For the crosses", "topping"), ("Topping bits", "topping"), ("To finish", "topping"), ("Outside", "topping"),
            ("Crumb", "topping"), ("Brine", "topping"), ("Decoration", "topping"), ("Roll-in", "filling"), ("Zum Bestreuen", "topping"),
            ("Zum Wälzen", "topping"), ("Zum Bestreichen", "wash"), ("What you'll need (outside)", "topping"), ("Per pan:", "topping"),
            ("After 20 min:", "dough"), ("Next day:", "dough"), ("Final", "dough"), ("Folded in", "dough"), ("Scald", "dough"),
        ],
    )  # fmt: skip
    def test_known_headings(self, heading, where):
        """No question, and where everybody puts it."""
        taken = read(f"Buns\nDough\n{BASE}\n{heading}\n40 g sesame seeds\n30 g butter")
        assert {t.where for name, t in things(taken).items() if name in ("Sesame seeds", "Butter")} == {where}
        assert not any(line.asks for line in taken.lines)


class TestMethod:
    """Where the method puts things."""

    def test_bath_wash_and_topping(self):
        """By amount where several lines are of one thing."""
        taken = read(
            f"Knots\n{BASE}3 l water\n60 g baking soda\n1 egg yolk\n1 tbsp water\n20 g sesame seeds\n\nMix the flour, the 300 g of water, salt and yeast."
            "\nBring the 3 l of water and the soda to a boil.\nBeat the yolk with the tablespoon of water and brush the tops.\nSprinkle with sesame."
        )
        where = [(t.name, t.where) for line in taken.lines for t in line.things]
        assert where[4:] == [("Water", "bath"), ("Baking soda", "bath"), ("Egg yolk", "wash"), ("Water", "wash"), ("Sesame seeds", "topping")]
        assert [place for _, place in where[:4]] == ["dough"] * 4

    def test_what_is_mixed_too_is_asked(self):
        """Half of the butter in the dough, the rest brushed on: neither is known, so neither is moved."""
        taken = read(f"Buns\n{BASE}60 g butter\n\nMix flour, water, salt, yeast and half of the butter.\nBrush with the rest of the butter.")
        butter = things(taken)["Butter"]
        assert (butter.where, butter.asks) == ("dough", "By the method some of it is brushed on: say how much is in the dough.")

    def test_all_the_salt_stays(self):
        """A method that sprinkles salt does not empty the dough of it."""
        assert things(read(f"Buns\n{BASE}\nMix everything and knead.\nSprinkle with salt."))["Fine salt"].where == "dough"


class TestProportion:
    """Never silence."""

    @pytest.mark.parametrize(
        ("more", "name", "says"),
        [
            ("500 g milk", "Whole milk", "Liquid would be 160 %"),
            ("60 g baking soda", "Baking soda", "12 % of the flour. Is it for a bath?"),
            ("400 g sugar", "Sugar", "Sugars would be 80 %"),
            ("40 g fine salt", "Fine salt", "Salt would be"),
            ("70 g instant yeast", "Instant yeast", "Yeast would be"),
            ("1200 g cheddar", "Cheddar", "would be 240 % of the flour"),
        ],
    )
    def test_at_the_line(self, more, name, says):
        """What no dough has is a question at the line that brings it; said to be right, it is quiet."""
        taken = read(f"Buns\n{BASE}{more}")
        asked = [t for line in taken.lines for t in line.things if says in t.asks]
        assert [t.name for t in asked] == [name]
        line = next(line for line in taken.lines if any(says in t.asks for t in line.things))
        settled = read(f"Buns\n{BASE}{more}", Settled(written=line.text, where="dough"))
        assert not any(says in t.asks for line in settled.lines for t in line.things)

    def test_no_salt_and_no_flour(self):
        """Told of the whole; not of an ordinary dough, nor of one whose only salt is in butter and cheese."""
        assert "no salt" in " ".join(read(BASE.replace("10 g salt\n", "50 g sugar\n")).doubts)
        assert "no flour" in " ".join(read("300 g water\n10 g salt\n7 g instant yeast").doubts)
        assert read(BASE).doubts == ()


class TestNames:
    """The head word decides, slips are mended, and both are asked about."""

    @pytest.mark.parametrize(
        ("line", "name"),
        [
            ("30 g buttermilk powder", "Buttermilk powder"), ("60 g milk chocolate", "Milk chocolate"), ("25 g apple butter", "Apple butter"),
            ("50 g cream of wheat", "Semolina"), ("15 g coconut milk powder", "Coconut milk powder"), ("5 g nutritional yeast", "Nutritional yeast"),
            ("2 g yeast food", "Yeast food"), ("100 g full-fat yogurt", "Yogurt"), ("40 g caustic soda", "Lye"), ("20 g sugar (like honey)", "Sugar"),
        ],
    )  # fmt: skip
    def test_the_head_word(self, line, name):
        """Not what else stands in the name, nor in brackets behind it."""
        thing = read(line).lines[0].things[0]
        assert thing.name == name

    @pytest.mark.parametrize(("word", "name"), [("suger", "Sugar"), ("watter", "Water"), ("margerine", "Margarine"), ("cinammon", "Cinnamon, ground")])
    def test_slips_are_offered(self, word, name):
        """As a question, that one press answers."""
        line = f"20 g {word}"
        thing = read(line).lines[0].things[0]
        assert (thing.name, thing.confirms) == (name, "name")
        assert f"“{word}” is read as" in thing.asks
        assert read(line, Settled(written=line, name=name)).lines[0].things[0].asks == ""

    def test_partly_known(self):
        """Said, and taken for the likeliest."""
        thing = read("40 g goat butter").lines[0].things[0]
        assert (thing.name, "“goat” is not known" in thing.asks) == ("Butter", True)

    def test_lye_is_a_bath_with_its_caution_and_no_weight_of_a_spoon(self):
        """Wherever it stands in the list."""
        thing = things(read(f"Knots\n{BASE}2 tbsp lye"))["Lye"]
        assert (thing.where, thing.band) == ("bath", None)
        assert "goggles and gloves" in thing.caution


class TestAlternatives:
    """One or the other, never a sum."""

    LINE = "1 cup milk, or 3/4 cup water + 1/4 cup dried milk"

    def test_the_first_stands_in(self):
        """And the other is offered."""
        (thing,) = read(self.LINE).lines[0].things
        assert (thing.name, thing.alternatives) == ("Whole milk", ("Water",))

    def test_the_other_brings_all_its_parts(self):
        """Water and milk powder."""
        taken = read(self.LINE, Settled(written=self.LINE, alternative=0))
        assert [t.name for t in taken.lines[0].things] == ["Water", "Milk powder, skimmed"]


class TestMakes:
    """What comes of it."""

    @pytest.mark.parametrize(
        ("line", "pieces", "people"),
        [
            ("2 doz.", 24, None), ("(gives 22–24)", 22, None), ("8 big ones", 8, None), ("(Teig für ca. 12 Stück)", 12, None),
            ("Makes 1 dozen (3-inch)", 12, None), ("Serves 8", None, 8), ("Servings: 12", None, 12), ("Für 4 Personen", None, 4),
            ("makes 15 in a 9x13", 15, None), ("I made these 40 times with 2 bowls", None, None),
        ],
    )  # fmt: skip
    def test_counts(self, line, pieces, people):
        """Pieces, people, or neither."""
        made = read(f"Lock buns\n{line}\n{BASE}").makes
        assert (made.pieces, made.people) == (pieces, people)

    def test_in_a_sentence_at_the_end(self):
        """Where a card says it among its steps; people are never pinned."""
        taken = read(f"Lock buns\n{BASE}\nMix, knead and rise. Makes 16 small rolls. Serves 8.")
        assert taken.makes.pieces == 16
        _, count = make_formula(read(f"Lock buns\nServes 8\n{BASE}"))
        assert count.targets[0].pins.pieces is None

    def test_a_small_round_is_a_piece(self):
        """A pan of 9 in is one, a bun of 3 in is none."""
        assert read(f"Lock buns\nMakes 12 (3-inch)\n{BASE}").makes.pan is None
        assert read(f"Lock buns\nMakes one 9-inch round\n{BASE}").makes.pan == RoundPan(diameter_cm=22.86, depth_cm=5)


class TestWhoseCups:
    """A page that says what its cup holds is believed; a British one of today means 240 to 250 ml."""

    @pytest.mark.parametrize(
        ("says", "grams"),
        [("Cup = 250 ml", 250), ("I use 240 ml cups", 240), ("(1 cup is 200 ml)", 200), ("50 g caster sugar", 245), ("1 stick butter", 237)],
    )
    def test_a_cup_of_water(self, says, grams):
        """To a gram."""
        taken = read(f"Buns\n{says}\n500 g flour\n1 cup water")
        assert things(taken)["Water"].band.usual_g == pytest.approx(grams, abs=1.5)


def test_a_cups_weight_keeps_no_false_digits():
    """85 g of 78 to 124, not 85.12; a weight keeps what it says, and so does what the baker settles."""
    honey = read("1/4 cup honey").lines[0].things[0].band
    assert honey.usual_g == round(honey.usual_g)
    assert read("85.12 g honey").lines[0].things[0].band.usual_g == 85.12
    assert read("1/4 cup honey", Settled(written="1/4 cup honey", weight_g=84.25)).lines[0].things[0].band.usual_g == 84.25


def test_what_is_beside_is_asked_about_too():
    """A topping that nobody knows, and one whose measure weighs nobody knows what; a wash with no amount is no question."""
    taken = read(f"Buns\n{BASE}\nTopping:\n30 g zibrul\n2 sprigs pearl sugar\nWash:\nmilk")
    asked = {thing.name: thing.asks for line in taken.lines for thing in line.things if thing.where != "dough"}
    assert "does not know zibrul" in asked["zibrul"]
    assert "weigh?" in asked["Pearl sugar"]
    assert asked["Whole milk"] == ""
    order = [taken.lines[n].text for n in taken.open_lines]
    assert order == ["2 sprigs pearl sugar", "30 g zibrul"]
