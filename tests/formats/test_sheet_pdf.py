"""The weigh sheet as PDF, read back."""

import io

import pytest
from pypdf import PdfReader

from pancount.core.base import most
from pancount.core.base.scale import Scale
from pancount.core.count.count import one_target
from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.pans.pan import RectanglePan
from pancount.core.pantry.role import Role
from pancount.core.sheet.weigh import weigh_sheet
from pancount.formats.sheet_pdf import sheet_pdf

PAN = RectanglePan(name="Rimmed pan", length_cm=33, width_cm=23, depth_cm=4.6)


def read(formula: Formula, *, paper="A4", unit="cm") -> PdfReader:
    sheet = weigh_sheet(formula, one_target(PAN, pieces=24), Scale())
    pdf = sheet_pdf(sheet, kitchen="Weir House kitchen", edition="revision 1", paper=paper, length_unit=unit)
    return PdfReader(io.BytesIO(pdf))


def with_lines(n: int, name: str = "Line") -> Formula:
    lines = (Line(name="Flour", role=Role.FLOUR, percent=100), *(Line(name=f"{name} {i}", role=Role.SALT, percent=1) for i in range(n)))
    return Formula(name=name, stages=(Stage(name="Dough", lines=lines),))


@pytest.mark.parametrize(("paper", "size"), [("A4", (595, 842)), ("Letter", (612, 792))])
def test_one_page_of_the_kitchens_paper(paper, size):
    """A usual formula fits on one page, and 38 lines still do."""
    for n in (20, 38):
        pages = read(with_lines(n), paper=paper).pages
        assert len(pages) == 1
        assert (round(pages[0].mediabox.width), round(pages[0].mediabox.height)) == size


def test_it_says_what_the_screen_says():
    """Name, edition, lines, total, pieces and pan."""
    text = read(with_lines(1), unit="in").pages[0].extract_text().replace("\u202f", " ")
    for words in ("Weir House kitchen", "revision 1", "Line 0", "24 × 80 g", "13 × 9.1 in", "2 pans of 12"):
        assert words in text


@pytest.mark.parametrize("name", ["Брötchen", "面包", "لخبز", "🥖 & <b>bold</b>", "x" * 300])
def test_names_in_any_script(name):
    """Every name comes out as it went in, in fonts that have it, and never as markup."""
    reader = read(with_lines(2, name[:290]))
    fonts = {str(f["/BaseFont"]) for page in reader.pages for f in (x.get_object() for x in page["/Resources"]["/Font"].values())}
    assert any("Hyperlegible" in font for font in fonts)
    if name == "面包":
        assert any("Droid" in font for font in fonts)
    if name.startswith("x"):
        assert "x" * 40 in reader.pages[0].extract_text()


def test_as_many_lines_as_there_may_be_take_more_pages_and_lose_none():
    """A long formula is set small and goes on."""
    reader = read(with_lines(most.LINES - 1))
    text = " ".join(page.extract_text() for page in reader.pages)
    assert all(f"Line {i} " in text.replace("\n", " ") for i in range(most.LINES - 1))
    assert "page 1 of" in text


def test_only_a_sheet_that_is_full_of_words_cuts_them_off():
    """A long note stands whole, and what is to be held back with it; a hundred of them end in a sign."""
    note = "stir all the time with a whisk until it is thick and draws away from the sides of the pot, then cover it"
    line = Line(name="Whole milk", role=Role.LIQUID, percent=60, note=note, held_back=0.1)
    flour = Line(name="Flour", role=Role.FLOUR, percent=100)
    text = " ".join(read(Formula(name="x", stages=(Stage(lines=(flour, line)),))).pages[0].extract_text().split())
    assert f"{note}, hold back" in text
    text = " ".join(" ".join(page.extract_text() for page in read(Formula(name="x", stages=(Stage(lines=(flour, *[line] * 90)),))).pages).split())
    assert text.count(f"{note[:59].rstrip()}…, hold back") == 90
