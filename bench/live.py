"""How soon what one device does is on the other's, with so many bakes going; and opening a bake with 100 000 events in the store.

"On the other": from the press on one screen until the other's shows it (two real browser pages), and from the posting until a device that listens
has heard of it and fetched the bake. Beside an answer that is nothing but a small file of the same server in the same run.

Run: PYTHONPATH=src:tests .venv/bin/python bench/live.py [bakes ...]
"""

import http.client
import json
import queue
import random
import shutil
import statistics
import sys
import tempfile
import threading
import time
from pathlib import Path
from urllib.parse import urlsplit
from uuid import uuid4

from playwright.sync_api import sync_playwright
from sqlalchemy import text

from browser_flags import CHROMIUM, FLAGS
from pancount.store.cluster import Cluster
from pancount.store.database import connect
from started import Started, free_port, until

SECONDS, EVERY_S = 30.0, 8.0
"""Each bake has something happen so often: somebody who weighs without a pause."""
SHOWN = 30
STORED, EACH = 100_000, 400
OPENED = 60


class Asker:
    """A connection that stays."""

    def __init__(self, address: str) -> None:
        self.connection = http.client.HTTPConnection(urlsplit(address).hostname, urlsplit(address).port, timeout=30)

    def ask(self, method: str, path: str, body: object = None) -> bytes:
        self.connection.request(method, path, None if body is None else json.dumps(body), {"Content-Type": "application/json"} if body is not None else {})
        answer = self.connection.getresponse()
        content = answer.read()
        if answer.status == 503:  # as a device does
            time.sleep(0.5)
            return self.ask(method, path, body)
        assert answer.status < 300, (answer.status, content[:300])
        return content


def told(times: list[float]) -> str:
    cuts = statistics.quantiles(times, n=100)
    return f"p50 {cuts[49]:.0f} ms, p95 {cuts[94]:.0f} ms"


class Bake:
    """A bake under way: one device writes, another listens and fetches what it hears of."""

    def __init__(self, address: str, formula: int) -> None:
        self.address, self.id, self.clock = address, str(uuid4()), 0
        self.writes = Asker(address)
        state = json.loads(self.writes.ask("POST", "/api/bakes", {"id": self.id, "formula_id": formula}))
        self.lines = [one for one in state["bake"]["lines"] if one["target_g"]]
        self.posted: dict[str, float] = {}
        self.took: list[float] = []

    def write(self) -> None:
        self.clock += 1
        line, event = random.choice(self.lines), str(uuid4())
        what = {"deed": "weighed", "line": line["key"], "g": line["target_g"]}
        self.posted[event] = time.perf_counter()
        self.writes.ask("POST", f"/api/bakes/{self.id}/events", {"events": [{"id": event, "writer": "tablet", "clock": self.clock, "at_s": time.time(), "what": what}]})


FETCHERS = 8


def listen(address: str, bakes: dict[str, Bake], ready: threading.Event, stop: threading.Event) -> None:
    """The other devices: one stream, and each bake that something happened to is fetched, some at a time as many devices would."""
    todo: queue.Queue[tuple[Bake, float] | None] = queue.Queue()

    def fetch() -> None:
        asker = Asker(address)
        while (one := todo.get()) is not None:
            asker.ask("GET", f"/api/bakes/{one[0].id}")
            one[0].took.append((time.perf_counter() - one[1]) * 1000)

    for _ in range(FETCHERS):
        threading.Thread(target=fetch, daemon=True).start()
    stream = http.client.HTTPConnection(urlsplit(address).hostname, urlsplit(address).port, timeout=30)
    stream.request("GET", "/api/bench/live")
    answer = stream.getresponse()
    while not stop.is_set():
        line = answer.readline().decode()
        if line.startswith("event: alive"):
            ready.set()
        if not line.startswith("data: ") or '"number"' not in line:
            continue
        heard = json.loads(line[6:])
        bake, posted = bakes.get(heard["bake"]), None
        if bake is not None and (posted := bake.posted.get(heard["event"]["id"])) is not None:
            todo.put((bake, posted))


def going(address: str, formula: int, number: int, browser) -> None:
    bakes = [Bake(address, formula) for _ in range(number)]
    by_id, ready, stop = {one.id: one for one in bakes}, threading.Event(), threading.Event()
    listening = threading.Thread(target=listen, args=(address, by_id, ready, stop), daemon=True)
    listening.start()
    ready.wait(20)
    done = threading.Event()

    def write(bake: Bake) -> None:
        time.sleep(random.random() * EVERY_S)
        while not done.is_set():
            bake.write()
            time.sleep(EVERY_S * (0.5 + random.random()))

    writers = [threading.Thread(target=write, args=(bake,)) for bake in bakes]
    for one in writers:
        one.start()
    empty, asker, end = list[float](), Asker(address), time.monotonic() + SECONDS
    while time.monotonic() < end:
        begin = time.perf_counter()
        asker.ask("GET", "/icon.svg")
        empty.append((time.perf_counter() - begin) * 1000)
        time.sleep(0.05)
    screens = shown(address, formula, browser)
    done.set()
    for one in writers:
        one.join()
    time.sleep(1)
    stop.set()
    for one in bakes:
        event = {"id": str(uuid4()), "writer": "end", "clock": 1, "at_s": time.time(), "what": {"deed": "ended", "how": "stopped"}}
        one.writes.ask("POST", f"/api/bakes/{one.id}/events", {"events": [event]})
    took = [ms for one in bakes for ms in one.took]
    print(f"{number} going: heard and fetched {told(took)} ({len(took)}); on the other screen {told(screens)} ({len(screens)}); a small file {told(empty)}", flush=True)


