"""What a line looks like, before it is known what it is: whether it measures, names an ingredient, talks, tells a time."""

from collections.abc import Sequence
from itertools import islice

from pancount.core.taking.amounts import Line, amount, quantity
from pancount.core.taking.headings import is_time
from pancount.core.taking.vocabulary import Names, vocabulary


def chats(line: Line) -> bool:
    """Whether someone talks in it: "Hi everyone", "my go-to". """
    return any(t.word in vocabulary().grammar["chat"] for t in line)


def has_amount(line: Line) -> bool:
    return any(amount(line, at) for at in range(len(line)) if not is_time(line, at))


def starts_with_amount(line: Line) -> bool:
    return amount(line, 0) is not None


def is_measured(line: Line) -> bool:
    found = amount(line, 0)
    return found is not None and bool(found[0].parts[0].measure)


def holds_name(line: Line, names: Names) -> bool:
    return names.find([t.word for t in line]) is not None


def lines_behind(lines: Sequence[Line], n: int, most: int) -> list[Line]:
    """The next lines behind one that hold anything."""
    return list(islice((lines[m] for m in range(n + 1, len(lines)) if lines[m]), most))


def tells_facts(line: Line) -> bool:
    """Whether it tells a time or a temperature."""
    return any(is_time(line, at) or (quantity(line, at) and vocabulary().heat.match(line, at + 1)) for at in range(len(line)))


MOST_COUNTED = 4
"""Words behind a bare count among which its ingredient is looked for: "3 large ripe bananas"."""


def told_amount(line: Line) -> int:
    """Where the amount ends in a line that tells it in passing: "then three quarters of a cup of yogurt"; 0 for any other."""
    begin = next((n for n, t in enumerate(line) if t.word not in vocabulary().grammar["so"]), 0)
    found = amount(line, begin) if 0 < begin <= MOST_COUNTED else None
    return found[1] if found and found[0].parts[0].measure else 0


def is_furniture(line: Line) -> bool:
    """What a copied web page leaves behind: "1x 2x 3x", "total dough 1698 g"."""
    return all(t.kind != "word" or t.word == "x" for t in line) or vocabulary().asides.match(line, 0) is not None
