"""What a count comes to.

Plain dataclasses: there are many of them for every key pressed, and they need no checking.
"""

from dataclasses import dataclass
from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.count.count import Count

Source = Literal["pinned", "worked", "usual", "learned", "written", "formula", "pan", "limit"]


@dataclass(frozen=True, slots=True)
class Worked:
    """A quantity's value and where it came from; `relation` names the rule where it was worked out.

    `usual`, `learned`, `written` and `limit` are stand-ins: what the formula usually makes, what this kitchen's bakes say,
    its flour as written, and as far as a limit lets an open count go.
    """

    value: float
    source: Source
    relation: str | None = None


@dataclass(frozen=True, slots=True)
class Alternative:
    """What a pinned quantity would be if it alone were let go; None where even that does not settle it."""

    pin: str
    pinned: float
    gives: float | None


@dataclass(frozen=True, slots=True)
class Fight:
    """Pins that cannot hold together, and the relation they break."""

    relation: str
    alternatives: tuple[Alternative, ...]


Kind = Literal[
    "leave_remainder",
    "heavier",
    "lighter",
    "less_dough",
    "more_dough",
    "shared",
    "leave_gaps",
    "spread",
    "fill_lighter",
    "fill_more",
    "fewer_heavier",
    "fewer_less",
    "dozen",
    "spare",
]


@dataclass(frozen=True, slots=True)
class Choice:
    """One way to deal with what does not come out whole, or to bake a little more: the count to take, and what it comes to.

    `target` is the one it is about; `values` are by full name.
    """

    kind: Kind
    target: int
    count: Count
    values: dict[str, float]
    flour_change_g: float
    piece_change_g: float


@dataclass(frozen=True, slots=True)
class Load:
    """How many pans hold how many pieces."""

    pans: int
    pieces: int


@dataclass(frozen=True, slots=True)
class Loosened:
    """What there would be without a limit: flour, and the pieces of each target."""

    flour_g: float
    pieces: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class LimitState:
    """A limit against this count: what is needed of it and how much there is, in its own unit.

    `binds` where one piece more of anything open would need more than there is.
    """

    need: float | None
    """None where it says nothing here: an ingredient that is not in the formula, kit that is not known."""
    amount: float
    is_: Literal["within", "binds", "over", "silent"]
    per_load: int | None
    """Pieces or pans in one load, where it is counted in loads."""
    without: Loosened | None
    """What letting go of it would give, where it binds."""


class CountResult(Frozen):
    """Everything the count comes to."""

    quantities: dict[str, Worked]
    reads: dict[str, str]
    """How what each target takes and what is left over are reckoned here, with quantities in braces."""
    fights: tuple[Fight, ...]
    choices: tuple[Choice, ...]
    extras: tuple[Choice, ...]
    """A little more on purpose: a baker's dozen, a spare piece to test the bake."""
    loads: tuple[tuple[Load, ...], ...]
    """Each target's pans."""
    limits: tuple[LimitState, ...]
