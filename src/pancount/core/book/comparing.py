"""Two to four bakes side by side, row by row, what differs first. What differed, never why."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.book.outcome import Outcome
from pancount.core.book.record import LineWas, Record, StepWas

MOST_BESIDE = 4
Part = Literal["dough", "beside", "figures", "steps", "came_to"]
ALIKE_SHARE = 0.02
"""Numbers that are no further apart, as a share of the larger, do not differ. Common practice, no source."""
ALIKE: dict[str, float] = {"percent": 0.05, "celsius": 0.5, "min": 1.0, "share": 0.003, "g": 0.5, "cm": 0.1, "score": 0.25}
"""Nor do those that are no further apart than this, in their own unit. Common practice, no source."""


class Cell(Frozen):
    """A bake's own of a row: as it was, as it was meant, and whether it was measured or only meant."""

    was: float | None
    meant: float | None = None
    g: float | None = None
    """Of a line: its grams."""
    measured: bool = True


class BesideRow(Frozen):
    """A row; `off`: how far its cells lie apart, as a share of the largest. Nothing where they are alike."""

    part: Part
    name: str
    unit: str
    cells: tuple[Cell, ...]
    differs: bool
    off: float


@dataclass(frozen=True, slots=True)
class InTheBook:
    """A bake as it is compared."""

    record: Record
    outcome: Outcome


def side_by_side(bakes: Sequence[InTheBook]) -> tuple[BesideRow, ...]:
    """All rows, part by part, in each what differs most first."""
    parts = (_lines(bakes, beside=False), _lines(bakes, beside=True), _figures(bakes), _steps(bakes), _came_to(bakes))
    return tuple(row for part in parts for row in sorted(part, key=lambda one: (not one.differs, -one.off)))


def _row(part: Part, name: str, unit: str, cells: Iterable[Cell]) -> BesideRow:
    cells = tuple(cells)
    known = [one.was for one in cells if one.was is not None]
    apart = max(known) - min(known) if len(known) > 1 else 0.0
    largest = max((abs(one) for one in known), default=0.0)
    some = 0 < len(known) < len(cells) and part in ("dough", "beside", "steps")  # one has it and another has not
    differs = some or (apart > ALIKE.get(unit, 0.0) and apart > ALIKE_SHARE * largest)
    return BesideRow(part=part, name=name, unit=unit, cells=cells, differs=differs, off=1.0 if some else apart / largest if differs and largest else 0.0)


def _lines(bakes: Sequence[InTheBook], *, beside: bool) -> list[BesideRow]:
    """Lines by what is in the whole dough, or beside it; of what was not weighed, as it was meant."""
    each = [_summed(one for one in bake.record.lines if one.beside is beside) for bake in bakes]
    names = dict.fromkeys(name for one in each for name in one)
    part: Part = "beside" if beside else "dough"
    return [_row(part, next(one[name][0] for one in each if name in one), "g" if beside else "percent", [one[name][1] if name in one else Cell(was=None) for one in each]) for name in names]


def _summed(lines: Iterable[LineWas]) -> dict[str, tuple[str, Cell]]:
    found: dict[str, tuple[str, Cell]] = {}
    for line in lines:
        key = line.name.casefold()
        own = Cell(
            was=(line.was_g if line.was_g is not None else line.meant_g) if line.beside else (line.was_percent if line.was_percent is not None else line.meant_percent),
            meant=line.meant_g if line.beside else line.meant_percent, g=line.was_g if line.was_g is not None else line.meant_g, measured=line.was_g is not None,
        )  # fmt: skip
        known = found.get(key)
        found[key] = (line.name, own if known is None else Cell(was=_sum(known[1].was, own.was), meant=_sum(known[1].meant, own.meant), g=_sum(known[1].g, own.g), measured=known[1].measured and own.measured))
    return found


def _sum(one: float | None, other: float | None) -> float | None:
    return other if one is None else one if other is None else one + other


FIGURES: tuple[tuple[str, str, Callable[[InTheBook], Cell]], ...] = (
    ("Dough", "g", lambda one: Cell(was=one.record.mixed_g, meant=one.record.planned_g)),
    ("Bowl and bench loss", "share", lambda one: Cell(was=one.record.bench_loss.was, meant=one.record.bench_loss.meant)),
    ("Baking loss", "share", lambda one: Cell(was=one.record.bake_loss.was, meant=one.record.bake_loss.meant)),
    ("Water added at the mixer", "percent", lambda one: Cell(was=one.record.water_added_points)),
    ("Pieces", "count", lambda one: Cell(was=one.record.pieces, meant=sum(target.meant_pieces for target in one.record.targets))),
    ("A piece", "g", lambda one: Cell(was=one.record.targets[0].piece_g, meant=one.record.targets[0].meant_piece_g) if one.record.targets else Cell(was=None)),
    ("Pieces stray by", "g", lambda one: Cell(was=one.record.spread_g)),
    ("All rises", "min", lambda one: Cell(was=one.record.rise_min)),
)  # fmt: skip


def _figures(bakes: Sequence[InTheBook]) -> list[BesideRow]:
    found = [_row("figures", name, unit, [cell(one) for one in bakes]) for name, unit, cell in FIGURES]
    labels = dict.fromkeys((one.what, one.label) for bake in bakes for one in bake.record.temperatures)
    for what, label in labels:
        cells = [next((Cell(was=one.was_c, meant=one.meant_c) for one in bake.record.temperatures if one.what == what), Cell(was=None)) for bake in bakes]
        found.append(_row("figures", f"{label}, warm", "celsius", cells))
    return [one for one in found if any(cell.was is not None for cell in one.cells)]


def _steps(bakes: Sequence[InTheBook]) -> list[BesideRow]:
    """Steps by kind and turn: the second rise beside the second."""
    each = list[dict[tuple[str, int], StepWas]]()
    for bake in bakes:
        own: dict[tuple[str, int], StepWas] = {}
        for step in bake.record.steps:
            own[step.kind, sum(kind == step.kind for kind, _ in own)] = step
        each.append(own)
    keys = dict.fromkeys(key for one in each for key in one)
    return [_row("steps", next(one[key].label for one in each if key in one), "min", [_step_cell(one.get(key)) for one in each]) for key in keys]


def _step_cell(step: StepWas | None) -> Cell:
    if step is None:
        return Cell(was=None)
    real = step.minutes
    return Cell(was=real if real is not None else step.planned_min, meant=step.planned_min, measured=real is not None)


def _came_to(bakes: Sequence[InTheBook]) -> list[BesideRow]:
    found = [_row("came_to", "Score", "score", [Cell(was=one.outcome.score) for one in bakes])]
    for scale in dict.fromkeys(name for one in bakes for name in one.outcome.scores):
        found.append(_row("came_to", scale, "score", [Cell(was=one.outcome.scores.get(scale)) for one in bakes]))
    found.append(_row("came_to", "A piece, baked", "g", [Cell(was=one.record.baked_g) for one in bakes]))
    found.append(_row("came_to", "Height, measured", "cm", [Cell(was=one.outcome.height_cm) for one in bakes]))
    found.append(_row("came_to", "Across, measured", "cm", [Cell(was=one.outcome.across_cm) for one in bakes]))
    return [one for one in found if any(cell.was is not None for cell in one.cells)]


