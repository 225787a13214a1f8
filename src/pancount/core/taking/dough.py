"""What the dough may be: each percentage and headline figure with its exact range, and what is behind it."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import product

from pancount.core.base.models import Band
from pancount.core.formula.formula import Line
from pancount.core.formula.gauges import DRY, MAY_HOLD_WATER
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import flour_share, liquid_share
from pancount.core.pantry.ingredients import Ingredient
from pancount.core.pantry.measures import measures
from pancount.core.pantry.role import Role
from pancount.core.taking.amounts import Part
from pancount.core.taking.bands import Range, Term, range_of, usual, widths
from pancount.core.taking.habits import Habits, questions
from pancount.core.taking.item import Item
from pancount.core.taking.page import Page, digits_of, to_digits
from pancount.core.taking.taken import Figure, Percent
from pancount.core.taking.weigh import Weight, surest, union

SHARED = ("cup_way", "system")
"""Answers that move many lines at once: a baker fills every cup in one way. So they are tried one by one, and the range
holds all of them; what else is open moves one line alone, and stands in its band."""
INSIDE = {"water", "salt", "sugars"}
"""Figures that do not count what stays inside pieces of leek, raisins or nuts."""
FIGURES = {
    "liquid": "Liquid",
    "water": "True water",
    "salt": "Salt",
    "yeast": "Yeast, as instant",
    "sugars": "Sugars",
}
FLOUR_IN_PERCENT_G = 1000.0
"""What a recipe given wholly in percent is reckoned on. [g]"""

Share = tuple[float, float, float]
NONE: Share = (0.0, 0.0, 0.0)
ALL: Share = (1.0, 1.0, 1.0)
UNKNOWN_WATER: dict[Role | None, Share] = {Role.LIQUID: (0.85, 1.0, 1.0)}
"""Water in what nobody has analysed: a liquid is nearly all water; flour, sugar, salt and leaven next to none."""


@dataclass(frozen=True, slots=True)
class Weighed:
    """A thing in the dough with its weight under one set of answers [g], and what of it counts in each figure."""

    item: Item
    band: Band
    role: Role | None
    flour: float
    """How much of it is flour, 0 to 1."""
    shares: dict[str, Share]

    @property
    def floured(self) -> Band:
        """The flour in it."""
        return self.band.times(*3 * (self.flour,))

    def term(self, share: Share) -> Term:
        """As it counts in a percentage of flour."""
        b = self.band
        return Term(b.low_g, b.usual_g, b.high_g, *share, self.flour)


def role_of(item: Item, ingredients: Sequence[Ingredient]) -> Role | None:
    """What it does in the dough: as the baker said, else as the pantry knows it."""
    if item.said and item.said.role is not None:
        return item.said.role
    return ingredients[0].role if ingredients else None


def _line_of(role: Role | None, ingredients: Sequence[Ingredient]) -> Line:
    """The formula's line that it would be, to ask how much of it is flour and liquid."""
    return Line(role=role, hydration=ingredients[0].hydration if ingredients and role is Role.LEAVEN else None)


def _share(figure: str, role: Role | None, ingredients: Sequence[Ingredient]) -> Share:
    line = _line_of(role, ingredients)
    if figure == "liquid" or (figure == "water" and line.hydration is not None):
        share = liquid_share(line)
        return (share, share, share)
    if figure == "yeast":
        shares = [Practice().as_instant(i.name) for i in ingredients]
    elif (figure != "salt" and role is Role.FLOUR) or (figure in INSIDE and role is Role.INCLUSION):
        return NONE
    elif not ingredients or ingredients[0].composition is None:
        return _unknown(figure, role)
    else:
        shares = [getattr(i.composition, figure) / 100 for i in ingredients if i.composition]
    return (min(shares), shares[0], max(shares)) if shares else NONE


def _unknown(figure: str, role: Role | None) -> Share:
    if figure == "water" and role not in DRY:
        return UNKNOWN_WATER.get(role, (0.0, MAY_HOLD_WATER, 1.0))
    return ALL if (figure, role) in (("salt", Role.SALT), ("sugars", Role.SUGAR)) else NONE


def joined(ranges: Iterable[Range | None]) -> Range | None:
    """The range that holds all of them; the first one's usual stands in."""
    found = [r for r in ranges if r is not None]
    return Range(min(r.low for r in found), found[0].usual, max(r.high for r in found)) if found else None