def shown(address: str, formula: int, browser) -> list[float]:
    """From a press on one screen until the other shows it. [ms]"""
    bake, found = Bake(address, formula), list[float]()
    contexts = [browser.new_context(base_url=address, viewport={"width": 820, "height": 1180}) for _ in range(2)]
    one, other = (context.new_page() for context in contexts)
    for page in (one, other):
        page.goto(f"/bench/{bake.id}")
        page.locator(".weigh h2").wait_for()
    other.evaluate(
        "() => { window.seen = []; new MutationObserver(() => window.seen.push([document.querySelectorAll('.tray li .in').length, performance.timeOrigin + performance.now()])).observe(document.body, { subtree: true, childList: true, attributes: true }) }"
    )
    for n in range(SHOWN):
        # A line is taken, then taken back: the other screen goes to the next line, and back.
        before = other.locator(".weigh h2").inner_text() + other.locator(".weigh .more").inner_text()
        pressed = one.evaluate("(key) => { const at = performance.timeOrigin + performance.now(); window.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true })); return at }", " " if n % 2 == 0 else "u")
        at = other.evaluate(
            "(before) => new Promise((resolve) => { const look = () => { const h = document.querySelector('.weigh h2')?.innerText + document.querySelector('.weigh .more')?.innerText; if (h !== before) resolve(performance.timeOrigin + performance.now()); else requestAnimationFrame(look) }; look() })",
            before,
        )
        found.append(at - pressed)
        time.sleep(0.2)
    for context in contexts:
        context.close()
    return found


def opening(state: Path, address: str, formula: int) -> None:
    """With so many events in the store: opening a bake for the first time, and again."""
    first = Bake(address, formula)
    url = Cluster(state / "demo").address()
    assert url is not None
    engine = connect(url, unhurried=True)
    with engine.begin() as connection:
        connection.execute(
            text(
                "INSERT INTO bakes SELECT gen_random_uuid(), kitchen_id, formula_id, revision, name, pieces, mixes, begun, begun_at, 0, 'done', now() "
                "FROM bakes, generate_series(1, :n) WHERE id = CAST(:id AS uuid)"
            ),
            {"n": STORED // EACH, "id": first.id},
        )
        last = connection.scalar(text("SELECT coalesce(max(number), 0) FROM bench_events"))
        connection.execute(
            text(
                "INSERT INTO bench_events SELECT 1, :last + row_number() OVER (), b.id, gen_random_uuid(), 'tablet', n, "
                "jsonb_build_object('id', gen_random_uuid(), 'writer', 'tablet', 'clock', n, 'saw', '{}'::jsonb, 'at_s', extract(epoch FROM now()), 'who', 'Tablet', "
                "'what', CASE WHEN n % 3 = 0 THEN jsonb_build_object('deed', 'piece', 'g', 100 + n % 7) ELSE jsonb_build_object('deed', 'weighed', 'line', CAST(:line AS text), 'g', 59) END), now() "
                "FROM (SELECT id FROM bakes WHERE status = 'done' AND last_number = 0) b, generate_series(1, :each) n"
            ),
            {"last": last, "line": first.lines[0]["key"], "each": EACH},
        )
        connection.execute(text("UPDATE bakes SET last_number = (SELECT max(number) FROM bench_events e WHERE e.bake_id = bakes.id) WHERE last_number = 0 AND status = 'done'"))
        connection.execute(text("UPDATE bench_clocks SET last = (SELECT max(number) FROM bench_events)"))
        stored = connection.scalar(text("SELECT count(*) FROM bench_events"))
        ids = [str(one) for one in connection.scalars(text("SELECT id FROM bakes WHERE status = 'done' AND last_number > 0 ORDER BY random() LIMIT :n"), {"n": OPENED})]
    engine.dispose()
    asker = Asker(address)
    times: dict[str, list[float]] = {"first": [], "again": [], "empty": []}
    for number in ids:
        for kind, path in (("first", f"/api/bakes/{number}"), ("again", f"/api/bakes/{number}"), ("empty", "/icon.svg")):
            begin = time.perf_counter()
            asker.ask("GET", path)
            times[kind].append((time.perf_counter() - begin) * 1000)
    print(f"{stored} events in the store, {EACH} to a bake: opening one {told(times['first'])}, again {told(times['again'])}; a small file {told(times['empty'])}", flush=True)


def main(numbers: list[int]) -> None:
    state = Path(tempfile.mkdtemp(prefix="pancount-live-", dir="/tmp"))
    state.chmod(0o755)
    started = Started(state, "--port", free_port())
    address = started.address()
    formula = next(one["id"] for one in json.loads(Asker(address).ask("GET", "/api/formulas")) if one["name"] == "Malted seed bagels")
    until(lambda: Asker(address).ask("GET", "/api/bench"))
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            for number in numbers:
                going(address, formula, number, browser)
            browser.close()
        opening(state, address, formula)
    finally:
        started.stop()
        started.close()
        shutil.rmtree(state, ignore_errors=True)


if __name__ == "__main__":
    main([int(one) for one in sys.argv[1:]] or [1, 10, 50])
