"""The shelf: the kitchen's own pans."""

from datetime import UTC, datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.core.pans.measured import Measured, measure
from pancount.core.pans.shelf import ShelfPan
from pancount.store.errors import Behind, NotFound
from pancount.store.room import room_for_one
from pancount.store.tables import PanRow


class PanState(Frozen):
    """A pan on the shelf, with what it measures."""

    id: int
    shelved: ShelfPan
    measured: Measured
    archived: bool
    version: int


def _state(row: PanRow) -> PanState:
    shelved = ShelfPan.model_validate(row.body)
    return PanState(
        id=row.id,
        shelved=shelved,
        measured=measure(shelved.pan),
        archived=row.archived_at is not None,
        version=row.version,
    )


def _get(session: Session, kitchen_id: int, pan_id: int) -> PanRow:
    query = select(PanRow).where(PanRow.id == pan_id, PanRow.kitchen_id == kitchen_id).with_for_update()
    row = session.scalar(query)
    if row is None:
        raise NotFound("There is no such pan on this kitchen's shelf.")
    return row


def list_pans(session: Session, kitchen_id: int, *, archived: bool = False) -> tuple[PanState, ...]:
    """The shelf as it was filled, without what is put away; or just that."""
    query = select(PanRow).where(PanRow.kitchen_id == kitchen_id).order_by(PanRow.id).limit(most.PANS)
    query = query.where(PanRow.archived_at.is_not(None) if archived else PanRow.archived_at.is_(None))
    return tuple(_state(row) for row in session.scalars(query))


def add_pan(session: Session, kitchen_id: int, shelved: ShelfPan) -> PanState:
    """Put a pan on the shelf. Raises `Full` where the shelf is full."""
    room_for_one(session, PanRow, kitchen_id, most.PANS, "The shelf holds {} pans. Remove one that is not used any more.")
    row = PanRow(kitchen_id=kitchen_id, body=shelved.model_dump(mode="json"), version=1)
    session.add(row)
    session.flush()
    return _state(row)


def change_pan(session: Session, kitchen_id: int, pan_id: int, shelved: ShelfPan, version: int) -> PanState:
    """Change a pan. Raises `NotFound`, or `Behind` where it was changed since `version` was read."""
    row = _get(session, kitchen_id, pan_id)
    if row.version != version:
        raise Behind("This pan was changed in another window. It is shown now as it stands.")
    row.body, row.version = shelved.model_dump(mode="json"), version + 1
    return _state(row)


def put_away(session: Session, kitchen_id: int, pan_id: int, *, archived: bool) -> PanState:
    """Put a pan away, or back on the shelf. Counts that use it keep it. Raises `NotFound`."""
    row = _get(session, kitchen_id, pan_id)
    row.archived_at = datetime.now(UTC) if archived else None
    return _state(row)


def remove_pan(session: Session, kitchen_id: int, pan_id: int, version: int) -> None:
    """Take a pan off the shelf for good. Counts that use it keep it. Raises `NotFound` or `Behind`."""
    row = _get(session, kitchen_id, pan_id)
    if row.version != version:
        raise Behind("This pan was changed in another window, so it stays. It is shown now as it stands.")
    session.delete(row)
    session.flush()
