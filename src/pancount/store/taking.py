"""Recipes being taken in: kept as they are typed, until a formula is made of each."""

from datetime import UTC, datetime
from typing import Annotated

from pydantic import Field
from sqlalchemy import select
from sqlalchemy.orm import Session

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.core.count.count import Count
from pancount.core.formula.formula import Formula
from pancount.core.pantry.measures import System
from pancount.core.taking.habits import Kitchen
from pancount.core.taking.make import make_formula
from pancount.core.taking.pages import classify, title
from pancount.core.taking.take_in import take_in
from pancount.core.taking.taken import RecipeText, Settled
from pancount.core.taking.vocabulary import shipped_names
from pancount.store.errors import Behind, NotFound
from pancount.store.formula import FormulaState, keep_new
from pancount.store.pantry import reading_kitchen
from pancount.store.room import room_for_one
from pancount.store.tables import TakingRow


class TakingHead(Frozen):
    """A taken-in recipe in the list; `formula_id` is the formula that was made of it."""

    id: int
    name: str
    formula_id: int | None
    changed_at: datetime
    version: int


class Taking(Frozen):
    """A recipe's text, what was settled of its lines, and whose cups it uses where the baker said so."""

    text: RecipeText = ""
    settled: Annotated[tuple[Settled, ...], Field(max_length=2_000)] = ()
    system: System | None = None


class TakingState(Frozen):
    """A recipe as it lies."""

    head: TakingHead
    taking: Taking


def _state(row: TakingRow) -> TakingState:
    return TakingState(
        head=TakingHead(
            id=row.id, name=row.name, formula_id=row.formula_id, changed_at=row.changed_at, version=row.version
        ),
        taking=Taking.model_validate({"text": row.text, "settled": row.settled, "system": row.system}),
    )


def _lay(row: TakingRow, taking: Taking) -> None:
    body = taking.model_dump(mode="json")
    row.name, row.text, row.settled, row.system = _name(taking.text), body["text"], body["settled"], body["system"]
    row.changed_at = datetime.now(UTC)


def _name(text: str) -> str:
    names = shipped_names()
    return title(classify(text, names), names)


def _get(session: Session, kitchen_id: int, taking_id: int, *, lock: bool = False) -> TakingRow:
    query = select(TakingRow).where(TakingRow.id == taking_id, TakingRow.kitchen_id == kitchen_id)
    row = session.scalar(query.with_for_update() if lock else query)
    if row is None:
        raise NotFound("There is no such recipe in this kitchen.")
    return row


def list_takings(session: Session, kitchen_id: int) -> tuple[TakingHead, ...]:
    """The kitchen's taken-in recipes, last changed first."""
    query = select(TakingRow).where(TakingRow.kitchen_id == kitchen_id)
    rows = session.scalars(query.order_by(TakingRow.changed_at.desc(), TakingRow.id.desc()).limit(most.TAKINGS))
    return tuple(_state(row).head for row in rows)


def get_taking(session: Session, kitchen_id: int, taking_id: int) -> TakingState:
    """One, whole. Raises `NotFound`."""
    return _state(_get(session, kitchen_id, taking_id))


def start_taking(session: Session, kitchen_id: int, taking: Taking) -> TakingState:
    """A new one. Raises `Full`."""
    room_for_one(session, TakingRow, kitchen_id, most.TAKINGS, "There are {} recipes taken in. Throw one away that is done with.")
    row = TakingRow(kitchen_id=kitchen_id, version=1)
    _lay(row, taking)
    session.add(row)
    session.flush()
    return _state(row)


BEHIND = "This recipe was changed in another window. Your text is kept in this one."


def put_taking(session: Session, kitchen_id: int, taking_id: int, taking: Taking, version: int) -> TakingState:
    """Keep what is being typed and settled. Raises `Behind` where another window changed it since `version`."""
    row = _get(session, kitchen_id, taking_id, lock=True)
    if row.version != version:
        if _state(row).taking == taking:  # sent again by a window whose answer was lost on the way
            return _state(row)
        raise Behind(BEHIND)
    _lay(row, taking)
    row.version += 1
    return _state(row)


def drop_taking(session: Session, kitchen_id: int, taking_id: int, version: int) -> None:
    """Throw one away; a formula that was made of it stays. Raises `Behind` where it changed since `version`."""
    row = _get(session, kitchen_id, taking_id, lock=True)
    if row.version != version:
        raise Behind("This recipe was changed in another window, so it stays.")
    session.delete(row)


def to_be_read(session: Session, kitchen_id: int, taking_id: int, version: int) -> tuple[Taking, Kitchen]:
    """A recipe as it lies, and what the kitchen brings to its reading.

    Raises `NotFound`, or `Behind` where another window changed the recipe since `version`: the formula would be of that text.
    """
    row = _get(session, kitchen_id, taking_id)
    if row.version != version:
        raise Behind(BEHIND)
    return _state(row).taking, reading_kitchen(session, kitchen_id)


def read_and_make(taking: Taking, kitchen: Kitchen) -> tuple[Formula, Count]:
    """The formula and count of a recipe. Needs no records."""
    return make_formula(take_in(taking.text, taking.settled, kitchen, taking.system))


def keep_formula(
    session: Session, kitchen_id: int, taking_id: int, version: int, formula: Formula, count: Count
) -> FormulaState:
    """Keep what was made of a recipe: as revision 1 where it is complete, else on the desk. Raises as `to_be_read`."""
    row = _get(session, kitchen_id, taking_id, lock=True)
    if row.version != version:
        raise Behind(BEHIND)
    made = keep_new(session, kitchen_id, formula, count, "Taken in")
    row.formula_id = made.head.id
    return made
