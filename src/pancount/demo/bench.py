"""Weir House kitchen's bench: bagels in the middle of their weighing, and milk buns that are done."""

from datetime import UTC, datetime, timedelta
from itertools import count
from uuid import NAMESPACE_URL, UUID, uuid5

from sqlalchemy.orm import Session

from pancount.core.base.scale import Scale
from pancount.core.bench.begun import Begun, begin
from pancount.core.bench.events import (
    Added,
    Began,
    Deed,
    Done,
    Ended,
    Event,
    LookedAt,
    Measurement,
    Noted,
    Piece,
    Weighed,
)
from pancount.core.bench.state import bake_now
from pancount.core.formula.practice import Practice
from pancount.core.heat.climate import Climate
from pancount.core.pans.kit import Kit
from pancount.core.pantry.role import Role
from pancount.store.bench import append, begin_bake
from pancount.store.formula import get_formula, list_formulas
from pancount.store.kitchen import ONLY_KITCHEN

PIECES = (78, 79, 77, 78, 80, 77, 78, 76, 79, 78, 77, 78, 79, 78, 77, 78, 81, 78, 77, 79, 78, 76, 78, 77)
"""Milk buns as they came off the scale. [g]"""
BAKED_G = 1_634.0
MILK_G = 24.0
"""Added at the mixer, as at the bakes before."""
WEIGHED = 2
"""Lines of the bagels that are in."""
OVER_G = 9.0


class Telling:
    """What happened of one bake, told in order."""

    def __init__(self, begun: Begun, begun_at: datetime, who: str, name: str = "") -> None:
        self.begun, self.who, self.name = begun, who, name or begun.formula.name
        self.at_s = begun_at.timestamp()
        self.events: list[Event] = []
        self._clock = count(1)

    def then(self, minutes: float, *deeds: Deed) -> None:
        """So much later this happened."""
        self.at_s += minutes * 60
        for deed in deeds:
            clock = next(self._clock)
            name = uuid5(NAMESPACE_URL, f"weir-house:{self.name}:{clock}")
            self.events.append(Event(id=name, writer=f"demo {self.who}", clock=clock, at_s=self.at_s, who=self.who, what=deed))


def begun_here(session: Session, name: str, kit: Kit, scale: Scale) -> tuple[Begun, int, int]:
    """A bake of a formula as it lies on its desk, with the formula's number and revision."""
    number = next(head.id for head in list_formulas(session, ONLY_KITCHEN, archived=False) if head.name == name)
    state = get_formula(session, ONLY_KITCHEN, number)
    return begin(state.formula, state.count, (), Practice(), kit, Climate(), scale), number, state.head.latest_number


def _kept(session: Session, telling: Telling, begun_at: datetime, formula_id: int, revision: int) -> None:
    bake: UUID = uuid5(NAMESPACE_URL, f"weir-house:{telling.begun.formula.name}")
    begin_bake(session, ONLY_KITCHEN, bake, telling.begun, formula_id, revision, begun_at)
    for first in range(0, len(telling.events), 100):
        append(session, ONLY_KITCHEN, bake, telling.events[first : first + 100])


def at_the_bench(session: Session, kit: Kit, scale: Scale) -> None:
    """Begin both bakes, and tell what happened of them."""
    now = datetime.now(UTC)
    begun, number, revision = begun_here(session, "Cardamom milk buns", kit, scale)
    begun_at = now - timedelta(days=6, hours=5)
    buns = Telling(begun, begun_at, "Tablet")
    state = bake_now(begun, (), buns.at_s)
    for line in state.lines:
        if line.target_g is not None:
            buns.then(0.4, Weighed(line=line.key, g=line.target_g, by="scale"))
    for task in state.tasks:
        if task.kind == "rise" and not task.on:
            milk = max((line for line in state.lines if line.role == str(Role.LIQUID) and line.what == "line"), key=lambda line: line.target_g or 0.0)
            buns.then(0, Added(line=milk.key, g=MILK_G, by="scale"), Measurement(what="dough_c", value=26.5, task=task.key))
        if task.kind == "divide":
            buns.then(1, Measurement(what="dough_g", value=sum(PIECES) + 6.0, task=task.key), *(Piece(g=g, by="scale") for g in PIECES))
        if task.kind == "cool":
            buns.then(0, Measurement(what="middle_c", value=91.0))
        buns.then(0.2, Began(task=task.key))
        if task.kind == "test":
            buns.then(1, LookedAt(task=task.key, passed=False))
            buns.then(2, LookedAt(task=task.key, passed=True))
        buns.then(task.usual_min, Done(task=task.key))
    buns.then(2, Measurement(what="baked_g", value=BAKED_G, pieces=len(PIECES)), Noted(text="A shade pale at the edge of the back pan."), Ended(how="done"))
    _kept(session, buns, begun_at, number, revision)

    begun, number, revision = begun_here(session, "Malted seed bagels", kit, scale)
    begun_at = now - timedelta(minutes=14)
    bagels = Telling(begun, begun_at, "Tablet")
    state = bake_now(begun, (), bagels.at_s)
    apart = [task for task in state.tasks if task.on and task.mix == 0]
    made = [line for line in state.lines if line.mix == 0 and line.what in ("line", "held_back") and any(task.on == line.of for task in apart)]
    for line in made:
        bagels.then(0.3, Weighed(line=line.key, g=line.target_g or 0.0, by="scale"))
    for task in apart:
        bagels.then(0.2, Began(task=task.key), Done(task=task.key))
    dough = [line for line in state.lines if line.mix == 0 and line.what == "line" and line not in made][:WEIGHED]
    for line in dough[:-1]:
        bagels.then(0.5, Weighed(line=line.key, g=line.target_g or 0.0, by="scale"))
    bagels.then(0.5, Weighed(line=dough[-1].key, g=(dough[-1].target_g or 0.0) + OVER_G, by="scale"))
    _kept(session, bagels, begun_at, number, revision)
