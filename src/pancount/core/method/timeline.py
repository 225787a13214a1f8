"""When each step is: steps on one thing follow each other, what is made apart joins where it goes in, and nothing begins sooner than it need.

A way is a graph of steps; its length is the longest path. Everything off that path is laid as late as it may be, so that the paste is cool
just when the yeast is awake and the oven is hot just when the dough is ready.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from graphlib import TopologicalSorter
from itertools import pairwise
from typing import Literal

from pancount.core.formula.formula import Formula
from pancount.core.formula.stages import flow, stage_name
from pancount.core.method.filled import Filled
from pancount.core.method.uses import beside_of, stage_of


@dataclass(frozen=True, slots=True)
class When:
    """When a step begins and ends, from the beginning of the whole way; `strand` is what it works on. [min]"""

    begin: float
    end: float
    strand: int
    waits: float
    """How long what is done lies before it is needed."""
    touches: tuple[tuple[float, float], ...]
    """When hands are needed: from, to."""


@dataclass(frozen=True, slots=True)
class Strand:
    """What some of the steps work on: a stage, something beside the dough, or what is gone."""

    kind: Literal["stage", "beside", "gone"]
    spot: int
    name: str
    steps: tuple[int, ...]


def strands(formula: Formula, steps: Sequence[Filled]) -> tuple[Strand, ...]:
    """Steps by what they work on: stages as they are mixed, the dough itself the last of them, then what is beside it."""
    found: dict[tuple[Literal["stage", "beside", "gone"], int, str], list[int]] = {}
    for i, one in enumerate(steps):
        found.setdefault(_worked_on(formula, one.step.of), []).append(i)
    order = {"stage": 0, "beside": 1, "gone": 2}
    of_kind = sorted(found.items(), key=lambda item: (order[item[0][0]], item[1][-1] if item[0][0] == "stage" else item[0][1]))
    return tuple(Strand(kind, spot, name, tuple(own)) for (kind, spot, name), own in of_kind)


def _worked_on(formula: Formula, key: str) -> tuple[Literal["stage", "beside", "gone"], int, str]:
    if (s := stage_of(formula, key)) is not None:
        return "stage", s, stage_name(formula.stages[s])
    if (b := beside_of(formula, key)) is not None:
        return "beside", b, formula.beside[b].name
    return "gone", -1, ""


class Graph:
    """Which steps must be done before which: the one before it on the same thing, the last on what goes in, and what is done ahead."""

    def __init__(self, formula: Formula, steps: Sequence[Filled], threads: Sequence[Strand]) -> None:
        self.before: list[set[int]] = [set() for _ in steps]
        last_of: dict[tuple[str, int], int] = {}
        for thread in threads:
            chain = [i for i in thread.steps if steps[i].kind.does != "ahead"]
            for earlier, later in pairwise(chain):
                self.before[later].add(earlier)
            if chain:
                last_of[(thread.kind, thread.spot)] = chain[-1]
        for i, one in enumerate(steps):
            for takes in one.step.takes:
                spot = stage_of(formula, takes.key) if takes.what == "stage" else beside_of(formula, takes.key) if takes.what == "beside" else None
                if spot is not None and (last := last_of.get((takes.what, spot))) is not None:
                    self._add(last, i)
        for s, first in _joins_untold(formula, steps, threads).items():
            if (last := last_of.get(("stage", s))) is not None:
                self._add(last, first)
        for i, one in enumerate(steps):
            if one.kind.does == "ahead" and (user := _user(steps, i)) is not None:
                self._add(i, user)
        self.order = tuple(TopologicalSorter(dict(enumerate(self.before))).static_order())
        """Steps so that what comes before a step stands before it."""
        self.after: list[list[int]] = [[] for _ in steps]
        for later, earlier_ones in enumerate(self.before):
            for earlier in earlier_ones:
                self.after[earlier].append(later)

    def _add(self, earlier: int, later: int) -> None:
        """That `earlier` comes before `later`, unless that would be a circle: two steps cannot wait for each other."""
        seen, todo = set[int](), [earlier]
        while todo:
            at = todo.pop()
            if at == later:
                return
            if at not in seen:
                seen.add(at)
                todo += self.before[at]
        self.before[later].add(earlier)

    def ends(self, minutes: Sequence[float]) -> list[float]:
        """When each step ends at the soonest. [min]"""
        found = [0.0] * len(self.before)
        for i in self.order:
            found[i] = max((found[j] for j in self.before[i]), default=0.0) + minutes[i]
        return found

    def longest(self, minutes: Sequence[float]) -> float:
        """How long all of it takes: the longest path. [min]"""
        return max(self.ends(minutes), default=0.0)

    def longest_path(self, minutes: Sequence[float]) -> tuple[int, ...]:
        """The steps of the longest path, first to last."""
        ends = self.ends(minutes)
        path, at = list[int](), max(range(len(ends)), key=ends.__getitem__, default=None)
        while at is not None:
            path.append(at)
            at = max(self.before[at], key=ends.__getitem__, default=None)
        return tuple(reversed(path))


def _user(steps: Sequence[Filled], i: int) -> int | None:
    """Which step needs what is done ahead: the next one in the same place."""
    return next((j for j in range(i + 1, len(steps)) if steps[j].place == steps[i].place and steps[j].kind.does != "ahead"), None)


def _joins_untold(formula: Formula, steps: Sequence[Filled], threads: Sequence[Strand]) -> dict[int, int]:
    """Stages that no step says it takes in: the first step on what the stage goes into that takes anything, or the first at all."""
    named = {stage_of(formula, takes.key) for one in steps for takes in one.step.takes if takes.what == "stage"}
    own = {thread.spot: thread.steps for thread in threads if thread.kind == "stage"}
    found = {}
    for part in flow(formula).parts:
        if part.source in named or part.source not in own or part.target not in own:
            continue
        after = own[part.target]
        found[part.source] = next((i for i in after if steps[i].step.takes), after[0])
    return found


def timeline(steps: Sequence[Filled], threads: Sequence[Strand], graph: Graph, minutes: Sequence[float]) -> tuple[When, ...]:
    """When each step is, with these times; a step that happens during another takes none of its own. Each as late as it may be. [min]"""
    whole = graph.longest(minutes)
    begins, needed = [0.0] * len(steps), [whole] * len(steps)
    for i in reversed(graph.order):
        needed[i] = min((begins[j] for j in graph.after[i]), default=whole)
        begins[i] = needed[i] - minutes[i]
    strand_of = {i: n for n, thread in enumerate(threads) for i in thread.steps}
    found = []
    for i, one in enumerate(steps):
        begin, end = begins[i], begins[i] + minutes[i]
        if one.step.during:
            begin, end = _host(steps, threads[strand_of[i]].steps, i, begins, minutes)
        found.append(When(begin, end, strand_of[i], max(0.0, needed[i] - end), touches(one, begin, end)))
    return tuple(found)


def _host(steps: Sequence[Filled], chain: Sequence[int], i: int, begins: Sequence[float], minutes: Sequence[float]) -> tuple[float, float]:
    """Within which step one happens that takes no time of its own: the last before it on the same thing that does."""
    host = next((j for j in reversed(chain[: chain.index(i)]) if steps[j].on_chain), i)
    return begins[host], begins[host] + minutes[host]


def touches(one: Filled, begin: float, end: float) -> tuple[tuple[float, float], ...]:
    """When a step needs hands: throughout, at an end, or so many times spread evenly over it. [min]"""
    if one.hands == "none" or (end <= begin and not one.step.during):
        return ()
    if one.hands == "all" and not one.step.during:
        return ((begin, end),)
    if one.hands == "start":
        return ((begin, min(end, begin + one.touch_min)),)
    if one.hands == "end":
        return ((max(begin, end - one.touch_min), end),)
    apart = (end - begin) / (one.touches + 1)
    each = min(one.touch_min, apart)
    return tuple((begin + apart * (k + 1) - each / 2, begin + apart * (k + 1) + each / 2) for k in range(one.touches))
