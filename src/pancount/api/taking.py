"""Taking in: read a recipe's text, keep it, make a formula of it; files in."""

from typing import Annotated, Literal

from fastapi import APIRouter, Path, Query, Request
from pydantic import Field

from pancount.api.desk import may_answer
from pancount.api.files import FileBody
from pancount.api.long import QUICK_BYTES, QUICK_TEXT, off_loop
from pancount.api.records import RecordsOf
from pancount.core.base.models import PLAIN, Frozen, Name
from pancount.core.taking.habits import Habits
from pancount.core.taking.take_in import take_in
from pancount.core.taking.taken import Mapping, TakenIn
from pancount.formats.recipe_file import read_recipe_file
from pancount.formats.recipe_table import Table, table_text
from pancount.store import kitchen as kitchens
from pancount.store import taking as store
from pancount.store.formula import FormulaState, keep_new
from pancount.store.kitchen import KitchenState
from pancount.store.pantry import reading_kitchen
from pancount.store.taking import Taking, TakingHead, TakingState, read_and_make

router = APIRouter(prefix="/api", tags=["taking in"])

TakingId = Annotated[int, Path(ge=1, le=2**31 - 1)]
VersionQuery = Annotated[int, Query(ge=0, le=2**31 - 1)]
TableText = Annotated[str, Field(max_length=600_000, pattern=PLAIN)]


class TakingChange(Taking):
    """What is being typed and settled, resting on the `version` that was read."""

    version: Annotated[int, Field(ge=0, le=2**31 - 1)]


class FileRead(Frozen):
    """What a file turned out to be, ready to go on with."""

    kind: Literal["text", "table", "formula"]
    text: str
    table: Table | None
    formula_id: int | None
    """The formula that was taken in, where it was a formula file."""


class TableRead(Frozen):
    """A table, and which of its columns holds what."""

    text: TableText
    mapping: Mapping
    title: Name = ""


@router.post("/take-in", responses=may_answer(422, 503))
async def read_text(body: Taking, request: Request, records: RecordsOf) -> TakenIn:
    """Read a recipe as this kitchen reads it. Keeps nothing."""
    kitchen = await records(reading_kitchen)
    return await off_loop(request, take_in, body.text, body.settled, kitchen, body.system, heavy=len(body.text) > QUICK_TEXT)


@router.post("/take-in/file", responses=may_answer(413, 422, 503))
async def read_file(
    data: FileBody, request: Request, records: RecordsOf, name: Annotated[Name, Query()] = ""
) -> FileRead:
    """What a file holds: recipe text (plain, JSON-LD, or a saved page with it), a table, or a formula, which is kept."""
    file = await off_loop(request, read_recipe_file, data, name, heavy=len(data) > QUICK_BYTES)
    formula_id = None
    if file.formula is not None:
        made = await records(keep_new, file.formula.formula, file.formula.count, "Taken in from a file")
        formula_id = made.head.id
    table = file.table
    if table is not None:
        kitchen = await records(kitchens.get_kitchen)
        remembered = kitchen.settings.columns.get(_joined(table.head))
        table = table.model_copy(update={"mapping": remembered}) if remembered else table
    return FileRead(kind=file.kind, text=file.text, table=table, formula_id=formula_id)


def _joined(head: tuple[str, ...]) -> str:
    """What a kind of table is known by."""
    return " | ".join(head)[:1000]


@router.post("/take-in/table", responses=may_answer(422, 503))
async def read_columns(body: TableRead, request: Request, records: RecordsOf) -> Taking:
    """A table as recipe text, its columns known. The kitchen remembers them for the next table with this head."""
    head, text = await off_loop(request, table_text, body.text, body.mapping, body.title, heavy=len(body.text) > QUICK_BYTES)
    await records(kitchens.remember_columns, _joined(head), body.mapping)
    return Taking(text=text)


@router.put("/kitchen/habits", responses=may_answer(422, 503))
async def put_habits(habits: Habits, records: RecordsOf) -> KitchenState:
    """Remember the kitchen's answers to the questions of taking in."""
    return await records(kitchens.remember_habits, habits)


@router.get("/takings", responses=may_answer(503))
async def list_takings(records: RecordsOf) -> tuple[TakingHead, ...]:
    """Recipes taken in, last changed first."""
    return await records(store.list_takings)


@router.post("/takings", status_code=201, responses=may_answer(422, 503))
async def start_taking(body: Taking, records: RecordsOf) -> TakingState:
    """Keep a new one."""
    return await records(store.start_taking, body)


@router.get("/takings/{taking_id}", responses=may_answer(404, 422, 503))
async def get_taking(taking_id: TakingId, records: RecordsOf) -> TakingState:
    """One, whole."""
    return await records(store.get_taking, taking_id)


@router.put("/takings/{taking_id}", responses=may_answer(404, 409, 422, 503))
async def put_taking(body: TakingChange, taking_id: TakingId, records: RecordsOf) -> TakingState:
    """Keep what is being typed and settled. 409 where another window changed it since."""
    return await records(store.put_taking, taking_id, body, body.version)


@router.delete("/takings/{taking_id}", status_code=204, responses=may_answer(404, 409, 422, 503))
async def drop_taking(taking_id: TakingId, version: VersionQuery, records: RecordsOf) -> None:
    """Throw one away."""
    await records(store.drop_taking, taking_id, version)


@router.post("/takings/{taking_id}/formula", status_code=201, responses=may_answer(404, 409, 422, 503))
async def formula_of(taking_id: TakingId, version: VersionQuery, request: Request, records: RecordsOf) -> FormulaState:
    """Make the formula of a recipe as it is kept. 409 where another window changed it since."""
    taking, kitchen = await records(store.to_be_read, taking_id, version)
    formula, count = await off_loop(request, read_and_make, taking, kitchen, heavy=len(taking.text) > QUICK_TEXT)
    return await records(store.keep_formula, taking_id, version, formula, count)
