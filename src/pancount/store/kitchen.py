"""Kitchens and their settings."""

from typing import Annotated, Literal

from pydantic import Field
from sqlalchemy.orm import Session

from pancount.core.base.models import PLAIN, Frozen, Word
from pancount.core.base.scale import Scale
from pancount.core.book.outcome import MOST_SCALES, USUAL_SCALES
from pancount.core.formula.practice import Practice
from pancount.core.heat.climate import Climate
from pancount.core.pans.kit import Kit
from pancount.core.taking.habits import Habits
from pancount.core.taking.taken import Mapping
from pancount.store.errors import Behind, NotFound
from pancount.store.tables import Kitchen

ONLY_KITCHEN = 1
"""Until there is sign-in there is one kitchen; queries take its number all the same."""


MOST_TABLES = 50


class Settings(Frozen):
    """How a kitchen weighs, measures and prints."""

    scale: Scale = Scale()
    length_unit: Literal["cm", "in"] = "cm"
    paper: Literal["A4", "Letter", "roll"] = "A4"
    kit: Kit = Kit()
    practice: Practice = Practice()
    climate: Climate = Climate()
    habits: Habits = Habits()
    scales: Annotated[tuple[Word, ...], Field(max_length=MOST_SCALES)] = USUAL_SCALES
    """What its bakes are scored by."""
    language: Literal["en", "de"] = "en"
    """In which the baker writes: words are looked for by its rules."""
    columns: dict[Annotated[str, Field(max_length=1000, pattern=PLAIN)], Mapping] = Field({}, max_length=MOST_TABLES)
    """Which column of a table holds what, by the table's head: mapped once, remembered."""


class KitchenState(Frozen):
    """A kitchen as it is now."""

    name: str
    settings: Settings
    version: int


def _state(row: Kitchen) -> KitchenState:
    return KitchenState(name=row.name, settings=Settings.model_validate(row.settings), version=row.version)


def _get(session: Session, kitchen_id: int) -> Kitchen:
    row = session.get(Kitchen, kitchen_id, with_for_update=True)
    if row is None:
        raise NotFound("There is no such kitchen.")
    return row


def open_kitchen(session: Session, kitchen_id: int, name: str, settings: Settings) -> bool:
    """Make the kitchen if there is none yet. True if it was made."""
    if session.get(Kitchen, kitchen_id) is not None:
        return False
    session.add(Kitchen(id=kitchen_id, name=name, settings=settings.model_dump(mode="json"), version=1))
    session.flush()
    return True


def get_kitchen(session: Session, kitchen_id: int) -> KitchenState:
    """The kitchen. Raises `NotFound`."""
    row = session.get(Kitchen, kitchen_id)
    if row is None:
        raise NotFound("There is no such kitchen.")
    return _state(row)


def change_kitchen(session: Session, kitchen_id: int, name: str, settings: Settings, version: int) -> KitchenState:
    """Set name and settings. Raises `Behind` where `version` is not the stored one."""
    row = _get(session, kitchen_id)
    if row.version != version:
        raise Behind("The settings were changed in another window. They are shown now as they stand.")
    row.name, row.settings, row.version = name, settings.model_dump(mode="json"), version + 1
    return _state(row)


def remember_habits(session: Session, kitchen_id: int, habits: Habits) -> KitchenState:
    """Keep answers to the questions of taking in. The last one given stands. Raises `NotFound`."""
    return _remember(session, kitchen_id, {"habits": habits})


def remember_columns(session: Session, kitchen_id: int, head: str, mapping: Mapping) -> KitchenState:
    """Keep which column of such a table holds what; the oldest is forgotten where there are too many."""
    known = get_kitchen(session, kitchen_id).settings.columns
    kept = {key: value for key, value in known.items() if key != head} | {head: mapping}
    return _remember(session, kitchen_id, {"columns": dict(list(kept.items())[-MOST_TABLES:])})


def _remember(session: Session, kitchen_id: int, changes: dict[str, object]) -> KitchenState:
    row = _get(session, kitchen_id)
    settings = Settings.model_validate(row.settings).model_copy(update=changes)
    row.settings = settings.model_dump(mode="json")
    row.version += 1
    return _state(row)
