"""A step with what its kind stands in for, for so many pieces."""

from dataclasses import dataclass

from pancount.core.count.learned import Learned, learned_of
from pancount.core.formula.step_kinds import StepKind, kind_of
from pancount.core.formula.steps import LONGEST_MIN, Decides, Hands, Lasts, Place, Step, Warmth

PIECES_LOW, PIECES_HIGH = 0.75, 1.5
"""How quick and how slow hands are about what goes piece by piece, over the usual. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class Filled:
    """A step with its kind's own wherever the baker said nothing."""

    step: Step
    kind: StepKind
    lasts: Lasts
    by: Decides
    hands: Hands
    touches: int
    touch_min: float
    place: Place
    heat: Warmth | None
    look: str
    if_not: str
    again_min: float
    waits_min: float | None

    @property
    def on_chain(self) -> bool:
        """Whether it takes its turn among the steps on one thing: what is done ahead, or during another, does not."""
        return self.kind.does != "ahead" and not self.step.during


def _by_pieces(kind: StepKind, pieces: float) -> Lasts:
    minutes = min(max(kind.lasts.low_min, kind.piece_s * pieces / 60), LONGEST_MIN / PIECES_HIGH)
    return Lasts(low_min=minutes * PIECES_LOW, usual_min=minutes, high_min=minutes * PIECES_HIGH)


def _learned(kind: StepKind, pieces: float, known: Learned) -> Lasts:
    """What a kitchen's own figure makes of it: from one bake in six quicker to one in six slower."""
    usual = min(known.value * (pieces if kind.piece_s else 1.0), LONGEST_MIN)
    by = 1 + min(known.strays, 1.0)
    return Lasts(low_min=usual / by, usual_min=usual, high_min=min(usual * by, LONGEST_MIN))


def filled(step: Step, pieces: float, learned: tuple[Learned, ...] = (), way: str = "") -> Filled:
    """A step of a way for so many pieces, with its kind's own wherever it leaves something open, and what the kitchen learned of how long its hands take."""
    kind = kind_of(step)
    known = learned_of(learned, "minutes", kind.key, way)
    stands_in = _by_pieces(kind, pieces) if kind.piece_s else kind.lasts
    return Filled(
        step=step,
        kind=kind,
        lasts=_learned(kind, pieces, known) if known else step.lasts or stands_in,
        by=step.by or kind.by,
        hands=step.hands or kind.hands,
        touches=step.touches or kind.touches,
        touch_min=kind.touch_min if step.touch_min is None else step.touch_min,
        place=step.place or kind.place,
        heat=step.heat or kind.heat,
        look=kind.look if step.look is None else step.look,
        if_not=kind.if_not if step.if_not is None else step.if_not,
        again_min=kind.again_min if step.again_min is None else step.again_min,
        waits_min=kind.waits_min if step.waits_min is None else step.waits_min,
    )
