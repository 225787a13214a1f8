"""Baking days: kept as they are told, with all that their planning needs from the kitchen's records."""

from datetime import UTC, datetime
from datetime import date as Date
from uuid import UUID, uuid4

from sqlalchemy import select
from sqlalchemy.orm import Session

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.core.day.day import Day
from pancount.core.day.plan import Asked, Counted
from pancount.core.day.typed import Candidate
from pancount.store.errors import Behind, NotFound
from pancount.store.formula import get_formula, get_revision
from pancount.store.kitchen import get_kitchen
from pancount.store.pantry import own_ingredients
from pancount.store.room import room_for_one
from pancount.store.tables import DayRow, FormulaRow


class DayHead(Frozen):
    """A day in the list."""

    id: int
    name: str
    date: Date
    products: tuple[str, ...]
    changed_at: datetime
    version: int


class DayState(Frozen):
    """A day as it lies."""

    head: DayHead
    day: Day


class KeptDay(Frozen):
    """A day as its papers need it: what it is known by, its version, and what its planning needs."""

    id: int
    uid: UUID
    version: int
    changed_at: datetime
    asked: Asked


def _state(row: DayRow) -> DayState:
    day = Day.model_validate(row.body)
    names = tuple(product.name for product in day.products)
    return DayState(head=DayHead(id=row.id, name=row.name, date=row.date, products=names, changed_at=row.changed_at, version=row.version), day=day)


def _lay(row: DayRow, day: Day) -> None:
    row.name, row.date, row.body = day.name, Date.fromisoformat(day.date), day.model_dump(mode="json")
    row.changed_at = datetime.now(UTC)


def _get(session: Session, kitchen_id: int, day_id: int, *, lock: bool = False) -> DayRow:
    query = select(DayRow).where(DayRow.id == day_id, DayRow.kitchen_id == kitchen_id)
    row = session.scalar(query.with_for_update() if lock else query)
    if row is None:
        raise NotFound("There is no such day in this kitchen.")
    return row


def list_days(session: Session, kitchen_id: int) -> tuple[DayHead, ...]:
    """The kitchen's days, the latest first."""
    query = select(DayRow).where(DayRow.kitchen_id == kitchen_id).order_by(DayRow.date.desc(), DayRow.id.desc())
    return tuple(_state(row).head for row in session.scalars(query.limit(most.DAYS)))


def get_day(session: Session, kitchen_id: int, day_id: int) -> DayState:
    """One, whole. Raises `NotFound`."""
    return _state(_get(session, kitchen_id, day_id))


def start_day(session: Session, kitchen_id: int, day: Day) -> DayState:
    """A new one. Raises `Full`."""
    room_for_one(session, DayRow, kitchen_id, most.DAYS, "There are {} days. Throw away some that are long past.")
    row = DayRow(kitchen_id=kitchen_id, uid=uuid4(), version=1)
    _lay(row, day)
    session.add(row)
    session.flush()
    return _state(row)


def put_day(session: Session, kitchen_id: int, day_id: int, day: Day, version: int) -> DayState:
    """Keep what is being told. Raises `NotFound`, and `Behind` where another window changed it since `version`."""
    row = _get(session, kitchen_id, day_id, lock=True)
    if row.version != version:
        if _state(row).day == day:  # sent again by a window whose answer was lost on the way
            return _state(row)
        raise Behind("This day was changed in another window. What you told of it is kept in this one.")
    _lay(row, day)
    row.version += 1
    return _state(row)


def drop_day(session: Session, kitchen_id: int, day_id: int, version: int) -> None:
    """Throw one away. Raises `NotFound`, and `Behind` where it changed since `version`."""
    row = _get(session, kitchen_id, day_id, lock=True)
    if row.version != version:
        raise Behind("This day was changed in another window, so it stays.")
    session.delete(row)


def asked_of(session: Session, kitchen_id: int, day: Day) -> Asked:
    """A day with all that its planning needs. A formula that is not in the kitchen any more is left out, and told there."""
    settings = get_kitchen(session, kitchen_id).settings
    counted = []
    for product in day.products:
        try:
            state = get_formula(session, kitchen_id, product.formula_id)
            formula = state.formula if product.revision is None else get_revision(session, kitchen_id, product.formula_id, product.revision).formula
        except NotFound:
            continue
        counted.append(Counted(key=product.key, formula=formula, count=state.count))
    return Asked(
        day=day, counted=tuple(counted), own=own_ingredients(session, kitchen_id), practice=settings.practice, kit=settings.kit, climate=settings.climate
    )


def kept_day(session: Session, kitchen_id: int, day_id: int) -> KeptDay:
    """A day as it is kept, for its papers. Raises `NotFound`."""
    row = _get(session, kitchen_id, day_id)
    return KeptDay(id=row.id, uid=row.uid, version=row.version, changed_at=row.changed_at, asked=asked_of(session, kitchen_id, _state(row).day))


def coming_days(session: Session, kitchen_id: int, since: Date, number: int) -> tuple[KeptDay, ...]:
    """Days from a date on, the first so many."""
    query = select(DayRow).where(DayRow.kitchen_id == kitchen_id, DayRow.date >= since).order_by(DayRow.date, DayRow.id).limit(number)
    return tuple(kept_day(session, kitchen_id, row.id) for row in session.scalars(query))


def candidates(session: Session, kitchen_id: int) -> tuple[Candidate, ...]:
    """Formulas that a day's counts may mean, by name."""
    query = select(FormulaRow).where(FormulaRow.kitchen_id == kitchen_id, FormulaRow.archived_at.is_(None)).order_by(FormulaRow.name, FormulaRow.id)
    return tuple(Candidate(formula_id=row.id, name=row.name) for row in session.scalars(query.limit(most.FORMULAS)))
