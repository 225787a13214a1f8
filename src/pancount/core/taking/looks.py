"""What a clause of a method says besides its act and its time: what is looked for, how often, and where it stands."""

from pancount.core.formula.steps import Place
from pancount.core.taking.amounts import quantity
from pancount.core.taking.clauses import Clause, Line, begins_look
from pancount.core.taking.facts import found_in
from pancount.core.taking.vocabulary import vocabulary

LONGEST_LOOK = 160


def without_look(clause: Clause) -> Line:
    """What of a clause names what goes in: not the act itself, where that may be an ingredient, and nothing behind "until"."""
    small = vocabulary().step_small
    until = next((n for n, t in enumerate(clause.line) if n and (begins_look(clause.line, n) or t.word in small["not"])), len(clause.line))
    return [t for t in clause.line[:until] if t not in clause.act or t.word not in ("oil", "butter", "flour")]


def look(clause: Clause) -> str:
    """What is looked for: what stands behind "until", up to the next stop."""
    for n in range(len(clause.line)):
        if begins_look(clause.line, n) and n + 1 < len(clause.line) and clause.line[n + 1].kind == "word":
            behind, found = clause.line[n + 1 :], found_in(clause.line[n + 1 :])
            stop = next((m for m, t in enumerate(behind) if t.text in ",;.(–—"), len(behind))
            stop = min(stop, found[0].begin if found else len(behind))
            told = behind[:stop]
            return " ".join(t.text for t in told)[:LONGEST_LOOK] if told else ""
    return ""


def touches(clause: Clause, kind: str) -> int | None:
    """How often: "four folds", "fold x4", "3x dehnen und falten", "three times in all"."""
    if kind != "fold":
        return None
    small = vocabulary().step_small
    facts = {n for one in found_in(clause.line) for n in range(one.begin, one.end)}
    counts = []
    for n, token in enumerate(clause.line):
        if n in facts or (token.kind == "word" and token.word in ("a", "an", "half", "einmal")):
            continue
        if (found := quantity(clause.line, n)) and found[0].high == int(found[0].high) and 1 <= found[0].high <= 30:
            behind = {t.word for t in clause.line[found[1] : found[1] + 2]}
            counts.append((bool(behind & small["times"]), int(found[0].high)))
    return max(counts)[1] if counts else None


def place(line: Line) -> Place | None:
    """Where a dough rises, where that is said: in the fridge, or somewhere warm."""
    small, words = vocabulary().step_small, {t.word for t in line}
    if words & small["fridge"]:
        return "fridge"
    return "warm" if words & small["warm"] else None
