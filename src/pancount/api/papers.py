"""What goes out: the weigh sheet on screen and as PDF, and formula files."""

from urllib.parse import quote

from fastapi import APIRouter, Response
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
from pancount.formats.sheet_pdf import sheet_pdf
from pancount.store.formulas import get_formula, get_revision
from pancount.store.kitchens import Settings, get_kitchen
from pancount.store.pantry import kitchen_pantry

router = APIRouter(prefix="/api/formulas/{formula_id}", tags=["papers"])


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
    care = cautions(edition.formula, kitchen_pantry(session, kitchen))
    settings = state.settings
    sheet = weigh_sheet(edition.formula, edition.count, settings.scale, care, settings.practice.starter)
    return SheetPage(kitchen=state.name, edition=edition.words, settings=settings, sheet=sheet)


@router.get("/sheet", responses=may_answer(404, 422, 503))
def get_sheet(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> SheetPage:
    """The weigh sheet of what lies on the desk, or of a revision."""
    return _page(session, kitchen, formula_id, revision)


@router.get(
    "/sheet.pdf",
    response_class=Response,
    responses=may_answer(404, 422, 503) | {200: {"content": {"application/pdf": {}}}},
)
def get_sheet_pdf(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The weigh sheet as a PDF on the kitchen's paper."""
    page = _page(session, kitchen, formula_id, revision)
    pdf = sheet_pdf(
        page.sheet,
        kitchen=page.kitchen,
        edition=page.edition,
        paper=page.settings.paper,
        length_unit=page.settings.length_unit,
    )
    return _attached(pdf, "application/pdf", page.sheet.name, ", weigh sheet.pdf", "inline")


@router.get(
    "/formula.json",
    response_class=Response,
    responses=may_answer(404, 422, 503) | {200: {"content": {"application/json": {}}}},
)
def export_json(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The formula and its count as a formula file."""
    edition = _edition(session, kitchen, formula_id, revision)
    return _attached(write_formula(edition.formula, edition.count), "application/json", edition.formula.name, ".json")


@router.get(
    "/recipe.jsonld",
    response_class=Response,
    responses=may_answer(404, 422, 503) | {200: {"content": {"application/ld+json": {}}}},
)
def export_jsonld(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The formula as written, with its yield and method, as schema.org Recipe."""
    edition = _edition(session, kitchen, formula_id, revision)
    text = write_recipe(edition.formula, edition.count)
    return _attached(text, "application/ld+json", edition.formula.name, ", recipe.json")


@router.get(
    "/formula.csv",
    response_class=Response,
    responses=may_answer(404, 422, 503) | {200: {"content": {"text/csv": {}}}},
)
def export_csv(
    formula_id: FormulaId, session: SessionOf, kitchen: KitchenId, revision: RevisionQuery = None
) -> Response:
    """The formula as written, as CSV."""
    formula = _edition(session, kitchen, formula_id, revision).formula
    return _attached(write_csv(formula), "text/csv; charset=utf-8", formula.name, ".csv")
