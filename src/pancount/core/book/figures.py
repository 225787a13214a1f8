"""The kitchen's own figures: what its bakes say of each, the trade's beside it, which bakes count, and what is used now.

A figure belongs to a formula (its losses, its rises and handwork, by way) or to the kitchen (how evenly one divides, the oven, the mixer, all rises).
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from math import exp, log
from statistics import fmean, geometric_mean
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from pancount.core.base.datafiles import rows
from pancount.core.base.derived import Derived, Input, Unit
from pancount.core.base.models import Frozen, Words
from pancount.core.book.learning import LIKELY_ODD, Learnt, Prior, learnt
from pancount.core.book.observed import Observed
from pancount.core.count.learned import FigureName, Learned, learned_of
from pancount.core.formula.step_kinds import step_kinds
from pancount.core.heat.climate import Climate
from pancount.core.pans.fills import fill_rule
from pancount.core.pans.kit import Kit

Where = Literal["formula", "kitchen"]
FigureKey = Annotated[str, Field(min_length=1, max_length=140, pattern=r"^[^\x00-\x1f]*$")]
"""Figure, what it is of, and in which way: `rise:proof:overnight`."""
OF_A_WAY = ("rise", "minutes")
"""Figures that each way of a formula has its own of."""
POOLED_FROM = 3
"""From so many bakes on a kitchen's own rises stand where the model's did, for a formula of which little is known."""


@dataclass(frozen=True, slots=True)
class Rule:
    """What is learned of a figure, and what the trade says of it."""

    label: str
    unit: str
    by_factor: bool
    where: Where
    trade: float | None
    noise: float
    least: float
    most: float
    source: str
    taken_for: str


@cache
def figure_rules() -> dict[str, Rule]:
    """The figures that are learned, by name."""
    return {
        row["figure"]: Rule(
            row["label"], row["unit"], row["told"] == "factor", row["where"], float(row["trade"]) if row["trade"] else None, float(row["noise"]),
            float(row["least"]), float(row["most"]), row["source"], row["taken_for"],
        )
        for row in rows(__name__, "figures.csv")
    }  # fmt: skip


class BakeSaid(Frozen):
    """A bake and what it says; `left_out`: figures it does not count for, with the reason."""

    bake: UUID
    formula_id: int | None
    name: str
    begun_s: float
    observed: tuple[Observed, ...]
    left_out: dict[str, Words]


class Saying(Frozen):
    """What one bake said of a figure, and whether it counts."""

    bake: UUID
    name: str
    begun_s: float
    value: float
    counts: bool
    odd: float
    """How likely it is an odd one."""
    why: str
    """Why it does not count, or counts little; blank where it does."""


class FigureMoved(Frozen):
    """What the figure was after a bake."""

    begun_s: float
    value: float


class KitchensFigure(Frozen):
    """A figure as the kitchen's bakes have it."""

    key: str
    figure: FigureName
    of: str
    way: str
    way_name: str
    label: str
    unit: str
    by_factor: bool
    where: Where
    taken_for: str
    trade: float
    """What stood in without the book."""
    source: str
    in_use: float
    """What is used now."""
    taken: Learned | None
    usual: float
    low: float
    high: float
    """Where the usual lies, four times in five."""
    sure: float
    strays: float
    """How far a single bake strays, in the figure's unit; of what is told by a factor, as a share."""
    bakes: int
    """How many count."""
    moved: tuple[FigureMoved, ...]
    said: tuple[Saying, ...]
    working: Derived
    says: str


@dataclass(frozen=True, slots=True)
class Known:
    """What a kitchen goes by now: what was taken of the formula that is looked at, of the kitchen, and its settings."""

    formula: tuple[Learned, ...]
    kitchen: tuple[Learned, ...]
    kit: Kit
    climate: Climate
    ways: Mapping[str, str]
    """The names of the formula's ways, by key."""


def figure_key(figure: str, of: str = "", way: str = "") -> str:
    """What a figure is known by.

    >>> figure_key("rise", "proof", "overnight"), figure_key("spread_g")
    ('rise:proof:overnight', 'spread_g::')
    """
    return f"{figure}:{of}:{way}"


