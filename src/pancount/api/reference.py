"""Names, rules and units: what the screens need to speak as the core does."""

from functools import cache
from typing import Literal

from fastapi import APIRouter, Request, Response

from pancount.api.tagged import mark_of, tagged
from pancount.core.base.models import Frozen
from pancount.core.base.units import LENGTH_UNITS, WEIGHT_UNITS
from pancount.core.count.limits import SAYS, Counted, LimitKind, counted
from pancount.core.count.relations import BATCH, FIGURE_WORDS, LEFT_OVER_SAYS, QUANTITIES, SHARING_SAYS, TARGET
from pancount.core.count.selling import SAYS_RULES, Rules
from pancount.core.formula.formula import BesideKind, StageKind
from pancount.core.formula.gauges import GaugeName, GaugeRule, gauge_rules
from pancount.core.formula.stages import BesideRule, KindRule, beside_kinds, kinds
from pancount.core.formula.step_kinds import StepKind, step_kinds
from pancount.core.formula.swaps import swap_book, swap_offers
from pancount.core.pans.fills import FILL_UNITS, FillPer, FillRule, fills
from pancount.core.pans.pan import SHAPES as PAN_SHAPES
from pancount.core.pans.pan import AnyPan
from pancount.core.pans.shaping import SHAPES, ShapeKind
from pancount.core.pans.shelf import CommonPan, Material, common_pans, materials
from pancount.core.pantry.ingredients import Allergen
from pancount.core.pantry.measures import Measure, measures
from pancount.core.taking.habits import Question, questions

router = APIRouter(prefix="/api", tags=["reckoning"])


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
    step_kinds: dict[str, StepKind]
    """Kinds of step, in the order in which they usually come."""
    free: dict[Allergen, str]
    """Allergens that a formula can be rid of in one go, and what it is called then."""


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
        step_kinds=step_kinds(),
        free={allergen: freeing.label for allergen, freeing in swap_book().free.items()},
    )
    return told.model_dump_json().encode()
