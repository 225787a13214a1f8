"""A bake as meant beside as it was, by hand-reckoned figures; what it says; bakes side by side; written in; habits; tastings."""

from uuid import UUID

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from core.bench.bakes import BEGUN_S, Writer, begun, plain
from pancount.core.bench.events import (
    Accepted,
    Added,
    Began,
    Done,
    Ended,
    HeldBack,
    Measurement,
    Noted,
    Piece,
    Skipped,
    Weighed,
)
from pancount.core.bench.state import Ground, bake_now, ground_of
from pancount.core.book.comparing import InTheBook, side_by_side
from pancount.core.book.habits import water_habit
from pancount.core.book.outcome import Outcome
from pancount.core.book.points import Numbers, numbers_of
from pancount.core.book.record import Record, record_of, words_of
from pancount.core.book.searching import told_words
from pancount.core.book.tasting import Tasted, tasting_says
from pancount.core.book.written import LineTold, StepTold, Written, written_events
from pancount.core.formula.practice import Practice
from pancount.core.pantry.role import Role

ROLLS = ground_of(plain())
"""500 g flour, 300 g water, 10 g salt, 5 g yeast: 815 g for ten rolls."""
BUNS = ground_of(begun("Cardamom milk buns"))


def record(ground: Ground, *deeds: object, outcome: Outcome | None = None, after_min: float = 0.0) -> Record:
    writer = Writer()
    writer.did(*deeds, after_min=after_min)
    return record_of(ground, writer.events, BEGUN_S, outcome or Outcome())


def lines_of(own: Record) -> dict[str, object]:
    return {line.name: line for line in own.lines if not line.beside}


class TestRecord:
    """By hand, on 500 g of flour."""

    def test_meant_and_was(self):
        """25 g of water more: 60 % meant, 65 % in; flour as meant; what was not weighed says so."""
        keys = {line.name: key for key, line in ROLLS.plan.lines.items()}
        own = record(ROLLS, Weighed(line=keys["Bread flour"], g=500), Weighed(line=keys["Water"], g=300), Added(line=keys["Water"], g=25))
        lines = lines_of(own)
        assert (lines["Water"].meant_percent, lines["Water"].was_percent) == (pytest.approx(60), pytest.approx(65))
        assert (lines["Water"].was_g, lines["Water"].within, lines["Water"].says) == (325, False, "+25 g at the mixer")
        assert (lines["Fine salt"].was_g, lines["Fine salt"].within) == (None, True)
        assert (own.water_added_g, own.water_added_points) == (25, pytest.approx(5))
        assert own.mixed_g == pytest.approx(840)
        assert any("25 g more" in one for one in own.changed)

    def test_losses(self):
        """800 of 815 g on the scale: 1.84 % stayed. Ten pieces of 80 g, baked to 70: 12.5 %."""
        own = record(ROLLS, Measurement(what="dough_g", value=800), *[Piece(g=80)] * 10, Measurement(what="baked_g", value=350, pieces=5))
        assert own.bench_loss.was == pytest.approx(15 / 815)
        assert own.bake_loss.was == pytest.approx(0.125)
        assert (own.targets[0].pieces, own.targets[0].mean_g, own.targets[0].spread_g) == (10, 80, 0)

    def test_told_afterwards_beats_what_was_measured(self):
        own = record(ROLLS, *[Piece(g=80)] * 10, Measurement(what="baked_g", value=350, pieces=5), outcome=Outcome(baked_g=680))
        assert (own.baked_g, own.bake_loss.was) == (68, pytest.approx(0.15))

    def test_times(self):
        """What was begun and done took so long; what was not told took no time at all."""
        writer = Writer()
        rise = next(key for key, todo in BUNS.plan.todos.items() if BUNS.plan.steps[todo.step].kind.key == "rise")
        writer.did(Began(task=rise), after_min=60)
        writer.did(Done(task=rise), after_min=95)
        own = record_of(BUNS, writer.events, BEGUN_S, Outcome())
        step = next(one for one in own.steps if one.key == rise)
        assert (step.minutes, own.rise_min) == (pytest.approx(95), pytest.approx(95))
        assert [one.minutes for one in own.steps if one.key != rise] == [None] * (len(own.steps) - 1)
        seen = next(one for one in own.observed if one.figure == "rise")
        model = next(one for one in bake_now(BUNS, writer.events, BEGUN_S).rises if one.step == BUNS.plan.todos[rise].step)
        assert seen.value == pytest.approx(95 / model.usual_min)

    def test_held_back_and_left_out(self):
        held = next(line for line in BUNS.plan.lines.values() if line.what == "held_back")
        cardamom = [line for line in BUNS.plan.lines.values() if line.name.startswith("Cardamom")]
        own = record(BUNS, HeldBack(line=held.key, g=0), *(Skipped(task=one.key) for one in cardamom))
        assert own.water_added_g == pytest.approx(-(held.meant_g or 0))
        assert (lines_of(own)[cardamom[0].name].was_g, lines_of(own)[cardamom[0].name].says) == (0, "left out")

    def test_something_else(self):
        """What no line has is a line of its own."""
        own = record(ROLLS, Added(name="Orange zest", role=Role.FLAVOUR, g=4))
        assert (own.lines[-1].name, own.lines[-1].was_g, own.lines[-1].says) == ("Orange zest", 4, "added at the mixer")

    def test_oven_and_friction(self):
        """The oven is as much hotter as it was measured over its dial; a dough warmer than reckoned says what a minute warms it by."""
        dial = next(one.dial_c for one in BUNS.begun.method.bakes)
        water = BUNS.begun.method.water
        own = record(BUNS, Measurement(what="oven_c", value=dial + 12), Measurement(what="dough_c", value=water.reached_c + 2))
        seen = {one.figure: one.value for one in own.observed}
        assert seen["oven_error_c"] == pytest.approx(12)
        minutes = water.machine_min or water.hand_min
        assert seen.get("machine_c_min", seen.get("hand_c_min")) == pytest.approx((BUNS.begun.climate.machine_c_min if water.machine_min else BUNS.begun.climate.hand_c_min) + 2 / minutes)

    def test_hands(self):
        """Shaping 24 pieces in twelve minutes is half a minute each; what was ticked off at once says nothing."""
        writer = Writer()
        shape, divide = (next(key for key, todo in BUNS.plan.todos.items() if BUNS.plan.steps[todo.step].kind.key == kind) for kind in ("shape", "divide"))
        writer.did(Began(task=divide), Done(task=divide), Began(task=shape), after_min=100)
        writer.did(Done(task=shape), after_min=12)
        seen = {one.of: one.value for one in record_of(BUNS, writer.events, BEGUN_S, Outcome()).observed if one.figure == "minutes"}
        assert seen == {"shape": pytest.approx(0.5)}

    def test_words(self):
        own = record(BUNS, Noted(text="Kneaded by Ó Cuív’s clock."))
        words = told_words(words_of(own, Outcome(words="Süß"), ["Krume"]))
        assert all(one in words for one in ("Cardamom, ground", "Kneaded", "Süß", "Suess", "Cuiv", "Krume"))

    @settings(max_examples=25, deadline=None)
    @given(st.data())
    def test_whatever_happened(self, data):
        """Any events make a record, whose numbers and side by side are there."""
        keys = st.sampled_from([*BUNS.plan.lines, *BUNS.plan.todos])
        deed = st.one_of(
            st.builds(Weighed, line=keys, g=st.floats(0, 5000)), st.builds(Added, line=keys, g=st.floats(-3000, 3000)), st.builds(Accepted, line=keys),
            st.builds(Began, task=keys), st.builds(Done, task=keys), st.builds(Skipped, task=keys), st.builds(Piece, g=st.floats(0.1, 900)),
            st.builds(Measurement, what=st.sampled_from(["dough_c", "dough_g", "oven_c", "baked_g"]), value=st.floats(0, 5000)), st.just(Ended(how="done")),
        )  # fmt: skip
        own = record(BUNS, *data.draw(st.lists(deed, max_size=14)), outcome=Outcome(scores={"Crumb": 3}))
        assert numbers_of(own, Outcome()).pieces == own.pieces
        assert Record.model_validate_json(own.model_dump_json()) == own
        rows = side_by_side([InTheBook(own, Outcome()), InTheBook(own, Outcome())])
        assert not any(row.differs for row in rows)


