"""Kitchen words of each language, from data/words, and the names in a pantry: phrases, found the longest first."""

from collections.abc import Iterable, Mapping, Sequence
from functools import cache, cached_property
from typing import Any, Generic, NamedTuple, TypeVar

from pancount.core.base.datafiles import entries
from pancount.core.formula.stages import kinds
from pancount.core.pantry.ingredients import Ingredient, pantry
from pancount.core.taking.tokens import Token, tokens

LANGUAGES = ("en", "de")
"""Each has a file of words; a page may mix them."""

T = TypeVar("T")


class Phrases(Generic[T]):
    """Phrases and what each means; the first meaning that is given to a phrase stays."""

    def __init__(self) -> None:
        self._meanings: dict[tuple[str, ...], T] = {}
        self._lengths: dict[str, list[int]] = {}
        """How many words the phrases have that begin with a word, the most first."""

    def add(self, phrase: str, meaning: T) -> None:
        """Take in a phrase. Single letters keep their case: T is a tablespoon, t a teaspoon."""
        words = tuple(t.text if len(phrase) == 1 and phrase.isupper() else t.word for t in tokens(phrase))
        self._meanings.setdefault(words, meaning)
        lengths = self._lengths.setdefault(words[0], [])
        if len(words) not in lengths:
            lengths.append(len(words))
            lengths.sort(reverse=True)

    def words(self) -> set[str]:
        """Every word in them."""
        return {word for phrase in self._meanings for word in phrase}

    def match(self, line: Sequence[Token], at: int) -> tuple[T, int] | None:
        """The meaning of the longest phrase that starts at a token, and where it ends. None where none does."""
        if at >= len(line):
            return None
        for first in (line[at].text, line[at].word):
            for length in self._lengths.get(first, ()):
                words = (first, *(t.word for t in line[at + 1 : at + length]))
                if words in self._meanings:
                    return self._meanings[words], at + len(words)
        return None


class Fill(NamedTuple):
    """How a measure is filled, and what that multiplies its weight by."""

    name: str
    by: tuple[float, float, float]


class Vocabulary:
    """All kitchen words, by what they are for."""

    def __init__(self) -> None:
        self.numbers: Phrases[tuple[float, float]] = Phrases()
        self.measures: Phrases[str] = Phrases()
        self.fills: Phrases[Fill] = Phrases()
        self.ways: Phrases[str] = Phrases()
        self.sizes: Phrases[str] = Phrases()
        self.joiners: Phrases[str] = Phrases()
        self.states: Phrases[str] = Phrases()
        self.fillers: Phrases[str] = Phrases()
        self.extra: Phrases[str] = Phrases()
        self.purposes: Phrases[str] = Phrases()
        self.headings: Phrases[str] = Phrases()
        self.apart: Phrases[str] = Phrases()
        self.stages: Phrases[str] = Phrases()
        self.yields: Phrases[str] = Phrases()
        self.verbs: Phrases[str] = Phrases()
        self.heat: Phrases[str] = Phrases()
        self.times: Phrases[float] = Phrases()
        self.lengths: Phrases[float] = Phrases()
        self.hints: Phrases[str] = Phrases()
        self.puts: Phrases[str] = Phrases()
        self.asides: Phrases[str] = Phrases()
        self.step_heads: Phrases[str] = Phrases()
        """Verbs of a method's steps, at the head of a clause, and their kind."""
        self.step_words: Phrases[str] = Phrases()
        """What tells a kind of step wherever it stands."""
        self.step_finals: Phrases[str] = Phrases()
        """Verbs that stand behind all that belongs to them, as German ones do."""
        self.step_small: dict[str, set[str]] = {}
        """Small words by what the grammar of steps asks them for."""
        self.grammar: dict[str, set[str]] = {}
        """Small words by what the grammar asks them for: "and", "each", "of"."""
        self.known: frozenset[str] = frozenset()
        """Every word that a phrase of an ingredient line, a heading or a yield holds."""
        self.open_names: list[tuple[str, str]] = []
        for rule in kinds().values():
            for word in rule.words:
                self.stages.add(word, word)
        for language in LANGUAGES:
            self._learn(_words(language))
        of_steps = (self.step_heads, self.step_words, self.step_finals)
        phrases = (value for value in vars(self).values() if isinstance(value, Phrases) and value not in of_steps)
        self.known = frozenset(word for kind in phrases for word in kind.words()).union(*self.grammar.values())

    def _learn(self, words: dict[str, Any]) -> None:
        for phrase, value in words["numbers"].items():
            self.numbers.add(phrase, (value, value))
        for phrase, value in _spelt_out(words.get("tens", {}), words["numbers"]).items():
            self.numbers.add(phrase, (value, value))
        for phrase, (low, high) in words["vague_numbers"].items():
            self.numbers.add(phrase, (low, high))
        for name, fill in words["fills"].items():
            for phrase in fill["words"]:
                self.fills.add(phrase, Fill(name, tuple(fill["by"])))
        for name, time in words["times"].items():
            for phrase in time["words"]:
                self.times.add(phrase, 0.0 if name == "overnight" else float(time["minutes"]))
        for length in words["lengths"].values():
            for phrase in length["words"]:
                self.lengths.add(phrase, float(length["cm"]))
        for kind in ("measures", "ways", "sizes", "joiners", "states", "purposes", "headings", "apart", "heat", "hints", "puts"):
            _add_all(getattr(self, kind), words[kind])
        for use, small in words["grammar"].items():
            self.grammar.setdefault(use, set()).update(small)
        _add_all(self.yields, words["yield"])
        _add_all(self.step_heads, words["steps"].get("head", {}))
        _add_all(self.step_words, words["steps"]["anywhere"])
        _add_all(self.step_finals, words["steps"].get("final", {}))
        for use, small in words["steps"]["small"].items():
            self.step_small.setdefault(use, set()).update(small)
        for kind in ("fillers", "extra", "stages", "verbs", "asides"):
            for phrase in words[kind]["words"]:
                getattr(self, kind).add(phrase, phrase)
        self.open_names += [(phrase, question) for question, phrases in words["open"].items() for phrase in phrases]


