"""What to do where a weight is not what was meant: each way with its result, ready to be taken. What is in already is fixed.

Taken out, nothing changes. Scaled, the rest of the mix follows what is in. Accepted, the dough is another one. The count's own relations say
what each makes.
"""

from collections.abc import Iterator
from contextlib import suppress
from decimal import Decimal
from uuid import UUID

from pancount.core.base.errors import CoreError
from pancount.core.base.models import Frozen
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.bench.bake import Bake, line_status, meant_g, scaled_by
from pancount.core.bench.begun import Begun
from pancount.core.bench.dividing import Making, making, pinned_keeps
from pancount.core.bench.events import Accepted, Deed, Resolved, Scaled, TookOut, Weighed
from pancount.core.bench.mixed import Mixing, character_of, gauges_between, mixing, moved_words
from pancount.core.bench.plan import Plan, ToWeigh
from pancount.core.bench.rules import rules
from pancount.core.count.relations import Values
from pancount.core.formula.gauges import Character

MOST_ASKED = 2
"""So many things are worked out at once."""
NONE_LEFT_G = 0.5
"""A remainder under this is none. [g]"""


class Option(Frozen):
    """One way to go on, what comes of it, and what it does. No deed: weigh again."""

    key: str
    label: str
    says: tuple[str, ...]
    deeds: tuple[Deed, ...]


class Decision(Frozen):
    """Something that the baker decides."""

    key: str
    kind: str
    """over, under, twice, loss."""
    line: str
    title: str
    says: str
    options: tuple[Option, ...]


def grams_words(g: float, begun: Begun) -> str:
    """A weight as this kitchen's scale shows it.

    On a scale of grams: "9 g", "4.5 g".
    """
    worth = WEIGHT_UNITS[begun.scale.unit]
    places = 2 if begun.scale.unit == "oz" else 1 if abs(g) < 100 and abs(g - round(g)) > 0.05 else 0
    return f"{g / worth:.{places}f} {begun.scale.unit}"


def line_words(g: float, line: ToWeigh, begun: Begun) -> str:
    """A weight in the steps of the scale that its line is weighed on."""
    worth = WEIGHT_UNITS[begun.scale.unit]
    places = max(0, -Decimal(repr(round(line.step_g / worth, 9))).normalize().as_tuple().exponent) if line.step_g else 0  # type: ignore[operator]
    return f"{g / worth:.{min(places, 3)}f} {begun.scale.unit}"


def off_words(off_g: float, line: ToWeigh, begun: Begun) -> str:
    """What is wrong with a line's weight: "Wholemeal flour: 9 g over"."""
    return f"{line.name}: {line_words(abs(off_g), line, begun)} {'over' if off_g > 0 else 'short'}"


def twice_words(line: ToWeigh) -> str:
    """That a line was weighed by two, apart from each other."""
    return f"{line.name} was weighed twice"


def makes_words(found: Making | None, begun: Begun) -> str:
    """What is made, in words: "24 pieces of 78 g", "10 and 12 g over"."""
    if found is None:
        return ""
    each = []
    for one in found.targets:
        name = f"{one.name}: " if one.name and len(found.targets) > 1 else ""
        each.append(f"{name}{one.pieces} {'piece' if one.pieces == 1 else 'pieces'} of {grams_words(one.piece_g, begun)}")
    over = f", {grams_words(found.remainder_g, begun)} over" if found.remainder_g >= NONE_LEFT_G else ""
    return "; ".join(each) + over