class TestBeside:
    """What differs first."""

    def test_by_how_much(self):
        keys = {line.name: key for key, line in ROLLS.plan.lines.items()}
        first = record(ROLLS, Weighed(line=keys["Fine salt"], g=15), Weighed(line=keys["Water"], g=315))
        rows = [row for row in side_by_side([InTheBook(first, Outcome()), InTheBook(record(ROLLS), Outcome())]) if row.part == "dough"]
        # Salt is half as much again, water a twentieth more: a third of the larger, and a twenty-first.
        assert [(row.name, row.differs) for row in rows[:3]] == [("Fine salt", True), ("Water", True), ("Bread flour", False)]
        assert [row.off for row in rows[:2]] == [pytest.approx(1 / 3), pytest.approx(1 / 21)]

    def test_different_formulas(self):
        """What one has and the other has not differs wholly, and stands before the rest."""
        rows = [row for row in side_by_side([InTheBook(record(BUNS), Outcome()), InTheBook(record(ROLLS), Outcome())]) if row.part == "dough"]
        assert {row.name for row in rows if row.off == 1.0} >= {"Butter", "Egg", "Whole milk", "Water"}
        assert next(row for row in rows if row.name == "Butter").cells[1].was is None
        flour = next(row for row in rows if row.name == "Bread flour")
        assert (flour.differs, [cell.was for cell in flour.cells]) == (False, [pytest.approx(100), pytest.approx(100)])

    def test_what_was_not_told_does_not_differ(self):
        one = InTheBook(record(ROLLS, Measurement(what="dough_c", value=25)), Outcome(height_cm=5))
        rows = side_by_side([one, InTheBook(record(ROLLS), Outcome())])
        assert not any(row.differs for row in rows if row.part in ("figures", "came_to"))


