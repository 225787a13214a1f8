"""A formula's counts: its targets with their rules, and what stands in where there are too few pins."""

from math import inf, isfinite

from pancount.core.base.models import interned
from pancount.core.count.count import Count, Target
from pancount.core.count.learned import Learned, learned_of
from pancount.core.count.limits import Allowed, Batch, Ground, Limit
from pancount.core.count.relations import batch_relations, bound, of, whole
from pancount.core.count.result import Source, Worked
from pancount.core.count.solver import PinValues, Solution
from pancount.core.formula.formula import Usual
from pancount.core.pans.fills import FillRule, fill_rule, pan_size
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import DOUGH_G_PER_ML, AnyPan
from pancount.core.pans.room import Lot, sheet_room
from pancount.core.pans.shaping import Shaping, baked_across_cm, shape


class Aim:
    """A target with its rules: what a Counter needs of it, whatever is pinned."""

    def __init__(self, target: Target, usual: Usual, bran: float = 0.0, learned: tuple[Learned, ...] = ()) -> None:
        """`bran`: how much of the flour is wholemeal or rye, as a share. `learned`: what the kitchen knows better than the usual."""
        self.bran = bran
        self.pan: AnyPan | None = interned(target.pan)
        self.kind = target.fill_kind or usual.fill_kind
        self.rule: FillRule = fill_rule(self.kind)
        self.shaping: Shaping = target.shaping or usual.shaping
        own = target.fill_kind in (None, usual.fill_kind)
        self.usual_fill = (usual.fill if own else None) or self.rule.usual
        known = learned_of(learned, "bake_loss", self.kind)
        self.bake_loss = known.value if known else usual.bake_loss if own and usual.bake_loss is not None else self.rule.loss
        self.loss_from: Source = "learned" if known else "usual"
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
        self.aims = [Aim(target, usual, ground.bran, count.learned) for target in count.targets]
        known = learned_of(count.learned, "bench_loss")
        self.bench_loss = Worked(known.value, "learned") if known else Worked(usual.bench_loss, "usual")
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
            given = given | {"bench_loss": self.bench_loss}
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
            solution.stand_in(of("bake_loss", i), aim.bake_loss, aim.loss_from)
        if aim.pan is not None:
            solution.stand_in(of("pieces_per_pan", i), self._pieces_per_pan(solution, i, aim))
            if solution.values[of("pieces_per_pan", i)] == 1:
                solution.stand_in(of("fill", i), aim.usual_fill)
        if aim.pan is None or of("fill", i) not in solution.values:
            solution.stand_in(of("piece_g", i), self.usual.piece_g)
        solution.stand_in(of("bake_loss", i), aim.bake_loss, aim.loss_from)

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
        allowed = Allowed(limits, self.ground, self.total_percent)
        if not known and any(isfinite(min(allowed.dough_g, allowed.pieces(self.lot(solution, i)))) for i in open_):
            self._up_to_limits(solution, allowed, open_)
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

    def lot(self, solution: Solution, i: int) -> Lot:
        """A target's pieces as kit sees them."""
        values = solution.values
        return self.aims[i].lot(
            values[of("piece_g", i)], values.get(of("pieces_per_pan", i), 0), values.get(of("pieces", i), 1)
        )

    def _up_to_limits(self, solution: Solution, allowed: Allowed, open_: list[int]) -> None:
        """Whole pieces of each open target in turn, each given its even share of what the limits leave; at least one, which a limit then tells of."""
        values = solution.values
        free = self._untaken(values, allowed.dough_g * (1 - values["bench_loss"]))
        for i in range(len(self.aims)):
            if i not in open_:
                allowed.take(self.lot(solution, i), values[of("pieces", i)])
        for turn, i in enumerate(open_):
            piece_g = values[of("piece_g", i)]
            by_dough = whole(max(0.0, free) / (len(open_) - turn) / piece_g) if isfinite(free) else inf
            pieces = min(by_dough, allowed.pieces(self.lot(solution, i)))
            pieces = max(1, int(pieces)) if isfinite(pieces) else self._of_written(values, i)
            solution.stand_in(of("pieces", i), pieces, "limit")
            free -= pieces * piece_g
            allowed.take(self.lot(solution, i), pieces)

    def _shared(self, solution: Solution, open_: list[int], divide_g: float) -> None:
        """An even share of the dough in whole pieces for each open target but the last, which takes the rest."""
        values = solution.values
        free = self._untaken(values, divide_g)
        for turn, i in enumerate(open_[:-1]):
            piece_g = values[of("piece_g", i)]
            pieces = whole(max(0.0, free) / (len(open_) - turn) / piece_g)
            solution.stand_in(of("pieces", i), pieces)
            free -= pieces * piece_g


def batch_of(counter: Counter, solution: Solution) -> Batch:
    """A solved count as limits see it."""
    values = solution.values
    lots = tuple((counter.lot(solution, i), values[of("pieces", i)]) for i in range(len(counter.aims)))
    return Batch(values["flour_g"], values["dough_g"], lots)
