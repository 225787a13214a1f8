"""Swapping one ingredient for another, with water, fat, sugars and salt kept as near as the swap allows.

First the new amount is found by what the ingredient is there for: milk by its water, butter by its fat, honey by its
sugars, yeast by its rise, flour gram for gram. Then what differs is made good by the dough's own liquid, fat, sugar and
salt: a least-squares problem whose lines may not go below nothing, solved by scipy. What cannot be kept is said.
"""

from collections.abc import Iterable, Mapping, Sequence
from functools import cache
from typing import Annotated, Literal, NamedTuple

from pydantic import Field

from pancount.core.base.datafiles import entries
from pancount.core.base.errors import CannotChange
from pancount.core.base.models import Frozen
from pancount.core.formula.aim import with_percent
from pancount.core.formula.formula import Formula, Line, Spot, StageKind, at, each_line, line_at, with_stage
from pancount.core.formula.gauges import GaugeName, share_in
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import Reckoned, flour_share, reckon, weight_of
from pancount.core.formula.stages import main_stage
from pancount.core.pantry.ingredients import Allergen, Ingredient, Pantry
from pancount.core.pantry.role import Role

PARTS: tuple[GaugeName, ...] = ("water", "fat", "sugars", "salt")
WORTH: Mapping[GaugeName, float] = {"water": 1.0, "fat": 3.0, "sugars": 3.0, "salt": 20.0}
"""How much a point of each weighs where not all can be kept: so that butter is not cut to save a point of water, and
salt, of which there is least, is kept best."""
GIVES_WAY: dict[GaugeName, Role] = {"water": Role.LIQUID, "fat": Role.FAT, "sugars": Role.SUGAR, "salt": Role.SALT}
"""By which role each part is made good."""
INSTANT_PER_STARTER = 1 / 40
"""1 % instant yeast is replaced by 40 % starter at 100 % hydration, that is 20 % of the flour. Common practice, no source."""
SMALLEST = 0.02
"""A line that would move by less than this stays. [%]"""


Match = GaugeName | Literal["weight", "leaven"]
"""By what a new amount is found: what it brings to a gauge, gram for gram, or the same rise."""


class Family(Frozen):
    """Ingredients that may take each other's place, and by what the new amount is found."""

    matches: tuple[Match, ...]
    members: tuple[str, ...]
    says: Mapping[str, str] = {}


class Into(Frozen):
    """One ingredient into one or several others."""

    of: tuple[str, ...]
    to: tuple[str, ...]
    label: str
    matches: tuple[Match, ...]
    says: str


class Freeing(Frozen):
    """What rids a formula of an allergen: by family, or by ingredient, what stands in."""

    label: str
    uses: Mapping[str, str]


class SwapBook(Frozen):
    """All swaps that are known."""

    family: Mapping[str, Family]
    absorbs: Mapping[str, float]
    into: tuple[Into, ...]
    free: Mapping[Allergen, Freeing]


class Swap(Frozen):
    """What a line may become: the ingredients, what they go by, and how the new amounts are found."""

    to: tuple[str, ...]
    label: str
    matches: tuple[Match, ...]
    says: str


class SwapLine(Frozen):
    """A line, and the label of what is to stand in for it."""

    stage: Spot
    line: Spot
    to: Annotated[str, Field(max_length=300)]


@cache
def swap_book() -> SwapBook:
    """The swaps that ship. Common practice, no source; compositions come from the pantry."""
    return SwapBook.model_validate(entries(__name__, "swaps.toml"))


@cache
def swaps_of(name: str) -> tuple[Swap, ...]:
    """What may stand in for an ingredient, by its own name in the pantry."""
    book = swap_book()
    found = [
        Swap(to=(other,), label=other, matches=family.matches, says=family.says.get(other, ""))
        for family in book.family.values()
        if name in family.members
        for other in family.members
        if other != name
    ]
    found += [
        Swap(to=into.to, label=into.label, matches=into.matches, says=into.says) for into in book.into if name in into.of
    ]
    return tuple(found)


@cache
def swap_offers() -> dict[str, tuple[str, ...]]:
    """The labels of what may stand in, by ingredient."""
    book = swap_book()
    names = {name for family in book.family.values() for name in family.members}
    names |= {name for into in book.into for name in into.of}
    return {name: tuple(swap.label for swap in swaps_of(name)) for name in sorted(names)}


