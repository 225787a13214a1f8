"""The method on the real screens: from one paragraph to a sheet for tonight."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from browser.steps import arrives_unanswered, choose, fits, kept, quantity, show
from browser.test_accessibility import serious
from pancount.demo.weir_house import examples

RECIPE = """Lock-keeper's rolls
1000 g bread flour
620 g water
60 g butter
20 g fine salt
10 g instant yeast

Method
Mix the flour, water, salt and yeast 3 min on low, add the butter, knead 8-10 min until smooth; let rise 60-90 min at 26 °C until doubled. Divide into 20, shape into rounds, second rise 45 min at 26 °C until a poke springs back slowly. Bake at 375 °F (190 °C) for 18-20 min. Cool on a rack 30 min."""


def steps(page: Page) -> Locator:
    return page.locator("[data-step]")


def kinds(page: Page) -> list[str]:
    """What the steps are, in order."""
    return [re.sub(r"^Step \d+, ", "", box.get_attribute("aria-label").removesuffix(": how long")) for box in page.get_by_role("textbox", name=re.compile(": how long$")).all()]


def shown(page: Page, *wanted: str) -> None:
    """Wait until the steps are these, in this order."""
    for n, kind in enumerate(wanted, 1):
        expect(page.get_by_role("textbox", name=f"Step {n}, {kind}: how long", exact=True)).to_be_visible()
    expect(steps(page)).to_have_count(len(wanted))


def words(page: Page, n: int) -> Locator:
    return steps(page).nth(n).get_by_role("textbox", name=re.compile(": in words$"))


def demo(page: Page, name: str) -> int:
    """A formula of the demo kitchen in the records."""
    formula, count = next(one for one in examples() if one[0].name == name)
    made = page.request.post("/api/formulas", data={"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")})
    return int(made.json()["head"]["id"])


def method_of(page: Page, name: str) -> int:
    """Its method, opened on its page."""
    number = demo(page, name)
    page.goto(f"/formulas/{number}/method")
    steps(page).first.wait_for()
    return number


def test_from_one_paragraph_to_tonights_sheet(page):
    """Pasted and read; an overnight way made; counter and time set; the proposed yeast taken; the water opened; the sheet printed."""
    page.goto("/take-in")
    page.get_by_role("textbox", name="The recipe as it is written").fill(RECIPE)
    expect(page.locator(".page-head [role=status]")).to_have_text("kept")
    page.get_by_role("button", name="Make the formula").click()
    expect(page.locator(".page-head [role=status]")).to_have_text("revision 1")
    page.locator("h1").click(position={"x": 1, "y": 1})
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("m")
    shown(page, "mix", "work in", "knead", "first rise", "divide", "shape", "second rise", "bake", "cool")
    expect(page.get_by_role("textbox", name="Step 4, first rise: how long", exact=True)).to_have_value("1 h – 1 h 30 min")
    expect(words(page, 0)).to_have_value("Mix the flour, water, salt and yeast 3 min on low")
    expect(steps(page).nth(1)).to_contain_text("Butter 60\u202fg")

    page.get_by_role("link", name="On a page of its own").click()
    page.get_by_role("button", name="Another way, from a copy of this one").click()
    page.get_by_role("textbox", name="What this way is called").fill("Overnight")
    expect(page.get_by_role("tab", name="Overnight")).to_be_visible()
    whole = page.get_by_role("button", name=re.compile("The whole of it: ([34]) h"))
    expect(whole).to_be_visible()
    page.get_by_role("textbox", name="Counter today").fill("19")
    page.get_by_role("textbox", name="Begin at").fill("20")
    page.get_by_role("textbox", name="Ready at").fill("7")
    expect(page.get_by_text(re.compile("h .*to spare"))).to_be_visible()
    page.get_by_role("button", name=re.compile(r"^Take Yeast 0\.\d+ % instead of 1 %")).click()
    expect(page.get_by_text("just so")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("The whole of it: (11 h|10 h 59 min|11 h 1 min)"))).to_be_visible()

    water = page.get_by_role("region", name="Water for the dough")
    water.get_by_role("button", name=re.compile("^Water at")).click()
    working = page.get_by_role("dialog")
    expect(working).to_contain_text("What the warm give, the cold take")
    expect(working).to_contain_text("Bread flour, 1000 g at 19 °C")
    page.keyboard.press("Escape")

    page.get_by_role("link", name="Formula and count").click()
    expect(page.get_by_text(re.compile("in this way; 10\u202fg as written in the others"))).to_be_visible()
    page.go_back()
    page.get_by_role("tab", name="As written").click()
    expect(page.get_by_role("region", name="Rises today")).to_contain_text("1 % of yeast, as instant")
    page.get_by_role("tab", name="Overnight").click()
    expect(page.locator(".page-head [role=status]")).to_have_text("draft on revision 1, kept")
    page.get_by_role("link", name="Method sheet").click()
    sheet = page.locator("article.paper")
    expect(sheet).to_contain_text("Begin at 20:00, ready at 07:00 next day")
    expect(sheet).to_contain_text(re.compile("Water at .* for a dough of 26 °C"))
    expect(sheet.get_by_role("row")).to_have_count(10)
    with page.expect_popup() as opened:
        page.get_by_role("link", name="PDF, A4").click()
    assert page.request.get(opened.value.url if "method.pdf" in opened.value.url else page.get_by_role("link", name="PDF, A4").get_attribute("href")).headers["content-type"] == "application/pdf"


def test_steps_by_key_and_by_hand(page):
    """Added where they belong, typed, moved with Alt and by dragging, removed and brought back."""
    method_of(page, "Yogurt flatbreads")
    was = kinds(page)
    assert was[:3] == ["mix", "autolyse", "work in"]
    steps(page).nth(1).locator(".grab").focus()
    page.keyboard.press("Alt+ArrowDown")
    shown(page, "mix", "work in", "autolyse", *was[3:])
    expect(steps(page).nth(2).locator(".grab")).to_be_focused()
    page.keyboard.press("Alt+ArrowUp")
    shown(page, *was)
    grab, over = steps(page).nth(0).locator(".grab"), steps(page).nth(2)
    grab.hover()
    page.mouse.down()
    box = over.bounding_box()
    page.mouse.move(box["x"] + 10, box["y"] + box["height"] * 0.8, steps=6)
    page.mouse.up()
    shown(page, "autolyse", "work in", "mix", *was[3:])
    page.keyboard.press("Control+z")
    shown(page, *was)
    steps(page).nth(4).locator(".grab").focus()
    page.keyboard.press("Alt+Backspace")
    shown(page, *was[:4], *was[5:])
    page.locator(".notice").get_by_role("button", name="Undo").click()
    shown(page, *was)
    choose(page, "Add a step", "stretch test")
    shown(page, *was[:4], "stretch test", *was[4:])
    words(page, 4).fill("It stretches like a veil")
    page.get_by_role("textbox", name="Step 5, stretch test: how long", exact=True).fill("1 h 30")
    expect(page.get_by_role("button", name=re.compile("The whole of it: 3 h"))).to_be_visible()
    page.get_by_role("textbox", name="Step 5, stretch test: how long", exact=True).fill("ages")
    expect(page.get_by_role("textbox", name="Step 5, stretch test: how long", exact=True)).to_have_attribute("aria-invalid", "true")
    page.get_by_role("textbox", name="Step 5, stretch test: how long", exact=True).blur()
    expect(page.get_by_role("textbox", name="Step 5, stretch test: how long", exact=True)).to_have_value("1 h 30 min")
    kept(page)
    page.reload()
    expect(words(page, 4)).to_have_value("It stretches like a veil")


def test_what_no_step_uses_and_what_is_gone(page):
    """Said under the steps, and at the step; put back, it is silent again."""
    method_of(page, "Yogurt flatbreads")
    page.get_by_role("button", name="More of Step 3, work in").click()
    page.get_by_role("button", name="Honey does not go in here").click()
    expect(page.get_by_text("No step uses Honey.")).to_be_visible()
    choose(page, "Step 3, work in: what else goes in", "Honey")
    expect(page.get_by_text("No step uses Honey.")).to_be_hidden()
    page.get_by_role("link", name="Formula and count").click()
    show(page, "Count")
    honey = page.locator('[data-cell$=":name"] input, input[data-cell$=":name"]').evaluate_all("found => found.findIndex((one) => one.value === 'Honey')")
    page.locator('[data-cell$=":name"] input, input[data-cell$=":name"]').nth(honey).focus()
    page.keyboard.press("Alt+Backspace")
    show(page, "Method")
    expect(page.get_by_text(re.compile("is not in the formula any more"))).to_be_visible()


def test_a_rise_into_the_fridge_and_back(page):
    """Its range there, in hours; its step says where it stands; and back in the room it is as it was told."""
    method_of(page, "Squash rolls")
    rises = page.get_by_role("region", name="Rises today")
    second = rises.locator("article").last
    expect(second).to_contain_text(re.compile(r"In the fridge.*good from"))
    usual = second.get_by_role("button").first.inner_text()
    second.get_by_role("button", name="Into the fridge").click()
    expect(second).to_contain_text("In the room: good from")
    page.get_by_role("button", name=re.compile("More of Step .*, second rise")).click()
    expect(page.get_by_role("combobox", name=re.compile("second rise: where"))).to_have_attribute("aria-description", "fridge")
    expect(page.get_by_role("button", name=re.compile("The whole of it: 1[0-9] h"))).to_be_visible()
    second.get_by_role("button", name="Out of the fridge").click()
    expect(second.get_by_role("button").first).to_have_text(usual)


def test_read_in_place_and_as_another_way(page):
    """What is not understood stays as a note; undone, the steps are as they were; what is too long is told."""
    method_of(page, "Yogurt flatbreads")
    was = kinds(page)
    page.get_by_role("button", name="Read from a text").click()
    box = page.get_by_role("textbox", name="The method’s text")
    box.fill("Alles mischen und 5 Minuten kneten.\nMy aunt hums.\n1 Stunde gehen lassen.")
    page.get_by_role("button", name="In place of these steps").click()
    shown(page, "mix", "knead", "note", "first rise")
    expect(words(page, 2)).to_have_value("My aunt hums")
    page.locator(".notice").get_by_role("button", name="Undo").click()
    shown(page, *was)
    page.get_by_role("button", name="Read from a text").click()
    page.locator("input[type=file]").set_input_files(files=[{"name": "m.txt", "mimeType": "text/plain", "buffer": b"x" * 60_001}])
    expect(page.get_by_text("That is more text than a method has")).to_be_visible()
    page.locator("input[type=file]").set_input_files(files=[{"name": "m.txt", "mimeType": "text/plain", "buffer": "Knead 10 min. Bake 20 min at 200 °C.".encode()}])
    page.get_by_role("button", name="As another way").click()
    shown(page, "knead", "bake")
    expect(page.get_by_role("tab")).to_have_count(2)


def test_ways_side_by_side_and_through_revisions(page):
    """What differs step by step; a revision keeps its ways, and two revisions say how they differ in them."""
    number = method_of(page, "Cardamom milk buns")
    page.get_by_role("textbox", name="Ready at").fill("7:30")
    page.get_by_role("button", name="Ways side by side").click()
    side = page.get_by_role("region", name="Ways side by side")
    expect(side.get_by_role("row", name=re.compile("^The whole"))).to_contain_text(re.compile("4 h.*15 h"))
    expect(side.get_by_role("row", name=re.compile("^Begin at"))).to_contain_text(re.compile(r"\d\d:\d\d"))
    expect(side.get_by_role("row", name=re.compile("chill")).first).to_be_visible()
    expect(side.get_by_role("row", name=re.compile("Instant yeast"))).to_contain_text("0.5")
    page.route("**/desk", arrives_unanswered, times=1)  # and left while the answer is on its way
    with page.expect_event("requestfailed"):
        page.get_by_role("textbox", name="Ready at").fill("8:00")
    page.goto(f"/formulas/{number}")
    page.get_by_role("button", name="Save revision").click()
    page.get_by_label("What did you try?").fill("two ways")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator(".page-head [role=status]")).to_have_text("revision 1")
    page.goto(f"/formulas/{number}?side=method&revision=1")
    expect(page.get_by_role("tab", name="Overnight")).to_be_visible()
    expect(page.get_by_role("button", name="Read from a text")).to_be_hidden()
    expect(page.get_by_role("tab", name="By machine")).to_be_visible()


def test_loads_and_the_oven_of_this_kitchen(page):
    """One by one on the griddle; a fan oven in gas marks is set lower."""
    kitchen = page.request.get("/api/kitchen").json()
    kit = kitchen["settings"]["kit"] | {"griddle": {"shape": "griddle", "diameter_cm": 25}}
    page.request.put("/api/kitchen", data=kitchen | {"settings": kitchen["settings"] | {"kit": kit, "climate": {"oven_fan": True, "heat_unit": "gas"}}})
    method_of(page, "Yogurt flatbreads")
    heat = page.get_by_role("region", name="Into the heat")
    try:
        expect(heat.get_by_role("row")).to_have_count(11)
        expect(heat.get_by_role("row").nth(2)).to_contain_text(re.compile(r"\d:\d\d to \d:\d\d"))
        method_of(page, "Cardamom milk buns")
        expect(page.get_by_role("region", name="Into the heat")).to_contain_text("gas mark 3")
    finally:
        now = page.request.get("/api/kitchen").json()
        page.request.put("/api/kitchen", data=kitchen | {"version": now["version"]})


@pytest.mark.parametrize(("wide", "scheme"), [(1280, "light"), (390, "dark")])
def test_nothing_serious(browser, address, wide, scheme):
    """axe on the method with a step open, a working, levers, ways beside, the text to read, and its sheet; nothing runs off the side."""
    context = browser.new_context(base_url=address, viewport={"width": wide, "height": 800}, color_scheme=scheme)
    page = context.new_page()
    number = method_of(page, "Cardamom milk buns")
    page.get_by_role("textbox", name="Begin at").fill("19:00")
    page.get_by_role("textbox", name="Ready at").fill("7:00")
    page.get_by_role("heading", name="To be ready on time, one of these").wait_for()
    page.get_by_role("button", name=re.compile("More of Step 9")).click()
    fits(page, wide)
    assert serious(page) == []
    page.get_by_role("button", name="Ways side by side").click()
    page.get_by_role("region", name="Ways side by side").get_by_role("row").first.wait_for()
    assert serious(page) == []
    if wide > 1000:  # these are the same on a phone
        page.get_by_role("button", name="Close", exact=True).first.click()
        page.get_by_role("button", name=re.compile("^The whole of it")).click()
        page.get_by_role("dialog").wait_for()
        assert serious(page) == []
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Read from a text").click()
        page.get_by_role("dialog", name="Read a method").wait_for()
        assert serious(page) == []
    for path, sign in ((f"/formulas/{number}/method-sheet", "article"), (f"/formulas/{number}?side=method", "[data-step]")):
        page.goto(path)
        page.locator(sign).first.wait_for()
        fits(page, wide)
        assert serious(page) == [], path
    context.close()


def test_a_formula_without_steps(page):
    """The first way is begun by adding or by reading; an empty sheet says nothing wrong."""
    made = page.request.post("/api/formulas", data={"formula": {"name": "No steps yet", "stages": [{"lines": [{"name": "Bread flour", "role": "flour", "weight_g": 500}]}]}})
    page.goto(f"/formulas/{made.json()['head']['id']}/method")
    expect(page.get_by_text("No steps yet. Read them from a text, or add the first.")).to_be_visible()
    choose(page, "Add a step", "knead")
    shown(page, "knead")
    kept(page)
    assert quantity(page, "Begin at").input_value() == ""
