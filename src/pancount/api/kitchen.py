"""The kitchen and its settings."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from pancount.api.desk import may_answer
from pancount.api.records import RecordsOf
from pancount.core.base.models import Frozen, Name
from pancount.store import kitchen as store
from pancount.store.kitchen import KitchenState, Settings

router = APIRouter(prefix="/api", tags=["kitchen"])


class KitchenChange(Frozen):
    """New name and settings, resting on the `version` that was read."""

    name: Annotated[Name, Field(min_length=1)]
    settings: Settings
    version: int


@router.get("/kitchen", responses=may_answer(503))
async def get_kitchen(records: RecordsOf) -> KitchenState:
    """The kitchen as it is now."""
    return await records(store.get_kitchen)


@router.put("/kitchen", responses=may_answer(409, 422, 503))
async def change_kitchen(body: KitchenChange, records: RecordsOf) -> KitchenState:
    """Set name and settings."""
    return await records(store.change_kitchen, body.name, body.settings, body.version)
