"""What a bake has to weigh and to do, in order: the lines of the sheet, stages in the order of the way, and the steps of the method."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.base.units import WEIGHT_UNITS
from pancount.core.bench.begun import Begun
from pancount.core.bench.rules import rules
from pancount.core.formula.formula import BesideKind, Formula
from pancount.core.formula.stages import flow
from pancount.core.formula.steps import Step
from pancount.core.formula.ways import in_way, way_of
from pancount.core.method.filled import Filled, filled
from pancount.core.method.method import Method, StepFigures
from pancount.core.method.telling import step_words
from pancount.core.pantry.role import Role
from pancount.core.sheet.printed import SheetLine, SheetStage

What = Literal["line", "held_back", "fed", "beside"]


class ToWeigh(Frozen):
    """Something to weigh, as the sheet prints it."""

    key: str
    mix: int
    what: What
    stage: int
    """Which stage's bowl, or which of what is beside the dough."""
    line: int
    """Which line of it; of what comes in from another stage, which of those."""
    of: str
    name: str
    role: Role | None
    note: str
    meant_g: float | None
    """None where its amount is open."""
    exact_g: float
    step_g: float
    fine: bool
    tolerance_g: float
    parts: int
    in_dough: bool
    says: str
    """How it goes: all of the paste, topped up with water; kept apart in a cup."""
    source: int = -1
    """Of what comes in from another stage: which."""
    whole: bool = False
    """All that was made of it goes in: it may lie in the bowl already."""


@dataclass(frozen=True, slots=True)
class ToDo:
    """Something to do: a step of the way, for one mix, or for one of its loads."""

    key: str
    step: int
    mix: int
    load: int
    pieces: int
    begin_min: float
    """As planned, from the beginning of the way. [min]"""
    lasts_min: float
    per_mix: bool


@dataclass(frozen=True)
class Plan:
    """All of it, in order: keys of what is to weigh and to do."""

    lines: dict[str, ToWeigh]
    todos: dict[str, ToDo]
    order: tuple[str, ...]
    steps: tuple[Filled, ...]
    makers: dict[tuple[int, int], tuple[str, ...]]
    """By mix and stage, of what is made before the dough: what is done to it. Once that has begun, it is as it is."""
    texts: tuple[str, ...]
    """The baker's own words of each step; blank where there are none."""


MOST_OFF = 0.25
"""No tolerance is more of what is weighed. Common practice, no source."""
NO_PLAN = Plan({}, {}, (), (), {}, ())
"""Nothing to weigh and nothing to do."""


def tolerance(target_g: float, step_g: float, *, fine: bool) -> float:
    """How far off is nothing to speak of: a step of the scale, or a share of what is weighed; never so much that nothing would do. [g]

    >>> tolerance(475, 1, fine=False), tolerance(9, 1, fine=False), tolerance(2, 1, fine=False)
    (2.375, 1, 0.5)
    """
    return min(max(step_g, target_g * rules()["fine_tolerance" if fine else "tolerance"]), target_g * MOST_OFF if target_g else step_g)


def _line(key: str, mix: int, what: What, stage: int, line: SheetLine, meant: Decimal | None, of: str, unit_g: float, role: Role | None) -> ToWeigh:
    meant_g, step_g = None if meant is None else float(meant) * unit_g, float(line.step) * unit_g
    says = "Into a cup of its own: it goes in later, or not." if what == "held_back" else ""
    if meant_g == 0:
        meant_g, says = line.exact_g, f"Less than this scale shows: {line.exact_g:.2g} g. Weigh it on a finer one, or as the weigh sheet says."
    return ToWeigh(
        key=key, mix=mix, what=what, stage=stage, line=line.spot, of=of, name=line.name, role=role, note=line.note, meant_g=meant_g,
        exact_g=line.exact_g, step_g=step_g, fine=line.fine, tolerance_g=tolerance(meant_g or 0.0, step_g, fine=line.fine), parts=line.parts,
        in_dough=what != "beside", says=says,
    )


