"""Bakes and baths for this piece: how long, how hot, what the oven is set to, and load after load."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from pancount.core.base.derived import Derived, derived
from pancount.core.base.models import Frozen
from pancount.core.count.loads import Turns
from pancount.core.formula.steps import Warmth
from pancount.core.heat.baking import LOOK, dial_c, fahrenheit, gas_mark, piece_minutes, slab_minutes
from pancount.core.heat.climate import Climate
from pancount.core.method.filled import Filled

LEAST_MIN = {"bake": 5.0, "griddle": 1.0}
"""What colour needs at least. Common practice, no source. [min]"""
LEAN, ENRICHED = Warmth(low_c=96, high_c=99), Warmth(low_c=88, high_c=93)
"""How warm the middle is when it is done, of a lean and of an enriched bread. Common practice, no source. [°C]"""
CHANGE_MIN = {"oven": 2.0, "griddle": 0.5, "pot": 0.5}
"""What changing one load for the next takes. Common practice, no source. [min]"""


class BakeFigures(Frozen):
    """A bake for this piece."""

    step: int
    look_min: float
    usual_min: float
    high_min: float
    oven_c: float | None
    """How hot a still oven is to be; None where nothing says. [°C]"""
    dial_c: float | None
    """What this oven is set to. [°C]"""
    dial: str
    """The same in the kitchen's own unit."""
    middle: Warmth | None
    """How warm its middle is when it is done; None on a griddle. [°C]"""


class LoadTurn(Frozen):
    """One load in one place: when it goes in and comes out, from the beginning of the first. [min]"""

    step: int
    load: int
    pieces: int
    begin: float
    end: float


def dial_words(celsius: float, unit: str) -> str:
    """A temperature as an oven's dial has it: to 5 °C, to 5 °F, or a gas mark where one is near."""
    if unit == "F":
        return f"{round(fahrenheit(celsius) / 5) * 5:.0f} °F"
    if unit == "gas" and (mark := gas_mark(celsius)) is not None:
        return f"gas mark {'¼' if mark == 0.25 else '½' if mark == 0.5 else f'{mark:g}'}"
    return f"{round(celsius / 5) * 5:.0f} °C"


@dataclass(frozen=True, slots=True)
class Piece:
    """What is baked beside what the times were told for: a piece's grams, or a slab's grams on each cm², which go as its thickness."""

    now: float
    told: float
    slab: bool


def bake_figures(i: int, one: Filled, piece: Piece, climate: Climate, *, enriched: bool) -> tuple[BakeFigures, Derived]:
    """A bake's time and temperature for this piece."""
    carry = slab_minutes if piece.slab else piece_minutes
    least = min(LEAST_MIN.get(one.kind.key, 0.0), one.lasts.low_min)
    low, usual, high = (carry(minutes, piece.told, piece.now, least) if minutes > 0 else 0.0 for minutes in (one.lasts.low_min, one.lasts.usual_min, one.lasts.high_min))
    look = min(low, usual * LOOK)
    oven = one.heat.middle_c if one.heat and one.place == "oven" else None
    dial = None if oven is None else dial_c(oven, fan=climate.oven_fan, error_c=climate.oven_error_c)
    what, unit = ("On each cm²", "density") if piece.slab else ("Piece", "g")
    figure = derived(
        "This bake, usually", usual, "min",
        "A slab by its thickness, which goes as the dough on each cm², damped; never less than colour needs." if piece.slab else "Of like shapes time goes by the weight to the power of two thirds: heat reaches the middle by the square of the thickness.",
        "{told} × ({now} ÷ {was}) to the power of " + ("4⁄3" if piece.slab else "⅔"),
        told=("As told", one.lasts.usual_min, "min"), now=(f"{what} now", piece.now, unit), was=(f"{what} told for", piece.told, unit),  # type: ignore[arg-type]
    )  # fmt: skip
    return (
        BakeFigures(
            step=i,
            look_min=look,
            usual_min=usual,
            high_min=high,
            oven_c=oven,
            dial_c=dial,
            dial="" if dial is None else dial_words(dial, climate.heat_unit),
            middle=None if one.kind.key == "griddle" else ENRICHED if enriched else LEAN,
        ),
        figure,
    )


def in_turn(steps: Sequence[Filled], run: Sequence[int], each_min: Mapping[int, float], through: Sequence[Turns], pieces: int) -> tuple[LoadTurn, ...]:
    """Load after load through consecutive steps, first shaped first baked: when each goes in and comes out. [min from the first]

    The last place (oven or griddle) sets the loads; what comes before it (bath, wash, seeds) is done for a load while the one before is in,
    so that a load goes in as the one before comes out, or as soon after as it is ready.
    """
    by_place: dict[str, Turns] = {one.through: one for one in through}
    heat = run[-1]
    main = by_place.get(steps[heat].place)
    per_load = main.per_load if main else pieces
    loads = [min(per_load, pieces - begun) for begun in range(0, pieces, max(1, per_load))]
    found, out_at, prepared = list[LoadTurn](), 0.0, 0.0
    for n, count in enumerate(loads):
        ahead = [_goes(steps[i], each_min[i], count, pieces, by_place) for i in run[:-1]]
        begin = max(prepared, out_at - sum(minutes for goes in ahead for _, minutes, _ in goes) if n else 0.0)
        for i, goes in zip(run[:-1], ahead, strict=True):
            for some, minutes, lasts in goes:
                found.append(LoadTurn(step=i, load=n, pieces=some, begin=begin, end=begin + lasts))
                begin += minutes
        prepared = begin
        goes_in = max(begin, out_at + (CHANGE_MIN.get(steps[heat].place, 0.0) if n else 0.0))
        out_at = goes_in + each_min[heat]
        found.append(LoadTurn(step=heat, load=n, pieces=count, begin=goes_in, end=out_at))
    return tuple(found)


def _goes(one: Filled, minutes: float, count: int, pieces: int, by_place: dict[str, Turns]) -> list[tuple[int, float, float]]:
    """How some of the pieces go through a step: how many at a time, how long until the next may go, and how long that is in. [min]

    What has a place of its own takes as many as it holds; anything else is done to all of them, in its share of the whole time.
    """
    if one.kind.does != "loads":
        return [(count, share := minutes * count / pieces, share)]
    own = by_place.get(one.place)
    per_go = own.per_load if own and own.per_load else count
    goes = [min(per_go, count - begun) for begun in range(0, count, per_go)]
    change = CHANGE_MIN.get(one.place, 0.0)
    return [(some, minutes + (change if n < len(goes) - 1 else 0.0), minutes) for n, some in enumerate(goes)]
