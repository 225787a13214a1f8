"""A formula made, counted, decided, worked, printed, reopened, taken out and in: the job, in the browser."""

import json
import re

import pytest
from playwright.sync_api import Page, expect

from browser.steps import CHOICES, cell, choose, kept, new_rolls, pin, quantity, show, take_pan


@pytest.fixture
def rolls_page(page: Page, request) -> Page:
    new_rolls(page, request.node.name[:60])
    return page


def test_by_keyboard_alone(rolls_page):
    """Grams or percent, whichever was typed: the other column follows."""
    page = rolls_page
    expect(cell(page, 0, 1, "percent")).to_have_value("60")
    expect(cell(page, 0, 2, "weight_g")).to_have_value("10")
    expect(cell(page, 0, 3, "percent")).to_have_value("1")
    expect(page.get_by_text("163total %")).to_be_visible()
    # move yeast above salt, then over the edge into a stage of its own, and remove a line
    cell(page, 0, 3, "percent").focus()
    page.keyboard.press("Alt+ArrowUp")
    expect(cell(page, 0, 2, "name")).to_have_value("Instant yeast")
    page.keyboard.press("Alt+Enter")
    page.keyboard.type("After the rest")
    cell(page, 0, 3, "percent").focus()
    page.keyboard.press("Alt+ArrowDown")
    page.keyboard.press("Alt+ArrowDown")
    expect(cell(page, 1, 0, "name")).to_have_value("Fine salt")
    cell(page, 1, 1, "name").focus()
    page.keyboard.press("Alt+Backspace")
    expect(page.locator(".line")).to_have_count(5)
    page.keyboard.press("Control+z")
    expect(page.locator(".line")).to_have_count(6)


def test_the_plainest_name_is_offered_first(rolls_page):
    """ "butt" is butter before buttermilk; a name in German is found too, and arrow keys choose another."""
    page = rolls_page
    for typed, presses, taken in (("butt", 0, "Butter"), ("butt", 1, "Buttermilk"), ("hefe", 0, "Fresh yeast")):
        cell(page, 0, 4, "name").fill("")
        cell(page, 0, 4, "name").press_sequentially(typed)
        for _ in range(presses):
            page.keyboard.press("ArrowDown")
        page.keyboard.press("Enter")
        expect(cell(page, 0, 4, "name")).to_have_value(taken)


def test_an_unknown_ingredient_gets_a_role(rolls_page):
    """It cannot be saved until it is said what it is; then it is known."""
    page = rolls_page
    cell(page, 0, 4, "name").fill("Zibrul")
    page.keyboard.press("Escape")
    cell(page, 0, 4, "percent").fill("3")
    kept(page)
    page.keyboard.press("Control+s")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("Say what Zibrul is in the dough")
    page.get_by_role("combobox", name="What Zibrul is in the dough").select_option("liquid")
    page.get_by_role("button", name="Save revision").click()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator(".page-head [role=status]")).to_have_text("revision 1")
    expect(page.get_by_role("button", name="63 liquid %")).to_be_visible()


def test_count_remainder_working_and_print(rolls_page):
    """Pin the dough and the piece, take a choice, open a working, print the sheet."""
    page = rolls_page
    quantity(page, "Dough to divide").fill("1290")
    quantity(page, "Raw piece").fill("75")
    choices = page.get_by_role("group", name=CHOICES)
    expect(choices).to_contain_text("17 at 75\u202fg, and 15\u202fg over")
    expect(choices.get_by_role("button")).to_have_count(5)
    choices.get_by_role("button", name="17 at 75.88").click()
    expect(quantity(page, "Raw piece")).to_have_value("75.88")
    expect(quantity(page, "Pieces")).to_have_value("17")
    expect(pin(page, "Pieces")).to_be_checked()
    expect(choices).to_be_hidden()
    page.get_by_role("button", name="Raw piece. How was it worked out?").click()
    working = page.get_by_role("dialog", name=re.compile("Raw piece"))
    expect(working).to_contain_text("1\u202f290\u202fg ÷ 17 = 75.88\u202fg")
    assert "working=piece_g.0" in page.url
    page.keyboard.press("Escape")
    expect(working).to_be_hidden()
    page.get_by_role("link", name="Weigh sheet").click()
    sheet = page.get_by_role("article")
    expect(sheet).to_contain_text("Divide: 17 × 76 g")
    lines = [int(t.replace("\u202f", "")) for t in re.findall(r"([\d\u202f]+) g\s", sheet.locator("tbody").first.inner_text())]
    total = int(re.search(r"All of it.*?([\d\u202f]+) g", sheet.inner_text(), re.S)[1].replace("\u202f", ""))
    assert lines[0] == sum(lines[1:]) == total
    pdf = page.pdf(format="A4", print_background=False)
    assert pdf.count(b"/Type /Page\n") == 1


