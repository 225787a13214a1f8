"""What is told of bakes and how it goes out: several things from one dough, words in their spellings, rows of tables, what a score may be."""

import csv
import io
from datetime import UTC, datetime
from uuid import UUID

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from core.bench.bakes import BEGUN_S, begun, plain
from pancount.core.bench.events import Piece
from pancount.core.bench.state import ground_of
from pancount.core.book.outcome import MOST_SCALES, Outcome
from pancount.core.book.points import Numbers
from pancount.core.book.record import record_of
from pancount.core.book.searching import spellings, told_words, with_fractions
from pancount.core.book.tasting import Tasted, tasting_says
from pancount.core.book.written import Written, written_events
from pancount.core.count.learned import Learned, learned_of
from pancount.formats.bake_file import BakeFile, BakeOut, bake_csv, bakes_csv, bakes_head, file_head, points_csv

FOCACCIA = ground_of(begun("Leek and thyme focaccia"))
"""A half sheet, and what is left in the round pan."""
ROLLS = ground_of(plain())
AT = datetime(2026, 11, 30, 7, tzinfo=UTC)


def weighed(ground, *grams: float) -> list[tuple[int, float]]:
    events = written_events(ground, Written(pieces=grams), UUID(int=3), BEGUN_S)
    return [(one.what.target, one.what.g) for one in events if isinstance(one.what, Piece)]


class TestSeveralThings:
    """Weights that are typed in one line go to what was made, in the order of the count."""

    def test_one_of_each(self):
        """A slab of 1 370 g and a round of 620 are one of each, not two slabs that stray by half a kilogram."""
        assert weighed(FOCACCIA, 1370, 620) == [(0, 1370), (1, 620)]
        own = record_of(FOCACCIA, written_events(FOCACCIA, Written(pieces=(1370.0, 620.0)), UUID(int=3), BEGUN_S), BEGUN_S, Outcome())
        assert [(one.mean_g, one.spread_g, one.pieces) for one in own.targets] == [(1370, None, 1), (620, None, 1)]
        assert not [one for one in own.observed if one.figure == "spread_g"]

    def test_fewer_and_more(self):
        """Of fewer the first are told; what is more than was meant is of the last."""
        assert weighed(FOCACCIA, 1370) == [(0, 1370)]
        assert weighed(FOCACCIA, 1370, 600, 20) == [(0, 1370), (1, 600), (1, 20)]

    def test_all_of_one(self):
        assert {target for target, _ in weighed(ROLLS, *[80.0] * 12)} == {0}

    def test_what_they_weigh_together_is_no_loss(self):
        own = record_of(FOCACCIA, written_events(FOCACCIA, Written(pieces=(1370.0, 620.0)), UUID(int=3), BEGUN_S), BEGUN_S, Outcome(baked_g=1700))
        assert (own.baked_g, own.bake_loss.was) == (None, None)

    def test_a_loss_of_the_dough_is_told_all_the_same(self):
        """2 000 g on the scale of what was mixed: what is missing stayed in the bowl, however many things are made of it."""
        own = record_of(FOCACCIA, written_events(FOCACCIA, Written(dough_g=2000), UUID(int=3), BEGUN_S), BEGUN_S, Outcome())
        assert own.bench_loss.was == pytest.approx(1 - 2000 / own.mixed_g)


class TestSpellings:
    """Words in the ways in which they may be typed, by hand."""

    @pytest.mark.parametrize(
        ("words", "are"),
        [
            ("bun", ("bun",)),
            ("Möhre", ("Möhre", "Moehre", "Mohre")),
            ("Mo\u0308hre", ("Möhre", "Moehre", "Mohre")),  # an o and a mark behind it
            ("süß", ("süß", "suess", "suss")),
            ("crème brûlée", ("crème brûlée", "creme brulee")),
            ("smørbrød", ("smørbrød", "smoerbroed", "smorbrod")),
            ("", ("",)),
        ],
    )
    def test_each_once(self, words, are):
        assert spellings(words) == are

    @pytest.mark.parametrize(
        ("words", "are"),
        [
            ("½", "fr1q2"), ("1½", "fr1q1q2"), ("1 ½", "fr1q1q2"), ("1 1/2", "fr1q1q2"), ("1/2", "fr1q2"), ("1⁄2", "fr1q2"), ("2⅓ cups", "fr2q1q3 cups"),
            ("10/2026", "fr10q2026"), ("x²", "x²"), ("no fraction", "no fraction"),
        ],
    )  # fmt: skip
    def test_fractions(self, words, are):
        """Of one sign, of three, with a whole part or without: alike in the index and in what is looked for."""
        assert with_fractions(words) == are

    @given(st.text(max_size=60))
    def test_what_is_told_has_what_is_looked_for(self, words):
        """Every spelling of every word stands in the index, and each of the added ones once."""
        told = told_words(words).split()
        first, *others = spellings(words)
        assert set(told) >= {one for other in (first, *others) for one in other.split()}
        added = told[len(first.split()) :]
        assert len(added) == len(set(added))


