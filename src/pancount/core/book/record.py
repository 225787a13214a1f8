"""A bake as it was meant beside as it was: worked out of what it was begun with, what happened of it and what it came to."""

from collections.abc import Iterable, Sequence
from statistics import fmean, stdev

from pydantic import Field

from pancount.core.base.models import Frozen
from pancount.core.bench.bake import Bake, bake_of, meant_g
from pancount.core.bench.events import Added, Event
from pancount.core.bench.mixed import GaugeNow, flour_g, in_now
from pancount.core.bench.plan import Plan, ToDo, main_strand
from pancount.core.bench.running import MINUTE, TaskNow
from pancount.core.bench.state import BakeNow, Ground, bake_now, called
from pancount.core.book.observed import Observed, observed_of
from pancount.core.book.outcome import Outcome
from pancount.core.count.relations import of
from pancount.core.formula.ways import in_way, way_of
from pancount.core.pantry.role import Role

MOST_NOTES = 60


class LineWas(Frozen):
    """A line, as meant and as it went in, over all mixes. Percent of all flour. [g, %]"""

    of: str
    name: str
    role: str
    beside: bool
    meant_g: float | None
    was_g: float | None
    """None where it was not weighed: it counts as meant."""
    meant_percent: float | None
    was_percent: float | None
    within: bool
    """Whether it is no further from what was meant than its scale's tolerance."""
    says: str


class StepWas(Frozen):
    """Something that was done. Times are seconds since 1970, UTC."""

    key: str
    kind: str
    label: str
    group: str
    planned_s: float
    planned_min: float
    low_min: float
    high_min: float
    began_s: float | None
    done_s: float | None
    status: str
    tries: int
    passed: bool | None
    heat: str

    @property
    def minutes(self) -> float | None:
        """How long it really took; None where that was not told. [min]"""
        return None if self.began_s is None or self.done_s is None else (self.done_s - self.began_s) / MINUTE


class TargetWas(Frozen):
    """What was made: pieces as meant, as they were weighed off, and baked. [g]"""

    name: str
    fill_kind: str
    meant_pieces: int
    meant_piece_g: float
    pieces: int
    piece_g: float
    weighed: tuple[float, ...]
    tolerance_g: float
    """How far off a piece was nothing to speak of."""
    mean_g: float | None
    spread_g: float | None
    least_g: float | None
    most_g: float | None


class Loss(Frozen):
    """A loss, as planned and as it was; a share of what there was before. None where it was not weighed."""

    meant: float
    was: float | None


class TemperatureWas(Frozen):
    """Something that was measured, beside what was meant. [°C]"""

    what: str
    label: str
    meant_c: float | None
    was_c: float


class NoteWas(Frozen):
    """Something worth remembering, in the baker's words."""

    at_s: float
    who: str
    says: str


class Record(Frozen):
    """A bake in the book."""

    name: str
    way: str
    way_key: str
    styles: tuple[str, ...]
    status: str
    begun_s: float
    ended_s: float | None
    mixes: int
    lines: tuple[LineWas, ...]
    gauges: tuple[GaugeNow, ...]
    steps: tuple[StepWas, ...]
    targets: tuple[TargetWas, ...]
    planned_g: float
    mixed_g: float
    divided_g: float | None
    bench_loss: Loss
    bake_loss: Loss
    baked_g: float | None
    """Of a piece. [g]"""
    dough_c: float | None
    temperatures: tuple[TemperatureWas, ...]
    rise_min: float | None
    """All the dough's rises in the room together, as they were. [min]"""
    rise_c: float | None
    """How warm the dough was in them, in the middle of the first, by the model."""
    water_added_g: float
    """At the mixer, over what was meant; below nothing where some was kept back."""
    water_added_points: float
    """The same in percent of all flour."""
    changed: tuple[str, ...]
    notes: tuple[NoteWas, ...]
    observed: tuple[Observed, ...]
    written: bool = Field(description="Whether it was written in by hand, not at the bench.")

    @property
    def ingredients(self) -> tuple[str, ...]:
        """The names of all that is in it, each once."""
        return tuple(dict.fromkeys(line.name for line in self.lines if line.name))

    @property
    def spread_g(self) -> float | None:
        """How evenly the pieces of its first target were divided. [g]"""
        return next((one.spread_g for one in self.targets if one.spread_g is not None), None)

    @property
    def pieces(self) -> int:
        """All that was made."""
        return sum(one.pieces for one in self.targets)


