"""Baker's percentage: every line of a formula in grams and in percent of all flour.

The rule is common practice, no source: total flour is 100 %, a line's percentage is its weight over
total flour. All flour counts, whichever stage it stands in.
"""

from dataclasses import dataclass
from typing import Literal

from pancount.core.base import Frozen
from pancount.core.errors import FlourNotHundred, NoFlour, NoRoomForFlour, Place
from pancount.core.formula import Formula, Line, Role

ROUNDING_OF_A_PERCENT = 0.05
"""How far a percentage given to one decimal may be out: three flours of 33.3 make 100. [%]"""

ODD_PERCENT = 1000
"""Above this a percentage is more likely a weight typed in the wrong column. [%]"""


@dataclass(frozen=True, slots=True)
class ReckonedLine:
    """A line both ways, and which of the two the baker gave. A dataclass, since there are many and none comes in."""

    given: Literal["weight", "percent", "open"]
    weight_g: float
    percent: float


class ReckonedStage(Frozen):
    """A stage's lines and what they come to."""

    weight_g: float
    percent: float
    lines: tuple[ReckonedLine, ...]


class Note(Frozen):
    """Something about one place in the formula that a baker would want to know."""

    at: tuple[str | int, ...]
    text: str


class Reckoned(Frozen):
    """A formula as written, worked out. `flour_given` says what fixed its flour: weights, or the batch as written."""

    flour_g: float
    flour_given: Literal["weight", "percent"]
    weight_g: float
    total_percent: float
    liquid_percent: float
    stages: tuple[ReckonedStage, ...]
    notes: tuple[Note, ...]


def percent_of(weight_g: float, flour_g: float) -> float:
    """A weight as a baker's percentage, 100 · weight ÷ flour, with flour above 0. [%]

    >>> percent_of(100, 160)
    62.5
    """
    return 100 * weight_g / flour_g


def weight_of(percent: float, flour_g: float) -> float:
    """A baker's percentage as a weight, flour · percent ÷ 100. [g]

    >>> weight_of(62.5, 200)
    125.0
    """
    return flour_g * percent / 100


def _at(stage: int, line: int, field: str | None = None) -> Place:
    return ("stages", stage, "lines", line) if field is None else ("stages", stage, "lines", line, field)


def total_flour(formula: Formula) -> tuple[float, float]:
    """All flour of the formula as written [g], and what flours given in percent are multiplied by.

    Flours in grams with others in percent: the percent ones are of the whole, so flour is
    grams ÷ (1 − percent ÷ 100); 450 g and 10 % is 500 g. All in percent: they must make 100, to within
    the rounding of one decimal each, and `formula.flour_g` is the flour.

    Raises `NoFlour`, or `FlourNotHundred` or `NoRoomForFlour` at the first flour given in percent.
    """
    flours = [
        (s, n, line)
        for s, stage in enumerate(formula.stages)
        for n, line in enumerate(stage.lines)
        if line.role is Role.FLOUR
    ]
    grams = sum(line.weight_g for _, _, line in flours if line.weight_g is not None)
    by_percent = [(_at(s, n, "percent"), line.percent) for s, n, line in flours if line.percent]
    percent = sum(p for _, p in by_percent)
    if grams + percent <= 0:
        at = _at(flours[0][0], flours[0][1], "weight_g") if flours else ("stages",)
        raise NoFlour("There is no flour yet. Flour is the 100 % that all else is measured against.", at)
    if grams > 0:
        if percent >= 100:
            raise NoRoomForFlour(
                f"Flours in percent already make {percent:g} %, which leaves no room for the flour given by weight.",
                by_percent[0][0],
            )
        return grams / (1 - percent / 100), 1.0
    if abs(percent - 100) > ROUNDING_OF_A_PERCENT * len(by_percent) + 1e-9:
        raise FlourNotHundred(
            f"The flours come to {round(percent, 2):g} %. Together they are the 100 % of the formula.",
            by_percent[0][0],
        )
    return formula.flour_g, 100 / percent


def with_flour_made_up(formula: Formula) -> Formula:
    """The formula with its flours in percent making 100: the largest takes the rest, the others stay.

    Where the others leave it nothing, all of them are scaled instead. A formula with flour by weight, or with no flour
    in percent, comes back as it is.
    """
    flours = [
        (line.percent or 0.0, -s, -n)
        for s, stage in enumerate(formula.stages)
        for n, line in enumerate(stage.lines)
        if line.role is Role.FLOUR and line.percent
    ]
    if not flours or any(line.weight_g for stage in formula.stages for line in stage.lines if line.role is Role.FLOUR):
        return formula
    total, (largest, *where) = sum(percent for percent, _, _ in flours), max(flours)
    rest = 100 - (total - largest)

    def made_up(s: int, n: int, line: Line) -> Line:
        if line.role is not Role.FLOUR or not line.percent:
            return line
        if rest <= 0:
            return line.model_copy(update={"percent": line.percent * 100 / total})
        return line.model_copy(update={"percent": rest}) if [-s, -n] == where else line

    stages = tuple(
        stage.model_copy(update={"lines": tuple(made_up(s, n, line) for n, line in enumerate(stage.lines))})
        for s, stage in enumerate(formula.stages)
    )
    return formula.model_copy(update={"stages": stages})


def _reckon_line(line: Line, flour_g: float, flour_share: float) -> ReckonedLine:
    if line.weight_g is not None:
        return ReckonedLine("weight", line.weight_g, percent_of(line.weight_g, flour_g))
    if line.percent is not None:
        percent = line.percent * flour_share if line.role is Role.FLOUR else line.percent
        return ReckonedLine("percent", weight_of(percent, flour_g), percent)
    return ReckonedLine("open", 0.0, 0.0)


def _note(line: Line, figures: ReckonedLine) -> str:
    if figures.given == "open" and line.name:
        return f"{line.name} has no amount yet, so it is not in the count."
    if figures.percent > ODD_PERCENT:
        return f"{line.name or 'This line'} is {figures.percent:.0f} % of the flour. Is it grams?"
    return ""


def reckon(formula: Formula) -> Reckoned:
    """Work a formula out as written: every line in grams and percent, stage by stage, with the headline figures.

    Liquid % counts lines whose role is liquid (water, milk, beer, whey), by weight over flour.
    Raises what `total_flour` raises.
    """
    flour_g, flour_share = total_flour(formula)
    stages: list[ReckonedStage] = []
    notes: list[Note] = []
    liquid = 0.0
    flour_given: Literal["weight", "percent"] = "percent"
    for s, stage in enumerate(formula.stages):
        lines = []
        for n, line in enumerate(stage.lines):
            figures = _reckon_line(line, flour_g, flour_share)
            lines.append(figures)
            if line.role is Role.LIQUID:
                liquid += figures.percent
            elif line.role is Role.FLOUR and line.weight_g:
                flour_given = "weight"
            if text := _note(line, figures):
                notes.append(Note(at=_at(s, n), text=text))
        weight_g, percent = sum(f.weight_g for f in lines), sum(f.percent for f in lines)
        stages.append(ReckonedStage(weight_g=weight_g, percent=percent, lines=tuple(lines)))
    return Reckoned(
        flour_g=flour_g,
        flour_given=flour_given,
        weight_g=sum(stage.weight_g for stage in stages),
        total_percent=sum(stage.percent for stage in stages),
        liquid_percent=liquid,
        stages=tuple(stages),
        notes=tuple(notes),
    )
