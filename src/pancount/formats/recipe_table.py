"""A table of ingredients (CSV) as recipe text, once its columns are known."""

import csv
import io
from collections.abc import Sequence

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.core.taking.taken import MOST_COLUMNS, Column, Mapping
from pancount.formats.formula_file import Unreadable

USUAL_HEADS: dict[Column, tuple[str, ...]] = {
    "grams": ("weight_g", "grams", "gramm", "g", "weight (g)", "weight g", "gewicht"),
    "percent": ("percent_of_flour", "percent", "%", "baker's %", "bakers percent", "prozent"),
    "amount": ("amount", "quantity", "qty", "menge", "anzahl"),
    "unit": ("unit", "measure", "einheit"),
    "ingredient": ("ingredient", "name", "item", "zutat", "what"),
    "note": ("note", "notes", "comment", "preparation", "bemerkung"),
    "stage": ("stage", "group", "section", "part", "gruppe"),
    "line": ("line", "text", "ingredients", "zutaten"),
}
"""Heads that say by themselves what a column holds."""


class Table(Frozen):
    """A table as it came, with what its head gives away of its columns."""

    head: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    """The first few, to look at."""
    mapping: Mapping


def _rows(text: str) -> list[list[str]]:
    if text.count("\n") > 10 * most.TABLE_ROWS:  # so many blank rows may be among them
        raise Unreadable([((), f"The table has more than {most.TABLE_ROWS} rows: leave out what is not this recipe.")])
    head = text.lstrip("\n").split("\n", 1)[0]
    between = max(",;\t|", key=head.count)
    try:
        reader = csv.reader(io.StringIO(text), delimiter=between)
        rows = [row for row in reader if any(cell.strip() for cell in row)]
    except csv.Error as error:
        raise Unreadable([((), f"The table cannot be read: {error}.")]) from error
    if not rows:
        raise Unreadable([((), "The table is empty.")])
    if len(rows) > most.TABLE_ROWS + 1:
        raise Unreadable([((), f"The table has {len(rows)} rows, more than {most.TABLE_ROWS}: leave out what is not this recipe.")])
    return [[" ".join(cell.split()) for cell in row[:MOST_COLUMNS]] for row in rows]


def guess(head: Sequence[str]) -> Mapping:
    """What the head gives away: the first column under a usual name."""
    folded = [cell.casefold().strip() for cell in head]
    found: Mapping = {}
    for column, names in USUAL_HEADS.items():
        at = next((folded.index(name) for name in names if name in folded), None)
        if at is not None and at not in found.values():
            found[column] = at
    return found


def read_table(text: str) -> Table:
    """A table's head and first rows, and which columns are known by their head. Raises `Unreadable`."""
    rows = _rows(text)
    return Table(
        head=tuple(cell[:300] for cell in rows[0]),
        rows=tuple(tuple(cell[:300] for cell in row) for row in rows[1:6]),
        mapping=guess(rows[0]),
    )


def table_text(text: str, mapping: Mapping, title: str) -> tuple[tuple[str, ...], str]:
    """The table's head, and the table as recipe text, a line a row, under its stages.

    Raises `Unreadable` where no column names ingredients.
    """
    if "ingredient" not in mapping and "line" not in mapping:
        raise Unreadable([(("mapping",), "Say which column holds the ingredients.")])
    lines = [title, ""]
    stage = ""
    rows = _rows(text)
    for row in rows[1:]:
        cell = {column: row[at].lstrip("'") for column, at in mapping.items() if at < len(row)}
        if cell.get("stage", "") != stage:
            stage = cell.get("stage", "")
            lines += ["", f"{stage or 'Dough'}:"]
        lines.append(_line(cell))
    return tuple(cell[:300] for cell in rows[0]), "\n".join(lines)


def _line(cell: dict[Column, str]) -> str:
    if cell.get("line"):
        return cell["line"]
    amount = " ".join(filter(None, [cell.get("amount", ""), cell.get("unit", "")]))
    if cell.get("grams"):
        amount = f"{cell['grams']} g" if cell["grams"][-1:].isdigit() else cell["grams"]
    elif cell.get("percent") and not amount:
        amount = f"{cell['percent'].rstrip('% ')} %"
    note = f", {cell['note']}" if cell.get("note") else ""
    return f"{amount} {cell.get('ingredient', '')}{note}".strip()
