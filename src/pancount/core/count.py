"""The count: from what a baker pins to everything else, by the named relations.

Pins are never overridden. Where there are too few, the formula's usual piece, fill and pan stand in, one
at a time and only for what nothing else gives. Where pins cannot hold together, the fight is told: which
pins, and what each would be if it alone were let go.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Annotated, Literal, NamedTuple

from pydantic import Field, ValidationError

from pancount.core.base import Frozen, SomeGrams
from pancount.core.formula import Formula, Usual
from pancount.core.pan import Pan, RectanglePan, RoundPan, area_cm2, volume_ml
from pancount.core.reckon import Reckoned, reckon
from pancount.core.relations import LEFT_OVER, RELATIONS, Relation
from pancount.core.tables import FillRule, fills


class Pins(Frozen):
    """What the baker knows. Anything left out is worked out."""

    flour_g: SomeGrams | None = None
    dough_g: SomeGrams | None = None
    bench_loss: Annotated[float, Field(ge=0, lt=0.5)] | None = None
    divide_g: SomeGrams | None = None
    pieces: Annotated[int, Field(ge=1, le=1_000_000)] | None = None
    piece_g: SomeGrams | None = None
    pans: Annotated[int, Field(ge=1, le=100_000)] | None = None
    pieces_per_pan: Annotated[int, Field(ge=1, le=10_000)] | None = None
    fill: Annotated[float, Field(gt=0, le=1_000)] | None = None

    def known(self) -> dict[str, float]:
        """The pinned quantities by name."""
        return {name: value for name, value in self.__dict__.items() if value is not None}


class Count(Frozen):
    """A baker's count: the pins, the pan, and what was decided about what is left over."""

    pins: Pins = Pins()
    pan: Pan | None = None
    leave_remainder: bool = False
    """The dough left over is meant: a baker's bite."""
    leave_gaps: bool = False
    """The empty places in the last pan are meant."""


# What goes out is plain dataclasses: there are many of them for every key pressed, and they need no checking.


@dataclass(frozen=True, slots=True)
class Worked:
    """A quantity's value and where it came from; `relation` names the rule where it was worked out.

    `usual` and `written` are stand-ins: what the formula usually makes, and its flour as written.
    """

    value: float
    source: Literal["pinned", "worked", "usual", "written", "formula", "pan"]
    relation: str | None = None


@dataclass(frozen=True, slots=True)
class Alternative:
    """What a pinned quantity would be if it alone were let go; None where even that does not settle it."""

    pin: str
    pinned: float
    gives: float | None


@dataclass(frozen=True, slots=True)
class Fight:
    """Pins that cannot hold together, and the relation they break."""

    relation: str
    alternatives: tuple[Alternative, ...]


Kind = Literal[
    "leave_remainder",
    "heavier",
    "lighter",
    "less_dough",
    "more_dough",
    "leave_gaps",
    "spread",
    "fill_lighter",
    "fill_more",
    "fewer_heavier",
    "fewer_less",
]


@dataclass(frozen=True, slots=True)
class Choice:
    """One way to deal with what does not come out whole: the count to take, and what it comes to."""

    kind: Kind
    count: Count
    values: dict[str, float]
    flour_change_g: float
    piece_change_g: float


@dataclass(frozen=True, slots=True)
class Load:
    """How many pans hold how many pieces."""

    pans: int
    pieces: int


class CountResult(Frozen):
    """Everything the count comes to."""

    quantities: dict[str, Worked]
    fights: tuple[Fight, ...]
    choices: tuple[Choice, ...]
    loads: tuple[Load, ...]


PINNABLE = tuple(Pins.model_fields)
MASSES = ("flour_g", "dough_g", "divide_g")
PIECE = ("piece_g", "fill")
PANNING = ("pans", "pieces_per_pan")
OF_PAN = ("pans", "pieces_per_pan", "fill")


