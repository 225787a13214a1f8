"""A method's text as the steps of a way: sentence by sentence, each with what goes in, how long, how warm, what to look for.

What is not understood stays as a note in its place, and the whole text stays with the way.
"""

import re
from dataclasses import replace

from pancount.core.base import most
from pancount.core.formula.formula import Formula, StageKind, Way
from pancount.core.formula.stages import kinds
from pancount.core.formula.step_kinds import kind_of, step_kinds
from pancount.core.formula.steps import Lasts, Step, Takes, Warmth, packed
from pancount.core.formula.ways import keyed
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.role import Role
from pancount.core.taking.clauses import Clause, Line, clauses
from pancount.core.taking.drafts import (
    DOUGH_WORDS,
    STAGE_OF,
    TAKES_LINES,
    Draft,
    Seen,
    Sentence,
    SoFar,
    Span,
    as_hot,
    by_hand,
    settled,
)
from pancount.core.taking.facts import disagreements, found_in
from pancount.core.taking.goes_in import Named
from pancount.core.taking.looks import look, place, touches, without_look
from pancount.core.taking.paragraphs import paragraphs, read_part, sentences_of
from pancount.core.taking.placing import BESIDE_OF, Placing
from pancount.core.taking.plain import BULLET
from pancount.core.taking.sorting import Sorter
from pancount.core.taking.spells import spell, warmth
from pancount.core.taking.tokens import tokens
from pancount.core.taking.vocabulary import vocabulary

SOAKER_WORDS = frozenset(kinds()[StageKind.SOAKER].words)
DONE_ONLY_IF = frozenset({"stand", "knead", "mix", "add", "more", "rise", "proof"})
"""Kinds of act that, with an "if" behind them, are no step of their own."""
_LABELS = {"wake": "mix", "round": "shape", "melt": "", "bring": "", "dip": "top"}
"""What an act in a heading is."""
_NUMBERED = re.compile(r"^\s*(?:\d{1,2}:\d\d\s+|(?:step|schritt)\s*\d{1,2}\s*[.):–-]?\s*|\d{1,2}[.)]\s*(?!\d))", re.IGNORECASE)
_LABEL = re.compile(r"^([^:.;!?]{2,40}):\s+(?=\S)")
_BRACKETS = re.compile(r"\(([^()]*)\)")


def read_steps(text: str, formula: Formula, pantry: Pantry) -> tuple[Formula, Way]:
    """A method read for a formula: the formula with keys to call its lines by, and the way. Never raises; the same text always reads the same."""
    formula = keyed(formula)
    reader = _Reader(formula, pantry)
    read, left = read_part(text)
    parts = list(paragraphs(read))
    for number, paragraph in enumerate(parts):
        if len(reader.far.drafts) > most.STEPS:
            left = "\n".join([*parts[number:], left]).strip()
            break
        reader.paragraph(number, paragraph)
    reader.finish()
    placing = Placing(reader.far)
    drafts = by_hand(as_hot(settled(reader.far.drafts)))
    steps = tuple(step for draft in drafts for step in (_step(draft, placing.key_of(draft), placing.takes(draft)), *_flagged(draft)))
    return formula, Way(steps=_within(_no_more(steps, left)), dough_c=reader.dough_c, written=text[: most.METHOD])


def _flagged(draft: Draft) -> tuple[Step, ...]:
    """A note behind a step whose pairs do not agree ("190 °C / 320 °F"): it stays until the baker has settled which was meant."""
    return tuple(Step(kind="note", text=says) for says in disagreements(draft.text))


