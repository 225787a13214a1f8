"""The method sheet as a PDF."""

from pancount.core.sheet.method_sheet import MethodSheet
from pancount.formats.paper import Paper, as_one_page, page_size, templates

ROOMY_PT, USUAL_PT, TIGHT_PT = 10.0, 8.6, 7.8
"""How large the words are. [pt]"""
FEW, MANY = 16, 30
"""Up to so many steps the sheet may be roomy; with more than so many it takes another page rather than be set tight."""
CUT, ALL = 600, 12_000
"""A step's words beyond this are cut off on paper, sooner where there are many steps; they stand whole on screen. [characters]"""


def method_pdf(sheet: MethodSheet, *, name: str, kitchen: str, edition: str, paper: Paper) -> bytes:
    """The sheet as a PDF, on one page where that can be. `edition` says which revision it is."""

    def html(size: float) -> str:
        return templates().get_template("method.html").render(
            sheet=sheet, name=name, kitchen=kitchen, edition=edition, paper=paper, page=page_size(paper), longest=min(CUT, ALL // max(1, len(sheet.steps))), size=size
        )

    if paper == "roll":
        sizes: tuple[float, ...] = (9.5,)
    else:
        sizes = (ROOMY_PT, USUAL_PT, TIGHT_PT)[0 if len(sheet.steps) <= FEW else 1 : 3 if len(sheet.steps) <= MANY else 2]
    return as_one_page([html(size) for size in sizes], paper)
