"""From pins to all quantities by propagation, with stand-ins where there are too few pins."""

from collections.abc import Mapping
from math import inf, isfinite

from pancount.core.base import interned
from pancount.core.count import Count, Source, Target, Worked, fill_rule, pan_size
from pancount.core.formula import Usual
from pancount.core.kit import Kit
from pancount.core.limits import Ground, Limit, Lot, linear, load_takes, most_pieces, room_of, sheet_room
from pancount.core.pan import DOUGH_G_PER_ML, AnyPan
from pancount.core.relations import RANGES, Bound, bare, batch_relations, bound, left_over, of, whole
from pancount.core.shaping import Shaping, baked_across_cm, shape
from pancount.core.tables import FillRule

PinValues = Mapping[str, float]


class Solution:
    """Values by name, where each came from, and the relations that turned out broken."""

    def __init__(self, pins: PinValues, given: Mapping[str, Worked], relations: list[Bound]) -> None:
        self.values: dict[str, float] = {name: worked.value for name, worked in given.items()}
        self.broken: list[Bound] = []
        self._given = given
        self._pinned = pins
        self._by: dict[str, Bound] = {}
        self._stood: dict[str, Source] = {}
        self._waiting = relations
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

    def _give(self, relation: Bound, name: str) -> None:
        try:
            value = relation.ways[name](self.values)
        except ZeroDivisionError:  # shared among no pieces at all: only where other pins leave none
            value = -1.0
        low, high = RANGES.get(bare(name), (-inf, inf))
        if not low <= value <= high:
            self.broken.append(relation)
            value = min(max(value, low), high)
        self.values[name] = value
        self._by[name] = relation

    def stand_in(self, name: str, value: float, source: Source = "usual") -> None:
        """Let a value stand in for `name`, if nothing else gives it."""
        if name not in self.values:
            self.values[name] = value
            self._stood[name] = source
            self._propagate()

    def finish(self, targets: int) -> None:
        """What is left over, once all else is known."""
        self._give(left_over(targets), "remainder_g")

    def roots(self, relation: Bound) -> frozenset[str]:
        """The pins that a relation's quantities rest on."""
        found: set[str] = set()
        seen: set[str] = set()
        waiting = [relation]
        while waiting:
            one = waiting.pop()
            for name in one.over:
                if name in self._pinned:
                    found.add(name)
                elif name not in seen:
                    seen.add(name)
                    by = self._by.get(name)
                    if by is not None and by is not relation:
                        waiting.append(by)
        return frozenset(found)

    def source(self, name: str) -> Source:
        """Where a quantity came from."""
        return self._worked(name, self.values[name]).source

    def worked(self) -> dict[str, Worked]:
        """Every quantity with where it came from."""
        return {name: self._worked(name, value) for name, value in self.values.items()}

    def _worked(self, name: str, value: float) -> Worked:
        if name in self._pinned:
            return Worked(value, "pinned")
        if name in self._given:
            return self._given[name]
        by = self._by.get(name)
        return Worked(value, self._stood.get(name, "usual")) if by is None else Worked(value, "worked", by.key)


class Aim:
    """A target with its rules: what a Counter needs of it, whatever is pinned."""

    def __init__(self, target: Target, usual: Usual, bran: float = 0.0) -> None:
        """`bran`: how much of the flour is wholemeal or rye, as a share."""
        self.bran = bran
        self.pan: AnyPan | None = interned(target.pan)
        self.kind = target.fill_kind or usual.fill_kind
        self.rule: FillRule = fill_rule(self.kind)
        self.shaping: Shaping = target.shaping or usual.shaping
        own = target.fill_kind in (None, usual.fill_kind)
        self.usual_fill = (usual.fill if own else None) or self.rule.usual
        self.bake_loss = usual.bake_loss if own and usual.bake_loss is not None else self.rule.loss
        self.gap_cm = usual.gap_cm if own and usual.gap_cm is not None else self.rule.gap_cm
        self.bake_min = usual.bake_min if own and usual.bake_min is not None else self.rule.bake_min

    def lot(self, piece_g: float, pieces_per_pan: float, pieces: float) -> Lot:
        """Its pieces as kit sees them."""
        shaped = shape(self.shaping, piece_g, int(pieces_per_pan if self.pan is not None else pieces))
        return Lot(
            pan=self.pan,
            pieces_per_pan=int(pieces_per_pan),
            raw_across_cm=shaped.across_cm,
            baked_across_cm=baked_across_cm(shaped, self.rule.baked_ml(1, self.bake_loss, self.bran) * DOUGH_G_PER_ML),
            gap_cm=self.gap_cm,
            bake_min=self.bake_min,
        )


