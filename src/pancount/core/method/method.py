"""A way reckoned whole: every step with its time, what goes in, what heat makes of it, for this count, today."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from pancount.core.base.derived import Derived, Input
from pancount.core.base.models import Frozen
from pancount.core.count.count import Count
from pancount.core.count.learned import Learned
from pancount.core.formula.formula import Formula, Way
from pancount.core.formula.practice import Practice
from pancount.core.formula.stages import main_stage
from pancount.core.formula.ways import in_way, way_number, way_of
from pancount.core.heat.climate import Climate, Today, today
from pancount.core.heat.rising import LONGEST_MIN, Dough
from pancount.core.method.bakes import BakeFigures, LoadTurn, bake_figures, in_turn
from pancount.core.method.batch import Batch, batch_of
from pancount.core.method.bowl import bowl_of
from pancount.core.method.filled import Filled, filled
from pancount.core.method.levers import MOST_LEVERS, Lever, warmth_lever, yeast_lever
from pancount.core.method.rises import (
    USUAL_DOUGH_C,
    CoursePoint,
    Mass,
    RiseFigures,
    Standing,
    Stood,
    around,
    dough_of,
    drawn,
    rise_figures,
    tub_says,
)
from pancount.core.method.timeline import Graph, Strand, When, strands, timeline
from pancount.core.method.uses import GoesIn, Trouble, uses
from pancount.core.method.water import WaterFigures, water_figures
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Pantry

DAY_MIN = 1440


class Touch(Frozen):
    """When hands are needed: from, to. [min from the beginning of the way]"""

    begin: float
    end: float


class StepFigures(Frozen):
    """A step as it comes out. Times from the beginning of the way. [min]"""

    label: str
    begin: float
    end: float
    low_min: float
    usual_min: float
    high_min: float
    by: str
    strand: int
    during: bool
    hands_min: float
    touches: tuple[Touch, ...]
    place: str
    around_c: float | None
    heat_low_c: float | None
    heat_high_c: float | None
    look: str
    if_not: str
    again_min: float
    waits_min: float | None
    lies_min: float
    """How long what is done lies before it is needed."""
    waits_says: str
    caution: str
    goes_in: tuple[GoesIn, ...]


class StrandFigures(Frozen):
    """What some steps work on."""

    kind: str
    spot: int
    name: str
    steps: tuple[int, ...]


class Method(Frozen):
    """A way for a count, today."""

    way: int
    """Which of the formula's."""
    steps: tuple[StepFigures, ...]
    strands: tuple[StrandFigures, ...]
    low_min: float
    usual_min: float
    high_min: float
    """The whole of it: the longest path, at its quickest, usually, at its slowest."""
    hands_min: float
    touches: int
    begins_min: float | None
    ready_min: float | None
    """By the clock, in minutes from the midnight before it begins; None where neither was told."""
    spare_min: float | None
    """Where both were told: what is left over, or lacking, below nothing."""
    troubles: tuple[Trouble, ...]
    water: WaterFigures | None
    rises: tuple[RiseFigures, ...]
    levers: tuple[Lever, ...]
    """Where both were told: what would make it ready when it is to be."""
    course: tuple[CoursePoint, ...]
    """How warm the dough is, from the end of mixing until it goes into the heat; times from the beginning of the way."""
    bakes: tuple[BakeFigures, ...]
    loads: tuple[LoadTurn, ...]
    """Times from the beginning of the way."""
    yeast: float
    """Of this way, as instant. [% of flour]"""
    says: tuple[str, ...]
    figures: dict[str, Derived]


def whole_method(formula: Formula, count: Count, pantry: Pantry, practice: Practice, kit: Kit, climate: Climate, looking_at: int = 0, *, dough_c: float | None = None) -> Method:
    """The way of a formula that a count names, today. Raises what `reckon` raises; pins that fight leave the count as it stands in.

    `dough_c`: how warm the dough really came out of mixing, where it was measured. [°C]
    """
    way, number = way_of(formula, count.way), way_number(formula, count.way)
    formula = in_way(formula, count.way)
    batch = batch_of(formula, count, pantry, practice, kit, looking_at)
    own = today(climate, count.today)
    reckoned = _Reckoning(formula, way, batch, own, pantry, dough_c, count.learned)
    if (fitted := reckoned.fitted(count.today)) is not None:
        reckoned = _Reckoning(formula, fitted, batch, own, pantry, dough_c, count.learned)
    return reckoned.method(number, count.today)


