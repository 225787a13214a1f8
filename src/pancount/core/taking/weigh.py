"""What a line weighs: low, usual and high, and why."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import log

from pancount.core.base.models import Band
from pancount.core.pantry.ingredients import Ingredient, MeasureWeight
from pancount.core.pantry.measures import Measure, System, measures
from pancount.core.taking.amounts import Amount, Part
from pancount.core.taking.habits import Habits, Kitchen, questions
from pancount.core.taking.lines import Reading

US = System.US
SIZES = {"small": "S", "medium": "M", "large": "L", "xl": "XL"}
US_SIZES = {"small": "S", "medium": "US medium", "large": "US large", "xl": "US XL"}
"""An egg called large in the US is not one called large elsewhere."""
EGGS = {"Egg", "Egg yolk", "Egg white"}


@dataclass(frozen=True, slots=True)
class Weight:
    """A weight with its band, the words for how it came about, and which questions it hangs on."""

    band: Band | None
    why: tuple[str, ...] = ()
    depends: frozenset[str] = frozenset()
    percent: bool = False
    """Whether the band is in percent of flour, not grams."""
    weighed: bool = False
    """Whether it is a weight that the page or the baker gives, not one worked out of a cup."""


def candidates(reading: Reading, kitchen: Kitchen, habits: Habits) -> tuple[tuple[Ingredient, ...], str]:
    """The ingredients that a line may mean, the most common first; and the question that would settle it, if any."""
    named = reading.named
    if named is None:
        return (), ""
    if named.ingredient is not None:
        return (named.ingredient,), ""
    question = named.question
    asked = list(reading.amount.parts) if reading.amount else []
    if question == "yeast" and asked and asked[0].measure in ("packet", "tsp", "tbsp", "tl", "el"):
        question = "dry_yeast"  # fresh yeast comes in grams and cubes
    answer = getattr(habits, question)
    if question == "yeast" and asked and asked[0].measure == "cube":
        return (kitchen.ingredients["Fresh yeast"],), ""
    names = [answer] if answer else list(questions()[question].options)
    return tuple(kitchen.ingredients[name] for name in names if name in kitchen.ingredients), question


def weigh(reading: Reading, kitchen: Kitchen, habits: Habits, way: str = "") -> Weight:
    """What a line's amount weighs: the weight where one is given, else by its measure.

    `way` is the baker's own word for this line on how the cup is filled; `habits` stand in where it is blank.
    The band is None where nothing says what the measure weighs.
    """
    if reading.amount is None:
        return Weight(None)
    found, question = candidates(reading, kitchen, habits)
    parts = surest(reading.amount)
    if parts[0].measure == "percent":
        p = parts[0]
        return Weight(Band.of(p.low, p.usual, p.high), ("in percent of the flour",), percent=True)
    weights = [_weigh_as(parts, reading, one, kitchen, habits, way) for one in found or (None,)]
    bands = [w.band for w in weights if w.band is not None]
    if len(bands) < len(weights):
        return Weight(None, weights[0].why, weights[0].depends)
    depends = frozenset[str]().union(*(w.depends for w in weights))
    if question and _differ(bands):
        depends |= {question}
    return Weight(union(bands), weights[0].why, depends, weighed=all(w.weighed for w in weights))


def union(bands: Sequence[Band]) -> Band:
    """The band that holds all of them; the first one's usual stands in."""
    return Band.of(min(b.low_g for b in bands), bands[0].usual_g, max(b.high_g for b in bands))


def _differ(bands: Sequence[Band]) -> bool:
    return any(b != bands[0] for b in bands)


SUREST = ("weight", "percent", "jug", "count", "cup", "spoon", "vague")
"""Where an amount is given twice, the surer kind wins: a weight before all."""


def surest(asked: Amount) -> tuple[Part, ...]:
    """The parts that an amount is weighed by, where it is given twice."""
    if not asked.doubled:
        return asked.parts
    return min((asked.parts, asked.doubled), key=lambda parts: SUREST.index(_measure(parts[0]).kind))


def _measure(part: Part) -> Measure:
    return measures()[part.measure or "each"]


def _weigh_as(
    parts: Sequence[Part],
    reading: Reading,
    ingredient: Ingredient | None,
    kitchen: Kitchen,
    habits: Habits,
    way: str,
) -> Weight:
    total: Band | None = None
    whys: list[str] = []
    depends: set[str] = set()
    weighed = True
    for part in parts:
        one = _weigh_part(part, reading, ingredient, kitchen, habits, way)
        whys += one.why
        depends |= one.depends
        weighed = weighed and one.weighed
        if one.band is None:
            return Weight(None, tuple(whys), frozenset(depends))
        if total is None:
            total = one.band
        elif part.sign > 0:
            total = total.plus(one.band)
        else:
            less = one.band
            total = Band.of(total.low_g - less.high_g, total.usual_g - less.usual_g, total.high_g - less.low_g)
    return Weight(total, tuple(dict.fromkeys(whys)), frozenset(depends), weighed=weighed)


