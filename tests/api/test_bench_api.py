"""The bench over the wire: bakes begun once, events added once, told as they happen."""

import asyncio
import json
import socket
import threading
import time
from collections.abc import Iterator
from uuid import uuid4

import httpx2
import pytest
import uvicorn
from sqlalchemy import text
from sqlalchemy.exc import DBAPIError

from pancount.api.app import let_go, make_app
from pancount.api.busy import Busy
from pancount.api.devices import DeviceAt, _lines
from pancount.core.base import most
from pancount.core.count.count import Count
from pancount.core.formula.formula import Formula
from pancount.demo.weir_house import examples
from pancount.serving import listening
from started import until

NAME = "Malted seed bagels"
AT_S = 1_764_000_000.0


def sent(client, bake: str, *deeds: dict, writer: str = "tablet", first: int = 1, at_s: float = 4e9, ids: list[str] | None = None):
    """Events of one writer, counted on from `first`."""
    events = [
        {"id": ids[n] if ids else str(uuid4()), "writer": writer, "clock": first + n, "at_s": at_s, "who": writer, "what": deed} for n, deed in enumerate(deeds)
    ]
    return client.post(f"/api/bakes/{bake}/events", json={"events": events})


def begun(client, **more: object) -> dict:
    formula, count = next(one for one in examples() if one[0].name == NAME)
    made = client.post("/api/formulas", json={"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")}).json()
    answer = client.post("/api/bakes", json={"id": str(uuid4()), "formula_id": made["head"]["id"], **more})
    assert answer.status_code == 201, answer.text
    return answer.json()


@pytest.fixture
def bake(client) -> Iterator[dict]:
    """A bake of the bagels, just begun."""
    own = begun(client)
    yield own
    sent(client, own["head"]["id"], {"deed": "ended", "how": "stopped"}, writer="end")


WEIGHED = {"deed": "weighed", "line": "w0.s2.n0", "g": 470}


class TestBeginning:
    """From a formula, a revision, a day or the last bake."""

    def test_twice_is_once(self, client, bake):
        body = {"id": bake["head"]["id"], "formula_id": bake["head"]["formula_id"]}
        again = client.post("/api/bakes", json=body)
        assert (again.status_code, again.json()["head"]) == (201, bake["head"])

    def test_it_stays_as_it_was(self, client, bake):
        """Whatever becomes of the formula's desk, the bake keeps its sheet and count."""
        number = bake["head"]["formula_id"]
        state = client.get(f"/api/formulas/{number}").json()
        changed = state["formula"] | {"name": "Another", "flour_g": 5000}
        assert client.put(f"/api/formulas/{number}/desk", json={"formula": changed, "count": state["count"], "version": state["version"]}).status_code == 200
        assert client.get(f"/api/bakes/{bake['head']['id']}").json()["bake"] == bake["bake"]

    def test_from_a_day(self, client, bake):
        """With its pieces and its way."""
        product = {"key": "p1", "formula_id": bake["head"]["formula_id"], "name": NAME, "pieces": 12}
        day = client.post("/api/days", json={"name": "Stall", "date": "2026-12-05", "products": [product]}).json()
        made = client.post("/api/bakes", json={"id": str(uuid4()), "day": {"day_id": day["head"]["id"], "product": "p1"}})
        assert (made.status_code, made.json()["head"]["pieces"]) == (201, 12)
        gone = client.post("/api/bakes", json={"id": str(uuid4()), "day": {"day_id": day["head"]["id"], "product": "p9"}})
        assert gone.status_code == 404
        sent(client, made.json()["head"]["id"], {"deed": "ended", "how": "stopped"})

    def test_again(self, client, bake):
        made = client.post("/api/bakes", json={"id": str(uuid4()), "again": bake["head"]["id"]}).json()
        assert (made["head"]["name"], made["bake"]["lines"]) == (NAME, bake["bake"]["lines"])
        sent(client, made["head"]["id"], {"deed": "ended", "how": "stopped"})

    @pytest.mark.parametrize("body", [{}, {"formula_id": 2_000_000_000}, {"again": str(uuid4())}])
    def test_from_nothing(self, client, body):
        assert client.post("/api/bakes", json={"id": str(uuid4()), **body}).status_code == 404

    def test_pins_that_fight(self, client, bake):
        """There is no sheet, so there is no bake."""
        fights = {"pins": {"dough_g": 1000}, "targets": [{"pins": {"pieces": 10, "piece_g": 500}}]}
        answer = client.post("/api/bakes", json={"id": str(uuid4()), "formula_id": bake["head"]["formula_id"], "count": fights})
        assert (answer.status_code, answer.json()["type"]) == (422, "urn:pancount:problem:pins_fight")

    def test_without_steps(self, client):
        """The usual steps stand in, and the formula is left as it is."""
        formula, count = next(one for one in examples() if one[0].name == NAME)
        bare = formula.model_copy(update={"ways": ()})
        made = client.post("/api/formulas", json={"formula": bare.model_dump(mode="json"), "count": Count.model_validate(count.model_copy(update={"way": ""}).model_dump()).model_dump(mode="json")}).json()
        own = client.post("/api/bakes", json={"id": str(uuid4()), "formula_id": made["head"]["id"]}).json()
        assert (own["bake"]["written"], own["bake"]["tasks"][0]["kind"]) == (False, "mix")
        assert Formula.model_validate(client.get(f"/api/formulas/{made['head']['id']}").json()["formula"]).ways == ()
        sent(client, own["head"]["id"], {"deed": "ended", "how": "stopped"})