def sources(formula: Formula) -> dict[int, list[int]]:
    """By stage: which others come into it, in the order in which the sheet has them."""
    flows, into = flow(formula), dict[int, list[int]]()
    for s in flows.order:
        for part in flows.out_of(s):
            into.setdefault(part.target, []).append(s)
    return into


def _bowl(begun: Begun, formula: Formula, mix: int, s: int, stage: SheetStage) -> list[ToWeigh]:
    """What is weighed for one stage of one mix."""
    unit_g, found = WEIGHT_UNITS[begun.sheet.unit], list[ToWeigh]()
    for line in stage.lines:
        key, role = f"w{mix}.s{s}.n{line.spot}", formula.stages[s].lines[line.spot].role
        held = line.held_back or Decimal(0)
        at_first = None if line.printed is None else line.printed - held
        if at_first is None or at_first > 0 or (not held and line.exact_g > 0):
            found.append(_line(key, mix, "line", s, line, at_first, stage.name, unit_g, role))
        if held:
            found.append(_line(f"{key}h", mix, "held_back", s, line, held, stage.name, unit_g, role))
    into = sources(formula).get(s, [])
    for n, fed in enumerate(stage.fed):
        meant_g, step_g = float(fed.printed + (fed.made_up or 0)) * unit_g, float(begun.scale.step) * unit_g
        says = f"{'All of it' if fed.whole else 'Part of it'}{', topped up with water for what boiled off' if fed.made_up else ''}."
        found.append(
            ToWeigh(
                key=f"w{mix}.s{s}.f{n}", mix=mix, what="fed", stage=s, line=n, of=stage.name, name=fed.name, role=None, note="", meant_g=meant_g,
                exact_g=meant_g, step_g=step_g, fine=False, tolerance_g=tolerance(meant_g, step_g, fine=False), parts=1, in_dough=True, says=says,
                source=into[n] if n < len(into) else -1, whole=fed.whole and not fed.made_up,
            )
        )
    return found


def per_mix(method: Method, steps: Sequence[Filled], main: int) -> set[int]:
    """Steps that are done for each mix: what is made apart, and the dough until it first rests for long or is divided."""
    found = set[int]()
    for n, strand in enumerate(method.strands):
        if strand.kind != "stage":
            continue
        for i in strand.steps:
            kind = steps[i].kind
            if n == main and (kind.does in ("rises", "cold", "loads") or kind.group in ("shape", "heat", "after")):
                break
            if kind.does != "ahead":
                found.add(i)
    return found


def main_strand(method: Method) -> int:
    """The strand of the dough itself: the last that is a stage; -1 where there is none."""
    return max((n for n, one in enumerate(method.strands) if one.kind == "stage"), default=-1)


def _todos(begun: Begun, method: Method, steps: Sequence[Filled], mixes: int) -> list[ToDo]:
    each = per_mix(method, steps, main_strand(method))
    found = list[ToDo]()
    for i, figures in enumerate(method.steps):
        if steps[i].kind.key == "note" and figures.usual_min <= 0:
            continue
        loads = [turn for turn in method.loads if turn.step == i]
        if loads and steps[i].kind.does == "loads":
            found += [ToDo(f"p{i}.l{n}", i, 0, n, one.pieces, one.begin, one.end - one.begin, per_mix=False) for n, one in enumerate(loads)]
        elif i in each:
            found += [ToDo(f"p{i}.m{m}", i, m, -1, 0, figures.begin, figures.usual_min, per_mix=True) for m in range(mixes)]
        else:
            found.append(ToDo(f"p{i}", i, 0, -1, 0, figures.begin, figures.usual_min, per_mix=False))
    return found


def _needs(figures: StepFigures, method: Method) -> tuple[set[int], set[int]]:
    """The stages, and what is beside the dough, that must be weighed before a step."""
    strand = method.strands[figures.strand]
    stages = {strand.spot} if strand.kind == "stage" else set()
    beside = {strand.spot} if strand.kind == "beside" else set()
    for one in figures.goes_in:
        if one.what == "line":
            stages.add(one.spot[0])
        elif one.what == "beside":
            beside.add(one.spot[0])
    return stages, beside


