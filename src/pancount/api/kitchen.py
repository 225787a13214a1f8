"""The kitchen and its settings."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from pancount.api.desk import KitchenId, SessionOf, may_answer
from pancount.core.base import Frozen, Name
from pancount.store import kitchens
from pancount.store.kitchens import KitchenState, Settings

router = APIRouter(prefix="/api", tags=["kitchen"])


class KitchenChange(Frozen):
    """New name and settings, resting on the `version` that was read."""

    name: Annotated[Name, Field(min_length=1)]
    settings: Settings
    version: int


@router.get("/kitchen", responses=may_answer(503))
def get_kitchen(session: SessionOf, kitchen: KitchenId) -> KitchenState:
    """The kitchen as it is now."""
    return kitchens.get_kitchen(session, kitchen)


@router.put("/kitchen", responses=may_answer(409, 422, 503))
def change_kitchen(body: KitchenChange, session: SessionOf, kitchen: KitchenId) -> KitchenState:
    """Set name and settings."""
    return kitchens.change_kitchen(session, kitchen, body.name, body.settings, body.version)
