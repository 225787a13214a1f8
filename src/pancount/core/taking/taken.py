"""What a baker says of a recipe's lines, and what comes back: the lines as they were taken, figures and questions."""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from pancount.core.base import most
from pancount.core.base.models import PLAIN, Band, Brief, Frozen, Name, SomeGrams
from pancount.core.pantry.measures import System
from pancount.core.pantry.role import Role
from pancount.core.taking.facts import Fact
from pancount.core.taking.pages import Kind
from pancount.core.taking.yields import Makes


def _not_too_many_lines(text: str) -> str:
    if text.count("\n") >= most.RECIPE_LINES:
        raise ValueError(f"has more than {most.RECIPE_LINES} lines: take in the recipe alone")
    return text


RecipeText = Annotated[str, Field(max_length=most.RECIPE, pattern=PLAIN), AfterValidator(_not_too_many_lines)]

Where = Literal["dough", "bench", "pan", "wash", "topping", "filling", "bath"]
"""Mixed into the dough, or what it goes on instead."""

MOST_COLUMNS = 60

Column = Literal["amount", "unit", "grams", "percent", "ingredient", "note", "stage", "line"]
"""What a column of a table may hold; line: a whole ingredient line in one cell."""

Mapping = Annotated[dict[Column, Annotated[int, Field(ge=0, lt=MOST_COLUMNS)]], Field(max_length=8)]
"""Which column of a table holds what, counted from 0."""


class Settled(Frozen):
    """What the baker said of one line, found again by its text and by which of the lines with that text it is.

    `part` is which thing on the line: 0 the first, then what else it names ("plus more for dusting").
    """

    written: RecipeText
    nth: Annotated[int, Field(ge=0, le=most.RECIPE_LINES)] = 0
    part: Annotated[int, Field(ge=0, le=20)] = 0
    kind: Literal["ingredient", "heading", "step", "note"] | None = None
    name: Name | None = None
    role: Role | None = None
    weight_g: SomeGrams | None = None
    way: Brief | None = None
    where: Where | None = None
    alternative: Annotated[int, Field(ge=0, le=20)] | None = None
    """Which of the things that the line offers behind "or"."""


class Thing(Frozen):
    """One thing on an ingredient line, and what it was taken to be."""

    part: int
    name: str
    role: Role | None
    known: bool
    """Whether the pantry knows it."""
    amount: str
    """In words: "4 cups, scooped"."""
    state: str
    band: Band | None
    """In grams; None where its weight is not known."""
    why: tuple[str, ...]
    ways: tuple[str, ...]
    """Ways of filling that it may be settled to; none where its measure has only one."""
    way: str
    measure: str
    """The measure's key where a cup or spoon could be weighed for it, else blank."""
    count: float
    """How many of that measure."""
    where: Where
    alternatives: tuple[str, ...]
    asks: str
    """What is open about it, as a sentence; blank where nothing is."""
    confirms: Literal["", "name", "where"]
    """What of it is settled where the baker says that what stands in is right."""
    caution: str
    """What can hurt someone about it; blank where nothing does."""
    settled: bool


class TakenLine(Frozen):
    """A line of the text, kept as it was, and what it was taken to be."""

    text: str
    nth: int
    kind: Kind
    group: str
    things: tuple[Thing, ...]
    facts: tuple[Fact, ...]
    asks: str
    """Of a heading whose words do not tell where its lines go: the question for all of them; blank where nothing is open."""
    where: Where | None
    """Where those lines go; None for any other line."""
    disagrees: tuple[str, ...]


class Figure(Frozen):
    """A headline figure in percent of flour, with its exact range, and the line behind most of it."""

    key: str
    label: str
    low: float
    usual: float
    high: float
    blame: str
    """What is behind most of the range; blank where there is none."""
    share: float
    """How much of the range is its, 0 to 1."""
    cure: str


class Effect(Frozen):
    """What one answer would make of the figure that the question moves most."""

    option: str
    label: str
    figure: str
    usual: float


class Asked(Frozen):
    """A question, with what each answer makes of the dough; `answer` is the kitchen's, None where it has none yet."""

    key: str
    asks: str
    answer: str | None
    effects: tuple[Effect, ...]
    moves: float
    """By how much it moves that figure, as a share of it."""
    about: str
    """The lines it is about."""


class Percent(Frozen):
    """A line's percentage of flour with its range. [%]"""

    line: int
    part: int
    low: float
    usual: float
    high: float


class TakenIn(Frozen):
    """A recipe as it was taken in."""

    title: str
    makes: Makes
    lines: tuple[TakenLine, ...]
    flour: Band | None
    """All flour. [g]"""
    percents: tuple[Percent, ...]
    figures: tuple[Figure, ...]
    questions: tuple[Asked, ...]
    open_lines: tuple[int, ...]
    """Lines with something to settle, in order of what they move: headings to place, those in the dough whose weight nobody knows first, then by weight,
    then what is kept out of it."""
    doubts: tuple[str, ...]
    """What is out of proportion in the whole: no flour, no salt."""
    hint: System | None
    """Whose cups and spoons the page's own words give away; None where they do not."""
    measured: bool
    """Whether it matters whose they are: something is measured in them."""
