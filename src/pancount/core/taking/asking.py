"""Questions, not guesses: the few that are worth asking, because the answer moves the dough."""

from collections import Counter

from pancount.core.taking.dough import FIGURES, Dough, amount_words
from pancount.core.taking.habits import questions
from pancount.core.taking.item import Item
from pancount.core.taking.page import Page
from pancount.core.taking.pages import without_number
from pancount.core.taking.taken import Asked, Effect

MOVES_AT_LEAST = 0.01
"""A question whose answers move every figure by less than this share of it is not worth asking."""
MOST_QUESTIONS = 6
MOST_NAMED = 8
"""Lines that a question is about, named."""


def _relevant(page: Page) -> dict[str, list[str]]:
    """Questions that something in the dough hangs on, with the words of those lines."""
    found: dict[str, list[str]] = {}
    on_line = Counter(item.line for item in page.items)
    for item in page.items:
        if not item.in_dough:
            continue
        # What a name means may change what is in it, though not its weight.
        for key in page.weight(item, page.habits).depends | {page.meant(item, page.habits)[1]} - {""}:
            found.setdefault(key, []).append(_words(item, page, alone=on_line[item.line] == 1))
    return found


def _words(item: Item, page: Page, *, alone: bool) -> str:
    """What a question is about: its line, or the one thing of a line that measures several."""
    return without_number(page.lines[item.line].text) if alone else f"{amount_words(item)} {item.reading.name}"


def ask(dough: Dough) -> tuple[Asked, ...]:
    """At most a handful of questions: those still open first, and of these the one that moves the dough most."""
    page = dough.page
    asked = []
    for key, texts in _relevant(page).items():
        if key == "system" and page.system:
            continue  # it is known for this page
        question = questions()[key]
        outcomes = {
            option: dough.usuals(page.habits.model_copy(update={key: option})) for option in question.options
        }
        figure, moves = _moved_most(list(outcomes.values()))
        if moves < MOVES_AT_LEAST:
            continue
        asked.append(
            Asked(
                key=key,
                asks=question.asks,
                answer=getattr(page.kitchen.habits, key),
                effects=tuple(
                    Effect(option=option, label=question.options[option], figure=FIGURES[figure], usual=found[figure])
                    for option, found in outcomes.items()
                    if figure in found
                ),
                moves=moves,
                about="; ".join(list(dict.fromkeys(texts))[:MOST_NAMED]),
            )
        )
    asked.sort(key=lambda a: (a.answer is not None, -a.moves))
    return tuple(asked[:MOST_QUESTIONS])


MATTERS = {"water": 1.0, "liquid": 1.0, "salt": 0.6, "yeast": 0.6, "sugars": 0.4}
"""How much a change of each figure changes the dough under the hands. Common practice, no source."""

LITTLE = {"water": 20.0, "liquid": 20.0, "salt": 1.0, "yeast": 0.3, "sugars": 3.0}
"""A figure under this is little: a change is measured against this instead. Common practice, no source. [%]"""


def _moved_most(outcomes: list[dict[str, float]]) -> tuple[str, float]:
    """The figure in which the answers move the dough most, and by what share of it, weighted by how much it matters."""
    best, most = "", 0.0
    for figure in FIGURES:
        values = [found[figure] for found in outcomes if figure in found]
        if not values:
            continue
        moved = MATTERS[figure] * (max(values) - min(values)) / max(*values, LITTLE[figure])
        if moved > most:
            best, most = figure, moved
    return best, most
