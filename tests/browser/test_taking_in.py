"""Taking in a recipe on the real screens: from a card in cups to a count in a pan."""

import json
import re

import pytest
from playwright.sync_api import Locator, Page, expect

from browser.steps import choose, quantity, settled, show, take_pan
from pancount.demo.weir_house import CARD


@pytest.fixture
def page(page: Page) -> Page:
    """With nothing answered and no cup weighed, whatever ran before; and so again afterwards."""

    def forget() -> None:
        page.request.put("/api/kitchen/habits", headers={"Content-Type": "application/json"}, data="{}")
        for cup in page.request.get("/api/cups").json():
            page.request.delete(f"/api/cups/{cup['id']}")

    forget()
    yield page
    forget()


def written(page: Page) -> Locator:
    return page.get_by_role("textbox", name="The recipe as it is written")


def paste(page: Page, text: str) -> None:
    page.goto("/take-in")
    written(page).fill(text)
    expect(page.locator(".page-head [role=status]")).to_have_text("kept")


def row(page: Page, name: str) -> Locator:
    return page.get_by_role("button", name=re.compile(rf"^{name}, "))


def width(page: Page, label: str) -> float:
    """How wide the range of a figure is. [%]"""
    text = page.locator(".dough dt", has_text=label).locator("xpath=following-sibling::dd[3]").inner_text()
    low, high = map(float, text.split("–"))
    return high - low


def answer(page: Page, asks: str, option: str) -> None:
    with page.expect_response("**/api/take-in"):
        page.get_by_role("radiogroup", name=asks).get_by_role("radio", name=re.compile(f"^{option}")).click()


def test_from_a_card_in_cups_to_a_count_in_a_pan(page):
    """Paste, answer, weigh a cup, see the range shrink, make the formula, count it to a pan."""
    paste(page, CARD)
    expect(page.get_by_role("heading", name="Squash rolls, the old card")).to_be_visible()
    expect(row(page, "Bread flour")).to_contain_text("472–698")
    expect(page.locator(".asking > .said")).to_contain_text("6 questions open")
    widths = [width(page, "True water")]
    answer(page, "How do you fill a cup?", "Dip and scoop")
    answer(page, "Whose cup and spoon?", "US")
    expect(row(page, "Bread flour")).to_contain_text("560–660")
    widths.append(width(page, "True water"))
    page.get_by_role("button", name="Weigh my cup").click()
    weigh = page.get_by_role("dialog", name="Weigh my cup")
    weigh.get_by_role("textbox", name="How many you filled").fill("2")
    weigh.get_by_role("textbox", name="Together they weigh").fill("286")
    expect(weigh).to_contain_text("143")
    weigh.get_by_role("button", name="Keep this weight").click()
    expect(row(page, "Bread flour")).to_contain_text("572")
    widths.append(width(page, "True water"))
    assert widths[0] > widths[1] > widths[2] > 0
    answer(page, "Which salt?", "Fine salt")
    answer(page, "Which dry yeast?", "Active dry yeast")
    answer(page, "How big are your eggs", "M, 53")
    answer(page, "Fresh squash, or canned?", "Squash, mashed")
    expect(page.locator(".asking > .said")).to_contain_text("All is settled")

    page.get_by_role("button", name="Make the formula").click()
    expect(page.get_by_role("textbox", name="Name of the formula")).to_have_value("Squash rolls, the old card")
    expect(page.locator(".page-head [role=status]")).to_have_text("revision 1")
    expect(quantity(page, "Pieces")).to_have_value("16")
    expect(quantity(page, "Flour")).to_have_value("572")
    page.get_by_role("button", name="More for Bread flour").click()
    expect(page.get_by_text("As written: “4 cups bread flour”")).to_be_visible()
    beside = page.get_by_role("region", name="Beside the dough")
    expect(beside.get_by_role("textbox", name="Wash, line 1")).to_have_value("Egg yolk")
    show(page, "Method")
    steps = page.locator("[data-step]")
    expect(steps.last.get_by_role("textbox", name=re.compile("bake: in words"))).to_have_value("Bake 190 °C / 375 °F, 18–20 min")
    expect(steps.last.get_by_role("textbox", name=re.compile("bake: how long"))).to_have_value("18–20 min")
    show(page, "Count")
    take_pan(page)
    quantity(page, "Pans").fill("2")
    expect(page.get_by_role("img", name=re.compile("pan", re.I)).first).to_be_visible()
    expect(quantity(page, "Pieces a pan")).to_have_value("8")
    page.get_by_role("link", name="Weigh sheet").click()
    expect(page.get_by_role("article")).to_contain_text("Wash beside the dough")


