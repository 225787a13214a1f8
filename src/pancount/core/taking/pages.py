"""A whole recipe: which line is the title, the yield, a heading, an ingredient, a step or a note."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import islice
from typing import Literal

from pancount.core.base import Frozen, Words
from pancount.core.formula import Role
from pancount.core.measures import measures
from pancount.core.pan import Pan, RectanglePan, RoundPan, SquarePan
from pancount.core.stages import BEFORE, kinds
from pancount.core.taking.amounts import Line, amount, measure, past_about, quantity
from pancount.core.taking.headings import group, is_part, is_time, label, without_all, without_bullet
from pancount.core.taking.parting import NEAR, spoken
from pancount.core.taking.placed import amount_behind
from pancount.core.taking.plain import BULLET, as_read
from pancount.core.taking.tokens import tokens
from pancount.core.taking.vocabulary import Names, vocabulary
from pancount.core.units import CM_PER_IN

Kind = Literal["blank", "title", "yield", "heading", "ingredient", "step", "note"]

LONGEST_HEADING = 7
"""Words."""
LONGEST_TITLE = 14
"""Words, signs and numbers."""
LONGEST_INGREDIENT = 26
"""Words: a longer line without an amount in front is a step or a note."""
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


@dataclass(frozen=True, slots=True)
class Written:
    """A line and what it is; `group` is the heading it stands under, `apart` where that keeps it out of the dough."""

    text: str
    kind: Kind
    group: str = ""
    apart: str = ""
    again: str = ""
    """The stage further up that an ingredient may be: "100 g levain"."""
    read: str = ""
    """The line as it is read: signs and shortened words written out."""
    unsure: bool = False
    """Of a heading: whether its words do not tell where its lines go."""


def classify(text: str, names: Names) -> list[Written]:
    """What each line of a recipe is. Never raises."""
    texts = text.split("\n")
    reads = as_read(texts)
    lines = [without_bullet(tokens(read), names) for read in reads]
    found = _classified(reads, lines, names)
    return [replace(line, text=raw, read=read) for line, raw, read in zip(found, texts, reads, strict=True)]


def _classified(texts: Sequence[str], lines: Sequence[Line], names: Names) -> list[Written]:
    found: list[Written] = []
    mode: Literal["start", "ingredients", "method", "notes"] = "start"
    under = apart = ""
    headings = [_heading(raw, line, names) if line else "" for raw, line in zip(texts, lines, strict=True)]
    begins = headings.index("ingredients") if "ingredients" in headings else 0
    if any(_measured(line) and _known(line, names) for line in lines[:begins]):
        begins = 0  # what is measured above it is no talk
    ends = headings.index("method") if "method" in headings and "ingredients" in headings[: headings.index("method")] else 0
    titled = _title_at(texts, lines, headings, names)
    for n, (raw, line) in enumerate(zip(texts, lines, strict=True)):
        if not line:
            found.append(Written(raw, "blank" if not raw.strip() else "note"))
            continue
        heading = headings[n]
        apart_from_list = mode == "ingredients" and (not lines[n - 1] or any(t.text == "(" for t in line))
        if not heading and len(line) <= LONGEST_UNMARKED and _ingredients_follow(lines, n, names) and ((apart_from_list and _heads(line, names)) or (found and _may_head(raw, line, lines, n, names))):
            heading = "group"
        if heading == "group" and mode == "method" and not _ingredients_follow(lines, n, names):
            heading = ""
        if heading == "group" and (_is_yield(line, names) or n == titled or _chats(line)):
            heading = ""
        if heading in ("ingredients", "method", "notes"):
            mode = heading  # type: ignore[assignment]
            under = apart = ""
            found.append(Written(raw, "heading"))
        elif heading and not raw.rstrip().endswith(":") and _was_made(line, found):
            found.append(Written(raw, "note"))
        elif heading:
            mode = "ingredients"
            under, apart, known = group(line)
            found.append(Written(raw, "heading", under, apart, unsure=not known))
        elif (mode not in ("method", "notes") or len(line) <= SHORT_YIELD) and _is_yield(line, names):
            found.append(Written(raw, "yield"))
        elif n == titled:
            found.append(Written(raw, "title"))
        elif n < begins or (mode not in ("method", "notes") and _is_crumb(line, found[-1:], names)):
            found.append(Written(raw, "note"))
        elif mode == "method" and (headed := _headed_list(line, names)):
            found.append(Written(raw, "ingredient", *group(headed)[:2]))
        elif mode in ("method", "notes"):
            found.append(Written(raw, "step" if mode == "method" else "note", under))
        else:
            headed = label(line, names)
            again = "" if headed else _stage_above(line, under, found, names)
            puts_in = (again and _means_all(line)) or _all_of_numbers(line) or bool(stated(line))
            kind = "note" if puts_in else _kind(raw, line, headed, names, found)
            if kind == "step" and n < ends and line[0].kind == "number" and names.find(spoken(line[2 : 2 + NEAR])):
                kind = "ingredient"  # "7. Rosemary and flaky salt" in a list that is numbered too
            at_label = group(headed) if headed else None
            where = at_label[:2] if at_label else (under, apart)
            found.append(Written(raw, kind, *where, again) if kind == "ingredient" else Written(raw, kind))
            if kind == "step":
                mode = "method"
            elif kind == "ingredient":
                mode = "ingredients"
    return found


CRUMBS = (" > ", " » ", " › ", "★", "☆", "skip to", "jump to", "from:", "print recipe", "http")
"""What tells a line of a page's furniture: the way to it, its stars."""