class Dough:
    """What is in a page's dough under some answers, and under each way that these leave open."""

    def __init__(self, page: Page, habits: Habits) -> None:
        self.page = page
        self.habits = habits
        self._shares: dict[tuple[int, int, tuple[str, ...]], dict[str, Share]] = {}

    def weighed(self, habits: Habits) -> list[Weighed]:
        """All that has a weight, under these very answers. What is given in percent is of all flour."""
        grams: list[float] = []
        in_percent: list[float] = []
        found = []
        for item in self.page.items:
            if not item.in_dough:
                continue
            weight = self.page.weight(item, habits)
            if weight.band is None:
                continue
            ingredients, _ = self.page.meant(item, habits)
            role = role_of(item, ingredients)
            flour = flour_share(_line_of(role, ingredients))
            found.append((Weighed(item, weight.band, role, flour, self._shares_of(item, role, ingredients)), weight.percent))
            (in_percent if weight.percent else grams).append(weight.band.usual_g * flour)
        whole, percent = sum(grams), sum(in_percent)
        flour_g = whole / (1 - percent / 100) if whole > 0 and percent < 100 else whole or FLOUR_IN_PERCENT_G
        return [
            replace(line, band=line.band.times(*3 * (flour_g / 100,))) if percent else line for line, percent in found
        ]

    def _shares_of(self, item: Item, role: Role | None, ingredients: Sequence[Ingredient]) -> dict[str, Share]:
        key = (item.line, item.part, tuple(i.name for i in ingredients))
        if key not in self._shares:
            self._shares[key] = {figure: _share(figure, role, ingredients) for figure in FIGURES}
        return self._shares[key]

    @cached_property
    def ways(self) -> list[list[Weighed]]:
        """The dough under each of the shared answers that is open and matters; first the one that stands in."""
        items = [item for item in self.page.items if item.in_dough]
        depends = frozenset[str]().union(*(self.page.weight(item, self.habits).depends for item in items))
        still_open = [key for key in SHARED if key in depends and getattr(self.habits, key) is None]
        found = [
            self.weighed(self.habits.model_copy(update=dict(zip(still_open, answers, strict=True))))
            for answers in product(*(questions()[key].possible for key in still_open))
        ]
        return [list(lines) for lines in zip(*map(self._to_its_digits, zip(*found, strict=True)), strict=True)] if found[0] else found

    def _to_its_digits(self, same: Sequence[Weighed]) -> list[Weighed]:
        """One line under each answer, to no more digits than the range of all of them bears out."""
        if self.page.weight(same[0].item, self.habits).weighed:
            return list(same)
        digits = digits_of(union([w.band for w in same]))
        return [replace(w, band=to_digits(w.band, digits)) for w in same]

    @cached_property
    def widest(self) -> list[Weighed]:
        """The lines as they stand in, each with a band that holds all that is open."""
        return [replace(same[0], band=union([w.band for w in same])) for same in zip(*self.ways, strict=True)]

    def terms(self, figure: str, lines: Sequence[Weighed]) -> list[Term]:
        """Lines as they count in one figure; those that cannot are left out."""
        return [w.term(w.shares[figure]) for w in lines if w.flour or w.shares[figure] != NONE]

    @cached_property
    def ranges(self) -> dict[str, Range]:
        """Each headline figure with its exact range under these answers and all that they leave open."""
        found = {key: joined(range_of(self.terms(key, lines)) for lines in self.ways) for key in FIGURES}
        return {key: value for key, value in found.items() if value is not None}

    def usuals(self, habits: Habits) -> dict[str, float]:
        """Each headline figure at the usual weights, under other answers than its own. [%]"""
        answers = {key: next(iter(questions()[key].options)) for key in SHARED if getattr(habits, key) is None}
        lines = self.weighed(habits.model_copy(update=answers))
        found = {key: usual(self.terms(key, lines)) for key in FIGURES}
        return {key: value for key, value in found.items() if value is not None}

    def percents(self) -> tuple[Percent, ...]:
        """Each line's percentage of flour with its exact range."""
        found: dict[tuple[int, int], list[Range | None]] = {}
        for lines in self.ways:
            flours = [w.floured for w in lines if w.flour]
            low, middle, high = (sum(getattr(b, end) for b in flours) for end in ("low_g", "usual_g", "high_g"))
            for w in lines:
                found.setdefault((w.item.line, w.item.part), []).append(_percent(w, low, middle, high))
        return tuple(
            Percent(line=line, part=part, low=r.low, usual=r.usual, high=r.high)
            for (line, part), several in found.items()
            if (r := joined(several)) is not None
        )

    def figures(self, called: dict[tuple[int, int], str]) -> tuple[Figure, ...]:
        """The headline figures, each with the line behind most of its range; `called` names the lines."""
        found = []
        for key, r in self.ranges.items():
            lines = [w for w in self.widest if w.flour or w.shares[key] != NONE]
            by_name: dict[str, float] = {}
            widest: dict[str, tuple[float, Item]] = {}
            for w, width in zip(lines, widths(self.terms(key, lines)), strict=True):
                name = called[w.item.line, w.item.part]
                by_name[name] = by_name.get(name, 0.0) + width
                if name not in widest or width > widest[name][0]:
                    widest[name] = (width, w.item)
            total = sum(by_name.values())
            name = max(by_name, key=lambda n: by_name[n]) if total > 0 else ""
            item = widest[name][1] if name else None
            found.append(
                Figure(
                    key=key,
                    label=FIGURES[key],
                    low=r.low,
                    usual=r.usual,
                    high=r.high,
                    blame=name,
                    share=by_name[name] / total if name else 0.0,
                    cure=_cure(item, self.page.weight(item, self.habits)) if item else "",
                )
            )
        return tuple(found)


