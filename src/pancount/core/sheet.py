"""The weigh sheet: a counted formula in mixing order, on the scales the kitchen has."""

from collections.abc import Iterable, Sequence
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field, WithJsonSchema

from pancount.core.base import Frozen
from pancount.core.beside import Made, as_written, times
from pancount.core.count import Count, Load, solve
from pancount.core.errors import PinsFight
from pancount.core.formula import Formula, Line
from pancount.core.pan import Pan
from pancount.core.reckon import Note, Reckoned, School, reckon, weight_of
from pancount.core.relations import QUANTITIES
from pancount.core.rounding import apportion, to_step
from pancount.core.stages import MORE_THAN_ALL, flow, stage_name
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
    held_back: Printed | None
    """How much of it is held back at first, to adjust with; None for nothing."""
    parts: int
    """How many times it goes in."""


class SheetFed(Frozen):
    """What comes into a stage from another: its weight, and the water that makes up what boiled off there."""

    name: str
    printed: Printed
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


class WeighSheet(Frozen):
    """What is weighed, and what it makes."""

    name: str
    unit: Literal["g", "oz"]
    stages: tuple[SheetStage, ...]
    beside: tuple[SheetStage, ...]
    """What is not in the dough, in proportion to it; not part of the total."""
    printed_total: Printed
    flour: Printed
    """The flour of this count that is 100 % in this kitchen, to the scale's step, in `unit`."""
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
    cautions: tuple[str, ...]
    """What can hurt someone, to stand where the work is done."""
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


def _sheet_line(line: Line, percent: float | None, amount: float, printed: Decimal | None, step: Decimal, unit_g: float) -> SheetLine:
    """A line as printed; `amount` is exact, in the scale's unit."""
    return SheetLine(
        name=line.name,
        note=line.note,
        percent=percent,
        exact_g=amount * unit_g,
        printed=printed,
        off=abs(float(printed) - amount) / amount if printed is not None and amount else 0.0,
        step=step,
        held_back=to_step(amount * line.held_back, step) if line.held_back and amount else None,
        parts=line.parts,
    )


def _summed(lines: Iterable[SheetLine]) -> Decimal:
    return sum((line.printed for line in lines if line.printed is not None), Decimal(0))


def _beside(formula: Formula, written: Made, made: Made, scale: Scale) -> tuple[SheetStage, ...]:
    """What goes on, under or around the dough, for what is made, each to its scale's step."""
    unit_g = WEIGHT_UNITS[scale.unit]
    found = []
    for stage in formula.beside:
        often, lines = times(stage, written, made), []
        for line in stage.lines:
            amount = (line.weight_g or 0) * often / unit_g
            step = scale.step_for(amount)
            shown = None if line.weight_g is None else to_step(amount, step)
            lines.append(_sheet_line(line, None, amount, shown, step, unit_g))
        found.append(SheetStage(name=stage.name, lines=tuple(lines), printed=_summed(lines)))
    return tuple(found)


