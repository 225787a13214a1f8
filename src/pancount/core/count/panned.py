"""The dough in the pan: how deep, how full, and where the pieces sit, for the drawing."""

from pancount.core.base.derived import Derived, derived
from pancount.core.base.models import Frozen
from pancount.core.count.counter import Aim, Counter
from pancount.core.count.relations import of
from pancount.core.count.result import Load
from pancount.core.count.solver import Solution
from pancount.core.pans.depths import Depths, Rung, depths, past_rim, rungs
from pancount.core.pans.fills import BRAN_SMALLER, FillPer, fill_is, pan_size
from pancount.core.pans.layout import Layout, lay_out
from pancount.core.pans.packing import pack
from pancount.core.pans.pan import (
    DOUGH_G_PER_ML,
    RISE,
    Pan,
    Solid,
    area_cm2,
    dome_diameter_cm,
    lies_free,
    measured_ml,
    reckoned_ml,
    solid,
    volume_ml,
)


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
    """Whether the dough when doubled stands above the rim by more than its kind does on purpose."""
    baked_ml: float
    bake_loss: float
    bran: float
    """How much of its flour is wholemeal or rye, as a share."""
    baked_per_g: float
    """Specific volume of its kind as baked. [ml/g]"""
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
    loss = solution.values[of("bake_loss", i)]
    size, deep = pan_size(pan, aim.rule), depths(pan, dough_g, aim.rule, loss, aim.bran)
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
        past_rim=past_rim(pan, dough_g, aim.rule),
        baked_ml=aim.rule.baked_ml(dough_g, loss, aim.bran),
        bake_loss=loss,
        bran=aim.bran,
        baked_per_g=aim.rule.baked,
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
    says = "Level dough stands as deep as its volume over the area of the pan."
    reads = "{volume} ÷ {area}"
    if not straight:
        says = "Level dough stands where the pan, up to there, holds its volume."
        reads = "where the pan holds {volume}, of {brim} to the brim"
    lid = " Under a lid it stops there." if pan.pan.shape == "lidded" else ""
    baked = "{dough} × (1 − {loss}) × {per_g}" + (" × (1 − {smaller} × {bran})" if pan.bran else "")
    at_the_lid = pan.pan.shape == "lidded" and pan.depths.baked_cm == pan.solid.depth_cm
    found = {}
    for key, label, cm, volume, more in (
        ("depth_divided", "Depth as divided", pan.depths.divided_cm, "{dough} ÷ {density}", ""),
        ("depth_doubled", "Depth when doubled", pan.depths.doubled_cm, "{rise} × {dough} ÷ {density}", " Doubled, it has twice the volume."),
        (
            "depth_baked", "Depth as baked", pan.depths.baked_cm, baked,
            f" Baked, each gram that is left takes as many ml as bread of this kind does, usually.{lid}",
        ),
    ):  # fmt: skip
        found[key] = derived(
            label, cm, "cm", says + more,
            "{rim}" if key == "depth_baked" and at_the_lid else reads.replace("{volume}", volume),
            dough=("Dough in the pan", pan.dough_g, "g"), density=("Density of dough", DOUGH_G_PER_ML, "density"),
            area=("Area of the pan", pan.area_cm2, "cm2"), brim=("The pan holds", pan.volume_ml, "ml"),
            rise=("Times its volume", RISE, "count"), loss=("Baking takes", pan.bake_loss, "share"),
            per_g=("Baked, ml a gram", pan.baked_per_g, "count"), smaller=("Smaller for bran", BRAN_SMALLER, "share"),
            bran=("Wholemeal and rye, of the flour", pan.bran, "share"), rim=("To the lid", pan.solid.depth_cm, "cm"),
        )  # fmt: skip
    found["pan_fill"] = derived(
        "Fill", pan.fill, "fill", "The fill is the dough in the fullest pan over the size of the pan.",
        "{dough} ÷ {size}", dough=("Dough in the pan", pan.dough_g, "g"),
        size=("Size of the pan", pan.size, {"area": "cm2", "volume": "ml", "share": "g"}[pan.fill_per]),  # type: ignore[arg-type]  # units of the three
    )  # fmt: skip
    return found
