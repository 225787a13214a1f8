"""The formula file: a formula and its count as JSON, described by docs/formula.schema.json."""

import json
from typing import Any, Literal

from pydantic import ValidationError

from pancount.core.base import Frozen
from pancount.core.count import Count
from pancount.core.errors import CoreError, Place
from pancount.core.formula import Formula, complete
from pancount.core.reckon import reckon
from pancount.formats.sentences import sentence

SCHEMA_ID = "urn:pancount:formula:2"


class FormulaFile(Frozen):
    """What stands in a formula file."""

    format: Literal["pancount-formula"] = "pancount-formula"
    version: Literal[1, 2] = 2
    """2 adds what is kept beside the dough, the steps, and each line's text and band; a file of version 1 reads as it is."""
    formula: Formula
    count: Count = Count()


class Unreadable(CoreError):
    """A file that is not a formula file: `problems` tells each place and what is wrong there."""

    code = "unreadable_file"

    def __init__(self, problems: list[tuple[Place, str]]) -> None:
        super().__init__(problems[0][1], problems[0][0])
        self.problems = problems


def write_formula(formula: Formula, count: Count) -> str:
    """A formula file as text, with what is not given left out."""
    body = FormulaFile(formula=formula, count=count).model_dump(mode="json", exclude_none=True)
    return json.dumps(body, ensure_ascii=False, indent=2) + "\n"


def read_formula(data: bytes) -> FormulaFile:
    """Read a formula file, its keys in any order. It must be a formula that can be kept and reckoned.

    Raises `Unreadable` with the line and column of broken JSON, or the place of each wrong field.
    """
    try:
        found = json.loads(data.decode("utf-8-sig"))
    except UnicodeDecodeError as error:
        raise Unreadable([((), f"The file is not UTF-8 text (byte {error.start + 1}).")]) from error
    except json.JSONDecodeError as error:
        where = f"line {error.lineno}, column {error.colno}"
        raise Unreadable([((), f"The file is not JSON: {error.msg} at {where}.")]) from error
    except (ValueError, RecursionError) as error:
        raise Unreadable(
            [((), "The file is not JSON that can be read: a number too long, or nested too deep.")]
        ) from error
    if not isinstance(found, dict) or found.get("format") != "pancount-formula":
        raise Unreadable([(("format",), 'This is not a formula file: it does not say "format": "pancount-formula".')])
    try:
        file = FormulaFile.model_validate(found)
    except ValidationError as error:
        raise Unreadable([(problem["loc"], sentence(problem)) for problem in error.errors()]) from error
    try:
        complete(file.formula)
        reckon(file.formula)
    except CoreError as error:
        raise Unreadable([(("formula", *error.at), str(error))]) from error
    return file


def json_schema() -> dict[str, Any]:
    """The JSON Schema (draft 2020-12) of a formula file, as published in docs/formula.schema.json."""
    schema = FormulaFile.model_json_schema()
    return (
        {"$schema": "https://json-schema.org/draft/2020-12/schema", "$id": SCHEMA_ID}
        | schema
        | {
            "title": "Pan Count formula file",
            "required": ["format", "version", "formula"],
        }
    )