def _new_line(name: str, pantry: Pantry, like: Line) -> Line:
    known = pantry.find(name)
    if known is None:
        raise CannotChange(f"The pantry does not know {name} any more.")
    return Line(
        name=known.name, role=known.role, note=like.note, written=like.written, hydration=known.hydration, parts=like.parts
    )


class _Swapper:
    """Shares and totals of one formula's parts, in one kitchen."""

    def __init__(self, pantry: Pantry, practice: Practice) -> None:
        self.pantry = pantry
        self.practice = practice

    def share(self, part: Match, line: Line, kind: StageKind) -> float:
        """How much of a line is one part; `weight` is all of it, `leaven` its worth in instant yeast."""
        known = self.pantry.find(line.name)
        if part == "weight":
            return 1.0
        if part == "leaven":
            worth = self.practice.as_instant(known.name) if known else 0.0
            return INSTANT_PER_STARTER if line.hydration is not None else worth
        return share_in(part, line, known, kind, self.practice)

    def totals(self, formula: Formula, reckoned: Reckoned) -> dict[GaugeName, float]:
        """Each part of the dough. [%]"""
        found = dict.fromkeys(PARTS, 0.0)
        for s, n, line in each_line(formula):
            if percent := reckoned.stages[s].lines[n].percent * reckoned.stages[s].reach:
                for part in PARTS:
                    found[part] += percent * self.share(part, line, formula.stages[s].kind)
        return found

    def amounts(self, old: Line, percent: float, new: Sequence[Line], matches: Sequence[Match], kind: StageKind) -> list[float]:
        """How much of each new line brings what the old one is there for. [%]"""
        wanted = [percent * self.share(part, old, kind) for part in matches]
        holds = [[self.share(part, line, kind) for line in new] for part in matches]
        if len(new) == 1:
            return [wanted[0] / holds[0][0]] if holds[0][0] else [percent]
        return _least_squares(holds, wanted, [0.0] * len(new))


def _least_squares(rows: Sequence[Sequence[float]], wanted: Sequence[float], lowest: Sequence[float]) -> list[float]:
    """The x, none below its lowest, for which rows · x is nearest to what is wanted."""
    # Imported here: it takes a third of a second, which the start of the application need not wait for.
    from scipy.optimize import lsq_linear

    solved = lsq_linear(rows, wanted, bounds=(lowest, [float("inf")] * len(lowest)), method="bvls", tol=1e-12)
    return [float(x) for x in solved.x]


def _put(formula: Formula, s: int, n: int, new: Sequence[Line], percents: Sequence[float], reckoned: Reckoned) -> Formula:
    """The old line gone and the new ones in its place; one that is there already takes it up instead."""
    old = formula.stages[s].lines[n]
    by_weight = old.weight_g is not None
    lines = list(formula.stages[s].lines)
    placed: list[Line] = []
    for line, percent in zip(new, percents, strict=True):
        there = next((m for m, other in enumerate(lines) if m != n and other.name.casefold() == line.name.casefold()), None)
        grams = weight_of(percent, reckoned.flour_g)
        if there is None:
            placed.append(line.model_copy(update={"weight_g": grams} if by_weight else {"percent": percent}))
        elif (other := lines[there]).weight_g is not None:
            lines[there] = other.model_copy(update={"weight_g": other.weight_g + grams, "band": None})
        else:
            lines[there] = other.model_copy(update={"percent": (other.percent or 0.0) + percent, "band": None})
    lines[n : n + 1] = placed
    return with_stage(formula, s, lines=tuple(lines))


Where = tuple[int, int]
"""A stage and a line in it."""


def _that_can_give(formula: Formula, reckoned: Reckoned, role: Role, but: Iterable[str]) -> list[Where]:
    """Lines of a role, the best first: in the dough itself before other stages, water before other liquids."""
    main, shunned = main_stage(formula), {name.casefold() for name in but}
    found = [
        (s == main, line.name.casefold() == "water", reckoned.stages[s].lines[n].percent, (s, n))
        for s, n, line in each_line(formula)
        if line.role is role and line.name.casefold() not in shunned and reckoned.stages[s].lines[n].given != "open"
    ]
    return [spot for *_, spot in sorted(found, reverse=True)]


