"""A count: what a baker pins of the batch and of its targets, and the limits it stays within."""

from typing import Annotated, Any

from pydantic import Field

from pancount.core.base import most
from pancount.core.base.models import Brief, Frozen, Name, SomeGrams, Word
from pancount.core.count.learned import KitchensOwn
from pancount.core.count.limits import Limit
from pancount.core.count.relations import of
from pancount.core.count.selling import Rules
from pancount.core.heat.climate import Today
from pancount.core.pans.pan import AnyPan, Pan
from pancount.core.pans.shaping import Shaping

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
    way: Brief = ""
    """In which of the formula's ways it is made, by key; the first for none."""
    today: Today = Today()
    """How warm it is today, and when it begins or is to be ready."""
    learned: KitchensOwn = ()
    """What this kitchen learned of the formula and took. The records lay it in; it is not the baker's to type."""

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
