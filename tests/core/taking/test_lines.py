"""Ingredient lines: the corpus, form by form, and what any text whatever may do."""

from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from core.taking.corpus import cases, noted
from pancount.core.pantry.ingredients import pantry
from pancount.core.taking.facts import facts
from pancount.core.taking.habits import questions
from pancount.core.taking.lines import read_line
from pancount.core.taking.tokens import LONGEST_LINE, tokens
from pancount.core.taking.vocabulary import LANGUAGES, Phrases, shipped_names, vocabulary

CASES = cases()
FORMS = sorted({case.form for case in CASES})


def test_the_corpus_is_large():
    """At least 300 different lines."""
    assert len({case.line for case in CASES}) >= 300
    assert len(FORMS) >= 15


@pytest.mark.parametrize("form", FORMS)
def test_every_line_of_a_form_is_read_right(form):
    """Amount, ingredient, state, place, alternatives and extras are just as the corpus has them."""
    wrong = {
        case.line: (got, case.expected)
        for case in CASES
        if case.form == form and (got := noted(read_line(case.line, shipped_names()))) != case.expected
    }
    assert wrong == {}


@pytest.mark.parametrize("item", pantry(), ids=lambda item: item.name)
def test_every_name_in_the_pantry_is_read_as_what_it_is(item):
    """In either language, with a note behind it or not; or as the question that it is one answer to."""
    for name in item.names:
        for line in (f"1 cup {name}", f"1 cup {name}, warm"):
            named = read_line(line, shipped_names()).named
            options = questions()[named.question].options if named.question else [named.ingredient.name]
            assert item.name in options, line


WORDS = st.sampled_from(
    ["1", "2", "½", "1/2", "3–4", "1,5", "1.000", "cup", "cups", "tbsp", "TL", "g", "lb", "oz", "(", ")", ",", "plus", "minus", "or", "more", "for", "dusting", "egg", "flour", "milk", "butter", "pinch", "of", "a", "heaped", "packet", "x", "×", "%", "-", "/", "zibrul", "divided", "warm", "with", "0", "0/0", "99999999999", "°C"]
)
LINES = st.one_of(st.text(max_size=200), st.lists(WORDS, max_size=25).map(" ".join))


@given(LINES)
@settings(max_examples=400)
def test_no_text_whatever_fails(text):
    """Any line gets a reading or none, the same each time, and its amounts are in order."""
    reading = read_line(text, shipped_names())
    assert reading == read_line(text, shipped_names())
    for one in (reading, *(reading.extra if reading else ())):
        for part in one.amount.parts if one and one.amount else ():
            assert 0 <= part.low <= part.usual <= part.high


@given(st.text(max_size=300))
def test_tokens_stand_where_they_say(text):
    """Each token is the text between its start and its end, and they do not overlap."""
    found = tokens(text)
    assert all(text[t.start : t.end] == t.text for t in found)
    assert all(a.end <= b.start for a, b in pairwise(found))


@pytest.mark.parametrize("word", ["a ", "an ", "heaped ", "1 or ", "1 cup plus ", "(1 cup ", "with 1 tbsp milk ", "about ", "- ", "1/2 "])
def test_a_line_of_one_word_takes_no_more_than_its_share(word, monkeypatch):
    """Looking a phrase up is what reading costs: a line repeats no word so often that this grows with its square."""
    looked_up = 0
    match = Phrases.match

    def counted(self, line, at):
        nonlocal looked_up
        looked_up += 1
        return match(self, line, at)

    monkeypatch.setattr(Phrases, "match", counted)
    line = (word * LONGEST_LINE)[:LONGEST_LINE]
    read_line(line, shipped_names())
    facts(line)
    assert looked_up < 120 * len(tokens(line))


def test_a_very_long_line_is_read_to_its_limit():
    """A page on one line is no trouble: it is read up to where a line ends."""
    reading = read_line("2 cups flour " + "and walnuts " * 20_000, shipped_names())
    assert reading.amount.parts[0].usual == 2


def test_words_mean_one_thing_in_one_list():
    """Every language has every list, and each phrase of the measures is known."""
    for name in ("numbers", "measures", "fills", "ways", "states", "extra", "purposes", "headings", "yields", "hints"):
        assert hasattr(vocabulary(), name)
    assert LANGUAGES == ("en", "de")
    for phrase, key in (("tablespoon", "tbsp"), ("EL", "el"), ("T", "tbsp"), ("t", "tsp"), ("Würfel", "cube")):
        assert vocabulary().measures.match(tokens(phrase), 0) == (key, 1)
