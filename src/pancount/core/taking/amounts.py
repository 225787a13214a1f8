"""The grammar of amounts.

    amount   := part { ("plus" | "minus") part }            1 cup plus 2 tbsp
    part     := quantity [fill] measure [fill] | quantity    1 heaped cup · 3
    quantity := number [range number] | number "×" number    1½ · 2–3 · 2 × 7
    number   := digits | fraction | digits fraction | word   1.5 · ½ · 1 1/2 · a dozen
    doubled  := amount ("(" amount ")" | "/" amount | "or" amount)
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from pancount.core.pantry.measures import measures
from pancount.core.taking.tokens import Token
from pancount.core.taking.vocabulary import Fill, vocabulary

Line = Sequence[Token]

CONTAINERS = {"packet", "can", "cube", "stick", "becher", "head", "slice", "each"}
"""Measures that may carry a weight of their own: one 7 g packet, two 400 g cans."""
POINT_MEANS_THOUSANDS = {"g", "ml"}
"""1.000 g is a thousand: nobody weighs one gram to three places."""
COMMA_MEANS_DECIMAL = {"kg", "l", "lb", "cup", "tsp", "tbsp", "el", "tl"}
"""1,250 kg is a kilogram and a quarter."""


MOST_WORDS_BEFORE = 6
"""Words like "a good heaped" before a measure; a line of nothing else is not read to its end again and again."""
MOST_CUPS = 30
"""Above this a lone C means degrees, not cups."""


@dataclass(frozen=True, slots=True)
class Part:
    """A number of one measure; `measure` is blank for plain counting. `sign` is −1 after "minus"."""

    low: float
    usual: float
    high: float
    measure: str = ""
    fill: Fill | None = None
    way: str = ""
    sign: int = 1


@dataclass(frozen=True, slots=True)
class Amount:
    """What is asked for, in its parts; and the same once more in another measure, where it was given twice."""

    parts: tuple[Part, ...]
    doubled: tuple[Part, ...] = ()


@dataclass(frozen=True, slots=True)
class _Number:
    low: float
    high: float
    token: Token | None
    """The only token of it, where its point or comma can be read in two ways."""


def _is(line: Line, at: int, *texts: str) -> bool:
    return at < len(line) and line[at].word in texts


def _word_number(line: Line, at: int) -> tuple[_Number, int] | None:
    found = vocabulary().numbers.match(line, at)
    if not found:
        return None
    (low, high), end = found
    if end == at + 1 and line[at].word in vocabulary().grammar["article"] and not measure(line, end):
        return None
    if low == high == int(low) and (half := and_a_half(line, end)):
        return _Number(low + half[0], low + half[0], None), half[1]
    return _Number(low, high, None), end


def and_a_half(line: Line, at: int) -> tuple[float, int] | None:
    """ "…and a half": a fraction in words behind a whole number or its measure."""
    found = vocabulary().numbers.match(line, at + 1) if _is(line, at, "and", "&") else None
    if found and found[0][0] < 1 and found[1] > at + 2:
        return found[0][0], found[1]
    return None


def _number(line: Line, at: int) -> tuple[_Number, int] | None:
    if at >= len(line):
        return None
    token = line[at]
    if token.kind == "fraction":
        return _Number(token.value, token.value, None), at + 1
    if token.kind != "number":
        return _word_number(line, at)
    if len(token.text) <= 3 and at + 1 < len(line) and token.value:
        follow = line[at + 1]
        # 1 000 g, but not one 400 g can.
        if follow.kind == "number" and len(follow.text) == 3 and follow.text.isdigit() and follow.start == token.end + 1:
            unit = measure(line, at + 2)
            container = unit and vocabulary().measures.match(line, unit[1])
            if unit and not (container and container[0] in CONTAINERS):
                value = token.value * 1000 + follow.value
                return _Number(value, value, None), at + 2
    whole = token.value
    mixed = at + 1
    if _is(line, mixed, "-", "–", "and", "&", "und"):
        mixed += 1
    if mixed < len(line) and line[mixed].kind == "fraction" and line[mixed].value < 1 and whole == int(whole):
        value = whole + line[mixed].value
        return _Number(value, value, None), mixed + 1
    if half := and_a_half(line, at + 1):
        return _Number(whole + half[0], whole + half[0], None), half[1]
    return _Number(whole, whole, token if token.other is not None else None), at + 1


def quantity(line: Line, at: int) -> tuple[_Number, int] | None:
    """A number, a range or a product at a token, and where it ends."""
    first = _number(line, at)
    if not first:
        return None
    number, end = first
    if _is(line, end, "x", "×", "*") and (second := _number(line, end + 1)) and measure(line, second[1]):
        by, end = second
        return _Number(number.low * by.low, number.high * by.high, None), end
    if _is(line, end, "dozen", "dutzend"):
        return _Number(number.low * 12, number.high * 12, None), end + 1
    joiner = vocabulary().joiners.match(line, end)
    second = _number(line, joiner[1]) if joiner and joiner[0] in ("to", "or") else None
    # "2 or 3", but not "3 or 1": the second must be more.
    if second and second[0].high >= number.high and number.low > 0:
        return _Number(number.low, second[0].high, None), second[1]
    return number, end


def measure(line: Line, at: int) -> tuple[Part, int] | None:
    """A measure with how it is filled, as a part of one; and where it ends."""
    words = vocabulary()
    fill: Fill | None = None
    way = ""
    for _ in range(MOST_WORDS_BEFORE):
        if found := words.measures.match(line, at):
            break
        if filled := words.fills.match(line, at):
            fill, at = filled
        elif by := words.ways.match(line, at):
            way, at = by
        elif _is(line, at, "of", "-", "a", "an") or (fill and _is(line, at, ".")):
            at += 1
        else:
            return None
    else:
        return None
    key, at = found
    if _is(line, at, "."):
        at += 1
    if by := words.ways.match(line, at):
        way, at = by
    elif (filled := words.fills.match(line, at)) and filled[0].name in ("heaped", "scant", "level"):
        fill, at = filled
    elif _is(line, at, "(") and (filled := words.fills.match(line, at + 1)) and _is(line, filled[1], ")"):
        fill, at = filled[0], filled[1] + 1
    return Part(1, 1, 1, key, fill, way), at


def _settled(number: _Number, key: str) -> tuple[float, float]:
    """Low and high, with a point or comma read as the measure suggests."""
    token = number.token
    if token is not None and token.other is not None:
        other = POINT_MEANS_THOUSANDS if "." in token.text else COMMA_MEANS_DECIMAL
        if key in other:
            return token.other, token.other
    return number.low, number.high


def part(line: Line, at: int) -> tuple[Part, int] | None:
    """A quantity with its measure, or alone; and where it ends."""
    filled = vocabulary().fills.match(line, at)
    if filled and filled[1] < len(line) and line[filled[1]].kind in ("number", "fraction"):
        # "a scant ½ teaspoon"
        found_part = part(line, filled[1])
        return (replace(found_part[0], fill=filled[0]), found_part[1]) if found_part and found_part[0].measure else None
    dashed = [t.kind for t in line[at : at + 2]] == ["number", "fraction"] and _is(line, at + 2, "-")
    if dashed and (packets := _container(line, _Number(line[at].value, line[at].value, None), at + 1)):
        return packets  # "2 ¼-oz packets" are not 2¼ oz
    found = quantity(line, at)
    if not found:
        return None
    number, end = found
    if _is(line, end, "%"):
        return Part(number.low, (number.low + number.high) / 2, number.high, "percent"), end + 1
    if sized := _container(line, number, end):
        return sized
    after = end + 1 if _is(line, end, "-") else end
    if (measured := measure(line, after)) and not (measured[0].measure == "cup" and number.low > MOST_CUPS):
        unit, end = measured
        low, high = _settled(number, unit.measure)
        if low == high == 1 and (half := and_a_half(line, end)) and not measure(line, half[1]):
            low, end = low + half[0], half[1]  # "a cup and a half"
            high = low
        measured_part = replace(unit, low=low, usual=(low + high) / 2, high=high)
        return _ranged(line, measured_part, _past_container(line, measured_part, end))
    return Part(number.low, (number.low + number.high) / 2, number.high), end


def _past_container(line: Line, weight: Part, at: int) -> int:
    """ "400 g tin", "7 g packet": what the weight comes in adds nothing to it."""
    held = vocabulary().measures.match(line, at) if weight.measure in ("g", "oz") else None
    return held[1] if held and held[0] in CONTAINERS - {"each", "head", "slice", "stick"} else at


def _ranged(line: Line, first: Part, at: int) -> tuple[Part, int]:
    """ "350 g–400 g", "1 cup to 1¼ cups": a range with its measure said twice."""
    joiner = vocabulary().joiners.match(line, at)
    if joiner and joiner[0] == "to" and first.low == first.high and (second := part(line, joiner[1])):
        more, end = second
        if more.measure == first.measure and more.high > first.high:
            return replace(first, usual=(first.low + more.high) / 2, high=more.high), end
    return first, at


def _container(line: Line, number: _Number, at: int) -> tuple[Part, int] | None:
    """ "1 (7 g) packet", "2 14-oz cans", "1 7 g sachet": containers by what each holds."""
    opened = _is(line, at, "(")
    inner = quantity(line, at + 1 if opened else at)
    if not inner or inner[0].high <= 0:
        return None
    end = inner[1] + 1 if _is(line, inner[1], "-") else inner[1]
    unit = vocabulary().measures.match(line, end)
    if not unit or measures()[unit[0]].kind not in ("weight", "jug"):
        return None
    end = unit[1] + 1 if _is(line, unit[1], ".") else unit[1]
    if opened:
        if not _is(line, end, ")"):
            return None
        end += 1
    held = vocabulary().measures.match(line, end)
    if not held or held[0] not in CONTAINERS:
        return None
    low, high = number.low * inner[0].low, number.high * inner[0].high
    return Part(low, (low + high) / 2, high, unit[0]), held[1]


def _parts(line: Line, at: int) -> tuple[tuple[Part, ...], int] | None:
    first = part(line, at)
    if not first:
        return None
    parts, end = [first[0]], first[1]
    while True:
        kind = parts[-1].measure
        follow = end + 1 if _is(line, end, ",") else end
        # "1 lb 4 oz", "2 kg 300 g"
        if kind in ("lb", "kg") and (more := part(line, follow)) and more[0].measure in ("oz", "g"):
            parts.append(more[0])
            end = more[1]
            continue
        joiner = vocabulary().joiners.match(line, end)
        more = part(line, joiner[1]) if kind and joiner and joiner[0] in ("plus", "minus") else None
        if joiner and more and more[0].measure:
            parts.append(replace(more[0], sign=1 if joiner[0] == "plus" else -1))
            end = more[1]
            continue
        return tuple(parts), end


def past_about(line: Line, at: int) -> int:
    """Where "about", "ca." and the like end."""
    while (found := vocabulary().states.match(line, at)) and found[0] == "about":
        at = found[1]
        if _is(line, at, "."):
            at += 1
    return at + 1 if _is(line, at, "=") else at


def amount(line: Line, at: int) -> tuple[Amount, int] | None:
    """An amount at a token, with its double where it is given twice; and where it ends. None where there is none."""
    at = past_about(line, at)
    found = _parts(line, at) or _bare_measure(line, at)
    if not found:
        return None
    parts, end = found
    doubled = _double(line, end, parts)
    return (Amount(parts, doubled[0]), doubled[1]) if doubled else (Amount(parts), end)


def _bare_measure(line: Line, at: int) -> tuple[tuple[Part, ...], int] | None:
    """ "Pinch of salt", "heaping tsp. salt": one, where the measure is not one of the short unit letters."""
    found = measure(line, at)
    kind = measures()[found[0].measure].kind if found else ""
    if found and (kind == "vague" or found[0].fill or (kind == "count" and _is(line, found[1], "of", "von"))):
        return (found[0],), found[1]
    return None


def _double(line: Line, at: int, first: tuple[Part, ...]) -> tuple[tuple[Part, ...], int] | None:
    """The same amount in another measure, in brackets or behind a slash, "or" or "="."""
    if not first[0].measure and not _is(line, at, "("):
        return None
    opened = _is(line, at, "(", "[")
    joiner = vocabulary().joiners.match(line, at)
    if opened or _is(line, at, "/", "|", "="):
        begin = at + 1
    elif joiner and joiner[0] == "or":
        begin = joiner[1]
    else:
        return None
    found = _parts(line, past_about(line, begin))
    if not found or not found[0][0].measure or found[0][0].measure == "percent":
        return None
    parts, end = found
    if not opened:
        return (parts, end) if _differ(parts, first) else None
    end = past_about(line, end)
    if _is(line, end, "/", ";", ",") and (more := _parts(line, past_about(line, end + 1))):
        # "(4 oz / 115 g)": grams before ounces
        parts, end = (more[0] if _finer(more[0], parts) else parts), more[1]
        end = past_about(line, end)
    return (parts, end + 1) if _is(line, end, ")", "]") else None


def _differ(a: tuple[Part, ...], b: tuple[Part, ...]) -> bool:
    return {p.measure for p in a} != {p.measure for p in b}


def _finer(a: tuple[Part, ...], b: tuple[Part, ...]) -> bool:
    return a[0].measure in ("g", "kg") and b[0].measure not in ("g", "kg")
