"""A bake as its screen shows it: all lines, all there is to do, what rings, what is asked, what the dough is now, what it makes."""

from collections.abc import Iterable
from dataclasses import dataclass

from pancount.core.base.errors import CoreError
from pancount.core.base.models import Frozen
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.bench.bake import Bake, LineStatus, bake_of, line_status, meant_g
from pancount.core.bench.begun import Begun
from pancount.core.bench.changed import Changes, changes
from pancount.core.bench.dividing import Making, PieceStrip, making, pinned_keeps, planned, remade, shares, strip
from pancount.core.bench.events import Event
from pancount.core.bench.mixed import GaugeNow, Mixing, character_of, flour_g, gauges_between, known_pantry, mixing
from pancount.core.bench.overpour import Decision, grams_words, loss_question, questions
from pancount.core.bench.plan import Plan, ToWeigh, main_strand, plan_of
from pancount.core.bench.rules import rules
from pancount.core.bench.running import MINUTE, TaskNow, tasks_now
from pancount.core.bench.said import said
from pancount.core.count.relations import Values
from pancount.core.formula.gauges import Character
from pancount.core.formula.stages import main_stage
from pancount.core.formula.ways import in_way, way_of
from pancount.core.heat.climate import Today
from pancount.core.method.method import Method, whole_method
from pancount.core.method.rises import RiseFigures
from pancount.core.pantry.role import Role

SAME_C = 0.5
"""A dough that is no further from what was meant is as meant. Common practice, no source. [°C]"""


class LineNow(Frozen):
    """A line to weigh as it stands. [g]"""

    key: str
    mix: int
    what: str
    of: str
    name: str
    role: str
    note: str
    says: str
    parts: int
    whole: bool
    """All that was made of it goes in: it may lie in the bowl already."""
    fine: bool
    step_g: float
    target_g: float | None
    tolerance_g: float
    in_g: float | None
    by: str
    who: str
    at_s: float | None
    status: LineStatus
    doubt_over_g: float
    """More than this is asked about before it is taken: a nought too many."""


class TimerNow(Frozen):
    """A timer, by hand or of something that is running."""

    key: str
    name: str
    began_s: float
    rings_s: float
    seconds: bool
    task: str
    """What it belongs to; blank for one by hand."""


class DoughNow(Frozen):
    """The dough as it is. [g, °C]"""

    planned_g: float
    mixed_g: float
    by_mix: tuple[float, ...]
    on_scale_g: float | None
    loss: float | None
    """Of what was mixed, what is not on the scale; None before it was weighed."""
    planned_loss: float
    wanted_c: float | None
    measured_c: float | None
    says: str


class Adjust(Frozen):
    """Something that a dough is made looser or stiffer with at the mixer, and what a level tablespoon of it weighs. [g]"""

    line: str
    mix: int
    name: str
    role: str
    spoon_g: float


class Logged(Frozen):
    """Something that happened, in words."""

    id: str
    at_s: float
    who: str
    writer: str
    says: str
    about: str
    """The line or the thing to do that it is about; blank for the whole."""


class BakeNow(Frozen):
    """A bake, whole."""

    name: str
    way: str
    status: str
    written: bool
    """Whether its steps are the baker's own."""
    unit: str
    step_g: float
    mixes: int
    ended_s: float | None
    last_s: float | None
    seen: dict[str, int]
    order: tuple[str, ...]
    """Keys of all there is to weigh and to do, in order."""
    lines: tuple[LineNow, ...]
    tasks: tuple[TaskNow, ...]
    timers: tuple[TimerNow, ...]
    questions: tuple[Decision, ...]
    dough: DoughNow
    gauges: tuple[GaugeNow, ...]
    rises: tuple[RiseFigures, ...]
    making: Making | None
    instead: Making | None
    """What else could be made of it: the weight kept and not the number, or the other way round."""
    strips: tuple[PieceStrip, ...]
    shares: tuple[str, ...]
    adjust: tuple[Adjust, ...]
    water: str
    """How warm the water is to be."""
    cautions: tuple[str, ...]
    changes: Changes
    measured: tuple[Logged, ...]
    log: tuple[Logged, ...]
    """What happened, the last first."""


LOGGED = 60
"""So many of what happened last are told."""


@dataclass(frozen=True, slots=True)
class Ground:
    """What a bake stands on, whatever happens: worked out once."""

    begun: Begun
    plan: Plan
    meant: Character
    """The dough as it was meant."""
    before: Values
    """The count as it was solved then."""


def ground_of(begun: Begun) -> Ground:
    """What stays of a bake from its beginning on."""
    plan = plan_of(begun, begun.method)
    return Ground(begun, plan, character_of(begun, mixing(begun, plan, Bake()).formula), planned(begun))


