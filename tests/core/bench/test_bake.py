"""A bake is a fold over its events: any of them, in any order, however often."""

from random import Random
from uuid import uuid4

import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from core.bench.bakes import BEGUN_S, Writer, begun, line, now, plain, task
from pancount.core.bench.bake import bake_of
from pancount.core.bench.begun import Begun
from pancount.core.bench.events import (
    Accepted,
    Added,
    Began,
    Done,
    Ended,
    Event,
    HeldBack,
    Kept,
    Longer,
    LookedAt,
    Measurement,
    Noted,
    Paused,
    Piece,
    Quiet,
    Resolved,
    Resumed,
    Scaled,
    SharedOut,
    Skipped,
    TimerSet,
    TookOut,
    Turned,
    Undone,
    Weighed,
    in_order,
)
from pancount.core.bench.plan import plan_of
from pancount.core.bench.state import bake_now

QUICK = settings(max_examples=60, phases=(Phase.explicit, Phase.reuse, Phase.generate))
NAMES = ("Malted seed bagels", "Cardamom milk buns", "Leek and thyme focaccia", "Yogurt flatbreads")


def written(of: Begun, seed: int, most: int = 40) -> list[Event]:
    """What two or three people do of a bake, sometimes hearing of each other: sensible things and others, with keys that are not there."""
    random = Random(seed)
    bake = bake_now(of, (), BEGUN_S)
    lines = [*[one.key for one in bake.lines], "w9.s9.n9"]
    tasks = [*[one.key for one in bake.tasks], "p99", "p0.l7"]
    writers = [Writer(name) for name in ("tablet", "phone", "other")[: random.randint(1, 3)]]
    for _ in range(random.randint(0, most)):
        writer = random.choice(writers)
        key, todo, g = random.choice(lines), random.choice(tasks), random.choice((0.0, 3.0, 10.0, 61.5, 475.0, 200_000.0))
        ids = [event.id for one in writers for event in one.events] or [uuid4()]
        deeds = (
            Weighed(line=key, g=g), Weighed(line=key, g=g), TookOut(line=key, g=g), Accepted(line=key), Scaled(line=key), Resolved(line=key),
            Resolved(line=key, keep=random.choice(ids)), Added(line=key, g=random.choice((-37.0, 15.0))), Added(name="Milk", g=20), HeldBack(line=key, g=g),
            Began(task=todo), Done(task=todo), Skipped(task=todo), Skipped(task=key), Turned(task=todo), LookedAt(task=todo, passed=random.random() < 0.5),
            Measurement(what="dough_c", value=random.choice((-40.0, 4.0, 26.0, 300.0))), Measurement(what="room_c", value=19), Measurement(what="dough_g", value=g, mix=random.choice((None, 0, 1))),
            Kept(what=random.choice(("pieces", "weight"))), Piece(target=random.randint(0, 2), g=max(1.0, g)), SharedOut(target=0), TimerSet(name="Tea", minutes=4),
            Longer(timer=random.choice((todo, str(random.choice(ids)))), minutes=-5), Quiet(timer=random.choice((todo, str(random.choice(ids))))),
            Noted(text="Sticky"), Paused(), Resumed(), Ended(how="done"), Undone(of=random.choice(ids)),
        )  # fmt: skip
        writer.did(random.choice(deeds), after_min=random.random() * 9)
        if random.random() < 0.4:
            writer.saw(random.choice(writers))
    return [event for one in writers for event in one.events]


