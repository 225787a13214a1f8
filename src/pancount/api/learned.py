"""What the kitchen learned: its own figures, taken and given back, and which bakes count for them."""

from datetime import date
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request
from pydantic import ValidationError

from pancount.api.book import FormulaNumber, bring_up
from pancount.api.desk import may_answer
from pancount.api.long import off_loop
from pancount.api.records import Records, RecordsOf
from pancount.core.base.errors import CoreError
from pancount.core.base.models import Frozen, Words
from pancount.core.book.figures import FigureKey, KitchensFigure, Known, as_learned, formulas_figures, kitchens_figures
from pancount.core.formula.ways import keyed
from pancount.store import book, learned
from pancount.store.book import FormulaHas
from pancount.store.errors import NotFound
from pancount.store.formula import get_formula
from pancount.store.kitchen import get_kitchen

router = APIRouter(prefix="/api/book", tags=["book"])


class LearnedPage(Frozen):
    """The kitchen's own figures, and those of one formula."""

    kitchen: tuple[KitchensFigure, ...]
    formula: tuple[KitchensFigure, ...]
    formula_id: int | None
    name: str
    formulas: tuple[FormulaHas, ...]


class FigureChosen(Frozen):
    """A figure by its key; of a formula, or of the kitchen where none is named."""

    formula_id: FormulaNumber | None = None
    figure: FigureKey


class LeavingOut(Frozen):
    """A figure that a bake does not count for, and why; blank: it counts again."""

    figure: FigureKey
    reason: Words = ""


async def _page(request: Request, records: Records, formula_id: int | None) -> LearnedPage:
    has = await records(book.formulas)
    settings = (await records(get_kitchen)).settings
    taken = tuple(one.learned for one in await records(learned.kitchens_learned))
    known = Known(formula=(), kitchen=taken, kit=settings.kit, climate=settings.climate, ways={})
    said = await records(book.said, None)
    kitchen = await off_loop(request, kitchens_figures, said, known)
    own: tuple[KitchensFigure, ...] = ()
    name = ""
    if formula_id is not None:
        state = await records(get_formula, formula_id)
        name = state.head.name
        ways = {one.key: one.name for one in keyed(state.formula).ways}
        known = Known(formula=state.count.learned, kitchen=taken, kit=settings.kit, climate=settings.climate, ways=ways)
        others = await off_loop(request, kitchens_figures, tuple(one for one in said if one.formula_id != formula_id), known)
        pooled = next((one for one in others if one.figure == "rise_all"), None)
        own = await off_loop(request, formulas_figures, await records(book.said, formula_id), known, pooled)
    return LearnedPage(kitchen=kitchen, formula=own, formula_id=formula_id, name=name, formulas=has)


@router.get("/learned", responses=may_answer(404, 422, 503))
async def get_learned(request: Request, records: RecordsOf, formula_id: Annotated[int | None, Query(ge=1, le=2**31 - 1)] = None) -> LearnedPage:
    """What the kitchen's bakes say of its own figures, and of those of a formula."""
    await bring_up(request, records)
    return await _page(request, records, formula_id)


@router.post("/learned/take", responses=may_answer(404, 409, 422, 503))
async def take_figure(body: FigureChosen, request: Request, records: RecordsOf) -> LearnedPage:
    """Go by a figure from now on, wherever the usual stood in."""
    page = await _page(request, records, body.formula_id)
    figure = _found(page, body)
    if not figure.bakes:
        raise CoreError("No bake counts for this figure, so there is nothing to take.", ("figure",))
    own = as_learned(figure, f"{date.today()}")  # noqa: DTZ011  # the kitchen's own day
    try:
        if figure.where == "formula" and body.formula_id is not None:
            await records(learned.take_for_formula, body.formula_id, own)
        else:
            await records(learned.take_for_kitchen, own)
    except ValidationError:
        raise CoreError("The kitchen’s settings cannot hold such a figure. Leave out the bakes that cannot be.", ("figure",)) from None
    return await _page(request, records, body.formula_id)


@router.post("/learned/give-back", responses=may_answer(404, 409, 422, 503))
async def give_back(body: FigureChosen, request: Request, records: RecordsOf) -> LearnedPage:
    """Go by what stood in before."""
    figure = _found(await _page(request, records, body.formula_id), body)
    if figure.taken is not None and figure.where == "formula" and body.formula_id is not None:
        await records(learned.give_back_for_formula, body.formula_id, figure.taken)
    elif figure.taken is not None:
        await records(learned.give_back_for_kitchen, figure.taken)
    return await _page(request, records, body.formula_id)


def _found(page: LearnedPage, body: FigureChosen) -> KitchensFigure:
    found = next((one for one in (*page.formula, *page.kitchen) if one.key == body.figure), None)
    if found is None:
        raise NotFound("No bake says anything of this figure.")
    return found


@router.put("/bakes/{bake_id}/left-out", status_code=204, responses=may_answer(404, 422, 503))
async def leave_out(body: LeavingOut, bake_id: UUID, records: RecordsOf) -> None:
    """Let a bake not count for a figure, with the reason; with none it counts again."""
    await records(book.leave_out, bake_id, body.figure, body.reason.strip())