def _run(steps: Sequence[Filled], own: Sequence[int]) -> tuple[int, ...]:
    """Steps that go load by load: from the first of that kind on the dough to the last, with what is done to pieces between."""
    places = [n for n, i in enumerate(own) if steps[i].kind.does == "loads"]
    if not places:
        return ()
    run = tuple(i for i in own[places[0] : places[-1] + 1] if steps[i].on_chain)
    return run if all(steps[i].kind.group == "heat" for i in run) else run[-1:]


@dataclass
class _Times:
    """How long each step takes: at its quickest, usually, at its slowest. [min]"""

    low: list[float]
    usual: list[float]
    high: list[float]


class _Reckoning:
    """One way's figures as they come out of each other: the bowl, its water, the rises, the bakes, and so when each step is."""

    def __init__(self, formula: Formula, way: Way, batch: Batch, climate: Climate, pantry: Pantry, dough_c: float | None, learned: tuple[Learned, ...]) -> None:
        self.formula, self.way, self.batch, self.climate, self.dough_c = formula, way, batch, climate, dough_c
        self.learned = learned
        self.steps = tuple(filled(step, batch.pieces, learned, way.key) for step in way.steps)
        self.goes_in, self.troubles = uses(formula, way.steps, batch.weights)
        self.threads = strands(formula, self.steps)
        self.graph = Graph(formula, self.steps, self.threads)
        main = main_stage(formula)
        self.own = next((thread.steps for thread in self.threads if thread.kind == "stage" and thread.spot == main), ())
        self.has = dough_of(batch.dough)
        self.bowl = bowl_of(formula, way, self.steps, self.goes_in, self.threads, batch.weights, climate, pantry)
        self.water, self.figures = water_figures(self.bowl, self._wanted_c(), climate)
        self.run = _run(self.steps, self.own)
        self.turns: tuple[LoadTurn, ...] = ()

    def _wanted_c(self) -> float:
        """How warm the dough should come out of mixing: as the way says, else as its first rise is told for."""
        if self.way.dough_c is not None:
            return self.way.dough_c
        first = next((self.steps[i] for i in self.own if self.steps[i].kind.does == "rises"), None)
        return first.heat.middle_c if first and first.heat and first.place != "fridge" else USUAL_DOUGH_C

    def _standing(self, thread: Strand) -> Standing:
        """A stage, or the dough once it is mixed, as it stands."""
        if thread.steps == self.own:
            after = tuple(i for i in self.own if i > self.bowl.last)
            begins = self.dough_c if self.dough_c is not None else self.water.reached_c if self.water else self.climate.room_c
            return Standing(self.steps, after, begins, self.climate, self.batch.mass, self.has, self._own_rises)
        grams = self.batch.weights.stages[thread.spot]
        return Standing(self.steps, thread.steps, self.climate.room_c, self.climate, Mass(grams, grams), self.has, self._own_rises)

    @cached_property
    def _own_rises(self) -> dict[str, Learned]:
        """What the kitchen learned of this way's rises, by kind of step."""
        return {one.of: one for one in self.learned if one.figure == "rise" and one.way == self.way.key}

    @cached_property
    def dough(self) -> Standing:
        """The dough itself, once it is mixed."""
        return self._standing(Strand("stage", main_stage(self.formula), "", self.own))

    @cached_property
    def stood(self) -> dict[int, Stood]:
        """Every step that a stage or the dough goes through, as it is today."""
        standing = [self._standing(thread) for thread in self.threads if thread.kind == "stage"]
        return {one.step: one for some in standing for one in some.through(self.has)}

    @cached_property
    def bakes(self) -> tuple[tuple[BakeFigures, Derived], ...]:
        """Bakes for this piece, with their workings."""
        enriched = self.batch.dough.richness.key != "lean"
        return tuple(
            bake_figures(i, one, self.batch.piece, self.climate, enriched=enriched)
            for i, one in enumerate(self.steps)
            if one.kind.key in ("bake", "griddle")
        )

    @cached_property
    def times(self) -> _Times:
        """How long each step takes today; of what goes by loads, all of it at the last step, and none at those before it."""
        found = _Times(*([getattr(one.lasts, name) for one in self.steps] for name in ("low_min", "usual_min", "high_min")))
        for i, stood in self.stood.items():
            if stood.rise is not None:
                found.usual[i] = stood.minutes
                found.low[i] = stood.minutes if stood.rise.look_min is None else min(stood.rise.look_min, stood.minutes)
                found.high[i] = stood.minutes if stood.rise.ready_by_min is None else stood.rise.ready_by_min
        for bake, _ in self.bakes:
            found.low[bake.step], found.usual[bake.step], found.high[bake.step] = bake.look_min, bake.usual_min, bake.high_min
        for each in (found.low, found.high, found.usual) if self.run else ():
            self.turns = in_turn(self.steps, self.run, {i: each[i] for i in self.run}, self.batch.turns, self.batch.pieces)
            for i in self.run:
                each[i] = 0.0
            each[self.run[-1]] = max((turn.end for turn in self.turns), default=0.0)
        for i, one in enumerate(self.steps):
            if one.step.during:
                found.low[i] = found.usual[i] = found.high[i] = 0.0
        return found

    def fitted(self, now: Today) -> Way | None:
        """The way with its chills as long, within what is told of them, as has it ready on time; None where there is nothing to fit."""
        left = by_the_clock(self.graph.longest(self.times.usual), now)[2] or 0.0
        steps = list(self.way.steps)
        for i in self.own:
            lasts = self.steps[i].lasts
            if self.steps[i].kind.does == "cold" and (usual := min(max(lasts.usual_min + left, lasts.low_min), lasts.high_min)) != lasts.usual_min:
                left -= usual - lasts.usual_min
                steps[i] = steps[i].model_copy(update={"lasts": lasts.model_copy(update={"usual_min": usual})})
        return None if steps == list(self.way.steps) else self.way.model_copy(update={"steps": tuple(steps)})

    def _whole_if(self, yeast: float | None = None, warmth: Mapping[int, float] | None = None) -> float:
        """How long all of it would take with another dose, or with a step in another warmth. [min]"""
        minutes = list(self.times.usual)
        now = self.has if yeast is None else Dough(yeast, self.has.salt, self.has.sugar)
        for one in self.dough.through(now, warmth):
            if one.rise is not None:
                minutes[one.step] = LONGEST_MIN if one.rise.usual_min is None else one.minutes
        return self.graph.longest(minutes)

    def _levers(self, available_min: float) -> tuple[Lever, ...]:
        """What of the yeast, or of the warmth of one rise, would make it last just so long."""
        rises = [one for i in self.dough.own if (one := self.stood.get(i)) is not None and one.rise is not None]
        if not rises:
            return ()
        found = [yeast_lever(lambda dose: self._whole_if(yeast=dose) - available_min, self.has.yeast)]
        for one in rises[:MOST_LEVERS]:
            if self.steps[one.step].place != "fridge":
                late = self._late_by_warmth(one.step, available_min)
                found.append(warmth_lever(late, one.step, one.course.stays[-1].around_c))
        return tuple(found)

    def _late_by_warmth(self, step: int, available_min: float) -> Callable[[float], float]:
        return lambda temp_c: self._whole_if(warmth={step: temp_c}) - available_min

    def method(self, number: int, now: Today) -> Method:
        """All of it."""
        times, graph = self.times, self.graph
        placed = list(timeline(self.steps, self.threads, graph, times.usual))
        whole = graph.longest(times.usual)
        loads = self._loads_placed(placed)
        begins, ready, spare = by_the_clock(whole, now)
        made = tuple(self._step(i, one, placed[i]) for i, one in enumerate(self.steps))
        rises = [rise_figures(one, self.steps[i], self.climate, self.has) for i, one in sorted(self.stood.items()) if one.rise is not None]
        says = [tub_says(self.batch.mass.dough_g, self.climate.tub_ml) if any(one.step in self.own for one, _ in rises) else ""]
        figures = self.figures | {f"rise.{one.step}": working for one, working in rises}
        figures |= {f"bake.{one.step}": working for one, working in self.bakes} | {"whole": self._path(whole)}
        return Method(
            way=number,
            steps=made,
            strands=tuple(StrandFigures(kind=one.kind, spot=one.spot, name=one.name, steps=one.steps) for one in self.threads),
            low_min=graph.longest(times.low),
            usual_min=whole,
            high_min=graph.longest(times.high),
            hands_min=sum(one.hands_min for one in made),
            touches=sum(len(one.touches) for one in made),
            begins_min=begins,
            ready_min=ready,
            spare_min=spare,
            troubles=self.troubles,
            water=self.water,
            rises=tuple(one for one, _ in rises),
            levers=() if spare is None else self._levers(whole + spare),
            course=self._course(placed),
            bakes=tuple(one for one, _ in self.bakes),
            loads=loads,
            yeast=self.has.yeast,
            says=tuple(filter(None, says)),
            figures=figures,
        )

    def _course(self, placed: Sequence[When]) -> tuple[CoursePoint, ...]:
        """How warm the dough is, step after step, until it goes into the heat."""
        found: list[CoursePoint] = []
        for i in self.dough.own:
            one = self.stood.get(i)
            if self.steps[i].kind.group == "heat":
                break
            if one is not None and one.minutes > 0:
                begin = placed[i].begin
                found += [point.model_copy(update={"minute": point.minute + begin}) for point in drawn(one.course, one.minutes, 12)]
        return tuple(found)

    def _loads_placed(self, placed: list[When]) -> tuple[LoadTurn, ...]:
        """Loads from the beginning of the way; the steps that go by loads take their times from them."""
        if not self.run:
            return ()
        last = placed[self.run[-1]]
        loads = tuple(turn.model_copy(update={"begin": turn.begin + last.begin, "end": turn.end + last.begin}) for turn in self.turns)
        for i in self.run:
            own = [turn for turn in loads if turn.step == i]
            if own:
                one, waits = self.steps[i], last.waits if i == self.run[-1] else 0.0
                spans = ((turn.begin, turn.end if one.hands == "all" else turn.begin + one.touch_min) for turn in own)
                placed[i] = When(own[0].begin, own[-1].end, placed[i].strand, waits, tuple(spans))
        return loads

    def _path(self, whole: float) -> Derived:
        """The whole as the sum of its longest path."""
        path = (i for i in self.graph.longest_path(self.times.usual) if self.times.usual[i] > 0)
        inputs = tuple(Input(f"s{i}", self.steps[i].kind.label, self.times.usual[i], "min") for i in path)
        return Derived(
            "The whole of it", whole, "min", "The longest path from the first step to the last; what is made beside it fits in between.",
            " + ".join(f"{{{one.name}}}" for one in inputs) or "0", inputs,
        )  # fmt: skip

    def _step(self, i: int, one: Filled, when: When) -> StepFigures:
        minutes, times = when.end - when.begin, self.times
        by_loads, by_hand = i in self.run, one.kind.place == "mixer" and one.place != "mixer"
        lies = when.waits > (one.waits_min or 0) + 0.5 and one.waits_min is not None
        return StepFigures(
            label=one.kind.label,
            begin=when.begin,
            end=when.end,
            low_min=minutes if by_loads else times.low[i],
            usual_min=minutes if by_loads else times.usual[i],
            high_min=minutes if by_loads else times.high[i],
            by=one.by,
            strand=when.strand,
            during=one.step.during,
            hands_min=sum(end - begin for begin, end in when.touches),
            touches=tuple(Touch(begin=begin, end=end) for begin, end in when.touches),
            place=one.place,
            around_c=around(one, self.climate) if one.kind.does in ("rises", "cold", "warms") else None,
            heat_low_c=one.heat.low_c if one.heat else None,
            heat_high_c=one.heat.high_c if one.heat else None,
            look=one.look,
            if_not=one.if_not,
            again_min=one.again_min,
            waits_min=one.waits_min,
            lies_min=when.waits,
            waits_says=f"It lies {when.waits:.0f} min, and bears {one.waits_min:.0f}: {one.kind.waits_cost or 'it suffers'}." if lies else "",
            caution=" ".join(filter(None, ("" if by_hand else one.kind.caution, one.step.caution))),
            goes_in=self.goes_in[i],
        )


def by_the_clock(whole: float, now: Today) -> tuple[float | None, float | None, float | None]:
    """When it begins and is ready, and what is to spare where both were told. [min from the midnight before it begins]

    >>> by_the_clock(150, Today(ready_min=420)), by_the_clock(600, Today(begins_min=1260, ready_min=420))
    ((270.0, 420.0, None), (1260.0, 1860.0, 0.0))
    """
    begins, ready = now.begins_min, now.ready_min
    if begins is not None and ready is not None:
        while ready < begins:
            ready += DAY_MIN
        return begins, ready, ready - begins - whole
    if begins is not None:
        return begins, begins + whole, None
    if ready is None:
        return None, None, None
    days = max(0, -int((ready - whole) // DAY_MIN))
    return ready - whole + days * DAY_MIN, ready + days * DAY_MIN, None
