"""Small weights: what a scale cannot weigh well, how far out it may be, and the cures with their numbers."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import ROUND_CEILING, Decimal
from functools import cache

from pancount.core.base.datafiles import rows
from pancount.core.base.rounding import to_step
from pancount.core.base.scale import Printed, Scale
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.formula.formula import Formula, Line
from pancount.core.formula.reckon import Reckoned, weight_of
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.role import Role

COARSE = 0.02
"""A weight that may be out by more than this share of itself is small for its scale. Common practice, no source."""

STEPS_WELL = 25
"""So many steps are weighed well: half a step is 2 % of them."""


@dataclass(frozen=True, slots=True)
class Dilution:
    """Weigh `whole` of it into `water`, stir until it is all dissolved, and take `take` of that. In the scale's unit."""

    whole: Printed
    water: Printed
    take: Printed
    water_left: Printed
    """What is left to weigh of the formula's own water."""


@dataclass(frozen=True, slots=True)
class SmallWeight:
    """A line that its scale cannot weigh well, and what would help. Amounts in the scale's unit."""

    name: str
    amount: Printed
    step: Printed
    off: float
    """How far out it may be, as a share of itself: half a step."""
    finer_step: Printed | None
    """The step of a scale that would do; None where it is on the finest kind already."""
    at_once: Printed | None
    """For all mixes together, where that weighs well and there are several."""
    mixes: int
    dilution: Dilution | None


def _up(amount: Decimal, step: Decimal) -> Decimal:
    return (amount / step).quantize(Decimal(1), ROUND_CEILING) * step


def dilute(amount: float, step: Decimal, water: float, water_step: Decimal, per_100: float = 100 / 9) -> Dilution | None:
    """How to weigh a small amount in part of the formula's own water; None where there is too little of it.

    `per_100`: how much of it a hundred of water take up; never more than a ninth goes in. m times the amount is dissolved in m times some of the water, m a whole number that makes it weigh well; one m-th of
    that is taken. What is not taken is thrown away, so that m is kept small.
    """
    exact, most = Decimal(amount), Decimal(water)
    if exact <= 0:
        return None
    m = max(Decimal(2), (STEPS_WELL * step / exact).quantize(Decimal(1), ROUND_CEILING))
    part = _up(max(STEPS_WELL * water_step, max(Decimal(9), 100 / Decimal(per_100)) * exact), water_step)
    whole = to_step(exact * m, step)
    if part * 2 > most or whole <= 0:
        return None
    into = part * m
    # What was rounded in weighing is made good in how much is taken.
    take = to_step((whole + into) * exact / whole, water_step)
    kept_water = take - exact
    return Dilution(whole, into, take, to_step(most - kept_water, water_step))


FINER = (Decimal("0.1"), Decimal("0.01"), Decimal("0.001"))


def small_weight(
    name: str, amount: float, step: Decimal, mixes: int, water: float, water_step: Decimal, per_100: float
) -> SmallWeight | None:
    """A line that may be out by more than 2 % on its scale; None where it weighs well, or is nothing.

    `per_100`: how much of it dissolves in a hundred of water; 0 for what does not, or reacts with it.
    """
    if amount <= 0 or float(step) / 2 / amount <= COARSE:
        return None
    finer = next((s for s in FINER if s < step and float(s) / 2 / amount <= COARSE), None)
    together = amount * mixes
    at_once = to_step(together, step) if mixes > 1 and float(step) / 2 / together <= COARSE else None
    return SmallWeight(
        name=name,
        amount=to_step(amount, step),
        step=step,
        off=float(step) / 2 / amount,
        finer_step=finer,
        at_once=at_once,
        mixes=mixes,
        dilution=dilute(amount, step, water, water_step, per_100) if per_100 and water else None,
    )


@cache
def _soluble() -> dict[str, float]:
    return {row["ingredient"]: float(row["per_100"]) for row in rows(__name__, "dissolves.csv")}


def dissolves(line: Line, pantry: Pantry) -> float:
    """How many grams of it 100 g of cold water take up: 0 for seeds, spices and fat, and for baking powder, which spends itself
    in water. Salts that the pantry does not know are salt."""
    known = pantry.find(line.name)
    if known is None or known.own:
        return _soluble()["Fine salt"] if line.role is Role.SALT else 0.0
    return _soluble().get(known.name, 0.0)


def _is_water(line: Line, pantry: Pantry) -> bool:
    """Plain water: what is stirred into potato or rose water is not seen to dissolve."""
    known = pantry.find(line.name)
    return (known.name if known else line.name.strip()) == "Water"


def small_weights(
    formula: Formula, reckoned: Reckoned, flour_g: float, scale: Scale, mixes: int, pantry: Pantry
) -> tuple[SmallWeight, ...]:
    """Lines of one mix on `flour_g` that their scale cannot weigh well, the worst first.

    What dissolves may be weighed in its own stage's water.
    """
    unit_g, found = WEIGHT_UNITS[scale.unit], []
    for stage, figures in zip(formula.stages, reckoned.stages, strict=True):
        amounts = [weight_of(figure.percent, flour_g) / unit_g for figure in figures.lines]
        own = list(zip(stage.lines, amounts, strict=True))
        water = sum(amount for line, amount in own if _is_water(line, pantry))
        for line, amount in own:
            step = scale.step_for(amount)
            small = small_weight(line.name, amount, step, mixes, water, scale.step, dissolves(line, pantry))
            if small is not None:
                found.append(small)
    return tuple(sorted(found, key=lambda one: -one.off))


MOST_NAMED = 4
"""Of the lines a scale is too coarse for, this many are told; the rest are counted."""


def told(small: Sequence[SmallWeight], unit: str) -> tuple[str, ...]:
    """One sentence or two for each small weight, the worst first."""
    found = []
    for one in sorted(small, key=lambda s: -s.off)[:MOST_NAMED]:
        cures = []
        if one.finer_step is not None:
            cures.append(f"a scale of {one.finer_step} {unit} would do")
        if one.at_once is not None:
            cures.append(f"or weigh it once for all {one.mixes} mixes, {one.at_once:f} {unit}, and share it out")
        if (d := one.dilution) is not None:
            cures.append(
                f"or stir {d.whole:f} {unit} into {d.water:f} {unit} of water, take {d.take:f} {unit} of that "
                f"and only {d.water_left:f} {unit} of the formula’s water"
            )
        cure = ", ".join(cures) or "make a bigger mix"
        out = f"{min(one.off, 1):.0%}".replace("%", " %")
        found.append(f"{one.name}: to {one.step.normalize():f} {unit} it may be {out} out. Cure: {cure.removeprefix('or ')}.")
    if len(small) > MOST_NAMED:
        found.append(f"And {len(small) - MOST_NAMED} more lines like these.")
    return tuple(found)
