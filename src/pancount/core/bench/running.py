"""Something to do as it stands now: when it was begun, from when to look, too far by when, when it rings, and what it waits for."""

from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from functools import cache

from pancount.core.base.datafiles import rows
from pancount.core.base.models import Frozen
from pancount.core.bench.bake import Bake, Task, meant_g
from pancount.core.bench.plan import Plan, ToDo, main_strand
from pancount.core.bench.rules import rules
from pancount.core.method.filled import Filled
from pancount.core.method.method import Method, StepFigures

MINUTE = 60.0
LEAST_TIMER_MIN = 0.3
"""What is over sooner needs no timer. [min]"""
ALIKE = 0.02
"""What goes in is all of a line where it is no further from what is printed: what is held back is rounded to the scale."""


class GoesInNow(Frozen):
    """What goes in at something to do. [g]"""

    name: str
    g: float | None
    held_back: bool
    parts: int
    keys: tuple[str, ...]
    """Lines of the sheet that it is."""


class TaskNow(Frozen):
    """Something to do. Times by the clock are seconds since 1970, UTC."""

    key: str
    step: int
    mix: int
    load: int
    pieces: int
    """Of a load: how many; 0 for what does not go by loads."""
    kind: str
    label: str
    group: str
    does: str
    on: str
    """What it works on, where that is not the dough itself."""
    text: str
    status: str
    """open, running, done, skipped."""
    ready: bool
    """Whether nothing that comes before it is still to do."""
    from_s: float | None
    """When it is expected to begin."""
    began_s: float | None
    done_s: float | None
    hands: bool
    ahead: bool
    """Whether it is done ahead of what needs it: a preheat. It is offered when its time comes."""
    during: str
    """What it happens in, by key: folds in a rise. Blank for nothing."""
    by: str
    low_min: float
    usual_min: float
    high_min: float
    look_min: float
    """From when to look. [min]"""
    look_s: float | None
    usual_s: float | None
    ready_by_s: float | None
    too_far_s: float | None
    rings_s: float | None
    """When its timer rings; None where it has none, or was heard since."""
    seconds: bool
    """Whether seconds count."""
    look: str
    if_not: str
    again_min: float
    tries: int
    tries_say: str
    """What helps where it was looked at too often; blank before."""
    passed: bool | None
    touches: int
    """How often hands are needed in it: folds, turns."""
    touched: int
    heat: str
    caution: str
    goes_in: tuple[GoesInNow, ...]
    waits_until_s: float | None
    """Done, and not yet gone on with: until when it may lie."""
    waits_cost: str


@dataclass(frozen=True, slots=True)
class _Spans:
    """How long something takes, and when to look at it. [min]"""

    low: float
    usual: float
    ready_by: float | None
    too_far: float | None
    look: float


@cache
def _after_tries() -> dict[str, str]:
    return {row["group"]: row["says"] for row in rows(__name__, "after_tries.csv")}


def _spans(todo: ToDo, one: Filled, figures: StepFigures, method: Method) -> _Spans:
    rise = next((own for own in method.rises if own.step == todo.step), None)
    if rise is not None and rise.look_min is not None and rise.usual_min is not None:
        return _Spans(rise.look_min, rise.usual_min, rise.ready_by_min, rise.too_far_min, rise.look_min)
    bake = next((own for own in method.bakes if own.step == todo.step), None)
    if bake is not None:
        return _Spans(bake.look_min, bake.usual_min, bake.high_min, None, bake.look_min)
    if todo.load >= 0:
        return _Spans(todo.lasts_min, todo.lasts_min, None, None, todo.lasts_min)
    low, usual, high = one.lasts.low_min, one.lasts.usual_min, one.lasts.high_min
    if figures.usual_min > 0 and one.kind.does == "cold":
        usual = figures.usual_min
    return _Spans(low, usual, high if high > usual else None, None, usual if one.by == "clock" else low)


def _rings(own: Task, todo: ToDo, one: Filled, spans: _Spans) -> float | None:
    """When it rings. A look that failed rings again after the time its step says."""
    if own.began_s is None or spans.usual < LEAST_TIMER_MIN:
        return None
    first = own.began_s + spans.look * MINUTE
    if own.tries:
        first = own.tries[-1] + max(one.again_min, LEAST_TIMER_MIN) * MINUTE
    rings = first + own.longer_min * MINUTE
    return None if own.quiet_s is not None and own.quiet_s >= rings else rings


