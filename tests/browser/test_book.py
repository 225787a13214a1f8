"""The book on its screens: a bake written in with a photo, beside one from the bench, tasted blind on two devices, a learned loss taken."""

import io
import re
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from PIL import Image
from playwright.sync_api import APIRequestContext, Browser, Page, expect

from browser.benching import happened, ready_before
from browser.steps import choose, fits, quantity, show
from browser.test_accessibility import serious
from pancount.demo.weir_house import examples


def photo(name: str = "crumb.jpg") -> dict:
    out = io.BytesIO()
    Image.new("RGB", (1800, 1200), "peru").save(out, "JPEG")
    return {"name": name, "mimeType": "image/jpeg", "buffer": out.getvalue()}


def kept_formula(request: APIRequestContext, name: str) -> int:
    """The demo kitchen's buns under a name of their own, saved."""
    formula, count = next(one for one in examples() if one[0].name == "Cardamom milk buns")
    body = {"formula": formula.model_copy(update={"name": name}).model_dump(mode="json"), "count": count.model_dump(mode="json")}
    made = request.post("/api/formulas", data=body).json()
    request.post(f"/api/formulas/{made['head']['id']}/revisions", data=body | {"version": made["version"], "note": "first"})
    return made["head"]["id"]


def written(request: APIRequestContext, formula: int, days_ago: float = 2, outcome: dict | None = None, **told: object) -> str:
    at = (datetime.now(UTC) - timedelta(days=days_ago)).isoformat()
    bake = str(uuid4())
    answer = request.post("/api/book/bakes", data={"id": bake, "formula_id": formula, "begun_at": at, "told": told, "outcome": outcome or {}})
    assert answer.ok, answer.text()
    return bake


def from_the_bench(request: APIRequestContext, formula: int) -> str:
    """A bake that was done at the bench, all but what came after its dividing."""
    bake = request.post("/api/bakes", data={"id": str(uuid4()), "formula_id": formula}).json()
    ready_before(request, bake, "divide")
    number = bake["head"]["id"]
    happened(request, number, {"deed": "measured", "what": "dough_g", "value": 1830}, *[{"deed": "piece", "target": 0, "g": 76 + n % 3} for n in range(24)], {"deed": "ended", "how": "done"})
    return number


@pytest.fixture
def phone(browser: Browser, address: str) -> Iterator[Page]:
    context = browser.new_context(base_url=address, viewport={"width": 390, "height": 844})
    yield context.new_page()
    context.close()


def kept(page: Page) -> None:
    expect(page.locator(".top[role=status]")).to_have_text("kept")


