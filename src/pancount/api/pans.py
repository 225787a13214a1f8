"""The shelf, and pans held against each other."""

from typing import Annotated

from fastapi import APIRouter, Path, Query, Request
from pydantic import Field

from pancount.api.desk import may_answer
from pancount.api.long import off_loop
from pancount.api.records import RecordsOf
from pancount.core.base.models import Frozen, SomeGrams, Word
from pancount.core.pans.compared import InPan, StandIn, Wanted, in_pan, stand_ins
from pancount.core.pans.fills import fill_rule
from pancount.core.pans.measured import Measured, measure
from pancount.core.pans.pan import Pan
from pancount.core.pans.shelf import ShelfPan
from pancount.store import pans as store
from pancount.store.pans import PanState

router = APIRouter(prefix="/api", tags=["pans"])

PanId = Annotated[int, Path(ge=1, le=2**31 - 1)]
Version = Annotated[int, Field(ge=0, le=2**31 - 1)]


class PanChange(Frozen):
    """A pan as it is to be, resting on the `version` that was read."""

    shelved: ShelfPan
    version: Version


class Holding(Frozen):
    """The same dough in several pans, the first of which the others are held against."""

    dough_g: SomeGrams
    fill_kind: Word = "pull_apart_buns"
    pans: Annotated[tuple[Pan, ...], Field(min_length=1, max_length=6)]


@router.get("/pans", responses=may_answer(503))
async def list_pans(records: RecordsOf, archived: bool = False) -> tuple[PanState, ...]:
    """The kitchen's pans, or those put away."""
    return await records(store.list_pans, archived=archived)


@router.post("/pans", status_code=201, responses=may_answer(409, 422, 503))
async def add_pan(shelved: ShelfPan, records: RecordsOf) -> PanState:
    """Put a pan on the shelf."""
    return await records(store.add_pan, shelved)


@router.put("/pans/{pan_id}", responses=may_answer(404, 409, 422, 503))
async def change_pan(body: PanChange, pan_id: PanId, records: RecordsOf) -> PanState:
    """Change a pan. 409 where another window changed it since."""
    return await records(store.change_pan, pan_id, body.shelved, body.version)


@router.put("/pans/{pan_id}/archived", responses=may_answer(404, 422, 503))
async def put_pan_away(archived: bool, pan_id: PanId, records: RecordsOf) -> PanState:
    """Put a pan away, or bring it back."""
    return await records(store.put_away, pan_id, archived=archived)


@router.delete("/pans/{pan_id}", status_code=204, responses=may_answer(404, 409, 422, 503))
async def remove_pan(
    pan_id: PanId,
    version: Annotated[int, Query(ge=0, le=2**31 - 1)],
    records: RecordsOf,
) -> None:
    """Take a pan off the shelf for good. 409 where another window changed it since."""
    await records(store.remove_pan, pan_id, version)


@router.post("/pans/stand-ins", responses=may_answer(422, 503))
async def find_stand_ins(wanted: Wanted, request: Request, records: RecordsOf) -> tuple[StandIn, ...]:
    """What else on the shelf would take this dough, best first."""
    shelf = await records(store.list_pans)
    return await off_loop(request, stand_ins, wanted, [(pan.id, pan.shelved) for pan in shelf])


@router.post("/reckon/pan", responses=may_answer(422))
async def measure_pan(pan: Pan) -> Measured:
    """What a pan measures and holds. Keeps nothing."""
    return measure(pan)


@router.post("/reckon/pans", responses=may_answer(422))
async def hold_pans(body: Holding) -> tuple[InPan, ...]:
    """The same dough in each of several pans. Keeps nothing."""
    rule = fill_rule(body.fill_kind)
    return tuple(in_pan(pan, body.dough_g, rule, body.pans[0]) for pan in body.pans)
