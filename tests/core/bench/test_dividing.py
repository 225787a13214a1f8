"""Dividing by the dough there is; pieces beside each other; by halves; rises by the dough's real warmth; timers."""

import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from core.bench.bakes import BEGUN_S, Writer, begun, now, plain, task
from pancount.core.bench.dividing import shares
from pancount.core.bench.events import (
    Began,
    Done,
    Kept,
    Longer,
    LookedAt,
    Measurement,
    Piece,
    Quiet,
    Skipped,
    TimerSet,
    Turned,
    Weighed,
)
from pancount.core.bench.running import TaskNow

QUICK = settings(max_examples=60, phases=(Phase.explicit, Phase.reuse, Phase.generate))


class TestTrueLoss:
    """The dough on the scale."""

    def test_worked_by_the_trade(self):
        """758 g in the bowl and 740 on the board is 2.4 % lost, and three pieces of 246. Common practice, no source."""
        of = plain(flour_g=465.031, water_g=279.019, pieces=3)
        writer = Writer()
        for key, g in (("w0.s0.n0", 465), ("w0.s0.n1", 279), ("w0.s0.n2", 9), ("w0.s0.n3", 5)):
            writer.did(Weighed(line=key, g=g))
        writer.did(Measurement(what="dough_g", value=740))
        bake = now(of, writer)
        assert bake.dough.mixed_g == 758
        assert round(100 * bake.dough.loss, 1) == 2.4
        assert (bake.making.targets[0].pieces, bake.making.targets[0].piece_g, bake.making.remainder_g) == (3, 246, 2)

    def test_weight_stays_as_pinned(self):
        """Pinned by weight, fewer pieces come of less dough; the number can be kept instead."""
        of, writer = plain(pieces=None, piece_g=80), Writer()
        writer.did(Measurement(what="dough_g", value=700))
        bake = now(of, writer)
        assert [(one.pieces, one.piece_g) for one in (bake.making.targets[0], bake.instead.targets[0])] == [(8, 80), (9, 77)]
        writer.did(Kept(what="pieces"))
        assert now(of, writer).making.targets[0].pieces == 9

    @pytest.mark.parametrize(("g", "title"), [(900, "More dough than there can be"), (600, "26 % of the dough is missing")])
    def test_a_dough_that_cannot_be(self, g, title):
        """815 g went in: more than that, or far less, is asked about."""
        writer = Writer()
        writer.did(Measurement(what="dough_g", value=g))
        assert [one.title for one in now(plain(), writer).questions] == [title]

    def test_by_mixes(self):
        """Each mix weighed by itself comes together; weighing all of it again replaces that."""
        of, writer = begun("Malted seed bagels"), Writer()
        writer.did(Measurement(what="dough_g", value=990, mix=0), Measurement(what="dough_g", value=985, mix=1))
        assert now(of, writer).dough.on_scale_g == 1975
        writer.did(Measurement(what="dough_g", value=1980))
        assert now(of, writer).dough.on_scale_g == 1980


@QUICK
@given(g=st.integers(300, 2000), keep=st.sampled_from(("pieces", "weight")), name=st.sampled_from(("Malted seed bagels", "Cardamom milk buns", "Leek and thyme focaccia")))
def test_pieces_and_remainder_are_the_dough(g, keep, name):
    """However much there is on the board, what is made of it and what is left over come to it."""
    writer = Writer()
    writer.did(Measurement(what="dough_g", value=g), Kept(what=keep))
    made = now(begun(name), writer).making
    if made is None:
        return
    assert sum(one.pieces * one.piece_g for one in made.targets) + made.remainder_g == pytest.approx(g, abs=1e-5)
    assert all(one.piece_g >= 0 for one in made.targets)


class TestPieces:
    """Each beside what it is to weigh."""

    def weighed(self, *grams: float):
        writer = Writer()
        writer.did(Measurement(what="dough_g", value=800), *(Piece(g=g) for g in grams))
        return now(plain(), writer).strips[0]

    def test_tolerance(self):
        """80 g each, within 2 g of it."""
        assert self.weighed(80, 82, 83, 77.5).off == (0, 0, 1, -1)

    def test_mean_and_spread(self):
        """78, 80, 82: mean 80, standard deviation 2, worked by hand."""
        strip = self.weighed(78, 80, 82)
        assert (strip.mean_g, strip.spread_g, strip.left) == (80, 2, 7)

    def test_the_last_few(self):
        """Eight of 82 leave 144 g for two of ten: 72 each, and that is told while it can be evened out."""
        strip = self.weighed(*[82] * 8)
        assert strip.rest_g == 72
        assert strip.says.startswith("The last 2 come to 72 g each: smaller")

    def test_all(self):
        strip = self.weighed(*[80] * 10)
        assert (strip.left, strip.left_g, strip.says) == (0, 0, "All 10 are weighed off.")

    def test_more_than_there_is(self):
        assert self.weighed(400, 400, 90).says.startswith("There is no dough left")


