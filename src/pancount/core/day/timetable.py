"""A timetable as it is told: what is done when, by whom, in what; what gives in between; the oven's heat; and what it weighs, with how good it could be."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from pancount.core.base.models import Frozen
from pancount.core.base.words import listed
from pancount.core.day.blocks import Cut, Join
from pancount.core.day.day import DAY_MIN, FIRST_MIN, LAST_MIN, Day, Edge, ToldStart
from pancount.core.day.ground import NEVER, Ground
from pancount.core.day.hands import Hands, shared_out
from pancount.core.day.laying import TINY, Laid, Made, absent
from pancount.core.day.placing import left_out
from pancount.core.day.problem import HALF_MIN, NEAR_C, SLOT_MIN, Firing, change_slots
from pancount.core.day.weighing import oven_paths, placed_firings, weigh, working_days
from pancount.core.day.why import Slide, slides
from pancount.core.method.bakes import dial_words
from pancount.core.method.filled import Filled

NIGHT_MIN = (22 * 60, 5 * 60)
"""What is done from ten in the evening to five is done in the night. Common practice, no source. [min]"""


OUT_OF = {"fridge": "out of the fridge", "freezer": "out of the freezer"}
"""What the end of a chill is called, where it is something to do."""


class Doing(Frozen):
    """A step, or one load of it: what, when, where, by whose hands. `product` is its place among the day's. [min]"""

    product: int
    step: int
    kind: str
    label: str
    of: str
    """What it is done to, where that is not the dough itself: the poolish, the wash."""
    load: int | None
    pieces: int
    place: str
    begins_min: float
    ends_min: float
    hands: tuple[Hands, ...]
    block: int
    edge: Edge
    """Whether a pin on its beginning is on the beginning of its step: taking out of the fridge is the end of a chill."""
    pinned: bool
    happened: bool


class Giving(Frozen):
    """What gives between two blocks: a rise, a rest, a chill, or what only lies. [min]"""

    product: int
    steps: tuple[int, ...]
    label: str
    place: str
    begins_min: float
    ends_min: float
    low_min: float
    usual_min: float
    high_min: float
    bears_min: float
    beyond_min: float
    """By how much it is longer than it should be, for the last of its loads."""
    before: int
    after: int
    running: bool
    """It has begun and is not over."""


class Heat(Frozen):
    """An oven for a while: heating up, kept or changed, or with something in it."""

    oven: int
    what: str
    begins_min: float
    ends_min: float
    celsius: float
    product: int | None
    shelves: int


class ProductTold(Frozen):
    """How a product comes out."""

    name: str
    pieces: int
    way: str
    ready_min: float | None
    """None where it is not placed."""
    ready_by_min: float | None
    late_min: float
    lies_min: float
    beyond_min: float
    cleared: bool
    """Whether it is in the timetable at all."""
    says: str


class DayFigure(Frozen):
    """One of the things that count, in their order; `at_best` is what no timetable of this day can be under."""

    name: str
    label: str
    value: float
    unit: str
    at_best: float


class Moved(Frozen):
    """Something that moves from what was told. [min]"""

    product: int
    step: int
    label: str
    from_min: float
    to_min: float


class Timetable(Frozen):
    """A timetable, told."""

    origin_min: float
    until_min: float
    doings: tuple[Doing, ...]
    giving: tuple[Giving, ...]
    heat: tuple[Heat, ...]
    products: tuple[ProductTold, ...]
    figures: tuple[DayFigure, ...]
    slides: tuple[Slide, ...]
    away: tuple[tuple[tuple[float, float], ...], ...]
    """By baker, when there are no hands. [min]"""
    starts: tuple[ToldStart, ...]
    """Where each part that hangs together begins, by its first step: to be told, and to go on from."""
    moved: tuple[Moved, ...]
    """What moves from what was told, where the day is running."""
    weighs: int
    bound: int
    proven: bool
    says: tuple[str, ...]


@dataclass(frozen=True)
class Told:
    """A problem with a timetable for it."""

    day: Day
    laid: Laid
    ground: Ground
    starts: Mapping[int, int]
    bound: int


def key_of(laid: Laid, b: int) -> tuple[str, int, Edge]:
    """What a block is known by from one timetable to the next: its product, its first step, and which edge of it."""
    spot = laid.spots[b]
    made = laid.made[spot.product]
    assert made.cut is not None
    step = spot.parts[0].step
    return made.told.key, step, made.cut.edge(spot.chunk, step)


