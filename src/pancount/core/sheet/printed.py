"""What stands on a weigh sheet."""

from collections.abc import Iterable
from decimal import Decimal
from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.base.rounding import to_step
from pancount.core.base.scale import Printed, Scale
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.count.loads import Turns
from pancount.core.count.result import Load
from pancount.core.count.small import SmallWeight
from pancount.core.formula.formula import Line
from pancount.core.formula.reckon import Note
from pancount.core.pans.pan import Pan
from pancount.core.pans.shaping import Shaped


class SheetLine(Frozen):
    """A line to weigh: `printed` in the scale's unit; None where its amount is open."""

    name: str
    note: str
    percent: float | None
    """Of flour; None for what is not in the dough."""
    exact_g: float
    printed: Printed | None
    off: float
    """How far the printed weight is from the exact one, as a share of it."""
    step: Printed
    """The step of the scale it is weighed on, in the scale's unit."""
    fine: bool
    """Whether that is the fine one."""
    running: Printed | None = None
    """What the main scale shows with the bowl on it, set to nothing before the first line, once this is in."""
    held_back: Printed | None
    """How much of it is held back at first, to adjust with; None for nothing."""
    parts: int
    """How many times it goes in."""
    spot: int
    """Which line of its stage it is in the formula; those at nothing are not on the sheet."""


class SheetFed(Frozen):
    """What comes into a stage from another: its weight, and the water that makes up what boiled off there."""

    name: str
    printed: Printed
    running: Printed
    """What the scale shows once it, and the water made up with it, are in."""
    whole: bool
    """Whether all of it comes."""
    made_up: Printed | None


class SheetStage(Frozen):
    """A stage's lines, what comes into it, and what is in its bowl, as printed."""

    name: str
    lines: tuple[SheetLine, ...]
    fed: tuple[SheetFed, ...] = ()
    printed: Printed
    boiled_off: Printed | None = None
    """What goes off as steam, so that it weighs that much less."""
    kept_back: Printed | None = None
    """What is kept of it for next time."""


class SheetTarget(Frozen):
    """What is made of the dough of all mixes: pieces, pans, loads and shape, at the foot of the sheet."""

    name: str
    pieces: int
    piece: Printed
    """Each piece, raw, to the scale's step, in the sheet's unit."""
    baked: Printed
    """Each piece as it should come out."""
    least: Printed | None
    """Sold by weight: no piece under this, baked."""
    pan: Pan | None
    loads: tuple[Load, ...]
    turns: tuple[Turns, ...]
    shaped: Shaped


class WeighSheet(Frozen):
    """What is weighed for one mix, and what all mixes make."""

    name: str
    unit: Literal["g", "oz"]
    mixes: int
    """How many times this is weighed."""
    stages: tuple[SheetStage, ...]
    beside: tuple[SheetStage, ...]
    """What is not in the dough, for all mixes together; not part of the total."""
    printed_total: Printed
    """The dough of one mix."""
    flour: Printed
    """The flour of one mix that is 100 % in this kitchen, to the scale's step, in `unit`."""
    total_percent: float
    bench_loss: float
    targets: tuple[SheetTarget, ...]
    remainder: Printed
    """Left over after the pieces of all mixes, in `unit`."""
    notes: tuple[Note, ...]
    cautions: tuple[str, ...]
    """What can hurt someone, to stand where the work is done."""
    small: tuple[SmallWeight, ...]
    """Lines that their scale cannot weigh well."""
    cures: tuple[str, ...]
    """The same in sentences, the worst first."""


def sheet_line(line: Line, percent: float | None, amount: float, printed: Decimal | None, step: Decimal, scale: Scale, spot: int) -> SheetLine:
    """A line as printed; `amount` is exact, in the scale's unit."""
    return SheetLine(
        name=line.name,
        note=line.note,
        percent=percent,
        exact_g=amount * WEIGHT_UNITS[scale.unit],
        printed=printed,
        off=abs(float(printed) - amount) / amount if printed is not None and amount else 0.0,
        step=step,
        fine=step < scale.step,
        held_back=to_step(amount * line.held_back, step) if line.held_back and amount else None,
        parts=line.parts,
        spot=spot,
    )


def summed(lines: Iterable[SheetLine]) -> Decimal:
    """What is printed of these lines, together."""
    return sum((line.printed for line in lines if line.printed is not None), Decimal(0))