def bake_now(begun: Begun | Ground, events: Iterable[Event], begun_s: float) -> BakeNow:
    """A bake from what it was begun with and what happened since; `begun_s` in seconds since 1970, UTC.

    Never raises for what happened: what cannot be reckoned with it stays as it was begun.
    """
    ground = begun if isinstance(begun, Ground) else ground_of(begun)
    begun, plan, meant = ground.begun, ground.plan, ground.meant
    bake = bake_of(plan, events)
    mixed = mixing(begun, plan, bake)
    keeps = bake.keeps or pinned_keeps(begun.count)
    on_scale = bake.dough_on_scale_g()
    divide_g = mixed.dough_g * (1 - begun.sheet.bench_loss) if on_scale is None else on_scale
    method = _method(ground, bake, mixed, divide_g, keeps)
    if method is not begun.method:
        plan = plan_of(begun, method)
        bake = bake_of(plan, bake.ordered)
    tasks = tasks_now(plan, bake, method, begun_s, begun.sheet.mixes)
    made, other = _makes(ground, mixed, divide_g, keeps)
    asked = questions(begun, plan, bake, meant, ground.before, _mixed_in(tasks))
    if on_scale is not None and not bake.pieces and (loss := loss_question(begun, mixed.dough_g, on_scale)) is not None:
        asked = (*asked, loss)
    unit_g = WEIGHT_UNITS[begun.scale.unit]
    flour = flour_g(begun, plan, bake)
    logged = [_logged(begun, plan, event, flour) for event in bake.ordered]
    way = way_of(begun.formula, begun.count.way)
    return BakeNow(
        name=begun.formula.name,
        way=way.name,
        status=bake.status,
        written=begun.written,
        unit=begun.scale.unit,
        step_g=float(begun.scale.step) * unit_g,
        mixes=begun.sheet.mixes,
        ended_s=bake.ended_s,
        last_s=bake.last_s,
        seen=bake.seen,
        order=plan.order,
        lines=tuple(_line(plan.lines[key], bake) for key in plan.order if key in plan.lines),
        tasks=tasks,
        timers=timers_now(bake, tasks),
        questions=asked,
        dough=_dough(begun, bake, mixed, method, on_scale),
        gauges=_gauges(begun, mixed, meant),
        rises=method.rises,
        making=made,
        instead=other,
        strips=_strips(begun, bake, made, divide_g),
        shares=shares(sum(target.pieces for target in made.targets)) if made and len(made.targets) == 1 else (),
        adjust=_adjust(plan, main_stage(in_way(begun.formula, begun.count.way))),
        water=_water(method),
        cautions=begun.sheet.cautions,
        changes=changes(begun, plan, bake),
        measured=tuple(one for one, event in zip(logged, bake.ordered, strict=True) if event.what.deed == "measured"),
        log=tuple(reversed(logged[-LOGGED:])),
    )


def _method(ground: Ground, bake: Bake, mixed: Mixing, divide_g: float, keeps: str) -> Method:
    """The method for the dough as it is: as warm as it was measured, of what is really in it, for the pieces that are made of it."""
    begun, dough_c, room_c = ground.begun, bake.latest("dough_c"), bake.latest("room_c")
    own = begun.count.today.model_copy(update={"room_c": room_c}) if room_c is not None and -5 <= room_c <= 50 else begun.count.today
    if dough_c is None and own == begun.count.today and not _differs(bake):
        return begun.method
    count = remade(begun, ground.before, divide_g, keeps) if bake.dough_on_scale_g() is not None or bake.scaling.factor else None
    try:
        return whole_method(
            mixed.formula, (count or begun.count).model_copy(update={"today": Today.model_validate(own.model_dump())}), known_pantry(begun),
            begun.practice, begun.kit, begun.climate, dough_c=dough_c,
        )  # fmt: skip
    except CoreError:
        return begun.method


def _differs(bake: Bake) -> bool:
    """Whether the dough is another than was planned, by more than a scale's tolerance."""
    accepted = any(one.accepted_g is not None or one.held_in_g is not None for one in bake.lines.values())
    return accepted or bool(bake.added or bake.scaling.factor) or bake.dough_on_scale_g() is not None


def _makes(ground: Ground, mixed: Mixing, divide_g: float, keeps: str) -> tuple[Making | None, Making | None]:
    try:
        first, other = (making(ground.begun, ground.before, mixed.formula, divide_g, one) for one in (keeps, "weight" if keeps == "pieces" else "pieces"))
        return first, other
    except CoreError:
        return None, None


def _gauges(begun: Begun, mixed: Mixing, meant: Character) -> tuple[GaugeNow, ...]:
    try:
        return gauges_between(meant, character_of(begun, mixed.formula))
    except CoreError:
        return ()  # all flour taken out again


def _line(line: ToWeigh, bake: Bake) -> LineNow:
    own, target = bake.line(line.key), meant_g(line, bake.scaling)
    return LineNow(
        key=line.key, mix=line.mix, what=line.what, of=line.of, name=line.name, role="" if line.role is None else str(line.role), note=line.note,
        says=line.says, parts=line.parts, whole=line.whole, fine=line.fine, step_g=line.step_g, target_g=target, tolerance_g=line.tolerance_g, in_g=own.g, by=own.by,
        who=own.who, at_s=own.at_s if own.g is not None else None, status=line_status(line, own, target),
        doubt_over_g=max((target or 0.0) * rules()["doubt_times"], (target or 0.0) + 10 * line.step_g),
    )  # fmt: skip


