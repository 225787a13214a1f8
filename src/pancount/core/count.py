"""A count: what a baker pins of the batch and of its targets, the limits it stays within, and what it comes to."""

from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field

from pancount.core import most
from pancount.core.base import Frozen, Name, SomeGrams, Word
from pancount.core.limits import Limit
from pancount.core.pan import DOUGH_G_PER_ML, AnyPan, Pan, area_cm2, volume_ml
from pancount.core.relations import of
from pancount.core.selling import Rules
from pancount.core.shaping import Shaping
from pancount.core.tables import FillRule, fills

Loss = Annotated[float, Field(ge=0, lt=0.5)]


class Pins(Frozen):
    """What the baker knows of the batch. Anything left out is worked out."""

    flour_g: SomeGrams | None = None
    dough_g: SomeGrams | None = None
    bench_loss: Loss | None = None
    divide_g: SomeGrams | None = None


class TargetPins(Frozen):
    """What the baker knows of one target. Anything left out is worked out."""

    take_g: SomeGrams | None = None
    pieces: Annotated[int, Field(ge=1, le=1_000_000)] | None = None
    piece_g: SomeGrams | None = None
    bake_loss: Loss | None = None
    baked_g: SomeGrams | None = None
    pans: Annotated[int, Field(ge=1, le=100_000)] | None = None
    pieces_per_pan: Annotated[int, Field(ge=1, le=10_000)] | None = None
    fill: Annotated[float, Field(ge=0.0001, le=1_000)] | None = None


class Target(Frozen):
    """One thing that is made of the dough: so many pieces, so many pans, or what is left."""

    name: Name = ""
    pins: TargetPins = TargetPins()
    pan: Pan | None = None
    fill_kind: Word | None = None
    """How full, where not as the formula usually is."""
    shaping: Shaping | None = None
    """How a piece is shaped, where not as the formula usually is."""
    label_g: SomeGrams | None = None
    """The baked weight on the label, where it is sold by weight."""
    leave_gaps: bool = False
    """The empty places in the last pan are meant."""


class Count(Frozen):
    """A baker's count."""

    pins: Pins = Pins()
    targets: Annotated[tuple[Target, ...], Field(min_length=1, max_length=most.TARGETS)] = (Target(),)
    limits: Annotated[tuple[Limit, ...], Field(max_length=most.LIMITS)] = ()
    leave_remainder: bool = False
    """The dough left over is meant: a baker's bite."""
    rules: Rules = "EU"
    """By whose rules pieces with a label are weighed."""

    def known(self) -> dict[str, float]:
        """The pinned quantities by name, those of a target with its number."""
        found = _given(self.pins)
        for i, target in enumerate(self.targets):
            own = _given(target.pins)
            if target.pan is None:
                # Without a pan these say nothing, so they neither help nor fight.
                own = {name: value for name, value in own.items() if name not in OF_PAN}
            found |= {of(name, i): value for name, value in own.items()}
        return found


def _given(pins: Pins | TargetPins) -> dict[str, float]:
    return {name: value for name, value in pins.__dict__.items() if value is not None}


OF_PAN = ("pans", "pieces_per_pan", "fill")
PINNABLE = (*Pins.model_fields, *TargetPins.model_fields)


def one_target(
    pan: AnyPan | None = None, *, leave_remainder: bool = False, leave_gaps: bool = False, **pins: Any
) -> Count:
    """A count of one target from pins of batch and target together."""
    batch = Pins.model_validate({k: v for k, v in pins.items() if k in Pins.model_fields})
    own = TargetPins.model_validate({k: v for k, v in pins.items() if k not in Pins.model_fields})
    target = Target(pins=own, pan=pan, leave_gaps=leave_gaps)
    return Count(pins=batch, targets=(target,), leave_remainder=leave_remainder)


def with_pins(count: Count, pins: dict[str, float]) -> Count:
    """The count with just these pinned, by name; decisions, pans and limits stay. Raises `ValidationError` for what cannot be pinned."""
    targets = []
    for i, target in enumerate(count.targets):
        own = {name: pins[full] for name in TargetPins.model_fields if (full := of(name, i)) in pins}
        if target.pan is None:
            own |= {name: value for name in OF_PAN if (value := getattr(target.pins, name)) is not None}
        targets.append(target.model_copy(update={"pins": TargetPins.model_validate(own)}))
    batch = Pins.model_validate({name: pins[name] for name in Pins.model_fields if name in pins})
    return count.model_copy(update={"pins": batch, "targets": tuple(targets)})


def fill_rule(kind: str) -> FillRule:
    """The fill rule of this key; an unknown one reads as pull-apart buns, so that an old formula still opens."""
    return fills().get(kind, fills()["pull_apart_buns"])


def pan_size(pan: AnyPan, rule: FillRule) -> float:
    """What the fill is measured against: the pan's area [cm²], its brim volume [ml], or the dough that would fill it to the brim [g].

    What has no sides is measured by its area, whatever the rule.
    """
    if rule.per == "area" or not volume_ml(pan):
        return area_cm2(pan)
    return volume_ml(pan) * (DOUGH_G_PER_ML if rule.per == "share" else 1.0)


# What goes out is plain dataclasses: there are many of them for every key pressed, and they need no checking.

Source = Literal["pinned", "worked", "usual", "written", "formula", "pan", "limit"]


@dataclass(frozen=True, slots=True)
class Worked:
    """A quantity's value and where it came from; `relation` names the rule where it was worked out.

    `usual`, `written` and `limit` are stand-ins: what the formula usually makes, its flour as written, and as far as a
    limit lets an open count go.
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
