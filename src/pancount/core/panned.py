"""The dough in the pan: how deep, how full, and where the pieces sit, for the drawing."""

from dataclasses import dataclass
from functools import lru_cache

from pancount.core.base import Frozen
from pancount.core.count import Load, pan_size
from pancount.core.derived import Derived, derived
from pancount.core.layout import Layout, lay_out
from pancount.core.limits import lies_free
from pancount.core.packing import pack
from pancount.core.pan import (
    DOUGH_G_PER_ML,
    OVEN_SPRING,
    RISE,
    AnyPan,
    Pan,
    Solid,
    area_cm2,
    dome_diameter_cm,
    level_cm,
    measured_ml,
    reckoned_ml,
    solid,
    volume_ml,
)
from pancount.core.relations import of
from pancount.core.solver import Aim, Counter, Solution
from pancount.core.tables import FillPer


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


def depths(pan: AnyPan, dough_g: float) -> Depths:
    """Of so much dough as divided, doubled, and baked with its spring in the oven. Under a lid it stops at the lid."""
    ml = dough_g / DOUGH_G_PER_ML
    deep = [level_cm(pan, ml * rise) for rise in (1.0, RISE, RISE * OVEN_SPRING)]
    if pan.shape == "lidded":
        deep[2] = min(deep[2], solid(pan).depth_cm)
    return Depths(*deep)


def past_rim(pan: AnyPan, deep: Depths) -> bool:
    """Whether the dough stands above the rim when doubled, where there is a rim to keep it."""
    rim = solid(pan).depth_cm
    return rim > 0 and not lies_free(pan) and deep.doubled_cm > rim


class Panned(Frozen):
    """One full pan of a target. Depths are of level dough; diameters are of pieces that sit as half balls."""

    pan: Pan
    solid: Solid
    area_cm2: float
    volume_ml: float
    reckoned_ml: float
    measured_ml: float | None
    dough_g: float
    """Dough in the fullest pan."""
    loads: tuple[Load, ...]
    depths: Depths
    past_rim: bool
    """Whether the dough stands above the rim when doubled, where there is a rim to keep it."""
    piece_divided_cm: float
    piece_doubled_cm: float
    touching: bool
    """Whether risen pieces meet their neighbours."""
    layout: Layout | None
    """None for a single slab, for no pieces, and for more pieces than are drawn."""
    size: float
    """What the fill is measured against: cm², ml, or grams to the brim."""
    fill: float
    fill_label: str
    fill_per: FillPer
    fill_low: float
    fill_high: float
    fill_is: str
    """under, in or over its usual band"""
    rungs: tuple[Rung, ...]


def fill_is(fill: float, low: float, high: float) -> str:
    """Where a fill lies against its usual band.

    >>> fill_is(1.2, 1.0, 1.45)
    'in'
    """
    return "under" if fill < low else "over" if fill > high else "in"


def _layout(aim: Aim, pieces: int, counter: Counter, solution: Solution, i: int) -> Layout | None:
    """Pieces side by side in the pan; apart from each other where they lie free on it."""
    assert aim.pan is not None
    if pieces < 2:
        return None
    if aim.rule.pieces == "apart" and lies_free(aim.pan):
        lot = counter.lot(solution, i)
        packing = pack(aim.pan, lot.baked_across_cm, lot.gap_cm)
        if pieces <= packing.holds and packing.places:
            return Layout(places=packing.places[:pieces], words=packing.words, room_cm=lot.baked_across_cm + lot.gap_cm)
    return lay_out(pieces, aim.pan)


def panned(counter: Counter, solution: Solution, loads: tuple[Load, ...], i: int) -> Panned | None:
    """The fullest pan of a target of a solved count; None without a pan, while pins fight, or with nothing in it."""
    aim = counter.aims[i]
    if aim.pan is None or not loads:
        return None
    pan, piece_g = aim.pan, solution.values[of("piece_g", i)]
    pieces = max(load.pieces for load in loads)
    dough_g = pieces * piece_g
    layout = _layout(aim, pieces, counter, solution, i)
    doubled_cm = dome_diameter_cm(piece_g, RISE)
    size, deep = pan_size(pan, aim.rule), depths(pan, dough_g)
    fill = dough_g / size
    return Panned(
        pan=pan,
        solid=solid(pan),
        area_cm2=area_cm2(pan),
        volume_ml=volume_ml(pan),
        reckoned_ml=reckoned_ml(pan),
        measured_ml=measured_ml(pan),
        dough_g=dough_g,
        loads=loads,
        depths=deep,
        past_rim=past_rim(pan, deep),
        piece_divided_cm=dome_diameter_cm(piece_g),
        piece_doubled_cm=doubled_cm,
        touching=layout is not None and doubled_cm >= layout.room_cm,
        layout=layout,
        size=size,
        fill=fill,
        fill_label=aim.rule.label,
        fill_per=aim.rule.per if volume_ml(pan) else "area",
        fill_low=aim.rule.low,
        fill_high=aim.rule.high,
        fill_is=fill_is(fill, aim.rule.low, aim.rule.high),
        rungs=rungs(pan, size),
    )


def panned_figures(pan: Panned) -> dict[str, Derived]:
    """Depths and fill of a pan, each with its working."""
    straight = pan.solid.base == pan.solid.top and not pan.measured_ml
    says = "Level dough stands as deep as its weight over its density over the area of the pan."
    reads = "{dough} ÷ {density} ÷ {area}"
    if not straight:
        says = "Level dough stands where the pan, up to there, holds its volume: weight over density."
        reads = "where the pan holds {dough} ÷ {density}, of {brim} to the brim"
    found = {}
    for key, label, cm, rise, more in (
        ("depth_divided", "Depth as divided", pan.depths.divided_cm, 1.0, ""),
        ("depth_doubled", "Depth when doubled", pan.depths.doubled_cm, RISE, " Doubled, it has twice the volume."),
        (
            "depth_baked", "Depth as baked", pan.depths.baked_cm, RISE * OVEN_SPRING,
            " In the oven it springs by about a quarter, and under a lid it stops there.",
        ),
    ):  # fmt: skip
        found[key] = derived(
            label, cm, "cm", says + more, reads if rise == 1 else reads.replace("{dough}", "{rise} × {dough}"),
            dough=("Dough in the pan", pan.dough_g, "g"), density=("Density of dough", DOUGH_G_PER_ML, "density"),
            area=("Area of the pan", pan.area_cm2, "cm2"), brim=("The pan holds", pan.volume_ml, "ml"),
            rise=("Times its volume", rise, "count"),
        )  # fmt: skip
    found["pan_fill"] = derived(
        "Fill", pan.fill, "fill", "The fill is the dough in the fullest pan over the size of the pan.",
        "{dough} ÷ {size}", dough=("Dough in the pan", pan.dough_g, "g"),
        size=("Size of the pan", pan.size, {"area": "cm2", "volume": "ml", "share": "g"}[pan.fill_per]),  # type: ignore[arg-type]  # units of the three
    )  # fmt: skip
    return found
