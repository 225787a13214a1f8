"""Taking in: read a recipe's text, keep it, make a formula of it; files in."""

from typing import Annotated, Literal

from fastapi import APIRouter, Path, Query
from pydantic import Field

from pancount.api.desk import KitchenId, SessionOf, may_answer
from pancount.api.files import FileBody
from pancount.core.base import PLAIN, Frozen, Name
from pancount.core.taking.habits import Habits
from pancount.core.taking.take_in import take_in
from pancount.core.taking.taken import Mapping, TakenIn
from pancount.formats.recipe_file import read_recipe_file
from pancount.formats.recipe_table import Table, read_table, table_text
from pancount.store import kitchens
from pancount.store import takings as store
from pancount.store.formulas import FormulaState, keep_new
from pancount.store.kitchens import KitchenState
from pancount.store.pantry import reading_kitchen
from pancount.store.takings import Taking, TakingHead, TakingState

router = APIRouter(prefix="/api", tags=["taking in"])

TakingId = Annotated[int, Path(ge=1, le=2**31 - 1)]
VersionQuery = Annotated[int, Query(ge=0, le=2**31 - 1)]
TableText = Annotated[str, Field(max_length=1_000_000, pattern=PLAIN)]


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
def read_text(body: Taking, session: SessionOf, kitchen: KitchenId) -> TakenIn:
    """Read a recipe as this kitchen reads it. Keeps nothing."""
    return take_in(body.text, body.settled, reading_kitchen(session, kitchen), body.system)


@router.post("/take-in/file", responses=may_answer(413, 422, 503))
def read_file(
    data: FileBody, session: SessionOf, kitchen: KitchenId, name: Annotated[Name, Query()] = ""
) -> FileRead:
    """What a file holds: recipe text (plain, JSON-LD, or a saved page with it), a table, or a formula, which is kept."""
    file = read_recipe_file(data, name)
    formula_id = None
    if file.formula is not None:
        made = keep_new(session, kitchen, file.formula.formula, file.formula.count, "Taken in from a file")
        formula_id = made.head.id
    table = file.table
    if table is not None:
        remembered = kitchens.get_kitchen(session, kitchen).settings.columns.get(_head(table))
        table = table.model_copy(update={"mapping": remembered}) if remembered else table
    return FileRead(kind=file.kind, text=file.text, table=table, formula_id=formula_id)


def _head(table: Table) -> str:
    return " | ".join(table.head)[:1000]


@router.post("/take-in/table", responses=may_answer(422, 503))
def read_columns(body: TableRead, session: SessionOf, kitchen: KitchenId) -> Taking:
    """A table as recipe text, its columns known. The kitchen remembers them for the next table with this head."""
    text = table_text(body.text, body.mapping, body.title)
    kitchens.remember_columns(session, kitchen, _head(read_table(body.text)), body.mapping)
    return Taking(text=text)


@router.put("/kitchen/habits", responses=may_answer(422, 503))
def put_habits(habits: Habits, session: SessionOf, kitchen: KitchenId) -> KitchenState:
    """Remember the kitchen's answers to the questions of taking in."""
    return kitchens.remember_habits(session, kitchen, habits)


@router.get("/takings", responses=may_answer(503))
def list_takings(session: SessionOf, kitchen: KitchenId) -> tuple[TakingHead, ...]:
    """Recipes taken in, last changed first."""
    return store.list_takings(session, kitchen)


@router.post("/takings", status_code=201, responses=may_answer(422, 503))
def start_taking(body: Taking, session: SessionOf, kitchen: KitchenId) -> TakingState:
    """Keep a new one."""
    return store.start_taking(session, kitchen, body)


@router.get("/takings/{taking_id}", responses=may_answer(404, 422, 503))
def get_taking(taking_id: TakingId, session: SessionOf, kitchen: KitchenId) -> TakingState:
    """One, whole."""
    return store.get_taking(session, kitchen, taking_id)


@router.put("/takings/{taking_id}", responses=may_answer(404, 409, 422, 503))
def put_taking(body: TakingChange, taking_id: TakingId, session: SessionOf, kitchen: KitchenId) -> TakingState:
    """Keep what is being typed and settled. 409 where another window changed it since."""
    return store.put_taking(session, kitchen, taking_id, body, body.version)


@router.delete("/takings/{taking_id}", status_code=204, responses=may_answer(404, 409, 422, 503))
def drop_taking(taking_id: TakingId, version: VersionQuery, session: SessionOf, kitchen: KitchenId) -> None:
    """Throw one away."""
    store.drop_taking(session, kitchen, taking_id, version)


@router.post("/takings/{taking_id}/formula", status_code=201, responses=may_answer(404, 409, 422, 503))
def formula_of(taking_id: TakingId, version: VersionQuery, session: SessionOf, kitchen: KitchenId) -> FormulaState:
    """Make the formula of a recipe as it is kept. 409 where another window changed it since."""
    return store.formula_of(session, kitchen, taking_id, version)
