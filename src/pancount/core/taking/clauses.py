"""The grammar of a method's sentences: where something is done, and what else belongs to it.

    sentence  := clause { ("," | ";" | "and" | "then" | "or") clause }
    clause    := [time or place before] act [what, how long, how warm] ["until" look] ["if" condition]
    act       := an English verb at the head of a clause | a German verb behind it | the name of a step, wherever it stands

What stands behind "until", "when", "before" or "don't" is not done; what stands behind "if" is done only then. All words from `data/words`.
"""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import NamedTuple

from pancount.core.taking.tokens import Token
from pancount.core.taking.vocabulary import vocabulary

Line = Sequence[Token]

STOPS = frozenset(",;:()!?/")
NEAR = 6
"""Words behind "let" within which what is let stands."""
LOOSE = frozenset({"carry", "stand", "bring", "more"})
"""Kinds of act that another in the same clause says better: "leave to prove", "put in the fridge"."""


LET = frozenset({"rise", "proof", "stand", "cool", "temper", "relax"})
"""Kinds of act that are let happen, or that happen by themselves: "let it cool", "the rest rise"."""


class Act(NamedTuple):
    """Something done: from which token to which it is said, and the kind of step that it tells."""

    at: int
    end: int
    kind: str
    final: bool = False
    """Whether all that belongs to it stands before it."""


@dataclass(frozen=True, slots=True)
class Clause:
    """A part of a sentence with one act, or none where `kind` is blank; `line` is all of it, without what follows "if"."""

    kind: str
    act: Line
    line: Line
    join: str
    """How it hangs on the clause before: "", ",", ";", "and" or "or"."""
    only_if: Line
    """What stands behind "if": it is done only then."""
    lead: int
    """How much of it stands before the act's own clause, at the head of a sentence: "35 min, then shape"."""
    start: int
    end: int
    """Where it stands in its text."""
    final: bool = False
    """Whether its act stands behind all that belongs to it."""

    def says(self, *uses: str) -> bool:
        """Whether it holds a small word of one of these uses."""
        small = vocabulary().step_small
        return any(token.word in small[use] for use in uses for token in self.line)


def _is_stop(line: Line, at: int) -> bool:
    token = line[at]
    if token.text in "-–—":
        return 0 < at < len(line) - 1 and line[at - 1].end < token.start and token.end < line[at + 1].start
    if token.text == ".":  # that of "10 Min. kneten" ends nothing
        return at == len(line) - 1 or not line[at + 1].text[:1].islower()
    return token.text in STOPS


def _joins(token: Token) -> bool:
    small = vocabulary()
    return token.word in small.grammar["and"] | small.step_small["or"] or token.word in ("then", "dann", "but", "aber")


def condition_at(line: Line) -> int:
    """Where "if …" begins; the line's end for none. "If you like" is no condition."""
    small = vocabulary().step_small
    for at, token in enumerate(line):
        if token.word in small["if"] and not any(t.word in small["as you like"] for t in line[at + 1 : at + 4]):
            return at
    return len(line)


def _acts(line: Line) -> Iterator[Act]:
    """Where something is done in a sentence, in order."""
    words, small = vocabulary(), vocabulary().step_small
    opened, hushed, at = bool(line) and line[0].word in small["opens"], False, 0
    parted = any(token.text == "," for token in line)
    while at < len(line):
        token = line[at]
        if _is_stop(line, at) or (hushed and _joins(token) and token.word not in words.grammar["and"]):
            hushed, at = False, at + 1
            continue
        if begins_look(line, at) or token.word in small["not"] or (token.word in small["while"] and not _tells_time(line, at) and (at or parted)):
            hushed = True
        found = None if hushed else _act_at(line, at, opened)
        if found is None or found.kind == "none":
            at = at + 1 if found is None else found.end
            continue
        opened = False
        yield found
        at = found.end


def begins_look(line: Line, at: int) -> bool:
    """Whether what is looked for begins here: "until", but not the "bis" of "15 bis 18" or of "bis auf die Butter"."""
    return line[at].word in vocabulary().step_small["until"] and not _in_range(line, at)


def _in_range(line: Line, at: int) -> bool:
    if at < len(line) - 1 and line[at + 1].word == "auf":
        return True
    return 0 < at < len(line) - 1 and line[at - 1].kind != "word" and line[at + 1].kind in ("number", "fraction")


def _tells_time(line: Line, at: int) -> bool:
    """ "After an hour knead …": what follows is done all the same."""
    return line[at].word in vocabulary().step_small["after"] and any(vocabulary().times.match(line, n) for n in range(at + 1, min(at + 6, len(line))))


