"""Like pieces apart from each other on a sheet, a griddle or in a pot: in straight rows or staggered, whichever holds more."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache, lru_cache
from itertools import combinations
from math import ceil, dist, floor, sqrt
from typing import Literal

from pancount.core.base.datafiles import rows
from pancount.core.pans.layout import MOST_DRAWN, Place, ring_places, ring_words, rings_that_fit
from pancount.core.pans.pan import AnyPan, Solid, solid

EVEN = 1e-9
"""What fits but for floating point fits."""

LEAST_CM = 0.5
"""Nothing smaller is laid out: a piece across less than this is laid as if it were this wide. [cm]"""

Way = Literal["square", "staggered", "rings", "close"]

Middle = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Closest:
    """Middles of so many circles as far apart as is known to be possible, in a disc of radius 1 or a square of side 1."""

    middles: tuple[Middle, ...]

    def apart(self, along: float, across: float) -> float:
        """How far the nearest two are apart where the container is stretched so."""
        stretched = [(along * x, across * y) for x, y in self.middles]
        return min(dist(a, b) for a, b in combinations(stretched, 2))


@cache
def closest(container: Literal["disc", "square"]) -> tuple[Closest, ...]:
    """The best known ways to lie, for 2 pieces up to 20, the most first."""
    found = [
        Closest(tuple((float(x), float(y)) for x, y in (spot.split() for spot in row["middles"].split(";"))))
        for row in rows(__name__, "packings.csv")
        if row["container"] == container
    ]
    return tuple(sorted(found, key=lambda one: -len(one.middles)))


LOOKED_UP = 1e-5
"""The middles are kept to six digits, so that circles this much too large still lie apart: far below what a hand can lay."""


def _close(container: Literal["disc", "square"], along: float, across: float, pitch: float, more_than: int) -> tuple[Middle, ...]:
    """The most middles of the best known ways that lie a pitch apart, where that is more than so many; else none."""
    for way in closest(container):
        if len(way.middles) <= more_than:
            break
        if way.apart(along, across) >= pitch * (1 - LOOKED_UP):
            return way.middles
    return ()


@dataclass(frozen=True, slots=True)
class Packing:
    """How many pieces fit, how they lie, and where (none where they are too many to draw). [cm]"""

    holds: int
    way: Way
    across_cm: float
    gap_cm: float
    places: tuple[Place, ...]
    words: str


def _fits(room: float, step: float) -> int:
    return max(0, floor(room / step + EVEN))


def _fits_one(across: float, length: float, width: float) -> bool:
    return across <= min(length, width) * (1 + EVEN)


def square_rows(length: float, width: float, across: float, gap: float) -> list[int]:
    """Pieces in each straight row on a rectangle; no gap is needed towards the edge.

    n pieces and their gaps need n·across + (n − 1)·gap.

    >>> square_rows(40, 30, 9, 3)
    [3, 3]
    """
    pitch = across + gap
    return [_fits(length + gap, pitch)] * _fits(width + gap, pitch) if _fits_one(across, length, width) else []


def staggered_rows(length: float, width: float, across: float, gap: float) -> list[int]:
    """Pieces in each row where every other row is shifted by half, rows √3/2 of the pitch apart.

    >>> staggered_rows(46, 33, 9, 3)
    [4, 3, 4]
    """
    pitch = across + gap
    if not _fits_one(across, length, width):
        return []
    rows = 1 + _fits(width - across, pitch * sqrt(3) / 2)
    whole = _fits(length + gap, pitch)
    shifted = _fits(length - pitch / 2 + gap, pitch)
    return [whole if r % 2 == 0 else shifted for r in range(rows)]


def _in_rows(
    rows: list[int], size: tuple[float, float], steps: tuple[float, float, float], *, turned: bool
) -> tuple[Place, ...]:
    """Rows in the middle of a rectangle; `steps` are along a row, from row to row, and how far every other one is shifted."""
    along, down, shift = steps
    found = [(along * i + (shift if r % 2 else 0.0), down * r) for r, n in enumerate(rows) for i in range(n)]
    margins = [(room - max(spot[k] for spot in found)) / 2 for k, room in enumerate(size)]
    spots = [(x + margins[0], y + margins[1]) for x, y in found]
    return tuple(Place(y, x) if turned else Place(x, y) for x, y in spots)


def _rectangle(length: float, width: float, across: float, gap: float) -> Packing:
    """The best of straight and staggered rows, along and across."""
    pitch = across + gap
    best: tuple[int, Way, list[int], bool] = (0, "square", [], False)
    ways: tuple[tuple[Way, Callable[..., list[int]]], ...] = (("square", square_rows), ("staggered", staggered_rows))
    for way, rows_of in ways:
        for turned in (False, True):
            a, b = (width, length) if turned else (length, width)
            rows = rows_of(a, b, across, gap)
            if sum(rows) > best[0] and (way == "square" or len(rows) > 1):
                best = (sum(rows), way, rows, turned)
    holds, way, rows, turned = best
    room = (length - across, width - across)
    if min(room) > 0 and (middles := _close("square", *room, pitch, holds)):
        spots = tuple(Place(across / 2 + x * room[0], across / 2 + y * room[1]) for x, y in middles)
        return Packing(len(spots), "close", across, gap, spots, f"{len(spots)} close together, as drawn")
    if not holds:
        return Packing(0, "square", across, gap, (), "none fit")
    steps = (pitch, pitch, 0.0) if way == "square" else (pitch, pitch * sqrt(3) / 2, pitch / 2)
    size = (width, length) if turned else (length, width)
    places = _in_rows(rows, size, steps, turned=turned) if holds <= MOST_DRAWN else ()
    words = f"{len(rows)} × {rows[0]}" if way == "square" else f"staggered, {rows[0]} and {rows[1]} in turn"
    if len(rows) == 1:
        words = f"a row of {holds}"
    return Packing(holds, way, across, gap, places, words)


def _disc_rows(reach: float, pitch: float, down: float, shift: float, ox: float, oy: float) -> list[tuple[float, float, int]]:
    """Rows of a grid over a disc of middles within `reach`: each row's first x, its y, and how many."""
    rows = []
    for r in range(ceil((-reach - oy) / down - EVEN), floor((reach - oy) / down + EVEN) + 1):
        y, from_middle = oy + down * r, ox + (shift if r % 2 else 0.0)
        half = sqrt(max(0.0, reach * reach - y * y))
        first, last = ceil((-half - from_middle) / pitch - EVEN), floor((half - from_middle) / pitch + EVEN)
        if last >= first:
            rows.append((from_middle + first * pitch, y, last - first + 1))
    return rows


