"""Bakes in the records: begun once, added to by several at once, numbered without gaps."""

import threading
from contextlib import suppress
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

import psycopg
import pytest
from sqlalchemy import Engine, text

from core.bench.bakes import begun
from pancount.core.base import most
from pancount.core.bench.ends import ended_by
from pancount.core.bench.events import Ended, Event, Noted, Paused, Piece, Resumed, Undone
from pancount.store import bench as store
from pancount.store.database import transaction
from pancount.store.errors import Away, Behind, Full, NotFound
from pancount.store.kitchen import ONLY_KITCHEN

OTHER_KITCHEN = 99


def event(clock: int, what, writer: str = "tablet", id: UUID | None = None, at_s: float = 4e9) -> Event:
    return Event(id=id or uuid4(), writer=writer, clock=clock, at_s=at_s, what=what)


@pytest.fixture
def bake(engine: Engine) -> UUID:
    number = uuid4()
    with transaction(engine) as session:
        store.begin_bake(session, ONLY_KITCHEN, number, begun("Malted seed bagels"), None, None)
    yield number
    with transaction(engine) as session:
        store.append(session, ONLY_KITCHEN, number, [event(1, Ended(how="stopped"), writer="end")])


def added(engine: Engine, bake: UUID, *events: Event):
    with transaction(engine) as session:
        return store.append(session, ONLY_KITCHEN, bake, events)


