"""How often what is beside the dough is taken: by the pieces it goes on, the pans it goes into, or the dough.

Common practice, no source: a wash is brushed on pieces, oil goes into pans, bench flour with the dough, and one bath
serves the batch.
"""

from dataclasses import dataclass

from pancount.core.formula import Beside, Formula
from pancount.core.reckon import Reckoned
from pancount.core.stages import beside_kinds


@dataclass(frozen=True, slots=True)
class Made:
    """How much is made: dough over the dough as written, whole pieces, and pans; 0 pans where there is none."""

    dough: float
    pieces: float
    pans: float


def as_written(formula: Formula, reckoned: Reckoned) -> Made:
    """What the dough as written makes of the formula's usual pieces and pans."""
    usual = formula.usual
    pieces = reckoned.weight_g * (1 - usual.bench_loss) / usual.piece_g
    return Made(1.0, pieces, pieces / usual.pieces_per_pan if usual.pan else 0.0)


def times(stage: Beside, written: Made, made: Made) -> float:
    """By what its written weights are multiplied for what is made."""
    per = beside_kinds()[stage.kind].per
    if per == "bath":
        return 1.0
    if per == "pans" and made.pans and (pans := stage.serves or written.pans):
        return made.pans / pans
    if per != "dough" and (pieces := stage.serves if per == "pieces" and stage.serves else written.pieces):
        return made.pieces / pieces
    return made.dough
