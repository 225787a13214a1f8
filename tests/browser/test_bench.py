"""A whole bake at the bench: with the practice scale and thermometer, a second device, a reload, and no network for a while."""

import json
import re
import time
import urllib.request
from collections.abc import Iterator
from contextlib import closing, contextmanager
from uuid import uuid4

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect
from sqlalchemy import Engine

from browser.benching import happened, ready_before, touch
from browser.conftest import PATIENCE_MS, Served
from browser.steps import fits
from browser.test_accessibility import serious
from pancount.api.devices import DeviceAt
from pancount.cli import practice_devices
from pancount.core.formula.steps import Step
from pancount.core.formula.ways import way_of, with_way
from pancount.demo.weir_house import KIT, examples
from relay import Relay

BOWL_G = 412
READS = "**/api/devices/scale/read"


@pytest.fixture(scope="module")
def devices() -> Iterator[tuple[DeviceAt, ...]]:
    with practice_devices(0) as started:
        yield started


@pytest.fixture(scope="module")
def bench(engine: Engine, devices: tuple[DeviceAt, ...]) -> Iterator[str]:
    """The application with practice devices."""
    with Served(engine, devices) as address:
        yield address


@pytest.fixture
def tablet(browser: Browser, bench: str) -> Iterator[Page]:
    yield from opened(browser, bench, 1280, 800)


def opened(browser: Browser, address: str, width: int, height: int, scheme: str = "light") -> Iterator[Page]:
    context = browser.new_context(base_url=address, viewport={"width": width, "height": height}, color_scheme=scheme)
    context.set_default_timeout(PATIENCE_MS)
    page = context.new_page()
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    yield page
    context.close()
    assert not errors


def bagels(context: BrowserContext) -> dict:
    """A bake of the bagels with a stretch test after the last kneading, just begun."""
    formula, count = next(one for one in examples() if one[0].name == "Malted seed bagels")
    way = way_of(formula, count.way)
    at = max(n for n, step in enumerate(way.steps) if step.kind in ("knead", "knead_by_hand")) + 1
    formula = with_way(formula, formula.ways.index(way), way.model_copy(update={"steps": (*way.steps[:at], Step(kind="test"), *way.steps[at:])}))
    made = context.request.post("/api/formulas", data={"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")}).json()
    return context.request.post("/api/bakes", data={"id": str(uuid4()), "formula_id": made["head"]["id"]}).json()


@contextmanager
def demo_kit(context: BrowserContext) -> Iterator[None]:
    """The demo kitchen's pot and oven while a bake is begun; it keeps them."""
    kitchen = context.request.get("/api/kitchen").json()
    other = kitchen | {"settings": kitchen["settings"] | {"kit": KIT.model_copy(update={"bowl_ml": None}).model_dump(mode="json")}}
    assert context.request.put("/api/kitchen", data=other).ok
    yield
    assert context.request.put("/api/kitchen", data=kitchen | {"version": kitchen["version"] + 1}).ok


def state(page: Page) -> dict:
    return page.request.get(f"/api/bakes/{page.url.rsplit('/', 1)[1]}").json()["bake"]


def heading(page: Page) -> str:
    return page.locator(".center h2").first.inner_text()


def large(page: Page):
    """The large button."""
    return page.locator(".center .acts .el-button--primary").first


def weighs(page: Page, name: str) -> None:
    expect(page.locator(".center .weigh h2")).to_have_text(name)


def typed(page: Page, text: str) -> None:
    page.get_by_role("textbox", name=re.compile("what is in$")).fill(text)
    page.keyboard.press("Enter")


def practises(page: Page) -> None:
    """With the practice scale."""
    page.get_by_role("button", name="Scale: none").click()
    page.get_by_role("button", name="Practice scale").click()
    page.keyboard.press("Escape")


def stands(page: Page, g: float) -> None:
    """So much is shown, and no more comes."""
    expect(page.locator(".figure .number")).to_have_text(f"{g:.0f}")


