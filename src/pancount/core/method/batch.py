"""What of a count the steps need: what everything weighs, how many pieces, what is baked, and how it goes through the oven."""

from dataclasses import dataclass

from pancount.core.count.count import Count
from pancount.core.count.loads import Turns, turns
from pancount.core.count.made import made_of
from pancount.core.count.relations import of
from pancount.core.count.solve import solve
from pancount.core.formula.beside import as_written, is_slab, times
from pancount.core.formula.formula import Formula
from pancount.core.formula.gauges import Character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import weight_of
from pancount.core.method.bakes import Piece
from pancount.core.method.rises import Mass
from pancount.core.method.uses import Weights
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import area_cm2
from pancount.core.pantry.ingredients import Pantry


@dataclass(frozen=True, slots=True)
class Batch:
    """A counted batch as its steps see it."""

    weights: Weights
    pieces: int
    piece: Piece
    mass: Mass
    turns: tuple[Turns, ...]
    dough: Character


def batch_of(formula: Formula, count: Count, pantry: Pantry, practice: Practice, kit: Kit, looking_at: int) -> Batch:
    """A formula, as its way has it, counted. Raises what `reckon` raises."""
    looking_at = looking_at if looking_at < len(count.targets) else 0
    found = solve(formula, count, pantry, practice, kit, None)
    values, reckoned, counter = found.solution.values, found.reckoned, found.counter
    flour_g = values["flour_g"]
    written, made = as_written(formula, reckoned), made_of(counter, found.solution)
    weights = Weights(
        lines=tuple(tuple(None if line.given == "open" else weight_of(line.percent, flour_g) for line in stage.lines) for stage in reckoned.stages),
        stages=tuple(weight_of(stage.bowl_percent, flour_g) - stage.boiled_off_g * flour_g / reckoned.flour_g for stage in reckoned.stages),
        beside=tuple(sum(line.weight_g or 0.0 for line in one.lines) * times(one, written, made, kit) for one in formula.beside),
    )
    own, piece_g = int(values[of("pieces", looking_at)]), values[of("piece_g", looking_at)]
    through = turns(formula, counter.lot(found.solution, looking_at), own, counter.kit)
    pieces = sum(int(values[of("pieces", n)]) for n in range(len(count.targets)))
    usual, pan = formula.usual, counter.aims[looking_at].pan
    piece = Piece(now=piece_g, told=usual.piece_g, slab=False)
    if pan is not None and usual.pan is not None and is_slab(usual.fill_kind, usual.pieces_per_pan):
        per_pan = max(1.0, values.get(of("pieces_per_pan", looking_at), 1.0))
        piece = Piece(now=piece_g * per_pan / area_cm2(pan), told=usual.piece_g * usual.pieces_per_pan / area_cm2(usual.pan), slab=True)
    return Batch(weights, pieces, piece, Mass(values["dough_g"], piece_g), through, found.dough)
