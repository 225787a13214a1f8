"""What kind of step an act is where it stands: a rest after mixing is no bench rest, and what is heated may be an oven, a pan or butter.

It follows from what was done before. Common practice, no source.
"""

from collections.abc import Sequence

from pancount.core.formula.formula import StageKind
from pancount.core.formula.stages import kinds
from pancount.core.formula.steps import Lasts
from pancount.core.pantry.role import Role
from pancount.core.taking.amounts import quantity
from pancount.core.taking.clauses import Clause, Line
from pancount.core.taking.drafts import SoFar
from pancount.core.taking.facts import found_in
from pancount.core.taking.goes_in import Named
from pancount.core.taking.spells import is_own, warmth
from pancount.core.taking.vocabulary import vocabulary

COLD_C = 12.0
"""A dough that stands colder than this stands in a fridge or a cellar. Common practice, no source. [°C]"""
COOLS_FROM_MIN = 5.0
"""Out of the pan for less than this is no cooling; on a griddle nothing takes longer at a time. Common practice, no source. [min]"""
RISE_FROM_MIN, PROOF_FROM_MIN = 40, 20
"""A dough that is left so long rises; shaped pieces, so long. Common practice, no source. [min]"""


class Sorter:
    """Tells kinds of step by what was done so far."""

    def __init__(self, far: SoFar) -> None:
        self.far = far

    def by_act(self, clause: Clause, lasts: Lasts | None, named: Sequence[Named]) -> str:
        """The kind of step that an act is here."""
        kind, seen, last = clause.kind, self.far.seen, self.far.last
        roles = {self.far.role(one.spot) for one in named}
        if kind in ("stand", "relax") or (kind == "carry" and lasts is not None and not roles):
            return self.left_alone(clause, lasts)
        if kind == "carry":
            if not (named and not seen.risen and not seen.shaped and clause.act and clause.act[0].word in vocabulary().step_small["puts"]):
                return "carry"
            kind = "add"
        if kind == "add" and last and last.kind == "heat_bath":
            return "carry"
        if kind in ("add", "mix") and self.far.label == "soak":
            return "soak"
        if kind == "add" and seen.risen and roles == {Role.FAT}:
            return "prepare" if not seen.shaped else "top"
        if kind == "add" and Role.FLOUR in roles and not seen.flour and not (seen.mixed or clause.says("another")):
            return "mix"
        if kind in ("rise", "proof"):
            if (Role.LEAVEN in roles or (kind == "rise" and seen.leaven)) and not seen.flour and not seen.mixed:
                return "wake"  # "proof the yeast": there is no dough yet
            if {Role.LEAVEN, Role.LIQUID} <= roles and not seen.leaven:
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

    def left_alone(self, clause: Clause, lasts: Lasts | None) -> str:
        """What a dough that is left alone does, by what was done to it before."""
        seen, last = self.far.seen, self.far.last
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
        if (clause.says("awake") and not (seen.mixed and seen.flour)) or (seen.leaven and not seen.flour and not seen.mixed):
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
        if not self.far.seen.shaped or self.far.seen.baked or not 0 < minutes < COOLS_FROM_MIN:
            return ""
        heated = next((draft.kind for draft in reversed(self.far.drafts) if draft.kind in ("heat_griddle", "heat_bath", "bathe")), "")
        return {"heat_griddle": "griddle", "heat_bath": "bathe"}.get(heated, "")

    @staticmethod
    def _is_cold(clause: Clause) -> bool:
        """Whether it stands as cold as a fridge is."""
        degrees = warmth(clause.line, oven=False)
        return degrees is not None and degrees.middle_c < COLD_C

    def without_act(self, clause: Clause) -> str:
        """What kind of step words without a verb are, by their heading, their oven, their time and what was done before; blank for none."""
        line, seen = clause.line, self.far.seen
        times = [one for one in found_in(line) if one.fact.kind == "time" and one.fact.high > 0 and is_own(line, one)]
        oven, named = warmth(line, oven=True), self.far.lines.named(line, self.far.section)
        roles = {self.far.role(one.spot) for one in named}
        if oven and (self.far.label == "bake" or (times and (seen.risen or seen.shaped))):
            return "bake"
        if oven and clause.says("oven"):
            return "preheat"
        if self.far.label and (times or named or self.far.label_spell):
            return self.far.label
        if clause.says("room temperature") and times and seen.mixed:
            cold = next((draft.kind for draft in reversed(self.far.drafts) if draft.kind in ("chill", "temper", "rise", "proof")), "") == "chill"
            return "temper" if cold else "proof" if seen.shaped else "rise"
        if times and times[0].fact.high >= PROOF_FROM_MIN and seen.mixed and not (seen.risen or seen.shaped) and clause.says("warm", "covered"):
            return "rise"
        if times and (now := self._in_the_heat(times[0].fact.high)):
            return now
        if times and seen.mixed and self._is_cold(clause):
            return "chill"
        if clause.says("speed", "machine") and times and not seen.risen:
            last = self.far.last
            return "knead" if seen.mixed and not (last and last.lasts is None and self.far.has(last, Role.FLOUR)) else "mix"
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

    def _heated(self, clause: Clause, roles: set[Role | None]) -> str:
        if clause.says("oven") and not roles:
            return "preheat"
        if clause.says("pan") and not roles:
            return "heat_griddle"
        return "melt" if roles or self.far.seen.baked or not self.far.seen.mixed or self.far.seen.shaped else "carry"

    def _cooked(self, clause: Clause, roles: set[Role | None]) -> str:
        in_paste = self.far.section >= 0 and self.far.formula.stages[self.far.section].kind is StageKind.PASTE
        if clause.says("paste") or in_paste or self.far.heading & set(kinds()[StageKind.PASTE].words):
            return "paste"
        if any(draft.kind == "heat_griddle" for draft in self.far.drafts) or self.far.seen.shaped or clause.says("side"):
            return "griddle"
        return "melt" if roles else "note"

    def _boiled(self, clause: Clause, roles: set[Role | None], lasts: Lasts | None) -> str:
        if clause.kind == "bring" and not clause.says("boil"):
            return "temper" if clause.says("room temperature") else "carry"
        if Role.MASH in roles or (lasts and lasts.high_min >= 8 and not self.far.seen.mixed):
            return "boil"
        if clause.kind == "boil" and self.far.seen.shaped and lasts is not None:
            return "bathe"
        return "heat_bath" if not self.far.seen.baked else "carry"


def _counts_pieces(line: Line) -> bool:
    """ "16 balls, 70 g each"."""
    counted = quantity(line, 0)
    return counted is not None and counted[1] < len(line) and (word := vocabulary().yields.match(line, counted[1])) is not None and word[0] == "pieces"
