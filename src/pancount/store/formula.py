"""Formulas: the desk where one is worked on, and its revisions."""

from contextlib import suppress
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from pancount.core.base import most
from pancount.core.base.errors import CoreError
from pancount.core.base.models import Frozen
from pancount.core.count.count import Count
from pancount.core.formula.earlier import SCHEMA_NUMBER, brought_up, count_brought_up
from pancount.core.formula.formula import Formula, complete, everything, without_blank_lines
from pancount.core.formula.gauges import true_water_percent
from pancount.core.formula.reckon import reckon
from pancount.core.pantry.ingredients import Ingredient, Pantry, pantry
from pancount.store import pantry as pantry_store
from pancount.store.errors import Behind, NotFound
from pancount.store.pantry import PantryItem, kitchen_pantry, learn_ingredients
from pancount.store.room import room_for_one
from pancount.store.tables import FormulaRow, RevisionRow


class FormulaHead(Frozen):
    """A formula in the list."""

    id: int
    name: str
    styles: tuple[str, ...]
    liquid_percent: float | None
    true_water_percent: float | None
    latest_number: int
    unsaved: bool
    archived: bool
    example: bool
    """One of the examples, as they can be removed together."""
    changed_at: datetime


class FormulaState(Frozen):
    """A formula as it lies on the desk."""

    head: FormulaHead
    formula: Formula
    count: Count
    base_number: int
    version: int


class RevisionHead(Frozen):
    """A revision in the list."""

    number: int
    note: str
    saved_at: datetime


class Revision(Frozen):
    """A revision, whole."""

    head: RevisionHead
    formula: Formula


def _body(model: Frozen) -> dict[str, Any]:
    return model.model_dump(mode="json")


def _count_body(count: Count) -> dict[str, Any]:
    """A count as it lies on the desk: what was learned stands with the formula, not in it."""
    return count.model_dump(mode="json", exclude={"learned"})


def _formula(body: dict[str, Any], schema_number: int) -> Formula:
    """A stored formula, brought up from the release that stored it."""
    return Formula.model_validate(brought_up(body, schema_number))


def _on_desk(row: FormulaRow) -> Formula:
    return _formula(row.desk_formula, row.desk_schema)


def _lay(row: FormulaRow, formula: Formula) -> None:
    row.desk_formula, row.desk_schema = _body(formula), SCHEMA_NUMBER


def _head(row: FormulaRow) -> FormulaHead:
    return FormulaHead(
        id=row.id,
        name=row.name,
        styles=tuple(row.styles),
        liquid_percent=row.liquid_percent,
        true_water_percent=row.true_water_percent,
        latest_number=row.latest_number,
        unsaved=row.unsaved,
        archived=row.archived_at is not None,
        example=row.example,
        changed_at=row.changed_at,
    )


def _state(row: FormulaRow) -> FormulaState:
    return FormulaState(
        head=_head(row),
        formula=_on_desk(row),
        count=Count.model_validate(count_brought_up(row.desk_count, row.desk_schema) | {"learned": row.learned}),
        base_number=row.desk_base,
        version=row.version,
    )


def _get(session: Session, kitchen_id: int, formula_id: int, *, lock: bool = False) -> FormulaRow:
    query = select(FormulaRow).where(FormulaRow.id == formula_id, FormulaRow.kitchen_id == kitchen_id)
    row = session.scalar(query.with_for_update() if lock else query)
    if row is None:
        raise NotFound("There is no such formula in this kitchen.")
    return row


def _headline(session: Session, row: FormulaRow, formula: Formula) -> None:
    row.name, row.styles = formula.name, list(formula.styles)
    row.liquid_percent = row.true_water_percent = None
    with suppress(CoreError):  # a draft without flour has no percentages
        reckoned = reckon(formula)
        row.liquid_percent = reckoned.liquid_percent
        row.true_water_percent = true_water_percent(formula, kitchen_pantry(session, row.kitchen_id), reckoned)


def _touch(row: FormulaRow) -> None:
    row.changed_at = datetime.now(UTC)


def list_formulas(session: Session, kitchen_id: int, *, archived: bool) -> list[FormulaHead]:
    """The kitchen's formulas, last changed first."""
    query = select(FormulaRow).where(FormulaRow.kitchen_id == kitchen_id)
    query = query.where(FormulaRow.archived_at.is_not(None) if archived else FormulaRow.archived_at.is_(None))
    query = query.order_by(FormulaRow.changed_at.desc(), FormulaRow.id.desc()).limit(most.FORMULAS)
    return [_head(row) for row in session.scalars(query)]


def get_formula(session: Session, kitchen_id: int, formula_id: int) -> FormulaState:
    """What lies on the desk. Raises `NotFound`."""
    return _state(_get(session, kitchen_id, formula_id))