def record_of(ground: Ground, events: Iterable[Event], begun_s: float, outcome: Outcome, *, written: bool = False) -> Record:
    """A bake's record; `begun_s` in seconds since 1970, UTC. Never raises for what happened."""
    begun, plan = ground.begun, ground.plan
    now = bake_now(ground, events, begun_s)
    bake = bake_of(plan, events)
    flour = flour_g(begun, plan, bake)
    targets = _targets(ground, bake, now)
    baked = _baked(targets, bake, outcome)
    bench = Loss(meant=begun.sheet.bench_loss, was=now.dough.loss if _possible(now.dough.loss) else None)
    meant_loss, was_loss = _bake_loss(ground, targets, baked)
    steps = tuple(_step(ground, one, begun_s) for one in now.tasks)
    added_g = _water_added(plan, bake)
    way = way_of(begun.formula, begun.count.way)
    rises = [one for one in now.tasks if one.group == "rise" and one.does == "rises" and not one.on and one.began_s is not None and one.done_s is not None]
    middle = next((figures for one in rises for figures in now.rises if figures.step == one.step), None)
    return Record(
        name=begun.formula.name, way=way.name, way_key=way.key, styles=begun.formula.styles, status=now.status, begun_s=begun_s, ended_s=now.ended_s,
        mixes=now.mixes, lines=_lines(ground, bake), gauges=now.gauges, steps=steps, targets=targets, planned_g=now.dough.planned_g, mixed_g=now.dough.mixed_g,
        divided_g=now.dough.on_scale_g, bench_loss=bench, bake_loss=Loss(meant=meant_loss, was=was_loss), baked_g=baked,
        dough_c=now.dough.measured_c, temperatures=_temperatures(ground, bake, now),
        rise_min=sum((one.done_s - one.began_s) / MINUTE for one in rises if one.done_s is not None and one.began_s is not None) if rises else None,
        rise_c=None if middle is None or not middle.course else middle.course[len(middle.course) // 2].dough_c,
        water_added_g=added_g, water_added_points=100 * added_g / flour[0] if flour[0] > 0 else 0.0,
        changed=now.changes.says, notes=_notes(bake), observed=observed_of(ground, bake, now, bench.was, was_loss, [one.weighed for one in targets]),
        written=written,
    )  # fmt: skip


def _possible(loss: float | None) -> bool:
    """Whether a loss can be: dough does not grow on the bench, and half of it does not stay there."""
    return loss is not None and -0.02 <= loss < 0.5


def _lines(ground: Ground, bake: Bake) -> tuple[LineWas, ...]:
    """Lines over all mixes, each once; what was held back is in its line."""
    plan, begun = ground.plan, ground.begun
    formula = in_way(begun.formula, begun.count.way)
    found: dict[tuple[str, int, int], list[str]] = {}
    for key, line in plan.lines.items():
        if line.what != "fed":
            found.setdefault(("beside" if line.what == "beside" else "line", line.stage, line.line), []).append(key)
    meant_flour = sum(one.meant_g or 0.0 for one in plan.lines.values() if one.role is Role.FLOUR and one.what in ("line", "held_back"))
    was_flour = sum(in_now(one, bake) or 0.0 for one in plan.lines.values() if one.role is Role.FLOUR and one.what in ("line", "held_back"))
    added = {key: sum(one.what.g for one in bake.added if isinstance(one.what, Added) and one.what.line == key) for key in plan.lines}
    made = list[LineWas]()
    for (what, stage, _), keys in found.items():
        lines = [plan.lines[key] for key in keys]
        own = [bake.line(key) for key in keys]
        weighed = any(one.g is not None or one.skipped or one.held_in_g is not None for one in own) or any(added[key] for key in keys)
        meant = None if any(one.meant_g is None for one in lines) else sum(one.meant_g or 0.0 for one in lines)
        now = max(0.0, sum((in_now(line, bake) or 0.0) + added[line.key] for line in lines)) if weighed else None
        target = sum(meant_g(line, bake.scaling) or 0.0 for line in lines)
        dough = what == "line"
        made.append(
            LineWas(
                of=(formula.stages if dough else formula.beside)[stage].name, name=lines[0].name, role="" if lines[0].role is None else str(lines[0].role), beside=not dough,
                meant_g=meant, was_g=now, meant_percent=100 * meant / meant_flour if dough and meant is not None and meant_flour else None,
                was_percent=100 * now / was_flour if dough and now is not None and was_flour else None,
                within=now is None or meant is None or abs(now - target) <= sum(one.tolerance_g for one in lines) + 1e-9,
                says="left out" if all(one.skipped for one in own) else f"{sum(added[key] for key in keys):+.4g} g at the mixer" if any(added[key] for key in keys) else "",
            )
        )  # fmt: skip
    for event in bake.added:
        assert isinstance(event.what, Added)
        if event.what.line not in plan.lines and event.what.g > 0:
            deed = event.what
            made.append(
                LineWas(
                    of="", name=deed.name or str(deed.role), role=str(deed.role), beside=False, meant_g=0.0, was_g=deed.g, meant_percent=0.0,
                    was_percent=100 * deed.g / was_flour if was_flour else None, within=False, says="added at the mixer",
                )
            )  # fmt: skip
    return tuple(made)


def of_mix(mix: int, mixes: int) -> str:
    """Which mix something is of, where there are several.

    >>> of_mix(1, 2), of_mix(0, 1)
    (', mix 2', '')
    """
    return f", mix {mix + 1}" if mixes > 1 else ""


def step_label(ground: Ground, todo: ToDo) -> str:
    """What something to do is called, with what it is on, its load and its mix."""
    begun, label = ground.begun, ground.plan.steps[todo.step].kind.label
    strand = begun.method.steps[todo.step].strand
    on = "" if strand == main_strand(begun.method) else begun.method.strands[strand].name
    name = f"{on}: {label}" if on else label[:1].upper() + label[1:]
    load = f", load {todo.load + 1}" if todo.load >= 0 else ""
    return f"{name}{load}{of_mix(todo.mix, begun.sheet.mixes) if todo.per_mix else ''}"


def _step(ground: Ground, one: TaskNow, begun_s: float) -> StepWas:
    todo = ground.plan.todos.get(one.key)
    planned_s = begun_s + (todo.begin_min if todo else 0.0) * MINUTE
    label = step_label(ground, todo) if todo else called(one)
    return StepWas(
        key=one.key, kind=one.kind, label=label, group=one.group, planned_s=planned_s, planned_min=todo.lasts_min if todo else one.usual_min,
        low_min=one.low_min, high_min=one.high_min, began_s=one.began_s, done_s=one.done_s, status=one.status, tries=one.tries, passed=one.passed, heat=one.heat,
    )  # fmt: skip


def _targets(ground: Ground, bake: Bake, now: BakeNow) -> tuple[TargetWas, ...]:
    begun, before = ground.begun, ground.before
    found = list[TargetWas]()
    for n, target in enumerate(begun.count.targets):
        weighed = [one.g for one in bake.pieces.get(n, [])]
        made = now.making.targets[n] if now.making is not None and n < len(now.making.targets) else None
        meant = int(before[of("pieces", n)])
        found.append(
            TargetWas(
                name=target.name, fill_kind=target.fill_kind or begun.formula.usual.fill_kind, meant_pieces=meant, meant_piece_g=before[of("piece_g", n)],
                pieces=len(weighed) if len(weighed) >= meant else made.pieces if made else meant,
                piece_g=fmean(weighed) if weighed else made.piece_g if made else before[of("piece_g", n)],
                weighed=tuple(weighed[:200]), tolerance_g=max(now.step_g, begun.kit.spread_g), mean_g=fmean(weighed) if weighed else None, spread_g=stdev(weighed) if len(weighed) > 1 else None,
                least_g=min(weighed, default=None), most_g=max(weighed, default=None),
            )
        )  # fmt: skip
    return tuple(found)


def _baked(targets: Sequence[TargetWas], bake: Bake, outcome: Outcome) -> float | None:
    """What a piece weighed baked: as it was told afterwards, else as it was measured. None where it was not, or of pieces that are not alike. [g]"""
    if len(targets) != 1:
        return None
    if outcome.baked_g is not None:
        return outcome.baked_g / (outcome.baked_pieces or max(1, targets[0].pieces))
    measured = [one for _, one in bake.of("baked_g")]
    return sum(one.value for one in measured) / sum(one.pieces for one in measured) if measured else None


def _bake_loss(ground: Ground, targets: Sequence[TargetWas], baked_g: float | None) -> tuple[float, float | None]:
    """What the heat takes, as planned and as it was; None where it was not weighed, or cannot be."""
    meant = ground.before[of("bake_loss", 0)]
    if baked_g is None or not targets or targets[0].piece_g <= 0:
        return meant, None
    was = 1 - baked_g / targets[0].piece_g
    return meant, was if _possible(was) else None


def _water_added(plan: Plan, bake: Bake) -> float:
    """Liquid that went in at the mixer, less what was held back and stayed out. [g]"""
    found = 0.0
    for event in bake.added:
        assert isinstance(event.what, Added)
        line = plan.lines.get(event.what.line or "")
        if (line.role if line else event.what.role) is Role.LIQUID:
            found += event.what.g
    for key, line in plan.lines.items():
        own = bake.line(key)
        if line.what == "held_back" and line.role is Role.LIQUID and own.held_in_g is not None:
            found += own.held_in_g - (meant_g(line, bake.scaling) or 0.0)
    return found


LABELS = {"dough_c": "Dough", "room_c": "Room", "middle_c": "Middle", "oven_c": "Oven"}


def _temperatures(ground: Ground, bake: Bake, now: BakeNow) -> tuple[TemperatureWas, ...]:
    begun = ground.begun
    middle = next((one.middle for one in begun.method.bakes if one.middle is not None), None)
    dial = next((one.dial_c for one in begun.method.bakes if one.dial_c is not None), None)
    meant = {"dough_c": now.dough.wanted_c, "room_c": begun.count.today.room_c if begun.count.today.room_c is not None else begun.climate.room_c, "middle_c": middle.middle_c if middle else None, "oven_c": dial}
    found = [TemperatureWas(what=what, label=label, meant_c=meant[what], was_c=value) for what, label in LABELS.items() if (value := bake.latest(what)) is not None]
    return tuple(found)


def _notes(bake: Bake) -> tuple[NoteWas, ...]:
    return tuple(NoteWas(at_s=one.at_s, who=one.who, says=one.what.text) for one in bake.notes[-MOST_NOTES:] if one.what.deed == "noted")


def words_of(record: Record, outcome: Outcome, captions: Iterable[str] = ()) -> str:
    """All words of a bake, to be searched: its names, what is in it, what was noted and told."""
    told = (record.name, record.way, *record.styles, *record.ingredients, *record.changed, *(one.says for one in record.notes), outcome.words, outcome.wrong, outcome.next_time, *captions)
    return "\n".join(dict.fromkeys(one for one in told if one))


