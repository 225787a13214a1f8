"""A recipe taken in: from its text to what each line was taken to be, what the dough may be, and what to ask."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from math import inf
from typing import Literal

from pancount.core.base.models import Band
from pancount.core.formula.remarks import is_lye, remark_rules
from pancount.core.pantry.ingredients import Ingredient
from pancount.core.pantry.measures import System, measures
from pancount.core.pantry.role import Role
from pancount.core.taking.amounts import Amount, Part
from pancount.core.taking.asking import ask
from pancount.core.taking.doubts import doubts
from pancount.core.taking.dough import Dough, amount_words, main_part, role_of
from pancount.core.taking.facts import disagreements, facts
from pancount.core.taking.habits import Kitchen, questions
from pancount.core.taking.item import Item
from pancount.core.taking.page import Page
from pancount.core.taking.pages import makes, title
from pancount.core.taking.places import Grouped
from pancount.core.taking.taken import Settled, TakenIn, TakenLine, Thing
from pancount.core.taking.weigh import EGGS, Weight, weigh

DISAGREES_BY = 0.07
"""A weight given beside a cup may lie this far outside of the cup's band before it is called out. Common practice, no
source."""


def take_in(text: str, settled: Iterable[Settled], kitchen: Kitchen, system: System | None = None) -> TakenIn:
    """Read a recipe as a kitchen reads it. Deterministic, and never raises: what is not understood becomes a line with
    a question.

    `settled` is what the baker said of single lines; it stays with the line's text, wherever that moves. `system` is
    whose cups and spoons the baker says it uses.
    """
    page = Page(text, settled, kitchen, system)
    dough = Dough(page, page.habits)
    odd, of_all = doubts(dough)
    wide = {(w.item.line, w.item.part): w.band for w in dough.widest}
    things = {(item.line, item.part): _thing(item, page, wide.get((item.line, item.part)), odd.get((item.line, item.part), "")) for item in page.items}
    called = {at: thing.name for at, thing in things.items()}
    lines = tuple(
        TakenLine(
            text=line.text,
            nth=page.nth[n],
            kind=line.kind,
            group=line.group,
            things=tuple(thing for (at, _), thing in things.items() if at == n),
            facts=facts(line.text) if line.kind in ("step", "yield", "title", "note", "ingredient") else (),
            asks=_asks_of(page.groups.get(n), line.group),
            where=grouped.where if (grouped := page.groups.get(n)) else None,
            disagrees=(*disagreements(line.text), *(s for i in page.items if i.line == n for s in _disagrees(i, page))),
        )
        for n, line in enumerate(page.lines)
    )
    return TakenIn(
        title=title(page.lines, kitchen.names),
        makes=makes(page.lines, kitchen.names),
        lines=lines,
        flour=_flour(dough),
        percents=dough.percents(),
        figures=dough.figures(called),
        questions=ask(dough),
        open_lines=(*(n for n, grouped in page.groups.items() if grouped.asked), *_open(things)),
        doubts=of_all,
        hint=page.hint,
        measured=any("system" in page.weight(item, page.habits).depends for item in page.items),
    )


def _open(things: Mapping[tuple[int, int], Thing]) -> tuple[int, ...]:
    def moves(at: tuple[int, int]) -> tuple[bool, float]:
        thing = things[at]
        return thing.where != "dough", -(thing.band.usual_g if thing.band else inf)

    asked = sorted((at for at, thing in things.items() if thing.asks), key=moves)
    return tuple(dict.fromkeys(line for line, _ in asked))


def _flour(dough: Dough) -> Band | None:
    bands = [w.floured for w in dough.widest if w.flour]
    total = None
    for band in bands:
        total = band if total is None else total.plus(band)
    return total


def _asks_of(grouped: Grouped | None, name: str) -> str:
    """The question for all that stands under a heading whose words do not tell where it goes."""
    if grouped is None or not grouped.asked:
        return ""
    told = "into the dough" if grouped.where == "dough" else "on top, and not into the dough"
    return f"Does what stands under “{name}” go {told}?"


def _thing(item: Item, page: Page, wide: Band | None, odd: str) -> Thing:
    reading = item.reading
    ingredients, _ = page.meant(item, page.habits)
    weight = page.weight(item, page.habits)
    band = wide or (None if weight.percent else weight.band)
    name = ingredients[0].name if ingredients else reading.called
    part = main_part(item)
    fillable = part is not None and bool(part.measure) and measures()[part.measure].kind in ("cup", "spoon")
    role = role_of(item, ingredients)
    return Thing(
        part=item.part,
        name=name,
        role=role,
        known=bool(ingredients),
        amount=amount_words(item),
        state=", ".join(reading.states),
        band=band,
        why=weight.why,
        ways=_ways(item, ingredients, fillable),
        way=(item.said.way if item.said and item.said.way else "") or (part.way if part else "") or reading.way,
        measure=part.measure if part and fillable else "",
        count=part.usual if part else 0.0,
        where=item.where,
        alternatives=tuple(other.name for other in reading.or_else),
        asks=_above(page.lines[item.line].again, item) or _asks(item, name, role, weight, band) or odd,
        confirms=_confirms(item, name, role, odd),
        caution=remark_rules()["lye"].says.format(names=name) if is_lye(name) else "",
        settled=item.said is not None,
    )


def _confirms(item: Item, name: str, role: Role | None, odd: str) -> Literal["", "name", "where"]:
    """What "that is right" would settle: a name that is not sure, or a place that is not."""
    if item.reading.unsure and role is not None and not (item.said and item.said.name):
        return "name"
    return "where" if (item.method or odd) and name and not (item.said and item.said.where) else ""


def _ways(item: Item, ingredients: Sequence[Ingredient], fillable: bool) -> tuple[str, ...]:
    """Ways of filling its cup or spoon that weigh differently; for eggs, their sizes."""
    rows = [row for i in ingredients[:1] for row in i.measures if row.way]
    if fillable:
        return tuple(dict.fromkeys(row.way for row in rows if measures()[row.measure].kind in ("cup", "spoon")))
    part = main_part(item)
    if part and ingredients and ingredients[0].name in EGGS and measures()[part.measure or "each"].kind == "count":
        return tuple(questions()["egg"].options)
    return ()


def _above(again: str, item: Item) -> str:
    """Whether what is put in was made further up, so that it would count twice."""
    if not again or not item.in_dough or item.said:
        return ""
    return f"If this is the {again[0].lower() + again[1:]} from above, it is in the dough already: take its line as a note."


def _asks(item: Item, name: str, role: Role | None, weight: Weight, band: Band | None) -> str:
    """What is open about a thing, as a sentence. How much of a wash or a topping is seldom said, and is no question."""
    if item.in_dough and role is not None and item.said is not None and item.said.weight_g is not None:
        return ""
    if not name:
        return "This was not understood. Say what it is, or that it is not an ingredient."
    if role is None and item.in_dough:
        return f"The pantry does not know {name}. Say what it is in the dough, and what it weighs."
    if role is None:
        return f"The pantry does not know {name}, so not what it brings. Say what it is."
    if doubt := item.reading.unsure or item.method:
        return doubt
    if item.reading.amount is None:
        return f"It does not say how much {name[0].lower() + name[1:]}. What do you put in?" if item.in_dough else ""
    if weight.band is None:
        return f"What does {amount_words(item)} of it weigh?"
    if not item.in_dough:
        return ""
    part = main_part(item)
    if band and part and _is_wide(band, measures()[part.measure or "each"].kind):
        return f"{amount_words(item)} may be anything from {band.low_g:.2g} to {band.high_g:.2g} g. Settle what you mean."
    return "Used in more than one place: the method says how much goes where." if "divided" in item.reading.states else ""


WIDE_COUNT = 2.2
"""A count whose highest weight is so much its lowest is asked about: a cake of yeast. Common practice, no source."""


def _is_wide(band: Band, kind: str) -> bool:
    """Whether what a measure of this kind weighs is to be asked: a pinch of more than next to nothing, a cake of yeast."""
    if kind == "count":
        return band.high_g >= WIDE_COUNT * band.low_g
    return kind == "vague" and band.usual_g > 1


def _disagrees(item: Item, page: Page) -> tuple[str, ...]:
    """A sentence where an amount was given twice and the two are not the same."""
    asked = item.reading.amount
    if asked is None or not asked.doubled:
        return ()

    def band(parts: tuple[Part, ...]) -> tuple[Weight, str]:
        alone = Item(0, 0, replace(item.reading, amount=Amount(parts)), None, "", "dough")
        return weigh(alone.reading, page.kitchen, page.habits), amount_words(alone)

    (one, one_words), (other, other_words) = band(asked.parts), band(asked.doubled)
    if one.band is None or other.band is None or one.percent or other.percent:
        return ()
    wide, narrow = (one.band, other.band) if _width(one.band) >= _width(other.band) else (other.band, one.band)
    if wide.low_g * (1 - DISAGREES_BY) <= narrow.usual_g <= wide.high_g * (1 + DISAGREES_BY):
        return ()
    says = f"{one_words} and {other_words} are not the same: {_about(one.band)} against {_about(other.band)}."
    taken = weigh(item.reading, page.kitchen, page.habits).band
    return (f"{says} Taken as {taken.usual_g:.4g} g." if taken else says,)


def _width(band: Band) -> float:
    return (band.high_g - band.low_g) / max(band.usual_g, 1e-9)


def _about(band: Band) -> str:
    if band.high_g - band.low_g <= 1.01:
        return f"{band.usual_g:.4g} g"
    return f"{band.low_g:.4g}–{band.high_g:.4g} g"

