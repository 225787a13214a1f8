"""A bake as a fold over what happened: pure, and the same for the same events in whatever order and however often they arrive."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal
from uuid import UUID

from pancount.core.bench.events import (
    MOST_SHOWN_G,
    Accepted,
    Added,
    Began,
    Done,
    Ended,
    Event,
    HeldBack,
    Kept,
    Longer,
    LookedAt,
    Measurement,
    Noted,
    Paused,
    Piece,
    Quiet,
    Resolved,
    Resumed,
    Scaled,
    SharedOut,
    Skipped,
    TimerSet,
    TookOut,
    Turned,
    Weighed,
    in_order,
)
from pancount.core.bench.plan import Plan, ToWeigh
from pancount.core.bench.rules import rules

Status = Literal["running", "paused", "done", "stopped", "thrown_away"]


@dataclass(slots=True)
class Line:
    """What is in of a line."""

    g: float | None = None
    """None where nothing was weighed yet. [g]"""
    by: str = ""
    who: str = ""
    at_s: float = 0.0
    accepted_g: float | None = None
    """What was in when the baker took it as it is."""
    held_in_g: float | None = None
    """Of what was held back: what went in, where that was said."""
    apart: tuple[Event, ...] = ()
    """Weighings of which none knew of the other, until that is settled."""
    skipped: bool = False


@dataclass(slots=True)
class Task:
    """What has happened of something to do."""

    began_s: float | None = None
    done_s: float | None = None
    skipped: bool = False
    turned: list[float] = field(default_factory=list)
    passed: bool | None = None
    tries: list[float] = field(default_factory=list)
    """When it was looked at and was not ready."""
    longer_min: float = 0.0
    quiet_s: float | None = None
    """When its ringing was last heard."""


@dataclass(frozen=True, slots=True)
class Timer:
    """A timer by hand."""

    key: str
    name: str
    began_s: float
    minutes: float
    over: bool


@dataclass(frozen=True, slots=True)
class WeighedPiece:
    """A piece that was weighed off, and the event that says so."""

    id: UUID
    g: float


@dataclass(frozen=True, slots=True)
class Scaling:
    """How many times what was meant is made of each mix, and the lines that stay as they are: of stages that were made already."""

    factor: Mapping[int, float] = field(default_factory=dict)
    fixed: frozenset[str] = frozenset()


@dataclass
class Bake:
    """All that has happened."""

    lines: dict[str, Line] = field(default_factory=dict)
    scaling: Scaling = Scaling()
    tasks: dict[str, Task] = field(default_factory=dict)
    timers: dict[str, Timer] = field(default_factory=dict)
    added: list[Event] = field(default_factory=list)
    measured: list[Event] = field(default_factory=list)
    pieces: dict[int, list[WeighedPiece]] = field(default_factory=dict)
    shared_out: set[int] = field(default_factory=set)
    keeps: Literal["pieces", "weight"] | None = None
    notes: list[Event] = field(default_factory=list)
    status: Status = "running"
    ended_s: float | None = None
    last_s: float | None = None
    seen: dict[str, int] = field(default_factory=dict)
    """Up to where each writer is known here."""
    ordered: tuple[Event, ...] = ()

    def line(self, key: str) -> Line:
        """What is in of a line; nothing yet where nothing was told."""
        return self.lines.get(key, Line())

    def task(self, key: str) -> Task:
        """What has happened of something to do."""
        return self.tasks.get(key, Task())

    def is_over(self, key: str) -> bool:
        """Whether something to do needs doing no more."""
        own = self.task(key)
        return own.done_s is not None or own.skipped

    def of(self, what: str) -> list[tuple[Event, Measurement]]:
        """What was measured of one kind, in order."""
        return [(one, one.what) for one in self.measured if isinstance(one.what, Measurement) and one.what.what == what]

    def latest(self, what: str) -> float | None:
        """What was measured last."""
        found = self.of(what)
        return found[-1][1].value if found else None

    def dough_on_scale_g(self) -> float | None:
        """The dough weighed before it is divided: of each mix what was said last, or of all of it. [g]"""
        found: dict[int | None, float] = {}
        for _, one in self.of("dough_g"):
            if one.mix is None:
                found = {}
            found[one.mix] = one.value
        return sum(found.values()) if found else None


def meant_g(line: ToWeigh, scaling: Scaling) -> float | None:
    """What is meant of a line, with its mix scaled: to its scale's step. [g]"""
    times = 1.0 if line.what == "beside" or line.key in scaling.fixed else scaling.factor.get(line.mix, 1.0)
    if line.meant_g is None or times == 1.0:
        return line.meant_g
    return round(round(line.meant_g * times / line.step_g) * line.step_g, 6)


LineStatus = Literal["open", "in", "over", "under", "accepted", "skipped", "twice"]


def line_status(line: ToWeigh, own: Line, target_g: float | None) -> LineStatus:
    """How a line stands to what is meant of it. [g]"""
    if own.apart:
        return "twice"
    if own.g is None:
        return "skipped" if own.skipped else "open"
    if target_g is None:
        return "in"
    if own.accepted_g == own.g:
        return "accepted"
    off = own.g - target_g
    return "in" if abs(off) <= line.tolerance_g + 1e-9 else "over" if off > 0 else "under"