def _steady(
    formula: Formula, wanted: Mapping[GaugeName, float], flour_g: float, but: Iterable[str], swapper: _Swapper
) -> Formula:
    """Let the dough's own liquid, fat, sugar and salt give way until its parts are as near as can be to those wanted.

    One line of each gives way, not those just swapped if there is another; where a liquid is used up, the next joins.
    """
    reckoned = reckon(formula)
    now = swapper.totals(formula, reckoned)
    but = tuple(but)
    short = [WORTH[part] * (wanted[part] - now[part]) for part in PARTS]
    giving = {part: _that_can_give(formula, reckoned, GIVES_WAY[part], but) for part in PARTS}
    giving["water"] = giving["water"] or _that_can_give(formula, reckoned, Role.LIQUID, ())
    for liquids in range(1, len(giving["water"]) + 2):
        spots = [spot for part in PARTS for spot in giving[part][: liquids if part == "water" else 1]]
        if not spots:
            return formula
        holds = [
            [WORTH[part] * swapper.share(part, line, kind) * reckoned.stages[s].reach for s, line, kind in _at(formula, spots)]
            for part in PARTS
        ]
        has = [reckoned.stages[s].lines[n].percent for s, n in spots]
        moved = _least_squares(holds, short, [-p for p in has])
        used_up = [spot for spot, p, by in zip(spots, has, moved, strict=True) if by <= -p * (1 - 1e-9)]
        if not any(spot in giving["water"] for spot in used_up):
            break
    for (s, n), percent, by in zip(spots, has, moved, strict=True):
        if abs(by) >= SMALLEST:
            formula = with_percent(formula, s, n, max(0.0, percent + by), flour_g)
    return formula


def _at(formula: Formula, spots: Iterable[Where]) -> list[tuple[int, Line, StageKind]]:
    return [(s, formula.stages[s].lines[n], formula.stages[s].kind) for s, n in spots]


def _flour_kept(formula: Formula, s: int, change: float, reckoned: Reckoned, but: str) -> Formula:
    """All flour stays as it was: what a starter brings or takes is taken from the largest flour. [%]"""
    spots = _that_can_give(formula, reckoned, Role.FLOUR, [but])
    if not spots or reckoned.stages[spots[0][0]].lines[spots[0][1]].percent < change:
        raise CannotChange("There is not enough flour in the dough for so much starter.", ("stages", s))
    into, n = spots[0]
    has, reach = reckoned.stages[into].lines[n].percent, reckoned.stages[into].reach
    return with_percent(formula, into, n, has - change / reach, reckoned.flour_g)


def swap(formula: Formula, s: int, n: int, chosen: Swap, pantry: Pantry, practice: Practice) -> Formula:
    """The formula with a line swapped, and the rest of the dough adjusted so that it stays as it was as nearly as it can.

    Raises `CannotChange` where the line is not there or has no amount, and what `reckon` raises.
    """
    old = line_at(formula, s, n)
    swapper, reckoned = _Swapper(pantry, practice), reckon(formula)
    kind, reach = formula.stages[s].kind, reckoned.stages[s].reach
    percent = reckoned.stages[s].lines[n].percent
    if not percent:
        raise CannotChange(f"{old.name or 'This line'} has no amount yet, so there is nothing to swap.", at(s, n))
    wanted = swapper.totals(formula, reckoned)
    new = [_new_line(name, pantry, old) for name in chosen.to]
    percents = swapper.amounts(old, percent, new, chosen.matches, kind)
    absorbs = swap_book().absorbs
    if old.role is Role.FLOUR and len(new) == 1:
        was = pantry.find(old.name)
        wanted["water"] += percent * reach / 100 * (absorbs.get(new[0].name, 0) - absorbs.get(was.name if was else "", 0))
    changed = formula
    flour = sum(p * flour_share(line) for p, line in zip(percents, new, strict=True)) - percent * flour_share(old)
    if old.role is not Role.FLOUR and abs(flour) > 1e-12:
        changed = _flour_kept(changed, s, flour * reach, reckoned, old.name)
    changed = _put(changed, s, n, new, percents, reckoned)
    return _steady(changed, wanted, reckoned.flour_g, (old.name, *chosen.to[:1]), swapper)


