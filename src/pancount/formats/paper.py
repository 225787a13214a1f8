"""Paper: HTML of our templates as a PDF, a page of A4 or Letter where it fits, or a roll as long as it is."""

import atexit
from collections.abc import Sequence
from decimal import Decimal
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Literal

from jinja2 import Environment, PackageLoader, StrictUndefined

from pancount.formats.pan_words import pan_words, shape_words, turns_words

Paper = Literal["A4", "Letter", "roll"]

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


def on_paper(words: str, longest: int) -> str:
    """A name or note no longer than its sheet has room for.

    >>> on_paper("Malted seed bagels", 60), on_paper("Malted seed bagels", 8)
    ('Malted seed bagels', 'Malted…')
    """
    return words if len(words) <= longest else words[: longest - 1].rstrip() + "…"


@cache
def templates() -> Environment:
    """The templates, with how numbers and names are written on paper."""
    environment = Environment(
        loader=PackageLoader("pancount.formats", "templates"), autoescape=True, undefined=StrictUndefined
    )
    environment.filters["spaced"] = spaced
    environment.filters["percent"] = percent
    environment.filters["on_paper"] = on_paper
    environment.globals |= {"pan_words": pan_words, "shape_words": shape_words, "turns_words": turns_words}
    return environment


def page_size(paper: Paper) -> str:
    """A paper's size for CSS."""
    return f"{ROLL_MM}mm {LONGEST_MM}mm" if paper == "roll" else paper


def template_folder() -> str:
    """Where the templates and their fonts are, for what turns HTML into a PDF."""
    return str(Path(str(files("pancount.formats"))) / "templates")


FACES = """
@font-face { font-family: Hyperlegible; src: url(fonts/atkinson-hyperlegible-next-latin-wght-normal.woff2) }
@font-face { font-family: HyperlegibleExt; src: url(fonts/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2) }
@font-face { font-family: Bitter; src: url(fonts/bitter-latin-wght-normal.woff2) }
"""


@cache
def _fonts() -> "tuple[CSS, FontConfiguration]":  # type: ignore[name-defined]  # noqa: F821  # imported where they are needed
    """The faces of the sheet, unpacked once: that takes as long as a short sheet does."""
    from weasyprint import CSS
    from weasyprint.text.fonts import FontConfiguration

    atexit.register(_fonts.cache_clear)  # they cannot be put away once the interpreter is
    fonts = FontConfiguration()
    return CSS(string=FACES, base_url=template_folder(), font_config=fonts), fonts


def load_papers() -> None:
    """Load what turns a page into a PDF, and its faces: the first one waits for that otherwise."""
    _fonts()


def as_pdf(html: str, paper: Paper) -> bytes:
    """A page of HTML as a PDF; a roll is as long as what stands on it."""
    return as_one_page((html,), paper)


def as_one_page(settings: Sequence[str], paper: Paper) -> bytes:
    """The first of these settings of a page, from roomy to tight, that fits on one sheet; the last where none does."""
    # Imported here: it takes most of a second, which the start of the application need not wait for.
    from weasyprint import HTML

    faces, fonts = _fonts()
    for html in settings:
        document = HTML(string=html, base_url=template_folder()).render(stylesheets=[faces], font_config=fonts)
        if len(document.pages) == 1:
            break
    if paper == "roll" and len(document.pages) == 1:
        document.pages[0].height = _height_mm(document.pages[0]) / PX_TO_MM
    pdf = document.write_pdf()
    assert isinstance(pdf, bytes)  # write_pdf returns None only when given a target
    return pdf


def _height_mm(page: "Page") -> float:  # type: ignore[name-defined]  # noqa: F821  # imported where it is needed
    """How long a roll must be for what stands on its first page: to the foot of the last thing on it."""
    page_box = page._page_box
    lowest = max((box.position_y + box.height for box in page_box.descendants() if isinstance(getattr(box, "height", None), int | float) and box.element_tag in ("div", "p", "tr", "table")), default=0.0)
    return float(lowest * PX_TO_MM) + 8
