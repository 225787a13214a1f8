"""An ingredient line: amount, ingredient, state, alternatives, and what of it is kept out of the dough.

    line  := [label ":"] thing { ("," | "plus" | "with") thing }
    thing := [amount] words { "," words } | words [":"] amount
    words := ingredient name with states before, between or after it
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from pancount.core.pantry.measures import measures
from pancount.core.taking.amounts import Amount, Line, Part, amount
from pancount.core.taking.headings import label, without_all, without_bullet
from pancount.core.taking.parting import NEAR, lent_by, split_extra, split_measured_or, split_or, spoken
from pancount.core.taking.placed import amount_behind, of_whole, with_double, with_less
from pancount.core.taking.plain import plain, sentences
from pancount.core.taking.tokens import Token, tokens, written
from pancount.core.taking.unsure import is_unknown, mended, partly_known
from pancount.core.taking.vocabulary import Named, Names, vocabulary


@dataclass(frozen=True, slots=True)
class Reading:
    """What an ingredient line was taken to say. `apart` names where it goes if not into the dough."""

    amount: Amount | None
    named: Named | None
    called: str
    """The name as written, where no ingredient is known by it."""
    states: tuple[str, ...]
    size: str
    way: str
    apart: str
    or_else: tuple["Reading", ...] = ()
    unsure: str = ""
    """What is not sure about its name, as a sentence: a word mended, or one that nobody knows beside it."""
    extra: tuple["Reading", ...] = ()
    """More of it, or of another thing, named on the same line: "plus more for dusting", "plus 1 yolk"."""

    @property
    def name(self) -> str:
        """As it is called, or what the question is about that settles it."""
        if self.named is None:
            return self.called
        return self.named.ingredient.name if self.named.ingredient else self.named.question.replace("_", " ")


@dataclass(slots=True)
class _Words:
    """What words say beside the name."""

    rest: list[Token]
    """Words that nobody knows."""
    runs: list[list[Token]]
    """The same with the small words beside them, for showing: "from the lock"."""
    states: list[str]
    apart: str = ""
    size: str = ""
    way: str = ""


def read_line(text: str, names: Names) -> Reading | None:
    """Read an ingredient line. None where it holds no words and no number. Never raises."""
    line = without_bullet(tokens(plain(text)), names)
    if not any(t.kind != "sign" for t in line):
        return None
    line = _listed(line)
    headed = label(line, names)
    reading = _read(without_all(line[len(headed) :], names), names)
    if headed and reading.named is None and (whole := _read(line, names)).named:
        return whole  # "Starter: 100 g, bubbly"
    return reading


def _listed(line: Line) -> Line:
    """Without the words that only lead on: "then three quarters of a cup of yogurt"."""
    begin = next((n for n, t in enumerate(line) if t.word not in vocabulary().grammar["so"]), 0)
    found = amount(line, begin) if begin else None
    return line[begin:] if found and found[0].parts[0].measure else line


def is_told(text: str) -> bool:
    """Whether a line tells an ingredient in passing, as one talks: "you want 1½ pounds of flour"."""
    line = tokens(plain(text))
    return _listed(line) is not line


MOST_SENTENCES = 200
"""Of one line of prose."""


def read_prose(text: str, names: Names) -> tuple[Reading, ...]:
    """What sentences measure: "Scald 1 cup milk. Add 1 tsp salt." For cards that have no list. Never raises."""
    found: list[Reading] = []
    for sentence in sentences(text)[:MOST_SENTENCES]:
        line = tokens(plain(sentence))
        at, apart = 0, ""
        while at < len(line):
            if verb := vocabulary().puts.match(line, at):
                apart, at = verb
                continue
            asked = amount(line, at)
            end = asked[1] if asked else at + 1
            behind = line[end : end + NEAR]
            stop = next((n for n, t in enumerate(behind) if t.kind != "word" or (n and _begins(line, end + n))), len(behind))
            name = names.find(spoken(behind[:stop])) if asked else None
            if name:
                begin, end = at, end + name[2]
                reading = _read(line[begin:end], names)
                behind_it = vocabulary().purposes.match(line, end)
                found.append(replace(reading, apart=reading.apart or (behind_it[0] if behind_it else apart)))
            at = end
    return tuple(found)


def _begins(line: Line, at: int) -> bool:
    """Whether the next thing's amount begins there: "… sugar two teaspoons of yeast"."""
    found = amount(line, at)
    return found is not None and bool(found[0].parts[0].measure)


