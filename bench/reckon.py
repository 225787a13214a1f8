"""The Count endpoint against an empty endpoint of the same server in the same run, and the core alone.

Run: PYTHONPATH=src .venv/bin/python bench/reckon.py
"""

import http.client
import json
import statistics
import time
import timeit
from collections.abc import Callable
from multiprocessing import Pipe, Process
from multiprocessing.connection import Connection

import uvicorn

from pancount.api.app import make_app
from pancount.cli import listening
from pancount.core.count import Count, Pins
from pancount.core.formula import Formula, Line, Role, Stage
from pancount.core.pan import RectanglePan
from pancount.core.whole import whole_count

REQUESTS = 2000
ROUNDS = 5
"""The two endpoints take turns, so that what else the machine does falls on both."""

FORMULA = Formula(
    name="Thirty lines",
    stages=tuple(
        Stage(
            name=f"Stage {s}",
            lines=(
                Line(name="Bread flour", role=Role.FLOUR, weight_g=300),
                *(Line(name=f"Line {n}", role=Role.LIQUID, percent=7.3) for n in range(9)),
            ),
        )
        for s in range(3)
    ),
)
PAN = RectanglePan(name="Rimmed pan", length_cm=33, width_cm=23, depth_cm=4.6)
COUNTS = {
    "pieces and pans pinned": Count(pins=Pins(pieces=24, pans=2), pan=PAN),
    "with a remainder and its choices": Count(pins=Pins(divide_g=1290, piece_g=75), pan=PAN),
    "with pins that fight": Count(pins=Pins(flour_g=1000, pieces=24, piece_g=40), pan=PAN),
}


def serve(connection: Connection) -> None:
    """The application with one more endpoint that does nothing, in a process of its own; tells its port."""
    app = make_app(None, None)

    @app.post("/api/empty")
    async def empty() -> None:
        """Nothing."""

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


def main() -> None:
    ours, theirs = Pipe()
    server = Process(target=serve, args=(theirs,), daemon=True)
    server.start()
    port = ours.recv()
    time.sleep(1)
    for name, count in COUNTS.items():
        body = json.dumps({"formula": FORMULA.model_dump(mode="json"), "count": count.model_dump(mode="json")}).encode()
        empty, counted = poster(port, "/api/empty", b""), poster(port, "/api/reckon/count", body)
        empties: list[float] = []
        counts: list[float] = []
        for _ in range(ROUNDS):
            for post, times in ((empty, empties), (counted, counts)):
                for _ in range(50):
                    post()
                times.extend(post() for _ in range(REQUESTS // ROUNDS))
        (e50, e99), (c50, c99) = told(empties), told(counts)
        runs = min(timeit.repeat(lambda count=count: whole_count(FORMULA, count), number=300, repeat=5)) / 300 * 1e6
        print(f"{name}: core {runs:.0f} µs")
        print(f"  empty p50 {e50:.2f} ms, p99 {e99:.2f} ms; count p50 {c50:.2f} ms, p99 {c99:.2f} ms")
        print(f"  ratio p50 {c50 / e50:.2f}, p99 {c99 / e99:.2f}")
    server.terminate()


if __name__ == "__main__":
    main()