def starts_of(told: Told) -> tuple[ToldStart, ...]:
    """Where each block begins. [min]"""
    found = []
    for b, at in sorted(told.starts.items()):
        product, step, edge = key_of(told.laid, b)
        found.append(ToldStart(product=product, step=step, edge=edge, at_min=min(max(told.laid.time(b, at), FIRST_MIN), LAST_MIN)))
    return tuple(found)


def _moved(told: Told) -> tuple[Moved, ...]:
    """What moves, in order of time."""
    if told.day.now_min is None:
        return ()
    laid, found = told.laid, []
    was = {(one.product, one.step, one.edge): one.at_min for one in told.day.told}
    for b, at in told.starts.items():
        spot, begins, before = laid.spots[b], laid.time(b, at), was.get(key_of(laid, b))
        made = laid.made[spot.product]
        assert made.cut is not None
        if before is None and not spot.happened and spot.parts[0] != made.cut.chunks[spot.chunk].parts[0]:
            chunk = was.get((made.told.key, *made.cut.first_of(spot.chunk)))  # what is left of something: told with the whole of it
            before = None if chunk is None else chunk + _base(laid, b)
        if before is not None and not spot.happened and abs(before - begins) >= 1:
            label = ", ".join(dict.fromkeys(made.cut.figures[part.step].label for part in spot.parts))
            found.append(Moved(product=_number(told, spot.product), step=spot.parts[0].step, label=label, from_min=before, to_min=begins))
    return tuple(sorted(found, key=lambda one: one.to_min))


def _number(told: Told, p: int) -> int:
    """Which of the day's products one of the problem's is."""
    return next(n for n, one in enumerate(told.day.products) if one.key == told.laid.made[p].told.key)


def absences_of(day: Day, laid: Laid) -> list[list[bool]]:
    """By baker and slot, whether there are no hands."""
    return [absent(day.absences, n, laid.origin, laid.problem.slots) for n in range(len(day.bakers))]


def _following(told: Told) -> dict[int, float]:
    """Preheats that need none, since the oven is hot from what comes before: their block, and when the oven is free for them. [min]"""
    laid, problem = told.laid, told.laid.problem
    placed = placed_firings(problem, told.starts)
    _, after = oven_paths(placed)
    found = {}
    for j, i in enumerate(after):
        if i is None:
            continue
        for n, link in enumerate(problem.links):
            join = laid.joins[n][1]
            if link.after == placed[j][0] and join.place == "oven" and join.steps and link.before in told.starts:
                free = laid.origin + placed[i][3] * SLOT_MIN
                if free > laid.time(link.before, told.starts[link.before]) - TINY and not laid.spots[link.before].pinned:
                    found[link.before] = float(free)
    return found


def doings(told: Told, hands: Mapping[int, tuple[Hands, ...]]) -> tuple[Doing, ...]:
    """Everything that is done, in order of time."""
    laid, following, found = told.laid, _following(told), list[Doing]()
    for b, at in told.starts.items():
        spot, begins = laid.spots[b], laid.time(b, at)
        made = laid.made[spot.product]
        assert made.cut is not None
        for part in spot.parts:
            figures, one = made.cut.figures[part.step], made.cut.steps[part.step]
            first, last = begins + part.begin, begins + part.end
            own = tuple(h for h in hands.get(b, ()) if any(h.begins_min < begins + e + HALF_MIN and h.ends_min > begins + a - TINY for a, e in part.hands))
            clipped = tuple(_clip(h, first, last) for h in own)
            label = OUT_OF[one.place] if made.cut.edge(spot.chunk, part.step) == "end" and one.place in OUT_OF else figures.label
            if b in following:
                first, last, clipped, label = following[b], following[b], (), f"oven to {dial_words(made.heats[_baked(made.cut.steps, part.step)], 'C')}"
            elif len(spot.parts) == 1 and clipped and not spot.pinned and last - first <= HALF_MIN:
                first, last = clipped[0].begins_min, clipped[0].ends_min
            found.append(
                Doing(
                    product=_number(told, spot.product), step=part.step, kind=one.kind.key, label=label, of=_of(made, part.step), load=part.load, pieces=part.pieces, place=one.place,
                    begins_min=first, ends_min=last, hands=clipped, block=b, edge=made.cut.edge(spot.chunk, part.step), pinned=spot.pinned, happened=spot.happened,
                )
            )  # fmt: skip
    return tuple(sorted(found, key=lambda one: (one.begins_min, one.product, one.step, one.load or 0)))