MOST_THINGS = 60
"""Read of one line; a line of more is left there."""


def _read(line: Line, names: Names, before: Named | None = None, left: int = MOST_THINGS) -> Reading:
    if of := of_whole(line, names):
        line = of
    first, others = split_measured_or(line, names)
    if others and left:
        return _with_alternatives(_read(first, names, before, left - 1), [_read(o, names, left=left - 1) for o in others])
    asked: Amount | None
    within: Line = ()
    small = vocabulary().grammar
    each = bool(line) and line[0].word in small["each"]
    line = line[1:] if each else line
    if front := amount(line, 0):
        within, rest = line[: front[1]], line[front[1] :]
        if rest and rest[0].word in small["each"]:
            each, rest = True, rest[1:]
            rest = rest[1:] if rest and rest[0].word in (":", "of", "von") else rest
        main, following = split_extra(rest, names, in_a_row=each)
        asked, main = with_double(*with_less(front[0], main))
    else:
        main, following = split_extra(line, names, in_a_row=True)
        asked, main = amount_behind(main)
    if following and asked is None and not names.find(spoken(main)) and not any(is_unknown(t, names) for t in main):
        main, following = following, None  # "if you like, some milk"
        asked, main = (front[0], main[front[1] :]) if (front := amount(main, 0)) else amount_behind(main)
    first, others = split_or(main)
    if others and (lent := lent_by(first, others[0], names)):
        first = [*first, *lent]  # "sunflower or olive oil"
    reading = _name(first, asked, names, before)
    if reading.named is None and not reading.called and (inside := names.find([t.word for t in within])):
        # "2 Knoblauchzehen": one word for both the measure and what it is of.
        reading = replace(reading, named=inside[0])
    one = asked is None and line and line[0].word in small["one"]
    if one and names.find(spoken(line[1:NEAR])) and _counted(reading.named):
        reading = replace(reading, amount=Amount((Part(1, 1, 1),)))
    alternatives = [_read(other, names, reading.named) for other in others]
    if reading.named is None and alternatives and alternatives[0].named is not None:
        reading = _name_behind(first, others[0], asked, names, alternatives)
    else:
        # What follows the last of them is said of all: "butter or margarine, softened".
        states = tuple(dict.fromkeys([*reading.states, *(alternatives[-1].states if alternatives else ())]))
        others_named = tuple(a for a in alternatives if a.named or a.called or a.amount)
        reading = replace(reading, or_else=others_named, states=states)
    reading = replace(reading, apart=reading.apart or _first(a.apart for a in alternatives))
    if following is None or not left:
        return reading
    more = _extra(following, reading, names, left - 1)
    if each:
        more = tuple(replace(e, amount=e.amount or asked) for e in more)
    return _with_extra(reading, more, line, following[0].start if following else 0)


def _with_alternatives(reading: Reading, others: list[Reading]) -> Reading:
    """With what may be taken instead, each a thing or several with amounts of their own: one or the other, never a sum. What is kept
    out of the dough behind the last, and how it is prepared, is said of all."""
    apart = tuple(e for other in others for e in other.extra if e.apart and not other.apart)
    alternatives = tuple(replace(other, extra=tuple(e for e in other.extra if e not in apart)) for other in others)
    states = tuple(dict.fromkeys([*reading.states, *(others[-1].states if not others[-1].extra else ())]))
    return replace(reading, or_else=(*reading.or_else, *alternatives), states=states, extra=(*reading.extra, *apart))


def _counted(named: Named | None) -> bool:
    """Whether it is counted by the piece: "an egg", but not "a little salt"."""
    return bool(named and named.ingredient and any(row.measure == "each" for row in named.ingredient.measures))


def is_poured(named: Named | None) -> bool:
    """Whether it is known and not counted by the piece: flour, or any yeast."""
    return named is not None and not _counted(named)