def _spelt_out(tens: Mapping[str, int], numbers: Mapping[str, float]) -> dict[str, float]:
    """Numbers from twenty to ninety-nine, and hundreds, in words: "seventy-five", "two hundred"."""
    units = {word: value for word, value in numbers.items() if 1 <= value <= 9 and value == int(value) and word not in ("a", "an", "another")}
    found = {f"{ten} {word}": by + value for ten, by in tens.items() if by < 100 for word, value in units.items()}
    hundreds = {ten: by for ten, by in tens.items() if by == 100}
    found |= {f"{word} {ten}": by * value for ten, by in hundreds.items() for word, value in {**units, "a": 1}.items()}
    return found | {ten: float(by) for ten, by in tens.items() if by < 100}


def _add_all(phrases: Phrases[str], words: dict[str, list[str]]) -> None:
    for meaning, all_of_them in words.items():
        for phrase in all_of_them:
            phrases.add(phrase, meaning)


def _words(language: str) -> dict[str, Any]:
    return entries(__name__, "words", f"{language}.toml")


@cache
def vocabulary() -> Vocabulary:
    """The words that ship, loaded once."""
    return Vocabulary()


def stem(word: str) -> str:
    """A word without its plural, alike for every form of it; for comparing, not for showing.

    >>> [stem(w) for w in ("eggs", "tomatoes", "berries", "swiss", "oats")]
    ['egg', 'tomato', 'berry', 'swiss', 'oat']
    """
    if len(word) > 4 and word.endswith("ies"):
        return word[:-3] + "y"
    if len(word) > 4 and word.endswith("oes"):
        return word[:-2]
    return word[:-1] if len(word) > 3 and word.endswith("s") and not word.endswith("ss") else word


class Named(NamedTuple):
    """What a name stands for: an ingredient, or a question whose answer says which."""

    ingredient: Ingredient | None
    question: str


