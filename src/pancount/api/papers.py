"""What goes out: the weigh sheet on screen and as PDF, and formula files.

Each is asked of the records in one transaction (`Told`), then made of that alone, off the event loop.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Annotated, Any, TypeVar
from urllib.parse import quote

from fastapi import APIRouter, Depends, Query, Request, Response
from sqlalchemy.orm import Session

from pancount.api.desk import FormulaId, RevisionQuery, may_answer
from pancount.api.long import Bench, off_loop
from pancount.api.records import RecordsOf
from pancount.core.base.models import Frozen
from pancount.core.count.count import Count
from pancount.core.formula.formula import Formula, without_blank_lines
from pancount.core.formula.remarks import cautions
from pancount.core.method.method import whole_method
from pancount.core.pantry.ingredients import Ingredient, Pantry, pantry_with
from pancount.core.sheet.method_sheet import MethodSheet, method_sheet
from pancount.core.sheet.printed import WeighSheet
from pancount.core.sheet.weigh import weigh_sheet
from pancount.formats.formula_csv import write_csv
from pancount.formats.formula_file import write_formula
from pancount.formats.method_pdf import method_pdf
from pancount.formats.paper import Paper
from pancount.formats.recipe_jsonld import write_recipe
from pancount.formats.ruler_pdf import ruler_pdf
from pancount.formats.sheet_csv import write_sheet_csv
from pancount.formats.sheet_ods import count_ods
from pancount.formats.sheet_pdf import sheet_pdf
from pancount.store.formula import get_formula, get_revision
from pancount.store.kitchen import Settings, get_kitchen
from pancount.store.pantry import own_ingredients

router = APIRouter(prefix="/api/formulas/{formula_id}", tags=["papers"])

ODS = "application/vnd.oasis.opendocument.spreadsheet"
T = TypeVar("T")


class SheetPage(Frozen):
    """A weigh sheet with what stands around it."""

    kitchen: str
    edition: str
    settings: Settings
    sheet: WeighSheet


class MethodPage(Frozen):
    """A method sheet with what stands around it."""

    name: str
    kitchen: str
    edition: str
    settings: Settings
    sheet: MethodSheet


@dataclass(frozen=True)
class Told:
    """All that the records tell of a formula that goes out; `edition` says which one it is."""

    kitchen: str
    settings: Settings
    own: tuple[Ingredient, ...]
    formula: Formula
    count: Count
    edition: str

    @property
    def pantry(self) -> Pantry:
        """The pantry as the kitchen has it."""
        return pantry_with(self.own)


def _told(session: Session, kitchen_id: int, formula_id: int, revision: int | None) -> Told:
    """What lies on the desk, or a revision under the desk's count. Raises `NotFound`."""
    state, kitchen = get_formula(session, kitchen_id, formula_id), get_kitchen(session, kitchen_id)
    if revision is not None:
        formula = get_revision(session, kitchen_id, formula_id, revision).formula
        words = f"revision {revision}"
    else:
        formula, words = without_blank_lines(state.formula), f"revision {state.head.latest_number}"
        if state.head.unsaved:
            words = f"draft on {words}, not saved" if state.head.latest_number else "draft, not saved"
    own = own_ingredients(session, kitchen_id)
    return Told(kitchen.name, kitchen.settings, own, formula, state.count, words)


def _page(told: Told) -> SheetPage:
    """The weigh sheet. Raises what `weigh_sheet` raises."""
    settings, pantry = told.settings, told.pantry
    care = cautions(told.formula, pantry)
    sheet = weigh_sheet(told.formula, told.count, settings.scale, care, settings.practice.starter, settings.kit, pantry)
    return SheetPage(kitchen=told.kitchen, edition=told.edition, settings=settings, sheet=sheet)


def _pdf(told: Told, paper: Paper | None) -> bytes:
    page = _page(told)
    return sheet_pdf(
        page.sheet,
        kitchen=page.kitchen,
        edition=page.edition,
        paper=paper or page.settings.paper,
        length_unit=page.settings.length_unit,
    )


def _method_page(told: Told) -> MethodPage:
    """The method sheet. Raises what `weigh_sheet` raises."""
    settings, pantry = told.settings, told.pantry
    sheet = weigh_sheet(told.formula, told.count, settings.scale, (), settings.practice.starter, settings.kit, pantry)
    method = whole_method(told.formula, told.count, pantry, settings.practice, settings.kit, settings.climate)
    paper = method_sheet(told.formula, told.count.way, method, sheet)
    return MethodPage(name=told.formula.name, kitchen=told.kitchen, edition=told.edition, settings=settings, sheet=paper)


def _method_pdf(told: Told, paper: Paper | None) -> bytes:
    page = _method_page(told)
    return method_pdf(page.sheet, name=page.name, kitchen=page.kitchen, edition=page.edition, paper=paper or page.settings.paper)


def _ruler(told: Told, target: int) -> bytes:
    sheet, settings = _page(told).sheet, told.settings
    shaped = sheet.targets[min(target, len(sheet.targets) - 1)].shaped
    return ruler_pdf(shaped, name=sheet.name, paper=settings.paper, unit=settings.length_unit)


def _ods(told: Told) -> bytes:
    return count_ods(told.formula, told.count, told.settings.kit, told.settings.practice.starter, told.pantry)


