"""What a dough is: its gauges, each with its working line by line, its bands, and its feel and richness in words.

Every gauge but protein is a sum over the lines, `percent of all flour that reaches the dough × what the line holds`, so
it is linear in them and its contributions add up to it. Leek, raisins, nuts and what else is folded in keep their
water, fat, sugars and salt to themselves: that is told `apart`, since the dough between them does not feel it.
Compositions stand in the pantry with their sources; the rules are common practice, no source.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Literal

from pancount.core.base.datafiles import rows
from pancount.core.base.derived import Derived, derived
from pancount.core.base.models import Frozen
from pancount.core.formula.formula import Formula, Line, StageKind, each_line
from pancount.core.formula.practice import Practice, YeastSchool
from pancount.core.formula.reckon import Reckoned, flour_share, liquid_share, reckon
from pancount.core.formula.stages import FERMENTS
from pancount.core.pantry.ingredients import Ingredient, Pantry
from pancount.core.pantry.role import Role

GaugeName = Literal["liquid", "water", "fat", "sugars", "egg", "salt", "yeast", "prefermented", "protein"]


class GaugeRule(Frozen):
    """A gauge's name, the sentence that says what it is, and how what stays inside pieces is called; blank for nothing."""

    key: GaugeName
    label: str
    says: str
    apart: str
    aims: bool
    """Whether bakers aim at it."""


class DoughWord(Frozen):
    """A word for a dough under a figure, with what it means at the bench. A richness of 25 in whole percent is not yet rich."""

    key: str
    label: str
    under: float
    says: str
    source: str


class StyleBand(Frozen):
    """Where a gauge usually lies for a style of dough. [%]"""

    style: str
    gauge: GaugeName
    low: float
    high: float
    source: str


class Style(Frozen):
    """A style of dough: the style words and fill rules that it goes by, and its bands."""

    name: str
    words: tuple[str, ...]
    fills: tuple[str, ...]
    bands: Mapping[str, StyleBand]


@cache
def gauge_rules() -> dict[GaugeName, GaugeRule]:
    """Gauges by key, in the order in which they are shown."""
    return {rule.key: rule for rule in (GaugeRule.model_validate(row) for row in rows(__name__, "gauges.csv"))}


@cache
def _words(name: str) -> tuple[DoughWord, ...]:
    return tuple(DoughWord.model_validate(row) for row in rows(__name__, name))


@cache
def styles() -> tuple[Style, ...]:
    """Styles, the more particular first: a formula is of the first that its words name."""
    found: dict[str, list[dict[str, str]]] = {}
    for row in rows(__name__, "styles.csv"):
        found.setdefault(row["style"], []).append(row)
    return tuple(
        Style(
            name=name,
            words=tuple(filter(None, group[0]["words"].split(";"))),
            fills=tuple(filter(None, group[0]["fills"].split(";"))),
            bands={
                row["gauge"]: StyleBand.model_validate(
                    {key: row[key] for key in ("style", "gauge", "low", "high", "source")}
                )
                for row in group
            },
        )
        for name, group in found.items()
    )


RICHNESS_STYLE = {"lean": "lean bread", "soft": "soft buns", "enriched": "soft buns", "rich": "rich buns"}


def style_of(formula: Formula, richness: str) -> Style:
    """The style that a formula's words name, else its fill rule where it has a pan, else its richness."""
    words = {word.casefold() for word in formula.styles}
    for style in styles():
        if words.intersection(style.words):
            return style
    if formula.usual.pan is not None:
        for style in styles():
            if formula.usual.fill_kind in style.fills:
                return style
    return next(style for style in styles() if style.name == RICHNESS_STYLE[richness])


@dataclass(frozen=True, slots=True)
class Brings:
    """What a line brings to a gauge: `percent` of all flour, or of protein its part of the blend's; `apart` in pieces."""

    stage: int
    line: int
    percent: float
    holds: float
    """How much of it a hundred grams of the line hold. [g]"""
    apart: bool
    gives: bool
    """Whether it may give way where the gauge is aimed: flour is the 100 %, and what is in pieces does not count."""


@dataclass(frozen=True, slots=True)
class Gauge:
    """A gauge's value, what each line brings, and the band of its style."""

    key: GaugeName
    value: float
    apart: float
    """More of it that stays inside pieces. [%]"""
    brings: tuple[Brings, ...]
    low: float | None
    high: float | None
    of: Literal["style", "formula", "none"]
    """Whose band it is."""
    lies: Literal["under", "in", "over", "free"]
    unknown: tuple[str, ...]
    """Ingredients of which nobody has said what they hold, so that what they bring is a guess by their role."""


