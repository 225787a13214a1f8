"""Bakes for the tests: of the demo kitchen's formulas, and events as devices write them."""

from functools import cache
from uuid import UUID, uuid5

from pancount.core.base.scale import Scale
from pancount.core.bench.begun import Begun, begin
from pancount.core.bench.events import Deed, Event
from pancount.core.bench.state import BakeNow, LineNow, TaskNow, bake_now
from pancount.core.count.count import Count, one_target
from pancount.core.formula.formula import Formula, Line, Stage, Usual
from pancount.core.formula.practice import Practice
from pancount.core.heat.climate import Climate
from pancount.core.pans.kit import Kit
from pancount.core.pantry.role import Role
from pancount.demo.weir_house import KIT, SCALES, examples

NAMES = UUID(int=16)
BEGUN_S = 1_764_000_000.0
"""When the bakes of the tests were begun. [s since 1970]"""


@cache
def begun(name: str) -> Begun:
    """A bake of a demo formula as it lies on its desk."""
    formula, count = next(one for one in examples() if one[0].name == name)
    return begin(formula, count, (), Practice(), KIT, Climate(), SCALES)


@cache
def plain(flour_g: float = 500, water_g: float = 300, *, pieces: int | None = 10, piece_g: float | None = None, step: str = "1") -> Begun:
    """A bake of one bowl: flour, water, salt, yeast; no method written."""
    lines = (("Bread flour", Role.FLOUR, flour_g), ("Water", Role.LIQUID, water_g), ("Fine salt", Role.SALT, flour_g * 0.02), ("Instant yeast", Role.LEAVEN, flour_g * 0.01))
    dough = Stage(name="Dough", lines=tuple(Line(name=name, role=role, weight_g=g) for name, role, g in lines))
    total = sum(g for _, _, g in lines)
    formula = Formula(name="Weir rolls", stages=(dough,), usual=Usual(piece_g=80, bench_loss=0.02))
    pins = {"dough_g": total} | ({"pieces": pieces} if pieces else {}) | ({"piece_g": piece_g} if piece_g else {})
    return begin(formula, one_target(leave_remainder=True, **pins), (), Practice(), Kit(), Climate(), Scale.model_validate({"step": step}))


class Writer:
    """One window that writes events, and what it has seen of others."""

    def __init__(self, name: str = "tablet") -> None:
        self.name, self.seen, self.events = name, dict[str, int](), list[Event]()
        self.at_s = BEGUN_S

    def did(self, *deeds: Deed, after_min: float = 0.0) -> list[Event]:
        """These happened, so much later."""
        self.at_s += after_min * 60
        own = []
        for deed in deeds:
            clock = max([*self.seen.values(), 0]) + 1
            saw, self.seen[self.name] = dict(self.seen), clock
            own.append(Event(id=uuid5(NAMES, f"{self.name}.{clock}"), writer=self.name, clock=clock, saw=saw, at_s=self.at_s, who=self.name, what=deed))
        self.events += own
        return own

    def saw(self, other: "Writer") -> None:
        """It hears of all that another wrote so far, and of what that one had heard of."""
        for name, clock in other.seen.items():
            self.seen[name] = max(self.seen.get(name, 0), clock)


def now(of: Begun, *writers: Writer) -> BakeNow:
    """The bake after all that they wrote."""
    return bake_now(of, [event for writer in writers for event in writer.events], BEGUN_S)


def line(bake: BakeNow, name: str, mix: int = 0, what: str = "line") -> LineNow:
    """A line to weigh by its name."""
    return next(one for one in bake.lines if one.name == name and one.mix == mix and one.what == what)


def task(bake: BakeNow, kind: str, mix: int = 0) -> TaskNow:
    """The first thing to do of a kind, on the dough itself."""
    return next(one for one in bake.tasks if one.kind == kind and not one.on and one.mix == mix)


def counted(formula: Formula, count: Count, kit: Kit | None = None) -> Begun:
    """A bake of a formula of the test's own."""
    return begin(formula, count, (), Practice(), kit or Kit(), Climate(), Scale())
