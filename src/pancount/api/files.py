"""Files as they come in."""

from typing import Annotated

from fastapi import Depends, Request
from fastapi.exceptions import HTTPException

LARGEST_FILE = 6_000_000
"""A saved page with all its scripts is about half of this; a formula file of 500 lines under a hundredth. [bytes]"""


async def _file(request: Request) -> bytes:
    """The body as it came, so that a broken file can be told where it is broken."""
    data = b""
    async for chunk in request.stream():
        data += chunk
        if len(data) > LARGEST_FILE:
            raise HTTPException(413, "The file is over 6 MB, too large for a recipe. Is it the right one?")
    return data


FileBody = Annotated[bytes, Depends(_file)]
