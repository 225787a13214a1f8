"""A problem as arrays: where each block may begin once absences and links have been cut out, what each start costs by itself, and the best of one product.

A product is a tree of blocks with convex links, so its best by itself is found exactly, by dynamic programming from the leaves to the root.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt
from numpy.lib.stride_tricks import sliding_window_view

from pancount.core.day.problem import STALE_SLOTS, Block, Link, Problem, weighs

Costs = npt.NDArray[np.int64]
Mask = npt.NDArray[np.bool_]
MOST_PATTERNS = 80
NEVER = 1 << 40
"""What cannot be."""


def _within(mask: Mask, begin: int, end: int) -> Mask:
    """For each slot, whether all of `mask` holds from `begin` to before `end` after it; what is past either end does not."""
    size = len(mask)
    total = np.concatenate(([0], np.cumsum(~mask)))
    at = np.arange(size)
    first, last = at + begin, at + end
    found: Mask = (first >= 0) & (last <= size) & (total[np.clip(last, 0, size)] == total[np.clip(first, 0, size)])
    return found


def _any_within(mask: Mask, first: int, last: int) -> Mask:
    """For each slot, whether any of `mask` holds from `first` to `last` after it, both included."""
    size = len(mask)
    total = np.concatenate(([0], np.cumsum(mask)))
    at = np.arange(size)
    found: Mask = total[np.clip(at + last + 1, 0, size)] > total[np.clip(at + first, 0, size)]
    return found


@dataclass(frozen=True)
class Tree:
    """A product's blocks from leaves to root, the links into each, and the one out of it."""

    order: tuple[int, ...]
    into: Mapping[int, tuple[int, ...]]
    out: Mapping[int, int]
    first_come: tuple[int, ...]
    """The same from the root on, those that most hangs on first: what is made apart, and preheats, give way."""


