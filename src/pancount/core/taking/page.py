"""A page read once, so that it can be weighed under one set of answers after another."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from math import ceil, floor, log10

from pancount.core.base import most
from pancount.core.base.errors import TooMuch
from pancount.core.base.models import Band
from pancount.core.pantry.ingredients import Ingredient
from pancount.core.pantry.measures import System
from pancount.core.pantry.role import Role
from pancount.core.taking.habits import Habits, Kitchen
from pancount.core.taking.item import Answers, Item
from pancount.core.taking.lines import Reading, in_grams, is_poured, is_told, read_line, read_prose
from pancount.core.taking.pages import Kind, Written, classify, settle_kinds, stated
from pancount.core.taking.places import place
from pancount.core.taking.taken import Settled
from pancount.core.taking.tokens import tokens
from pancount.core.taking.vocabulary import vocabulary
from pancount.core.taking.weigh import Weight, candidates, weigh

LIST_IN_A_NOTE = 3
"""A note that measures so many things is a recipe; one that thanks for 3 jars of honey is not."""
SURELY_GRAMS = 50
"""A number with no unit that large, of what is not counted by the piece, is grams. Common practice, no source."""


class Page:
    """A recipe's lines and the things on them, with what the baker settled of each."""

    def __init__(
        self, text: str, settled: Iterable[Settled], kitchen: Kitchen, system: System | None = None
    ) -> None:
        """`system` is whose cups the baker says this page uses; before that its own words say, or else the kitchen."""
        self.kitchen = kitchen
        said = {(s.written, s.nth, s.part): s for s in settled}
        texts = text.split("\n")
        self.nth = _nth(texts)
        kinds: dict[int, Kind] = {
            n: s.kind for n, raw in enumerate(texts) if (s := said.get((raw, self.nth[n], 0))) and s.kind
        }
        self.lines = settle_kinds(classify("\n".join(texts), kitchen.names), kinds)
        if said_ml := {key: ml for line in self.lines if line.kind == "note" for key, ml in stated(tokens(line.read)).items()}:
            self.kitchen = replace(kitchen, stated_ml=said_ml)
        self.hint = hint(self.lines)
        self.system = system or self.hint
        """Whose cups it uses, whatever the kitchen's are; None where neither the baker nor its words say."""
        self.habits = kitchen.habits.model_copy(update={"system": self.system or kitchen.habits.system})
        self.items = _in_grams(list(_not_too_many(self._items(said))))
        chosen = {at: s.where for at, raw in enumerate(texts) if (s := said.get((raw, self.nth[at], 0))) and s.where}
        self.groups = place(self.items, self.lines, chosen, kitchen.names, lambda item: self.meant(item, self.habits)[0])
        """Headings whose words do not tell where their lines go, by line, and where those go."""

    def _items(self, said: dict[tuple[str, int, int], Settled]) -> Iterator[Item]:
        # A card without a list says what goes in as it says what to do.
        prose = all(line.kind != "ingredient" or is_told(line.read) for line in self.lines)
        for n, line in enumerate(self.lines):
            chosen = said.get((line.text, self.nth[n], 0))
            for part, one in enumerate(_chosen(self._readings(line, prose), chosen)):
                settled = said.get((line.text, self.nth[n], part))
                where = (settled.where if settled else None) or _apart(one) or line.apart or "dough"
                yield Item(n, part, self._as_settled(one, settled), settled, line.group, where)  # type: ignore[arg-type]

    def _readings(self, line: Written, prose: bool) -> tuple[Reading, ...]:
        names = self.kitchen.names
        if line.kind == "ingredient" and (reading := read_line(line.read, names)):
            return (reading, *reading.extra)
        if line.kind not in ("step", "note", "title") or (line.kind == "step" and not prose):
            return ()
        found = read_prose(line.read, names)
        return found if line.kind == "step" or len(found) >= LIST_IN_A_NOTE else ()

    def _as_settled(self, reading: Reading, said: Settled | None) -> Reading:
        if said is None:
            return reading
        if said.alternative is not None and said.alternative < len(reading.or_else):
            other = reading.or_else[said.alternative]
            reading = replace(other, amount=other.amount or reading.amount, or_else=reading.or_else)
        if said.name:
            named = self.kitchen.names.exactly(said.name)
            reading = replace(reading, named=named, called="" if named else said.name, unsure="")
        return reading

    def meant(self, item: Item, habits: Habits) -> tuple[tuple[Ingredient, ...], str]:
        """What it may be, the most common first; and the question that settles it, if any."""
        return candidates(item.reading, self.kitchen, habits)

    def weight(self, item: Item, habits: Habits) -> Weight:
        """Its weight under these answers; worked out once for each set of those it hangs on."""
        if item.said and item.said.weight_g is not None:
            return self._by_hand(item.said.weight_g)
        for keys, known in item.weights.items():
            if found := known.get(_of(habits, keys)):
                return found
        weight = _rounded(weigh(item.reading, self.kitchen, habits, (item.said.way if item.said else None) or ""))
        keys = weight.depends | {self.meant(item, habits)[1]} - {""}
        item.weights.setdefault(keys, {})[_of(habits, keys)] = weight
        return weight

    def _by_hand(self, weight_g: float) -> Weight:
        half = self.kitchen.half_step_g(weight_g)
        band = Band.of(weight_g - half, weight_g, weight_g + half)
        return Weight(band, (f"settled by you, weighed to ±{half:g} g",), weighed=True)


