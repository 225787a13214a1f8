"""A whole recipe: which line is the title, the yield, a heading, an ingredient, a step or a note."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from pancount.core.formula.stages import BEFORE, kinds
from pancount.core.pantry.measures import measures
from pancount.core.pantry.role import Role
from pancount.core.taking.amounts import Line, amount
from pancount.core.taking.clauses import clauses
from pancount.core.taking.headings import group, is_part, is_time, label, without_all, without_bullet
from pancount.core.taking.parting import NEAR, spoken
from pancount.core.taking.placed import amount_behind
from pancount.core.taking.plain import BULLET, as_read
from pancount.core.taking.telling import (
    MOST_COUNTED,
    chats,
    has_amount,
    holds_name,
    is_furniture,
    is_measured,
    lines_behind,
    starts_with_amount,
    tells_facts,
    told_amount,
)
from pancount.core.taking.titles import title_at
from pancount.core.taking.tokens import tokens
from pancount.core.taking.vocabulary import Names, vocabulary
from pancount.core.taking.yields import (
    SHORT_YIELD,
    Makes,
    behind_title,
    is_yield,
    makes_of,
    said_in,
    says_pans,
    with_found,
)

Kind = Literal["blank", "title", "yield", "heading", "ingredient", "step", "note"]

LONGEST_HEADING = 7
"""Words."""

LONGEST_INGREDIENT = 26
"""Words: a longer line without an amount in front is a step or a note."""


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
    if any(is_measured(line) and holds_name(line, names) for line in lines[:begins]):
        begins = 0  # what is measured above it is no talk
    ends = headings.index("method") if "method" in headings and "ingredients" in headings[: headings.index("method")] else 0
    titled = title_at(texts, lines, headings, names)
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
        if heading == "group" and (is_yield(line, names) or n == titled or chats(line)):
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
        elif (mode not in ("method", "notes") or len(line) <= SHORT_YIELD) and is_yield(line, names):
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


LONGEST_UNMARKED = 12
"""Words, signs and numbers of a line that may head others though nothing marks it."""

MOST_TO_HEAD = 4
"""Words of a heading that nothing marks as one."""


def _may_head(raw: str, line: Line, lines: Sequence[Line], n: int, names: Names) -> bool:
    """Whether a short line without an amount, over lines that measure, is likely a heading that no list knows: "Outside"; or the name
    of what is made of several things: "Chocolate spread" over sugar, cocoa and butter."""
    words = sum(t.kind == "word" for t in line)
    if not 0 < words <= MOST_TO_HEAD or has_amount(line) or any(t.text in ",;.!?/|" for t in line):
        return False
    if _starts_purpose(line) or line[0].word in vocabulary().grammar["besides"]:
        return True
    after = lines_behind(lines, n, 3)
    measured = sum(is_measured(one) or (starts_with_amount(one) and holds_name(one, names)) for one in after)
    known = names.find([t.word for t in line])
    if known is None:
        return measured >= 1 and (not lines[n - 1] or measured >= 2) and not chats(line)
    whole = known[2] - known[1] == words
    made_of = known[0].ingredient is not None and known[0].ingredient.role in (Role.INCLUSION, Role.MASH)
    before = any(is_measured(one) for one in lines[:n])
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
    return beside and not has_amount(line)


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
    beside = headed and group(headed).apart and starts_with_amount(line[len(headed) :])
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
    return any(t.word in vocabulary().grammar["all"] for t in line) or not has_amount(line)


def _is_crumb(line: Line, before: Sequence[Written], names: Names) -> bool:
    """What a copied web page leaves behind: "1x 2x 3x"; "US – metric" under the heading; "total dough 1698 g"."""
    if is_furniture(line):
        return True
    if not any(w.kind == "heading" and not w.group for w in before):
        return False
    return not holds_name(line, names) and not has_amount(line)


def _ingredients_follow(lines: Sequence[Line], n: int, names: Names) -> bool:
    after = next(iter(lines_behind(lines, n, 1)), ())
    if after and len(after) <= 3 and names.exactly(" ".join(t.text for t in after)):
        return True  # "To sprinkle" over "coarse salt"
    return is_measured(after) or (starts_with_amount(after) and holds_name(after, names) and len(after) <= LONGEST_HEADING)


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
    if starts_with_amount(line) or vocabulary().asides.match(body, 0):
        return ""
    if marked:
        return "group"
    shouted = raw.strip().isupper() and len(words) > 1 and not holds_name(line, names)
    before = next((n for n, t in enumerate(body) if t.text == "("), len(body))
    name = body if has_amount(body[before:]) else body[:before]  # "levain (build the night before)"
    alone = bool(name) and is_part(name, 1 if name[0].word == "the" else 0)
    begins = body[0].word in vocabulary().grammar["for"] and len(body) > 1 and not holds_name(line, names) and not raw.rstrip().endswith(".")
    return "group" if shouted or alone or begins else ""


_STEP_BY_NUMBER = re.compile(r"\s*(?:(?:step|schritt)\s*\d|\d{1,2}:\d\d\s)", re.IGNORECASE)


def _tells_steps(raw: str, line: Line) -> bool:
    """Whether a line is numbered as steps are, or tells several things to be done and how long one of them takes: a method in one paragraph."""
    if _STEP_BY_NUMBER.match(raw):
        return True
    acts = {clause.kind for clause in clauses(line)} - {"", "carry", "more"}
    return len(acts) > 1 and any(is_time(line, at) for at in range(len(line)))


MOST_NAMED = 6
"""Words of a line that is taken for an ingredient for the weight at its end."""


def _kind(raw: str, line: Line, headed: Line, names: Names, before: Sequence[Written]) -> Kind:
    """An ingredient, a step or a note, for a line under no heading that says so; `headed` is its label."""
    last = next((w.kind for w in reversed(before) if w.kind != "blank"), "")
    words = sum(t.kind == "word" for t in line)
    if line[0].kind == "number" and len(line) > 2 and line[1].text in ".)" and line[2].kind == "word":
        return "step"
    if headed and not holds_name(line, names) and says_pans(line):
        return "note"  # "Tins: 2 × GN 1/1"
    if headed:
        return "ingredient" if starts_with_amount(without_all(line[len(headed) :], names)) or not raw.rstrip().endswith(".") else "step"
    if _tells_steps(raw, line) and any(w.kind == "ingredient" for w in before):
        return "step"
    if tells_facts(line) and not names.find(spoken(line)):
        return "step"  # "bulk 5 h with 4 folds", "170 C 15 min"
    front = amount(line, 0)
    if front and (front[0].parts[0].measure or words <= MOST_COUNTED or names.find(spoken(line[front[1] : front[1] + MOST_COUNTED]))):
        return "ingredient" if words <= LONGEST_INGREDIENT or front[0].parts[0].measure else "note"
    if front:
        return "note"  # "40 times and 2 bowls" count no ingredient
    behind = amount_behind(line)[0] if words <= MOST_NAMED else None
    if behind and measures()[behind.parts[0].measure or "each"].kind == "weight" and not raw.rstrip().endswith("."):
        return "ingredient"  # "Knot mix 1000 g"
    told = told_amount(line)
    if told and names.find(spoken(line[told : told + NEAR])):
        return "ingredient"  # "and about a cup of warm water"
    if len(line) > 2 and line[1].kind == "sign" and is_measured(line[2:]):
        return "ingredient"  # "oil - 2 tbsp, plus more"
    if last == "step":
        return "step"
    verb = vocabulary().verbs.match(line, 0)
    if verb and vocabulary().states.match(line, 0) and names.starting([t.word for t in line], verb[1]):
        verb = None  # "warm water, just under a pint"
    known = holds_name(line, names)
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
                text = line.read if kind == "yield" else behind_title(line.read, names)[1]
                made = with_found(made, text, makes_of(tokens(text.replace(")", " ").replace("(", " "))))
    for line in lines:
        if made.pieces is None and line.kind not in ("yield", "blank"):
            for text in said_in(line.read):
                made = with_found(made, text, makes_of(tokens(text)))
    return made


def title(lines: Sequence[Written], names: Names) -> str:
    """The title without the yield behind it; blank where there is none."""
    text = next((w.read for w in lines if w.kind == "title"), "")
    return behind_title(text, names)[0].strip(" #*=_:")[:300]


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
