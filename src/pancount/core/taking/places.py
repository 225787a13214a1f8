"""Where the things of a page go, beyond what their own words and their headings say: headings that nothing tells of, the method, baths
and washes. What the baker said stands before all of it.
"""

from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple

from pancount.core.pantry.ingredients import Ingredient
from pancount.core.pantry.role import Role
from pancount.core.taking.item import Item
from pancount.core.taking.method import IN_BATHS, key_of, ml_of, put_by, read_method
from pancount.core.taking.pages import Written
from pancount.core.taking.taken import Where
from pancount.core.taking.vocabulary import Names
from pancount.core.taking.weigh import EGGS

THINS = {"Water", "Whole milk", "Cream", "Single cream", "Skimmed milk", "Semi-skimmed milk"}
WASH_ML = 45.0
"""The most that an egg for brushing is thinned with. Common practice, no source. [ml]"""
LEAVENS = {"?yeast", "?dry_yeast"}
SALTS = {"?salt", "Fine salt"}


class Grouped(NamedTuple):
    """Where what stands under a heading goes, and whether that is to be asked."""

    where: Where
    asked: bool


def place(
    items: Sequence[Item],
    lines: Sequence[Written],
    settled: Mapping[int, Where],
    names: Names,
    meant: Callable[[Item], Sequence[Ingredient]],
) -> dict[int, Grouped]:
    """Put the things where they go, and say where those go whose headings do not tell: by the heading's line.

    `settled` is what the baker said of lines, `meant` what an item may be, the most common first.
    """
    heads = _heads(lines)
    groups = _groups(items, lines, heads, settled)
    for item in items:
        grouped = groups.get(heads[item.line])
        if grouped and _is_open(item) and item.group == lines[heads[item.line]].group:
            item.where = grouped.where
    _by_method(items, lines, [heads[item.line] in groups for item in items], names, meant)
    _baths(items, heads)
    _washes(items)
    return groups


def _is_open(item: Item) -> bool:
    """Whether nothing has put it anywhere yet."""
    return item.in_dough and not (item.said and item.said.where)


def _heads(lines: Sequence[Written]) -> list[int]:
    """The heading that each line stands under; −1 for none."""
    found, head = [], -1
    for n, line in enumerate(lines):
        head = n if line.kind == "heading" else head
        found.append(head)
    return found


def _roles(items: Sequence[Item]) -> Counter[Role | str]:
    """How many things there are of each role; salt and yeast that a question settles go as these."""
    found: Counter[Role | str] = Counter()
    for item in items:
        key, named = key_of(item.reading.named), item.reading.named
        if named and named.ingredient:
            found[named.ingredient.role] += 1
        if key in SALTS:
            found["salt"] += 1
        if key in LEAVENS:
            found[Role.LEAVEN] += 1
    return found


def _groups(
    items: Sequence[Item], lines: Sequence[Written], heads: Sequence[int], settled: Mapping[int, Where]
) -> dict[int, Grouped]:
    """Headings whose words do not tell: as the baker said; else into the dough where what stands there has leaven, or the only flour or
    salt, or comes first and has flour; else, most likely, on top."""
    under: dict[int, list[Item]] = {}
    for item in items:
        under.setdefault(heads[item.line], []).append(item)
    whole = _roles([item for item in items if item.in_dough])
    first = min((item.line for item in items), default=0)
    found = {}
    for n, line in enumerate(lines):
        if line.kind != "heading" or not line.unsure:
            continue
        if n in settled:
            found[n] = Grouped(settled[n], asked=False)
            continue
        own = [item for item in under.get(n, ()) if item.group == line.group]
        has = _roles(own)
        rest = whole - _roles([item for item in own if item.in_dough])
        alone = any(has[role] and not rest[role] for role in (Role.FLOUR, "salt"))
        if not own or has[Role.LEAVEN] or alone:
            found[n] = Grouped("dough", asked=False)
        else:
            found[n] = Grouped("dough" if first > n and has[Role.FLOUR] else "topping", asked=True)
    return found


def _by_method(
    items: Sequence[Item],
    lines: Sequence[Written],
    grouped: Sequence[bool],
    names: Names,
    meant: Callable[[Item], Sequence[Ingredient]],
) -> None:
    """What the list leaves in the dough, put where the method says."""
    steps = [line.read for line in lines if line.kind == "step"]
    if not steps or all(line.kind != "ingredient" for line in lines):
        return
    things = []
    for n, item in enumerate(items):
        weighed = item.said is not None and item.said.weight_g is not None
        if _is_open(item) and not weighed and not grouped[n] and lines[item.line].kind == "ingredient":
            ingredients = meant(item)
            things.append((n, item.reading, ingredients[0].role if ingredients else None))
    for n, put in put_by(read_method(steps, names), things).items():
        items[n].method = put.says
        if put.where:
            items[n].where = put.where
            items[n].reading = replace(items[n].reading, states=(*items[n].reading.states, "by the method"))


def _baths(items: Sequence[Item], heads: Sequence[int]) -> None:
    """Lye is never in a dough; and what stands with it, or with soda, under a heading that keeps it out of the dough is the bath: "for
    dipping"."""
    beside: dict[tuple[int, str], set[str]] = {}
    for item in items:
        if not item.in_dough:
            beside.setdefault((heads[item.line], item.group), set()).add(key_of(item.reading.named))
    for item in items:
        if item.said and item.said.where:
            continue
        stands_with = beside.get((heads[item.line], item.group), set())
        watered = "Water" in stands_with and stands_with & {"Lye", "Baking soda"}
        key = key_of(item.reading.named)
        if key == "Lye" or (watered and key in IN_BATHS and item.where == "topping" and item.group and item.reading.amount):
            item.where = "bath"


def _washes(items: Sequence[Item]) -> None:
    """An egg beaten with a little water or milk is, most likely, for brushing: so taken, and asked."""
    by_line: dict[int, list[Item]] = {}
    for item in items:
        by_line.setdefault(item.line, []).append(item)
    for egg, *rest in by_line.values():
        beaten = key_of(egg.reading.named) in EGGS and "beaten" in egg.reading.states
        thinned = [item for item in rest if key_of(item.reading.named) in THINS and 0 < ml_of(item.reading.amount) <= WASH_ML]
        if beaten and thinned and all(map(_is_open, (egg, *thinned))):
            for item in (egg, *thinned):
                item.where = "wash"
            egg.method = "An egg beaten with a little water or milk is usually brushed on. If it goes into the dough, say so."
