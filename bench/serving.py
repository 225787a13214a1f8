"""The application served in a process of its own, with an endpoint that does nothing to hold others against."""

import http.client
import statistics
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from multiprocessing import Pipe, Process
from multiprocessing.connection import Connection

import uvicorn

from pancount.api.app import make_app
from pancount.serving import listening, warm

REQUESTS = 2000
ROUNDS = 5
"""The two endpoints take turns, so that what else the machine does falls on both."""


def serve(connection: Connection) -> None:
    """The application with one more endpoint that does nothing, in a process of its own; tells its port."""
    app = make_app(None, None)

    @app.post("/api/empty")
    async def empty() -> None:
        """Nothing."""

    warm()
    listener = listening(0)
    connection.send(listener.getsockname()[1])
    uvicorn.Server(uvicorn.Config(app, log_level="error", timeout_keep_alive=60)).run(sockets=[listener])


def poster(port: int, path: str, body: bytes) -> Callable[[], float]:
    """Posts once over a kept connection and gives the time taken. [ms]"""
    connection = http.client.HTTPConnection("127.0.0.1", port)

    def post() -> float:
        start = time.perf_counter()
        connection.request("POST", path, body, {"Content-Type": "application/json"})
        answer = connection.getresponse()
        answer.read()
        assert answer.status == 200, answer.status
        return (time.perf_counter() - start) * 1000

    return post


def told(times: list[float]) -> tuple[float, float]:
    """p50 and p99."""
    cuts = statistics.quantiles(times, n=100)
    return cuts[49], cuts[98]


@contextmanager
def served() -> Iterator[int]:
    """The port of a running application."""
    ours, theirs = Pipe()
    server = Process(target=serve, args=(theirs,), daemon=True)
    server.start()
    try:
        port = ours.recv()
        time.sleep(1)
        yield port
    finally:
        server.terminate()


def against_empty(port: int, path: str, body: bytes) -> tuple[tuple[float, float], tuple[float, float]]:
    """p50 and p99 of the empty endpoint, and of ours, in turns. [ms]"""
    empty, ours = poster(port, "/api/empty", b""), poster(port, path, body)
    empties: list[float] = []
    times: list[float] = []
    for _ in range(ROUNDS):
        for post, taken in ((empty, empties), (ours, times)):
            for _ in range(50):
                post()
            taken.extend(post() for _ in range(REQUESTS // ROUNDS))
    return told(empties), told(times)
