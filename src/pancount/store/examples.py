"""The demo kitchen's formulas as examples in a kitchen of one's own: brought in together, removed in one go."""

from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session

from pancount.core.base.models import Frozen
from pancount.core.count.count import Count
from pancount.core.formula.formula import Formula
from pancount.store.formula import keep_new
from pancount.store.tables import FormulaRow


class ExamplesGone(Frozen):
    """How many examples were removed, and how many stay because the baker made something of them."""

    removed: int
    kept: int


def _rows(session: Session, kitchen_id: int) -> list[FormulaRow]:
    query = select(FormulaRow).where(FormulaRow.kitchen_id == kitchen_id, FormulaRow.example)
    return list(session.scalars(query.with_for_update()))


def add_examples(session: Session, kitchen_id: int, formulas: Iterable[tuple[Formula, Count]]) -> int:
    """Bring in the examples that are not there yet, by name. Returns how many came. Raises `Full`."""
    there = {row.name for row in _rows(session, kitchen_id)}
    came = 0
    for formula, count in formulas:
        if formula.name not in there:
            state = keep_new(session, kitchen_id, formula, count, "An example")
            session.get_one(FormulaRow, state.head.id).example = True
            came += 1
    return came


def remove_examples(session: Session, kitchen_id: int) -> ExamplesGone:
    """Remove the examples. One that was changed is the baker's own from here on, and stays."""
    removed = kept = 0
    for row in _rows(session, kitchen_id):
        if row.unsaved or row.latest_number > 1:
            row.example = False
            kept += 1
        else:
            session.delete(row)
            removed += 1
    return ExamplesGone(removed=removed, kept=kept)
