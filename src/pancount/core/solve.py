"""A count worked out: everything it leaves open, fights, choices, loads and how it stands against its limits.

Pins are never overridden. Where there are too few, the formula's usual piece, fill and pan stand in, one at a time and
only for what nothing else gives; an open number goes up to the limits. Where pins cannot hold together, the fight is
told: which pins, and what each would be if it alone were let go.
"""

from pancount.core.base import interned
from pancount.core.choices import but, choices, extras
from pancount.core.count import (
    PINNABLE,
    Alternative,
    Count,
    CountResult,
    Fight,
    LimitState,
    Load,
    Loosened,
)
from pancount.core.formula import Formula
from pancount.core.gauges import Character
from pancount.core.kit import Kit
from pancount.core.limits import Batch, Ground, Limit, enough, need, room_of
from pancount.core.reckon import Reckoned, reckon
from pancount.core.relations import bare, of, sum_reads
from pancount.core.solver import Counter, PinValues, Solution


def ground_of(formula: Formula, reckoned: Reckoned, kit: Kit, dough: Character | None = None) -> Ground:
    """What limits rest on: kit, the bowl for its dough as stiff as that is, how much smaller it bakes for its bran, and each ingredient over flour."""
    shares: dict[str, float] = {}
    for stage, figures in zip(formula.stages, reckoned.stages, strict=True):
        for line, figure in zip(stage.lines, figures.lines, strict=True):
            name = line.name.casefold()
            shares[name] = shares.get(name, 0.0) + figure.percent / 100
    stiff, bran = (dough.stiff, dough.bran) if dough else (False, 0.0)
    return Ground(kit=interned(kit), bowl_g=kit.most_dough_g(stiff=stiff), bran=bran, shares=shares)


def batch_of(counter: Counter, solution: Solution) -> Batch:
    """A solved count as limits see it."""
    values = solution.values
    lots = tuple((counter.lot(solution, i), values[of("pieces", i)]) for i in range(len(counter.aims)))
    return Batch(values["flour_g"], values["dough_g"], lots)


def _fights(counter: Counter, count: Count, pins: PinValues, solution: Solution) -> tuple[Fight, ...]:
    """Each broken relation once, with what every pin in it would be if it alone were let go."""
    fights, told = [], set[frozenset[str]]()
    for relation in solution.broken:
        roots = solution.roots(relation)
        if roots in told:
            continue
        told.add(roots)
        alternatives = []
        for name in sorted(roots, key=lambda name: (PINNABLE.index(bare(name)), name)):
            freed = counter.solve(but(pins, [name]), count.limits)
            settles = not any(roots & freed.roots(other) for other in freed.broken)
            alternatives.append(Alternative(name, pins[name], freed.values[name] if settles else None))
        fights.append(Fight(relation=relation.key, alternatives=tuple(alternatives)))
    return tuple(fights)


def loads_of(values: dict[str, float], target: int) -> tuple[Load, ...]:
    """Full pans first and the rest in the last one; evenly where pieces a pan is just what even sharing needs."""
    if not values.get(of("pans", target)):
        return ()
    pieces, pans, per_pan = (int(values[of(name, target)]) for name in ("pieces", "pans", "pieces_per_pan"))
    if per_pan == -(-pieces // pans):
        few, more = divmod(pieces, pans)
        loads = [(more, few + 1), (pans - more, few)]
    else:
        full, rest = divmod(pieces, per_pan)
        loads = [(full, per_pan), (1 if rest else 0, rest)]
    return tuple(Load(pans=k, pieces=n) for k, n in loads if k and n)


def _one_more(batch: Batch, values: dict[str, float], i: int) -> Batch:
    """The batch with one piece more of a target."""
    lots = tuple((lot, pieces + (1 if j == i else 0)) for j, (lot, pieces) in enumerate(batch.lots))
    more = (values["divide_g"] + values[of("piece_g", i)]) / values["divide_g"]
    return Batch(batch.flour_g * more, batch.dough_g * more, lots)


def _limit_states(counter: Counter, count: Count, pins: PinValues, solution: Solution) -> tuple[LimitState, ...]:
    """Each limit against the count."""
    batch = batch_of(counter, solution)
    open_ = [i for i in range(len(counter.aims)) if solution.source(of("pieces", i)) == "limit"]
    mores = [_one_more(batch, solution.values, i) for i in open_]
    return tuple(_limit_state(counter, count, pins, batch, mores, limit) for limit in count.limits)


def _limit_state(
    counter: Counter, count: Count, pins: PinValues, batch: Batch, mores: list[Batch], limit: Limit
) -> LimitState:
    """A limit against the count. It binds where one piece more of what goes up to the limits would be too much for it."""
    needed = need(limit, batch, counter.ground)
    rooms = (room_of(limit.kind, lot, counter.kit) for lot, _ in batch.lots)
    per_load = next((room.pieces for room in rooms if room is not None), None)
    if needed is None:
        return LimitState(None, limit.amount, "silent", per_load, None)
    if not enough(needed, limit.amount):
        return LimitState(needed, limit.amount, "over", per_load, None)
    for more in mores:
        then = need(limit, more, counter.ground)
        if then is not None and not enough(then, limit.amount):
            loose = counter.solve(pins, tuple(other for other in count.limits if other is not limit))
            pieces = tuple(int(loose.values[of("pieces", j)]) for j in range(len(counter.aims)))
            return LimitState(needed, limit.amount, "binds", per_load, Loosened(loose.values["flour_g"], pieces))
    return LimitState(needed, limit.amount, "within", per_load, None)


def solve(
    formula: Formula,
    count: Count,
    reckoned: Reckoned | None = None,
    ground: Ground | None = None,
    looking_at: int | None = 0,
) -> CountResult:
    """Work out everything a count leaves open.

    `reckoned` and `ground` save reckoning the formula twice. Choices are worked out for the target that is looked at;
    for none where that is None. Raises what `reckon` raises; fighting pins and dough that does not divide are results,
    not errors.
    """
    return solved(formula, count, reckoned, ground, looking_at)[0]


def solved(
    formula: Formula,
    count: Count,
    reckoned: Reckoned | None = None,
    ground: Ground | None = None,
    looking_at: int | None = 0,
) -> tuple[CountResult, Counter, Solution]:
    """As `solve`, with what it was worked out by, for those who go on from there."""
    reckoned = reckoned or reckon(formula)
    ground = ground or ground_of(formula, reckoned, Kit())
    counter = Counter(formula.usual, reckoned.total_percent, reckoned.flour_g, count, ground)
    pins = count.known()
    solution = counter.solve(pins, count.limits)
    fights = _fights(counter, count, pins, solution)
    targets, target = len(count.targets), looking_at
    if target is not None and target >= targets:
        target = 0
    quiet = bool(fights) or target is None
    result = CountResult(
        quantities=solution.worked(),
        reads=sum_reads("sharing", targets) | sum_reads("left_over", targets),
        fights=fights,
        choices=() if quiet else choices(counter, count, solution, target or 0),
        extras=() if quiet else extras(counter, count, solution, target or 0),
        loads=() if fights else tuple(loads_of(solution.values, i) for i in range(targets)),
        limits=_limit_states(counter, count, pins, solution) if count.limits and not fights else (),
    )
    return result, counter, solution
