"""What goes out: the weigh sheet on screen and as PDF, and formula files."""

from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Query, Response
from sqlalchemy.orm import Session

from pancount.api.desk import FormulaId, KitchenId, RevisionQuery, SessionOf, may_answer
from pancount.core.base import Frozen
from pancount.core.count import Count
from pancount.core.formula import Formula, without_blank_lines
from pancount.core.remarks import cautions
from pancount.core.sheet import WeighSheet, weigh_sheet
from pancount.formats.formula_csv import write_csv
from pancount.formats.formula_file import write_formula
from pancount.formats.recipe_jsonld import write_recipe
from pancount.formats.ruler_pdf import ruler_pdf
from pancount.formats.sheet_csv import write_sheet_csv
from pancount.formats.sheet_ods import count_ods
from pancount.formats.sheet_pdf import Paper, sheet_pdf
from pancount.store.formulas import get_formula, get_revision
from pancount.store.kitchens import Settings, get_kitchen
from pancount.store.pantry import kitchen_pantry

router = APIRouter(prefix="/api/formulas/{formula_id}", tags=["papers"])

ODS = "application/vnd.oasis.opendocument.spreadsheet"


class SheetPage(Frozen):
    """A weigh sheet with what stands around it."""

    kitchen: str
    edition: str
    settings: Settings
    sheet: WeighSheet


class Edition(Frozen):
    """A formula and count with words for which edition it is."""

    formula: Formula
    count: Count
    words: str


def _edition(session: Session, kitchen: int, formula_id: int, revision: int | None) -> Edition:
    """What lies on the desk, or a revision under the desk's count."""
    state = get_formula(session, kitchen, formula_id)
    if revision is not None:
        formula = get_revision(session, kitchen, formula_id, revision).formula
        return Edition(formula=formula, count=state.count, words=f"revision {revision}")
    words = f"revision {state.head.latest_number}"
    if state.head.unsaved:
        words = f"draft on {words}, not saved" if state.head.latest_number else "draft, not saved"
    return Edition(formula=without_blank_lines(state.formula), count=state.count, words=words)


def _attached(content: str | bytes, media_type: str, name: str, ending: str, how: str = "attachment") -> Response:
    """A file with the formula's name, in any script (RFC 6266)."""
    file_name = quote((name or "formula")[:80].replace("/", " ") + ending)
    return Response(
        content, media_type=media_type, headers={"Content-Disposition": f"{how}; filename*=UTF-8''{file_name}"}
    )


def _page(session: Session, kitchen: int, formula_id: int, revision: int | None) -> SheetPage:
    edition, state = _edition(session, kitchen, formula_id, revision), get_kitchen(session, kitchen)
    pantry = kitchen_pantry(session, kitchen)
    care = cautions(edition.formula, pantry)
    settings = state.settings
    sheet = weigh_sheet(
        edition.formula,
        edition.count,
        settings.scale,
        care,
        settings.practice.starter,
        settings.kit,
        pantry,
    )
    return SheetPage(kitchen=state.name, edition=edition.words, settings=settings, sheet=sheet)


@router.get("/sheet", responses=may_answer(404, 422, 503))
def get_sheet(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> SheetPage:
    """The weigh sheet of what lies on the desk, or of a revision."""
    return _page(session, kitchen, formula_id, revision)


PaperQuery = Annotated[Paper | None, Query()]
TargetQuery = Annotated[int, Query(ge=0, le=11)]


def _file_of(media_type: str) -> dict[int | str, dict[str, Any]]:
    """What a route that hands out a file may answer with."""
    return may_answer(404, 422, 503) | {200: {"content": {media_type: {}}}}


@router.get("/sheet.pdf", response_class=Response, responses=_file_of("application/pdf"))
def get_sheet_pdf(
    formula_id: FormulaId,
    session: SessionOf,
    kitchen: KitchenId,
    revision: RevisionQuery = None,
    paper: PaperQuery = None,
) -> Response:
    """The weigh sheet as a PDF, on the kitchen's paper or another."""
    page = _page(session, kitchen, formula_id, revision)
    pdf = sheet_pdf(
        page.sheet,
        kitchen=page.kitchen,
        edition=page.edition,
        paper=paper or page.settings.paper,
        length_unit=page.settings.length_unit,
    )
    return _attached(pdf, "application/pdf", page.sheet.name, ", weigh sheet.pdf", "inline")


@router.get("/sheet.csv", response_class=Response, responses=_file_of("text/csv"))
def get_sheet_csv(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The weigh sheet as CSV."""
    sheet = _page(session, kitchen, formula_id, revision).sheet
    return _attached(write_sheet_csv(sheet), "text/csv; charset=utf-8", sheet.name, ", weigh sheet.csv")


@router.get("/count.ods", response_class=Response, responses=_file_of(ODS))
def get_count_ods(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The count as a spreadsheet that reckons on."""
    edition, settings = _edition(session, kitchen, formula_id, revision), get_kitchen(session, kitchen).settings
    data = count_ods(edition.formula, edition.count, settings.kit, settings.practice.starter, kitchen_pantry(session, kitchen))
    return _attached(data, ODS, edition.formula.name, ", count.ods")


@router.get("/ruler.pdf", response_class=Response, responses=_file_of("application/pdf"))
def get_ruler(
    formula_id: FormulaId,
    session: SessionOf,
    kitchen: KitchenId,
    revision: RevisionQuery = None,
    target: TargetQuery = 0,
) -> Response:
    """A ruler at true size for a target's shape."""
    page = _page(session, kitchen, formula_id, revision)
    shaped = page.sheet.targets[min(target, len(page.sheet.targets) - 1)].shaped
    pdf = ruler_pdf(shaped, name=page.sheet.name, paper=page.settings.paper, unit=page.settings.length_unit)
    return _attached(pdf, "application/pdf", page.sheet.name, ", ruler.pdf", "inline")


@router.get("/formula.json", response_class=Response, responses=_file_of("application/json"))
def export_json(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The formula and its count as a formula file."""
    edition = _edition(session, kitchen, formula_id, revision)
    return _attached(write_formula(edition.formula, edition.count), "application/json", edition.formula.name, ".json")


@router.get("/recipe.jsonld", response_class=Response, responses=_file_of("application/ld+json"))
def export_jsonld(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The formula as written, with its yield and method, as schema.org Recipe."""
    edition = _edition(session, kitchen, formula_id, revision)
    text = write_recipe(edition.formula, edition.count)
    return _attached(text, "application/ld+json", edition.formula.name, ", recipe.json")


@router.get("/formula.csv", response_class=Response, responses=_file_of("text/csv"))
def export_csv(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The formula as written, as CSV."""
    formula = _edition(session, kitchen, formula_id, revision).formula
    return _attached(write_csv(formula), "text/csv; charset=utf-8", formula.name, ".csv")
