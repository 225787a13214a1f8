"""Who may come in, with what, and what is refused before it is read."""

import gzip
import json
from pathlib import Path

import pytest
from starlette.testclient import TestClient

from pancount.api import live
from pancount.api.app import make_app
from pancount.api.door import HEADERS
from pancount.api.sizes import BODY_BYTES, MOST_MEMBERS, MOST_TOLD, OTHERS
from pancount.core.base import most
from pancount.core.base.models import LEAST_GRAMS, MOST_GRAMS

JSON = {"Content-Type": "application/json"}
START = "/api/formulas"
BODY = b'{"formula": {"name": "Through the door"}}'


@pytest.mark.parametrize("host", ["evil.example", "evil.example:8137", "", "127.0.0.1.evil.example", "localhost.evil.example", "192.168.1.5", "[::2]"])
def test_a_rebound_name_reads_nothing(client, host):
    """Whatever name a page gives our address, only ours are answered."""
    for path in ("/api/kitchen", "/api/formulas", "/", "/api/reference"):
        answer = client.get(path, headers={"Host": host})
        assert (answer.status_code, answer.json()["type"]) == (421, "urn:pancount:problem:wrong_name")


@pytest.mark.parametrize("host", ["127.0.0.1:8137", "localhost", "LOCALHOST:5", "[::1]:8137"])
def test_our_own_names_are_answered(client, host):
    """With any port."""
    assert client.get("/api/kitchen", headers={"Host": host}).status_code == 200


def test_a_name_that_the_settings_give(engine):
    """PANCOUNT_HOSTS, for a kitchen that is reached from elsewhere."""
    named = TestClient(make_app(engine, web=None, hosts=["Bakery.Lock"]), base_url="http://bakery.lock:9000")
    assert named.get("/api/kitchen").status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://evil.example"}, {"Origin": "null"}, {"Origin": "http://localhost:1"}, {"Origin": "http://localhost.evil.example"},
        {"Sec-Fetch-Site": "cross-site"}, {"Sec-Fetch-Site": "same-site"}, {"Sec-Fetch-Site": "cross-site", "Origin": "http://localhost"},
    ],
)  # fmt: skip
def test_no_other_site_changes_anything(client, headers):
    """Neither by a form nor by a script that does not ask: every way to change something is tried."""
    before = len(client.get(START).json())
    state = client.post(START, content=BODY, headers=JSON).json()
    at = state["head"]["id"]
    tries = [
        ("POST", START, BODY), ("POST", f"{START}/{at}/copy", None), ("POST", f"{START}/import", b"{}"), ("POST", "/api/take-in/file", b"500 g flour"),
        ("PUT", f"{START}/{at}/archived?archived=true", None), ("DELETE", f"{START}/{at}?version=1", None), ("POST", "/api/takings", b'{"text": "x"}'),
        ("PUT", "/api/kitchen", b"{}"), ("POST", "/api/reckon/count", b"{}"),
    ]  # fmt: skip
    for method, path, body in tries:
        answer = client.request(method, path, content=body, headers=headers | (JSON if body else {}))
        assert (answer.status_code, answer.json()["type"]) == (403, "urn:pancount:problem:other_site"), path
    assert len(client.get(START).json()) == before + 1


def test_our_own_pages_and_no_page_at_all(client):
    """A browser says where a request comes from; a program need not."""
    for headers in ({}, {"Origin": "http://localhost"}, {"Sec-Fetch-Site": "same-origin", "Origin": "http://localhost"}, {"Sec-Fetch-Site": "none"}):
        assert client.post(START, content=BODY, headers=headers | JSON).status_code == 201


@pytest.mark.parametrize("kind", ["text/plain", "application/x-www-form-urlencoded", "multipart/form-data; boundary=x", "", "application/jsonx"])
def test_bodies_of_another_kind(client, kind):
    """What another site's form could send is not taken for JSON, nor for a file."""
    for path in (START, "/api/reckon/count", "/api/take-in/file", f"{START}/import"):
        assert client.post(path, content=BODY, headers={"Content-Type": kind}).status_code == 415
    assert client.post(START, content=BODY, headers={"Content-Type": "application/octet-stream"}).status_code == 415


def test_every_answer_carries_its_headers(client):
    """What succeeds, what is refused, and what is not there; no script in a page may run."""
    for answer in (client.get("/api/kitchen"), client.get("/api/nothing"), client.get("/", headers={"Host": "x"}), client.post(START, content=b"{", headers=JSON)):
        assert {name: answer.headers[name] for name in HEADERS} == HEADERS
        assert answer.headers["cache-control"] == "no-store"
    scripts = next(part for part in HEADERS["Content-Security-Policy"].split("; ") if part.startswith("script-src"))
    assert scripts == "script-src 'self'"


