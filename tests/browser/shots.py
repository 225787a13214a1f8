"""Takes docs/screenshots from the demo kitchen: ./pancount shots. Not a test."""

import os
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path
from uuid import uuid4

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).parents[2]
sys.path[:0] = [str(ROOT / "tests")]

from browser.benching import happened, ready_before, touch  # the path is set above
from browser.steps import choose, settled, show
from browser_flags import CHROMIUM, FLAGS
from pancount.api.devices import DeviceAt
from started import free_port

FOLDER = ROOT / "docs" / "screenshots"
DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)


def open_formula(page: Page, name: str) -> None:
    page.goto("/formulas")
    page.get_by_role("link", name=name, exact=True).click()
    page.locator(".formula-head").wait_for()


def formulas(page: Page) -> None:
    page.goto("/formulas")
    page.get_by_role("row").nth(3).wait_for()


def formula(page: Page) -> None:
    open_formula(page, "Cardamom milk buns")


def working(page: Page) -> None:
    open_formula(page, "Leek and thyme focaccia")
    page.get_by_role("button", name="Dough to divide. How was it worked out?").click()
    page.get_by_role("dialog").wait_for()


def dough(page: Page) -> None:
    open_formula(page, "Leek and thyme focaccia")
    show(page, "Dough")
    page.get_by_role("heading", name="What is in it").wait_for()


def welcome(page: Page) -> None:
    page.goto("/welcome?step=4")
    page.get_by_role("button", name="Begin with Milk buns").wait_for()


def sheet(page: Page) -> None:
    open_formula(page, "Cardamom milk buns")
    page.goto(f"{page.url.split('?')[0]}/sheet")
    page.get_by_role("article").wait_for()


def pans(page: Page) -> None:
    page.goto("/pans")
    for name in ("Two-pound tin", "Two-pound tin, long"):
        item = page.get_by_role("listitem").filter(has=page.get_by_role("button", name=f"Open {name}", exact=True))
        item.locator(".el-checkbox").click()
    page.get_by_role("button", name="What else on the shelf would take this?").click()
    page.get_by_role("row", name="As full as the first").wait_for()


def method(page: Page) -> None:
    """Over night on a cool counter, to be ready at half past eight."""
    open_formula(page, "Cardamom milk buns")
    page.goto(f"{page.url.split('?')[0]}/method")
    page.get_by_role("tab", name="Overnight").click()
    for name, value in (("Counter today", "19"), ("Begin at", "18:30"), ("Ready at", "8:30")):
        page.get_by_role("textbox", name=name).fill(value)
    page.get_by_role("textbox", name=name).blur()
    page.get_by_text("just so").wait_for()
    page.locator(".page-head [role=status]").filter(has_text=re.compile("kept|revision")).wait_for()


def day(page: Page) -> None:
    """The Saturday, with what was found, and the bagels' baking opened."""
    page.goto("/days")
    page.get_by_role("link", name="Saturday stall").click()
    page.get_by_role("group", name="The day, by time").or_(page.locator("ol.list")).wait_for()
    page.get_by_role("button", name="Stop", exact=True).wait_for(state="detached", timeout=60_000)
    page.locator(".page-head [role=status]").filter(has_text="kept").wait_for()


def bench(page: Page) -> None:
    """The demo's bagels: what went over is left so, and the next line is poured from the practice scale."""
    over(page)
    page.get_by_role("button", name="Leave it so").click()
    page.locator(".weigh").wait_for()
    page.get_by_role("button", name="Scale: none").click()
    page.get_by_role("button", name="Practice scale").click()
    page.keyboard.press("Escape")
    scale = DeviceAt.model_validate(next(one for one in page.request.get("/api/devices").json() if one["kind"] == "scale"))
    touch(scale, "put", 412)
    page.locator(".to-go").filter(has_text="to go").wait_for()
    meant = float(re.sub(r"[^\d.]", "", page.locator(".meant-at").inner_text().split("±")[0]))
    touch(scale, "put", round(meant * 0.8, 2))
    page.locator(".to-go").filter(has_text=re.compile(r"^\D*\d")).wait_for()
    page.wait_for_timeout(3000)


def over(page: Page) -> None:
    page.goto("/bench")
    page.get_by_role("region", name="Under way").get_by_role("link", name="Malted seed bagels").click()
    page.get_by_role("region", name=re.compile("over$")).wait_for()


