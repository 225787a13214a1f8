"""A way between a device and the application that can be cut: the network of a kitchen."""

import asyncio
import contextlib
import threading


class Relay:
    """Passes bytes on from a port of its own to the application's, until it is cut."""

    def __init__(self, port: int) -> None:
        self._to, self._open = port, True
        self._writers: set[asyncio.StreamWriter] = set()
        self._loop = asyncio.new_event_loop()
        self._thread = threading.Thread(target=self._run, daemon=True)
        self._ready = threading.Event()
        self._thread.start()
        self._ready.wait()

    def _run(self) -> None:
        asyncio.set_event_loop(self._loop)
        self._server = self._loop.run_until_complete(asyncio.start_server(self._pass, "127.0.0.1", 0))
        self.port = self._server.sockets[0].getsockname()[1]
        self._ready.set()
        self._loop.run_forever()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    async def _pass(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        if not self._open:
            writer.transport.abort()
            return
        try:
            from_app, to_app = await asyncio.open_connection("127.0.0.1", self._to)
        except OSError:
            writer.transport.abort()
            return
        ends = {writer, to_app}
        self._writers |= ends
        await asyncio.gather(self._copy(reader, to_app), self._copy(from_app, writer))
        self._writers -= ends

    async def _copy(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        with contextlib.suppress(OSError):
            while data := await reader.read(65_536):
                writer.write(data)
                await writer.drain()
        writer.close()

    def cut(self) -> None:
        """No connection holds, and none is made."""

        def now() -> None:
            self._open = False
            for writer in self._writers:
                writer.transport.abort()

        self._loop.call_soon_threadsafe(now)

    def mend(self) -> None:
        """It passes on again."""
        self._loop.call_soon_threadsafe(lambda: setattr(self, "_open", True))

    def close(self) -> None:
        """Nothing of it is left."""

        async def end() -> None:
            self._server.close()
            for writer in self._writers:
                writer.transport.abort()
            for task in asyncio.all_tasks() - {asyncio.current_task()}:
                task.cancel()

        asyncio.run_coroutine_threadsafe(end(), self._loop).result()
        self._loop.call_soon_threadsafe(self._loop.stop)
        self._thread.join()
        self._loop.close()
