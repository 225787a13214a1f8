"""How deep dough stands in a pan: as divided, doubled and baked, and whether that is past the rim."""

from dataclasses import dataclass
from functools import lru_cache

from pancount.core.pans.fills import FillRule
from pancount.core.pans.pan import DOUGH_G_PER_ML, RISE, AnyPan, level_cm, lies_free, solid, volume_ml


@dataclass(frozen=True, slots=True)
class Rung:
    """A place for the dough's line when it is dragged: so deep as divided [cm] is so full."""

    depth_cm: float
    fill: float


RUNGS = 40
DRAGGED_PAST = 1.15
"""How far above the brim the line may be dragged, over the depth."""


@lru_cache(maxsize=256)
def rungs(pan: AnyPan, size: float) -> tuple[Rung, ...]:
    """Depths from the bottom to a little over the brim with the fill each is. Empty where there are no sides to drag along."""
    found = solid(pan)
    if not found.depth_cm:
        return ()
    per_ml = DOUGH_G_PER_ML * volume_ml(pan) / found.volume() / size
    shares = [DRAGGED_PAST * i / RUNGS for i in range(1, RUNGS + 1)]
    return tuple(Rung(found.depth_cm * s, found.volume(s) * per_ml) for s in shares)


@dataclass(frozen=True, slots=True)
class Depths:
    """How deep level dough stands. [cm]"""

    divided_cm: float
    doubled_cm: float
    baked_cm: float


def depths(pan: AnyPan, dough_g: float, rule: FillRule, loss: float | None = None, bran: float = 0.0) -> Depths:
    """Of so much dough as divided, doubled, and baked by the specific volume of its kind. Under a lid it stops at the lid.

    `loss` is what baking takes, the kind's where not given; `bran` how much of the flour is wholemeal or rye, as shares.
    """
    ml = dough_g / DOUGH_G_PER_ML
    baked_ml = rule.baked_ml(dough_g, rule.loss if loss is None else loss, bran)
    deep = [level_cm(pan, each) for each in (ml, RISE * ml, baked_ml)]
    if pan.shape == "lidded":
        deep[2] = min(deep[2], solid(pan).depth_cm)
    return Depths(*deep)


def past_rim(pan: AnyPan, dough_g: float, rule: FillRule) -> bool:
    """Whether the dough when doubled is more than its kind lets stand in the pan, where there is a rim to keep it."""
    kept = solid(pan).depth_cm > 0 and not lies_free(pan)
    return kept and RISE * dough_g / DOUGH_G_PER_ML > volume_ml(pan) * (1.0 if pan.shape == "lidded" else rule.rim) * (1 + 1e-9)
