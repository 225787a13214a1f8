"""The weigh sheet: a counted formula in mixing order, on the scales the kitchen has."""

from collections.abc import Iterable, Sequence
from decimal import Decimal
from typing import Literal

from pancount.core.base import Frozen
from pancount.core.beside import Made, as_written, made_of, times
from pancount.core.count import Count, CountResult, Load
from pancount.core.errors import PinsFight
from pancount.core.formula import Formula, Line
from pancount.core.gauges import character
from pancount.core.kit import Kit
from pancount.core.label import label_weight
from pancount.core.loads import Turns, mixes, turns
from pancount.core.pan import Pan
from pancount.core.pantry import Pantry, pantry_with
from pancount.core.practice import Practice
from pancount.core.reckon import Note, Reckoned, School, reckon, weight_of
from pancount.core.relations import QUANTITIES, bare, of
from pancount.core.rounding import apportion, to_step
from pancount.core.scale import Printed, Scale
from pancount.core.shaping import Shaped, shape
from pancount.core.small import SmallWeight, small_weights, told
from pancount.core.solve import ground_of, solved
from pancount.core.solver import Counter, Solution
from pancount.core.stages import MORE_THAN_ALL, flow, stage_name
from pancount.core.units import WEIGHT_UNITS


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


def _sheet_line(line: Line, percent: float | None, amount: float, printed: Decimal | None, step: Decimal, scale: Scale) -> SheetLine:
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
    )


def _summed(lines: Iterable[SheetLine]) -> Decimal:
    return sum((line.printed for line in lines if line.printed is not None), Decimal(0))


def _beside(formula: Formula, written: Made, made: Made, scale: Scale, kit: Kit) -> tuple[SheetStage, ...]:
    """What goes on, under or around the dough, for what is made, each to its scale's step."""
    unit_g = WEIGHT_UNITS[scale.unit]
    found = []
    for stage in formula.beside:
        often, lines = times(stage, written, made, kit), []
        for line in stage.lines:
            amount = (line.weight_g or 0) * often / unit_g
            step = scale.step_for(amount)
            shown = None if line.weight_g is None else to_step(amount, step)
            lines.append(_sheet_line(line, None, amount, shown, step, scale))
        found.append(SheetStage(name=stage.name, lines=tuple(lines), printed=_summed(lines)))
    return tuple(found)


def _filling(
    lines: Sequence[SheetLine], fed: Sequence[SheetFed], step: Decimal
) -> tuple[tuple[SheetLine, ...], tuple[SheetFed, ...]]:
    """Lines and what comes in, each with what the main scale shows, in its step, once it is in the bowl."""
    running, filled, came = Decimal(0), [], []
    for line in lines:
        running += line.printed or 0
        filled.append(line if line.printed is None else line.model_copy(update={"running": to_step(running, step)}))
    for one in fed:
        running += one.printed + (one.made_up or 0)
        came.append(one.model_copy(update={"running": to_step(running, step)}))
    return tuple(filled), tuple(came)


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
                    running=Decimal(0),
                    whole=part.share > 1 - MORE_THAN_ALL,
                    made_up=made_up or None,
                )
            )
    filled = [_filling(own, came, scale.step) for own, came in zip(lines, fed, strict=True)]
    return tuple(
        SheetStage(
            name=stage.name,
            lines=filled[s][0],
            fed=filled[s][1],
            printed=bowls[s],
            boiled_off=boiled[s] or None,
            kept_back=kept[s] or None,
        )
        for s, stage in enumerate(formula.stages)
    )


def refuse_fights(result: CountResult, targets: int) -> None:
    """Raise `PinsFight` where the count does not hold together."""
    if result.fights:
        pins = [a.pin for a in result.fights[0].alternatives]
        names = ", ".join(
            QUANTITIES[bare(pin)][0].lower() + (f" of target {int(pin.partition('.')[2]) + 1}" if targets > 1 and "." in pin else "")
            for pin in pins
        )
        raise PinsFight(f"These pins cannot all hold: {names}. Let one go on the count, then print.", ("pins",))