def water_words(was: str, now: str) -> str:
    """In which direction, and by how much, one flour takes up other water than the one before, for the same feel; blank where
    neither is known to differ. By their names in the pantry.

    >>> water_words("Wholemeal flour", "Bread flour")
    'Takes up less water than wholemeal flour: 6.5 points less of it for the same feel.'
    """
    absorbs = swap_book().absorbs
    by = absorbs.get(now, 0.0) - absorbs.get(was, 0.0)
    if not by or not {was, now} <= set(absorbs):
        return ""
    way = "more" if by > 0 else "less"
    return f"Takes up {way} water than {was[:1].lower()}{was[1:]}: {abs(by):g} points {way} of it for the same feel."


def chosen_swap(formula: Formula, wanted: SwapLine, pantry: Pantry) -> Swap:
    """The swap that goes by a label for a line. Raises `CannotChange` where there is none."""
    line = line_at(formula, wanted.stage, wanted.line)
    known = pantry.find(line.name)
    found = [one for one in swaps_of(known.name if known else "") if one.label == wanted.to]
    if not found:
        raise CannotChange(f"No swap is known from {line.name or 'this line'} to {wanted.to}.", at(wanted.stage, wanted.line))
    return found[0]


def _stand_in(known: Ingredient, allergen: Allergen) -> Swap | None:
    """What stands in for an ingredient in a formula that is to be free of an allergen."""
    book = swap_book()
    if (freeing := book.free.get(allergen)) is None:
        return None
    label = freeing.uses.get(known.name) or next(
        (freeing.uses[name] for name, family in book.family.items() if known.name in family.members and name in freeing.uses),
        None,
    )
    return next((one for one in swaps_of(known.name) if one.label == label), None)


class Freed(NamedTuple):
    """A formula rid of an allergen, what the swaps mean for it, and the names of what no swap is known for."""

    formula: Formula
    says: tuple[str, ...]
    left: tuple[str, ...]


def free_of(formula: Formula, allergen: Allergen, pantry: Pantry, practice: Practice) -> Freed:
    """The formula without what holds an allergen, washes and toppings too. Raises what `swap` raises."""
    left: dict[str, None] = {}
    says: dict[str, None] = {}
    while True:
        found = None
        for s, n, line in each_line(formula):
            known = pantry.find(line.name)
            if known is None or allergen not in known.allergens or known.name in left:
                continue
            stand_in = _stand_in(known, allergen)
            if stand_in is None or not (line.weight_g or line.percent):
                left[known.name] = None
                continue
            found = (s, n, stand_in)
            says |= {f"{stand_in.label}: {stand_in.says}": None} if stand_in.says else {}
            break
        if found is None:
            break
        formula = swap(formula, *found, pantry, practice)
    formula = _free_beside(formula, allergen, pantry, practice, left)
    return Freed(formula, tuple(says), tuple(left))


def _free_beside(
    formula: Formula, allergen: Allergen, pantry: Pantry, practice: Practice, left: dict[str, None]
) -> Formula:
    """What is beside the dough is swapped by what it is there for; there is nothing to make the rest good with."""
    swapper, beside = _Swapper(pantry, practice), []
    for stage in formula.beside:
        lines: list[Line] = []
        for line in stage.lines:
            known = pantry.find(line.name)
            if known is None or allergen not in known.allergens:
                lines.append(line)
                continue
            stand_in = _stand_in(known, allergen)
            if stand_in is None:
                left[known.name] = None
                lines.append(line)
                continue
            new = [_new_line(name, pantry, line) for name in stand_in.to]
            amounts = swapper.amounts(line, line.weight_g or 0.0, new, stand_in.matches, StageKind.DOUGH)
            lines += [
                one.model_copy(update={"weight_g": None if line.weight_g is None else grams})
                for one, grams in zip(new, amounts, strict=True)
            ]
        beside.append(stage.model_copy(update={"lines": tuple(lines)}))
    return formula.model_copy(update={"beside": tuple(beside)})