ON_THE_BENCH = (Role.FLOUR, Role.FAT, Role.LIQUID)


def _apart(reading: Reading) -> str:
    """Where its purpose puts it: what is for dusting or rolling is for the bench if it is flour, and on top if it is seeds or sugar."""
    known = reading.named.ingredient if reading.named else None
    on_top = reading.apart == "bench" and known is not None and known.role not in ON_THE_BENCH and known.name != "Wheat bran"
    return "topping" if on_top else reading.apart


def _chosen(readings: tuple[Reading, ...], said: Settled | None) -> tuple[Reading, ...]:
    """With the other parts of what the baker chose instead: "¾ cup water + ¼ cup dried milk" in place of milk."""
    if said is None or said.alternative is None or not readings or said.alternative >= len(readings[0].or_else):
        return readings
    return (readings[0], *readings[0].or_else[said.alternative].extra, *readings[1:])


def _in_grams(items: list[Item]) -> list[Item]:
    """With "500 flour" and "10 salt" as grams, where some number with no unit is too large for anything else."""
    bare = [i for i in items if i.reading.amount and not i.reading.amount.parts[0].measure and is_poured(i.reading.named)]
    if any(i.reading.amount and i.reading.amount.parts[0].usual >= SURELY_GRAMS for i in bare):
        for item in bare:
            item.reading = in_grams(item.reading)
    return items


def _of(habits: Habits, keys: Iterable[str]) -> Answers:
    return tuple(getattr(habits, key) for key in sorted(keys))


EXACT = 1e-6
"""What is a whole number but for floating point is one."""
MOST_DIGITS = 2
"""Behind the point, of a weight in grams."""


def digits_of(band: Band) -> int:
    """Digits behind the point that a band bears out: none for 78 to 124 g, one for 4.1 to 7.3."""
    finest = max((band.high_g - band.low_g) / 10, 10.0**-MOST_DIGITS)
    return max(0, min(MOST_DIGITS, -floor(log10(finest))))


def to_digits(band: Band, digits: int) -> Band:
    """A band to so many digits behind the point, its ends rounded outward: a coarser band holds the finer one."""
    tens = 10.0**digits
    low, high = floor(band.low_g * tens + EXACT) / tens, ceil(band.high_g * tens - EXACT) / tens
    return Band.of(low, round(band.usual_g, digits), high)


def _rounded(weight: Weight) -> Weight:
    """To digits that the band bears out, so that no more is told than is known, and the formula made of it says the same: 85 g of
    78 to 124, not 85.12. A weight keeps its own."""
    if weight.band is None:
        return weight
    return replace(weight, band=to_digits(weight.band, MOST_DIGITS if weight.weighed else digits_of(weight.band)))


def _not_too_many(items: Iterator[Item]) -> Iterator[Item]:
    """Raises `TooMuch` as soon as there are more things than any recipe has."""
    for n, item in enumerate(items):
        if n == most.RECIPE_THINGS:
            raise TooMuch(f"This holds more than {most.RECIPE_THINGS} things to weigh, which is more than a recipe. Take in one recipe at a time.", ("text",))
        yield item


def _nth(texts: Sequence[str]) -> list[int]:
    """Which of the lines with the same text each one is."""
    seen: dict[str, int] = {}
    found = []
    for text in texts:
        found.append(seen.get(text, 0))
        seen[text] = found[-1] + 1
    return found


def hint(lines: Sequence[Written]) -> System | None:
    """Whose cups and spoons a page uses, where its words give it away."""
    seen = set()
    for line in lines:
        words = tokens(line.read)
        seen |= {found[0] for at in range(len(words)) if (found := vocabulary().hints.match(words, at))}
    if "metric" in seen:
        return System.METRIC
    if "us" in seen or "british" in seen:
        return None if {"us", "not_us"} <= seen or {"us", "british"} <= seen else System.US if "us" in seen else System.BRITISH
    return None


