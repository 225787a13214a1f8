"""axe finds nothing serious on any screen, light or dark; and the keyboard reaches everything."""

import re

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, expect

from browser.steps import CHOICES, choose, new_rolls, quantity, settled, show, take_pan

SERIOUS = ("serious", "critical")


def serious(page) -> list[str]:
    settled(page)  # colours that fade in are judged when they have
    found = Axe().run(page).response["violations"]
    return [f"{v['id']}: {v['nodes'][0]['html'][:160]} ({len(v['nodes'])})" for v in found if v["impact"] in SERIOUS]


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_nothing_serious(browser: Browser, address: str, scheme):
    """List, formula with choices, a working, fights, the keys, the sheet, the kitchen, an empty formula."""
    context = browser.new_context(base_url=address, viewport={"width": 1280, "height": 800}, color_scheme=scheme)
    page = context.new_page()
    new_rolls(page, f"Seen by axe, {scheme}")
    quantity(page, "Dough to divide").fill("1290")
    quantity(page, "Raw piece").fill("75")
    take_pan(page)
    page.get_by_role("group", name=CHOICES).wait_for()
    assert serious(page) == []
    page.get_by_role("button", name="Pieces. How was it worked out?").click()
    assert serious(page) == []
    page.keyboard.press("Escape")
    quantity(page, "Pieces").fill("99")
    page.get_by_role("alert").filter(has_text="fight").wait_for()
    assert serious(page) == []
    page.get_by_role("button", name="Let all go").click()
    page.get_by_role("button", name="Something else from the same dough").click()
    choose(page, "Add a limit", "Flour in the bag")
    page.get_by_text("at most").wait_for()
    assert serious(page) == []
    show(page, "Shape")
    page.get_by_role("textbox", name="Weight on the label").fill("70")
    page.get_by_text("Check your local rules").wait_for()
    assert serious(page) == []
    page.get_by_role("link", name="Weigh sheet").click()
    page.get_by_role("article").wait_for()
    assert serious(page) == []
    for path in ("/formulas", "/formulas?archived", "/kitchen", "/formulas/new", "/nowhere", "/pantry?name=Egg", "/take-in", "/pans", "/days", "/days/new", "/book", "/book/write", "/book/learned", "/book/beside"):
        page.goto(path)
        page.locator("main h1, main .line").first.wait_for()
        assert serious(page) == [], path
    context.close()


def test_keys_are_listed_on_each_screen(page):
    """'?' tells the keys; Escape closes."""
    for path in ("/formulas", "/formulas/new", "/take-in", "/pantry", "/pans", "/days", "/book"):
        page.goto(path)
        page.locator("main h1").wait_for()
        page.locator("main h1").click(position={"x": 1, "y": 1})
        page.evaluate("document.activeElement.blur()")
        page.keyboard.press("?")
        expect(page.get_by_role("dialog", name="Keys of this screen")).to_be_visible()
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog", name="Keys of this screen")).to_be_hidden()


def test_pins_from_the_keyboard(page):
    """Tab to a pin, Space to pin and to let go; '=' in its field opens the working, Escape returns."""
    new_rolls(page, "By key")
    switch = page.get_by_role("switch", name="Pin Flour")
    switch.focus()
    page.keyboard.press("Space")
    expect(switch).to_be_checked()
    page.keyboard.press("Space")
    expect(switch).not_to_be_checked()
    quantity(page, "Dough mixed").focus()
    page.keyboard.press("=")
    expect(page.get_by_role("dialog")).to_contain_text("500\u202fg × 163\u202f% = 815\u202fg")
    page.keyboard.press("Escape")
    expect(quantity(page, "Dough mixed")).to_be_focused()


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_nothing_serious_while_taking_in(browser: Browser, address: str, scheme):
    """Questions open, a line being settled, the cup on the scale, and a page where nothing is understood."""
    context = browser.new_context(base_url=address, viewport={"width": 1280, "height": 800}, color_scheme=scheme)
    page = context.new_page()
    page.goto("/take-in")
    text = page.get_by_role("textbox", name="The recipe as it is written")
    text.fill("Rolls (makes 12)\n3 cups (300 g) bread flour or zibrul\n2 tsp salt\na glug of oil\n2 cups zibrul\n1 egg, for brushing\n\nMystery part\n30 g suger\n\nfor dipping\n1 l water\n40 g caustic soda\n\nBake at 180 °C / 320 °F.")
    page.get_by_role("radiogroup", name="Which salt?").wait_for()
    assert serious(page) == []
    page.get_by_role("button", name="Olive oil, ").or_(page.get_by_role("button", name="Sunflower oil, ")).click()
    assert serious(page) == []
    page.get_by_role("button", name="zibrul, 2 cups").click()
    assert serious(page) == []
    text.fill("Rolls\n3 cups bread flour")
    page.get_by_role("button", name="Weigh my cup").click()
    page.get_by_role("dialog", name="Weigh my cup").wait_for()
    assert serious(page) == []
    page.keyboard.press("Escape")
    text.fill("Dear neighbour, thank you.")
    page.get_by_text("Nothing was understood").wait_for()
    assert serious(page) == []
    context.close()


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_nothing_serious_in_depth(browser: Browser, address: str, scheme):
    """The dough with its notes, an aim, a change looked at, a stage's details, the whole formula, side by side: by key where there is one."""
    context = browser.new_context(base_url=address, viewport={"width": 1280, "height": 800}, color_scheme=scheme)
    page = context.new_page()
    new_rolls(page, f"Deep, {scheme}")
    page.get_by_role("button", name="Save revision").click()
    page.get_by_role("button", name="Save", exact=True).click()
    page.get_by_text("Saved as revision 1").wait_for()
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("d")
    page.get_by_role("button", name="Aim salt").click()
    page.get_by_role("button", name="Move flour").click()
    assert serious(page) == []
    page.get_by_role("button", name="Move it").click()
    page.get_by_role("button", name="More for the stage Poolish").click()
    page.get_by_role("button", name="More for Bread flour").first.click()
    assert serious(page) == []
    choose(page, "Swap Bread flour for", "Plain flour")
    page.get_by_role("dialog", name="Bread flour swapped for Plain flour").wait_for()
    assert serious(page) == []
    page.keyboard.press("Escape")
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("f")
    page.get_by_role("textbox", name="Bread flour, percent in all").wait_for()
    page.keyboard.press("c")
    page.get_by_role("region", name="Side by side").get_by_role("row", name="Water").first.wait_for()
    assert serious(page) == []
    choose(page, "This formula, as it is in", re.compile("^1:"))
    page.get_by_text("Reading revision 1").wait_for()
    page.get_by_text("The same, line by line.").wait_for()
    assert serious(page) == []
    context.close()
