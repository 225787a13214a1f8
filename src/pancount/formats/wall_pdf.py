"""The day as a sheet for the wall: large, by time; behind it the evening before, and all that is to be weighed."""

from datetime import date, timedelta

from pancount.core.day.day import clock_words, day_of
from pancount.core.day.papers import DayPapers
from pancount.formats.paper import Paper, as_one_page, page_size, templates

SIZES_PT = (13.0, 11.0, 9.5)
"""How large the words are: to be read from the bench. [pt]"""


def weekday(day: date, at_min: float) -> str:
    """On which day a time lies, in words.

    >>> weekday(date(2026, 11, 28), -150), weekday(date(2026, 11, 28), 300)
    ('Friday 27.11.', 'Saturday 28.11.')
    """
    own = day + timedelta(days=day_of(at_min))
    return f"{own:%A} {own.day}.{own.month}."


def wall_pdf(papers: DayPapers, *, name: str, kitchen: str, day: date, paper: Paper) -> bytes:
    """The sheet as a PDF. Pages are broken by themselves; the largest print with which the timetable is on one page is taken."""

    def html(size: float) -> str:
        return templates().get_template("wall.html").render(
            papers=papers, name=name, kitchen=kitchen, paper=paper, page=page_size(paper), size=size,
            clock=clock_words, weekday=lambda at: weekday(day, at), title=f"{day:%A} {day.day}.{day.month}.{day.year}",
        )  # fmt: skip

    return as_one_page([html(size) for size in (SIZES_PT if paper != "roll" else (10.0,))], paper)
