"""The weigh sheet as a PDF."""

from pancount.core.sheet.printed import WeighSheet
from pancount.formats.pan_words import LengthUnit
from pancount.formats.paper import Paper, as_pdf, page_size, templates

ROOMY = 20
"""With more lines and stages than this the sheet is set smaller; from about 40 on it takes more pages."""
MOST_WORDS = 8_000
"""In names and notes of a sheet; a long one has 3 000. In a sheet with more each is cut off. [characters]"""
CUT = 60
"""Where they are cut off, they are this long and end in "…"; they stand whole on screen. [characters]"""


def sheet_html(
    sheet: WeighSheet,
    *,
    kitchen: str,
    edition: str,
    paper: Paper,
    length_unit: LengthUnit,
) -> str:
    """The sheet as one HTML page. `edition` says which revision it is."""
    stages = (*sheet.stages, *sheet.beside)
    rows = sum(len(stage.lines) + 1 for stage in stages)
    words = sum(len(stage.name) + sum(len(line.name) + len(line.note) for line in stage.lines) for stage in stages)
    return (
        templates()
        .get_template("sheet.html")
        .render(
            sheet=sheet,
            kitchen=kitchen,
            edition=edition,
            paper=paper,
            page=page_size(paper),
            length_unit=length_unit,
            longest=CUT if words > MOST_WORDS else MOST_WORDS,
            small=rows > ROOMY and paper != "roll",
        )
    )


def sheet_pdf(sheet: WeighSheet, *, kitchen: str, edition: str, paper: Paper, length_unit: LengthUnit) -> bytes:
    """The sheet as a PDF."""
    return as_pdf(sheet_html(sheet, kitchen=kitchen, edition=edition, paper=paper, length_unit=length_unit), paper)
