"""The kitchen's records, for one request: a transaction at a time, off the event loop.

Never more at once than there are connections; past that a short wait, then 503. A handler that is given up (the database
is frozen) keeps its place until it ends, so that those who come after are told at once and nothing piles up.
"""

import asyncio
from collections.abc import Callable
from typing import Annotated, Concatenate, ParamSpec, TypeVar

import anyio
from anyio import CapacityLimiter, to_thread
from fastapi import Depends, Request
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from pancount.api.busy import Busy
from pancount.store.database import CONNECTIONS, transaction
from pancount.store.errors import Away
from pancount.store.kitchen import ONLY_KITCHEN

QUEUE_S = 1.0
"""How long to wait for a place. [s]"""
ANSWER_S = 3.5
"""How long a transaction may take before its caller is told that the records are away. [s]"""

P = ParamSpec("P")
T = TypeVar("T")


class Places:
    """As many transactions at once, in this process, as there are connections."""

    def __init__(self, engine: Engine | None) -> None:
        self.engine = engine
        self._free = asyncio.Semaphore(CONNECTIONS)
        self._threads = CapacityLimiter(CONNECTIONS)
        self._given_up = 0

    async def run(self, work: Callable[[Session], T]) -> T:
        """`work` in a transaction of its own, committed before this returns. Raises `Busy`, `Away`, and what `work` raises."""
        assert self.engine is not None  # only the description of the API is made without one
        engine, loop = self.engine, asyncio.get_running_loop()
        try:
            async with asyncio.timeout(QUEUE_S):
                await self._free.acquire()
        except TimeoutError:
            raise (Away() if self._given_up else Busy()) from None
        left = False

        def done() -> None:
            self._free.release()
            self._given_up -= left

        def in_transaction() -> T:
            try:
                with transaction(engine) as session:
                    done_so_far = work(session)
                    if left:
                        raise Away  # its caller was told so: what is sent again must not be there twice
                    return done_so_far
            finally:
                loop.call_soon_threadsafe(done)

        try:
            with anyio.fail_after(ANSWER_S):
                return await to_thread.run_sync(in_transaction, abandon_on_cancel=True, limiter=self._threads)
        except TimeoutError:
            left = True
            self._given_up += 1
            raise Away from None


class Records:
    """What a route asks of the store: `await records(store.get_formula, formula_id)`."""

    def __init__(self, request: Request) -> None:
        self._places: Places = request.app.state.places
        self.kitchen_id = ONLY_KITCHEN
        """The kitchen that is asking."""

    async def __call__(self, work: Callable[Concatenate[Session, int, P], T], *args: P.args, **kwargs: P.kwargs) -> T:
        """One function of the store, in a transaction of its own for the kitchen that asks: once this returns, it is kept."""
        return await self._places.run(lambda session: work(session, self.kitchen_id, *args, **kwargs))


RecordsOf = Annotated[Records, Depends(Records)]