def scaled_by(bake: Bake, plan: Plan, line: ToWeigh) -> Scaling | None:
    """The bake with its mix scaled to what is in of a line; None where nothing is in, nothing was meant, or that would be no dough any more. What is made already stays as it is."""
    own = bake.line(line.key)
    if not own.g or not line.meant_g or not line.in_dough:
        return None
    times, most = own.g / line.meant_g, rules()["most_times"]
    if not 1 / most <= times <= most or any(one.mix == line.mix and (one.meant_g or 0.0) * times > MOST_SHOWN_G for one in plan.lines.values()):
        return None
    made = {s for (m, s), keys in plan.makers.items() if m == line.mix and any(bake.task(key).began_s is not None for key in keys)}
    fixed = {
        one.key for one in plan.lines.values() if one.mix == line.mix and one.what != "beside" and (one.source in made if one.what == "fed" else one.stage in made)
    }
    if line.key in fixed:
        return None
    others = {key for key in bake.scaling.fixed if plan.lines[key].mix != line.mix}
    return Scaling({**bake.scaling.factor, line.mix: times}, frozenset(fixed | others))


def bake_of(plan: Plan, events: Iterable[Event]) -> Bake:
    """The bake that these events make. Never raises: what the plan does not have is passed over."""
    bake = Bake()
    bake.ordered = tuple(in_order(events))
    weighed: dict[str, list[Event]] = {}
    for event in bake.ordered:
        bake.seen[event.writer] = max(bake.seen.get(event.writer, 0), event.clock)
        bake.last_s = max(bake.last_s or 0.0, event.at_s)
        _happened(bake, plan, weighed, event)
    return bake


def _happened(bake: Bake, plan: Plan, weighed: dict[str, list[Event]], event: Event) -> None:
    deed, at_s = event.what, event.at_s
    match deed:
        case Weighed() | TookOut() | Accepted() | Scaled() | Resolved() | HeldBack():
            if deed.line in plan.lines:
                _of_line(bake, plan, weighed, event)
        case Began() | Done() | Skipped() | Turned() | LookedAt():
            if isinstance(deed, Skipped) and deed.task in plan.lines:
                bake.lines.setdefault(deed.task, Line()).skipped = True
            elif deed.task in plan.todos or _is_load(plan, deed.task):
                _of_task(bake.tasks.setdefault(deed.task, Task()), event)
        case Added():
            bake.added.append(event)
        case Measurement():
            bake.measured.append(event)
        case Kept():
            bake.keeps = deed.what
        case Piece():
            bake.pieces.setdefault(deed.target, []).append(WeighedPiece(event.id, deed.g))
        case SharedOut():
            bake.shared_out.add(deed.target)
        case TimerSet():
            key = str(event.id)
            bake.timers[key] = Timer(key, deed.name, at_s, deed.minutes, over=False)
        case Longer() | Quiet():
            _of_timer(bake, plan, event)
        case Noted():
            bake.notes.append(event)
        case Paused():
            bake.status = "paused" if bake.status == "running" else bake.status
        case Resumed():
            bake.status, bake.ended_s = "running", None
        case Ended():
            bake.status, bake.ended_s = deed.how, at_s
        case _:
            pass


def _is_load(plan: Plan, key: str) -> bool:
    """Whether it is a load of something that goes by loads: how many there are may change with the count."""
    step, _, load = key.partition(".l")
    return load.isdecimal() and len(load) < 4 and any(key.startswith(f"{step}.l") for key in plan.todos)


def _of_line(bake: Bake, plan: Plan, weighed: dict[str, list[Event]], event: Event) -> None:
    deed = event.what
    assert isinstance(deed, Weighed | TookOut | Accepted | Scaled | Resolved | HeldBack)
    line, own = plan.lines[deed.line], bake.lines.setdefault(deed.line, Line())
    match deed:
        case Weighed():
            earlier = weighed.setdefault(deed.line, [])
            apart = [one for one in earlier if not event.after(one)]
            weighed[deed.line] = [*apart, event]
            own.apart = tuple(weighed[deed.line]) if apart else ()
            if not apart:
                own.g, own.by, own.who, own.at_s, own.skipped = deed.g, deed.by, event.who, event.at_s, False
        case TookOut():
            if own.g is not None:
                own.g = max(0.0, own.g - deed.g)
        case Accepted():
            own.accepted_g = own.g
        case Scaled():
            bake.scaling = scaled_by(bake, plan, line) or bake.scaling
        case Resolved():
            both = {one.id: one.what.g for one in own.apart if isinstance(one.what, Weighed)}
            if both and (deed.keep is None or deed.keep in both):
                own.g = sum(both.values()) if deed.keep is None else both[deed.keep]
                own.apart, weighed[deed.line] = (), [event]
        case HeldBack():
            if line.what == "held_back":
                own.held_in_g = deed.g


def _of_task(own: Task, event: Event) -> None:
    at_s = event.at_s
    match event.what:
        case Began():
            own.began_s, own.done_s, own.skipped = at_s, None, False
        case Done():
            own.done_s, own.skipped = at_s, False
            own.began_s = at_s if own.began_s is None else own.began_s
        case Skipped():
            own.skipped = True
        case Turned():
            own.turned.append(at_s)
        case LookedAt(passed=True):
            own.passed = True
        case LookedAt():
            own.passed = False
            own.tries.append(at_s)
        case _:
            pass


def _of_timer(bake: Bake, plan: Plan, event: Event) -> None:
    deed = event.what
    assert isinstance(deed, Longer | Quiet)
    timer = bake.timers.get(deed.timer)
    if timer is not None:
        minutes = max(0.0, timer.minutes + deed.minutes) if isinstance(deed, Longer) else timer.minutes
        bake.timers[deed.timer] = Timer(timer.key, timer.name, timer.began_s, minutes, over=timer.over or isinstance(deed, Quiet))
    elif deed.timer in plan.todos or _is_load(plan, deed.timer):
        own = bake.tasks.setdefault(deed.timer, Task())
        if isinstance(deed, Longer):
            own.longer_min += deed.minutes
        else:
            own.quiet_s = event.at_s