def timers_now(bake: Bake, tasks: tuple[TaskNow, ...]) -> tuple[TimerNow, ...]:
    """Everything that will ring or has rung and was not heard, the next first."""
    found = [
        TimerNow(key=one.key, name=called(one), began_s=one.began_s or 0.0, rings_s=one.rings_s, seconds=one.seconds, task=one.key)
        for one in tasks
        if one.rings_s is not None and (one.status == "running" or one.during)
    ]
    found += [
        TimerNow(key=one.key, name=one.name or "Timer", began_s=one.began_s, rings_s=one.began_s + one.minutes * MINUTE, seconds=one.minutes <= 3, task="")
        for one in bake.timers.values()
        if not one.over
    ]
    return tuple(sorted(found, key=lambda one: (one.rings_s, one.key)))


def called(task: TaskNow) -> str:
    """What something to do is called, with what it is on and its load."""
    name = f"{task.on}: {task.label}" if task.on else task.label[:1].upper() + task.label[1:]
    return f"{name}, load {task.load + 1}" if task.load >= 0 else name


def _mixed_in(tasks: tuple[TaskNow, ...]) -> set[str]:
    """Lines that something begun has taken in."""
    return {key for task in tasks if task.began_s is not None for one in task.goes_in for key in one.keys}


def _dough(begun: Begun, bake: Bake, mixed: Mixing, method: Method, on_scale: float | None) -> DoughNow:
    planned = float(begun.sheet.printed_total) * WEIGHT_UNITS[begun.sheet.unit] * begun.sheet.mixes
    wanted = begun.method.water.wanted_c if begun.method.water else None
    measured = bake.latest("dough_c")
    loss = None if on_scale is None or mixed.dough_g <= 0 else 1 - on_scale / mixed.dough_g
    says = list[str]()
    if measured is not None and wanted is not None:
        off = measured - wanted
        says.append(
            f"{measured:.1f} °C, as it was meant." if abs(off) <= SAME_C else f"{measured:.1f} °C: {abs(off):.1f} {'warmer' if off > 0 else 'colder'} than the {wanted:.0f} meant."
        )
        own_steps = method.strands[main_strand(method)].steps if method.strands else ()
        first = next((one for one in method.rises if one.step in own_steps), None)
        if first is not None and first.look_min is not None and abs(off) > SAME_C:
            was = next((one for one in begun.method.rises if one.step == first.step), None)
            if was is not None and was.look_min is not None:
                says.append(f"Its first rise: look after {first.look_min:.0f} min, not {was.look_min:.0f}.")
    if loss is not None and on_scale is not None:
        says.append(f"{grams_words(on_scale, begun)} of {grams_words(mixed.dough_g, begun)}: {loss * 100:.1f} % stayed in the bowl and on the bench; {begun.sheet.bench_loss * 100:.1f} % was planned.")
    return DoughNow(
        planned_g=planned, mixed_g=mixed.dough_g, by_mix=mixed.by_mix, on_scale_g=on_scale, loss=loss, planned_loss=begun.sheet.bench_loss, wanted_c=wanted,
        measured_c=measured, says=" ".join(says),
    )  # fmt: skip


def _strips(begun: Begun, bake: Bake, made: Making | None, divide_g: float) -> tuple[PieceStrip, ...]:
    if made is None:
        return ()
    found = []
    takes = [one.pieces * one.piece_g for one in made.targets]
    for n, one in enumerate(made.targets):
        weighed = [piece.g for piece in bake.pieces.get(n, [])]
        # Each target has its share of the dough; what is over after the pieces is with the last of them.
        dough = takes[n] + (made.remainder_g if n == len(takes) - 1 else 0.0)
        found.append(strip(n, one, weighed, dough, begun.kit.spread_g))
    return tuple(found)


def _adjust(plan: Plan, main: int) -> tuple[Adjust, ...]:
    spoons = {Role.LIQUID: rules()["spoon_water_g"], Role.FLOUR: rules()["spoon_flour_g"]}
    own = (line for line in plan.lines.values() if line.what == "line" and line.stage == main and line.role in spoons)
    return tuple(Adjust(line=one.key, mix=one.mix, name=one.name, role=str(one.role), spoon_g=spoons[one.role]) for one in own if one.role is not None)


def _water(method: Method) -> str:
    water = method.water
    if water is None or water.stands == "none":
        return ""
    return f"{water.name} at {water.pour_c:.0f} °C for a dough of {water.wanted_c:.0f} °C"


def _logged(begun: Begun, plan: Plan, event: Event, flour: tuple[float, float]) -> Logged:
    says, about = said(begun, plan, event, flour)
    return Logged(id=str(event.id), at_s=event.at_s, who=event.who, writer=event.writer, says=says, about=about)
