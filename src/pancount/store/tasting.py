"""Tastings: which letter is which bake is told before it is opened only to who lays them out, and so does not taste."""

import secrets
from datetime import UTC, datetime
from uuid import UUID

from sqlalchemy import func, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.core.book.tasting import LETTERS, MOST_TASTERS, Letter, Tasted, TastingSays, tasting_says
from pancount.store.bench import get_head
from pancount.store.errors import Behind, Full, NotFound
from pancount.store.kitchen import get_kitchen
from pancount.store.room import room_for_one
from pancount.store.tables import TastedRow, TastingRow


class Opened(Frozen):
    """A letter, and the bake that it was."""

    letter: Letter
    bake: UUID
    name: str
    begun_at: datetime


class TastingState(Frozen):
    """A tasting as a taster sees it; `opened` is empty until it is opened, but for who lays them out, and `says` for all."""

    id: UUID
    letters: tuple[Letter, ...]
    scales: tuple[str, ...]
    tasters: int
    mine: Tasted | None
    is_open: bool
    lays_out: bool
    """Whether who asks lays them out, and does not taste."""
    opened: tuple[Opened, ...]
    says: TastingSays | None
    sheets: tuple[Tasted, ...]


def _get(session: Session, kitchen_id: int, tasting_id: UUID, *, lock: bool = False) -> TastingRow:
    query = select(TastingRow).where(TastingRow.id == tasting_id, TastingRow.kitchen_id == kitchen_id)
    row = session.scalar(query.with_for_update() if lock else query)
    if row is None:
        raise NotFound("There is no such tasting in this kitchen.")
    return row


def begin_tasting(session: Session, kitchen_id: int, tasting_id: UUID, bakes: tuple[UUID, ...]) -> TastingState:
    """Begin one; letters are drawn here. One that was begun under this id already is that one. Raises `NotFound`, `Full`."""
    known = session.get(TastingRow, tasting_id)
    if known is None:
        for bake in bakes:
            get_head(session, kitchen_id, bake)
        room_for_one(session, TastingRow, kitchen_id, most.TASTINGS, "There are {} tastings; that is all there may be.")
        drawn = list(bakes)
        secrets.SystemRandom().shuffle(drawn)
        scales = list(get_kitchen(session, kitchen_id).settings.scales)
        session.execute(insert(TastingRow).values(id=tasting_id, kitchen_id=kitchen_id, bakes=drawn, scales=scales).on_conflict_do_nothing())
    return get_tasting(session, kitchen_id, tasting_id, None)


def _sheets(session: Session, tasting_id: UUID) -> tuple[Tasted, ...]:
    query = select(TastedRow.body).where(TastedRow.tasting_id == tasting_id).order_by(TastedRow.taster)
    return tuple(Tasted.model_validate(body) for body in session.scalars(query))


def _letters(row: TastingRow) -> tuple[Letter, ...]:
    return LETTERS[: len(row.bakes)]  # type: ignore[return-value]


def get_tasting(session: Session, kitchen_id: int, tasting_id: UUID, taster: UUID | None) -> TastingState:
    """A tasting. Raises `NotFound`."""
    row = _get(session, kitchen_id, tasting_id)
    mine = session.get(TastedRow, (tasting_id, taster)) if taster else None
    sheets = _sheets(session, tasting_id)
    letters, is_open = _letters(row), row.opened_at is not None
    opened = _opened(session, row) if is_open or taster in row.knows else ()
    return TastingState(
        id=row.id, letters=letters, scales=tuple(row.scales), tasters=len(sheets), mine=Tasted.model_validate(mine.body) if mine else None, is_open=is_open,
        opened=opened, lays_out=taster in row.knows, says=tasting_says(sheets, letters) if is_open else None, sheets=sheets if is_open else (),
    )  # fmt: skip


def _opened(session: Session, row: TastingRow) -> tuple[Opened, ...]:
    heads = [get_head(session, row.kitchen_id, bake) for bake in row.bakes]
    return tuple(Opened(letter=letter, bake=head.id, name=head.name, begun_at=head.begun_at) for letter, head in zip(_letters(row), heads, strict=True))


