"""Steps while they are read: what each has so far, which of them are one to a baker, and what only shows from what comes after."""

import re
from dataclasses import dataclass, field
from typing import NamedTuple

from pancount.core.formula.formula import Formula, StageKind
from pancount.core.formula.stages import kinds, main_stage
from pancount.core.formula.steps import Lasts, Place, Warmth
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.role import Role
from pancount.core.taking.clauses import Clause
from pancount.core.taking.goes_in import Lines, Named, Spot
from pancount.core.taking.spells import SUMMED, warmth
from pancount.core.taking.tokens import tokens

TAKES_LINES = frozenset({"mix", "add", "knead", "knead_by_hand", "dissolve", "wake", "paste", "scald", "soak", "boil", "melt", "feed", "autolyse"})
"""Kinds of step that put lines of the dough in."""
WORKS = frozenset({"mix", "add", "knead", "knead_by_hand"})
STAGE_OF = {"paste": StageKind.PASTE, "scald": StageKind.SCALD, "soak": StageKind.SOAKER, "boil": StageKind.MASH, "feed": StageKind.LEVAIN}
"""Which stage a kind of step is about, where no heading and no line says."""
DOUGH_WORDS = frozenset(kinds()[StageKind.DOUGH].words)
_EDGES = re.compile(r"^(?:[\s,;.:–—-]|(?:and|und)\b)+|(?:[\s,;:.–—]|\b(?:and|then|und|dann)\b)+$", re.IGNORECASE)


@dataclass(frozen=True, slots=True, eq=False)
class Sentence:
    """A sentence, in its paragraph."""

    text: str
    line: int


class Span(NamedTuple):
    """Part of a sentence."""

    sentence: Sentence
    begin: int
    end: int


@dataclass(slots=True)
class Draft:
    """A step while it is read; `named` is what of the formula goes in."""

    kind: str
    spans: list[Span]
    line: int
    named: list[Named] = field(default_factory=list)
    takes_rest: bool = False
    lasts: Lasts | None = None
    heat: Warmth | None = None
    look: str = ""
    if_not: str = ""
    again_min: float | None = None
    touches: int | None = None
    during: bool = False
    place: Place | None = None
    stage: int = -1
    """Which stage its heading names; −1 for none."""

    @property
    def text(self) -> str:
        """Its words as they stood, but for a capital at the beginning; what stood together stays so."""
        joined: list[Span] = []
        for span in self.spans:
            if joined and joined[-1].sentence is span.sentence and joined[-1].begin <= span.begin:
                joined[-1] = Span(span.sentence, joined[-1].begin, max(span.end, joined[-1].end))
            else:
                joined.append(span)
        told = ". ".join(filter(None, (_EDGES.sub("", span.sentence.text[span.begin : span.end]).strip() for span in joined)))
        return told[:1].upper() + told[1:]

    @property
    def sentence(self) -> Sentence:
        """The last that it was told in."""
        return self.spans[-1].sentence


@dataclass(slots=True)
class Seen:
    """What was done so far."""

    leaven: bool = False
    flour: bool = False
    salt: bool = False
    mixed: bool = False
    risen: bool = False
    divided: bool = False
    shaped: bool = False
    baked: bool = False