@QUICK
@given(name=st.sampled_from(NAMES), seed=st.integers(0, 10_000))
def test_any_prefix_is_a_bake(name, seed):
    """Whatever has arrived so far, in whatever order, is a bake that can be shown."""
    of, events = begun(name), written(begun(name), seed)
    Random(seed + 1).shuffle(events)
    for length in {0, len(events) // 3, len(events)}:
        bake = bake_now(of, events[:length], BEGUN_S)
        assert bake.model_dump_json()
        assert {one.key for one in bake.lines} | {one.key for one in bake.tasks} == set(bake.order)


@QUICK
@given(name=st.sampled_from(NAMES), seed=st.integers(0, 10_000))
def test_the_order_of_arrival_is_nothing(name, seed):
    """Shuffled, sent twice, late: the same bake."""
    of, events = begun(name), written(begun(name), seed)
    first = bake_now(of, events, BEGUN_S)
    again = [*events, *events[::2]]
    Random(seed).shuffle(again)
    assert bake_now(of, again, BEGUN_S) == first


@QUICK
@given(seed=st.integers(0, 10_000))
def test_causes_come_before_effects(seed):
    """Who knew of an event comes after it, wherever it arrives."""
    events = written(begun(NAMES[0]), seed)
    Random(seed).shuffle(events)
    ordered = in_order(events)
    places = {event.id: n for n, event in enumerate(ordered)}
    for one in ordered:
        assert all(places[other.id] < places[one.id] for other in ordered if other.id != one.id and one.after(other))


class TestUndoing:
    """Nothing is changed; what follows says that it did not happen."""

    def test_and_back(self):
        """An undoing that is undone leaves what there was."""
        of, writer = plain(), Writer()
        (weighed,) = writer.did(Weighed(line="w0.s0.n0", g=500))
        assert line(now(of, writer), "Bread flour").status == "in"
        (undone,) = writer.did(Undone(of=weighed.id))
        assert line(now(of, writer), "Bread flour").status == "open"
        writer.did(Undone(of=undone.id))
        assert line(now(of, writer), "Bread flour").status == "in"

    def test_something_not_there(self):
        writer = Writer()
        writer.did(Undone(of=uuid4()), Weighed(line="w0.s0.n0", g=500))
        assert line(now(plain(), writer), "Bread flour").in_g == 500


class TestApart:
    """Two devices that did not hear of each other."""

    def both(self) -> tuple[Writer, Writer]:
        tablet, phone = Writer("tablet"), Writer("phone")
        tablet.did(Weighed(line="w0.s0.n2", g=10))
        phone.did(Weighed(line="w0.s0.n2", g=10))
        return tablet, phone

    def test_both_weighed_the_salt(self):
        """It is asked, with each of them and with both; nothing is decided in silence."""
        bake = now(plain(), *self.both())
        (asked,) = bake.questions
        assert (line(bake, "Fine salt").status, asked.kind) == ("twice", "twice")
        assert [option.label for option in asked.options] == ["Only 10 g (phone)", "Only 10 g (tablet)", "Both: 20 g"]

    @pytest.mark.parametrize(("option", "g"), [(0, 10), (2, 20)])
    def test_settled(self, option, g):
        """What was chosen holds: once, or twice, which is then over."""
        tablet, phone = self.both()
        deeds = now(plain(), tablet, phone).questions[0].options[option].deeds
        tablet.saw(phone)
        tablet.did(*deeds)
        bake = now(plain(), tablet, phone)
        assert line(bake, "Fine salt").in_g == g
        assert [one.kind for one in bake.questions] == (["over"] if g == 20 else [])

    def test_who_knew_weighs_again(self):
        """A second weighing by somebody who saw the first is a correction."""
        tablet, phone = Writer("tablet"), Writer("phone")
        tablet.did(Weighed(line="w0.s0.n2", g=12))
        phone.saw(tablet)
        phone.did(Weighed(line="w0.s0.n2", g=10))
        bake = now(plain(), tablet, phone)
        assert (line(bake, "Fine salt").in_g, bake.questions) == (10, ())

    def test_other_lines_are_nobodys_quarrel(self):
        tablet, phone = Writer("tablet"), Writer("phone")
        tablet.did(Weighed(line="w0.s0.n0", g=500))
        phone.did(Weighed(line="w0.s0.n1", g=300))
        bake = now(plain(), tablet, phone)
        assert [line(bake, name).status for name in ("Bread flour", "Water")] == ["in", "in"]


class TestEnds:
    """Done, stopped, thrown away, put away until tomorrow."""

    def test_paused_and_gone_on_with(self):
        writer = Writer()
        writer.did(Weighed(line="w0.s0.n0", g=500), Paused())
        assert now(plain(), writer).status == "paused"
        writer.did(Resumed(), after_min=900)
        bake = now(plain(), writer)
        assert (bake.status, line(bake, "Bread flour").in_g) == ("running", 500)

    @pytest.mark.parametrize("how", ["done", "stopped", "thrown_away"])
    def test_over(self, how):
        writer = Writer()
        writer.did(Ended(how=how), after_min=30)
        bake = now(plain(), writer)
        assert (bake.status, bake.ended_s) == (how, BEGUN_S + 1800)


class TestPlan:
    """What there is to weigh and to do is the sheet's and the way's."""

    @pytest.mark.parametrize("name", NAMES)
    def test_weights_are_the_sheets(self, name):
        """Each mix weighs what the sheet prints, held-back parts included; nothing is weighed twice and nothing is missing."""
        of = begun(name)
        bake = bake_now(of, (), BEGUN_S)
        for mix in range(of.sheet.mixes):
            weighed = sum(one.target_g for one in bake.lines if one.mix == mix and one.what in ("line", "held_back"))
            assert weighed == pytest.approx(float(sum(line.printed for stage in of.sheet.stages for line in stage.lines)))

    @pytest.mark.parametrize("name", NAMES)
    def test_a_stage_is_weighed_before_what_is_done_to_it(self, name):
        """Stages in the order of the way: what goes in at a step has been weighed before it."""
        bake = bake_now(begun(name), (), BEGUN_S)
        place = {key: n for n, key in enumerate(bake.order)}
        for todo in bake.tasks:
            assert all(place[key] < place[todo.key] for one in todo.goes_in for key in one.keys)

    def test_no_method_written(self):
        """The usual steps stand in, and it is said."""
        bake = now(plain())
        assert not bake.written
        assert [one.kind for one in bake.tasks][:4] == ["mix", "knead", "test", "rise"]

    def test_the_fold_alone(self):
        """The fold over nothing is nothing."""
        bake = bake_of(plan_of(plain(), plain().method), ())
        assert (bake.lines, bake.tasks, bake.status) == ({}, {}, "running")

    def test_two_mixes_then_one_dough(self):
        """What is mixed is done for each mix; from the first rise on there is one dough."""
        bake = bake_now(begun("Malted seed bagels"), (), BEGUN_S)
        assert [len([one for one in bake.tasks if one.kind == kind and not one.on]) for kind in ("mix", "rise", "divide")] == [2, 1, 1]
        assert task(bake, "bathe").load == 0

    def test_less_than_the_scale_shows(self):
        """Yeast of which the scale shows nothing is weighed all the same, and said; nothing on the scale is never within its tolerance."""
        of = plain(flour_g=30, water_g=18)
        yeast = line(now(of), "Instant yeast")
        assert yeast.target_g == pytest.approx(0.3)
        assert yeast.says.startswith("Less than this scale shows: 0.3 g")
        assert all(one.tolerance_g < one.target_g / 2 for one in now(of).lines)

    def test_what_no_step_takes(self):
        """Flour for the bench is weighed before the first shaping, not the evening before and not at the end."""
        bake = bake_now(begun("Squash rolls"), (), BEGUN_S)
        (flour,) = [one.key for one in bake.lines if one.of == "For the bench"]
        place = {key: n for n, key in enumerate(bake.order)}
        shaping = min(place[one.key] for one in bake.tasks if one.group == "shape")
        assert place[flour] < shaping
        assert shaping - place[flour] <= 3