class Ground:
    """A problem made ready to be reckoned with."""

    def __init__(self, problem: Problem) -> None:
        self.problem = problem
        self._costs: dict[tuple[int, ...], Costs] = {}
        self._moved: dict[int, npt.NDArray[np.int64]] = {}
        self.trees = tuple(self._tree(p) for p in range(len(problem.goals)))
        self.day_of = np.full(problem.slots + 1, -1)
        for n, (begin, end) in enumerate(problem.days):
            self.day_of[begin:end] = n
        hands = np.array(problem.hands)
        self.hands = hands
        self.allowed = [self._allowed(block) for block in problem.blocks]
        for tree in self.trees:
            self._agree(tree)
        self.raw = [mask.copy() for mask in self.allowed]
        """The same before anything was cut off for costing too much."""
        self.own = [self._own(b) for b in range(len(problem.blocks))]

    def moved(self, by: int) -> npt.NDArray[np.int64]:
        """Each slot moved by so many, kept within the first and past the last. Remembered."""
        if by not in self._moved:
            self._moved[by] = np.clip(np.arange(self.problem.slots) + by, 0, self.problem.slots)
        return self._moved[by]

    def _tree(self, p: int) -> Tree:
        links, root = self.problem.links, self.problem.goals[p].block
        into: dict[int, tuple[int, ...]] = {}
        order, todo = list[int](), [root]
        while todo:
            b = todo.pop()
            order.append(b)
            into[b] = tuple(n for n, link in enumerate(links) if link.after == b)
            todo += [links[n].before for n in into[b]]
        size: dict[int, int] = {}
        for b in reversed(order):
            size[b] = 1 + sum(size[links[n].before] for n in into[b])
        out = {links[n].before: n for own in into.values() for n in own}
        return Tree(tuple(reversed(order)), into, out, tuple(sorted(order, key=lambda b: -size[b])))

    def _allowed(self, block: Block) -> Mask:
        """Where a block may begin by itself: told, with hands there for each of its touches, within one working day."""
        found = np.zeros(self.problem.slots, dtype=bool)
        for begin, end in block.starts:
            found[max(0, begin) : max(0, end)] = True
        if block.past:
            return found
        for run in block.runs:
            found &= _within(self.hands >= run.units, run.begin, run.end)
        if block.runs:
            first, last = block.runs[0].begin, block.runs[-1].end - 1
            at = np.arange(self.problem.slots)
            days = self.day_of[np.clip(at + first, 0, self.problem.slots)]
            found &= (days >= 0) & (days == self.day_of[np.clip(at + last, 0, self.problem.slots)])
        for use in block.uses:
            if use.amount > self.problem.most.get(use.what, use.amount):
                found[:] = False
        return found

    def _agree(self, tree: Tree) -> None:
        """Cut out what no link leaves: from the leaves to the root, then back. On a tree that is all there is to cut."""
        links = self.problem.links
        for b in tree.order:
            for n in tree.into[b]:
                link = links[n]
                self.allowed[b] = self.allowed[b] & _any_within(self.allowed[link.before], -link.high, -link.low)
        for b in reversed(tree.order):
            for n in tree.into[b]:
                link = links[n]
                self.allowed[link.before] = self.allowed[link.before] & _any_within(self.allowed[b], link.low, link.high)

    def _own(self, b: int) -> Costs:
        """What a block's start costs by itself: lateness, lying, moving."""
        at = np.arange(self.problem.slots)
        found = np.where(self.allowed[b], 0, NEVER).astype(np.int64)
        block = self.problem.blocks[b]
        if block.told is not None and not block.past:
            found += np.abs(at - block.told) * weighs()["moved"]
        goal = self.problem.goals[block.product]
        if goal.block == b and not block.past:
            ready = at + goal.ready
            if goal.ready_by is None:
                found += ready * weighs()["sooner"]
            else:
                lies = np.maximum(goal.ready_by - ready, 0)
                found += np.maximum(ready - goal.ready_by, 0) * weighs()["late"] + lies * goal.fresh
                found += np.maximum(lies - STALE_SLOTS, 0) * weighs()["stale"]
        return found

    def joined(self, link: Link, before: Costs, last_bad: npt.NDArray[np.int64] | None = None, *, flipped: bool = False) -> tuple[Costs, npt.NDArray[np.int64]]:
        """For each start of the block after, the least that the block before and the link cost, and how many slots lie between. `flipped`: time runs
        backwards in what is given."""
        width, size = len(link.costs), len(before)
        rows = np.flatnonzero(self.allowed[link.after]) if not flipped else np.flatnonzero(self.allowed[link.after][::-1])
        left, right = max(link.high, 0), max(-link.low, 0)
        padded = np.concatenate((np.full(left, NEVER, dtype=np.int64), before, np.full(right, NEVER, dtype=np.int64)))
        # Row t holds the starts t - high … t - low of the block before.
        spread = sliding_window_view(padded, width)[rows - link.high + left] + self._backwards(link.costs)
        if last_bad is not None:
            starts = rows[:, None] - link.high + np.arange(width)[None, :]
            spread = np.where(starts + link.held_from <= last_bad[rows][:, None], NEVER, spread)
        at = np.argmin(spread, axis=1)
        least, between = np.full(size, NEVER, dtype=np.int64), np.zeros(size, dtype=np.int64)
        least[rows], between[rows] = spread[np.arange(len(rows)), at], link.high - at
        return least, between

    def _backwards(self, costs: tuple[int, ...]) -> Costs:
        """A link's costs from the most slots between to the least. Remembered."""
        found = self._costs.get(costs)
        if found is None:
            found = self._costs[costs] = np.array(costs[::-1], dtype=np.int64)
        return found

    def up(self, p: int, own: Sequence[Costs]) -> dict[int, Costs]:
        """For each block of a product and each of its starts, the least that it and all before it cost."""
        found: dict[int, Costs] = {}
        tree = self.trees[p]
        for b in tree.order:
            found[b] = own[b]
            for n in tree.into[b]:
                found[b] = np.minimum(found[b] + self.joined(self.problem.links[n], found[self.problem.links[n].before])[0], NEVER)
        return found

    @cached_property
    def alone(self) -> tuple[int, ...]:
        """What each product costs at least, by itself; `NEVER` where it cannot be."""
        return tuple(int(self.up(p, self.own)[goal.block].min(initial=NEVER)) for p, goal in enumerate(self.problem.goals))

    @cached_property
    def in_day(self) -> tuple[tuple[Mask, ...], ...]:
        """By block and working day, the starts with which it is in it."""
        found = []
        for block in self.problem.blocks:
            first = block.runs[0].begin if block.runs else 0
            found.append(tuple(self.day_of[self.moved(first)] == day for day in range(len(self.problem.days))))
        return tuple(found)

    def through(self, p: int) -> dict[int, Costs]:
        """For each block and each of its starts, the least that the whole product costs by itself with the block there."""
        links, tree = self.problem.links, self.trees[p]
        up = self.up(p, self.own)
        found = {tree.order[-1]: up[tree.order[-1]]}
        for b in reversed(tree.order):
            for n in tree.into[b]:
                link = links[n]
                part = self.joined(link, up[link.before])[0]
                rest = np.where(found[b] >= NEVER, NEVER, found[b] - part)
                # Backwards in time it is the same, with the link seen from its other end.
                flipped = Link(link.after, link.before, link.low, link.costs)
                down = self.joined(flipped, rest[::-1], flipped=True)[0][::-1]
                found[link.before] = np.minimum(up[link.before] + down, NEVER)
        return found

    def patterns(self, p: int, most: int) -> dict[tuple[tuple[int, int], ...], int]:
        """On which working days a product's blocks may be, where there is a choice, and what it costs at least by itself with each such pattern; those
        over `most` left away. Empty where there are too many to be of use. A pattern is blocks with their days."""
        links, tree = self.problem.links, self.trees[p]
        found: dict[int, dict[tuple[tuple[int, int], ...], Costs]] = {}
        for b in tree.order:
            now: dict[tuple[tuple[int, int], ...], Costs] = {(): self.own[b]}
            for n in tree.into[b]:
                before = {key: self.joined(links[n], costs)[0] for key, costs in found.pop(links[n].before).items()}
                now = {(*key, *other): np.minimum(costs + more, NEVER) for key, costs in now.items() for other, more in before.items()}
            if self.problem.blocks[b].runs and not self.problem.blocks[b].past:
                here = [day for day, mask in enumerate(self.in_day[b]) if (mask & self.allowed[b]).any()]
                if len(here) > 1:
                    now = {(*key, (b, day)): np.where(self.in_day[b][day], costs, NEVER) for key, costs in now.items() for day in here}
            found[b] = {key: costs for key, costs in now.items() if int(costs.min(initial=NEVER)) <= most}
            if len(found[b]) > MOST_PATTERNS:
                return {}
        return {key: int(costs.min(initial=NEVER)) for key, costs in found[tree.order[-1]].items()}

    def spare(self, p: int, most: int) -> int:
        """What a product may cost at most, by itself, in a timetable that weighs no more than `most`."""
        return most - sum(self.alone) - self.least_span + self.alone[p]

    @cached_property
    def work(self) -> int:
        """What all blocks take of hands. [units]"""
        return sum((run.end - run.begin) * run.units for block in self.problem.blocks if not block.past for run in block.runs)

    @property
    def least_span(self) -> int:
        """The working days together are no shorter than all hands need. [slots]"""
        most = max(self.problem.hands, default=0)
        return -(-self.work // most) if most else 0

    def cut(self, most: int) -> bool:
        """Drop every start with which its product, the others at their least, would come to more than `most`. Whether anything was dropped."""
        dropped = False
        for p, tree in enumerate(self.trees):
            spare, through = self.spare(p, most), self.through(p)
            for b in tree.order:
                kept = self.allowed[b] & (through[b] <= spare)
                if kept.sum() < self.allowed[b].sum():
                    dropped = True
                    self.allowed[b] = kept
        if dropped:
            for tree in self.trees:
                self._agree(tree)
            self.own = [self._own(b) for b in range(len(self.problem.blocks))]
        return dropped