def with_a_bowl(page: Page, scale: DeviceAt) -> list[dict]:
    """A bake of the bagels with an empty bowl on the practice scale; what is to be weighed."""
    touch(scale, "clear")
    bake = bagels(page.context)
    page.goto(f"/bench/{bake['head']['id']}")
    practises(page)
    touch(scale, "put", BOWL_G)
    stands(page, 0)
    return bake["bake"]["lines"]


class TestWeighing:
    """With the practice scale."""

    def test_by_itself_and_over(self, tablet: Page, devices):
        """The bowl is tared, a line is taken when it stands; an over-pour is scaled up, and the new targets stand at once."""
        scale = devices[0]
        touch(scale, "clear")
        bake = bagels(tablet.context)
        tablet.goto(f"/bench/{bake['head']['id']}")
        practises(tablet)
        first, second = bake["bake"]["lines"][:2]
        weighs(tablet, first["name"])
        touch(scale, "put", BOWL_G)
        expect(tablet.locator(".to-go")).to_contain_text(f"{first['target_g']:.0f}\u202fg to go")
        touch(scale, "put", first["target_g"])
        weighs(tablet, second["name"])
        assert state(tablet)["lines"][0]["by"] == "scale"
        expect(tablet.locator(".to-go")).to_contain_text(f"{second['target_g']:.0f}\u202fg to go")
        touch(scale, "put", second["target_g"] * 1.5)
        expect(tablet.locator(".to-go")).to_contain_text("over")
        expect(large(tablet)).to_contain_text("Take this weight")
        tablet.evaluate("document.activeElement.blur()")
        tablet.keyboard.press("Space")
        tablet.get_by_role("button", name="Scale the rest up").click()
        weighs(tablet, first["name"])  # more of what is in already
        now = state(tablet)["lines"]
        assert now[0]["target_g"] > first["target_g"]
        expect(tablet.get_by_role("region", name=re.compile(first["of"].split(",")[0])).get_by_role("button").nth(2)).to_contain_text(f"{now[2]['target_g']:.0f}")

    def test_trouble_is_said_and_typing_goes_on(self, tablet: Page, devices):
        """Overloaded, in ounces, unplugged."""
        scale = devices[0]
        touch(scale, "clear")
        bake = bagels(tablet.context)
        tablet.goto(f"/bench/{bake['head']['id']}")
        practises(tablet)
        touch(scale, "put", 6000)
        expect(tablet.locator(".weigh .said")).to_contain_text("more is on it than the scale bears", ignore_case=True)
        touch(scale, "clear")
        expect(tablet.locator(".weigh .said")).to_have_count(0)
        touch(scale, "plugged")
        expect(tablet.locator(".weigh .said")).to_contain_text("has said nothing")
        typed(tablet, str(bake["bake"]["lines"][0]["target_g"]))
        weighs(tablet, bake["bake"]["lines"][1]["name"])
        touch(scale, "plugged")
        tablet.get_by_role("button", name="Practice scale").click()
        tablet.get_by_role("button", name="None: I type").first.click()

    def test_short_and_poured_on(self, tablet: Page, devices):
        """Taken too early, the scale counts on from what is in; then the line takes itself, as one weight."""
        scale, (first, second, *_) = devices[0], with_a_bowl(tablet, devices[0])
        touch(scale, "put", first["target_g"] - 40)
        stands(tablet, first["target_g"] - 40)
        tablet.keyboard.press("Space")
        expect(tablet.get_by_role("button", name=re.compile("short: decide$"))).to_be_visible()
        expect(tablet.locator(".to-go")).to_have_text("40\u202fg to go")
        touch(scale, "put", 40)
        weighs(tablet, second["name"])
        expect(tablet.locator(".top [role=status]")).to_have_text("kept")
        assert (state(tablet)["lines"][0]["in_g"], state(tablet)["lines"][0]["status"]) == (pytest.approx(first["target_g"], abs=first["tolerance_g"]), "in")

    def test_typed_beside_the_scale(self, tablet: Page, devices):
        """What was typed is in the bowl too: the next line begins from nothing. With nothing put on, the large button and Space take nothing."""
        scale, (first, second, *_) = devices[0], with_a_bowl(tablet, devices[0])
        expect(large(tablet)).to_be_disabled()
        tablet.keyboard.press("Space")
        weighs(tablet, first["name"])
        touch(scale, "put", first["target_g"] + 30)
        stands(tablet, first["target_g"] + 30)
        typed(tablet, str(first["target_g"]))
        weighs(tablet, second["name"])
        stands(tablet, 0)
        expect(tablet.get_by_role("textbox", name=re.compile("what is in$"))).not_to_be_focused()
        expect(tablet.locator(".top [role=status]")).to_have_text("kept")
        assert state(tablet)["lines"][0]["by"] == "typed"

    def test_while_something_is_asked(self, tablet: Page, devices):
        """What is poured while an over-pour is undecided is not lost: it counts when that is settled."""
        scale, (first, second, third, *_) = devices[0], with_a_bowl(tablet, devices[0])
        typed(tablet, str(first["target_g"] + 60))
        expect(tablet.get_by_role("button", name="Leave it so")).to_be_visible()
        with tablet.expect_response(lambda own: "scale/read" in own.url and own.json()["take"]):
            touch(scale, "put", second["target_g"])
        tablet.get_by_role("button", name="Leave it so").click()
        weighs(tablet, third["name"])
        expect(tablet.locator(".top [role=status]")).to_have_text("kept")
        assert [one["status"] for one in state(tablet)["lines"][:2]] == ["accepted", "in"]

    def test_away_asks_once_a_second_at_most(self, tablet: Page, devices):
        """A zero that waits for the server does not ask it without end."""
        scale = devices[0]
        with_a_bowl(tablet, scale)
        touch(scale, "plugged")  # no reports: what asks is the clock alone
        expect(tablet.locator(".weigh .said")).to_contain_text("has said nothing")
        tablet.route(READS, lambda route: route.abort())
        tablet.keyboard.press("z")
        expect(tablet.locator(".weigh .said")).to_contain_text("while Pan Count is away")
        begun = time.monotonic()
        for _ in range(3):
            with tablet.expect_request(READS):
                pass
        assert time.monotonic() - begun > 1  # a busy machine only makes it longer
        tablet.unroute(READS)
        touch(scale, "plugged")
        expect(tablet.locator(".weigh .said")).to_have_count(0)

    def test_a_nought_too_many(self, tablet: Page):
        """Asked about before it is taken."""
        bake = bagels(tablet.context)
        tablet.goto(f"/bench/{bake['head']['id']}")
        typed(tablet, str(bake["bake"]["lines"][0]["target_g"] * 10))
        tablet.get_by_text("A nought too many?").wait_for()
        tablet.get_by_role("button", name="Type it again").click()
        expect(tablet.get_by_text("A nought too many?")).to_have_count(0)
        assert state(tablet)["lines"][0]["in_g"] is None

    def test_flour_ran_out(self, tablet: Page):
        """Short, and no more there is: the rest is scaled down, or it is poured on."""
        bake = bagels(tablet.context)
        first, second = bake["bake"]["lines"][:2]
        tablet.goto(f"/bench/{bake['head']['id']}")
        typed(tablet, str(round(first["target_g"] * 0.8)))
        tablet.get_by_role("button", name=re.compile("short: decide$")).click()
        expect(tablet.get_by_role("button", name=re.compile("^Pour .* more"))).to_be_visible()
        tablet.get_by_role("button", name="Scale the rest down").click()
        weighs(tablet, second["name"])
        expect(tablet.locator(".top [role=status]")).to_have_text("kept")
        assert state(tablet)["lines"][1]["target_g"] < second["target_g"]

    def test_pieces_on_the_scale(self, tablet: Page, devices):
        """Put on, taken, taken off: one after the other, without a key."""
        scale = devices[0]
        touch(scale, "clear")
        bake = bagels(tablet.context)
        ready_before(tablet.request, bake, "divide")
        tablet.goto(f"/bench/{bake['head']['id']}")
        practises(tablet)
        expect(tablet.locator(".divide")).to_be_visible()
        made = state(tablet)["making"]["targets"][0]
        for n in (1, 2):
            touch(scale, "set", made["piece_g"])
            expect(tablet.get_by_role("img", name=re.compile(f"^{n} of {made['pieces']} pieces"))).to_be_visible()
            touch(scale, "clear")
            expect(tablet.locator(".divide .next")).to_contain_text(re.compile(r"^(?!.* on the scale)"))
        tablet.get_by_role("button", name="Practice scale").click()
        tablet.get_by_role("button", name="None: I type").first.click()

    def test_with_keys_alone(self, tablet: Page):
        """Space takes as meant, U takes it back, N leaves it out; Page Down is a pedal's."""
        bake = bagels(tablet.context)
        names = [one["name"] for one in bake["bake"]["lines"]]
        tablet.goto(f"/bench/{bake['head']['id']}")
        weighs(tablet, names[0])
        tablet.keyboard.press("Space")
        weighs(tablet, names[1])
        tablet.keyboard.press("PageDown")
        weighs(tablet, names[2])
        tablet.keyboard.press("u")
        weighs(tablet, names[1])
        tablet.keyboard.press("n")
        weighs(tablet, names[2])
        expect(tablet.locator(".top [role=status]")).to_have_text("kept")
        assert [one["status"] for one in state(tablet)["lines"][:3]] == ["in", "skipped", "open"]
        tablet.keyboard.press("?")
        expect(tablet.get_by_role("dialog", name="Keys of this screen")).to_be_visible()


