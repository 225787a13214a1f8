"""How a solved count stands against its limits."""

from pancount.core.count.count import Count
from pancount.core.count.counter import Counter, batch_of
from pancount.core.count.limits import Batch, Limit, enough, need
from pancount.core.count.relations import of
from pancount.core.count.result import LimitState, Loosened
from pancount.core.count.solver import PinValues, Solution
from pancount.core.pans.room import room_of


def _one_more(batch: Batch, values: dict[str, float], i: int) -> Batch:
    """The batch with one piece more of a target."""
    lots = tuple((lot, pieces + (1 if j == i else 0)) for j, (lot, pieces) in enumerate(batch.lots))
    more = (values["divide_g"] + values[of("piece_g", i)]) / values["divide_g"]
    return Batch(batch.flour_g * more, batch.dough_g * more, lots)


def limit_states(counter: Counter, count: Count, pins: PinValues, solution: Solution) -> tuple[LimitState, ...]:
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
