"""Tasted blind: begun with bakes, scored by everybody on their own device, then opened."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import Field

from pancount.api.desk import may_answer
from pancount.api.records import RecordsOf
from pancount.core.base.models import Frozen
from pancount.core.book.tasting import LETTERS, Tasted
from pancount.store import tasting as store
from pancount.store.tasting import TastingState

router = APIRouter(prefix="/api/tastings", tags=["book"])


class TastingBegun(Frozen):
    """What is tasted; which letter each gets is drawn."""

    id: UUID
    bakes: Annotated[tuple[UUID, ...], Field(min_length=2, max_length=len(LETTERS))]


@router.post("", status_code=201, responses=may_answer(404, 409, 422, 503))
async def begin_tasting(body: TastingBegun, records: RecordsOf) -> TastingState:
    """Begin one."""
    return await records(store.begin_tasting, body.id, tuple(dict.fromkeys(body.bakes)))


@router.get("/{tasting_id}", responses=may_answer(404, 422, 503))
async def get_tasting(tasting_id: UUID, records: RecordsOf, taster: Annotated[UUID | None, Query()] = None) -> TastingState:
    """A tasting as a taster sees it: letters, until it is opened."""
    return await records(store.get_tasting, tasting_id, taster)


@router.put("/{tasting_id}/tasters/{taster}", responses=may_answer(404, 409, 422, 503))
async def put_tasted(tasting_id: UUID, taster: UUID, body: Tasted, records: RecordsOf) -> TastingState:
    """Keep what one taster says. 409 once it is opened."""
    return await records(store.put_tasted, tasting_id, taster, body)


@router.post("/{tasting_id}/tasters/{taster}/lay-out", responses=may_answer(404, 409, 422, 503))
async def lay_out(tasting_id: UUID, taster: UUID, records: RecordsOf) -> TastingState:
    """Tell one who does not taste which is which, to lay them out. 409 for one who tasted already."""
    return await records(store.lay_out, tasting_id, taster)


@router.post("/{tasting_id}/open", responses=may_answer(404, 409, 422, 503))
async def open_tasting(tasting_id: UUID, records: RecordsOf) -> TastingState:
    """Tell which is which, for good. 409 while nobody has tasted."""
    return await records(store.open_tasting, tasting_id)
