"""Everything that stands on the formula and count screen, from one call."""

from dataclasses import dataclass
from typing import Literal

from pancount.core.base.derived import Derived
from pancount.core.base.models import Frozen
from pancount.core.base.scale import Scale
from pancount.core.count.count import Count
from pancount.core.count.counter import Counter, batch_of
from pancount.core.count.limits import need_figure
from pancount.core.count.loads import Mixes, Turns, mixes, mixes_figures, turns, turns_figures
from pancount.core.count.made import label_weight, made_of
from pancount.core.count.panned import Panned, panned, panned_figures
from pancount.core.count.relations import of
from pancount.core.count.result import CountResult
from pancount.core.count.selling import Sold
from pancount.core.count.small import SmallWeight, small_weights
from pancount.core.count.solve import solve
from pancount.core.count.solver import Solution
from pancount.core.formula.beside import Made, Strength, as_written, strengths, times
from pancount.core.formula.contents import Contents, contents
from pancount.core.formula.formula import Formula
from pancount.core.formula.gauges import Character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import Reckoned, ReckonedStage, weight_of
from pancount.core.formula.remarks import Remark, remarks
from pancount.core.formula.rows import Row, whole_rows
from pancount.core.formula.ways import in_way
from pancount.core.pans.kit import Kit
from pancount.core.pans.shaping import Shaped, shape, shaped_figures
from pancount.core.pantry.ingredients import Pantry


@dataclass(frozen=True, slots=True)
class Passing:
    """What comes into a stage or leaves it, as written and in the count; `source` and `share` where it comes from one."""

    what: Literal["fed", "made_up", "boiled_off", "kept_back"]
    source: int | None
    share: float
    weight_g: float
    count_g: float


def _passing(stage: ReckonedStage, ratio: float) -> tuple[Passing, ...]:
    found = []
    for fed in stage.fed:
        found.append(Passing("fed", fed.source, fed.share, fed.weight_g, fed.weight_g * ratio))
        if fed.made_up_g:
            found.append(Passing("made_up", fed.source, fed.share, fed.made_up_g, fed.made_up_g * ratio))
    if stage.boiled_off_g:
        found.append(Passing("boiled_off", None, 1.0, stage.boiled_off_g, stage.boiled_off_g * ratio))
    if stage.kept_back_g:
        found.append(Passing("kept_back", None, 1.0, stage.kept_back_g, stage.kept_back_g * ratio))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class BesideFigures:
    """Something beside the dough in this count: its written weights times this, and how strong a bath it is."""

    times: float
    strengths: tuple[Strength, ...]


class Looked(Frozen):
    """One target: its fullest pan, what its pieces go through, their shape beside that of the usual piece, and its label."""

    pan: Panned | None
    turns: tuple[Turns, ...]
    shaped: Shaped
    usual_shaped: Shaped
    gap_cm: float
    sold: Sold | None


class Whole(Frozen):
    """A formula as written, what its dough is, its count, and one of its targets."""

    formula: Reckoned
    rows: tuple[Row, ...]
    """The whole formula, ingredient by ingredient."""
    character: Character
    remarks: tuple[Remark, ...]
    contents: Contents
    count: CountResult
    count_g: tuple[tuple[float, ...], ...]
    """Each line's weight in the count, by stage, by line. [g]"""
    stage_count_g: tuple[float, ...]
    """What is in each stage's bowl in the count. [g]"""
    passing: tuple[tuple[Passing, ...], ...]
    """What comes into each stage and what leaves it."""
    row_count_g: tuple[float, ...]
    """Each row's weight in the count. [g]"""
    beside: tuple[BesideFigures, ...]
    """What is beside the dough, in this count."""
    written_pieces: float
    written_pans: float
    """What the dough as written makes of the formula's usual pieces and pans."""
    mixes: Mixes | None
    small: tuple[SmallWeight, ...]
    """What the kitchen's scale cannot weigh well in one mix."""
    looking_at: int
    looked_at: Looked | None
    """The target that is looked at; None while pins fight."""
    figures: dict[str, Derived]
    """Depths, limits, loads, shaping and selling, each with its working, by name."""


