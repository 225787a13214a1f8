"""The book when it is full: 10 000 bakes with 100 000 events and 5 000 photos. List, words, charts, side by side, learned page, each beside a small file.

The demo's twenty bakes are copied five hundred times, each a little otherwise. Times are asked for one after the other over a kept connection, in turns.

Run: PYTHONPATH=src:tests .venv/bin/python bench/book.py
"""

import json
import shutil
import tempfile
import time
from pathlib import Path

from live import Asker, told
from sqlalchemy import Connection, text

from pancount.store.cluster import Cluster
from pancount.store.database import connect
from started import Started, free_port, until

BAKES, EVENTS_EACH, PHOTOS = 10_000, 10, 5_000
ASKED = 60

COPIED = """
INSERT INTO bakes (id, kitchen_id, formula_id, revision, name, pieces, mixes, begun, begun_at, last_number, status, ended_at, written)
SELECT c.id, b.kitchen_id, b.formula_id, b.revision, b.name, b.pieces, b.mixes, b.begun, b.begun_at - make_interval(days => c.n), 0, 'done', now(), false
FROM copies c JOIN bakes b ON b.id = c.of
"""
BOOK = """
INSERT INTO book (bake_id, kitchen_id, formula_id, begun_at, number, edition, record, numbers, observed, outcome, version, left_out, ingredients, score, told)
SELECT c.id, b.kitchen_id, b.formula_id, b.begun_at - make_interval(days => c.n), 0, b.edition, b.record,
       b.numbers || jsonb_build_object('bake_loss', 0.1 + random() * 0.05, 'score', 2 + random() * 3), b.observed, b.outcome, 1, '{}', b.ingredients, 2 + random() * 3,
       b.told || ' ' || md5(c.n::text)
FROM copies c JOIN book b ON b.bake_id = c.of
"""
EVENTS = """
INSERT INTO bench_events (kitchen_id, number, bake_id, id, writer, clock, body)
SELECT 1, :last + row_number() OVER (), c.id, gen_random_uuid(), 'tablet', k, jsonb_build_object('id', gen_random_uuid(), 'writer', 'tablet', 'clock', k, 'saw', '{}'::jsonb,
       'at_s', 1.7e9 + k, 'who', 'Tablet', 'what', jsonb_build_object('deed', 'piece', 'target', 0, 'g', 70 + k, 'by', 'scale'))
FROM copies c, generate_series(1, :each) k
"""


def filled(connection: Connection) -> tuple[int, int, int]:
    """Copy the demo's bakes until there are so many; how many bakes, events and photos there are."""
    connection.execute(text("CREATE TEMP TABLE copies AS SELECT gen_random_uuid() AS id, b.bake_id AS of, n FROM book b, generate_series(1, :n) n"), {"n": BAKES // 20 - 1})
    last = connection.scalar(text("SELECT max(number) FROM bench_events"))
    for statement, more in ((COPIED, {}), (BOOK, {}), (EVENTS, {"last": last, "each": EVENTS_EACH})):
        connection.execute(text(statement), more)
    connection.execute(text("UPDATE bakes b SET last_number = e.last FROM (SELECT bake_id, max(number) AS last FROM bench_events GROUP BY bake_id) e WHERE e.bake_id = b.id AND b.last_number = 0"))
    connection.execute(text("UPDATE book SET number = b.last_number FROM bakes b WHERE b.id = book.bake_id AND book.number = 0"))
    connection.execute(text("UPDATE bench_clocks SET last = (SELECT max(number) FROM bench_events)"))
    connection.execute(
        text(
            "INSERT INTO photos (id, kitchen_id, bake_id, caption, square, width, height, large, small) "
            "SELECT gen_random_uuid(), 1, c.id, p.caption, p.square, p.width, p.height, p.large, p.small FROM copies c, (SELECT * FROM photos LIMIT 1) p LIMIT :n"
        ),
        {"n": PHOTOS},
    )
    return tuple(connection.scalar(text(f"SELECT count(*) FROM {table}")) for table in ("book", "bench_events", "photos"))


def asked(address: str, paths: dict[str, str]) -> dict[str, list[float]]:
    asker = Asker(address)
    times: dict[str, list[float]] = {name: [] for name in paths}
    for _ in range(ASKED):
        for name, path in paths.items():
            begin = time.perf_counter()
            asker.ask("GET", path)
            times[name].append((time.perf_counter() - begin) * 1000)
    return times


def main() -> None:
    state = Path(tempfile.mkdtemp(prefix="pancount-book-", dir="/tmp"))
    state.chmod(0o755)
    started = Started(state, "--port", free_port())
    address = started.address()
    until(lambda: Asker(address).ask("GET", "/api/book"))
    try:
        url = Cluster(state / "demo").address()
        assert url is not None
        engine = connect(url, unhurried=True)
        with engine.begin() as connection:
            found = filled(connection)
        with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
            connection.execute(text("VACUUM ANALYZE"))
        engine.dispose()
        page = json.loads(Asker(address).ask("GET", "/api/book"))
        bakes = [one["id"] for one in page["bakes"][:4]]
        formula = page["formulas"][0]["formula_id"]
        print(f"{found[0]} bakes, {found[1]} events, {found[2]} photos", flush=True)
        paths = {
            "a small file": "/icon.svg",
            "the list": "/api/book",
            "its 100th page": "/api/book?offset=5940",
            "words": "/api/book?words=scorching%20ne",
            "words that all have": "/api/book?words=flour",
            "an ingredient and a score": "/api/book?ingredient=rye%20flour&least_score=4",
            "a month": "/api/book?month=2026-03",
            "a chart (the last 2 000)": "/api/book/points",
            "one bake": f"/api/book/bakes/{bakes[0]}",
            "two side by side": f"/api/book/beside?bake={bakes[0]}&bake={bakes[1]}",
            "four side by side": "/api/book/beside?" + "&".join(f"bake={one}" for one in bakes),
            "what it learned of a formula": f"/api/book/learned?formula_id={formula}",
            "a photo": f"/api/book/photos/{next(one['photo'] for one in page['bakes'] if one['photo'])}",
        }
        for name, times in asked(address, paths).items():
            print(f"{name}: {told(times)}", flush=True)
        begin = time.perf_counter()
        size = len(Asker(address).ask("GET", "/api/book/bakes.json"))
        print(f"all bakes as JSON: {size / 1e6:.0f} MB in {time.perf_counter() - begin:.1f} s", flush=True)
    finally:
        started.stop()
        started.close()
        shutil.rmtree(state, ignore_errors=True)


if __name__ == "__main__":
    main()
