"""The book: records of bakes that are over, what they came to, and how they are found again."""

from collections import Counter
from collections.abc import Sequence, Set
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from sqlalchemy import ColumnElement, and_, cast, func, or_, select
from sqlalchemy.dialects.postgresql import REGCONFIG, TEXT, insert
from sqlalchemy.orm import Session, undefer

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.core.book.figures import BakeSaid
from pancount.core.book.outcome import Outcome
from pancount.core.book.points import Numbers, numbers_of
from pancount.core.book.record import Record, words_of
from pancount.core.book.searching import spellings, told_words
from pancount.core.count.learned import MOST_LEARNED
from pancount.store.bench import UNDER_WAY
from pancount.store.errors import Behind, Full, NotFound
from pancount.store.tables import BakeRow, BookRow, PhotoRow

EDITION = 1
"""Of what makes records (`core/book/record.py`): raised where they would say more, all are worked out anew, some at a time."""
CONFIGS = {"en": "english", "de": "german"}
MOST_FOUND = 100
MOST_WORDS = 200_000
"""Of all its words so many are looked through: PostgreSQL takes a megabyte of them. [characters]"""


class Stale(Frozen):
    """A bake that is over and whose record is not there yet, or is of before."""

    bake_id: UUID
    outcome: Outcome
    version: int
    """Of the outcome; 0 where it is not in the book yet."""


class BookHead(Frozen):
    """A bake in the book's list."""

    id: UUID
    name: str
    way: str
    formula_id: int | None
    revision: int | None
    begun_at: datetime
    status: str
    written: bool
    numbers: Numbers
    words: str
    """The first of what was told of it."""
    photo: UUID | None
    photos: int


class Entry(Frozen):
    """A bake in the book, whole."""

    id: UUID
    formula_id: int | None
    revision: int | None
    begun_at: datetime
    record: Record
    outcome: Outcome
    version: int
    left_out: dict[str, str]


class Point(Frozen):
    """A bake in a chart."""

    bake: UUID
    name: str
    formula_id: int | None
    begun_at: datetime
    numbers: Numbers


class MonthHas(Frozen):
    """How many bakes a month has, and on which days."""

    month: str
    bakes: int


class FormulaHas(Frozen):
    """A formula that bakes in the book are of."""

    formula_id: int
    name: str
    bakes: int


@dataclass(frozen=True, slots=True)
class Sought:
    """What is looked for; all of it, where several are told."""

    words: str = ""
    language: Literal["en", "de"] = "en"
    formula_id: int | None = None
    ingredient: str = ""
    least_score: float | None = None
    month: str = ""
    """2026-11."""


def stale(session: Session, kitchen_id: int, limit: int, but: Set[UUID] = frozenset()) -> tuple[Stale, ...]:
    """Bakes that are over and not in the book as they are, the last begun first; without those that are told."""
    behind = or_(BookRow.bake_id.is_(None), BookRow.number != BakeRow.last_number, BookRow.edition != EDITION)
    query = (
        select(BakeRow.id, BookRow.outcome, BookRow.version)
        .outerjoin(BookRow, BookRow.bake_id == BakeRow.id)
        .where(BakeRow.kitchen_id == kitchen_id, BakeRow.status.not_in(UNDER_WAY), BakeRow.id.not_in(but), behind)
        .order_by(BakeRow.begun_at.desc())
        .limit(limit)
    )
    return tuple(Stale(bake_id=bake, outcome=Outcome.model_validate(told or {}), version=version or 0) for bake, told, version in session.execute(query))


def _captions(session: Session, bake_id: UUID) -> tuple[str, ...]:
    return tuple(session.scalars(select(PhotoRow.caption).where(PhotoRow.bake_id == bake_id, PhotoRow.caption != "")))


def _told(session: Session, bake_id: UUID, record: Record, outcome: Outcome) -> str:
    return told_words(words_of(record, outcome, _captions(session, bake_id)))[:MOST_WORDS]


