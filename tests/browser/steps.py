"""What a baker does on the screens, by the names the screens give things."""

from playwright.sync_api import Locator, Page, expect

CHOICES = "What to do with what is over"


def cell(page: Page, stage: int, line: int, column: str) -> Locator:
    return page.locator(f'[data-cell="{stage}:{line}:{column}"] input, input[data-cell="{stage}:{line}:{column}"]')


def quantity(page: Page, name: str) -> Locator:
    """The field of a quantity of the count, by its label."""
    return page.get_by_role("textbox", name=name, exact=True)


def pin(page: Page, name: str) -> Locator:
    return page.get_by_role("switch", name=f"Pin {name}", exact=True)


def take_pan(page: Page, shape: str = "rectangle") -> None:
    """A pan of a shape by its measures, for the target looked at."""
    page.get_by_role("combobox", name="Which pan").select_option("own")
    page.get_by_role("combobox", name="Shape").select_option(shape)


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
