"""What is in the finished thing: ingredients in descending order of weight, and the allergens they bring.

Weights are those that go in, what is beside the dough included, as at the time of mixing (Regulation (EU) 1169/2011
article 18, recalled from memory); but added water counts by what is left of it in the finished bread: its weight less that of
all other ingredients (annex VII part A). The label itself, with what its law asks for, is not made here.
"""

from dataclasses import dataclass

from pancount.core.base.models import Frozen
from pancount.core.formula.beside import as_written, times
from pancount.core.formula.formula import BesideKind, Formula, each_line
from pancount.core.formula.reckon import Reckoned
from pancount.core.pans.fills import fill_rule
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Allergen, Pantry

NOT_EATEN = (BesideKind.BENCH, BesideKind.BATH)
"""What a trace of stays on: it is no ingredient by weight, but what it may bring is told."""


@dataclass(frozen=True, slots=True)
class Listed:
    """An ingredient with its weight in the formula as written, and its share of all of them; of water, what is left of it."""

    name: str
    weight_g: float
    percent: float


@dataclass(frozen=True, slots=True)
class AllergenFrom:
    """An allergen and the ingredients that bring it."""

    allergen: Allergen
    names: tuple[str, ...]


class Contents(Frozen):
    """What goes into the finished thing. `contains` and `may_contain` rest on what the pantry knows."""

    ingredients: tuple[Listed, ...]
    contains: tuple[AllergenFrom, ...]
    may_contain: tuple[AllergenFrom, ...]
    unknown: tuple[str, ...]
    """Names that the pantry does not know: what they bring is not told."""
    read_packet: tuple[str, ...]
    """Composed foods: what their makers put in differs, so what else they bring only their packets tell."""


def _bake_loss(formula: Formula) -> float:
    usual = formula.usual
    return usual.bake_loss if usual.bake_loss is not None else fill_rule(usual.fill_kind).loss


def contents(formula: Formula, reckoned: Reckoned, pantry: Pantry) -> Contents:
    """Ingredients and allergens of a formula as written, through its stages, washes, toppings and pan oil.

    What is beside the dough counts as much as goes with so much dough; bench flour and bath with nothing, but for
    their allergens. What baking takes is taken as water that was added.
    """
    grams: dict[str, float] = {}
    contains: dict[Allergen, dict[str, None]] = {}
    may: dict[Allergen, dict[str, None]] = {}
    unknown: dict[str, None] = {}
    composed: dict[str, None] = {}

    def add(called: str, weight_g: float, *, eaten: bool = True) -> None:
        known = pantry.find(called)
        name = known.name if known else called
        if not name:
            return
        if eaten and weight_g > 0:
            grams[name] = grams.get(name, 0.0) + weight_g
        if known is None or (known.own and known.composition is None and not known.allergens):
            unknown[name] = None
            return
        if known.read_packet:
            composed[name] = None
        for allergen in known.allergens:
            contains.setdefault(allergen, {})[name] = None
        for allergen in known.may_contain:
            may.setdefault(allergen, {})[name] = None

    for s, n, line in each_line(formula):
        figures = reckoned.stages[s]
        if figures.lines[n].given == "open" or figures.lines[n].weight_g > 0:
            add(line.name, figures.lines[n].weight_g * figures.reach)
    written = as_written(formula, reckoned)
    for stage in formula.beside:
        often = times(stage, written, written, Kit())
        for line in stage.lines:
            add(line.name, (line.weight_g or 0.0) * often, eaten=stage.kind not in NOT_EATEN)
    if "Water" in grams:
        lost = reckoned.weight_g * _bake_loss(formula)
        grams["Water"] = max(0.0, grams["Water"] - lost)
    total = sum(grams.values()) or 1.0
    return Contents(
        ingredients=tuple(
            Listed(name=name, weight_g=weight, percent=100 * weight / total)
            for name, weight in sorted(grams.items(), key=lambda item: (-item[1], item[0]))
        ),
        contains=tuple(AllergenFrom(allergen=key, names=tuple(names)) for key, names in sorted(contains.items())),
        may_contain=tuple(
            AllergenFrom(allergen=key, names=tuple(names)) for key, names in sorted(may.items()) if key not in contains
        ),
        unknown=tuple(unknown),
        read_packet=tuple(composed),
    )
