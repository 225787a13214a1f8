"""Where one line holds several things: rows, what is stirred in, what is more of the same, alternatives."""

from pancount.core.taking.amounts import Line, amount
from pancount.core.taking.tokens import Token
from pancount.core.taking.vocabulary import Names, vocabulary

NEAR = 8
"""How far from a joiner a name is looked for, so that a line of joiners alone is soon read. Words."""


def spoken(line: Line) -> list[str]:
    """The words that may name an ingredient: "for egg wash" does not, though it says egg."""
    found = [t.word for t in line]
    at = 0
    while at < len(line):
        purpose = vocabulary().purposes.match(line, at)
        end = purpose[1] if purpose else at + 1
        if purpose:
            found[at:end] = [""] * (end - at)
        at = end
    return found


def split_extra(line: Line, names: Names, in_a_row: bool = False) -> tuple[Line, Line | None]:
    """What comes before "plus more …", "plus 1 …" or another thing in a row, and the line from there on, if any.

    `in_a_row`: names alone are a row too: "salt, pepper, caraway".
    """
    depth = 0
    for at in range(1, len(line)):
        depth += {"(": 1, ")": -1}.get(line[at].text, 0)
        found = vocabulary().extra.match(line, at)
        if found and not _is_amount(line[:at]):
            return _trimmed(line[:at]), line[found[1] :]
        if following := _following(line, at, names, in_a_row, inside=depth > 0):
            begin, lent = following
            return [*_trimmed(line[:at]), *lent], line[begin:]
    return line, None


def _following(line: Line, at: int, names: Names, in_a_row: bool, inside: bool) -> tuple[int, Line] | None:
    """Where another thing begins behind a joiner, and what it lends the one before. None where none does.

    `inside`: in brackets, where only an amount makes a thing.
    """
    window = line[at + 1 : at + 1 + 2 * NEAR]
    if line[at].text == "/" and not inside and names.find(spoken(line[max(0, at - NEAR) : at])):
        return (at + 1, ()) if _stands_alone(window, names) else None  # "20 g flour / 100 g milk", but not "180 g / 6 oz butter"
    if line[at].text == "," and not inside and not in_a_row and _ends_in_a_name(line, at, names):
        return at + 1, ()  # "1 yolk beaten with water, poppy seeds"
    if line[at].text in ",;":
        row = in_a_row and is_name(line[:at], names) and _next_is_name(line[:at], window, names)
        apart = line[at].text == ";" and _is_measured(window)  # in a row of its own, though nobody knows its name
        return (at + 1, ()) if row or (not inside and (apart or _stands_alone(window, names))) else None
    if line[at].word in vocabulary().grammar["into"]:
        # "dissolved in ¼ cup water", but not "in 2 pieces"
        return (at + 1, ()) if amount(window, 0) and _stands_alone(window, names) else None
    if not inside and not in_a_row and (begin := _runs_on(line, at, names)):
        return begin, ()
    joiner = vocabulary().joiners.match(line, at)
    if not (joiner and joiner[0] == "plus") and line[at].word not in vocabulary().grammar["with"]:
        return None
    begin = joiner[1] if joiner else at + 1
    if amount(line, begin) or (not inside and _two_names(line, at, begin, names)):
        return begin, ()
    lent = lent_by(line[:at], line[begin:], names) if in_a_row else ()
    return (begin, lent) if lent else None


def _ends_in_a_name(line: Line, at: int, names: Names) -> bool:
    """Whether behind the last comma stands another ingredient's name and nothing else, which is no part of the one before: "…, rye"."""
    behind = line[at + 1 :]
    if not 0 < len(behind) <= NEAR or not is_name(behind, names):
        return False
    before = [t for t in line[max(0, at - NEAR) : at] if t.kind == "word"]
    found, known = names.find(spoken(behind)), names.find(spoken(before))
    own = before[known[1] : known[2]] if known else []
    across = any(names.exactly(" ".join(t.word for t in order)) for order in ([*behind, *own], [*own, *behind], [*behind, *own[-1:]]))
    return known is not None and found is not None and known[0] != found[0] and not across


def _is_measured(line: Line) -> bool:
    found = amount(line, 0)
    return found is not None and bool(found[0].parts[0].measure) and found[1] < len(line)


def _runs_on(line: Line, at: int, names: Names) -> int:
    """Where the next thing begins when they are told without commas, "flour a teaspoon and a half of salt"; 0 where none does."""
    if at < 1 or line[at - 1].kind != "word" or line[at - 1].word in vocabulary().grammar["of"] or not names.find(spoken(line[max(0, at - NEAR) : at])):
        return 0
    found = amount(line, at)
    if not found or not found[0].parts[0].measure or found[0].parts[0].measure == "percent":
        return 0
    behind = [t for t in line[found[1] : found[1] + NEAR] if t.word not in vocabulary().grammar["of"]]
    named = names.find(spoken(behind[:4]))
    return at if named and not any(t.text in "(),;/|=" for t in behind[: named[2]]) else 0


