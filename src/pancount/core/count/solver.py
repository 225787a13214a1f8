"""From pins to all that follows from them, by propagation; each value remembers what gave it."""

from collections.abc import Iterable, Mapping
from math import inf

from pancount.core.count.relations import RANGES, Bound, bare, left_over
from pancount.core.count.result import Source, Worked

PinValues = Mapping[str, float]


class Solution:
    """Values by name, where each came from, and the relations that turned out broken."""

    def __init__(self, pins: PinValues, given: Mapping[str, Worked], relations: list[Bound]) -> None:
        self.values: dict[str, float] = {name: worked.value for name, worked in given.items()}
        self.broken: list[Bound] = []
        self._given = given
        self._pinned = pins
        self._by: dict[str, Bound] = {}
        self._stood: dict[str, Source] = {}
        self._waiting = relations
        self.values.update(pins)
        self._propagate()

    def _propagate(self) -> None:
        """Use every relation with one unknown left, and check those with none, until nothing moves."""
        values, moved = self.values, True
        while moved and self._waiting:
            moved, still = False, []
            for relation in self._waiting:
                unknown, several = None, False
                for name in relation.over:
                    if name not in values:
                        several = unknown is not None
                        unknown = name
                        if several:
                            break
                if unknown is None:
                    moved = True
                    if not relation.holds(values):
                        self.broken.append(relation)
                elif not several and unknown in relation.ways:
                    moved = True
                    self._give(relation, unknown)
                else:
                    still.append(relation)
            self._waiting = still

    def _give(self, relation: Bound, name: str) -> None:
        try:
            value = relation.ways[name](self.values)
        except ZeroDivisionError:  # shared among no pieces at all: only where other pins leave none
            value = -1.0
        low, high = RANGES.get(bare(name), (-inf, inf))
        if not low <= value <= high:
            self.broken.append(relation)
            value = min(max(value, low), high)
        self.values[name] = value
        self._by[name] = relation

    def stand_in(self, name: str, value: float, source: Source = "usual") -> None:
        """Let a value stand in for `name`, if nothing else gives it."""
        if name not in self.values:
            self.values[name] = value
            self._stood[name] = source
            self._propagate()

    def finish(self, targets: int) -> None:
        """What is left over, once all else is known."""
        self._give(left_over(targets), "remainder_g")

    def roots(self, relation: Bound) -> frozenset[str]:
        """The pins that a relation's quantities rest on."""
        found: set[str] = set()
        seen: set[str] = set()
        waiting = [relation]
        while waiting:
            one = waiting.pop()
            for name in one.over:
                if name in self._pinned:
                    found.add(name)
                elif name not in seen:
                    seen.add(name)
                    by = self._by.get(name)
                    if by is not None and by is not relation:
                        waiting.append(by)
        return frozenset(found)

    def source(self, name: str) -> Source:
        """Where a quantity came from."""
        return self._worked(name, self.values[name]).source

    def worked(self) -> dict[str, Worked]:
        """Every quantity with where it came from."""
        return {name: self._worked(name, value) for name, value in self.values.items()}

    def _worked(self, name: str, value: float) -> Worked:
        if name in self._pinned:
            return Worked(value, "pinned")
        if name in self._given:
            return self._given[name]
        by = self._by.get(name)
        return Worked(value, self._stood.get(name, "usual")) if by is None else Worked(value, "worked", by.key)


def but(pins: PinValues, drop: Iterable[str]) -> dict[str, float]:
    """Pins with some let go."""
    dropped = frozenset(drop)
    return {name: value for name, value in pins.items() if name not in dropped}
