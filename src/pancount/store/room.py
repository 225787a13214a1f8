"""How much a kitchen may keep of something."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from pancount.store.errors import Full
from pancount.store.tables import (
    BakeRow,
    CupWeighingRow,
    DayRow,
    FormulaRow,
    OwnIngredient,
    PanRow,
    PhotoRow,
    TakingRow,
    TastingRow,
)

Kept = type[PanRow] | type[FormulaRow] | type[TakingRow] | type[CupWeighingRow] | type[DayRow] | type[BakeRow] | type[OwnIngredient] | type[PhotoRow] | type[TastingRow]


def room_for_one(session: Session, kept: Kept, kitchen_id: int, most: int, sentence: str) -> None:
    """Raises `Full`, with the sentence, `{}` in it being how many, where the kitchen has so many of them."""
    if has(session, kept, kitchen_id) >= most:
        raise Full(sentence.format(most))


def has(session: Session, kept: Kept, kitchen_id: int) -> int:
    """How many of them the kitchen has."""
    return session.scalar(select(func.count()).where(kept.kitchen_id == kitchen_id)) or 0