class TestEvents:
    """Added, once, for good."""

    def test_added_and_there(self, client, bake):
        number = bake["head"]["id"]
        meant = next(one["target_g"] for one in bake["bake"]["lines"] if one["key"] == "w0.s2.n0")
        state = sent(client, number, WEIGHED | {"g": meant}).json()
        own = next(one for one in state["bake"]["lines"] if one["key"] == "w0.s2.n0")
        assert (own["in_g"], own["status"], own["who"]) == (meant, "in", "tablet")
        assert client.get(f"/api/bakes/{number}").json()["bake"] == state["bake"]
        assert [one["what"]["deed"] for one in client.get(f"/api/bakes/{number}/events").json()] == ["weighed"]

    def test_sent_twice(self, client, bake):
        """The same event counts once, alone or with others behind it."""
        number, ids = bake["head"]["id"], [str(uuid4()), str(uuid4())]
        first = sent(client, number, {"deed": "piece", "g": 80}, ids=ids[:1]).json()
        again = sent(client, number, {"deed": "piece", "g": 80}, {"deed": "piece", "g": 81}, ids=ids)
        assert again.status_code == 200
        assert [len(one["bake"]["strips"][0]["pieces"]) for one in (first, again.json())] == [1, 2]

    def test_a_count_that_is_taken(self, client, bake):
        number = bake["head"]["id"]
        sent(client, number, WEIGHED)
        other = sent(client, number, WEIGHED | {"g": 100})
        assert (other.status_code, other.json()["type"]) == (409, "urn:pancount:problem:behind")
        assert len(client.get(f"/api/bakes/{number}/events").json()) == 1

    @pytest.mark.parametrize("at_s", [0.0, 9e9])
    def test_times_of_a_clock_that_is_wrong(self, client, bake, at_s):
        """Never before the bake was begun, nor after now."""
        state = sent(client, bake["head"]["id"], WEIGHED, at_s=at_s).json()
        begun_s = 0 if at_s else state["now_s"] - 60
        own = next(one for one in state["bake"]["lines"] if one["key"] == "w0.s2.n0")
        assert begun_s <= own["at_s"] <= state["now_s"]

    @pytest.mark.parametrize(
        ("deed", "pointer"),
        [
            ({"deed": "weighed", "line": "w0.s2.n0", "g": -1}, "/events/0/what/weighed/g"),
            ({"deed": "weighed", "line": "w0.s2.n0", "g": True}, "/events/0/what/weighed/g"),
            ({"deed": "piece", "g": 0}, "/events/0/what/piece/g"),
            ({"deed": "timer_set", "minutes": 1e9}, "/events/0/what/timer_set/minutes"),
            ({"deed": "measured", "what": "mood", "value": 1}, "/events/0/what/measured/what"),
            ({"deed": "danced"}, "/events/0/what"),
        ],
    )
    def test_bad_ones(self, client, bake, deed, pointer):
        """The answer points at the field, and nothing of the sending is kept."""
        answer = sent(client, bake["head"]["id"], deed)
        assert (answer.status_code, answer.json()["errors"][0]["pointer"]) == (422, pointer)
        assert client.get(f"/api/bakes/{bake['head']['id']}/events").json() == []

    def test_too_many_at_once(self, client, bake):
        assert sent(client, bake["head"]["id"], *[WEIGHED] * (most.BENCH_SENT + 1)).status_code == 422

    def test_a_bake_that_is_full(self, client, bake, monkeypatch):
        monkeypatch.setattr(most, "BENCH_EVENTS", 2)
        answer = sent(client, bake["head"]["id"], WEIGHED, WEIGHED, WEIGHED)
        assert (answer.status_code, answer.json()["type"]) == (409, "urn:pancount:problem:full")

    def test_never_changed(self, client, bake, engine):
        """Not even by SQL."""
        sent(client, bake["head"]["id"], WEIGHED)
        for statement in ("UPDATE bench_events SET writer = 'x'", "DELETE FROM bench_events"):
            with pytest.raises(DBAPIError, match="never changed"), engine.begin() as connection:
                connection.execute(text(statement))

    def test_numbers_have_no_gaps(self, client, bake, engine):
        """Who asks for what came after a number misses nothing."""
        other = begun(client)
        for n in range(1, 6):
            sent(client, bake["head"]["id"], WEIGHED, first=n)
            sent(client, other["head"]["id"], WEIGHED, {"deed": "nothing"}, first=n)
        with engine.connect() as connection:
            numbers = list(connection.scalars(text("SELECT number FROM bench_events ORDER BY number")))
        assert numbers == list(range(1, len(numbers) + 1))
        sent(client, other["head"]["id"], {"deed": "ended", "how": "stopped"}, first=20)

    def test_ended_and_gone_on_with(self, client, bake):
        number = bake["head"]["id"]
        assert number in [one["head"]["id"] for one in client.get("/api/bench").json()["bakes"]]
        ids = [str(uuid4())]
        sent(client, number, {"deed": "ended", "how": "done"}, ids=ids)
        assert number not in [one["head"]["id"] for one in client.get("/api/bench").json()["bakes"]]
        assert number in [one["id"] for one in client.get("/api/bakes").json()]
        sent(client, number, {"deed": "undone", "of": ids[0]}, first=2)
        assert number in [one["head"]["id"] for one in client.get("/api/bench").json()["bakes"]]

    def test_not_here(self, client):
        number = str(uuid4())
        assert [client.get(f"/api/bakes/{number}").status_code, sent(client, number, WEIGHED).status_code, client.get("/api/bakes/xyz").status_code] == [404, 404, 422]


