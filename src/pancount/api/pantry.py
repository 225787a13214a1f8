"""The pantry and the kitchen's own cups."""

from typing import Annotated

from fastapi import APIRouter, Path, Query, Request, Response
from pydantic import Field, TypeAdapter

from pancount.api.desk import may_answer
from pancount.api.records import RecordsOf
from pancount.api.tagged import is_known, mark_of, tagged
from pancount.core.base.models import Frozen, Name
from pancount.core.pantry.ingredients import Ingredient, pantry
from pancount.core.taking.habits import CupWeighing
from pancount.store import formula as formulas
from pancount.store import pantry as store
from pancount.store.formula import Use
from pancount.store.pantry import PantryItem, WeighedCup

router = APIRouter(prefix="/api", tags=["pantry"])

Version = Annotated[int, Field(ge=0, le=2**31 - 1)]
ITEMS: TypeAdapter[tuple[PantryItem, ...]] = TypeAdapter(tuple[PantryItem, ...])
SHIPPED = repr(pantry()).encode()
"""What ships, which another release may change."""
CupId = Annotated[int, Path(ge=1, le=2**31 - 1)]


class IngredientChange(Frozen):
    """An ingredient as it is to be, resting on the `version` that was read (0 for one as shipped, or a new one)."""

    ingredient: Ingredient
    version: Version


class Kept(Frozen):
    """An ingredient as it stands now, and how many formulas were reckoned again."""

    item: PantryItem
    reckoned_again: int


@router.get("/pantry", response_model=tuple[PantryItem, ...], responses=may_answer(503))
async def get_pantry(request: Request, records: RecordsOf) -> Response:
    """The shipped ingredients, as this kitchen has them, and those it added."""
    mark = mark_of(SHIPPED, await records(store.own_mark))
    if is_known(request, mark):
        return tagged(request, mark, b"")
    return tagged(request, mark, ITEMS.dump_json(await records(store.list_pantry)))


@router.post("/pantry/uses", responses=may_answer(422, 503))
async def get_uses(ingredient: Ingredient, records: RecordsOf) -> tuple[Use, ...]:
    """Where an ingredient is used, with what these figures for it would make of each formula. Changes nothing."""
    return await records(formulas.uses, ingredient)


@router.put("/pantry", responses=may_answer(409, 422, 503))
async def put_ingredient(body: IngredientChange, records: RecordsOf) -> Kept:
    """Add an ingredient or change one, and reckon again what uses it. 409 where another window changed it since."""
    item, reckoned_again = await records(formulas.put_ingredient, body.ingredient, body.version)
    return Kept(item=item, reckoned_again=reckoned_again)


@router.delete("/pantry", status_code=204, responses=may_answer(404, 409, 422, 503))
async def drop_ingredient(
    name: Annotated[Name, Query(min_length=1)],
    version: Annotated[int, Query(ge=0, le=2**31 - 1)],
    records: RecordsOf,
) -> None:
    """Go back to the ingredient as shipped, or remove one that the kitchen added."""
    await records(formulas.drop_ingredient, name, version)


@router.get("/cups", responses=may_answer(503))
async def get_cups(records: RecordsOf) -> tuple[WeighedCup, ...]:
    """The kitchen's own cups and spoons, as they were weighed, newest first."""
    return await records(store.list_cups)


@router.post("/cups", status_code=201, responses=may_answer(422, 503))
async def weigh_cup(weighing: CupWeighing, records: RecordsOf) -> WeighedCup:
    """Keep a weighing; from then on it narrows the band of each line that is measured so."""
    return await records(store.add_cup, weighing)


@router.delete("/cups/{cup_id}", status_code=204, responses=may_answer(404, 422, 503))
async def drop_cup(cup_id: CupId, records: RecordsOf) -> None:
    """Forget a weighing."""
    await records(store.drop_cup, cup_id)
