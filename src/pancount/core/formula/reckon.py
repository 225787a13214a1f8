"""Baker's percentage: every line of a formula in grams and in percent of all flour, and what each stage comes to.

The rule is common practice, no source: total flour is 100 %, a line's percentage is its weight over
total flour. All flour that reaches the dough counts, whichever stage it stands in, a starter's flour included. A line's
weight is what is weighed for it; of a stage that is kept back in part, less than that reaches the dough.

Bakers count a starter in two ways, with the same grams: its flour and water `joined` to the totals, which is the truth
that a formula is kept in, or `apart`, as one line over the flour of the rest. Both are common practice, no source.
"""

from dataclasses import dataclass
from typing import Literal

from pancount.core.base.errors import FlourNotHundred, NoFlour, NoRoomForFlour
from pancount.core.base.models import LEAST_GRAMS, Frozen
from pancount.core.formula.formula import Formula, Line, StageKind, at, each_line, with_line
from pancount.core.formula.stages import MORE_THAN_ALL, Flow, flow
from pancount.core.pantry.role import Role

ROUNDING_OF_A_PERCENT = 0.05
"""How far a percentage given to one decimal may be out: three flours of 33.3 make 100. [%]"""

ODD_PERCENT = 1000
"""Above this a percentage is more likely a weight typed in the wrong column. [%]"""

School = Literal["joined", "apart"]


@dataclass(frozen=True, slots=True)
class ReckonedLine:
    """A line both ways, and which of the two the baker gave. A dataclass, since there are many and none comes in."""

    given: Literal["weight", "percent", "open"]
    weight_g: float
    percent: float
    """Of all flour."""
    shown_percent: float
    """Of the flour that this kitchen counts as its 100 %."""


@dataclass(frozen=True, slots=True)
class FedIn:
    """What comes into a stage from another: how much it weighs there, and the water that makes up its steam."""

    source: int
    share: float
    weight_g: float
    made_up_g: float


@dataclass(frozen=True, slots=True)
class ReckonedStage:
    """A stage's lines, what comes into it, and what they make."""

    weight_g: float
    """Of its own lines."""
    percent: float
    reach: float
    """The share of it that reaches the dough."""
    shown_percent: float
    """What reaches the dough of its own lines, of the flour that this kitchen counts as its 100 %."""
    bowl_g: float
    """All that is in the bowl, what came in included, before any of it boils off."""
    bowl_percent: float
    boiled_off_g: float
    kept_back_g: float
    """What is left of it after it went where it goes."""
    fed: tuple[FedIn, ...]
    lines: tuple[ReckonedLine, ...]


@dataclass(frozen=True, slots=True)
class FlourPart:
    """The flour of one line that reaches the dough."""

    stage: int
    line: int
    weight_g: float


class Note(Frozen):
    """Something about one place in the formula that a baker would want to know."""

    at: tuple[str | int, ...]
    text: str


class Reckoned(Frozen):
    """A formula as written, worked out. `flour_given` says what fixed its flour: weights, or the batch as written."""

    flour_g: float
    base_g: float
    """The flour that this kitchen counts as 100 %: all of it, or what is in no starter."""
    flours: tuple[FlourPart, ...]
    """What all flour is made of."""
    flour_given: Literal["weight", "percent"]
    weight_g: float
    """Of the dough: what is kept back for next time is not in it."""
    total_percent: float
    shown_total_percent: float
    liquid_percent: float
    main: int
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


def flour_share(line: Line) -> float:
    """How much of a line is flour, 0 to 1: all of a flour, and of a starter 100 ÷ (100 + its hydration)."""
    if line.role is Role.FLOUR:
        return 1.0
    return 0.0 if line.hydration is None else 100 / (100 + line.hydration)


def liquid_share(line: Line) -> float:
    """How much of a line is liquid, 0 to 1: all of a liquid, and a starter's water."""
    if line.role is Role.LIQUID:
        return 1.0
    return 0.0 if line.hydration is None else line.hydration / (100 + line.hydration)


