"""What a timetable weighs: lateness, rises out of range, lying, the baker's day, the oven. In units of one slot of the baker's day."""

from collections.abc import Mapping, Sequence
from dataclasses import astuple, dataclass

import numpy as np
from scipy.optimize import linear_sum_assignment

from pancount.core.day.problem import NEAR_C, STALE_SLOTS, Firing, Problem, change_slots, weighs

Placed = tuple[int, Firing, int, int]
"""A firing where it is placed: its block, itself, from slot to before slot."""
MOST_COST = 1 << 30


@dataclass(frozen=True, slots=True)
class Weighed:
    """What a timetable weighs, part by part."""

    late: int
    gaps: int
    lies: int
    span: int
    early: int
    oven: int
    moved: int

    @property
    def total(self) -> int:
        """All of it."""
        return sum(astuple(self))


def placed_firings(problem: Problem, starts: Mapping[int, int]) -> list[Placed]:
    """Every firing that is placed, in order of time."""
    found = [(b, one, at + one.begin, at + one.end) for b, at in starts.items() for one in problem.blocks[b].firings]
    return sorted(found, key=lambda one: (one[2], one[0]))


def follows(first: Firing, then: Firing) -> int:
    """What it costs, beside waiting, that an oven goes on from one firing to another."""
    return weighs()["change"] if abs(then.oven_c - first.oven_c) > NEAR_C else 0


def oven_paths(firings: Sequence[Placed]) -> tuple[int, list[int | None]]:
    """What heating costs at least, and which firing each follows; None where the oven is heated up for it.

    Each follows one that began no later, or has the oven heated up; each is followed by one at most. So it is a cheapest cover by paths.
    """
    size = len(firings)
    if not size:
        return 0, []
    cost = np.full((size, 2 * size), MOST_COST, dtype=np.int64)
    for j, (_, then, begin, _) in enumerate(firings):
        cost[j, size + j] = weighs()["heating"]
        for i, (_, first, _, end) in enumerate(firings[:j]):
            wait = begin - end
            if wait >= change_slots(first.oven_c, then.oven_c) or abs(first.oven_c - then.oven_c) <= NEAR_C:
                cost[j, i] = max(0, wait) // weighs()["idle"] + follows(first, then)
    rows, columns = linear_sum_assignment(cost)
    return int(cost[rows, columns].sum()), [int(i) if i < size else None for i in columns]


def working_days(problem: Problem, starts: Mapping[int, int]) -> dict[int, tuple[int, int]]:
    """From which slot to before which each working day has hands to do."""
    found: dict[int, tuple[int, int]] = {}
    for b, at in starts.items():
        block = problem.blocks[b]
        if not block.runs or block.past:
            continue
        begin, end = at + block.runs[0].begin, at + block.runs[-1].end
        day = next(n for n, (first, last) in enumerate(problem.days) if first <= begin < last)
        known = found.get(day, (begin, end))
        found[day] = min(begin, known[0]), max(end, known[1])
    return found


def latest_goal(problem: Problem) -> int:
    """The last time anything is to be ready; earlier beginnings are counted from it."""
    return max((goal.ready_by or 0 for goal in problem.goals), default=0)


def weigh(problem: Problem, starts: Mapping[int, int]) -> Weighed:
    """What a timetable weighs. `starts` by block; products of which nothing is placed count nothing."""
    each = weighs()
    late = lies = moved = 0
    for goal in problem.goals:
        if goal.block in starts and not problem.blocks[goal.block].past:
            ready = starts[goal.block] + goal.ready
            if goal.ready_by is None:
                lies += ready * each["sooner"]
            else:
                late += max(0, ready - goal.ready_by) * each["late"]
                lain = max(0, goal.ready_by - ready)
                lies += lain * goal.fresh + max(0, lain - STALE_SLOTS) * each["stale"]
    for b, at in starts.items():
        told = problem.blocks[b].told
        if told is not None and not problem.blocks[b].past:
            moved += abs(at - told) * each["moved"]
    gaps = sum(link.costs[starts[link.after] - starts[link.before] - link.low] for link in problem.links if link.after in starts)
    days = working_days(problem, starts)
    first = min((begin for begin, _ in days.values()), default=latest_goal(problem))
    early = max(0, latest_goal(problem) - first) // each["early"]
    return Weighed(late, gaps, lies, sum(end - begin for begin, end in days.values()), early, oven_paths(placed_firings(problem, starts))[0], moved)