def _touch_rings(bake: Bake, todo: ToDo, figures: StepFigures, host: ToDo | None, method: Method, touched: int) -> float | None:
    """Of what is done several times while something else goes on: when the next of it is due."""
    began = bake.task(host.key).began_s if host is not None else None
    if host is None or began is None or touched >= len(figures.touches):
        return None
    return began + (figures.touches[touched].begin - method.steps[host.step].begin) * MINUTE


def tasks_now(plan: Plan, bake: Bake, method: Method, begun_s: float, mixes: int) -> tuple[TaskNow, ...]:
    """All there is to do, in order."""
    shift, spots = _shift(plan, bake, method, begun_s), _spots(plan)
    todos = [plan.todos[key] for key in plan.order if key in plan.todos]
    main, found = main_strand(method), list[TaskNow]()
    run = {turn.step for turn in method.loads}
    """Steps that go load by load: none of them holds up another, since a load is baked while the next is in the pot."""
    shut = _shut(todos, bake, run)
    still_open = set[tuple[int, int, bool]]()
    last_done: dict[tuple[int, int], float | None] = {}
    first_waits: dict[int, float | None] = {}
    hosts = {(todo.step, todo.mix): todo for todo in reversed(todos)}
    for n, todo in enumerate(todos):
        figures, one, own = method.steps[todo.step], plan.steps[todo.step], bake.task(todo.key)
        strand = (figures.strand, todo.mix if todo.per_mix else -1)
        status = "skipped" if own.skipped else "done" if own.done_s is not None else "running" if own.began_s is not None else "open"
        aside = not one.on_chain
        before = (main, -1) if figures.strand == main else strand
        in_run = todo.step in run
        held = any(of == figures.strand and (mix == strand[1] or not todo.per_mix) for of, mix, runs in still_open if not (in_run and runs))
        spans = _spans(todo, one, figures, method)
        host = hosts.get((todo.step - 1, todo.mix)) if figures.during else None
        touches = len(figures.touches) if figures.during else (one.touches if one.hands == "touches" and todo.load >= 0 else 0)
        began = own.began_s
        rings = _touch_rings(bake, todo, figures, host, method, len(own.turned)) if figures.during else _rings(own, todo, one, spans)
        running = status == "running"
        # Every load of a step waits since what came before the first of them was done.
        waits = first_waits.setdefault(todo.step, last_done.get(before)) if todo.load >= 0 else last_done.get(before)
        found.append(
            TaskNow(
                key=todo.key, step=todo.step, mix=todo.mix, load=todo.load, pieces=todo.pieces, kind=one.kind.key, label=figures.label,
                group=one.kind.group, does=one.kind.does, on="" if figures.strand == main else method.strands[figures.strand].name,
                text=plan.texts[todo.step], status=status, ready=aside or not (held or todo.key in shut),
                from_s=None if _is_over(status) or todo.mix > 0 else begun_s + todo.begin_min * MINUTE + shift, began_s=began, done_s=own.done_s,
                hands=one.hands in ("all", "start"), ahead=one.kind.does == "ahead", during=host.key if host else "", by=one.by,
                low_min=spans.low, usual_min=spans.usual, high_min=spans.ready_by or spans.usual, look_min=spans.look,
                look_s=_at(began, spans.look, running), usual_s=_at(began, spans.usual, running), ready_by_s=_at(began, spans.ready_by, running),
                too_far_s=_at(began, spans.too_far, running), rings_s=rings if status in ("running", "open") else None, seconds=spans.usual <= 3,
                look=one.look, if_not=one.if_not, again_min=one.again_min, tries=len(own.tries),
                tries_say=_after_tries()[one.kind.group] if len(own.tries) >= rules()["most_tries"] else "", passed=own.passed,
                touches=touches, touched=len(own.turned), heat=_heat(figures, todo, method), caution=figures.caution,
                goes_in=_goes_in(plan, bake, todo, figures, mixes, spots), waits_until_s=waits if status == "open" and not held and not aside else None, waits_cost=_cost(plan, todos[:n]) if waits is not None else "",
            )
        )
        if not aside and not _is_over(status):
            still_open.add((*strand, in_run))
        if status == "done" and own.done_s is not None and not aside:
            last_done[before] = None if figures.waits_min is None else own.done_s + figures.waits_min * MINUTE
        elif status == "running":
            last_done[before] = None
    return tuple(found)


