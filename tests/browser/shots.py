"""Takes docs/screenshots from the demo kitchen: ./pancount shots. Not a test."""

import os
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).parents[2]
sys.path[:0] = [str(ROOT / "tests")]

from browser.steps import choose, settled, show  # the path is set above
from browser_flags import CHROMIUM, FLAGS
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


def side_by_side(page: Page) -> None:
    open_formula(page, "Cardamom milk buns")
    page.get_by_role("button", name="Revisions").click()
    page.get_by_role("button", name="Revision 1 side by side with the desk").click()
    choose(page, "Beside which formula", "Squash rolls")
    page.get_by_role("row", name="Squash, mashed").wait_for()


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


def targets(page: Page) -> None:
    open_formula(page, "Leek and thyme focaccia")
    page.get_by_role("tab", name="what is left").click()
    choose(page, "Add a limit", "Flour in the bag")
    page.get_by_role("img", name=re.compile("Pan from above, round")).wait_for()


def shape(page: Page) -> None:
    open_formula(page, "Malted seed bagels")
    show(page, "Shape")
    page.get_by_role("textbox", name="Weight on the label").fill("90")
    page.get_by_text("Check your local rules").wait_for()


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


def lanes(page: Page) -> None:
    day(page)
    show(page, "By lane")
    page.get_by_role("button", name=re.compile("Malted seed bagels: .*bathe")).first.focus()
    page.keyboard.press("Enter")
    page.get_by_text("Not sooner").wait_for()


def wall(page: Page) -> None:
    day(page)
    page.get_by_role("link", name="Wall sheet").click()
    page.get_by_role("article").wait_for()


def method_sheet(page: Page) -> None:
    open_formula(page, "Yogurt flatbreads")
    page.goto(f"{page.url.split('?')[0]}/method-sheet")
    page.get_by_role("article").wait_for()


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
    ("targets", targets, DESK, "light"),
    ("shape-dark", shape, DESK, "dark"),
    ("working", working, TABLET, "light"),
    ("dough", dough, DESK, "light"),
    ("side-by-side", side_by_side, DESK, "light"),
    ("welcome", welcome, DESK, "light"),
    ("sheet", sheet, DESK, "light"),
    ("method-sheet", method_sheet, DESK, "light"),
    ("method", method, DESK, "light"),
    ("kitchen", kitchen, DESK, "light"),
    ("day", day, DESK, "light"),
    ("day-lanes-dark", lanes, DESK, "dark"),
    ("day-phone", day, PHONE, "light"),
    ("wall", wall, DESK, "light"),
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
                settled(page)
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
