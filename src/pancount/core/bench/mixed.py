"""The dough as it is really being mixed: every line at what is in, and at what is still meant where nothing is."""

from collections.abc import Mapping
from dataclasses import dataclass

from pancount.core.base.models import Frozen
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.bench.bake import Bake, Scaling, meant_g
from pancount.core.bench.begun import Begun
from pancount.core.bench.events import Added
from pancount.core.bench.plan import Plan, ToWeigh, sources
from pancount.core.formula.formula import Feed, Formula, Line, with_line, with_stage
from pancount.core.formula.gauges import Character, character, gauge_rules
from pancount.core.formula.reckon import reckon
from pancount.core.formula.stages import main_stage
from pancount.core.formula.ways import in_way, way_number, way_of, with_way
from pancount.core.pantry.ingredients import Pantry, pantry_with
from pancount.core.pantry.role import Role

GONE_G = 1e-6
"""Less than this is nothing. [g]"""


class GaugeNow(Frozen):
    """A gauge of the dough as it was meant, and as it is. [% of flour]"""

    key: str
    label: str
    meant: float
    now: float
    low: float | None
    high: float | None
    lies: str


def in_now(line: ToWeigh, bake: Bake, scaling: Scaling | None = None) -> float | None:
    """What counts as in the dough of a line: what was weighed, or what is meant. Of what is held back, what went in. [g]"""
    own = bake.line(line.key)
    if own.held_in_g is not None:
        return own.held_in_g
    if own.g is not None and not own.apart:
        return own.g
    if own.skipped:
        return 0.0
    return meant_g(line, scaling or bake.scaling)


@dataclass(frozen=True)
class Mixing:
    """A formula as a bake really has it, and how much dough that is."""

    formula: Formula
    """In the bake's way; every line that is weighed with its weight over all mixes."""
    by_mix: tuple[float, ...]
    """The dough of each mix. [g]"""

    @property
    def dough_g(self) -> float:
        """All dough, of all mixes. [g]"""
        return sum(self.by_mix)


def mixing(begun: Begun, plan: Plan, bake: Bake, scaling: Scaling | None = None) -> Mixing:
    """The dough of a bake; scaled otherwise where it is asked what would be."""
    number, way = way_number(begun.formula, begun.count.way), way_of(begun.formula, begun.count.way)
    # What the way changes is in the lines now: its steps alone stay.
    formula = with_way(in_way(begun.formula, begun.count.way), number, way.model_copy(update={"changed": (), "stages": None}))
    weights: dict[tuple[int, int], float] = {}
    fed: dict[tuple[int, int], list[float]] = {}
    unit_g = WEIGHT_UNITS[begun.sheet.unit]
    doughs = [float(begun.sheet.printed_total) * unit_g] * begun.sheet.mixes
    for line in plan.lines.values():
        if not line.in_dough or line.meant_g is None:
            continue
        now = in_now(line, bake, scaling) or 0.0
        doughs[line.mix] += now - line.meant_g
        if line.what == "fed":
            both = fed.setdefault((line.stage, line.line), [0.0, 0.0])
            both[0], both[1] = both[0] + now, both[1] + line.meant_g
        else:
            at = (line.stage, line.line)
            weights[at] = weights.get(at, 0.0) + now
    others = list[tuple[str, Role, float]]()
    for event in bake.added:
        assert isinstance(event.what, Added)
        added, own = event.what, plan.lines.get(event.what.line or "")
        mix = own.mix if own else min(added.mix, len(doughs) - 1)
        doughs[mix] = max(0.0, doughs[mix] + added.g)
        if own is not None and own.what in ("line", "held_back"):
            at = (own.stage, own.line)
            weights[at] = max(0.0, weights.get(at, 0.0) + added.g)
        elif added.g > 0:
            others.append((added.name or str(added.role), added.role, added.g))
    for (s, n), weight in weights.items():
        formula = with_line(formula, s, n, weight_g=weight, percent=None, band=None)
    formula = _fed(formula, fed)
    main = main_stage(formula)
    if others and main >= 0:
        extra = tuple(Line(name=name, role=role, weight_g=weight) for name, role, weight in others)
        room = formula.stages[main].lines
        formula = with_stage(formula, main, lines=(*room, *extra))
    return Mixing(formula, tuple(doughs))


