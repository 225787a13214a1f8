"""A way cut into what hangs together and what gives: chunks of steps at fixed times from each other, and the rises, rests and waits between them."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from pancount.core.count.learned import Learned
from pancount.core.count.loads import Turns
from pancount.core.formula.formula import Formula
from pancount.core.formula.stages import main_stage
from pancount.core.formula.ways import way_of
from pancount.core.method.filled import Filled, filled
from pancount.core.method.method import Method, StepFigures
from pancount.core.method.timeline import Graph, Strand, strands

ELASTIC_MIN = 10.0
"""What may be this much longer or shorter gives; anything less is as long as usual. [min]"""
MOVE_MIN = 2.0
"""Putting a dough somewhere else. Common practice, no source. [min]"""
OUT_MIN = 1.0
"""Taking a load out. Common practice, no source. [min]"""
LIES_MIN = 720.0
"""What is made apart, or has cooled, may lie so long where nothing says how long it bears. Common practice, no source. [min]"""
LIES_WELL_MIN = 120.0
"""And so long of that is as good as at once. Common practice, no source. [min]"""
CLEAN_MIN = 5.0
"""A mixer is rinsed before the next dough. Common practice, no source. [min]"""
FUEL_MIN = 10.0
"""An oven, bath or griddle may be hot so long before it is needed, and nobody minds. Common practice, no source. [min]"""


@dataclass(frozen=True, slots=True)
class Part:
    """A step, or one load of it, in its chunk: from when to when, and when it needs hands. [min from the chunk's beginning]"""

    step: int
    load: int | None
    pieces: int
    begin: float
    end: float
    hands: tuple[tuple[float, float], ...]


@dataclass(slots=True)
class Chunk:
    """What hangs together by fixed times."""

    parts: list[Part] = field(default_factory=list)
    length: float = 0.0

    def add(self, part: Part) -> None:
        """One more part; the chunk lasts until the last of them ends."""
        self.parts.append(part)
        self.length = max(self.length, part.end)


@dataclass(slots=True)
class Join:
    """What gives between two chunks: a rise, a rest, a wait. Times are those of the gap itself. [min]"""

    before: int
    after: int
    from_min: float
    """Where in the chunk before it begins."""
    to_min: float
    """Where in the chunk after it must be over."""
    low: float
    usual: float
    high: float
    bears: float
    """The longest it may be."""
    steps: tuple[int, ...]
    """What it is; empty for what only waits."""
    place: str
    anyhow: bool
    """Whether all of its range is as good: a chill, a soak."""
    end_touch: float = 0.0


@dataclass(frozen=True)
class Cut:
    """A way, cut. `ready_min` is when it is ready, from the beginning of the last chunk."""

    chunks: tuple[Chunk, ...]
    joins: tuple[Join, ...]
    root: int
    ready_min: float
    tail: int | None
    """The step that makes it ready after all hands are done: cooling."""
    figures: tuple[StepFigures, ...]
    steps: tuple[Filled, ...]
    turns: tuple[Turns, ...]
    pieces: int

    def loads_after(self, join: Join) -> tuple[float, ...]:
        """By how much later each load goes in of what follows a rise; nothing where it is shaped first, since that is done as they go in. [min]"""
        if not join.steps or self.steps[join.steps[-1]].kind.does == "ahead":
            return ()
        parts = self.chunks[join.after].parts
        first = next((n for n, part in enumerate(parts) if part.load is not None), None)
        if first is None or any(self.steps[part.step].kind.group != "heat" and part.step not in join.steps for part in parts[:first]):
            return ()
        begins = {part.load: part.begin for part in reversed(parts) if part.step == parts[first].step}
        return tuple(sorted(begin - min(begins.values()) for begin in begins.values()))

    def edge(self, chunk: int, step: int) -> Literal["begin", "end"]:
        """Which edge of a step a chunk has of it: of a chill, taking it out is the end."""
        return "end" if any(join.after == chunk and step in join.steps and join.end_touch for join in self.joins) else "begin"

    def first_of(self, chunk: int) -> tuple[int, Literal["begin", "end"]]:
        """What a chunk is known by: its first step, and which edge of it that is."""
        step = self.chunks[chunk].parts[0].step
        return step, self.edge(chunk, step)

    def where(self, step: int, edge: str) -> tuple[int, float] | None:
        """In which chunk, and when in it, a step begins or ends; of what gives, where the chunk before or after is. None for what is in none."""
        own = [(n, part) for n, chunk in enumerate(self.chunks) for part in chunk.parts if part.step == step]
        giving = next((join for join in self.joins if step in join.steps), None)
        if giving is not None:
            return (giving.before, giving.from_min) if edge == "begin" else (giving.after, giving.to_min)
        if not own:
            return None
        return (own[0][0], min(part.begin for _, part in own)) if edge == "begin" else (own[-1][0], max(part.end for _, part in own))


def cut_way(formula: Formula, way: str, method: Method, turns: tuple[Turns, ...], pieces: int, learned: tuple[Learned, ...] = ()) -> Cut | None:
    """A formula's way, reckoned, as chunks and joins; `formula` is as the way has it. None where it has no steps of the dough."""
    own = way_of(formula, way)
    steps = tuple(filled(step, pieces, learned, own.key) for step in own.steps)
    return _Cutter(formula, method, steps, turns, pieces).cut()


class _Cutter:
    def __init__(self, formula: Formula, method: Method, steps: tuple[Filled, ...], turns: tuple[Turns, ...], pieces: int) -> None:
        self.method, self.steps, self.turns, self.pieces = method, steps, turns, pieces
        self.threads = strands(formula, steps)
        self.graph = Graph(formula, steps, self.threads)
        main = main_stage(formula)
        self.main = next((n for n, one in enumerate(self.threads) if one.kind == "stage" and one.spot == main), None)
        self.run = {turn.step for turn in method.loads}
        self.rises = {one.step: one for one in method.rises}
        self.chunks: list[Chunk] = []
        self.joins: list[Join] = []
        self.spot: dict[int, tuple[int, float]] = {}
        """Where each step begins: its chunk, and when in it."""

    def cut(self) -> Cut | None:
        """All of it."""
        if self.main is None:
            return None
        tails = [self._strand(thread) for thread in self.threads]
        last = tails[self.main]
        if last is None:
            return None
        root, tail = last
        for n, thread in enumerate(self.threads):
            if n != self.main and (own := tails[n]) is not None:
                self._goes_on(thread, *own, root)
        for i, one in enumerate(self.steps):
            if one.kind.does == "ahead":
                self._ahead(i)
        ready = self.chunks[root].length if tail is None else tail.from_min + tail.usual
        return Cut(
            tuple(self.chunks), tuple(self.joins), root, max(ready, self.chunks[root].length), tail.steps[-1] if tail else None, self.method.steps, self.steps, self.turns, self.pieces
        )

    def _hosted(self, thread: Strand, host: int) -> list[tuple[int, tuple[float, float]]]:
        """Touches of what happens during a step: which step, and when from the host's beginning."""
        own = thread.steps
        found = []
        for i in own[own.index(host) + 1 :]:
            if self.steps[i].on_chain:
                break
            if self.steps[i].step.during:
                begin = self.method.steps[host].begin
                found += [(i, (touch.begin - begin, touch.end - begin)) for touch in self.method.steps[i].touches]
        return found

    def _strand(self, thread: Strand) -> tuple[int, Join | None] | None:
        """Cut what is done to one thing. Its last chunk, and what gives after it; None where nothing is done to it."""
        now: Chunk | None = None
        gap: Join | None = None
        done = False

        def opened() -> Chunk:
            nonlocal gap
            chunk = Chunk()
            self.chunks.append(chunk)
            if gap is not None:
                gap.after = len(self.chunks) - 1
                self.joins.append(gap)
                if gap.end_touch:
                    chunk.add(Part(gap.steps[-1], None, 0, 0.0, gap.end_touch, ((0.0, gap.end_touch),)))
                gap = None
            return chunk

        for i in thread.steps:
            one, figures = self.steps[i], self.method.steps[i]
            if not one.on_chain or (i in self.run and done) or (one.kind.key == "note" and figures.end <= figures.begin):
                continue
            if i in self.run:
                done = True
                now = now or opened()
                self._loads(now)
                continue
            if not self._gives(i):
                now = now or opened()
                self.spot[i] = (self.chunks.index(now), now.length)
                self._whole(now, thread, i)
                continue
            if now is None and gap is not None and one.place == gap.place and one.hands == "none":
                gap = self._longer(gap, i)
                self.spot[i] = (gap.before, gap.from_min)
                continue
            fresh = now is None
            now = now or opened()
            begins = now.length
            self.spot[i] = (self.chunks.index(now), begins)
            if one.hands == "start" or (fresh and not now.parts):
                minutes = min(one.touch_min, figures.usual_min) if one.hands == "start" else MOVE_MIN
                now.add(Part(i, None, 0, begins, begins + minutes, ((begins, begins + minutes),)))
            gap = self._gap(i, self.chunks.index(now), begins)
            for other, (begin, end) in self._hosted(thread, i):
                now.add(Part(other, None, 0, begins + begin, begins + end, ((begins + begin, begins + end),)))
                gap.low = max(gap.low, end)
                gap.usual, gap.high = max(gap.usual, gap.low), max(gap.high, gap.low)
                gap.bears = max(gap.bears, gap.high)
            now = None
        if now is None and gap is None:
            return None
        return (gap.before, gap) if now is None and gap is not None else (self.chunks.index(now or self.chunks[-1]), None)

    def _gives(self, i: int) -> bool:
        one = self.steps[i]
        low, _, _, bears = self._range(i)
        return one.hands in ("none", "start", "end") and bears - low >= ELASTIC_MIN

    def _range(self, i: int) -> tuple[float, float, float, float]:
        """At least, usually, at most, and how long it bears. [min]"""
        one, figures = self.steps[i], self.method.steps[i]
        low, usual, high = figures.low_min, figures.usual_min, figures.high_min
        if one.kind.key in ("cool", "freeze"):
            return low, usual, high, high + LIES_MIN
        bears = high + (one.waits_min or 0.0)
        rise = self.rises.get(i)
        if rise is not None and rise.too_far_min is not None:
            bears = min(bears, max(high, rise.too_far_min))
        return low, usual, high, bears

    def _gap(self, i: int, before: int, from_min: float) -> Join:
        one = self.steps[i]
        low, usual, high, bears = self._range(i)
        anyhow = one.kind.does == "cold" or one.kind.key in ("soak", "autolyse", "cool", "cool_off", "freeze")
        if one.kind.key in ("cool", "freeze"):
            high = bears
        return Join(before, -1, from_min, 0.0, low, usual, high, bears, (i,), one.place, anyhow, one.touch_min if one.hands == "end" else 0.0)

    def _longer(self, gap: Join, i: int) -> Join:
        """Two things in turn in which nobody touches it are one that gives as much as both."""
        low, usual, high, bears = self._range(i)
        gap.low, gap.usual, gap.high, gap.bears = gap.low + low, gap.usual + usual, gap.high + high, gap.high + bears
        gap.steps += (i,)
        return gap

    def _whole(self, chunk: Chunk, thread: Strand, i: int) -> None:
        """A step as long as usual, with what happens during it."""
        figures, begin = self.method.steps[i], chunk.length
        hands = tuple((begin + touch.begin - figures.begin, begin + touch.end - figures.begin) for touch in figures.touches)
        chunk.add(Part(i, None, 0, begin, begin + figures.usual_min, hands))
        for other, (first, last) in self._hosted(thread, i):
            chunk.add(Part(other, None, 0, begin + first, begin + last, ((begin + first, begin + last),)))

    def _loads(self, chunk: Chunk) -> None:
        """All that goes load by load, one load after the other."""
        base, first = chunk.length, min(turn.begin for turn in self.method.loads)
        last = max(turn.end for turn in self.method.loads)
        for turn in self.method.loads:
            one = self.steps[turn.step]
            begin, end = base + turn.begin - first, base + turn.end - first
            if one.hands == "all":
                hands: tuple[tuple[float, float], ...] = ((begin, end),)
            else:
                hands = ((begin, begin + min(one.touch_min or OUT_MIN, end - begin)), (end, end + OUT_MIN))
            if one.hands != "all" and turn.end == last and self._taken_out_by_next(turn.step):
                hands = hands[:1]
            self.spot.setdefault(turn.step, (self.chunks.index(chunk), begin))
            chunk.parts.append(Part(turn.step, turn.load, turn.pieces, begin, end, hands))
        chunk.length = base + last - first

    def _taken_out_by_next(self, step: int) -> bool:
        """Whether what comes next is by hand, and so takes the last load out."""
        after = [j for j in self.graph.after[step] if self.steps[j].on_chain]
        return any(self.steps[j].hands == "all" for j in after)

    def _goes_on(self, thread: Strand, chunk: int, tail: Join | None, root: int) -> None:
        """Join what was made apart to where it goes in."""
        chain = [i for i in thread.steps if self.steps[i].kind.does != "ahead"]
        takers = [j for i in chain for j in self.graph.after[i] if j not in thread.steps and j in self.spot]
        taker = min(takers, key=lambda j: self.method.steps[j].begin, default=None)
        after, to = self.spot[taker] if taker is not None else (root, 0.0)
        if tail is None:
            bears = self.steps[chain[-1]].waits_min
            high = LIES_WELL_MIN if bears is None else bears
            tail = Join(chunk, after, self.chunks[chunk].length, to, 0.0, 0.0, high, LIES_MIN if bears is None else bears, (), "room", True)
        tail.after, tail.to_min = after, to
        self.joins.append(tail)

    def _ahead(self, i: int) -> None:
        """The oven, the bath, the griddle made hot before it is needed."""
        one, figures = self.steps[i], self.method.steps[i]
        user = next((j for j in self.graph.after[i] if j in self.spot), None)
        if user is None:
            return
        touch = one.touch_min or OUT_MIN
        self.chunks.append(Chunk([Part(i, None, 0, 0.0, touch, ((0.0, touch),))], touch))
        after, to = self.spot[user]
        usual = figures.usual_min
        self.spot[i] = (len(self.chunks) - 1, 0.0)
        self.joins.append(Join(len(self.chunks) - 1, after, 0.0, to, usual, usual, usual + FUEL_MIN, usual + (one.waits_min or FUEL_MIN), (i,), one.place, True))


def heats_of(cut: Cut, bakes: Sequence[tuple[int, float | None]]) -> dict[int, float]:
    """How hot the oven is for each step that is in it: as its bake says, else as the step is told. [°C]"""
    told = {step: oven_c for step, oven_c in bakes if oven_c is not None}
    usual = {i: one.heat.middle_c for i, one in enumerate(cut.steps) if one.place == "oven" and one.heat}
    return usual | told
