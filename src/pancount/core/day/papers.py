"""All papers of a day in one: by time for the wall, the evening before, what is to be weighed."""

from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.base.scale import Scale
from pancount.core.day.lists import Ahead, MiseEnPlace, WallLine, cautions_of, evening_before, mise_en_place, wall
from pancount.core.day.plan import Asked, Planner
from pancount.core.day.timetable import DayFigure, ProductTold, timetable
from pancount.core.pantry.ingredients import pantry_with


class DayPapers(Frozen):
    """A day on paper."""

    lines: tuple[WallLine, ...]
    evening: tuple[Ahead, ...]
    mise: MiseEnPlace
    products: tuple[ProductTold, ...]
    figures: tuple[DayFigure, ...]
    bakers: tuple[str, ...]
    says: tuple[str, ...]


def day_papers(asked: Asked, scale: Scale, school: Literal["joined", "apart"] = "joined") -> DayPapers:
    """The papers of the timetable that the baker goes by; of one laid now where there is none."""
    planner, day = Planner(asked), asked.day
    made, troubles = planner.made(day)
    table = timetable(planner.as_told(day))
    lines = wall(table, cautions_of(day, made))
    names = {product.key: product.name for product in day.products}
    return DayPapers(
        lines=lines,
        evening=evening_before(day, table, made, lines),
        mise=mise_en_place(day, made, scale, asked.kit, pantry_with(asked.own), school),
        products=table.products,
        figures=table.figures,
        bakers=tuple(name or f"Baker {n + 1}" for n, name in enumerate(day.bakers)),
        says=(*table.says, *(f"{names[one.product]}: {one.says}" for one in troubles)),
    )
