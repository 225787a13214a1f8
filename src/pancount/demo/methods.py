"""The ways in which Weir House kitchen makes its doughs: its cards (`methods.toml`), read as any method is."""

import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

from pancount.core.formula.formula import Formula, Way, each_line
from pancount.core.formula.moving import straight
from pancount.core.formula.stages import main_stage
from pancount.core.formula.steps import OtherPercent
from pancount.core.formula.ways import in_way, keyed
from pancount.core.pantry.ingredients import pantry_with
from pancount.core.taking.steps import read_steps


@cache
def _cards() -> dict[str, list[dict[str, Any]]]:
    return tomllib.loads((files("pancount.demo") / "methods.toml").read_text())


def with_ways(formula: Formula) -> Formula:
    """A formula of the demo kitchen with its ways; the first has no key, so that a count goes by it where nothing is said."""
    formula = keyed(formula)
    for n, card in enumerate(_cards().get(formula.name, ())):
        formula = formula.model_copy(update={"ways": (*formula.ways, _way(formula, card, f"way {n + 1}" if n else ""))})
    return formula


def _way(formula: Formula, card: dict[str, Any], key: str) -> Way:
    """A way as its card tells it: straight, where it makes nothing before the dough, and with the yeast that it takes."""
    own = keyed(straight(formula)).stages if card.get("straight") else None
    dough = formula if own is None else formula.model_copy(update={"stages": own})
    _, way = read_steps(card["text"], dough, pantry_with(()))
    way = way.model_copy(update={"name": card["name"], "key": key, "stages": own})
    with_it = in_way(formula.model_copy(update={"ways": (way,)}), key)
    changed = tuple(
        OtherPercent(key=line.key, percent=card["changed"][line.name])
        for s, _, line in each_line(with_it)
        if s == main_stage(with_it) and line.name in card.get("changed", {})
    )
    return way.model_copy(update={"changed": changed})
