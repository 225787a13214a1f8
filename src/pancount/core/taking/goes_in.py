"""Which lines of a formula a clause of a method names: "the flour", "everything but the butter", "a third of the oil", "Hefe"."""

from collections.abc import Sequence
from dataclasses import dataclass

from pancount.core.formula.formula import Formula, Line, each_line
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.measures import measures
from pancount.core.pantry.role import Role
from pancount.core.taking.amounts import Amount, amount, quantity
from pancount.core.taking.tokens import Token, tokens
from pancount.core.taking.vocabulary import stem, vocabulary

Tokens = Sequence[Token]
Spot = tuple[int, int]

A_LITTLE = 0.1
"""What "a spoon of the sugar" or "etwas Wasser" is of its line, where nothing measures it. Common practice, no source."""
BEFORE = 5
"""Tokens before a name among which its amount or share is looked for."""


@dataclass(frozen=True, slots=True)
class Named:
    """A line that is named: how much of it, where that is said; `rest` for what is left of it, `held` for what was held back."""

    spot: Spot
    share: float | None = None
    rest: bool = False
    held: bool = False
    into: bool = False
    """Whether something is put into it, rather than it into something: "add to the flour"."""


class Lines:
    """A formula's lines by everything that they may be called."""

    def __init__(self, formula: Formula, pantry: Pantry) -> None:
        self.formula = formula
        self.spots = [(s, n) for s, n, line in each_line(formula) if not line.blank]
        self._called: dict[tuple[str, ...], dict[int, list[Spot]]] = {}
        """By words: lines by how well they are called so, 0 by a name of their own."""
        for s, n in self.spots:
            line = formula.stages[s].lines[n]
            known = pantry.find(line.name)
            names = {line.name, *(known.names if known else ())}
            for name in names:
                self._call(name, (s, n), 0)
                front, _, behind = name.partition(",")
                if behind:
                    self._call(f"{behind} {front}", (s, n), 0)
                words = [t.word for t in tokens(front) if t.kind == "word"]
                if words:
                    self._call(words[-1], (s, n), 1 if name == line.name else 2)
                if words and (behind or (line.role is Role.FLOUR and name == line.name)):
                    self._call(words[0], (s, n), 1)
                if behind:
                    self._call(behind, (s, n), 1)
        for word, role in _roles().items():
            for s, n in self.spots:
                if _is(formula.stages[s].lines[n], role):
                    self._call(word, (s, n), 3)
        self._longest = max(map(len, self._called), default=0)

    def _call(self, name: str, spot: Spot, rank: int) -> None:
        words = tuple(stem(t.word) for t in tokens(name) if t.kind != "sign")
        if words:
            self._called.setdefault(words, {}).setdefault(rank, []).append(spot)

    def _at(self, said: Sequence[str], at: int, stage: int) -> tuple[list[Spot], int] | None:
        """The lines called by the longest name that begins here, those of a stage before others; and where it ends."""
        for length in range(min(self._longest, len(said) - at), 0, -1):
            ranks = self._called.get(tuple(said[at : at + length]))
            if ranks:
                best = ranks[min(ranks)]
                return [spot for spot in best if spot[0] == stage] or best, at + length
        return None

    def named(self, line: Tokens, stage: int) -> list[Named]:
        """Every line that is named, in order, each once. Never raises."""
        said, small, grammar = [stem(t.word) for t in line], vocabulary().step_small, vocabulary().grammar
        found, at = list[Named](), 0
        while at < len(line):
            one = self._at(said, at, stage)
            if one is None:
                at += 1
                continue
            before = _before(line, at)
            mixture = one[1] < len(line) and line[one[1]].word in small["mixture"]
            if not mixture and not ({"more", "extra"} & set(before[-3:])):
                rest = bool(small["rest"] & set(before))
                held = "held" in before or "reserved" in before
                whole = rest or held or bool(grammar["everything"] & set(before[-2:]))
                into = bool(set(before[-2:]) & small["into"])
                for spot in one[0]:
                    share = None if whole else self._share(line, at, spot)
                    found.append(Named(spot, share, rest, held, into))
            at = one[1]
        return list({one.spot: one for one in reversed(found)}.values())[::-1]

    def _share(self, line: Tokens, at: int, spot: Spot) -> float | None:
        """How much of a line is named: "half the flour", "25 g flour" of a line of 500 g, "3 cups" of one of 4."""
        told = self.formula.stages[spot[0]].lines[spot[1]]
        for begin in range(max(0, at - BEFORE), at):
            asked = amount(line, begin)
            if asked and asked[1] <= at and all(t.word in ("of", "the", "warm", "cold", "g") for t in line[asked[1] : at]):
                if not asked[0].parts[0].measure and asked[0].parts[0].usual >= 1:
                    continue  # "2 flours" counts, and measures nothing
                return _share_of(asked[0], told)
            number = quantity(line, begin)
            if number and number[0].high < 1 and number[1] <= at and all(t.word in ("of", "the", "a") for t in line[number[1] : at]):
                return number[0].high
        before = set(_before(line, at))
        return 0.5 if {"half", "hälfte"} & before else A_LITTLE if vocabulary().step_small["a little"] & before else None

    def dry(self) -> list[Named]:
        """The dry ingredients."""
        roles = (Role.FLOUR, Role.SUGAR, Role.SALT, Role.LEAVEN, Role.FLAVOUR)
        return [Named(spot) for spot in self.spots if self.formula.stages[spot[0]].lines[spot[1]].role in roles]


