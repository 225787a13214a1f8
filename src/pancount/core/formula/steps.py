"""The steps of a way to make a dough, as a formula keeps them. What comes of them is reckoned in `core/method`.

What a step leaves open (None), its kind stands in for: so a typed value is the baker's own, as a pin in the count is.
"""

from collections.abc import Iterable
from typing import Annotated, Literal, Self

from pydantic import AfterValidator, Field, model_validator

from pancount.core.base import most
from pancount.core.base.datafiles import rows
from pancount.core.base.models import Brief, Frozen, Name, Percent, Portion, Text, Word, Words

LONGEST_MIN = 14 * 24 * 60
"""A step is no longer than two weeks. [min]"""

Minutes = Annotated[float, Field(ge=0, le=LONGEST_MIN)]
"""How long something takes, up to two weeks. [min]"""
Celsius = Annotated[float, Field(ge=-40, le=600)]
"""How warm something is, from a deep freezer to a wood-fired oven. [°C]"""

Decides = Literal["clock", "look"]
"""What ends a step: its time, or how it looks."""
Hands = Literal["all", "start", "end", "touches", "none"]
"""When a step needs hands: all the time, once at either end, several times spread out, or not."""
Place = Literal["bench", "bowl", "mixer", "room", "warm", "fridge", "freezer", "stove", "pot", "griddle", "oven", "rack"]
"""Where a step happens, and what it keeps others from using. `warm` is the kitchen's warm spot."""


class Lasts(Frozen):
    """How long a step takes: at least, usually, at most. [min]"""

    low_min: Minutes
    usual_min: Minutes
    high_min: Minutes

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if not self.low_min <= self.usual_min <= self.high_min:
            raise ValueError("the least, the usual and the most must be in order")
        return self

    @classmethod
    def of(cls, low: float, high: float | None = None) -> "Lasts":
        """From so long to so long, usually the middle; or just so long."""
        high = low if high is None else high
        return cls(low_min=low, usual_min=(low + high) / 2, high_min=high)


class Warmth(Frozen):
    """From so warm to so warm; alike where it is one number. [°C]"""

    low_c: Celsius
    high_c: Celsius

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.low_c > self.high_c:
            raise ValueError("the lower temperature comes first")
        return self

    @property
    def middle_c(self) -> float:
        """Half way between. [°C]"""
        return (self.low_c + self.high_c) / 2


class Takes(Frozen):
    """Something that goes in at a step.

    `line`: a line, wherever it stands now, by its key. `rest`: every line of a stage that no step names, but for what is held back.
    `stage`: a stage, when it is made. `beside`: something beside the dough. A key that nothing has any more is said, with what it was called.
    """

    what: Literal["line", "rest", "stage", "beside"]
    key: Brief = ""
    """Blank for the dough itself."""
    part: Literal["all", "first", "held_back"] = "all"
    """Of a line: all that is not held back, or what is. `all` is both."""
    share: Portion = 1
    """How much of it: the first half of the flour."""
    called: Name = ""


def packed(texts: Iterable[str]) -> list[str]:
    """Texts put together, one a line, so that each is no longer than the words of one step; one that is longer is parted where it can be.

    >>> packed(["Knead.", "Rest."]), [len(text) for text in packed(["x " * 7_500])]
    (['Knead.\\nRest.'], [9999, 5000])
    """
    found: list[str] = []
    for text in texts:
        if found and len(found[-1]) + 1 + len(text) <= most.WORDS_OF_STEP:
            found[-1] = f"{found[-1]}\n{text}"
            continue
        rest = text
        while len(rest) > most.WORDS_OF_STEP:
            cut = max(rest.rfind(sign, 1, most.WORDS_OF_STEP) for sign in ("\n", " "))
            found.append(rest[: cut if cut > 0 else most.WORDS_OF_STEP])
            rest = rest[len(found[-1]) :].lstrip()
        found.append(rest)
    return found


KINDS = tuple(row["kind"] for row in rows(__name__, "step_kinds.csv"))
"""What a step may be; what each usually is stands in `step_kinds.py`."""


def _known(kind: str) -> str:
    if kind not in KINDS:
        raise ValueError(f"must be a kind of step: {', '.join(KINDS)}")
    return kind


class Step(Frozen):
    """A step of a way. Where a field is None, the kind's own stands in."""

    kind: Annotated[Word, AfterValidator(_known), Field(json_schema_extra={"enum": list(KINDS)})] = "note"
    of: Brief = ""
    """What it works on: the key of a stage, or of something beside the dough; blank for the dough itself."""
    text: Text = ""
    takes: Annotated[tuple[Takes, ...], Field(max_length=40)] = ()
    lasts: Lasts | None = None
    by: Decides | None = None
    hands: Hands | None = None
    touches: Annotated[int, Field(ge=1, le=100)] | None = None
    """How often hands are needed, where that is several times spread out; of folds, how many sets."""
    touch_min: Minutes | None = None
    """How long each takes. [min]"""
    place: Place | None = None
    heat: Warmth | None = None
    """How warm it is held, by what was told: the rise, the liquid that wakes yeast, the oven."""
    told_yeast: Percent | None = None
    """Of a rise: with how much yeast, as instant, its times were told. None: with what the dough has. [% of flour]"""
    room_first_min: Minutes | None = None
    """Of a rise in the fridge: how long it stands in the room before. [min]"""
    look: Words | None = None
    if_not: Words | None = None
    again_min: Minutes | None = None
    """How much longer before it is looked at again. [min]"""
    waits_min: Minutes | None = None
    """How long what is done may wait before the next. [min]"""
    caution: Words = ""
    """The baker's own; the kind's always stands."""
    during: bool = False
    """Whether it happens within the step before it, and takes no time of its own: folds during a rise."""


class OtherPercent(Frozen):
    """What a way has otherwise than the formula: a line's percentage of all flour."""

    key: Word
    percent: Percent


class LineWarmth(Frozen):
    """How warm a line is when it goes in, where the baker says so. [°C]"""

    key: Word
    temp_c: Celsius