def _of(made: Made, step: int) -> str:
    """What a step is done to, by name; blank for the dough itself."""
    threads = made.method.strands
    own = next((thread for thread in threads if step in thread.steps), None)
    cut = made.cut
    assert cut is not None
    last = cut.chunks[cut.root].parts[-1].step
    return "" if own is None or last in own.steps else own.name


def _clip(hands: Hands, begin: float, end: float) -> Hands:
    """Hands as far as they belong to one step; those that were put off a little stay as they are."""
    first, last = max(hands.begins_min, begin), min(hands.ends_min, end + 1.0)
    return hands if last <= first else hands.model_copy(update={"begins_min": first, "ends_min": last})


def _baked(steps: Sequence[Filled], preheat: int) -> int:
    """What an oven is preheated for."""
    return next(i for i in range(preheat + 1, len(steps)) if steps[i].place == "oven" and steps[i].kind.does == "loads")


def _label(join: Join, told: Told, p: int) -> str:
    cut = told.laid.made[p].cut
    assert cut is not None
    return ", ".join(dict.fromkeys(cut.figures[i].label for i in join.steps)) or "lies"


def giving(told: Told) -> tuple[Giving, ...]:
    """Everything that gives, in order of time; what cools at the end as well."""
    laid, found = told.laid, list[Giving]()
    now = told.day.now_min
    for n, link in enumerate(laid.problem.links):
        if link.before not in told.starts or link.after not in told.starts:
            continue
        p, join = laid.joins[n]
        begins = laid.time(link.before, told.starts[link.before]) + _from(laid, n)
        ends = laid.time(link.after, told.starts[link.after]) + _to(laid, n)
        cut = laid.made[p].cut
        assert cut is not None
        is_ahead = bool(join.steps) and cut.steps[join.steps[0]].kind.does == "ahead"
        later = max(cut.loads_after(join), default=0.0)
        beyond = max(0.0, ends - begins + later - join.high) if join.steps and not is_ahead and not laid.spots[link.after].happened else 0.0
        found.append(
            Giving(
                product=_number(told, p), steps=join.steps, label=_label(join, told, p), place=join.place, begins_min=begins, ends_min=ends,
                low_min=join.low, usual_min=join.usual, high_min=join.high, bears_min=join.bears, beyond_min=beyond, before=link.before, after=link.after,
                running=now is not None and laid.spots[link.before].happened and not laid.spots[link.after].happened,
            )
        )  # fmt: skip
    for p, goal in enumerate(laid.problem.goals):
        cut = laid.made[p].cut
        if goal.block in told.starts and cut is not None and cut.tail is not None:
            begins = laid.time(goal.block, told.starts[goal.block])
            begins += laid.spots[goal.block].length
            usual = cut.figures[cut.tail].usual_min
            found.append(
                Giving(
                    product=_number(told, p), steps=(cut.tail,), label=cut.figures[cut.tail].label, place=cut.figures[cut.tail].place, begins_min=begins,
                    ends_min=_ready(told, p), low_min=usual, usual_min=usual, high_min=usual, bears_min=usual, beyond_min=0.0, before=goal.block, after=goal.block,
                    running=False,
                )
            )  # fmt: skip
    return tuple(sorted(found, key=lambda one: (one.begins_min, one.product)))


def _from(laid: Laid, n: int) -> float:
    """Where in the block before a link its gap begins. [min]"""
    link, join = laid.problem.links[n], laid.joins[n][1]
    return join.from_min - _base(laid, link.before)


def _to(laid: Laid, n: int) -> float:
    link, join = laid.problem.links[n], laid.joins[n][1]
    return join.to_min - _base(laid, link.after)


def _base(laid: Laid, b: int) -> float:
    """By how much a block begins after its chunk does: what is left of one that has begun. [min]"""
    spot = laid.spots[b]
    cut = laid.made[spot.product].cut
    assert cut is not None
    if spot.happened:
        return 0.0
    own = cut.chunks[spot.chunk].parts
    part = spot.parts[0]
    return next((one.begin for one in own if one.step == part.step and one.load == part.load), part.begin) - part.begin


def _ready(told: Told, p: int) -> float:
    """When a product is ready. [min]"""
    cut, goal = told.laid.made[p].cut, told.laid.problem.goals[p]
    assert cut is not None
    return told.laid.time(goal.block, told.starts[goal.block]) + cut.ready_min - _base(told.laid, goal.block)