def test_pins_that_fight_are_told_and_let_go(rolls_page):
    """Which, what each would be, and one press settles it."""
    page = rolls_page
    quantity(page, "Flour").fill("1 kg")
    quantity(page, "Pieces").fill("24")
    quantity(page, "Raw piece").fill("60")
    fight = page.get_by_role("alert").filter(has_text="These pins fight")
    expect(fight).to_contain_text("Flour 1\u202f000\u202fg, pieces 24 and raw piece 60\u202fg cannot all hold.")
    fight.get_by_role("button", name=re.compile("^Pieces")).click()
    expect(quantity(page, "Pieces")).to_have_value("26")
    expect(fight).to_be_hidden()


def test_the_pan_follows_the_pins(rolls_page):
    """Rectangle and round, slab and pieces, in centimetres as typed in inches."""
    page = rolls_page
    take_pan(page)
    quantity(page, "Length inside").fill("13 in")
    quantity(page, "Width inside").fill("23")
    quantity(page, "Pieces").fill("12")
    expect(page.get_by_role("img", name=re.compile("Pan from above, 33.02.cm by 23.cm, 12 pieces, 3 × 4"))).to_be_visible()
    quantity(page, "Raw piece").fill("200")
    expect(page.get_by_text("stands further above the rim than its kind may")).to_be_visible()
    choose(page, "Shape", "Round")
    quantity(page, "Pieces a pan").fill("1")
    quantity(page, "Pieces").fill("1")
    expect(page.get_by_role("img", name=re.compile("Pan from above, round, .* one slab"))).to_be_visible()


def test_reopened_by_link_and_brought_back(rolls_page):
    """A link opens the formula, a revision of it, and a working."""
    page = rolls_page
    page.get_by_role("button", name="Save revision").click()
    page.get_by_label("What did you try?").fill("as written")
    page.keyboard.press("Enter")
    expect(page.locator(".page-head [role=status]")).to_have_text("revision 1")
    cell(page, 0, 1, "weight_g").fill("350")
    page.get_by_role("button", name="Save revision").click()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.locator(".page-head [role=status]")).to_have_text("revision 2")
    address = page.url
    page.goto(f"{address}?revision=1&working=line:0:1:percent")
    expect(cell(page, 0, 1, "weight_g")).to_have_value("300")
    expect(cell(page, 0, 1, "weight_g")).to_be_disabled()
    expect(page.get_by_role("dialog")).to_contain_text("300\u202fg ÷ 500\u202fg = 60\u202f%")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Water in this count").click()
    expect(page.get_by_role("dialog")).to_contain_text("60\u202f%")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Bring it back").click()
    expect(page.locator(".page-head [role=status]")).to_have_text("revision 3")
    expect(cell(page, 0, 1, "weight_g")).to_have_value("300")


def test_out_and_in_again(rolls_page, tmp_path):
    """The file taken out makes the same formula when taken in; a wrong one says where."""
    page = rolls_page
    quantity(page, "Pieces").fill("9")
    kept(page)
    page.get_by_role("button", name="Take out").click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="Formula file").focus()
        page.keyboard.press("Enter")
    path = tmp_path / "formula.json"
    download.value.save_as(path)
    page.goto("/take-in")
    page.set_input_files("input[type=file]", path)
    expect(quantity(page, "Pieces")).to_have_value("9")
    expect(cell(page, 0, 3, "weight_g")).to_have_value("5")
    file = json.loads(path.read_text())
    file["formula"]["stages"][0]["lines"][1]["weight_g"] = -5
    path.write_text(json.dumps(file))
    page.goto("/take-in")
    page.set_input_files("input[type=file]", path)
    expect(page.get_by_role("alert")).to_contain_text("Weight must be 0 or more. /formula/stages/0/lines/1/weight_g")


