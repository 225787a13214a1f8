"""A day's products, each cut, as one problem on a grid of time: hands, mixer, ovens, pins, what has happened."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from graphlib import TopologicalSorter
from itertools import pairwise
from math import ceil, floor

from pancount.core.count.count import Count
from pancount.core.day.blocks import CLEAN_MIN, Chunk, Cut, Join, Part, cut_way, heats_of
from pancount.core.day.day import DAY_MIN, FIRST_MIN, LAST_MIN, Absence, Day, DayProduct, Edge, Mark
from pancount.core.day.problem import FULL, HALF_MIN, SLOT_MIN, Block, Firing, Goal, Link, Problem, Run, Use, weighs
from pancount.core.formula.formula import Formula
from pancount.core.formula.practice import Practice
from pancount.core.formula.ways import in_way
from pancount.core.heat.climate import Climate, Today
from pancount.core.method.batch import batch_of
from pancount.core.method.method import Method, whole_method
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Pantry

TINY = 1e-6
LONG_ABSENCE_MIN = 240
"""So long without hands parts one working day from the next. Common practice, no source. [min]"""
LATE_MIN = 24 * 60
"""How late a product may be laid at most, before it is left out. [min]"""
HALF_DONE_MIN = 60.0
"""What hangs together and was broken off bears so long. Common practice, no source. [min]"""
FRIDGE = "fridge"
SHARES = 100
"""The fridge's room in hundredths."""


@dataclass(frozen=True)
class Made:
    """A product of a day as it is made: its formula in its way, counted, its method reckoned, and cut."""

    told: DayProduct
    formula: Formula
    count: Count
    method: Method
    cut: Cut | None
    heats: Mapping[int, float]


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a block comes from: its product and the parts of a chunk that are in it; `shift` is by how much it begins after its slot. [min]"""

    product: int
    chunk: int
    parts: tuple[Part, ...]
    shift: float
    length: float
    pinned: bool
    happened: bool


@dataclass(frozen=True)
class Laid:
    """A problem with what its blocks stand for. `origin` is the time of its first slot. [min]"""

    problem: Problem
    spots: tuple[Spot, ...]
    joins: tuple[tuple[int, Join], ...]
    """By link: its product, and what gives."""
    origin: int
    made: tuple[Made, ...]
    gone_pins: tuple[str, ...]

    def time(self, block: int, slot: int) -> float:
        """When a block begins that is placed at a slot. [min]"""
        return self.origin + slot * SLOT_MIN + self.spots[block].shift


def with_pieces(count: Count, product: DayProduct) -> Count:
    """The count with so many pieces or pans of its first target, instead of what it pins of how much there is."""
    if product.pieces is None and product.pans is None:
        return count
    first = count.targets[0]
    kept = {name: value for name, value in first.pins.__dict__.items() if name in ("piece_g", "bake_loss", "pieces_per_pan", "fill") and value is not None}
    if product.pieces is not None:
        kept["pieces"] = product.pieces
    if product.pans is not None:
        kept["pans"] = product.pans
        kept.pop("pieces_per_pan" if product.pieces is not None else "", None)
    pins = first.pins.model_validate(kept)
    batch = count.pins.model_copy(update={"flour_g": None, "dough_g": None, "divide_g": None})
    return count.model_copy(update={"pins": batch, "targets": (first.model_copy(update={"pins": pins}), *count.targets[1:])})


def kit_of(day: Day, kit: Kit) -> Kit:
    """The kitchen's kit, as it is that day."""
    told = {name: value for name in ("ovens", "shelves", "sheets") if (value := getattr(day, name)) is not None}
    return kit.model_copy(update=told)