NOTES = -(-most.METHOD // most.WORDS_OF_STEP) + 1
"""Notes that hold as much text as a method may have."""


def _no_more(steps: tuple[Step, ...], left: str) -> tuple[Step, ...]:
    """As many steps as a way has, naming no more than it may; what is over, and what was left, stays as notes behind them."""
    room, named = most.STEPS if not left else most.STEPS - NOTES, 0
    for n, step in enumerate(steps):
        named += len(step.takes)
        if named > most.TAKES or n >= room or (len(steps) > room and n >= most.STEPS - NOTES):
            over = packed([*(one.text for one in steps[n:]), *([left] if left else [])])
            return (*steps[: min(n, most.STEPS - len(over))], *(Step(kind="note", text=text) for text in over))
    return (*steps, *(Step(kind="note", text=text) for text in packed([left] if left else [])))


def _within(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """Steps with no more rises than are taken; what is one too many stays as a note."""
    rises, found = 0, []
    for step in steps:
        is_rise = kind_of(step).does == "rises"
        rises += is_rise
        found.append(step if rises <= most.RISES or not is_rise else step.model_copy(update={"kind": "note"}))
    return tuple(found)


class _Reader:
    """Reads a method paragraph by paragraph."""

    def __init__(self, formula: Formula, pantry: Pantry) -> None:
        self.far = SoFar(formula, pantry)
        self.sorter = Sorter(self.far)
        self.prefix: list[Span] = []
        """What was put somewhere by the way, before what is done with it."""
        self.label_span: Span | None = None
        """A heading of its own, until something of its kind is done; or one before its sentence, until that is read."""
        self.under_label: int | None = None
        """How many steps there were when a heading named a stage, which is no step itself where something is done under it; None for others."""
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
        for part in sentences_of(text):
            self.sentence(Sentence(part, number))
        self._flush()
        if found and self.label_span is None:
            self.far.label = self.far.label_spell = ""  # what heads a sentence heads no other

    def _is_heading(self, text: str) -> bool:
        if any(stage.name and stage.name.casefold() == text.rstrip(":").strip().casefold() for stage in self.far.formula.stages):
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
        self.far.heading = {t.word for t in line}
        if kind == "rise" and any(t.word in vocabulary().step_small["second"] for t in line):
            kind = "proof"
        if stage >= 0 or (not kind and not before):
            self.far.section = stage
        if self.far.heading & DOUGH_WORDS and not kind:
            self.far.seen = Seen(leaven=self.far.seen.leaven)  # what was risen before was no dough yet
        inside = _BRACKETS.search(heading.text)
        self.far.label, self.far.label_spell = kind, inside[1] if inside else ""
        self.label_span = Span(heading, 0, len(heading.text)) if kind or before else None
        self.under_label = len(self.far.drafts) if stage >= 0 else None
        if before and self.label_span:
            self.prefix = [self.label_span]
            self.label_span = None
        return True

    def _stage_named(self, text: str) -> int:
        """Which stage of the formula a heading names: by its name, or by its kind; −1 for none."""
        words = {t.word for t in tokens(text)}
        for s, stage in enumerate(self.far.formula.stages):
            if stage.name and stage.name.casefold() == text.strip().casefold():
                return s
        for s, stage in enumerate(self.far.formula.stages):
            if words & set(kinds()[stage.kind].words) and (stage.kind is not StageKind.DOUGH or s == self.far.main):
                return s
        return -1

    def _close_label(self) -> None:
        """A heading that says what is done, with nothing of that kind under it, is a step itself: "Knead", "Rise"."""
        if self.label_span is not None:
            span, self.label_span = self.label_span, None
            if self.under_label is not None and len(self.far.drafts) > self.under_label:
                return
            line = tokens(span.sentence.text)
            self._take(Clause(self.far.label, (), line, "", (), 0, span.begin, span.end), span.sentence)

    def finish(self) -> None:
        """The end of the text."""
        self._close_label()
        self._flush()

    def _flush(self) -> None:
        """What was put somewhere, with nothing done to it after, belongs to what was done before."""
        if self.prefix and self.far.drafts:
            self.far.drafts[-1].spans += self.prefix
        elif self.prefix:
            self.far.drafts.append(Draft("note", self.prefix, self.prefix[-1].sentence.line))
        self.prefix = []

    # Sentences

    def sentence(self, sentence: Sentence) -> None:
        """One sentence, in its clauses."""
        line = tokens(sentence.text)
        if all(token.kind == "sign" for token in line):
            return
        found = clauses(line)
        if len(found) == 1 and not found[0].kind:
            self._without_act(found[0], sentence)
            return
        found = self._lead(found, sentence)
        for n, clause in enumerate(found):
            span = Span(sentence, clause.start, clause.end)
            if clause.join == "or" and self.far.drafts:
                self._append(span)  # another way to do the same
            elif clause.only_if and clause.kind in DONE_ONLY_IF and self.far.drafts and (n or clause.lead):
                self._append(span)
                self._only_if(clause, sentence, sentence.text[clause.start : clause.end])
            else:
                self._take(clause, sentence)
                if clause.only_if and self.far.drafts:
                    self._only_if(clause, sentence, "")

    def _lead(self, found: list[Clause], sentence: Sentence) -> list[Clause]:
        """What stands at the head of a sentence before its first act may be a step of its own: "35 min, then shape"; "after an hour divide"."""
        first = found[0]
        lead = first.line[: first.lead]
        if first.final and self.far.label:
            lead = first.line[: next((n + 1 for n, t in enumerate(first.line) if t.text == ","), 0)]
        after = first.line and first.line[0].word in vocabulary().step_small["after"]
        if after and self.far.seen.baked:
            return found  # "after 20 min cover them": no step of its own
        if after and not lead:
            times = [one for one in found_in(first.line) if one.fact.kind == "time" and one.begin == 1]
            at = first.line.index(first.act[0]) if first.act else 0
            lead = first.line[:at] if times and times[0].end <= at else lead
        later = next((one.end for one in found_in(first.line) if one.fact.kind == "time" and one.begin == 0), 0)
        waits = bool(later) and any(t.word in vocabulary().step_small["later"] for t in first.line[later : later + 1])
        lead = first.line[: later + 1] if waits else lead  # "30 min later add the salt"
        if not lead or not (found_in(lead) or self.far.lines.named(lead, self.far.section)):
            return found
        whole = Clause("", (), lead, "", (), 0, first.start, lead[-1].end)
        own = lead[1:] if after else lead[:-1] if waits else lead
        kind = self.sorter.left_alone(whole, spell(own, "stand").lasts) if after or waits else self.sorter.without_act(whole)
        if kind in ("", "carry"):
            return found
        self._take(replace(whole, kind=kind, line=own), sentence)
        rest = first.line[len(lead) :]
        if not rest:
            return found[1:]
        return [replace(first, line=rest, lead=0, start=rest[0].start, join=","), *found[1:]]

    def _append(self, span: Span) -> None:
        self.far.drafts[-1].spans.append(span)

    def _only_if(self, clause: Clause, sentence: Sentence, words: str) -> None:
        """What is done only then goes with the step before: what if not, and how much longer."""
        told = sentence.text[clause.only_if[0].start : clause.only_if[-1].end] if clause.only_if else ""
        draft, again = self.far.drafts[-1], spell((*clause.line, *clause.only_if) if words else clause.only_if, "stand").lasts
        draft.if_not = (words or told).strip()[:300]
        draft.again_min = again.usual_min if again and again.usual_min <= 120 else draft.again_min

    def _without_act(self, clause: Clause, sentence: Sentence) -> None:
        """A sentence in which nothing is done by a verb: a heading's times, an oven, a count of pieces, or a remark."""
        span = Span(sentence, 0, len(sentence.text))
        if not clause.line:
            if self.far.drafts:
                self._append(span)
                self._only_if(clause, sentence, "")
            else:
                self._note(span)
            return
        if kind := self.sorter.without_act(clause):
            self._take(replace(clause, kind=kind), sentence)
            return
        degrees = warmth(clause.line, oven=False)
        if degrees and {t.word for t in clause.line} & DOUGH_WORDS and not clause.says("up to") and self.dough_c is None:
            self.dough_c = degrees.middle_c
        self._note(span)

    def _note(self, span: Span) -> None:
        """What is not understood stays in its place."""
        self.far.drafts.append(Draft("note", [*self.prefix, span], span.sentence.line))
        self.prefix = []

    # Steps

    def _take(self, clause: Clause, sentence: Sentence) -> None:
        """One clause as a step, or as part of the step before it."""
        span = Span(sentence, clause.start, clause.end)
        told = spell(clause.line, clause.kind)
        if self.far.label_spell and told.lasts is None:
            told = spell(tokens(self.far.label_spell), clause.kind)
        named = self.far.lines.named(without_look(clause), self._where(clause.kind))
        kind = self.sorter.by_act(clause, told.lasts, named)
        if kind == "note" or (kind == "more" and (not self.far.drafts or self.far.drafts[-1].kind == "note")):
            self._note(span)
            return
        if kind == "carry" or (kind == "more" and not told.lasts):
            in_pan = self.far.seen.risen and any((word := vocabulary().yields.match(clause.line, n)) and word[0] == "pans" for n in range(len(clause.line)))
            self.far.seen.shaped |= in_pan
            if clause.join and self.far.drafts and self.far.drafts[-1].sentence is sentence:
                self._append(span)
            else:
                self.prefix.append(span)
            return
        draft = Draft(kind, [*self.prefix, span], sentence.line, stage=self.far.section)
        self.prefix = []
        draft.lasts, draft.heat = told.lasts, self._heat(clause, kind)
        draft.look, draft.touches, draft.during = look(clause), touches(clause, kind), self._is_during(clause, kind)
        if kind in ("rise", "proof", "feed"):
            draft.place = place(clause.line)
        if kind == "fold":
            self._fold_times(draft, told.every_min, clause)
        if kind in TAKES_LINES:
            draft.named, draft.takes_rest = self._goes_in(clause, kind, named)
        elif named and kind in BESIDE_OF:
            draft.named = named
        if kind == self.far.label or {kind, self.far.label} == {"rise", "proof"} or "shape" == _group(kind) == _group(self.far.label):
            self.label_span = None
        behind = self._behind(clause, kind)
        if behind:
            draft.lasts, draft.spans[-1] = None, Span(sentence, clause.start, behind[0].start)
        self.far.join(draft, clause)
        self.far.note_done(self.far.drafts[-1])
        if behind:
            after = Clause("stand", (), behind, ",", (), 0, behind[0].start, clause.end)
            self._take(after, sentence)

    def _where(self, kind: str) -> int:
        """In which stage a clause means its lines: that of its heading, or of its kind, else the dough itself."""
        if self.far.section >= 0:
            return self.far.section
        of_kind = STAGE_OF.get(kind)
        return next((s for s, stage in enumerate(self.far.formula.stages) if stage.kind is of_kind), self.far.main)

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
            return self.far.lines.dry(), False
        if not self._is_everything(clause, kind):
            levain = kind == "feed" and self.far.section >= 0 and self.far.formula.stages[self.far.section].kind is StageKind.LEVAIN
            own = [one for one in named if kind != "feed" or levain or self.far.role(one.spot) is not Role.LEAVEN]
            if kind == "soak" and not any(stage.kind is StageKind.SOAKER for stage in self.far.formula.stages):
                own = [one for one in own if one.share]  # its water is not the dough's
            return own, False
        small = vocabulary().step_small
        but = next((n for n, word in enumerate(words) if word in small["except"] or words[n : n + 2] == ["bis", "auf"]), len(words))
        left_out = {one.spot for one in self.far.lines.named(clause.line[but:], self.far.section)}
        if not left_out:
            return [], True
        return [Named(spot) for spot in self.far.lines.spots if spot not in left_out], False

    def _heat(self, clause: Clause, kind: str) -> Warmth | None:
        if kind in ("bake", "preheat"):
            return warmth(clause.line, oven=True) or (warmth(tokens(self.far.label_spell), oven=True) if self.far.label_spell else None)
        if kind in ("griddle", "fold", "divide", "shape", "preshape", "slash", "top", "wash", "note", "test", "brush"):
            return None
        found = warmth(clause.line, oven=False)
        return found or (warmth(tokens(self.far.label_spell), oven=False) if self.far.label_spell else None)

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
        return "it" in words and "all" in words and not self.far.seen.mixed

    def _is_the_rest(self, clause: Clause, words: list[str]) -> bool:
        """ "add the rest", "the remaining ingredients": all that no step names, where no line is named with it."""
        rest = vocabulary().step_small["rest"]
        at = next((n for n, word in enumerate(words) if word in rest), -1)
        if at < 0:
            return False
        things = {"ingredients", "zutaten"} & set(words[at : at + 4])
        alone = words[at] == "rest" and at and words[at - 1] in vocabulary().step_small["the"] and words[at + 1 : at + 2] != ["of"]
        return bool(things or alone) and not self.far.lines.named(clause.line[at:], self.far.section)

    def _fold_times(self, draft: Draft, every: float | None, clause: Clause) -> None:
        """Folds told by their interval: "every 20 minutes, three times in all" is an hour of its own, unless a rise goes on meanwhile."""
        if every and draft.touches and not draft.during:
            last = self.far.last
            draft.during = bool(last and last.kind == "rise" and last.lasts and last.lasts.high_min >= every * (draft.touches - 1))
            draft.lasts = None if draft.during else Lasts.of(every * draft.touches)
        elif draft.during or every:
            host = next((other for other in reversed(self.far.drafts) if other.kind == "rise"), None)
            if every and draft.touches is None and draft.during and host and host.lasts:
                within = [one.fact.high for one in found_in(clause.line) if one.fact.kind == "time" and one.fact.high > every]
                draft.touches = max(1, min(30, int(within[0] // every if within else -(-host.lasts.usual_min // every) - 1)))
            draft.lasts = None

    def _is_during(self, clause: Clause, kind: str) -> bool:
        last = self.far.drafts[-1].kind if self.far.drafts else ""
        return kind == "fold" and last == "rise" and clause.join != ""


def _group(kind: str) -> str:
    return step_kinds()[kind].group if kind in step_kinds() else ""


def _step(draft: Draft, of: str, takes: tuple[Takes, ...]) -> Step:
    return Step(
        kind=draft.kind,
        of=of,
        text=draft.text[: most.WORDS_OF_STEP],
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