def test_cards_say_what_is_next(client, bake):
    """The next line, then what rings."""
    number = bake["head"]["id"]

    def card() -> dict:
        return next(one["card"] for one in client.get("/api/bench").json()["bakes"] if one["head"]["id"] == number)

    assert card()["next"] == f"Weigh Bread flour, {bake['bake']['lines'][0]['target_g']:.4g} g"
    sent(client, number, {"deed": "timer_set", "name": "Eggs", "minutes": 4})
    assert card()["timers"][0]["name"] == "Eggs"


@pytest.fixture(scope="module")
def served(engine) -> Iterator[str]:
    """The application on a port of its own: what is told live needs one."""
    app = make_app(engine, web=None)
    listener = listening(0)
    server = uvicorn.Server(uvicorn.Config(app, log_level="warning", timeout_graceful_shutdown=2))
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listener]})
    thread.start()
    until(lambda: server.started)
    yield f"http://127.0.0.1:{listener.getsockname()[1]}"
    server.should_exit = True
    thread.join()


class Listener:
    """A device that listens to the bench."""

    def __init__(self, address: str, after: int | None = None, last: str | None = None) -> None:
        self.heard: list[dict] = []
        self.ids: list[int] = []
        self.alive = 0
        self._client = httpx2.Client(timeout=60)
        self._stream = self._client.stream("GET", f"{address}/api/bench/live", params={} if after is None else {"after": after}, headers={"Last-Event-ID": last} if last else {})
        self._answer = self._stream.__enter__()
        self._thread = threading.Thread(target=self._listen)
        self._thread.start()
        until(lambda: self.alive)

    def _listen(self) -> None:
        try:
            event = ""
            for line in self._answer.iter_lines():
                if line.startswith("event: "):
                    event = line[7:]
                    self.alive += event == "alive"
                elif line.startswith("id: "):
                    self.ids.append(int(line[4:]))
                elif line.startswith("data: ") and event == "happened":
                    self.heard.append(json.loads(line[6:]))
        except httpx2.HTTPError:
            pass  # it was closed

    def close(self) -> None:
        self._answer.extensions["network_stream"].get_extra_info("socket").shutdown(socket.SHUT_RDWR)
        self._thread.join()
        self._client.close()