def in_grams(reading: Reading) -> Reading:
    """A reading whose number has no unit, with grams for it, and that said."""
    if reading.amount is None:
        return reading
    parts = tuple(replace(part, measure=part.measure or "g") for part in reading.amount.parts)
    return replace(reading, amount=replace(reading.amount, parts=parts), states=(*reading.states, "no unit: read as grams"))


def _name_behind(first: Line, other: Line, asked: Amount | None, names: Names, read: list[Reading]) -> Reading:
    """ "Sunflower or olive oil", "fresh or dried thyme": the name stands behind the last of them."""
    if lent := lent_by(first, other, names):
        return replace(_name([*first, *lent], asked, names, None), or_else=tuple(read))
    return replace(_name([*first, *other], asked, names, None), or_else=tuple(read[1:]))


def _with_extra(reading: Reading, extra: tuple[Reading, ...], line: Line, extra_at: int) -> Reading:
    """With what else is on the line, from a place in its text on. What is stirred into a wash, or stands beside it,
    makes both the wash: "1 egg and 1 tbsp milk for brushing"."""
    if extra and not reading.apart:
        small = vocabulary().grammar
        before = [t.word for t in line if t.end <= extra_at]
        bare = reading.amount is None and extra[-1].amount is None
        together = (bare or small["and"] & set(before[-1:])) and extra[-1].named is not reading.named
        if together or any(t.word in small["with"] for t in line):
            reading = replace(reading, apart=extra[-1].apart)
    if reading.apart:
        extra = tuple(replace(e, apart=e.apart or reading.apart) for e in extra)
    return replace(reading, extra=extra)


NO_NAMES = Names(())


def _extra(line: Line, main: Reading, names: Names, left: int) -> tuple[Reading, ...]:
    """What follows on a line, thing by thing: more of the same, or another ingredient."""
    front = amount(line, 0)
    rest = line[front[1] :] if front else line
    more = vocabulary().extra.match(rest, 0) if rest else None
    if more or (rest and rest[0].word in vocabulary().grammar["for"]):
        # "plus 1 tsp for the yeast", "plus ¼ cup more if needed", "more for the pan" are more of what the line is of.
        read = replace(_read(line, NO_NAMES, left=left), named=main.named, called="" if main.named else main.called)
        states = tuple(read.states if more else () if read.apart else (written(rest),))
        return (replace(read, states=states, apart=read.apart or ("bench" if more or not front else "")),)
    read = _read(line, names, left=left)
    more_yet = (one if one.named else _beside(one, main) for one in read.extra)
    return (_beside(replace(read, extra=()), main), *more_yet)


def _beside(read: Reading, main: Reading) -> Reading:
    """Of what the line is of, where it has no name: kept out of the dough then, unless it has an amount and no purpose."""
    named = read.named or (None if read.called and not read.apart else main.named)
    more_of_it = not read.amount and named is main.named
    apart = read.apart or ("bench" if more_of_it else "")
    return replace(read, named=named, called="" if named else main.called, apart=apart)


def _segments(line: Line) -> list[list[Token]]:
    """Words between commas, brackets and dashes."""
    parts: list[list[Token]] = [[]]
    for token in line:
        if token.text in ",;()[]–—:|*" or (token.text == "-" and parts[-1]):
            parts.append([])
        elif token.text not in "./'\"+=%":
            parts[-1].append(token)
    return [p for p in parts if p]


