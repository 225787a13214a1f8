"""Where pieces sit in a pan: a grid in a rectangle, rings in a round."""

from dataclasses import dataclass
from functools import lru_cache
from math import asin, ceil, cos, pi, sin

from pancount.core.base import Frozen
from pancount.core.pan import RectanglePan, RoundPan

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


def grid(pieces: int, pan: RectanglePan) -> Layout:
    """The rows × columns that give each piece the most room; a last row may be short.

    Room is the smaller side of a cell. Where two grids give the same room, the one with fewer empty cells.
    """
    options = []
    for rows in range(1, pieces + 1):
        columns = ceil(pieces / rows)
        options.append((min(pan.width_cm / rows, pan.length_cm / columns), -rows * columns, columns))
    columns = max(options)[2]
    rows = ceil(pieces / columns)
    down, across = pan.width_cm / rows, pan.length_cm / columns
    places = []
    for i in range(pieces):
        row, column = divmod(i, columns)
        in_row = min(columns, pieces - row * columns)
        places.append(Place(x_cm=pan.length_cm / in_row * (column + 0.5), y_cm=down * (row + 0.5)))
    short = pieces % columns
    words = f"{rows} × {columns}" if not short else f"{rows - 1} × {columns} and {short}"
    return Layout(places=tuple(places), words=words, room_cm=min(down, across))


def _rings(diameter_cm: float, room_cm: float, most: int) -> list[tuple[float, int]]:
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


def rings(pieces: int, pan: RoundPan) -> Layout:
    """Rings from the rim inward, with the widest pieces for which they all fit (found by halving)."""
    low, high = 0.0, pan.diameter_cm
    for _ in range(48):
        middle = (low + high) / 2
        if sum(n for _, n in _rings(pan.diameter_cm, middle, pieces)) >= pieces:
            low = middle
        else:
            high = middle
    placed = _rings(pan.diameter_cm, low, pieces)
    centre = pan.diameter_cm / 2
    places = tuple(
        Place(x_cm=centre + radius * sin(2 * pi * i / n), y_cm=centre - radius * cos(2 * pi * i / n))
        for radius, n in placed
        for i in range(n)
    )
    words = "one in the middle" if pieces == 1 else " around ".join(str(n) for _, n in placed)
    return Layout(places=places, words=words if len(placed) > 1 or pieces == 1 else f"a ring of {pieces}", room_cm=low)


@lru_cache(maxsize=512)
def lay_out(pieces: int, pan: RectanglePan | RoundPan) -> Layout | None:
    """Where `pieces` sit in `pan`; None for no pieces or for more than can be drawn.

    Remembered, since a baker types many numbers for one pan.
    """
    if not 1 <= pieces <= MOST_DRAWN:
        return None
    return grid(pieces, pan) if isinstance(pan, RectanglePan) else rings(pieces, pan)
