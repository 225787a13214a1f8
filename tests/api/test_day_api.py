"""Baking days over the wire: kept, planned line by line, on paper and in calendars."""

import asyncio
import gc
import io
import json

import pytest
import vobject
from icalendar import Calendar
from pypdf import PdfReader

from pancount.api.busy import Busy
from pancount.api.planning import Planners
from pancount.core.base import most
from pancount.core.day.day import Day
from pancount.core.day.plan import Asked
from pancount.demo.weir_house import KIT, examples

NAMES = ("Malted seed bagels", "Leek and thyme focaccia")


@pytest.fixture
def day(client) -> dict:
    """Two products of the demo kitchen in the records, wanted on a Saturday."""
    products = []
    for n, name in enumerate(NAMES):
        formula, count = next(one for one in examples() if one[0].name == name)
        made = client.post("/api/formulas", json={"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")})
        products.append({"key": f"p{n}", "formula_id": made.json()["head"]["id"], "name": name})
    return {"name": "Stall", "date": "2026-11-28", "products": products}


@pytest.fixture
def kept(client, day) -> dict:
    return client.post("/api/days", json=day).json()


def told(response) -> list[dict]:
    return [json.loads(line) for line in response.text.splitlines()]


class TestKeeping:
    """As formulas are: a version guards it."""

    def test_there_and_back(self, client, kept):
        assert client.get(f"/api/days/{kept['head']['id']}").json() == kept
        assert any(head["id"] == kept["head"]["id"] and head["products"] == list(NAMES) for head in client.get("/api/days").json())

    def test_two_windows(self, client, kept):
        """The second is told; the very same sent again is not."""
        path, version = f"/api/days/{kept['head']['id']}", kept["head"]["version"]
        changed = kept["day"] | {"ready_min": 500}
        first = client.put(path, json={"day": changed, "version": version})
        assert (first.status_code, first.json()["head"]["version"]) == (200, version + 1)
        assert client.put(path, json={"day": changed, "version": version}).status_code == 200
        late = client.put(path, json={"day": kept["day"] | {"ready_min": 510}, "version": version})
        assert (late.status_code, late.json()["type"]) == (409, "urn:pancount:problem:behind")
        assert client.delete(path, params={"version": version}).status_code == 409
        assert client.delete(path, params={"version": version + 1}).status_code == 204
        assert client.get(path).status_code == 404

    @pytest.mark.parametrize(
        ("change", "where"),
        [
            ({"date": "2026-02-30"}, "/date"),
            ({"ready_min": 99_999}, "/ready_min"),
            ({"bakers": ["a", "b", "c"]}, "/bakers"),
            ({"products": [{"key": "a", "formula_id": 1, "pieces": 0}]}, "/products/0/pieces"),
            ({"products": [{"key": "a", "formula_id": 1}, {"key": "a", "formula_id": 2}]}, ""),
            ({"products": [{"key": "a", "formula_id": 1, "marks": [{"step": 0, "kind": "mix"}]}]}, "/products/0/marks/0"),
            ({"products": [{"key": f"p{n}", "formula_id": 1} for n in range(most.DAY_PRODUCTS + 1)]}, "/products"),
        ],
    )
    def test_what_is_refused(self, client, day, change, where):
        """With a sentence, and where it stands."""
        answer = client.post("/api/days", json=day | change)
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["pointer"].startswith(where)
        assert answer.json()["errors"][0]["detail"]

    def test_typed(self, client, day):
        read = client.post("/api/days/read-counts", json={"text": "12 malted bagels, 3 zeppelins"}).json()
        assert [one["pieces"] for one in read] == [12, 3]
        assert {meant["name"] for meant in read[0]["means"]} == {NAMES[0]}
        assert read[1]["means"] == []


class TestPlanning:
    """In a process of its own, a line at a time."""

    def test_lines(self, client, day):
        """The first has a timetable, the last is done, none is worse; the formula that is gone is told."""
        asked = day | {"products": [*day["products"], {"key": "gone", "formula_id": 2_000_000_000, "name": "Gone"}]}
        lines = told(client.post("/api/days/plan", json={"day": asked}))
        assert [lines[0]["stage"], lines[-1]["stage"]] == ["first", "done"]
        assert [one["product"] for one in lines[0]["troubles"]] == ["gone"]
        table = lines[-1]["timetable"]
        assert [one["cleared"] for one in table["products"]] == [True, True, False]
        assert table["weighs"] <= lines[0]["timetable"]["weighs"]
        assert table["doings"]
        again = told(client.post("/api/days/plan", json={"day": asked, "hint": table["starts"]}))
        assert again[0]["timetable"]["weighs"] == table["weighs"]

    def test_nothing_to_plan(self, client, day):
        lines = told(client.post("/api/days/plan", json={"day": day | {"products": []}}))
        assert lines[-1]["stage"] == "done"
        assert lines[-1]["timetable"]["doings"] == []

    def test_what_is_refused(self, client, day):
        assert client.post("/api/days/plan", json={"day": day | {"absences": [{"begins_min": 0}]}}).status_code == 422


