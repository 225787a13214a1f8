"""The kitchen's pantry: what ships, what the kitchen added or changed, where each is used, and its cups weighed."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.core.formula.formula import Formula
from pancount.core.pantry.ingredients import Ingredient, Pantry, pantry, pantry_with
from pancount.core.pantry.role import Role
from pancount.core.taking.habits import CupWeighing, Kitchen
from pancount.store.errors import Behind, NotFound
from pancount.store.kitchen import get_kitchen
from pancount.store.room import room_for_one
from pancount.store.tables import CupWeighingRow, OwnIngredient


class PantryItem(Frozen):
    """An ingredient as the kitchen has it; `version` is 0 for one as shipped, `shipped` whether there is one to go back to."""

    ingredient: Ingredient
    version: int
    shipped: bool


class WeighedCup(Frozen):
    """A weighing of the kitchen's own cup or spoon."""

    id: int
    weighing: CupWeighing
    weighed_at: datetime


def _own(row: OwnIngredient) -> Ingredient:
    return Ingredient.model_validate(row.body | {"name": row.name, "role": row.role, "own": True})


def _own_rows(session: Session, kitchen_id: int) -> Sequence[OwnIngredient]:
    query = select(OwnIngredient).where(OwnIngredient.kitchen_id == kitchen_id).order_by(OwnIngredient.name)
    return session.scalars(query).all()


def own_mark(session: Session, kitchen_id: int) -> bytes:
    """What changes whenever anything of the kitchen's own ingredients does."""
    rows = _own_rows(session, kitchen_id)
    return repr([(row.name, row.role, row.version, row.body) for row in rows]).encode()


def own_ingredients(session: Session, kitchen_id: int) -> tuple[Ingredient, ...]:
    """What the kitchen added or changed, by name."""
    return tuple(_own(row) for row in _own_rows(session, kitchen_id))


def list_pantry(session: Session, kitchen_id: int) -> tuple[PantryItem, ...]:
    """The shipped pantry, each as the kitchen changed it if it did, then what the kitchen added, by name."""
    rows = {row.name: row for row in _own_rows(session, kitchen_id)}
    shipped = [item.name for item in pantry()]
    found = [
        PantryItem(
            ingredient=_own(rows[item.name]) if item.name in rows else item,
            version=rows[item.name].version if item.name in rows else 0,
            shipped=True,
        )
        for item in pantry()
    ]
    added = [row for name, row in rows.items() if name not in shipped]
    return (*found, *(PantryItem(ingredient=_own(row), version=row.version, shipped=False) for row in added))


def kitchen_pantry(session: Session, kitchen_id: int) -> Pantry:
    """The pantry as the kitchen has it."""
    return pantry_with(own_ingredients(session, kitchen_id))


def put_ingredient(session: Session, kitchen_id: int, ingredient: Ingredient, version: int) -> PantryItem:
    """Add an ingredient, or change one. Raises `Behind` where it was changed since `version` was read."""
    row = session.get(OwnIngredient, (kitchen_id, ingredient.name), with_for_update=True)
    if (row.version if row else 0) != version:
        raise Behind(f"{ingredient.name} was changed in another window. It is shown now as it stands.")
    body: dict[str, Any] = ingredient.model_dump(mode="json", exclude={"name", "role", "own"})
    if row is None:
        room_for_one(
            session, OwnIngredient, kitchen_id, most.OWN_INGREDIENTS, "There are {} ingredients of your own. Remove one that is not used any more."
        )
        row = OwnIngredient(kitchen_id=kitchen_id, name=ingredient.name, version=0)
        session.add(row)
    row.role, row.body, row.version = ingredient.role, body, row.version + 1
    session.flush()
    shipped = any(item.name == ingredient.name for item in pantry())
    return PantryItem(ingredient=_own(row), version=row.version, shipped=shipped)


def drop_ingredient(session: Session, kitchen_id: int, name: str, version: int) -> None:
    """Go back to what ships, or remove what the kitchen added. Raises `NotFound` or `Behind`."""
    row = session.get(OwnIngredient, (kitchen_id, name), with_for_update=True)
    if row is None:
        raise NotFound("There is no such ingredient of this kitchen's own.")
    if row.version != version:
        raise Behind(f"{name} was changed in another window, so it stays. It is shown now as it stands.")
    session.delete(row)
    session.flush()


def learn_ingredients(session: Session, kitchen_id: int, formula: Formula) -> None:
    """Remember names that the pantry does not ship, with the role chosen last; as long as there is room for them."""
    shipped = Pantry(pantry())
    found = {
        line.name: line.role
        for stage in formula.stages
        for line in stage.lines
        if line.name and line.role and shipped.find(line.name) is None
    }
    known = set(session.scalars(select(OwnIngredient.name).where(OwnIngredient.kitchen_id == kitchen_id)))
    new = [name for name in found if name not in known][: max(0, most.OWN_INGREDIENTS - len(known))]
    found = {name: role for name, role in found.items() if name in known or name in new}
    # In order of name, so that two saves at once take their row locks in the same order.
    for name, role in sorted(found.items()):
        row = insert(OwnIngredient).values(kitchen_id=kitchen_id, name=name, role=role)
        session.execute(row.on_conflict_do_update(index_elements=["kitchen_id", "name"], set_={"role": Role(role)}))


def list_cups(session: Session, kitchen_id: int) -> tuple[WeighedCup, ...]:
    """The kitchen's weighings, newest first."""
    rows = session.scalars(
        select(CupWeighingRow)
        .where(CupWeighingRow.kitchen_id == kitchen_id)
        .order_by(CupWeighingRow.id.desc())
        .limit(most.WEIGHINGS)
    )
    return tuple(
        WeighedCup(id=row.id, weighing=CupWeighing.model_validate(row.body), weighed_at=row.weighed_at) for row in rows
    )


def add_cup(session: Session, kitchen_id: int, weighing: CupWeighing) -> WeighedCup:
    """Keep a weighing. Raises `Full`."""
    room_for_one(session, CupWeighingRow, kitchen_id, most.WEIGHINGS, "There are {} weighings. Forget some that are old.")
    row = CupWeighingRow(kitchen_id=kitchen_id, body=weighing.model_dump(mode="json"))
    session.add(row)
    session.flush()
    return WeighedCup(id=row.id, weighing=weighing, weighed_at=row.weighed_at)


def drop_cup(session: Session, kitchen_id: int, cup_id: int) -> None:
    """Forget a weighing. Raises `NotFound`."""
    gone = session.scalar(
        delete(CupWeighingRow)
        .where(CupWeighingRow.id == cup_id, CupWeighingRow.kitchen_id == kitchen_id)
        .returning(CupWeighingRow.id)
    )
    if gone is None:
        raise NotFound("There is no such weighing in this kitchen.")


def reading_kitchen(session: Session, kitchen_id: int) -> Kitchen:
    """What the kitchen brings to the reading of a recipe."""
    settings = get_kitchen(session, kitchen_id).settings
    return Kitchen(
        own=own_ingredients(session, kitchen_id),
        habits=settings.habits,
        cups=tuple(cup.weighing for cup in list_cups(session, kitchen_id)),
        scale=settings.scale,
    )