def _name(line: Line, asked: Amount | None, names: Names, before: Named | None) -> Reading:
    """Find the ingredient in the words, the first segment first; what is left over says its state."""
    segments = _segments(line)
    found: Named | None = None
    where = -1
    unsure = ""
    for n, segment in enumerate(segments):
        if whole := _turned(segments, n, 0, len(segment), names):
            match: tuple[Named, int, int] | None = (whole[0], 0, len(segment))
        else:
            match = names.find(spoken(segment))
        if not match:
            continue
        if n and _purpose_in(segment):
            # "for the butter dish" names no ingredient of the dough
            continue
        found, begin, end = match
        longer = _turned(segments, n, begin, end, names)
        if longer:
            found, used = longer
            segments = [s for m, s in enumerate(segments) if m != used]
        segments[n] = [*segment[:begin], *segment[end:]]
        where = n
        break
    if where <= 0 and segments and (better := mended(segments[0], found, names)):
        found, segments[0], unsure = better
    said = [_words(segment) for segment in segments]
    if found and not unsure and where >= 0:
        unsure = partly_known(said[0].rest if where else (), said[where].rest, found)
    for segment, words in zip(segments[1:], said[1:], strict=True):
        if not (words.apart or vocabulary().states.match(segment, 0)) and (beside := vocabulary().apart.match(segment, 0)) and beside[1] == len(segment):
            words.apart, words.rest, words.runs = beside[0], [], []  # "olive oil (tins)"
        if words.apart and any(t.kind in ("number", "fraction") for t in segment):
            # "3 eggs (reserve 1 white for brushing)" are not all for brushing
            words.apart = ""
            words.states.append("divided")
    called = "" if found or not said else written(said[0].rest)
    if not found and before is not None and not called:
        found = before
    leftover = [written(run) for w in said for run in w.runs] if found else []
    if asked is not None and not asked.parts[0].measure:
        asked, leftover = _measure_behind(asked, leftover)
    return Reading(
        amount=asked,
        named=found,
        called=called,
        states=tuple(dict.fromkeys([s for w in said for s in w.states] + [text for text in leftover if text])),
        size=_first(w.size for w in said),
        way=_first(w.way for w in said),
        apart=_first(w.apart for w in said),
        unsure=unsure,
    )


def _measure_behind(asked: Amount, leftover: list[str]) -> tuple[Amount, list[str]]:
    """ "4 garlic cloves", "20 cardamom pods": what is counted stands behind the name."""
    for n, text in enumerate(leftover):
        words = tokens(text)
        found = vocabulary().measures.match(words, 0) if words else None
        if found and found[1] == len(words) and measures()[found[0]].kind == "count":
            first = replace(asked.parts[0], measure=found[0])
            return replace(asked, parts=(first, *asked.parts[1:])), [*leftover[:n], *leftover[n + 1 :]]
    return asked, leftover


def _first(texts: Iterable[str]) -> str:
    return next(filter(None, texts), "")


def _turned(
    segments: list[list[Token]], n: int, begin: int, end: int, names: Names
) -> tuple[Named, int] | None:
    """ "Flour, bread", "Paprika, ground": a name with its comma, either way round, longer than the one before it."""
    if n + 1 >= len(segments):
        return None
    words = [t.word for t in segments[n][begin:end]]
    after = [t.word for t in segments[n + 1]]
    for whole in ([*after, *words], [*words, *after]):
        found = names.find(whole)
        if found and found[2] - found[1] == len(whole):
            return found[0], n + 1
    return None


def _purpose_in(segment: Line) -> str:
    for at in range(len(segment)):
        if found := vocabulary().purposes.match(segment, at):
            return found[0]
    return ""


def _words(segment: Line) -> _Words:
    """Take states, sizes, ways of filling, purposes and fillers out of words; what nobody knows is left."""
    words = vocabulary()
    said = _Words([], [[]], [])
    at = 0
    while at < len(segment):
        if found := words.purposes.match(segment, at):
            said.apart, at = said.apart or found[0], len(segment)
        elif found := words.states.match(segment, at):
            if found[0] != "about":
                said.states.append(found[0])
            at = found[1]
        elif found := words.ways.match(segment, at):
            said.way, at = found
            if said.way == "spooned" and segment[at - 1].word in ("sifted", "gesiebt"):
                said.states.append("sifted")
        elif found := words.sizes.match(segment, at):
            said.size, at = found
        elif found := words.fillers.match(segment, at):
            said.runs[-1] += segment[at : found[1]]
            at = found[1]
            continue
        else:
            said.rest.append(segment[at])
            said.runs[-1].append(segment[at])
            at += 1
            continue
        said.runs.append([])
    said.runs = [run for run in said.runs if any(token in said.rest for token in run)]
    return said
