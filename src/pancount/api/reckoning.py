"""Reckoning: pure, no database, so that it is quick and the same body always gives the same answer."""

from functools import cache
from typing import Annotated, Literal

from fastapi import APIRouter, Request, Response
from pydantic import Field

from pancount.api.desk import may_answer
from pancount.api.long import is_large, off_loop
from pancount.api.tagged import mark_of, tagged
from pancount.core import most
from pancount.core.base import Frozen, SomeGrams
from pancount.core.changes import Change, Changed, change_formula
from pancount.core.compare import Compared, compare
from pancount.core.count import Count
from pancount.core.formula import BesideKind, Formula, StageKind
from pancount.core.gauges import GaugeName, GaugeRule, gauge_rules
from pancount.core.kit import Kit
from pancount.core.limits import SAYS, LimitKind
from pancount.core.measures import Measure, measures
from pancount.core.pan import SHAPES as PAN_SHAPES
from pancount.core.pan import AnyPan
from pancount.core.pantry import Allergen, Ingredient, Pantry, pantry_with
from pancount.core.practice import Practice
from pancount.core.reckon import with_flour_made_up
from pancount.core.relations import BATCH, FIGURE_WORDS, LEFT_OVER_SAYS, QUANTITIES, SHARING_SAYS, TARGET
from pancount.core.scale import Scale
from pancount.core.selling import SAYS_RULES, Rules
from pancount.core.shaping import SHAPES, ShapeKind
from pancount.core.shelf import CommonPan, Material, common_pans, materials
from pancount.core.stages import BesideRule, KindRule, beside_kinds, kinds
from pancount.core.swaps import swap_book, swap_offers
from pancount.core.tables import FILL_UNITS, Counted, FillPer, FillRule, counted, fills
from pancount.core.taking.habits import Question, questions
from pancount.core.units import LENGTH_UNITS, WEIGHT_UNITS
from pancount.core.whole import Whole, whole_count

router = APIRouter(prefix="/api", tags=["reckoning"])


class Known(Frozen):
    """What a kitchen brings to its reckoning: sent with it, so that the same body always gives the same answer."""

    own: Annotated[tuple[Ingredient, ...], Field(max_length=most.OWN_INGREDIENTS)] = ()
    """Ingredients that it added or changed."""
    practice: Practice = Practice()
    kit: Kit = Kit()
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


class Changing(Known):
    """A formula and a change of it."""

    formula: Formula
    change: Change


class Comparing(Known):
    """Two formulas, on so much flour."""

    ours: Formula
    theirs: Formula
    flour_g: SomeGrams = 1000


class QuantityWords(Frozen):
    """A quantity's name on screen and what it is measured in."""

    label: str
    kind: Literal["g", "share", "count", "fill", "percent", "size"]


class RelationWords(Frozen):
    """A relation's sentence, and how it reads for each quantity it gives, with quantities in braces."""

    says: str
    reads: dict[str, str]


class FillUnit(Frozen):
    """What a fill may be typed in: what it is per, and its worth in the core's own."""

    per: FillPer
    worth: float


class LimitWords(Frozen):
    """What a limit is called, and the rule of its need."""

    label: str
    says: str


class ShapeWords(Frozen):
    """How a piece may be shaped: what it is called, the measure it starts from (blank for none) and that measure's usual size. [cm]"""

    label: str
    by: str
    usual_cm: float


class PanShape(Frozen):
    """A shape of pan: what it is called, and the measures it has, with those that may be left out told apart."""

    label: str
    bake: str
    """The fill rule of what it is usually for."""
    measures: tuple[str, ...]
    optional: tuple[str, ...]


class Reference(Frozen):
    """What the screens need to speak of quantities, relations, fills and units as the core does."""

    quantities: dict[str, QuantityWords]
    relations: dict[str, RelationWords]
    fills: dict[str, FillRule]
    fill_units: dict[str, FillUnit]
    counted: dict[str, Counted]
    """What a limit on an ingredient may be counted in: eggs, packets."""
    limits: dict[LimitKind, LimitWords]
    shapes: dict[ShapeKind, ShapeWords]
    pan_shapes: dict[str, PanShape]
    materials: dict[str, Material]
    common_pans: tuple[CommonPan, ...]
    selling_rules: dict[Rules, str]
    weight_units: dict[str, float]
    """Grams in each unit a weight may be typed in."""
    length_units: dict[str, float]
    """Centimetres in each unit a length may be typed in."""
    questions: dict[str, Question]
    """What taking in may ask, and the answers there are."""
    measures: dict[str, Measure]
    """Cups, spoons and the like, by key."""
    gauges: dict[GaugeName, GaugeRule]
    """What a dough is, in the order in which it is shown."""
    stages: dict[StageKind, KindRule]
    beside: dict[BesideKind, BesideRule]
    swaps: dict[str, tuple[str, ...]]
    """What may stand in for an ingredient, by its own name in the pantry."""
    free: dict[Allergen, str]
    """Allergens that a formula can be rid of in one go, and what it is called then."""


def _counted(body: Counting) -> str:
    whole = whole_count(body.formula, body.count, body.pantry, body.practice, body.kit, body.looking_at, body.scale)
    # Written out by the model itself: asked for with every key pressed, and a fifth of the time of going by dicts.
    return whole.model_dump_json()


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


def _pan_shape(label: str, model: type[AnyPan], bake: str) -> PanShape:
    fields = [name for name in model.model_fields if name.endswith("_cm") or name == "cups"]
    fields.sort(key=lambda name: name == "depth_cm")  # the last to be measured
    return PanShape(
        label=label,
        bake=bake,
        measures=tuple(name for name in fields if model.model_fields[name].is_required()),
        optional=tuple(name for name in fields if not model.model_fields[name].is_required()),
    )


@router.get("/reference", response_model=Reference)
async def reference(request: Request) -> Response:
    """Names, relations, fill rules and units. Never changes while the application runs."""
    body = _reference()
    return tagged(request, mark_of(body), body)


@cache
def _reference() -> bytes:
    told = Reference(
        quantities={
            name: QuantityWords.model_validate({"label": label, "kind": kind})
            for name, (label, kind) in QUANTITIES.items()
        },
        relations={
            r.key: RelationWords(says=r.says, reads={name: way.reads for name, way in r.ways.items()})
            for r in (*BATCH, *TARGET)
        }
        | {
            "sharing": RelationWords(says=SHARING_SAYS, reads={}),
            "left_over": RelationWords(says=LEFT_OVER_SAYS, reads={}),
        }
        | {key: RelationWords(says=says, reads=reads) for key, (says, reads) in FIGURE_WORDS.items()},
        fills=fills(),
        fill_units={unit: FillUnit(per=per, worth=worth) for unit, (per, worth) in FILL_UNITS.items()},
        counted=counted(),
        limits={kind: LimitWords(label=label, says=says) for kind, (label, says) in SAYS.items()},
        shapes={kind: ShapeWords(label=label, by=by, usual_cm=cm) for kind, (label, by, cm) in SHAPES.items()},
        pan_shapes={shape: _pan_shape(*told) for shape, told in PAN_SHAPES.items()},
        materials=materials(),
        common_pans=common_pans(),
        selling_rules=SAYS_RULES,
        weight_units=WEIGHT_UNITS,
        length_units=LENGTH_UNITS,
        questions=questions(),
        measures=measures(),
        gauges=gauge_rules(),
        stages=kinds(),
        beside=beside_kinds(),
        swaps=swap_offers(),
        free={allergen: freeing.label for allergen, freeing in swap_book().free.items()},
    )
    return told.model_dump_json().encode()