def _fed(
    formula: Formula, reckoned: Reckoned, lines: Sequence[tuple[SheetLine, ...]], ratio: float, scale: Scale
) -> tuple[SheetStage, ...]:
    """Stages with what goes from one into the other, so that what is printed adds up in every bowl.

    What boils off and what is kept back are rounded to the main scale's step; what goes on is the rest.
    """
    flows, unit_g = flow(formula), WEIGHT_UNITS[scale.unit]
    bowls = [_summed(own) for own in lines]
    fed: list[list[SheetFed]] = [[] for _ in lines]
    boiled, kept = [Decimal(0)] * len(lines), [Decimal(0)] * len(lines)
    for s in flows.order:
        bowls[s] += sum((one.printed + (one.made_up or 0) for one in fed[s]), Decimal(0))
        figures, out = reckoned.stages[s], flows.out_of(s)
        boiled[s] = to_step(figures.boiled_off_g * ratio / unit_g, scale.step)
        kept[s] = to_step(figures.kept_back_g * ratio / unit_g, scale.step)
        told = sum(part.share for part in out)
        going, steam = bowls[s] - boiled[s] - kept[s], boiled[s]
        if figures.kept_back_g:
            steam = to_step(float(boiled[s]) * told, scale.step)
        left, steam_left = going, steam
        for n, part in enumerate(out):
            last = n == len(out) - 1
            printed = left if last else to_step(float(going) * part.share / told, scale.step)
            made_up = steam_left if last else to_step(float(steam) * part.share / told, scale.step)
            left, steam_left = left - printed, steam_left - made_up
            fed[part.target].append(
                SheetFed(
                    name=stage_name(formula.stages[s]),
                    printed=printed,
                    whole=part.share > 1 - MORE_THAN_ALL,
                    made_up=made_up or None,
                )
            )
    return tuple(
        SheetStage(
            name=stage.name,
            lines=lines[s],
            fed=tuple(fed[s]),
            printed=bowls[s],
            boiled_off=boiled[s] or None,
            kept_back=kept[s] or None,
        )
        for s, stage in enumerate(formula.stages)
    )


def weigh_sheet(
    formula: Formula, count: Count, scale: Scale, cautions: tuple[str, ...] = (), school: School = "joined"
) -> WeighSheet:
    """The lines of a count in mixing order, rounded so that they add up to the printed total.

    The total is the dough's: what is kept back is not in it, and what boils off is made up. Lines at nothing are left
    out. Raises what `reckon` raises, and `PinsFight` where the count does not hold together.
    """
    reckoned = reckon(formula, school)
    result = solve(formula, count, reckoned)
    if result.fights:
        names = ", ".join(QUANTITIES[a.pin][0].lower() for a in result.fights[0].alternatives)
        raise PinsFight(f"These pins cannot all hold: {names}. Let one go on the count, then print.", ("pins",))
    values = {name: worked.value for name, worked in result.quantities.items()}
    unit_g, ratio = WEIGHT_UNITS[scale.unit], values["flour_g"] / reckoned.flour_g
    figures = [line for stage in reckoned.stages for line in stage.lines]
    exact = [weight_of(line.percent, values["flour_g"]) / unit_g for line in figures]
    steps = [scale.step_for(amount) for amount in exact]
    printed = iter(zip(exact, steps, apportion(exact, steps), figures, strict=True))
    lines = []
    for stage in formula.stages:
        own = []
        for line in stage.lines:
            amount, step, shown, figure = next(printed)
            is_open = figure.given == "open"
            if amount or is_open:
                own.append(_sheet_line(line, figure.shown_percent, amount, None if is_open else shown, step, unit_g))
        lines.append(tuple(own))
    stages = _fed(formula, reckoned, lines, ratio, scale)
    made = Made(ratio, values["pieces"], values.get("pans", 0))
    kept = sum((stage.kept_back or Decimal(0) for stage in stages), Decimal(0))
    lost = sum((stage.boiled_off or Decimal(0) for stage in stages), Decimal(0))
    made_up = sum((one.made_up or Decimal(0) for stage in stages for one in stage.fed), Decimal(0))
    return WeighSheet(
        name=formula.name,
        unit=scale.unit,
        stages=stages,
        beside=_beside(formula, as_written(formula, reckoned), made, scale),
        printed_total=sum((_summed(own) for own in lines), Decimal(0)) - kept - lost + made_up,
        flour=to_step(reckoned.base_g * ratio / unit_g, scale.step),
        total_percent=reckoned.shown_total_percent,
        bench_loss=values["bench_loss"],
        pieces=int(values["pieces"]),
        piece=to_step(values["piece_g"] / unit_g, scale.step),
        remainder=to_step(values["remainder_g"] / unit_g, scale.step),
        pan=count.pan,
        loads=result.loads,
        notes=reckoned.notes,
        cautions=cautions,
        cures=_cures(scale, [line for own in lines for line in own]),
    )
