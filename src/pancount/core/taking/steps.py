"""A method's text as the steps of a way: sentence by sentence, each with what goes in, how long, how warm, what to look for.

What is not understood stays as a note in its place, and the whole text stays with the way. What a rest is (a first rise, a bench rest, the
yeast waking) follows from what was done before it. Common practice, no source.
"""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from typing import NamedTuple

from pancount.core.base import most
from pancount.core.formula.formula import BesideKind, Formula, StageKind, Way
from pancount.core.formula.stages import kinds, main_stage
from pancount.core.formula.step_kinds import step_kinds
from pancount.core.formula.steps import Lasts, Place, Step, Takes, Warmth
from pancount.core.formula.ways import keyed
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.role import Role
from pancount.core.taking.amounts import quantity
from pancount.core.taking.clauses import Clause, Line, begins_look, clauses
from pancount.core.taking.facts import found_in
from pancount.core.taking.goes_in import Lines, Named, Spot
from pancount.core.taking.plain import BULLET, sentence_spans
from pancount.core.taking.spells import SUMMED, is_own, spell, warmth
from pancount.core.taking.tokens import tokens
from pancount.core.taking.vocabulary import vocabulary

DOUGH_WORDS = frozenset(kinds()[StageKind.DOUGH].words)
SOAKER_WORDS = frozenset(kinds()[StageKind.SOAKER].words)
DONE_ONLY_IF = frozenset({"stand", "knead", "mix", "add", "more", "rise", "proof"})
"""Kinds of act that, with an "if" behind them, are no step of their own."""
_LABELS = {"wake": "mix", "round": "shape", "melt": "", "bring": "", "dip": "top"}
"""What an act in a heading is."""
TAKES_LINES = frozenset({"mix", "add", "knead", "knead_by_hand", "dissolve", "wake", "paste", "scald", "soak", "boil", "melt", "feed", "autolyse"})
"""Kinds of step that put lines of the dough in."""
WORKS = frozenset({"mix", "add", "knead", "knead_by_hand"})
BESIDE_OF = {
    "wash": (BesideKind.WASH,),
    "top": (BesideKind.TOPPING,),
    "fill": (BesideKind.FILLING,),
    "bathe": (BesideKind.BATH,),
    "heat_bath": (BesideKind.BATH,),
    "prepare": (BesideKind.PAN_OIL,),
    "brush": (BesideKind.TOPPING, BesideKind.WASH),
}
"""What is beside the dough and goes on, in or under it at a kind of step."""
STAGE_OF = {"paste": StageKind.PASTE, "scald": StageKind.SCALD, "soak": StageKind.SOAKER, "boil": StageKind.MASH, "feed": StageKind.LEVAIN}
"""Which stage a kind of step is about, where no heading and no line says."""
COLD_C = 12.0
"""A dough that stands colder than this stands in a fridge or a cellar. Common practice, no source. [°C]"""
COOLS_FROM_MIN = 5.0
"""Out of the pan for less than this is no cooling; on a griddle nothing takes longer at a time. Common practice, no source. [min]"""
RISE_FROM_MIN, PROOF_FROM_MIN = 40, 20
"""A dough that is left so long rises; shaped pieces, so long. Common practice, no source. [min]"""
LONGEST_LOOK = 160
_NUMBERED = re.compile(r"^\s*(?:\d{1,2}:\d\d\s+|(?:step|schritt)\s*\d{1,2}\s*[.):–-]?\s*|\d{1,2}[.)]\s*(?!\d))", re.IGNORECASE)
_IN_ONE_LINE = re.compile(r"(?<=[.;!\d°CF])\s*(?<!\d)(?=\d{1,2}[.)]\s?[A-ZÄÖÜa-zäöü])")
_LABEL = re.compile(r"^([^:.;!?]{2,40}):\s+(?=\S)")
_BRACKETS = re.compile(r"\(([^()]*)\)")
_EDGES = re.compile(r"^(?:[\s,;.:–—-]|(?:and|und)\b)+|(?:[\s,;:.–—]|\b(?:and|then|und|dann)\b)+$", re.IGNORECASE)


@dataclass(slots=True)
class Draft:
    """A step while it is read; `named` is what of the formula goes in."""

    kind: str
    spans: list["Span"]
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
    def sentence(self) -> "Sentence":
        """The last that it was told in."""
        return self.spans[-1].sentence


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
class _Seen:
    """What was done so far."""

    leaven: bool = False
    flour: bool = False
    salt: bool = False
    mixed: bool = False
    risen: bool = False
    divided: bool = False
    shaped: bool = False
    baked: bool = False


def read_steps(text: str, formula: Formula, pantry: Pantry) -> tuple[Formula, Way]:
    """A method read for a formula: the formula with keys to call its lines by, and the way. Never raises; the same text always reads the same."""
    formula = keyed(formula)
    reader = _Reader(formula, pantry)
    for number, paragraph in enumerate(_paragraphs(text)):
        reader.paragraph(number, paragraph)
    reader.finish()
    drafts = _no_more(_as_hot(_settled(reader.drafts)))
    steps = _within(tuple(_step(draft, reader.key_of(draft), reader.takes(draft)) for draft in drafts))
    return formula, Way(steps=steps, dough_c=reader.dough_c, written=text[: most.METHOD])


