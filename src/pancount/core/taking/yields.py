"""What a recipe makes: pieces, pans and their size, people; on a line of its own, behind a title, or in a sentence."""

import re

from pancount.core.base.models import Frozen, Words
from pancount.core.base.units import CM_PER_IN
from pancount.core.pans.pan import Pan, RectanglePan, RoundPan, SquarePan
from pancount.core.taking.amounts import Line, measure, past_about, quantity
from pancount.core.taking.headings import is_time
from pancount.core.taking.telling import holds_name, is_measured
from pancount.core.taking.tokens import tokens
from pancount.core.taking.vocabulary import Names, vocabulary

PAN_DEPTH_CM = 5.0
"""A recipe seldom says how deep its pan is. Common practice, no source. [cm]"""

MOST_PAN_INCHES = 20
"""A pan of "9 × 13" and no unit is in inches, one of "20 × 30" in centimetres. Common practice, no source."""


class Makes(Frozen):
    """What a recipe says it makes."""

    words: Words = ""
    pieces: int | None = None
    pans: int | None = None
    pan: Pan | None = None
    people: int | None = None
    """Whom it serves: no number of pieces."""


def says_yield(line: Line, names: Names) -> bool:
    found = vocabulary().yields.match(line, 0)
    return bool(found and found[0] == "makes") and is_yield(line, names)


LONGEST_YIELD = 16
"""Words, signs and numbers."""

SHORT_YIELD = 8
"""The same, among the steps, as in "Makes 12 rolls"."""


def is_yield(line: Line, names: Names) -> bool:
    """ "Makes 12", "Zutaten für 10 Brötchen", "(gives 22–24)", "Serves 8"; or the count and what is counted alone: "two loaves"."""
    line = [t for t in line if t.text not in "()[]"]
    found = vocabulary().yields.match(line, 0)
    if not line or len(line) > LONGEST_YIELD:
        return False
    if found and found[0] in ("makes", "people"):
        return any(quantity(line, at) for at in range(found[1], len(line)))
    # "for 10 buns", but not "for 3 hours"
    begin = past_about(line, found[1] if found and found[0] == "for" else 0)
    counted = quantity(line, begin)
    if not counted or holds_name(line, names):
        return False
    # "12 Stück" is a yield though a Stück is a measure; of any other measure there is something.
    until = min(len(line), counted[1] + 2) if is_measured(line) else min(len(line), counted[1] + 3)
    return any(
        (word := vocabulary().yields.match(line, at)) and word[0] in ("pieces", "pans", "people")
        for at in range(begin, until)
    )


def says_pans(line: Line) -> bool:
    return any((found := vocabulary().yields.match(line, n)) and found[0] == "pans" for n in range(len(line)))


def with_found(made: Makes, text: str, found: Makes) -> Makes:
    if not (found.pieces or found.pans or found.people):
        return made
    said = text.strip(" :") if "(" in text.strip()[1:] else text.strip(" ():")
    words = "; ".join(filter(None, [made.words, said]))
    new = {key: value for key, value in found if value is not None and getattr(made, key) is None}
    return made.model_copy(update={**new, "words": words[:300]}) if new else made


SAYS_SO = re.compile(r"\b(?:makes|gives|yields?|makes about|ergibt|reicht für|serves|feeds)\b[^.;!?\n]{0,60}|\bmake(?:s|d)? (?:it |them |up )?into [^.;!?\n]{1,24}|\b(?:divide|shape|form|roll|cut)\w* (?:\w+ ){0,3}into \w+ (?:equal |even |small |large |round )?(?:pieces|balls|buns|rolls|rounds|bagels|portions)|\((?:makes |teig für |für )?[^()]{0,30}\b(?:stück|stk\.?|st\.|doz\w*|pieces|rolls|buns)[^()]{0,12}\)", re.IGNORECASE)
"""What says in a sentence how many come of it."""

DOZENS = re.compile(r"\b(?:\d+|one|two|three|half a) dozen\b", re.IGNORECASE)


def said_in(text: str) -> list[str]:
    """The parts of a line that say how many come of it: "Makes 4 large loaves." at the end of a paragraph, "2 dozen" behind a title."""
    return [found[0].strip("() ") for pattern in (SAYS_SO, DOZENS) for found in pattern.finditer(text)]


EACH_OF = re.compile(r"\s*\d+ ?(?:@|x|×|à|of) ?\d+ ?(?:g|oz)\b|\d{1,3}\s*\)\s*$", re.IGNORECASE)
"""Pieces and what each weighs, "8 @ 115 g"; or a number alone in brackets, "(18)"."""

TITLE_ENDS = ("(", " – ", " — ", " - ", " | ", ", ", ": ")


def behind_title(text: str, names: Names) -> tuple[str, str]:
    """A title, and the yield that stands behind it, in brackets or behind a dash; blank where it is all title."""
    for mark in TITLE_ENDS:
        front, found, behind = text.partition(mark)
        said = tokens(behind)
        if found and front.strip() and (is_yield(said, names) or EACH_OF.match(behind) or any(pan_at(said, at) for at in range(len(said)))):
            return front, behind
    front, by, count = text.rpartition(" x ")
    if by and front.strip() and count.strip().isdecimal():
        return front, count
    return text, ""