def keep_record(session: Session, kitchen_id: int, bake_id: UUID, number: int, record: Record, version: int) -> None:
    """Keep a bake's record, up to an event's number and by an outcome's version (0: none yet). One that is older than what is there changes nothing."""
    bake = session.get(BakeRow, bake_id)
    if bake is None or bake.kitchen_id != kitchen_id:
        raise NotFound("There is no such bake in this kitchen.")
    known = session.get(BookRow, bake_id, with_for_update=True)
    if known is not None and (known.version != version or (known.edition == EDITION and known.number > number)):
        return
    outcome = Outcome.model_validate(known.outcome) if known else Outcome()
    own = _own(session, bake_id, record, outcome) | {"number": number, "edition": EDITION}
    fresh = insert(BookRow).values(
        bake_id=bake_id, kitchen_id=kitchen_id, formula_id=bake.formula_id, begun_at=bake.begun_at, outcome=outcome.model_dump(mode="json"), version=1, left_out={}, **own
    )
    session.execute(fresh.on_conflict_do_update(index_elements=[BookRow.bake_id], set_=own))


def _own(session: Session, bake_id: UUID, record: Record, outcome: Outcome) -> dict[str, Any]:
    """What a row has of a record and what it came to."""
    return {
        "record": record.model_dump(mode="json", exclude={"observed"}), "observed": [one.model_dump(mode="json") for one in record.observed],
        "numbers": numbers_of(record, outcome).model_dump(mode="json"), "ingredients": [one.casefold() for one in record.ingredients], "score": outcome.score,
        "told": _told(session, bake_id, record, outcome),
    }  # fmt: skip


def _get(session: Session, kitchen_id: int, bake_id: UUID, *, lock: bool = False) -> BookRow:
    query = select(BookRow).where(BookRow.bake_id == bake_id, BookRow.kitchen_id == kitchen_id).options(undefer(BookRow.record), undefer(BookRow.observed))
    row = session.scalar(query.with_for_update(of=BookRow) if lock else query)
    if row is None:
        raise NotFound("There is no such bake in the book: one that is under way comes into it when it ends.")
    return row


def _record(row: BookRow) -> Record:
    return Record.model_validate(row.record | {"observed": row.observed})


def get_entry(session: Session, kitchen_id: int, bake_id: UUID) -> Entry:
    """A bake in the book. Raises `NotFound`."""
    return _entry(_get(session, kitchen_id, bake_id), _revision(session, bake_id))


def _revision(session: Session, bake_id: UUID) -> int | None:
    return session.scalar(select(BakeRow.revision).where(BakeRow.id == bake_id))


def _entry(row: BookRow, revision: int | None) -> Entry:
    return Entry(
        id=row.bake_id, formula_id=row.formula_id, revision=revision, begun_at=row.begun_at, record=_record(row), outcome=Outcome.model_validate(row.outcome),
        version=row.version, left_out=row.left_out,
    )  # fmt: skip


def put_outcome(session: Session, kitchen_id: int, bake_id: UUID, outcome: Outcome, version: int, record: Record) -> Entry:
    """Keep what a bake came to, with its record by that. Raises `NotFound`, and `Behind` where another window changed it since `version`."""
    row = _get(session, kitchen_id, bake_id, lock=True)
    if row.version != version:
        if Outcome.model_validate(row.outcome) == outcome:
            return _entry(row, _revision(session, bake_id))
        raise Behind("What this bake came to was written in another window as well. It is shown now as it stands there; your text is kept here.")
    row.outcome, row.version = outcome.model_dump(mode="json"), version + 1
    for name, value in _own(session, bake_id, record, outcome).items():
        setattr(row, name, value)
    session.flush()
    return _entry(row, _revision(session, bake_id))


def words_again(session: Session, bake_id: UUID) -> None:
    """Bring a bake's words up to its captions."""
    row = session.scalar(select(BookRow).where(BookRow.bake_id == bake_id).options(undefer(BookRow.record), undefer(BookRow.observed)))
    if row is not None:
        row.told = _told(session, bake_id, _record(row), Outcome.model_validate(row.outcome))


def leave_out(session: Session, kitchen_id: int, bake_id: UUID, figure: str, reason: str) -> None:
    """Let a bake not count for a figure, with the reason; with none, it counts again. Raises `NotFound`."""
    row = _get(session, kitchen_id, bake_id, lock=True)
    kept = {key: value for key, value in row.left_out.items() if key != figure}
    if reason and len(kept) >= MOST_LEARNED:
        raise Full(f"This bake is left out of {MOST_LEARNED} figures; that is all it holds.")
    row.left_out = kept | ({figure: reason} if reason else {})


