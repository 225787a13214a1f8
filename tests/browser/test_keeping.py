"""Nothing typed is lost: a closed window, two windows, the records going away; and strange formulas open."""

import re

import pytest
from playwright.sync_api import Page, Route, expect
from starlette.testclient import TestClient

from browser.steps import arrives_unanswered, cell, fits, kept, new_rolls, quantity, show, take_pan

STATUS = ".page-head [role=status]"


def save(page: Page) -> None:
    page.get_by_role("button", name="Save revision").click()
    page.get_by_role("button", name="Save", exact=True).click()


def test_leaving_keeps_a_draft_and_says_so(page):
    """Unsaved text is there when the formula is opened again, marked as a draft here and in the list."""
    new_rolls(page, "Left in a hurry")
    save(page)
    expect(page.locator(STATUS)).to_have_text("revision 1")
    address = page.url
    cell(page, 0, 1, "weight_g").fill("333")
    page.get_by_role("link", name="Formulas", exact=True).click()
    row = page.get_by_role("row").filter(has_text="Left in a hurry")
    expect(row).to_contain_text("draft")
    page.goto(address)
    expect(cell(page, 0, 1, "weight_g")).to_have_value("333")
    expect(page.locator(STATUS)).to_have_text("draft on revision 1, kept")


def test_a_window_closed_while_typing(page):
    """What had not reached the server is brought back from the browser."""
    new_rolls(page, "Closed in mid word")
    page.route("**/desk", lambda route: route.abort())
    cell(page, 0, 1, "weight_g").fill("321")
    expect(page.get_by_role("alert").filter(has_text="cannot be reached")).to_be_visible()
    page.reload()
    expect(cell(page, 0, 1, "weight_g")).to_have_value("321")
    expect(page.get_by_text("was brought back from this browser")).to_be_visible()
    page.unroute("**/desk")  # not sooner: it is sent again by itself, and there would be nothing to bring back
    kept(page)


def test_an_answer_that_is_lost_is_no_other_window(page):
    """What was sent had arrived: met again it is known for our own, after a reload as without one, and what was typed since goes on top."""
    new_rolls(page, "Answered into the wind")
    page.route("**/desk", arrives_unanswered, times=1)
    with page.expect_event("requestfailed"):
        cell(page, 0, 1, "weight_g").fill("321")
    cell(page, 0, 1, "weight_g").fill("322")
    kept(page)
    page.route("**/desk", arrives_unanswered)
    cell(page, 0, 1, "weight_g").fill("323")
    expect(page.get_by_role("alert").filter(has_text="cannot be reached")).to_be_visible()
    cell(page, 0, 1, "weight_g").fill("324")
    page.unroute_all(behavior="wait")
    page.reload()
    kept(page)
    expect(cell(page, 0, 1, "weight_g")).to_have_value("324")
    expect(page.get_by_text("changed in another window")).to_be_hidden()


def test_looking_changes_nothing(page, client: TestClient):
    """Opening a new formula and leaving makes none; opening one in a second window does not disturb the first."""
    before = len(client.get("/api/formulas").json())
    page.clock.install()
    page.goto("/formulas/new")
    cell(page, 0, 0, "name").wait_for()
    page.clock.run_for(3000)
    page.get_by_role("link", name="Formulas", exact=True).click()
    assert len(client.get("/api/formulas").json()) == before
    new_rolls(page, "Looked at twice")
    other = page.context.new_page()
    other.goto(page.url)
    quantity(other, "Flour").wait_for()
    other.clock.run_for(3000)
    other.close()
    cell(page, 0, 1, "weight_g").fill("301")
    kept(page)


def test_two_windows_save_the_same_formula(page):
    """The second is told, keeps its text, and can put it on top."""
    new_rolls(page, "In two windows")
    save(page)
    expect(page.locator(STATUS)).to_have_text("revision 1")
    other = page.context.new_page()
    other.goto(page.url)
    cell(other, 0, 1, "weight_g").fill("310")
    save(other)
    expect(other.locator(STATUS)).to_have_text("revision 2")
    cell(page, 0, 1, "weight_g").fill("290")
    told = page.get_by_role("alert").filter(has_text="changed in another window")
    expect(told).to_contain_text("Dough, Water: 290 g")
    expect(told).to_contain_text("Dough, Water: 310 g")
    expect(cell(page, 0, 1, "weight_g")).to_have_value("290")
    expect(page.get_by_role("button", name="Weigh sheet")).to_be_disabled()  # it would be theirs
    save(page)
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("Dough, Water: 310 g")
    dialog.get_by_role("button", name="Save mine on top").click()
    expect(page.locator(STATUS)).to_have_text("revision 3")
    expect(cell(page, 0, 1, "weight_g")).to_have_value("290")
    other.close()


