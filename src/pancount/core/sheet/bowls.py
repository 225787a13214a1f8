"""What comes into each bowl from another, so that what is printed adds up in every one."""

from collections.abc import Sequence
from decimal import Decimal

from pancount.core.base.rounding import to_step
from pancount.core.base.scale import Scale
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.formula.formula import Formula
from pancount.core.formula.reckon import Reckoned
from pancount.core.formula.stages import MORE_THAN_ALL, flow, stage_name
from pancount.core.sheet.printed import SheetFed, SheetLine, SheetStage, summed


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


def filled_bowls(
    formula: Formula, reckoned: Reckoned, lines: Sequence[tuple[SheetLine, ...]], ratio: float, scale: Scale
) -> tuple[SheetStage, ...]:
    """Stages with what goes from one into the other, so that what is printed adds up in every bowl.

    What boils off and what is kept back are rounded to the main scale's step; what goes on is the rest.
    """
    flows, unit_g = flow(formula), WEIGHT_UNITS[scale.unit]
    bowls = [summed(own) for own in lines]
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