class _Ways:
    """The ways to go on after one line, in a bake as it stands."""

    def __init__(self, begun: Begun, plan: Plan, bake: Bake, meant: Character, before: Values, mixed_in: set[str]) -> None:
        self.begun, self.plan, self.bake, self.meant, self.before, self.mixed_in = begun, plan, bake, meant, before, mixed_in

    def question(self, line: ToWeigh, in_g: float, target_g: float) -> Decision:
        """What is asked of a line that is off."""
        off, over = in_g - target_g, in_g > target_g
        options = [self._take_out(line, in_g, target_g) if over else self._pour_rest(line, off)]
        if line.in_dough and line.what != "fed":
            if (scaled := self._scaled(line, in_g)) is not None:
                options.append(scaled)
            options.append(self._accepted(line))
        else:
            options.append(Option(key="accept", label="Take it as it is", says=("It changes no percentage of the dough.",), deeds=(Accepted(line=line.key),)))
        return Decision(
            key=f"{'over' if over else 'under'}.{line.key}",
            kind="over" if over else "under",
            line=line.key,
            title=off_words(off, line, self.begun),
            says=f"{line_words(in_g, line, self.begun)} in, {line_words(target_g, line, self.begun)} meant.",
            options=tuple(one for one in options if one is not None),
        )

    def _take_out(self, line: ToWeigh, in_g: float, target_g: float) -> Option | None:
        if line.key in self.mixed_in:
            return None  # it is mixed in: nothing of it can be taken out
        return Option(
            key="take_out",
            label=f"Take {line_words(in_g - target_g, line, self.begun)} out",
            says=("Nothing changes. Take it from the top, before it is stirred in.",),
            deeds=(TookOut(line=line.key, g=in_g - target_g),),
        )

    def _pour_rest(self, line: ToWeigh, off: float) -> Option:
        return Option(key="pour", label=f"Pour {line_words(-off, line, self.begun)} more", says=("Then nothing changes.",), deeds=())

    def _doughs(self, mixed: Mixing) -> Iterator[str]:
        now, was = mixed.dough_g, float(self.begun.sheet.printed_total) * WEIGHT_UNITS[self.begun.sheet.unit] * self.begun.sheet.mixes
        yield f"{grams_words(now, self.begun)} of dough, {grams_words(abs(now - was), self.begun)} {'more' if now >= was else 'less'} than planned."
        divide = now * (1 - self.begun.sheet.bench_loss)
        first = pinned_keeps(self.begun.count)
        with suppress(CoreError):  # without flour there is nothing to make of it
            both = (making(self.begun, self.before, mixed.formula, divide, keeps) for keeps in (first, "weight" if first == "pieces" else "pieces"))
            told = list(dict.fromkeys(filter(None, [makes_words(one, self.begun) for one in both])))
            if told:
                yield f"{', or '.join(told)}."

    def _scaled(self, line: ToWeigh, in_g: float) -> Option | None:
        scaling = scaled_by(self.bake, self.plan, line)
        if scaling is None:
            return None
        more = []
        for other in self.plan.lines.values():
            own = self.bake.line(other.key)
            if other.key == line.key or other.mix != line.mix or not other.in_dough or own.g is None or other.key in scaling.fixed:
                continue
            target = meant_g(other, scaling) or 0.0
            if own.g > target + max(other.tolerance_g, other.step_g):
                return None  # what is in already is too much for so little
            if own.g < target - other.tolerance_g:
                apart = f" in {other.of.split(',')[0].lower()}" if other.stage != line.stage else ""
                more.append(f"{other.name}{apart} {line_words(target - own.g, other, self.begun)}")
        mixed = mixing(self.begun, self.plan, self.bake, scaling=scaling)
        says = [*self._doughs(mixed)]
        if more:
            says.append(f"Of what is in already, pour more: {', '.join(more)}.")
        most = self.begun.kit.most_dough_g(stiff=self.meant.stiff)
        if most is not None and mixed.by_mix[line.mix] > most:
            says.append(f"The bowl takes {grams_words(most, self.begun)}: that is too much for it in one go.")
        label = "Scale the rest up" if in_g > (meant_g(line, self.bake.scaling) or 0.0) else "Scale the rest down"
        return Option(key="scale", label=label, says=tuple(says), deeds=(Scaled(line=line.key),))

    def _accepted(self, line: ToWeigh) -> Option:
        mixed = mixing(self.begun, self.plan, self.bake)
        try:
            moved = moved_words(gauges_between(self.meant, character_of(self.begun, mixed.formula)))
        except CoreError as error:
            moved = str(error).rstrip(".")
        return Option(
            key="accept",
            label="Leave it so",
            says=tuple(filter(None, (f"{moved[:1].upper()}{moved[1:]}." if moved else "No percentage moves by as much as a twentieth.", *self._doughs(mixed)))),
            deeds=(Accepted(line=line.key),),
        )


def questions(begun: Begun, plan: Plan, bake: Bake, meant: Character, before: Values, mixed_in: set[str]) -> tuple[Decision, ...]:
    """What is to be decided about what was weighed, in the order of the sheet, the first of it. `meant`, `before`: dough and count as planned; `mixed_in`: lines that cannot be taken out any more."""
    ways, found = _Ways(begun, plan, bake, meant, before, mixed_in), list[Decision]()
    for line in plan.lines.values():
        if len(found) >= MOST_ASKED:
            break  # the others come up when these are decided
        own, target = bake.line(line.key), meant_g(line, bake.scaling)
        status = line_status(line, own, target)
        if status == "twice":
            found.append(_twice(line, bake, begun))
        elif status in ("over", "under") and own.g is not None and target is not None:
            found.append(ways.question(line, own.g, target))
    return tuple(found)


def _twice(line: ToWeigh, bake: Bake, begun: Begun) -> Decision:
    """Two weighed the same thing, neither knowing of the other."""
    options = list[Option]()
    amounts = list[tuple[UUID, float, str]]()
    for one in bake.line(line.key).apart:
        if isinstance(one.what, Weighed):
            amounts.append((one.id, one.what.g, one.who or one.writer))
    for n, (id, g, who) in enumerate(amounts):
        options.append(Option(key=f"keep.{n}", label=f"Only {grams_words(g, begun)} ({who})", says=("It went in once.",), deeds=(Resolved(line=line.key, keep=id),)))
    total = sum(g for _, g, _ in amounts)
    options.append(Option(key="both", label=f"Both: {grams_words(total, begun)}", says=("It went in twice.",), deeds=(Resolved(line=line.key),)))
    told = " and ".join(f"{grams_words(g, begun)} by {who}" for _, g, who in amounts)
    return Decision(key=f"twice.{line.key}", kind="twice", line=line.key, title=twice_words(line), says=f"{told}, apart from each other. What is in the bowl?", options=tuple(options))


def loss_question(begun: Begun, mixed_g: float, on_scale_g: float) -> Decision | None:
    """Where the dough on the bench cannot be what was mixed. [g]"""
    loss = 1 - on_scale_g / mixed_g if mixed_g > 0 else 0.0
    most = rules()["most_loss"]
    if -0.01 <= loss <= most:
        return None
    says = (
        f"{grams_words(on_scale_g, begun)} on the scale, {grams_words(mixed_g, begun)} went into the bowl. "
        + ("Is the board or the bowl on the scale too? Weigh it again." if loss < 0 else "Is some of it still in the bowl? Weigh it again, or go on if it is so.")
    )
    return Decision(key="loss", kind="loss", line="", title="More dough than there can be" if loss < 0 else f"{loss * 100:.0f} % of the dough is missing", says=says, options=())
