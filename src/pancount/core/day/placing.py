"""Placing one product after another, each exactly, into what the others leave; and making that better by taking some out and placing them again.

What comes of it is a timetable at once, without a solver, and the solver's first.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence

import numpy as np
import numpy.typing as npt

from pancount.core.day.ground import NEVER, Costs, Ground, Mask
from pancount.core.day.problem import FULL, NEAR_C, Firing, change_slots, weighs
from pancount.core.day.weighing import follows, latest_goal, placed_firings, weigh, working_days

Starts = dict[int, int]
TRIES = 12
"""How often a product is laid anew where its own blocks are in each other's way."""


def _summed(full: npt.NDArray[np.bool_]) -> npt.NDArray[np.int64]:
    """How many of the slots before each are full."""
    found = np.zeros(len(full) + 1, dtype=np.int64)
    np.cumsum(full, out=found[1:])
    return found


class Placing:
    """A partial timetable: what is placed, and what is left of everything, slot by slot."""

    def __init__(self, ground: Ground) -> None:
        self.ground, self.problem = ground, ground.problem
        self.starts: Starts = {}
        size = self.problem.slots
        self.hands = np.zeros(size, dtype=np.int64)
        self.used = {what: np.zeros(size, dtype=np.int64) for what in self.problem.most}
        self.put({b: block.starts[0][0] for b, block in enumerate(self.problem.blocks) if block.past})

    def _mark(self, b: int, at: int, sign: int) -> None:
        block = self.problem.blocks[b]
        for run in block.runs:
            self.hands[max(0, at + run.begin) : max(0, at + run.end)] += sign * run.units
        for use in block.uses:
            if use.what in self.used:
                self.used[use.what][max(0, at + use.begin) : max(0, at + use.end)] += sign * use.amount

    def put(self, starts: Mapping[int, int]) -> None:
        """Place blocks."""
        for b, at in starts.items():
            self.starts[b] = at
            self._mark(b, at, 1)
        self._hold(starts, 1)

    def take(self, p: int) -> Starts:
        """Take a product out, but for what has happened of it."""
        gone = {b: self.starts[b] for b in self.ground.trees[p].order if b in self.starts and not self.problem.blocks[b].past}
        self._hold(gone, -1)
        for b, at in gone.items():
            self._mark(b, at, -1)
            del self.starts[b]
        return gone

    def _hold(self, starts: Mapping[int, int], sign: int) -> None:
        for link in self.problem.links:
            if link.holds in self.used and link.before in self.starts and link.after in self.starts and (link.before in starts or link.after in starts):
                self.used[link.holds][self.starts[link.before] + link.held_from : self.starts[link.after] + link.held_until] += sign * link.amount

    def _firing_free(self, firing: Firing, others: Sequence[tuple[int, Firing, int, int]]) -> Mask:
        """For each start of a block, whether an oven has the heat and the shelves for this firing of it."""
        size = self.problem.slots
        at = np.arange(size)
        begin, end = at + firing.begin, at + firing.end
        if self.problem.ovens > 1:
            # With several ovens: one must be free of all others, or as hot; so many that are neither fill them.
            busy = np.zeros(size, dtype=np.int64)
            for _, one, first, last in others:
                busy += (begin < last + change_slots(one.oven_c, firing.oven_c)) & (end + change_slots(firing.oven_c, one.oven_c) > first)
            return busy < self.problem.ovens
        found = np.ones(size, dtype=bool)
        shelves = np.zeros(size + 1, dtype=np.int64)
        for _, one, first, last in others:
            if abs(one.oven_c - firing.oven_c) <= NEAR_C:
                shelves[first:last] += one.shelves
            else:
                found &= (begin >= last + change_slots(one.oven_c, firing.oven_c)) | (end + change_slots(firing.oven_c, one.oven_c) <= first)
        if shelves.any():
            found &= self._free(_summed(shelves[:size] + firing.shelves > self.problem.shelves), firing.begin, firing.end)
        return found

    def _oven_cost(self, firing: Firing, others: Sequence[tuple[int, Firing, int, int]]) -> Costs:
        """About what heating for this firing costs more: heated up, or kept hot after the one before it."""
        begin = np.arange(self.problem.slots) + firing.begin
        found = np.full(self.problem.slots, weighs()["heating"], dtype=np.int64)
        for _, one, first, last in others:
            wait = begin - last
            near = abs(one.oven_c - firing.oven_c) <= NEAR_C
            can = (begin >= first) if near else wait >= change_slots(one.oven_c, firing.oven_c)
            found = np.where(can, np.minimum(found, np.maximum(wait, 0) // weighs()["idle"] + follows(one, firing)), found)
        return found

    def _free(self, summed: npt.NDArray[np.int64], begin: int, end: int) -> Mask:
        """For each slot, whether nothing that was summed lies from `begin` to before `end` after it. Before the first and after the last all is free."""
        found: Mask = summed[self.ground.moved(end)] == summed[self.ground.moved(begin)]
        return found

    def costs(self, p: int, skip: Mapping[int, Mask]) -> list[Costs]:
        """What each start of each block of a product costs, with what is placed: `NEVER` where something is in the way."""
        problem, found = self.problem, list(self.ground.own)
        days = working_days(problem, self.starts)
        first_of_all = min((begin for begin, _ in days.values()), default=latest_goal(problem))
        others = placed_firings(problem, self.starts)
        at = np.arange(problem.slots)
        busy = {units: _summed(self.hands + units > self.ground.hands) for units in range(1, FULL + 1)}
        for b in self.ground.trees[p].order:
            block = problem.blocks[b]
            if block.past:
                continue
            cost, free = found[b].copy(), self.ground.allowed[b].copy()
            for run in block.runs:
                free &= self._free(busy[run.units], run.begin, run.end)
            for use in block.uses:
                if use.what in self.used:
                    free &= self._free(_summed(self.used[use.what] + use.amount > problem.most[use.what]), use.begin, use.end)
            for firing in block.firings:
                if others:
                    free &= self._firing_free(firing, others)
                cost += self._oven_cost(firing, others)
            if block.runs:
                begin, end = at + block.runs[0].begin, at + block.runs[-1].end
                for day, here in enumerate(self.ground.in_day[b]):
                    if day in days:
                        cost += here * (np.maximum(days[day][0] - begin, 0) + np.maximum(end - days[day][1], 0))
                    else:
                        cost += here * (block.runs[-1].end - block.runs[0].begin)
                cost += np.maximum(first_of_all - begin, 0) // weighs()["early"]
            if b in skip:
                free &= ~skip[b]
            found[b] = np.where(free, cost, NEVER)
        return found

    def _last_bad(self, what: str, amount: int, until: int) -> npt.NDArray[np.int64]:
        """For each start of the block after a link, the last slot before its end of holding in which there is no room."""
        size = self.problem.slots
        bad = self.used[what] + amount > self.problem.most[what]
        last = np.maximum.accumulate(np.where(bad, np.arange(size), -1 - size))
        return np.asarray(last[np.clip(np.arange(size) + until - 1, 0, size - 1)])

    def insert(self, p: int) -> bool:
        """Place a product where it costs least beside what is placed. False where there is no room for it."""
        if self.ground.trees[p].order[-1] in self.starts:
            return True  # all of it has happened
        skip: dict[int, Mask] = {}
        for _ in range(TRIES):
            laid = self._best(p, self.costs(p, skip))
            if laid is None:
                return False
            starts, clash = laid
            if clash is None:
                self.put({b: at for b, at in starts.items() if b not in self.starts})
                return True
            skip[clash] = skip.get(clash, np.zeros(self.problem.slots, dtype=bool)) | (np.arange(self.problem.slots) == starts[clash])
        return False

    def _best(self, p: int, costs: Sequence[Costs]) -> tuple[Starts, int | None] | None:
        """Where a product's blocks cost least, and the one that should be elsewhere since another cannot be placed beside it; None where there is no
        room at all."""
        ground, tree, links = self.ground, self.ground.trees[p], self.problem.links
        up: dict[int, Costs] = {}
        back: dict[int, npt.NDArray[np.int64]] = {}
        for b in tree.order:
            up[b] = costs[b]
            for n in tree.into[b]:
                link = links[n]
                bad = self._last_bad(link.holds, link.amount, link.held_until) if link.holds in self.used and self.used[link.holds].any() else None
                least, back[n] = ground.joined(link, up[link.before], bad)
                up[b] = np.minimum(up[b] + least, NEVER)
        root = tree.order[-1]
        at = int(np.argmin(up[root]))
        if up[root][at] >= NEVER:
            return None
        starts: Starts = {}
        self._trace(root, at, back, starts)
        return starts, self._stand_aside(p, starts, up, back)

    def _trace(self, b: int, at: int, back: Mapping[int, npt.NDArray[np.int64]], starts: Starts) -> None:
        """Where a block is, and so all before it."""
        starts[b] = at
        for n in self.ground.trees[self.problem.blocks[b].product].into[b]:
            self._trace(self.problem.links[n].before, at - int(back[n][at]), back, starts)

    def _stand_aside(self, p: int, starts: Starts, up: Mapping[int, Costs], back: Mapping[int, npt.NDArray[np.int64]]) -> int | None:
        """Move what of a product is in the way of its own: side strands and preheats are placed as if alone, and stand aside for what they go into.
        The block that is to be elsewhere, where one finds no place beside it; None where all have one. `starts` are changed in place."""
        tree, links, size = self.ground.trees[p], self.problem.links, self.problem.slots
        hands, used = self.hands.copy(), {what: amounts.copy() for what, amounts in self.used.items()}
        for b in tree.first_come:
            block = self.problem.blocks[b]
            if block.past:
                continue
            ways = np.zeros(size, dtype=bool)
            for run in block.runs:
                ways |= ~self._free(_summed(hands + run.units > self.ground.hands), run.begin, run.end)
            for use in block.uses:
                if use.what in used:
                    ways |= ~self._free(_summed(used[use.what] + use.amount > self.problem.most[use.what]), use.begin, use.end)
            if ways[starts[b]]:
                if b not in tree.out:
                    return b
                link = links[tree.out[b]]
                ends = starts[link.after]
                other = np.arange(max(0, ends - link.high), min(size, ends - link.low + 1))
                costs = np.where(ways[other], NEVER, up[b][other] + np.array(link.costs, dtype=np.int64)[ends - other - link.low])
                if not len(other) or costs.min() >= NEVER:
                    return link.after
                self._trace(b, int(other[np.argmin(costs)]), back, starts)
            at = starts[b]
            for run in block.runs:
                hands[max(0, at + run.begin) : at + run.end] += run.units
            for use in block.uses:
                if use.what in used:
                    used[use.what][max(0, at + use.begin) : max(0, at + use.end)] += use.amount
        for link in links:
            if link.holds in used and link.before in starts and link.after in starts:
                part = slice(starts[link.before] + link.held_from, starts[link.after] + link.held_until)
                used[link.holds][part] += link.amount
                if (used[link.holds][part] > self.problem.most[link.holds]).any():
                    return link.after
        return None

    def fits(self, p: int, starts: Starts) -> bool:
        """Whether a product fits just so beside what is placed."""
        tree, links = self.ground.trees[p], self.problem.links
        if any(b not in starts or not 0 <= starts[b] < self.problem.slots for b in tree.order):
            return False
        costs = self.costs(p, {})
        if any(costs[b][starts[b]] >= NEVER for b in tree.order):
            return False
        if not all(links[n].low <= starts[links[n].after] - starts[links[n].before] <= links[n].high for b in tree.order for n in tree.into[b]):
            return False
        only = {b: np.where(np.arange(self.problem.slots) == starts[b], 0, NEVER) for b in tree.order}
        return self._stand_aside(p, dict(starts), only, {}) is None


def constructed(ground: Ground, order: Iterable[int]) -> Placing:
    """Products placed in an order, those that have happened first of all; what finds no room is left out."""
    placing = Placing(ground)
    for p in order:
        placing.insert(p)
    return placing


def left_out(ground: Ground, starts: Mapping[int, int]) -> tuple[int, ...]:
    """Products of which nothing is placed."""
    return tuple(p for p, goal in enumerate(ground.problem.goals) if goal.block not in starts)


PASSES = 8
LEFT_OUT = 100 * weighs()["late"]
"""What it counts that a product is left out."""


def score(ground: Ground, starts: Mapping[int, int]) -> int:
    """What a timetable weighs, with what is left out of it."""
    return weigh(ground.problem, starts).total + LEFT_OUT * len(left_out(ground, starts))


def first_timetable(ground: Ground, hint: Mapping[int, int] | None = None) -> Starts:
    """A timetable at once: dearest first, then twice more with those first that came out dearest, and again while something has no place. From
    another's where one is known."""
    products = range(len(ground.problem.goals))
    order = sorted(products, key=lambda p: (-len(ground.trees[p].order), p))
    best: Starts | None = None
    if hint:
        best = repaired(ground, hint)
    for n in range(PASSES):
        if n >= 3 and best is not None and not left_out(ground, best):
            break
        placing = constructed(ground, order)
        if best is None or score(ground, placing.starts) < score(ground, best):
            best = dict(placing.starts)
        out = left_out(ground, placing.starts)
        order = [*out, *(p for p in order if p not in out)] if out else sorted(products, key=lambda p: (-_part(ground, p, placing.starts), p))
    return best or {}


def repaired(ground: Ground, hint: Mapping[int, int]) -> Starts:
    """As much of another timetable as still holds, product by product; the rest placed anew."""
    placing = Placing(ground)
    anew = []
    for p, tree in enumerate(ground.trees):
        own = {b: hint[b] for b in tree.order if b in hint}
        if placing.fits(p, own):
            placing.put({b: at for b, at in own.items() if b not in placing.starts})
        else:
            anew.append(p)
    for p in anew:
        placing.insert(p)
    return dict(placing.starts)


def _part(ground: Ground, p: int, starts: Mapping[int, int]) -> int:
    """What a product weighs by itself where it is placed, over the least it could; left out, more than anything."""
    tree = ground.trees[p]
    if tree.order[-1] not in starts:
        return LEFT_OUT
    own = sum(int(ground.own[b][starts[b]]) for b in tree.order)
    links = (ground.problem.links[n] for b in tree.order for n in tree.into[b])
    return own + sum(link.costs[starts[link.after] - starts[link.before] - link.low] for link in links) - ground.alone[p]


def improved(ground: Ground, starts: Starts, rounds: int, goes_on: Callable[[], bool] = lambda: True, seed: int = 7) -> Starts:
    """Some rounds of taking two to four products out and placing them again, in another order; worse is gone on from now and then, ever less.

    Rounds are counted, not timed, and the draw is seeded, so that the same problem gives the same timetable.
    """
    drawn = np.random.default_rng(seed)
    size = len(ground.problem.goals)
    if size < 2:
        return starts
    best, best_score = dict(starts), score(ground, starts)
    placing = Placing(ground)
    placing.put(starts)
    current = best_score
    for n in range(rounds):
        if not goes_on():
            break
        before = dict(placing.starts)
        parts = np.array([max(1, _part(ground, p, before)) ** 0.5 for p in range(size)])
        some = drawn.choice(size, size=min(size, int(drawn.integers(2, 5))), replace=False, p=parts / parts.sum())
        for p in some:
            placing.take(int(p))
        for p in drawn.permutation(some):
            placing.insert(int(p))
        now = score(ground, placing.starts)
        warmth = 12.0 * (1 - n / rounds) + 0.1
        if now <= current or drawn.random() < np.exp((current - now) / warmth):
            current = now
        else:
            _restore(placing, before)
        if current < best_score:
            best, best_score = dict(placing.starts), current
    return best


def _restore(placing: Placing, starts: Starts) -> None:
    """Back to how it was; products that stand as they did are not touched."""
    for p, tree in enumerate(placing.ground.trees):
        if any(placing.starts.get(b) != starts.get(b) for b in tree.order):
            placing.take(p)
    for tree in placing.ground.trees:
        if tree.order[-1] in starts and tree.order[-1] not in placing.starts:
            placing.put({b: starts[b] for b in tree.order if b not in placing.starts})


