"""Whole numbers: dough that does not divide evenly, or a last pan that is not full, is a decision with several ways out."""

from collections.abc import Iterable, Mapping
from typing import Literal, NamedTuple

import numpy as np
from pydantic import ValidationError
from scipy.optimize import Bounds, LinearConstraint, milp

from pancount.core.count.count import Count, with_pins
from pancount.core.count.counter import Counter
from pancount.core.count.relations import bare, of
from pancount.core.count.result import Choice, Kind
from pancount.core.count.solver import PinValues, Solution, but

MASSES = ("flour_g", "dough_g", "divide_g")
PIECE = ("piece_g", "baked_g", "fill")
PANNING = ("pans", "pieces_per_pan")

Decides = Literal["", "leave_remainder", "leave_gaps"]


class Plan(NamedTuple):
    """A candidate choice: the pins to try, those to let go if they fight, and what is decided with it."""

    kind: Kind
    pins: PinValues
    let_go: tuple[str, ...] = ()
    decides: Decides = ""


def names_of(names: Iterable[str], target: int) -> tuple[str, ...]:
    """Quantities of a target."""
    return tuple(of(name, target) for name in names)


class _Planner:
    """Plans for one target of a solved count. The others stay as they are, whatever they rest on."""

    def __init__(self, count: Count, solution: Solution, target: int) -> None:
        self.count, self.solution, self.target = count, solution, target
        self.values = solution.values
        self.pins = dict(count.known())
        self.own = {name: of(name, target) for name in ("pieces", "piece_g", "take_g", *PANNING)}
        for j in range(len(count.targets)):
            if j != target and self.values[of("pieces", j)] >= 1:
                for name in names_of(("pieces", "piece_g"), j):
                    self.pins[name] = self.values[name]
                self.pins.pop(of("take_g", j), None)

    @property
    def pieces(self) -> int:
        """How many there are now."""
        return int(self.values[self.own["pieces"]])

    @property
    def dough_is_pinned(self) -> bool:
        """Whether the dough, or this target's part of it, is pinned."""
        return any(name in self.pins for name in (*MASSES, self.own["take_g"]))

    def same_dough(self, kind: Kind, pieces: int, **also: float) -> Plan:
        """So many pieces from the dough there is."""
        keep = {} if self.dough_is_pinned else {"flour_g": self.values["flour_g"]}
        changes = {self.own["pieces"]: pieces, **keep, **{of(k, self.target): v for k, v in also.items()}}
        return Plan(kind, but(self.pins, names_of(PIECE, self.target)) | changes, names_of(PANNING, self.target))

    def same_piece(self, kind: Kind, pieces: int, **also: float) -> Plan:
        """So many pieces of the weight they have."""
        changes = {self.own["pieces"]: pieces, **{of(k, self.target): v for k, v in also.items()}}
        free = but(self.pins, (*MASSES, self.own["take_g"])) | changes
        return Plan(kind, free, names_of(PANNING, self.target))

    def over(self) -> list[Plan]:
        """What could be done about a remainder."""
        n = self.pieces
        return [
            Plan("leave_remainder", self.count.known(), decides="leave_remainder"),
            self.same_dough("heavier", n),
            self.same_dough("lighter", n + 1),
            self.same_piece("less_dough", n),
            self.same_piece("more_dough", n + 1),
            *self._shared(),
        ]

    def _shared(self) -> list[Plan]:
        """Whole pieces over all targets whose number is open that use the dough up best, each no more than a few away."""
        free = [i for i in range(len(self.count.targets)) if of("pieces", i) not in self.count.known()]
        if len(free) < 2 or not self.dough_is_pinned:
            return []
        weights = np.array([self.values[of("piece_g", i)] for i in free])
        now = np.array([self.values[of("pieces", i)] for i in free])
        fixed = sum(
            self.values[of("pieces", i)] * self.values[of("piece_g", i)]
            for i in range(len(self.count.targets))
            if i not in free
        )
        room = self.values["divide_g"] - fixed
        # As much dough as fits; by a hair, what moves the larger pieces least.
        found = milp(
            -weights * (1 + 1e-6 * np.arange(len(free))),
            constraints=LinearConstraint(weights, ub=room * (1 + 1e-12)),
            bounds=Bounds(np.maximum(1, now - FEW), now + FEW),
            integrality=np.ones(len(free)),
        )
        if not found.success:
            return []
        pieces = {of("pieces", i): int(n + 0.5) for i, n in zip(free, found.x, strict=True)}
        if all(self.values[name] == n for name, n in pieces.items()):
            return []
        # What each piece weighs stays, so that the little still over is told.
        return [Plan("shared", self.count.known() | pieces | {of("piece_g", i): float(w) for i, w in zip(free, weights, strict=True)})]

    def gaps(self) -> list[Plan]:
        """What could be done about a last pan that is not full."""
        values, n = self.values, self.pieces
        pans, per_pan = (int(values[self.own[name]]) for name in PANNING)
        fewer = {"pans": pans - 1} if self.own["pans"] in self.pins else {}
        even = -(-n // pans)
        spread = self.pins | {self.own["pieces"]: n, self.own["pans"]: pans, self.own["pieces_per_pan"]: even}
        return [
            Plan("leave_gaps", self.count.known(), decides="leave_gaps"),
            *([Plan("spread", spread, (of("fill", self.target),), "leave_gaps")] if even < per_pan else []),
            self.same_dough("fill_lighter", pans * per_pan),
            self.same_piece("fill_more", pans * per_pan),
            self.same_dough("fewer_heavier", (pans - 1) * per_pan, **fewer),
            self.same_piece("fewer_less", (pans - 1) * per_pan, **fewer),
        ]

    def plans(self) -> list[Plan]:
        """What could be done about a remainder; or, where there is none, about a last pan that is not full."""
        values, count = self.values, self.count
        if values["remainder_g"] > 1e-6 * values["divide_g"] and not count.leave_remainder:
            return self.over()
        pans, per_pan = (int(values.get(self.own[name], 0)) for name in PANNING)
        worked = pans and self.solution.source(self.own["pieces_per_pan"]) == "worked"
        if pans and self.pieces % per_pan and not count.targets[self.target].leave_gaps and not worked:
            return self.gaps()
        return []

    def more(self) -> list[Plan]:
        """A little more on purpose; from the same dough where that is pinned."""
        make = self.same_dough if self.dough_is_pinned else self.same_piece
        dozens = self.pieces // 12
        return [*([make("dozen", self.pieces + dozens)] if dozens else []), make("spare", self.pieces + 1)]


FEW = 6
"""How far the pieces of a target may move when several share what is over."""


def settle(counter: Counter, count: Count, plan: Plan) -> tuple[PinValues, Solution]:
    """Release pins in the order of the plan's `let_go` until none fight."""
    pins: PinValues = plan.pins
    solution = counter.solve(pins, count.limits)
    for name in plan.let_go:
        if any(name in solution.roots(relation) for relation in solution.broken):
            pins = but(pins, [name])
            solution = counter.solve(pins, count.limits)
    return pins, solution


SHOWN = ("pieces", "piece_g", "pans", "pieces_per_pan", "fill", "baked_g")


def _chosen(counter: Counter, count: Count, now: Mapping[str, float], plan: Plan, target: int) -> Choice | None:
    """A plan as a choice; None where it does not hold or cannot be pinned."""
    if plan.pins.get(of("pieces", target)) == 0:
        return None
    pins, then = settle(counter, count, plan)
    if then.broken:
        return None
    try:
        taken = with_pins(count, dict(pins))
    except ValidationError:  # more pieces or pans than can be pinned
        return None
    if plan.decides == "leave_remainder":
        taken = taken.model_copy(update={"leave_remainder": True})
    elif plan.decides == "leave_gaps":
        own = taken.targets[target].model_copy(update={"leave_gaps": True})
        taken = taken.model_copy(update={"targets": (*taken.targets[:target], own, *taken.targets[target + 1 :])})
    values, piece = then.values, of("piece_g", target)
    return Choice(
        kind=plan.kind,
        target=target,
        count=taken,
        values={k: v for k, v in values.items() if bare(k) in SHOWN or k in ("flour_g", "divide_g", "remainder_g")},
        flour_change_g=values["flour_g"] - now["flour_g"],
        piece_change_g=values[piece] - now[piece],
    )


def choices(counter: Counter, count: Count, solution: Solution, target: int) -> tuple[Choice, ...]:
    """The ways out that hold, those that move the piece, the flour and the leavings least first."""
    now = solution.values
    if not now["flour_g"] or not now[of("piece_g", target)]:
        return ()

    def moved(choice: Choice) -> float:
        left = choice.values["remainder_g"] / choice.values["divide_g"]
        piece = abs(choice.piece_change_g) / now[of("piece_g", target)]
        return left + abs(choice.flour_change_g) / now["flour_g"] + piece

    plans = _Planner(count, solution, target).plans()
    found = (_chosen(counter, count, now, plan, target) for plan in plans)
    return tuple(sorted((choice for choice in found if choice is not None), key=moved))


def extras(counter: Counter, count: Count, solution: Solution, target: int) -> tuple[Choice, ...]:
    """A baker's dozen and a spare piece, where there are pieces at all."""
    if not solution.values[of("pieces", target)]:
        return ()
    plans = _Planner(count, solution, target).more()
    found = (_chosen(counter, count, solution.values, plan, target) for plan in plans)
    return tuple(choice for choice in found if choice is not None)
