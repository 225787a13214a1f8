"""Why a time is what it is: what it waits for, how far it may slide while all else stays, and what that would cost."""

from collections.abc import Mapping

from pancount.core.base.models import Frozen
from pancount.core.day.blocks import Join
from pancount.core.day.day import Day, clock_words
from pancount.core.day.ground import Ground
from pancount.core.day.laying import Laid
from pancount.core.day.problem import NEAR_C, SLOT_MIN, change_slots, weighs
from pancount.core.day.weighing import Weighed, placed_firings, weigh
from pancount.core.method.telling import minutes_words

FURTHEST = 96
"""How far a slide is followed. [slots]"""


class Slide(Frozen):
    """Why a block begins when it does. [min]"""

    block: int
    begins_min: float
    earliest_min: float
    latest_min: float
    not_earlier: str
    """What keeps it from beginning sooner."""
    not_later: str
    costs_earlier: str
    """What beginning at the earliest would cost; blank where it cannot."""
    costs_later: str


class _Reasons:
    def __init__(self, day: Day, laid: Laid, ground: Ground, starts: Mapping[int, int]) -> None:
        self.day, self.laid, self.ground, self.starts = day, laid, ground, dict(starts)
        self.problem = laid.problem
        self.now = weigh(self.problem, starts)
        self.firings = placed_firings(self.problem, starts)
        self.holders: dict[int, list[int]] = {}
        for b, at in starts.items():
            for run in self.problem.blocks[b].runs:
                for slot in range(at + run.begin, at + run.end):
                    self.holders.setdefault(slot, []).append(b)
        self.names = {b: self._name(b) for b in starts}

    def _name(self, b: int) -> str:
        spot = self.laid.spots[b]
        made = self.laid.made[spot.product]
        assert made.cut is not None
        parts = sorted(spot.parts, key=lambda part: -sum(end - begin for begin, end in part.hands))
        return f"{made.formula.name} ({made.cut.figures[parts[0].step].label})"

    def slide(self, b: int) -> Slide:
        """How far a block may go, and why no further."""
        at, spot = self.starts[b], self.laid.spots[b]
        time = self.laid.time(b, at)
        if spot.happened or spot.pinned:
            says = "It has happened." if spot.happened else "You pinned it."
            return Slide(block=b, begins_min=time, earliest_min=time, latest_min=time, not_earlier=says, not_later=says, costs_earlier="", costs_later="")
        first, before = self._follow(b, at, -1)
        last, after = self._follow(b, at, 1)
        return Slide(
            block=b,
            begins_min=time,
            earliest_min=self.laid.time(b, first),
            latest_min=self.laid.time(b, last),
            not_earlier=before,
            not_later=after,
            costs_earlier=self._cost(b, first) if first != at else "",
            costs_later=self._cost(b, last) if last != at else "",
        )

    def _follow(self, b: int, at: int, step: int) -> tuple[int, str]:
        for far in range(1, FURTHEST):
            obstacle = self._obstacle(b, at + step * far, step)
            if obstacle:
                return at + step * (far - 1), obstacle
        return at + step * (FURTHEST - 1), "nothing near"

    def _obstacle(self, b: int, at: int, step: int) -> str:
        """What is in the way of a block at a slot; blank for nothing."""
        problem, block = self.problem, self.problem.blocks[b]
        if not 0 <= at < problem.slots:
            return "the end of what is laid out"
        for n, link in enumerate(problem.links):
            if link.after == b and link.before in self.starts:
                between = at - self.starts[link.before]
                if not link.low <= between <= link.high:
                    return self._gap(n, self.laid.joins[n][1], too_short=between < link.low)
            if link.before == b and link.after in self.starts:
                between = self.starts[link.after] - at
                if not link.low <= between <= link.high:
                    return self._gap(n, self.laid.joins[n][1], too_short=between < link.low)
        floors = [(self.day.starts_min, "you begin"), (self.day.now_min, "it is now"), (self.laid.made[block.product].told.from_min, "it is not to begin before")]
        for told, words in floors:
            if told is not None and self.laid.time(b, at) < told - 1e-6:
                return f"{words} {clock_words(told)}"
        for run in block.runs:
            for slot in range(at + run.begin, at + run.end):
                if not 0 <= slot < problem.slots or problem.hands[slot] < run.units:
                    return self._away(slot, step)
                others = [other for other in self.holders.get(slot, ()) if other != b]
                if sum(self._units(other, slot) for other in others) + run.units > problem.hands[slot]:
                    return self._busy(others[-1], slot)
        for use in block.uses:
            for other, started in self.starts.items():
                for held in problem.blocks[other].uses if other != b else ():
                    same = held.what == use.what and problem.most.get(use.what, 1) == 1
                    if same and started + held.begin < at + use.end and at + use.begin < started + held.end:
                        return f"the {use.what} has {self.names[other]}, until {self._clock(started + held.end)}"
        if problem.ovens == 1:
            for firing in block.firings:
                begin, end = at + firing.begin, at + firing.end
                for other, one, first, last in self.firings:
                    together = abs(one.oven_c - firing.oven_c) <= NEAR_C and one.shelves + firing.shelves <= problem.shelves
                    if other == b or together:
                        continue
                    if begin < last + change_slots(one.oven_c, firing.oven_c) and end + change_slots(firing.oven_c, one.oven_c) > first:
                        return f"the oven has {self.names[other]}, {self._clock(first)} to {self._clock(last)}"
        if not self.ground.raw[b][at]:
            return "somebody must be there all the way through"
        return ""

    def _units(self, b: int, slot: int) -> int:
        at = self.starts[b]
        return sum(run.units for run in self.problem.blocks[b].runs if at + run.begin <= slot < at + run.end)

    def _gap(self, n: int, join: Join, *, too_short: bool) -> str:
        cut = self.laid.made[self.laid.joins[n][0]].cut
        assert cut is not None
        label = ", ".join(dict.fromkeys(cut.figures[i].label for i in join.steps)) or "what was made before"
        if too_short:
            return f"{label} needs {minutes_words(join.low)}" if join.low else f"{label} must be done first"
        return f"{label} bears {minutes_words(join.bears)} at most"

    def _away(self, slot: int, step: int) -> str:
        """An absence, in words."""
        if not 0 <= slot < self.problem.slots:
            return "the end of what is laid out"
        edge = slot
        while 0 <= edge < self.problem.slots and not self.problem.hands[edge]:
            edge -= step
        at = self._clock(edge + (1 if step > 0 else 0))
        return f"nobody is there {'from' if step > 0 else 'until'} {at}"

    def _clock(self, slot: int) -> str:
        return clock_words(self.laid.origin + slot * SLOT_MIN)

    def _busy(self, b: int, slot: int) -> str:
        """What hands are at in a slot, and from when to when."""
        at = self.starts[b]
        spot = self.laid.spots[b]
        made = self.laid.made[spot.product]
        assert made.cut is not None
        begins, middle = self.laid.time(b, at), self.laid.origin + (slot + 0.5) * SLOT_MIN
        part = min(spot.parts, key=lambda one: min((max(0.0, begins + a - middle, middle - begins - e) for a, e in one.hands), default=1e9))
        run = next(one for one in self.problem.blocks[b].runs if at + one.begin <= slot < at + one.end)
        return f"hands are at {made.formula.name}, {made.cut.figures[part.step].label}, {self._clock(at + run.begin)} to {self._clock(at + run.end)}"

    def _cost(self, b: int, at: int) -> str:
        """What another start would cost, in the figures' words."""
        return cost_words(self.now, weigh(self.problem, {**self.starts, b: at}))