def _matches(sought: Sought) -> ColumnElement[bool]:
    """Whether a bake's words have all that is looked for, in any spelling; the last word may be its beginning."""
    config = cast(CONFIGS[sought.language], REGCONFIG)
    column = BookRow.told_de if sought.language == "de" else BookRow.told_en
    query: Any = None
    for spelling in spellings(sought.words.strip()):
        own = func.websearch_to_tsquery(config, spelling)
        query = own if query is None else query.op("||")(own)
        *first, last = spelling.split()
        if last.isalnum() and len(last) > 1 and '"' not in spelling:
            begun = func.to_tsquery(cast("simple", REGCONFIG), f"'{last}':*")
            before = func.websearch_to_tsquery(config, " ".join(first)) if first else None
            query = query.op("||")(begun if before is None else before.op("&&")(begun))
    return column.op("@@")(query)


def _where(kitchen_id: int, sought: Sought) -> ColumnElement[bool]:
    found: list[ColumnElement[bool]] = [BookRow.kitchen_id == kitchen_id]
    if sought.words.strip():
        found.append(_matches(sought))
    if sought.formula_id is not None:
        found.append(BookRow.formula_id == sought.formula_id)
    if sought.ingredient.strip():
        found.append(BookRow.ingredients.contains([sought.ingredient.strip().casefold()]))
    if sought.least_score is not None:
        found.append(BookRow.score >= sought.least_score)
    if sought.month:
        year, month = (int(part) for part in sought.month.split("-"))
        first, after = (datetime(y, m, 1).astimezone() for y, m in ((year, month), (year + month // 12, month % 12 + 1)))  # the kitchen's own clock
        found.append(and_(BookRow.begun_at >= first, BookRow.begun_at < after))
    return and_(*found)


def find(session: Session, kitchen_id: int, sought: Sought, offset: int, limit: int) -> tuple[tuple[BookHead, ...], int]:
    """Bakes that are looked for, the last first, and how many there are."""
    where = _where(kitchen_id, sought)
    total = session.scalar(select(func.count()).select_from(BookRow).where(where)) or 0
    query = (
        select(BookRow, BakeRow.name, BakeRow.revision, BakeRow.status, BakeRow.written, BookRow.record["way"].as_string())
        .join(BakeRow, BakeRow.id == BookRow.bake_id)
        .where(where)
        .order_by(BookRow.begun_at.desc(), BookRow.bake_id)
        .offset(offset)
        .limit(limit)
    )
    rows = session.execute(query).all()
    photos: dict[UUID, list[UUID]] = {}
    for bake, photo in session.execute(
        select(PhotoRow.bake_id, PhotoRow.id).where(PhotoRow.bake_id.in_([row.bake_id for row, *_ in rows])).order_by(PhotoRow.kept_at, PhotoRow.id)
    ):
        photos.setdefault(bake, []).append(photo)
    return tuple(_head(row, name, revision, status, written, way, photos.get(row.bake_id, [])) for row, name, revision, status, written, way in rows), total


def _head(row: BookRow, name: str, revision: int | None, status: str, written: bool, way: str, photos: Sequence[UUID]) -> BookHead:
    outcome = Outcome.model_validate(row.outcome)
    words = outcome.words or outcome.wrong or outcome.next_time
    return BookHead(
        id=row.bake_id, name=name, way=way or "", formula_id=row.formula_id, revision=revision, begun_at=row.begun_at, status=status, written=written,
        numbers=Numbers.model_validate(row.numbers), words=words[:300], photo=photos[0] if photos else None, photos=len(photos),
    )  # fmt: skip


def months(session: Session, kitchen_id: int) -> tuple[MonthHas, ...]:
    """Which months have bakes, by the kitchen's own clock, the last first."""
    has = Counter(f"{at.astimezone():%Y-%m}" for at in session.scalars(select(BookRow.begun_at).where(BookRow.kitchen_id == kitchen_id)))
    return tuple(MonthHas(month=month, bakes=bakes) for month, bakes in sorted(has.items(), reverse=True))


def formulas(session: Session, kitchen_id: int) -> tuple[FormulaHas, ...]:
    """Which formulas have bakes, those baked most first; by the name that the last of them had."""
    query = (
        select(BookRow.formula_id, func.count(), (func.array_agg(BakeRow.name)))
        .join(BakeRow, BakeRow.id == BookRow.bake_id)
        .where(BookRow.kitchen_id == kitchen_id, BookRow.formula_id.is_not(None))
        .group_by(BookRow.formula_id)
        .order_by(func.count().desc(), BookRow.formula_id)
    )
    return tuple(FormulaHas(formula_id=one, name=names[-1], bakes=bakes) for one, bakes, names in session.execute(query))


def points(session: Session, kitchen_id: int, sought: Sought) -> tuple[Point, ...]:
    """The last bakes that are looked for, the oldest first, as points."""
    query = (
        select(BookRow.bake_id, BakeRow.name, BookRow.formula_id, BookRow.begun_at, BookRow.numbers)
        .join(BakeRow, BakeRow.id == BookRow.bake_id)
        .where(_where(kitchen_id, sought))
        .order_by(BookRow.begun_at.desc())
        .limit(most.BOOK_POINTS)
    )
    found = [Point(bake=bake, name=name, formula_id=formula, begun_at=at, numbers=Numbers.model_validate(numbers)) for bake, name, formula, at, numbers in session.execute(query)]
    return tuple(reversed(found))


def said(session: Session, kitchen_id: int, formula_id: int | None) -> tuple[BakeSaid, ...]:
    """What the last bakes say of the kitchen's figures, or those of one formula; the oldest first. What was thrown away says nothing."""
    query = (
        select(BookRow.bake_id, BookRow.formula_id, BakeRow.name, BookRow.begun_at, BookRow.observed, BookRow.left_out)
        .join(BakeRow, BakeRow.id == BookRow.bake_id)
        .where(BookRow.kitchen_id == kitchen_id, BakeRow.status == "done")
        .order_by(BookRow.begun_at.desc())
        .limit(most.BOOK_LEARNED)
    )
    if formula_id is not None:
        query = query.where(BookRow.formula_id == formula_id)
    found = [BakeSaid(bake=bake, formula_id=formula, name=name, begun_s=at.timestamp(), observed=observed, left_out=left) for bake, formula, name, at, observed, left in session.execute(query)]
    return tuple(reversed(found))


def last_numbers(session: Session, kitchen_id: int, formula_id: int, revision: int, some: int) -> tuple[Numbers, ...]:
    """The numbers of the last bakes of a revision, the latest first."""
    query = (
        select(BookRow.numbers)
        .join(BakeRow, BakeRow.id == BookRow.bake_id)
        .where(BookRow.kitchen_id == kitchen_id, BookRow.formula_id == formula_id, BakeRow.revision == revision, BakeRow.status == "done")
        .order_by(BookRow.begun_at.desc())
        .limit(some)
    )
    return tuple(Numbers.model_validate(one) for one in session.scalars(query))


@dataclass(frozen=True, slots=True)
class Told:
    """A bake as it goes out with many others: whole as JSON, or its numbers and what it came to."""

    id: UUID
    text: str


class RowOut(Frozen):
    """A bake as a row of a table."""

    id: UUID
    begun_at: datetime
    name: str
    way: str
    revision: int | None
    status: str
    numbers: Numbers
    outcome: Outcome


def told_whole(session: Session, kitchen_id: int, after: UUID | None, some: int) -> tuple[Told, ...]:
    """Bakes in the book as JSON, some at a time: those whose id comes after another's. Put together by the database, since there may be very many."""
    whole = func.jsonb_build_object(
        "id", BookRow.bake_id, "revision", BakeRow.revision, "begun_at", BookRow.begun_at,
        "record", BookRow.record.op("||")(func.jsonb_build_object("observed", BookRow.observed)), "outcome", BookRow.outcome,
    )  # fmt: skip
    query = _after(select(BookRow.bake_id, cast(whole, TEXT)), kitchen_id, after, some)
    return tuple(Told(*row) for row in session.execute(query))


def told_rows(session: Session, kitchen_id: int, after: UUID | None, some: int) -> tuple[RowOut, ...]:
    """Bakes in the book as rows, some at a time: those whose id comes after another's."""
    query = select(BookRow.bake_id, BookRow.begun_at, BakeRow.name, BookRow.record["way"].as_string(), BakeRow.revision, BakeRow.status, BookRow.numbers, BookRow.outcome)
    names = tuple(RowOut.model_fields)
    return tuple(RowOut.model_validate(dict(zip(names, row, strict=True))) for row in session.execute(_after(query, kitchen_id, after, some)))


def _after(query: Any, kitchen_id: int, after: UUID | None, some: int) -> Any:
    query = query.join(BakeRow, BakeRow.id == BookRow.bake_id).where(BookRow.kitchen_id == kitchen_id).order_by(BookRow.bake_id).limit(some)
    return query if after is None else query.where(BookRow.bake_id > after)
