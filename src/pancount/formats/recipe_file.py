"""A file that a recipe comes in: what it is, by its content, and the recipe's text in it."""

from typing import Any, Literal

from pancount.core.base import most
from pancount.core.base.models import Frozen
from pancount.formats.formula_file import FormulaFile, Unreadable, not_too_many_members, read_formula
from pancount.formats.recipe_jsonld import read_json, read_page, read_recipe
from pancount.formats.recipe_table import Table, read_table

CONTROL = {n: " " for n in range(32) if chr(n) not in "\t\n"}
"""What no text of ours may hold."""
UTF_16_MARKS = (b"\xff\xfe", b"\xfe\xff")


class RecipeFile(Frozen):
    """What a file turned out to be. text: recipe text · table: a table whose columns must be known first (its text is
    kept beside it) · formula: this application's own formula file."""

    kind: Literal["text", "table", "formula"]
    text: str = ""
    table: Table | None = None
    formula: FormulaFile | None = None


def decoded(data: bytes) -> str:
    """A file's text: UTF-8, UTF-16 with its mark, else as Windows wrote it. Lines end in one line feed."""
    try:
        text = data.decode("utf-16" if data.startswith(UTF_16_MARKS) else "utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", "replace")
    return text.replace("\r\n", "\n").replace("\r", "\n").translate(CONTROL)


def read_recipe_file(data: bytes, name: str) -> RecipeFile:
    """What a file holds, by its content; its name only tells a table from plain text. Raises `Unreadable`."""
    text = decoded(data)
    start = text.lstrip()[:2000].lower()
    if not start:
        raise Unreadable([((), "The file is empty.")])
    if start[0] in "{[":
        return _from_json(data, text)
    if start.startswith("<") or "<script" in start or "<html" in start:
        return _text(read_page(text))
    if name.lower().endswith((".csv", ".tsv")) or _looks_like_a_table(text):
        return RecipeFile(kind="table", text=text, table=read_table(text))
    return _text(text)


def _text(text: str) -> RecipeFile:
    """Recipe text, where it is no longer than what is taken in. Raises `Unreadable`: cut off it would be another recipe."""
    lines = text.count("\n") + 1
    if len(text) > most.RECIPE or lines > most.RECIPE_LINES:
        raise Unreadable(
            [((), f"The file holds {lines} lines, {len(text)} characters: more than a recipe. Copy the recipe out of it and paste that.")]
        )
    return RecipeFile(kind="text", text=text)


def _looks_like_a_table(text: str) -> bool:
    try:
        table = read_table(text)
    except Unreadable:
        return False
    return len(table.head) > 1 and "ingredient" in table.mapping and len(table.rows) > 0


def _from_json(data: bytes, text: str) -> RecipeFile:
    not_too_many_members(data)
    try:
        found: Any = read_json(text)
    except (ValueError, RecursionError):
        found = None
    if (isinstance(found, dict) and "format" in found) or found is None:
        return RecipeFile(kind="formula", formula=read_formula(data))
    recipe = read_recipe(found)
    if recipe is None:
        raise Unreadable([((), "This is JSON, but there is no schema.org Recipe in it, and it is no formula file.")])
    return _text(recipe)