def _chats(line: Line) -> bool:
    """Whether someone talks in it: "Hi everyone", "my go-to". """
    return any(t.word in vocabulary().grammar["chat"] for t in line)


TITLE_WITHIN = 60
"""Lines from the top among which the title is looked for."""


def _title_at(texts: Sequence[str], lines: Sequence[Line], headings: Sequence[str], names: Names) -> int:
    """Which line is the title: of those before the first ingredient or heading that can be one the first that neither talks nor is
    a page's furniture; else the first that can be. −1 where none can."""
    can: list[int] = []
    for n, (raw, line) in enumerate(zip(texts[:TITLE_WITHIN], lines, strict=False)):
        if not line:
            continue
        names_the_bread = not can and headings[n] == "group" and (_names_the_bread(raw, line) or _heads_the_page(texts, lines, n))
        if (headings[n] and not names_the_bread) or ((_measured(line) or _told_amount(line)) and _known(line, names)) or _says_yield(line, names):
            break
        if label(line, names):
            break
        if names_the_bread or (not raw.rstrip().endswith(":") and _is_title(raw, line, names) and not _is_crumb(line, (), names)):
            can.append(n)
    plainly = [
        n
        for n in can
        if not _chats(lines[n])
        and not any(mark in f" {texts[n].casefold()} " for mark in CRUMBS)
        and not texts[n].rstrip().endswith(("!", "?", "…", ":)"))
    ]
    return next(iter(plainly or can), -1)


def _heads_the_page(texts: Sequence[str], lines: Sequence[Line], n: int) -> bool:
    """Whether a marked first line is the page's name and no stage's: "# Rye knots", "ENRICHED DOUGH", with no measure below it."""
    if any(lines[:n]) or texts[n].rstrip().endswith(":"):
        return False
    return not any(map(_measured, _behind(lines, n, 1)))


def _says_yield(line: Line, names: Names) -> bool:
    found = vocabulary().yields.match(line, 0)
    return bool(found and found[0] == "makes") and _is_yield(line, names)


LONGEST_UNMARKED = 12
"""Words, signs and numbers of a line that may head others though nothing marks it."""
MOST_TO_HEAD = 4
"""Words of a heading that nothing marks as one."""