def _percent(w: Weighed, low: float, middle: float, high: float) -> Range | None:
    """A line over all flour, whose low, usual and high are given; what is flour in it is part of both halves. [%]"""
    if low <= 0:
        return None
    b, f = w.band, w.flour
    least, most = high - f * (b.high_g - b.low_g), low + f * (b.high_g - b.low_g)
    return Range(100 * b.low_g / least, 100 * b.usual_g / middle, 100 * b.high_g / most)


def _cure(item: Item, weight: Weight) -> str:
    """What would make a line's weight surer."""
    if item.said and item.said.weight_g is not None:
        return "It is weighed already; a finer scale would narrow it."
    part = main_part(item)
    kind = measures()[part.measure or "each"].kind if part else ""
    if weight.depends & {"salt", "yeast", "dry_yeast"}:
        return "Say which it is, or weigh it once."
    if kind in ("cup", "spoon", "jug"):
        return f"Weigh it once, as you fill it: {amount_words(item)}."
    if kind == "count":
        return f"Weigh it once: {amount_words(item)}."
    if kind == "vague":
        return "Say what you mean by it, in grams."
    return "It is weighed already; a finer scale would narrow it." if kind == "weight" else "Weigh it once."


def main_part(item: Item) -> Part | None:
    """The first part of what it is weighed by."""
    return surest(item.reading.amount)[0] if item.reading.amount else None


_FRACTIONS = {0.25: "¼", 0.5: "½", 0.75: "¾", 0.333: "⅓", 0.667: "⅔", 0.125: "⅛", 0.375: "⅜", 0.625: "⅝", 0.875: "⅞"}


def number_words(value: float) -> str:
    """A number as a baker writes it.

    >>> number_words(1.5), number_words(2.25), number_words(1 / 3), number_words(0.7)
    ('1½', '2¼', '⅓', '0.7')
    """
    whole, rest = divmod(value, 1)
    fraction = _FRACTIONS.get(round(rest, 3))
    if fraction and value < 1000:
        return f"{int(whole) or ''}{fraction}"
    return f"{value:.6g}"


def _part_words(part: Part) -> str:
    low, high = number_words(part.low), number_words(part.high)
    number = low if low == high else f"{low}–{high}"
    fill = f" {part.fill.name}" if part.fill else ""
    label = measures()[part.measure].label if part.measure else ""
    many = "s" if part.high > 1 and label in PLURAL else ""
    way = f", {part.way}" if part.way else ""
    return f"{number}{fill} {label}{many}".strip() + way


PLURAL = {"cup", "packet", "stick", "cube", "clove", "slice", "sprig", "can", "handful", "knob", "glug", "splash", "pod",
          "dollop", "drop", "head", "quart", "pint", "dessertspoon"}  # fmt: skip


def amount_words(item: Item) -> str:
    """What the line asks for, in words: "1 cup + 2 tbsp", "2 cups (240 g)"."""
    asked = item.reading.amount
    if asked is None:
        return ""
    text = _part_words(asked.parts[0])
    for part in asked.parts[1:]:
        compound = part.sign > 0 and asked.parts[0].measure in ("lb", "kg")
        text += f" {'' if compound else '+ ' if part.sign > 0 else '− '}{_part_words(part)}"
    if asked.doubled:
        text += f" ({' + '.join(_part_words(part) for part in asked.doubled)})"
    return text
