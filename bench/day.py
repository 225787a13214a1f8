"""Planning a day: seeded days of 3, 5, 8 and 12 products, beside a plain formulation of the same day in the same run, on two cores.

    PYTHONPATH=src:bench .venv/bin/python bench/day.py [seeds] [seconds]

The plain one has the same blocks, links and limits as intervals with a table of costs for each link, a hint of nothing, the solver's own portfolio and one
phase. Gaps are to the bound that is proven in the same run; "best known" is the best of all that ran. Ends with the published job shop of ten jobs.
"""

import resource
import statistics
import sys
import time
from itertools import combinations
from pathlib import Path

from days import laid_day
from ortools.sat.python import cp_model

from pancount.core.day.ground import Ground
from pancount.core.day.placing import first_timetable, improved, left_out
from pancount.core.day.problem import NEAR_C, Problem, change_slots, weighs
from pancount.core.day.solving import Effort, solve
from pancount.core.day.weighing import weigh

SIZES = (3, 5, 8, 12)
ROUNDS = 40
MOMENTS = (2.0, 5.0, 10.0)


def ours(problem: Problem, seconds: float) -> list[tuple[float, int, int]]:
    """When each better timetable was there, what it weighs, and what any weighs at least."""
    began = time.perf_counter()
    ground = Ground(problem)
    known = first_timetable(ground)
    told = [(time.perf_counter() - began, weigh(problem, known).total, sum(ground.alone))]
    assert not left_out(ground, known)
    known = improved(ground, known, ROUNDS)
    told.append((time.perf_counter() - began, weigh(problem, known).total, sum(ground.alone)))
    effort = Effort(counted=0, seconds=seconds - told[-1][0])
    solved = solve(ground, known, effort, time.perf_counter, lambda one: told.append((time.perf_counter() - began, one.weighs, one.bound)))
    told.append((time.perf_counter() - began, solved.weighs, solved.bound))
    return told


class _Heard(cp_model.CpSolverSolutionCallback):
    def __init__(self, problem: Problem, starts: dict[int, cp_model.IntVar]) -> None:
        super().__init__()
        self.problem, self.starts, self.began = problem, starts, time.perf_counter()
        self.told: list[tuple[float, int, int]] = []

    def on_solution_callback(self) -> None:
        found = {b: self.value(var) for b, var in self.starts.items()}
        self.told.append((time.perf_counter() - self.began, weigh(self.problem, found).total, round(self.best_objective_bound)))


def plain(problem: Problem, seconds: float) -> list[tuple[float, int, int]]:
    """The same day, put plainly."""
    each, cp, ground = weighs(), cp_model.CpModel(), Ground(problem)
    starts = {b: cp.new_int_var_from_domain(cp_model.Domain.from_values([int(t) for t in ground.raw[b].nonzero()[0]]), "") for b in range(len(problem.blocks))}
    terms, hands, demands = [], [], []
    uses: dict[str, tuple[list, list]] = {what: ([], []) for what in problem.most}
    for link in problem.links:
        between, cost = cp.new_int_var(link.low, link.high, ""), cp.new_int_var(min(link.costs), max(link.costs), "")
        cp.add(between == starts[link.after] - starts[link.before])
        cp.add_allowed_assignments([between, cost], [(link.low + n, own) for n, own in enumerate(link.costs)])
        terms.append(cost)
        if link.holds:
            size = cp.new_int_var(0, problem.slots, "")
            uses[link.holds][0].append(cp.new_interval_var(starts[link.before] + link.held_from, size, starts[link.after] + link.held_until, ""))
            uses[link.holds][1].append(link.amount)
    for b, block in enumerate(problem.blocks):
        for run in block.runs:
            hands.append(cp.new_fixed_size_interval_var(starts[b] + run.begin, run.end - run.begin, ""))
            demands.append(run.units)
        for use in block.uses:
            uses[use.what][0].append(cp.new_fixed_size_interval_var(starts[b] + use.begin, use.end - use.begin, ""))
            uses[use.what][1].append(use.amount)
    most = max(problem.hands)
    for slot, units in enumerate(problem.hands):
        if 0 < units < most:
            hands.append(cp.new_fixed_size_interval_var(slot, 1, ""))
            demands.append(most - units)
    cp.add_cumulative(hands, demands, most)
    for what, (intervals, amounts) in uses.items():
        cp.add_cumulative(intervals, amounts, problem.most[what])
    fired = [(b, one) for b, block in enumerate(problem.blocks) for one in block.firings]
    follow: dict[int, list] = {n: [] for n in range(len(fired))}
    followed: dict[int, list] = {n: [] for n in range(len(fired))}
    for (i, (a, f)), (j, (b, g)) in combinations(enumerate(fired), 2):
        first, near = cp.new_bool_var(""), abs(f.oven_c - g.oven_c) <= NEAR_C
        gaps = (0, 0) if near else (change_slots(f.oven_c, g.oven_c), change_slots(g.oven_c, f.oven_c))
        if not near or f.shelves + g.shelves > problem.shelves:
            cp.add(starts[b] + g.begin >= starts[a] + f.end + gaps[0]).only_enforce_if(first)
            cp.add(starts[a] + f.begin >= starts[b] + g.end + gaps[1]).only_enforce_if(first.negated())
        else:
            cp.add(starts[b] + g.begin >= starts[a] + f.begin).only_enforce_if(first)
            cp.add(starts[a] + f.begin >= starts[b] + g.begin + 1).only_enforce_if(first.negated())
        for x, y, m, n, way in (((a, f), (b, g), i, j, first), ((b, g), (a, f), j, i, first.negated())):
            on, wait = cp.new_bool_var(""), cp.new_int_var(0, problem.slots, "")
            cp.add_implication(on, way)
            if not near:
                cp.add(starts[y[0]] + y[1].begin >= starts[x[0]] + x[1].end + change_slots(x[1].oven_c, y[1].oven_c)).only_enforce_if(on)
            cp.add(each["idle"] * wait >= starts[y[0]] + y[1].begin - starts[x[0]] - x[1].end - each["idle"] + 1).only_enforce_if(on)
            terms += [wait, on * (0 if near else each["change"])]
            follow[n].append(on)
            followed[m].append(on)
    for n in follow:
        fresh = cp.new_bool_var("")
        cp.add_exactly_one([fresh, *follow[n]])
        cp.add_at_most_one(followed[n])
        terms.append(fresh * each["heating"])
    for goal in problem.goals:
        ready = starts[goal.block] + goal.ready
        late, lies, stale = (cp.new_int_var(0, problem.slots, "") for _ in range(3))
        cp.add(late - lies == ready - goal.ready_by)
        cp.add(stale >= lies - 144)
        terms += [late * each["late"], lies * goal.fresh, stale * each["stale"]]
    goal_at = max(goal.ready_by for goal in problem.goals)
    first_of_all, early = cp.new_int_var(0, problem.slots, ""), cp.new_int_var(0, problem.slots, "")
    cp.add(each["early"] * early >= goal_at - first_of_all - each["early"] + 1)
    terms.append(early)
    for low, high in problem.days:
        begin, end, span = cp.new_int_var(low, high, ""), cp.new_int_var(low, high, ""), cp.new_int_var(0, high - low, "")
        cp.add(span >= end - begin)
        terms.append(span)
        for b, block in enumerate(problem.blocks):
            if block.runs:
                inside = cp.new_bool_var("")
                at = starts[b] + block.runs[0].begin
                domain = cp_model.Domain.from_intervals([[low, high - 1]])
                cp.add_linear_expression_in_domain(at, domain).only_enforce_if(inside)
                cp.add_linear_expression_in_domain(at, domain.complement()).only_enforce_if(inside.negated())
                cp.add(begin <= at).only_enforce_if(inside)
                cp.add(end >= starts[b] + block.runs[-1].end).only_enforce_if(inside)
                cp.add(first_of_all <= at)
    cp.minimize(sum(terms))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers, solver.parameters.max_time_in_seconds, solver.parameters.random_seed = 2, seconds, 7
    heard = _Heard(problem, starts)
    solver.solve(cp, heard)
    last = heard.told[-1][1] if heard.told else 1 << 30
    return [*heard.told, (time.perf_counter() - heard.began, last, round(solver.best_objective_bound))]