def _act_at(line: Line, at: int, opened: bool) -> Act | None:
    words, small = vocabulary(), vocabulary().step_small
    final = words.step_finals.match(line, at)
    if named := final or words.step_words.match(line, at):
        kind, end = named
        as_noun = at > 0 and line[at].text[:1].isupper() and line[at - 1].word in small["articles"]
        if as_noun or (kind == "chill" and any(t.word in small["frozen"] for t in line[max(0, at - 3) : at])):
            return None
        return Act(at, end, kind, final is not None and kind != "chill")
    head = words.step_heads.match(line, at)
    if head is None or not (opened or _at_head(line, at, head[0])):
        return None
    kind, end = head
    behind = line[end].word if end < len(line) else ""
    if kind == "stand" and behind in small["of it"]:
        return None  # "rest of the oil"
    if kind == "melt" and behind not in small["the"] and not _opens(line, at):
        return None  # "and warm water", "just warm"
    return Act(at, end, kind)


def _opens(line: Line, at: int) -> bool:
    return at == 0 or line[at - 1].text in ".;:"


def _at_head(line: Line, at: int, kind: str) -> bool:
    """Whether a word that may be a verb stands where one does: at the head of a clause, behind "let", or behind its time."""
    small = vocabulary().step_small
    if at == 0 or _is_stop(line, at - 1):
        return True
    before = line[at - 1]
    if _joins(before) or before.word in small["heads"] or before.text in ("'", "’") or _ends_time(line, at):
        return True
    if kind in LET and before.word in small["subjects"]:
        return True
    if kind not in LET:
        return False
    near = line[max(0, at - NEAR) : at]
    begin = max((n + 1 for n, t in enumerate(near) if t.text in STOPS), default=0)
    return any(t.word in small["lets"] for t in near[begin:])


def _ends_time(line: Line, at: int) -> bool:
    """ "30 min rest": whether a unit of time ends right before."""
    return any((unit := vocabulary().times.match(line, n)) is not None and unit[1] == at for n in range(max(1, at - 2), at)) and line[max(0, at - 2)].kind != "word"


def clauses(line: Line) -> list[Clause]:
    """A sentence in its clauses, one act in each; all of it in one where nothing is done. Never raises."""
    only_if = condition_at(line)
    body, behind = line[:only_if], line[only_if:]
    acts = _fused(body, list(_acts(body)))
    if not acts or only_if == 0:
        return [Clause("", (), body, "", behind, 0, line[0].start, line[-1].end)] if line else []
    starts = [0, *(_start(body, before.end, act) for before, act in itertools.pairwise(acts))]
    lead = _start(body, 0, acts[0])
    found = []
    for n, (act, begin) in enumerate(zip(acts, starts, strict=True)):
        end = starts[n + 1] if n + 1 < len(acts) else len(body)
        last = n + 1 == len(acts)
        part = body[begin:end]
        until = (line[-1] if last else part[-1]).end
        found.append(Clause(act.kind, body[act.at : act.end], part, _join(body, begin, acts[n - 1].end if n else 0), behind if last else (), 0 if n else lead, line[begin].start, until, act.final))
    return found


def _fused(line: Line, acts: Sequence[Act]) -> list[Act]:
    """Acts, of which those that stand in one clause are one: the one that says more."""
    found: list[Act] = []
    for act in acts:
        parted = not found or any(_is_stop(line, n) or _joins(line[n]) for n in range(found[-1].end, act.at))
        if parted:
            found.append(act)
        elif found[-1].kind in LOOSE:
            found[-1] = Act(found[-1].at, act.end, act.kind, act.final)
    return found


def _start(line: Line, low: int, act: Act) -> int:
    """Where the clause of an act begins: behind the stop or the joining word before it; of a verb that stands last, behind the act before it,
    and behind what that is done until."""
    if act.final:
        begin = next((n for n in range(low, act.at) if begins_look(line, n)), low)
        begin = next((n for n in range(begin, act.at) if _is_stop(line, n)), low) if begin > low else low
        comma = next((n for n in range(low, act.at) if line[n].text == ","), low)
        if low and any(vocabulary().times.match(line, n) for n in range(low, comma)):
            begin = comma  # "Stockgare 1 Std., nach 30 Min. falten": the time before the comma is that of the act before
        while begin < act.at and (_is_stop(line, begin) or _joins(line[begin])):
            begin += 1
        return begin
    begin = act.at
    while begin > low and not (_is_stop(line, begin - 1) or _joins(line[begin - 1])):
        begin -= 1
    return begin - 1 if begin > low and line[begin - 1].word in ("then", "dann") else begin


def _join(line: Line, begin: int, low: int) -> str:
    """How a clause hangs on the one before it."""
    found, n = set[str](), begin
    while n > low and (_is_stop(line, n - 1) or _joins(line[n - 1])):
        n -= 1
        found.add(line[n].word)
    if found & vocabulary().step_small["or"]:
        return "or"
    if ";" in found:
        return ";"
    return "and" if found & vocabulary().grammar["and"] else "," if found else ""
