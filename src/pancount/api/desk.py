"""What routes share: the ids in their addresses, and the problems they may answer with."""

from typing import Annotated, Any

from fastapi import Path, Query

from pancount.api.problems import Problem

FormulaId = Annotated[int, Path(ge=1, le=2**31 - 1)]
RevisionNumber = Annotated[int, Path(ge=1, le=2**31 - 1)]
RevisionQuery = Annotated[int | None, Query(ge=1, le=2**31 - 1)]


def may_answer(*statuses: int) -> dict[int | str, dict[str, Any]]:
    """The problems a route may answer with, for the OpenAPI document."""
    content = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
    return {status: {"model": Problem, "content": content} for status in statuses}