def _shut(todos: Sequence[ToDo], bake: Bake, run: Set[int]) -> set[str]:
    """What cannot begin yet in a run of loads: the load before is in, or pieces are still in the pot. What is done to all between pot and oven begins with the first load out."""
    shut, before = set[str](), list[ToDo]()
    for step in dict.fromkeys(todo.step for todo in todos if todo.step in run):
        own = sorted((todo for todo in todos if todo.step == step), key=lambda one: one.load)
        loads = [todo for todo in own if todo.load >= 0]
        out, whole = sum(one.pieces for one in before if bake.is_over(one.key)), sum(one.pieces for one in before)
        if not loads:
            shut |= {one.key for one in own} if before and not out else set()
            continue
        is_in = any(bake.task(one.key).began_s is not None and not bake.is_over(one.key) for one in loads)
        wanted = 0
        for one in loads:
            wanted += one.pieces
            if is_in or min(wanted, whole) > out:
                shut.add(one.key)
        before = loads
    return shut


def _is_over(status: str) -> bool:
    return status in ("done", "skipped")


def _at(began_s: float | None, minutes: float | None, running: bool) -> float | None:
    return began_s + minutes * MINUTE if running and began_s is not None and minutes is not None else None


def _cost(plan: Plan, before: Sequence[ToDo]) -> str:
    """What waiting does to what was done last."""
    done = next((plan.steps[one.step] for one in reversed(before) if plan.steps[one.step].waits_min is not None), None)
    return done.kind.waits_cost if done else ""


def _heat(figures: StepFigures, todo: ToDo, method: Method) -> str:
    bake = next((own for own in method.bakes if own.step == todo.step), None)
    if bake is not None and bake.dial:
        return bake.dial
    low, high = figures.heat_low_c, figures.heat_high_c
    if low is None or high is None:
        return ""
    return f"{low:.0f} °C" if round(low) == round(high) else f"{low:.0f} to {high:.0f} °C"


Spot = tuple[str, int, int, int]
"""What, which stage, which line of it (all of what is beside the dough: -1), which mix."""


def _spots(plan: Plan) -> dict[Spot, list[str]]:
    """Lines by where they stand."""
    found: dict[Spot, list[str]] = {}
    for key, line in plan.lines.items():
        found.setdefault((line.what, line.stage, -1 if line.what == "beside" else line.line, line.mix), []).append(key)
    return found


def _goes_in(plan: Plan, bake: Bake, todo: ToDo, figures: StepFigures, mixes: int, spots: Mapping[Spot, Sequence[str]]) -> tuple[GoesInNow, ...]:
    """What goes in at a step: as printed where it is all of a line, else its part of it."""
    found = []
    for one in figures.goes_in:
        wanted = "beside" if one.what == "beside" else "held_back" if one.held_back else "line"
        at = (wanted, one.spot[0], -1 if one.what == "beside" else one.spot[-1], 0 if one.what == "beside" else todo.mix)
        lines = [] if one.what == "stage" else [plan.lines[key] for key in spots.get(at, ())]
        grams = one.weight_g if one.weight_g is None or one.what == "beside" else one.weight_g / (mixes if todo.per_mix else 1)
        if one.what == "line" and lines and grams is not None:
            grams *= bake.scaling.factor.get(todo.mix, 1.0)
            printed = sum(meant_g(line, bake.scaling) or 0.0 for line in lines)
            step_g = lines[0].step_g
            grams = printed if abs(grams - printed) <= max(step_g, ALIKE * printed) else round(grams / step_g) * step_g
        found.append(GoesInNow(name=one.name, g=grams, held_back=one.held_back, parts=one.parts, keys=tuple(line.key for line in lines)))
    return tuple(found)


def _shift(plan: Plan, bake: Bake, method: Method, begun_s: float) -> float:
    """How far behind the plan it is, by what was begun or done last; what that makes of what comes after. [s]"""
    latest, shift = 0.0, 0.0
    for key, own in bake.tasks.items():
        todo = plan.todos.get(key)
        if todo is None or plan.steps[todo.step].kind.does == "ahead":
            continue
        planned = todo.begin_min * MINUTE
        if own.done_s is not None and own.done_s > latest:
            latest, shift = own.done_s, own.done_s - begun_s - planned - todo.lasts_min * MINUTE
        elif own.done_s is None and own.began_s is not None and own.began_s > latest:
            latest, shift = own.began_s, own.began_s - begun_s - planned
    return shift