class TestWritingIn:
    """A bake that was not at the bench, in a minute."""

    def test_with_a_photo_and_beside_one_from_the_bench(self, page):
        """Written in with scores, words and a photo; put beside one from the bench, what differs stands first, and the address keeps it."""
        name = "Weir buns, written in"
        formula = kept_formula(page.request, name)
        from_the_bench(page.request, formula)
        page.goto(f"/book/write?formula={formula}")
        page.get_by_text("24 pieces").wait_for()
        page.get_by_role("textbox", name="Dough", exact=True).fill("25,5")
        page.get_by_role("textbox", name="Water added").fill("30")
        page.get_by_role("textbox", name="Pieces, each weighed").fill("77 79; 75 78")
        expect(page.get_by_text("4 pieces, 309")).to_be_visible()
        page.get_by_role("radio", name="Crumb: 4 of 5").check()
        page.get_by_role("textbox", name="In words").fill("Threads like wool; 1½ minutes less.")
        page.get_by_role("textbox", name="Baked, weighs").fill("272")
        page.get_by_role("textbox", name="Of so many pieces").fill("4")
        page.get_by_label("Photos", exact=True).set_input_files([photo()])
        page.get_by_role("button", name="It goes to the book").click()
        expect(page.get_by_role("heading", name=name)).to_be_visible()
        expect(page.get_by_role("button", name=f"{name}, photo 1: open")).to_be_visible()
        # 272 ÷ 4 = 68 g of 77.25 raw: 12 % lost.
        expect(page.get_by_role("row", name="Baking loss")).to_contain_text("12")
        expect(page.get_by_role("row", name="Whole milk").filter(has_text="at the mixer")).to_contain_text("+30 g")
        assert serious(page) == []
        page.get_by_role("link", name="Put beside …").click()
        choose(page, "Formula", re.compile(f"^{name}"))
        page.get_by_text("2 bakes found").wait_for()
        for box in page.get_by_role("checkbox").all():
            if not box.is_checked():
                box.press("Space")
        expect(page.get_by_text("2 chosen")).to_be_visible()
        page.get_by_role("button", name="Side by side").click()
        first = page.locator("tbody").first.get_by_role("row").nth(1)
        expect(first).to_contain_text("Whole milk")
        expect(page.get_by_role("row", name="Crumb")).to_contain_text("4")
        expect(page.get_by_role("img", name=f"{name}, photo")).to_be_visible()
        address = page.url
        page.goto("about:blank")
        page.goto(address)
        expect(first).to_contain_text("Whole milk")
        assert serious(page) == []

    def test_what_is_no_photo_is_said(self, page):
        """A file that is none is refused with a sentence, and what was written is in the book."""
        bake = written(page.request, kept_formula(page.request, "Buns without a picture"))
        page.goto(f"/book/{bake}")
        page.get_by_label("Photos from files").set_input_files([{"name": "card.jpg", "mimeType": "image/jpeg", "buffer": b"a recipe, not a photo"}])
        expect(page.get_by_role("alert").filter(has_text="JPEG, PNG or WebP will do")).to_be_visible()

    def test_a_photo_removed_comes_back(self, page):
        bake = written(page.request, kept_formula(page.request, "Buns with a picture"))
        page.goto(f"/book/{bake}")
        page.get_by_label("Photos from files").set_input_files([photo("one.jpg"), photo("two.jpg")])
        opens = page.get_by_role("button", name=re.compile("photo . open|photo \\d: open"))
        expect(opens).to_have_count(2)
        opens.first.click()
        page.get_by_role("textbox", name="What is on it").fill("From below")
        page.get_by_role("textbox", name="What is on it").blur()
        page.get_by_role("dialog", name="From below").wait_for()
        page.get_by_role("button", name="Remove").click()
        expect(page.get_by_role("button", name="From below: open")).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("button", name="From below: open")).to_be_visible()


class TestOutcome:
    """What it came to, kept as it is typed."""

    def test_kept_and_told_twice(self, page, browser, address):
        """Typed words are kept by themselves; where another window was first, both are shown, and one goes on."""
        bake = written(page.request, kept_formula(page.request, "Buns told twice"))
        page.goto(f"/book/{bake}")
        page.get_by_role("textbox", name="In words").fill("Mine.")
        kept(page)
        other = browser.new_context(base_url=address).new_page()
        other.goto(f"/book/{bake}")
        expect(other.get_by_role("textbox", name="In words")).to_have_value("Mine.")
        other.get_by_role("radio", name="Crust: 5 of 5").check()
        kept(other)
        page.get_by_role("textbox", name="Next time").fill("Less sugar.")
        expect(page.get_by_role("alert").filter(has_text="another window")).to_contain_text("Crust 5")
        page.get_by_role("button", name="Keep mine").click()
        kept(page)
        assert page.request.get(f"/api/book/bakes/{bake}").json()["entry"]["outcome"]["next_time"] == "Less sugar."
        other.context.close()

    def test_both_are_kept(self, page):
        """What two wrote of one bake stands there together: all scores, both their words."""
        bake = written(page.request, kept_formula(page.request, "Buns told by two"))
        page.goto(f"/book/{bake}")
        words = page.get_by_role("textbox", name="In words")
        words.wait_for()
        told = {"outcome": {"scores": {"Crust": 5}, "words": "Theirs."}, "version": page.request.get(f"/api/book/bakes/{bake}").json()["entry"]["version"]}
        page.request.put(f"/api/book/bakes/{bake}/outcome", data=told)
        words.fill("Mine.")
        page.get_by_role("button", name="Keep both").click()
        kept(page)
        assert page.request.get(f"/api/book/bakes/{bake}").json()["entry"]["outcome"]["words"] == "Theirs.\nMine."
        expect(page.get_by_role("radio", name="Crust: 5 of 5")).to_be_checked()

    def test_a_score_is_taken_back(self, page):
        bake = written(page.request, kept_formula(page.request, "Buns scored"), outcome={"scores": {"Crumb": 3}})
        page.goto(f"/book/{bake}")
        page.get_by_role("radio", name="Crumb: 3 of 5").click()
        kept(page)
        expect(page.get_by_role("radio", name="Crumb: 3 of 5")).not_to_be_checked()

    def test_forgotten_and_told_later(self, page):
        """What was forgotten is told afterwards, and stands beside what was meant."""
        bake = written(page.request, kept_formula(page.request, "Buns told later"))
        page.goto(f"/book/{bake}")
        expect(page.get_by_role("row", name="Bowl and bench loss")).to_contain_text("not weighed")
        page.get_by_role("button", name="Tell more of it").click()
        page.get_by_role("textbox", name="Dough before dividing").fill("1850")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("row", name="Bowl and bench loss")).not_to_contain_text("not weighed")