def _may_head(raw: str, line: Line, lines: Sequence[Line], n: int, names: Names) -> bool:
    """Whether a short line without an amount, over lines that measure, is likely a heading that no list knows: "Outside"; or the name
    of what is made of several things: "Chocolate spread" over sugar, cocoa and butter."""
    words = sum(t.kind == "word" for t in line)
    if not 0 < words <= MOST_TO_HEAD or _has_amount(line) or any(t.text in ",;.!?/|" for t in line):
        return False
    if _starts_purpose(line) or line[0].word in vocabulary().grammar["besides"]:
        return True
    after = _behind(lines, n, 3)
    measured = sum(_measured(one) or (_starts_with_amount(one) and _known(one, names)) for one in after)
    known = names.find([t.word for t in line])
    if known is None:
        return measured >= 1 and (not lines[n - 1] or measured >= 2) and not _chats(line)
    whole = known[2] - known[1] == words
    made_of = known[0].ingredient is not None and known[0].ingredient.role in (Role.INCLUSION, Role.MASH)
    before = any(_measured(one) for one in lines[:n])
    apart = not lines[n - 1] and known[0].ingredient is not None and known[0].ingredient.role not in (Role.SALT, Role.LEAVEN, Role.FLOUR)
    return whole and (made_of or apart) and before and measured >= 2 and raw[:1].isupper()


def _starts_purpose(line: Line) -> bool:
    """ "To boil", "Zum Wälzen": a purpose, and nothing else."""
    return is_part(line, 0) and line[0].word in vocabulary().grammar["for"] | {"to"}


def _heads(line: Line, names: Names) -> bool:
    """Whether a short line without an amount speaks of a stage or a topping, beside any ingredient: "Roomal (glaze)",
    "onion filling", but not "almond paste"."""
    words = vocabulary()
    heads = [n for n in range(len(line)) if words.stages.match(line, n) or words.apart.match(line, n)]
    if len(line) > LONGEST_HEADING or not heads:
        return False
    known = names.find([t.word for t in line])
    beside = not known or any(not known[1] <= n < known[2] for n in heads)
    return beside and not _has_amount(line)


def _was_made(line: Line, before: Sequence[Written]) -> bool:
    """Whether a heading of the same name stands further up: "Sponge" in a list puts it in."""
    name, apart, _ = group(line)
    return not apart and any(w.kind == "heading" and w.group.casefold() == name.casefold() for w in before)


def _stage_above(line: Line, under: str, before: Sequence[Written], names: Names) -> str:
    """The earlier heading whose stage a line names, or blank: "levain", but not the paste of "almond paste"."""
    said = [t.word for t in line]
    if (known := names.find(said)) and known[2] - known[1] > 1:
        said[known[1] : known[2]] = []
    for name in dict.fromkeys(w.group for w in before if w.kind == "heading" and not w.apart):
        if name not in ("", under) and any(_stands_in(stage, said) for stage in _called(name)):
            return name
    return ""


def _stands_in(words: Sequence[str], said: Sequence[str]) -> bool:
    return any(list(said[at : at + len(words)]) == list(words) for at in range(len(said)))


def _called(name: str) -> list[list[str]]:
    """What a heading's stage may be called further down: "Levain build, overnight" is "the levain" too."""
    words = [t.word for t in tokens(name)]
    return [words, *([word] for word in words if word in MADE_BEFORE)]


MADE_BEFORE = {word for kind in BEFORE for word in kinds()[kind].words} - {"build"}
"""Words for what is made before the dough and put into it."""


def _headed_list(line: Line, names: Names) -> Line:
    """What heads a line among the steps that measures what is beside the dough: "Top: 1 pint tomatoes + oregano"; empty for a step."""
    headed = label(line, names)
    beside = headed and group(headed).apart and _starts_with_amount(line[len(headed) :])
    return headed if beside and len(line) <= LONGEST_INGREDIENT else ()


def _all_of_numbers(line: Line) -> bool:
    """ "All of 1) and 2)": stages by their numbers."""
    small = vocabulary().grammar
    words = {t.word for t in line if t.kind == "word"}
    return bool(words & small["all"]) and words <= small["all"] | small["of"] | small["and"] | {"stage", "part", "stages"}


