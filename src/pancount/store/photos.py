"""Photos of bakes, in the records: what a backup holds, it holds with its photos."""

from uuid import UUID

from sqlalchemy import func, select
from sqlalchemy.orm import Session, undefer

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.store.bench import get_head
from pancount.store.book import words_again
from pancount.store.errors import Behind, Full, NotFound
from pancount.store.room import room_for_one
from pancount.store.tables import PhotoRow


class PhotoHead(Frozen):
    """A photo of a bake; its pictures have addresses of their own."""

    id: UUID
    caption: str
    square: bool
    width: int
    height: int


def _head(row: PhotoRow) -> PhotoHead:
    return PhotoHead(id=row.id, caption=row.caption, square=row.square, width=row.width, height=row.height)


def _get(session: Session, kitchen_id: int, photo_id: UUID) -> PhotoRow:
    row = session.scalar(select(PhotoRow).where(PhotoRow.id == photo_id, PhotoRow.kitchen_id == kitchen_id))
    if row is None:
        raise NotFound("There is no such photo in this kitchen.")
    return row


def list_photos(session: Session, kitchen_id: int, bake_id: UUID) -> tuple[PhotoHead, ...]:
    """A bake's photos, in the order in which they came."""
    query = select(PhotoRow).where(PhotoRow.kitchen_id == kitchen_id, PhotoRow.bake_id == bake_id).order_by(PhotoRow.kept_at, PhotoRow.id)
    return tuple(_head(row) for row in session.scalars(query))


def keep_photo(session: Session, kitchen_id: int, bake_id: UUID, photo_id: UUID, large: bytes, small: bytes, size: tuple[int, int], *, square: bool, caption: str) -> PhotoHead:
    """Keep a photo; one that is there already is that one. Raises `NotFound`, `Full`."""
    get_head(session, kitchen_id, bake_id)
    if (known := session.get(PhotoRow, photo_id)) is not None:
        if (known.kitchen_id, known.bake_id) != (kitchen_id, bake_id):
            raise Behind("Another photo goes by this id.")
        return _head(known)
    if (session.scalar(select(func.count()).where(PhotoRow.bake_id == bake_id)) or 0) >= most.BOOK_PHOTOS:
        raise Full(f"A bake has {most.BOOK_PHOTOS} photos; that is all it holds. Remove one of them first.")
    room_for_one(session, PhotoRow, kitchen_id, most.PHOTOS, "There are {} photos in the book; that is all it holds.")
    row = PhotoRow(id=photo_id, kitchen_id=kitchen_id, bake_id=bake_id, caption=caption, square=square, width=size[0], height=size[1], large=large, small=small)
    session.add(row)
    session.flush()
    return _head(row)


def photo_bytes(session: Session, kitchen_id: int, photo_id: UUID, *, small: bool) -> bytes:
    """The picture, a JPEG. Raises `NotFound`."""
    column = PhotoRow.small if small else PhotoRow.large
    found = session.scalar(select(column).where(PhotoRow.id == photo_id, PhotoRow.kitchen_id == kitchen_id))
    if found is None:
        raise NotFound("There is no such photo in this kitchen.")
    return found


def first_photo(session: Session, kitchen_id: int, bake_id: UUID) -> tuple[PhotoHead, bytes] | None:
    """A bake's first photo; None where it has none."""
    query = select(PhotoRow).where(PhotoRow.kitchen_id == kitchen_id, PhotoRow.bake_id == bake_id).options(undefer(PhotoRow.large))
    row = session.scalar(query.order_by(PhotoRow.kept_at, PhotoRow.id).limit(1))
    return None if row is None else (_head(row), row.large)


def change_photo(session: Session, kitchen_id: int, photo_id: UUID, caption: str, *, square: bool) -> PhotoHead:
    """Say what is on it, and whether it is shown square. Raises `NotFound`."""
    row = _get(session, kitchen_id, photo_id)
    row.caption, row.square = caption, square
    session.flush()
    words_again(session, row.bake_id)
    return _head(row)


def drop_photo(session: Session, kitchen_id: int, photo_id: UUID) -> None:
    """Remove one for good. Raises `NotFound`."""
    row = _get(session, kitchen_id, photo_id)
    bake = row.bake_id
    session.delete(row)
    session.flush()
    words_again(session, bake)