class TestFinding:
    """By words, as a calendar, in charts."""

    def test_words_calendar_and_charts(self, page):
        formula = kept_formula(page.request, "Quarkbrötchen vom Wehr")
        bake = written(page.request, formula, days_ago=3, outcome={"words": "Geröstet, ¾ voll.", "scores": {"Crumb": 5}})
        page.goto("/book")
        page.get_by_text(re.compile(r"^\d+ bakes")).wait_for()
        page.keyboard.press("/")
        page.keyboard.type("quarkbroetchen")
        expect(page.get_by_text("1 bake found")).to_be_visible()
        expect(page.get_by_role("link", name="Quarkbrötchen vom Wehr")).to_be_visible()
        page.get_by_role("searchbox", name="Find in all words").fill("¾")
        expect(page.get_by_text("1 bake found")).to_be_visible()
        at = datetime.now(UTC) - timedelta(days=3)
        page.goto(f"/book?formula={formula}&view=calendar&month={at:%Y-%m}")
        page.get_by_role("link", name="Quarkbrötchen vom Wehr").wait_for()
        assert serious(page) == []
        show(page, "Charts")
        page.get_by_role("img", name="Score: 1 bakes.").wait_for()
        page.get_by_text("Figures (1)").first.click()
        expect(page.get_by_role("region", name="Score, figures")).to_contain_text("5 of 5")
        assert serious(page) == []
        # The one point: the only mark of its size below the legend.
        mark = page.wait_for_function(
            """() => {
                const box = document.querySelector('section[aria-label="Score"] .box')
                const marks = [...box.querySelectorAll('svg path')].map((one) => one.getBoundingClientRect())
                const found = marks.find((one) => one.height > 8 && one.height < 18 && one.width > 8 && one.width < 18 && one.y > box.getBoundingClientRect().y + 30)
                return found && [found.x + found.width / 2, found.y + found.height / 2]
            }"""
        ).json_value()
        page.mouse.click(*mark)
        page.wait_for_url(f"**/book/{bake}")

    def test_on_a_phone(self, phone):
        """The list, a bake and what was learned fit a phone."""
        formula = kept_formula(phone.request, "Buns on a phone")
        bake = written(phone.request, formula, pieces=[77, 78, 76, 79], outcome={"baked_g": 270, "baked_pieces": 4})
        for path in ("/book", f"/book/{bake}", f"/book/learned/{formula}", f"/book/write?formula={formula}"):
            phone.goto(path)
            phone.locator("main h1").wait_for()
            phone.wait_for_load_state("networkidle")
            fits(phone, 390)


class TestTastedBlind:
    """On two devices."""

    def test_scored_blind_then_opened(self, page, phone):
        """One lays them out, another scores on a phone without names; opened, both see whose letter was whose."""
        formula = kept_formula(page.request, "Buns tasted blind")
        bakes = [written(page.request, formula, days_ago=day) for day in (2, 1)]
        page.goto(f"/book/beside?bakes={','.join(bakes)}")
        page.get_by_role("button", name="Taste them blind").click()
        page.wait_for_url("**/taste/*")
        page.get_by_role("button", name="I lay them out").click()
        expect(page.get_by_role("region", name="To lay out")).to_contain_text("Buns tasted blind")
        phone.goto(page.url)
        expect(phone.get_by_role("heading", name="Tasted blind")).to_be_visible()
        phone.get_by_role("textbox", name="Who tastes").fill("Lock-keeper")
        a, b = (phone.get_by_role("region", name=letter, exact=True) for letter in ("A", "B"))
        a.get_by_role("radio", name="Flavour: 5 of 5").check()
        b.get_by_role("radio", name="Flavour: 2 of 5").check()
        a.get_by_role("button", name="I like this best?").click()
        kept(phone)
        assert "Buns tasted blind" not in phone.content()
        fits(phone, 390)
        assert serious(phone) == []
        page.get_by_role("button", name="Open it …").click()
        page.get_by_role("button", name="Open it", exact=True).click()
        expect(page.get_by_text("1 of 1 like A best.")).to_be_visible()
        expect(phone.get_by_role("link", name="Buns tasted blind").first).to_be_visible()
        expect(phone.get_by_text("Lock-keeper")).to_be_visible()
        assert serious(page) == []