class TestDough:
    """At the mixer, in the rise, on the board, in pot and oven."""

    def test_a_failed_test_water_and_a_warm_dough(self, tablet: Page, devices):
        """It tears: two minutes more; a spoon of water moves the gauges; the thermometer moves the rise."""
        bake = bagels(tablet.context)
        ready_before(tablet.request, bake, "test")
        tablet.goto(f"/bench/{bake['head']['id']}")
        expect(tablet.locator(".center h2").first).to_have_text("Stretch test")
        tablet.get_by_role("button", name="It tears: 2 min more").click()
        expect(tablet.locator(".clock .number")).to_have_text(re.compile(r"^(2:00|1:5\d)$"))
        tablet.get_by_text("Looser or stiffer").click()
        tablet.get_by_role("radio", name="Water").click()
        tablet.get_by_role("button", name="+ 1 tbsp").click()
        expect(tablet.locator(".moved")).to_contain_text("Liquid")
        tablet.get_by_role("button", name="Scale: none").click()
        tablet.get_by_role("button", name="Practice thermometer").click()
        tablet.keyboard.press("Escape")
        touch(devices[1], "around", 28)
        take = tablet.get_by_role("button", name=re.compile(r"Take 2[78]\.\d °C"))
        take.click()
        large(tablet).click()
        expect(tablet.locator(".center h2").first).to_have_text("First rise")
        expect(tablet.locator(".rise")).to_contain_text("warmer than the 24 meant")
        large(tablet).click()
        expect(tablet.locator(".marks")).to_contain_text("too far by")
        expect(tablet.locator(".top [role=status]")).to_have_text("kept")
        measured = state(tablet)["dough"]["measured_c"]
        assert 26.9 < measured < 28.6
        timer = tablet.get_by_role("region", name="Next for your hands").get_by_role("button", name="First rise", exact=True)
        expect(timer).to_be_visible()

    def test_pieces_pot_and_oven_to_the_book(self, tablet: Page):
        """The true loss, pieces beside their tolerance, loads in turn, and all of it in the book with a note."""
        with demo_kit(tablet.context):
            bake = bagels(tablet.context)
        ready_before(tablet.request, bake, "divide")
        tablet.goto(f"/bench/{bake['head']['id']}")
        expect(tablet.locator(".center h2").first).to_have_text("Divide")
        mixed, pieces = bake["bake"]["dough"]["planned_g"], bake["head"]["pieces"]
        dough = tablet.get_by_role("textbox", name="All the dough, on the scale")
        dough.fill(str(round(mixed * 0.8)))
        tablet.keyboard.press("Enter")
        expect(tablet.locator(".divide")).to_contain_text("of the dough is missing")
        dough.fill(str(round(mixed * 0.97)))
        tablet.keyboard.press("Enter")
        expect(tablet.locator(".divide")).to_contain_text("3.0 % stayed in the bowl")
        expect(tablet.locator(".divide")).not_to_contain_text("missing")
        piece = int(round(mixed * 0.97) // pieces)
        expect(tablet.locator(".make")).to_contain_text(f"{pieces} pieces of {piece}\u202fg")
        for n, off in enumerate((0, 1, 5), 1):
            tablet.get_by_role("textbox", name="Weight of a piece").fill(str(piece + off))
            tablet.keyboard.press("Enter")
            expect(tablet.get_by_role("img", name=re.compile(f"^{n} of {pieces} pieces"))).to_be_visible()
        expect(tablet.get_by_role("img", name=re.compile("1 outside of"))).to_be_visible()
        tablet.get_by_role("button", name="Without a scale").click()
        tablet.get_by_role("button", name="Shared out so").click()
        for _ in range(60):  # on to the end, each thing by its large button
            before = heading(tablet), large(tablet).inner_text()
            if before[0] == "All of it is done":
                break
            tablet.keyboard.press("PageDown")
            tablet.wait_for_function("([h, b]) => { const c = document.querySelector('.center'); return c && (c.querySelector('h2')?.innerText !== h || c.querySelector('.acts .el-button--primary')?.innerText !== b) }", arg=list(before))
        tablet.get_by_role("textbox", name="A note for the book").fill("Good blisters.")
        large(tablet).click()
        expect(tablet.locator(".center h2").first).to_have_text("Done. It is in the book.")
        expect(tablet.locator(".top [role=status]")).to_have_text("kept")
        now = state(tablet)
        loads = [one for one in now["tasks"] if one["load"] >= 0]
        assert now["status"] == "done"
        assert len(loads) > 3
        assert all(one["status"] == "done" for one in loads)
        assert "Good blisters." in [one["says"] for one in now["log"]]
        tablet.get_by_role("link", name="Leave bench").click()
        expect(tablet.get_by_role("region", name="Baked lately").get_by_role("link", name="Malted seed bagels").first).to_be_visible()

    def test_put_away_and_gone_on_with(self, tablet: Page):
        """Resumed tomorrow: it is where it was. A note goes with it."""
        bake = bagels(tablet.context)
        tablet.goto(f"/bench/{bake['head']['id']}")
        weighs(tablet, bake["bake"]["lines"][0]["name"])
        tablet.get_by_role("button", name="More").click()
        tablet.get_by_role("textbox", name="A note").fill("New flour")
        tablet.get_by_role("button", name="Note it").click()
        expect(tablet.get_by_role("dialog").get_by_role("listitem").first).to_contain_text("New flour")
        tablet.get_by_role("button", name="Put it away until later").click()
        expect(tablet.locator(".center h2").first).to_have_text("Put away until later.")
        tablet.get_by_role("button", name="Go on with it").click()
        weighs(tablet, bake["bake"]["lines"][0]["name"])

    def test_a_timer_that_rang_while_nobody_looked(self, tablet: Page):
        """It says since when; heard, it is quiet on the other device too."""
        bake = bagels(tablet.context)
        number = bake["head"]["id"]
        events = [{"id": str(uuid4()), "writer": "before", "clock": 1, "at_s": 0, "who": "Phone", "what": {"deed": "timer_set", "name": "Eggs", "minutes": 0.001}}]
        tablet.request.post(f"/api/bakes/{number}/events", data={"events": events})
        tablet.goto(f"/bench/{number}")
        rung = tablet.get_by_role("alert").filter(has_text="Eggs")
        expect(rung).to_contain_text("rang at")
        other = tablet.context.new_page()
        other.goto(f"/bench/{number}")
        expect(other.get_by_role("alert").filter(has_text="Eggs")).to_be_visible()
        rung.get_by_role("button", name="Heard").click()
        expect(rung).to_have_count(0)
        expect(other.get_by_role("alert").filter(has_text="Eggs")).to_have_count(0)


class TestTwoDevices:
    """The same bake on the tablet and the phone."""

    def test_each_sees_the_others_doings(self, browser: Browser, bench: str, tablet: Page):
        bake = bagels(tablet.context)
        names = [one["name"] for one in bake["bake"]["lines"]]
        for phone in opened(browser, bench, 390, 844):
            for page in (tablet, phone):
                page.goto(f"/bench/{bake['head']['id']}")
                weighs(page, names[0])
            tablet.keyboard.press("Space")
            weighs(phone, names[1])
            phone.get_by_role("button", name=re.compile("is in$")).click()
            weighs(tablet, names[2])
            fits(phone, 390)
            tablet.reload()
            weighs(tablet, names[2])

    def test_off_the_network_for_two_lines(self, browser: Browser, bench: str):
        """Gone in the middle: it goes on, even after a reload; what was done is kept here and sent when it is back, once."""
        with closing(Relay(int(bench.rsplit(":", 1)[1]))) as relay:
            for page in opened(browser, relay.address, 820, 1180):
                bake = bagels(page.context)
                number = bake["head"]["id"]
                lines = bake["bake"]["lines"]
                page.goto(f"/bench/{number}")
                weighs(page, lines[0]["name"])
                page.evaluate("navigator.serviceWorker.ready.then(() => true)")
                page.reload()  # once under the worker, so that it has what the page asks for
                weighs(page, lines[0]["name"])
                expect(page.locator(".top [role=status]")).to_have_text("kept")
                page.wait_for_load_state("load")
                relay.cut()
                page.keyboard.press("Space")
                weighs(page, lines[1]["name"])
                expect(page.locator(".top [role=status]")).to_contain_text("1 kept here")
                page.reload()
                weighs(page, lines[1]["name"])
                page.keyboard.press("Space")
                weighs(page, lines[2]["name"])
                expect(page.locator(".top [role=status]")).to_contain_text("2 kept here")
                relay.mend()
                expect(page.locator(".top [role=status]")).to_have_text("kept")
                events = page.request.get(f"{bench}/api/bakes/{number}/events").json()
                assert [one["what"]["line"] for one in events] == [one["key"] for one in lines[:2]]
                page.goto("about:blank")

    def test_loads_off_the_network(self, browser: Browser, bench: str):
        """What the server says of loads in turn holds without it: one is in, the next waits for it, the oven for what is out."""
        with closing(Relay(int(bench.rsplit(":", 1)[1]))) as relay:
            for page in opened(browser, relay.address, 1280, 800):
                with demo_kit(page.context):
                    bake = bagels(page.context)
                now = ready_before(page.request, bake, "bathe")
                loads = {kind: [one for one in now["bake"]["tasks"] if one["kind"] == kind and one["load"] >= 0] for kind in ("bathe", "bake")}
                assert len(loads["bathe"]) > 1
                page.goto(f"/bench/{bake['head']['id']}")
                title = page.locator(".center h2").first
                expect(title).to_have_text("Bathe, load 1")
                expect(page.locator(".top [role=status]")).to_have_text("kept")
                relay.cut()
                large(page).click()
                expect(page.locator(".top [role=status]")).to_contain_text("1 kept here")
                expect(title).to_have_text("Bathe, load 1")
                expect(large(page)).to_contain_text("Out, load 2 in")
                for n in range(2, len(loads["bathe"]) + 1):
                    large(page).click()
                    page.get_by_role("button", name=f"Bathe, load {n}", exact=True).first.click()
                    expect(title).to_have_text(f"Bathe, load {n}")
                    assert not [text for text in page.locator(".loads section").nth(1).locator("li").all_inner_texts() if "to go" in text]
                large(page).click()
                relay.mend()
                expect(page.locator(".top [role=status]")).to_have_text("kept")
                done = {one["key"]: one["status"] for one in page.request.get(f"{bench}/api/bakes/{bake['head']['id']}").json()["bake"]["tasks"]}
                assert [done[one["key"]] for one in loads["bathe"]] == ["done"] * len(loads["bathe"])
                page.goto("about:blank")

    def test_both_weighed_the_salt(self, browser: Browser, bench: str):
        """Apart from each other: it is asked what is in the bowl."""
        with closing(Relay(int(bench.rsplit(":", 1)[1]))) as relay:
            for page in opened(browser, relay.address, 820, 1180):
                bake = bagels(page.context)
                number, first = bake["head"]["id"], bake["bake"]["lines"][0]
                page.goto(f"/bench/{number}")
                weighs(page, first["name"])
                relay.cut()
                page.keyboard.press("Space")
                expect(page.locator(".top [role=status]")).to_contain_text("1 kept here")
                event = {"id": str(uuid4()), "writer": "phone", "clock": 1, "at_s": time.time(), "who": "Phone", "what": {"deed": "weighed", "line": first["key"], "g": first["target_g"]}}
                request = urllib.request.Request(f"{bench}/api/bakes/{number}/events", json.dumps({"events": [event]}).encode(), {"content-type": "application/json"})
                urllib.request.urlopen(request).close()
                relay.mend()
                asked = page.get_by_role("region", name=f"{first['name']} was weighed twice")
                expect(asked).to_be_visible()
                asked.get_by_role("button", name=re.compile(r"^Only .*Phone")).click()
                expect(asked).to_have_count(0)
                page.goto("about:blank")


def test_what_is_tomorrow(browser: Browser, bench: str):
    """In the evening a levain is fed whose dough is mixed by morning: the day is said with the time."""
    east = min(14, 21 - time.gmtime().tm_hour)  # where it is nine in the evening, or as late as it is anywhere
    late = browser.new_context(base_url=bench, timezone_id=f"Etc/GMT{-east:+d}")  # these zones are named by what is missing to UTC
    late.set_default_timeout(PATIENCE_MS)
    page = late.new_page()
    formula, count = next(one for one in examples() if one[0].name == "Tomato pan squares")
    made = page.request.post("/api/formulas", data={"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")}).json()
    bake = page.request.post("/api/bakes", data={"id": str(uuid4()), "formula_id": made["head"]["id"]}).json()
    page.goto(f"/bench/{bake['head']['id']}")
    mixed = next(one for one in bake["bake"]["tasks"] if one["kind"] == "mix" and not one["on"])
    tomorrow = page.evaluate("at => new Date(at * 1000).toLocaleDateString('en', { weekday: 'short' })", mixed["from_s"])
    assert tomorrow != page.evaluate("new Date().toLocaleDateString('en', { weekday: 'short' })")
    expect(page.get_by_role("region", name="Next for your hands").get_by_role("button", name=re.compile("^Mix"))).to_have_text(re.compile(rf"Mix\s*{tomorrow} \d\d:\d\d$"))
    late.close()


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_nothing_serious(browser: Browser, bench: str, scheme):
    """axe on the bench: weighing, an over-pour, a test, dividing, the ends; on a phone nothing runs out of it."""
    for page in opened(browser, bench, 390, 844, scheme):
        bake = bagels(page.context)
        number = bake["head"]["id"]
        page.goto(f"/bench/{number}")
        weighs(page, bake["bake"]["lines"][0]["name"])
        assert serious(page) == []
        fits(page, 390)
        typed(page, str(bake["bake"]["lines"][0]["target_g"] * 1.4))
        page.get_by_role("button", name="Leave it so").wait_for()
        assert serious(page) == []
        fits(page, 390)
        page.get_by_role("button", name="Leave it so").click()
        page.get_by_role("button", name="More").click()
        page.get_by_role("dialog", name="This bake").wait_for()
        assert serious(page) == []
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog", name="This bake")).to_be_hidden()
        for kind in ("test", "divide", "bathe"):
            own = bagels(page.context)
            ready_before(page.request, own, kind)
            page.goto(f"/bench/{own['head']['id']}")
            page.locator(".step").wait_for()
            assert serious(page) == []
            fits(page, 390)
            happened(page.request, own["head"]["id"], {"deed": "ended", "how": "stopped"})
        page.goto("/bench")
        page.get_by_role("region", name="Baked lately").get_by_role("link").first.wait_for()
        assert serious(page) == []
