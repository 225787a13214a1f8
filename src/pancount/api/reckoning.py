"""Reckoning: pure, no database, so that it is quick and the same body always gives the same answer."""

from typing import Literal

from fastapi import APIRouter

from pancount.api.desk import may_answer
from pancount.core.base import Frozen
from pancount.core.count import Count
from pancount.core.formula import Formula
from pancount.core.measures import Measure, measures
from pancount.core.reckon import with_flour_made_up
from pancount.core.relations import FIGURE_WORDS, LEFT_OVER, QUANTITIES, RELATIONS
from pancount.core.tables import FillRule, fills
from pancount.core.taking.habits import Question, questions
from pancount.core.units import LENGTH_UNITS, WEIGHT_UNITS
from pancount.core.whole import Whole, whole_count

router = APIRouter(prefix="/api", tags=["reckoning"])


class Counting(Frozen):
    """A formula and how it is counted."""

    formula: Formula
    count: Count = Count()


class QuantityWords(Frozen):
    """A quantity's name on screen and what it is measured in."""

    label: str
    kind: Literal["g", "share", "count", "fill", "percent", "size"]


class RelationWords(Frozen):
    """A relation's sentence, and how it reads for each quantity it gives, with quantities in braces."""

    says: str
    reads: dict[str, str]


class Reference(Frozen):
    """What the screens need to speak of quantities, relations, fills and units as the core does."""

    quantities: dict[str, QuantityWords]
    relations: dict[str, RelationWords]
    fills: dict[str, FillRule]
    weight_units: dict[str, float]
    """Grams in each unit a weight may be typed in."""
    length_units: dict[str, float]
    """Centimetres in each unit a length may be typed in."""
    questions: dict[str, Question]
    """What taking in may ask, and the answers there are."""
    measures: dict[str, Measure]
    """Cups, spoons and the like, by key."""


@router.post("/reckon/count", responses=may_answer(422))
async def reckon_count(body: Counting) -> Whole:
    """Everything on the formula and count screen. 422 where the formula cannot be reckoned."""
    return whole_count(body.formula, body.count)


@router.post("/reckon/flour-made-up", responses=may_answer(422))
async def make_up_flour(formula: Formula) -> Formula:
    """The formula with its flours in percent making 100: the largest takes the rest."""
    return with_flour_made_up(formula)


@router.get("/reference")
async def reference() -> Reference:
    """Names, relations, fill rules and units. Never changes while the application runs."""
    return Reference(
        quantities={
            name: QuantityWords.model_validate({"label": label, "kind": kind})
            for name, (label, kind) in QUANTITIES.items()
        },
        relations={
            r.key: RelationWords(says=r.says, reads={name: way.reads for name, way in r.ways.items()})
            for r in (*RELATIONS, LEFT_OVER)
        }
        | {key: RelationWords(says=says, reads=reads) for key, (says, reads) in FIGURE_WORDS.items()},
        fills=fills(),
        weight_units=WEIGHT_UNITS,
        length_units=LENGTH_UNITS,
        questions=questions(),
        measures=measures(),
    )
