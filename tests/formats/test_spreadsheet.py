"""The spreadsheet, opened and reckoned by LibreOffice Calc, and the papers that are cut to size."""

import csv
import io
import re
import subprocess
import zipfile
from pathlib import Path

import pytest
from pypdf import PdfReader

from conftest import make_formula
from pancount.core.base.scale import Scale
from pancount.core.count.count import Count, Pins, Target, TargetPins
from pancount.core.count.solve import solve
from pancount.core.formula.formula import Feed, Formula, Line, Stage, StageKind
from pancount.core.pans.kit import Kit
from pancount.core.pans.shaping import Shaping, shape
from pancount.core.pantry.role import Role
from pancount.core.sheet.weigh import weigh_sheet
from pancount.formats.ruler_pdf import ruler_pdf
from pancount.formats.sheet_ods import count_ods
from pancount.formats.sheet_pdf import sheet_pdf

COUNT = Count(
    pins=Pins(flour_g=1500),
    targets=(Target(name="large", pins=TargetPins(pieces=12, piece_g=95)), Target(name="small", pins=TargetPins(piece_g=45))),
)


def staged() -> Formula:
    """A poolish of which a tenth is kept back, so that not all of it reaches the dough."""
    poolish = Stage(
        name="Poolish", kind=StageKind.POOLISH, key="p", feeds=(Feed(into="d", share=0.9),),
        lines=(Line(name="Bread flour", role=Role.FLOUR, percent=20), Line(name="Water", role=Role.LIQUID, percent=20)),
    )  # fmt: skip
    dough = Stage(
        name="Dough", key="d",
        lines=(Line(name="Bread flour", role=Role.FLOUR, percent=82), Line(name="Water", role=Role.LIQUID, percent=45), Line(name="Fine salt", role=Role.SALT, percent=2)),
    )  # fmt: skip
    return Formula(name="Weir & lock", stages=(poolish, dough))


def with_pieces(ods: bytes, pieces: dict[bytes, bytes]) -> bytes:
    """The spreadsheet with typed numbers changed, and without what was worked out, so that Calc has to reckon all of it."""
    made = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(ods)) as old, zipfile.ZipFile(made, "w") as new:
        for item in old.infolist():
            data = old.read(item)
            if item.filename == "content.xml":
                cells = re.compile(rb"<table:table-cell[^>]*table:formula=[^>]*>")
                data = cells.sub(lambda cell: re.sub(rb' office:value(-type)?="[^"]*"', b"", cell[0]), data)
                for before, after in pieces.items():
                    assert data.count(before) == 1
                    data = data.replace(before, after)
            new.writestr(item, data)
    return made.getvalue()


def in_calc(ods: bytes, folder: Path) -> list[list[str]]:
    """The cells as LibreOffice Calc reckons them, opened headless and written out as CSV."""
    (folder / "count.ods").write_bytes(ods)
    command = ["soffice", f"-env:UserInstallation=file://{folder}/profile", "--headless", "--convert-to", 'csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,true,false', "--outdir", str(folder), str(folder / "count.ods")]
    subprocess.run(command, check=True, capture_output=True, timeout=180)
    return list(csv.reader(io.StringIO((folder / "count.csv").read_text())))


def grams(rows: list[list[str]]) -> dict[tuple[str, str], float]:
    """Each line's grams by stage and ingredient."""
    head = next(n for n, row in enumerate(rows) if row[:2] == ["Stage", "Ingredient"])
    return {(row[0], row[1]): float(row[4].replace(",", "")) for row in rows[head + 1 :] if row and row[0]}


@pytest.mark.parametrize("formula", [make_formula(("Bread flour", Role.FLOUR, 100), ("Water", Role.LIQUID, 62.5), ("Fine salt", Role.SALT, 2)), staged()], ids=lambda f: f.name)
def test_calc_gives_the_same_grams(formula, tmp_path):
    """As it is, and with the pieces changed in the spreadsheet: what the core makes of them."""
    result = solve(formula, COUNT).result
    ods = count_ods(formula, COUNT, Kit())
    flour = result.quantities["flour_g"].value
    expected = {(stage.name, line.name): line.percent * flour / 100 for stage in formula.stages for line in stage.lines}
    found = grams(in_calc(with_pieces(ods, {}), tmp_path))
    assert {key: found[key] for key in expected} == pytest.approx(expected, abs=0.006)
    assert found["All of it", ""] == pytest.approx(result.quantities["dough_g"].value, abs=0.006)
    # Twice the large ones: the core's own answer for the same, with what was left over still left over.
    pieces, left = result.quantities["pieces.1"].value, result.quantities["remainder_g"].value
    changed = with_pieces(ods, {b'office:value="12.0"': b'office:value="24.0"'})
    divide = 24 * 95 + pieces * 45 + left
    dough = divide / (1 - result.quantities["bench_loss"].value)
    assert grams(in_calc(changed, tmp_path))["All of it", ""] == pytest.approx(dough, abs=0.006)


def test_a_roll_is_as_long_as_what_is_on_it(rolls):
    """80 mm wide, one page, longer for more lines, and no longer than it needs to be."""
    def long(formula) -> float:
        sheet = weigh_sheet(formula, COUNT, Scale())
        pdf = sheet_pdf(sheet, kitchen="Weir House kitchen", edition="revision 1", paper="roll", length_unit="cm")
        (page,) = PdfReader(io.BytesIO(pdf)).pages
        assert round(float(page.mediabox.width) / 72 * 25.4) == 80
        text = page.extract_text()
        assert "reckoned for what stays" in text.replace("\n", " ")
        return float(page.mediabox.height) / 72 * 25.4

    many = make_formula(("f", Role.FLOUR, 100), *((f"n{i}", Role.FLAVOUR, 3) for i in range(30)))
    short, tall = long(rolls), long(many)
    assert 80 < short < 250
    assert short + 100 < tall < 500


@pytest.mark.parametrize(("paper", "size"), [("A4", (842, 595)), ("Letter", (792, 612))])
def test_a_ruler_is_true_to_size(paper, size):
    """Its strip is drawn in centimetres: 27.5 cm of it on A4; a rope longer than that takes two strips."""
    pdf = ruler_pdf(shape(Shaping(kind="rope", thickness_cm=1.6), 85, 1), name="<Knots>", paper=paper, unit="cm")
    (page,) = PdfReader(io.BytesIO(pdf)).pages
    assert (round(page.mediabox.width), round(page.mediabox.height)) == size
    text = page.extract_text().replace("\n", " ")
    assert "<Knots>" in text
    assert "38.4 cm long" in text
    assert "Lay the strips end to end" in text
    assert all(f"{n}" in text for n in (0, 10, 20, 30, 38))
