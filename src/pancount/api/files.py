"""Files as they come in."""

from typing import Annotated

from fastapi import Depends, Request


async def _file(request: Request) -> bytes:
    """The body as it came, so that a broken file can be told where it is broken. The door has seen to its size."""
    return await request.body()


FileBody = Annotated[bytes, Depends(_file)]