class Counter:
    """Solves counts for one formula and its targets, so that choices, limits and fights are reckoned the same way."""

    def __init__(
        self, usual: Usual, total_percent: float, written_flour_g: float, count: Count, ground: Ground
    ) -> None:
        self.usual = usual
        self.total_percent = total_percent
        self.written_flour_g = written_flour_g
        self.ground = ground
        self.kit: Kit = ground.kit
        self.aims = [Aim(target, usual, ground.bran) for target in count.targets]
        self.given: dict[str, Worked] = {"total_percent": Worked(total_percent, "formula")}
        relations = list(batch_relations(len(self.aims)))
        for i, aim in enumerate(self.aims):
            relations += bound(i, with_pan=aim.pan is not None)
            if aim.pan is not None:
                self.given[of("pan_size", i)] = Worked(pan_size(aim.pan, aim.rule), "pan")
        self._relations = relations

    def solve(self, pins: PinValues, limits: tuple[Limit, ...] = ()) -> Solution:
        """Pins and losses first, then stand-ins: pieces a pan, fill or piece, and how many of each is made."""
        given = self.given
        if "bench_loss" not in pins:
            given = given | {"bench_loss": Worked(self.usual.bench_loss, "usual")}
        solution = Solution(pins, given, self._relations)
        for i, aim in enumerate(self.aims):
            self._stand_in_piece(solution, i, aim)
        self._stand_in_numbers(solution, limits)
        solution.finish(len(self.aims))
        return solution

    def _stand_in_piece(self, solution: Solution, i: int, aim: Aim) -> None:
        """The baking loss; pieces a pan; and what one weighs, from the fill of a slab or as usual."""
        # A baked weight gives the raw one by the usual loss, unless both are known: then the loss follows from them.
        if of("piece_g", i) not in solution.values or of("baked_g", i) not in solution.values:
            solution.stand_in(of("bake_loss", i), aim.bake_loss)
        if aim.pan is not None:
            solution.stand_in(of("pieces_per_pan", i), self._pieces_per_pan(solution, i, aim))
            if solution.values[of("pieces_per_pan", i)] == 1:
                solution.stand_in(of("fill", i), aim.usual_fill)
        if aim.pan is None or of("fill", i) not in solution.values:
            solution.stand_in(of("piece_g", i), self.usual.piece_g)
        solution.stand_in(of("bake_loss", i), aim.bake_loss)

    def _pieces_per_pan(self, solution: Solution, i: int, aim: Aim) -> int:
        """As many as usual; on a sheet, as many as lie apart on it; in cups, one each."""
        assert aim.pan is not None
        if aim.pan.shape == "cups":
            return aim.pan.cups
        if aim.rule.pieces == "apart":
            piece_g = solution.values.get(of("piece_g", i), self.usual.piece_g)
            room = sheet_room(aim.lot(piece_g, 2, 2), self.kit)
            if room is not None and room.holds:
                return room.holds
        if aim.kind == self.usual.fill_kind:
            return self.usual.pieces_per_pan
        return 1 if aim.rule.pieces == "one" else Usual().pieces_per_pan

    def _stand_in_numbers(self, solution: Solution, limits: tuple[Limit, ...]) -> None:
        """How many of each target there are, where nothing tells: up to the limits, shared evenly, or as usual."""
        values = solution.values
        open_ = [i for i in range(len(self.aims)) if of("pieces", i) not in values]
        known = "divide_g" in values
        most_g = self._most_divide(solution, limits)
        if not known and open_ and (isfinite(most_g) or self._caps(solution, limits, open_)):
            self._up_to_limits(solution, limits, open_, most_g)
        elif known and len(open_) > 1:
            self._shared(solution, open_, values["divide_g"])
        elif not known and len(self.aims) > 1:
            for i in open_:
                if self.aims[i].pan is not None:
                    solution.stand_in(of("pans", i), self.usual.pans)
                else:
                    solution.stand_in(of("pieces", i), self._of_written(values, i))
        elif open_ and self.aims[0].pan is not None:
            solution.stand_in(of("pans", 0), self.usual.pans)
        solution.stand_in("flour_g", self.written_flour_g, "written")

    def _untaken(self, values: PinValues, divide_g: float) -> float:
        """What is left of so much dough once the targets that are known have theirs. [g]"""
        return divide_g - sum(values.get(of("take_g", i), 0.0) for i in range(len(self.aims)))

    def _of_written(self, values: PinValues, i: int) -> int:
        """Whole pieces of a target's even share of the dough as written; at least one."""
        written = self.written_flour_g * self.total_percent / 100 * (1 - values["bench_loss"])
        return max(1, whole(written / len(self.aims) / values[of("piece_g", i)]))

    def _most_divide(self, solution: Solution, limits: tuple[Limit, ...]) -> float:
        """The most dough to divide that limits on flour, ingredients and the bowl allow."""
        flour = [most for limit in limits if (most := linear(limit, self.ground, self.total_percent)) is not None]
        return min(flour, default=inf) * self.total_percent / 100 * (1 - solution.values["bench_loss"])

    def lot(self, solution: Solution, i: int) -> Lot:
        """A target's pieces as kit sees them."""
        values = solution.values
        return self.aims[i].lot(
            values[of("piece_g", i)], values.get(of("pieces_per_pan", i), 0), values.get(of("pieces", i), 1)
        )

    def _caps(self, solution: Solution, limits: tuple[Limit, ...], open_: list[int]) -> bool:
        return any(
            isfinite(most_pieces(limit, self.lot(solution, i), self.ground, 0.0)) for limit in limits for i in open_
        )

    def _up_to_limits(self, solution: Solution, limits: tuple[Limit, ...], open_: list[int], most_g: float) -> None:
        """Whole pieces of each open target in turn, each given its even share of what the limits leave; at least one, which a limit then tells of."""
        values = solution.values
        free = self._untaken(values, most_g)
        taken = dict.fromkeys(range(len(limits)), 0.0)

        def take(i: int, pieces: float) -> None:
            lot = self.lot(solution, i)
            for n, limit in enumerate(limits):
                if (room := room_of(limit.kind, lot, self.kit)) is not None:
                    taken[n] += room.loads(pieces) * load_takes(limit, lot)

        for i in range(len(self.aims)):
            if i not in open_:
                take(i, values[of("pieces", i)])
        for turn, i in enumerate(open_):
            piece_g, lot = values[of("piece_g", i)], self.lot(solution, i)
            by_dough = whole(max(0.0, free) / (len(open_) - turn) / piece_g) if isfinite(free) else inf
            caps = [most_pieces(limit, lot, self.ground, taken[n]) for n, limit in enumerate(limits)]
            pieces = min(by_dough, *caps) if caps else by_dough
            if not isfinite(pieces):
                pieces = self._of_written(values, i)
            pieces = max(1, int(pieces))
            solution.stand_in(of("pieces", i), pieces, "limit")
            free -= pieces * piece_g
            take(i, pieces)

    def _shared(self, solution: Solution, open_: list[int], divide_g: float) -> None:
        """An even share of the dough in whole pieces for each open target but the last, which takes the rest."""
        values = solution.values
        free = self._untaken(values, divide_g)
        for turn, i in enumerate(open_[:-1]):
            piece_g = values[of("piece_g", i)]
            pieces = whole(max(0.0, free) / (len(open_) - turn) / piece_g)
            solution.stand_in(of("pieces", i), pieces)
            free -= pieces * piece_g