def test_settled_by_hand_and_kept(page):
    """A weight, a name, what a line is; still there after a reload; taken back by Undo."""
    paste(page, "Brokkle buns\n500 g bread flour\n3 cups brokkle\nBake it well.")
    expect(page.get_by_text("The pantry does not know brokkle")).to_be_visible()
    row(page, "brokkle").click()
    choose(page, "What brokkle is in the dough", "liquid")
    weight = page.get_by_role("textbox", name="Weight of brokkle")
    weight.fill("300")
    weight.press("Tab")
    expect(row(page, "brokkle")).to_contain_text("300")
    expect(page.locator(".dough")).to_contain_text("60")
    expect(page.locator(".page-head [role=status]")).to_have_text("kept")
    page.reload()
    expect(row(page, "brokkle")).to_contain_text("300")
    assert written(page).input_value().splitlines()[2] == "3 cups brokkle"
    row(page, "brokkle").click()
    page.get_by_role("button", name="Take it as it reads").click()
    expect(page.get_by_text("The pantry does not know brokkle")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(row(page, "brokkle")).to_contain_text("300")


def test_percentages_with_their_ranges(page):
    """Each line in percent of flour, as value and range."""
    paste(page, "Rolls\n500 g bread flour\n1 cup water\n1 cup bread flour")
    show(page, "% of flour")
    expect(row(page, "Water")).to_contain_text(re.compile(r"34\.\d–41\.\d"))
    expect(row(page, "Water")).to_contain_text("36.46%")


def test_nothing_understood(page):
    """It says what a line should look like; a line can be made an ingredient by hand."""
    paste(page, "Dear neighbour,\nthank you for the honey.")
    expect(page.get_by_text("Nothing was understood as an ingredient.")).to_be_visible()
    expect(page.get_by_role("button", name="Make the formula")).to_be_disabled()
    choose(page, "Line 2 is taken as", "an ingredient")
    expect(row(page, "Honey")).to_be_visible()


def test_pairs_that_disagree_are_shown(page):
    """In an oven's heat and in a cup."""
    paste(page, "Rolls\n2 cups (400 g) bread flour\n\nMethod:\nBake at 180 °C / 320 °F.")
    expect(page.get_by_text("2 cups and 400 g are not the same")).to_be_visible()
    expect(page.get_by_text("180 °C and 320 °F are not the same: 320 °F is 160 °C.")).to_be_visible()


def test_two_hundred_lines(page):
    """A long paste is read, and each line can be settled."""
    paste(page, "Big bake\n" + "\n".join(f"{n % 7 + 1} cups bread flour" for n in range(150)) + "\nMethod\n" + "\n".join("Knead 10 min." for _ in range(48)))
    expect(page.locator(".thing")).to_have_count(150)
    expect(page.get_by_text("Method: 48 steps")).to_be_attached()


class TestFiles:
    """What can be chosen from the machine."""

    def give(self, page: Page, name: str, content: str) -> None:
        page.goto("/take-in")
        page.locator("input[type=file]").set_input_files({"name": name, "mimeType": "text/plain", "buffer": content.encode()})

    def test_a_saved_page(self, page):
        """The recipe in it, as text to go on with."""
        recipe = {"@type": "Recipe", "name": "Lock rolls", "recipeYield": "12", "recipeIngredient": ["500 g bread flour", "300 g water"]}
        script = f'<script type="application/ld+json">{json.dumps(recipe)}</script>'
        self.give(page, "page.html", f"<html><head>{script}</head></html>")
        expect(page.get_by_role("heading", name="Lock rolls")).to_be_visible()
        expect(row(page, "Water")).to_contain_text("300")

    def test_a_table_mapped_once(self, page):
        """Columns are asked for the first time, and remembered."""
        for first in (True, False):
            self.give(page, "rolls.csv", "thing;of it\nbread flour;500 g\nwater;300 g")
            dialog = page.get_by_role("dialog", name="What do the columns hold?")
            settled(page)  # the dialog takes the focus once it stands
            if first:
                choose(page, "What thing holds", "the ingredient")
                choose(page, "What of it holds", "the amount")
            else:
                expect(dialog.get_by_role("combobox", name="What of it holds")).to_have_attribute("aria-description", "the amount")
            dialog.get_by_role("button", name="Take it in").click()
            expect(row(page, "Water")).to_contain_text("300")

    def test_what_cannot_be_read(self, page):
        """In words, and nothing is lost."""
        self.give(page, "x.json", '{"@type": "Person"}')
        expect(page.get_by_role("alert")).to_contain_text("no schema.org Recipe in it")


def test_the_server_away_and_back(page):
    """What is typed meanwhile is kept in this browser and goes in by itself."""
    paste(page, "Lock rolls\n500 g bread flour")
    page.route("**/api/takings/*", lambda route: route.abort())
    page.route("**/api/take-in", lambda route: route.abort())
    written(page).fill("Lock rolls\n500 g bread flour\n300 g water")
    expect(page.get_by_role("alert").first).to_contain_text("cannot be reached")
    page.unroute("**/api/takings/*")
    page.unroute("**/api/take-in")
    expect(page.locator(".page-head [role=status]")).to_have_text("kept", timeout=15_000)
    expect(row(page, "Water")).to_contain_text("300", timeout=15_000)


def test_change_an_ingredient_and_see_what_it_would_change(page):
    """Said first, with the figures then and now; undone in one step."""
    paste(page, "Buttered rolls by the weir\n500 g bread flour\n300 g water\n100 g lard\n10 g fine salt")
    page.get_by_role("button", name="Make the formula").click()
    expect(page.locator(".page-head [role=status]")).to_have_text("revision 1")
    page.goto("/pantry?find=lard&name=Lard")
    water = page.get_by_role("textbox", name="Water in 100 g")
    expect(page.get_by_role("link", name="Buttered rolls by the weir")).to_be_visible()
    page.get_by_role("textbox", name="Fat in 100 g").fill("80")
    water.fill("20")
    page.get_by_role("button", name="Keep").click()
    asked = page.get_by_role("alertdialog", name="What it would change")
    expect(asked).to_contain_text("60")
    expect(asked).to_contain_text("64")
    asked.get_by_role("button", name="Keep and reckon again").click()
    expect(page.get_by_text("1 formula was reckoned again")).to_be_visible()
    page.goto("/formulas?find=by+the+weir")
    expect(page.get_by_role("row", name=re.compile("Buttered rolls by the weir"))).to_contain_text("64")
    page.goto("/pantry?name=Lard")
    page.get_by_role("button", name="As shipped").click()
    expect(page.get_by_text("Lard is as it was shipped.")).to_be_visible()
    expect(water).to_have_value("0")


def test_what_is_not_sure_is_asked_and_settled_with_a_press(page):
    """A heading that nothing tells of, a slip of the pen, an amount that no dough has, lye: each is told, and what can be is settled."""
    paste(
        page,
        "Lock knots\n\n500 g bread flour\n300 g watter\n10 g salt\n7 g instant yeast\n40 g baking soda\n\nMystery part\n30 g sesame seeds"
        "\n\nfor dipping\n1 litre water\n40 g caustic soda\n\nServes 8.",
    )
    expect(page.locator(".page-head")).to_contain_text("no number of pieces")
    status = page.locator(".asking > .said[role=status]")
    expect(status).to_contain_text("1 heading to place, 2 lines to settle")
    expect(page.get_by_role("note")).to_contain_text("goggles and gloves")
    expect(page.get_by_text("8 % of the flour. Is it for a bath?")).to_be_visible()
    page.get_by_role("button", name="Go to what moves it most").click()
    expect(page.locator(".group-ask.looked")).to_be_in_viewport()
    choose(page, "Where all under Mystery part goes", "in the dough")
    expect(row(page, "Sesame seeds")).not_to_contain_text("kept out of the dough")
    expect(status).to_contain_text("2 lines to settle")
    page.get_by_role("button", name="Water: that is right").click()
    expect(status).to_contain_text("1 line to settle")
    row(page, "Baking soda").click()
    choose(page, "Where Baking soda goes", "bath")
    expect(status).not_to_contain_text("to settle,")
    page.get_by_role("button", name="Undo").click()
    expect(status).to_contain_text("1 line to settle")