class TestLive:
    """Everyone hears of it."""

    def test_heard_by_all_in_order(self, client, bake, served):
        """Two devices on one server, while it is written through another one of the same database."""
        devices = [Listener(served), Listener(served)]
        for n in range(1, 21):
            sent(client, bake["head"]["id"], WEIGHED | {"g": n}, first=n)
        for device in devices:
            until(lambda device=device: len(device.heard) >= 20)
            own = [one for one in device.heard if one["bake"] == bake["head"]["id"]]
            assert [one["event"]["what"]["g"] for one in own] == list(range(1, 21))
            assert device.ids == sorted(set(device.ids))
            device.close()

    def test_on_from_the_last_seen(self, client, bake, served):
        """Who was away is told what came meanwhile, once."""
        before = client.get("/api/bench").json()["number"]
        for n in range(1, 4):
            sent(client, bake["head"]["id"], WEIGHED | {"g": n}, first=n)
        for how in ({"after": before + 1}, {"last": str(before + 1)}):
            device = Listener(served, **how)
            until(lambda device=device: len(device.heard) >= 2)
            assert [one["event"]["what"]["g"] for one in device.heard][:2] == [2, 3]
            device.close()

    def test_the_database_hangs_up(self, client, bake, served, engine):
        """Whoever listens is told on, once the application listens to it again."""
        device = Listener(served)
        sent(client, bake["head"]["id"], WEIGHED | {"g": 1})
        until(lambda: len(device.heard) == 1)
        with engine.begin() as connection:
            ended = connection.scalar(text("SELECT count(pg_terminate_backend(pid)) FROM pg_stat_activity WHERE query = 'LISTEN bench'"))
        assert ended >= 1
        sent(client, bake["head"]["id"], WEIGHED | {"g": 2}, first=2)
        until(lambda: len(device.heard) == 2)
        assert [one["event"]["what"]["g"] for one in device.heard] == [1, 2]
        device.close()

    def test_from_long_ago(self, client, bake, served):
        """All of it, from the database."""
        sent(client, bake["head"]["id"], WEIGHED)
        number = client.get("/api/bench").json()["number"]
        device = Listener(served, after=0)
        until(lambda: device.ids and device.ids[-1] >= number)
        assert device.ids[: number] == list(range(1, number + 1))
        device.close()

    @pytest.mark.parametrize("query", [{"after": -1}, {"after": "x"}])
    def test_bad_numbers(self, client, query):
        assert client.get("/api/bench/live", params=query).status_code == 422

    def test_too_many_listen(self, engine, monkeypatch):
        """503 rather than everyone slow."""
        monkeypatch.setattr("pancount.api.live.LISTENERS", 0)
        app = make_app(engine, web=None)

        async def listen() -> None:
            with pytest.raises(Busy):
                await app.state.live.begin(1, None)
            await let_go(app)

        asyncio.run(listen())


