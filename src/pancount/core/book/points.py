"""A bake as a point in the charts: the few numbers that are looked at over many bakes."""

from pancount.core.base.models import Frozen
from pancount.core.book.outcome import Outcome
from pancount.core.book.record import Record


class Numbers(Frozen):
    """A bake's numbers; None where they were not measured. Losses as shares of what there was before."""

    score: float | None = None
    bench_loss: float | None = None
    bake_loss: float | None = None
    spread_g: float | None = None
    rise_min: float | None = None
    rise_c: float | None = None
    dough_c: float | None = None
    water_added_g: float = 0.0
    water_added_points: float = 0.0
    """In percent of all flour."""
    piece_g: float | None = None
    baked_g: float | None = None
    height_cm: float | None = None
    pieces: int = 0


def numbers_of(record: Record, outcome: Outcome) -> Numbers:
    """A bake's numbers."""
    return Numbers(
        score=outcome.score, bench_loss=record.bench_loss.was, bake_loss=record.bake_loss.was, spread_g=record.spread_g, rise_min=record.rise_min,
        rise_c=record.rise_c, dough_c=record.dough_c, water_added_g=record.water_added_g, water_added_points=record.water_added_points,
        piece_g=record.targets[0].piece_g if record.targets else None, baked_g=record.baked_g, height_cm=outcome.height_cm, pieces=record.pieces,
    )  # fmt: skip