def stated(line: Line) -> dict[str, float]:
    """What a line says that the page's cups and spoons hold: "Cup = 250 ml, tablespoon = 20 ml", "I use 240 ml cups". [ml]"""
    words, found = vocabulary(), {}
    for at in range(len(line)):
        measured = words.measures.match(line, at)
        if not measured or measured[0] not in ("cup", "tbsp", "tsp"):
            continue
        begin = measured[1] + 1 if measured[1] < len(line) and line[measured[1]].word in MEANS else 0
        behind = amount(line, begin) if begin else None
        before = next((a for n in range(max(0, at - 3), at) if (a := amount(line, n)) and a[1] == at), None) if not behind else None
        for said in (behind, before):
            if said and said[0].parts[0].measure == "ml" and LEAST_ML[measured[0]] <= said[0].parts[0].usual <= 1.3 * MOST_ML[measured[0]]:
                found[measured[0]] = said[0].parts[0].usual
    return found


MEANS = {"=", ":", "is", "are", "of", "holds", "hold", "means"}
LEAST_ML = {"cup": 180.0, "tbsp": 12.0, "tsp": 3.5}
MOST_ML = {"cup": 284.0, "tbsp": 20.0, "tsp": 6.0}
"""What a cup or spoon may be said to hold, to a third more. [ml]"""


def _means_all(line: Line) -> bool:
    """Whether a line puts in all of a stage, "all the levain", "sponge": what is in that is in the dough already."""
    return any(t.word in vocabulary().grammar["all"] for t in line) or not _has_amount(line)


def _is_crumb(line: Line, before: Sequence[Written], names: Names) -> bool:
    """What a copied web page leaves behind: "1x 2x 3x"; "US – metric" under the heading; "total dough 1698 g"."""
    if all(t.kind != "word" or t.word == "x" for t in line) or vocabulary().asides.match(line, 0):
        return True
    if not any(w.kind == "heading" and not w.group for w in before):
        return False
    return not _known(line, names) and not _has_amount(line)


def _has_amount(line: Line) -> bool:
    return any(amount(line, at) for at in range(len(line)) if not is_time(line, at))


def _starts_with_amount(line: Line) -> bool:
    return amount(line, 0) is not None


def _measured(line: Line) -> bool:
    found = amount(line, 0)
    return found is not None and bool(found[0].parts[0].measure)


def _known(line: Line, names: Names) -> bool:
    return names.find([t.word for t in line]) is not None


def _names_the_bread(raw: str, line: Line) -> bool:
    """ "Buns" at the top of a page is its title, though further down it would head the dough's part."""
    found = vocabulary().yields.match(line, 0)
    return found is not None and found[0] == "pieces" and not raw.rstrip().endswith(":")


def _behind(lines: Sequence[Line], n: int, most: int) -> list[Line]:
    """The next lines behind one that hold anything."""
    return list(islice((lines[m] for m in range(n + 1, len(lines)) if lines[m]), most))


def _ingredients_follow(lines: Sequence[Line], n: int, names: Names) -> bool:
    after = next(iter(_behind(lines, n, 1)), ())
    if after and len(after) <= 3 and names.exactly(" ".join(t.text for t in after)):
        return True  # "To sprinkle" over "coarse salt"
    return _measured(after) or (_starts_with_amount(after) and _known(after, names) and len(after) <= LONGEST_HEADING)