def start_formula(session: Session, kitchen_id: int, formula: Formula, count: Count) -> FormulaState:
    """A new formula on the desk, not yet saved as a revision. Raises `Full`."""
    room_for_one(
        session, FormulaRow, kitchen_id, most.FORMULAS, "There are {} formulas, put away ones counted. Go on with one of them as a new revision."
    )
    row = FormulaRow(
        kitchen_id=kitchen_id,
        latest_number=0,
        unsaved=True,
        desk_formula=_body(formula),
        desk_schema=SCHEMA_NUMBER,
        desk_count=_count_body(count),
        desk_base=0,
        version=1,
    )
    _headline(session, row, formula)
    _touch(row)
    session.add(row)
    session.flush()
    return _state(row)


BEHIND = "This formula was changed in another window. Your text is kept in this one."


def put_on_desk(
    session: Session, kitchen_id: int, formula_id: int, formula: Formula, count: Count, version: int
) -> FormulaState:
    """Keep what is being typed. Raises `Behind` where another window changed the desk since `version`.

    What lies there already is kept, whatever its version: a window whose answer was lost on the way sends its text again.
    """
    row = _get(session, kitchen_id, formula_id, lock=True)
    if row.version != version:
        if (_on_desk(row), row.desk_count) == (formula, _count_body(count)):
            return _state(row)
        raise Behind(BEHIND)
    changed = _on_desk(row) != formula
    _lay(row, formula)
    row.desk_count = _count_body(count)
    row.version += 1
    if changed:
        _touch(row)
        row.unsaved = row.latest_number == 0 or (
            without_blank_lines(formula) != _revision(session, row, row.latest_number).formula
        )
        if row.latest_number == 0:
            _headline(session, row, formula)
    return _state(row)


def save_revision(
    session: Session, kitchen_id: int, formula_id: int, formula: Formula, count: Count, version: int, note: str
) -> FormulaState:
    """Keep a formula for good as the next revision; the desk then holds it, with its count.

    The desk and the revision are one thing to a baker, so one version guards both. Raises `CoreError` where the formula
    cannot be kept, and `Behind` where another window kept or saved anything since `version`.
    """
    complete(formula)
    reckon(formula)
    formula = without_blank_lines(formula)
    row = _get(session, kitchen_id, formula_id, lock=True)
    if row.version != version:
        if _saved_already(session, row, formula, count, note):
            return _state(row)
        raise Behind(BEHIND)
    number = row.latest_number + 1
    session.add(
        RevisionRow(
            formula_id=row.id,
            number=number,
            kitchen_id=kitchen_id,
            schema_number=SCHEMA_NUMBER,
            body=_body(formula),
            note=note,
        )
    )
    row.latest_number = row.desk_base = number
    _lay(row, formula)
    row.desk_count = _count_body(count)
    row.unsaved = False
    row.version += 1
    _headline(session, row, formula)
    _touch(row)
    learn_ingredients(session, kitchen_id, formula)
    session.flush()
    return _state(row)


def _saved_already(session: Session, row: FormulaRow, formula: Formula, count: Count, note: str) -> bool:
    """Whether the latest revision is this very one, saved by a window whose answer was lost on the way."""
    if not row.latest_number or (_on_desk(row), row.desk_count) != (formula, _count_body(count)):
        return False
    latest = _revision(session, row, row.latest_number)
    return (latest.formula, latest.head.note) == (formula, note)


def list_revisions(session: Session, kitchen_id: int, formula_id: int) -> list[RevisionHead]:
    """A formula's revisions, newest first. Raises `NotFound`."""
    row = _get(session, kitchen_id, formula_id)
    rows = session.scalars(
        select(RevisionRow).where(RevisionRow.formula_id == row.id).order_by(RevisionRow.number.desc())
    )
    return [RevisionHead(number=r.number, note=r.note, saved_at=r.saved_at) for r in rows]


def _revision(session: Session, row: FormulaRow, number: int) -> Revision:
    found = session.get(RevisionRow, (row.id, number))
    if found is None:
        raise NotFound(f"There is no revision {number} of this formula.")
    head = RevisionHead(number=found.number, note=found.note, saved_at=found.saved_at)
    return Revision(head=head, formula=_formula(found.body, found.schema_number))


def get_revision(session: Session, kitchen_id: int, formula_id: int, number: int) -> Revision:
    """One revision, whole. Raises `NotFound`."""
    return _revision(session, _get(session, kitchen_id, formula_id), number)


def _free_name(session: Session, kitchen_id: int, name: str) -> str:
    """The name with ", copy" behind it, numbered where there is one already. At most 300 characters."""
    taken = set(session.scalars(select(FormulaRow.name).where(FormulaRow.kitchen_id == kitchen_id)))
    for n in range(1, len(taken) + 2):
        tail = ", copy" if n == 1 else f", copy {n}"
        if (found := name[: 300 - len(tail)] + tail) not in taken:
            return found
    return name


def copy_formula(session: Session, kitchen_id: int, formula_id: int, number: int | None = None) -> FormulaState:
    """A formula of its own from what lies on the desk, or branched from a revision; saved at once where it can be.

    Raises `NotFound`.
    """
    state = get_formula(session, kitchen_id, formula_id)
    formula, note = state.formula, f"Copied from {state.formula.name}"
    if number is not None:
        formula = get_revision(session, kitchen_id, formula_id, number).formula
        note = f"Branched from {formula.name}, revision {number}"
    formula = formula.model_copy(update={"name": _free_name(session, kitchen_id, formula.name)})
    return keep_new(session, kitchen_id, formula, state.count, note[:300])


