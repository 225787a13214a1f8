"""How long and how warm a clause of a method says: which of its times is the step's own, and which of its temperatures."""

from collections.abc import Sequence
from dataclasses import dataclass

from pancount.core.formula.steps import LONGEST_MIN, Lasts, Warmth
from pancount.core.heat.baking import FAN_COOLER_C
from pancount.core.taking.amounts import quantity
from pancount.core.taking.facts import Found, celsius, found_in
from pancount.core.taking.tokens import Token
from pancount.core.taking.vocabulary import vocabulary

Line = Sequence[Token]

OVEN_C = 100.0
"""From here on a temperature is an oven's. [°C]"""
BARE_OVEN = (120, 550)
"""A bare number behind "oven to" between these is how hot it is; in °F where it is more than an oven has in °C."""
MOST_OVEN_C = 290.0
SUMMED = frozenset({"bake", "mix", "knead", "knead_by_hand", "griddle", "bathe"})
"""Kinds of step that may be told in spells that follow each other: "20 min covered, 22 min uncovered"."""
OVERNIGHT = Lasts(low_min=8 * 60, usual_min=10 * 60, high_min=12 * 60)
"""What "overnight" is where nothing else says. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class Spell:
    """What a clause says of its time: how long it lasts, how often hands are wanted within it, and how long until it is looked at again."""

    lasts: Lasts | None = None
    every_min: float | None = None
    overnight: bool = False


def _words(line: Line, begin: int, end: int) -> set[str]:
    return {token.word for token in line[max(0, begin) : end]}


def is_own(line: Line, one: Found) -> bool:
    """Whether a time is how long the step itself lasts, and not when it comes, or how far something is apart."""
    small = vocabulary().step_small
    before, right = _words(line, one.begin - 2, one.begin), _words(line, one.end, one.end + 2)
    if before & small["up to"] - {"at"} and "least" not in before:
        return False
    if one.begin and line[one.begin - 1].word in small["after"] | small["every"] | small["first"] | {"at"}:
        return False
    return not right & small["apart"]


def spell(line: Line, kind: str) -> Spell:
    """How long a clause says a step of a kind lasts. Never raises."""
    small, times = vocabulary().step_small, [one for one in found_in(line) if one.fact.kind == "time"]
    times = [one for one in times if not _is_looked_for(line, one)]
    every = next((one.fact.high for one in times if one.begin and line[one.begin - 1].word in small["every"]), None)
    every = next((one.fact.high for one in times if _words(line, one.end, one.end + 2) & small["apart"]), every)
    own = [one for one in _compound(line, [one for one in times if one.fact.high > 0]) if is_own(line, one)]
    overnight = any(_is_a_night(line, n) for n in range(len(line)))
    own = [one for one in own if not _words(line, one.end, one.end + 1) & small["later"]]
    if kind not in ("temper", "cool", "stand", "rise", "proof", "chill"):
        own = [one for one in own if not _words(line, one.end, one.end + 1) & small["before"]]
    if not own:
        bare = _bare_minutes(line) if not times and kind in ("stand", "rise", "proof", "bake", "knead", "relax", "rest") else None
        return Spell(bare or (OVERNIGHT if overnight else None), every, overnight)
    if kind in SUMMED and (more := _more_minutes(line, own[-1])):
        own = [*own, more]
    total = next((one for one in own if _words(line, one.end, one.end + 3) & small["total"]), None)
    counted = [total] if total else own if kind in SUMMED and not _alternatives(line, own) else own[:1]
    times_over = _times_over(line, counted[-1])
    low, high = (min(sum(getattr(one.fact, end) for one in counted) * times_over, LONGEST_MIN) for end in ("low", "high"))
    return Spell(Lasts.of(low, max(low, high)), every, overnight)


def _is_a_night(line: Line, at: int) -> bool:
    """ "overnight", "until tomorrow": a time of no certain length."""
    unit = vocabulary().times.match(line, at)
    return (unit is not None and unit[0] == 0) or line[at].word in vocabulary().step_small["tomorrow"]


def _is_looked_for(line: Line, one: Found) -> bool:
    """ "until flour browns in 20 seconds" is no time of the step's own."""
    small = vocabulary().step_small
    for token in reversed(line[: one.begin]):
        if token.text in ",;(–":
            return False
        if token.word in small["until"]:
            return True
    return False