def make(day: Day, product: DayProduct, formula: Formula, count: Count, pantry: Pantry, practice: Practice, kit: Kit, climate: Climate) -> Made:
    """A product as it is made that day. Raises what `whole_method` raises."""
    way = product.way or count.way
    today = Today(room_c=day.room_c, warm_c=day.warm_c, fridge_c=day.fridge_c)
    count = with_pieces(count, product).model_copy(update={"way": way, "today": today})
    kit = kit_of(day, kit)
    method = whole_method(formula, count, pantry, practice, kit, climate)
    own = in_way(formula, way)
    batch = batch_of(own, count, pantry, practice, kit, 0)
    cut = cut_way(own, way, method, batch.turns, batch.pieces, count.learned)
    return Made(product, formula, count, method, cut, heats_of(cut, [(one.step, one.oven_c) for one in method.bakes]) if cut else {})


def absent(absences: Sequence[Absence], baker: int, origin: int, slots: int) -> list[bool]:
    """For each slot, whether a baker has no hands."""
    found = [False] * slots
    for one in absences:
        if one.baker is not None and one.baker != baker:
            continue
        ends = one.ends_min if one.ends_min > one.begins_min else one.ends_min + DAY_MIN
        first = floor(origin / DAY_MIN) - 1
        days = range(first, ceil((origin + slots * SLOT_MIN) / DAY_MIN) + 1) if one.day is None else (one.day,)
        for day in days:
            begin = (day * DAY_MIN + one.begins_min - origin) / SLOT_MIN
            end = (day * DAY_MIN + ends - origin) / SLOT_MIN
            for slot in range(max(0, floor(begin + TINY)), min(slots, ceil(end - TINY))):
                found[slot] = True
    return found


def touches_of(parts: Sequence[Part]) -> list[tuple[float, float]]:
    """When parts need hands; what meets or overlaps is one touch. [min from the chunk's beginning]"""
    found: list[tuple[float, float]] = []
    for begin, end in sorted(hands for part in parts for hands in part.hands):
        if found and begin <= found[-1][1] + TINY:
            found[-1] = (found[-1][0], max(found[-1][1], end))
        else:
            found.append((begin, end))
    return found


def runs_of(parts: Sequence[Part], shift: float, since: float | None = None) -> tuple[Run, ...]:
    """When parts need hands, slot by slot: a short touch half of one, anything longer all of it. `since`: only what is after that. [min from the
    chunk's beginning]"""
    minutes: dict[int, float] = {}
    for begin, end in touches_of(parts):
        at = begin if since is None else max(begin, since)
        is_long = end - at > HALF_MIN + TINY
        while at < end - TINY:
            slot = floor((at + shift) / SLOT_MIN + TINY)
            until = min(end, (slot + 1) * SLOT_MIN - shift)
            minutes[slot] = SLOT_MIN if is_long else minutes.get(slot, 0.0) + until - at
            at = until
    found: list[Run] = []
    for slot in sorted(minutes):
        units = 1 if minutes[slot] <= HALF_MIN + TINY else FULL
        if found and found[-1].end == slot and found[-1].units == units:
            found[-1] = Run(found[-1].begin, slot + 1, units)
        else:
            found.append(Run(slot, slot + 1, units))
    return tuple(found)


def _span(begin: float, end: float, shift: float) -> tuple[int, int]:
    """From slot to before slot."""
    return floor((begin + shift) / SLOT_MIN + TINY), ceil((end + shift) / SLOT_MIN - TINY)


def uses_of(cut: Cut, parts: Sequence[Part], shift: float, ahead: Mapping[str, float]) -> tuple[Use, ...]:
    """What parts keep from others: the mixer and its rinsing, the bath with its heating, the griddle. `ahead`: how long they heat before. [min]"""
    found = []
    for place in ("mixer", "pot", "griddle"):
        own = [part for part in parts if cut.steps[part.step].place == place and part.end > part.begin]
        if own:
            first, last = min(part.begin for part in own), max(part.end for part in own)
            begin, end = _span(first - ahead.get(place, 0.0), last + (CLEAN_MIN if place == "mixer" else 0.0), shift)
            found.append(Use(place, begin, end))
    return tuple(found)


