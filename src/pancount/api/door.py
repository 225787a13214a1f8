"""The door: who may come in, with what, and how long they may take to say it. What is refused here is not read any further.

Until there is sign-in this is what keeps the kitchen to itself: only the names that lead here are answered (a rebound name
reads nothing), what changes anything must come from our own pages or from no page at all, and bodies are of a kind that
other sites' pages cannot send unasked.
"""

import asyncio
import logging
from collections.abc import Iterable
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from pancount.api.problems import problem
from pancount.api.sizes import MOST_DRAINED, MOST_MEMBERS, READ_S, body_bytes, is_file

LOOPBACK = ("127.0.0.1", "localhost", "[::1]")
SAFE_METHODS = ("GET", "HEAD", "OPTIONS")
JSON, FILE = "application/json", "application/octet-stream"

CSP = (
    "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:; "
    "connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
)
"""Scripts from here alone and none in the page; the styles of drawings stand on their elements."""
HEADERS = {
    "Content-Security-Policy": CSP,
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=(), payment=(), usb=(), serial=()",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}

log = logging.getLogger("pancount")


class _Refused(Exception):
    """A request that does not come in: status, code, title, sentence, and whether its connection ends with it."""

    def __init__(self, status: int, code: str, title: str, detail: str, *, closes: bool = False) -> None:
        self.answer = problem(status, code, title, detail)
        if closes:
            self.answer.headers["Connection"] = "close"


def _name(host: str) -> str:
    """A Host header without its port, in small letters."""
    name, _, port = host.rpartition(":")
    return (name if name and port.isdigit() else host).lower()


class Door:
    """ASGI middleware around the whole application."""

    def __init__(self, app: ASGIApp, hosts: Iterable[str] = ()) -> None:
        self.app = app
        self.hosts = frozenset((*LOOPBACK, *(host.strip().lower() for host in hosts if host.strip())))

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            if scope["type"] == "lifespan":
                await self.app(scope, receive, send)
            return
        begun = False

        async def answered(message: Message) -> None:
            nonlocal begun
            if message["type"] == "http.response.start":
                begun = True
                headers = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    headers.setdefault(name, value)
                headers.setdefault("Cache-Control", "no-store")
            await send(message)

        try:
            headers = Headers(scope=scope)
            self._let_in(scope, headers)
            body = await _body(scope, headers, receive)
            if not is_file(scope["path"]) and body.count(b",") > MOST_MEMBERS:
                raise _Refused(413, "too_large", "Too large", f"This takes at most {MOST_MEMBERS} fields and entries.")
            await self.app(scope, _replayed(body, receive), answered)
        except _Refused as refused:
            await refused.answer(scope, receive, answered)
        except Exception:
            # Nothing that is sent in should come to this. Where it does, the connection stays and the words say what is kept.
            log.exception("%s %s failed", scope["method"], scope["path"])
            if begun:
                raise
            await problem(
                500,
                "fault",
                "Pan Count made a mistake",
                "This could not be worked out: a fault in Pan Count, not in what you typed, which is still here. "
                "What it said of it is where Pan Count was started.",
            )(scope, receive, answered)

    def _let_in(self, scope: Scope, headers: Headers) -> None:
        host = headers.get("host", "")
        if _name(host) not in self.hosts:
            raise _Refused(
                421,
                "wrong_name",
                "Not under this name",
                "Pan Count answers only to its own address on this machine. To reach it by another name, start it with "
                "PANCOUNT_HOSTS=that.name",
            )
        if "transfer-encoding" in headers and "content-length" in headers:
            raise _Refused(400, "two_lengths", "Not clear where it ends", "The request says its length in two ways.", closes=True)
        if scope["method"] in SAFE_METHODS:
            return
        site, origin = headers.get("sec-fetch-site"), headers.get("origin")
        if site not in (None, "same-origin", "none") or (origin is not None and urlsplit(origin).netloc.lower() != host.lower()):
            raise _Refused(403, "other_site", "Not from another site", "Only Pan Count's own pages may change anything here.")
        kind = headers.get("content-type", "").split(";")[0].strip().lower()
        sends = kind or headers.get("content-length", "0") != "0" or "transfer-encoding" in headers
        if sends and kind != JSON and not (kind == FILE and is_file(scope["path"])):
            raise _Refused(
                415, "wrong_kind", "Not of this kind", f"This takes {JSON}{f' or {FILE}' if is_file(scope['path']) else ''}.", closes=True
            )


async def _body(scope: Scope, headers: Headers, receive: Receive) -> bytes:
    """All of what is sent in, within its limit and its time."""
    if scope["method"] in SAFE_METHODS and "content-length" not in headers and "transfer-encoding" not in headers:
        return b""
    most = body_bytes(scope["method"], scope["path"])
    too_large = _Refused(
        413, "too_large", "Too large", f"This takes at most {most // 1000} kB. Is it the right file, or is there something in it twice?", closes=True
    )
    length = headers.get("content-length", "0")
    if not length.isdecimal():
        raise _Refused(400, "no_length", "Not clear where it ends", "The request does not say its length as a number.", closes=True)
    if int(length) > MOST_DRAINED:
        raise too_large
    parts: list[bytes] = []
    size = 0
    try:
        async with asyncio.timeout(READ_S):
            while True:
                message = await receive()
                if message["type"] == "http.disconnect":
                    raise _Refused(400, "gone", "Broken off", "The request ended before all of it was there.", closes=True)
                size += len(message.get("body", b""))
                if size <= most:
                    parts.append(message.get("body", b""))
                elif size > MOST_DRAINED:
                    raise too_large
                if not message.get("more_body", False):
                    break
    except TimeoutError:
        raise _Refused(408, "too_slow", "Too slow", f"The request did not arrive within {READ_S} seconds.", closes=True) from None
    if size > most:
        raise too_large  # what was sent is drained first, so that the answer is heard and not a broken connection
    return b"".join(parts)


def _replayed(body: bytes, receive: Receive) -> Receive:
    """The body as one message, then whatever comes after it: that the client left."""
    given = False

    async def again() -> Message:
        nonlocal given
        if given:
            return await receive()
        given = True
        return {"type": "http.request", "body": body, "more_body": False}

    return again