class TestScores:
    """On the kitchen's own scales, 1 to 5."""

    def test_the_mean(self):
        assert Outcome(scores={"Crust": 5, "Crumb": 2}).score == 3.5
        assert Outcome().score is None

    @pytest.mark.parametrize(
        "told",
        [
            {"scores": {"Crust": 0}}, {"scores": {"Crust": 6}}, {"scores": {"Crust": "5"}}, {"scores": {"": 3}}, {"scores": {"x" * 41: 3}},
            {"scores": {f"Scale {n}": 3 for n in range(MOST_SCALES + 1)}}, {"baked_g": 0}, {"baked_g": -3}, {"baked_pieces": 0}, {"height_cm": 0}, {"across_cm": 900},
            {"words": "x" * 10_001}, {"words": "a\x00b"}, {"crumb": 3},
        ],
    )  # fmt: skip
    def test_what_is_refused(self, told):
        with pytest.raises(ValidationError):
            Outcome.model_validate(told)


class TestTables:
    """As they are opened in a spreadsheet."""

    def rows(self, text: str) -> list[dict[str, str]]:
        return list(csv.DictReader(io.StringIO(text)))

    def out(self, **told: object) -> BakeOut:
        outcome = Outcome.model_validate(told)
        events = written_events(ROLLS, Written(pieces=(80.0, 81.5), dough_c=25.25, note="-3 °C outside"), UUID(int=3), BEGUN_S)
        return BakeOut(id=UUID(int=3), revision=2, begun_at=AT, record=record_of(ROLLS, events, BEGUN_S, outcome, written=True), outcome=outcome)

    def test_one_bake(self):
        """A row for each line, piece, measure and word; numbers plain, what looks like a formula as words."""
        rows = self.rows(bake_csv(self.out(scores={"Crumb": 4}, words="+ more, \"next time\"\nand so on", height_cm=5.5)))
        by = {(row["part"], row["name"]): row for row in rows}
        assert (by["line", "Water"]["meant"], by["line", "Water"]["was"], by["line", "Water"]["unit"]) == ("300", "", "g")
        assert [row["was"] for row in rows if row["part"] == "piece"] == ["80", "81.5"]
        assert by["figure", "Dough"]["was"] == "25.25"
        assert by["score", "Crumb"]["was"] == "4"
        assert by["outcome", "height"]["was"] == "5.5"
        assert by["outcome", "words"]["says"] == "'+ more, \"next time\"\nand so on"
        assert next(row["says"] for row in rows if row["part"] == "note") == "'-3 °C outside"

    def test_many_bakes(self):
        """The head and each row have the same columns; a scale that a bake was not scored by is blank."""
        scales = ("Crust", "Crumb")
        outcome = Outcome(scores={"Crumb": 4}, words="Even.")
        numbers = Numbers(score=4, bake_loss=0.125, pieces=10)
        rows = self.rows(bakes_head(scales) + bakes_csv([(str(UUID(int=3)), AT, "=Rolls", "", None, "done", numbers, outcome)] * 2, scales))
        assert len(rows) == 2
        assert (rows[0]["name"], rows[0]["bake_loss"], rows[0]["Crust"], rows[0]["Crumb"], rows[0]["words"], rows[0]["revision"]) == ("'=Rolls", "0.125", "", "4", "Even.", "")

    def test_points(self):
        row = self.rows(points_csv([(AT, "Rolls", Numbers(rise_min=95.5))]))[0]
        assert (row["begun_at"], row["name"], row["rise_min"], row["score"]) == ("2026-11-30T07:00:00+00:00", "Rolls", "95.5", "")

    def test_a_file_written_bake_by_bake(self):
        """Its beginning, bakes with commas between, and its end are a whole file."""
        bake = self.out(words="Even.")
        text = file_head("Weir House kitchen") + ",".join([bake.model_dump_json()] * 2) + "]}"
        assert BakeFile.model_validate_json(text) == BakeFile(kitchen="Weir House kitchen", bakes=(bake, bake))


class TestLearnedOf:
    """What was taken is found by what it is, of what, and in which way."""

    KNOWN = tuple(
        Learned.model_validate({"figure": figure, "of": of, "way": way, "value": value, "sure": 0, "strays": 0, "bakes": 3, "on": "2026-11-30"})
        for figure, of, way, value in (("rise", "rise", "", 1.1), ("rise", "rise", "overnight", 1.2), ("rise", "proof", "", 1.3), ("bench_loss", "", "", 0.02))
    )

    @pytest.mark.parametrize(("asked", "value"), [(("rise", "rise"), 1.1), (("rise", "rise", "overnight"), 1.2), (("rise", "proof"), 1.3), (("bench_loss",), 0.02)])
    def test_found(self, asked, value):
        assert learned_of(self.KNOWN, *asked).value == value

    @pytest.mark.parametrize("asked", [("rise", "chill"), ("rise", "rise", "quick"), ("bake_loss", "bagels"), ("minutes", "shape")])
    def test_not_taken(self, asked):
        assert learned_of(self.KNOWN, *asked) is None


@pytest.mark.parametrize("letters", [("A", "B"), ("A", "B", "C"), ("A", "B", "C", "D")])
def test_everybody_counts_once(letters):
    """However many say what they like, all of them are counted, each once, and nobody who did not say."""
    sheets = [Tasted(likes=letters[n % len(letters)]) for n in range(11)] + [Tasted(who="nobody's")]
    found = tasting_says(sheets, letters)
    assert sum(one.liked for one in found.letters) == 11
    assert [one.letter for one in found.letters] == list(letters)