def split_measured_or(line: Line, names: Names) -> tuple[Line, list[Line]]:
    """A line before "or" and each of what may be taken instead, where that has an amount of its own: "1 cup milk, or ¾ cup water + ¼ cup
    dried milk". None where no such "or" stands outside of brackets behind a name."""
    parts: list[Line] = []
    begin = at = depth = 0
    while at < len(line):
        depth += {"(": 1, ")": -1}.get(line[at].text, 0)
        found = vocabulary().joiners.match(line, at)
        if found and found[0] == "or" and depth <= 0 and amount(line, found[1]) and names.find(spoken(line[begin:at])):
            other = amount(line, found[1])
            if other and names.find(spoken(line[other[1] : other[1] + NEAR])):
                parts.append(_trimmed(line[begin:at]))
                begin = at = found[1]
                continue
        at += 1
    return (parts[0], [*parts[1:], line[begin:]]) if parts else (line, [])


def _is_amount(line: Line) -> bool:
    """Whether it is an amount and nothing else: "¼ cup" of "plus ¼ cup more"."""
    found = amount(line, 0)
    return found is not None and found[1] == len(line)


def _two_names(line: Line, at: int, begin: int, names: Names) -> bool:
    """Whether a name stands on both sides of a joiner and none across it: "egg + sesame", but not "half and half"."""
    first, last = line[max(at - NEAR, 0) : at], line[begin : begin + NEAR]
    if not names.find(spoken(first)) or not names.find(spoken(last)):
        return False
    across = names.find(spoken([*first, *line[at:begin], *last]))
    return not (across and across[1] < len(first) < across[2])


def lent_by(first: Line, last: Line, names: Names) -> Line:
    """What the first of two names leaves to the last to say: the seeds of "poppy or sesame seeds"; or nothing."""
    known = names.find(spoken(last[:NEAR])) if first else None
    begin, end = known[1:] if known else (0, 0)
    tails = (last[at:end] for at in range(begin + 1, end))
    return next((tail for tail in tails if is_name([*first, *tail], names)), ())


def is_name(line: Line, names: Names) -> bool:
    """Whether it is the name of an ingredient and nothing else."""
    found = names.find(spoken(line)) if len(line) <= NEAR else None
    return found is not None and found[2] - found[1] == len(line)


def _next_is_name(before: Line, line: Line, names: Names) -> bool:
    """Whether a name follows, and not the rest of the one before: "pepper, caraway", but not "flour, rye"."""
    end = next((n for n, t in enumerate(line) if t.text in ",;" or t.word in vocabulary().grammar["and"]), len(line))
    line = line[:end]
    return is_name(line, names) and not is_name([*line, *before], names)


def _stands_alone(line: Line, names: Names) -> bool:
    """Whether what follows a comma is a thing of its own: "…, 1 tbsp honey" or "…, water 300 g", up to the next one."""
    comma = next((n for n, t in enumerate(line) if t.text in ",;"), len(line))
    line = line[:comma]
    front = amount(line, 0)
    rest = line[front[1] :] if front else line
    found = names.find(spoken(rest))
    if front or not found:
        return found is not None and " ".join(t.word for t in rest[:2]) not in vocabulary().grammar["of it"]
    behind = amount(line, found[2]) if not found[1] else None
    return behind is not None and all(vocabulary().states.match(line, at) for at in range(behind[1], len(line)))


def _trimmed(line: Line) -> Line:
    end = len(line)
    while end and line[end - 1].text in ",;(–-":
        end -= 1
    return line[:end]


def split_or(line: Line) -> tuple[Line, list[Line]]:
    """Alternatives, outside of brackets."""
    parts: list[list[Token]] = [[]]
    at, depth = 0, 0
    while at < len(line):
        depth += {"(": 1, ")": -1}.get(line[at].text, 0)
        found = vocabulary().joiners.match(line, at)
        behind = vocabulary().joiners.match(line, at + 1) if line[at].text == "(" else None
        if behind and behind[0] == "or" and depth == 1:
            # As in: butter (or margarine), soft.
            close = next((n for n in range(behind[1], len(line)) if line[n].text in "()"), at)
            if line[close].text == ")":
                return [*parts[0], *line[close + 1 :]], [p for p in [*parts[1:], line[behind[1] : close]] if p]
        if found and found[0] == "or" and depth <= 0 and parts[-1]:
            parts.append([])
            at = found[1]
        else:
            parts[-1].append(line[at])
            at += 1
    return parts[0], [p for p in parts[1:] if p]
