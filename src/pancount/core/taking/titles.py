"""Which line of a page is its title: not the way to it, not the greeting, not the first chatty line."""

from collections.abc import Sequence

from pancount.core.taking.amounts import Line
from pancount.core.taking.headings import label
from pancount.core.taking.telling import (
    chats,
    holds_name,
    is_furniture,
    is_measured,
    lines_behind,
    starts_with_amount,
    told_amount,
)
from pancount.core.taking.vocabulary import Names, vocabulary
from pancount.core.taking.yields import behind_title, says_yield

LONGEST_TITLE = 14
"""Words, signs and numbers."""

CRUMBS = (" > ", " » ", " › ", "★", "☆", "skip to", "jump to", "from:", "print recipe", "http")
"""What tells a line of a page's furniture: the way to it, its stars."""

TITLE_WITHIN = 60
"""Lines from the top among which the title is looked for."""


def title_at(texts: Sequence[str], lines: Sequence[Line], headings: Sequence[str], names: Names) -> int:
    """Which line is the title: of those before the first ingredient or heading that can be one the first that neither talks nor is
    a page's furniture; else the first that can be. −1 where none can."""
    can: list[int] = []
    for n, (raw, line) in enumerate(zip(texts[:TITLE_WITHIN], lines, strict=False)):
        if not line:
            continue
        is_bread = not can and headings[n] == "group" and (names_the_bread(raw, line) or heads_the_page(texts, lines, n))
        if (headings[n] and not is_bread) or ((is_measured(line) or told_amount(line)) and holds_name(line, names)) or says_yield(line, names):
            break
        if label(line, names):
            break
        if is_bread or (not raw.rstrip().endswith(":") and is_title(raw, line, names) and not is_furniture(line)):
            can.append(n)
    plainly = [
        n
        for n in can
        if not chats(lines[n])
        and not any(mark in f" {texts[n].casefold()} " for mark in CRUMBS)
        and not texts[n].rstrip().endswith(("!", "?", "…", ":)"))
    ]
    return next(iter(plainly or can), -1)


def heads_the_page(texts: Sequence[str], lines: Sequence[Line], n: int) -> bool:
    """Whether a marked first line is the page's name and no stage's: "# Rye knots", "ENRICHED DOUGH", with no measure below it."""
    if any(lines[:n]) or texts[n].rstrip().endswith(":"):
        return False
    return not any(map(is_measured, lines_behind(lines, n, 1)))


def names_the_bread(raw: str, line: Line) -> bool:
    """ "Buns" at the top of a page is its title, though further down it would head the dough's part."""
    found = vocabulary().yields.match(line, 0)
    return found is not None and found[0] == "pieces" and not raw.rstrip().endswith(":")


def is_title(raw: str, line: Line, names: Names) -> bool:
    if behind_title(raw, names)[1]:
        return True
    if is_measured(line) or told_amount(line) or len(line) > LONGEST_TITLE:
        return False
    if any(holds_name(line[:at], names) and is_measured(line[at:]) for at in range(1, len(line))):
        return False  # "flour 3 c", but not "Buns: formula for 5 kg flour"
    if starts_with_amount(line):
        return not holds_name(line, names)
    return True