def loads(page: Page) -> None:
    """Other bagels: two loads are through the pot, the third is in."""
    number = next(one["id"] for one in page.request.get("/api/formulas").json() if one["name"] == "Caraway knots")
    bake = page.request.post("/api/bakes", data={"id": str(uuid4()), "formula_id": number}).json()
    own = ready_before(page.request, bake, "bathe")
    first, second = [one["key"] for one in own["bake"]["tasks"] if one["kind"] == "bathe"][:2]
    happened(page.request, bake["head"]["id"], {"deed": "began", "task": first}, {"deed": "done", "task": first}, {"deed": "began", "task": second})
    page.goto(f"/bench/{bake['head']['id']}")
    page.get_by_role("button", name=re.compile("^Bathe, load 2")).first.click()
    page.evaluate("window.scrollTo(0, 0)")
    page.locator(".loads").wait_for()


def book(page: Page) -> None:
    page.goto("/book")
    page.get_by_role("link", name="Caraway knots").first.wait_for()


def baked(page: Page) -> None:
    """The buns that the neighbour's table had none left of."""
    book(page)
    page.get_by_role("searchbox", name="Find in all words").fill("neighbour")
    page.get_by_text("1 bake found").wait_for()
    page.get_by_role("link", name="Cardamom milk buns").click()
    page.get_by_role("heading", name="What it came to").wait_for()


def charts(page: Page) -> None:
    page.goto("/book?view=charts")
    page.get_by_role("img", name=re.compile("^Baking loss")).wait_for()


def learned(page: Page) -> None:
    """What the buns lose in the heat, opened."""
    page.goto("/book/learned")
    choose(page, "Formula", re.compile("^Cardamom milk buns"))
    page.get_by_role("button", name=re.compile("^How Baking loss")).click()
    page.get_by_text("four times in five it lies").wait_for()


def kitchen(page: Page) -> None:
    page.goto("/kitchen")
    page.get_by_role("heading", name="Kit", exact=True).wait_for()


def take_in(page: Page) -> None:
    page.goto("/take-in")
    page.get_by_role("link", name="Squash rolls, the old card").click()
    page.get_by_role("radiogroup", name="Which salt?").wait_for()


def pantry(page: Page) -> None:
    page.goto("/pantry?name=Egg")
    page.get_by_text("Used in").wait_for()


SHOTS = [
    ("take-in", take_in, DESK, "light"),
    ("pantry", pantry, DESK, "light"),
    ("formulas", formulas, DESK, "light"),
    ("formula", formula, DESK, "light"),
    ("pans", pans, DESK, "light"),
    ("working", working, TABLET, "light"),
    ("dough", dough, DESK, "light"),
    ("welcome", welcome, DESK, "light"),
    ("sheet", sheet, DESK, "light"),
    ("method", method, DESK, "light"),
    ("kitchen", kitchen, DESK, "light"),
    ("bench-tablet-dark", over, TABLET, "dark"),
    ("bench", bench, DESK, "light"),
    ("bench-phone", loads, PHONE, "light"),
    ("book", book, DESK, "light"),
    ("baked", baked, DESK, "light"),
    ("charts", charts, DESK, "light"),
    ("learned", learned, DESK, "light"),
    ("day", day, DESK, "light"),
]


def main() -> None:
    state = Path(tempfile.mkdtemp(prefix="pancount-shots-", dir="/tmp"))
    state.chmod(0o755)
    command = [sys.executable, "-m", "pancount.cli", "demo", "--fresh", "--port", free_port()]
    started = subprocess.Popen(command, cwd=ROOT, env=os.environ | {"PANCOUNT_STATE": str(state)}, stdout=subprocess.PIPE, text=True)
    try:
        address = next(found[0] for line in started.stdout if (found := re.search(r"http://[\d.:]+", line)))
        FOLDER.mkdir(parents=True, exist_ok=True)
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            for name, go, (width, height), scheme in SHOTS:
                context = browser.new_context(base_url=address, viewport={"width": width, "height": height}, color_scheme=scheme)
                page = context.new_page()
                go(page)
                # A scale never rests, so the network does not either.
                settled(page) if "/bench/" not in page.url else page.evaluate("document.fonts.ready.then(() => true)")
                page.screenshot(path=FOLDER / f"{name}.png")
                context.close()
                print(f"docs/screenshots/{name}.png")
            browser.close()
    finally:
        started.terminate()
        started.wait(30)
        shutil.rmtree(state, ignore_errors=True)


if __name__ == "__main__":
    main()
