"""The pantry and the kitchen's own cups."""

from typing import Annotated

from fastapi import APIRouter, Path, Query
from pydantic import Field

from pancount.api.desk import KitchenId, SessionOf, may_answer
from pancount.core.base import Frozen, Name
from pancount.core.pantry import Ingredient, pantry
from pancount.core.taking.habits import CupWeighing
from pancount.store import formulas
from pancount.store import pantry as store
from pancount.store.formulas import Use
from pancount.store.pantry import PantryItem, WeighedCup

router = APIRouter(prefix="/api", tags=["pantry"])

Version = Annotated[int, Field(ge=0, le=2**31 - 1)]
CupId = Annotated[int, Path(ge=1, le=2**31 - 1)]


class IngredientChange(Frozen):
    """An ingredient as it is to be, resting on the `version` that was read (0 for one as shipped, or a new one)."""

    ingredient: Ingredient
    version: Version


class Kept(Frozen):
    """An ingredient as it stands now, and how many formulas were reckoned again."""

    item: PantryItem
    reckoned_again: int


@router.get("/pantry", responses=may_answer(503))
def get_pantry(session: SessionOf, kitchen: KitchenId) -> tuple[PantryItem, ...]:
    """The shipped ingredients, as this kitchen has them, and those it added."""
    return store.list_pantry(session, kitchen)


@router.post("/pantry/uses", responses=may_answer(422, 503))
def get_uses(ingredient: Ingredient, session: SessionOf, kitchen: KitchenId) -> tuple[Use, ...]:
    """Where an ingredient is used, with what these figures for it would make of each formula. Changes nothing."""
    return formulas.uses(session, kitchen, ingredient)


@router.put("/pantry", responses=may_answer(409, 422, 503))
def put_ingredient(body: IngredientChange, session: SessionOf, kitchen: KitchenId) -> Kept:
    """Add an ingredient or change one, and reckon again what uses it. 409 where another window changed it since."""
    item = store.put_ingredient(session, kitchen, body.ingredient, body.version)
    return Kept(item=item, reckoned_again=formulas.reckon_again(session, kitchen, item.ingredient))


@router.delete("/pantry", status_code=204, responses=may_answer(404, 409, 422, 503))
def drop_ingredient(
    name: Annotated[Name, Query(min_length=1)],
    version: Annotated[int, Query(ge=0, le=2**31 - 1)],
    session: SessionOf,
    kitchen: KitchenId,
) -> None:
    """Go back to the ingredient as shipped, or remove one that the kitchen added."""
    before = next((i for i in store.own_ingredients(session, kitchen) if i.name == name), None)
    store.drop_ingredient(session, kitchen, name, version)
    shipped = next((i for i in pantry() if i.name == name), None)
    formulas.reckon_again(session, kitchen, before, shipped)


@router.get("/cups", responses=may_answer(503))
def get_cups(session: SessionOf, kitchen: KitchenId) -> tuple[WeighedCup, ...]:
    """The kitchen's own cups and spoons, as they were weighed, newest first."""
    return store.list_cups(session, kitchen)


@router.post("/cups", status_code=201, responses=may_answer(422, 503))
def weigh_cup(weighing: CupWeighing, session: SessionOf, kitchen: KitchenId) -> WeighedCup:
    """Keep a weighing; from then on it narrows the band of each line that is measured so."""
    return store.add_cup(session, kitchen, weighing)


@router.delete("/cups/{cup_id}", status_code=204, responses=may_answer(404, 422, 503))
def drop_cup(cup_id: CupId, session: SessionOf, kitchen: KitchenId) -> None:
    """Forget a weighing."""
    store.drop_cup(session, kitchen, cup_id)
