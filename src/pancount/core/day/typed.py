"""A day's counts as they are typed: "24 buns, 2 pans of squares"."""

import re
from collections.abc import Sequence

from pancount.core.base.models import Frozen

NUMBERS = {"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10, "twelve": 12, "dozen": 12}
PANS = ("pan", "pans", "tin", "tins", "tray", "trays", "sheet", "sheets")
FILLING = ("of", "the", "and", "pieces", "piece")
HALF = 0.5


class Candidate(Frozen):
    """A formula that a typed count may mean."""

    formula_id: int
    name: str


class TypedCount(Frozen):
    """One count as it was typed, and what it may mean: one formula, several to choose from, or none that is known."""

    text: str
    pieces: int | None
    pans: int | None
    means: tuple[Candidate, ...]


def read_counts(text: str, formulas: Sequence[Candidate]) -> tuple[TypedCount, ...]:
    """Counts as they are typed, parted by commas, new lines or "and".

    >>> known = [Candidate(formula_id=1, name="Cardamom milk buns"), Candidate(formula_id=2, name="Tomato pan squares")]
    >>> [(one.pieces, one.pans, [c.name for c in one.means]) for one in read_counts("2 dozen buns, two pans of squares", known)]
    [(24, None, ['Cardamom milk buns']), (None, 2, ['Tomato pan squares'])]
    """
    parts = [part.strip() for part in re.split(r"[,;\n]|\band\b(?=\s*[\d])", text) if part.strip()]
    return tuple(_read(part, formulas) for part in parts[:12])


def _read(text: str, formulas: Sequence[Candidate]) -> TypedCount:
    words = re.findall(r"[\w'’-]+|½", text.lower())
    amount: float | None = None
    in_pans, rest = False, list[str]()
    for n, word in enumerate(words):
        value = float(word) if word.isdecimal() else HALF if word in ("½", "half") else NUMBERS.get(word)
        if value is not None and not rest:
            amount = value if amount is None else amount * value
        elif word in PANS and amount is not None and not rest and n + 1 < len(words):
            in_pans = True
        elif word not in FILLING:
            rest.append(word)
    number = None if amount is None or amount < 1 or amount > 2_000 else int(amount)
    return TypedCount(text=text, pieces=None if in_pans else number, pans=number if in_pans and number is not None and number <= 200 else None, means=_meant(rest, formulas))


def _stem(word: str) -> str:
    return word[:-2] if word.endswith("es") and len(word) > 4 else word[:-1] if word.endswith("s") and len(word) > 3 else word


def _meant(words: Sequence[str], formulas: Sequence[Candidate]) -> tuple[Candidate, ...]:
    """Formulas whose names have all of the words; those that have most of their name said come first, alone where they are."""
    asked = [_stem(word) for word in words]
    if not asked:
        return ()
    found = []
    for one in formulas:
        own = [_stem(word) for word in re.findall(r"[\w'’-]+", one.name.lower())]
        if all(any(part.startswith(word) for part in own) for word in asked):
            found.append((-len(asked) / max(1, len(own)), one))
    least = min((share for share, _ in found), default=0.0)
    best = tuple(one for share, one in found if share == least)
    return best if len(best) == 1 else tuple(one for _, one in sorted(found, key=lambda pair: pair[0]))
