"""Who does what: touches shared out between the bakers who are there, to the minute, so that nobody does two things at once."""

from collections.abc import Mapping, Sequence

from pancount.core.base.models import Frozen
from pancount.core.day.laying import TINY, Laid, touches_of
from pancount.core.day.problem import HALF_MIN, SLOT_MIN


class Hands(Frozen):
    """Hands at something: whose, from when, until when. [min]"""

    baker: int
    begins_min: float
    ends_min: float


Span = tuple[float, float]


class _Shift:
    """One baker's time: when there, and what is taken."""

    def __init__(self, away: Sequence[bool], origin: int) -> None:
        self.away, self.origin = away, origin
        self.taken: list[Span] = []

    def there(self, begin: float, end: float) -> bool:
        """Whether this baker is there all of a span."""
        first, last = int((begin - self.origin + TINY) // SLOT_MIN), int((end - self.origin - TINY) // SLOT_MIN)
        return first >= 0 and last < len(self.away) and not any(self.away[first : last + 1])

    def free(self, begin: float, end: float) -> bool:
        """Whether nothing else is done then."""
        return all(end <= a + TINY or begin >= b - TINY for a, b in self.taken)

    def until_away(self, begin: float) -> float:
        """How long this baker stays. [min]"""
        slot = int((begin - self.origin + TINY) // SLOT_MIN)
        stays = next((n for n in range(slot, len(self.away)) if self.away[n]), len(self.away))
        return stays * SLOT_MIN + self.origin - begin


def shared_out(laid: Laid, starts: Mapping[int, int], away: Sequence[Sequence[bool]]) -> dict[int, tuple[Hands, ...]]:
    """By block, who does its touches. Long ones first, then what is pinned; short ones share a slot, one after the other, and so may begin some two
    minutes later."""
    shifts = [_Shift(own, laid.origin) for own in away]
    found: dict[int, list[Hands]] = {b: [] for b in starts}
    todo = [
        (laid.time(b, at) + begin, laid.time(b, at) + end, b)
        for b, at in starts.items()
        if not laid.spots[b].happened
        for begin, end in touches_of(laid.spots[b].parts)
    ]
    for begin, end, b in sorted(one for one in todo if one[1] - one[0] > HALF_MIN + TINY):
        found[b] += _whole(shifts, begin, end)
    short = [one for one in todo if one[1] - one[0] <= HALF_MIN + TINY]
    for begin, end, b in sorted(short, key=lambda one: (not laid.spots[one[2]].pinned, one)):
        found[b].append(_short(shifts, begin, end))
    return {b: tuple(sorted(own, key=lambda one: one.begins_min)) for b, own in found.items()}


def _whole(shifts: Sequence[_Shift], begin: float, end: float) -> list[Hands]:
    """A long touch: one baker, else handed over where one leaves."""
    able = [n for n, shift in enumerate(shifts) if shift.there(begin, end) and shift.free(begin, end)]
    if able:
        baker = max(able, key=lambda n: (-shifts[n].until_away(begin), -n)) if len(able) > 1 else able[0]
        shifts[baker].taken.append((begin, end))
        return [Hands(baker=baker, begins_min=begin, ends_min=end)]
    found: list[Hands] = []
    at = begin
    while at < end - TINY:
        until = min(end, (int((at + TINY) // SLOT_MIN) + 1) * SLOT_MIN)
        baker = next((n for n, shift in enumerate(shifts) if shift.there(at, until) and shift.free(at, until)), 0)
        shifts[baker].taken.append((at, until))
        if found and found[-1].baker == baker:
            found[-1] = Hands(baker=baker, begins_min=found[-1].begins_min, ends_min=until)
        else:
            found.append(Hands(baker=baker, begins_min=at, ends_min=until))
        at = until
    return found


def _short(shifts: Sequence[_Shift], begin: float, end: float) -> Hands:
    """A short touch: when it is meant, or as soon after (or just before) in its slots as somebody is free."""
    length = end - begin
    first = int((begin + TINY) // SLOT_MIN) * SLOT_MIN
    last = (int((end - TINY) // SLOT_MIN) + 1) * SLOT_MIN
    ends = [b for shift in shifts for _, b in shift.taken if first - TINY <= b <= last]
    heads = [a - length for shift in shifts for a, _ in shift.taken if first - TINY <= a - length]
    tries = sorted((at for at in (begin, first, *ends, *heads) if first - TINY <= at <= last - length + TINY), key=lambda at: (at < begin, abs(at - begin)))
    for at in tries:
        for baker, shift in enumerate(shifts):
            if shift.there(at, at + length) and shift.free(at, at + length):
                shift.taken.append((at, at + length))
                return Hands(baker=baker, begins_min=at, ends_min=at + length)
    shifts[0].taken.append((begin, end))
    return Hands(baker=0, begins_min=begin, ends_min=end)
