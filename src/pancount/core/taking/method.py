"""Where the method puts what the list only names: "bring the water and the soda to a boil", "brush with the melted butter".

Sentence by sentence: which ingredients are mixed, which are brushed, sprinkled, boiled in, greased or dusted with. What is mixed
too, or is all the salt, leaven or flour that there is, is not moved but asked about. Common practice, no source.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field

from pancount.core.pantry.measures import System, measures
from pancount.core.pantry.role import Role
from pancount.core.taking.amounts import Amount, Line, amount
from pancount.core.taking.headings import group
from pancount.core.taking.lines import Reading
from pancount.core.taking.plain import plain, sentences
from pancount.core.taking.taken import Where
from pancount.core.taking.tokens import tokens
from pancount.core.taking.vocabulary import Named, Names, vocabulary

MOST_SENTENCES = 400
"""Of a method; what comes after is not looked through."""
BATH_ML = 900.0
"""Water to boil pieces in is at least about this much; less of it is scalded or poured over. Common practice, no source. [ml]"""
IN_BATHS = frozenset({"Water", "Baking soda", "Honey", "Malt syrup", "Malt flour, non-diastatic", "?malt", "Lye", "Sugar", "?salt", "Brown sugar"})
"""What pieces are boiled in: by what it goes by."""
LISTS = 2
"""Ingredients that a method must name as mixed before what it does not name is surely not."""


@dataclass(frozen=True, slots=True)
class _Use:
    """An ingredient named in a sentence: where it is put (blank: mixed), how much of it, and whether it is a share of it."""

    where: str
    asked: Amount | None
    shared: bool


@dataclass(slots=True)
class _Method:
    """What a method does with each ingredient."""

    uses: dict[str, list[_Use]] = field(default_factory=dict)
    mixes_all: bool = False

    @property
    def lists(self) -> bool:
        """Whether it names what is mixed, and does not only say "everything"."""
        mixed = sum(any(not use.where for use in uses) for uses in self.uses.values())
        return mixed >= LISTS and not self.mixes_all


@dataclass(frozen=True, slots=True)
class Put:
    """Where the method puts a thing of the list. `says` is what is open about it, blank where that is sure; `where` is None where it
    is only asked about."""

    where: Where | None
    says: str


def key_of(named: Named | None) -> str:
    """What an ingredient goes by: its name, or the question that settles it."""
    if named is None:
        return ""
    return named.ingredient.name if named.ingredient else f"?{named.question}"


def _verb_at(line: Line, at: int) -> bool:
    """Whether a word that may be a noun as well stands as a verb: first, behind a comma or "and", or as "brushed"."""
    if line[at].word.endswith(("ed", "ing")) or at == 0:
        return True
    return line[at - 1].word in vocabulary().grammar["before verbs"]


def _verbs(line: Line) -> list[tuple[int, str]]:
    """Where something is done, and where that puts things; blank for mixing."""
    words, found, at = vocabulary(), [], 0
    while at < len(line):
        if (put := words.puts.match(line, at)) and _verb_at(line, at):
            found.append((at, put[0]))
            at = put[1]
            continue
        if line[at].word in words.grammar["mixes"]:
            found.append((at, ""))
        at += 1
    return found


def _mentions(line: Line, names: Names) -> list[tuple[int, int, Named]]:
    said, found, at = [t.word for t in line], [], 0
    while at < len(line):
        if match := names.starting(said, at):
            found.append((at, match[1], match[0]))
            at = match[1]
        else:
            at += 1
    return found


def _amount_before(line: Line, at: int) -> Amount | None:
    for begin in range(max(0, at - 5), at):
        if (asked := amount(line, begin)) and asked[1] <= at and all(t.word in ("of", "the", "warm", "cold") for t in line[asked[1] : at]):
            return asked[0]
    before = next((t for t in reversed(line[max(0, at - 3) : at]) if t.word not in ("of", "the")), None)
    if before is not None and (measure := vocabulary().measures.match([before], 0)):
        return amount(tokens(f"1 {measure[0]}"), 0)[0] if amount(tokens(f"1 {measure[0]}"), 0) else None  # type: ignore[index]
    return None


def ml_of(asked: Amount | None) -> float:
    """How much an amount of water is, in US cups where it is in cups. [ml]"""
    parts = asked.parts if asked else ()
    sizes = ((part.usual, measures().get(part.measure)) for part in parts)
    return sum(usual * measure.size[System.US] for usual, measure in sizes if measure and measure.size)


def read_method(steps: Iterable[str], names: Names) -> _Method:
    """What the sentences of a method do with what they name. Never raises."""
    found, section, read = _Method(), "", 0
    for step in steps:
        head = group(tokens(plain(step.rstrip(".:"))))
        if len(step.split()) <= 4 and head.known and not _mentions(tokens(plain(step)), names):
            section = head.apart  # the name of a part, over its steps
            continue
        for sentence in sentences(step):
            read += 1
            if read > MOST_SENTENCES:
                return found
            _read_sentence(tokens(plain(sentence)), section, names, found)
    return found


def _read_sentence(line: Line, section: str, names: Names, found: _Method) -> None:
    grammar, said = vocabulary().grammar, [t.word for t in line]
    mentions, verbs = _mentions(line, names), _verbs(line)
    keys = [key_of(named) for *_, named in mentions]
    if any(word in grammar["everything"] for word in said) and any(not where for _, where in verbs):
        found.mixes_all = True
    floured = any(
        named.question in ("yeast", "dry_yeast") or (named.ingredient and named.ingredient.role in (Role.FLOUR, Role.LEAVEN) and key not in IN_BATHS)
        for (*_, named), key in zip(mentions, keys, strict=True)
    )
    boils = any(word in grammar["boils"] for word in said) and "Water" in keys and not floured
    with_it = IN_BATHS.intersection(keys) - {"Water"}
    much = any(ml_of(_amount_before(line, begin)) >= BATH_ML for begin, _, named in mentions if key_of(named) == "Water")
    in_bath = boils and (bool(with_it) or much)
    puts = [(at, where) for at, where in verbs if where]
    for (begin, *_), key in zip(mentions, keys, strict=True):
        where = section
        if in_bath:
            where = "bath"
        elif puts:
            last = max((one for one in verbs if one[0] < begin), default=None)
            after = any(at > begin for at, _ in puts)
            nothing_behind = not any(start > puts[-1][0] for start, *_ in mentions)
            if last is not None and last[1]:
                where = last[1]
            elif after and nothing_behind and not floured and "dough" not in said:
                where = puts[-1][1]  # "beat the yolk with the water and brush the tops"
        shared = any(t.word in grammar["share"] for t in line[max(0, begin - 4) : begin])
        found.uses.setdefault(key, []).append(_Use(where, _amount_before(line, begin), shared))


KEPT = (Role.FLOUR, Role.SALT, Role.LEAVEN)
"""Of these, all that there is is never moved out of a dough by what a method says."""
AS = {"wash": "brushed on", "topping": "put on top", "filling": "filled in", "bath": "in the bath", "pan": "for the pan", "bench": "for the bench"}


def put_by(method: _Method, things: Sequence[tuple[int, Reading, Role | None]]) -> dict[int, Put]:
    """Where the method puts things of the list, by their number: (number, reading, role) of each that the list leaves in the dough."""
    by_key: dict[str, list[tuple[int, Reading, Role | None]]] = {}
    for thing in things:
        by_key.setdefault(key_of(thing[1].named), []).append(thing)
    found: dict[int, Put] = {}
    for key, own in by_key.items():
        uses = method.uses.get(key, ()) if key else ()
        mixed = any(not use.where for use in uses)
        for use in uses:
            left = [thing for thing in own if thing[0] not in found]
            if not use.where or not left:
                continue
            number, reading, role = _meant(left, use)
            alone = len(own) == 1
            only = role in KEPT and sum(thing[2] is role for thing in things) == 1
            if alone and (mixed or use.shared or only):
                if mixed or use.shared:
                    found[number] = Put(None, f"By the method some of it is {AS[use.where]}: say how much is in the dough.")
                continue
            if use.asked and reading.amount and alone and not _alike(use.asked, reading.amount):
                found[number] = Put(None, f"By the method some of it is {AS[use.where]}: say how much is in the dough.")
                continue
            sure = method.lists or len(own) > 1
            says = "" if sure else f"By the method it is {AS[use.where]}. If some is in the dough as well, say so."
            found[number] = Put(use.where, says)  # type: ignore[arg-type]
    return found


def _meant(things: Sequence[tuple[int, Reading, Role | None]], use: _Use) -> tuple[int, Reading, Role | None]:
    """Which of several lines of one ingredient a sentence means: by its amount, else the most for a bath and the last for all else."""
    if use.asked:
        for thing in things:
            if thing[1].amount and _alike(use.asked, thing[1].amount):
                return thing
    if use.where == "bath":
        return max(things, key=lambda thing: ml_of(thing[1].amount))
    return things[-1]


def _alike(a: Amount, b: Amount) -> bool:
    x, y = a.parts[0], b.parts[0]
    return x.measure == y.measure and x.low <= y.high and y.low <= x.high
