"""A bake in a few words, for who has several going: what is next, and what rings."""

from collections.abc import Iterable

from pancount.core.base.models import Frozen
from pancount.core.bench.bake import Bake, bake_of, line_status, meant_g
from pancount.core.bench.begun import Begun
from pancount.core.bench.events import Event
from pancount.core.bench.overpour import line_words, off_words, twice_words
from pancount.core.bench.plan import ToWeigh
from pancount.core.bench.running import tasks_now
from pancount.core.bench.state import Ground, TimerNow, called, timers_now


class Card(Frozen):
    """What is next of a bake. Times are seconds since 1970, UTC."""

    next: str
    """What to do next, in words; blank where nothing is left."""
    from_s: float | None
    timers: tuple[TimerNow, ...]


def card_of(ground: Ground, events: Iterable[Event], begun_s: float) -> Card:
    """A bake in a few words, by its method as it was begun."""
    begun, plan = ground.begun, ground.plan
    bake = bake_of(plan, events)
    tasks = {one.key: one for one in tasks_now(plan, bake, begun.method, begun_s, begun.sheet.mixes)}
    timers = timers_now(bake, tuple(tasks.values()))
    asked = next((words for line in plan.lines.values() if (words := _asked(line, bake, begun))), "")
    if asked:
        return Card(next=asked, from_s=None, timers=timers)
    for key in plan.order:
        if (line := plan.lines.get(key)) is not None:
            if line_status(line, bake.line(key), meant_g(line, bake.scaling)) in ("open", "under"):
                return Card(next=_weigh(line, bake, begun), from_s=None, timers=timers)
        elif (task := tasks.get(key)) is not None and task.status == "open" and task.ready and not task.ahead:
            return Card(next=called(task), from_s=task.from_s, timers=timers)
    running = next((one for one in tasks.values() if one.status == "running"), None)
    return Card(next=f"{called(running)} is under way" if running else "", from_s=None, timers=timers)


def _asked(line: ToWeigh, bake: Bake, begun: Begun) -> str:
    """What the baker is to decide about a line before anything else; blank for nothing."""
    own, target = bake.line(line.key), meant_g(line, bake.scaling)
    status = line_status(line, own, target)
    if status == "over" and own.g is not None and target is not None:
        return off_words(own.g - target, line, begun)
    return twice_words(line) if status == "twice" else ""


def _weigh(line: ToWeigh, bake: Bake, begun: Begun) -> str:
    """A line to weigh, or what of it is still to be poured."""
    own, target = bake.line(line.key), meant_g(line, bake.scaling)
    if target is None:
        return f"Weigh {line.name}"
    return f"Weigh {line.name}, {line_words(target, line, begun)}" if own.g is None else f"Weigh {line.name}, {line_words(target - own.g, line, begun)} more"
