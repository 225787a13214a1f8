"""What a baker does on the screens, by the names the screens give things."""

import re

from playwright.sync_api import Locator, Page, Route, expect

CHOICES = "What to do with what is over"


def cell(page: Page, stage: int, line: int, column: str) -> Locator:
    return page.locator(f'[data-cell="{stage}:{line}:{column}"] input, input[data-cell="{stage}:{line}:{column}"]')


def quantity(page: Page, name: str) -> Locator:
    """The field of a quantity of the count, by its label."""
    return page.get_by_role("textbox", name=name, exact=True)


def pin(page: Page, name: str) -> Locator:
    return page.get_by_role("switch", name=f"Pin {name}", exact=True)


def choose(page: Page, field: str, option: str | re.Pattern[str]) -> None:
    """
    One of a list, by the words that it shows. With the keys: an answer that comes while the list is open may move it, and a
    press of the mouse would fall between two places.
    """
    box = page.get_by_role("combobox", name=field, exact=True)
    box.focus()
    page.keyboard.press("Enter")
    expect(box).to_have_attribute("aria-expanded", "true")
    listed = page.locator(f"[id='{box.get_attribute('aria-controls')}']").get_by_role("option")
    wanted = listed.and_(page.get_by_role("option", name=option, exact=isinstance(option, str))).get_attribute("id")
    for _ in range(listed.count()):
        if box.get_attribute("aria-activedescendant") == wanted:
            break
        page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(box).to_have_attribute("aria-expanded", "false")


def show(page: Page, choice: str) -> None:
    """One of a few choices side by side, pressed where it stands."""
    page.locator(".el-segmented__item").filter(has=page.get_by_role("radio", name=choice, exact=True)).click()
    expect(page.get_by_role("radio", name=choice, exact=True)).to_be_checked()


def take_pan(page: Page, shape: str = "Rectangle") -> None:
    """A pan of a shape by its measures, for the target looked at."""
    choose(page, "Which pan", "Another, by its measures")
    choose(page, "Shape", shape)


def settled(page: Page) -> None:
    """Wait until a page just opened has what it asked for, the fonts are there and nothing moves any more."""
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready.then(() => Promise.all(document.getAnimations().map((one) => one.finished.catch(() => 0)))).then(() => true)")


def fits(page: Page, width: int) -> None:
    """Wait until nothing of the page runs off the side."""
    settled(page)
    page.wait_for_function("(width) => document.documentElement.scrollWidth <= width", arg=width)


def arrives_unanswered(route: Route) -> None:
    """For `page.route`: it reaches the server, and the answer is lost."""
    route.fetch()
    route.abort()


def kept(page: Page) -> None:
    """Wait until what was typed is on the server."""
    expect(page.locator(".page-head [role=status]")).to_have_text("draft, kept")


def type_line(page: Page, name: str, amount: str, *, weight: bool = True) -> None:
    """From the name's cell: a known name completed with Enter, its amount, and Enter to the next line."""
    page.keyboard.type(name)
    expect(page.locator("[role=listbox] li").first).to_be_visible()
    page.keyboard.press("Enter")
    if weight:
        page.keyboard.press("Tab")
    page.keyboard.type(amount)
    page.keyboard.press("Enter")


def new_rolls(page: Page, name: str) -> None:
    """A formula made by keyboard alone: 500 g flour, 300 g water, 2 % salt, 5 g yeast."""
    page.goto("/formulas")
    page.get_by_role("heading", name="Formulas", exact=True).wait_for()
    page.keyboard.press("n")
    page.get_by_role("textbox", name="Name of the formula").focus()
    page.keyboard.type(name)
    cell(page, 0, 0, "name").focus()
    type_line(page, "bread fl", "500")
    type_line(page, "wate", "300 g")
    type_line(page, "fine", "2", weight=False)
    type_line(page, "instant", "0.005 kg")
    kept(page)
