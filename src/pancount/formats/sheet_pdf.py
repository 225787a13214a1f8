"""The weigh sheet as a PDF: a page of A4 or Letter where it fits, or a roll as long as it is."""

from decimal import Decimal
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Literal

from jinja2 import Environment, PackageLoader, StrictUndefined

from pancount.core.sheet import WeighSheet
from pancount.formats.pan_words import LengthUnit, pan_words, shape_words, turns_words

Paper = Literal["A4", "Letter", "roll"]

ROOMY = 20
"""With more lines and stages than this the sheet is set smaller; from about 40 on it takes more pages."""

ROLL_MM = 80
"""The width of a receipt printer's roll, of which 72 mm are printed."""
LONGEST_MM = 5000
"""A roll is laid out this long first, then cut to what is on it."""
PX_TO_MM = 25.4 / 96
"""CSS: 96 px are an inch."""


def spaced(number: Decimal | float, places: int | None = None) -> str:
    """A number as it is written in the kitchen: a thin space between thousands, no needless exponent.

    >>> spaced(Decimal("1892.5")), spaced(57.34, 1)
    ('1\\u202f892.5', '57.3')
    """
    text = f"{number:,f}" if places is None else f"{number:,.{places}f}"
    return text.replace(",", "\u202f")


def percent(value: float) -> str:
    """A percentage: to a tenth, under one to a hundredth.

    >>> percent(62.5), percent(0.034)
    ('62.5 %', '0.03 %')
    """
    return f"{spaced(value, 1 if value >= 1 else 2)} %"


@cache
def _templates() -> Environment:
    environment = Environment(
        loader=PackageLoader("pancount.formats", "templates"), autoescape=True, undefined=StrictUndefined
    )
    environment.filters["spaced"] = spaced
    environment.filters["percent"] = percent
    environment.globals |= {"pan_words": pan_words, "shape_words": shape_words, "turns_words": turns_words}
    return environment


def sheet_html(
    sheet: WeighSheet,
    *,
    kitchen: str,
    edition: str,
    paper: Paper,
    length_unit: LengthUnit,
    roll_mm: float = LONGEST_MM,
) -> str:
    """The sheet as one HTML page. `edition` says which revision it is."""
    rows = sum(len(stage.lines) + 1 for stage in (*sheet.stages, *sheet.beside))
    return (
        _templates()
        .get_template("sheet.html")
        .render(
            sheet=sheet,
            kitchen=kitchen,
            edition=edition,
            paper=paper,
            page=f"{ROLL_MM}mm {roll_mm:.1f}mm" if paper == "roll" else paper,
            length_unit=length_unit,
            small=rows > ROOMY and paper != "roll",
        )
    )


def template_folder() -> str:
    """Where the templates and their fonts are, for what turns HTML into a PDF."""
    return str(Path(str(files("pancount.formats"))) / "templates")


def sheet_pdf(sheet: WeighSheet, *, kitchen: str, edition: str, paper: Paper, length_unit: LengthUnit) -> bytes:
    """The sheet as a PDF."""
    # Imported here: it takes most of a second, which the start of the application need not wait for.
    from weasyprint import HTML

    def laid_out(roll_mm: float) -> "HTML":
        html = sheet_html(
            sheet, kitchen=kitchen, edition=edition, paper=paper, length_unit=length_unit, roll_mm=roll_mm
        )
        return HTML(string=html, base_url=template_folder())

    roll_mm: float = LONGEST_MM
    if paper == "roll":
        roll_mm = _height_mm(laid_out(LONGEST_MM))
    pdf = laid_out(roll_mm).write_pdf()
    assert isinstance(pdf, bytes)  # write_pdf returns None only when given a target
    return pdf


def _height_mm(html: "HTML") -> float:  # type: ignore[name-defined]  # noqa: F821  # imported where it is needed
    """How long a roll must be for what stands on its first page: to the foot of the last thing on it."""
    [page, *more] = html.render().pages
    if more:
        return LONGEST_MM
    page_box = page._page_box
    lowest = max((box.position_y + box.height for box in page_box.descendants() if isinstance(getattr(box, "height", None), int | float) and box.element_tag in ("div", "p", "tr", "table")), default=0.0)
    return float(lowest * PX_TO_MM) + 8