class Character(Frozen):
    """What a dough is."""

    gauges: dict[GaugeName, Gauge]
    fat_and_sugars: float
    richness: DoughWord
    feel: DoughWord
    feels: Derived
    """What the feel goes by: true water, more where fat and sugars loosen, less where wholemeal and rye drink. [%]"""
    style: str
    bran: float
    """How much of the flour is wholemeal or rye, as a share."""

    @property
    def stiff(self) -> bool:
        """Whether it is a stiff dough: it strains a mixer, and can be lifted by hand after proving."""
        return self.feel.key == "stiff"


Share = Callable[[Line, Ingredient | None, StageKind, Practice], float]
"""How much of a line counts in a gauge, 0 to 1."""


def _composed(part: str, role: Role | None) -> Share:
    """The part of its composition; where that is not known, all of it if that is its role."""

    def share(line: Line, known: Ingredient | None, kind: StageKind, practice: Practice) -> float:
        if line.role is Role.FLOUR and part != "salt":
            return 0.0
        if known is not None and known.composition is not None:
            return float(getattr(known.composition, part)) / 100
        return float(line.role is role)

    return share


DRY = frozenset((Role.FLOUR, Role.SUGAR, Role.SALT, Role.LEAVEN))
"""Next to no water but the flour's own."""
MAY_HOLD_WATER = 0.3
"""What stands in for the water of an egg, a dairy or a mash that nobody has analysed. Common practice, no source."""


def _water(line: Line, known: Ingredient | None, kind: StageKind, practice: Practice) -> float:
    """A starter's water is what was poured to its flour; all else as composed."""
    if line.hydration is not None or line.role is Role.FLOUR:
        return liquid_share(line)
    if known is not None and known.composition is not None:
        return known.composition.water / 100
    if line.role is Role.LIQUID:
        return 1.0
    return 0.0 if line.role in DRY else MAY_HOLD_WATER


def _protein(line: Line, known: Ingredient | None, kind: StageKind, practice: Practice) -> float:
    """Only of flours that make gluten: rye, starches, bran and germ have protein, and no gluten holds gas with it."""
    makes_gluten = known is not None and "wheat" in known.allergens and flour_share(line) > 0
    return known.composition.protein / 100 if known and known.composition and makes_gluten else 0.0


def _egg(line: Line, known: Ingredient | None, kind: StageKind, practice: Practice) -> float:
    """What stands in for egg and ships with no egg in it is none: linseed, chickpea water."""
    of_plants = known is not None and not known.own and "egg" not in known.allergens
    return float(line.role is Role.EGG and not of_plants)


SHARE_OF: dict[GaugeName, Share] = {
    "liquid": lambda line, known, kind, practice: liquid_share(line),
    "water": _water,
    "fat": _composed("fat", Role.FAT),
    "sugars": _composed("sugars", Role.SUGAR),
    "egg": _egg,
    "salt": _composed("salt", Role.SALT),
    "yeast": lambda line, known, kind, practice: practice.as_instant(known.name) if known else 0.0,
    "prefermented": lambda line, known, kind, practice: (
        flour_share(line) if line.hydration is not None or kind in FERMENTS else 0.0
    ),
    "protein": _protein,
}
ASKS: dict[GaugeName, set[Role | None]] = {
    "water": {Role.EGG, Role.DAIRY, Role.FAT, Role.MASH, None},
    "fat": {Role.EGG, Role.DAIRY, None},
    "sugars": {Role.DAIRY, None},
    "protein": {Role.FLOUR},
}
"""For which roles a gauge goes wrong where nobody has said what the ingredient holds."""


def in_pieces(line: Line, kind: StageKind) -> bool:
    """Whether what a line holds stays inside pieces, so that the dough between them does not feel it."""
    return kind is StageKind.INCLUSIONS or line.role is Role.INCLUSION


def share_in(key: GaugeName, line: Line, known: Ingredient | None, kind: StageKind, practice: Practice) -> float:
    """How much of a line counts in a gauge, 0 to 1; nothing of what stays inside pieces."""
    if gauge_rules()[key].apart and in_pieces(line, kind):
        return 0.0
    return SHARE_OF[key](line, known, kind, practice)


Holds = tuple[tuple[tuple[GaugeName, float, bool], ...], tuple[GaugeName, ...]]
MOST_HELD = 2_000
"""Kinds of line that a pantry remembers; as many as all formulas of a kitchen have."""


def _holds(pantry: Pantry, *of: *tuple[str, Role | None, float | None, StageKind, YeastSchool]) -> Holds:
    """What such a line counts in each gauge, and whether apart; and the gauges in which that is a guess.

    Remembered with the pantry, since only amounts change with most keys that a baker presses.
    """
    found: Holds | None = pantry.remembered.get(of)
    if found is None:
        if len(pantry.remembered) >= MOST_HELD:
            pantry.remembered.clear()
        found = pantry.remembered[of] = _worked_out(pantry, *of)
    return found


