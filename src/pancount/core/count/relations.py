"""The named quantities of the count, and the named relations between them.

One table serves three questions: what a quantity is from the others, how that was worked out, and
whether pinned quantities can hold together. Relations: common practice, no source; they follow by arithmetic.

Quantities are of the batch (`flour_g`) or of one of its targets (`pieces.0`, `pieces.1`). The relations of a target are
written once and bound to each.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from math import ceil, floor, inf

Values = Mapping[str, float]

NOISE = 1e-12
"""Relative error that floating point may bring into a chain of reckoning; a thousand times what was seen."""

QUANTITIES: dict[str, tuple[str, str]] = {
    "flour_g": ("Flour", "g"),
    "dough_g": ("Dough mixed", "g"),
    "bench_loss": ("Bowl and bench loss", "share"),
    "divide_g": ("Dough to divide", "g"),
    "remainder_g": ("Left over", "g"),
    "take_g": ("Dough for these", "g"),
    "pieces": ("Pieces", "count"),
    "piece_g": ("Raw piece", "g"),
    "bake_loss": ("Baking loss", "share"),
    "baked_g": ("Baked piece", "g"),
    "pans": ("Pans", "count"),
    "pieces_per_pan": ("Pieces a pan", "count"),
    "fill": ("Fill", "fill"),
    "total_percent": ("The formula's total", "percent"),
    "pan_size": ("Size of the pan", "size"),
}
"""Every quantity: its name on screen and what it is measured in. `fill` and `pan_size` follow the fill rule."""

RANGES: dict[str, tuple[float, float]] = dict.fromkeys(("take_g", "piece_g", "fill", "baked_g", "flour_g", "dough_g", "divide_g"), (0.0, inf)) | {
    "bake_loss": (0.0, 0.4999)
}
"""What a worked-out quantity may be at all; outside of it, the pins it rests on cannot hold together."""


def of(name: str, target: int) -> str:
    """A quantity of one target.

    >>> of("pieces", 1)
    'pieces.1'
    """
    return f"{name}.{target}"


def bare(name: str) -> str:
    """A quantity without its target.

    >>> bare("pieces.1"), bare("flour_g")
    ('pieces', 'flour_g')
    """
    return name.partition(".")[0]


MOST_WHOLE = 1e15
"""More than this is as good as without end; a whole number of it still counts exactly."""


def whole(value: float) -> int:
    """The whole number in `value`, forgiving the last digits of floating point.

    >>> whole(23.9999999999), whole(17.2)
    (24, 17)
    """
    return floor(min(value * (1 + NOISE) + 1e-9, MOST_WHOLE))


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


@dataclass(frozen=True)
class Bound:
    """A relation over the quantities of one batch or target: what it is over, what it can give, and whether it holds."""

    key: str
    over: tuple[str, ...]
    ways: Mapping[str, Callable[[Values], float]]
    holds: Callable[[Values], bool]


BATCH: tuple[Relation, ...] = (
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
)
"""Of the batch."""

TARGET: tuple[Relation, ...] = (
    Relation(
        "dividing",
        "The pieces are the whole pieces in the dough for these; what is less than a piece is left over.",
        ("take_g", "pieces", "piece_g"),
        {
            "take_g": Way("{pieces} × {piece_g}", lambda v: v["pieces"] * v["piece_g"]),
            "piece_g": Way("{take_g} ÷ {pieces}", lambda v: v["take_g"] / v["pieces"]),
            "pieces": Way("whole pieces in {take_g} ÷ {piece_g}", lambda v: whole(v["take_g"] / v["piece_g"])),
        },
        lambda v: v["pieces"] == whole(v["take_g"] / v["piece_g"]),
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
    Relation(
        "baking",
        "The baked piece is the raw piece, less what baking takes.",
        ("piece_g", "bake_loss", "baked_g"),
        {
            "baked_g": Way("{piece_g} × (1 − {bake_loss})", lambda v: v["piece_g"] * (1 - v["bake_loss"])),
            "piece_g": Way("{baked_g} ÷ (1 − {bake_loss})", lambda v: v["baked_g"] / (1 - v["bake_loss"])),
            "bake_loss": Way("1 − {baked_g} ÷ {piece_g}", lambda v: 1 - v["baked_g"] / v["piece_g"]),
        },
        lambda v: same(v["baked_g"], v["piece_g"] * (1 - v["bake_loss"])),
    ),
)
"""Of each target."""

SHARING_SAYS = "The dough to divide is shared out: what each target takes comes to no more than all of it."
LEFT_OVER_SAYS = "What is left over is the dough to divide, less the whole pieces."


@lru_cache(maxsize=256)
def bound(target: int, *, with_pan: bool) -> tuple[Bound, ...]:
    """The relations of one target."""
    return tuple(_bind(relation, target) for relation in TARGET if with_pan or not relation.of_pan)


def _bind(relation: Relation, target: int) -> Bound:
    names = {name: of(name, target) for name in relation.over}
    pairs = tuple(names.items())

    def seen(values: Values) -> Values:
        return {name: values[full] for name, full in pairs if full in values}

    def way(reckon: Callable[[Values], float]) -> Callable[[Values], float]:
        return lambda values: reckon(seen(values))

    return Bound(
        relation.key,
        tuple(names.values()),
        {names[name]: way(w.reckon) for name, w in relation.ways.items()},
        lambda values: relation.holds(seen(values)),
    )


@lru_cache(maxsize=64)
def batch_relations(targets: int) -> tuple[Bound, ...]:
    """The relations of a batch, with the sharing of its dough among so many targets."""
    own = tuple(Bound(r.key, r.over, {n: w.reckon for n, w in r.ways.items()}, r.holds) for r in BATCH)
    return (*own, _sharing(targets))


def _sharing(targets: int) -> Bound:
    takes = tuple(of("take_g", i) for i in range(targets))

    def rest(name: str) -> Callable[[Values], float]:
        return lambda v: v["divide_g"] - sum(v[other] for other in takes if other != name)

    def holds(v: Values) -> bool:
        taken = sum(v[name] for name in takes)
        # One target takes all the dough, its remainder included; several may leave some over.
        return same(v["divide_g"], taken) or (targets > 1 and taken < v["divide_g"])

    ways = {name: rest(name) for name in takes} | {"divide_g": lambda v: sum(v[name] for name in takes)}
    return Bound("sharing", ("divide_g", *takes), ways, holds)


@lru_cache(maxsize=64)
def left_over(targets: int) -> Bound:
    """What is left over; reckoned last, when all pieces are known."""
    pairs = tuple((of("pieces", i), of("piece_g", i)) for i in range(targets))

    def over(v: Values) -> float:
        return max(0.0, v["divide_g"] - sum(v[n] * v[w] for n, w in pairs))

    names = tuple(name for pair in pairs for name in pair)
    return Bound("left_over", ("divide_g", *names, "remainder_g"), {"remainder_g": over}, lambda v: True)


def sum_reads(key: str, targets: int) -> dict[str, str]:
    """How sharing and what is left over read for so many targets, with quantities in braces."""
    if key == "sharing":
        takes = [f"{{take_g.{i}}}" for i in range(targets)]
        rest = {
            of("take_g", i): " − ".join(["{divide_g}", *(t for j, t in enumerate(takes) if j != i)]) for i in range(targets)
        }
        return {"divide_g": " + ".join(takes)} | rest
    each = " − ".join(f"{{pieces.{i}}} × {{piece_g.{i}}}" for i in range(targets))
    return {"remainder_g": f"{{divide_g}} − {each}"}


FIGURE_WORDS: dict[str, tuple[str, dict[str, str]]] = {
    "percent_of": ("A line's percentage is its weight over all flour.", {"percent": "{weight_g} ÷ {written_flour_g}"}),
    "weight_of": ("A line's weight is its percentage of all flour.", {"weight_g": "{written_flour_g} × {percent}"}),
    "count_weight": (
        "In this count, a line's weight is its percentage of the count's flour.",
        {"count_g": "{flour_g} × {percent}"},
    ),
    "stage": ("A stage's weight in this count is the sum of its lines and of what comes in from other stages.", {"stage_g": ""}),
    "total": ("The total is the sum of all lines that reach the dough, flour being 100.", {"total_percent": ""}),
    "written_flour": (
        "All flour as written that reaches the dough, a starter's flour included.",
        {"written_flour_g": ""},
    ),
}
"""Sentences and readings for the figures of formula and pan, so that they open to their working like those of the count."""
