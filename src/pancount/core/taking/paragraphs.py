"""A method's text in the parts that are read one after the other: what of it is read, its paragraphs, and their sentences."""

import re
from collections.abc import Iterable

from pancount.core.base import most
from pancount.core.taking.clauses import clauses
from pancount.core.taking.plain import sentence_spans
from pancount.core.taking.tokens import tokens
from pancount.core.taking.vocabulary import vocabulary

_IN_ONE_LINE = re.compile(r"(?<=[.;!\d°CF])\s*(?<!\d)(?=\d{1,2}[.)]\s?[A-ZÄÖÜa-zäöü])")


def read_part(text: str) -> tuple[str, str]:
    """What of a text is read, and what is left: it is parted behind a line or a sentence where it can be."""
    if len(text) <= most.METHOD_READ:
        return text, ""
    cut = max((text.rfind(sign, 1, most.METHOD_READ) for sign in ("\n", ". ")), default=-1) + 1 or most.METHOD_READ
    return text[:cut], text[cut:].strip()


def paragraphs(text: str) -> Iterable[str]:
    """Lines of a text; a list that was run into one line is parted at its numbers."""
    for raw in text.splitlines():
        parts = _IN_ONE_LINE.split(raw) if len(re.findall(r"(?<!\d)\d{1,2}[.)]\s?[A-ZÄÖÜa-zäöü]", raw)) > 2 else [raw]
        yield from (part for part in parts if part.strip())


def _parts(text: str) -> list[str]:
    """A sentence where a stop was taken for that of a shortened word: "35 min. 200 °C, 14 min" is two, and so is "sit 1hr. cut in 8"."""
    found = [""]
    for part in re.split(r"(?<=[a-z]\.)(?<!\bca\.)(?<!approx\.)\s+(?=\w)", text.strip()):
        goes_on = part[:1].islower() and not (_is_done(found[-1]) and vocabulary().step_heads.match(tokens(part), 0))
        found[-1:] = [f"{found[-1]} {part}"] if found[-1] and goes_on else [*filter(None, found[-1:]), part]
    return [part for part in found if part]


def _is_done(text: str) -> bool:
    """Whether something is done in a text, and not by the way."""
    return any(clause.kind not in ("", "carry") for clause in clauses(tokens(text)))


def sentences_of(text: str) -> list[str]:
    """The sentences of a paragraph, also where a stop was taken for that of a shortened word."""
    return [part for begin, end in sentence_spans(text) for part in _parts(text[begin:end])]
