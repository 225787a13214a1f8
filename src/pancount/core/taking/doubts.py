"""A sense of proportion: one honest look over the whole dough, for what grammar cannot catch.

A figure that no dough has, or that one in a hundred has, is a question at the line that makes it, never silence. The figures are
common practice, no source.
"""

from collections.abc import Callable, Sequence

from pancount.core.pantry.role import Role
from pancount.core.taking.dough import Dough, Weighed, amount_words
from pancount.core.taking.item import Item

Place = tuple[int, int]
"""A line, and which thing on it."""

MOST_LIQUID = 150.0
"""Liquid over all flour. [%]"""
MOST_SUGARS = 60.0
MOST_OF_ONE = 200.0
"""Anything but flour, over all flour. [%]"""
MOST_OF: dict[str, tuple[float, str]] = {
    "Baking soda": (2.0, "Is it for a bath?"),
    "Baking powder": (10.0, "Is it that much?"),
    "Cream of tartar": (5.0, "Is it that much?"),
}
MOST_SALT = 5.0
MOST_YEAST = 5.0
"""As instant: ten times the half per cent that is usual. [%]"""
THINGS_OF_A_DOUGH = 3
"""From so many things on a dough without flour or salt is told."""


def doubts(dough: Dough) -> tuple[dict[Place, str], tuple[str, ...]]:
    """What is out of proportion: a question at each line that makes it, and what is said of the whole. Never raises."""
    weighed = [w for w in dough.widest if w.band.usual_g > 0]
    flour = sum(w.floured.usual_g for w in weighed)
    things = [item for item in dough.page.items if item.in_dough]
    of_all: list[str] = []
    if not flour:
        if len(things) >= THINGS_OF_A_DOUGH:
            of_all.append("There is no flour in what was read: look whether a line of it was left unread, or taken for something else.")
        return {}, tuple(of_all)
    found: dict[Place, str] = {}

    def ask(w: Weighed, says: str) -> None:
        if not _settled(w.item):
            found.setdefault((w.item.line, w.item.part), says)

    for w in weighed:
        name, share = _name(w), 100 * w.band.usual_g / flour
        if name in MOST_OF and share > MOST_OF[name][0]:
            ask(w, f"{_amount(w)} would be {share:.2g} % of the flour. {MOST_OF[name][1]}")
        elif w.role is not Role.FLOUR and share > MOST_OF_ONE:
            ask(w, f"{_amount(w)} would be {share:.0f} % of the flour. Is all of it mixed into the dough?")
    _most(weighed, flour, "liquid", MOST_LIQUID, "Liquid would be {0:.0f} % of the flour. Is this for a bath, or for something else?", ask)
    _most(weighed, flour, "sugars", MOST_SUGARS, "Sugars would be {0:.0f} % of the flour. Is this for a filling, or for on top?", ask)
    _most(weighed, flour, "salt", MOST_SALT, "Salt would be {0:.2g} % of the flour; usual is about 2 %. Is this for on top, or for a bath?", ask)
    _most(weighed, flour, "yeast", MOST_YEAST, "Yeast would be {0:.2g} % of the flour, as instant; usual is 0.3–2 %. Is the amount right?", ask)
    salted = any(w.role is Role.SALT or w.shares["salt"][1] * w.band.usual_g > 0.003 * flour for w in weighed)
    if len(things) >= THINGS_OF_A_DOUGH and not salted and not any(item.reading.name == "salt" for item in things):
        of_all.append("There is no salt in the dough. If that is meant, go on; if not, look for its line.")
    return found, tuple(of_all)


def _most(
    weighed: Sequence[Weighed], flour: float, figure: str, most: float, says: str, ask: Callable[[Weighed, str], None]
) -> None:
    """Where a figure is over what a dough has, asks at the line that brings most of it."""
    brings = [(w.band.usual_g * w.shares[figure][1], n) for n, w in enumerate(weighed)]
    total = 100 * sum(grams for grams, _ in brings) / flour
    if total > most:
        ask(weighed[max(brings)[1]], says.format(total))


def _settled(item: Item) -> bool:
    return item.said is not None and (item.said.weight_g is not None or item.said.where is not None)


def _name(w: Weighed) -> str:
    named = w.item.reading.named
    return named.ingredient.name if named and named.ingredient else ""


def _amount(w: Weighed) -> str:
    return f"{amount_words(w.item)} {_name(w)[:1].lower()}{_name(w)[1:]}".strip()
