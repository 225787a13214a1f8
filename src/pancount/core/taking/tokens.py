"""Text into words, numbers and signs, each with the place it stands at."""

import re
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

LONGEST_LINE = 600
"""Longer lines are read up to here; their text is kept whole. [characters]"""

_NUMBER = r"\d{1,9}\s?[/⁄]\s?\d{1,4}(?!\d)|\d{1,9}(?:[.,]\d{1,9})*|(?<![\d.,\w])[.,]\d{1,9}"
_LETTER = r"[^\W\d_²³¹¼-¾⁰-₉⅐-↉①-⓿]"
_WORD = rf"{_LETTER}+(?:['’]{_LETTER}+)*"
_TOKEN = re.compile(rf"({_NUMBER})|({_WORD})|(\S)")


@dataclass(frozen=True, slots=True)
class Token:
    """A piece of a line. `word` is folded, so that letter case and accents typed in two ways do not matter."""

    kind: Literal["number", "fraction", "word", "sign"]
    text: str
    word: str
    value: float
    other: float | None
    """What a number is worth if its point or comma is read the other way: 1,250 is 1250 or 1.25."""
    start: int
    end: int


def _number(text: str) -> tuple[float, float | None] | None:
    """What digits with points and commas are worth, and the other way to read them. None for what is no number.

    >>> _number("1,5"), _number("1,250"), _number("1.250,5"), _number("0,125")
    ((1.5, None), (1250.0, 1.25), (1250.5, None), (0.125, None))
    """
    marks = [c for c in text if c in ".,"]
    if not marks:
        return float(text), None
    if len(marks) == 1:
        front, back = text.replace(",", ".").split(".")
        decimal = float(f"{front or 0}.{back}")
        if len(back) == 3 and front.strip("0") and len(front) <= 3:
            thousands = float(front + back)
            return (thousands, decimal) if marks[0] == "," else (decimal, thousands)
        return decimal, None
    last = max(text.rfind("."), text.rfind(","))
    groups = re.split("[.,]", text)
    if any(len(g) != 3 for g in groups[1:-1]):
        return None
    if text[last] in text[:last]:
        return (float("".join(groups)), None) if len(groups[-1]) == 3 else None
    return float("".join(groups[:-1]) + "." + groups[-1]), None


def _fraction(text: str) -> float | None:
    over, under = re.split("[/⁄]", text)
    return int(over) / int(under) if int(under) else None


def tokens(line: str) -> list[Token]:
    """The tokens of a line. Hyphens between letters part words: all-purpose is two. Never raises.

    >>> [(t.kind, t.word) for t in tokens("1½ cups all-purpose")]
    [('number', '1'), ('fraction', '½'), ('word', 'cups'), ('word', 'all'), ('word', 'purpose')]
    """
    return list(_tokens(line[:LONGEST_LINE]))


@lru_cache(maxsize=1_000)  # a line is looked at from several sides, and while a page is typed all its lines but one stay
def _tokens(line: str) -> tuple[Token, ...]:
    found: list[Token] = []
    for match in _TOKEN.finditer(line):
        text, (start, end) = match[0], match.span()
        kind: Literal["number", "fraction", "word", "sign"] = "sign"
        value: float | None = None
        other = None
        if match[1] and ("/" in text or "⁄" in text):
            kind, value = "fraction", _fraction(text)
        elif match[1]:
            kind = "number"
            if number := _number(text):
                value, other = number
        elif match[2]:
            kind = "word"
        elif unicodedata.category(text) == "No":
            kind, value = "fraction", unicodedata.numeric(text, None)
        if kind in ("number", "fraction") and value is None:
            kind = "word"
        between_letters = text in "-‐‑" and found and found[-1].kind == "word" and found[-1].end == start
        if between_letters and line[end : end + 1].isalpha():
            continue
        found.append(Token(kind, text, fold(text), value or 0.0, other, start, end))
    return tuple(found)


def written(line: Sequence[Token]) -> str:
    """Tokens as they stood, with one space where there was any between them."""
    text = ""
    for n, token in enumerate(line):
        text += (" " if n and line[n - 1].end < token.start else "") + token.text
    return text


def fold(text: str) -> str:
    """A word as it is compared: case folded, composed, one kind of apostrophe."""
    return unicodedata.normalize("NFC", text).casefold().replace("’", "'")
