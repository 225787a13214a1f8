"""The application as it runs: some processes that answer at one address, and one that keeps them and the database alive."""

import ctypes
import gc
import multiprocessing
import os
import signal
import socket
import sys
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from multiprocessing.context import ForkProcess
from multiprocessing.sharedctypes import Synchronized
from pathlib import Path
from threading import Thread
from types import ModuleType

import uvicorn
from fastapi import FastAPI
from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol

from pancount.api.app import let_go, make_app
from pancount.api.devices import DeviceAt
from pancount.core.pantry.measures import measures
from pancount.core.taking.vocabulary import shipped_names
from pancount.store.cluster import Cluster, ClusterTrouble
from pancount.store.database import connect

PROCESSES = min(2, os.cpu_count() or 1)
HEAD_S, HEAD_BYTES = 10, 132_000
"""How long the head of a request may take to arrive [s], and how large it may be, with what came with it [bytes]."""
CONNECTIONS_AT_ONCE = 400
"""Of each process; past them it says 503."""
SWITCH_S = 0.001
"""How long a thread may keep the others from running: what answers must not wait for those that are at work. [s]"""
STOP_S = 3
"""How long requests under way may go on when the application stops. [s]"""
STUCK_S = 30
"""A process that has not moved for so long is ended and begun anew. [s]"""
START_S = 60
LOOK_EVERY_S = 0.5
LONGEST_PAUSE_S = 30.0


def listening(port: int, *, shared: bool = False) -> socket.socket:
    """A socket on loopback, shared between our processes or not. Raises `ClusterTrouble` where the port is taken or not allowed."""
    # Named as TCP, since asyncio turns off Nagle's waiting (40 ms an answer) only where it can see that it is.
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    if shared:
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEPORT, 1)
    try:
        listener.bind(("127.0.0.1", port))
    except (OSError, OverflowError) as error:
        listener.close()
        why = error.strerror if isinstance(error, OSError) else "no such port"
        raise ClusterTrouble(
            f"Port {port} cannot be had ({why}). Cure: stop what uses it, or choose another with --port."
        ) from error
    return listener


def warm() -> None:
    """Load what the first recipe would wait for: units, words and names. They stay, so nothing need look whether they are
    garbage: that looking is a pause of 50 ms and more in the middle of a request."""
    measures()
    shipped_names()
    gc.freeze()


class Impatient(HttpToolsProtocol):
    """HTTP that does not wait for ever for the head of a request, nor takes one without end."""

    def __init__(self, *args: object, **kwargs: object) -> None:
        super().__init__(*args, **kwargs)  # type: ignore[arg-type]
        self._waiting: object | None = None
        self._head_bytes = 0
        self._in_head = True

    def connection_made(self, transport: object) -> None:
        super().connection_made(transport)  # type: ignore[arg-type]
        self._begin_waiting()

    def _begin_waiting(self) -> None:
        self._in_head, self._head_bytes = True, 0
        self._waiting = self.loop.call_later(HEAD_S, self._give_up)

    def _stop_waiting(self) -> None:
        if self._waiting is not None:
            self._waiting.cancel()  # type: ignore[attr-defined]
            self._waiting = None

    def _give_up(self) -> None:
        if self._in_head and not self.transport.is_closing():
            self.transport.abort()

    def data_received(self, data: bytes) -> None:
        if self._in_head:
            if self._waiting is None:
                self._begin_waiting()
            self._head_bytes += len(data)
            if self._head_bytes > HEAD_BYTES:
                self.transport.abort()
                return
        super().data_received(data)

    def on_headers_complete(self) -> None:
        self._in_head = False
        self._stop_waiting()
        super().on_headers_complete()

    def on_message_complete(self) -> None:
        self._in_head, self._head_bytes = True, 0
        super().on_message_complete()

    def connection_lost(self, exc: Exception | None) -> None:
        self._stop_waiting()
        super().connection_lost(exc)


STOPS = (signal.SIGTERM, signal.SIGINT)
"""What stops the application: a plain kill, and an interrupt, even where a shell that began it in the background made it deaf to one."""


@dataclass(frozen=True)
class Place:
    """What a process needs to know to answer."""

    url: str
    port: int
    hosts: tuple[str, ...]
    folder: Path | None
    """Where the records lie, if they are our own."""
    devices: tuple[DeviceAt, ...] = ()
    """Simulated ones."""


def _die_with_parent() -> None:
    """End when the process that began this one ends, even by `kill -9`: it would hold the port. Linux."""
    set_death_signal = 1  # PR_SET_PDEATHSIG of <linux/prctl.h>
    ctypes.CDLL(None).prctl(set_death_signal, signal.SIGTERM)