def test_a_save_does_not_overwrite_a_draft_that_another_window_kept(page, client: TestClient):
    """The draft is no revision, and as much somebody's work: the one who saves is shown both, and can keep both."""
    new_rolls(page, "A draft beside a save")
    save(page)
    expect(page.locator(STATUS)).to_have_text("revision 1")
    other = page.context.new_page()
    other.goto(page.url)
    cell(other, 0, 1, "weight_g").fill("310")
    expect(other.locator(STATUS)).to_have_text("draft on revision 1, kept")
    page.route("**/desk", lambda route: route.abort())  # so that the save is the first to meet the other's draft
    cell(page, 0, 1, "weight_g").fill("290")
    expect(page.get_by_role("alert").filter(has_text="cannot be reached")).to_be_visible()
    save(page)
    dialog = page.get_by_role("dialog")
    for text in ("This window", "Dough, Water: 290 g", "The other window", "Dough, Water: 310 g"):
        expect(dialog).to_contain_text(text)
    at = page.url.rsplit("/", 1)[-1].split("?")[0]
    theirs = client.get(f"/api/formulas/{at}").json()
    assert (theirs["formula"]["stages"][0]["lines"][1]["weight_g"], theirs["head"]["latest_number"]) == (310, 1)
    page.unroute("**/desk")
    dialog.get_by_role("button", name="Keep both").click()
    expect(page.get_by_role("textbox", name="Name of the formula")).to_have_value("A draft beside a save, other text")
    expect(cell(page, 0, 1, "weight_g")).to_have_value("290")
    assert client.get(f"/api/formulas/{at}").json()["formula"] == theirs["formula"]
    kept(page)
    other.close()


def test_a_browser_that_keeps_nothing(page, address):
    """Where site data is blocked the application still opens, and keeps what is typed on the server."""
    page.add_init_script("for (const name of ['localStorage', 'sessionStorage']) Object.defineProperty(window, name, { get() { throw new DOMException('blocked', 'SecurityError') } })")
    new_rolls(page, "Nothing kept here")
    kept(page)


def test_the_records_go_away_while_typing_and_come_back(page):
    """The screen says so, keeps the text, goes on reckoning, and saves when they are back."""
    new_rolls(page, "Through a power cut")

    def away(route: Route) -> None:
        body = '{"type": "urn:pancount:problem:away", "title": "Records cannot be reached", "status": 503, "detail": "x", "errors": []}'
        route.fulfill(status=503, body=body, content_type="application/problem+json")

    page.route("**/api/formulas/**", away)
    cell(page, 0, 1, "weight_g").fill("350")
    alert = page.get_by_role("alert").filter(has_text="The kitchen’s records cannot be reached")
    expect(alert).to_be_visible()
    expect(cell(page, 0, 1, "percent")).to_have_value("70")
    page.get_by_role("button", name="Save revision").click()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("dialog").get_by_role("alert")).to_be_visible()
    page.get_by_role("button", name="Not now").click()
    page.unroute("**/api/formulas/**")
    expect(alert).to_be_hidden(timeout=10_000)
    kept(page)
    page.reload()
    expect(cell(page, 0, 1, "weight_g")).to_have_value("350")


def test_the_server_is_gone(page):
    """A list that cannot be had says so and can be tried again."""
    page.route("**/api/formulas?**", lambda route: route.abort())
    page.goto("/formulas")
    expect(page.get_by_role("alert")).to_contain_text("The formulas cannot be shown")
    page.unroute("**/api/formulas?**")
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("alert")).to_be_hidden()


LONG = "Ein sehr langer Name 长 طويل " * 10


@pytest.mark.parametrize(
    "formula",
    [
        {"name": LONG[:300], "stages": [{"name": "S" * 300, "lines": [{"name": "面粉" * 150, "role": "flour", "weight_g": 1e-3}]}]},
        {"name": "A tonne", "stages": [{"lines": [{"name": "Flour", "role": "flour", "weight_g": 1e6}, {"name": "Water", "percent": 99999}]}]},
        {"name": "Nothing at all"},
        {"name": "As many lines as there may be", "stages": [{"lines": [{"name": "Flour", "role": "flour", "percent": 100}] + [{"name": f"Line {i}", "role": "salt", "percent": 0.5} for i in range(99)]}]},
    ],
    ids=["long names", "a tonne", "nothing", "most lines"],
)
def test_strange_formulas_open_and_stay_within_the_screen(page, client: TestClient, formula):
    """No blank screen, no sideways scrolling, at desk and phone size."""
    state = client.post("/api/formulas", json={"formula": formula}).json()
    for width in (1280, 390):
        page.set_viewport_size({"width": width, "height": 800})
        page.goto(f"/formulas/{state['head']['id']}")
        if width == 390:
            fits(page, width)
            show(page, "Count")
        expect(quantity(page, "Flour")).to_be_visible()
        if width == 1280:
            take_pan(page, "Round")
        fits(page, width)
        page.goto(f"/formulas/{state['head']['id']}/sheet")
        expect(page.get_by_role("article").or_(page.get_by_role("alert"))).to_be_visible()
        fits(page, width)