class TestDevices:
    """Raw reports in, what they mean out."""

    def read(self, client, before: dict, *hexes: str, at_s: float = AT_S, **more: object) -> dict:
        reports = [{"report": 3, "data": data, "at_s": at_s + n / 5} for n, data in enumerate(hexes)]
        body = {"before": before, "reports": reports, "target_g": 475, "tolerance_g": 2, "now_s": at_s + len(hexes) / 5, **more}
        answer = client.post("/api/devices/scale/read", json=body)
        assert answer.status_code == 200, answer.text
        return answer.json()

    def test_a_weighing(self, client):
        """A bowl of 412 g, 475 g of flour into it, taken; the next line begins from nothing."""
        bowl = self.read(client, {}, "0202000000", *["0402009c01"] * 6)
        assert (bowl["tare_g"], bowl["net_g"]) == (412, 0)
        full = self.read(client, bowl, *["0402007703"] * 8, at_s=AT_S + 10)
        assert (full["net_g"], full["take"]) == (475, True)
        assert self.read(client, full, at_s=AT_S + 12, zero=True)["net_g"] == 0

    def test_zeroed_as_it_moves(self, client):
        """Over the wire too it waits until it stands; ounces tell their step, too coarse for a spoon of salt."""
        moving = self.read(client, {}, "0202000000", "0303009001", "0303009601")
        waits = self.read(client, moving, at_s=AT_S + 1, zero=True)
        assert (waits["zeroing"], waits["phase"]) == (True, "empty")
        stood = self.read(client, waits, *["0402009c01"] * 4, at_s=AT_S + 2)
        assert (stood["zeroing"], stood["tare_g"], stood["net_g"], stood["step_g"]) == (False, 412, 0, 1)
        ounces = self.read(client, stood, *["040bff9400"] * 8, at_s=AT_S + 4, target_g=8, tolerance_g=0.16)
        assert ounces["step_g"] == pytest.approx(2.835, abs=0.001)
        assert (ounces["coarse"], ounces["take"]) == (True, False)

    @pytest.mark.parametrize(("report", "data"), [(2, "0402009c01"), (3, "0402"), (3, "")])
    def test_no_report(self, client, report, data):
        body = {"reports": [{"report": report, "data": data, "at_s": 1}], "now_s": 1}
        answer = client.post("/api/devices/scale/read", json=body)
        assert (answer.status_code, answer.json()["type"]) == (422, "urn:pancount:problem:not_read")

    def test_the_thermometer(self, client):
        assert client.post("/api/devices/thermometer/read", json={"data": "00080100ff"}).json() == {"celsius": 26.4}
        assert client.post("/api/devices/thermometer/read", json={"data": "00ffff7f00"}).status_code == 422

    def test_none_was_started(self, client):
        """It is said, and the stream ends."""
        assert client.get("/api/devices").json() == []
        assert '"there": false' in client.get("/api/devices/scale/reports").text
        assert client.get("/api/devices/oven/reports").status_code == 422

    def test_a_wire_that_ends(self, engine):
        """Reports come through as they are; a device that goes away is looked for again until one stops listening."""
        app = make_app(engine, web=None)

        async def listen() -> list[str]:
            async def talk(_: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
                writer.write(b"0402009c01\n")
                await writer.drain()
                writer.close()

            async with await asyncio.start_server(talk, "127.0.0.1", 0) as wire:
                port = wire.sockets[0].getsockname()[1]
                app.state.wires.devices = (DeviceAt(kind="scale", page="http://127.0.0.1/", wire=port),)
                found = []
                lines = _lines(app.state.wires, app.state.wires.at("scale"))
                async for line in lines:
                    found.append(line.decode())
                    if len(found) == 3:
                        await lines.aclose()
                        break
                return found

        found = asyncio.run(listen())
        assert '"there": true' in found[0]
        assert all('"data": "0402009c01"' in one for one in found[1:])
        assert app.state.wires.listeners == 0


def test_time_goes_on(client, bake):
    """What time it is comes with each answer, so that timers go by one clock."""
    first = client.get(f"/api/bakes/{bake['head']['id']}").json()["now_s"]
    assert abs(first - time.time()) < 60