def _as_hot(drafts: list[Draft]) -> list[Draft]:
    """A bake that says no temperature is as hot as the oven was heated before."""
    oven: Warmth | None = None
    for draft in drafts:
        if draft.kind == "bake":
            draft.heat = draft.heat or oven
        oven = draft.heat if draft.kind in ("bake", "preheat") and draft.heat else warmth(tokens(draft.text), oven=True) or oven
    return drafts


def _no_more(drafts: list[Draft]) -> list[Draft]:
    """As many as a way has; what is over stays as a note behind them."""
    kept, over = drafts[: most.STEPS - 1], drafts[most.STEPS - 1 :]
    if len(over) < 2:
        return drafts
    return [*kept, Draft("note", [span for draft in over for span in draft.spans], over[-1].line)]


def _within(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """Steps with no more rises than are taken; what is one too many stays as a note."""
    rises, found = 0, []
    for step in steps:
        rises += step_kinds()[step.kind].does == "rises"
        found.append(step if rises <= most.RISES or step_kinds()[step.kind].does != "rises" else step.model_copy(update={"kind": "note"}))
    return tuple(found)


def _paragraphs(text: str) -> Iterable[str]:
    """Lines of a text; a list that was run into one line is parted at its numbers."""
    for raw in text.splitlines():
        parts = _IN_ONE_LINE.split(raw) if len(re.findall(r"(?<!\d)\d{1,2}[.)]\s?[A-ZÄÖÜa-zäöü]", raw)) > 2 else [raw]
        yield from (part for part in parts if part.strip())


class _Reader:
    """Reads a method paragraph by paragraph."""

    def __init__(self, formula: Formula, pantry: Pantry) -> None:
        self.formula, self.lines, self.main = formula, Lines(formula, pantry), main_stage(formula)
        self.drafts: list[Draft] = []
        self.seen = _Seen()
        self.prefix: list[Span] = []
        """What was put somewhere by the way, before what is done with it."""
        self.label, self.label_spell, self.section = "", "", -1
        self.label_span: Span | None = None
        """A heading of its own, until something of its kind is done; or one before its sentence, until that is read."""
        self.heading: set[str] = set()
        """Words of the last heading."""
        self.dough_c: float | None = None

    # Headings

    def paragraph(self, number: int, raw: str) -> None:
        """One line of the text: a heading, or sentences."""
        text = BULLET.sub("", _NUMBERED.sub("", raw, count=1)).strip()
        if not text:
            return
        if (found := _LABEL.match(text)) and self._head(Sentence(found[1], number), before=True):
            text = text[found.end() :]
        elif self._is_heading(text) and self._head(Sentence(text.rstrip(":"), number), before=False):
            return
        for begin, end in sentence_spans(text):
            for part in _parts(text[begin:end]):
                self.sentence(Sentence(part, number))
        self._flush()
        if found and self.label_span is None:
            self.label = self.label_spell = ""  # what heads a sentence heads no other

    def _is_heading(self, text: str) -> bool:
        if any(stage.name and stage.name.casefold() == text.rstrip(":").strip().casefold() for stage in self.formula.stages):
            return True
        words = [t for t in tokens(text) if t.kind == "word"]
        marked = text.endswith(":") or (text.isupper() and len(text) > 3)
        short = 0 < len(words) <= (6 if marked else 3) and not text.endswith((".", "!", "?", ";"))
        return short and not found_in(tokens(text)) and "," not in text

    def _head(self, heading: Sentence, *, before: bool) -> bool:
        """Take a heading, on a line of its own or `before` its sentence: what kind of step it names, or which stage. False where it is none."""
        bare = _BRACKETS.sub(" ", heading.text)
        line = tokens(bare.lower())
        stage = self._stage_named(bare)
        if not line or (found_in(line) and stage < 0):
            return False
        kind = next((one.kind for one in clauses(line) if one.kind not in ("", "carry", "more", "none")), "")
        kind = _LABELS.get(kind, kind)
        if not kind and {t.word for t in line} & SOAKER_WORDS:
            kind = "soak"
        if not kind and stage < 0 and not (bare[:1].isupper() and len(line) <= 3):
            return False
        self._close_label()
        self.heading = {t.word for t in line}
        if kind == "rise" and any(t.word in vocabulary().step_small["second"] for t in line):
            kind = "proof"
        if stage >= 0 or (not kind and not before):
            self.section = stage
        if self.heading & DOUGH_WORDS and not kind:
            self.seen = _Seen(leaven=self.seen.leaven)  # what was risen before was no dough yet
        inside = _BRACKETS.search(heading.text)
        self.label, self.label_spell = kind, inside[1] if inside else ""
        self.label_span = Span(heading, 0, len(heading.text)) if kind or before else None
        if before and self.label_span:
            self.prefix = [self.label_span]
            self.label_span = None
        return True

    def _stage_named(self, text: str) -> int:
        """Which stage of the formula a heading names: by its name, or by its kind; −1 for none."""
        words = {t.word for t in tokens(text)}
        for s, stage in enumerate(self.formula.stages):
            if stage.name and stage.name.casefold() == text.strip().casefold():
                return s
        for s, stage in enumerate(self.formula.stages):
            if words & set(kinds()[stage.kind].words) and (stage.kind is not StageKind.DOUGH or s == self.main):
                return s
        return -1

    def _close_label(self) -> None:
        """A heading that says what is done, with nothing of that kind under it, is a step itself: "Knead", "Rise"."""
        if self.label_span is not None:
            span, self.label_span = self.label_span, None
            line = tokens(span.sentence.text)
            self._take(Clause(self.label, (), line, "", (), 0, span.begin, span.end), span.sentence)

    def finish(self) -> None:
        """The end of the text."""
        self._close_label()
        self._flush()

    def _flush(self) -> None:
        """What was put somewhere, with nothing done to it after, belongs to what was done before."""
        if self.prefix and self.drafts:
            self.drafts[-1].spans += self.prefix
        elif self.prefix:
            self.drafts.append(Draft("note", self.prefix, self.prefix[-1].sentence.line))
        self.prefix = []

    # Sentences

    def sentence(self, sentence: Sentence) -> None:
        """One sentence, in its clauses."""
        line = tokens(sentence.text)
        if not line:
            return
        found = clauses(line)
        if len(found) == 1 and not found[0].kind:
            self._without_act(found[0], sentence)
            return
        found = self._lead(found, sentence)
        for n, clause in enumerate(found):
            span = Span(sentence, clause.start, clause.end)
            if clause.join == "or" and self.drafts:
                self._append(span)  # another way to do the same
            elif clause.only_if and clause.kind in DONE_ONLY_IF and self.drafts and (n or clause.lead):
                self._append(span)
                self._only_if(clause, sentence, sentence.text[clause.start : clause.end])
            else:
                self._take(clause, sentence)
                if clause.only_if and self.drafts:
                    self._only_if(clause, sentence, "")

    def _lead(self, found: list[Clause], sentence: Sentence) -> list[Clause]:
        """What stands at the head of a sentence before its first act may be a step of its own: "35 min, then shape"; "after an hour divide"."""
        first = found[0]
        lead = first.line[: first.lead]
        if first.final and self.label:
            lead = first.line[: next((n + 1 for n, t in enumerate(first.line) if t.text == ","), 0)]
        after = first.line and first.line[0].word in vocabulary().step_small["after"]
        if after and self.seen.baked:
            return found  # "after 20 min cover them": no step of its own
        if after and not lead:
            times = [one for one in found_in(first.line) if one.fact.kind == "time" and one.begin == 1]
            at = first.line.index(first.act[0]) if first.act else 0
            lead = first.line[:at] if times and times[0].end <= at else lead
        later = next((one.end for one in found_in(first.line) if one.fact.kind == "time" and one.begin == 0), 0)
        waits = bool(later) and any(t.word in vocabulary().step_small["later"] for t in first.line[later : later + 1])
        lead = first.line[: later + 1] if waits else lead  # "30 min later add the salt"
        if not lead or not (found_in(lead) or self.lines.named(lead, self.section)):
            return found
        whole = Clause("", (), lead, "", (), 0, first.start, lead[-1].end)
        own = lead[1:] if after else lead[:-1] if waits else lead
        kind = self._standing(whole, spell(own, "stand").lasts) if after or waits else self._kind_untold(whole)
        if kind in ("", "carry"):
            return found
        self._take(replace(whole, kind=kind, line=own), sentence)
        rest = first.line[len(lead) :]
        return [replace(first, line=rest, lead=0, start=rest[0].start, join=","), *found[1:]]

    def _append(self, span: Span) -> None:
        self.drafts[-1].spans.append(span)

    def _only_if(self, clause: Clause, sentence: Sentence, words: str) -> None:
        """What is done only then goes with the step before: what if not, and how much longer."""
        told = sentence.text[clause.only_if[0].start : clause.only_if[-1].end] if clause.only_if else ""
        draft, again = self.drafts[-1], spell((*clause.line, *clause.only_if) if words else clause.only_if, "stand").lasts
        draft.if_not = (words or told).strip()[:300]
        draft.again_min = again.usual_min if again and again.usual_min <= 120 else draft.again_min

    def _without_act(self, clause: Clause, sentence: Sentence) -> None:
        """A sentence in which nothing is done by a verb: a heading's times, an oven, a count of pieces, or a remark."""
        span = Span(sentence, 0, len(sentence.text))
        if not clause.line:
            if self.drafts:
                self._append(span)
                self._only_if(clause, sentence, "")
            else:
                self._note(span)
            return
        if kind := self._kind_untold(clause):
            self._take(replace(clause, kind=kind), sentence)
            return
        degrees = warmth(clause.line, oven=False)
        if degrees and {t.word for t in clause.line} & DOUGH_WORDS and not clause.says("up to") and self.dough_c is None:
            self.dough_c = degrees.middle_c
        self._note(span)

    def _note(self, span: Span) -> None:
        """What is not understood stays in its place."""
        self.drafts.append(Draft("note", [*self.prefix, span], span.sentence.line))
        self.prefix = []

    def _kind_untold(self, clause: Clause) -> str:
        """What kind of step words without a verb are, by their heading, their oven, their time and what was done before; blank for none."""
        line, seen = clause.line, self.seen
        times = [one for one in found_in(line) if one.fact.kind == "time" and one.fact.high > 0 and is_own(line, one)]
        oven, named = warmth(line, oven=True), self.lines.named(line, self.section)
        roles = {self._role(one.spot) for one in named}
        if oven and (self.label == "bake" or (times and (seen.risen or seen.shaped))):
            return "bake"
        if oven and clause.says("oven"):
            return "preheat"
        if self.label and (times or named or self.label_spell):
            return self.label
        if clause.says("room temperature") and times and seen.mixed:
            cold = next((draft.kind for draft in reversed(self.drafts) if draft.kind in ("chill", "temper", "rise", "proof")), "") == "chill"
            return "temper" if cold else "proof" if seen.shaped else "rise"
        if times and times[0].fact.high >= PROOF_FROM_MIN and seen.mixed and not (seen.risen or seen.shaped) and clause.says("warm", "covered"):
            return "rise"
        if times and (now := self._in_the_heat(times[0].fact.high)):
            return now
        if times and seen.mixed and self._is_cold(clause):
            return "chill"
        if clause.says("speed", "machine") and times and not seen.risen:
            last = self.drafts[-1] if self.drafts else None
            return "knead" if seen.mixed and not (last and last.lasts is None and self._has(last, Role.FLOUR)) else "mix"
        if _counts_pieces(line) and seen.risen and not seen.divided:
            return "divide"
        few = len([t for t in line if t.kind == "word"]) <= 6 * len(named) + 6
        if named and few and not (seen.risen or seen.shaped or seen.baked) and (seen.mixed or Role.FLOUR in roles):
            return "add"
        if roles == {Role.FAT} and seen.shaped and not seen.baked:
            return "top"
        if times and not oven and sum(t.kind != "sign" for t in line) <= 8:
            if seen.baked:
                return "cool"
            if clause.says("bench") or (seen.shaped and times[0].fact.high < PROOF_FROM_MIN and clause.says("covered")):
                return "rest"
            if seen.shaped and times[0].fact.high >= PROOF_FROM_MIN:
                return "proof"
        return ""

    # Steps

    def _take(self, clause: Clause, sentence: Sentence) -> None:
        """One clause as a step, or as part of the step before it."""
        span = Span(sentence, clause.start, clause.end)
        told = spell(clause.line, clause.kind)
        if self.label_spell and told.lasts is None:
            told = spell(tokens(self.label_spell), clause.kind)
        named = self.lines.named(_without_look(clause), self._where(clause.kind))
        kind = self._resolved(clause, told.lasts, named)
        if kind == "note" or (kind == "more" and (not self.drafts or self.drafts[-1].kind == "note")):
            self._note(span)
            return
        if kind == "carry" or (kind == "more" and not told.lasts):
            in_pan = self.seen.risen and any((word := vocabulary().yields.match(clause.line, n)) and word[0] == "pans" for n in range(len(clause.line)))
            self.seen.shaped |= in_pan
            if clause.join and self.drafts and self.drafts[-1].sentence is sentence:
                self._append(span)
            else:
                self.prefix.append(span)
            return
        draft = Draft(kind, [*self.prefix, span], sentence.line, stage=self.section)
        self.prefix = []
        draft.lasts, draft.heat = told.lasts, self._heat(clause, kind)
        draft.look, draft.touches, draft.during = _look(clause), _touches(clause, kind), self._is_during(clause, kind)
        if kind in ("rise", "proof", "feed"):
            draft.place = _place(clause.line)
        if kind == "fold":
            self._fold_times(draft, told.every_min, clause)
        if kind in TAKES_LINES:
            draft.named, draft.takes_rest = self._goes_in(clause, kind, named)
        elif named and kind in BESIDE_OF:
            draft.named = named
        if kind == self.label or {kind, self.label} == {"rise", "proof"} or "shape" == _group(kind) == _group(self.label):
            self.label_span = None
        behind = self._behind(clause, kind)
        if behind:
            draft.lasts, draft.spans[-1] = None, Span(sentence, clause.start, behind[0].start)
        self._join(draft, clause)
        self._note_seen(self.drafts[-1])
        if behind:
            after = Clause("stand", (), behind, ",", (), 0, behind[0].start, clause.end)
            self._take(after, sentence)

    def _where(self, kind: str) -> int:
        """In which stage a clause means its lines: that of its heading, or of its kind, else the dough itself."""
        if self.section >= 0:
            return self.section
        of_kind = STAGE_OF.get(kind)
        return next((s for s, stage in enumerate(self.formula.stages) if stage.kind is of_kind), self.main)

    def _behind(self, clause: Clause, kind: str) -> Line:
        """What follows a dividing or a shaping in its clause and is a rest: "divide into ten, balls, 15 min under a cloth"."""
        times = [one for one in found_in(clause.line) if one.fact.kind == "time"]
        if kind not in ("divide", "preshape", "shape", "press") or not times:
            return ()
        comma = next((n for n in range(times[0].begin - 1, 0, -1) if clause.line[n].text == ","), 0)
        return clause.line[comma + 1 :] if comma else ()

    def _goes_in(self, clause: Clause, kind: str, named: list[Named]) -> tuple[list[Named], bool]:
        """What goes in, and whether that is all that no step names: "everything", "all but the butter", "the dry ingredients"."""
        words = [t.word for t in clause.line]
        if clause.says("dry") and "ingredients" in words:
            return self.lines.dry(), False
        if not self._is_everything(clause, kind):
            levain = kind == "feed" and self.section >= 0 and self.formula.stages[self.section].kind is StageKind.LEVAIN
            own = [one for one in named if kind != "feed" or levain or self._role(one.spot) is not Role.LEAVEN]
            if kind == "soak" and not any(stage.kind is StageKind.SOAKER for stage in self.formula.stages):
                own = [one for one in own if one.share]  # its water is not the dough's
            return own, False
        small = vocabulary().step_small
        but = next((n for n, word in enumerate(words) if word in small["except"] or words[n : n + 2] == ["bis", "auf"]), len(words))
        left_out = {one.spot for one in self.lines.named(clause.line[but:], self.section)}
        if not left_out:
            return [], True
        return [Named(spot) for spot in self.lines.spots if spot not in left_out], False

    def _heat(self, clause: Clause, kind: str) -> Warmth | None:
        if kind in ("bake", "preheat"):
            return warmth(clause.line, oven=True) or (warmth(tokens(self.label_spell), oven=True) if self.label_spell else None)
        if kind in ("griddle", "fold", "divide", "shape", "preshape", "slash", "top", "wash", "note", "test", "brush"):
            return None
        found = warmth(clause.line, oven=False)
        return found or (warmth(tokens(self.label_spell), oven=False) if self.label_spell else None)

    def _is_everything(self, clause: Clause, kind: str) -> bool:
        small, words = vocabulary().step_small, [t.word for t in clause.line]
        if kind not in ("mix", "knead", "knead_by_hand", "add"):
            return False
        if self._is_the_rest(clause, words):
            return True
        for at, word in enumerate(words):
            if word in ("everything", "alles", "lot") or (word == "alle" and at + 1 < len(words) and words[at + 1] in small["rest"] | {"zutaten"}):
                return True
            if word == "all" and ("ingredients" in words[at : at + 4] or (at + 1 < len(words) and words[at + 1] in ("in", "but", "together", ",", "to")) or at + 1 == len(words)):
                return True
        return "it" in words and "all" in words and not self.seen.mixed

    def _is_the_rest(self, clause: Clause, words: list[str]) -> bool:
        """ "add the rest", "the remaining ingredients": all that no step names, where no line is named with it."""
        rest = vocabulary().step_small["rest"]
        at = next((n for n, word in enumerate(words) if word in rest), -1)
        if at < 0:
            return False
        things = {"ingredients", "zutaten"} & set(words[at : at + 4])
        alone = words[at] == "rest" and at and words[at - 1] in vocabulary().step_small["the"] and words[at + 1 : at + 2] != ["of"]
        return bool(things or alone) and not self.lines.named(clause.line[at:], self.section)

    def _fold_times(self, draft: Draft, every: float | None, clause: Clause) -> None:
        """Folds told by their interval: "every 20 minutes, three times in all" is an hour of its own, unless a rise goes on meanwhile."""
        if every and draft.touches and not draft.during:
            last = self.drafts[-1] if self.drafts else None
            draft.during = bool(last and last.kind == "rise" and last.lasts and last.lasts.high_min >= every * (draft.touches - 1))
            draft.lasts = None if draft.during else Lasts.of(every * draft.touches)
        elif draft.during or every:
            host = next((other for other in reversed(self.drafts) if other.kind == "rise"), None)
            if every and draft.touches is None and draft.during and host and host.lasts:
                within = [one.fact.high for one in found_in(clause.line) if one.fact.kind == "time" and one.fact.high > every]
                draft.touches = max(1, min(30, int(within[0] // every if within else -(-host.lasts.usual_min // every) - 1)))
            draft.lasts = None

    def _is_during(self, clause: Clause, kind: str) -> bool:
        last = self.drafts[-1].kind if self.drafts else ""
        return kind == "fold" and last == "rise" and clause.join != ""

    def _resolved(self, clause: Clause, lasts: Lasts | None, named: Sequence[Named]) -> str:
        """The kind of step that an act is here."""
        kind, seen, last = clause.kind, self.seen, self.drafts[-1] if self.drafts else None
        roles = {self._role(one.spot) for one in named}
        if kind in ("stand", "relax") or (kind == "carry" and lasts is not None and not roles):
            return self._standing(clause, lasts)
        if kind == "carry":
            if not (named and not seen.risen and not seen.shaped and clause.act and clause.act[0].word in vocabulary().step_small["puts"]):
                return "carry"
            kind = "add"
        if kind == "add" and last and last.kind == "heat_bath":
            return "carry"
        if kind in ("add", "mix") and self.label == "soak":
            return "soak"
        if kind == "add" and seen.risen and roles == {Role.FAT}:
            return "prepare" if not seen.shaped else "top"
        if kind == "add" and Role.FLOUR in roles and not seen.flour and not (seen.mixed or clause.says("another")):
            return "mix"
        if kind in ("rise", "proof"):
            if kind == "rise" and seen.leaven and not seen.flour and not seen.mixed:
                return "wake"
            return "proof" if seen.shaped or seen.divided or (kind == "proof" and seen.risen) or (clause.says("second") and seen.risen) else "rise"
        if kind == "melt":
            return self._heated(clause, roles)
        if kind == "paste":
            return self._cooked(clause, roles)
        if kind in ("boil", "bring"):
            return self._boiled(clause, roles, lasts)
        if kind == "dip":
            in_bath = clause.says("soda") or (lasts is not None and lasts.high_min < 3)
            return "bathe" if in_bath else "top"
        if kind in ("wash", "brush"):
            return "brush" if seen.baked else "wash"
        if kind == "top" and not seen.risen and not seen.shaped and roles & {Role.SALT, Role.FAT, Role.LEAVEN, Role.FLOUR, Role.LIQUID}:
            return "add"
        if kind == "fold" and roles and "in" in {t.word for t in clause.line}:
            return "add"
        if kind == "knead":
            return "knead_by_hand" if clause.says("hand") and not clause.says("machine") else "knead"
        if kind == "round":
            return "preshape"
        if kind == "knock_back" and not seen.risen:
            return "knead"
        if kind == "divide" and seen.baked:
            return "cut"
        if kind == "cool":
            return "cool" if seen.baked else "cool_off"
        if kind == "fill" and not seen.risen:
            return "carry"
        if kind == "unmould":
            return "carry" if not seen.baked else "cool" if lasts and lasts.high_min >= COOLS_FROM_MIN else kind
        if kind == "pack" and not seen.baked:
            return "carry"
        if kind == "more":
            return "more" if last and last.lasts is None and lasts else "carry" if not lasts else "more"
        if kind == "mix" and (seen.shaped or seen.baked):
            return "note"
        if kind == "press" and not seen.mixed:
            return "carry"
        return kind

    def _role(self, spot: Spot) -> Role | None:
        return self.formula.stages[spot[0]].lines[spot[1]].role

    def _standing(self, clause: Clause, lasts: Lasts | None) -> str:
        """What a dough that is left alone does, by what was done to it before."""
        seen, last = self.seen, self.drafts[-1] if self.drafts else None
        minutes = lasts.high_min if lasts else 0.0
        if last and last.kind in ("heat_bath", "bathe") and 0 < minutes < 5:
            return "bathe"
        if now := self._in_the_heat(minutes):
            return now
        if lasts and self._is_cold(clause):
            return "chill"
        if last and last.kind in ("feed", "soak") and lasts and last.lasts is None:
            return "more"
        if not lasts and not clause.says("risen", "awake", "warm"):
            return "carry"
        if clause.says("awake") or (seen.leaven and not seen.flour and not seen.mixed):
            return "wake"
        if seen.baked:
            return "cool"
        if seen.shaped:
            return "proof" if minutes >= PROOF_FROM_MIN or clause.says("risen") else "rest"
        if seen.divided:
            return "proof" if minutes >= RISE_FROM_MIN else "rest"
        if not (seen.mixed or seen.flour):
            return "carry"
        if clause.says("risen", "warm") or minutes >= RISE_FROM_MIN:
            return "rise"
        return "relax" if seen.leaven or seen.salt else "autolyse"

    def _in_the_heat(self, minutes: float) -> str:
        """What so short a time without an act is, of pieces that are shaped, once a griddle or a bath was heated; blank for neither."""
        if not self.seen.shaped or self.seen.baked or not 0 < minutes < COOLS_FROM_MIN:
            return ""
        heated = next((draft.kind for draft in reversed(self.drafts) if draft.kind in ("heat_griddle", "heat_bath", "bathe")), "")
        return {"heat_griddle": "griddle", "heat_bath": "bathe"}.get(heated, "")

    @staticmethod
    def _is_cold(clause: Clause) -> bool:
        """Whether it stands as cold as a fridge is."""
        degrees = warmth(clause.line, oven=False)
        return degrees is not None and degrees.middle_c < COLD_C

    def _heated(self, clause: Clause, roles: set[Role | None]) -> str:
        if clause.says("oven") and not roles:
            return "preheat"
        if clause.says("pan") and not roles:
            return "heat_griddle"
        return "melt" if roles or self.seen.baked or not self.seen.mixed or self.seen.shaped else "carry"

    def _cooked(self, clause: Clause, roles: set[Role | None]) -> str:
        in_paste = self.section >= 0 and self.formula.stages[self.section].kind is StageKind.PASTE
        if clause.says("paste") or in_paste or self.heading & set(kinds()[StageKind.PASTE].words):
            return "paste"
        if any(draft.kind == "heat_griddle" for draft in self.drafts) or self.seen.shaped or clause.says("side"):
            return "griddle"
        return "melt" if roles else "note"

    def _boiled(self, clause: Clause, roles: set[Role | None], lasts: Lasts | None) -> str:
        if clause.kind == "bring" and not clause.says("boil"):
            return "temper" if clause.says("room temperature") else "carry"
        if Role.MASH in roles or (lasts and lasts.high_min >= 8 and not self.seen.mixed):
            return "boil"
        if clause.kind == "boil" and self.seen.shaped and lasts is not None:
            return "bathe"
        return "heat_bath" if not self.seen.baked else "carry"

    def _join(self, new: Draft, clause: Clause) -> None:
        """Put a step behind the others, or into the one before where both are one to a baker."""
        last = self.drafts[-1] if self.drafts else None
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
        if last.kind in ("dissolve", "wake") and same and clause.join == "and" and new.kind == "mix" and not self._has(new, Role.FLOUR):
            return True
        if new.kind == "wake" and last.kind in ("mix", "dissolve", "add", "melt", "wake") and near:
            return True
        if new.kind == "paste" and last.kind in ("mix", "add") and last.lasts is None and near:
            return True
        if last.kind == "melt" and same and new.kind in ("dissolve", "mix", "add") and self._has(new, Role.LEAVEN) and last.lasts is None:
            return True
        if new.kind == last.kind and same and new.kind in ("shape", "preshape", "top") and clause.join in ("and", ","):
            return new.kind != "top" and not (new.named and last.named)
        if last.lasts is not None or last.kind not in ("mix", "add", "dissolve"):
            return False
        if last.kind in ("add", "mix") and new.kind == "add" and same and (last.kind == "add" or clause.final):
            return True
        kneads = new.kind in ("knead", "knead_by_hand")
        if same and kneads and not new.named and self._has(last, Role.FLOUR):
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

    def _has(self, draft: Draft, role: Role) -> bool:
        return any(self._role(one.spot) is role for one in draft.named)

    def _note_seen(self, draft: Draft) -> None:
        seen = self.seen
        silent = draft.kind in WORKS and not any(other.named for other in self.drafts)
        if draft.kind in TAKES_LINES and draft.kind not in ("paste", "scald", "soak", "boil", "melt"):
            seen.leaven |= self._has(draft, Role.LEAVEN) or draft.takes_rest or silent
            seen.flour |= self._has(draft, Role.FLOUR) or draft.takes_rest or silent
            seen.salt |= self._has(draft, Role.SALT) or draft.takes_rest or silent
        seen.mixed |= draft.kind in WORKS and (seen.flour or draft.takes_rest or not draft.named)
        seen.risen |= draft.kind in ("rise", "chill") or (draft.kind == "fold")
        seen.divided |= draft.kind in ("divide",)
        seen.shaped |= draft.kind in ("shape", "press", "fill", "preshape") or (draft.kind == "prepare" and seen.risen)
        seen.shaped &= draft.kind not in ("divide",)
        seen.baked |= draft.kind in ("bake", "griddle")

    # What goes in

    def takes(self, draft: Draft) -> tuple[Takes, ...]:
        """What goes in at a step, of the dough and beside it."""
        stage = self._stage_of(draft)
        found = [self._line(one) for one in draft.named if draft.kind in TAKES_LINES or one.spot not in self._mixed_in()]
        if draft.takes_rest or draft is self._silent():
            key = "" if stage in (-1, self.main) else self.formula.stages[stage].key
            found.append(Takes(what="rest", key=key))
            found += [Takes(what="rest", key=other.key) for s, other in enumerate(self.formula.stages) if self._goes_with_main(s) and stage in (-1, self.main)]
        for kind in BESIDE_OF.get(draft.kind, ()):
            for one in self.formula.beside:
                if one.kind is kind and self._first_for(one.key, kind, draft):
                    found.append(Takes(what="beside", key=one.key, called=one.name))
        return tuple(found[:40])

    def _goes_with_main(self, s: int) -> bool:
        """Whether a stage is mixed with the dough itself and is made of nothing before: an autolyse, what comes late, inclusions."""
        return s != self.main and self.formula.stages[s].kind in (StageKind.AUTOLYSE, StageKind.LATE, StageKind.INCLUSIONS)

    def _line(self, one: Named) -> Takes:
        line = self.formula.stages[one.spot[0]].lines[one.spot[1]]
        share = one.share if one.share is not None else 1.0
        if one.rest:
            told = sum(other.share or 0.0 for draft in self.drafts for other in draft.named if other.spot == one.spot and not other.rest and draft.kind in TAKES_LINES)
            share = 1.0 - told if 0 < told < 1 else 1.0
        part = "held_back" if one.held and line.held_back else "first" if line.held_back else "all"
        return Takes(what="line", key=line.key, part=part, share=max(share, 0.0001), called=line.name[:300])

    def _mixed_in(self) -> set[Spot]:
        """Lines that a step of mixing names, or that go in with everything else."""
        found = {one.spot for draft in self.drafts if draft.kind in TAKES_LINES for one in draft.named}
        if any(draft.takes_rest for draft in self.drafts) or self._silent():
            found |= set(self.lines.spots)
        return found

    def _silent(self) -> Draft | None:
        """The first step of mixing, where no step at all names a line: it mixes the dough."""
        working = [draft for draft in self.drafts if draft.kind in TAKES_LINES]
        if any(draft.named or draft.takes_rest for draft in working):
            return None
        return next((draft for draft in working if draft.kind in WORKS), None)

    def _first_for(self, key: str, kind: BesideKind, draft: Draft) -> bool:
        """Whether a step is the first at which something beside the dough goes on."""
        return next((other for other in self.drafts if kind in BESIDE_OF.get(other.kind, ())), None) is draft

    def _stage_of(self, draft: Draft) -> int:
        """Which stage a step works on: that of its heading, of all its lines, or of its kind; −1 for the dough."""
        if draft.stage >= 0:
            return draft.stage
        own = {one.spot[0] for one in draft.named}
        if draft.kind in TAKES_LINES and len(own) == 1 and self.main not in own and not self._goes_with_main(next(iter(own))):
            return own.pop()
        kind = STAGE_OF.get(draft.kind)
        return next((s for s, stage in enumerate(self.formula.stages) if stage.kind is kind), -1)

    def key_of(self, draft: Draft) -> str:
        """The key of the stage that a step works on; blank for the dough itself."""
        s = self._stage_of(draft)
        return "" if s in (-1, self.main) or self._goes_with_main(s) else self.formula.stages[s].key


def _is_part(text: str) -> bool:
    return len(text.split()) <= 3 and text[:1].isupper()


def _without_look(clause: Clause) -> Line:
    """What of a clause names what goes in: not the act itself, where that may be an ingredient, and nothing behind "until"."""
    small = vocabulary().step_small
    until = next((n for n, t in enumerate(clause.line) if n and (begins_look(clause.line, n) or t.word in small["not"])), len(clause.line))
    return [t for t in clause.line[:until] if t not in clause.act or t.word not in ("oil", "butter", "flour")]


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


def _group(kind: str) -> str:
    return step_kinds()[kind].group if kind in step_kinds() else ""


def _place(line: Line) -> Place | None:
    """Where a dough rises, where that is said: in the fridge, or somewhere warm."""
    small, words = vocabulary().step_small, {t.word for t in line}
    if words & small["fridge"]:
        return "fridge"
    return "warm" if words & small["warm"] else None


def _counts_pieces(line: Line) -> bool:
    """ "16 balls, 70 g each"."""
    counted = quantity(line, 0)
    return counted is not None and counted[1] < len(line) and (word := vocabulary().yields.match(line, counted[1])) is not None and word[0] == "pieces"


def _look(clause: Clause) -> str:
    """What is looked for: what stands behind "until", up to the next stop."""
    for n in range(len(clause.line)):
        if begins_look(clause.line, n) and n + 1 < len(clause.line) and clause.line[n + 1].kind == "word":
            behind, found = clause.line[n + 1 :], found_in(clause.line[n + 1 :])
            stop = next((m for m, t in enumerate(behind) if t.text in ",;.(–—"), len(behind))
            stop = min(stop, found[0].begin if found else len(behind))
            told = behind[:stop]
            return " ".join(t.text for t in told)[:LONGEST_LOOK] if told else ""
    return ""


def _touches(clause: Clause, kind: str) -> int | None:
    """How often: "four folds", "fold x4", "3x dehnen und falten", "three times in all"."""
    if kind != "fold":
        return None
    small = vocabulary().step_small
    facts = {n for one in found_in(clause.line) for n in range(one.begin, one.end)}
    counts = []
    for n, token in enumerate(clause.line):
        if n in facts or (token.kind == "word" and token.word in ("a", "an", "half", "einmal")):
            continue
        if (found := quantity(clause.line, n)) and found[0].high == int(found[0].high) and 1 <= found[0].high <= 30:
            behind = {t.word for t in clause.line[found[1] : found[1] + 2]}
            counts.append((bool(behind & small["times"]), int(found[0].high)))
    return max(counts)[1] if counts else None


def _settled(drafts: list[Draft]) -> list[Draft]:
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


def _step(draft: Draft, of: str, takes: tuple[Takes, ...]) -> Step:
    return Step(
        kind=draft.kind,
        of=of,
        text=draft.text[:10_000],
        takes=takes,
        lasts=draft.lasts,
        heat=draft.heat,
        look=draft.look or None,
        if_not=draft.if_not or None,
        again_min=draft.again_min,
        touches=draft.touches,
        place=draft.place,
        during=draft.during,
    )