def _heading(raw: str, line: Line, names: Names) -> str:
    """ "ingredients", "method", "notes", "group", or blank for what is no heading."""
    words = [t for t in line if t.kind == "word"]
    body = [t for t in line if t.text not in ":#=_"]
    marked = raw.rstrip().endswith(":") or raw.lstrip().startswith(("#", "==", "__"))
    if not words or len(words) > LONGEST_HEADING:
        return ""
    known = vocabulary().headings.match(body, 0)
    if known and known[0] == "ingredients" and known[1] < len(body) and body[known[1]].word in vocabulary().grammar["leading"]:
        return "group"  # "ingredients for the glaze"
    if known and known[0] == "ingredients" and known[1] < len(body) and group(body).known:
        return "group"  # "what you'll need (outside)"
    if known and (known[1] == len(body) or marked or body[known[1]].text == "("):
        return known[0]
    if _starts_with_amount(line) or vocabulary().asides.match(body, 0):
        return ""
    if marked:
        return "group"
    shouted = raw.strip().isupper() and len(words) > 1 and not _known(line, names)
    before = next((n for n, t in enumerate(body) if t.text == "("), len(body))
    name = body if _has_amount(body[before:]) else body[:before]  # "levain (build the night before)"
    alone = bool(name) and is_part(name, 1 if name[0].word == "the" else 0)
    begins = body[0].word in vocabulary().grammar["for"] and len(body) > 1 and not _known(line, names) and not raw.rstrip().endswith(".")
    return "group" if shouted or alone or begins else ""


LONGEST_YIELD = 16
"""Words, signs and numbers."""
SHORT_YIELD = 8
"""The same, among the steps, as in "Makes 12 rolls"."""


def _is_yield(line: Line, names: Names) -> bool:
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
    if not counted or _known(line, names):
        return False
    # "12 Stück" is a yield though a Stück is a measure; of any other measure there is something.
    until = counted[1] + 1 if _measured(line) else min(len(line), counted[1] + 3)
    return any(
        (word := vocabulary().yields.match(line, at)) and word[0] in ("pieces", "pans", "people")
        for at in range(begin, until)
    )


def _is_title(raw: str, line: Line, names: Names) -> bool:
    if _behind_title(raw, names)[1]:
        return True
    if _measured(line) or _told_amount(line) or len(line) > LONGEST_TITLE:
        return False
    if any(_known(line[:at], names) and _measured(line[at:]) for at in range(1, len(line))):
        return False  # "flour 3 c", but not "Buns: formula for 5 kg flour"
    if _starts_with_amount(line):
        return not _known(line, names)
    return True


def _tells_facts(line: Line) -> bool:
    """Whether it tells a time or a temperature."""
    return any(is_time(line, at) or (quantity(line, at) and vocabulary().heat.match(line, at + 1)) for at in range(len(line)))


MOST_NAMED = 6
"""Words of a line that is taken for an ingredient for the weight at its end."""
MOST_COUNTED = 4
"""Words behind a bare count among which its ingredient is looked for: "3 large ripe bananas"."""


def _says_pans(line: Line) -> bool:
    return any((found := vocabulary().yields.match(line, n)) and found[0] == "pans" for n in range(len(line)))


def _told_amount(line: Line) -> int:
    """Where the amount ends in a line that tells it in passing: "then three quarters of a cup of yogurt"; 0 for any other."""
    begin = next((n for n, t in enumerate(line) if t.word not in vocabulary().grammar["so"]), 0)
    found = amount(line, begin) if 0 < begin <= MOST_COUNTED else None
    return found[1] if found and found[0].parts[0].measure else 0


