"""One thing on an ingredient line, while it is worked on."""

from dataclasses import dataclass, field

from pancount.core.taking.lines import Reading
from pancount.core.taking.taken import Settled, Where
from pancount.core.taking.weigh import Weight

Answers = tuple[str | None, ...]


@dataclass(slots=True)
class Item:
    """One thing on an ingredient line, while it is worked on."""

    line: int
    part: int
    reading: Reading
    said: Settled | None
    group: str
    where: Where
    method: str = ""
    """What is open about where the method puts it, as a sentence."""
    weights: dict[frozenset[str], dict[Answers, Weight]] = field(default_factory=dict)

    @property
    def in_dough(self) -> bool:
        """Whether it is mixed into the dough."""
        return self.where == "dough"
