"""How a bake stands: under way, put away, or over, by the events that say so."""

from collections.abc import Iterable

from pancount.core.bench.bake import Status, bake_of
from pancount.core.bench.events import Event
from pancount.core.bench.plan import NO_PLAN

STATUS_DEEDS = ("ended", "paused", "resumed", "undone")
"""What may change it."""


def ended_by(events: Iterable[Event]) -> tuple[Status, float | None]:
    """Its status, and when it ended, by those of its events that may change it. [s since 1970, UTC]"""
    bake = bake_of(NO_PLAN, events)
    return bake.status, bake.ended_s
