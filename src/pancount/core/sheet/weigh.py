"""The weigh sheet: a counted formula in mixing order, on the scales the kitchen has."""

from decimal import Decimal

from pancount.core.base.errors import PinsFight
from pancount.core.base.rounding import apportion, to_step
from pancount.core.base.scale import Scale
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.count.count import Count
from pancount.core.count.counter import Counter
from pancount.core.count.loads import mixes, turns
from pancount.core.count.made import label_weight, made_of
from pancount.core.count.relations import QUANTITIES, bare, of
from pancount.core.count.result import CountResult
from pancount.core.count.small import small_weights, told
from pancount.core.count.solve import solve
from pancount.core.count.solver import Solution
from pancount.core.formula.beside import Made, as_written, times
from pancount.core.formula.formula import Formula
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import School, weight_of
from pancount.core.formula.ways import in_way
from pancount.core.pans.kit import Kit
from pancount.core.pans.shaping import shape
from pancount.core.pantry.ingredients import Pantry, pantry_with
from pancount.core.sheet.bowls import filled_bowls
from pancount.core.sheet.printed import SheetStage, SheetTarget, WeighSheet, sheet_line, summed


def _beside(formula: Formula, written: Made, made: Made, scale: Scale, kit: Kit) -> tuple[SheetStage, ...]:
    """What goes on, under or around the dough, for what is made, each to its scale's step."""
    unit_g = WEIGHT_UNITS[scale.unit]
    found = []
    for stage in formula.beside:
        often, lines = times(stage, written, made, kit), []
        for n, line in enumerate(stage.lines):
            amount = (line.weight_g or 0) * often / unit_g
            step = scale.step_for(amount)
            shown = None if line.weight_g is None else to_step(amount, step)
            lines.append(sheet_line(line, None, amount, shown, step, scale, n))
        found.append(SheetStage(name=stage.name, lines=tuple(lines), printed=summed(lines)))
    return tuple(found)


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
    kit, pantry, formula = kit or Kit(), pantry or pantry_with(()), in_way(formula, count.way)
    found = solve(formula, count, pantry, Practice(starter=school), kit, None)
    refuse_fights(found.result, len(count.targets))
    reckoned, counter, solution = found.reckoned, found.counter, found.solution
    values = solution.values
    bowls = mixes(values["dough_g"], found.ground.bowl_g, stiff=found.dough.stiff)
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
        for n, line in enumerate(stage.lines):
            amount, step, shown, figure = next(printed)
            is_open = figure.given == "open"
            if amount or is_open:
                own.append(sheet_line(line, figure.shown_percent, amount, None if is_open else shown, step, scale, n))
        lines.append(tuple(own))
    stages = filled_bowls(formula, reckoned, lines, ratio, scale)
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
        printed_total=sum((summed(own) for own in lines), Decimal(0)) - kept - lost + made_up,
        flour=to_step(reckoned.base_g * ratio / unit_g, scale.step),
        total_percent=reckoned.shown_total_percent,
        bench_loss=values["bench_loss"],
        targets=_targets(formula, count, found.result, counter, solution, as_written(formula, reckoned), scale),
        remainder=to_step(values["remainder_g"] / unit_g, scale.step),
        notes=reckoned.notes,
        cautions=cautions,
        small=small,
        cures=told(small, scale.unit),
    )
