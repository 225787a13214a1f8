"""How often what is beside the dough is taken: by pieces, by the surface they show, by the area or the inside of pans, or by the pot.

Common practice, no source: a wash goes over what shows, cheese and sauce on a slab inside a border, oil on a pan's base
and sides, bench flour with the dough, and soda or honey with the water of the pot.
"""

from dataclasses import dataclass
from math import pi

from pancount.core.formula.formula import Beside, BesideKind, Formula, Usual
from pancount.core.formula.reckon import Reckoned
from pancount.core.formula.stages import beside_kinds
from pancount.core.pans.fills import fill_rule
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import RISE, AnyPan, dome_diameter_cm, inside_cm2, solid
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.role import Role

POT_FILLED = 0.6
"""How much of a pot is water, so that it does not boil over. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class Lots:
    """Pieces of one kind: so many of a weight, in so many pans; a `slab` shows the pan's area."""

    pieces: float
    piece_g: float
    pan: AnyPan | None
    pans: float
    slab: bool

    def surface_cm2(self, border_cm: float = 0.0) -> float:
        """What shows when doubled, in all: of half balls, or of slabs inside a border. [cm²]"""
        if self.slab and self.pan is not None:
            return self.pans * _inside_border(self.pan, border_cm)
        across = dome_diameter_cm(self.piece_g, RISE)
        return self.pieces * pi * across**2 / 2


def _inside_border(pan: AnyPan, border_cm: float) -> float:
    found = solid(pan)
    a, b = found.top
    if found.form == "rectangle":
        return found.count * max(0.0, a - 2 * border_cm) * max(0.0, b - 2 * border_cm)
    outer = max(0.0, a - 2 * border_cm)
    hole = b + 2 * border_cm if found.form == "ring" else 0.0
    return found.count * max(0.0, pi * (outer**2 - hole**2) / 4)


@dataclass(frozen=True, slots=True)
class Made:
    """What is made: dough over the dough as written, and the pieces in their pans."""

    dough: float
    lots: tuple[Lots, ...]

    @property
    def pieces(self) -> float:
        """In all."""
        return sum(lot.pieces for lot in self.lots)

    @property
    def pans(self) -> float:
        """In all; 0 where there are none."""
        return sum(lot.pans for lot in self.lots if lot.pan is not None)

    def surface_cm2(self, border_cm: float = 0.0) -> float:
        """What shows of all. [cm²]"""
        return sum(lot.surface_cm2(border_cm) for lot in self.lots)

    @property
    def inside_cm2(self) -> float:
        """The insides of all pans. [cm²]"""
        return sum(lot.pans * inside_cm2(lot.pan) for lot in self.lots if lot.pan is not None)


def is_slab(kind: str, pieces_per_pan: float) -> bool:
    """Whether a bake of this fill rule is one slab to a pan, so that all of the pan's area shows."""
    rule = fill_rule(kind)
    return pieces_per_pan == 1 and rule.pieces == "one" and rule.per == "area"


def as_written(formula: Formula, reckoned: Reckoned) -> Made:
    """What the dough as written makes of the formula's usual pieces and pans."""
    usual: Usual = formula.usual
    pieces = reckoned.weight_g * (1 - usual.bench_loss) / usual.piece_g
    pans = pieces / usual.pieces_per_pan if usual.pan else 0.0
    slab = is_slab(usual.fill_kind, usual.pieces_per_pan)
    return Made(1.0, (Lots(pieces, usual.piece_g, usual.pan, pans, slab),))


def pot_water_g(kit: Kit) -> float | None:
    """The water in the kitchen's pot. None where the pot is not known. [g]"""
    return kit.pot_ml * POT_FILLED if kit.pot_ml else None


def times(stage: Beside, written: Made, made: Made, kit: Kit) -> float:
    """By what its written weights are multiplied for what is made."""
    per = beside_kinds()[stage.kind].per
    if per == "pot":
        water = sum(line.weight_g or 0.0 for line in stage.lines if line.role is Role.LIQUID)
        pot = pot_water_g(kit)
        return pot / water if pot and water else 1.0
    if per == "inside" and made.pans and written.pans:
        share = stage.serves / written.pans if stage.serves else 1.0
        return made.inside_cm2 / (written.inside_cm2 * share)
    if per == "dough" or not written.pieces:
        return made.dough
    share = stage.serves / written.pieces if stage.serves and per != "inside" else 1.0
    if per in ("surface", "area"):
        border = stage.border_cm if per == "area" else 0.0
        shown = written.surface_cm2(border) * share
        return made.surface_cm2(border) / shown if shown else made.dough
    return made.pieces / (written.pieces * share)


STAYS_ON = (BesideKind.FILLING, BesideKind.TOPPING)
"""What is sold with the piece; a wash is next to nothing, and pan oil, flour and bath stay behind."""


def on_each_g(formula: Formula, written: Made, made: Made, kit: Kit) -> float:
    """Filling and topping on one of the pieces that are made, as they go on: what they lose in baking is not known. [g]"""
    if not made.pieces:
        return 0.0
    whole = sum(
        (line.weight_g or 0.0) * times(stage, written, made, kit)
        for stage in formula.beside
        if stage.kind in STAYS_ON
        for line in stage.lines
    )
    return whole / made.pieces


STRENGTHS = {
    "Baking soda": (3.0, 7.0),
    "Honey": (0.5, 1.0),
    "Malt syrup": (0.5, 1.0),
    "Malt flour, non-diastatic": (0.5, 1.0),
}
"""Usual strength of a bath by what is in it, by weight of its water: common practice, no source. By the pantry's own names,
so that Natron is soda and caustic soda is not: of lye no strength is ever called usual. [%]"""


@dataclass(frozen=True, slots=True)
class Strength:
    """How strong a bath is. [%]"""

    name: str
    percent: float
    low: float
    high: float


def strengths(stage: Beside, pantry: Pantry) -> tuple[Strength, ...]:
    """What is in a bath over its water, with the usual band; nothing of a stage that is no bath."""
    water = sum(line.weight_g or 0.0 for line in stage.lines if line.role is Role.LIQUID)
    if beside_kinds()[stage.kind].per != "pot" or not water:
        return ()
    found = []
    for line in stage.lines:
        known = pantry.find(line.name)
        band = STRENGTHS.get(known.name) if known else None
        if band is not None and line.weight_g:
            found.append(Strength(line.name, 100 * line.weight_g / water, *band))
    return tuple(found)
