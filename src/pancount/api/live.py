"""What happens at the bench, told to every device as it happens: PostgreSQL says that there is something new, whoever listens gets it.

A process listens once, fetches what is new once, and keeps the last of it; each device is told from there, on from the number it saw last. Where
the database was away, everyone is told what came meanwhile.
"""

import asyncio
from collections import deque
from collections.abc import AsyncIterator
from contextlib import suppress

import psycopg
from sqlalchemy import Engine

from pancount.api.busy import Busy
from pancount.api.records import Places
from pancount.store.bench import Told, last_number, told_after
from pancount.store.errors import Away

CHANNEL = "bench"
KEPT = 2_000
"""So much of what happened last is kept here. [events]"""
AT_ONCE = 500
"""Fetched at once. [events]"""
LISTENERS = 150
"""Devices that listen to one process."""
ALIVE_S = 10.0
"""A device that hears nothing for so long is told that all is well. [s]"""
AGAIN_S = 0.3


class _Kitchen:
    """What happened last in one kitchen."""

    def __init__(self, last: int) -> None:
        self.last = last
        self.told: deque[Told] = deque(maxlen=KEPT)
        self.changed = asyncio.Event()
        self.fetching = asyncio.Lock()

    def since(self, number: int) -> list[Told] | None:
        """What came after a number; None where that is longer ago than what is kept."""
        if number >= self.last:
            return []
        if not self.told or self.told[0].number > number + 1:
            return None
        return [one for one in self.told if one.number > number]

    def wake(self) -> None:
        self.changed.set()
        self.changed = asyncio.Event()


class Live:
    """Who listens to the bench in this process."""

    def __init__(self, engine: Engine | None, places: Places) -> None:
        self._address = None if engine is None else engine.url.set(drivername="postgresql").render_as_string(hide_password=False)
        self._places = places
        self._kitchens: dict[int, _Kitchen] = {}
        self._listening: asyncio.Task[None] | None = None
        self._closed = False
        self._followers = 0

    async def close(self) -> None:
        """Let everyone go: the application stops."""
        self._closed = True
        for kitchen in self._kitchens.values():
            kitchen.wake()
        if self._listening is not None:
            self._listening.cancel()
            with suppress(asyncio.CancelledError):
                await self._listening

    async def _listen(self) -> None:
        """Hear of what is new for as long as this runs, whatever becomes of the database."""
        assert self._address is not None
        while True:
            try:
                async with await psycopg.AsyncConnection.connect(self._address, autocommit=True, connect_timeout=2) as connection:
                    await connection.execute(f"LISTEN {CHANNEL}")
                    for number in list(self._kitchens):
                        await self._fetch(number)
                    async for told in connection.notifies():
                        kitchen_id = int(told.payload.partition(" ")[0])
                        if kitchen_id in self._kitchens:
                            await self._fetch(kitchen_id)
            except (psycopg.Error, OSError, Away, Busy):
                await asyncio.sleep(AGAIN_S)

    async def _fetch(self, kitchen_id: int) -> None:
        kitchen = self._kitchens[kitchen_id]
        async with kitchen.fetching:
            while True:
                new = await self._places.run(lambda session: told_after(session, kitchen_id, kitchen.last, AT_ONCE))
                if not new:
                    return
                kitchen.told.extend(new)
                kitchen.last = new[-1].number
                kitchen.wake()

    async def _kitchen(self, kitchen_id: int) -> _Kitchen:
        if kitchen_id not in self._kitchens:
            last = await self._places.run(lambda session: last_number(session, kitchen_id))
            self._kitchens.setdefault(kitchen_id, _Kitchen(last))
            if self._listening is not None:
                await self._fetch(kitchen_id)
        if self._listening is None or self._listening.done():
            self._listening = asyncio.create_task(self._listen())
        return self._kitchens[kitchen_id]

    async def begin(self, kitchen_id: int, after: int | None) -> AsyncIterator[list[Told]]:
        """What happens from now on, or after a number; an empty list from time to time. Raises `Busy` where too many listen, and `Away`."""
        if self._followers >= LISTENERS:
            raise Busy("Too many devices listen to the bench.")
        kitchen = await self._kitchen(kitchen_id)
        return self._follow(kitchen_id, kitchen, kitchen.last if after is None else after)

    async def _follow(self, kitchen_id: int, kitchen: _Kitchen, number: int) -> AsyncIterator[list[Told]]:
        self._followers += 1
        try:
            yield []
            while not self._closed:
                changed, since = kitchen.changed, number
                new = kitchen.since(since)
                if new is None:
                    try:
                        new = list(await self._places.run(lambda session, since=since: told_after(session, kitchen_id, since, AT_ONCE)))  # type: ignore[misc]
                    except (Away, Busy):
                        await asyncio.sleep(AGAIN_S)
                        continue
                if new:
                    number = new[-1].number
                    yield new
                    continue
                with suppress(TimeoutError):
                    async with asyncio.timeout(ALIVE_S):
                        await changed.wait()
                        continue
                yield []
        finally:
            self._followers -= 1
