"""The formula file: a formula and its count as JSON, described by docs/formula.schema.json."""

import json
from typing import Any, Literal

from pydantic import ValidationError

from pancount.core.base import most
from pancount.core.base.errors import CoreError, Place
from pancount.core.base.models import Frozen
from pancount.core.count.count import Count
from pancount.core.formula.earlier import SCHEMA_NUMBER, brought_up, count_brought_up
from pancount.core.formula.formula import Formula, complete
from pancount.core.formula.reckon import reckon
from pancount.formats.sentences import sentence

SCHEMA_ID = "urn:pancount:formula:6"


class FormulaFile(Frozen):
    """What stands in a formula file."""

    format: Literal["pancount-formula"] = "pancount-formula"
    version: Literal[1, 2, 3, 4, 5, 6] = 6
    """2 added what is kept beside the dough, the steps, and each line's text and band; 3 what each stage is, where it
    goes, what is held back and boils off, and a starter's hydration; 4 several targets, limits, shaping and more shapes of
    pan; 5 the scald; 6 ways with their steps, and the count's way and day. Files of earlier versions are brought up as they are read."""
    formula: Formula
    count: Count = Count()


class Unreadable(CoreError):
    """A file that is not a formula file: `problems` tells each place and what is wrong there."""

    code = "unreadable_file"

    def __init__(self, problems: list[tuple[Place, str]]) -> None:
        super().__init__(problems[0][1], problems[0][0])
        self.problems = problems

    def __reduce__(self) -> tuple[type["Unreadable"], tuple[list[tuple[Place, str]]]]:
        return Unreadable, (self.problems,)  # it may come from another process


def write_formula(formula: Formula, count: Count) -> str:
    """A formula file as text, with what is not given left out, and what this kitchen learned: another has ovens of its own."""
    body = FormulaFile(formula=formula, count=count).model_dump(mode="json", exclude_none=True, exclude={"count": {"learned"}})
    return json.dumps(body, ensure_ascii=False, indent=2) + "\n"


def _brought_up(found: dict[str, Any]) -> dict[str, Any]:
    """A file of an earlier version with its formula as it is now; what is broken in it is left to be told."""
    version, formula = found.get("version"), found.get("formula")
    if type(version) is not int or not 1 <= version < SCHEMA_NUMBER or not isinstance(formula, dict):
        return found
    for part in ("stages", "beside"):
        if not isinstance(formula.get(part, []), list) or not all(isinstance(x, dict) for x in formula.get(part, [])):
            return found
    brought = found | {"formula": brought_up(formula, version)}
    if isinstance(count := found.get("count"), dict):
        brought["count"] = count_brought_up(count, version)
    return brought


def not_too_many_members(data: bytes) -> None:
    """Raises `Unreadable` for JSON with more in it than is read."""
    if data.count(b",") > most.FILE_MEMBERS:
        raise Unreadable([((), f"The file holds more than {most.FILE_MEMBERS} fields and entries: more than a formula or a recipe.")])


def read_formula(data: bytes) -> FormulaFile:
    """Read a formula file, its keys in any order. It must be a formula that can be kept and reckoned.

    Raises `Unreadable` with the line and column of broken JSON, or the place of each wrong field.
    """
    not_too_many_members(data)
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
        file = FormulaFile.model_validate(_brought_up(found))
    except ValidationError as error:
        raise Unreadable([(problem["loc"], sentence(problem)) for problem in error.errors(include_url=False, include_input=False)]) from error
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
