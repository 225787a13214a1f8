"""What can happen at the bench. An event is never changed, only followed by others; each has an id made where it happened.

Order. Every writer (one window of one device) counts its events, starting over what it has seen of others: a Lamport clock. Sorted by clock
and writer, causes come before effects, wherever and however often an event arrives. `saw` says up to where its writer had seen each other
writer: two events of which neither saw the other were done apart, and where they say different things the baker is asked.
(L. Lamport, Time, clocks and the ordering of events in a distributed system, 1978; F. Mattern, Virtual time and global states, 1989;
recalled from memory.)
"""

from collections.abc import Iterable
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from pancount.core.base import most
from pancount.core.base.models import Brief, Frozen, Name, Word, Words
from pancount.core.pantry.role import Role

MOST_CLOCK = 2**31 - 1
Key = Word
"""What a deed is about: a line to weigh, something to do, a timer. One that the bake does not have is passed over."""
MOST_SHOWN_G = 200_000
"""No scale at a bench shows more. [g]"""
Pour = Annotated[float, Field(ge=0, le=MOST_SHOWN_G)]
"""What a scale on a bench shows. [g]"""
Change = Annotated[float, Field(ge=-MOST_SHOWN_G, le=MOST_SHOWN_G)]
Heard = Literal["scale", "typed", "spoons", "meant"]
"""How a weight is known: from the scale, by typing, counted in spoons, or taken as it was meant."""


class Weighed(Frozen):
    """So much of a line is in now, in all."""

    deed: Literal["weighed"] = "weighed"
    line: Key
    g: Pour
    by: Heard = "typed"


class TookOut(Frozen):
    """So much of a line was taken out again."""

    deed: Literal["took_out"] = "took_out"
    line: Key
    g: Pour


class Accepted(Frozen):
    """What is in of a line stays as it is: the dough is changed by it."""

    deed: Literal["accepted"] = "accepted"
    line: Key


class Scaled(Frozen):
    """What is in of a line stays, and the rest of its mix is scaled to it."""

    deed: Literal["scaled"] = "scaled"
    line: Key


class Resolved(Frozen):
    """Where a line was weighed twice apart: which of them holds, or that both are in."""

    deed: Literal["settled"] = "settled"
    line: Key
    keep: UUID | None = None


class Added(Frozen):
    """Something that was not meant went in at the mixer, or came out again: of a line, or anything else by name."""

    deed: Literal["added"] = "added"
    line: Key | None = None
    mix: Annotated[int, Field(ge=0, lt=most.BENCH_MIXES)] = 0
    name: Name = ""
    role: Role = Role.LIQUID
    g: Change
    by: Heard = "typed"


class HeldBack(Frozen):
    """Of what was held back of a line, so much went in, and no more will."""

    deed: Literal["held_back"] = "held_back"
    line: Key
    g: Pour


class Began(Frozen):
    """Something was begun, or went in."""

    deed: Literal["began"] = "began"
    task: Key


class Done(Frozen):
    """Something is done, or came out."""

    deed: Literal["done"] = "done"
    task: Key


class Skipped(Frozen):
    """Something is left out."""

    deed: Literal["skipped"] = "skipped"
    task: Key


class Turned(Frozen):
    """A load was turned, or changed places."""

    deed: Literal["turned"] = "turned"
    task: Key


class LookedAt(Frozen):
    """Looked at, and it was ready or not."""

    deed: Literal["tested"] = "tested"
    task: Key
    passed: bool


class Measurement(Frozen):
    """A temperature or a weight that was measured. `pieces`: of how many a baked weight is."""

    deed: Literal["measured"] = "measured"
    what: Literal["dough_c", "dough_g", "room_c", "middle_c", "oven_c", "baked_g"]
    value: Annotated[float, Field(ge=-40, le=200_000)]
    task: Key | None = None
    mix: Annotated[int, Field(ge=0, lt=most.BENCH_MIXES)] | None = None
    pieces: Annotated[int, Field(ge=1, le=2_000)] = 1


