"""Moving flour and liquid between stages, so that the whole formula stays what it is.

"Ferment 20 % of the flour as a poolish" takes the flour, its liquid and some of the yeast out of the dough into a stage
of their own; moving a stage out again puts every line back. A line keeps the way it was given, in grams or percent.
"""

from typing import Annotated

from pydantic import Field

from pancount.core.base.errors import CannotChange
from pancount.core.base.models import Band, Frozen
from pancount.core.formula.formula import Feed, Formula, Line, Stage, StageKind, at, with_line, with_stage
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import Reckoned, reckon, with_flour_made_up
from pancount.core.formula.stages import flow, kinds, main_stage
from pancount.core.pantry.ingredients import Pantry, pantry_with
from pancount.core.pantry.role import Role

NEXT_TO_NOTHING = 1e-9
"""Below this a percentage left over by floating point is nothing. [%]"""


class NewStage(Frozen):
    """A stage to be made of part of the dough."""

    kind: StageKind
    flour_percent: Annotated[float, Field(gt=0, le=100)]
    """How much of all flour goes into it. [%]"""
    hydration: Annotated[float, Field(ge=0, le=1000)]
    """Its liquid over its own flour. [%]"""
    flour: str | None = None
    """Which flour; None takes the largest of the dough."""
    liquid: str | None = None
    """Which liquid; None takes water where there is enough, else the largest."""
    yeast_percent: Annotated[float, Field(ge=0, le=10)] = 0
    """Yeast over its own flour, as instant, out of the dough's in the form that it is there. [%]"""
    name: str = Field("", max_length=300)


def _in_stage(formula: Formula, reckoned: Reckoned, s: int, role: Role, name: str | None) -> list[tuple[float, int]]:
    """Lines of a role in a stage, most first, as (percent of all flour, −line); those of one name where it is given."""
    found = [
        (reckoned.stages[s].lines[n].percent, -n)
        for n, line in enumerate(formula.stages[s].lines)
        if line.role is role and (name is None or line.name.casefold() == name.casefold())
    ]
    return sorted(found, reverse=True)


def _scaled(line: Line, share: float) -> Line:
    """A share of a line, as it was given. The words of its recipe stay with the dough's own line."""
    amounts = {
        "weight_g": None if line.weight_g is None else line.weight_g * share,
        "percent": None if line.percent is None else line.percent * share,
        "band": line.band.times(share, share, share) if line.band and share > 0 else None,
    }
    return line.model_copy(update=amounts)


def _taken(formula: Formula, reckoned: Reckoned, s: int, n: int, percent: float) -> tuple[Formula, Line]:
    """So much of a line out of its stage: the formula without it, and the line that it makes. [%]"""
    line, has = formula.stages[s].lines[n], reckoned.stages[s].lines[n].percent
    if percent > has + NEXT_TO_NOTHING:
        raise CannotChange(
            f"That takes {percent:.4g} % {line.name}, and {formula.stages[s].name or 'the dough'} has {has:.4g} %.",
            at(s, n, "percent"),
        )
    share = min(1.0, percent / has) if has else 0.0
    part = _scaled(line, share).model_copy(update={"note": "", "written": "", "held_back": 0.0, "parts": 1, "key": ""})
    left = _scaled(line, 1 - share)
    return with_line(formula, s, n, weight_g=left.weight_g, percent=left.percent, band=left.band), part


def _liquid(formula: Formula, reckoned: Reckoned, s: int, wanted: float, name: str | None) -> int:
    """Which liquid line of a stage gives so much: water where there is enough of it, else the largest. [%]"""
    liquids = _in_stage(formula, reckoned, s, Role.LIQUID, name)
    if not liquids:
        what = name or "liquid"
        raise CannotChange(f"There is no {what} in {formula.stages[s].name or 'the dough'} to take.", ("stages", s))
    for percent, n in liquids:
        if formula.stages[s].lines[-n].name.casefold() == "water" and percent >= wanted - NEXT_TO_NOTHING:
            return -n
    return -liquids[0][1]


def _yeast(
    formula: Formula, reckoned: Reckoned, s: int, pantry: Pantry, practice: Practice
) -> tuple[int, float]:
    """The largest line of yeast in a stage, and what one gram of it is worth in instant yeast. Neither a starter nor baking
    powder ferments a stage."""
    for _, n in _in_stage(formula, reckoned, s, Role.LEAVEN, None):
        line = formula.stages[s].lines[-n]
        known = pantry.find(line.name)
        if line.hydration is None and known and (worth := practice.as_instant(known.name)):
            return -n, worth
    raise CannotChange("There is no yeast in the dough to take.", ("stages", s))