class Solution:
    """Values by name, where each came from, and the relations that turned out broken."""

    def __init__(self, pins: Mapping[str, float], given: Mapping[str, Worked]) -> None:
        self.values: dict[str, float] = {name: worked.value for name, worked in given.items()}
        self.broken: list[Relation] = []
        self._given = given
        self._pinned = pins
        self._by: dict[str, Relation] = {}
        self._waiting = [r for r in RELATIONS if "pan_size" in given or not r.of_pan]
        self.values.update(pins)
        self._propagate()

    def _propagate(self) -> None:
        """Use every relation with one unknown left, and check those with none, until nothing moves."""
        values, moved = self.values, True
        while moved and self._waiting:
            moved, still = False, []
            for relation in self._waiting:
                unknown, several = None, False
                for name in relation.over:
                    if name not in values:
                        several = unknown is not None
                        unknown = name
                        if several:
                            break
                if unknown is None:
                    moved = True
                    if not relation.holds(values):
                        self.broken.append(relation)
                elif not several and unknown in relation.ways:
                    moved = True
                    self._give(relation, unknown)
                else:
                    still.append(relation)
            self._waiting = still

    def _give(self, relation: Relation, name: str) -> None:
        self.values[name] = relation.ways[name].reckon(self.values)
        self._by[name] = relation

    def stand_in(self, name: str, value: float) -> None:
        """Let the formula's usual value stand in for `name`, if nothing else gives it."""
        if name not in self.values:
            self.values[name] = value
            self._propagate()

    def finish(self) -> None:
        """What is left over, once all else is known."""
        self._give(LEFT_OVER, "remainder_g")

    def roots(self, relation: Relation) -> frozenset[str]:
        """The pins that a relation's quantities rest on."""
        found: set[str] = set()
        for name in relation.over:
            by = self._by.get(name)
            if name in self._pinned:
                found.add(name)
            elif by is not None and by is not relation:
                found |= self.roots(by)
        return frozenset(found)

    def source(self, name: str) -> str:
        """Where a quantity came from."""
        return self._worked(name, self.values[name]).source

    def worked(self) -> dict[str, Worked]:
        """Every quantity with where it came from."""
        return {name: self._worked(name, value) for name, value in self.values.items()}

    def _worked(self, name: str, value: float) -> Worked:
        if name in self._given:
            return self._given[name]
        if name in self._pinned:
            return Worked(value=value, source="pinned", relation=None)
        by = self._by.get(name)
        if by is None:
            source: Literal["usual", "written"] = "written" if name == "flour_g" else "usual"
            return Worked(value=value, source=source, relation=None)
        return Worked(value=value, source="worked", relation=by.key)


def pan_size(pan: RectanglePan | RoundPan, rule: FillRule) -> float:
    """What the fill is measured against: the pan's area [cm²] or its brim volume [ml]."""
    return area_cm2(pan) if rule.per == "area" else volume_ml(pan)


def fill_rule(usual: Usual) -> FillRule:
    """The formula's fill rule; an unknown kind reads as pull-apart buns, so that an old formula still opens."""
    return fills().get(usual.fill_kind, fills()["pull_apart_buns"])


class _Counter:
    """Solves counts for one formula and one pan, so that choices and fights are reckoned the same way."""

    def __init__(self, formula: Formula, reckoned: Reckoned, pan: RectanglePan | RoundPan | None) -> None:
        self.usual = formula.usual
        self.rule = fill_rule(formula.usual)
        self.written_flour_g = reckoned.flour_g
        self.pan = pan
        self.loss = {"bench_loss": Worked(value=formula.usual.bench_loss, source="usual")}
        self.given = {"total_percent": Worked(value=reckoned.total_percent, source="formula")}
        if pan is not None:
            self.given["pan_size"] = Worked(value=pan_size(pan, self.rule), source="pan")

    def solve(self, pins: Mapping[str, float]) -> Solution:
        """Pins and the bench loss first, then stand-ins: pieces a pan, fill or piece, pans or flour as written."""
        usual = self.usual
        if self.pan is None:
            # Without a pan these say nothing, so they neither help nor fight.
            pins = {name: value for name, value in pins.items() if name not in OF_PAN}
        solution = Solution(pins, self.given if "bench_loss" in pins else self.given | self.loss)
        if self.pan is not None:
            solution.stand_in("pieces_per_pan", usual.pieces_per_pan)
            if solution.values["pieces_per_pan"] == 1:
                solution.stand_in("fill", usual.fill or self.rule.usual)
            solution.stand_in("piece_g", usual.piece_g)
            solution.stand_in("pans", usual.pans)
        else:
            solution.stand_in("piece_g", usual.piece_g)
        solution.stand_in("flour_g", self.written_flour_g)
        solution.finish()
        return solution

    def fights(self, pins: Mapping[str, float], solution: Solution) -> tuple[Fight, ...]:
        """Each broken relation once, with what every pin in it would be if it alone were let go."""
        fights, told = [], set[frozenset[str]]()
        for relation in solution.broken:
            roots = solution.roots(relation)
            if roots in told:
                continue
            told.add(roots)
            alternatives = []
            for name in sorted(roots, key=PINNABLE.index):
                freed = self.solve(_but(pins, [name]))
                settles = not any(roots & freed.roots(other) for other in freed.broken)
                alternatives.append(
                    Alternative(pin=name, pinned=pins[name], gives=freed.values[name] if settles else None)
                )
            fights.append(Fight(relation=relation.key, alternatives=tuple(alternatives)))
        return tuple(fights)

    def settle(self, pins: Mapping[str, float], let_go: Iterable[str]) -> tuple[Mapping[str, float], Solution]:
        """Release pins in the order of `let_go` until none fight."""
        solution = self.solve(pins)
        for name in let_go:
            if any(name in solution.roots(relation) for relation in solution.broken):
                pins = _but(pins, [name])
                solution = self.solve(pins)
        return pins, solution


def _but(pins: Mapping[str, float], drop: Iterable[str] = (), **changes: float) -> dict[str, float]:
    """Pins with some let go and others set."""
    return {name: value for name, value in pins.items() if name not in drop} | changes


