"""Temperatures, times and lengths in a text, and pairs of them that disagree."""

from collections.abc import Callable, Sequence
from functools import lru_cache
from itertools import pairwise
from typing import Annotated, Literal, NamedTuple

from pydantic import Field

from pancount.core.base.models import Frozen, Words
from pancount.core.heat.baking import FAN_COOLER_C, gas_marks
from pancount.core.taking.amounts import and_a_half, quantity
from pancount.core.taking.tokens import Token, tokens, written
from pancount.core.taking.vocabulary import vocabulary

OVEN_ROUNDING_C = 6
"""Ovens are marked in steps of 10 °C or 25 °F, so 180 °C / 350 °F is meant as a pair. Common practice, no source. [°C]"""
LENGTH_ROUNDING = 0.06
"""9 in and 23 cm are meant as a pair. Common practice, no source. A share of the length."""

Kind = Literal["heat", "time", "length"]


class Fact(Frozen):
    """A temperature [°C], a time [min] or a length [cm] as a text gives it; low and high are alike for one number."""

    kind: Kind
    low: Annotated[float, Field(ge=-1e6, le=1e9)]
    high: Annotated[float, Field(ge=-1e6, le=1e9)]
    text: Words


class Found(NamedTuple):
    """A fact with what it was told in and from which token to which it stands."""

    fact: Fact
    unit: str
    fan: bool
    begin: int
    end: int


def celsius(fahrenheit: float) -> float:
    """(F − 32) ÷ 1.8. [°C]

    >>> celsius(356)
    180.0
    """
    return (fahrenheit - 32) / 1.8


def _heat(unit: str) -> Callable[[float], float]:
    return celsius if unit == "fahrenheit" else float


def _one(line: Sequence[Token], at: int) -> Found | None:
    words = vocabulary()
    gas = words.heat.match(line, at)
    if gas and gas[0] == "gas" and (number := quantity(line, gas[1])):
        mark = gas_marks().get(number[0].low)
        if mark:
            return _found("heat", mark, mark, "gas", False, line, at, number[1])
    if (one := words.numbers.match(line, at)) and one[1] == at + 1 and line[at].word in words.grammar["article"] and (time := _time(line, at + 1)):
        return _found("time", one[0][0] * time[0], one[0][1] * time[0], "time", False, line, at, time[1])
    number = quantity(line, at)
    if not number:
        return None
    (low, high), end = (number[0].low, number[0].high), number[1]
    after = end + 1 if end < len(line) and line[end].text == "-" else end
    if time := _time(line, after):
        return _found("time", low * time[0], high * time[0], "time", False, line, at, time[1])
    if heat := words.heat.match(line, after):
        unit = heat[0]
        # A lone C or F behind a small number is no oven.
        if unit not in ("celsius", "fahrenheit", "degrees") or (low < 15 and line[after].text not in "°º"):
            return None
        if unit == "degrees":
            unit = "fahrenheit" if high > 260 else "celsius"
        fan = bool((found := words.heat.match(line, heat[1])) and found[0] == "fan")
        to = _heat(unit)
        return _found("heat", to(low), to(high), unit, fan, line, at, heat[1])
    if length := words.lengths.match(line, after):
        name = "in" if length[0] > 2 else "cm"
        if line[after].word == "in" and line[after].kind == "word" and line[after - 1].text != "-":
            return None  # "let 2 in the bowl"
        return _found("length", low * length[0], high * length[0], name, False, line, at, length[1])
    return None


def _time(line: Sequence[Token], at: int) -> tuple[float, int] | None:
    """A unit of time and the minutes in it: "minutes", "of an hour", "good hours"; "hour and a quarter" is that much more of one."""
    words = vocabulary()
    if at < len(line) and (line[at].word in words.step_small["good"] or (line[at].word == "of" and at + 1 < len(line) and line[at + 1].word in words.grammar["one"])):
        at += 2 if line[at].word == "of" else 1
    unit = words.times.match(line, at)
    if unit and (more := and_a_half(line, unit[1])):
        return unit[0] * (1 + more[0]), more[1]
    return unit


def _found(
    kind: Kind, low: float, high: float, unit: str, fan: bool, line: Sequence[Token], at: int, end: int
) -> Found:
    said = written(line[at:end])
    fact = Fact(kind=kind, low=round(min(low, 1e9), 2), high=round(min(high, 1e9), 2), text=said[:300])
    return Found(fact, unit, fan, at, end)


def found_in(line: Sequence[Token]) -> list[Found]:
    """Every temperature, time and length in tokens, in order."""
    found, at = list[Found](), 0
    while at < len(line):
        one = _one(line, at)
        if one:
            found.append(one)
        at = one.end if one else at + 1
    return found


@lru_cache(maxsize=500)  # while a page is typed, all its lines but one stay as they were
def _all(text: str) -> tuple[list[Found], list[Token]]:
    line = tokens(text)
    return found_in(line), line


def facts(text: str) -> tuple[Fact, ...]:
    """What a text says of heat, time and length, in order; of a pair the first, or the one in °C. Never raises."""
    found, line = _all(text)
    kept: list[Found] = []
    for n, one in enumerate(found):
        if not (n and _paired(found[n - 1], one, line)):
            kept.append(one)
        elif (kept[-1].unit, one.unit) == ("fahrenheit", "celsius"):
            kept[-1] = one
    return tuple(one.fact for one in kept)


PAIRS = {"/", "(", ",", "=", "or", "[", "|", "oder", "bzw"}


def _paired(first: Found, second: Found, line: Sequence[Token]) -> bool:
    between = [t.word for t in line[first.end : second.begin]]
    alike = first.fact.kind == second.fact.kind and (first.unit, first.fan) != (second.unit, second.fan)
    return alike and first.fact.kind != "time" and 0 < len(between) <= 4 and between[0] in PAIRS | {"fan", "oven"}


def disagreements(text: str) -> tuple[str, ...]:
    """A sentence for each pair in a text that is not the same: "180 °C / 320 °F". Never raises.

    >>> disagreements("Bake at 180 °C / 320 °F."), disagreements("Bake at 180 °C (350 °F).")
    (('180 °C and 320 °F are not the same: 320 °F is 160 °C.',), ())
    """
    found, line = _all(text)
    return tuple(
        says
        for first, second in pairwise(found)
        if _paired(first, second, line) and (says := _disagree(first, second))
    )


def _disagree(first: Found, second: Found) -> str:
    a, b = first.fact, second.fact
    if a.kind == "length":
        if abs(a.high - b.high) <= LENGTH_ROUNDING * max(a.high, b.high):
            return ""
        return f"{a.text} and {b.text} are not the same: {b.text} is {b.high:.3g} cm, {a.text} is {a.high:.3g} cm."
    cooler = FAN_COOLER_C * (first.fan - second.fan)
    if abs(a.high + cooler - b.high) <= OVEN_ROUNDING_C + (5 if cooler else 0):
        return ""
    other = second if second.unit == "fahrenheit" or first.unit == "celsius" else first
    return f"{a.text} and {b.text} are not the same: {other.fact.text} is {other.fact.high:.0f} °C."
