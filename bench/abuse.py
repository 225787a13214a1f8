"""Every endpoint with the worst body that it takes: seconds of processor and MB of memory, each in a process of its own.

The bodies were found by search: everything that is limited at its limit (`core/base/most.py`, `api/sizes.py`), then what makes
the reader or the solver work hardest. What is too large must be refused in under 50 ms.

Run: PYTHONPATH=src:tests .venv/bin/python bench/abuse.py [words in a name]
"""

import io
import json
import multiprocessing
import resource
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from uuid import UUID, uuid5

import numpy as np
from PIL import Image
from sqlalchemy import Engine, text
from starlette.testclient import TestClient

from pancount.api.app import make_app
from pancount.api.long import Bench
from pancount.api.sizes import BODY_BYTES, OTHERS
from pancount.core.base import most
from pancount.core.book.written import MOST_WRITTEN
from pancount.serving import warm
from pancount.store.cluster import Cluster
from pancount.store.database import connect, migrate, transaction
from pancount.store.kitchen import ONLY_KITCHEN, Settings, open_kitchen

SECONDS, MEGABYTES, REFUSED_MS = 1.0, 300, 50
JSON, FILE = "application/json", "application/octet-stream"
LONG_NAME = "Wholemeal spelt flour 面粉 طحين from the mill by the lock, " * 5


class Here(Bench):
    """Long work in this process, so that its time and memory are counted."""

    async def run(self, request, work, *args):
        return work(*args)

    async def quickly(self, work, *args):
        return work(*args)


def lines(n: int, name: Callable[[int], str] = lambda i: f"Line {i}", **more: object) -> list[dict]:
    roles = ("liquid", "fat", "sugar", "salt", "egg", "dairy", "flavour", "inclusion")
    return [{"name": name(i), "role": roles[i % len(roles)], "weight_g": 1 + i % 7, **more} for i in range(n)]


FLOUR = {"name": "Bread flour", "role": "flour", "weight_g": 1000}


def formula(stages: int = most.STAGES, name: Callable[[int], str] = lambda i: f"Line {i}", flours: bool = False, **more: object) -> dict:
    """As many lines as there may be, over so many stages, each feeding the next."""
    each = most.LINES // stages - 1
    told = []
    for s in range(stages):
        feeds = [{"into": f"k{s + 1}", "share": 0.9}] if s < stages - 1 else []
        body = lines(each, name)
        if flours:
            for line in body:
                line["role"] = "flour"
        told.append({"name": f"Stage {s}", "kind": "dough" if s == stages - 1 else "sponge", "key": f"k{s}", "feeds": feeds, "lines": [FLOUR, *body]})
    return {"name": "Worst", "stages": told, **more}


KNOWN = ("Whole milk", "Butter", "Cream", "Egg", "Bread flour", "Sugar", "Fine salt", "Instant yeast", "Honey", "Water", "Lye", "Buttermilk", "Yogurt")
OWN = [
    {
        "name": f"Own {i}", "role": "flour", "also": [f"Other {i}.{n}" for n in range(8)], "composition": {"water": 10},
        "measures": [{"measure": "cup", "way": f"w{n}", "low_g": 1, "usual_g": 2, "high_g": 3} for n in range(6)],
    }
    for i in range(most.OWN_INGREDIENTS)
]  # fmt: skip
SHAPES = [
    {"shape": "sheet", "length_cm": 60, "width_cm": 40, "depth_cm": 2}, {"shape": "round", "diameter_cm": 26, "depth_cm": 5},
    {"shape": "rectangle", "length_cm": 33, "width_cm": 23, "depth_cm": 5},
]  # fmt: skip


def many_targets(**pins: object) -> dict:
    targets = [
        {"name": f"T{i}", "pins": {"piece_g": 60 + i, **pins} if i % 3 else {"pieces": 19 + i}, "pan": SHAPES[i % 3], "fill_kind": "pull_apart_buns"}
        for i in range(most.TARGETS)
    ]
    limits = [{"kind": kind, "amount": amount} for kind, amount in (("flour", 700), ("oven", 2), ("bowl", 1), ("griddle", 3), ("pot", 3), ("fridge", 2))]
    return {"targets": targets, "limits": [*limits, *({"kind": "ingredient", "amount": 500, "ingredient": name} for name in KNOWN[:6])][: most.LIMITS]}