class TestLearned:
    """Taken with one press, and then used."""

    def test_a_loss_taken_changes_the_count(self, page):
        """What the bakes say of the heat is taken; the count's loss and its dough go by it; given back, they go by the usual."""
        formula = kept_formula(page.request, "Buns that lose much")
        for n in range(5):
            written(page.request, formula, days_ago=9 - n, pieces=[77, 78, 76, 77], dough_g=1760, outcome={"baked_g": 66.0 + 0.1 * n, "baked_pieces": 1})
        page.goto(f"/formulas/{formula}")
        expect(quantity(page, "Dough mixed")).to_have_value(re.compile(r"\d"))
        before = quantity(page, "Dough mixed").input_value()
        page.goto(f"/book/learned/{formula}")
        take = page.get_by_role("button", name="Take Bowl and bench loss")
        take.click()
        expect(page.get_by_role("button", name="Give back Bowl and bench loss")).to_be_visible()
        page.get_by_role("button", name=re.compile("^How Bowl and bench loss")).click()
        expect(page.get_by_text("four times in five it lies between")).to_be_visible()
        assert serious(page) == []
        page.get_by_role("link", name="Its count").click()
        expect(page.get_by_text("as your bakes say").first).to_be_visible()
        expect(quantity(page, "Dough mixed")).not_to_have_value(before)
        page.go_back()
        page.get_by_role("button", name="Give back Bowl and bench loss").click()
        expect(take).to_be_visible()
        page.goto(f"/formulas/{formula}")
        expect(quantity(page, "Dough mixed")).to_have_value(before)

    def test_left_out_with_a_reason(self, page):
        formula = kept_formula(page.request, "Buns left out")
        for n in range(3):
            written(page.request, formula, days_ago=5 - n, dough_g=1850 + n)
        page.goto(f"/book/learned/{formula}")
        page.get_by_role("button", name=re.compile("^How Bowl and bench loss")).click()
        page.get_by_role("button", name=re.compile("^Leave out the bake of")).first.click()
        page.get_by_role("textbox", name="Why does it not count?").fill("scale was off")
        page.get_by_role("button", name="Leave it out").click()
        expect(page.get_by_text("Left out: scale was off")).to_be_visible()
        expect(page.get_by_text("from 2 bakes").first).to_be_visible()
        page.get_by_role("button", name="Count it again").click()
        expect(page.get_by_text("from 3 bakes").first).to_be_visible()

    def test_water_added_each_time(self, page):
        """In the last four you added 20 to 30 g: laid on the desk, the formula has it."""
        formula = kept_formula(page.request, "Buns that want milk")
        for n, g in enumerate((20, 30, 25, 22)):
            bake = written(page.request, formula, days_ago=9 - n, water_g=g)
        page.goto(f"/book/{bake}")
        page.get_by_text("In the last 4 you added 20 to 30 g of water").wait_for()
        page.get_by_role("button", name="Lay it on the desk").click()
        page.wait_for_url(f"**/formulas/{formula}")
        milk = page.request.get(f"/api/formulas/{formula}").json()["formula"]["stages"][1]["lines"][1]
        assert milk["percent"] > 36


def test_the_kitchens_own_scales(page):
    """A scale that the kitchen adds stands on every bake's page; taken out again, the bake keeps its scores."""
    page.goto("/kitchen")
    page.get_by_role("textbox", name="Another scale").fill("Chew")
    page.get_by_role("textbox", name="Another scale").press("Enter")
    page.locator(".el-tag").filter(has_text="Chew").wait_for()
    bake = written(page.request, kept_formula(page.request, "Buns to chew"))
    page.goto(f"/book/{bake}")
    page.get_by_role("radio", name="Chew: 4 of 5").check()
    kept(page)
    page.goto("/kitchen")
    page.locator(".el-tag").filter(has_text="Chew").locator(".el-tag__close").click()
    expect(page.locator(".el-tag").filter(has_text="Chew")).to_have_count(0)
    page.goto(f"/book/{bake}")
    expect(page.get_by_role("radio", name="Chew: 4 of 5")).to_be_checked()
