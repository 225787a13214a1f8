"""What was done the same way at the last few bakes: water added each time, offered as the next revision."""

from collections.abc import Sequence
from math import ceil, floor

from pancount.core.base.errors import CoreError
from pancount.core.base.models import Frozen
from pancount.core.book.points import Numbers
from pancount.core.formula.formula import Formula, with_line
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.formula.stages import main_stage
from pancount.core.pantry.role import Role

LAST, LEAST = 4, 3
"""So many of the last bakes are looked at; of fewer than so many nothing is said."""
WORTH_POINTS = 0.5
"""Less than this is a splash, not a habit. Common practice, no source. [% of flour]"""


class WaterHabit(Frozen):
    """Water that was added, or kept out, at each of the last bakes, and the formula with it."""

    says: str
    note: str
    """For the revision."""
    points: float
    formula: Formula | None


def water_habit(last: Sequence[Numbers], formula: Formula, practice: Practice) -> WaterHabit | None:
    """What the last bakes of one revision, the latest first, have in common; None where nothing is. Of liquids the one that there is most of in the dough."""
    seen = last[:LAST]
    points = [one.water_added_points for one in seen]
    if len(seen) < LEAST or not (all(one >= WORTH_POINTS for one in points) or all(one <= -WORTH_POINTS for one in points)):
        return None
    grams = [abs(one.water_added_g) for one in seen]
    low, high = floor(min(grams) / 5) * 5, ceil(max(grams) / 5) * 5
    by = round(sum(points) / len(points), 1)
    did = "added" if by > 0 else "kept out"
    some = f"{low} g" if low == high else f"{low} to {high} g"
    found = _with_water(formula, by, practice)
    if found is None:
        return WaterHabit(says=f"In the last {len(seen)} you {did} {some} of water.", note="", points=by, formula=None)
    name, was, now, changed = found
    said = f"In the last {len(seen)} you {did} {some} of water: {name.lower()} {was:.4g} → {now:.4g} % in the formula?"
    return WaterHabit(says=said, note=f"{name} {was:.4g} → {now:.4g} %: {did} {some} in the last {len(seen)} bakes", points=by, formula=changed)


def _with_water(formula: Formula, points: float, practice: Practice) -> tuple[str, float, float, Formula] | None:
    """Its liquid's name, its percent as it is and as it would be, and the formula with it."""
    try:
        reckoned = reckon(formula, practice.starter)
    except CoreError:
        return None
    s = main_stage(formula)
    own = [(n, line) for n, line in enumerate(formula.stages[s].lines) if line.role is Role.LIQUID and (line.percent or line.weight_g)] if s >= 0 else []
    if not own:
        return None
    n, line = max(own, key=lambda one: reckoned.stages[s].lines[one[0]].percent)
    was = reckoned.stages[s].lines[n].percent
    now = was + points
    if now <= 0:
        return None
    told = {"percent": round(line.percent + points, 3)} if line.percent is not None else {"weight_g": round((line.weight_g or 0.0) * now / was, 2)}
    return line.name, was, now, with_line(formula, s, n, band=None, **told)