def lay_out(session: Session, kitchen_id: int, tasting_id: UUID, taster: UUID) -> TastingState:
    """Tell one who does not taste which is which, so that they can be laid out. Raises `NotFound`, and `Behind` for one who tasted already."""
    row = _get(session, kitchen_id, tasting_id, lock=True)
    if session.get(TastedRow, (tasting_id, taster)) is not None:
        raise Behind("You have tasted already. Somebody else lays them out.")
    if taster not in row.knows:
        if len(row.knows) >= MOST_TASTERS:
            raise Full(f"{MOST_TASTERS} people know already which is which.")
        row.knows = [*row.knows, taster]
        session.flush()
    return get_tasting(session, kitchen_id, tasting_id, taster)


def put_tasted(session: Session, kitchen_id: int, tasting_id: UUID, taster: UUID, told: Tasted) -> TastingState:
    """Keep what one taster says. Raises `NotFound`, `Full`, and `Behind` once it is opened."""
    row = _get(session, kitchen_id, tasting_id, lock=True)
    if row.opened_at is not None:
        raise Behind("It is opened: what is said now would not be blind any more.")
    if taster in row.knows:
        raise Behind("You lay them out and know which is which, so what you taste would not be blind.")
    others = session.scalar(select(func.count()).where(TastedRow.tasting_id == tasting_id, TastedRow.taster != taster)) or 0
    if others >= MOST_TASTERS:
        raise Full(f"{MOST_TASTERS} people have tasted; that is all there may be.")
    letters = set(_letters(row))
    told = told.model_copy(update={"scores": {key: value for key, value in told.scores.items() if key in letters}, "likes": told.likes if told.likes in letters else None})
    body = told.model_dump(mode="json")
    fresh = insert(TastedRow).values(tasting_id=tasting_id, taster=taster, kitchen_id=kitchen_id, body=body)
    session.execute(fresh.on_conflict_do_update(index_elements=[TastedRow.tasting_id, TastedRow.taster], set_={"body": body}))
    return get_tasting(session, kitchen_id, tasting_id, taster)


def open_tasting(session: Session, kitchen_id: int, tasting_id: UUID) -> TastingState:
    """Tell which is which, for good. Raises `NotFound`, and `Behind` while nobody has tasted."""
    row = _get(session, kitchen_id, tasting_id, lock=True)
    if row.opened_at is None:
        if not _sheets(session, tasting_id):
            raise Behind("Nobody has tasted yet. Once it is open, nobody tastes blind any more.")
        row.opened_at = datetime.now(UTC)
        session.flush()
    return get_tasting(session, kitchen_id, tasting_id, None)


class TastedBefore(Frozen):
    """A tasting that a bake was in, once it is opened; before, only that it is."""

    id: UUID
    begun_at: datetime
    is_open: bool
    letter: Letter | None
    score: float | None
    liked: int
    tasters: int
    says: str


def tastings_of(session: Session, kitchen_id: int, bake_id: UUID) -> tuple[TastedBefore, ...]:
    """The tastings that a bake was in, the last first."""
    query = select(TastingRow).where(TastingRow.kitchen_id == kitchen_id, TastingRow.bakes.contains([bake_id])).order_by(TastingRow.begun_at.desc()).limit(20)
    found = list[TastedBefore]()
    for row in session.scalars(query):
        sheets, letters = _sheets(session, row.id), _letters(row)
        is_open = row.opened_at is not None
        letter = letters[row.bakes.index(bake_id)] if is_open else None
        own = tasting_says(sheets, letters)
        mine = next((one for one in own.letters if one.letter == letter), None)
        found.append(
            TastedBefore(
                id=row.id, begun_at=row.begun_at, is_open=is_open, letter=letter, score=mine.score if mine else None, liked=mine.liked if mine else 0,
                tasters=len(sheets), says=own.says if is_open else "",
            )
        )  # fmt: skip
    return tuple(found)