def move_in(
    formula: Formula, new: NewStage, pantry: Pantry | None = None, practice: Practice | None = None
) -> Formula:
    """Make a stage of part of the dough's flour, liquid and yeast, and of its salt where such a stage has it. The whole formula
    stays as it is.

    `pantry` and `practice` tell what is yeast, and what its form is worth; the shipped ones where not given. A line that goes
    into it whole stays in the dough at nothing, so that it finds its place again. Raises `CannotChange` where the dough has not
    that much, and what `reckon` raises.
    """
    reckoned, s = reckon(formula), main_stage(formula)
    lines: list[Line] = []
    flours = _in_stage(formula, reckoned, s, Role.FLOUR, new.flour)
    if not flours:
        raise CannotChange("There is no flour in the dough to take.", ("stages", max(s, 0)))
    whole = formula
    whole, part = _taken(whole, reckoned, s, -flours[0][1], new.flour_percent)
    lines.append(part)
    if liquid := new.flour_percent * new.hydration / 100:
        n = _liquid(formula, reckoned, s, liquid, new.liquid)
        whole, part = _taken(whole, reckoned, s, n, liquid)
        lines.append(part)
    if yeast := new.flour_percent * new.yeast_percent / 100:
        n, worth = _yeast(formula, reckoned, s, pantry or pantry_with(()), practice or Practice())
        whole, part = _taken(whole, reckoned, s, n, yeast / worth)
        lines.append(part)
    if kinds()[new.kind].salt and (salts := _in_stage(formula, reckoned, s, Role.SALT, None)) and salts[0][0]:
        percent, n = salts[0]
        whole, part = _taken(whole, reckoned, s, -n, percent * new.flour_percent / 100)
        lines.append(part)
    label = kinds()[new.kind].label
    stage = Stage(name=new.name or label[:1].upper() + label[1:], kind=new.kind, lines=tuple(lines))
    return whole.model_copy(update={"stages": (*whole.stages[:s], stage, *whole.stages[s:])})


def _merged(line: Line, part: Line, percents: tuple[float, float]) -> Line:
    """A line with a part put back to it, in the way that the line is given; `percents` are both as reckoned."""
    if line.weight_g is not None and part.weight_g is not None:
        return line.model_copy(update={"weight_g": _tidy(line.weight_g + part.weight_g), "band": _both(line, part)})
    if line.percent is not None and part.percent is not None:
        return line.model_copy(update={"percent": _tidy(line.percent + part.percent), "band": None})
    if line.weight_g and percents[0]:
        grams = line.weight_g * (percents[0] + percents[1]) / percents[0]
        return line.model_copy(update={"weight_g": _tidy(grams), "band": None})
    if line.percent is None:  # it was open, or at nothing: it is given in the way of the part
        return line.model_copy(update={"weight_g": part.weight_g, "percent": part.percent, "band": part.band})
    return line.model_copy(update={"percent": _tidy(percents[0] + percents[1]), "band": None})


def _both(line: Line, part: Line) -> Band | None:
    """How far off both together may be; what has no band of its own is sure."""
    if line.band is None and part.band is None:
        return None
    bands = [x.band or Band.of(*3 * (x.weight_g or 0.0,)) for x in (line, part)]
    return bands[0].plus(bands[1])


def _tidy(number: float) -> float:
    """Without what floating point added: 80.00000000000001 is 80."""
    return round(number, 9)


def move_out(formula: Formula, s: int) -> Formula:
    """Put every line of a stage back into what it goes into, and take the stage away.

    A line joins the one of its name and role there, else it comes behind the others. Of a stage kept back in part, what
    is kept is let go. Raises `CannotChange` where it is the dough itself, and what `reckon` raises.
    """
    flows, reckoned = flow(formula), reckon(formula)
    if not 0 <= s < len(formula.stages):
        raise CannotChange("There is no such stage.", ("stages", s))
    out = flows.out_of(s)
    targets = {part.target: part.share for part in out} or {flows.main: 1.0}
    if s in targets:
        raise CannotChange("This is the dough itself: there is nothing to put it back into.", ("stages", s))
    gone = formula.stages[s]
    whole = formula
    for target, share in targets.items():
        lines = list(whole.stages[target].lines)
        percents = [figures.percent for figures in reckoned.stages[target].lines]
        for n, line in enumerate(gone.lines):
            brought = reckoned.stages[s].lines[n].percent * share
            part = _scaled(line, share)
            same = [
                m for m, other in enumerate(lines)
                if (other.name.casefold(), other.role, other.hydration) == (line.name.casefold(), line.role, line.hydration)
            ]  # fmt: skip
            if not same:
                lines.append(part)
                percents.append(brought)
                continue
            m = same[0]
            lines[m] = _merged(lines[m], part, (percents[m], brought))
            percents[m] += brought
        whole = with_stage(whole, target, lines=tuple(lines))
    # What went into the stage that is gone goes on to where that went.
    for coming in flows.into(s):
        feeds = [told for told in whole.stages[coming.source].feeds if told.into != gone.key]
        for target, share in targets.items():
            whole, key = _keyed(whole, target)
            feeds.append(Feed(into=key, share=coming.share * share))
        whole = with_stage(whole, coming.source, feeds=_joined(feeds))
    stages = (*whole.stages[:s], *whole.stages[s + 1 :])
    return whole.model_copy(update={"stages": stages})


