"""The shelf, several targets, limits, shapes, loads and the kitchen sheet, as a baker goes through them."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser.steps import CHOICES, choose, fits, new_rolls, quantity, show, take_pan


def field(page: Page, name: str):
    return page.get_by_role("textbox", name=name, exact=True)


def put_on_shelf(page: Page, name: str, common: str, **measures: str) -> None:
    """A new pan from a common size, with measures of its own."""
    page.goto("/pans")
    page.get_by_role("button", name="New pan").click()
    choose(page, "Start from a common size", common)
    field(page, "Name").fill(name)
    for label, value in measures.items():
        field(page, label).fill(value)
    expect(page.get_by_text("To the brim", exact=True)).to_be_visible()
    page.get_by_role("button", name="Put on the shelf").click()
    expect(page.get_by_text(f"{name} is on the shelf.")).to_be_visible()


def pick(page: Page, name: str) -> None:
    page.get_by_role("listitem").filter(has=page.get_by_role("button", name=f"Open {name}", exact=True)).locator(".el-checkbox").first.click()


def test_a_tin_measured_with_water_and_held_against_its_namesake(page):
    """The water is used and the difference told; side by side the same dough stands as deep as it does."""
    put_on_shelf(page, "Two-pound, mine", "Two-pound tin")
    put_on_shelf(page, "Two-pound, aunt's", "Two-pound tin, tall", **{"Depth inside": "4 in"})
    page.get_by_role("button", name="Open Two-pound, mine").click()
    expect(field(page, "Length inside")).to_have_value("23")
    field(page, "Water to the brim, in grams or millilitres").fill("1900")
    expect(page.get_by_text(re.compile(r"By its measures 1.793 ml, 5\.\d+ % less\. The water is used\."))).to_be_visible()
    expect(page.get_by_text("The name promises 907.2\u202fg of dough")).to_be_visible()
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("Two-pound, mine is kept.")).to_be_visible()
    pick(page, "Two-pound, mine")
    pick(page, "Two-pound, aunt's")
    field(page, "Dough in each").fill("907")
    region = page.get_by_role("region", name="Held against each other")
    row = region.get_by_role("row")
    expect(row.filter(has_text="Holds")).to_contain_text("1\u202f900 ml")
    deep = [float(n) for n in re.findall(r"([\d.]+)\scm", row.filter(has_text="As divided").inner_text())]
    assert len(deep) == 2
    assert 3.0 < deep[0] < deep[1] < 6
    expect(row.filter(has_text="As full as the first")).to_contain_text("907")
    region.get_by_role("button", name="What else on the shelf").click()
    expect(region.get_by_text(re.compile("fuller|shallower|as full|Nothing else"))).not_to_have_count(0)
    # Undone by one press, and gone.
    page.get_by_role("button", name="Open Two-pound, aunt's").first.click()
    held = []
    page.route("**/api/pans/*?version=*", lambda route: held.append(route))
    with page.expect_request(lambda request: request.method == "DELETE"):
        page.get_by_role("button", name="Remove", exact=True).click()
    # While it is on its way nothing offers to undo what was before; by itself that would go after twelve seconds.
    expect(page.locator(".notice").get_by_role("button", name="Undo")).to_be_hidden(timeout=5_000)
    held[0].continue_()
    page.unroute("**/api/pans/*?version=*")
    expect(page.get_by_text("Removed. Counts that use it keep it.")).to_be_visible()
    expect(page.get_by_role("button", name="Open Two-pound, aunt's")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Open Two-pound, aunt's")).to_have_count(1)


@pytest.fixture
def from_a_bag(page) -> Page:
    """12 buns and a round pan from a bag of 1.5 kg."""
    new_rolls(page, "Buns and a round")
    choose(page, "Add a limit", "Flour in the bag")
    quantity(page, "Flour in the bag, at most").fill("1.5 kg")
    quantity(page, "Pieces").fill("12")
    quantity(page, "Raw piece").fill("85")
    page.get_by_role("button", name="Something else from the same dough").click()
    field(page, "What target 2 is").fill("the round")
    take_pan(page, "Round")
    quantity(page, "Across inside").fill("26")
    choose(page, "Kind of bake, for the usual fill", "focaccia")
    expect(page.get_by_text("usual band for focaccia")).to_be_visible()
    return page


def test_twelve_buns_and_a_round_pan_from_a_bag(from_a_bag):
    """The buns stand as pinned; the pan takes whole pieces up to the bag, which binds; a choice is taken; both are one dough."""
    page = from_a_bag
    expect(quantity(page, "Pieces a pan")).to_have_value("1")
    flour = quantity(page, "Flour")
    expect(page.get_by_role("listitem").filter(has_text="Flour in the bag")).to_contain_text("This binds.")
    assert float(flour.input_value().replace("\u202f", "")) <= 1500
    # All of the bag, and what to do with what is over.
    flour.fill("1500")
    choices = page.get_by_role("group", name=CHOICES)
    expect(choices).to_contain_text("over")
    choices.get_by_role("button").filter(has_text=re.compile("each")).first.click()
    expect(choices).to_be_hidden()
    divide, take, piece, pieces = (float(quantity(page, n).input_value().replace("\u202f", "")) for n in ("Dough to divide", "Dough for these", "Raw piece", "Pieces"))
    assert take + 12 * 85 == pytest.approx(divide, abs=1)
    assert pieces * piece == pytest.approx(take, abs=1)
    page.get_by_role("tab", name=re.compile("12 ×")).click()
    expect(quantity(page, "Raw piece")).to_have_value("85")
    assert "target=2" not in page.url


def test_the_line_of_the_dough_sets_the_fill(from_a_bag):
    """By arrow keys and by dragging; typing a thickness factor does the same."""
    page = from_a_bag
    line = page.get_by_role("slider", name=re.compile("Fill"))
    before = float(line.get_attribute("aria-valuenow"))
    line.press("ArrowUp")
    expect(line).to_have_attribute("aria-valuenow", re.compile(str(round(before * 1.02, 3))[:5]))
    box = line.bounding_box()
    page.mouse.move(box["x"] + 30, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + 30, box["y"] + box["height"] / 2 - 12, steps=4)
    page.mouse.up()
    expect(page.get_by_role("switch", name="Pin Fill")).to_be_checked()
    page.wait_for_function("([line, least]) => Number(line.getAttribute('aria-valuenow')) > least", arg=[line.element_handle(), before * 1.1])
    choose(page, "Unit of the fill", "oz/in²")
    quantity(page, "Fill of the pan").fill("0.2")
    expect(quantity(page, "Fill")).to_have_value("0.8788")


def test_two_sheets_laid_out_and_the_kitchen_sheet_printed(page):
    """The kit is told once; rings are shaped, laid out and loaded; the sheet is for one mix, on paper as on screen."""
    page.goto("/kitchen")
    for label, value in (("Sheets: long", "46"), ("Sheets: wide", "33"), ("Mixer’s bowl: Most dough", "1000"), ("Pot for baths: Across", "26")):
        field(page, label).fill(value)
    expect(page.get_by_text("Settings kept.")).to_be_visible()
    new_rolls(page, "Rings by the lock")
    quantity(page, "Pieces").fill("12")
    quantity(page, "Raw piece").fill("85")
    page.keyboard.press("Escape")
    show(page, "Shape")
    choose(page, "Shaped as", "Ring")
    expect(page.get_by_text("Opening when doubled")).to_be_visible()
    loads = page.get_by_role("region", name="Sheets and loads")
    sheets = loads.get_by_role("img", name=re.compile("^Oven from above"))
    expect(sheets).to_have_count(2)
    on_sheets = [int(re.search(r"(\d+) pieces", sheet.get_attribute("aria-label"))[1]) for sheet in sheets.all()]
    assert sum(on_sheets) == 12
    expect(loads).to_contain_text("2 mixes of")
    for opener in loads.locator(".opens").all():
        opener.click()
        working = page.get_by_role("dialog")
        expect(working.locator(".figures")).to_contain_text("=")
        expect(working).not_to_contain_text("NaN")
        page.keyboard.press("Escape")
    page.get_by_role("link", name="Weigh sheet").click()
    sheet = page.get_by_role("article")
    expect(sheet).to_contain_text("Weigh this 2 times")
    expect(sheet).to_contain_text("closed to a ring with an opening of")
    expect(sheet).to_contain_text("Divide: 12 × 85 g")
    page.evaluate("() => { window.printed = 0; window.print = () => { window.printed += 1 } }")
    page.get_by_role("button", name="Print", exact=True).click()
    assert page.evaluate("() => window.printed") == 1
    for name in ("PDF, A4", "PDF, Letter", "PDF, 80 mm roll"):
        answer = page.request.get(page.get_by_role("link", name=name).get_attribute("href"))
        assert (answer.status, answer.body()[:5]) == (200, b"%PDF-")
    # As it was, for what comes after.
    page.goto("/kitchen")
    for label in ("Sheets: long", "Mixer’s bowl: Most dough", "Pot for baths: Across"):
        field(page, label).fill("")
    expect(page.get_by_text("Settings kept.")).to_be_visible()


def test_a_label_asks_for_more(page):
    """Sold at 75 g: how far a piece may stray, and the baked piece pinned at what makes it safe."""
    new_rolls(page, "For the stall")
    quantity(page, "Pieces").fill("24")
    show(page, "Shape")
    field(page, "Weight on the label").fill("75")
    tray = page.get_by_role("region", name="Shape and oven")
    expect(tray).to_contain_text("4.5\u202fg light, and none under 66\u202fg")
    tray.get_by_role("button", name=re.compile("^Pin the baked piece")).click()
    show(page, "Count")
    assert float(quantity(page, "Baked piece").input_value()) > 75
    expect(page.get_by_role("switch", name="Pin Baked piece")).to_be_checked()


@pytest.mark.parametrize("width", [390, 820])
def test_nothing_runs_off_a_phone_or_a_tablet(page, width):
    """The shelf, the count with two targets and the shapes scroll down, never sideways."""
    new_rolls(page, f"Narrow {width}")
    page.get_by_role("button", name="Something else from the same dough").click()
    take_pan(page, "Cup tray")
    address = page.url
    page.set_viewport_size({"width": width, "height": 844})
    for path in (address, f"{address.split('?')[0]}?side=shape", "/pans", "/kitchen"):
        page.goto(path)
        page.locator("main h1").first.wait_for()
        fits(page, width)
