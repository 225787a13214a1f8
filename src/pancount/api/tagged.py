"""Answers that seldom change: sent once with a mark (ETag, RFC 9110), then only asked whether it still holds."""

import hashlib

from fastapi import Request, Response

KEPT = {"Cache-Control": "no-cache"}
"""Kept by the browser, and asked for again each time."""


def mark_of(*parts: bytes) -> str:
    """The mark of what is made of these, for as long as they stay as they are."""
    digest = hashlib.sha256()
    for part in parts:
        digest.update(len(part).to_bytes(8, "big") + part)
    return f'W/"{digest.hexdigest()[:32]}"'


def is_known(request: Request, mark: str) -> bool:
    """Whether the browser has what this mark stands for."""
    return mark in (one.strip() for one in request.headers.get("if-none-match", "").split(","))


def tagged(request: Request, mark: str, body: bytes) -> Response:
    """The JSON under this mark, or 304 where the browser has it."""
    headers = KEPT | {"ETag": mark}
    if is_known(request, mark):
        return Response(status_code=304, headers=headers)
    return Response(body, media_type="application/json", headers=headers)