def total_flour(formula: Formula, flows: Flow) -> tuple[float, float]:
    """All flour of the formula as written [g], and what flours given in percent are multiplied by.

    Flours in grams with others in percent: the percent ones are of the whole, so flour is
    grams ÷ (1 − percent ÷ 100); 450 g and 10 % is 500 g. All in percent: they must make 100, to within
    the rounding of one decimal each, and `formula.flour_g` is the flour. What does not reach the dough does not count.

    Raises `NoFlour`, or `FlourNotHundred` or `NoRoomForFlour` at the first flour given in percent.
    """
    grams = percent = of_starters = 0.0
    first_percent = first_flour = None
    flours = 0
    for s, n, line in each_line(formula):
        share = flour_share(line) * flows.reach[s]
        if not share:
            continue
        is_flour = line.role is Role.FLOUR
        if is_flour and first_flour is None:
            first_flour = at(s, n, "weight_g")
        grams += (line.weight_g or 0.0) * share
        if line.percent:
            percent += line.percent * share
            of_starters += 0.0 if is_flour else line.percent * share
            flours += 1
            if first_percent is None and is_flour:
                first_percent = at(s, n, "percent")
    if grams + percent <= 0 or (grams <= 0 and first_percent is None):
        raise NoFlour(
            "There is no flour yet. Flour is the 100 % that all else is measured against.", first_flour or ("stages",)
        )
    if grams > 0:
        if percent >= 100:
            raise NoRoomForFlour(
                f"Flours in percent already make {percent:g} %, which leaves no room for the flour given by weight.",
                first_percent or ("stages",),
            )
        return grams / (1 - percent / 100), 1.0
    assert first_percent is not None
    if abs(percent - 100) > ROUNDING_OF_A_PERCENT * flours + 1e-9:
        raise FlourNotHundred(
            f"The flours come to {round(percent, 2):g} %. Together they are the 100 % of the formula.", first_percent
        )
    return formula.flour_g, (100 - of_starters) / (percent - of_starters)


def with_flour_made_up(formula: Formula) -> Formula:
    """The formula with its flours in percent making 100: the largest takes the rest, the others stay.

    Where the others leave it nothing, all of them are scaled instead. A formula with flour by weight, or with no flour
    in percent, comes back as it is. Raises what `flow` raises.
    """
    reach = flow(formula).reach
    flours = [
        (line.percent * reach[s], -s, -n) for s, n, line in each_line(formula) if line.role is Role.FLOUR and line.percent
    ]
    of_starters = sum(
        (line.percent or 0.0) * flour_share(line) * reach[s]
        for s, _, line in each_line(formula)
        if line.role is not Role.FLOUR
    )
    if not flours or of_starters >= 100 or any(line.weight_g and flour_share(line) for _, _, line in each_line(formula)):
        return formula
    total, (largest, s, n) = sum(percent for percent, _, _ in flours), max(flours)
    rest = 100 - of_starters - (total - largest)
    if rest > 0:
        return with_line(formula, -s, -n, percent=rest / reach[-s])
    for _, s, n in flours:
        percent = formula.stages[-s].lines[-n].percent or 0.0
        formula = with_line(formula, -s, -n, percent=percent * (100 - of_starters) / total)
    return formula


def _reckon_line(line: Line, flour_g: float, base_g: float, of_flours: float) -> ReckonedLine:
    if line.weight_g is not None:
        weight_g = line.weight_g
        return ReckonedLine("weight", weight_g, percent_of(weight_g, flour_g), percent_of(weight_g, base_g))
    if line.percent is not None:
        percent = line.percent * of_flours if line.role is Role.FLOUR else line.percent
        return ReckonedLine("percent", weight_of(percent, flour_g), percent, percent * flour_g / base_g)
    return ReckonedLine("open", 0.0, 0.0, 0.0)