class TestProcesses:
    """One plan at a time, ended with whoever asked."""

    ASKED = Asked(day=Day(date="2026-11-28"))

    def test_given_up_half_way_or_never_heard(self):
        """A plan whose lines nobody takes any more leaves its turn to the next."""

        async def planned() -> list[bytes]:
            planners = Planners(counted=0.1)
            half = await planners.plan(self.ASKED)
            await anext(half)
            await half.aclose()
            unheard = await planners.plan(self.ASKED)
            del unheard
            gc.collect()
            found = [line async for line in await planners.plan(self.ASKED)]
            await planners.close()
            return found

        assert json.loads(asyncio.run(planned())[-1])["stage"] == "done"

    def test_two_at_once(self, monkeypatch):
        """The second waits its turn, and is told where that is long."""
        monkeypatch.setattr("pancount.api.planning.TURN_S", 0.05)

        async def both() -> None:
            planners = Planners(counted=0.1)
            first = await planners.plan(self.ASKED)
            with pytest.raises(Busy):
                await planners.plan(self.ASKED)
            await first.aclose()
            await planners.close()

        asyncio.run(both())


class TestPapers:
    """The wall sheet and calendars, of the timetable that is gone by."""

    @pytest.fixture
    def running(self, client, kept) -> dict:
        """With its timetable taken."""
        table = told(client.post("/api/days/plan", json={"day": kept["day"]}))[0]["timetable"]
        body = {"day": kept["day"] | {"told": table["starts"]}, "version": kept["head"]["version"]}
        return client.put(f"/api/days/{kept['head']['id']}", json=body).json()

    def test_the_same_on_every_paper(self, client, running):
        """Screen, PDF and calendar have the same touches at the same times."""
        path = f"/api/days/{running['head']['id']}"
        papers = client.get(f"{path}/papers").json()["papers"]
        assert papers["lines"]
        pdf = client.get(f"{path}/wall.pdf", params={"paper": "Letter"})
        text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf.content)).pages)
        assert all(name in text for name in NAMES)
        assert "Friday 27.11." in text
        assert "Saturday 28.11." in text
        assert client.get(f"{path}/wall.pdf", params={"paper": "roll"}).status_code == 200
        calendar = Calendar.from_ical(client.get(f"{path}/day.ics").content)
        begins = sorted(event["dtstart"].dt for event in calendar.walk("VEVENT"))
        assert [(one.day, one.hour, one.minute) for one in begins] == [
            (28 + (round(line["begins_min"]) // 1440), round(line["begins_min"]) % 1440 // 60, round(line["begins_min"]) % 60) for line in papers["lines"]
        ]

    def test_read_by_another_library(self, client, running):
        """An event a touch, each with an alarm, local times, one UID each."""
        parsed = vobject.readOne(client.get(f"/api/days/{running['head']['id']}/day.ics").text)
        events = parsed.vevent_list
        assert len({event.uid.value for event in events}) == len(events) > 5
        assert all(event.valarm.action.value == "DISPLAY" for event in events)
        assert all(event.dtstart.value.tzinfo is None for event in events)
        assert all(event.dtend.value > event.dtstart.value for event in events)

    def test_it_updates_and_does_not_double(self, client, running):
        """Moved by an hour the same touches keep their UIDs, and their sequence goes up."""
        path = f"/api/days/{running['head']['id']}"

        def events() -> dict[str, tuple[int, object]]:
            return {str(one["uid"]): (int(one["sequence"]), one["dtstart"].dt) for one in Calendar.from_ical(client.get(f"{path}/day.ics").content).walk("VEVENT")}

        before = events()
        later = running["day"] | {"ready_min": 510, "told": []}
        client.put(path, json={"day": later, "version": running["head"]["version"]})
        after = events()
        assert set(before) & set(after)
        assert len(set(before) & set(after)) > 0.7 * len(before)
        assert all(after[uid][0] > before[uid][0] for uid in set(before) & set(after))
        assert any(after[uid][1] != before[uid][1] for uid in set(before) & set(after))

    def test_subscribed(self, client, kept):
        """The coming days, and 304 while nothing changed; a change is another."""
        coming = kept["day"] | {"date": "2090-01-02", "products": kept["day"]["products"][:1]}
        first = client.get("/api/days/calendar.ics")
        assert first.headers["content-type"].startswith("text/calendar")
        assert client.get("/api/days/calendar.ics", headers={"If-None-Match": first.headers["etag"]}).status_code == 304
        made = client.post("/api/days", json=coming).json()
        second = client.get("/api/days/calendar.ics", headers={"If-None-Match": first.headers["etag"]})
        assert second.status_code == 200
        assert any(one["dtstart"].dt.year >= 2089 for one in Calendar.from_ical(second.content).walk("VEVENT"))
        client.delete(f"/api/days/{made['head']['id']}", params={"version": made["head"]["version"]})

    def test_there_is_none(self, client):
        assert [client.get(f"/api/days/2000000000/{what}").status_code for what in ("papers", "wall.pdf", "day.ics")] == [404, 404, 404]


def test_the_demo_kit_is_one_of_each():
    assert (KIT.ovens, KIT.mixers, KIT.pots, KIT.griddles) == (1, 1, 1, 1)