@pytest.mark.parametrize("pieces", [2, 3, 4, 6, 7, 8, 12, 13, 16, 17, 18, 24, 25, 31, 48, 100])
def test_by_halves(pieces):
    """The last sentence leaves just so many pieces."""
    last = shares(pieces)[-1]
    total = int(last.rstrip(".").split(": ")[1].split(" ")[0])
    assert total == (pieces if not shares(pieces)[0].startswith("Take off one") else pieces - 1)


class TestWarmth:
    """A rise goes by what the dough really is."""

    def rise(self, celsius: float | None, begun_min: float = 0):
        of, writer = begun("Malted seed bagels"), Writer()
        todo = task(now(of), "rise")
        if celsius is not None:
            writer.did(Measurement(what="dough_c", value=celsius))
        writer.did(Began(task=todo.key), after_min=begun_min)
        return task(now(of, writer), "rise")

    def test_warmer_is_sooner(self):
        """Look from, and too far by, move on the clock of the day."""
        cold, planned, warm = (self.rise(celsius) for celsius in (20.0, None, 28.0))
        assert warm.look_s < planned.look_s < cold.look_s
        assert warm.too_far_s < planned.too_far_s < cold.too_far_s

    def test_from_when_it_was_begun(self):
        assert self.rise(26, begun_min=30).look_s == self.rise(26).look_s + 1800

    def test_it_is_said(self):
        writer = Writer()
        writer.did(Measurement(what="dough_c", value=28))
        assert "4.0 warmer than the 24 meant" in now(begun("Malted seed bagels"), writer).dough.says


class TestTimers:
    """They run from the event that began them."""

    def test_from_a_step(self):
        """Ten minutes of rest ring ten minutes after they were begun, whatever happened since."""
        of, writer = begun("Malted seed bagels"), Writer()
        rest = task(now(of), "relax")
        writer.did(Began(task=rest.key))
        (timer,) = now(of, writer).timers
        assert timer.rings_s == BEGUN_S + 60 * rest.usual_min
        writer.did(Longer(timer=rest.key, minutes=5))
        assert now(of, writer).timers[0].rings_s == BEGUN_S + 60 * (rest.usual_min + 5)
        writer.did(Quiet(timer=rest.key), after_min=60)
        assert now(of, writer).timers == ()

    def test_heard_before_it_rings_is_not_heard(self):
        """Quieting an earlier ring does not keep the next from ringing."""
        of, writer = begun("Malted seed bagels"), Writer()
        rest = task(now(of), "relax")
        writer.did(Began(task=rest.key), Quiet(timer=rest.key))
        assert len(now(of, writer).timers) == 1

    def test_by_hand(self):
        writer = Writer()
        (event,) = writer.did(TimerSet(name="Eggs", minutes=4))
        (timer,) = now(plain(), writer).timers
        assert (timer.name, timer.rings_s, timer.key) == ("Eggs", BEGUN_S + 240, str(event.id))
        writer.did(Quiet(timer=timer.key), after_min=9)
        assert now(plain(), writer).timers == ()

    def test_the_next_first(self):
        writer = Writer()
        writer.did(TimerSet(name="Long", minutes=40), TimerSet(name="Short", minutes=2))
        assert [one.name for one in now(plain(), writer).timers] == ["Short", "Long"]


class TestChecks:
    """Two minutes more, and again; up to a sensible end."""

    def test_a_stretch_test_that_fails(self):
        of, writer = begun("Cardamom milk buns"), Writer()
        todo = task(now(of), "test")
        writer.did(Began(task=todo.key), LookedAt(task=todo.key, passed=False))
        failed = task(now(of, writer), "test")
        assert (failed.tries, failed.rings_s, failed.tries_say) == (1, BEGUN_S + 120, "")
        for _ in range(3):
            writer.did(LookedAt(task=todo.key, passed=False), after_min=2)
        assert "rest" in task(now(of, writer), "test").tries_say
        writer.did(LookedAt(task=todo.key, passed=True), Done(task=todo.key))
        assert task(now(of, writer), "test").status == "done"