def _base(formula: Formula, flows: Flow, flour_g: float, of_flours: float, school: School) -> float:
    """The flour that counts as 100 %. Where all flour is a starter's, there is nothing to set it apart from."""
    if school == "joined":
        return flour_g
    apart = 0.0
    for s, _, line in each_line(formula):
        if (share := flour_share(line)) and (line.hydration is not None or formula.stages[s].kind is StageKind.LEVAIN):
            apart += _reckon_line(line, flour_g, flour_g, of_flours).weight_g * share * flows.reach[s]
    return flour_g - apart if apart < flour_g * (1 - 1e-9) else flour_g


def _note(line: Line, figures: ReckonedLine) -> str:
    if figures.given == "open" and line.name:
        return f"{line.name} has no amount yet, so it is not in the count."
    if figures.percent > ODD_PERCENT:
        return f"{line.name or 'This line'} is {figures.percent:.0f} % of the flour. Is it grams?"
    return ""


def _bowls(formula: Formula, flows: Flow, own: list[float]) -> tuple[list[float], list[list[FedIn]]]:
    """What is in each stage's bowl [g], and what came into it: as much as is left after boiling, its steam made up."""
    bowls = list(own)
    fed: list[list[FedIn]] = [[] for _ in own]
    for s in flows.order:
        for part in flows.into(s):
            raw = bowls[part.source] * part.share
            steam = raw * formula.stages[part.source].boiled_off
            fed[s].append(FedIn(part.source, part.share, raw - steam, steam))
            bowls[s] += raw
    return bowls, fed


def reckon(formula: Formula, school: School = "joined") -> Reckoned:
    """Work a formula out as written: every line in grams and percent, stage by stage, with the headline figures.

    Liquid % counts lines whose role is liquid (water, milk, beer, whey) and a starter's water, by weight over all flour.
    Raises what `flow` and `total_flour` raise.
    """
    flows = flow(formula)
    flour_g, of_flours = total_flour(formula, flows)
    if flour_g < LEAST_GRAMS / 10:
        raise NoFlour("There is next to no flour: look at its weight.")
    base_g = _base(formula, flows, flour_g, of_flours, school)
    notes: list[Note] = []
    flours: list[FlourPart] = []
    liquid = 0.0
    flour_given: Literal["weight", "percent"] = "percent"
    figures: list[tuple[ReckonedLine, ...]] = []
    for s, stage in enumerate(formula.stages):
        lines = []
        for n, line in enumerate(stage.lines):
            one = _reckon_line(line, flour_g, base_g, of_flours)
            lines.append(one)
            liquid += one.percent * liquid_share(line) * flows.reach[s]
            if share := flour_share(line):
                flours.append(FlourPart(s, n, one.weight_g * share * flows.reach[s]))
                if line.weight_g:
                    flour_given = "weight"
            if text := _note(line, one):
                notes.append(Note(at=at(s, n), text=text))
        figures.append(tuple(lines))
    own = [sum(f.weight_g for f in lines) for lines in figures]
    bowls, fed = _bowls(formula, flows, own)
    stages = []
    for s, stage in enumerate(formula.stages):
        out = flows.out_of(s)
        boiled_off_g = bowls[s] * stage.boiled_off
        kept = 1 - sum(part.share for part in out) if out else 0.0
        stages.append(
            ReckonedStage(
                weight_g=own[s],
                percent=percent_of(own[s], flour_g),
                reach=flows.reach[s],
                shown_percent=percent_of(own[s] * flows.reach[s], base_g),
                bowl_g=bowls[s],
                bowl_percent=percent_of(bowls[s], flour_g),
                boiled_off_g=boiled_off_g,
                kept_back_g=(bowls[s] - boiled_off_g) * kept if kept > MORE_THAN_ALL else 0.0,
                fed=tuple(fed[s]),
                lines=figures[s],
            )
        )
    weight_g = sum(stage.weight_g * stage.reach for stage in stages)
    return Reckoned(
        flour_g=flour_g,
        base_g=base_g,
        flours=tuple(flours),
        flour_given=flour_given,
        weight_g=weight_g,
        total_percent=sum(stage.percent * stage.reach for stage in stages),
        shown_total_percent=percent_of(weight_g, base_g),
        liquid_percent=liquid,
        main=flows.main,
        stages=tuple(stages),
        notes=tuple(notes),
    )
