"""Tasted blind: bakes as letters, scored by several people who do not know which is which; then opened."""

from collections.abc import Sequence
from statistics import fmean
from typing import Annotated, Literal

from pydantic import Field
from scipy import stats

from pancount.core.base.models import Brief, Frozen, Words
from pancount.core.book.outcome import Scores

LETTERS = ("A", "B", "C", "D")
Letter = Literal["A", "B", "C", "D"]
MOST_TASTERS = 60


class Tasted(Frozen):
    """What one taster says; all of it may be left open."""

    who: Brief = ""
    scores: Annotated[dict[Letter, Scores], Field(max_length=len(LETTERS))] = Field({})
    likes: Letter | None = None
    """Which is liked best."""
    words: Words = ""


class LetterSays(Frozen):
    """What all tasters say of one letter."""

    letter: Letter
    means: dict[str, float]
    """By scale. [1 to 5]"""
    score: float | None
    scored: int
    """By how many."""
    liked: int
    """How many liked it best."""


class TastingSays(Frozen):
    """What a tasting came to."""

    letters: tuple[LetterSays, ...]
    says: str


def tasting_says(sheets: Sequence[Tasted], letters: Sequence[Letter]) -> TastingSays:
    """What all say of each letter, and how easily that could be so by chance alone."""
    found = list[LetterSays]()
    for letter in letters:
        own = [one.scores[letter] for one in sheets if one.scores.get(letter)]
        scales = dict.fromkeys(name for one in own for name in one)
        means = {name: fmean(one[name] for one in own if name in one) for name in scales}
        found.append(
            LetterSays(
                letter=letter, means=means, score=fmean(fmean(one.values()) for one in own) if own else None, scored=len(own),
                liked=sum(one.likes == letter for one in sheets),
            )
        )  # fmt: skip
    return TastingSays(letters=tuple(found), says=_says(found))


def _says(found: Sequence[LetterSays]) -> str:
    likes = sum(one.liked for one in found)
    if not likes:
        return "Nobody has said yet which they like best."
    best = max(found, key=lambda one: one.liked)
    if sum(one.liked == best.liked for one in found) > 1:
        return f"{likes} said which they like best, and no one bake is ahead."
    chance = float(stats.binomtest(best.liked, likes, 1 / len(found), alternative="greater").pvalue) * len(found)
    said = f"{best.liked} of {likes} like {best.letter} best."
    if chance >= 1 / 3:
        return f"{said} That many are soon together by chance alone: ask more people before you go by it."
    return f"{said} By chance alone some letter would get so many about once in {max(2, round(1 / chance))} tastings."