def test_list_find_copy_archive_and_undo(rolls_page):
    """Find as you type; copy and archive are taken back."""
    page = rolls_page
    name = page.get_by_role("textbox", name="Name of the formula").input_value()
    page.goto("/formulas")
    page.get_by_role("heading", name="Formulas", exact=True).wait_for()
    page.keyboard.press("/")
    page.keyboard.type(name)
    row = page.get_by_role("row").filter(has_text=name)
    expect(row).to_have_count(1)
    row.get_by_role("button", name=re.compile("^Copy")).click()
    expect(row).to_have_count(2)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(row).to_have_count(1)
    row.get_by_role("button", name=re.compile("^Archive")).click()
    expect(page.get_by_text("Nothing found for")).to_be_visible()
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(row).to_have_count(1)


def test_what_is_not_a_number_is_told_and_stays(rolls_page):
    """Text that cannot be read is kept in the field, and the last number stands; clearing opens the amount."""
    page = rolls_page
    cell(page, 0, 1, "weight_g").fill("30o")
    page.keyboard.press("Tab")
    expect(cell(page, 0, 1, "weight_g")).to_have_value("30o")
    expect(cell(page, 0, 1, "weight_g")).to_have_attribute("aria-invalid", "true")
    cell(page, 0, 1, "weight_g").fill("-5")
    expect(cell(page, 0, 1, "weight_g")).to_have_attribute("aria-invalid", "true")
    cell(page, 0, 1, "weight_g").fill("")
    expect(page.get_by_text("Water has no amount yet")).to_be_visible()
    cell(page, 0, 1, "weight_g").fill("1/2 lb")
    page.keyboard.press("Tab")
    expect(cell(page, 0, 1, "percent")).to_have_value("45.36")
    quantity(page, "Dough mixed").fill("1500")
    page.keyboard.press("Tab")
    expect(quantity(page, "Dough mixed")).to_have_value("1\u202f500")
    quantity(page, "Dough mixed").focus()
    page.keyboard.press("End")
    page.keyboard.press("0")  # a digit more on a number shown with spaced thousands
    expect(quantity(page, "Flour")).to_have_value("10\u202f111")
    cell(page, 0, 0, "weight_g").fill("0")
    expect(page.get_by_text("There is no flour yet")).to_be_visible()


def test_ounces_and_inches(rolls_page):
    """A setting of the kitchen: every number follows, the formula does not change, and undo takes it back."""
    page = rolls_page
    address = page.url
    page.goto("/kitchen")
    show(page, "Ounces")
    page.get_by_text("Settings kept.").wait_for()
    page.goto(address)
    expect(cell(page, 0, 0, "weight_g")).to_have_value("17.636981")
    cell(page, 0, 1, "weight_g").fill("8")
    expect(cell(page, 0, 1, "percent")).to_have_value("45.36")
    page.goto("/kitchen")
    show(page, "Grams")
    page.get_by_text("Settings kept.").wait_for()
    page.goto(address)
    expect(cell(page, 0, 0, "weight_g")).to_have_value("500")


def test_flours_that_do_not_make_a_hundred_are_mended_by_one_press(rolls_page):
    """Rye typed in percent beside bread flour in percent: the largest takes the rest."""
    page = rolls_page
    cell(page, 0, 0, "percent").fill("100")
    cell(page, 0, 4, "name").fill("Rye flour")
    page.keyboard.press("Enter")
    cell(page, 0, 4, "percent").fill("8")
    expect(page.get_by_role("alert")).to_contain_text("The flours come to 108 %")
    page.get_by_role("button", name="Let the largest take the rest").click()
    expect(cell(page, 0, 0, "percent")).to_have_value("92")
    expect(page.get_by_role("alert")).to_be_hidden()
    page.keyboard.press("Control+z")
    expect(cell(page, 0, 0, "percent")).to_have_value("100")


def test_every_worked_out_number_opens(rolls_page):
    """Each figure in crust has a working that ends in that very figure."""
    page = rolls_page
    take_pan(page)
    quantity(page, "Pieces").fill("12")
    working = page.get_by_role("dialog", name=re.compile("."))
    openers = page.locator(".opens")
    page.get_by_role("group", name=re.compile("Pan from the side")).wait_for()
    assert openers.count() > 18
    for i in range(openers.count()):
        openers.nth(i).click()
        expect(working.locator("h2 .worked")).not_to_be_empty()
        for wrong in ("NaN", "–", "{"):
            expect(working).not_to_contain_text(wrong)
        page.keyboard.press("Escape")