def _sheet_csv(told: Told) -> str:
    return write_sheet_csv(_page(told).sheet)


def _file(told: Told) -> str:
    return write_formula(told.formula, told.count)


def _recipe(told: Told) -> str:
    return write_recipe(told.formula, told.count)


def _csv(told: Told) -> str:
    return write_csv(told.formula)


class Out:
    """A formula that goes out: the one in the address, as it lies on the desk or in a revision."""

    def __init__(
        self, formula_id: FormulaId, request: Request, records: RecordsOf, revision: RevisionQuery = None
    ) -> None:
        self._asked = (formula_id, revision)
        self._request, self._records = request, records

    async def made(self, make: Callable[[Told], T], *, heavy: bool = False) -> T:
        """What `make` makes of it. Raises `NotFound`, and what `make` raises."""
        told = await self._records(_told, *self._asked)
        return await off_loop(self._request, make, told, heavy=heavy)

    def get_ready(self) -> None:
        """It may be printed next."""
        bench: Bench = self._request.app.state.bench
        bench.get_ready()

    async def attached(
        self, make: Callable[[Told], str | bytes], media_type: str, ending: str, *, how: str = "attachment", heavy: bool = False
    ) -> Response:
        """The same as a file with the formula's name, in any script (RFC 6266)."""
        name, content = await self.made(_Named(make), heavy=heavy)
        file_name = quote((name or "formula")[:80].replace("/", " ") + ending)
        return Response(
            content, media_type=media_type, headers={"Content-Disposition": f"{how}; filename*=UTF-8''{file_name}"}
        )


@dataclass(frozen=True)
class _Named:
    """A writer that gives the formula's name with what it writes."""

    make: Callable[[Told], str | bytes]

    def __call__(self, told: Told) -> tuple[str, str | bytes]:
        return told.formula.name, self.make(told)


OutOf = Annotated[Out, Depends(Out)]
PaperQuery = Annotated[Paper | None, Query()]
TargetQuery = Annotated[int, Query(ge=0, le=11)]


def _file_of(media_type: str) -> dict[int | str, dict[str, Any]]:
    """What a route that hands out a file may answer with."""
    return may_answer(404, 422, 503) | {200: {"content": {media_type: {}}}}


@router.get("/sheet", responses=may_answer(404, 422, 503))
async def get_sheet(out: OutOf) -> SheetPage:
    """The weigh sheet of what lies on the desk, or of a revision."""
    out.get_ready()
    return await out.made(_page)


@router.get("/sheet.pdf", response_class=Response, responses=_file_of("application/pdf"))
async def get_sheet_pdf(out: OutOf, paper: PaperQuery = None) -> Response:
    """The weigh sheet as a PDF, on the kitchen's paper or another."""
    made = partial(_pdf, paper=paper)
    return await out.attached(made, "application/pdf", ", weigh sheet.pdf", how="inline", heavy=True)


@router.get("/method", responses=may_answer(404, 422, 503))
async def get_method_sheet(out: OutOf) -> MethodPage:
    """The method sheet of the count's way, of what lies on the desk or of a revision."""
    out.get_ready()
    return await out.made(_method_page)


@router.get("/method.pdf", response_class=Response, responses=_file_of("application/pdf"))
async def get_method_pdf(out: OutOf, paper: PaperQuery = None) -> Response:
    """The method sheet as a PDF, on the kitchen's paper or another."""
    made = partial(_method_pdf, paper=paper)
    return await out.attached(made, "application/pdf", ", method.pdf", how="inline", heavy=True)


@router.get("/sheet.csv", response_class=Response, responses=_file_of("text/csv"))
async def get_sheet_csv(out: OutOf) -> Response:
    """The weigh sheet as CSV."""
    return await out.attached(_sheet_csv, "text/csv; charset=utf-8", ", weigh sheet.csv")


@router.get("/count.ods", response_class=Response, responses=_file_of(ODS))
async def get_count_ods(out: OutOf) -> Response:
    """The count as a spreadsheet that reckons on."""
    return await out.attached(_ods, ODS, ", count.ods", heavy=True)


@router.get("/ruler.pdf", response_class=Response, responses=_file_of("application/pdf"))
async def get_ruler(out: OutOf, target: TargetQuery = 0) -> Response:
    """A ruler at true size for a target's shape."""
    made = partial(_ruler, target=target)
    return await out.attached(made, "application/pdf", ", ruler.pdf", how="inline", heavy=True)


@router.get("/formula.json", response_class=Response, responses=_file_of("application/json"))
async def export_json(out: OutOf) -> Response:
    """The formula and its count as a formula file."""
    return await out.attached(_file, "application/json", ".json")


@router.get("/recipe.jsonld", response_class=Response, responses=_file_of("application/ld+json"))
async def export_jsonld(out: OutOf) -> Response:
    """The formula as written, with its yield and method, as schema.org Recipe."""
    return await out.attached(_recipe, "application/ld+json", ", recipe.json")


@router.get("/formula.csv", response_class=Response, responses=_file_of("text/csv"))
async def export_csv(out: OutOf) -> Response:
    """The formula as written, as CSV."""
    return await out.attached(_csv, "text/csv; charset=utf-8", ".csv")
