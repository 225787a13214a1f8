"""Many bakers at once on a running application: each types, keeps, reads and prints as a baker does, and at other moments.

p50, p95 and p99 of each kind of request, and what was not answered with success, beside an answer that is nothing but a
small file of the same server in the same run.

Run beside ./pancount demo --fresh: PYTHONPATH=src .venv/bin/python bench/load.py http://127.0.0.1:8137 [clients ...]
"""

import asyncio
import json
import random
import statistics
import sys
import time
import urllib.request
from collections import defaultdict

import uvloop

SECONDS = 15
KEY_S = 1.0
"""Between changes, of somebody who works without a pause: a count is asked for with each."""
EVERY = {"keep": 3, "read": 40, "sheet": 60, "paper": 400, "empty": 8}
"""One of each for so many keys: a pause in which it is kept; a formula opened; its sheet; its PDF; the small file."""


class Client:
    """One baker's window: a connection that stays, and a formula of their own."""

    def __init__(self, host: str, port: int, formula: dict, found: dict[str, list[float]], failed: dict[str, int]) -> None:
        self.host, self.port, self.formula, self.found, self.failed = host, port, formula, found, failed
        self.marks: dict[str, str] = {}
        self.reader: asyncio.StreamReader | None = None

    async def ask(self, kind: str, method: str, path: str, body: object = None, timed: bool = True) -> bytes:
        if self.reader is None:
            self.reader, self.writer = await asyncio.open_connection(self.host, self.port)
        data = b"" if body is None else json.dumps(body).encode()
        head = f"{method} {path} HTTP/1.1\r\nHost: {self.host}:{self.port}\r\nAccept-Encoding: gzip\r\n"
        if mark := self.marks.get(path):
            head += f"If-None-Match: {mark}\r\n"
        if data:
            head += f"Content-Type: application/json\r\nContent-Length: {len(data)}\r\n"
        start = time.perf_counter()
        try:
            self.writer.write(head.encode() + b"\r\n" + data)
            answer = (await self.reader.readuntil(b"\r\n\r\n")).decode().lower()
            told = dict(line.split(": ", 1) for line in answer.split("\r\n")[1:] if ": " in line)
            if told.get("transfer-encoding") == "chunked":
                content = b""
                while size := int(await self.reader.readline(), 16):
                    content += await self.reader.readexactly(size)
                    await self.reader.readexactly(2)
                await self.reader.readexactly(2)
            else:
                content = await self.reader.readexactly(int(told.get("content-length", 0)))
            self.status = status = int(answer.split(" ")[1])
        except (OSError, asyncio.IncompleteReadError):
            self.reader, status, content = None, 0, b""
        if timed:
            self.found[kind].append((time.perf_counter() - start) * 1000)
            if status not in (200, 304):
                self.failed[f"{kind} {status}"] += 1
        if etag := told.get("etag") if status == 200 else None:
            self.marks[path] = etag
        return content

    async def begin(self) -> None:
        made = await self.ask("", "POST", "/api/formulas", {"formula": self.formula["formula"], "count": self.formula["count"]}, timed=False)
        state = json.loads(made if made[:1] == b"{" else __import__("gzip").decompress(made))
        self.at, self.version = state["head"]["id"], state["version"]

    async def type_on(self, until: float, rng: random.Random) -> None:
        await asyncio.sleep(rng.random() * KEY_S)
        n = rng.randrange(400)
        lines = self.formula["formula"]["stages"][1]["lines"]
        while time.perf_counter() < until:
            n += 1
            begun = time.perf_counter()
            lines[1]["percent"] = 30 + n % 20
            desk = {"formula": self.formula["formula"], "count": self.formula["count"]}
            await self.ask("count", "POST", "/api/reckon/count", desk)
            for kind, every in EVERY.items():
                if n % every:
                    continue
                if kind == "keep":
                    await self.ask(kind, "PUT", f"/api/formulas/{self.at}/desk", desk | {"version": self.version})
                    self.version += self.status == 200
                elif kind == "read":
                    for path in ("/api/reference", "/api/pantry", "/api/kitchen", f"/api/formulas/{self.at}"):
                        await self.ask(kind, "GET", path)
                elif kind == "empty":
                    await self.ask(kind, "GET", "/icon.svg")
                else:
                    await self.ask(kind, "GET", f"/api/formulas/{self.at}/{'sheet' if kind == 'sheet' else 'sheet.pdf'}")
            await asyncio.sleep(max(0, KEY_S * (0.5 + rng.random()) - (time.perf_counter() - begun)))


def told(times: list[float]) -> str:
    if len(times) < 2:
        return "too few"
    cuts = statistics.quantiles(times, n=100)
    return f"p50 {cuts[49]:6.0f}  p95 {cuts[94]:6.0f}  p99 {cuts[98]:6.0f} ms of {len(times)}"


def buns(address: str) -> dict:
    """The demo's buns under another name."""
    listed = json.load(urllib.request.urlopen(f"{address}/api/formulas"))
    at = next(head["id"] for head in listed if head["name"] == "Cardamom milk buns")
    desk = json.load(urllib.request.urlopen(f"{address}/api/formulas/{at}"))
    return desk | {"formula": desk["formula"] | {"name": "Under load"}}


async def measure(address: str, desk: dict, clients: int) -> None:
    host, port = address.removeprefix("http://").split(":")
    found: dict[str, list[float]] = defaultdict(list)
    failed: dict[str, int] = defaultdict(int)
    bakers = [Client(host, int(port), json.loads(json.dumps(desk)), found, failed) for _ in range(clients)]
    for baker in bakers:
        await baker.begin()
    await bakers[0].ask("", "GET", f"/api/formulas/{bakers[0].at}/sheet.pdf", timed=False)
    until = time.perf_counter() + SECONDS
    await asyncio.gather(*(baker.type_on(until, random.Random(n)) for n, baker in enumerate(bakers)))
    print(f"{clients} at once, {sum(map(len, found.values())) / SECONDS:.0f} answers a second; not answered with success: {dict(failed) or 'none'}")
    for kind in ("empty", "count", "keep", "read", "sheet", "paper"):
        print(f"  {kind:6} {told(found[kind])}", flush=True)


def main() -> None:
    for clients in map(int, sys.argv[2:] or ("1", "20", "50", "100", "200")):
        uvloop.run(measure(sys.argv[1], buns(sys.argv[1]), clients))


if __name__ == "__main__":
    main()
