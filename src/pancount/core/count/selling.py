"""Selling by weight: how far a baked piece may stray from its label, and how much to aim over it.

The tables are rules of the EU and the US recalled from memory, kept as data with their source. They are for planning:
what may be sold where, and by which rules, is for local rules to say.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from math import ceil, sqrt
from statistics import NormalDist
from typing import Literal

from pancount.core.base.datafiles import rows
from pancount.core.base.derived import Derived, derived

Rules = Literal["EU", "US"]

SAYS_RULES: dict[Rules, str] = {"EU": "EU 76/211/EEC", "US": "US Handbook 133"}


@dataclass(frozen=True, slots=True)
class Tolerance:
    """How far below its label a single piece may be, for labels over one weight up to another. [g]"""

    over_g: float
    up_to_g: float
    share: float | None
    grams: float | None
    source: str
    rounds_up: bool = False
    """EU: percentages are rounded up to a tenth of a gram (Directive 76/211/EEC, Annex I 2.4, recalled from memory)."""

    def of(self, label_g: float) -> float:
        """In grams, for a label; a percentage is rounded up to a tenth of a gram where the rules do so."""
        if self.grams is not None:
            return self.grams
        exact = (self.share or 0.0) * label_g
        return ceil(exact * 10 - 1e-9) / 10 if self.rounds_up else exact


@cache
def tolerances(rules: Rules) -> Sequence[Tolerance]:
    """The table of these rules, lightest label first."""
    return tuple(
        Tolerance(
            float(row["over_g"]),
            float(row["up_to_g"]),
            float(row["share"]) if row["share"] else None,
            float(row["grams"]) if row["grams"] else None,
            row["source"],
            rounds_up=rules == "EU",
        )
        for row in rows(__name__, "tolerances.csv")
        if row["rules"] == rules
    )


def tolerance(label_g: float, rules: Rules) -> Tolerance | None:
    """The row for a label; a weight on the border belongs to the lighter one. None outside of the table.

    >>> tolerance(80, "EU").of(80), tolerance(100, "EU").of(100), tolerance(150, "EU").of(150)
    (4.5, 4.5, 6.8)
    """
    found = (row for row in tolerances(rules) if row.over_g < label_g <= row.up_to_g)
    first = tolerances(rules)[0]
    return next(found, first if label_g == first.over_g else None)


SAFE = NormalDist().inv_cdf(0.975)
"""Of pieces that stray evenly, 1 in 40 lies further below the mean than this many standard deviations: the 2.5 % that EU
rules allow below the tolerance, and how sure the average is to be over its label."""
SURE = NormalDist().inv_cdf(0.9999)
"""1 in 10 000 lies further below: as good as none."""


@dataclass(frozen=True, slots=True)
class Sold:
    """A target that is sold by weight: its label, how far a piece may be below it, and what to aim for. [g]"""

    label_g: float
    rules: Rules
    tolerance_g: float | None
    """None where the table has no row for such a weight."""
    least_g: float | None
    """No piece under this at all."""
    overweight_g: float
    """Over the label, baked, so that the average and the single pieces are safe."""
    aim_baked_g: float
    on_it_g: float
    """Filling and topping that stay on a piece; they count in its weight."""
    aim_raw_g: float
    says: str
    """Which of the needs asks for the overweight."""
    source: str
    figures: dict[str, Derived]


def sold(
    label_g: float, pieces: int, bake_loss: float, spread_g: float, rules: Rules, on_it_g: float = 0.0
) -> Sold:
    """What a label asks for, of a baker whose raw pieces stray by `spread_g` (standard deviation).

    The label is for the whole piece: `on_it_g` is the filling and topping that stay on one, as they go on.

    The average of all pieces must reach the label (and does in 39 of 40 batches); by EU rules 1 piece in 40 may be below
    the label by more than the tolerance T, and none by more than 2·T; by US rules none by more than T.
    """
    row = tolerance(label_g, rules)
    spread = spread_g * (1 - bake_loss)
    needs = [(SAFE * spread / sqrt(max(1, pieces)), "the average to reach the label")]
    t = row.of(label_g) if row else None
    least = None
    if t is not None:
        least = label_g - (2 * t if rules == "EU" else t)
        needs.append((SURE * spread - (label_g - least), "no piece to be too light"))
        if rules == "EU":
            needs.append((SAFE * spread - t, "no more than 1 in 40 to be under the tolerance"))
    over, why = max(needs)
    over = max(0.0, over)
    aim = label_g + over
    raw = (aim - on_it_g) / (1 - bake_loss)
    figures = {
        "overweight": derived(
            "Aim over the label",
            over,
            "g",
            f"So much over the label is asked for {why}, by how evenly the pieces are divided.",
            "{z} × {spread} × (1 − {loss}) ÷ √{pieces}" if needs[0][0] >= over else "{far} × {spread} × (1 − {loss}) − {stray}",
            z=("Standard deviations for 39 in 40", SAFE, "count"),
            far=("Standard deviations for as good as all", SURE if "no piece" in why else SAFE, "count"),
            spread=("How evenly pieces are divided", spread_g, "g"),
            loss=("Baking loss", bake_loss, "share"),
            pieces=("Pieces", pieces, "count"),
            stray=("How far a piece may stray", label_g - (least or label_g) if "no piece" in why else t or 0.0, "g"),
        ),
        "aim_raw": derived(
            "Raw piece to divide",
            raw,
            "g",
            "The raw piece is what is aimed for when baked, less the filling and topping on it, with what baking takes put back.",
            "({sold_at} + {over} − {on_it}) ÷ (1 − {loss})",
            sold_at=("Label", label_g, "g"),
            over=("Aim over the label", over, "g"),
            on_it=("Filling and topping on it", on_it_g, "g"),
            loss=("Baking loss", bake_loss, "share"),
        ),
    }
    return Sold(
        label_g=label_g,
        rules=rules,
        tolerance_g=t,
        least_g=least,
        overweight_g=over,
        aim_baked_g=aim,
        on_it_g=on_it_g,
        aim_raw_g=raw,
        says=why,
        source=row.source if row else "",
        figures=figures,
    )