def makes_of(line: Line) -> Makes:
    """ "makes 12", "two 9-inch pans", "one 23 × 33 cm pan of 12"."""
    words = vocabulary()
    found = Makes()
    at = 0
    while at < len(line):
        if (pan := pan_at(line, at)) and not of_a_piece(pan, line):
            size, at = pan
            found = found.model_copy(update={"pan": size, "pans": found.pans or 1})
            if (after := words.yields.match(line, at)) and after[0] == "round" and isinstance(size, RectanglePan):
                at = after[1]
            continue
        number = quantity(line, at)
        if not number:
            if (word := words.yields.match(line, at)) and word[0] == "pans" and found.pans is None and found.pan:
                found = found.model_copy(update={"pans": 1})
            at += 1
            continue
        count, end = number[0].low, number[1]
        at = end
        whole = int(count) if 1 <= count <= 10_000 and count == int(count) else None
        if whole is None:
            continue
        soon = word_soon(line, end)
        if soon == "people" or (not soon and people_before(line, end)):
            found = found.model_copy(update={"people": found.people or whole})
        elif ((pan := pan_at(line, end)) and not of_a_piece(pan, line)) or soon == "pans":
            found = found.model_copy(update={"pans": whole})
        elif is_time(line, end - 1) or vocabulary().heat.match(line, end) or (measure(line, end) and soon != "pieces"):
            continue  # minutes, an oven or a weight
        elif found.pieces is None:
            found = found.model_copy(update={"pieces": whole})
    return found


SMALLEST_PAN_CM = 16.0
"""A round of less is a piece and no pan: "1 dozen (4-inch)". Common practice, no source. [cm]"""


def of_a_piece(pan: tuple[Pan, int], line: Line) -> bool:
    return isinstance(pan[0], RoundPan) and pan[0].diameter_cm < SMALLEST_PAN_CM and word_soon(line, pan[1]) != "pans"


def people_before(line: Line, end: int) -> bool:
    """Whether the count that ends there is of people: "serves 8", "Servings: 12"."""
    return any(t.word in vocabulary().grammar["people"] for t in line[max(0, end - 4) : end])


def word_soon(line: Line, at: int) -> str:
    """Whether pieces or pans are meant by the number before: the first such word behind it, before the next number."""
    for n in range(at, min(len(line), at + 5)):
        if line[n].kind in ("number", "fraction"):
            return ""
        if (found := vocabulary().yields.match(line, n)) and found[0] in ("pieces", "pans", "people"):
            return found[0]
    return ""


def pan_at(line: Line, at: int) -> tuple[Pan, int] | None:
    """A pan by its size: "9 × 13-inch", "23 cm", "9-inch round"."""
    first = size_at(line, at)
    if not first:
        return None
    length, end = first
    if end < len(line) and line[end].word in ("x", "×", "by", "*", "mal") and (second := size_at(line, end + 1)):
        width, end = second
        unit = width[1] or length[1]
        if not unit and word_soon(line, end) == "pans":
            unit = CM_PER_IN if max(length[0], width[0]) <= MOST_PAN_INCHES else 1.0
        sizes = sorted((length[0] * (length[1] or unit), width[0] * unit), reverse=True)
        if unit and all(0 < size <= 1000 for size in sizes):
            pan = RectanglePan(length_cm=round(sizes[0], 2), width_cm=round(sizes[1], 2), depth_cm=PAN_DEPTH_CM)
            return pan, end
        return None
    across = length[0] * length[1]
    if not 0 < across <= 1000:
        return None
    square = any(t.word in ("square", "quadratisch") for t in line[end : end + 3])
    if square:
        return SquarePan(side_cm=round(across, 2), depth_cm=PAN_DEPTH_CM), end
    return RoundPan(diameter_cm=round(across, 2), depth_cm=PAN_DEPTH_CM), end


IN_A = {"a", "an", "the", "one", "two", "my", "each", "your"}


def size_at(line: Line, at: int) -> tuple[tuple[float, float], int] | None:
    """A number, and centimetres in its unit (0 where none follows)."""
    if at >= len(line) or line[at].kind not in ("number", "fraction"):
        return None
    value, end = line[at].value, at + 1
    if end < len(line) and line[end].kind == "fraction" and line[end].value < 1:
        value, end = value + line[end].value, end + 1
    dashed = end + 1 if end < len(line) and line[end].text == "-" else end
    unit = vocabulary().lengths.match(line, dashed)
    if unit and line[dashed].word == "in" and dashed == end and unit[1] < len(line) and line[unit[1]].word in IN_A:
        unit = None  # "15 in a 9 × 13"
    return ((value, unit[0]), unit[1]) if unit else ((value, 0.0), end)