def _kind(raw: str, line: Line, headed: Line, names: Names, before: Sequence[Written]) -> Kind:
    """An ingredient, a step or a note, for a line under no heading that says so; `headed` is its label."""
    last = next((w.kind for w in reversed(before) if w.kind != "blank"), "")
    words = sum(t.kind == "word" for t in line)
    if line[0].kind == "number" and len(line) > 2 and line[1].text in ".)" and line[2].kind == "word":
        return "step"
    if headed and not _known(line, names) and _says_pans(line):
        return "note"  # "Tins: 2 × GN 1/1"
    if headed:
        return "ingredient" if _starts_with_amount(without_all(line[len(headed) :], names)) or not raw.rstrip().endswith(".") else "step"
    if _tells_facts(line) and not names.find(spoken(line)):
        return "step"  # "bulk 5 h with 4 folds", "170 C 15 min"
    front = amount(line, 0)
    if front and (front[0].parts[0].measure or words <= MOST_COUNTED or names.find(spoken(line[front[1] : front[1] + MOST_COUNTED]))):
        return "ingredient" if words <= LONGEST_INGREDIENT or front[0].parts[0].measure else "note"
    if front:
        return "note"  # "40 times and 2 bowls" count no ingredient
    behind = amount_behind(line)[0] if words <= MOST_NAMED else None
    if behind and measures()[behind.parts[0].measure or "each"].kind == "weight" and not raw.rstrip().endswith("."):
        return "ingredient"  # "Knot mix 1000 g"
    told = _told_amount(line)
    if told and names.find(spoken(line[told : told + NEAR])):
        return "ingredient"  # "and about a cup of warm water"
    if len(line) > 2 and line[1].kind == "sign" and _measured(line[2:]):
        return "ingredient"  # "oil - 2 tbsp, plus more"
    if last == "step":
        return "step"
    verb = vocabulary().verbs.match(line, 0)
    if verb and vocabulary().states.match(line, 0) and names.starting([t.word for t in line], verb[1]):
        verb = None  # "warm water, just under a pint"
    known = _known(line, names)
    if verb and words >= 3 and not (known and words <= 4 and not raw.rstrip().endswith(".")):
        return "step"
    ends = raw.rstrip().endswith((".", "!"))
    if words > 10 and ends:
        return "step" if any(w.kind == "ingredient" for w in before) else "note"
    if words > 3 and ends:
        return "note"
    if known and words <= LONGEST_INGREDIENT:
        return "ingredient"
    if ends or words > 10:
        return "note"
    return "ingredient" if any(w.kind == "ingredient" for w in before) else "note"


def makes(lines: Sequence[Written], names: Names) -> Makes:
    """What the recipe makes: from its yield lines, from what stands behind its title or a heading, then from a sentence anywhere that
    says so. Never raises."""
    made = Makes()
    for kind in ("yield", "title", "heading"):
        for line in lines:
            if line.kind == kind:
                text = line.read if kind == "yield" else _behind_title(line.read, names)[1]
                made = _with(made, text, _makes(tokens(text.replace(")", " ").replace("(", " "))))
    for line in lines:
        if made.pieces is None and line.kind not in ("yield", "blank"):
            for text in _said_in(line.read):
                made = _with(made, text, _makes(tokens(text)))
    return made


def _with(made: Makes, text: str, found: Makes) -> Makes:
    if not (found.pieces or found.pans or found.people):
        return made
    said = text.strip(" :") if "(" in text.strip()[1:] else text.strip(" ():")
    words = "; ".join(filter(None, [made.words, said]))
    new = {key: value for key, value in found if value is not None and getattr(made, key) is None}
    return made.model_copy(update={**new, "words": words[:300]}) if new else made


SAYS_SO = re.compile(r"\b(?:makes|gives|yields?|makes about|ergibt|reicht für|serves|feeds)\b[^.;!?\n]{0,60}|\bmake(?:s|d)? (?:it |them |up )?into [^.;!?\n]{1,24}|\b(?:divide|shape|form|roll|cut)\w* (?:\w+ ){0,3}into \w+ (?:equal |even |small |large |round )?(?:pieces|balls|buns|rolls|rounds|bagels|portions)|\((?:makes |teig für |für )?[^()]{0,30}\b(?:stück|stk\.?|st\.|doz\w*|pieces|rolls|buns)[^()]{0,12}\)", re.IGNORECASE)
"""What says in a sentence how many come of it."""
DOZENS = re.compile(r"\b(?:\d+|one|two|three|half a) dozen\b", re.IGNORECASE)


def _said_in(text: str) -> list[str]:
    """The parts of a line that say how many come of it: "Makes 4 large loaves." at the end of a paragraph, "2 dozen" behind a title."""
    return [found[0].strip("() ") for pattern in (SAYS_SO, DOZENS) for found in pattern.finditer(text)]


def title(lines: Sequence[Written], names: Names) -> str:
    """The title without the yield behind it; blank where there is none."""
    text = next((w.read for w in lines if w.kind == "title"), "")
    return _behind_title(text, names)[0].strip(" #*=_:")[:300]