def _compound(line: Line, times: Sequence[Found]) -> list[Found]:
    """ "1 hr 30 mins" and "1 h 30" are one time, and so is "45 mins to 1 hr"."""
    found: list[Found] = []
    for one in times:
        last = found[-1] if found else None
        if last and one.begin == last.end and last.fact.high >= 60 > one.fact.high:
            fact = last.fact.model_copy(update={"low": last.fact.low + one.fact.low, "high": last.fact.high + one.fact.high})
            found[-1] = last._replace(fact=fact, end=one.end)
        elif last and one.begin == last.end + 1 and (joiner := vocabulary().joiners.match(line, last.end)) and joiner[0] == "to" and one.fact.high > last.fact.high:
            found[-1] = last._replace(fact=last.fact.model_copy(update={"high": one.fact.high}), end=one.end)
        else:
            found.append(one)
    if found and found[-1].fact.high >= 60 and found[-1].end < len(line) and line[found[-1].end].kind == "number" and line[found[-1].end].value < 60:
        last = found[-1]
        behind = found_in(line[last.end :])
        if not behind or behind[0].begin:
            more = line[last.end].value
            found[-1] = last._replace(fact=last.fact.model_copy(update={"low": last.fact.low + more, "high": last.fact.high + more}), end=last.end + 1)
    return found


def _more_minutes(line: Line, last: Found) -> Found | None:
    """ "30 min with lid, 15 without", "speed 1 for 4 minutes, then speed 2 for 6": minutes too."""
    for at in range(last.end, len(line)):
        behind = line[at + 1] if at + 1 < len(line) else None
        begins = line[at - 1].text == "," and behind is not None and behind.kind == "word" and line[at].value >= 3
        ends = line[at - 1].word == "for" and (behind is None or behind.kind == "sign" or behind.word in vocabulary().step_small["good"])
        if line[at].kind == "number" and (begins or ends) and 1 <= line[at].value <= 90 and not found_in(line[at : at + 3]):
            minutes = line[at].value
            return last._replace(fact=last.fact.model_copy(update={"low": minutes, "high": minutes}), begin=at, end=at + 1)
    return None


def _alternatives(line: Line, own: Sequence[Found]) -> bool:
    """Whether one time stands for another: "10 by hand or 6 in the machine"."""
    return any(token.word in vocabulary().step_small["or"] for token in line[own[0].end : own[-1].begin])


def _times_over(line: Line, one: Found) -> float:
    """How often a time is taken: "30 seconds a side" is twice, "five additions, a minute each" five times."""
    small, behind = vocabulary().step_small, _words(line, one.end, one.end + 3)
    if behind & small["side"]:
        return 2.0
    if behind & small["each"]:
        counts = [found[0].high for at in range(one.begin) if (found := quantity(line, at)) and 1 < found[0].high <= 20]
        return counts[-1] if counts else 1.0
    return 1.0


def _bare_minutes(line: Line) -> Lasts | None:
    """ "Rest 20": a number at the end of a clause and no unit."""
    at = next((n for n, token in enumerate(line) if token.kind == "number"), None)
    found = quantity(line, at) if at is not None else None
    small = vocabulary().step_small
    alone = found is not None and (all(token.kind == "sign" for token in line[found[1] :]) or (at and line[at - 1].word in small["another"]))
    return Lasts.of(found[0].low, found[0].high) if found and alone and 3 <= found[0].low <= 240 else None


def warmth(line: Line, *, oven: bool) -> Warmth | None:
    """The first temperature in a clause that is an oven's, or that is none; a bare number where it stands behind an oven. Of an oven it is that of
    a still one: one that is told for a fan alone is so much more."""
    small = vocabulary().step_small
    heats = [one for one in found_in(line) if one.fact.kind == "heat" and (one.fact.low >= OVEN_C) is oven]
    if heats:
        still = next((one for one in heats if not _is_fan(line, one)), None)
        told, warmer = (still or heats[0]).fact, 0.0 if still else FAN_COOLER_C
        return _warmth(told.low + warmer, told.high + warmer)
    if not oven or not any(token.word in small["oven"] for token in line):
        return None
    facts = {n for one in found_in(line) for n in range(one.begin, one.end)}
    for n, token in enumerate(line):
        if token.kind == "number" and n not in facts and BARE_OVEN[0] <= token.value <= BARE_OVEN[1]:
            degrees = token.value if token.value <= MOST_OVEN_C else celsius(token.value)
            return _warmth(degrees, degrees)
    return None


def _is_fan(line: Line, one: Found) -> bool:
    """ "200 °C fan", "Umluft 160 °C"."""
    told = vocabulary().heat.match(line, one.begin - 1) if one.begin else None
    return one.fan or (told is not None and told[0] == "fan")


def _warmth(low: float, high: float) -> Warmth | None:
    return Warmth(low_c=low, high_c=high) if -40 <= low <= high <= 600 else None
