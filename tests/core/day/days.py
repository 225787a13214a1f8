"""Days of the demo kitchen, and a reader of timetables that knows nothing of how they were made."""

from collections.abc import Iterator
from functools import cache
from itertools import combinations, pairwise

from pancount.core.day.day import ASLEEP, Absence, Day, DayProduct
from pancount.core.day.plan import Asked, Counted, Planner
from pancount.core.day.timetable import Timetable, timetable
from pancount.demo.weir_house import KIT, examples

NEAR_MIN = 5.001
"""The grid: what is rounded to it is off by less than this. [min]"""


@cache
def ways() -> tuple[tuple[int, str], ...]:
    """Every way of every formula of the demo kitchen: which, and by key."""
    return tuple((n, way.key) for n, (formula, _) in enumerate(examples()) for way in formula.ways)


def product(name: str, way: str = "", key: str = "", **told: object) -> DayProduct:
    """A product of a day by its formula's name, and a part of its way's."""
    number, (formula, _) = next((n, one) for n, one in enumerate(examples()) if name in one[0].name)
    own = next(one.key for one in formula.ways if way in one.name)
    return DayProduct(key=key or name.lower().replace(" ", "-")[:30], formula_id=number + 1, name=formula.name, way=own, **told)


def a_day(*products: DayProduct, **told: object) -> Day:
    """A Saturday, ready at half past seven, asleep from ten to five."""
    return Day(**{"date": "2026-11-28", "products": products, "absences": (ASLEEP,), **told})


def planner(day: Day, kit=KIT) -> Planner:
    """What the kitchen plans it with."""
    counted = tuple(Counted(key=one.key, formula=examples()[one.formula_id - 1][0], count=examples()[one.formula_id - 1][1]) for one in day.products)
    return Planner(Asked(day=day, counted=counted, kit=kit))


def planned(day: Day, rounds: int = 4, hint=(), kit=KIT) -> Timetable:
    """A timetable soon had."""
    return timetable(planner(day, kit).quick(day, hint, rounds))


def faults(day: Day, table: Timetable, kit=KIT) -> list[str]:
    """All that is wrong with a timetable, read off what is told; nothing where it can be followed."""
    return [*_hands(day, table), *_machines(table), *_oven(day, table, kit), *_gaps(table), *_order(table), *_pins(day, table), *_floors(day, table)]


def away(day: Day, baker: int, at: float) -> bool:
    """Whether a baker has no hands at a time, by the absences as they are told."""
    for one in day.absences:
        if one.baker not in (None, baker):
            continue
        own, clock = at // 1440, at % 1440
        if one.begins_min < one.ends_min:
            inside, began = one.begins_min <= clock < one.ends_min, own
        else:
            inside, began = clock >= one.begins_min or clock < one.ends_min, own if clock >= one.begins_min else own - 1
        if inside and (one.day is None or one.day == began):
            return True
    return False


def _hands(day: Day, table: Timetable) -> Iterator[str]:
    for baker in range(len(day.bakers)):
        held = sorted({(h.begins_min, h.ends_min, one.block) for one in table.doings for h in one.hands if h.baker == baker and not one.happened})
        for (_, b, first), (c, _, then) in pairwise(held):
            if first != then and c < b - 0.01:
                yield f"baker {baker} holds block {first} until {b} and block {then} from {c}"
        for a, b, block in held:
            if any(away(day, baker, a + n * (b - a - 0.02) / 8 + 0.01) for n in range(9)):
                yield f"baker {baker} is away during block {block}, {a} to {b}"


def _machines(table: Timetable) -> Iterator[str]:
    for place in ("mixer", "pot", "griddle"):
        held = [(one.begins_min, one.ends_min, one.block) for one in table.doings if one.place == place and one.ends_min > one.begins_min]
        for (a, b, first), (c, d, then) in combinations(held, 2):
            if first != then and a < d - 0.01 and c < b - 0.01 and place != "griddle" and not _only_lit(table, first, then):
                yield f"the {place} has block {first} and block {then} at {max(a, c)}"


def _only_lit(table: Timetable, first: int, then: int) -> bool:
    """Whether one of two blocks is just the heating of what the other needs."""
    return any(all(one.kind.startswith("heat_") for one in table.doings if one.block == block) for block in (first, then))


def _oven(day: Day, table: Timetable, kit) -> Iterator[str]:
    inside = [one for one in table.heat if one.what == "bakes"]
    for one, other in combinations(inside, 2):
        if one.oven == other.oven and abs(one.celsius - other.celsius) > 10:
            first, then = sorted((one, other), key=lambda heat: heat.begins_min)
            change = (then.celsius - first.celsius) / 10 if then.celsius > first.celsius else (first.celsius - then.celsius) / 5
            if then.begins_min < first.ends_min + change - 0.01:
                yield f"the oven is to be {first.celsius} and {then.celsius} at {then.begins_min}"
    for at in {one.begins_min for one in inside}:
        for oven in {one.oven for one in inside}:
            shelves = sum(one.shelves for one in inside if one.oven == oven and one.begins_min <= at < one.ends_min)
            if shelves > (day.shelves or kit.shelves):
                yield f"{shelves} shelves of the oven are taken at {at}"


def _gaps(table: Timetable) -> Iterator[str]:
    blocks = {one.block: one.happened for one in table.doings}
    for gap in table.giving:
        lasts = gap.ends_min - gap.begins_min
        if blocks.get(gap.before) or gap.before == gap.after:
            continue
        if lasts < gap.low_min - 0.01:
            yield f"{gap.label} of product {gap.product} lasts {lasts:.0f} and needs {gap.low_min:.0f}"
        if lasts > max(gap.bears_min, gap.low_min) + NEAR_MIN:
            yield f"{gap.label} of product {gap.product} lasts {lasts:.0f} and bears {gap.bears_min:.0f}"


def _order(table: Timetable) -> Iterator[str]:
    """What goes in must be made; what is done to one thing is done in order."""
    for number in range(len(table.products)):
        own = [one for one in table.doings if one.product == number and one.load is None and not one.kind.startswith(("preheat", "heat_"))]
        by_thing: dict[str, list] = {}
        for one in sorted(own, key=lambda one: one.step):
            by_thing.setdefault(one.of, []).append(one)
        for steps in by_thing.values():
            for first, then in pairwise(steps):
                if then.begins_min < first.begins_min - 2.6:
                    yield f"{then.label} of product {number} begins before {first.label}"


def _pins(day: Day, table: Timetable) -> Iterator[str]:
    for number, told in enumerate(day.products):
        for pin in told.pins:
            own = [one for one in table.doings if one.product == number and one.step == pin.step and one.edge == pin.edge]
            if table.products[number].cleared and own and abs(min(one.begins_min for one in own) - pin.at_min) > 0.01:
                yield f"pinned to {pin.at_min}, at {min(one.begins_min for one in own)}"


def _floors(day: Day, table: Timetable) -> Iterator[str]:
    for one in table.doings:
        told = day.products[one.product]
        for floor in (day.starts_min, told.from_min, day.now_min):
            if floor is not None and not one.happened and one.begins_min < floor - 2.6:
                yield f"{one.label} of {told.name} at {one.begins_min}, before {floor}"


MORNING = Absence(why="away", day=-1, begins_min=8 * 60, ends_min=12 * 60)
