"""Bakes at the bench: begun once, then only added to."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any
from uuid import UUID

from pydantic import Field
from sqlalchemy import func, select, tuple_
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.core.bench.begun import Begun
from pancount.core.bench.ends import STATUS_DEEDS, ended_by
from pancount.core.bench.events import Event
from pancount.store.errors import Behind, Full, NotFound
from pancount.store.room import room_for_one
from pancount.store.tables import BakeRow, BenchClock, BenchEventRow

UNDER_WAY = ("running", "paused")


class BakeHead(Frozen):
    """A bake in a list."""

    id: UUID
    name: str
    formula_id: int | None
    revision: int | None
    begun_at: datetime
    ended_at: datetime | None
    status: str
    number: int = Field(description="Of its last event, over all of the kitchen's.")
    pieces: int
    mixes: int
    written: bool = Field(description="Whether it was written in by hand, not at the bench.")


@dataclass(frozen=True, slots=True)
class News:
    """A bake, or what is new of it: `begun` where it was not known yet, and the events since."""

    head: BakeHead
    begun: Begun | None
    events: tuple[Event, ...]


@dataclass(frozen=True, slots=True)
class Told:
    """An event as others hear of it."""

    number: int
    bake_id: UUID
    body: dict[str, Any]


def _head(row: BakeRow) -> BakeHead:
    return BakeHead(
        id=row.id, name=row.name, formula_id=row.formula_id, revision=row.revision, begun_at=row.begun_at, ended_at=row.ended_at, status=row.status,
        number=row.last_number, pieces=row.pieces, mixes=row.mixes, written=row.written,
    )  # fmt: skip


def _get(session: Session, kitchen_id: int, bake_id: UUID, *, lock: bool = False) -> BakeRow:
    query = select(BakeRow).where(BakeRow.id == bake_id, BakeRow.kitchen_id == kitchen_id)
    row = session.scalar(query.with_for_update() if lock else query)
    if row is None:
        raise NotFound("There is no such bake in this kitchen.")
    return row


def get_head(session: Session, kitchen_id: int, bake_id: UUID) -> BakeHead:
    """A bake as it stands in lists. Raises `NotFound`."""
    return _head(_get(session, kitchen_id, bake_id))


def begin_bake(session: Session, kitchen_id: int, bake_id: UUID, begun: Begun, formula_id: int | None, revision: int | None, begun_at: datetime | None = None, *, written: bool = False) -> BakeHead:
    """Begin a bake, now unless it was before, or write one in that was not at the bench; one that was begun under this id already is that one. Raises `Full`."""
    if (known := session.get(BakeRow, bake_id)) is not None:
        if known.kitchen_id != kitchen_id:
            raise Behind("Another bake goes by this id.")
        return _head(known)
    room_for_one(session, BakeRow, kitchen_id, most.BAKES, "There are {} bakes in the book; that is all it holds.")
    if not written and len(list_bakes(session, kitchen_id, under_way=True)) >= most.BAKES_AT_ONCE:
        raise Full(f"There are {most.BAKES_AT_ONCE} bakes at the bench. End some of them first.")
    fresh = insert(BakeRow).values(
        id=bake_id, kitchen_id=kitchen_id, formula_id=formula_id, revision=revision, name=begun.formula.name, begun=begun.model_dump(mode="json"),
        pieces=sum(target.pieces for target in begun.sheet.targets), mixes=begun.sheet.mixes, begun_at=begun_at or datetime.now(UTC), last_number=0, status="running",
        written=written,
    )  # fmt: skip
    session.execute(fresh.on_conflict_do_nothing())  # begun twice at once, it is begun once
    return _head(_get(session, kitchen_id, bake_id))


def list_bakes(session: Session, kitchen_id: int, *, under_way: bool, limit: int = 200) -> tuple[BakeHead, ...]:
    """Bakes under way, the first begun first; or those that are over, the last first."""
    query = select(BakeRow).where(BakeRow.kitchen_id == kitchen_id)
    if under_way:
        query = query.where(BakeRow.status.in_(UNDER_WAY)).order_by(BakeRow.begun_at, BakeRow.id)
    else:
        query = query.where(BakeRow.status.not_in(UNDER_WAY)).order_by(BakeRow.begun_at.desc(), BakeRow.id)
    return tuple(_head(row) for row in session.scalars(query.limit(limit)))


def news(session: Session, kitchen_id: int, bake_id: UUID, known: int | None) -> News:
    """A bake, whole where `known` is None; else what came after that number. Raises `NotFound`."""
    row = _get(session, kitchen_id, bake_id)
    query = select(BenchEventRow.body).where(BenchEventRow.bake_id == bake_id, BenchEventRow.number > (known or 0)).order_by(BenchEventRow.number)
    events = tuple(Event.model_validate(body) for body in session.scalars(query)) if row.last_number > (known or 0) else ()
    return News(_head(row), Begun.model_validate(row.begun) if known is None else None, events)


def last_number(session: Session, kitchen_id: int) -> int:
    """Of the kitchen's last event."""
    return session.scalar(select(BenchClock.last).where(BenchClock.kitchen_id == kitchen_id)) or 0


