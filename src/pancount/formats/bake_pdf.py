"""A bake as a card on one page: what was meant and what was, what it came to, and its photo."""

from base64 import b64encode
from datetime import datetime

from pancount.core.book.outcome import BEST
from pancount.formats.bake_file import BakeOut
from pancount.formats.paper import Paper, as_one_page, page_size, templates

SIZES_PT = (11.0, 9.5, 8.0)
MOST_LINES, MOST_STEPS = 40, 30
"""So many fit on a page; of more the file tells."""
LEAST_MIN = 5.0
"""What took less, and was to take less, is left to the file. [min]"""


def bake_pdf(bake: BakeOut, *, kitchen: str, paper: Paper, photo: bytes | None, square: bool, begun: datetime) -> bytes:
    """The card as a PDF; `begun` as the kitchen's clock has it."""
    record = bake.record
    steps = [one for one in record.steps if one.minutes is not None and max(one.minutes, one.planned_min) >= LEAST_MIN]

    def html(size: float) -> str:
        return templates().get_template("bake.html").render(
            record=record, outcome=bake.outcome, lines=[one for one in record.lines if not one.beside][:MOST_LINES], beside=[one for one in record.lines if one.beside][:MOST_LINES],
            steps=steps[:MOST_STEPS], kitchen=kitchen, paper=paper, page=page_size(paper), size=size, revision=bake.revision, best=BEST, square=square,
            photo="" if photo is None else f"data:image/jpeg;base64,{b64encode(photo).decode()}", title=f"{begun:%A} {begun.day}.{begun.month}.{begun.year}, {begun:%H:%M}",
        )  # fmt: skip

    return as_one_page([html(size) for size in (SIZES_PT if paper != "roll" else (9.5,))], paper)
