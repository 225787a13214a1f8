"""The first five minutes in a kitchen that nobody has told anything: what it has, the first formula, the way round it."""

from collections.abc import Callable, Iterator

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, Page, expect

from browser.conftest import PATIENCE_MS, Served
from browser.steps import choose, quantity, settled, show
from pancount.demo.weir_house import FORMULAS
from pancount.store.database import connect, migrate, transaction
from pancount.store.kitchen import ONLY_KITCHEN, Settings, open_kitchen


@pytest.fixture(scope="module")
def empty(new_database: Callable[[str], str]) -> Iterator[str]:
    """The application over a kitchen as it is the first time."""
    engine = connect(new_database("first_time"))
    migrate(engine)
    with transaction(engine) as session:
        open_kitchen(session, ONLY_KITCHEN, "My kitchen", Settings())
    with Served(engine) as address:
        yield address
    engine.dispose()


@pytest.fixture
def first(browser: Browser, empty: str) -> Iterator[Page]:
    """A page at it; anything on the console but news fails the test."""
    context = browser.new_context(base_url=empty, viewport={"width": 1280, "height": 800})
    context.set_default_timeout(PATIENCE_MS)
    page = context.new_page()
    told: list[str] = []
    page.on("console", lambda message: told.append(message.text) if message.type in ("error", "warning") else None)
    page.on("pageerror", lambda error: told.append(str(error)))
    yield page
    context.close()
    assert told == []


def sound(page: Page) -> None:
    settled(page)
    found = Axe().run(page).response["violations"]
    assert [v["id"] for v in found if v["impact"] in ("serious", "critical")] == []


@pytest.mark.parametrize("path", ["/formulas?archived", "/formulas/new", "/take-in", "/pans", "/pans?away=1", "/pantry", "/pantry?name=Nothing", "/kitchen", "/welcome?step=2", "/welcome?step=3", "/welcome?step=4"])
def test_every_empty_screen_is_sound(first, path):
    """Nothing on the console, nothing serious by axe, nothing off the side, at desk and phone size."""
    first.goto(path)
    first.locator("main h1").first.wait_for()
    sound(first)
    first.set_viewport_size({"width": 390, "height": 844})
    settled(first)
    first.wait_for_function("document.documentElement.scrollWidth <= 390")


def test_from_nothing_to_a_first_formula(first):
    """Told in three steps: units, two pans, a bowl; then an outline, shown round, counted."""
    first.goto("/")
    expect(first.get_by_role("heading", name="Welcome to Pan Count")).to_be_visible()
    sound(first)
    # Skipped, it does not come again by itself; the three ways to a formula are on the list of formulas.
    first.get_by_role("button", name="Skip all of it").click()
    first.get_by_role("link", name="Formulas", exact=True).click()
    expect(first.get_by_role("button", name="Begin with Bagels")).to_be_visible()
    first.go_back()
    first.get_by_role("button", name="What the kitchen has").click()
    show(first, "Inches")
    choose(first, "How do you fill a cup?", "Spoon and level")
    first.get_by_role("button", name="Next", exact=True).click()
    ticks = first.locator(".pan .el-checkbox")
    ticks.nth(0).click()
    ticks.nth(1).click()
    first.locator(".pan .el-input-number__increase").first.click()
    first.get_by_role("button", name="Next", exact=True).click()
    expect(first.get_by_text("2 pans stand on the shelf.")).to_be_visible()
    first.get_by_role("textbox", name="Mixer’s bowl: Holds").fill("4300")
    first.get_by_role("button", name="To the first formula").click()
    first.get_by_role("button", name="Begin with Bagels").click()
    tour = first.locator(".el-tour__content")
    expect(tour).to_contain_text("The formula")
    for title in ("Pins", "How was it worked out?", "To the scale"):
        tour.get_by_role("button", name="Next").click()
        expect(tour).to_contain_text(title)
    sound(first)
    tour.get_by_role("button", name="Finish").click()
    expect(tour).to_be_hidden()
    quantity(first, "Pieces").fill("12")
    expect(quantity(first, "Dough to divide")).to_have_value("1\u202f320")
    # What was told is there: the pans on the shelf, the bowl in the kitchen.
    first.goto("/pans")
    expect(first.get_by_role("button", name="Open")).to_have_count(2)
    first.goto("/kitchen")
    expect(first.get_by_role("textbox", name="Mixer’s bowl: Holds")).to_have_value("4\u202f300")
    expect(first.locator(".sections section").first).to_contain_text("not told yet")


def test_examples_come_and_go(first):
    """In one press each, and undone in one."""
    first.goto("/welcome?step=4")
    first.get_by_role("button", name="Bring in the examples").click()
    expect(first.get_by_text(f"{len(FORMULAS)} of these are examples")).to_be_visible()
    rows = first.get_by_role("row")
    before = rows.count()
    first.get_by_role("button", name="Remove the examples").click()
    first.get_by_role("button", name="Remove them").click()
    expect(first.get_by_text(f"{len(FORMULAS)} examples are gone.")).to_be_visible()
    first.get_by_role("button", name="Undo").click()
    expect(first.get_by_text(f"{len(FORMULAS)} of these are examples")).to_be_visible()
    expect(rows).to_have_count(before)
