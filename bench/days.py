"""Seeded days of so many products, from the demo kitchen's formulas: one or two bakers who sleep and go to work, one oven with two shelves."""

from functools import cache

import numpy as np

from pancount.core.day.day import ASLEEP, Absence, Day, DayProduct
from pancount.core.day.laying import Laid, Made, lay, make
from pancount.core.formula.practice import Practice
from pancount.core.heat.climate import Climate
from pancount.core.pantry.ingredients import pantry_with
from pancount.demo.weir_house import KIT, examples

BENCH_KIT = KIT.model_copy(update={"fridge_shelves": 3})
"""The demo kitchen's, with three shelves in the fridge: with one, a day of twelve is mostly a question of who lies in it."""
PIECES = (0.5, 0.75, 1.0, 1.0, 1.5)
READY = (420.0, 450.0, 480.0, 540.0, 600.0, 720.0)


@cache
def ways() -> tuple[tuple[int, str], ...]:
    """Every way of every formula of the demo kitchen, by number and key."""
    return tuple((n, way.key) for n, (formula, _) in enumerate(examples()) for way in formula.ways)


def seeded_day(products: int, seed: int) -> Day:
    """A day drawn with a seed."""
    drawn = np.random.default_rng(1000 * products + seed)
    bakers = 1 + int(drawn.random() < (0.2 if products < 8 else 0.5))
    absences = [ASLEEP]
    if drawn.random() < 0.6:
        absences.append(Absence(why="away", day=-1, baker=0, begins_min=8 * 60, ends_min=float(drawn.choice([12, 15, 17])) * 60))
    told = []
    for n in range(products):
        number, way = ways()[int(drawn.integers(len(ways())))]
        formula, _ = examples()[number]
        pieces = max(1, round(float(drawn.choice(PIECES)) * 12))
        told.append(
            DayProduct(
                key=f"p{n}",
                formula_id=number + 1,
                name=formula.name,
                way=way,
                pieces=None if "focaccia" in formula.name or "squares" in formula.name else pieces,
                ready_min=float(drawn.choice(READY)),
                fresh=bool(drawn.random() < 0.2),
            )
        )
    return Day(date="2026-11-28", bakers=("",) * bakers, absences=tuple(absences), products=tuple(told))


def made_day(day: Day) -> tuple[Made, ...]:
    """Its products, each counted in its way."""
    pantry = pantry_with(())
    return tuple(make(day, one, *examples()[one.formula_id - 1], pantry, Practice(), BENCH_KIT, Climate()) for one in day.products)


def laid_day(products: int, seed: int) -> Laid:
    """The same as a problem."""
    day = seeded_day(products, seed)
    return lay(day, made_day(day), BENCH_KIT)
