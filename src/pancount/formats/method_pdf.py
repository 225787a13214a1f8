"""The method sheet as a PDF."""

from pancount.core.sheet.method_sheet import MethodSheet
from pancount.formats.paper import Paper, as_pdf, page_size, templates

ROOMY = 16
"""With more steps than this the sheet is set smaller."""
CUT = 600
"""A step's words beyond this are cut off on paper; they stand whole on screen. [characters]"""


def method_html(sheet: MethodSheet, *, name: str, kitchen: str, edition: str, paper: Paper) -> str:
    """The sheet as one HTML page. `edition` says which revision it is."""
    return templates().get_template("method.html").render(
        sheet=sheet, name=name, kitchen=kitchen, edition=edition, paper=paper, page=page_size(paper), longest=CUT,
        small=len(sheet.steps) > ROOMY and paper != "roll",
    )  # fmt: skip


def method_pdf(sheet: MethodSheet, *, name: str, kitchen: str, edition: str, paper: Paper) -> bytes:
    """The sheet as a PDF."""
    return as_pdf(method_html(sheet, name=name, kitchen=kitchen, edition=edition, paper=paper), paper)