def heat(told: Told) -> tuple[Heat, ...]:
    """Each oven along the day."""
    laid, problem = told.laid, told.laid.problem
    placed = placed_firings(problem, told.starts)
    _, after = oven_paths(placed)
    ovens, found = _ovens(told), list[Heat]()
    for j, (b, firing, begin, end) in enumerate(placed):
        first, last = laid.origin + begin * SLOT_MIN, laid.origin + end * SLOT_MIN
        number = _number(told, laid.spots[b].product)
        i = after[j]
        spans = [("bakes", float(first), float(last))]
        if i is None:
            spans.append(("heats", _lit(told, b, first), float(first)))
        elif placed[i][3] < begin:
            spans.append(("kept", float(laid.origin + placed[i][3] * SLOT_MIN), float(first)))
        found += [
            Heat(oven=ovens[j], what=what, begins_min=begins, ends_min=ends, celsius=firing.oven_c, product=number, shelves=firing.shelves)
            for what, begins, ends in spans
        ]
    return tuple(sorted(found, key=lambda one: (one.oven, one.begins_min)))


def _lit(told: Told, b: int, first: float) -> float:
    """When the oven is turned on for a firing. [min]"""
    laid = told.laid
    for n, link in enumerate(laid.problem.links):
        if link.after == b and laid.joins[n][1].place == "oven" and laid.joins[n][1].steps and link.before in told.starts:
            return min(first, laid.time(link.before, told.starts[link.before]))
    return first - 20.0


def _ovens(told: Told) -> list[int]:
    """Which oven each firing is in, in order of time: the first that none in its way is in."""
    problem, placed = told.laid.problem, placed_firings(told.laid.problem, told.starts)
    found: list[int] = []
    for j, (_, then, begin, _) in enumerate(placed):
        ways = {found[i] for i, (_, first, _, end) in enumerate(placed[:j]) if _in_way(first, end, then, begin, problem.shelves)}
        found.append(next((k for k in range(problem.ovens) if k not in ways), 0))
    return found


def _in_way(first: Firing, end: int, then: Firing, begin: int, shelves: int) -> bool:
    if abs(first.oven_c - then.oven_c) <= NEAR_C and first.shelves + then.shelves <= shelves:
        return False
    return begin < end + change_slots(first.oven_c, then.oven_c)


def _products(told: Told, gaps: tuple[Giving, ...]) -> tuple[ProductTold, ...]:
    laid, by_key = told.laid, {one.told.key: p for p, one in enumerate(told.laid.made)}
    found = []
    for n, product in enumerate(told.day.products):
        p = by_key.get(product.key)
        by = product.ready_min if product.ready_min is not None else told.day.ready_min
        if p is None:
            found.append(ProductTold(name=product.name, pieces=0, way="", ready_min=None, ready_by_min=by, late_min=0, lies_min=0, beyond_min=0, cleared=False, says="It has no steps yet: read or write its method, then it can be laid out."))
            continue
        made, goal = laid.made[p], laid.problem.goals[p]
        way = next((w.name for w in made.formula.ways if w.key == made.count.way), made.formula.ways[0].name if made.formula.ways else "")
        pieces = made.cut.pieces if made.cut else 0
        if goal.block not in told.starts:
            says = "It finds no place in this day." if told.ground.alone[p] < NEVER else "It cannot be made like this, even alone: its pins, what has happened and the hours without hands leave it no time."
            found.append(ProductTold(name=made.formula.name, pieces=pieces, way=way, ready_min=None, ready_by_min=by, late_min=0, lies_min=0, beyond_min=0, cleared=False, says=says))
            continue
        ready = _ready(told, p)
        late = max(0.0, ready - by) if by is not None else 0.0
        found.append(
            ProductTold(
                name=made.formula.name, pieces=pieces, way=way, ready_min=ready, ready_by_min=by, late_min=late if late > TINY else 0.0,
                lies_min=max(0.0, by - ready) if by is not None else 0.0, beyond_min=sum(gap.beyond_min for gap in gaps if gap.product == n), cleared=True, says="",
            )
        )  # fmt: skip
    return tuple(found)