def way(key: str, rises: int = most.RISES, steps: int = most.STEPS) -> dict:
    """As many steps as a way has, in all sorts of places, each taking three things, as many of them rises as are taken."""
    takes = [{"what": "line", "key": f"l{n}", "share": 0.01} for n in range(2)] + [{"what": "rest"}]
    kinds = [*["rise"] * rises, *("mix", "knead", "fold", "chill", "bathe", "bake", "wash", "preheat", "temper", "griddle")]
    told = [{"kind": kinds[n % len(kinds)] if n < len(kinds) else kinds[rises + n % 10], "takes": takes, "of": f"k{n % 7}", "text": "Worked in, slowly. " * 50} for n in range(steps)]
    return {"name": f"Way {key}", "key": key, "steps": [step | ({"of": ""} if step["kind"] == "rise" else {}) for step in told]}


def with_ways(made: dict) -> dict:
    keyed = [stage | {"lines": [line | {"key": f"l{s}" if not n else f"l{s}x{n}"} for n, line in enumerate(stage["lines"])]} for s, stage in enumerate(made["stages"])]
    return made | {"stages": keyed, "ways": [way("a"), way("b", 3, 20), *(way(f"w{n}", 3, 4) for n in range(most.FORMULA_WAYS - 2))]}


def text_of(line: str, times: int = most.RECIPE_LINES) -> str:
    """The line so many times, each a little different where it has a {}."""
    return "\n".join(line.format(n) for n in range(times))[: most.RECIPE]


