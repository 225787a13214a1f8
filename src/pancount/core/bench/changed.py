"""What was changed at the bench, in words, and the formula with it: the next revision, to be laid on the desk if the baker wants it."""

from pydantic import ValidationError

from pancount.core.base.models import Frozen
from pancount.core.bench.bake import Bake, meant_g
from pancount.core.bench.begun import Begun
from pancount.core.bench.events import Added
from pancount.core.bench.overpour import grams_words
from pancount.core.bench.plan import Plan
from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.formula.reckon import reckon
from pancount.core.formula.stages import main_stage
from pancount.core.formula.steps import OtherPercent
from pancount.core.formula.ways import in_way, way_number, way_of, with_way
from pancount.core.pantry.role import Role


class Changes(Frozen):
    """What was changed, and the formula with it; None where nothing was, or where it cannot be laid into the formula."""

    says: tuple[str, ...]
    formula: Formula | None


def changes(begun: Begun, plan: Plan, bake: Bake) -> Changes:
    """What went in otherwise on purpose: taken as it was, added at the mixer, held back and not put in. Not what was only off within its tolerance."""
    says, by_line = list[str](), dict[tuple[int, int], tuple[float, float]]()
    others: dict[tuple[str, Role], float] = {}
    for line in plan.lines.values():
        if not line.in_dough or line.what == "fed" or line.meant_g is None:
            continue
        own, target = bake.line(line.key), meant_g(line, bake.scaling) or 0.0
        now = target
        if line.what == "held_back" and own.held_in_g is not None:
            now = own.held_in_g
            if abs(now - target) > line.step_g / 2:
                says.append(f"Of the {grams_words(target, begun)} of {line.name} held back, {grams_words(now, begun)} went in.")
        elif own.skipped:
            now = 0.0
            says.append(f"{line.name} was left out.")
        elif own.g is not None and own.accepted_g == own.g and abs(own.g - target) > line.tolerance_g:
            now = own.g
            says.append(f"{line.name}: {grams_words(now, begun)} instead of {grams_words(target, begun)}.")
        was, so_far = by_line.get((line.stage, line.line), (0.0, 0.0))
        by_line[line.stage, line.line] = (was + target, so_far + now)
    flour_g = reckon(begun.formula, begun.practice.starter).flour_g
    for event in bake.added:
        assert isinstance(event.what, Added)
        added, own_line = event.what, plan.lines.get(event.what.line or "")
        name = own_line.name if own_line else added.name or str(added.role)
        says.append(f"{name}: {grams_words(abs(added.g), begun)} {'more' if added.g > 0 else 'less'}, at the mixer.")
        if own_line is not None and own_line.what in ("line", "held_back"):
            was, so_far = by_line.get((own_line.stage, own_line.line), (0.0, 0.0))
            by_line[own_line.stage, own_line.line] = (was, max(0.0, so_far + added.g))
        else:
            others[name, added.role] = others.get((name, added.role), 0.0) + added.g
    if not says:
        return Changes(says=(), formula=None)
    dough = in_way(begun.formula, begun.count.way)
    of_flour = sum(
        (bake.line(line.key).g or line.meant_g or 0.0) for line in plan.lines.values() if line.what in ("line", "held_back") and line.role is Role.FLOUR
    )
    times = flour_g / of_flour if of_flour else 0.0
    changed = {(s, n): now / was for (s, n), (was, now) in by_line.items() if was > 0 and abs(now - was) > 1e-6}
    extra = tuple((name, role, g * times) for (name, role), g in others.items() if g > 0)
    return Changes(says=tuple(says), formula=_valid(_laid(begun, dough, changed, extra)))


def _valid(formula: Formula | None) -> Formula | None:
    """None for one that goes past what a formula may hold."""
    try:
        return None if formula is None else Formula.model_validate(formula.model_dump())
    except ValidationError:
        return None


def _laid(begun: Begun, dough: Formula, changed: dict[tuple[int, int], float], extra: tuple[tuple[str, Role, float], ...]) -> Formula | None:
    """The baker's formula with lines so many times what they were; in the way's own stages or percentages, where it has them."""
    formula, key = begun.formula, begun.count.way
    way, number = way_of(formula, key), way_number(formula, key)
    told = {one.key: one.percent for one in way.changed}
    flours_by_percent = any(line.role is Role.FLOUR and line.percent is not None for stage in dough.stages for line in stage.lines)
    stages = list(way.stages if way.stages is not None else formula.stages)
    for (s, n), times in changed.items():
        if s >= len(stages) or n >= len(stages[s].lines):
            return None
        line = stages[s].lines[n]
        if line.role is Role.FLOUR and flours_by_percent:
            continue  # flours in percent come to 100 whatever there is of them
        if line.key in told:
            told[line.key] *= times
        else:
            stages[s] = _with(stages[s], n, _times(line, times))
    main = main_stage(dough)
    if extra and 0 <= main < len(stages):
        stages[main] = stages[main].model_copy(update={"lines": (*stages[main].lines, *(_extra(begun, one) for one in extra))})
    changed_way = tuple(OtherPercent(key=line, percent=percent) for line, percent in told.items())
    if way.stages is not None:
        way = way.model_copy(update={"stages": tuple(stages)})
    else:
        formula = formula.model_copy(update={"stages": tuple(stages)})
    way = way.model_copy(update={"changed": changed_way})
    if not begun.written:
        return formula.model_copy(update={"ways": tuple(one for n, one in enumerate(formula.ways) if n != number)})
    return with_way(formula, number, way)


def _with(stage: Stage, n: int, line: Line) -> Stage:
    return stage.model_copy(update={"lines": (*stage.lines[:n], line, *stage.lines[n + 1 :])})


def _times(line: Line, times: float) -> Line:
    told = {name: round(value * times, 4) for name in ("weight_g", "percent") if (value := getattr(line, name)) is not None}
    return line.model_copy(update=told | {"band": None})


def _extra(begun: Begun, one: tuple[str, Role, float]) -> Line:
    """A line that was not there: by weight of the formula as written, where that is in grams, else in percent."""
    name, role, g = one
    reckoned = reckon(begun.formula, begun.practice.starter)
    by_weight = reckoned.flour_given == "weight"
    return Line(name=name, role=role, weight_g=round(g, 2) if by_weight else None, percent=None if by_weight else round(100 * g / reckoned.flour_g, 3))