class TestBeginning:
    """What it was begun with is kept whole."""

    def test_there_and_back(self, engine, bake):
        with transaction(engine) as session:
            news = store.news(session, ONLY_KITCHEN, bake, None)
        assert news.begun == begun("Malted seed bagels")
        assert (news.head.name, news.head.pieces, news.head.mixes, news.events) == ("Malted seed bagels", 18, 2, ())

    def test_by_several_at_once(self, engine):
        """Begun by four windows at the same moment under one id, it is one bake."""
        number, heads = uuid4(), []

        def begin() -> None:
            with transaction(engine) as session:
                heads.append(store.begin_bake(session, ONLY_KITCHEN, number, begun("Squash rolls"), None, None))

        threads = [threading.Thread(target=begin) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        assert len({head.begun_at for head in heads}) == 1
        assert len(heads) == 4
        added(engine, number, event(1, Ended(how="stopped")))

    def test_another_kitchens(self, engine, bake):
        """It is not there for it, and its id is taken."""
        with pytest.raises(NotFound), transaction(engine) as session:
            store.news(session, OTHER_KITCHEN, bake, None)
        with pytest.raises(Behind), transaction(engine) as session:
            store.begin_bake(session, OTHER_KITCHEN, bake, begun("Squash rolls"), None, None)

    def test_as_many_as_stand_at_a_bench(self, engine, bake, monkeypatch):
        monkeypatch.setattr(most, "BAKES_AT_ONCE", 1)
        with pytest.raises(Full, match="at the bench"), transaction(engine) as session:
            store.begin_bake(session, ONLY_KITCHEN, uuid4(), begun("Squash rolls"), None, None)

    def test_as_many_as_the_book_holds(self, engine, bake, monkeypatch):
        monkeypatch.setattr(most, "BAKES", 1)
        with pytest.raises(Full, match="in the book"), transaction(engine) as session:
            store.begin_bake(session, ONLY_KITCHEN, uuid4(), begun("Squash rolls"), None, None)


class TestAdding:
    """Only ever added to."""

    def test_what_is_new(self, engine, bake):
        """Only what came after the number that is known."""
        head = added(engine, bake, event(1, Piece(g=80)), event(2, Piece(g=81)))
        added(engine, bake, event(3, Piece(g=82)))
        with transaction(engine) as session:
            news = store.news(session, ONLY_KITCHEN, bake, head.number)
            nothing = store.news(session, ONLY_KITCHEN, bake, news.head.number)
        assert [one.what.g for one in news.events] == [82]
        assert (news.begun, nothing.events) == (None, ())

    def test_by_many_at_once(self, engine, bake):
        """Eight writers, each twenty events one by one: all there, each writer's in its order, numbers without gaps. One that is kept waiting for too long sends again."""

        def write(writer: str) -> None:
            for clock in range(1, 21):
                one, kept = event(clock, Piece(g=clock), writer=writer), False
                while not kept:
                    with suppress(Away):
                        added(engine, bake, one)
                        kept = True

        with transaction(engine) as session:
            before = store.last_number(session, ONLY_KITCHEN)
        threads = [threading.Thread(target=write, args=(f"w{n}",)) for n in range(8)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        with transaction(engine) as session:
            told = store.told_after(session, ONLY_KITCHEN, before, 1000)
        assert [one.number for one in told] == list(range(before + 1, before + 161))
        for n in range(8):
            assert [one.body["clock"] for one in told if one.body["writer"] == f"w{n}"] == list(range(1, 21))

    def test_numbers_are_seen_in_order(self, engine, bake):
        """Who adds holds the kitchen's clock: a later number is never there before an earlier one that is still being added."""
        with transaction(engine) as session:
            before = store.last_number(session, ONLY_KITCHEN)
        seen, entered, leave = list[int](), threading.Event(), threading.Event()

        def slow() -> None:
            with transaction(engine) as session:
                store.append(session, ONLY_KITCHEN, bake, [event(1, Piece(g=80), writer="slow")])
                entered.set()
                leave.wait(20)

        def quick() -> None:
            added(engine, other, event(1, Piece(g=81), writer="quick"))

        other = uuid4()
        with transaction(engine) as session:
            store.begin_bake(session, ONLY_KITCHEN, other, begun("Squash rolls"), None, None)
        first, second = threading.Thread(target=slow), threading.Thread(target=quick)
        first.start()
        entered.wait(20)
        second.start()
        with transaction(engine) as session:
            seen += [one.number for one in store.told_after(session, ONLY_KITCHEN, before, 10)]
        leave.set()
        first.join()
        second.join()
        with transaction(engine) as session:
            told = store.told_after(session, ONLY_KITCHEN, before, 10)
        assert seen == []
        assert [one.body["writer"] for one in told] == ["slow", "quick"]
        added(engine, other, event(2, Ended(how="stopped")))

    def test_the_same_twice_in_one_sending(self, engine, bake):
        one = event(1, Piece(g=80))
        added(engine, bake, one, one)
        with transaction(engine) as session:
            assert len(store.news(session, ONLY_KITCHEN, bake, 0).events) == 1

    def test_two_under_one_count(self, engine, bake):
        """Nothing of the sending is kept."""
        with pytest.raises(Behind):
            added(engine, bake, event(1, Piece(g=80)), event(1, Piece(g=81)))
        with transaction(engine) as session:
            assert store.news(session, ONLY_KITCHEN, bake, 0).events == ()

    def test_times(self, engine):
        """A device whose clock is ahead, or behind the beginning."""
        number, at = uuid4(), datetime.now(UTC) - timedelta(hours=3)
        with transaction(engine) as session:
            store.begin_bake(session, ONLY_KITCHEN, number, begun("Squash rolls"), None, None, at)
        within = at.timestamp() + 600
        added(engine, number, event(1, Noted(text="a"), at_s=0), event(2, Noted(text="b"), at_s=within), event(3, Ended(how="done"), at_s=9e10))
        with transaction(engine) as session:
            times = [one.at_s for one in store.news(session, ONLY_KITCHEN, number, 0).events]
        assert times[:2] == [at.timestamp(), within]
        assert abs(times[2] - datetime.now(UTC).timestamp()) < 60

    def test_listeners_are_told(self, engine, bake, server_url):
        """Whoever listens is notified once the event is there, and not before."""
        with psycopg.connect(server_url, autocommit=True) as connection:
            connection.execute("LISTEN bench")
            head = added(engine, bake, event(1, Piece(g=80)))
            (told,) = connection.notifies(timeout=20, stop_after=1)
        assert told.payload == f"{ONLY_KITCHEN} {head.number}"

    def test_not_even_by_hand(self, engine, bake):
        added(engine, bake, event(1, Piece(g=80)))
        with pytest.raises(Exception, match="never changed"), engine.begin() as connection:
            connection.execute(text("UPDATE bench_events SET clock = clock + 1"))


class TestStatus:
    """A cache of what the events say, whatever order they come in."""

    def test_from_late_arrivals(self, engine, bake):
        """The undoing of an end may come before the end itself."""
        end = event(1, Ended(how="done"), writer="phone")
        undoing = Event(id=uuid4(), writer="tablet", clock=2, saw={"phone": 1}, at_s=4e9, what=Undone(of=end.id))
        assert added(engine, bake, undoing).status == "running"
        assert added(engine, bake, end).status == "running"
        assert added(engine, bake, event(5, Paused())).status == "paused"
        assert added(engine, bake, event(6, Resumed())).status == "running"

    @pytest.mark.parametrize(
        ("deeds", "status"),
        [
            ((), "running"),
            ((Paused(),), "paused"),
            ((Paused(), Resumed()), "running"),
            ((Ended(how="thrown_away"),), "thrown_away"),
            ((Ended(how="done"), Paused()), "done"),
            ((Ended(how="stopped"), Resumed()), "running"),
        ],
    )
    def test_by_its_events(self, deeds, status):
        assert ended_by([event(n, deed) for n, deed in enumerate(deeds, 1)])[0] == status
