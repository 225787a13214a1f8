"""A day as the solver sees it: blocks that begin at some slot of time, links between them that give, and what only so many can have at once.

A slot is five minutes. A block is all that hangs together by fixed times: its one start decides it. The blocks of a product are a tree: each
goes on to one other, the last is what makes it ready.
"""

from dataclasses import dataclass
from functools import cache

from pancount.core.base.datafiles import rows

SLOT_MIN = 5
"""The grid. [min]"""
FULL = 2
"""What one baker has in a slot: two touches of up to half of it, or one that takes it whole. [units]"""
HALF_MIN = 2.5
"""Up to this a touch shares its slot with another. [min]"""
STALE_SLOTS = 12 * 12
"""What has lain for half a day loses faster. Common practice, no source. [slots]"""
NEAR_C = 10.0
"""Products within this may share an oven. Common practice, no source. [°C]"""
HEATS_MIN_C, COOLS_MIN_C = 0.1, 0.2
"""How long an oven takes to get hotter, and to get cooler, by a degree. Common practice, no source. [min/°C]"""


@cache
def weighs() -> dict[str, int]:
    """What counts, and how much (`data/weighs.csv`): in units of one slot of the baker's day."""
    return {row["what"]: int(row["each"]) for row in rows(__name__, "weighs.csv")}


@dataclass(frozen=True, slots=True)
class Run:
    """Hands, from a slot of the block to another: half of a baker's slot, or all of it."""

    begin: int
    end: int
    units: int


@dataclass(frozen=True, slots=True)
class Use:
    """Something of which there are only so many, from a slot of the block to another: the mixer, the pot."""

    what: str
    begin: int
    end: int
    amount: int = 1


@dataclass(frozen=True, slots=True)
class Firing:
    """Something in an oven, so hot, on so many shelves, from a slot of the block to another."""

    oven_c: float
    shelves: int
    begin: int
    end: int


@dataclass(frozen=True, slots=True)
class Block:
    """What hangs together by fixed times. `starts`: where it may begin, from slot to before slot."""

    product: int
    runs: tuple[Run, ...]
    uses: tuple[Use, ...]
    firings: tuple[Firing, ...]
    starts: tuple[tuple[int, int], ...]
    told: int | None = None
    """Where the baker was told that it begins; moving it costs."""
    past: bool = False
    """It has happened: it stays, and asks for nothing."""


@dataclass(frozen=True, slots=True)
class Link:
    """One block goes on to another. `costs` are for each number of slots between their starts, from `low`; they bend one way only."""

    before: int
    after: int
    low: int
    costs: tuple[int, ...]
    holds: str = ""
    """What it keeps from others meanwhile: room in the fridge."""
    amount: int = 0
    held_from: int = 0
    """From this slot of the block before."""
    held_until: int = 0
    """Until this slot of the block after."""

    @property
    def high(self) -> int:
        """The most slots between the two starts."""
        return self.low + len(self.costs) - 1


@dataclass(frozen=True, slots=True)
class Goal:
    """When a product should be ready: `ready` slots after its last block begins."""

    block: int
    ready: int
    ready_by: int | None
    """None: as soon as can be."""
    fresh: int
    """How much each slot counts that it lies."""


@dataclass(frozen=True, slots=True)
class Problem:
    """A day to be laid out. `goals` go by product, None where nothing of it is to be placed."""

    slots: int
    blocks: tuple[Block, ...]
    links: tuple[Link, ...]
    goals: tuple[Goal, ...]
    hands: tuple[int, ...]
    """What the bakers who are there have, slot by slot. [units]"""
    most: dict[str, int]
    """How many there are of what `uses` and `holds` name."""
    ovens: int
    shelves: int
    days: tuple[tuple[int, int], ...]
    """The baker's working days: from slot to before slot."""


def change_slots(from_c: float, to_c: float) -> int:
    """How long between two firings until the oven has the other temperature; nothing where they may share it. [slots]"""
    if abs(to_c - from_c) <= NEAR_C:
        return 0
    minutes = (to_c - from_c) * HEATS_MIN_C if to_c > from_c else (from_c - to_c) * COOLS_MIN_C
    return -int(-minutes // SLOT_MIN)