def plan_of(begun: Begun, method: Method) -> Plan:
    """What a bake has to weigh and to do; by its method as it was begun, or as it has become."""
    formula = in_way(begun.formula, begun.count.way)
    way, sheet = way_of(begun.formula, begun.count.way), begun.sheet
    pieces = sum(target.pieces for target in sheet.targets)
    steps = tuple(filled(step, pieces, begun.count.learned, way.key) for step in way.steps)
    lines = {(m, s): _bowl(begun, formula, m, s, stage) for m in range(sheet.mixes) for s, stage in enumerate(sheet.stages)}
    unit_g = WEIGHT_UNITS[sheet.unit]
    beside = {
        b: [
            _line(f"b{b}.n{line.spot}", 0, "beside", b, line, line.printed, stage.name, unit_g, formula.beside[b].lines[line.spot].role)
            for line in stage.lines
            if line.printed is None or line.exact_g > 0
        ]
        for b, stage in enumerate(sheet.beside)
    }
    todos = _todos(begun, method, steps, sheet.mixes)
    run = {turn.step for turn in method.loads}
    order, placed, by_key = list[str](), set[tuple[str, int, int]](), {one.key: one for one in todos}

    def weigh(m: int, stages: set[int], besides: set[int]) -> None:
        for s in sorted(stages):
            if ("s", m, s) not in placed and (m, s) in lines:
                placed.add(("s", m, s))
                order.extend(one.key for one in lines[m, s])
        for b in sorted(besides):
            if ("b", 0, b) not in placed and b in beside:
                placed.add(("b", 0, b))
                order.extend(one.key for one in beside[b])

    def lay(own: list[ToDo], m: int) -> None:
        for one in sorted(own, key=lambda todo: (todo.begin_min, todo.step, todo.load)):
            # Between pot and oven nobody weighs: what a run of loads takes is weighed before its first.
            for step in sorted(run) if one.step in run else (one.step,):
                weigh(m, *_needs(method.steps[step], method))
            order.append(one.key)

    for m in range(sheet.mixes):
        lay([one for one in todos if one.per_mix and one.mix == m], m)
        weigh(m, {s for mix, s in lines if mix == m}, set())
    lay([one for one in todos if not one.per_mix], 0)
    for b, own in beside.items():
        if ("b", 0, b) not in placed:
            # No step takes it: it is weighed before the first that is of its kind.
            at = next((n for n, key in enumerate(order) if key in by_key and _wants(formula.beside[b].kind, steps[by_key[key].step])), len(order))
            order[at:at] = [one.key for one in own]
    every = {one.key: one for some in (*lines.values(), *beside.values()) for one in some}
    main, makers = main_strand(method), dict[tuple[int, int], tuple[str, ...]]()
    for m in range(sheet.mixes):
        for n, strand in enumerate(method.strands):
            if strand.kind == "stage" and n != main:
                makers[m, strand.spot] = tuple(one.key for one in todos if one.per_mix and one.mix == m and one.step in strand.steps)
    return Plan(every, by_key, tuple(order), steps, makers, tuple(_text(step, one) for step, one in zip(way.steps, steps, strict=True)))


WANTED_BY: dict[BesideKind, tuple[str, ...]] = {
    BesideKind.BENCH: ("shape",),
    BesideKind.PAN_OIL: ("prepare", "press", "shape"),
    BesideKind.FILLING: ("fill", "shape"),
    BesideKind.WASH: ("wash", "preheat", "heat"),
    BesideKind.TOPPING: ("top", "preheat", "heat"),
    BesideKind.BATH: ("heat_bath", "bathe", "heat"),
}
"""What is beside the dough is needed at steps of these kinds, or groups. Common practice, no source."""


def _wants(kind: BesideKind, one: Filled) -> bool:
    return one.kind.key in WANTED_BY[kind] or one.kind.group in WANTED_BY[kind]


def _text(step: Step, one: Filled) -> str:
    text = step.text.strip()
    return "" if not text or text.rstrip(".").casefold() == one.kind.label.casefold() else step_words(step)