def keep_new(session: Session, kitchen_id: int, formula: Formula, count: Count, note: str) -> FormulaState:
    """A new formula, saved as revision 1 where it can be kept and reckoned; on the desk alone where not."""
    state = start_formula(session, kitchen_id, formula, count)
    try:
        return save_revision(session, kitchen_id, state.head.id, formula, count, state.version, note)
    except CoreError:
        return state


def archive_formula(session: Session, kitchen_id: int, formula_id: int, *, archived: bool) -> FormulaHead:
    """Put a formula away, or bring it back. Raises `NotFound`."""
    row = _get(session, kitchen_id, formula_id, lock=True)
    row.archived_at = datetime.now(UTC) if archived else None
    return _head(row)


def undo_new(session: Session, kitchen_id: int, formula_id: int, version: int) -> None:
    """Take back a formula just made. Raises `Behind` where anything happened to it since."""
    row = _get(session, kitchen_id, formula_id, lock=True)
    if row.version != version or row.latest_number > 1:
        raise Behind("This formula was changed since it was made, so it stays. It can be archived instead.")
    session.delete(row)


class Use(Frozen):
    """A formula that uses an ingredient, with its figures now and as they would be if the ingredient were changed."""

    formula_id: int
    name: str
    archived: bool
    true_water_now: float | None
    true_water_then: float | None


def _latest(session: Session, row: FormulaRow) -> Formula:
    """What a formula's headline speaks of: its latest revision, or before the first, what lies on its desk."""
    if row.latest_number:
        return _revision(session, row, row.latest_number).formula
    return _on_desk(row)


def _using(session: Session, kitchen_id: int, names: set[str]) -> list[tuple[FormulaRow, Formula]]:
    """Formulas with a line that goes by one of these names."""
    rows = session.scalars(select(FormulaRow).where(FormulaRow.kitchen_id == kitchen_id).order_by(FormulaRow.name))
    found = []
    for row in rows:
        formula = _latest(session, row)
        if any(line.name.casefold() in names for stage in everything(formula) for line in stage.lines):
            found.append((row, formula))
    return found


def _names(*ingredients: Ingredient | None) -> set[str]:
    return {name.casefold() for one in ingredients if one for name in one.names}


def _water(formula: Formula, pantry: Pantry) -> float | None:
    try:
        return true_water_percent(formula, pantry)
    except CoreError:
        return None


def uses(session: Session, kitchen_id: int, ingredient: Ingredient) -> tuple[Use, ...]:
    """Where an ingredient is used, and what its new figures would make of each."""
    now = kitchen_pantry(session, kitchen_id)
    before = next((i for i in now.ingredients if i.name == ingredient.name), None)
    then = Pantry([i for i in now.ingredients if i.name != ingredient.name] + [ingredient])
    return tuple(
        Use(
            formula_id=row.id,
            name=row.name,
            archived=row.archived_at is not None,
            true_water_now=_water(formula, now),
            true_water_then=_water(formula, then),
        )
        for row, formula in _using(session, kitchen_id, _names(before, ingredient))
    )


def reckon_missing(session: Session, kitchen_id: int) -> None:
    """Work out true water where a formula was saved before it was reckoned (release 0.1)."""
    pantry = kitchen_pantry(session, kitchen_id)
    query = select(FormulaRow).where(FormulaRow.kitchen_id == kitchen_id, FormulaRow.true_water_percent.is_(None))
    for row in session.scalars(query):
        row.true_water_percent = _water(_latest(session, row), pantry)


def reckon_again(session: Session, kitchen_id: int, *changed: Ingredient | None) -> int:
    """Work out the headline of every formula that uses these ingredients once more. Returns how many there are."""
    pantry = kitchen_pantry(session, kitchen_id)
    found = _using(session, kitchen_id, _names(*changed))
    for row, formula in found:
        row.true_water_percent = _water(formula, pantry)
    return len(found)


def put_ingredient(session: Session, kitchen_id: int, ingredient: Ingredient, version: int) -> tuple[PantryItem, int]:
    """Add an ingredient or change one, and reckon again what uses it. Raises `Behind`. Gives it, and how many formulas use it."""
    item = pantry_store.put_ingredient(session, kitchen_id, ingredient, version)
    return item, reckon_again(session, kitchen_id, item.ingredient)


def drop_ingredient(session: Session, kitchen_id: int, name: str, version: int) -> None:
    """Go back to what ships, or remove what the kitchen added, and reckon again what used it. Raises `NotFound` or `Behind`."""
    before = next((i for i in pantry_store.own_ingredients(session, kitchen_id) if i.name == name), None)
    pantry_store.drop_ingredient(session, kitchen_id, name, version)
    shipped = next((i for i in pantry() if i.name == name), None)
    reckon_again(session, kitchen_id, before, shipped)