def _looked(
    formula: Formula, count: Count, counter: Counter, solution: Solution, result: CountResult, i: int, written: Made
) -> tuple[Looked, dict[str, Derived]]:
    """A target with its pan, its loads, its shape and its label."""
    aim, values = counter.aims[i], solution.values
    pieces, piece_g = int(values[of("pieces", i)]), values[of("piece_g", i)]
    lot = counter.lot(solution, i)
    pan = panned(counter, solution, result.loads[i], i)
    per_log = int(values.get(of("pieces_per_pan", i), pieces) if aim.pan is not None else pieces)
    shaped, usual = (shape(aim.shaping, weight, per_log) for weight in (piece_g, formula.usual.piece_g))
    through = turns(formula, lot, pieces, counter.kit)
    label = label_weight(formula, written, count, counter, solution, i)
    figures = turns_figures(through, pieces) | shaped_figures(aim.shaping, shaped)
    figures |= (panned_figures(pan) if pan else {}) | (label.figures if label else {})
    return Looked(pan=pan, turns=through, shaped=shaped, usual_shaped=usual, sold=label, gap_cm=aim.gap_cm), figures


def whole_count(
    formula: Formula,
    count: Count,
    pantry: Pantry,
    practice: Practice,
    kit: Kit | None = None,
    looking_at: int = 0,
    scale: Scale | None = None,
) -> Whole:
    """Reckon the formula in the way that the count names, look into its dough, solve the count and look at one of its targets. Raises what `reckon` raises."""
    kit, formula = kit or Kit(), in_way(formula, count.way)
    looking_at = looking_at if looking_at < len(count.targets) else 0
    found = solve(formula, count, pantry, practice, kit, looking_at)
    reckoned, dough, ground, result = found.reckoned, found.dough, found.ground, found.result
    counter, solution = found.counter, found.solution
    flour_g, dough_g = (solution.values[name] for name in ("flour_g", "dough_g"))
    rows, ratio = whole_rows(formula, reckoned), flour_g / reckoned.flour_g
    bowls = mixes(dough_g, ground.bowl_g, stiff=dough.stiff and kit.bowl_g is None)
    figures = {"feel": dough.feels} | (mixes_figures(bowls, dough_g) if bowls else {})
    looked, written = None, as_written(formula, reckoned)
    if not result.fights:
        looked, own = _looked(formula, count, counter, solution, result, looking_at, written)
        figures |= own
        batch = batch_of(counter, solution)
        for n, (limit, state) in enumerate(zip(count.limits, result.limits, strict=True)):
            if state.need is not None:
                figures[f"limit.{n}"] = need_figure(limit, state.need, batch, ground)
    made = made_of(counter, solution)
    return Whole(
        formula=reckoned,
        rows=rows,
        character=dough,
        remarks=remarks(formula, reckoned, dough, pantry),
        contents=contents(formula, reckoned, pantry),
        count=result,
        count_g=tuple(tuple(weight_of(line.percent, flour_g) for line in stage.lines) for stage in reckoned.stages),
        stage_count_g=tuple(weight_of(stage.bowl_percent, flour_g) for stage in reckoned.stages),
        passing=tuple(_passing(stage, ratio) for stage in reckoned.stages),
        row_count_g=tuple(row.weight_g * ratio for row in rows),
        beside=tuple(BesideFigures(times(stage, written, made, kit), strengths(stage, pantry)) for stage in formula.beside),
        written_pieces=written.pieces,
        written_pans=written.pans,
        mixes=bowls,
        small=small_weights(formula, reckoned, flour_g / (bowls.mixes if bowls else 1), scale or Scale(), bowls.mixes if bowls else 1, pantry),
        looking_at=looking_at,
        looked_at=looked,
        figures=figures,
    )
