"""Amounts that stand elsewhere than in front: behind the name, once more in brackets, less something, of a whole."""

from dataclasses import replace

from pancount.core.taking.amounts import Amount, Line, amount, quantity
from pancount.core.taking.parting import spoken
from pancount.core.taking.vocabulary import Names, vocabulary


def of_whole(line: Line, names: Names) -> Line:
    """ "Zest of 1 lemon", "yolks of 3 eggs" turned round to "1 lemon zest", "3 eggs yolks"; empty for any other line."""
    small = vocabulary().grammar
    for at in range(1, min(4, len(line))):
        if line[at].word not in small["of"]:
            continue
        # "einer" is both: of, and one.
        begin = at if line[at].word in small["one"] else at + 1
        number = quantity(line, begin)
        one = begin + 1 if begin < len(line) and line[begin].word in small["one"] else 0
        end = number[1] if number else one
        part = line[at - 1 : at]
        for n in range(end, end + 3 if end else 0):
            # with a word or two between, as in "1 organic lemon"
            whole = line[n : n + 1]
            found = names.find(spoken([*whole, *part]))
            if found and found[2] - found[1] == 2:
                return [*line[begin:end], *whole, *part, *line[: at - 1], *line[end:n], *line[n + 1 :]]
    return ()


def amount_behind(line: Line) -> tuple[Amount | None, Line]:
    """The first amount behind the name, and the words that are left."""
    for at in range(1, len(line)):
        stands = line[at].kind in ("number", "fraction") or line[at - 1].text in ",:(–-"
        if stands and (found := amount(line, at)):
            measured = bool(found[0].parts[0].measure)
            front = line[:at]
            if measured or line[at - 1].text in ":,=" or found[1] == len(line):
                if front and front[-1].text in "(:=-–—[":
                    front = front[:-1]
                return _doubled_behind(*found, line, front)
    return None, line


def _doubled_behind(asked: Amount, end: int, line: Line, front: Line) -> tuple[Amount, Line]:
    """ "Water 65 % 650 g", "flour | 1000 g | 100 %": the same amount once more behind the first, as in a formula's table."""
    at = end
    while at < len(line) and line[at].text in "|:,;()/=–-":
        at += 1
    again = None if asked.doubled or at >= len(line) else amount(line, at)
    kinds = {p.measure for p in (*asked.parts, *(again[0].parts if again else ()))}
    if again and "percent" in kinds and len(kinds) > 1 and "" not in kinds:
        return replace(asked, doubled=again[0].parts), [*front, *line[again[1] :]]
    return asked, [*front, *line[end:]]


def with_less(asked: Amount, rest: Line) -> tuple[Amount, Line]:
    """ "1 cup flour minus 2 tbsp": what is taken away, behind the name."""
    for at in range(1, len(rest)):
        joiner = vocabulary().joiners.match(rest, at)
        less = amount(rest, joiner[1]) if joiner and joiner[0] == "minus" else None
        if less and less[0].parts[0].measure and asked.parts[0].measure:
            taken = tuple(replace(p, sign=-p.sign) for p in less[0].parts)
            return replace(asked, parts=(*asked.parts, *taken)), [*rest[:at], *rest[less[1] :]]
    return asked, rest


def with_double(asked: Amount, rest: Line) -> tuple[Amount, Line]:
    """The same amount once more in brackets behind the name: "2¼ tsp dry yeast (1 packet)"."""
    for at in range(len(rest)):
        if rest[at].text == "(" and not asked.doubled and (again := amount(rest, at + 1)):
            inner, end = again
            if rest[end : end + 1] and rest[end].word in vocabulary().grammar["each"] and len(asked.parts) == 1:
                # Two cans, "400 g each".
                n = asked.parts[0]
                parts = tuple(replace(p, low=p.low * n.low, usual=p.usual * n.usual, high=p.high * n.high) for p in inner.parts)
                inner, end = replace(inner, parts=parts), end + 1
            if inner.parts[0].measure and end < len(rest) and rest[end].text == ")":
                return replace(asked, doubled=inner.parts), [*rest[:at], *rest[end + 1 :]]
    return asked, rest