def _worked_out(
    pantry: Pantry, name: str, role: Role | None, hydration: float | None, kind: StageKind, yeast: YeastSchool
) -> Holds:
    line, known, practice = Line(name=name, role=role, hydration=hydration), pantry.find(name), Practice(yeast=yeast)
    pieces, composed = in_pieces(line, kind), known is not None and known.composition is not None
    holds = []
    for key, share_of in SHARE_OF.items():
        if share := share_of(line, known, kind, practice):
            holds.append((key, share, pieces and bool(gauge_rules()[key].apart)))
    guessed = tuple(key for key, roles in ASKS.items() if not composed and role in roles and name)
    return tuple(holds), guessed


def _named(words: tuple[DoughWord, ...], value: float) -> DoughWord:
    return next((word for word in words if value < word.under), words[-1])


def character(formula: Formula, reckoned: Reckoned, pantry: Pantry, practice: Practice) -> Character:
    """The gauges of a reckoned formula, with its feel and richness in words.

    An ingredient without a composition counts by its role: a liquid is water, a fat fat, a sugar sugar.
    """
    brings: dict[GaugeName, list[Brings]] = {key: [] for key in SHARE_OF}
    unknown: dict[GaugeName, dict[str, None]] = {key: {} for key in SHARE_OF}
    for s, n, line in each_line(formula):
        figures = reckoned.stages[s]
        percent = figures.lines[n].percent * figures.reach
        if not percent:
            continue
        holds, guessed = _holds(pantry, line.name, line.role, line.hydration, formula.stages[s].kind, practice.yeast)
        gives = not flour_share(line)
        for key, share, apart in holds:
            brings[key].append(Brings(s, n, percent * share, 100 * share, apart, gives and not apart))
        for key in guessed:
            unknown[key][line.name] = None
    values = {key: sum(one.percent for one in found if not one.apart) for key, found in brings.items()}
    rich = values["fat"] + values["sugars"]
    bran_percent = _bran_percent(formula, reckoned, pantry)
    feels = _feels(values, bran_percent)
    richness = _named(_words("richness.csv"), rich)
    style = style_of(formula, richness.key)
    gauges = {}
    for key, value in values.items():
        own, usual = formula.bands.get(key), style.bands.get(key)
        band = own or usual
        gauges[key] = Gauge(
            key=key,
            value=value,
            apart=sum(one.percent for one in brings[key] if one.apart),
            brings=tuple(brings[key]),
            low=band.low if band else None,
            high=band.high if band else None,
            of="formula" if own else "style" if usual else "none",
            lies=_lies(value, band.low, band.high) if band else "free",
            unknown=tuple(unknown[key]),
        )
    return Character(
        gauges=gauges,
        fat_and_sugars=rich,
        richness=richness,
        feel=_named(_words("feel.csv"), feels.value),
        feels=feels,
        style=style.name,
        bran=min(bran_percent / 100, 1.0),
    )


@cache
def _points() -> dict[str, float]:
    return {row["part"]: float(row["points"]) for row in rows(__name__, "feel_by.csv")}


def _bran_percent(formula: Formula, reckoned: Reckoned, pantry: Pantry) -> float:
    """How much of all flour is wholemeal or rye, a starter's flour included. [%]"""
    return sum(
        reckoned.stages[s].lines[n].percent * reckoned.stages[s].reach * flour_share(line)
        for s, n, line in each_line(formula)
        if (known := pantry.find(line.name)) and known.bran
    )


def _feels(values: Mapping[GaugeName, float], bran_percent: float) -> Derived:
    """How soft a dough feels, as the true water of a lean white dough that would feel the same. Common practice, no source; the
    points stand in feel_by.csv. [%]"""
    parts = {"water": values["water"], "fat": values["fat"], "sugars": values["sugars"], "bran": bran_percent}
    points = _points()
    return derived(
        "Feels like", sum(points[part] * percent for part, percent in parts.items()), "percent",
        "A dough feels as soft as its true water says where it is lean and white. Fat and sugars loosen it, wholemeal and rye drink.",
        f"{{water}} + {points['fat']:g} × {{fat}} + {points['sugars']:g} × {{sugars}} − {-points['bran']:g} × {{bran}}",
        water=("True water", values["water"], "percent"), fat=("Fat", values["fat"], "percent"),
        sugars=("Sugars", values["sugars"], "percent"), bran=("Wholemeal and rye, of the flour", bran_percent, "percent"),
    )  # fmt: skip


def true_water_percent(formula: Formula, pantry: Pantry, reckoned: Reckoned | None = None) -> float:
    """True water over all flour; `reckoned` saves reckoning twice. Raises what `reckon` raises. [%]"""
    return character(formula, reckoned or reckon(formula), pantry, Practice()).gauges["water"].value


def _lies(value: float, low: float, high: float) -> Literal["under", "in", "over"]:
    """Where a figure lies, as it is shown to a tenth: 1.96 against 2.0 is in the band."""
    shown = round(value, 1)
    return "under" if shown < low else "over" if shown > high else "in"