def kitchens_figures(said: Sequence[BakeSaid], known: Known) -> tuple[KitchensFigure, ...]:
    """What bakes say of the kitchen's own figures, the oldest first."""
    found = _told(said, lambda seen: seen.model_copy(update={"figure": "rise_all" if seen.figure == "rise" else seen.figure, "of": "", "way": ""}), "kitchen")
    return tuple(_figure(key, own, known, None) for key, own in found.items())


def formulas_figures(said: Sequence[BakeSaid], known: Known, pooled: KitchensFigure | None = None) -> tuple[KitchensFigure, ...]:
    """What bakes of one formula say of it, the oldest first; `pooled`: what the rises of all its other formulas say."""
    return tuple(_figure(key, own, known, pooled) for key, own in _told(said, lambda seen: seen, "formula").items())


def _told(said: Sequence[BakeSaid], named: Callable[[Observed], Observed], where: Where) -> dict[str, list[tuple[BakeSaid, Observed]]]:
    """What was said of each figure: of a bake that says something of it several times, the middle of that, so that each bake counts as one."""
    found: dict[str, list[tuple[BakeSaid, Observed]]] = {}
    for one in said:
        own: dict[str, list[Observed]] = {}
        for seen in map(named, one.observed):
            if figure_rules()[seen.figure].where == where:
                own.setdefault(figure_key(seen.figure, seen.of, seen.way), []).append(seen)
        for key, some in own.items():
            rule, values = figure_rules()[some[0].figure], [seen.value for seen in some]
            middle = geometric_mean(values) if rule.by_factor and min(values) > 0 else fmean(values)
            found.setdefault(key, []).append((one, some[0].model_copy(update={"value": middle})))
    names = list(figure_rules())
    return dict(sorted(found.items(), key=lambda item: names.index(item[0].split(":")[0])))


def possible(figure: str, value: float) -> bool:
    """Whether a figure can be that: what is out of all proportion was mistyped, or timed by another clock."""
    rule = figure_rules()[figure]
    return rule.least <= value <= rule.most


def _figure(key: str, told: Sequence[tuple[BakeSaid, Observed]], known: Known, pooled: KitchensFigure | None) -> KitchensFigure:
    first = told[0][1]
    rule = figure_rules()[first.figure]
    trade, stands = _trade(rule, [seen for _, seen in told], pooled)
    counted = [(one, seen) for one, seen in told if not one.left_out.get(key) and possible(seen.figure, seen.value)]
    values = [log(seen.value) if rule.by_factor else seen.value for _, seen in counted]
    learned = learnt(values, Prior(log(trade) if rule.by_factor else trade, rule.noise))
    back = exp if rule.by_factor else float
    own = learned.figure
    counted = counted[len(counted) - len(learned.odd) :]
    odd = {(one.bake, n): share for n, ((one, _), share) in enumerate(zip(counted, learned.odd, strict=True))}
    said = _said(key, told, counted, odd, rule)
    taken = learned_of(known.formula if rule.where == "formula" else known.kitchen, first.figure, first.of, first.way)
    in_use = taken.value if taken and rule.where == "formula" else _in_use(first.figure, known, trade)
    usual = back(own.usual)
    return KitchensFigure(
        key=key, figure=first.figure, of=first.of, way=first.way, way_name=known.ways.get(first.way, "") if first.figure in OF_A_WAY else "", label=_label(rule, first), unit=rule.unit, by_factor=rule.by_factor,
        where=rule.where, taken_for=rule.taken_for, trade=trade, source=stands, in_use=in_use, taken=taken, usual=usual, low=back(own.low), high=back(own.high),
        sure=own.sure, strays=own.strays, bakes=len(counted), moved=tuple(FigureMoved(begun_s=one.begun_s, value=back(value)) for (one, _), value in zip(counted, learned.moved[1:], strict=True)),
        said=said, working=_working(rule, first, trade, learned, [back(value) for value in values[len(values) - len(counted) :]], back(own.low), back(own.high), usual),
        says=_says(rule, len(counted), trade, back(own.low), back(own.high)),
    )  # fmt: skip


def _trade(rule: Rule, seen: Sequence[Observed], pooled: KitchensFigure | None) -> tuple[float, str]:
    """What stands in without the book, and whose that is."""
    if seen[0].figure == "rise" and pooled is not None and pooled.bakes >= POOLED_FROM:
        return pooled.usual, f"this kitchen’s own, of the rises of its other formulas, from {pooled.bakes} bakes"
    usual = next((one.usual for one in reversed(seen) if one.usual is not None), rule.trade)
    return (rule.least if usual is None else usual), rule.source


