"""What heads lines, or a single line: the name of a stage, and whether that keeps it out of the dough."""

from itertools import pairwise
from typing import NamedTuple

from pancount.core.taking.amounts import Line, amount
from pancount.core.taking.parting import NEAR
from pancount.core.taking.tokens import written
from pancount.core.taking.vocabulary import Names, vocabulary

BULLETS = {"-", "–", "—", "*", "·", "+"}
"""Marks that `plain` leaves, since they may also mean something: a dash between amounts."""


def without_bullet(line: Line, names: Names | None = None) -> Line:
    """The line without the mark in front of it: a bullet, the number of a stage ("2. Dough", "4) Wash: 1 egg")."""
    at = 0
    while at < len(line) and line[at].text in BULLETS:
        at += 1
    line = line[at:]
    numbered = len(line) > 2 and line[0].kind == "number" and line[1].text in ".)"
    heads = numbered and (is_part(line, 2) or (names is not None and bool(label(line[2:], names))))
    return line[2:] if heads else line


AFTER = {"after", "next", "then", "later", "nach", "danach"}
"""What heads a part of the dough by when it goes in: "After 20 min", "Next day"."""
LONGEST_LABEL = 5
"""Words."""


def is_time(line: Line, at: int) -> bool:
    """Whether a time of day or a length of time stands there: "(8am)", "(build for 6 h)"."""
    if line[at].kind not in ("number", "fraction"):
        return False
    after = line[at + 1 : at + 2]
    return bool(after) and (after[0].word in ("am", "pm", "uhr", "o") or vocabulary().times.match(line, at + 1) is not None)


class Group(NamedTuple):
    """What a heading heads: its name, where its lines go if they are kept out of the dough, and whether its words say so."""

    name: str
    apart: str
    known: bool


def group(line: Line) -> Group:
    """The name of a stage from its heading, and where its lines go if they are kept out of the dough."""
    body = [t for t in line if t.text not in ":#=*_"]
    words = vocabulary()
    if (known := words.headings.match(body, 0)) and known[1] < len(body):
        body = [t for t in body[known[1] :] if t.text not in "()[]"]
    purpose = words.purposes.match(body, 0)
    while len(body) > 1 and body[0].word in words.grammar["leading"]:
        body = body[1:]
    name = written(body).partition(" (")[0].strip(" -–—")
    apart = ""
    staged = any(words.stages.match(body, at) or is_time(body, at) for at in range(len(body))) or (body[:1] != [] and body[0].word in AFTER)
    if not staged:
        apart = next((found[0] for at in range(len(body)) if (found := words.apart.match(body, at))), "")
    elif found := words.apart.match(body, 0):
        apart = found[0]
    apart = purpose[0] if purpose else apart
    return Group(name[:1].upper() + name[1:], apart, known=staged or bool(apart))


def label(line: Line, names: Names) -> Line:
    """What heads a single line, with its colon: "Wash: 1 egg"; empty where nothing does, as in "Flour: 500 g".

    Whatever its words, what stands before a list heads it: "Next day: 350 g flour, 225 g water".
    """
    at = next((n for n, t in enumerate(line[: LONGEST_LABEL + 1]) if t.text in ":-–—"), 0)
    if not at or at + 1 == len(line):
        return ()
    head, leading = line[:at], vocabulary().grammar["leading"]
    told = any(
        vocabulary().purposes.match(head, n) or ((beside := vocabulary().apart.match(head, n)) and beside[1] == len(head)) for n in range(len(head))
    )
    if line[at].text == ":" and _is_list(line[at + 1 :], names) and (told or not names.find([t.word for t in head])):
        return line[: at + 1]
    asked = amount(line, at + 1)
    if (line[at].text != ":" and not asked) or (asked and asked[1] == len(line)):
        return ()  # "onion - red"; and "Yeast: 3 g" is yeast
    begins = {0, next((n for n, t in enumerate(head) if t.word not in leading), 0)}
    return line[: at + 1] if any(is_part(head, begin) for begin in begins) else ()


def _is_list(line: Line, names: Names) -> bool:
    """Whether it measures two ingredients or more, with commas between, and is no sentences."""
    if any(t.text == "." and after.text[:1].isupper() for t, after in pairwise(line)):
        return False
    begins = [0, *(n + 1 for n, t in enumerate(line) if t.text in ",;")]
    asked = [found[1] for begin in begins if (found := amount(line, begin))]
    return sum(names.find([t.word for t in line[end : end + NEAR]]) is not None for end in asked) > 1


def without_all(line: Line, names: Names) -> Line:
    """The line without the stage that it puts in whole before anything else: "all the poolish, 350 g flour"."""
    end = next((n for n, t in enumerate(line) if t.text in ",;"), 0)
    said = next((n for n, t in enumerate(line[:end]) if t.word not in vocabulary().grammar["all"]), end)
    told = said > 0 or not names.find([t.word for t in line[:end]])  # "yeast, 7 g" is no stage
    return line[end + 1 :] if told and said < end and is_part(line[:end], said) else line


def is_part(line: Line, begin: int) -> bool:
    """Whether from a token on there is the name of a stage, or of what is kept out of the dough, and nothing else."""
    words = vocabulary()
    return any(
        (found := phrases.match(line, begin)) and found[1] == len(line)
        for phrases in (words.stages, words.apart, words.purposes)
    )
