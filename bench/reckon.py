"""The Count endpoint against an empty endpoint of the same server in the same run, and the core alone.

On a plain formula of 30 lines, as in the first slice, and on one of 60 lines in 6 stages that feed each other.

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
from pancount.core.formula import Feed, Formula, Line, Role, Stage, StageKind
from pancount.core.pan import RectanglePan
from pancount.core.pantry import pantry, pantry_with
from pancount.core.practice import Practice
from pancount.core.whole import whole_count

REQUESTS = 2000
ROUNDS = 5
"""The two endpoints take turns, so that what else the machine does falls on both."""

PLAIN = Formula(
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
ROLES = {item.name: item.role for item in pantry()}
KINDS = (StageKind.LEVAIN, StageKind.LEVAIN, StageKind.PASTE, StageKind.SOAKER, StageKind.DOUGH, StageKind.INCLUSIONS)
NAMES = ("Whole milk", "Water", "Egg", "Butter", "Sugar", "Fine salt", "Instant yeast", "Honey", "Squash, mashed")
DEEP = Formula(
    name="Sixty lines",
    stages=tuple(
        Stage(
            name=f"Stage {s}",
            kind=kind,
            key=f"s{s}",
            feeds=(Feed(into="s1"),) if s == 0 else (Feed(into="s4", share=0.9),) if s == 1 else (),
            boiled_off=0.06 if kind is StageKind.PASTE else 0,
            lines=(
                Line(name="Bread flour", role=Role.FLOUR, weight_g=300),
                *(Line(name=name, role=ROLES[name], percent=7.3) for name in NAMES),
            ),
        )
        for s, kind in enumerate(KINDS)
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
    for formula in (PLAIN, DEEP):
        for name, count in COUNTS.items():
            measure(port, f"{formula.name}, {name}", formula, count)
    server.terminate()


def measure(port: int, name: str, formula: Formula, count: Count) -> None:
    """One formula and count: the core alone, and the endpoint against the empty one."""
    body = json.dumps({"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")}).encode()
    empty, counted = poster(port, "/api/empty", b""), poster(port, "/api/reckon/count", body)
    empties: list[float] = []
    counts: list[float] = []
    for _ in range(ROUNDS):
        for post, times in ((empty, empties), (counted, counts)):
            for _ in range(50):
                post()
            times.extend(post() for _ in range(REQUESTS // ROUNDS))
    (e50, e99), (c50, c99) = told(empties), told(counts)
    reckoned = lambda: whole_count(formula, count, pantry_with(()), Practice())  # what is timed
    runs = min(timeit.repeat(reckoned, number=100, repeat=5)) / 100 * 1e6
    print(f"{name}: core {runs:.0f} µs")
    print(f"  empty p50 {e50:.2f} ms, p99 {e99:.2f} ms; count p50 {c50:.2f} ms, p99 {c99:.2f} ms")
    print(f"  ratio p50 {c50 / e50:.2f}, p99 {c99 / e99:.2f}")


if __name__ == "__main__":
    main()
