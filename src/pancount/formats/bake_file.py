"""A bake of the book as a file of JSON (docs/bake.schema.json), one or all of them, and as tables."""

import csv
import io
from collections.abc import Iterable, Sequence
from datetime import UTC, datetime
from typing import Any, Literal
from uuid import UUID

from pancount.core.base.models import Frozen
from pancount.core.book.outcome import Outcome
from pancount.core.book.points import Numbers
from pancount.core.book.record import Record
from pancount.formats.formula_csv import plain_cell

VERSION = 1


class BakeOut(Frozen):
    """A bake as it goes out: its record, and what it came to. Times are ISO 8601, and seconds since 1970 in the record."""

    id: UUID
    revision: int | None
    begun_at: datetime
    record: Record
    outcome: Outcome


class BakeFile(Frozen):
    """Bakes of a kitchen."""

    format: Literal["pancount-bakes"] = "pancount-bakes"
    version: Literal[1] = 1
    kitchen: str
    bakes: tuple[BakeOut, ...]


def bake_schema() -> dict[str, Any]:
    """The JSON Schema (draft 2020-12) of a file of bakes, as published in docs/bake.schema.json."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema"} | BakeFile.model_json_schema() | {"title": "Pan Count bakes"}


def file_head(kitchen: str) -> str:
    """The beginning of a file, up to its first bake: for one that is written some bakes at a time, closed by `]}`."""
    return BakeFile(kitchen=kitchen, bakes=()).model_dump_json().removesuffix("]}")


def _number(value: float | None) -> str:
    return "" if value is None else f"{value:.6g}"


def _row(cells: Iterable[str | int | float | None]) -> list[str]:
    """Cells as text; what a spreadsheet would take for a formula of its own stays words."""
    return [plain_cell(cell) if isinstance(cell, str) else str(cell) if isinstance(cell, int) else _number(cell) for cell in cells]


def bake_csv(bake: BakeOut) -> str:
    """One bake, row by row: what, name, unit, as meant, as it was, and what was said of it."""
    record, outcome = bake.record, bake.outcome
    out = io.StringIO()
    write = csv.writer(out)
    write.writerow(("part", "of", "name", "unit", "meant", "was", "says"))
    for line in record.lines:
        write.writerow(_row(("beside" if line.beside else "line", line.of, line.name, "g", line.meant_g, line.was_g, line.says)))
    for step in record.steps:
        write.writerow(_row(("step", "", step.label, "min", step.planned_min, step.minutes, step.status)))
    for loss, name in ((record.bench_loss, "bowl and bench loss"), (record.bake_loss, "baking loss")):
        write.writerow(_row(("figure", "", name, "share", loss.meant, loss.was, "")))
    for one in record.temperatures:
        write.writerow(_row(("figure", "", one.label, "celsius", one.meant_c, one.was_c, "")))
    for target in record.targets:
        for g in target.weighed:
            write.writerow(_row(("piece", target.name, "", "g", target.meant_piece_g, g, "")))
    for name, score in outcome.scores.items():
        write.writerow(_row(("score", "", name, "of 5", None, score, "")))
    for name, unit, value in (("baked", "g", outcome.baked_g), ("height", "cm", outcome.height_cm), ("across", "cm", outcome.across_cm)):
        if value is not None:
            write.writerow(_row(("outcome", "", name, unit, None, value, "")))
    for name, words in (("words", outcome.words), ("went wrong", outcome.wrong), ("next time", outcome.next_time)):
        if words:
            write.writerow(_row(("outcome", "", name, "", None, None, words)))
    for note in record.notes:
        write.writerow(_row(("note", note.who, datetime.fromtimestamp(note.at_s, UTC).isoformat(), "", None, None, note.says)))
    return out.getvalue()


def points_csv(points: Sequence[tuple[datetime, str, Numbers]]) -> str:
    """The numbers of many bakes, one a row."""
    out = io.StringIO()
    write = csv.writer(out)
    write.writerow(("begun_at", "name", *Numbers.model_fields))
    for at, name, numbers in points:
        write.writerow(_row((at.isoformat(), name, *numbers.model_dump().values())))
    return out.getvalue()


BakeLine = tuple[str, datetime, str, str, int | None, str, Numbers, Outcome]
"""A bake as a row: id, begun, name, way, revision, status, its numbers, what it came to."""


def bakes_head(scales: Sequence[str]) -> str:
    """The head of a table of bakes."""
    out = io.StringIO()
    csv.writer(out).writerow(_row(("id", "begun_at", "name", "way", "revision", "status", *Numbers.model_fields, *scales, "words", "went_wrong", "next_time")))
    return out.getvalue()


def bakes_csv(bakes: Sequence[BakeLine], scales: Sequence[str]) -> str:
    """Many bakes, one a row: their numbers, and their scores by the kitchen's scales."""
    out = io.StringIO()
    write = csv.writer(out)
    for number, at, name, way, revision, status, numbers, outcome in bakes:
        scores = (outcome.scores.get(scale) for scale in scales)
        write.writerow(_row((number, at.isoformat(), name, way, revision, status, *numbers.model_dump().values(), *scores, outcome.words, outcome.wrong, outcome.next_time)))
    return out.getvalue()
