"""The named quantities of the count, and the named relations between them.

One table serves three questions: what a quantity is from the others, how that was worked out, and
whether pinned quantities can hold together. Relations: common practice, no source; they follow by arithmetic.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from math import ceil, floor

Values = Mapping[str, float]

NOISE = 1e-12
"""Relative error that floating point may bring into a chain of reckoning; a thousand times what was seen."""

QUANTITIES: dict[str, tuple[str, str]] = {
    "flour_g": ("Flour", "g"),
    "dough_g": ("Dough mixed", "g"),
    "bench_loss": ("Bowl and bench loss", "share"),
    "divide_g": ("Dough to divide", "g"),
    "pieces": ("Pieces", "count"),
    "piece_g": ("Raw piece", "g"),
    "remainder_g": ("Left over", "g"),
    "pans": ("Pans", "count"),
    "pieces_per_pan": ("Pieces a pan", "count"),
    "fill": ("Fill", "fill"),
    "total_percent": ("The formula's total", "percent"),
    "pan_size": ("Size of the pan", "size"),
}
"""Every quantity: its name on screen and what it is measured in. `fill` and `pan_size` follow the fill rule."""


def whole(value: float) -> int:
    """The whole number in `value`, forgiving the last digits of floating point.

    >>> whole(23.9999999999), whole(17.2)
    (24, 17)
    """
    return floor(value * (1 + NOISE) + 1e-9)


def same(a: float, b: float) -> bool:
    """Whether two reckoned values are one number, but for floating point."""
    return abs(a - b) <= 1e-7 * max(abs(a), abs(b))


@dataclass(frozen=True)
class Way:
    """One way round a relation: how it reads, with quantities in braces, and how it is reckoned."""

    reads: str
    reckon: Callable[[Values], float]


@dataclass(frozen=True)
class Relation:
    """A relation over named quantities: its sentence, a way for each quantity it can give, and its check."""

    key: str
    says: str
    over: tuple[str, ...]
    ways: Mapping[str, Way]
    holds: Callable[[Values], bool]
    of_pan: bool = False
    """True where it only makes sense with a pan."""


RELATIONS: tuple[Relation, ...] = (
    Relation(
        "flour_to_dough",
        "The dough mixed is the flour times the formula's total.",
        ("flour_g", "total_percent", "dough_g"),
        {
            "dough_g": Way("{flour_g} × {total_percent}", lambda v: v["flour_g"] * v["total_percent"] / 100),
            "flour_g": Way("{dough_g} ÷ {total_percent}", lambda v: v["dough_g"] * 100 / v["total_percent"]),
        },
        lambda v: same(v["dough_g"], v["flour_g"] * v["total_percent"] / 100),
    ),
    Relation(
        "bench_loss",
        "The dough to divide is the dough mixed, less what stays in the bowl and on the bench.",
        ("dough_g", "bench_loss", "divide_g"),
        {
            "divide_g": Way("{dough_g} × (1 − {bench_loss})", lambda v: v["dough_g"] * (1 - v["bench_loss"])),
            "dough_g": Way("{divide_g} ÷ (1 − {bench_loss})", lambda v: v["divide_g"] / (1 - v["bench_loss"])),
        },
        lambda v: same(v["divide_g"], v["dough_g"] * (1 - v["bench_loss"])),
    ),
    Relation(
        "dividing",
        "The pieces are the whole pieces in the dough to divide; what is less than a piece is left over.",
        ("divide_g", "pieces", "piece_g"),
        {
            "divide_g": Way("{pieces} × {piece_g}", lambda v: v["pieces"] * v["piece_g"]),
            "piece_g": Way("{divide_g} ÷ {pieces}", lambda v: v["divide_g"] / v["pieces"]),
            "pieces": Way("whole pieces in {divide_g} ÷ {piece_g}", lambda v: whole(v["divide_g"] / v["piece_g"])),
        },
        lambda v: v["pieces"] == whole(v["divide_g"] / v["piece_g"]),
    ),
    Relation(
        "panning",
        "The pans are as many as hold the pieces; the last may be part full.",
        ("pieces", "pans", "pieces_per_pan"),
        {
            "pieces": Way("{pans} × {pieces_per_pan}", lambda v: v["pans"] * v["pieces_per_pan"]),
            "pans": Way("{pieces} ÷ {pieces_per_pan}, up to whole", lambda v: ceil(v["pieces"] / v["pieces_per_pan"])),
            "pieces_per_pan": Way("{pieces} ÷ {pans}, up to whole", lambda v: ceil(v["pieces"] / v["pans"])),
        },
        lambda v: (
            v["pans"] == ceil(v["pieces"] / v["pieces_per_pan"])
            or v["pieces_per_pan"] == ceil(v["pieces"] / max(v["pans"], 1))
        ),
        of_pan=True,
    ),
    Relation(
        "filling",
        "The fill is the dough in a full pan over the size of the pan.",
        ("piece_g", "pieces_per_pan", "fill", "pan_size"),
        {
            "fill": Way(
                "{piece_g} × {pieces_per_pan} ÷ {pan_size}",
                lambda v: v["piece_g"] * v["pieces_per_pan"] / v["pan_size"],
            ),
            "piece_g": Way(
                "{fill} × {pan_size} ÷ {pieces_per_pan}", lambda v: v["fill"] * v["pan_size"] / v["pieces_per_pan"]
            ),
        },
        lambda v: same(v["fill"], v["piece_g"] * v["pieces_per_pan"] / v["pan_size"]),
        of_pan=True,
    ),
)

LEFT_OVER = Relation(
    "left_over",
    "What is left over is the dough to divide, less the whole pieces.",
    ("divide_g", "pieces", "piece_g", "remainder_g"),
    {
        "remainder_g": Way(
            "{divide_g} − {pieces} × {piece_g}", lambda v: max(0.0, v["divide_g"] - v["pieces"] * v["piece_g"])
        )
    },
    lambda v: True,
)
"""Reckoned last, when the pieces are known."""

FIGURE_WORDS: dict[str, tuple[str, dict[str, str]]] = {
    "percent_of": ("A line's percentage is its weight over all flour.", {"percent": "{weight_g} ÷ {written_flour_g}"}),
    "weight_of": ("A line's weight is its percentage of all flour.", {"weight_g": "{written_flour_g} × {percent}"}),
    "count_weight": (
        "In this count, a line's weight is its percentage of the count's flour.",
        {"count_g": "{flour_g} × {percent}"},
    ),
    "stage": ("A stage's weight in this count is the sum of its lines and of what comes in from other stages.", {"stage_g": ""}),
    "depth_divided": (
        "Level dough stands as deep as its weight over its density over the area of the pan.",
        {"depth_divided": "{pan_dough_g} ÷ {density} ÷ {area}"},
    ),
    "depth_doubled": ("Doubled, the dough stands twice as deep.", {"depth_doubled": "{rise} × {depth_divided}"}),
    "pan_fill": (
        "The fill is the dough in the fullest pan over the size of the pan.",
        {"pan_fill": "{pan_dough_g} ÷ {pan_size}"},
    ),
    "total": ("The total is the sum of all lines that reach the dough, flour being 100.", {"total_percent": ""}),
    "written_flour": (
        "All flour as written that reaches the dough, a starter's flour included.",
        {"written_flour_g": ""},
    ),
}
"""Sentences and readings for the figures of formula and pan, so that they open to their working like those of the count."""