class SoFar:
    """A method as far as it is read: the formula it is read for, the steps so far, what was done in them, and under which heading it is."""

    def __init__(self, formula: Formula, pantry: Pantry) -> None:
        self.formula, self.lines, self.main = formula, Lines(formula, pantry), main_stage(formula)
        self.drafts: list[Draft] = []
        self.seen = Seen()
        self.label, self.label_spell, self.section = "", "", -1
        """What the heading says is done, and in its brackets how long; which stage it names, −1 for none."""
        self.heading: set[str] = set()
        """Words of the last heading."""

    @property
    def last(self) -> Draft | None:
        """The step before; None at the beginning."""
        return self.drafts[-1] if self.drafts else None

    def role(self, spot: Spot) -> Role | None:
        """What a line is in the dough."""
        return self.formula.stages[spot[0]].lines[spot[1]].role

    def has(self, draft: Draft, role: Role) -> bool:
        """Whether such a line goes in at a step."""
        return any(self.role(one.spot) is role for one in draft.named)

    def join(self, new: Draft, clause: Clause) -> None:
        """Put a step behind the others, or into the one before where both are one to a baker."""
        last = self.last
        if last is None or last.kind == "note" or not self._belongs(new, last, clause):
            self.drafts.append(new)
            return
        last.spans += new.spans
        last.kind = self._joint_kind(last, new)
        last.named = list({one.spot: one for one in (*new.named, *last.named)}.values())
        last.takes_rest |= new.takes_rest
        if new.kind in ("more", last.kind) and last.lasts and new.lasts and last.kind in SUMMED:
            both = Lasts.of(last.lasts.low_min + new.lasts.low_min, last.lasts.high_min + new.lasts.high_min)
            last.lasts = both
        last.lasts, last.heat = last.lasts or new.lasts, last.heat or new.heat
        last.look, last.if_not = last.look or new.look, last.if_not or new.if_not
        last.line = new.line

    def _belongs(self, new: Draft, last: Draft, clause: Clause) -> bool:
        """Whether a step goes on with the one before: "add the salt and mix 5 min", "stir in the yeast; leave 10 min"."""
        same, near = last.sentence is new.sentence, last.line == new.line
        if new.kind == "more":
            return True
        if same and new.kind == last.kind and new.kind in ("bake", "griddle", "bathe"):
            return True
        if last.kind in ("dissolve", "wake") and same and clause.join == "and" and new.kind == "mix" and not self.has(new, Role.FLOUR):
            return True
        if new.kind == "wake" and last.kind in ("mix", "dissolve", "add", "melt", "wake") and near:
            return not (self.has(last, Role.FLOUR) and self.has(new, Role.LEAVEN))  # flour stands in one bowl, yeast is woken in another
        if new.kind == "paste" and last.kind in ("mix", "add") and last.lasts is None and near:
            return True
        if last.kind == "melt" and same and new.kind in ("dissolve", "mix", "add") and self.has(new, Role.LEAVEN) and last.lasts is None:
            return True
        if new.kind == last.kind and same and new.kind in ("shape", "preshape", "top") and clause.join in ("and", ","):
            return new.kind != "top" and not (new.named and last.named)
        if last.lasts is not None or last.kind not in ("mix", "add", "dissolve"):
            return False
        if last.kind in ("add", "mix") and new.kind == "add" and same and (last.kind == "add" or clause.final):
            return True
        kneads = new.kind in ("knead", "knead_by_hand")
        if same and kneads and not new.named and self.has(last, Role.FLOUR):
            return True
        if same and clause.join == "and" and new.kind in (*WORKS, "dissolve") and not new.named and not new.takes_rest:
            return last.kind == "add" or not kneads
        if same and clause.join == "and" and last.kind == "add" and new.kind in WORKS:
            return True
        return new.kind == "mix" and not new.named and not new.takes_rest and near

    @staticmethod
    def _joint_kind(last: Draft, new: Draft) -> str:
        if new.kind == "more":
            return last.kind
        if new.kind in ("wake", "paste"):
            return new.kind
        if last.kind == "melt":
            return "wake"
        if last.kind == "dissolve" or new.kind == "dissolve":
            return "dissolve"
        return new.kind if last.kind in ("mix", "add") and new.kind in ("knead", "knead_by_hand", "mix") else last.kind

    def note_done(self, draft: Draft) -> None:
        """What was done, once a step is done."""
        seen = self.seen
        silent = draft.kind in WORKS and not any(other.named for other in self.drafts)
        if draft.kind in TAKES_LINES and draft.kind not in ("paste", "scald", "soak", "boil", "melt"):
            seen.leaven |= self.has(draft, Role.LEAVEN) or draft.takes_rest or silent
            seen.flour |= self.has(draft, Role.FLOUR) or draft.takes_rest or silent
            seen.salt |= self.has(draft, Role.SALT) or draft.takes_rest or silent
        seen.mixed |= draft.kind in WORKS and (seen.flour or draft.takes_rest or not draft.named)
        seen.risen |= draft.kind in ("rise", "chill") or (draft.kind == "fold")
        seen.divided |= draft.kind in ("divide",)
        seen.shaped |= draft.kind in ("shape", "press", "fill", "preshape") or (draft.kind == "prepare" and seen.risen)
        seen.shaped &= draft.kind not in ("divide",)
        seen.baked |= draft.kind in ("bake", "griddle")


def settled(drafts: list[Draft]) -> list[Draft]:
    """What only shows from what comes after: rounding before a rest and another shaping is pre-shaping, else it is the shaping; a wait before
    more shaping is a rest."""
    for n, draft in enumerate(drafts):
        after = [other.kind for other in drafts[n + 1 :] if other.kind != "note"]
        before_heat = after[: next((m for m, kind in enumerate(after) if kind in ("proof", "bake", "griddle", "bathe")), len(after))]
        if draft.kind == "preshape" and "shape" not in before_heat and "press" not in before_heat and not ("rest" in before_heat and "proof" in after):
            draft.kind = "shape"
        if draft.kind == "proof" and after[:1] and after[0] in ("shape", "press") and not _named_proof(draft):
            draft.kind = "rest"
    return drafts


def _named_proof(draft: Draft) -> bool:
    return any(word in draft.text.casefold() for word in ("proof", "prove", "rise", "gare", "gehen"))


def by_hand(drafts: list[Draft]) -> list[Draft]:
    """What is worked in goes in by hand too, where the dough is kneaded so and no machine kneads it."""
    kinds_of = {draft.kind for draft in drafts}
    if "knead_by_hand" in kinds_of and "knead" not in kinds_of:
        for draft in drafts:
            draft.place = draft.place or ("bowl" if draft.kind == "add" else None)
    return drafts


def as_hot(drafts: list[Draft]) -> list[Draft]:
    """A bake that says no temperature is as hot as the oven was heated before."""
    oven: Warmth | None = None
    for draft in drafts:
        if draft.kind == "bake":
            draft.heat = draft.heat or oven
        oven = draft.heat if draft.kind in ("bake", "preheat") and draft.heat else warmth(tokens(draft.text), oven=True) or oven
    return drafts
