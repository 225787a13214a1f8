"""What a kitchen took of its own figures: of a formula, beside it; of the kitchen, in its settings, with what stood there before."""

from sqlalchemy.orm import Session

from pancount.core.base.models import Frozen
from pancount.core.book.figures import IN_SETTINGS
from pancount.core.count.learned import MOST_LEARNED, Learned
from pancount.store.errors import Full, NotFound
from pancount.store.kitchen import Settings
from pancount.store.tables import FormulaRow, Kitchen


class TakenForKitchen(Frozen):
    """A figure that stands in the settings, and what stood there before."""

    learned: Learned
    before: float


def _same(one: Learned, other: Learned) -> bool:
    return (one.figure, one.of, one.way) == (other.figure, other.of, other.way)


def _formula(session: Session, kitchen_id: int, formula_id: int, *, lock: bool = False) -> FormulaRow:
    row = session.get(FormulaRow, formula_id, with_for_update=lock)
    if row is None or row.kitchen_id != kitchen_id:
        raise NotFound("There is no such formula in this kitchen.")
    return row


def formulas_learned(session: Session, kitchen_id: int, formula_id: int) -> tuple[Learned, ...]:
    """What was taken of a formula. Raises `NotFound`."""
    return tuple(Learned.model_validate(one) for one in _formula(session, kitchen_id, formula_id).learned)


def kitchens_learned(session: Session, kitchen_id: int) -> tuple[TakenForKitchen, ...]:
    """What was taken of the kitchen."""
    row = session.get(Kitchen, kitchen_id)
    return tuple(TakenForKitchen.model_validate(one) for one in row.learned) if row else ()


def take_for_formula(session: Session, kitchen_id: int, formula_id: int, learned: Learned) -> None:
    """Go by a figure from now on, wherever the usual stood in. Raises `NotFound`, `Full`."""
    row = _formula(session, kitchen_id, formula_id, lock=True)
    kept = [one for one in formulas_learned(session, kitchen_id, formula_id) if not _same(one, learned)]
    if len(kept) >= MOST_LEARNED:
        raise Full(f"{MOST_LEARNED} figures of this formula were taken; that is all it holds.")
    row.learned = [one.model_dump(mode="json") for one in (*kept, learned)]


def give_back_for_formula(session: Session, kitchen_id: int, formula_id: int, figure: Learned) -> None:
    """Go by the usual again. Raises `NotFound`."""
    row = _formula(session, kitchen_id, formula_id, lock=True)
    row.learned = [one.model_dump(mode="json") for one in formulas_learned(session, kitchen_id, formula_id) if not _same(one, figure)]


def _laid(row: Kitchen, figure: str, value: float) -> float:
    """Lay a figure into the settings; what stood there."""
    settings = Settings.model_validate(row.settings)
    part, name = IN_SETTINGS[figure]
    own = getattr(settings, part)
    before = float(getattr(own, name))
    changed = type(own).model_validate(own.model_dump() | {name: value})
    row.settings = settings.model_copy(update={part: changed}).model_dump(mode="json")
    row.version += 1
    return before


def _kitchen(session: Session, kitchen_id: int) -> Kitchen:
    row = session.get(Kitchen, kitchen_id, with_for_update=True)
    if row is None:
        raise NotFound("There is no such kitchen.")
    return row


def take_for_kitchen(session: Session, kitchen_id: int, learned: Learned) -> None:
    """Lay a figure into the kitchen's settings. Raises `ValidationError` for one that they cannot hold."""
    row = _kitchen(session, kitchen_id)
    known = kitchens_learned(session, kitchen_id)
    before = _laid(row, learned.figure, learned.value)
    first = next((one.before for one in known if _same(one.learned, learned)), before)  # what the baker had, not what was taken last
    kept = [one for one in known if not _same(one.learned, learned)]
    row.learned = [one.model_dump(mode="json") for one in (*kept, TakenForKitchen(learned=learned, before=first))]


def give_back_for_kitchen(session: Session, kitchen_id: int, figure: Learned) -> None:
    """Lay what stood there before into the settings again."""
    row = _kitchen(session, kitchen_id)
    known = kitchens_learned(session, kitchen_id)
    own = next((one for one in known if _same(one.learned, figure)), None)
    if own is not None:
        _laid(row, own.learned.figure, own.before)
        row.learned = [one.model_dump(mode="json") for one in known if one is not own]