def _before(line: Tokens, at: int) -> list[str]:
    """The words before a name that may say how much of it: no further back than to what was named with it."""
    begin = next((n + 1 for n in range(at - 1, max(-1, at - 1 - BEFORE), -1) if line[n].text == "," or line[n].word in vocabulary().grammar["and"]), max(0, at - BEFORE))
    return [t.word for t in line[begin:at]]


def _share_of(asked: Amount, line: Line) -> float | None:
    """An amount over that of the line, by weight, or by the measure that the line itself was written in; None where they cannot be held together."""
    part = asked.parts[0]
    size = measures().get(part.measure)
    if part.measure == "percent":
        return _below_one(part.usual / 100)
    if part.measure == "" and part.usual < 1:
        return part.usual
    if size and size.kind == "weight" and size.size and line.weight_g:
        return _below_one(part.usual * next(iter(size.size.values())) / line.weight_g)
    written = next((found[0] for at in range(4) if (found := amount(tokens(line.written), at))), None) if line.written else None
    if written and written.parts[0].measure == part.measure and written.parts[0].usual:
        return _below_one(part.usual / written.parts[0].usual)
    if size and size.kind in ("volume", "cup") and size.size and line.role is Role.LIQUID and line.weight_g:
        return _below_one(part.usual * next(iter(size.size.values())) / line.weight_g)
    return None


def _below_one(share: float) -> float | None:
    return share if 0.0001 <= share < 0.97 else None


def _roles() -> dict[str, str]:
    """Words for what a line is in the dough."""
    return {word: role for role, words in ROLES.items() for word in words}


ROLES = {
    "flour": ("flour", "mehl"),
    "yeast": ("yeast", "hefe"),
    "levain": ("levain", "starter", "sourdough", "sauerteig", "leaven"),
    "salt": ("salt", "salz"),
    "sugar": ("sugar", "zucker"),
    "oil": ("oil", "öl"),
    "milk": ("milk", "milch"),
    "mash": ("mash", "purée", "puree"),
}
"""Words by which any line of a sort is meant."""


def _is(line: Line, sort: str) -> bool:
    if sort == "yeast":
        return line.role is Role.LEAVEN and line.hydration is None and "yeast" in line.name.casefold()
    if sort == "levain":
        return line.role is Role.LEAVEN and "yeast" not in line.name.casefold()
    if sort in ("oil", "milk"):
        return sort in line.name.casefold().split()
    return str(line.role) == sort