RECIPES = {
    "two things and a slip a line": text_of("500 g flour, 3 tsp salt or 2 cups watter"),
    "two things and a slip, as many as are read": text_of("{}00 g flour, 3 tsp salt or 2 cups watter", 66),
    "slips, as many as are read": text_of("{} g suger", most.RECIPE_THINGS),
    "dashes, as many as are read": text_of("- - - 2-3-4-5-6-7-8-{}-10 - cups - flour - or - 3", 60),
    "prose, as much as is read": text_of("Mix 5{}0 g flour with 300 g water and 10 g salt then add 7 g yeast", 49),
    "one thing a line": text_of("{} cups flour, sifted, plus more for dusting", most.RECIPE_THINGS // 2),
    "slips": text_of("20 g suger watter flourr buttr yeest"),
    "steps": "500 g flour\n300 g water\nMethod\n" + text_of("Brush the tops with butter and sprinkle with salt, mix flour and water.")[:59_000],
    "headings": text_of("Outside:"),
    "one line": ("1 tsp salt, " * 5000)[: most.RECIPE],
    "one line of numbers": ("1 1/2 " * 10_000)[: most.RECIPE],
    "one line of and": ("flour and " * 6_000)[: most.RECIPE],
    "one word": "x" * most.RECIPE,
    "one known word": ("flour" * 12_000)[: most.RECIPE],
    "titles": text_of("Bun and bread of the lock"),
    "a table": text_of("x\t1\t2\t3\tflour\t5 g"),
    "brackets": ("(" * 1000 + "\n") * 59,
    "dashes": text_of("- - - 2-3-4-5-6-7-8-9-10 - cups - flour - or - 3"),
    "heat": text_of("Bake at 190 °C / 375 °F for 18-20 min in a 9-inch (23 cm) pan, then 10 min at 200 °C"),
    "yields": text_of("Makes 12 rolls or 2 loaves of 500 g each in 3 pans"),
    "prose": text_of("Mix 500 g flour with 300 g water and 10 g salt then add 7 g yeast"),
}
HTML = {
    "script not ended": "<html><script type='application/ld+json'>" + '{"a":' * 100_000,
    "tags not ended": "<html>" + "<a/" * (most.PAGE_TAGS - 1),
    "comments not ended": "<html>" + "<!--" * (most.PAGE_TAGS - 1),
    "deep": "<html>" + "<b>" * (most.PAGE_TAGS - 1),
    "declarations": "<html>" + "<![ x" * (most.PAGE_TAGS - 1),
    "attributes": "<html><a " + "a='b' " * 600_000 + ">",
    "entities": "<html>" + "&amp;&lt" * 400_000,
    "many recipes": "<html>" + "".join(f'<script type="application/ld+json">{{"@type":"X{n}"}}</script>' for n in range(40_000)),
    "one large recipe": '<html><script type="application/ld+json">' + json.dumps({"@type": "Recipe", "name": "<" * 1_000_000, "recipeIngredient": ["<b>1 tsp salt</b>"] * 900, "recipeInstructions": "<p>" * 500_000}) + "</script>",
}


def cases() -> list[tuple[str, str, str, object]]:
    """Name, method, path, body: a JSON value, or bytes."""
    worst = formula()
    named = formula(name=lambda i: LONG_NAME[:290] + str(i), flours=False)
    known = formula(2, name=lambda i: KNOWN[i % len(KNOWN)])
    fats = {"name": "x", "stages": [{"name": "D", "lines": [FLOUR, *[{"name": "Butter", "role": "fat", "weight_g": 5}] * 29, *[{"name": "Whole milk", "role": "liquid", "weight_g": 3}] * 70]}]}
    found: list[tuple[str, str, str, object]] = []
    count = "/api/reckon/count"
    for title, made in (("30 stages", worst), ("one stage", formula(1)), ("two stages of known", known), ("long names", named)):
        found.append((f"count, {title}", "POST", count, {"formula": made, "own": OWN}))
        found.append((f"count, {title}, 12 targets, 12 limits", "POST", count, {"formula": made, "own": OWN, "count": many_targets()}))
    for title, pins in (("fill pinned", {"fill": 0.7}), ("pans pinned", {"pans": 3}), ("baked pinned", {"baked_g": 51.3}), ("fights", {"pieces": 7, "take_g": 411, "pans": 2})):
        found.append((f"count, 12 targets, {title}", "POST", count, {"formula": known, "count": many_targets(**pins)}))
    found.append(("count, a million pieces on sheets", "POST", count, {"formula": formula(1), "count": {"targets": [{"pins": {"pieces": 1_000_000}, "pan": SHAPES[0], "fill_kind": "buns_apart"}]}}))
    found.append(("count, extra keys", "POST", count, {"formula": {f"k{n}": 1 for n in range(49_000)}}))
    found.append(("count, 1 for each ingredient", "POST", count, {"formula": {}, "own": [1] * 49_000}))
    found.append(("count, empty lines", "POST", count, {"formula": {"stages": [{"lines": [{}] * 49_000}]}}))
    change = "/api/reckon/change"
    for title, made in (("29 fats and 70 liquids", fats), ("known", known), ("30 stages", worst)):
        found.append((f"change, dairy-free, {title}", "POST", change, {"formula": made, "own": OWN, "change": {"change": "free_of", "allergen": "milk"}}))
        found.append((f"change, straight, {title}", "POST", change, {"formula": made, "change": {"change": "move_out"}}))
        found.append((f"change, butter for oil, {title}", "POST", change, {"formula": made, "change": {"change": "swap", "stage": 0, "line": 1, "to": "Olive oil"}}))
        found.append((f"change, aim, {title}", "POST", change, {"formula": made, "change": {"change": "aim", "gauge": "true_water", "wanted": 70, "stage": 0, "line": 1}}))
        found.append((f"change, a stage out, {title}", "POST", change, {"formula": made, "change": {"change": "move_out", "stage": 0}}))
    found.append(("compare", "POST", "/api/reckon/compare", {"ours": worst, "theirs": known, "own": OWN}))
    found.append(("compare, the same name 70 times", "POST", "/api/reckon/compare", {"ours": fats, "theirs": fats, "own": OWN}))
    timed = many_targets() | {"way": "a", "today": {"room_c": 19, "begins_min": 600, "ready_min": 6_000}}
    for title, made in (("30 stages", with_ways(worst)), ("known", with_ways(known))):
        found.append((f"method, {title}", "POST", "/api/reckon/method", {"formula": made, "own": OWN, "count": many_targets()}))
        found.append((f"method, to be ready, {title}", "POST", "/api/reckon/method", {"formula": made, "own": OWN, "count": timed}))
        found.append((f"ways, {title}", "POST", "/api/reckon/ways", {"formula": made, "own": OWN, "count": timed, "beside": "b"}))
        found.append((f"change, a way's yeast, {title}", "POST", change, {"formula": made, "change": {"change": "way_yeast", "way": "a", "yeast": 0.5}}))
    for title, recipe in RECIPES.items():
        found.append((f"read a method, {title}", "POST", "/api/read/method", {"formula": known, "text": recipe}))
    found.append(("read a method, rises", "POST", "/api/read/method", {"formula": known, "text": text_of("Knead {} min, add the butter; let rise 1 h, fold. If it tears, 2 min more.")}))
    found.append(("flour made up", "POST", "/api/reckon/flour-made-up", formula(1)))
    found.append(("pans held", "POST", "/api/reckon/pans", {"dough_g": 1e6, "pans": [SHAPES[n % 3] for n in range(6)]}))
    found.append(("stand-ins of 1 000 pans", "POST", "/api/pans/stand-ins", {"pan": SHAPES[2], "dough_g": 1800, "fill_kind": "pull_apart_buns"}))
    for title, recipe in RECIPES.items():
        found.append((f"take in, {title}", "POST", "/api/take-in", {"text": recipe}))
        found.append((f"keep a recipe, {title}", "POST", "/api/takings", {"text": recipe}))
    found.append(("take in, 2 000 settled", "POST", "/api/take-in", {"text": RECIPES["slips"], "settled": [{"written": "20 g suger watter flourr buttr yeest", "nth": n % 1000, "part": n % 20, "weight_g": 5} for n in range(2000)]}))
    for title, page in HTML.items():
        found.append((f"file, {title}", "POST", "/api/take-in/file", page[:3_990_000].encode()))
    found.append(("file, deep JSON", "POST", "/api/take-in/file", b'{"a":' * 700_000))
    found.append(("file, JSON of ones", "POST", "/api/take-in/file", b"[" + b"1," * 1_900_000 + b"1]"))
    found.append(("file, a table", "POST", "/api/take-in/file?name=x.csv", b"weight_g,ingredient\n" + b"1,x\n" * 900_000))
    found.append(("file, commas", "POST", "/api/take-in/file?name=x.csv", b",".join([b"a"] * 1_900_000)))
    found.append(("import, a formula", "POST", "/api/formulas/import", json.dumps({"format": "pancount-formula", "version": 4, "formula": named}).encode()))
    found.append(("import, extra keys", "POST", "/api/formulas/import", json.dumps({"format": "pancount-formula", "version": 4, "formula": {f"k{n}": 1 for n in range(150_000)}}).encode()))
    found.append(("table", "POST", "/api/take-in/table", {"text": "g,what\n" + "1,x\n" * 999, "mapping": {"grams": 0, "ingredient": 1}}))
    found.append(("desk", "PUT", "/api/formulas/1/desk", {"formula": named, "count": many_targets(), "version": 1}))
    found.append(("save", "POST", "/api/formulas/1/revisions", {"formula": named, "count": many_targets(), "version": 1}))
    found.append(("copy", "POST", "/api/formulas/1/copy", None))
    for paper in ("sheet", "sheet.pdf?paper=A4", "sheet.pdf?paper=roll", "method", "method.pdf?paper=A4", "method.pdf?paper=roll", "sheet.csv", "count.ods", "ruler.pdf", "formula.json", "recipe.jsonld", "formula.csv"):
        found += [(f"paper of {what}, {paper}", "GET", f"/api/formulas/{n}/{paper}", None) for n, what in ((1, "long names"), (2, "known, 12 targets"))]
    found.append(("where an ingredient of all formulas is used", "POST", "/api/pantry/uses", {"name": "Bread flour", "role": "flour", "composition": {"water": 20}}))
    found.append(("change it, and all are reckoned again", "PUT", "/api/pantry", {"ingredient": {"name": "Bread flour", "role": "flour", "composition": {"water": 20}}, "version": 0}))
    found += [(f"begin a bake of {what}", "POST", "/api/bakes", {"id": str(UUID(int=90 + n)), "formula_id": n}) for n, what in ((1, "long names"), (2, "known, 12 targets"))]
    found.append(("happened, on a full bake", "POST", f"/api/bakes/{FULL}/events", {"events": happened("last", most.BENCH_SENT)}))
    found.append(("a full bake", "GET", f"/api/bakes/{FULL}", None))
    found.append(("all its events", "GET", f"/api/bakes/{FULL}/events", None))
    reports = [{"report": 3, "data": "0402009c01", "at_s": n} for n in range(most.BENCH_READINGS)]
    found.append(("a scale", "POST", "/api/devices/scale/read", {"reports": reports, "target_g": 475, "now_s": 100}))
    found += [("list", "GET", f"/api/{what}", None) for what in ("bench", "bakes", "formulas", "pantry", "pans", "takings", "cups", "reference", "kitchen")]
    return found + book_cases()


def book_cases() -> list[tuple[str, str, str, object]]:
    """The book, with two thousand copies of the fullest bake in it."""
    at, found = {"begun_at": "2026-10-01T06:00:00Z"}, list[tuple[str, str, str, object]]()
    told = {
        "lines": [{"line": f"w0.s{n % 2}.n{n % 60}", "g": n} for n in range(MOST_WRITTEN)], "steps": [{"task": f"p{n}", "minutes": 20_160} for n in range(MOST_WRITTEN)],
        "pieces": [80.5] * 200, "water_g": 30, "dough_g": 1800, "note": LONG_NAME[:300],
    }  # fmt: skip
    outcome = {"scores": {f"Scale {n}": 3 for n in range(12)}, **dict.fromkeys(("words", "wrong", "next_time"), (LONG_NAME * 50)[:10000])}
    for n, what in ((1, "long names"), (2, "known, 12 targets")):
        found.append((f"book, write in {what}", "POST", "/api/book/bakes", {"id": str(UUID(int=70 + n)), "formula_id": n, "told": told, "outcome": outcome, **at}))
        found.append((f"book, blank of {what}", "GET", f"/api/book/blank?formula_id={n}", None))
    own = f"/api/book/bakes/{ENDED}"
    found.append(("book, what it came to", "PUT", f"{own}/outcome", {"outcome": outcome, "version": 1}))
    found.append(("book, told later", "POST", f"{own}/told", {"id": str(UUID(int=77)), "told": told}))
    for what in ("", "/bake.json", "/bake.csv", "/card.pdf?paper=A4", "/card.pdf?paper=roll"):
        found.append((f"book, the fullest bake{what}", "GET", own + what, None))
    found.append(("book, four beside", "GET", "/api/book/beside?" + "&".join(f"bake={UUID(int=600 + n)}" for n in range(4)), None))
    words = "flour " * 33
    for what in ("", f"?words={words.replace(' ', '%20')}", "?least_score=2&ingredient=butter", "/points", "/points.csv", f"/points?words={words.replace(' ', '%20')}", "/learned?formula_id=2"):
        found.append((f"book, {what[:30]}", "GET", f"/api/book{what}", None))
    found.append(("book, a figure taken", "POST", "/api/book/learned/take", {"figure": "spread_g::"}))
    for title, content in pictures():
        found.append((f"book, photo, {title}", "POST", f"{own}/photos?id={uuid5(FULL, title)}", content))
    return found


def pictures() -> list[tuple[str, bytes]]:
    """As many pixels of each kind as are taken, and some that say more than they hold."""
    random, found = np.random.default_rng(1), list[tuple[str, bytes]]()
    for title, pixels in most.PHOTO_PIXELS.items():
        wide = 4000
        noise = random.integers(0, 255, (pixels // wide, wide, 4 if title == "PNG" else 3), dtype=np.uint8)
        if not title.endswith("JPEG"):
            noise //= 64  # so that the file stays within what is taken
            noise[:, ::2] = 7
            noise[::3] = 7
        out = io.BytesIO()
        more = {"quality": 8, "subsampling": 0, "progressive": title.startswith("progressive")} if title.endswith("JPEG") else {}
        Image.fromarray(noise).save(out, title.rpartition(" ")[2], **more)
        found.append((title, out.getvalue()[:14_990_000]))
    return [*found, ("half of a JPEG", found[0][1][: len(found[0][1]) // 2]), ("nothing", bytes(14_000_000))]


ENDED = UUID(int=8)
"""A bake of the known formula with as much told of it as it holds, over."""
FULL = UUID(int=7)
"""A bake of the known formula, with as much told of it as it holds but for one sending."""


def happened(writer: str, number: int) -> list[dict]:
    """All kinds of things, over all lines and steps there may be."""
    deeds: list[Callable[[int], dict]] = [
        lambda n: {"deed": "weighed", "line": f"w0.s{n % 2}.n{n % 60}", "g": 5 + n % 90},
        lambda n: {"deed": "accepted", "line": f"w0.s{n % 2}.n{n % 60}"},
        lambda n: {"deed": "scaled", "line": f"w0.s1.n{n % 60}"},
        lambda n: {"deed": "began", "task": f"p{n % 60}"},
        lambda n: {"deed": "added", "name": "Milk", "g": 1},
        lambda n: {"deed": "piece", "g": 80},
        lambda n: {"deed": "measured", "what": "dough_c", "value": 20 + n % 9},
        lambda n: {"deed": "noted", "text": LONG_NAME[:300]},
    ]
    return [{"id": str(uuid5(FULL, f"{writer}.{n}")), "writer": f"{writer} {n % 100}", "clock": n + 1, "at_s": 4e9, "what": deeds[n % len(deeds)](n)} for n in range(number)]


FORMULAS = 500
"""In the kitchen that is abused: of ten lines each, as a baker's are."""


def fill(engine: Engine) -> None:
    """The kitchen with as much in it as it may hold, the two worst formulas first."""
    migrate(engine)
    client = TestClient(make_app(engine, web=None), base_url="http://localhost")
    with transaction(engine) as session:
        open_kitchen(session, ONLY_KITCHEN, "Weir House kitchen", Settings())
    named = formula(name=lambda i: LONG_NAME[:290] + str(i))
    client.post("/api/formulas", json={"formula": named}).raise_for_status()
    known = formula(2, name=lambda i: KNOWN[i % len(KNOWN)])
    client.post("/api/formulas", json={"formula": with_ways(known), "count": many_targets()}).raise_for_status()
    client.post("/api/pans", json={"pan": SHAPES[2], "owned": 6}).raise_for_status()
    ten = {"name": "Ten lines", "stages": [{"lines": [FLOUR, *lines(9, lambda i: KNOWN[i])]}]}
    client.post("/api/formulas", json={"formula": ten}).raise_for_status()
    client.post("/api/takings", json={"text": "500 g flour"}).raise_for_status()
    client.post("/api/bakes", json={"id": str(FULL), "formula_id": 2}).raise_for_status()
    told = happened("first", most.BENCH_EVENTS - most.BENCH_SENT)
    for first in range(0, len(told), most.BENCH_SENT):
        client.post(f"/api/bakes/{FULL}/events", json={"events": told[first : first + most.BENCH_SENT]}).raise_for_status()
    client.post("/api/bakes", json={"id": str(ENDED), "formula_id": 2}).raise_for_status()
    told = [*happened("ended", most.BENCH_EVENTS - most.BENCH_SENT - 1), {"id": str(UUID(int=9)), "writer": "end", "clock": 1, "at_s": 4e9, "what": {"deed": "ended", "how": "done"}}]
    for first in range(0, len(told), most.BENCH_SENT):
        client.post(f"/api/bakes/{ENDED}/events", json={"events": told[first : first + most.BENCH_SENT]}).raise_for_status()
    assert client.get("/api/book").json()["total"] == 1
    with engine.begin() as connection:
        own = "kitchen_id, formula_id, name, pieces, mixes, begun, begun_at, last_number, status"
        new = "('00000000-0000-0000-0000-' || lpad(to_hex(599 + n), 12, '0'))::uuid"
        connection.execute(text(f"INSERT INTO bakes (id, {own}) SELECT {new}, {own} FROM bakes, generate_series(1, {most.BOOK_POINTS}) n WHERE id = '{ENDED}'"))
        kept = "kitchen_id, formula_id, begun_at, number, edition, record, numbers, observed, outcome, version, ingredients, score, told"
        connection.execute(text(f"INSERT INTO book (bake_id, {kept}) SELECT {new}, {kept} FROM book, generate_series(1, {most.BOOK_POINTS}) n WHERE bake_id = '{ENDED}'"))
    with engine.begin() as connection:
        own = "kitchen_id, formula_id, name, pieces, mixes, begun, begun_at, last_number, status"
        connection.execute(text(f"INSERT INTO bakes (id, {own}) SELECT gen_random_uuid(), {own} FROM bakes, generate_series(1, {most.BAKES_AT_ONCE - 3}) WHERE bakes.id = '{FULL}'"))
        more = "SELECT {} FROM {} t, generate_series(1, {}) WHERE t.id = {}"
        columns = "kitchen_id, latest_number, name, styles, unsaved, desk_formula, desk_schema, desk_count, desk_base, version"
        connection.execute(text(f"INSERT INTO formulas ({columns}) " + more.format(columns, "formulas", FORMULAS, 3)))
        connection.execute(text("INSERT INTO pans (kitchen_id, body, version) " + more.format("kitchen_id, body, version", "pans", most.PANS - 1, 1)))
        taken = "kitchen_id, name, text, settled, version"
        connection.execute(text(f"INSERT INTO takings ({taken}) " + more.format(taken, "takings", most.TAKINGS - 60, 1)))


def measured(url: str, case: tuple[str, str, str, object], pipe) -> None:
    """One request in this process: status, seconds of processor, MB more than before, bytes answered."""
    _, method, path, body = case
    engine = connect(url)
    app = make_app(engine, web=None)
    app.state.bench = Here()
    client = TestClient(app, base_url="http://localhost")
    data = body if isinstance(body, bytes) else json.dumps(body).encode() if body is not None else None
    headers = {"Content-Type": FILE if isinstance(body, bytes) else JSON} if data is not None else {}
    client.get("/api/kitchen")
    if ".pdf" in path:
        client.get("/api/formulas/3/sheet.pdf")  # its process has its fonts by then
    before, start = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss, time.process_time()
    answer = client.request(method, path, content=data, headers=headers)
    seconds = time.process_time() - start
    pipe.send((answer.status_code, seconds, (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1000, len(answer.content)))


def run(url: str, case: tuple[str, str, str, object]) -> tuple[int, float, float, int]:
    ours, theirs = multiprocessing.Pipe()
    process = multiprocessing.get_context("fork").Process(target=measured, args=(url, case, theirs))
    process.start()
    theirs.close()
    try:
        return ours.recv() if ours.poll(200) else (0, 200.0, 0.0, 0)
    except EOFError:
        return (0, -1.0, 0.0, 0)
    finally:
        process.kill()
        process.join()


def refused(client: TestClient) -> float:
    """The slowest refusal of a body over its limit, over all limits. [ms]"""
    slowest = 0.0
    for rule, largest in (*BODY_BYTES, ("POST /api/cups", OTHERS)):
        method = "PUT" if rule.startswith("PUT") else "POST"
        path = rule.split(" ")[1].replace("(count|change|compare|method|ways)", "count").replace("(/.*)?", "").replace("(take-in|takings)", "takings")
        data = b"[" + b"1," * (largest // 2) + b"1]"
        for _ in range(3):
            start = time.perf_counter()
            answer = client.request(method, path, content=data, headers={"Content-Type": JSON})
            slowest = max(slowest, (time.perf_counter() - start) * 1000)
            assert answer.status_code == 413, (path, answer.status_code)
    return slowest


def main() -> None:
    with tempfile.TemporaryDirectory(prefix="pancount-abuse-", dir="/tmp") as folder:
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "records")
        with cluster.held():
            url = cluster.start()
            engine = connect(url)
            fill(engine)
            engine.dispose()
            warm()
            import weasyprint  # noqa: F401  # its import is no part of a request

            over = 0
            for case in cases():
                if not all(word in case[0] + case[2] for word in sys.argv[1:]):
                    continue
                status, seconds, megabytes, size = run(url, case)
                bad = seconds > SECONDS or seconds < 0 or megabytes > MEGABYTES or status >= 500 or status == 0
                over += bad
                print(f"{'OVER' if bad else '    '} {seconds:7.2f} s {megabytes:6.0f} MB {status} {size / 1000:7.0f} kB  {case[0]}  {case[2]}", flush=True)
            if not sys.argv[1:]:
                engine = connect(url)
                print(f"Bodies over their limit: refused in {refused(TestClient(make_app(engine, web=None), base_url='http://localhost')):.0f} ms at most")
                engine.dispose()
            print(f"{over} over the limits of {SECONDS:g} s and {MEGABYTES} MB")
            cluster.stop()


if __name__ == "__main__":
    main()
