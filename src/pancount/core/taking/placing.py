"""What goes in at each step of a method that was read, and which stage each works on: known once all of it is read."""

from pancount.core.formula.formula import BesideKind, StageKind
from pancount.core.formula.steps import Takes
from pancount.core.taking.drafts import STAGE_OF, TAKES_LINES, WORKS, Draft, SoFar
from pancount.core.taking.goes_in import Named, Spot

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


class Placing:
    """Places lines, stages and what is beside the dough at the steps."""

    def __init__(self, far: SoFar) -> None:
        self.far = far

    def takes(self, draft: Draft) -> tuple[Takes, ...]:
        """What goes in at a step, of the dough and beside it."""
        stage = self._stage_of(draft)
        found = [self._line(one) for one in draft.named if self._goes_in(one, draft) and (draft.kind in TAKES_LINES or one.spot not in self._mixed_in() or 0 < self._left(one) < 1)]
        if draft.takes_rest or draft is self._silent():
            key = "" if stage in (-1, self.far.main) else self.far.formula.stages[stage].key
            found.append(Takes(what="rest", key=key))
            found += [Takes(what="rest", key=other.key) for s, other in enumerate(self.far.formula.stages) if self._goes_with_main(s) and stage in (-1, self.far.main)]
        for kind in BESIDE_OF.get(draft.kind, ()):
            for one in self.far.formula.beside:
                if one.kind is kind and self._first_for(one.key, kind, draft):
                    found.append(Takes(what="beside", key=one.key, called=one.name))
        return tuple(found[:40])

    def _goes_in(self, one: Named, draft: Draft) -> bool:
        """Whether a line goes in where it is named; not where something is added to all of it that is there already."""
        before = self.far.drafts[: self.far.drafts.index(draft)] if one.into and draft in self.far.drafts else []
        return not any(other.spot == one.spot and other.share is None for earlier in before if earlier.kind in TAKES_LINES for other in earlier.named)

    def _goes_with_main(self, s: int) -> bool:
        """Whether a stage is mixed with the dough itself and is made of nothing before: an autolyse, what comes late, inclusions."""
        return s != self.far.main and self.far.formula.stages[s].kind in (StageKind.AUTOLYSE, StageKind.LATE, StageKind.INCLUSIONS)

    def _line(self, one: Named) -> Takes:
        line = self.far.formula.stages[one.spot[0]].lines[one.spot[1]]
        share = self._left(one) if one.rest else 1.0 if one.share is None else one.share
        part = "held_back" if one.held and line.held_back else "first" if line.held_back else "all"
        return Takes(what="line", key=line.key, part=part, share=max(share, 0.0001), called=line.name[:300])

    def _left(self, one: Named) -> float:
        """Of a line whose rest is named: what the steps that name parts of it leave; else all of it."""
        told = sum(other.share or 0.0 for draft in self.far.drafts for other in draft.named if other.spot == one.spot and not other.rest and draft.kind in TAKES_LINES)
        return 1.0 - told if one.rest and 0 < told < 1 else 1.0

    def _mixed_in(self) -> set[Spot]:
        """Lines that a step of mixing names, or that go in with everything else."""
        found = {one.spot for draft in self.far.drafts if draft.kind in TAKES_LINES for one in draft.named}
        if any(draft.takes_rest for draft in self.far.drafts) or self._silent():
            found |= set(self.far.lines.spots)
        return found

    def _silent(self) -> Draft | None:
        """The first step of mixing, where no step at all names a line: it mixes the dough."""
        working = [draft for draft in self.far.drafts if draft.kind in TAKES_LINES]
        if any(draft.named or draft.takes_rest for draft in working):
            return None
        return next((draft for draft in working if draft.kind in WORKS), None)

    def _first_for(self, key: str, kind: BesideKind, draft: Draft) -> bool:
        """Whether a step is the first at which something beside the dough goes on."""
        return next((other for other in self.far.drafts if kind in BESIDE_OF.get(other.kind, ())), None) is draft

    def _stage_of(self, draft: Draft) -> int:
        """Which stage a step works on: that of its heading, of all its lines, or of its kind; −1 for the dough."""
        if draft.stage >= 0:
            return draft.stage
        own = {one.spot[0] for one in draft.named}
        if draft.kind in TAKES_LINES and len(own) == 1 and self.far.main not in own and not self._goes_with_main(next(iter(own))):
            return own.pop()
        kind = STAGE_OF.get(draft.kind)
        return next((s for s, stage in enumerate(self.far.formula.stages) if stage.kind is kind), -1)

    def key_of(self, draft: Draft) -> str:
        """The key of the stage that a step works on; blank for the dough itself."""
        s = self._stage_of(draft)
        return "" if s in (-1, self.far.main) or self._goes_with_main(s) else self.far.formula.stages[s].key
