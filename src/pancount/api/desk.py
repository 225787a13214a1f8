"""What routes share: the session, the kitchen, and the problems they may answer with."""

from collections.abc import Iterator
from typing import Annotated, Any

from fastapi import Depends, Path, Query, Request
from sqlalchemy.orm import Session

from pancount.api.problems import Problem
from pancount.store.database import transaction
from pancount.store.kitchens import ONLY_KITCHEN


def get_session(request: Request) -> Iterator[Session]:
    """One transaction around a handler, committed before the answer leaves."""
    with transaction(request.app.state.engine) as session:
        yield session


def get_kitchen_id() -> int:
    """The kitchen that is asking."""
    return ONLY_KITCHEN


# scope="function": committed before the answer is sent, so that a 200 always means kept.
SessionOf = Annotated[Session, Depends(get_session, scope="function")]
KitchenId = Annotated[int, Depends(get_kitchen_id)]
FormulaId = Annotated[int, Path(ge=1, le=2**31 - 1)]
RevisionNumber = Annotated[int, Path(ge=1, le=2**31 - 1)]
RevisionQuery = Annotated[int | None, Query(ge=1, le=2**31 - 1)]


def may_answer(*statuses: int) -> dict[int | str, dict[str, Any]]:
    """The problems a route may answer with, for the OpenAPI document."""
    content = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
    return {status: {"model": Problem, "content": content} for status in statuses}
