"""The weigh sheet as a PDF, on one page where it fits."""

from decimal import Decimal
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Literal

from jinja2 import Environment, PackageLoader, StrictUndefined

from pancount.core.pan import RectanglePan, RoundPan
from pancount.core.sheet import WeighSheet
from pancount.core.units import LENGTH_UNITS

Paper = Literal["A4", "Letter"]
LengthUnit = Literal["cm", "in"]

ROOMY = 20
"""With more lines and stages than this the sheet is set smaller; from about 40 on it takes more pages."""


def spaced(number: Decimal | float, places: int | None = None) -> str:
    """A number as it is written in the kitchen: a thin space between thousands, no needless exponent.

    >>> spaced(Decimal("1892.5")), spaced(57.34, 1)
    ('1\\u202f892.5', '57.3')
    """
    text = f"{number:,f}" if places is None else f"{number:,.{places}f}"
    return text.replace(",", "\u202f")


def pan_words(pan: RectanglePan | RoundPan, unit: LengthUnit) -> str:
    """A pan's name and inside size in the kitchen's unit.

    >>> pan_words(RoundPan(name="iron pan", diameter_cm=25.4, depth_cm=5), "in")
    'iron pan, 10 in across'
    """

    def size(cm: float) -> str:
        return f"{cm / LENGTH_UNITS[unit]:.1f}".removesuffix(".0")

    if isinstance(pan, RoundPan):
        measures = f"{size(pan.diameter_cm)} {unit} across"
    else:
        measures = f"{size(pan.length_cm)} × {size(pan.width_cm)} {unit}"
    return ", ".join(filter(None, (pan.name, measures)))


@cache
def _templates() -> Environment:
    environment = Environment(
        loader=PackageLoader("pancount.formats", "templates"), autoescape=True, undefined=StrictUndefined
    )
    environment.filters["spaced"] = spaced
    environment.globals["pan_words"] = pan_words
    return environment


def sheet_html(sheet: WeighSheet, *, kitchen: str, edition: str, paper: Paper, length_unit: LengthUnit) -> str:
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
            length_unit=length_unit,
            small=rows > ROOMY,
        )
    )


def sheet_pdf(sheet: WeighSheet, *, kitchen: str, edition: str, paper: Paper, length_unit: LengthUnit) -> bytes:
    """The sheet as a PDF."""
    # Imported here: it takes most of a second, which the start of the application need not wait for.
    from weasyprint import HTML

    base = Path(str(files("pancount.formats"))) / "templates"
    html = sheet_html(sheet, kitchen=kitchen, edition=edition, paper=paper, length_unit=length_unit)
    pdf = HTML(string=html, base_url=str(base)).write_pdf()
    assert isinstance(pdf, bytes)  # write_pdf returns None only when given a target
    return pdf