class Names:
    """Ingredients by every name, found inside a phrase."""

    def __init__(self, ingredients: Iterable[Ingredient], behind: "Names | None" = None) -> None:
        """Of these ingredients, and of those `behind` them where these have no name that is as long."""
        self._named: dict[tuple[str, ...], Named] = {}
        self._own = {ingredient.name: ingredient for ingredient in ingredients}
        self._behind = behind
        self._near: dict[str, str] = {}
        # Every name of its own comes before any other name.
        for names_of in (lambda i: (i.name,), lambda i: i.names):
            for ingredient in self._own.values():
                for name in names_of(ingredient):
                    self._add(name, Named(ingredient, ""))
        self._longest = max(map(len, self._named), default=0)

    def open_names(self, names: Iterable[tuple[str, str]]) -> None:
        """Names that a question settles; they come before an ingredient's."""
        for phrase, question in names:
            self._named[_stems(phrase)] = Named(None, question)

    def _add(self, name: str, named: Named) -> None:
        if words := _stems(name):
            self._named.setdefault(words, named)

    def find(self, words: Sequence[str]) -> tuple[Named, int, int] | None:
        """The longest name in the words, the last where two are as long; and where it begins and ends."""
        own = self._find([stem(word) for word in words])
        other = self._behind.find(words) if self._behind else None
        if not other or (own and own[2] - own[1] >= other[2] - other[1]):
            return own
        known = other[0].ingredient
        changed = self._own.get(known.name) if known else None
        return (Named(changed, ""), *other[1:]) if changed else other

    def exactly(self, name: str) -> Named | None:
        """What is called just so."""
        words = [t.word for t in tokens(name) if t.kind != "sign"]
        found = self.find(words)
        return found[0] if found and found[2] - found[1] == len(words) else None

    def starting(self, words: Sequence[str], at: int) -> tuple[Named, int] | None:
        """The longest name that begins at a word, and where it ends."""
        stems = [stem(word) for word in words[at : at + self._longest]]
        own = next(((named, at + n) for n in range(len(stems), 0, -1) if (named := self._named.get(tuple(stems[:n])))), None)
        other = self._behind.starting(words, at) if self._behind else None
        return other if other and (own is None or other[1] > own[1]) else own

    @cached_property
    def _by_deletion(self) -> dict[str, set[str]]:
        """Words of names, by what is left of each where one letter is left out, and by themselves."""
        found: dict[str, set[str]] = {}
        for words in self._named:
            for word in words:
                if len(word) >= SHORTEST_MENDED:
                    for left in _deletions(word):
                        found.setdefault(left, set()).add(word)
        return found

    def nearest(self, word: str) -> str:
        """The one word of a name that a word is a slip away from: a letter missing, too many, another, or two the wrong way round
        (and both a letter missing and one too many in long words). Blank where there is none, or more than one.

        >>> [shipped_names().nearest(word) for word in ("suger", "slat", "cinammon", "bread", "zibrul")]
        ['sugar', 'salt', 'cinnamon', '', '']
        """
        if len(self._near) > MOST_REMEMBERED:
            self._near.clear()
        if word not in self._near:
            self._near[word] = self._nearest(word)
        return self._near[word]

    def _nearest(self, word: str) -> str:
        word = stem(word)
        if len(word) < SHORTEST_MENDED or not word.isalpha() or self.knows(word):
            return ""
        near = set[str]().union(*(self._by_deletion.get(left, set()) for left in _deletions(word)))
        near |= {other for other in (self._behind.nearest(word),) if other} if self._behind else set()
        near = {other for other in near if len(word) >= LONG_ENOUGH or _slips(word, other) <= 1}
        closest = {other for other in near if _slips(word, other) == min(_slips(word, one) for one in near)}
        return closest.pop() if len(closest) == 1 else ""

    @cached_property
    def _words(self) -> frozenset[str]:
        return frozenset(word for words in self._named for word in words)

    def knows(self, word: str) -> bool:
        """Whether a word is part of any name."""
        return stem(word) in self._words or (self._behind is not None and self._behind.knows(word))

    def _find(self, stems: list[str]) -> tuple[Named, int, int] | None:
        for length in range(min(self._longest, len(stems)), 0, -1):
            for at in range(len(stems) - length, -1, -1):
                if named := self._named.get(tuple(stems[at : at + length])):
                    return named, at, at + length
        return None


MOST_REMEMBERED = 5_000
"""Words of which it is remembered what they are a slip of."""
SHORTEST_MENDED = 4
"""Letters of a word below which a slip is not looked for: too much is one letter away."""
LONG_ENOUGH = 7
"""Letters from which a word may be two slips off."""


def _deletions(word: str) -> set[str]:
    return {word, *(word[:n] + word[n + 1 :] for n in range(len(word)))}


def _slips(a: str, b: str) -> int:
    """How many letters are put in, left out, changed, or swapped with the next: optimal string alignment distance (Damerau 1964,
    Levenshtein 1966)."""
    before: list[int] = []
    row = list(range(len(b) + 1))
    for i, x in enumerate(a, 1):
        before, last, row = row, before, [i]
        for j, y in enumerate(b, 1):
            cost = min(before[j] + 1, row[j - 1] + 1, before[j - 1] + (x != y))
            if i > 1 and j > 1 and x == b[j - 2] and a[i - 2] == y:
                cost = min(cost, last[j - 2] + 1)
            row.append(cost)
    return row[-1]


def _stems(name: str) -> tuple[str, ...]:
    return tuple(stem(t.word) for t in tokens(name) if t.kind != "sign")


@cache
def shipped_names() -> Names:
    """Names of the pantry that ships, made once."""
    names = Names(pantry())
    names.open_names(vocabulary().open_names)
    return names