def test_a_wrong_verb(client):
    """405 in problem details, at an address of ours; elsewhere pages are only read."""
    answer = client.patch(START, content=b"{}", headers=JSON)
    assert (answer.status_code, answer.json()["status"], "allow" in answer.headers) == (405, 405, True)


@pytest.mark.parametrize(("method", "path", "largest"), [
    ("POST", "/api/reckon/count", 2_000_000), ("POST", "/api/take-in/file", 4_000_000), ("POST", "/api/cups", OTHERS),
    ("PUT", "/api/formulas/1/desk", 1_000_000), ("POST", "/api/takings", 1_000_000), ("PUT", "/api/kitchen", 200_000),
])  # fmt: skip
def test_a_body_over_its_limit(client, method, path, largest):
    """413 with the limit in it; what says its length in no or two ways is refused too."""
    answer = client.request(method, path, content=b"1" * (largest + 1), headers=JSON)
    assert (answer.status_code, f"{largest // 1000} kB" in answer.json()["detail"]) == (413, True)
    parts = (b"1" * 100_000 for _ in range(largest // 100_000 + 2))  # in pieces, without a length
    assert client.request(method, path, content=parts, headers=JSON).status_code == 413
    assert client.request(method, path, content=b"1", headers=JSON | {"Transfer-Encoding": "chunked", "Content-Length": "1"}).status_code == 400
    assert client.request(method, path, content=b"1", headers=JSON | {"Content-Length": "x"}).status_code == 400


def test_the_limits_are_all_in_one_place():
    """No endpoint takes a body without one; the largest is that of a photo, then that of a saved page."""
    assert sorted(size for _, size in BODY_BYTES)[-2:] == [4_000_000, 15_000_000]
    assert min(size for _, size in BODY_BYTES) > OTHERS


def test_more_entries_than_any_kitchen_has(client):
    """By their commas, before any is read; and of many errors the first are told."""
    body = b'{"formula": {}, "own": [' + b"1," * MOST_MEMBERS + b"1]}"
    assert client.post("/api/reckon/count", content=body, headers=JSON).status_code == 413
    wrong = json.dumps({"formula": {f"k{n}": 1 for n in range(1000)}})
    answer = client.post("/api/reckon/count", content=wrong, headers=JSON)
    assert (answer.status_code, len(answer.json()["errors"])) == (422, MOST_TOLD)


def test_a_formula_of_more_lines_than_there_may_be(client):
    """A sentence, wherever the lines stand; as many as there may be are taken."""
    line = {"name": "Flour", "role": "flour", "weight_g": 1}
    for stages, status in (([{"lines": [line] * most.LINES}], 200), ([{"lines": [line] * 60}, {"lines": [line] * 41}], 422)):
        answer = client.post("/api/reckon/count", json={"formula": {"stages": stages}})
        assert answer.status_code == status
    assert "more than 100 lines" in answer.json()["errors"][0]["detail"]


def test_true_is_no_number(client):
    """Neither a gram, nor a piece, nor a version."""
    bad = {"formula": {"stages": [{"lines": [{"name": "Salt", "weight_g": True}]}]}, "count": {"targets": [{"pins": {"pieces": True}}]}}
    answer = client.post("/api/reckon/count", json=bad)
    told = {issue["pointer"]: issue["detail"] for issue in answer.json()["errors"]}
    assert told["/formula/stages/0/lines/0/weight_g"] == "Weight must be a number."
    assert told["/count/targets/0/pins/pieces"] == "Pieces must be a whole number."


def test_a_fault_of_ours(engine, monkeypatch, caplog):
    """Problem details that say whose fault it is; the connection stays, and the words of it are where the program was started."""

    def broken(*_: object) -> None:
        raise ZeroDivisionError("a fault that slipped through")

    monkeypatch.setattr("pancount.api.reckoning.whole_count", broken)
    client = TestClient(make_app(engine, web=None), base_url="http://localhost")
    answer = client.post("/api/reckon/count", json={"formula": {}})
    assert (answer.status_code, answer.headers["content-type"]) == (500, "application/problem+json")
    assert "not in what you typed" in answer.json()["detail"]
    assert "a fault that slipped through" in caplog.text
    assert client.get("/api/kitchen").status_code == 200


def test_what_seldom_changes_is_sent_once(client):
    """304 while it is the same, and anew as soon as the kitchen changed something."""
    for path in ("/api/reference", "/api/pantry"):
        first = client.get(path)
        again = client.get(path, headers={"If-None-Match": first.headers["etag"]})
        assert (again.status_code, again.content, again.headers["etag"]) == (304, b"", first.headers["etag"])
    honey = {"ingredient": {"name": "Honey of the marked lock", "role": "sugar"}, "version": 0}
    assert client.put("/api/pantry", json=honey).status_code == 200
    after = client.get("/api/pantry", headers={"If-None-Match": first.headers["etag"]})
    assert (after.status_code, "Honey of the marked lock" in after.text) == (200, True)


def test_what_is_large_goes_compressed(client, rolls):
    """Over 2 kB, where the browser takes it."""
    with client.stream("POST", "/api/reckon/count", json={"formula": rolls.model_dump(mode="json")}, headers={"Accept-Encoding": "gzip"}) as answer:
        raw = b"".join(answer.iter_raw())
    assert answer.headers["content-encoding"] == "gzip"
    assert len(raw) < len(gzip.decompress(raw)) / 3
    assert "content-encoding" not in client.get("/api/kitchen", headers={"Accept-Encoding": "gzip"}).headers


def test_the_table_of_limits_is_this_one():
    """docs/promises.md says what the code holds."""

    def spaced(number: float) -> str:
        return f"{number:,}".replace(",", " ")

    said = " ".join((Path(__file__).parents[2] / "docs" / "promises.md").read_text().split())
    sizes = dict(BODY_BYTES)
    rows = [
        f"body: count, change, compare, method, ways, import | {spaced(sizes['POST /api/reckon/(count|change|compare|method|ways)'] // 1000)} kB",
        f"body: formula, recipe, table, method read | {spaced(sizes['POST /api/take-in/table'] // 1000)} kB",
        f"body: file | {spaced(sizes['POST /api/take-in/file'] // 1000)} kB",
        f"body: settings; others | {sizes['PUT /api/kitchen'] // 1000} kB; {OTHERS // 1000} kB",
        f"in a file of JSON | {spaced(most.FILE_MEMBERS)} | | things to weigh in a recipe | {most.RECIPE_THINGS} |",
        f"errors told of one body | {MOST_TOLD} | | text of a recipe; its lines | {spaced(most.RECIPE)} characters; {spaced(most.RECIPE_LINES)} |",
        f"what is beside it counted | {most.LINES} |",
        f"stages; things beside the dough | {most.STAGES}; {most.BESIDE} |",
        f"ways; rises of one | {most.FORMULA_WAYS}; {most.RISES} |",
        f"steps of a way; all of them together | {most.STEPS}; {spaced(most.METHOD)} characters |",
        f"read of a method; things its steps name | {spaced(most.METHOD_READ)} characters; {most.TAKES} |",
        f"targets; limits of a count | {most.TARGETS}; {most.LIMITS} |",
        f"put away ones counted | {spaced(most.FORMULAS)} | | tags in a saved page; attributes | {spaced(most.PAGE_TAGS)}; {spaced(most.PAGE_ATTRIBUTES)} |",
        f"recipes taken in | {spaced(most.TAKINGS)} | | rows of a table | {spaced(most.TABLE_ROWS)} |",
        f"ingredients of one's own | {most.OWN_INGREDIENTS} | | measures, and names, of one ingredient | {most.WAYS} |",
        f"pans; weighings of cups | {spaced(most.PANS)}; {spaced(most.WEIGHINGS)} |",
        f"body: a day, to keep or to plan | {sizes['(POST|PUT) /api/days(/.*)?'] // 1000} kB | | days; products, absences of one | {spaced(most.DAYS)}; {most.DAY_PRODUCTS}, {most.ABSENCES} |",
        f"body: what happened at the bench | {sizes['POST /api/bakes/[^/]+/events'] // 1000} kB | | bakes; under way; mixes of one | {spaced(most.BAKES)}; {most.BAKES_AT_ONCE}; {most.BENCH_MIXES} |",
        f"events of a bake; sent at once | {spaced(most.BENCH_EVENTS)}; {most.BENCH_SENT} | | devices that listen; reports of a scale at once | {live.LISTENERS}; {most.BENCH_READINGS} |",
        f"body: a bake written in; told of later | {sizes['POST /api/book/bakes'] // 1000} kB; {sizes['(POST|PUT) /api/book/bakes/[^/]+/(told|outcome)'] // 1000} kB |",
        f"photos of a bake; of a kitchen; tastings | {most.BOOK_PHOTOS}; {spaced(most.PHOTOS)}; {spaced(most.TASTINGS)} |",
        f"body: a photo | {spaced(sizes['POST /api/book/bakes/[^/]+/photos'] // 1000)} kB |",
        f"pixels of a photo: JPEG; progressive; PNG; WebP | {'; '.join(str(one // 1_000_000) for one in most.PHOTO_PIXELS.values())} million |",
        f"from {LEAST_GRAMS:f} g to {spaced(MOST_GRAMS)} g",
    ]
    assert [row for row in rows if row not in said] == []
    assert MOST_MEMBERS == most.FILE_MEMBERS
