"""The dough in the pan: how deep, how full, and where the pieces sit, for the drawing."""

from typing import Literal

from pancount.core.base import Frozen
from pancount.core.count import Count, CountResult, Load, fill_rule
from pancount.core.formula import Formula
from pancount.core.layout import Layout, lay_out
from pancount.core.pan import DOUGH_G_PER_ML, RISE, Pan, area_cm2, dome_diameter_cm, dough_depth_cm, volume_ml


class Panned(Frozen):
    """One full pan of a count. Depths are of level dough; diameters are of pieces that sit as half balls."""

    pan: Pan
    area_cm2: float
    volume_ml: float
    dough_g: float
    """Dough in the fullest pan."""
    loads: tuple[Load, ...]
    density_g_per_ml: float
    rise: float
    """Volume when doubled over volume as divided."""
    depth_divided_cm: float
    depth_doubled_cm: float
    past_rim: bool
    """Whether the dough stands above the rim when doubled."""
    piece_divided_cm: float
    piece_doubled_cm: float
    touching: bool
    """Whether risen pieces meet their neighbours."""
    layout: Layout | None
    """None for a single slab, for no pieces, and for more pieces than are drawn."""
    fill: float
    fill_label: str
    fill_per: Literal["area", "volume"]
    fill_low: float
    fill_high: float
    fill_is: Literal["under", "in", "over"]


def panned(formula: Formula, count: Count, result: CountResult) -> Panned | None:
    """The fullest pan of a solved count; None without a pan, while pins fight, or with nothing in it."""
    if count.pan is None or not result.loads:
        return None
    values = {name: worked.value for name, worked in result.quantities.items()}
    pieces = max(load.pieces for load in result.loads)
    dough_g = pieces * values["piece_g"]
    area, rule = area_cm2(count.pan), fill_rule(formula.usual)
    depth = dough_depth_cm(dough_g, area)
    layout = lay_out(pieces, count.pan) if pieces > 1 else None
    doubled_cm = dome_diameter_cm(values["piece_g"], RISE)
    size = area if rule.per == "area" else volume_ml(count.pan)
    fill = dough_g / size
    return Panned(
        pan=count.pan,
        area_cm2=area,
        volume_ml=volume_ml(count.pan),
        dough_g=dough_g,
        loads=result.loads,
        density_g_per_ml=DOUGH_G_PER_ML,
        rise=RISE,
        depth_divided_cm=depth,
        depth_doubled_cm=depth * RISE,
        past_rim=depth * RISE > count.pan.depth_cm,
        piece_divided_cm=dome_diameter_cm(values["piece_g"]),
        piece_doubled_cm=doubled_cm,
        touching=layout is not None and doubled_cm >= layout.room_cm,
        layout=layout,
        fill=fill,
        fill_label=rule.label,
        fill_per=rule.per,
        fill_low=rule.low,
        fill_high=rule.high,
        fill_is="under" if fill < rule.low else "over" if fill > rule.high else "in",
    )