class TestWritten:
    """By hand, as much or as little as is known."""

    def test_nothing(self):
        events = written_events(ROLLS, Written(), UUID(int=1), BEGUN_S)
        assert [event.what.deed for event in events] == ["ended"]

    def test_as_at_the_bench(self):
        """What is told by hand makes the very record that the bench would have made of it."""
        keys = {line.name: key for key, line in ROLLS.plan.lines.items()}
        told = Written(lines=(LineTold(line=keys["Water"], g=310),), dough_g=800, dough_c=25, pieces=(80.0, 81.0, 79.0), note="Even.")
        by_hand = record_of(ROLLS, written_events(ROLLS, told, UUID(int=1), BEGUN_S), BEGUN_S, Outcome())
        bench = record(ROLLS, Weighed(line=keys["Water"], g=310), Measurement(what="dough_c", value=25), Measurement(what="dough_g", value=800), *[Piece(g=g) for g in (80, 81, 79)], Ended(how="done"))
        assert by_hand.model_dump(include={"lines", "gauges", "targets", "bench_loss", "dough_c", "observed"}) == bench.model_dump(include={"lines", "gauges", "targets", "bench_loss", "dough_c", "observed"})

    def test_what_took_longer_moves_the_rest(self):
        """A rise that took half an hour more has the next step begin half an hour later, and the end with it."""
        todos = [BUNS.plan.todos[key] for key in BUNS.plan.order if key in BUNS.plan.todos]
        rise, proof = (next(one for one in todos if BUNS.plan.steps[one.step].kind.key == kind) for kind in ("rise", "proof"))
        told = Written(steps=(StepTold(task=rise.key, minutes=rise.lasts_min + 30), StepTold(task=proof.key, minutes=proof.lasts_min)))
        own = record_of(BUNS, written_events(BUNS, told, UUID(int=1), BEGUN_S), BEGUN_S, Outcome())
        second = next(one for one in own.steps if one.key == proof.key)
        assert second.began_s - second.planned_s == pytest.approx(30 * 60, abs=1)

    def test_after_others(self):
        """What is told later comes after all that was seen, and contradicts nothing."""
        writer = Writer()
        water = next(key for key, line in ROLLS.plan.lines.items() if line.name == "Water")
        writer.did(Weighed(line=water, g=300))
        later = written_events(ROLLS, Written(lines=(LineTold(line=water, g=320),)), UUID(int=2), BEGUN_S, writer.seen, ends=False)
        own = record_of(ROLLS, [*writer.events, *later], BEGUN_S, Outcome())
        assert lines_of(own)["Water"].was_g == 320


class TestHabit:
    """In the last four you added 20 to 30 g."""

    def numbers(self, *grams: float) -> list[Numbers]:
        return [Numbers(water_added_g=g, water_added_points=g / 5) for g in grams]

    def test_added_each_time(self):
        """20, 30, 25, 25 g on 500: 5 points in the middle; 60 % becomes 65."""
        habit = water_habit(self.numbers(20, 30, 25, 25), ROLLS.begun.formula, Practice())
        assert habit.says == "In the last 4 you added 20 to 30 g of water: water 60 → 65 % in the formula?"
        water = next(line for line in habit.formula.stages[0].lines if line.name == "Water")
        assert water.weight_g == pytest.approx(325)

    def test_kept_out_each_time(self):
        assert "kept out 20 g" in water_habit(self.numbers(-20, -20, -20), ROLLS.begun.formula, Practice()).says

    @pytest.mark.parametrize("grams", [(), (20, 20), (20, -20, 20, 20), (20, 20, 0, 20), (1, 2, 1, 2)])
    def test_no_habit(self, grams):
        """Twice is none, nor is to and fro, nor a splash."""
        assert water_habit(self.numbers(*grams), ROLLS.begun.formula, Practice()) is None


class TestTasting:
    """Counted, and held against chance."""

    def test_means(self):
        sheets = [Tasted(scores={"A": {"Crumb": 4, "Crust": 2}, "B": {"Crumb": 3}}, likes="A"), Tasted(scores={"A": {"Crumb": 2}}, likes="B"), Tasted()]
        a, b = tasting_says(sheets, ("A", "B")).letters
        assert (a.means, a.score, a.scored, a.liked) == ({"Crumb": 3, "Crust": 2}, 2.5, 2, 1)
        assert (b.means, b.scored, b.liked) == ({"Crumb": 3}, 1, 1)

    @pytest.mark.parametrize(
        ("likes", "says"),
        [
            ("", "Nobody has said yet which they like best."),
            ("AABB", "4 said which they like best, and no one bake is ahead."),
            # Two-sided by doubling: 2 × (1/2)^3 = 1/4 of three alike, and 2 × (1/2)^8 = 1/128 of eight.
            ("AAA", "3 of 3 like A best. By chance alone some letter would get so many about once in 4 tastings."),
            ("BBBBBBBB", "8 of 8 like B best. By chance alone some letter would get so many about once in 128 tastings."),
            ("AAB", "2 of 3 like A best. That many are soon together by chance alone: ask more people before you go by it."),
        ],
    )
    def test_chance(self, likes, says):
        assert tasting_says([Tasted(likes=one) for one in likes], ("A", "B")).says == says
