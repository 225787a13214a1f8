"""The whole formula in one column: each ingredient once, over all stages, and what a change of it does to the lines."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base.errors import CannotChange
from pancount.core.base.models import Frozen, Grams, Name
from pancount.core.formula.formula import Formula, Spot, at, each_line, line_at, with_line
from pancount.core.formula.reckon import Reckoned, School, percent_of, reckon, weight_of
from pancount.core.pantry.role import Role


@dataclass(frozen=True, slots=True)
class RowPart:
    """What one line brings to a row: what reaches the dough of it."""

    stage: int
    line: int
    weight_g: float
    shown_percent: float


@dataclass(frozen=True, slots=True)
class Row:
    """An ingredient of the whole formula."""

    name: str
    role: Role | None
    given: Literal["weight", "percent", "open"]
    """How its lines are given; `weight` where any of them is."""
    weight_g: float
    percent: float
    shown_percent: float
    parts: tuple[RowPart, ...]


class RowChange(Frozen):
    """The wanted total of an ingredient: grams, or percent as this kitchen counts."""

    name: Name
    role: Role | None
    weight_g: Grams | None = None
    percent: Annotated[float, Field(ge=0, le=100_000)] | None = None


def whole_rows(formula: Formula, reckoned: Reckoned) -> tuple[Row, ...]:
    """The whole formula, ingredient by ingredient: flour first, the rest in the order of the dough's own lines.

    Weights are what reaches the dough, so they add up to it. Lines go together by name and role.
    """
    found: dict[tuple[str, Role | None], list[tuple[RowPart, str, str]]] = {}
    order = sorted(range(len(formula.stages)), key=lambda s: (s != reckoned.main, s))
    for s in order:
        for n, line in enumerate(formula.stages[s].lines):
            if line.blank:
                continue
            figures, reach = reckoned.stages[s].lines[n], reckoned.stages[s].reach
            part = RowPart(
                stage=s, line=n, weight_g=figures.weight_g * reach, shown_percent=figures.shown_percent * reach
            )
            found.setdefault((line.name.casefold(), line.role), []).append((part, line.name, figures.given))
    made = []
    for (_, role), parts in found.items():
        weight_g = sum(part.weight_g for part, _, _ in parts)
        ways = {given for _, _, given in parts}
        made.append(
            Row(
                name=parts[0][1],
                role=role,
                given="weight" if "weight" in ways else "percent" if "percent" in ways else "open",
                weight_g=weight_g,
                percent=percent_of(weight_g, reckoned.flour_g),
                shown_percent=percent_of(weight_g, reckoned.base_g),
                parts=tuple(sorted((part for part, _, _ in parts), key=lambda part: (part.stage, part.line))),
            )
        )
    return tuple(sorted(made, key=lambda row: row.role is not Role.FLOUR))


def change_row(formula: Formula, change: RowChange, school: School) -> Formula:
    """The formula with an ingredient's total as wanted: the dough's own line takes up the difference, the stages stay.

    Where it stands in no line of the dough itself, the last line of it does. Raises `CannotChange` where that line
    would have to be less than nothing, or there is none, and what `reckon` raises.
    """
    reckoned = reckon(formula, school)
    lines = [
        (s == reckoned.main, s, n)
        for s, n, line in each_line(formula)
        if (line.name.casefold(), line.role) == (change.name.casefold(), change.role)
    ]
    if not lines:
        raise CannotChange(f"There is no {change.name or 'such line'} in the formula any more.")
    if (change.weight_g is None) == (change.percent is None):
        raise CannotChange("Give the weight or the percent, not both: the other follows.")
    _, s, n = max(lines)
    reach = reckoned.stages[s].reach
    others = sum(
        reckoned.stages[t].lines[m].weight_g * reckoned.stages[t].reach for _, t, m in lines if (t, m) != (s, n)
    )
    wanted = change.weight_g if change.weight_g is not None else weight_of(change.percent or 0.0, reckoned.base_g)
    own = (wanted - others) / reach
    if own < -1e-9 * max(wanted, others):
        raise CannotChange(
            f"{percent_of(others, reckoned.base_g):.4g} % {change.name} stands in other stages, so all of it cannot be "
            f"{percent_of(wanted, reckoned.base_g):.4g} %. Change it there.",
            at(s, n),
        )
    own = max(0.0, own)
    if change.weight_g is not None:
        return with_line(formula, s, n, weight_g=own, percent=None, band=None)
    formula = with_line(formula, s, n, percent=percent_of(own, reckoned.flour_g), weight_g=None, band=None)
    if change.role is Role.FLOUR and reckoned.flour_given == "percent":
        return _room_made(formula, reckoned, change.name, wanted - others - reckoned.stages[s].lines[n].weight_g * reach)
    return formula


def _room_made(formula: Formula, reckoned: Reckoned, name: str, more_g: float) -> Formula:
    """Flours stay 100 % together: the largest other one gives what one of them took. [g]"""
    others = [
        (figures.weight_g * stage.reach, s, n)
        for s, stage in enumerate(reckoned.stages)
        for n, figures in enumerate(stage.lines)
        if (line := formula.stages[s].lines[n]).role is Role.FLOUR and line.name.casefold() != name.casefold()
    ]
    if not others:
        raise CannotChange(f"{name} is the only flour, so it is the 100 %.")
    largest, s, n = max(others)
    if largest < more_g:
        raise CannotChange(f"{formula.stages[s].lines[n].name} has not that much to give. Change it first.", at(s, n))
    left = (largest - more_g) / reckoned.stages[s].reach
    return with_line(formula, s, n, percent=percent_of(left, reckoned.flour_g), weight_g=None, band=None)


class ShownPercent(Frozen):
    """A percentage of one line, as a kitchen shows it that counts a starter apart."""

    stage: Spot
    line: Spot
    percent: Annotated[float, Field(ge=0, le=100_000)]


def set_shown_percent(formula: Formula, change: ShownPercent, school: School) -> Formula:
    """The formula with a line at a percentage of the flour that counts as 100 % in this kitchen.

    With the starter apart, that flour stays, and every line given in percent keeps its weight; so does the batch.
    Raises `CannotChange` for a line that is not there, and what `reckon` raises.
    """
    s, n = change.stage, change.line
    line_at(formula, s, n)
    if school == "joined":
        return with_line(formula, s, n, percent=change.percent, weight_g=None, band=None)
    before = reckon(formula, school)
    weight_g = weight_of(change.percent, before.base_g)
    # All in weights first; then those given in percent are given so again, over the flour as it is then.
    in_percent = [(t, m) for t, m, line in each_line(formula) if line.percent is not None or (t, m) == (s, n)]
    now = formula
    for t, m in in_percent:
        now = with_line(now, t, m, weight_g=before.stages[t].lines[m].weight_g, percent=None)
    now = with_line(now, s, n, weight_g=weight_g)
    after = reckon(now, school)
    for t, m in in_percent:
        now = with_line(now, t, m, percent=after.stages[t].lines[m].percent, weight_g=None, band=None)
    return now.model_copy(update={"flour_g": after.flour_g})
