"""Errors as problem details (RFC 9457): a title, a sentence, and each place that is wrong."""

import logging
from collections.abc import Callable, Iterable
from http import HTTPStatus
from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel, ValidationError
from starlette.exceptions import HTTPException

from pancount.api.busy import RETRY_S, Busy
from pancount.api.sizes import MOST_TOLD
from pancount.core.base.errors import CoreError, Place
from pancount.formats.formula_file import Unreadable
from pancount.formats.sentences import sentence
from pancount.store.disk import is_full
from pancount.store.errors import Away, Behind, Full, NoRoom, NotFound

log = logging.getLogger("pancount")


class Issue(BaseModel):
    """One thing that is wrong: `pointer` is a JSON pointer (RFC 6901) into what was sent."""

    code: str
    pointer: str
    detail: str


class Problem(BaseModel):
    """Problem details."""

    type: str
    title: str
    status: int
    detail: str
    errors: list[Issue] = []


def pointer(place: Place) -> str:
    """A place as a JSON pointer.

    >>> pointer(("stages", 0, "lines", 2, "percent"))
    '/stages/0/lines/2/percent'
    """
    return "".join("/" + str(part).replace("~", "~0").replace("/", "~1") for part in place)


def problem(status: int, code: str, title: str, detail: str, errors: Iterable[Issue] = ()) -> JSONResponse:
    """A problem as a response; its type is a URN made of the code."""
    body = Problem(type=f"urn:pancount:problem:{code}", title=title, status=status, detail=detail, errors=list(errors))
    return JSONResponse(body.model_dump(), status_code=status, media_type="application/problem+json")


def _clean(text: str) -> str:
    # What a client sent may hold half a surrogate pair, which cannot be sent back as UTF-8.
    return text.encode("utf-8", "replace").decode()


def _core(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, CoreError)
    problems = error.problems if isinstance(error, Unreadable) else [(error.at, str(error))]
    issues = [Issue(code=error.code, pointer=_clean(pointer(at)), detail=_clean(text)) for at, text in problems[:MOST_TOLD]]
    return problem(422, error.code, error.title, _clean(str(error)), issues)


def _validation(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    issues = [
        Issue(code=p["type"], pointer=_clean(pointer(p["loc"][1:])), detail=_clean(sentence(p)))
        for p in error.errors()[:MOST_TOLD]
    ]
    return problem(422, "not_valid", "Something is not right in what was sent", issues[0].detail, issues)


def _not_found(request: Request, error: Exception) -> JSONResponse:
    return problem(404, "not_found", "Not here", str(error))


def _behind(request: Request, error: Exception) -> JSONResponse:
    return problem(409, "behind", "Changed in another window", str(error))


def _full(request: Request, error: Exception) -> JSONResponse:
    return problem(409, "full", "There is no room for more", str(error))


def _unfit(request: Request, error: Exception) -> JSONResponse:
    # What was asked for would not fit the models: a change that goes past what can be weighed, records larger than are taken now.
    assert isinstance(error, ValidationError)
    log.warning("%s %s does not fit: %s", request.method, request.url.path, error)
    first = error.errors()[0]
    issue = Issue(code="does_not_fit", pointer=_clean(pointer(first["loc"])), detail=_clean(sentence(first)))
    return problem(422, "does_not_fit", "This goes past what can be reckoned", issue.detail, [issue])


def _told_to_wait(code: str, title: str, detail: str) -> JSONResponse:
    answer = problem(503, code, title, detail)
    answer.headers["Retry-After"] = str(RETRY_S)
    return answer


def _busy(request: Request, error: Exception) -> JSONResponse:
    return _told_to_wait("busy", "Too many at once", str(error))


def _away_from(folder: Path | None) -> Callable[[Request, Exception], JSONResponse]:
    """What is said where the records do not answer. A server that stopped for want of room cannot say so itself."""

    def away(request: Request, error: Exception) -> JSONResponse:
        if folder is not None and is_full(folder):
            error = NoRoom(str(folder))
        title = "The disk is full" if isinstance(error, NoRoom) else "Records cannot be reached"
        return _told_to_wait("no_room" if isinstance(error, NoRoom) else "away", title, str(error))

    return away


def _http(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    title = HTTPStatus(error.status_code).phrase
    answer = problem(error.status_code, f"http_{error.status_code}", title, str(error.detail))
    answer.headers.update(error.headers or {})
    return answer


def tell_problems(app: FastAPI, folder: Path | None) -> None:
    """Answer every known error with problem details. `folder`: where the records lie, if they are our own."""
    app.add_exception_handler(CoreError, _core)
    app.add_exception_handler(RequestValidationError, _validation)
    app.add_exception_handler(NotFound, _not_found)
    app.add_exception_handler(Behind, _behind)
    app.add_exception_handler(Away, _away_from(folder))
    app.add_exception_handler(Busy, _busy)
    app.add_exception_handler(Full, _full)
    app.add_exception_handler(ValidationError, _unfit)
    app.add_exception_handler(HTTPException, _http)