class Kept(Frozen):
    """At dividing: the number of pieces stays, or their weight."""

    deed: Literal["kept"] = "kept"
    what: Literal["pieces", "weight"]


class Piece(Frozen):
    """A piece was weighed off."""

    deed: Literal["piece"] = "piece"
    target: Annotated[int, Field(ge=0, lt=most.TARGETS)] = 0
    g: Annotated[float, Field(gt=0, le=200_000)]
    by: Heard = "typed"


class SharedOut(Frozen):
    """All pieces of a target were shared out without a scale."""

    deed: Literal["shared_out"] = "shared_out"
    target: Annotated[int, Field(ge=0, lt=most.TARGETS)] = 0


class TimerSet(Frozen):
    """A timer by hand; the id of the event names it."""

    deed: Literal["timer_set"] = "timer_set"
    name: Name = ""
    minutes: Annotated[float, Field(gt=0, le=20_160)]


class Longer(Frozen):
    """A timer, by hand or of something that is running, rings so much later."""

    deed: Literal["longer"] = "longer"
    timer: Key
    minutes: Annotated[float, Field(ge=-20_160, le=20_160)]


class Quiet(Frozen):
    """A timer that rang was heard; one by hand is over with that."""

    deed: Literal["quiet"] = "quiet"
    timer: Key


class Noted(Frozen):
    """Something worth remembering, of something to do or of the whole."""

    deed: Literal["noted"] = "noted"
    text: Words
    task: Key | None = None


class Paused(Frozen):
    """It is put away until later, tomorrow perhaps."""

    deed: Literal["paused"] = "paused"


class Resumed(Frozen):
    """It goes on."""

    deed: Literal["resumed"] = "resumed"


class Ended(Frozen):
    """It is over: done, stopped, or thrown away."""

    deed: Literal["ended"] = "ended"
    how: Literal["done", "stopped", "thrown_away"]


class Undone(Frozen):
    """An event did not happen after all."""

    deed: Literal["undone"] = "undone"
    of: UUID


Deed = Annotated[
    Weighed | TookOut | Accepted | Scaled | Resolved | Added | HeldBack | Began | Done | Skipped | Turned | LookedAt | Measurement | Kept | Piece
    | SharedOut | TimerSet | Longer | Quiet | Noted | Paused | Resumed | Ended | Undone,
    Field(discriminator="deed"),
]  # fmt: skip


class Event(Frozen):
    """Something that happened at the bench."""

    id: UUID
    writer: Word
    clock: Annotated[int, Field(ge=1, le=MOST_CLOCK)]
    saw: Annotated[dict[Word, Annotated[int, Field(ge=0, le=MOST_CLOCK)]], Field(max_length=most.BENCH_WRITERS)] = Field({})
    """Up to where its writer had seen each other writer."""
    at_s: Annotated[float, Field(ge=0, le=1e11)]
    """When it happened. [s since 1970, UTC]"""
    who: Brief = ""
    what: Deed

    def after(self, other: "Event") -> bool:
        """Whether its writer knew of the other event."""
        return self.clock > other.clock if self.writer == other.writer else self.saw.get(other.writer, 0) >= other.clock


def in_order(events: Iterable[Event]) -> list[Event]:
    """Each once, causes before effects, always the same, without those that were undone."""
    once = {one.id: one for one in sorted(events, key=lambda one: (one.clock, one.writer, str(one.id)), reverse=True)}
    ordered = sorted(once.values(), key=lambda one: (one.clock, one.writer, str(one.id)))
    gone: set[UUID] = set()
    for one in reversed(ordered):
        if isinstance(one.what, Undone) and one.id not in gone:
            gone.add(one.what.of)
    return [one for one in ordered if one.id not in gone and not isinstance(one.what, Undone)]