def _figures(told: Told, made: tuple[Doing, ...], products: tuple[ProductTold, ...], heats: tuple[Heat, ...], hands: Mapping[int, tuple[Hands, ...]]) -> tuple[DayFigure, ...]:
    ground, problem = told.ground, told.laid.problem
    least_late = least_lies = 0.0
    for goal in problem.goals:
        slots = ground.raw[goal.block].nonzero()[0]
        if goal.ready_by is None or not len(slots) or goal.block not in told.starts:
            continue
        least_late += max(0, int(slots[0]) + goal.ready - goal.ready_by) * SLOT_MIN
        in_time = [goal.ready_by - int(t) - goal.ready for t in slots if goal.ready_by - int(t) - goal.ready >= 0]
        least_lies += min(in_time, default=0) * SLOT_MIN
    days = working_days(problem, told.starts)
    touches = [h for own in hands.values() for h in own]
    night = sum(1 for h in touches if round(h.begins_min) % DAY_MIN >= NIGHT_MIN[0] or round(h.begins_min) % DAY_MIN < NIGHT_MIN[1])
    on = sum(one.ends_min - one.begins_min for one in heats)
    baking = _union([(one.begins_min, one.ends_min) for one in heats if one.what == "bakes"])
    changes = sum(1 for a, b in pairwise(heats) if a.oven == b.oven and b.what == "kept" and abs(a.celsius - b.celsius) > 10)
    least_on = baking / max(1, problem.ovens * problem.shelves) if heats else 0.0
    return (
        DayFigure(name="late", label="Late", value=sum(one.late_min for one in products), unit="min", at_best=min(least_late, sum(one.late_min for one in products))),
        DayFigure(name="beyond", label="Over-risen", value=sum(one.beyond_min for one in products), unit="min", at_best=0),
        DayFigure(name="lies", label="Lies till sale", value=sum(one.lies_min for one in products), unit="min", at_best=min(least_lies, sum(one.lies_min for one in products))),
        DayFigure(name="span", label="Your days", value=sum(end - begin for begin, end in days.values()) * SLOT_MIN, unit="min", at_best=ground.least_span * SLOT_MIN),
        DayFigure(name="night", label="In the night", value=night, unit="count", at_best=0),
        DayFigure(name="oven", label="Oven on", value=on, unit="min", at_best=min(on, least_on)),
        DayFigure(name="changes", label="Heat changed", value=changes, unit="count", at_best=0),
    )


def _union(spans: list[tuple[float, float]]) -> float:
    """How long any of some spans lasts. [min]"""
    total, until = 0.0, float("-inf")
    for begin, end in sorted(spans):
        total += max(0.0, end - max(begin, until))
        until = max(until, end)
    return total


def timetable(told: Told) -> Timetable:
    """A timetable, told whole."""
    laid, problem = told.laid, told.laid.problem
    away = absences_of(told.day, laid)
    hands = shared_out(laid, told.starts, away)
    made, gaps, heats = doings(told, hands), giving(told), heat(told)
    products = _products(told, gaps)
    weighed = weigh(problem, told.starts).total
    spans = [(one.begins_min, one.ends_min) for one in made] + [(one.begins_min, one.ends_min) for one in gaps]
    begins, until = min((a for a, _ in spans), default=float(laid.origin)), max((b for _, b in spans), default=float(laid.origin))
    says = [*laid.gone_pins]
    wait = [f"{made.formula.name} {later:.0f} min" for made in laid.made if made.cut and (later := _last_waits(made.cut)) >= WAITS_MIN]
    if wait:
        says.append(f"The last load waits while the others are in: {listed(wait)}. Chilling part of it keeps it from rising too far.")
    return Timetable(
        origin_min=begins,
        until_min=until,
        doings=made,
        giving=gaps,
        heat=heats,
        products=products,
        figures=_figures(told, made, products, heats, hands),
        slides=slides(told.day, laid, told.ground, told.starts),
        away=tuple(tuple(_spans(own, laid.origin)) for own in away),
        starts=starts_of(told),
        moved=_moved(told),
        weighs=weighed,
        bound=min(told.bound, weighed),
        proven=told.bound >= weighed and not left_out(told.ground, told.starts),
        says=tuple(says),
    )


WAITS_MIN = 20.0
"""A last load that waits so long is told. Common practice, no source. [min]"""


def _last_waits(cut: Cut) -> float:
    """How much longer the last load of a product rises than the first. [min]"""
    return max((later for join in cut.joins for later in cut.loads_after(join)), default=0.0)


def _spans(away: list[bool], origin: int) -> list[tuple[float, float]]:
    found: list[tuple[float, float]] = []
    for slot, is_away in enumerate(away):
        begin = float(origin + slot * SLOT_MIN)
        if is_away and found and found[-1][1] == begin:
            found[-1] = (found[-1][0], begin + SLOT_MIN)
        elif is_away:
            found.append((begin, begin + SLOT_MIN))
    return found
