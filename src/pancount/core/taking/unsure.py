"""What is not sure about a name: a slip of the pen that was mended, or a word beside the name that nobody knows.

The likeliest is taken, and said, so that one press settles it.
"""

from collections.abc import Sequence
from typing import NamedTuple

from pancount.core.taking.tokens import Token, written
from pancount.core.taking.vocabulary import Named, Names, vocabulary


class Mended(NamedTuple):
    """The name that a mended word makes, the words that are left, and what is to be said of it."""

    named: Named
    rest: list[Token]
    says: str


def is_unknown(token: Token, names: Names) -> bool:
    """Whether a word stands in no name and in no list."""
    return token.kind == "word" and not names.knows(token.word) and token.word not in vocabulary().known


def _said(named: Named) -> str:
    name = named.ingredient.name if named.ingredient else named.question.replace("_", " ")
    return f"taken for {name[:1].lower()}{name[1:]}. Say if it is something else."


def mended(words: Sequence[Token], found: Named | None, names: Names) -> Mended | None:
    """A name once slips of the pen in the words are mended; where one was found already (and is gone from the words), a longer one
    with it: "bred flour". None where mending makes no name."""
    slips = {n: near for n, t in enumerate(words) if is_unknown(t, names) and (near := names.nearest(t.word))}
    if not slips:
        return None
    if found is None:
        match = names.find([slips.get(n, t.word) for n, t in enumerate(words)])
        n = next((n for n in slips if match and match[1] <= n < match[2]), None)
        if match is None or n is None:
            return None
        return Mended(match[0], [*words[: match[1]], *words[match[2] :]], _slip(words[n], slips[n], match[0]))
    last = (found.ingredient.name.split(",")[0] if found.ingredient else found.question.replace("_", " ")).split()[-1]
    for n, near in slips.items():
        longer = names.exactly(f"{near} {last}")
        if longer is not None and longer != found:
            return Mended(longer, [t for m, t in enumerate(words) if m != n], _slip(words[n], near, longer))
    return None


def _slip(token: Token, near: str, named: Named) -> str:
    return f"“{token.text}” is read as {near}, so this is {_said(named)}"


SHORTEST_TOLD = 3
"""Letters of an unknown word from which it is told."""


def partly_known(before: Sequence[Token], beside: Sequence[Token], named: Named) -> str:
    """A sentence where nobody knows the words `before` the part in which the name stands, "brokkle (like butter)", or those `beside` the
    name; blank where there are none."""
    if before:
        return f"“{written(before)}” is not known; by what is said of it, it is {_said(named)}"
    told = [t for t in beside if t.kind == "word" and len(t.word) >= SHORTEST_TOLD]
    return f"“{written(told)}” is not known, so this is {_said(named)}" if told else ""
