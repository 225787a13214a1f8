"""Kitchens, their settings and the ingredients they added."""

from typing import Literal

from sqlalchemy import select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from pancount.core.base import Frozen
from pancount.core.formula import Formula, Role
from pancount.core.sheet import Scale
from pancount.core.tables import Ingredient, pantry
from pancount.store.errors import Behind, NotFound
from pancount.store.tables import Kitchen, OwnIngredient

ONLY_KITCHEN = 1
"""Until there is sign-in there is one kitchen; queries take its number all the same."""


class Settings(Frozen):
    """How a kitchen weighs, measures and prints."""

    scale: Scale = Scale()
    length_unit: Literal["cm", "in"] = "cm"
    paper: Literal["A4", "Letter"] = "A4"


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


def known_ingredients(session: Session, kitchen_id: int) -> tuple[Ingredient, ...]:
    """The shipped pantry, then what this kitchen added, by name."""
    own = session.scalars(
        select(OwnIngredient).where(OwnIngredient.kitchen_id == kitchen_id).order_by(OwnIngredient.name)
    )
    return pantry() + tuple(Ingredient(name=row.name, role=Role(row.role)) for row in own)


def learn_ingredients(session: Session, kitchen_id: int, formula: Formula) -> None:
    """Remember names that the pantry does not ship, with the role chosen last."""
    shipped = {name.casefold() for item in pantry() for name in (item.name, *item.also)}
    found = {
        line.name: line.role
        for stage in formula.stages
        for line in stage.lines
        if line.name and line.role and line.name.casefold() not in shipped
    }
    # In order of name, so that two saves at once take their row locks in the same order.
    for name, role in sorted(found.items()):
        row = insert(OwnIngredient).values(kitchen_id=kitchen_id, name=name, role=role)
        session.execute(row.on_conflict_do_update(index_elements=["kitchen_id", "name"], set_={"role": role}))
