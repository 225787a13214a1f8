"""What would help where a day cannot be as it is wished, and what else would be good where it can: each a day with one thing otherwise, planned."""

from collections.abc import Iterator
from typing import Any

from pancount.core.day.day import DAY_MIN, Absence, Day, DayProduct, TimePin, clock_words
from pancount.core.day.placing import left_out
from pancount.core.day.plan import Offer, Planner
from pancount.core.day.problem import SLOT_MIN
from pancount.core.day.timetable import Timetable, Told
from pancount.core.day.weighing import weigh, working_days
from pancount.core.method.telling import minutes_words

EARLIER_MIN = (30, 60, 120)
"""How much earlier one might get up, or later go to bed. [min]"""
MOST_OTHERS, MOST_MOVED = 2, 3
"""So many other timetables are offered, and so many products are tried on another day."""


def with_product(day: Day, number: int, **changes: Any) -> Day:
    """The day with something of one product otherwise."""
    products = (*day.products[:number], day.products[number].model_copy(update=changes), *day.products[number + 1 :])
    return day.model_copy(update={"products": products})


def without_product(day: Day, number: int) -> Day:
    """The day with one product fewer."""
    return day.model_copy(update={"products": (*day.products[:number], *day.products[number + 1 :])})


def with_absence(day: Day, number: int, absence: Absence | None) -> Day:
    """The day with one absence otherwise, or without it."""
    kept = (absence,) if absence is not None else ()
    return day.model_copy(update={"absences": (*day.absences[:number], *kept, *day.absences[number + 1 :])})


def _weighed(planner: Planner, wish: str, day: Day, before: tuple[int, float]) -> Offer:
    """A day with a wish let go, planned."""
    told = planner.quick(day)
    out = len(left_out(told.ground, told.starts))
    late, lies = _late_and_lies(told)
    days = working_days(told.laid.problem, told.starts)
    if out == 0 and late < SLOT_MIN:
        gives = "all is ready in time"
    elif (out, late) < before:
        gives = " and ".join(filter(None, [f"{out} without a place" if out else "", f"still {minutes_words(late)} late" if late else ""]))
    else:
        gives = "no help by itself"
    return Offer(
        wish=wish, gives=gives, day=day, late_min=late, left_out=out, lies_min=lies, span_min=float(sum(e - b for b, e in days.values()) * SLOT_MIN),
        weighs=weigh(told.laid.problem, told.starts).total,
    )  # fmt: skip


def _late_and_lies(told: Told) -> tuple[float, float]:
    late = lies = 0
    for goal in told.laid.problem.goals:
        if goal.block in told.starts and goal.ready_by is not None:
            ready = told.starts[goal.block] + goal.ready
            late += max(0, ready - goal.ready_by)
            lies += max(0, goal.ready_by - ready)
    return float(late * SLOT_MIN), float(lies * SLOT_MIN)


def _name(product: DayProduct) -> str:
    return product.name or "one of the products"