def _targets(formula: Formula, count: Count, result: CountResult, counter: Counter, solution: Solution, written: Made, scale: Scale) -> tuple[SheetTarget, ...]:
    values = {name: worked.value for name, worked in result.quantities.items()}
    unit_g, found = WEIGHT_UNITS[scale.unit], []
    for i, (target, aim) in enumerate(zip(count.targets, counter.aims, strict=True)):
        pieces, piece_g = int(values[of("pieces", i)]), values[of("piece_g", i)]
        per_pan = int(values.get(of("pieces_per_pan", i), 0))
        lot = aim.lot(piece_g, per_pan, pieces)
        label = label_weight(formula, written, count, counter, solution, i)
        found.append(
            SheetTarget(
                name=target.name,
                pieces=pieces,
                piece=to_step(piece_g / unit_g, scale.step),
                baked=to_step(values[of("baked_g", i)] / unit_g, scale.step),
                least=to_step(label.least_g / unit_g, scale.step) if label and label.least_g is not None else None,
                pan=target.pan,
                loads=result.loads[i],
                turns=turns(formula, lot, pieces, counter.kit),
                shaped=shape(aim.shaping, piece_g, per_pan if target.pan is not None else pieces),
            )
        )
    return tuple(found)


def weigh_sheet(
    formula: Formula,
    count: Count,
    scale: Scale,
    cautions: tuple[str, ...] = (),
    school: School = "joined",
    kit: Kit | None = None,
    pantry: Pantry | None = None,
) -> WeighSheet:
    """One mix of a count in mixing order, rounded so that its lines add up to the printed total, and what all mixes make.

    Where the bowl takes less than the dough, the mixes are equal, each to the scale's step. The total is the dough's:
    what is kept back is not in it, and what boils off is made up. Lines at nothing are left out. Raises what `reckon`
    raises, and `PinsFight` where the count does not hold together.
    """
    kit, pantry = kit or Kit(), pantry or pantry_with(())
    reckoned = reckon(formula, school)
    dough = character(formula, reckoned, pantry, Practice())
    ground = ground_of(formula, reckoned, kit, dough)
    result, counter, solution = solved(formula, count, reckoned, ground, None)
    refuse_fights(result, len(count.targets))
    values = solution.values
    bowls = mixes(values["dough_g"], ground.bowl_g, stiff=dough.stiff)
    number = bowls.mixes if bowls else 1
    flour_g = values["flour_g"] / number
    unit_g, ratio = WEIGHT_UNITS[scale.unit], flour_g / reckoned.flour_g
    figures = [line for stage in reckoned.stages for line in stage.lines]
    exact = [weight_of(line.percent, flour_g) / unit_g for line in figures]
    steps = [scale.step_for(amount) for amount in exact]
    printed = iter(zip(exact, steps, apportion(exact, steps), figures, strict=True))
    lines = []
    for stage in formula.stages:
        own = []
        for line in stage.lines:
            amount, step, shown, figure = next(printed)
            is_open = figure.given == "open"
            if amount or is_open:
                own.append(_sheet_line(line, figure.shown_percent, amount, None if is_open else shown, step, scale))
        lines.append(tuple(own))
    stages = _fed(formula, reckoned, lines, ratio, scale)
    kept = sum((stage.kept_back or Decimal(0) for stage in stages), Decimal(0))
    lost = sum((stage.boiled_off or Decimal(0) for stage in stages), Decimal(0))
    made_up = sum((one.made_up or Decimal(0) for stage in stages for one in stage.fed), Decimal(0))
    small = small_weights(formula, reckoned, flour_g, scale, number, pantry)
    return WeighSheet(
        name=formula.name,
        unit=scale.unit,
        mixes=number,
        stages=stages,
        beside=_beside(formula, as_written(formula, reckoned), made_of(counter, solution), scale, kit),
        printed_total=sum((_summed(own) for own in lines), Decimal(0)) - kept - lost + made_up,
        flour=to_step(reckoned.base_g * ratio / unit_g, scale.step),
        total_percent=reckoned.shown_total_percent,
        bench_loss=values["bench_loss"],
        targets=_targets(formula, count, result, counter, solution, as_written(formula, reckoned), scale),
        remainder=to_step(values["remainder_g"] / unit_g, scale.step),
        notes=reckoned.notes,
        cautions=cautions,
        small=small,
        cures=told(small, scale.unit),
    )
