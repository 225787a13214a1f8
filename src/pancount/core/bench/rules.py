"""Figures that the bench goes by, each with its source."""

from functools import cache

from pancount.core.base.datafiles import rows


@cache
def rules() -> dict[str, float]:
    """Figures by name."""
    return {row["rule"]: float(row["value"]) for row in rows(__name__, "rules.csv")}
