"""Planning a day in a process of its own: begun before it is asked for, told line by line, ended with its client.

One plan at a time in each application process. A process that waits for the next question is kept ready, since beginning one takes most of a second.
"""

import asyncio
import os
import sys
from asyncio.subprocess import PIPE, Process
from collections.abc import AsyncGenerator, AsyncIterator
from contextlib import suppress

from pancount.api.busy import Busy
from pancount.api.planner import Question
from pancount.core.day.plan import Asked

COUNTED, SECONDS = 6.0, 12.0
"""How hard a day is looked at: work of the solver, counted, and its time behind that. [s]"""
TURN_S = 3.0
"""How long a plan waits for the one before it to end. [s]"""
LINE_BYTES = 8_000_000
"""A timetable of twelve products with all their loads, told."""
QUIET_S = 30.0
"""A process that says nothing for so long is given up. [s]

One whose application has gone reads the end of what it is sent, and ends as well."""


class Planners:
    """The processes that plan, of this application process."""

    def __init__(self, counted: float = COUNTED, seconds: float = SECONDS) -> None:
        self._effort = counted, seconds
        self._turn = asyncio.Semaphore(1)
        self._ready: Process | None = None
        self._at_work: set[Process] = set()
        self._readying: asyncio.Task[None] | None = None
        self._closed = False

    async def close(self) -> None:
        """End what waits and what is at work: the application stops, and would wait for it."""
        self._closed = True
        if self._readying is not None:
            await self._readying
        for process in (self._ready, *self._at_work):
            if process is not None and process.returncode is None:
                with suppress(ProcessLookupError):
                    process.kill()
                await process.wait()

    async def _begin(self) -> Process:
        environment = os.environ | {"OMP_NUM_THREADS": "1", "OPENBLAS_NUM_THREADS": "1"}
        return await asyncio.create_subprocess_exec(
            sys.executable, "-m", "pancount.api.planner", stdin=PIPE, stdout=PIPE, limit=LINE_BYTES, env=environment, start_new_session=True
        )

    def get_ready(self) -> None:
        """Have a process waiting, while the baker still looks at the screen."""
        if self._closed:
            return
        if self._readying is None or (self._readying.done() and (self._ready is None or self._ready.returncode is not None)):
            self._readying = asyncio.create_task(self._keep_ready())

    async def _keep_ready(self) -> None:
        if self._ready is None or self._ready.returncode is not None:
            self._ready = await self._begin()

    async def _taken(self) -> Process:
        if self._readying is not None:
            await self._readying
        ready, self._ready = self._ready, None
        return ready if ready is not None and ready.returncode is None else await self._begin()

    async def plan(self, asked: Asked) -> AsyncIterator[bytes]:
        """A line of JSON for each timetable, as it is found. Raises `Busy` where another is still being planned.

        The first is waited for here: lines that have begun are ended even where nobody asks for one of them.
        """
        try:
            async with asyncio.timeout(TURN_S):
                await self._turn.acquire()
        except TimeoutError:
            raise Busy from None
        lines = self._lines(asked)
        return _with_first(await anext(lines, b""), lines)

    async def _lines(self, asked: Asked) -> AsyncGenerator[bytes]:
        process = None
        try:
            process = await self._taken()
            self._at_work.add(process)
            assert process.stdin is not None and process.stdout is not None
            counted, seconds = self._effort
            process.stdin.write(Question(asked=asked, counted=counted, seconds=seconds).model_dump_json().encode() + b"\n")
            await process.stdin.drain()
            while True:
                async with asyncio.timeout(QUIET_S):
                    line = await process.stdout.readline()
                if not line:
                    break
                yield line
        except (TimeoutError, ConnectionError, ValueError):
            yield b'{"stage":"failed"}\n'
        finally:
            self._turn.release()
            self.get_ready()
            if process is not None:
                self._at_work.discard(process)
                if process.returncode is None:
                    with suppress(ProcessLookupError):
                        process.kill()


async def _with_first(first: bytes, lines: AsyncGenerator[bytes]) -> AsyncIterator[bytes]:
    """Lines of which the first is there."""
    try:
        if first:
            yield first
        async for line in lines:
            yield line
    finally:
        await lines.aclose()
