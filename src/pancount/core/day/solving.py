"""The day as a constraint problem, solved from a timetable that is known, with the proof of how good it is.

Three named phases share the time: one that soon proves an easy day, one that finds better timetables on a hard one, one that proves. Before each,
what no better timetable can use is cut out of the domains. Search is interleaved and its limits are counted and not timed, so that the same problem
gives the same timetable on any machine that is left the time; a limit by the clock stands behind that.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from itertools import combinations, pairwise

from ortools.sat.python import cp_model

from pancount.core.day.ground import Ground
from pancount.core.day.problem import FULL, NEAR_C, STALE_SLOTS, Firing, Link, change_slots, weighs
from pancount.core.day.weighing import follows, latest_goal, oven_paths, weigh

Starts = dict[int, int]
PHASES: tuple[tuple[tuple[str, ...], float], ...] = (
    (("core", "default_lp"), 0.12),
    (("reduced_costs", "objective_lb_search"), 0.43),
    (("core", "objective_lb_search_max_lp"), 0.45),
)
"""Which searches, and their share of the time: found by trying, on seeded days (`bench/day.py`)."""


@dataclass(frozen=True, slots=True)
class Solved:
    """The best timetable found, what it weighs, and what any weighs at least."""

    starts: Starts
    weighs: int
    bound: int

    @property
    def proven(self) -> bool:
        """Whether nothing better can be."""
        return self.bound >= self.weighs


class _Model:
    """The model of one phase."""

    def __init__(self, ground: Ground, known: Mapping[int, int]) -> None:
        self.ground, self.problem = ground, ground.problem
        self.cp = cp_model.CpModel()
        self.known = known
        self.starts = {b: self._start(b) for tree in ground.trees for b in tree.order if b in known}
        self.terms: list[cp_model.LinearExprT] = []
        self.own: dict[int, list[cp_model.LinearExprT]] = {}
        """Of the terms, what a product costs by itself."""
        self.days: dict[tuple[int, int], cp_model.IntVar] = {}
        """Whether a block is in a working day, where it has a choice."""
        self.hints: list[tuple[cp_model.IntVar, int]] = [(var, known[b]) for b, var in self.starts.items()]
        for n, link in enumerate(self.problem.links):
            if link.after in self.starts and link.before in self.starts:
                self._link(n, link)
        self._goals()
        self._capacities()
        self._ovens()
        self._days()
        self._patterns()
        self.cp.minimize(sum(self.terms))

    def _start(self, b: int) -> cp_model.IntVar:
        allowed = self.ground.allowed[b]
        return self.cp.new_int_var_from_domain(cp_model.Domain.from_values([int(t) for t in allowed.nonzero()[0]]), f"s{b}")

    def _cost(self, most: int, value: int, name: str, each: int = 1, *, of: int | None = None) -> cp_model.IntVar:
        """Something that costs; `of` a product where it is one's own."""
        var = self.cp.new_int_var(0, max(0, most), name)
        self.hints.append((var, value))
        self._counts(var * each, of)
        return var

    def _counts(self, term: cp_model.LinearExprT, of: int | None) -> None:
        self.terms.append(term)
        if of is not None:
            self.own.setdefault(of, []).append(term)

    def _link(self, n: int, link: Link) -> None:
        between = self.starts[link.after] - self.starts[link.before]
        if self.problem.blocks[link.after].past:
            return
        self.cp.add_linear_constraint(between, link.low, link.high)
        costs = link.costs
        if max(costs) == 0:
            return
        cost = self._cost(max(costs), costs[self.known[link.after] - self.known[link.before] - link.low], f"c{n}", of=self.problem.blocks[link.after].product)
        if min(costs):
            self.cp.add(cost >= min(costs))
        slopes = [b - a for a, b in pairwise(costs)]
        for k, slope in enumerate(slopes):
            if slope and (k == 0 or slope != slopes[k - 1]):
                self.cp.add(cost >= slope * (between - (link.low + k)) + costs[k])

    def _goals(self) -> None:
        each = weighs()
        for p, goal in enumerate(self.problem.goals):
            if goal.block not in self.starts or self.problem.blocks[goal.block].past:
                continue
            ready = self.starts[goal.block] + goal.ready
            if goal.ready_by is None:
                self._counts(ready * each["sooner"], p)
                continue
            known = self.known[goal.block] + goal.ready
            late = self.cp.new_int_var(0, self.problem.slots, f"late{p}")
            lies = self.cp.new_int_var(0, self.problem.slots, f"lies{p}")
            self.hints += [(late, max(0, known - goal.ready_by)), (lies, max(0, goal.ready_by - known))]
            self.cp.add(late - lies == ready - goal.ready_by)
            self._counts(late * each["late"], p)
            self._counts(lies * goal.fresh, p)
            stale = self._cost(self.problem.slots, max(0, goal.ready_by - known - STALE_SLOTS), f"stale{p}", each["stale"], of=p)
            self.cp.add(stale >= lies - STALE_SLOTS)
        for b, var in self.starts.items():
            block = self.problem.blocks[b]
            if block.told is not None and not block.past:
                moved = self._cost(self.problem.slots, abs(self.known[b] - block.told), f"m{b}", of=block.product)
                self.cp.add_abs_equality(moved, var - block.told)

    def _capacities(self) -> None:
        most = max(self.problem.hands, default=0)
        intervals, demands, full = [], [], []
        for b, var in self.starts.items():
            block = self.problem.blocks[b]
            for n, run in enumerate(block.runs) if not block.past else ():
                one = self.cp.new_fixed_size_interval_var(var + run.begin, run.end - run.begin, f"h{b}.{n}")
                intervals.append(one)
                demands.append(run.units)
                if run.units == FULL:
                    full.append(one)
        taken = [0] * self.problem.slots
        for b in self.starts:
            block = self.problem.blocks[b]
            for run in block.runs if block.past else ():
                for slot in range(max(0, self.known[b] + run.begin), min(self.problem.slots, self.known[b] + run.end)):
                    taken[slot] = min(most, taken[slot] + run.units)
        gone = [max(most - units if 0 < units < most else 0, min(most, taken[slot] + most - units) if taken[slot] else 0) for slot, units in enumerate(self.problem.hands)]
        for begin, end, units in _stretches(gone):
            intervals.append(self.cp.new_fixed_size_interval_var(begin, end - begin, f"a{begin}"))
            demands.append(units)
        if intervals:
            self.cp.add_cumulative(intervals, demands, most)
        if most == FULL and full:
            self.cp.add_no_overlap(full)
        for what, number in self.problem.most.items():
            self._uses(what, number)

    def _uses(self, what: str, number: int) -> None:
        intervals, demands = [], []
        for b, var in self.starts.items():
            for n, use in enumerate(self.problem.blocks[b].uses):
                if use.what == what:
                    intervals.append(self.cp.new_fixed_size_interval_var(var + use.begin, use.end - use.begin, f"{what}{b}.{n}"))
                    demands.append(use.amount)
        for n, link in enumerate(self.problem.links):
            if link.holds == what and link.before in self.starts and link.after in self.starts:
                begin, end = self.starts[link.before] + link.held_from, self.starts[link.after] + link.held_until
                size = self.cp.new_int_var(0, self.problem.slots, f"z{n}")
                self.hints.append((size, self.known[link.after] + link.held_until - self.known[link.before] - link.held_from))
                intervals.append(self.cp.new_interval_var(begin, size, end, f"{what}l{n}"))
                demands.append(link.amount)
        if len(intervals) > 1 and sum(demands) > number:
            if number == 1:
                self.cp.add_no_overlap(intervals)
            else:
                self.cp.add_cumulative(intervals, demands, number)

    def _ovens(self) -> None:
        """Each firing in an oven, never two temperatures at once; each heated for, or following another that began no later."""
        each = weighs()
        firings = [(b, one) for b, var in self.starts.items() for one in self.problem.blocks[b].firings]
        firings.sort(key=lambda one: (self.known[one[0]] + one[1].begin, one[0]))
        if not firings:
            return
        ovens = self.problem.ovens
        on = [[self.cp.new_bool_var(f"o{i}.{k}") for k in range(ovens)] for i in range(len(firings))] if ovens > 1 else []
        for row in on:
            self.cp.add_exactly_one(row)
        known_follows = _known_follows(firings, self.known)
        into: list[list[cp_model.IntVar]] = [[] for _ in firings]
        out: list[list[cp_model.IntVar]] = [[] for _ in firings]
        waits: list[cp_model.IntVar] = []
        for (i, (a, first)), (j, (b, then)) in combinations(enumerate(firings), 2):
            near = abs(first.oven_c - then.oven_c) <= NEAR_C
            order = self.cp.new_bool_var(f"i{i}.{j}")
            known_first = self.known[a] + first.begin <= self.known[b] + then.begin
            self.hints.append((order, int(known_first)))
            for pair in zip(on[i], on[j], strict=True) if on else ((),):
                self._apart(a, first, b, then, order, pair, near=near)
            for x, y, one, two, m, n, way in ((a, b, first, then, i, j, order), (b, a, then, first, j, i, order.negated())):
                follow = self.cp.new_bool_var(f"f{m}.{n}")
                self.hints.append((follow, int(known_follows.get(n) == m)))
                into[n].append(follow)
                out[m].append(follow)
                self.cp.add_implication(follow, way)
                if not near:
                    gap = change_slots(one.oven_c, two.oven_c)
                    self.cp.add(self.starts[y] + two.begin >= self.starts[x] + one.end + gap).only_enforce_if(follow)
                wait = self.cp.new_int_var(0, self.problem.slots, f"w{m}.{n}")
                idle = max(0, self.known[y] + two.begin - self.known[x] - one.end) // each["idle"] if known_follows.get(n) == m else 0
                self.hints.append((wait, idle))
                waits.append(wait)
                self.cp.add(each["idle"] * wait >= self.starts[y] + two.begin - self.starts[x] - one.end - each["idle"] + 1).only_enforce_if(follow)
                self.terms += [wait, follow * follows(one, two)]
        for n in range(len(firings)):
            fresh = self.cp.new_bool_var(f"fresh{n}")
            self.hints.append((fresh, int(known_follows.get(n) is None)))
            self.cp.add_exactly_one([fresh, *into[n]])
            if out[n]:
                self.cp.add_at_most_one(out[n])
            self.terms.append(fresh * each["heating"])
        if not on and any(one.shelves < self.problem.shelves for _, one in firings):
            intervals = [self.cp.new_fixed_size_interval_var(self.starts[b] + one.begin, one.end - one.begin, f"v{n}") for n, (b, one) in enumerate(firings)]
            self.cp.add_cumulative(intervals, [one.shelves for _, one in firings], self.problem.shelves)

    def _apart(self, a: int, first: Firing, b: int, then: Firing, order: cp_model.IntVar, pair: tuple[cp_model.IntVar, ...], *, near: bool) -> None:
        """Two firings one after the other, where they cannot be together: in different heats, or on more shelves than there are."""
        apart = not near or first.shelves + then.shelves > self.problem.shelves
        one, two = self.starts[a], self.starts[b]
        if apart:
            self.cp.add(two + then.begin >= one + first.end + change_slots(first.oven_c, then.oven_c)).only_enforce_if([order, *pair])
            self.cp.add(one + first.begin >= two + then.end + change_slots(then.oven_c, first.oven_c)).only_enforce_if([order.negated(), *pair])
        else:
            self.cp.add(two + then.begin >= one + first.begin).only_enforce_if([order])
            self.cp.add(one + first.begin >= two + then.begin + 1).only_enforce_if([order.negated()])

    def _days(self) -> None:
        """The baker's working days: from the first touch to the last, never shorter than the work in it."""
        most, each = max(self.problem.hands, default=0), weighs()
        spans: dict[int, list[tuple[int, cp_model.IntVar | None]]] = {}
        ground = self.ground
        for b in self.starts:
            block = self.problem.blocks[b]
            if not block.runs or block.past:
                continue
            slots = ground.allowed[b].nonzero()[0]
            here = sorted({int(day) for day in ground.day_of[slots + block.runs[0].begin]})
            literals = {}
            for day in here:
                literals[day] = None if len(here) == 1 else self.cp.new_bool_var(f"d{b}.{day}")
                spans.setdefault(day, []).append((b, literals[day]))
                literal = literals[day]
                if literal is not None:
                    self.days[b, day] = literal
                    self.hints.append((literal, int(ground.day_of[self.known[b] + block.runs[0].begin] == day)))
                    own = [int(t) for t in slots if ground.day_of[t + block.runs[0].begin] == day]
                    self.cp.add_linear_expression_in_domain(self.starts[b], cp_model.Domain.from_values(own)).only_enforce_if(literal)
            if len(here) > 1:
                self.cp.add_exactly_one([literal for literal in literals.values() if literal is not None])
        goal = latest_goal(self.problem)
        first_of_all = self.cp.new_int_var(0, self.problem.slots, "first")
        known_first = goal
        for day, members in spans.items():
            low, high = self.problem.days[day]
            first, last = self.cp.new_int_var(low, high, f"first{day}"), self.cp.new_int_var(low, high, f"last{day}")
            inside = [b for b, _ in members if ground.day_of[self.known[b] + self.problem.blocks[b].runs[0].begin] == day]
            begin = min((self.known[b] + self.problem.blocks[b].runs[0].begin for b in inside), default=high)
            end = max((self.known[b] + self.problem.blocks[b].runs[-1].end for b in inside), default=high)
            known_first = min(known_first, begin) if inside else known_first
            self.hints += [(first, begin), (last, end)]
            span = self._cost(high - low, end - begin, f"span{day}")
            self.cp.add(span >= last - first)
            work = []
            for b, literal in members:
                block = self.problem.blocks[b]
                units = sum((run.end - run.begin) * run.units for run in block.runs)
                work.append(units if literal is None else units * literal)
                for made in (self.cp.add(first <= self.starts[b] + block.runs[0].begin), self.cp.add(last >= self.starts[b] + block.runs[-1].end)):
                    if literal is not None:
                        made.only_enforce_if(literal)
            self.cp.add(most * span >= sum(work))
        for b, var in self.starts.items():
            block = self.problem.blocks[b]
            if block.runs and not block.past:
                self.cp.add(first_of_all <= var + block.runs[0].begin)
        self.hints.append((first_of_all, min(known_first, self.problem.slots)))
        early = self._cost(self.problem.slots, max(0, goal - known_first) // each["early"], "early")
        self.cp.add(each["early"] * early >= goal - first_of_all - each["early"] + 1)


    def _patterns(self) -> None:
        """One pattern of working days for each product, and what it costs at least by itself: what a choice of days costs is known before any time is."""
        most = weigh(self.problem, self.known).total
        for p, tree in enumerate(self.ground.trees):
            if tree.order[-1] not in self.known or p not in self.own:
                continue
            found = self.ground.patterns(p, self.ground.spare(p, most))
            if len(found) < 2:
                continue
            chosen = [self.cp.new_bool_var(f"pattern{p}.{n}") for n in range(len(found))]
            self.cp.add_exactly_one(chosen)
            self.cp.add(sum(self.own[p]) >= sum(least * one for least, one in zip(found.values(), chosen, strict=True)))
            members: dict[tuple[int, int], list[cp_model.IntVar]] = {}
            for pattern, one in zip(found, chosen, strict=True):
                self.hints.append((one, int(all(self.ground.in_day[b][day][self.known[b]] for b, day in pattern))))
                for member in pattern:
                    members.setdefault(member, []).append(one)
            for member, own in members.items():
                self.cp.add(sum(own) == self.days[member])


def _known_follows(firings: list[tuple[int, Firing]], known: Mapping[int, int]) -> dict[int, int]:
    """Which firing each follows in the known timetable, as it is weighed."""
    placed = [(b, one, known[b] + one.begin, known[b] + one.end) for b, one in firings]
    return {j: i for j, i in enumerate(oven_paths(placed)[1]) if i is not None}


def _stretches(values: list[int]) -> list[tuple[int, int, int]]:
    """Where a value stays the same, above nothing: from, to before, value."""
    found: list[tuple[int, int, int]] = []
    for slot, value in enumerate(values):
        if value and found and found[-1][1] == slot and found[-1][2] == value:
            found[-1] = (found[-1][0], slot + 1, value)
        elif value:
            found.append((slot, slot + 1, value))
    return found


class _Better(cp_model.CpSolverSolutionCallback):
    """Tells of each better timetable, and stops where it is told to."""

    def __init__(self, model: _Model, tell: Callable[[Starts, float], None], stops: Callable[[], bool]) -> None:
        super().__init__()
        self._model, self._tell, self._stops = model, tell, stops

    def on_solution_callback(self) -> None:
        self._tell({b: self.value(var) for b, var in self._model.starts.items()}, self.best_objective_bound)
        if self._stops():
            self.stop_search()


def solver_for(subsolvers: tuple[str, ...], effort: float, seconds: float, memory_mb: int) -> cp_model.CpSolver:
    """A solver of two named searches, with limits counted and by the clock; interleaved where they are counted."""
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 2
    solver.parameters.subsolvers.extend(subsolvers)
    solver.parameters.random_seed = 7
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.max_memory_in_mb = memory_mb
    if effort:
        solver.parameters.interleave_search = True
        solver.parameters.max_deterministic_time = effort
    return solver


@dataclass(frozen=True, slots=True)
class Effort:
    """How hard to look: rounds of placing anew, then work of the solver (counted, 0 for no limit but the clock's) and its time. [s]"""

    rounds: int = 200
    counted: float = 20.0
    seconds: float = 20.0
    memory_mb: int = 1_000


def solve(
    ground: Ground,
    known: Mapping[int, int],
    effort: Effort,
    clock: Callable[[], float],
    tell: Callable[[Solved], None] = lambda _: None,
    stops: Callable[[], bool] = lambda: False,
) -> Solved:
    """The best timetable found from a known one, with its bound. `clock` tells seconds; `tell` hears of each better one; `stops` is asked now and then."""
    began = clock()
    best = dict(known)
    weighs_now = weigh(ground.problem, best).total
    bound = sum(ground.alone[p] for p, goal in enumerate(ground.problem.goals) if goal.block in known and not ground.problem.blocks[goal.block].past)

    def better(starts: Starts, proven: float) -> None:
        nonlocal best, weighs_now, bound
        bound = max(bound, round(proven))
        found = weigh(ground.problem, starts).total
        if found < weighs_now:
            best, weighs_now = starts, found
            tell(Solved(dict(best), weighs_now, min(bound, weighs_now)))

    shares = 0.0
    for subsolvers, share in PHASES:
        shares += share
        left = effort.seconds * shares - (clock() - began)
        if bound >= weighs_now or stops() or left <= 0:
            continue
        ground.cut(weighs_now)
        model = _Model(ground, best)
        for var, value in model.hints:
            model.cp.add_hint(var, value)
        solver = solver_for(subsolvers, effort.counted * share, left, effort.memory_mb)
        status = solver.solve(model.cp, _Better(model, better, stops))
        if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            better({b: solver.value(var) for b, var in model.starts.items()}, solver.best_objective_bound)
        if status == cp_model.OPTIMAL:
            bound = weighs_now
        elif status == cp_model.UNKNOWN:
            bound = max(bound, min(weighs_now, round(solver.best_objective_bound)))
        tell(Solved(dict(best), weighs_now, min(bound, weighs_now)))
    return Solved(best, weighs_now, min(bound, weighs_now))
