"""Long work (a paper, a file, a change of a large formula) in a process of its own.

There nothing waits for it, only so much of it is done at once, and it can be ended: when its client leaves, when it takes
too long, and when the application stops. The processes start when they are first needed and end when they rest.
"""

import asyncio
from collections.abc import Callable
from contextlib import suppress
from typing import TypeVar, TypeVarTuple

import anyio
from anyio import BrokenWorkerProcess, CapacityLimiter, to_process, to_thread
from fastapi import Request

from pancount.api.busy import Busy
from pancount.core.count.count import Count
from pancount.core.formula.formula import Formula, everything
from pancount.formats.paper import load_papers

AT_ONCE = 1
"""Of each application process."""
WAITING = 6
"""How many may stand behind the one being done."""
LONG_S = 15.0
"""How long a client waits for it at most, its turn and a new process included. [s]"""

to_process.WORKER_MAX_IDLE_TIME = 1800

T = TypeVar("T")
Ts = TypeVarTuple("Ts")


class Bench:
    """Where long work is done for this application process."""

    def __init__(self) -> None:
        self._turns, self._processes = CapacityLimiter(AT_ONCE), CapacityLimiter(AT_ONCE)
        self._quick = CapacityLimiter(1)
        self._readying: asyncio.Task[None] | None = None

    async def run(self, request: Request, work: Callable[[*Ts], T], *args: *Ts) -> T:
        """`work`, a plain function of a module, with its arguments, once a process is there that has loaded what papers need.

        Raises `Busy` and what `work` raises.
        """
        if self._turns.statistics().tasks_waiting >= WAITING:
            raise Busy
        found: list[T] = []
        failed: list[Exception] = []

        async def do() -> None:
            try:
                async with self._turns:
                    with anyio.CancelScope(shield=True):  # a process that was given up while it begins would be left behind
                        await to_process.run_sync(load_papers, limiter=self._processes)
                    found.append(await to_process.run_sync(work, *args, cancellable=True, limiter=self._processes))
            except Exception as error:
                failed.append(error)  # raised below as itself: a group would hide it from the handlers of errors
            tasks.cancel_scope.cancel()

        async def watch() -> None:
            while (await request.receive())["type"] != "http.disconnect":
                pass
            tasks.cancel_scope.cancel()

        with anyio.move_on_after(LONG_S):
            async with anyio.create_task_group() as tasks:
                tasks.start_soon(do)
                tasks.start_soon(watch)
        if failed:
            raise failed[0]
        if not found:
            raise Busy("This took too long and was ended. Nothing was changed; try again in a moment.")
        return found[0]

    def get_ready(self) -> None:
        """Have a process begun, with what papers need in it, while the baker still looks at the screen: it takes seconds."""
        if self._readying is None or self._readying.done():
            self._readying = asyncio.create_task(self._ready())

    async def _ready(self) -> None:
        with suppress(BrokenWorkerProcess):
            async with self._turns:
                await to_process.run_sync(load_papers, limiter=self._processes)

    async def quickly(self, work: Callable[[*Ts], T], *args: *Ts) -> T:
        """`work` that is soon done, in a thread: one at a time, since they would only get in each other's way."""
        return await to_thread.run_sync(work, *args, limiter=self._quick)


QUICK_TEXT, QUICK_BYTES, QUICK_LINES, QUICK_TARGETS, QUICK_STEPS = 12_000, 200_000, 40, 4, 40
"""Up to these a text [characters] and a file [bytes] are read in about 0.1 s, a formula and a count reckoned in a tenth of that."""


def is_large(formula: Formula, count: Count | None = None) -> bool:
    """Whether a formula and a count are larger than what is usual."""
    lines = sum(len(stage.lines) for stage in everything(formula))
    steps = max((len(way.steps) for way in formula.ways), default=0)
    return lines > QUICK_LINES or steps > QUICK_STEPS or (count is not None and len(count.targets) + len(count.limits) > QUICK_TARGETS)


async def off_loop(request: Request, work: Callable[[*Ts], T], *args: *Ts, heavy: bool = False) -> T:
    """`work` off the event loop: what may take most of a second in a process of its own, else in a thread, one after the other."""
    bench: Bench = request.app.state.bench
    if heavy:
        return await bench.run(request, work, *args)
    return await bench.quickly(work, *args)