def _disc(diameter: float, across: float, gap: float) -> Packing:
    """The best of rings and of rows over the middle, straight or staggered."""
    pitch, centre = across + gap, diameter / 2
    in_rings = rings_that_fit(diameter + gap, pitch, 10**9)
    best = sum(n for _, n in in_rings)
    places = ring_places(in_rings, centre) if best <= MOST_DRAWN else ()
    found = Packing(best, "rings", across, gap, places, ring_words(in_rings) if best else "none fit")
    reach = (diameter - across) / 2
    if reach < 0:
        return found
    ways: tuple[tuple[Way, float, float], ...] = (("square", pitch, 0.0), ("staggered", pitch * sqrt(3) / 2, pitch / 2))
    for way, down, shift in ways:
        # Centred on a piece, or on a gap, along and across: four ways to lay a grid over a disc.
        for ox, oy in ((0.0, 0.0), (pitch / 2, 0.0), (0.0, down / 2), (pitch / 2, down / 2)):
            rows = _disc_rows(reach, pitch, down, shift, ox, oy)
            holds = sum(n for _, _, n in rows)
            if holds > found.holds:
                drawn = holds <= MOST_DRAWN
                spots = tuple(Place(x + pitch * i + centre, y + centre) for x, y, n in rows for i in range(n)) if drawn else ()
                words = f"{holds} {'in straight rows' if way == 'square' else 'staggered'}"
                found = Packing(holds, way, across, gap, spots, words)
    if reach > 0 and (middles := _close("disc", reach, reach, pitch, found.holds)):
        spots = tuple(Place(centre + reach * x, centre + reach * y) for x, y in middles)
        return Packing(len(spots), "close", across, gap, spots, f"{len(spots)} close together, as drawn")
    return found


def _cups(found: Solid, across: float, gap: float) -> Packing:
    return Packing(found.count, "square", across, gap, (), f"one in each of {found.count} cups")


@lru_cache(maxsize=1024)
def pack(pan: AnyPan, across_cm: float, gap_cm: float) -> Packing:
    """How many round pieces of a diameter, baked, lie apart on a pan by at least a gap. Remembered."""
    found, across_cm = solid(pan), max(across_cm, LEAST_CM)
    if found.count > 1:
        return _cups(found, across_cm, gap_cm)
    if found.form == "rectangle":
        length, width = found.base
        return _rectangle(length, width, across_cm, gap_cm)
    return _disc(found.base[0], across_cm, gap_cm)


MOST_BLOCKS = 50
"""A first block of more pans than this along a shelf is not tried."""


@lru_cache(maxsize=1024)
def fit_rectangles(shelf: tuple[float, ...], pan: tuple[float, ...]) -> int:
    """How many pans fit on a shelf beside each other, all turned the same way, or in two blocks turned to each other.

    >>> fit_rectangles((40, 33), (33, 23)), fit_rectangles((60, 40), (33, 23))
    (1, 2)
    """
    (length, width), (a, b) = shelf, pan

    def block(room_l: float, room_w: float) -> int:
        return max(_fits(room_l, a) * _fits(room_w, b), _fits(room_l, b) * _fits(room_w, a))

    best = block(length, width)
    for along, across, turned in ((length, width, False), (width, length, True)):
        for step in (a, b):
            for n in range(1, min(MOST_BLOCKS, _fits(along, step)) + 1):
                cut = n * step
                first, rest = (cut, across), (along - cut, across)
                two = [block(*(side[::-1] if turned else side)) for side in (first, rest)]
                best = max(best, sum(two))
    return best