@pytest.mark.parametrize("path", ["/formulas/999999", "/formulas/999999/sheet", "/no/such/place"])
def test_a_link_to_nothing(page, path):
    """Says so, and leads back."""
    page.goto(path)
    expect(page.get_by_text(re.compile("no such formula|nothing at this address"))).to_be_visible()
    expect(page.get_by_role("link", name=re.compile("All formulas|Back to the count")).first).to_be_visible()


def test_text_that_an_earlier_release_left_in_the_browser(page):
    """What had not reached the records before the application was renewed comes back, with its pins where they belong now."""
    new_rolls(page, "Before the new release")
    page.evaluate(
        """async () => {
          const id = location.pathname.split('/')[2]
          const state = await (await fetch(`/api/formulas/${id}`)).json()
          const { shaping, ...usual } = state.formula.usual
          const body = {
            formula: { ...state.formula, usual },
            count: { pins: { pieces: 9, flour_g: 700 }, pan: { shape: 'round', name: '', diameter_cm: 24, depth_cm: 5 }, leave_remainder: false, leave_gaps: false },
          }
          const key = `pancount:desk:${id}:${sessionStorage.getItem('pancount:tab')}`
          localStorage.setItem(key, JSON.stringify({ version: state.version, body }))
        }"""
    )
    page.reload()
    expect(page.get_by_text("was brought back from this browser")).to_be_visible()
    expect(quantity(page, "Pieces")).to_have_value("9")
    expect(quantity(page, "Flour")).to_have_value("700")
    expect(page.get_by_role("img", name=re.compile("Pan from above, round"))).to_be_visible()


def test_a_fault_of_ours_is_said_as_one(page):
    """Not "is it still running?": whose fault it is, and that what was typed is here; kept again once it can be."""
    new_rolls(page, "Met a fault")
    body = '{"type": "urn:pancount:problem:fault", "title": "Pan Count made a mistake", "status": 500, "detail": "Not in what you typed.", "errors": []}'
    page.route("**/desk", lambda route: route.fulfill(status=500, body=body, content_type="application/problem+json"))
    cell(page, 0, 1, "weight_g").fill("333")
    told = page.get_by_role("alert").filter(has_text="Pan Count made a mistake")
    expect(told).to_contain_text("Not in what you typed.")
    expect(told).to_contain_text("kept in this browser")
    page.unroute("**/desk")
    expect(told).to_be_hidden(timeout=10_000)
    kept(page)


def test_what_is_too_long_or_too_large_is_said_and_stays(page, tmp_path):
    """A text over the limit is not cut off: it stands there, with what is wrong; a file over it is not even sent."""
    page.goto("/take-in")
    field = page.get_by_role("textbox", name="The recipe as it is written")
    long = "500 g flour\n" * 1001
    field.fill(long)
    expect(page.get_by_text("has more than 1000 lines: take in the recipe alone").first).to_be_visible()
    expect(field).to_have_value(long)
    field.fill("500 g flour\n300 g water")
    expect(page.get_by_text("has more than 1000 lines").first).to_be_hidden(timeout=10_000)
    saved = tmp_path / "saved page.html"
    saved.write_bytes(b"<html>" + b" " * 4_000_001)
    page.locator("input[type=file]").set_input_files(saved)
    expect(page.get_by_role("alert").filter(has_text="holds 4 MB, more than a recipe")).to_be_visible()


def test_two_windows_on_one_recipe(page):
    """Taking in: the second is shown both texts, makes no formula of the other's, and can keep both."""
    page.goto("/take-in")
    field = page.get_by_role("textbox", name="The recipe as it is written")
    field.fill("500 g bread flour\n300 g water")
    page.wait_for_url(re.compile(r"/take-in/\d+"))
    other = page.context.new_page()
    other.goto(page.url)
    other.get_by_role("textbox", name="The recipe as it is written").fill("500 g bread flour\n310 g water")
    expect(other.get_by_role("status").filter(has_text=re.compile("^kept$"))).to_be_visible()
    field.fill("500 g bread flour\n290 g water")
    told = page.get_by_role("alert").filter(has_text="This recipe was changed in another window")
    for text in ("290 g water", "310 g water"):
        expect(told).to_contain_text(text)
    page.get_by_role("button", name="Make the formula").click()
    expect(told).to_be_visible()
    assert "/take-in/" in page.url
    first = page.url
    told.get_by_role("button", name="Keep both").click()
    page.wait_for_url(lambda url: url != first)
    expect(field).to_have_value("500 g bread flour\n290 g water")
    other.close()