EACH_OF = re.compile(r"\s*\d+ ?(?:@|x|×|à|of) ?\d+ ?(?:g|oz)\b", re.IGNORECASE)
"""Pieces and what each weighs: "8 @ 115 g"."""
TITLE_ENDS = ("(", " – ", " — ", " - ", " | ", ", ", ": ")


def _behind_title(text: str, names: Names) -> tuple[str, str]:
    """A title, and the yield that stands behind it, in brackets or behind a dash; blank where it is all title."""
    for mark in TITLE_ENDS:
        front, found, behind = text.partition(mark)
        said = tokens(behind)
        if found and front.strip() and (_is_yield(said, names) or EACH_OF.match(behind) or any(_pan(said, at) for at in range(len(said)))):
            return front, behind
    front, by, count = text.rpartition(" x ")
    if by and front.strip() and count.strip().isdecimal():
        return front, count
    return text, ""


def _makes(line: Line) -> Makes:
    """ "makes 12", "two 9-inch pans", "one 23 × 33 cm pan of 12"."""
    words = vocabulary()
    found = Makes()
    at = 0
    while at < len(line):
        if (pan := _pan(line, at)) and not _of_a_piece(pan, line):
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
        soon = _word_soon(line, end)
        if soon == "people" or (not soon and _people_before(line, end)):
            found = found.model_copy(update={"people": found.people or whole})
        elif ((pan := _pan(line, end)) and not _of_a_piece(pan, line)) or soon == "pans":
            found = found.model_copy(update={"pans": whole})
        elif is_time(line, end - 1) or vocabulary().heat.match(line, end) or (measure(line, end) and soon != "pieces"):
            continue  # minutes, an oven or a weight
        elif found.pieces is None:
            found = found.model_copy(update={"pieces": whole})
    return found


SMALLEST_PAN_CM = 16.0
"""A round of less is a piece and no pan: "1 dozen (4-inch)". Common practice, no source. [cm]"""


def _of_a_piece(pan: tuple[Pan, int], line: Line) -> bool:
    return isinstance(pan[0], RoundPan) and pan[0].diameter_cm < SMALLEST_PAN_CM and _word_soon(line, pan[1]) != "pans"


def _people_before(line: Line, end: int) -> bool:
    """Whether the count that ends there is of people: "serves 8", "Servings: 12"."""
    return any(t.word in vocabulary().grammar["people"] for t in line[max(0, end - 4) : end])


def _word_soon(line: Line, at: int) -> str:
    """Whether pieces or pans are meant by the number before: the first such word behind it, before the next number."""
    for n in range(at, min(len(line), at + 5)):
        if line[n].kind in ("number", "fraction"):
            return ""
        if (found := vocabulary().yields.match(line, n)) and found[0] in ("pieces", "pans", "people"):
            return found[0]
    return ""


def _pan(line: Line, at: int) -> tuple[Pan, int] | None:
    """A pan by its size: "9 × 13-inch", "23 cm", "9-inch round"."""
    first = _size(line, at)
    if not first:
        return None
    length, end = first
    if end < len(line) and line[end].word in ("x", "×", "by", "*", "mal") and (second := _size(line, end + 1)):
        width, end = second
        unit = width[1] or length[1]
        if not unit and _word_soon(line, end) == "pans":
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


def _size(line: Line, at: int) -> tuple[tuple[float, float], int] | None:
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


def without_number(text: str) -> str:
    """A step without the number in front of it, or its bullet.

    >>> without_number("2. Knead."), without_number("• Rest 10 min.")
    ('Knead.', 'Rest 10 min.')
    """
    text = BULLET.sub("", text)
    line = without_bullet(tokens(text))
    if len(line) > 2 and line[0].kind == "number" and line[1].text in ".):":
        return text[line[2].start :].strip()
    return text[line[0].start :].strip() if line else ""


def settle_kinds(lines: list[Written], kinds: dict[int, Kind]) -> list[Written]:
    """The lines with what the baker said they are, by their number."""
    return [replace(line, kind=kinds[n]) if n in kinds else line for n, line in enumerate(lines)]
