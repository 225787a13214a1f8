"""Something to begin with in an empty kitchen: outlines, and the demo kitchen's formulas as examples."""

from functools import cache
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from pydantic import TypeAdapter

from pancount.api.desk import may_answer
from pancount.api.records import RecordsOf
from pancount.api.tagged import mark_of, tagged
from pancount.core.count.count import Count
from pancount.core.formula.outlines import Outline, outlines
from pancount.demo.weir_house import examples
from pancount.store import examples as store
from pancount.store.errors import NotFound
from pancount.store.examples import ExamplesGone
from pancount.store.formula import FormulaState, start_formula

router = APIRouter(prefix="/api/beginnings", tags=["beginnings"])

OUTLINES: TypeAdapter[tuple[Outline, ...]] = TypeAdapter(tuple[Outline, ...])


@cache
def _outlines() -> bytes:
    return OUTLINES.dump_json(tuple(outlines().values()))


@router.get("/outlines", response_model=tuple[Outline, ...])
async def get_outlines(request: Request) -> Response:
    """What a dough of each kind usually is. Never changes while the application runs."""
    return tagged(request, mark_of(_outlines()), _outlines())


@router.post("/outlines", status_code=201, responses=may_answer(404, 422, 503))
async def begin_outline(key: Annotated[str, Query(max_length=40)], records: RecordsOf) -> FormulaState:
    """A formula of one's own that begins from an outline; a draft until it is saved. 404 for an outline that there is not."""
    outline = outlines().get(key)
    if outline is None:
        raise NotFound("There is no such outline.")
    return await records(start_formula, outline.formula, Count())


@router.post("/examples", status_code=201, responses=may_answer(422, 503))
async def add_examples(records: RecordsOf) -> int:
    """Bring in the examples that are not there yet. How many came."""
    return await records(store.add_examples, examples())


@router.delete("/examples", responses=may_answer(503))
async def remove_examples(records: RecordsOf) -> ExamplesGone:
    """Remove the examples; those that were changed stay, as formulas of one's own."""
    return await records(store.remove_examples)