def _weigh_part(
    part: Part, reading: Reading, ingredient: Ingredient | None, kitchen: Kitchen, habits: Habits, way: str
) -> Weight:
    measure = _measure(part)
    if measure.kind == "weight":
        size = measure.size[US]
        half = kitchen.half_step_g(part.usual * size)
        band = Band.of(part.low * size - half, part.usual * size, part.high * size + half)
        return Weight(band, (f"a weight, read to ±{half:g} g",), weighed=True)
    if ingredient is None:
        return Weight(None)
    if measure.kind == "count":
        one = _counted(measure, reading, ingredient, habits, way)
    else:
        one = _filled(part, measure, reading, ingredient, kitchen, habits, way)
    if one.band is None:
        return one
    band = one.band.times(part.low, part.usual, part.high)
    if part.fill is not None:
        band = band.times(*part.fill.by)
        return Weight(band, (*one.why, part.fill.name), one.depends)
    return Weight(band, one.why, one.depends)


SIZED = {"small": (0.5, 0.65, 0.9), "large": (1.1, 1.5, 2.0), "xl": (1.4, 1.9, 2.6)}
"""A large onion against any onion, low, usual and high. Common practice, no source."""


def _counted(measure: Measure, reading: Reading, ingredient: Ingredient, habits: Habits, chosen: str) -> Weight:
    rows = [row for row in ingredient.measures if row.measure == measure.key]
    if not rows:
        return Weight(None, (f"nobody has said what one {measure.label} of {ingredient.name} weighs",))
    size, depends = "", frozenset[str]()
    sizes_known = any(row.way for row in rows)
    if ingredient.name in EGGS and sizes_known:
        if chosen:
            size = chosen
        elif reading.size:
            depends = frozenset({"system"})
            size = (US_SIZES if habits.system in (None, System.US) else SIZES)[reading.size]
        else:
            depends, size = frozenset({"egg"}), habits.egg or ""
    row = next((row for row in rows if row.way == size), rows[0])
    why = _source(f"one {measure.label} {row.usual_g:g} g", row)
    if not sizes_known and reading.size in SIZED:
        return Weight(row.band.times(*SIZED[reading.size]), (why, reading.size), depends)
    return Weight(row.band, (why,), depends)


def _source(says: str, row: MeasureWeight) -> str:
    return f"{says} ({row.low_g:g}–{row.high_g:g}): {row.source}" if row.source else says


def _filled(
    part: Part,
    measure: Measure,
    reading: Reading,
    ingredient: Ingredient,
    kitchen: Kitchen,
    habits: Habits,
    chosen: str,
) -> Weight:
    """One cup, spoon, jug or vague measure of an ingredient."""
    rows = _rows(measure, ingredient)
    depends: set[str] = set()
    ways = {row.way for row in rows if row.way}
    said = chosen or part.way or reading.way
    if ways and said not in ways:
        said = ""
    if not said and ways:
        if {"scooped", "spooned"} <= ways:
            depends.add("cup_way")
            said = habits.cup_way or ""
        else:
            said = "packed" if "packed" in ways else ""
    own = kitchen.cup_bands.get((ingredient.name, measure.key, said)) or kitchen.cup_bands.get(
        (ingredient.name, measure.key, "")
    )
    if own is not None:
        how = f", {said}" if said else ""
        says = f"your own {measure.label}{how}: {own.usual_g:.4g} g ({own.low_g:.4g}–{own.high_g:.4g})"
        return Weight(own, (says,), frozenset(depends))
    rows = [row for row in rows if row.way in ("", said)] if said else rows
    if not rows:
        return Weight(None, (f"nobody has said what a {measure.label} of {ingredient.name} weighs",))
    if measure.differs and measure.key not in kitchen.stated_ml:
        depends.add("system")
    weights = [_converted(row, measure, habits, kitchen) for row in _in_order(rows)]
    whys = [_source(f"one {measures()[row.measure].label}{', ' + row.way if row.way else ''} {row.usual_g:g} g", row) for row in rows]
    return Weight(union(weights), tuple(whys), frozenset(depends))


def _in_order(rows: Iterable[MeasureWeight]) -> list[MeasureWeight]:
    first = list(questions()["cup_way"].options)
    return sorted(rows, key=lambda row: first.index(row.way) if row.way in first else len(first))


def _rows(measure: Measure, ingredient: Ingredient) -> list[MeasureWeight]:
    """The rows that tell what the measure weighs: its own, or those of the volume nearest to it."""
    exact = [row for row in ingredient.measures if row.measure == measure.key]
    if exact:
        return exact
    by_volume = {
        row.measure: measures()[row.measure].size[US]
        for row in ingredient.measures
        if row.measure in measures() and measures()[row.measure].kind in ("cup", "spoon")
    }
    if not by_volume or US not in measure.size:
        return []
    asked = measure.size[US]
    nearest = min(by_volume, key=lambda key: abs(log(by_volume[key] / asked)))
    return [row for row in ingredient.measures if row.measure == nearest]


def _converted(row: MeasureWeight, measure: Measure, habits: Habits, kitchen: Kitchen) -> Band:
    """A row's weight for another measure, by volume. The row is for a US cup or spoon."""
    theirs = measures()[row.measure]
    if theirs.kind not in ("cup", "spoon"):
        return row.band
    system = habits.system or US
    scale = kitchen.stated_ml.get(measure.key, measure.size[system]) / theirs.size[US]
    band = row.band.times(scale, scale, scale)
    if measure.kind == "cup" or row.measure == measure.key:
        return band
    low, high = measure.low, measure.high
    if measure.kind == "jug":
        # A jug is read, not filled level: its own error in place of the cup's.
        return Band.of(band.usual_g * low, band.usual_g, band.usual_g * high)
    return band.times(low, 1, high)
