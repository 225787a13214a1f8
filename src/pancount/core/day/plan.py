"""A day planned: made, laid, placed at once, made better, proven, told; and what it would be if a wish were let go."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base import most
from pancount.core.base.errors import CoreError
from pancount.core.base.models import Frozen, Word
from pancount.core.count.count import Count
from pancount.core.day.day import Day, ToldStart
from pancount.core.day.ground import Ground
from pancount.core.day.laying import Laid, Made, lay, make
from pancount.core.day.placing import Starts, first_timetable, improved, left_out, repaired, score
from pancount.core.day.problem import SLOT_MIN
from pancount.core.day.solving import Effort, Solved, solve
from pancount.core.day.timetable import Timetable, Told, key_of, timetable
from pancount.core.formula.formula import Formula
from pancount.core.formula.practice import Practice
from pancount.core.heat.climate import Climate
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Ingredient, pantry_with

ROUNDS, QUICK_ROUNDS = 40, 8
"""How often a timetable is taken apart and laid again before the solver, and where only a question is asked."""


MOST_LOADS = 150
"""Of one product in one day."""


class Counted(Frozen):
    """A product's formula and count, as the records have them."""

    key: Word
    formula: Formula
    count: Count


class Asked(Frozen):
    """A day with all that its planning needs, so that the same question always has the same answer."""

    day: Day
    counted: Annotated[tuple[Counted, ...], Field(max_length=most.DAY_PRODUCTS)] = ()
    own: Annotated[tuple[Ingredient, ...], Field(max_length=most.OWN_INGREDIENTS)] = ()
    practice: Practice = Practice()
    kit: Kit = Kit()
    climate: Climate = Climate()
    hint: Annotated[tuple[ToldStart, ...], Field(max_length=most.DAY_PRODUCTS * most.STEPS)] = ()
    """The last answer, to go on from."""


class DayTrouble(Frozen):
    """A product that cannot be reckoned, and why."""

    product: Word
    says: str


class Offer(Frozen):
    """The day with one wish let go, or otherwise, and what comes of it. [min]"""

    wish: str
    """What is let go, or is otherwise."""
    gives: str
    day: Day
    late_min: float
    left_out: int
    lies_min: float
    span_min: float
    weighs: int


class Progress(Frozen):
    """How far planning has come: first and better timetables, then, with the last of them, offers as they are found, then all."""

    stage: Literal["first", "better", "offers", "done", "failed"]
    timetable: Timetable | None = None
    troubles: tuple[DayTrouble, ...] = ()
    reliefs: tuple[Offer, ...] = ()
    others: tuple[Offer, ...] = ()


@dataclass
class Planner:
    """What a day is planned with. Products are made once for each way and number."""

    asked: Asked
    _made: dict[str, Made | DayTrouble] = field(default_factory=dict)

    def made(self, day: Day) -> tuple[list[Made], list[DayTrouble]]:
        """The day's products that can be reckoned, and what is the matter with the others."""
        counted = {one.key: one for one in self.asked.counted}
        pantry = pantry_with(self.asked.own)
        made, troubles = list[Made](), list[DayTrouble]()
        for product in day.products:
            if product.key not in counted:
                troubles.append(DayTrouble(product=product.key, says="This formula is not in the kitchen any more."))
                continue
            known = (product.key, product.way, product.pieces, product.pans, day.room_c, day.warm_c, day.fridge_c, day.ovens, day.shelves, day.sheets)
            one = self._made.get(repr(known))
            if one is None:
                try:
                    own = counted[product.key]
                    one = make(day, product, own.formula, own.count, pantry, self.asked.practice, self.asked.kit, self.asked.climate)
                    if len(one.method.loads) > MOST_LOADS:
                        one = DayTrouble(product=product.key, says=f"It goes through the heat in {len(one.method.loads)} loads: more than a day has room for.")
                except CoreError as error:
                    one = DayTrouble(product=product.key, says=str(error))
                self._made[repr(known)] = one
            if isinstance(one, DayTrouble):
                troubles.append(one)
            else:
                made.append(Made(product, one.formula, one.count, one.method, one.cut, one.heats))
        return made, troubles

    def quick(self, day: Day, hint: Sequence[ToldStart] = (), rounds: int = QUICK_ROUNDS) -> Told:
        """A day with a timetable soon had: good, and not proven."""
        laid = lay(day, self.made(day)[0], self.asked.kit)
        ground = Ground(laid.problem)
        starts = improved(ground, first_timetable(ground, from_told(laid, hint)), rounds)
        return Told(day, laid, ground, starts, least(ground, starts))


    def as_told(self, day: Day) -> Told:
        """A day with the timetable that the baker goes by, as far as it still holds; laid anew where there is none."""
        if not day.told:
            return self.quick(day, rounds=ROUNDS)
        laid = lay(day, self.made(day)[0], self.asked.kit)
        ground = Ground(laid.problem)
        starts = repaired(ground, from_told(laid, day.told))
        return Told(day, laid, ground, starts, least(ground, starts))


