"""Formulas: the list, the desk, revisions, and files in and out."""

from typing import Annotated

from fastapi import APIRouter, Query, Request
from pydantic import Field

from pancount.api.desk import FormulaId, RevisionNumber, RevisionQuery, may_answer
from pancount.api.files import FileBody
from pancount.api.long import QUICK_BYTES, off_loop
from pancount.api.records import RecordsOf
from pancount.core.base.models import Frozen, Words
from pancount.core.count.count import Count
from pancount.core.formula.formula import Formula
from pancount.formats.formula_file import read_formula
from pancount.store import formula as store
from pancount.store.formula import FormulaHead, FormulaState, Revision, RevisionHead

router = APIRouter(prefix="/api/formulas", tags=["formulas"])

Version = Annotated[int, Field(ge=0, le=2**31 - 1)]

class NewFormula(Frozen):
    """What is on the desk of a formula that is not stored yet."""

    formula: Formula = Formula()
    count: Count = Count()


class DeskChange(NewFormula):
    """What is being typed, resting on the desk's `version` that was read."""

    version: Version


class NewRevision(DeskChange):
    """A formula to keep for good, with the count on its desk, resting on the desk's `version` that was read."""

    note: Words = ""


@router.get("", responses=may_answer(503))
async def list_formulas(records: RecordsOf, archived: bool = False) -> list[FormulaHead]:
    """The kitchen's formulas, last changed first."""
    return await records(store.list_formulas, archived=archived)


@router.post("", status_code=201, responses=may_answer(422, 503))
async def start_formula(body: NewFormula, records: RecordsOf) -> FormulaState:
    """A new formula on the desk, not yet saved as a revision."""
    return await records(store.start_formula, body.formula, body.count)


FILE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/FormulaFile"}}},
    }
}


@router.post("/import", status_code=201, responses=may_answer(413, 422, 503), openapi_extra=FILE_BODY)
async def import_formula(data: FileBody, request: Request, records: RecordsOf) -> FormulaState:
    """Take in a formula file. 422 says what is wrong and where."""
    file = await off_loop(request, read_formula, data, heavy=len(data) > QUICK_BYTES)
    return await records(store.keep_new, file.formula, file.count, "Taken in from a file")


@router.get("/{formula_id}", responses=may_answer(404, 422, 503))
async def get_formula(formula_id: FormulaId, records: RecordsOf) -> FormulaState:
    """The formula as it lies on the desk."""
    return await records(store.get_formula, formula_id)


@router.put("/{formula_id}/desk", responses=may_answer(404, 409, 422, 503))
async def put_on_desk(body: DeskChange, formula_id: FormulaId, records: RecordsOf) -> FormulaState:
    """Keep what is being typed. 409 where another window changed it since."""
    return await records(store.put_on_desk, formula_id, body.formula, body.count, body.version)


@router.get("/{formula_id}/revisions", responses=may_answer(404, 422, 503))
async def list_revisions(formula_id: FormulaId, records: RecordsOf) -> list[RevisionHead]:
    """Revisions, newest first."""
    return await records(store.list_revisions, formula_id)


@router.post("/{formula_id}/revisions", status_code=201, responses=may_answer(404, 409, 422, 503))
async def save_revision(body: NewRevision, formula_id: FormulaId, records: RecordsOf) -> FormulaState:
    """Keep a formula for good. 409 where another window kept or saved anything since."""
    return await records(store.save_revision, formula_id, body.formula, body.count, body.version, body.note)


@router.get("/{formula_id}/revisions/{number}", responses=may_answer(404, 422, 503))
async def get_revision(formula_id: FormulaId, number: RevisionNumber, records: RecordsOf) -> Revision:
    """One revision, whole."""
    return await records(store.get_revision, formula_id, number)


@router.post("/{formula_id}/copy", status_code=201, responses=may_answer(404, 422, 503))
async def copy_formula(
    formula_id: FormulaId, records: RecordsOf, revision: RevisionQuery = None
) -> FormulaState:
    """A formula of its own from what lies on this one's desk, or branched from one of its revisions."""
    return await records(store.copy_formula, formula_id, revision)


@router.put("/{formula_id}/archived", responses=may_answer(404, 422, 503))
async def archive_formula(archived: bool, formula_id: FormulaId, records: RecordsOf) -> FormulaHead:
    """Put a formula away, or bring it back."""
    return await records(store.archive_formula, formula_id, archived=archived)


@router.delete("/{formula_id}", status_code=204, responses=may_answer(404, 409, 422, 503))
async def undo_new(
    formula_id: FormulaId,
    version: Annotated[int, Query(ge=0, le=2**31 - 1)],
    records: RecordsOf,
) -> None:
    """Take back a formula just made or copied. 409 where anything happened to it since."""
    await records(store.undo_new, formula_id, version)
