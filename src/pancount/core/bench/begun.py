"""A bake as it was begun: revision, count, way, sheet and method stay as they were, whatever becomes of formula and kitchen."""

from typing import Annotated

from pydantic import Field

from pancount.core.base import most
from pancount.core.base.errors import TooMuch
from pancount.core.base.models import Frozen
from pancount.core.base.scale import Scale
from pancount.core.count.count import Count
from pancount.core.formula.formula import Formula, Way, everything
from pancount.core.formula.practice import Practice
from pancount.core.formula.steps import Step
from pancount.core.formula.ways import keyed, way_number, way_of, with_way
from pancount.core.heat.climate import Climate
from pancount.core.method.method import Method, whole_method
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Ingredient, pantry_with
from pancount.core.sheet.printed import WeighSheet
from pancount.core.sheet.weigh import weigh_sheet

USUAL_STEPS = ("mix", "knead", "test", "rise", "divide", "shape", "proof", "preheat", "bake", "cool")
"""What stands in where a way has no steps yet. Common practice, no source."""


class Begun(Frozen):
    """What a bake is begun from, and its sheet and method as they were then."""

    formula: Formula
    count: Count
    own: Annotated[tuple[Ingredient, ...], Field(max_length=most.LINES)] = ()
    """The kitchen's own ingredients that are in it."""
    practice: Practice = Practice()
    kit: Kit = Kit()
    climate: Climate = Climate()
    scale: Scale = Scale()
    sheet: WeighSheet
    method: Method
    written: bool = True
    """Whether its steps are the baker's own; else the usual ones stand in."""


def begin(
    formula: Formula, count: Count, own: tuple[Ingredient, ...], practice: Practice, kit: Kit, climate: Climate, scale: Scale
) -> Begun:
    """A bake of a counted formula. Raises what `weigh_sheet` raises, and `TooMuch` for more mixes than one stands at."""
    formula = keyed(formula)
    way = way_of(formula, count.way)
    written = bool(way.steps)
    if not written:
        stands_in = (Way(steps=tuple(Step(kind=kind) for kind in USUAL_STEPS)) if not formula.ways else way.model_copy(update={"steps": tuple(Step(kind=kind) for kind in USUAL_STEPS)}))
        formula = with_way(formula, way_number(formula, count.way) if formula.ways else 0, stands_in)
    names = {line.name.casefold() for stage in everything(formula) for line in stage.lines}
    known = tuple(one for one in own if one.name.casefold() in names)[: most.LINES]
    pantry = pantry_with(known)
    sheet = weigh_sheet(formula, count, scale, (), practice.starter, kit, pantry)
    if sheet.mixes > most.BENCH_MIXES:
        raise TooMuch(f"That is {sheet.mixes} mixes; a bake takes up to {most.BENCH_MIXES}. Make several bakes of it.", ("count",))
    method = whole_method(formula, count, pantry, practice, kit, climate)
    return Begun(
        formula=formula, count=count, own=known, practice=practice, kit=kit, climate=climate, scale=scale, sheet=sheet, method=method, written=written
    )
