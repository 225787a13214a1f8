"""A bake in a few words, for who has several going: what is next, and what rings."""

from collections.abc import Iterable

from pancount.core.base.models import Frozen
from pancount.core.bench.bake import bake_of, meant_g
from pancount.core.bench.events import Event
from pancount.core.bench.running import tasks_now
from pancount.core.bench.state import Ground, TimerNow, timers_now


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
    for key in plan.order:
        if (line := plan.lines.get(key)) is not None:
            own = bake.line(key)
            if own.g is None and not own.skipped:
                grams = meant_g(line, bake.scaling)
                return Card(next=f"Weigh {line.name}" if grams is None else f"Weigh {line.name}, {grams:.4g} g", from_s=None, timers=timers)
        elif (task := tasks.get(key)) is not None and task.status == "open" and task.ready and not task.ahead:
            return Card(next=f"{task.on}: {task.label}" if task.on else task.label[:1].upper() + task.label[1:], from_s=task.from_s, timers=timers)
    running = next((one for one in tasks.values() if one.status == "running"), None)
    return Card(next=f"{running.label[:1].upper()}{running.label[1:]} is under way" if running else "", from_s=None, timers=timers)