def _said(
    key: str, told: Sequence[tuple[BakeSaid, Observed]], counted: Sequence[tuple[BakeSaid, Observed]], odd: Mapping[tuple[UUID, int], float], rule: Rule
) -> tuple[Saying, ...]:
    places = {id(seen): n for n, (_, seen) in enumerate(counted)}
    found = list[Saying]()
    for one, seen in told:
        n = places.get(id(seen))
        share = odd[one.bake, n] if n is not None else 0.0
        reason = one.left_out.get(key, "")
        if reason:
            why = f"Left out: {reason}"
        elif not possible(seen.figure, seen.value):
            why = "This cannot be, so it does not count: was it mistyped?"
        elif n is None:
            why = "Long ago: the last ones count."
        else:
            why = "Far from the others: it hardly counts." if share > LIKELY_ODD else ""
        found.append(Saying(bake=one.bake, name=one.name, begun_s=one.begun_s, value=seen.value, counts=n is not None, odd=share, why=why))
    return tuple(reversed(found))


IN_SETTINGS: dict[str, tuple[Literal["kit", "climate"], str]] = {
    "spread_g": ("kit", "spread_g"),
    "oven_error_c": ("climate", "oven_error_c"),
    "machine_c_min": ("climate", "machine_c_min"),
    "hand_c_min": ("climate", "hand_c_min"),
    "rise_all": ("climate", "rise_factor"),
}
"""Where a kitchen's own figures stand in its settings: taken, they stand there, and are used from there."""


def _in_use(figure: str, known: Known, trade: float) -> float:
    if figure in IN_SETTINGS:
        part, name = IN_SETTINGS[figure]
        return float(getattr(known.kit if part == "kit" else known.climate, name))
    return trade


def _label(rule: Rule, one: Observed) -> str:
    """What a figure is called: by what is baked, or by the step.

    >>> _label(figure_rules()["minutes"], Observed(figure="minutes", of="shape", value=1)), _label(figure_rules()["rise"], Observed(figure="rise", of="rise", value=1))
    ('Shape, each piece', 'First rise, over what the model says')
    """
    if one.figure == "bake_loss":
        return f"{rule.label}: {fill_rule(one.of).label.lower()}"
    kind = step_kinds().get(one.of)
    if kind is None:
        return rule.label
    name = kind.label[:1].upper() + kind.label[1:]
    if one.figure == "rise":
        return f"{name}, over what the model says"
    return f"{name}, each piece" if kind.piece_s else name


UNITS: dict[str, Unit] = {"share": "share", "factor": "count", "min": "min", "g": "g", "celsius": "celsius"}


def _working(rule: Rule, one: Observed, trade: float, learned: Learnt, values: Sequence[float], low: float, high: float, usual: float) -> Derived:
    unit = UNITS[rule.unit]
    weights = [1 - share for share in learned.odd]
    shown = (Input("mean", "Their middle, odd ones hardly counted", fmean(values, weights if sum(weights) else None), unit),) if values else ()
    reads = "The trade’s {trade} counts as three bakes" + (", beside {bakes} of this kitchen, {mean} in the middle but for odd ones" if values else "; no bake counts yet")
    return Derived(
        _label(rule, one), usual, unit,
        "A bake strays as it does; one in ten is taken for odd and hardly counts; one kitchen in five is unlike the trade. Nothing is said about why.",
        f"{reads}: four times in five it lies between {{low}} and {{high}}",
        (Input("trade", "Without the book", trade, unit), Input("bakes", "Bakes that count", len(values), "count"), *shown, Input("low", "At least, four times in five", low, unit), Input("high", "At most", high, unit)),
    )  # fmt: skip


def _says(rule: Rule, bakes: int, trade: float, low: float, high: float) -> str:
    if bakes == 0:
        return "No bake counts for it yet."
    if low <= trade <= high:
        return f"So far {'it is' if bakes == 1 else 'they are'} no different from what stood in."
    return "More than what stood in." if low > trade else "Less than what stood in."


def as_learned(one: KitchensFigure, day: str) -> Learned:
    """A figure as it is taken."""
    return Learned(figure=one.figure, of=one.of, way=one.way, value=round(one.usual, 6), sure=round(one.sure, 6), strays=round(one.strays, 6), bakes=one.bakes, on=day)