def gap_at(told: list[tuple[float, int, int]], moment: float, bound: int) -> float:
    """How far from the bound the best is that was there by then. [%]"""
    there = [weight for at, weight, _ in told if at <= moment]
    return 100 * (min(there) - bound) / max(1, min(there)) if there else 100.0


def job_shop(seconds: float) -> tuple[int, int]:
    """The published ten by ten, whose least makespan is 930."""
    sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))
    from core.day.test_engine import JOB_SHOP
    from core.day.test_engine import job_shop as made

    one, known = made(JOB_SHOP, 1700)
    solved = solve(Ground(one), known, Effort(counted=0, seconds=seconds), time.perf_counter)
    return solved.weighs, solved.bound


def main() -> None:
    seeds, seconds = (int(sys.argv[1]) if len(sys.argv) > 1 else 20), (float(sys.argv[2]) if len(sys.argv) > 2 else 10.0)
    for size in SIZES:
        firsts, nears, proven, plain_nears = [], [], 0, []
        gaps: dict[str, dict[float, list[float]]] = {"ours": {m: [] for m in MOMENTS}, "plain": {m: [] for m in MOMENTS}}
        for seed in range(seeds):
            problem = laid_day(size, seed).problem
            told, put_plainly = ours(problem, seconds), plain(problem, seconds)
            best = min(weight for _, weight, _ in (*told, *put_plainly))
            bound = min(best, max(one for _, _, one in (told[-1], put_plainly[-1])))
            firsts.append(told[0][0])
            nears.append(next((at for at, weight, _ in told if weight <= 1.02 * best), seconds))
            plain_nears.append(next((at for at, weight, _ in put_plainly if weight <= 1.02 * best), seconds))
            proven += told[-1][2] >= told[-1][1]
            for moment in MOMENTS:
                gaps["ours"][moment].append(gap_at(told, moment, bound))
                gaps["plain"][moment].append(gap_at(put_plainly, moment, bound))
        print(f"{size:2} products: first {statistics.median(firsts):.3f} s (most {max(firsts):.3f}), within 2 % of best known {statistics.median(nears):.2f} s (plain {statistics.median(plain_nears):.2f}), proven {proven} of {seeds}")
        for name, own in gaps.items():
            print(f"   gap, {name:5}: " + ", ".join(f"{moment:.0f} s {statistics.mean(found):.1f} / {statistics.median(found):.1f} %" for moment, found in own.items()) + " (mean / median)", flush=True)
    weight, bound = job_shop(30)
    print(f"job shop of ten by ten in 30 s: {weight}, bound {bound} (published: 930)")
    print(f"memory {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1000:.0f} MB")


if __name__ == "__main__":
    main()
