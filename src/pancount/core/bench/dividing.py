"""Dividing by the dough there really is: its true loss, the count solved again by its own relations, and each piece beside what it is to weigh."""

from collections.abc import Sequence
from decimal import ROUND_FLOOR, Decimal
from math import sqrt

from pydantic import ValidationError

from pancount.core.base.models import Frozen
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.bench.begun import Begun
from pancount.core.bench.mixed import known_pantry
from pancount.core.count.count import Count, with_pins
from pancount.core.count.panned import Panned, panned
from pancount.core.count.relations import Values, of
from pancount.core.count.result import Load
from pancount.core.count.solve import Solved, loads_of, solve
from pancount.core.formula.formula import Formula
from pancount.core.pans.pan import Pan

LAST_FEW = 0.25
"""When so much of the pieces is left, what would even them out is told."""


class MadeTarget(Frozen):
    """What is made of the dough there is: pieces and their weight, to the scale's step downward so that the last is no smaller."""

    name: str
    pieces: int
    piece_g: float
    step_g: float
    planned_pieces: int
    planned_piece_g: float
    pan: Pan | None
    per_pan: int
    loads: tuple[Load, ...]
    panned: Panned | None
    """How its pieces lie in a full pan; None where it has none."""
    least_g: float | None
    """Sold by weight: no piece under this, baked. [g]"""
    baked_g: float
    says: str


class Making(Frozen):
    """One way to make the dough there is: the pieces stay, or their weight does."""

    keeps: str
    targets: tuple[MadeTarget, ...]
    remainder_g: float
    """Dough that is left over. [g]"""


def pinned_keeps(count: Count) -> str:
    """What stays by the baker's pins: the weight where that alone is pinned, else the number."""
    pins = [target.pins for target in count.targets]
    weight = any(one.piece_g is not None or one.baked_g is not None for one in pins)
    number = any(one.pieces is not None or one.pans is not None for one in pins)
    return "weight" if weight and not number else "pieces"


def _down(value: float, step: float) -> float:
    steps = (Decimal(repr(round(value, 9))) / Decimal(repr(step))).to_integral_value(ROUND_FLOOR)
    return float(steps * Decimal(repr(step)))


def remade(begun: Begun, before: Values, divide_g: float, keeps: str) -> Count | None:
    """The count for so much dough on the bench, as it was planned `before`; None where there is nothing to make of it. [g]

    Where pieces stay, each target takes its share of the dough and its pieces share that. Where weight stays, all targets but the largest stay as
    they were, and the largest takes the rest.
    """
    number = len(begun.count.targets)
    takes = [before[of("pieces", i)] * before[of("piece_g", i)] for i in range(number)]
    if divide_g <= 0 or sum(takes) <= 0:
        return None
    pins: dict[str, float] = {"bench_loss": before["bench_loss"]}
    largest, by = max(range(number), key=lambda i: takes[i]), divide_g / sum(takes)
    for i, target in enumerate(begun.count.targets):
        pins[of("bake_loss", i)] = before[of("bake_loss", i)]
        if target.pan is not None:
            pins[of("pieces_per_pan", i)] = before[of("pieces_per_pan", i)]
        if keeps == "pieces":
            pins |= {of("pieces", i): before[of("pieces", i)], of("take_g", i): takes[i] * by}
        else:
            pins |= {"divide_g": divide_g, of("piece_g", i): before[of("piece_g", i)]}
            if i != largest:
                pins[of("pieces", i)] = before[of("pieces", i)]
    try:
        return with_pins(begun.count.model_copy(update={"limits": (), "leave_remainder": True}), pins)
    except ValidationError:
        return None  # less than can be weighed, or more than is counted


def planned(begun: Begun) -> Values:
    """The count as it was solved when the bake was begun: its quantities by name."""
    return solve(begun.formula, begun.count, known_pantry(begun), begun.practice, begun.kit, None).solution.values


def making(begun: Begun, before: Values, formula: Formula, divide_g: float, keeps: str) -> Making | None:
    """The count solved again for so much dough on the bench; `formula` as it was mixed. None where nothing comes of it. [g]"""
    own = remade(begun, before, divide_g, keeps)
    if own is None:
        return None
    found = solve(formula, own, known_pantry(begun), begun.practice, begun.kit, None)
    if found.result.fights:
        return None
    return _told(begun, found, before, divide_g, keeps)


