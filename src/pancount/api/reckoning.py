"""Reckoning: pure, no database, so that it is quick and the same body always gives the same answer."""

from typing import Annotated

from fastapi import APIRouter, Request, Response
from pydantic import Field

from pancount.api.desk import may_answer
from pancount.api.long import QUICK_TEXT, is_large, off_loop
from pancount.core.base import most
from pancount.core.base.models import PLAIN, Brief, Frozen, SomeGrams
from pancount.core.base.scale import Scale
from pancount.core.count.count import Count
from pancount.core.count.whole import Whole, whole_count
from pancount.core.formula.changes import Change, Changed, change_formula
from pancount.core.formula.compare import Compared, compare
from pancount.core.formula.formula import Formula, Way
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import with_flour_made_up
from pancount.core.heat.climate import Climate
from pancount.core.method.method import Method, whole_method
from pancount.core.method.side import SideBySide, side_by_side
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Ingredient, Pantry, pantry_with
from pancount.core.taking.steps import read_steps

router = APIRouter(prefix="/api", tags=["reckoning"])


class Known(Frozen):
    """What a kitchen brings to its reckoning: sent with it, so that the same body always gives the same answer."""

    own: Annotated[tuple[Ingredient, ...], Field(max_length=most.OWN_INGREDIENTS)] = ()
    """Ingredients that it added or changed."""
    practice: Practice = Practice()
    kit: Kit = Kit()
    climate: Climate = Climate()
    scale: Scale = Scale()

    @property
    def pantry(self) -> Pantry:
        """The pantry as this kitchen has it."""
        return pantry_with(self.own)


class Counting(Known):
    """A formula and how it is counted."""

    formula: Formula
    count: Count = Count()
    looking_at: Annotated[int, Field(ge=0, le=11)] = 0
    """Which target is drawn and has its choices worked out."""


class BothWays(Counting):
    """A formula as it is counted, and another of its ways."""

    beside: Brief
    """The other way, by key."""


class Reading(Known):
    """A method's text, to be read for a formula."""

    formula: Formula
    text: Annotated[str, Field(max_length=most.METHOD, pattern=PLAIN)]


class Changing(Known):
    """A formula and a change of it."""

    formula: Formula
    change: Change


class MethodRead(Frozen):
    """A method read: the formula with keys to call its lines by, and the way that it tells."""

    formula: Formula
    way: Way


class Comparing(Known):
    """Two formulas, on so much flour."""

    ours: Formula
    theirs: Formula
    flour_g: SomeGrams = 1000


def _counted(body: Counting) -> str:
    whole = whole_count(body.formula, body.count, body.pantry, body.practice, body.kit, body.looking_at, body.scale)
    # Written out by the model itself: asked for with every key pressed, and a fifth of the time of going by dicts.
    return whole.model_dump_json()


def _methodical(body: Counting) -> str:
    return whole_method(body.formula, body.count, body.pantry, body.practice, body.kit, body.climate, body.looking_at).model_dump_json()


def _beside(body: BothWays) -> SideBySide:
    return side_by_side(body.formula, body.count, body.beside, body.pantry, body.practice, body.kit, body.climate, body.looking_at)


def _read(body: Reading) -> MethodRead:
    formula, way = read_steps(body.text, body.formula, body.pantry)
    return MethodRead(formula=formula, way=way)


def _changed(body: Changing) -> Changed:
    return change_formula(body.formula, body.change, body.pantry, body.practice)


def _compared(body: Comparing) -> Compared:
    return compare(body.ours, body.theirs, body.flour_g, body.pantry, body.practice)


@router.post("/reckon/count", response_model=Whole, responses=may_answer(422, 503))
async def reckon_count(body: Counting, request: Request) -> Response:
    """Everything on the formula and count screen. 422 where the formula cannot be reckoned."""
    if is_large(body.formula, body.count):
        told = await off_loop(request, _counted, body)
    else:
        told = _counted(body)  # some milliseconds: sending it elsewhere would take as long
    return Response(told, media_type="application/json")


@router.post("/reckon/method", response_model=Method, responses=may_answer(422, 503))
async def reckon_method(body: Counting, request: Request) -> Response:
    """The count's way, step by step: when, what goes in, how warm, today. 422 where the formula cannot be reckoned."""
    told = await off_loop(request, _methodical, body, heavy=is_large(body.formula, body.count))
    return Response(told, media_type="application/json")


@router.post("/reckon/ways", responses=may_answer(422, 503))
async def reckon_ways(body: BothWays, request: Request) -> SideBySide:
    """The count's way beside another: how long, how much of it by hand, which steps differ, and what dough each makes."""
    return await off_loop(request, _beside, body, heavy=is_large(body.formula, body.count))


@router.post("/read/method", responses=may_answer(422, 503))
async def read_method(body: Reading, request: Request) -> MethodRead:
    """Read a method for a formula. Keeps nothing; what is not understood comes back as notes."""
    return await off_loop(request, _read, body, heavy=len(body.text) > QUICK_TEXT)


@router.post("/reckon/change", responses=may_answer(422, 503))
async def reckon_change(body: Changing, request: Request) -> Changed:
    """A formula changed in one go, with what that does to its dough. Keeps nothing. 422 where it cannot be."""
    return await off_loop(request, _changed, body, heavy=is_large(body.formula))


@router.post("/reckon/compare", responses=may_answer(422, 503))
async def reckon_compare(body: Comparing, request: Request) -> Compared:
    """Two formulas side by side on the same flour, what differs first."""
    return await off_loop(request, _compared, body)


@router.post("/reckon/flour-made-up", responses=may_answer(422))
async def make_up_flour(formula: Formula) -> Formula:
    """The formula with its flours in percent making 100: the largest takes the rest."""
    return with_flour_made_up(formula)