def _fed(formula: Formula, fed: Mapping[tuple[int, int], list[float]]) -> Formula:
    """Stages that go in only in part, with the share that really went; of one that goes wholly, what was topped up is water."""
    into = sources(formula)
    for (target, n), (now, meant) in fed.items():
        from_stages = into.get(target, [])
        if n >= len(from_stages) or meant <= GONE_G or abs(now - meant) <= GONE_G:
            continue
        stage = formula.stages[from_stages[n]]
        if stage.feeds:
            key = formula.stages[target].key
            feeds = tuple(Feed(into=one.into, share=min(1.0, max(1e-4, one.share * now / meant))) if one.into == key else one for one in stage.feeds)
            if sum(one.share for one in feeds) <= 1:
                formula = with_stage(formula, from_stages[n], feeds=feeds)
        elif now > meant and stage.boiled_off:
            lines = formula.stages[target].lines
            formula = with_stage(formula, target, lines=(*lines, Line(name="Water", role=Role.LIQUID, weight_g=now - meant)))
    return formula


def known_pantry(begun: Begun) -> Pantry:
    """The pantry as the bake knows it."""
    return pantry_with(begun.own)


def character_of(begun: Begun, formula: Formula) -> Character:
    """What a dough is, in the kitchen that the bake was begun in."""
    return character(formula, reckon(formula, begun.practice.starter), known_pantry(begun), begun.practice)


def gauges_between(meant: Character, now: Character) -> tuple[GaugeNow, ...]:
    """Gauges beside each other, those that bakers aim at."""
    return tuple(
        GaugeNow(key=key, label=rule.label, meant=meant.gauges[key].value, now=now.gauges[key].value, low=now.gauges[key].low, high=now.gauges[key].high, lies=now.gauges[key].lies)
        for key, rule in gauge_rules().items()
        if key in meant.gauges and key in now.gauges and (meant.gauges[key].value or now.gauges[key].value)
    )


def flour_g(begun: Begun, plan: Plan, bake: Bake) -> tuple[float, float]:
    """All flour of a bake, at least and at most: what was weighed is sure, what came from a cup is as sure as its band. [g]"""
    formula = in_way(begun.formula, begun.count.way)
    low = high = 0.0
    for line in plan.lines.values():
        if line.role is not Role.FLOUR or line.what not in ("line", "held_back"):
            continue
        g, own = in_now(line, bake) or 0.0, formula.stages[line.stage].lines[line.line]
        sure = own.band is None or not own.band.usual_g or bake.line(line.key).g is not None
        low += g if sure or own.band is None else g * own.band.low_g / own.band.usual_g
        high += g if sure or own.band is None else g * own.band.high_g / own.band.usual_g
    return low, high


def points_words(g: float, flour: tuple[float, float]) -> str:
    """So much of something as points, percent of all flour; a range where the flour is one.

    >>> points_words(37, (240, 300)), points_words(-10, (500, 500))
    ('12 to 15 points', '2 points')
    """
    low, high = flour
    if low <= 0:
        return ""
    least, most = (f"{100 * abs(g) / own:.{0 if abs(g) / own >= 0.1 else 1}f}" for own in (high, low))
    least, most = (text.removesuffix(".0") for text in (least, most))
    return f"{least} points" if least == most else f"{least} to {most} points"


SHOWN_PERCENT = 0.05
"""A gauge that moves by less does not move. [% of flour]"""


def moved_words(gauges: tuple[GaugeNow, ...]) -> str:
    """Gauges that moved, in words.

    >>> moved_words((GaugeNow(key="salt", label="Salt", meant=2, now=2.6, low=1.8, high=2.2, lies="over"),))
    'salt 2 → 2.6 % (usual is 1.8 to 2.2)'
    """
    found = []
    for one in gauges:
        if abs(one.now - one.meant) < SHOWN_PERCENT or one.key == "protein":
            continue
        usual = f" (usual is {one.low:g} to {one.high:g})" if one.lies in ("under", "over") and one.low is not None and one.high is not None else ""
        found.append(f"{one.label[:1].lower()}{one.label[1:]} {one.meant:.3g} → {one.now:.3g} %{usual}")
    return "; ".join(found)