def _joined(feeds: list[Feed]) -> tuple[Feed, ...]:
    shares: dict[str, float] = {}
    for told in feeds:
        shares[told.into] = min(1.0, shares.get(told.into, 0.0) + told.share)
    return tuple(Feed(into=key, share=share) for key, share in shares.items())


def straight(formula: Formula) -> Formula:
    """The same whole formula as one straight dough: every stage that goes into another is put back."""
    while (found := next((part.source for part in reversed(flow(formula).parts)), None)) is not None:
        formula = move_out(formula, found)
    return formula


def _keyed(formula: Formula, s: int) -> tuple[Formula, str]:
    """A stage with a key that feeds can call it by, and the key."""
    if formula.stages[s].key:
        return formula, formula.stages[s].key
    taken = {stage.key for stage in formula.stages}
    key = next(key for key in (f"stage {n}" for n in range(1, len(taken) + 2)) if key not in taken)
    return with_stage(formula, s, key=key), key


def feed(formula: Formula, source: int, target: int, share: float | None) -> Formula:
    """Let a share of a stage go into another, None all that goes nowhere yet; with a share of 0 it goes there no more.

    Other ways that were told stay as they are. Flours in percent are made up to 100 again over what reaches the dough.
    Raises `StageLoop` or `FedTwice` where that cannot be, and `CannotChange` for a stage that is not there.
    """
    if not (0 <= source < len(formula.stages) and 0 <= target < len(formula.stages)):
        raise CannotChange("There is no such stage.", ("stages", max(source, target)))
    formula, key = _keyed(formula, target)
    feeds = [told for told in formula.stages[source].feeds if told.into != key]
    if share is None:
        left = 1 - sum(told.share for told in feeds)
        share = left if left > NEXT_TO_NOTHING else 1.0
    if share > 0:
        feeds.append(Feed(into=key, share=share))
    return with_flour_made_up(with_stage(formula, source, feeds=tuple(feeds)))


def keep_back(formula: Formula, s: int, kept_g: float) -> Formula:
    """Keep so much of a stage as seed for next time; the rest goes where it goes now. [g]

    Flours in percent are made up to 100 again over what reaches the dough. Raises `CannotChange` where there is not that
    much, and what `reckon` raises.
    """
    reckoned, flows = reckon(formula), flow(formula)
    if not 0 <= s < len(formula.stages) or not flows.out_of(s):
        raise CannotChange("Only a stage that goes into another can be kept back in part.", ("stages", s))
    made = reckoned.stages[s].bowl_g - reckoned.stages[s].boiled_off_g
    if not 0 <= kept_g < made:
        raise CannotChange(f"It makes {made:.4g} g, so {kept_g:.4g} g of it cannot be kept.", ("stages", s))
    told = sum(part.share for part in flows.out_of(s))
    feeds = []
    for part in flows.out_of(s):
        formula, key = _keyed(formula, part.target)
        feeds.append(Feed(into=key, share=part.share / told * (1 - kept_g / made)))
    return with_flour_made_up(with_stage(formula, s, feeds=tuple(feeds)))


def cooked(formula: Formula, s: int, cooked_g: float) -> Formula:
    """Take down what a cooked stage weighs on the scale: the water that went off as steam is made up where it goes. [g]

    Raises `CannotChange` where it weighs more than went in, or next to nothing, and what `reckon` raises.
    """
    reckoned = reckon(formula)
    if not 0 <= s < len(formula.stages) or not (raw := reckoned.stages[s].bowl_g):
        raise CannotChange("There is nothing in this stage to weigh.", ("stages", s))
    if cooked_g > raw * (1 + 1e-9):
        raise CannotChange(f"{raw:.4g} g went in, so {cooked_g:.4g} g cannot come out. Was the pot weighed with it?", ("stages", s, "boiled_off"))
    water = sum(
        figures.weight_g for line, figures in zip(formula.stages[s].lines, reckoned.stages[s].lines, strict=True)
        if line.role is Role.LIQUID
    )  # fmt: skip
    lost = max(0.0, raw - cooked_g)
    if lost > min(water, 0.9 * raw):
        raise CannotChange(f"{lost:.4g} g cannot have boiled off: there were {water:.4g} g of liquid.", ("stages", s, "boiled_off"))
    return with_stage(formula, s, boiled_off=lost / raw)