def cost_words(now: Weighed, then: Weighed) -> str:
    """What of two timetables differs, in words.

    >>> a = Weighed(0, 10, 20, 60, 5, 3, 0)
    >>> cost_words(a, Weighed(4000, 10, 17, 60, 5, 3, 0))
    '10 min late, fresher at the sale'
    >>> cost_words(a, a)
    'nothing'
    """
    found = []
    if then.late != now.late:
        minutes = (then.late - now.late) // weighs()["late"] * SLOT_MIN
        found.append(f"{minutes} min late" if minutes > 0 else f"{-minutes} min less late")
    if then.gaps != now.gaps:
        found.append("times further from usual" if then.gaps > now.gaps else "times nearer to usual")
    if then.lies != now.lies:
        found.append("older at the sale" if then.lies > now.lies else "fresher at the sale")
    if then.span != now.span:
        minutes = (then.span - now.span) * SLOT_MIN
        found.append(f"a day {abs(minutes)} min {'longer' if minutes > 0 else 'shorter'}")
    if then.oven != now.oven:
        found.append("more heating" if then.oven > now.oven else "less heating")
    return ", ".join(found) or "nothing"


def slides(day: Day, laid: Laid, ground: Ground, starts: Mapping[int, int]) -> tuple[Slide, ...]:
    """For each placed block, why it is when it is."""
    reasons = _Reasons(day, laid, ground, starts)
    return tuple(reasons.slide(b) for b in sorted(starts))