class TestRunning:
    """What waits for what, and for how long it may."""

    def test_ready_in_turn(self):
        """Dividing waits for the rise; the preheat waits for nothing."""
        of, writer = begun("Malted seed bagels"), Writer()
        assert (task(now(of), "divide").ready, task(now(of), "preheat").ready) == (False, True)
        for todo in now(of).tasks:
            if todo.kind == "divide":
                break
            writer.did(Skipped(task=todo.key))
        assert task(now(of, writer), "divide").ready

    def test_a_dough_that_waits(self):
        """A rise that is over bears twenty minutes."""
        of, writer = begun("Malted seed bagels"), Writer()
        for todo in now(of).tasks:
            if todo.kind == "divide":
                break
            writer.did(Began(task=todo.key), Done(task=todo.key), after_min=1)
        divide = task(now(of, writer), "divide")
        assert divide.waits_until_s == writer.at_s + 20 * 60
        assert divide.waits_cost

    def test_loads_in_turn(self):
        """Each load of the pot has its own clock, in seconds; what is shaped first goes in first."""
        of, writer = begun("Malted seed bagels"), Writer()
        loads = [one for one in now(of).tasks if one.kind == "bathe"]
        assert [one.load for one in loads] == list(range(len(loads)))
        assert sum(one.pieces for one in loads) == 18
        writer.did(Began(task=loads[0].key), Done(task=loads[0].key), Began(task=loads[1].key), after_min=1)
        running = [one for one in now(of, writer).tasks if one.status == "running"]
        assert [(one.load, one.seconds) for one in running] == [(1, True)]

    def test_one_load_at_a_time(self):
        """While one is in the pot the next waits; the oven waits for pieces out of the pot, and not for all of them."""
        of, writer = begun("Malted seed bagels"), Writer()
        pot, oven = ([one for one in now(of).tasks if one.kind == kind and one.load >= 0] for kind in ("bathe", "bake"))
        top = task(now(of), "top")
        writer.did(*(Skipped(task=one.key) for one in now(of).tasks if one.load < 0 and one.key != top.key))

        order = now(of).order
        seeds = next(one.key for one in now(of).lines if one.of == "Topping")
        assert order.index(seeds) < order.index(pot[0].key)  # nobody weighs between pot and oven

        def ready(own: list[TaskNow]) -> list[bool]:
            told = {one.key: one.ready for one in now(of, writer).tasks}
            return [told[one.key] for one in own]

        assert (ready(pot), ready(oven)) == ([True] * len(pot), [False] * len(oven))
        assert ready([top]) == [False]
        out, wanted = 0, [sum(one.pieces for one in oven[: n + 1]) for n in range(len(oven))]
        for own in pot:
            writer.did(Began(task=own.key))
            assert not any(ready(pot))
            writer.did(Done(task=own.key))
            out += own.pieces
            assert ready(oven) == [most <= out for most in wanted]
            assert ready([top]) == [True]  # seeds stick to what is wet: with the first load, not after the last
        assert all(ready(oven))
        writer.did(Began(task=oven[0].key))
        assert not any(ready(oven))

    def test_turned(self):
        of, writer = begun("Malted seed bagels"), Writer()
        bake = task(now(of), "bake")
        writer.did(Began(task=bake.key), Turned(task=bake.key))
        assert task(now(of, writer), "bake").touched == 1

    def test_loads_that_wait(self):
        """While the first load is in the pot, the others wait since they came out of the fridge, and it is told until when they may."""
        of, writer = begun("Malted seed bagels"), Writer()
        for todo in now(of).tasks:
            if todo.kind == "bathe":
                break
            writer.did(Began(task=todo.key), Done(task=todo.key), after_min=1)
        chilled = next(one for one in now(of, writer).tasks if one.kind == "chill").done_s
        loads = [one for one in now(of, writer).tasks if one.kind == "bathe"]
        writer.did(Began(task=loads[0].key))
        waiting = [one for one in now(of, writer).tasks if one.kind == "bathe" and one.status == "open"]
        assert [one.waits_until_s for one in waiting] == [chilled + 120 * 60] * len(waiting)