def _candidates(planner: Planner, day: Day, made: Timetable) -> Iterator[tuple[str, Day]]:
    """Wishes, each with the day that lets it go; the smallest first."""
    for n, product in enumerate(day.products):
        for k, pin in enumerate(product.pins):
            kept = (*product.pins[:k], *product.pins[k + 1 :])
            yield f"Let go of the pin at {clock_words(pin.at_min)} ({_name(product)}, {pin.kind.replace('_', ' ')})", with_product(day, n, pins=kept)
    for n, one in enumerate(day.absences):
        if one.why == "asleep":
            for minutes in EARLIER_MIN:
                up = one.model_copy(update={"ends_min": (one.ends_min - minutes) % DAY_MIN})
                yield f"Up at {clock_words(one.ends_min - minutes)}, not {clock_words(one.ends_min)}", with_absence(day, n, up)
            later = one.model_copy(update={"begins_min": (one.begins_min + 60) % DAY_MIN})
            yield f"To bed at {clock_words(one.begins_min + 60)}, not {clock_words(one.begins_min)}", with_absence(day, n, later)
        else:
            yield f"Here from {clock_words(one.begins_min)} to {clock_words(one.ends_min)} after all", with_absence(day, n, None)
    if day.starts_min is not None:
        yield f"Begin an hour before {clock_words(day.starts_min)}", day.model_copy(update={"starts_min": day.starts_min - 60})
    yield from _ways(planner, day)
    kit = planner.asked.kit
    sheets, shelves = day.sheets or kit.sheets, day.shelves or kit.shelves
    yield "One sheet more", day.model_copy(update={"sheets": sheets + 1})
    yield "A shelf more in the oven", day.model_copy(update={"shelves": shelves + 1, "sheets": max(sheets, shelves + 1)})
    if len(day.bakers) == 1:
        yield "A second pair of hands", day.model_copy(update={"bakers": (*day.bakers, "")})
    for n, (product, comes) in enumerate(zip(day.products, made.products, strict=True)):
        if comes.late_min and comes.ready_min is not None:
            at = -(-comes.ready_min // SLOT_MIN) * SLOT_MIN
            yield f"{_name(product)} ready at {clock_words(at)}, not {clock_words(comes.ready_by_min or 0)}", with_product(day, n, ready_min=at)
    for n, product in enumerate(day.products):
        yield f"Without {_name(product)}", without_product(day, n)


def reliefs(planner: Planner, day: Day, told: Told, made: Timetable) -> Iterator[Offer]:
    """Each wish that could be let go and would help, with what it gives; those that help nothing are left away."""
    before = (len(left_out(told.ground, told.starts)), _late_and_lies(told)[0])
    helped: set[str] = set()
    for wish, changed in _candidates(planner, day, made):
        kind = wish.split(" at ")[0] if wish.startswith("Up at") else wish
        if kind in helped:
            continue  # half an hour was enough: an hour says nothing new
        offer = _weighed(planner, wish, changed, before)
        if (offer.left_out, offer.late_min) < before:
            if offer.left_out == 0 and offer.late_min < SLOT_MIN:
                helped.add(kind)
            yield offer


def others(planner: Planner, day: Day, told: Told, made: Timetable) -> Iterator[Offer]:
    """Other good timetables that differ in kind: another way of a formula, or a product's dough on another of the working days. Two at most."""
    before = (0, 0.0)
    now = weigh(told.laid.problem, told.starts).total
    found = []
    for wish, changed in _other_kinds(planner, day, told):
        offer = _weighed(planner, wish, changed, before)
        if offer.left_out == 0 and offer.late_min < SLOT_MIN and offer.weighs < 2 * now + 100:
            found.append(offer.model_copy(update={"gives": _against(offer, told, now)}))
    yield from sorted(found, key=lambda one: one.weighs)[:MOST_OTHERS]


def _other_kinds(planner: Planner, day: Day, told: Told) -> Iterator[tuple[str, Day]]:
    """The day with one product made another way, or the longest work on it on another working day: those that cost least by themselves."""
    yield from _ways(planner, day)
    laid, ground = told.laid, told.ground
    moved = []
    for p, made in enumerate(laid.made):
        assert made.cut is not None
        longest = max(range(len(made.cut.chunks)), key=lambda n: made.cut.chunks[n].length if made.cut else 0)
        b = next((k for k, spot in enumerate(laid.spots) if spot.product == p and spot.chunk == longest and k in told.starts and not spot.happened), None)
        if b is None or not laid.problem.blocks[b].runs or made.told.pins:
            continue
        part = next((one for one in laid.spots[b].parts if made.cut.where(one.step, "begin") == (longest, one.begin)), None)
        if part is None:
            continue
        first = laid.problem.blocks[b].runs[0].begin
        today, through = int(ground.day_of[told.starts[b] + first]), ground.through(p)[b]
        for other in range(len(laid.problem.days)):
            slots = [int(t) for t in ground.allowed[b].nonzero()[0] if int(ground.day_of[t + first]) == other]
            if other != today and slots:
                at = min(slots, key=lambda t: int(through[t]))
                moved.append((int(through[at]), p, laid.time(b, at) + part.begin, part))
    for _, p, begins, part in sorted(moved, key=lambda one: one[:3])[:MOST_MOVED]:
        made = laid.made[p]
        assert made.cut is not None
        step = part.step
        number = next(n for n, one in enumerate(day.products) if one.key == made.told.key)
        pin = TimePin(step=step, kind=made.cut.steps[step].kind.key, edge="begin", at_min=begins)
        when = "the day before" if begins < 0 else "the same morning"
        yield f"{_name(made.told)}: {made.cut.figures[step].label} at {clock_words(begins)} {when}", with_product(day, number, pins=(*made.told.pins, pin))


def _ways(planner: Planner, day: Day) -> Iterator[tuple[str, Day]]:
    """The day with one product made another way; what has begun is not made anew."""
    counted = {one.key: one for one in planner.asked.counted}
    for n, product in enumerate(day.products):
        if product.key not in counted or product.marks:
            continue
        own = counted[product.key]
        now = next((w for w in own.formula.ways if w.key == (product.way or own.count.way)), own.formula.ways[0] if own.formula.ways else None)
        for way in own.formula.ways:
            if way is not now and (way.key or not own.count.way):
                yield f"{_name(product)} made another way: {way.name or 'its other way'}", with_product(day, n, way=way.key, pins=())


def _against(offer: Offer, told: Told, now: int) -> str:
    """What another timetable has more or less of."""
    lies = _late_and_lies(told)[1]
    days = working_days(told.laid.problem, told.starts)
    span = float(sum(e - b for b, e in days.values()) * SLOT_MIN)
    found = []
    if abs(offer.lies_min - lies) >= SLOT_MIN:
        found.append(f"{minutes_words(abs(offer.lies_min - lies))} {'less' if offer.lies_min < lies else 'more'} lying before the sale")
    if abs(offer.span_min - span) >= SLOT_MIN:
        found.append(f"your days {minutes_words(abs(offer.span_min - span))} {'shorter' if offer.span_min < span else 'longer'}")
    return ", ".join(found) or ("as good" if offer.weighs <= now else "a little more rises off their usual time")