def told_after(session: Session, kitchen_id: int, number: int, limit: int) -> tuple[Told, ...]:
    """What happened in a kitchen after a number, in order, the first so much of it."""
    query = (
        select(BenchEventRow.number, BenchEventRow.bake_id, BenchEventRow.body)
        .where(BenchEventRow.kitchen_id == kitchen_id, BenchEventRow.number > number)
        .order_by(BenchEventRow.number)
        .limit(limit)
    )
    return tuple(Told(*row) for row in session.execute(query))


def append(session: Session, kitchen_id: int, bake_id: UUID, events: Sequence[Event]) -> BakeHead:
    """Add what happened, in order; what is there already is passed over. Raises `NotFound`, `Full`, and `Behind` where a writer counted something twice.

    Times are the server's where a device's clock is ahead, or behind the beginning of the bake.
    """
    row = _get(session, kitchen_id, bake_id, lock=True)
    known = set(session.scalars(select(BenchEventRow.id).where(BenchEventRow.bake_id == bake_id, BenchEventRow.id.in_([one.id for one in events]))))
    new = list({one.id: one for one in events if one.id not in known}.values())
    if not new:
        return _head(row)
    has = _counted(session, bake_id)
    if has + len(new) > most.BENCH_EVENTS:
        raise Full(f"A bake holds {most.BENCH_EVENTS} events, and this one has {has}. End it, and begin another.")
    counted = [(one.writer, one.clock) for one in new]
    at = tuple_(BenchEventRow.writer, BenchEventRow.clock).in_(counted)
    if len(set(counted)) < len(counted) or session.scalar(select(func.count()).where(BenchEventRow.bake_id == bake_id, at)):
        raise Behind("Something else was written here under the same count. Open the bake anew.")
    now, begun = datetime.now(UTC).timestamp(), row.begun_at.timestamp()
    last = _numbers(session, kitchen_id, len(new))
    for n, one in enumerate(new, last - len(new) + 1):
        own = one.model_copy(update={"at_s": max(begun, min(one.at_s, now))})
        session.add(BenchEventRow(kitchen_id=kitchen_id, number=n, bake_id=bake_id, id=one.id, writer=one.writer, clock=one.clock, body=own.model_dump(mode="json")))
    row.last_number = last
    session.flush()
    if any(one.what.deed in STATUS_DEEDS for one in new):
        _look_again(session, row)
    return _head(row)


def _counted(session: Session, bake_id: UUID) -> int:
    return session.scalar(select(func.count()).where(BenchEventRow.bake_id == bake_id)) or 0


def _numbers(session: Session, kitchen_id: int, some: int) -> int:
    """The last of so many new numbers. Held until the transaction ends, so that no number is seen before one that is smaller."""
    added = insert(BenchClock).values(kitchen_id=kitchen_id, last=some)
    query = added.on_conflict_do_update(index_elements=[BenchClock.kitchen_id], set_={"last": BenchClock.last + some}).returning(BenchClock.last)
    return session.execute(query).scalar_one()


def _look_again(session: Session, row: BakeRow) -> None:
    """Bring the cached status up to what the events say."""
    told = select(BenchEventRow.body).where(BenchEventRow.bake_id == row.id, BenchEventRow.body["what"]["deed"].as_string().in_(STATUS_DEEDS))
    row.status, ended_s = ended_by(Event.model_validate(body) for body in session.scalars(told))
    row.ended_at = None if ended_s is None else datetime.fromtimestamp(ended_s, UTC)


def write_in(
    session: Session, kitchen_id: int, bake_id: UUID, begun: Begun, formula_id: int | None, revision: int | None, begun_at: datetime, events: Sequence[Event]
) -> BakeHead:
    """A bake that was not at the bench, begun and ended in one. Raises `Full`, and `Behind` where another goes by its id."""
    if not begin_bake(session, kitchen_id, bake_id, begun, formula_id, revision, begun_at, written=True).written:
        raise Behind("A bake of the bench goes by this id.")
    return append(session, kitchen_id, bake_id, events)