class _Plan(NamedTuple):
    """A candidate choice: the pins to try, those to let go if they fight, and what is decided with it."""

    kind: Kind
    pins: Mapping[str, float]
    let_go: tuple[str, ...] = ()
    decides: Literal["", "leave_remainder", "leave_gaps"] = ""


def _plans(count: Count, solution: Solution) -> list[_Plan]:
    """What could be done about a remainder; or, where there is none, about a last pan that is not full."""
    v, pins = solution.values, count.pins.known()
    n, pans, per_pan = int(v["pieces"]), int(v.get("pans", 0)), int(v.get("pieces_per_pan", 0))
    keep_dough = {} if any(m in pins for m in MASSES) else {"flour_g": v["flour_g"]}

    def same_dough(kind: Kind, pieces: int, **also: float) -> _Plan:
        return _Plan(kind, _but(pins, PIECE, pieces=pieces, **keep_dough, **also), PANNING)

    def same_piece(kind: Kind, pieces: int, **also: float) -> _Plan:
        return _Plan(kind, _but(pins, MASSES, pieces=pieces, **also), PANNING)

    if v["remainder_g"] > 1e-6 * v["divide_g"] and not count.leave_remainder:
        return [
            _Plan("leave_remainder", pins, decides="leave_remainder"),
            same_dough("heavier", n),
            same_dough("lighter", n + 1),
            same_piece("less_dough", n),
            same_piece("more_dough", n + 1),
        ]
    if pans and n % per_pan and not count.leave_gaps and solution.source("pieces_per_pan") != "worked":
        fewer = {"pans": pans - 1} if "pans" in pins else {}
        spread = _but(pins, pieces=n, pans=pans, pieces_per_pan=-(-n // pans))
        return [
            _Plan("leave_gaps", pins, decides="leave_gaps"),
            *([_Plan("spread", spread, ("fill",), "leave_gaps")] if -(-n // pans) < per_pan else []),
            same_dough("fill_lighter", pans * per_pan),
            same_piece("fill_more", pans * per_pan),
            same_dough("fewer_heavier", (pans - 1) * per_pan, **fewer),
            same_piece("fewer_less", (pans - 1) * per_pan, **fewer),
        ]
    return []


SHOWN = ("flour_g", "divide_g", "pieces", "piece_g", "remainder_g", "pans", "pieces_per_pan", "fill")


def _choices(counter: _Counter, count: Count, solution: Solution) -> tuple[Choice, ...]:
    """The plans that hold, those that move the piece, the flour and the leavings least first."""
    now, choices = solution.values, []
    for plan in _plans(count, solution):
        if plan.pins.get("pieces") == 0:
            continue
        pins, then = counter.settle(plan.pins, plan.let_go)
        if then.broken:
            continue
        try:
            taken = Count(
                pins=Pins.model_validate(pins),
                pan=count.pan,
                leave_remainder=count.leave_remainder or plan.decides == "leave_remainder",
                leave_gaps=count.leave_gaps or plan.decides == "leave_gaps",
            )
        except ValidationError:  # more pieces or pans than can be pinned
            continue
        choices.append(
            Choice(
                kind=plan.kind,
                count=taken,
                values={name: then.values[name] for name in SHOWN if name in then.values},
                flour_change_g=then.values["flour_g"] - now["flour_g"],
                piece_change_g=then.values["piece_g"] - now["piece_g"],
            )
        )

    def moved(choice: Choice) -> float:
        left = choice.values["remainder_g"] / choice.values["divide_g"]
        return left + abs(choice.flour_change_g) / now["flour_g"] + abs(choice.piece_change_g) / now["piece_g"]

    return tuple(sorted(choices, key=moved))


def _loads(values: Mapping[str, float]) -> tuple[Load, ...]:
    """Full pans first and the rest in the last one; evenly where pieces a pan is just what even sharing needs."""
    if not values.get("pans"):
        return ()
    pieces, pans, per_pan = int(values["pieces"]), int(values["pans"]), int(values["pieces_per_pan"])
    if per_pan == -(-pieces // pans):
        few, more = divmod(pieces, pans)
        loads = [(more, few + 1), (pans - more, few)]
    else:
        full, rest = divmod(pieces, per_pan)
        loads = [(full, per_pan), (1 if rest else 0, rest)]
    return tuple(Load(pans=k, pieces=n) for k, n in loads if k and n)


def solve(formula: Formula, count: Count, reckoned: Reckoned | None = None) -> CountResult:
    """Work out everything a count leaves open.

    `reckoned` saves reckoning the formula twice. Raises what `reckon` raises; fighting pins and dough that
    does not divide are results, not errors.
    """
    reckoned = reckoned or reckon(formula)
    counter = _Counter(formula, reckoned, count.pan)
    pins = count.pins.known()
    solution = counter.solve(pins)
    fights = counter.fights(pins, solution)
    return CountResult(
        quantities=solution.worked(),
        fights=fights,
        choices=() if fights else _choices(counter, count, solution),
        loads=() if fights else _loads(solution.values),
    )