def firings_of(made: Made, parts: Sequence[Part], shift: float, shelves: int) -> tuple[Firing, ...]:
    """What parts put into an oven: each step's loads, one after the other, are one firing."""
    cut = made.cut
    assert cut is not None
    found = []
    for step in dict.fromkeys(part.step for part in parts):
        own = [part for part in parts if part.step == step and part.end > part.begin]
        if own and cut.steps[step].place == "oven" and cut.steps[step].kind.does == "loads":
            begin, end = _span(min(part.begin for part in own), max(part.end for part in own), shift)
            found.append(Firing(made.heats.get(step, 200.0), _shelves(cut, own, shelves), begin, end))
    return tuple(found)


def _shelves(cut: Cut, loads: Sequence[Part], shelves: int) -> int:
    """How many shelves the largest load takes; all of them where the kit is not known."""
    turns = next((one for one in cut.turns if one.through == "oven"), None)
    if turns is None or not turns.per_holder:
        return shelves
    on_shelf = max(1, turns.at_once // shelves)
    holders = ceil(max(part.pieces for part in loads) / turns.per_holder)
    return min(shelves, max(1, ceil(holders / on_shelf)))


def link_costs(join: Join, offset: float, loads: Sequence[float]) -> tuple[int, tuple[int, ...]]:
    """What a join costs for each number of slots between the starts of its chunks, from the least; `offset` turns those into minutes of the gap.

    Nothing inside the usual part, then ever steeper, averaged over the loads that follow each other. Never bending back, in whole units.
    """
    each = weighs()
    last = max(loads, default=0.0)
    bears = max(join.bears - last, join.low + last if last else 0.0, join.low)
    low = ceil((join.low - offset) / SLOT_MIN - TINY)
    high = max(low, floor((bears - offset) / SLOT_MIN + TINY))
    best_low = join.low if join.anyhow else (join.low + join.usual) / 2
    best_high = join.high if join.anyhow else (join.usual + join.high) / 2

    def cost(slots: int) -> float:
        total = 0.0
        for later in loads or (0.0,):
            minutes = slots * SLOT_MIN + offset + later
            total += each["unusual"] * max(0.0, best_low - minutes, minutes - best_high)
            total += (each["beyond"] - each["unusual"]) * max(0.0, minutes - max(join.high, best_high))
        return total / SLOT_MIN / max(1, len(loads))

    exact = [cost(slots) for slots in range(low, high + 1)]
    slopes = [round(b - a) for a, b in pairwise(exact)]
    at = min(range(len(exact)), key=exact.__getitem__)
    found = [round(exact[at])] * len(exact)
    for n in range(at, len(exact) - 1):
        found[n + 1] = found[n] + max(0, slopes[n])
    for n in range(at, 0, -1):
        found[n - 1] = found[n] - min(0, slopes[n - 1])
    return low, tuple(found)


class _Laying:
    def __init__(self, day: Day, made: Sequence[Made], kit: Kit) -> None:
        self.day, self.made, self.kit = day, tuple(made), kit_of(day, kit)
        self.origin, self.slots = self._horizon()
        self.blocks: list[Block] = []
        self.spots: list[Spot] = []
        self.links: list[Link] = []
        self.joins: list[tuple[int, Join]] = []
        self.goals: list[Goal] = []
        self.gone: list[str] = []

    def _horizon(self) -> tuple[int, int]:
        """From when on the day is laid out, and over how many slots."""
        day = self.day
        begins, ends = [], []
        for one in self.made:
            if one.cut is None:
                continue
            longest = sum(join.bears for join in one.cut.joins if join.steps) + sum(chunk.length for chunk in one.cut.chunks) + one.cut.ready_min
            ready = self._ready(one.told)
            happened = [at for mark in one.told.marks for at in (mark.began_min, mark.ended_min) if at is not None]
            told = [pin.at_min for pin in one.told.pins]
            if day.now_min is not None:
                told += [was.at_min for was in day.told if was.product == one.told.key]
            floor_min = max((at for at in (day.starts_min, one.told.from_min, day.now_min) if at is not None), default=None)
            if ready is None:
                begin = floor_min if floor_min is not None else 0.0
                ready = begin + longest
            else:
                begin = max(ready - longest - DAY_MIN / 2, floor_min if floor_min is not None else FIRST_MIN)
            begins.append(min([begin, *happened, *told]))
            ends.append(max([max(ready, floor_min or FIRST_MIN) + LATE_MIN, *(at + longest for at in happened), *told]))
        begin = max(FIRST_MIN, min(begins, default=0.0))
        end = min(LAST_MIN, max(ends, default=0.0) + 60)
        if day.now_min is not None:
            end = min(LAST_MIN, max(end, day.now_min + LATE_MIN))
        origin = floor(begin / SLOT_MIN) * SLOT_MIN
        return origin, max(1, ceil((end - origin) / SLOT_MIN))

    def _ready(self, told: DayProduct) -> float | None:
        return told.ready_min if told.ready_min is not None else self.day.ready_min

    def lay(self) -> Laid:
        """All of it."""
        bakers = [absent(self.day.absences, n, self.origin, self.slots) for n in range(len(self.day.bakers))]
        hands = tuple(sum(0 if away[slot] else FULL for away in bakers) for slot in range(self.slots))
        placed = [one for one in self.made if one.cut is not None]
        for p, one in enumerate(placed):
            self._product(p, one)
        kit = self.kit
        most = {"mixer": kit.mixers, "pot": kit.pots, "griddle": kit.griddles, FRIDGE: SHARES}
        problem = Problem(
            self.slots, tuple(self.blocks), tuple(self.links), tuple(self.goals), hands, most, kit.ovens, kit.shelves, _working_days(hands)
        )
        return Laid(problem, tuple(self.spots), tuple(self.joins), self.origin, tuple(placed), tuple(self.gone))

    def _product(self, p: int, one: Made) -> None:
        cut = one.cut
        assert cut is not None
        ahead = {join.place: join.low for join in cut.joins if join.steps and cut.steps[join.steps[0]].kind.does == "ahead"}
        marks = self._marks(one)
        pinned = self._pins(one)
        told = {(was.step, was.edge): was.at_min for was in self.day.told if was.product == one.told.key}
        split = [_split(n, chunk, marks, cut, self.day.now_min) for n, chunk in enumerate(cut.chunks)]
        if self.day.now_min is not None:
            _as_told(cut, split, told, self.day.now_min, frozenset(one.told.not_yet))
        done = _done_before(cut, split)
        first: dict[int, int] = {}
        last: dict[int, int] = {}
        base: dict[int, float] = {}
        for n, chunk in enumerate(cut.chunks):
            begun, at, rest = split[n]
            if begun or n in done:
                if at is None:
                    at = told.get(cut.first_of(n))
                first[n] = last[n] = self._block(p, one, n, tuple(begun or chunk.parts), at if at is not None else float("nan"), ahead, happened=True, told=told)
                base[n] = 0.0
                if rest and n not in done:
                    follows = min(part.begin for part in rest)
                    last[n] = self._block(p, one, n, tuple(rest), None, {}, happened=False, told=told, since=follows)
                    base[n] = follows
                    self._rest_link(p, first[n], last[n], begun, rest)
            else:
                first[n] = last[n] = self._block(p, one, n, tuple(chunk.parts), pinned.get(n), ahead, happened=False, told=told)
                base[n] = 0.0
        for join in cut.joins:
            self._link(p, one, join, first, last, base)
        self._fill_past(p)
        root = last[cut.root]
        self._goal(one, root, cut.ready_min - base[cut.root])

    def _marks(self, one: Made) -> dict[int, Mark]:
        cut = one.cut
        assert cut is not None
        return {mark.step: mark for mark in one.told.marks if mark.step < len(cut.steps) and cut.steps[mark.step].kind.key == mark.kind}

    def _pins(self, one: Made) -> dict[int, float]:
        """When each pinned chunk begins. [min]"""
        cut, found = one.cut, dict[int, float]()
        assert cut is not None
        for pin in one.told.pins:
            same = pin.step < len(cut.steps) and cut.steps[pin.step].kind.key == pin.kind
            where = cut.where(pin.step, pin.edge) if same else None
            if where is None:
                self.gone.append(f"{one.told.name}: a pinned {pin.kind.replace('_', ' ')} is not in this way any more, so it is not kept.")
            else:
                found[where[0]] = pin.at_min - where[1]
        return found

    def _block(self, p: int, one: Made, n: int, parts: tuple[Part, ...], at: float | None, ahead: Mapping[str, float], *, happened: bool, told: Mapping[tuple[int, Edge], float], since: float = 0.0) -> int:
        """A block of these parts, at a time where it is known (nan: it has happened, nobody knows when)."""
        cut, day = one.cut, self.day
        assert cut is not None
        parts = tuple(replace(part, begin=part.begin - since, end=part.end - since, hands=tuple((a - since, b - since) for a, b in part.hands)) for part in parts)
        length = max(part.end for part in parts)
        known = at is not None and at == at
        shift = 0.0
        starts: tuple[tuple[int, int], ...] = ((0, self.slots),)
        if known:
            assert at is not None
            slot = floor((at - self.origin) / SLOT_MIN + TINY)
            shift = max(0.0, at - self.origin - slot * SLOT_MIN)
            shift = 0.0 if shift < TINY else shift
            starts = ((slot, slot + 1),)
        if not happened:
            floors = [f for f in (day.starts_min, one.told.from_min, day.now_min) if f is not None]
            least = ceil((max(floors) - self.origin - shift) / SLOT_MIN - TINY) if floors else 0
            starts = tuple((max(begin, least), end) for begin, end in starts)
        gone = None if not happened or day.now_min is None or not known or at is None else day.now_min - at
        runs = runs_of(parts, shift) if not happened else runs_of(parts, shift, gone) if gone is not None else ()
        was = told.get((parts[0].step, cut.edge(n, parts[0].step)))
        self.blocks.append(
            Block(
                product=p,
                runs=runs,
                uses=uses_of(cut, parts, shift, ahead) if not happened or (gone is not None and gone < length) else (),
                firings=firings_of(one, parts, shift, self.kit.shelves) if not happened or known else (),
                starts=starts,
                told=round((was - self.origin - shift) / SLOT_MIN) if was is not None and not happened and day.now_min is not None else None,
                past=happened,
            )
        )
        self.spots.append(Spot(p, n, parts, shift, length, known and not happened, happened))
        return len(self.blocks) - 1

    def _rest_link(self, p: int, before: int, after: int, begun: Sequence[Part], rest: Sequence[Part]) -> None:
        """What is left of a chunk that has begun: at once, or soon after; what is half mixed bears no more."""
        done = max(part.end for part in begun)
        join = Join(0, 0, done, 0.0, 0.0, 0.0, 5.0, HALF_DONE_MIN, (), "", False)
        offset = self.spots[after].shift - self.spots[before].shift - done
        low, costs = link_costs(join, offset, ())
        self.links.append(Link(before, after, low, costs))
        self.joins.append((p, join))

    def _link(self, p: int, one: Made, join: Join, first: Mapping[int, int], last: Mapping[int, int], base: Mapping[int, float]) -> None:
        cut = one.cut
        assert cut is not None
        # What gives begins in the part of a chunk that it hangs on, and ends where the chunk after it begins.
        before = last[join.before] if join.from_min >= base[join.before] - TINY else first[join.before]
        after = first[join.after] if base[join.after] == 0.0 or join.to_min < base[join.after] - TINY else last[join.after]
        from_min = join.from_min - (base[join.before] if before == last[join.before] else 0.0)
        to_min = join.to_min - (base[join.after] if after == last[join.after] else 0.0)
        offset = self.spots[after].shift - self.spots[before].shift + to_min - from_min
        loads = cut.loads_after(join)
        low, costs = link_costs(join, offset, loads)
        if self.blocks[before].past and self.blocks[after].past:
            low, costs = -self.slots, (0,) * (2 * self.slots)
        elif self.blocks[before].past:
            low, costs = self._still(join, offset, loads, low, costs, before)
        holds, amount = "", 0
        if join.place == FRIDGE and (share := self._fridge(cut, join)):
            holds, amount = FRIDGE, share
        link = Link(before, after, low, costs, holds, amount, floor((from_min + self.spots[before].shift) / SLOT_MIN), ceil((to_min + self.spots[after].shift) / SLOT_MIN))
        self.links.append(link)
        self.joins.append((p, join))

    def _still(self, join: Join, offset: float, loads: Sequence[float], low: int, costs: tuple[int, ...], before: int) -> tuple[int, tuple[int, ...]]:
        """A rise that goes on since something that has happened: it may be over by now, so it bears as much longer as it must."""
        at = self.blocks[before].starts[0][0]
        now = self.day.now_min
        if now is None:
            return low, costs
        needed = ceil((now - self.origin) / SLOT_MIN) - at + 12
        if needed <= low + len(costs) - 1:
            return low, costs
        return link_costs(replace(join, bears=needed * SLOT_MIN + offset + max(loads, default=0.0)), offset, loads)

    @staticmethod
    def _fridge(cut: Cut, join: Join) -> int:
        """How much of the fridge pieces on their sheets take, in hundredths; a dough in its bowl finds room."""
        turns = next((one for one in cut.turns if one.through == "fridge"), None)
        shaped = any(cut.steps[part.step].kind.group == "shape" for part in cut.chunks[join.before].parts)
        if turns is None or not shaped:
            return 0
        return min(SHARES, ceil(SHARES * turns.holders / max(1, turns.at_once)))

    def _fill_past(self, p: int) -> None:
        """What must have happened, of which nobody said when: as usual before what was said."""
        for link_n in range(len(self.links) - 1, -1, -1):
            link = self.links[link_n]
            before = self.blocks[link.before]
            if before.product != p or not before.past or before.starts != ((0, self.slots),):
                continue
            join = self.joins[link_n][1]
            after = self.blocks[link.after].starts[0][0]
            at = max(0, after - round((join.usual + join.from_min - join.to_min) / SLOT_MIN))
            self.blocks[link.before] = replace(before, starts=((at, at + 1),))

    def _goal(self, one: Made, root: int, ready_off: float) -> None:
        ready = self._ready(one.told)
        shift, fresh = self.spots[root].shift, weighs()["fresh"] * (2 if one.told.fresh else 1)
        if ready is None:
            self.goals.append(Goal(root, ceil((ready_off + shift) / SLOT_MIN - TINY), None, fresh))
            return
        whole = floor((ready - self.origin) / SLOT_MIN + TINY)
        over = ready - self.origin - whole * SLOT_MIN
        self.goals.append(Goal(root, ceil((ready_off + shift - over) / SLOT_MIN - TINY), whole, fresh))


def _split(n: int, chunk: Chunk, marks: Mapping[int, Mark], cut: Cut, now: float | None) -> tuple[list[Part], float | None, list[Part]]:
    """What of a chunk has happened, when it began, and what is left of it. Loads that follow each other go on once the first is in."""
    known = [k for k, part in enumerate(chunk.parts) if part.step in marks]
    giving = next((join for join in cut.joins if join.before == n and any(step in marks and marks[step].began_min is not None for step in join.steps)), None)
    if giving is not None:
        began = next(marks[step].began_min for step in giving.steps if step in marks)
        assert began is not None
        return list(chunk.parts), began - giving.from_min, []
    if not known:
        return [], None, []
    last = known[-1]
    part = chunk.parts[last]
    mark = marks[part.step]
    own = [k for k, other in enumerate(chunk.parts) if other.step == part.step]
    in_loads = part.load is not None
    last = max(k for k, other in enumerate(chunk.parts) if other.load is not None) if in_loads else max(own)
    first_begin = chunk.parts[own[0]].begin
    if mark.began_min is not None:
        at = mark.began_min - first_begin
        late = 0.0 if mark.ended_min is None else mark.ended_min - (at + max(chunk.parts[k].end for k in own))
    else:
        assert mark.ended_min is not None
        at, late = mark.ended_min - max(chunk.parts[k].end for k in own), 0.0
    if mark.ended_min is None and now is not None and not in_loads:
        late = max(0.0, now - (at + part.end))
    begun = [other if k not in own else _stretched(other, late) for k, other in enumerate(chunk.parts[: last + 1])]
    return begun, at, list(chunk.parts[last + 1 :])


def _as_told(cut: Cut, split: list[tuple[list[Part], float | None, list[Part]]], told: Mapping[tuple[int, Edge], float], now: float, not_yet: frozenset[int]) -> None:
    """What was told for before now has happened as told, where nothing is marked of it, it is not said not to have begun, and what comes before it
    has happened in time. `split` is changed in place."""
    into: dict[int, list[Join]] = {}
    for join in cut.joins:
        into.setdefault(join.after, []).append(join)
    order = TopologicalSorter({n: [join.before for join in into.get(n, ())] for n in range(len(cut.chunks))}).static_order()
    for n in order:
        at = told.get(cut.first_of(n))
        if split[n][0] or at is None or at >= now or any(part.step in not_yet for part in cut.chunks[n].parts):
            continue
        if all(_was_in_time(join, split[join.before][1], at) for join in into.get(n, ())):
            split[n] = list(cut.chunks[n].parts), at, []


def _was_in_time(join: Join, began: float | None, at: float) -> bool:
    """Whether what comes before had begun, so long ago that the next could."""
    return began is not None and at + join.to_min >= began + join.from_min + join.low - SLOT_MIN


def _stretched(part: Part, by: float) -> Part:
    """A part that took longer, or less long, than it was laid for."""
    end = max(part.begin + 0.5, part.end + by)
    return replace(part, end=end, hands=tuple((begin, min(last, end)) for begin, last in part.hands if begin < end))


def _done_before(cut: Cut, split: Sequence[tuple[list[Part], float | None, list[Part]]]) -> set[int]:
    """Chunks of which nothing was marked, and that something marked comes after: they are done."""
    into: dict[int, list[int]] = {}
    for join in cut.joins:
        into.setdefault(join.after, []).append(join.before)
    found: set[int] = set()
    todo = [n for n, (begun, _, _) in enumerate(split) if begun]
    while todo:
        for before in into.get(todo.pop(), ()):
            if not split[before][0] and before not in found:
                found.add(before)
            todo.append(before)
    return found


def _working_days(hands: Sequence[int]) -> tuple[tuple[int, int], ...]:
    """From slot to before slot in which somebody is there, parted by long absences."""
    found: list[tuple[int, int]] = []
    for slot, units in enumerate(hands):
        if not units:
            continue
        if found and slot - found[-1][1] < LONG_ABSENCE_MIN // SLOT_MIN:
            found[-1] = (found[-1][0], slot + 1)
        else:
            found.append((slot, slot + 1))
    return tuple(found)


def lay(day: Day, made: Sequence[Made], kit: Kit) -> Laid:
    """A day's products as one problem. Those without steps are not in it."""
    return _Laying(day, made, kit).lay()