def _told(begun: Begun, found: Solved, before: Values, divide_g: float, keeps: str) -> Making:
    now = found.solution.values
    unit_g = WEIGHT_UNITS[begun.scale.unit]
    step_g = float(begun.scale.step) * unit_g
    targets, taken = list[MadeTarget](), 0.0
    for i, target in enumerate(begun.count.targets):
        pieces, exact = int(now[of("pieces", i)]), now[of("piece_g", i)]
        piece_g = _down(exact, step_g) if exact >= step_g else exact
        taken += pieces * piece_g
        printed = begun.sheet.targets[i]
        least = None if printed.least is None else float(printed.least) * unit_g
        baked = piece_g * (1 - now[of("bake_loss", i)])
        small = f"Baked it comes to about {baked:.0f} g, under the {least:.0f} g that its label asks for." if least is not None and baked < least else ""
        targets.append(
            MadeTarget(
                name=target.name, pieces=pieces, piece_g=piece_g, step_g=step_g, planned_pieces=int(before[of("pieces", i)]),
                planned_piece_g=before[of("piece_g", i)], pan=target.pan, per_pan=int(now.get(of("pieces_per_pan", i), 0)) if target.pan is not None else 0,
                loads=loads_of(now, i), panned=panned(found.counter, found.solution, found.result.loads[i], i), least_g=least, baked_g=baked, says=small,
            )
        )
    return Making(keeps=keeps, targets=tuple(targets), remainder_g=max(0.0, round(divide_g - taken, 6)))


class PieceStrip(Frozen):
    """The pieces of one target so far: each beside what it is to weigh, and what the rest must be."""

    target: int
    pieces: tuple[float, ...]
    """Weights, in the order in which they were weighed off. [g]"""
    off: tuple[int, ...]
    """Of each: -1 under, 0 within, 1 over its tolerance."""
    tolerance_g: float
    mean_g: float | None
    spread_g: float | None
    """Standard deviation of the pieces so far; None for fewer than two. [g]"""
    left: int
    left_g: float
    """Dough that is not shared out yet. [g]"""
    rest_g: float | None
    """What each of the rest comes to, shared out evenly. [g]"""
    says: str


def strip(target: int, made: MadeTarget, weighed: Sequence[float], dough_g: float, spread_g: float) -> PieceStrip:
    """The pieces weighed off so far, of so much dough for them. [g]"""
    tolerance = max(made.step_g, spread_g)
    off = tuple(0 if abs(g - made.piece_g) <= tolerance + 1e-9 else (1 if g > made.piece_g else -1) for g in weighed)
    mean = sum(weighed) / len(weighed) if weighed else None
    spread = sqrt(sum((g - mean) ** 2 for g in weighed) / (len(weighed) - 1)) if mean is not None and len(weighed) > 1 else None
    left, left_g = max(0, made.pieces - len(weighed)), dough_g - sum(weighed)
    rest = left_g / left if left and left_g > 0 else None
    return PieceStrip(
        target=target, pieces=tuple(weighed), off=off, tolerance_g=tolerance, mean_g=mean, spread_g=spread, left=left, left_g=round(left_g, 6), rest_g=rest,
        says=_strip_words(made, len(weighed), left, left_g, rest, tolerance),
    )  # fmt: skip


def _strip_words(made: MadeTarget, weighed: int, left: int, left_g: float, rest: float | None, tolerance: float) -> str:
    if left == 0:
        return f"All {made.pieces} are weighed off; {left_g:.0f} g are over." if left_g >= made.step_g else f"All {made.pieces} are weighed off."
    if rest is None:
        return f"There is no dough left for the last {left}: take a little from the large ones." if weighed else ""
    if weighed and left <= max(1, made.pieces * LAST_FEW) and abs(rest - made.piece_g) > tolerance:
        return f"The last {left} come to {rest:.0f} g each: {'smaller' if rest < made.piece_g else 'larger'} than the {made.piece_g:.0f} g before. Even them out now."
    return f"{left} to go, {rest:.0f} g each."


def shares(pieces: int) -> tuple[str, ...]:
    """How to share dough out by halves, without a scale: one sentence a step.

    >>> shares(8)
    ('Halve it: 2 lumps.', 'Halve each: 4 lumps.', 'Halve each: 8 pieces.')
    >>> shares(12)[-1]
    'Part each in 3: 12 pieces.'
    >>> shares(17)[:2]
    ('Take off one piece, a little less than a sixteenth of it all: 1 piece, and the rest for 16.', 'Halve the rest: 2 lumps.')
    """
    found, each, lumps = list[str](), pieces, 1
    if pieces < 2:
        return ()
    while each % 2 == 0:
        each //= 2
        lumps *= 2
        which = "it" if lumps == 2 else "each"
        found.append(f"Halve {which}: {lumps} {'pieces' if each == 1 else 'lumps'}.")
    if each in (3, 5, 7):
        found.append(f"Part {'each' if lumps > 1 else 'it'} in {each}: {lumps * each} pieces.")
    elif each > 1 and lumps == 1:
        rest = shares(pieces - 1)
        part = {16: "sixteenth", 12: "twelfth", 10: "tenth"}.get(pieces - 1, f"{pieces - 1}th")
        first = f"Take off one piece, a little less than a {part} of it all: 1 piece, and the rest for {pieces - 1}."
        found = [first, *(line.replace("Halve it", "Halve the rest", 1) for line in rest)]
    elif each > 1:
        found.append(f"Roll each to a rope and cut it in {each}: {lumps * each} pieces.")
    return tuple(found)