class _Server(uvicorn.Server):
    """Shows that it moves, by the time of its last step."""

    def __init__(self, config: uvicorn.Config, app: FastAPI, moved: "Synchronized[float]") -> None:
        super().__init__(config)
        self._app = app
        self._moved = moved

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        await let_go(self._app)
        await super().shutdown(sockets)

    async def on_tick(self, counter: int) -> bool:
        if self.started:
            self._moved.value = time.monotonic()
        return await super().on_tick(counter)


def _answer(place: Place, moved: "Synchronized[float]") -> None:
    """One process: the whole application, until it is told to stop."""
    _die_with_parent()
    for what in STOPS:
        signal.signal(what, signal.SIG_DFL)  # until uvicorn has its own
    sys.modules["__main__"] = ModuleType("__main__")  # a process for long work would load the command line's again
    engine = connect(place.url)
    app = make_app(engine, hosts=place.hosts, folder=place.folder, devices_at=place.devices)
    config = uvicorn.Config(
        app,
        http=Impatient,
        ws="none",
        log_level="warning",
        access_log=False,
        server_header=False,
        timeout_keep_alive=60,
        timeout_graceful_shutdown=STOP_S,
        limit_concurrency=CONNECTIONS_AT_ONCE,
    )
    Thread(target=warm, daemon=True).start()
    sys.setswitchinterval(SWITCH_S)
    with listening(place.port, shared=True) as listener:
        _Server(config, app, moved).run(sockets=[listener])
    engine.dispose()
    os._exit(0)  # a thread that waits for a frozen database would keep it


class Pause:
    """Growing pauses between tries at something that fails."""

    def __init__(self) -> None:
        self._s = 0.0
        self._until = 0.0

    def is_over(self) -> bool:
        return time.monotonic() >= self._until

    def failed(self) -> None:
        self._s = min(LONGEST_PAUSE_S, self._s * 2 or 1.0)
        self._until = time.monotonic() + self._s

    def worked(self) -> None:
        self._s = self._until = 0.0


class _Worker:
    """A process that answers, begun again whenever it ends or is stuck."""

    def __init__(self, place: Place) -> None:
        self._place = place
        self._pause = Pause()
        self._context = multiprocessing.get_context("fork")
        self.begin()

    def begin(self) -> None:
        self._moved: Synchronized[float] = self._context.Value("d", 0.0, lock=False)
        self._began = time.monotonic()
        process = self._context.Process(target=_answer, args=(self._place, self._moved))
        process.start()
        self.process: ForkProcess = process

    @property
    def ready(self) -> bool:
        return self._moved.value > 0

    def look(self) -> None:
        now = time.monotonic()
        if self.process.is_alive():
            if now - max(self._moved.value, self._began) > STUCK_S:
                self.process.kill()
            elif now - self._began > LONGEST_PAUSE_S:
                self._pause.worked()
        elif self._pause.is_over():
            print("A process of Pan Count ended and is begun again.", file=sys.stderr, flush=True)
            self._pause.failed()
            with suppress(OSError):  # no room for another process now; it is tried again
                self.begin()

    def stop(self) -> None:
        self.process.terminate()
        self.process.join(STOP_S + 2)
        if self.process.is_alive():
            self.process.kill()
            self.process.join()


class Watch:
    """Starts the database again where it stopped, with growing pauses, and says so once."""

    def __init__(self, cluster: Cluster) -> None:
        self._cluster = cluster
        self._pause = Pause()
        self._told = ""

    def look(self) -> None:
        if self._cluster.is_up():
            self._pause.worked()
            if self._told:  # it was said not to start, and is up after all
                self._again()
            return
        if not self._pause.is_over():
            return
        try:
            self._cluster.start()
        except (ClusterTrouble, OSError) as trouble:
            self._pause.failed()
            if str(trouble) != self._told:
                self._told = str(trouble)
                print(f"The database stopped and cannot be started yet: {trouble}", file=sys.stderr, flush=True)
        else:
            self._again()

    def _again(self) -> None:
        self._told = ""
        print("The database stopped, and was started again.", file=sys.stderr, flush=True)


def serve(place: Place, watch: Watch | None, told: Callable[[], None]) -> None:
    """Run until stopped. `told` is called once it answers; everything begun here ends with it."""
    listening(place.port).close()  # shared, a second Pan Count would take half of what comes in
    workers = [_Worker(place) for _ in range(PROCESSES)]
    try:
        begun = time.monotonic()
        while not all(worker.ready for worker in workers):
            if time.monotonic() - begun > START_S or not any(worker.process.is_alive() for worker in workers):
                raise ClusterTrouble("Pan Count did not start. Cure: see what it said above, then start again.")
            for worker in workers:
                worker.look()
            time.sleep(0.02)
        told()
        while True:
            time.sleep(LOOK_EVERY_S)
            for worker in workers:
                worker.look()
            if watch is not None:
                watch.look()
    finally:
        for what in STOPS:
            signal.signal(what, signal.SIG_IGN)  # it is stopping: a second one would leave the database behind
        for worker in workers:
            worker.process.terminate()
        for worker in workers:
            worker.stop()
