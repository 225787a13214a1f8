"""The weigh sheet: a counted formula in mixing order, on the scales the kitchen has."""

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base import Frozen
from pancount.core.count import Count, Load, solve
from pancount.core.errors import CoreError
from pancount.core.formula import Formula
from pancount.core.pan import Pan
from pancount.core.reckon import Note, reckon, weight_of
from pancount.core.rounding import apportion, to_step
from pancount.core.units import WEIGHT_UNITS

COARSE = 0.02
"""A line whose rounding is more than this share of itself is flagged. Common practice, no source."""

Step = Annotated[Decimal, Field(gt=0, le=1000, decimal_places=3)]


class Scale(Frozen):
    """The kitchen's scales: what they show, in which step, and a finer one for small amounts, if there is one."""

    unit: Literal["g", "oz"] = "g"
    step: Step = Decimal(1)
    """Smallest step of the main scale, in `unit`."""
    fine_step: Step | None = None
    """Smallest step of the fine scale, in `unit`; None where there is none."""
    fine_under: Annotated[Decimal, Field(ge=0, le=1000, decimal_places=3)] = Decimal(10)
    """Amounts under this go on the fine scale, in `unit`."""

    def step_for(self, amount: float) -> Decimal:
        """The step of the scale that an amount in `unit` is weighed on."""
        if self.fine_step is not None and amount < float(self.fine_under):
            return min(self.fine_step, self.step)
        return self.step


class SheetLine(Frozen):
    """A line to weigh: `printed` in the scale's unit; None where its amount is open."""

    name: str
    note: str
    percent: float
    exact_g: float
    printed: Decimal | None
    off: float
    """How far the printed weight is from the exact one, as a share of it."""
    cure: str
    """What to do where the rounding is more than 2 % of the line; empty where it is not."""


class SheetStage(Frozen):
    """A stage's lines and what they come to, as printed."""

    name: str
    lines: tuple[SheetLine, ...]
    printed: Decimal


class WeighSheet(Frozen):
    """What is weighed, and what it makes."""

    name: str
    unit: Literal["g", "oz"]
    stages: tuple[SheetStage, ...]
    printed_total: Decimal
    flour_g: float
    total_percent: float
    divide_g: float
    bench_loss: float
    pieces: int
    piece: Decimal
    """Each piece, raw, to the scale's step, in `unit`."""
    remainder: Decimal
    """Left over after the pieces, in `unit`."""
    pan: Pan | None
    loads: tuple[Load, ...]
    notes: tuple[Note, ...]


class PinsFight(CoreError):
    """A count whose pins cannot hold together makes no sheet."""

    code = "pins_fight"


def _cure(scale: Scale, name: str, off: float, step: Decimal) -> str:
    if off <= COARSE:
        return ""
    out = f"{name} can be {min(off, 1):.0%} out at a step of {step.normalize():f} {scale.unit}. "
    if scale.fine_step is None or scale.fine_step >= step:
        return out + "Use a finer scale, or make a bigger mix."
    return out + "Make a bigger mix, or weigh it diluted in part of the water."


def weigh_sheet(formula: Formula, count: Count, scale: Scale) -> WeighSheet:
    """The lines of a count in mixing order, rounded so that they add up to the printed total.

    Raises what `reckon` raises, and `PinsFight` where the count does not hold together.
    """
    reckoned = reckon(formula)
    result = solve(formula, count, reckoned)
    if result.fights:
        names = ", ".join(a.pin for a in result.fights[0].alternatives)
        raise PinsFight(f"These pins cannot all hold: {names}. Let one go on the count, then print.", ("pins",))
    values = {name: worked.value for name, worked in result.quantities.items()}
    unit_g = WEIGHT_UNITS[scale.unit]
    figures = [line for stage in reckoned.stages for line in stage.lines]
    exact = [weight_of(line.percent, values["flour_g"]) / unit_g for line in figures]
    steps = [scale.step_for(amount) for amount in exact]
    printed = iter(zip(exact, steps, apportion(exact, steps), figures, strict=True))
    stages = []
    for stage in formula.stages:
        lines = []
        for line in stage.lines:
            amount, step, shown, figure = next(printed)
            off = abs(float(shown) - amount) / amount if amount else 0.0
            lines.append(
                SheetLine(
                    name=line.name,
                    note=line.note,
                    percent=figure.percent,
                    exact_g=amount * unit_g,
                    printed=None if figure.given == "open" else shown,
                    off=off,
                    cure=_cure(scale, line.name, off, step),
                )
            )
        total = sum((line.printed for line in lines if line.printed is not None), Decimal(0))
        stages.append(SheetStage(name=stage.name, lines=tuple(lines), printed=total))
    return WeighSheet(
        name=formula.name,
        unit=scale.unit,
        stages=tuple(stages),
        printed_total=sum((stage.printed for stage in stages), Decimal(0)),
        flour_g=values["flour_g"],
        total_percent=reckoned.total_percent,
        divide_g=values["divide_g"],
        bench_loss=values["bench_loss"],
        pieces=int(values["pieces"]),
        piece=to_step(values["piece_g"] / unit_g, scale.step),
        remainder=to_step(values["remainder_g"] / unit_g, scale.step),
        pan=count.pan,
        loads=result.loads,
        notes=reckoned.notes,
    )
