"""Where pieces sit when they share a pan: a grid in a rectangle, rings in a round, one ring in a ring, one in each cup."""

from dataclasses import dataclass
from functools import lru_cache
from math import asin, ceil, cos, pi, sin

from pancount.core.base.models import Frozen
from pancount.core.pans.pan import AnyPan, solid

MOST_DRAWN = 400
"""More pieces than this in one pan are counted but not drawn one by one."""


@dataclass(frozen=True, slots=True)
class Place:
    """The middle of a piece, from the pan's left and top inside edge. [cm]"""

    x_cm: float
    y_cm: float


class Layout(Frozen):
    """Pieces in one pan: where they sit, how, and the room each has across. [cm]"""

    places: tuple[Place, ...]
    words: str
    """How they sit, as a baker would say it: "3 × 4", "6 around 1"."""
    room_cm: float


def grid_rows(rows: list[int]) -> str:
    """Rows as a baker would say them: "3 × 4", or "1 × 4 and 3" where the last is short."""
    whole = [n for n in rows if n == rows[0]]
    return f"{len(whole)} × {rows[0]}" + (f" and {rows[-1]}" if len(whole) < len(rows) else "")


def grid(pieces: int, length_cm: float, width_cm: float) -> Layout:
    """The rows × columns that give each piece the most room; a last row may be short.

    Room is the smaller side of a cell. Where two grids give the same room, the one with fewer empty cells.
    """
    options = []
    for rows in range(1, pieces + 1):
        columns = ceil(pieces / rows)
        options.append((min(width_cm / rows, length_cm / columns), -rows * columns, columns))
    columns = max(options)[2]
    rows = ceil(pieces / columns)
    down, across = width_cm / rows, length_cm / columns
    in_rows = [min(columns, pieces - row * columns) for row in range(rows)]
    places = tuple(
        Place(x_cm=length_cm / n * (column + 0.5), y_cm=down * (row + 0.5))
        for row, n in enumerate(in_rows)
        for column in range(n)
    )
    return Layout(places=places, words=grid_rows(in_rows), room_cm=min(down, across))


def rings_that_fit(diameter_cm: float, room_cm: float, most: int) -> list[tuple[float, int]]:
    """Rings of circles of `room_cm` that fit, from the rim inward, as (radius, how many), at most `most` in all."""
    rings: list[tuple[float, int]] = []
    outer, left = diameter_cm / 2, most
    while outer >= room_cm / 2 * (1 - 1e-9) and left > 0:
        radius = outer - room_cm / 2
        holds = 1 if radius < room_cm / 2 else int(pi / asin(min(1.0, room_cm / 2 / radius)) + 1e-9)
        rings.append((radius if holds > 1 else 0.0, min(holds, left)))
        left -= min(holds, left)
        outer -= room_cm
    return rings


def ring_places(rings: list[tuple[float, int]], centre_cm: float) -> tuple[Place, ...]:
    """Pieces evenly around each ring, the first at the top."""
    return tuple(
        Place(x_cm=centre_cm + radius * sin(2 * pi * i / n), y_cm=centre_cm - radius * cos(2 * pi * i / n))
        for radius, n in rings
        for i in range(n)
    )


def ring_words(rings: list[tuple[float, int]]) -> str:
    """Rings as a baker would say them: "6 around 1"."""
    pieces = sum(n for _, n in rings)
    if pieces == 1:
        return "one in the middle"
    return " around ".join(str(n) for _, n in rings) if len(rings) > 1 else f"a ring of {pieces}"


def rings(pieces: int, diameter_cm: float) -> Layout:
    """Rings from the rim inward, with the widest pieces for which they all fit (found by halving)."""
    low, high = 0.0, diameter_cm
    for _ in range(48):
        middle = (low + high) / 2
        if sum(n for _, n in rings_that_fit(diameter_cm, middle, pieces)) >= pieces:
            low = middle
        else:
            high = middle
    placed = rings_that_fit(diameter_cm, low, pieces)
    return Layout(places=ring_places(placed, diameter_cm / 2), words=ring_words(placed), room_cm=low)


def around(pieces: int, outer_cm: float, hole_cm: float) -> Layout:
    """One ring between a tube and the side."""
    radius = (outer_cm + hole_cm) / 4
    room = min((outer_cm - hole_cm) / 2, 2 * radius * sin(pi / pieces) if pieces > 1 else outer_cm)
    return Layout(places=ring_places([(radius, pieces)], outer_cm / 2), words=f"a ring of {pieces}", room_cm=room)


@lru_cache(maxsize=512)
def lay_out(pieces: int, pan: AnyPan) -> Layout | None:
    """Where `pieces` sit in `pan`, at mid-height; None for no pieces, for more than can be drawn, and for cups.

    Remembered, since a baker types many numbers for one pan.
    """
    found = solid(pan)
    if not 1 <= pieces <= MOST_DRAWN or found.count > 1:
        return None
    a, b = found.top
    if found.form == "rectangle":
        return grid(pieces, a, b)
    return rings(pieces, a) if found.form == "disc" else around(pieces, a, b)
