"""The weigh sheet: a counted formula in mixing order, on the scales the kitchen has."""

from collections.abc import Sequence
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field, WithJsonSchema

from pancount.core.base import Frozen
from pancount.core.count import Count, Load, solve
from pancount.core.errors import PinsFight
from pancount.core.formula import Formula
from pancount.core.pan import Pan
from pancount.core.reckon import Note, reckon, weight_of
from pancount.core.relations import QUANTITIES
from pancount.core.rounding import apportion, to_step
from pancount.core.units import WEIGHT_UNITS

COARSE = 0.02
"""A line whose rounding is more than this share of itself is flagged. Common practice, no source."""

AS_TEXT = WithJsonSchema({"type": "string", "pattern": r"^\d{1,12}(\.\d{1,3})?$"})
"""Decimals go out as text, so that no reader turns them into binary fractions."""

Printed = Annotated[Decimal, AS_TEXT]
Step = Annotated[Decimal, Field(gt=0, le=1000, decimal_places=3), AS_TEXT]


class Scale(Frozen):
    """The kitchen's scales: what they show, in which step, and a finer one for small amounts, if there is one."""

    unit: Literal["g", "oz"] = "g"
    step: Step = Decimal(1)
    """Smallest step of the main scale, in `unit`."""
    fine_step: Step | None = None
    """Smallest step of the fine scale, in `unit`; None where there is none."""
    fine_under: Annotated[Decimal, Field(ge=0, le=1000, decimal_places=3), AS_TEXT] = Decimal(25)
    """Amounts under this go on the fine scale, in `unit`. Under 25, a step of 1 may round by more than 2 %."""

    def step_for(self, amount: float) -> Decimal:
        """The step of the scale that an amount in `unit` is weighed on."""
        if self.fine_step is not None and amount < float(self.fine_under):
            return min(self.fine_step, self.step)
        return self.step


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


class SheetStage(Frozen):
    """A stage's lines and what they come to, as printed."""

    name: str
    lines: tuple[SheetLine, ...]
    printed: Printed


class WeighSheet(Frozen):
    """What is weighed, and what it makes."""

    name: str
    unit: Literal["g", "oz"]
    stages: tuple[SheetStage, ...]
    beside: tuple[SheetStage, ...]
    """What is not in the dough, in proportion to it; not part of the total."""
    printed_total: Printed
    flour: Printed
    """All flour of this count, to the scale's step, in `unit`."""
    total_percent: float
    bench_loss: float
    pieces: int
    piece: Printed
    """Each piece, raw, to the scale's step, in `unit`."""
    remainder: Printed
    """Left over after the pieces, in `unit`."""
    pan: Pan | None
    loads: tuple[Load, ...]
    notes: tuple[Note, ...]
    cures: tuple[str, ...]
    """One sentence for each scale that is too coarse for some lines: which, how far out, and what to do."""


MOST_NAMED = 4
"""Of the lines a scale is too coarse for, this many are named; the rest are counted."""


def _cures(scale: Scale, lines: Sequence[SheetLine]) -> tuple[str, ...]:
    """What to do about lines whose rounding is over 2 % of themselves, by the scale they are weighed on."""
    cures = []
    for step in sorted({line.step for line in lines}):
        coarse = sorted((x for x in lines if x.step == step and x.off > COARSE), key=lambda x: -x.off)
        if not coarse:
            continue
        named = [f"{line.name} {min(line.off, 1):.0%}".replace("%", " %") for line in coarse[:MOST_NAMED]]
        more = f" and {len(coarse) - MOST_NAMED} more lines" if len(coarse) > MOST_NAMED else ""
        out = (
            f"Rounded to {step.normalize():f} {scale.unit}, these are out by more than 2 %: {', '.join(named)}{more}. "
        )
        # The finest scale cannot be made finer.
        advice = "Make a bigger mix, or weigh it diluted in part of the water."
        cures.append(out + (advice if step < scale.step else "Use a finer scale, or make a bigger mix."))
    return tuple(cures)


def _beside(formula: Formula, times: float, scale: Scale) -> tuple[SheetStage, ...]:
    """What goes on or under the dough, `times` what is written, each to its scale's step."""
    unit_g = WEIGHT_UNITS[scale.unit]
    found = []
    for stage in formula.beside:
        lines = []
        for line in stage.lines:
            amount = (line.weight_g or 0) * times / unit_g
            step = scale.step_for(amount)
            shown = None if line.weight_g is None else to_step(amount, step)
            off = abs(float(shown) - amount) / amount if shown is not None and amount else 0.0
            lines.append(
                SheetLine(
                    name=line.name,
                    note=line.note,
                    percent=None,
                    exact_g=amount * unit_g,
                    printed=shown,
                    off=off,
                    step=step,
                )
            )
        total = sum((line.printed for line in lines if line.printed is not None), Decimal(0))
        found.append(SheetStage(name=stage.name, lines=tuple(lines), printed=total))
    return tuple(found)


def weigh_sheet(formula: Formula, count: Count, scale: Scale) -> WeighSheet:
    """The lines of a count in mixing order, rounded so that they add up to the printed total.

    Raises what `reckon` raises, and `PinsFight` where the count does not hold together.
    """
    reckoned = reckon(formula)
    result = solve(formula, count, reckoned)
    if result.fights:
        names = ", ".join(QUANTITIES[a.pin][0].lower() for a in result.fights[0].alternatives)
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
                    step=step,
                )
            )
        total = sum((line.printed for line in lines if line.printed is not None), Decimal(0))
        stages.append(SheetStage(name=stage.name, lines=tuple(lines), printed=total))
    return WeighSheet(
        name=formula.name,
        unit=scale.unit,
        stages=tuple(stages),
        beside=_beside(formula, values["flour_g"] / reckoned.flour_g, scale),
        printed_total=sum((stage.printed for stage in stages), Decimal(0)),
        flour=to_step(values["flour_g"] / unit_g, scale.step),
        total_percent=reckoned.total_percent,
        bench_loss=values["bench_loss"],
        pieces=int(values["pieces"]),
        piece=to_step(values["piece_g"] / unit_g, scale.step),
        remainder=to_step(values["remainder_g"] / unit_g, scale.step),
        pan=count.pan,
        loads=result.loads,
        notes=reckoned.notes,
        cures=_cures(scale, [line for stage in stages for line in stage.lines]),
    )