def least(ground: Ground, starts: Mapping[int, int]) -> int:
    """What any timetable of the products that are placed weighs at least, each by itself."""
    return sum(ground.alone[p] for p, goal in enumerate(ground.problem.goals) if goal.block in starts and not ground.problem.blocks[goal.block].past)


def from_told(laid: Laid, told: Sequence[ToldStart]) -> Starts:
    """Slots for the blocks of a problem from an earlier timetable."""
    was = {(one.product, one.step, one.edge): one.at_min for one in told}
    found: Starts = {}
    for b, spot in enumerate(laid.spots):
        at = was.get(key_of(laid, b))
        block = laid.problem.blocks[b]
        if block.past:
            found[b] = block.starts[0][0]
        elif at is not None:
            found[b] = round((at - laid.origin - spot.shift) / SLOT_MIN)
    return found


def plan(asked: Asked, effort: Effort, clock: Callable[[], float], tell: Callable[[Progress], None], stops: Callable[[], bool] = lambda: False) -> Told:
    """Plan a day: `tell` hears of the first timetable and of each better one. The last is returned, with its bound."""
    planner, day = Planner(asked), asked.day
    made, troubles = planner.made(day)
    told_troubles = tuple(troubles)
    laid = lay(day, made, asked.kit)
    ground = Ground(laid.problem)
    hint = from_told(laid, asked.hint or day.told)
    starts = first_timetable(ground, hint)
    told = Told(day, laid, ground, starts, least(ground, starts))
    tell(Progress(stage="first", timetable=timetable(told), troubles=told_troubles))
    if not starts:
        return told
    first = score(ground, starts)
    starts = improved(ground, starts, effort.rounds, lambda: not stops())
    if score(ground, starts) < first:
        tell(Progress(stage="better", timetable=timetable(Told(day, laid, ground, starts, told.bound)), troubles=told_troubles))
    heard = clock()

    def better(found: Solved) -> None:
        nonlocal heard
        if clock() - heard > LEAST_S:
            heard = clock()
            tell(Progress(stage="better", timetable=timetable(Told(day, laid, ground, found.starts, found.bound)), troubles=told_troubles))

    solved = solve(ground, starts, effort, clock, better, stops)
    return Told(day, laid, ground, solved.starts, solved.bound)


LEAST_S = 0.25
"""Better timetables are not told more often. [s]"""


def planned(asked: Asked, effort: Effort, clock: Callable[[], float], stops: Callable[[], bool], tell: Callable[[Progress], None]) -> None:
    """Plan a day and all that is asked beside it: what would help where it is late, what else would be good where it is not."""
    from pancount.core.day.reliefs import others, reliefs

    told = plan(asked, effort, clock, tell, stops)
    made = timetable(told)
    troubles = tuple(Planner(asked).made(asked.day)[1])
    tell(Progress(stage="offers", timetable=made, troubles=troubles))
    planner = Planner(asked)
    found, other = list[Offer](), list[Offer]()
    needs = left_out(told.ground, told.starts) or any(one.late_min > 0 for one in made.products)
    for offer in _until(stops, reliefs(planner, asked.day, told, made) if needs else others(planner, asked.day, told, made)):
        (found if needs else other).append(offer)
        tell(Progress(stage="offers", troubles=troubles, reliefs=tuple(_best(found)), others=tuple(other)))
    tell(Progress(stage="done", timetable=made, troubles=troubles, reliefs=tuple(_best(found)), others=tuple(other)))


def _until(stops: Callable[[], bool], offers: Iterator[Offer]) -> Iterator[Offer]:
    for offer in offers:
        yield offer
        if stops():
            return


def _best(offers: Sequence[Offer]) -> list[Offer]:
    """Those that settle it, else those that help most; of them what gives up least, six at most. They come in the order of what they give up."""
    settles = [one for one in offers if not one.left_out and one.late_min < SLOT_MIN]
    return (settles or sorted(offers, key=lambda one: (one.left_out, one.late_min)))[:6]
