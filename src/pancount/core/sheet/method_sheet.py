"""The method sheet: the steps of a counted way in the order in which they begin, with the weights that the weigh sheet prints."""

from decimal import Decimal
from typing import Literal

from pancount.core.base.models import Frozen
from pancount.core.base.rounding import to_step
from pancount.core.base.scale import Printed
from pancount.core.formula.formula import Formula
from pancount.core.formula.steps import Step
from pancount.core.formula.ways import way_of
from pancount.core.method.filled import filled
from pancount.core.method.method import DAY_MIN, Method
from pancount.core.method.telling import minutes_words, span_words, step_words
from pancount.core.method.uses import GoesIn
from pancount.core.sheet.printed import WeighSheet

QUARTER_MIN = 15
NEARLY_ALL = 0.995
"""From so much on it is all of it: what is held back is rounded to the scale."""


class SheetIn(Frozen):
    """Something that goes in at a step: its name and what is printed of it."""

    name: str
    printed: Printed | None
    """In the sheet's unit; None where its amount is open."""
    says: str
    """How: "held back until now", "in 3 parts"."""


class SheetStep(Frozen):
    """A step on paper."""

    number: int
    when: str
    """From the beginning, "1:30", or by the clock, "07:10"."""
    day: str
    """ "next day", where it is the first of another."""
    label: str
    strand: str
    """What it works on, where that is not the dough itself."""
    text: str
    lasts: str
    heat: str
    check: str
    """What to look for and what if not, where the words do not say so themselves."""
    caution: str
    """Blank where the step before has told the same."""
    goes_in: tuple[SheetIn, ...]
    during: bool
    hands: bool
    """Whether it needs hands from its beginning."""


class MethodSheet(Frozen):
    """What stands on a method sheet."""

    way: str
    unit: Literal["g", "oz"]
    mixes: int
    whole: str
    hands: str
    begins: str
    """By the clock; blank where it goes from 0:00."""
    ready: str
    late: str
    """How far that is from when it was wanted; blank where it is not."""
    water: tuple[str, ...]
    steps: tuple[SheetStep, ...]
    says: tuple[str, ...]


def clock_words(minutes: float, first_day: int) -> str:
    """A time of day from minutes, with the day where it is another than the first.

    >>> clock_words(7 * 60 + 5, 0), clock_words(1440 + 390, 0)
    ('07:05', '06:30 next day')
    """
    whole = round(minutes)
    days, rest = whole // DAY_MIN - first_day, whole % DAY_MIN
    day = "" if not days else " next day" if days == 1 else f" day {days + 1}"
    return f"{rest // 60:02d}:{rest % 60:02d}{day}"


def _when(minutes: float, begins: float | None) -> str:
    if begins is None:
        whole = round(minutes)
        return f"{whole // 60}:{whole % 60:02d}"
    return clock_words(begins + minutes, int(begins // DAY_MIN) + _day(minutes, begins))


def _day(minutes: float, begins: float | None) -> int:
    """How many days after the first; 0 where it goes from 0:00."""
    return 0 if begins is None else int(round(begins + minutes) // DAY_MIN - begins // DAY_MIN)


def method_sheet(formula: Formula, way: str, method: Method, sheet: WeighSheet) -> MethodSheet:
    """A method on paper. `formula` as its way has it; `sheet` prints one mix of the same count."""
    told, begins = way_of(formula, way), method.begins_min
    given = _Given(sheet)
    order = sorted(range(len(method.steps)), key=lambda i: (round(method.steps[i].begin, 3), i))
    found, day, caution = list[SheetStep](), 0, ""
    for number, i in enumerate(order, 1):
        figures, step = method.steps[i], told.steps[i]
        strand = method.strands[figures.strand]
        main = strand.kind == "stage" and not step.of
        bake = next((one for one in method.bakes if one.step == i), None)
        before, day = day, _day(figures.begin, begins)
        said, caution = caution, figures.caution or caution
        found.append(
            SheetStep(
                number=number,
                when=_when(figures.begin, begins),
                day="" if day == before else "next day" if day == 1 else f"day {day + 1}",
                label=figures.label,
                strand="" if main else strand.name,
                text="" if step.text.strip().rstrip(".").casefold() in ("", figures.label.casefold()) else step_words(step),
                lasts=_lasts(method, i, step),
                heat=bake.dial if bake and bake.dial else _heat(figures.heat_low_c, figures.heat_high_c),
                check=_check(figures.look, figures.if_not, step.text),
                caution="" if figures.caution == said else figures.caution,
                goes_in=tuple(map(given.part, figures.goes_in)),
                during=figures.during,
                hands=filled(step, 0).hands in ("all", "start"),
            )
        )
    return MethodSheet(
        way=told.name,
        unit=sheet.unit,
        mixes=sheet.mixes,
        whole=span_words(method.low_min, method.high_min),
        hands=minutes_words(method.hands_min),
        begins="" if begins is None else clock_words(begins, int(begins // DAY_MIN)),
        ready="" if begins is None else clock_words(begins + method.usual_min, int(begins // DAY_MIN)),
        late=_late(method),
        water=_water(method),
        steps=tuple(found),
        says=(*method.says, *(trouble.says for trouble in method.troubles)),
    )


def _lasts(method: Method, i: int, way_step: Step) -> str:
    figures = method.steps[i]
    rise = next((one for one in method.rises if one.step == i), None)
    if rise and rise.look_min is not None and rise.ready_by_min is not None and rise.too_far_min is not None:
        return f"{span_words(rise.look_min, rise.ready_by_min)}; too far by {minutes_words(rise.too_far_min)}"
    loads = [turn for turn in method.loads if turn.step == i]
    if len(loads) > 1:
        each = loads[0].end - loads[0].begin
        return f"{len(loads)} loads of {minutes_words(each)}, {minutes_words(loads[-1].end - loads[0].begin)} in all"
    told = way_step.lasts
    if told and abs(told.usual_min - figures.usual_min) > 1 and told.low_min < told.high_min:
        return f"{span_words(told.low_min, told.high_min)}; today {minutes_words(figures.usual_min)}"
    if figures.during:
        return f"{len(figures.touches)} times meanwhile" if len(figures.touches) > 1 else "meanwhile"
    return span_words(figures.low_min, figures.high_min) if figures.high_min > 0 else ""


def _late(method: Method) -> str:
    """That it is ready too late, or so early that it lies, where both ends were told. A quarter of an hour is neither."""
    spare = method.spare_min
    if spare is None or method.ready_min is None or method.begins_min is None or abs(spare) <= QUARTER_MIN:
        return ""
    wanted = clock_words(method.ready_min, int(method.begins_min // DAY_MIN))
    return f"wanted at {wanted}, so {minutes_words(abs(spare))} {'too early' if spare > 0 else 'too late'}"


def _check(look: str, if_not: str, text: str) -> str:
    """
    >>> _check("smooth", "2 min more", "Knead"), _check("doubled", "wait", "Let rise until doubled")
    ('Until smooth. If not: 2 min more.', 'If not: wait.')
    """
    said = text.casefold()
    until = f"Until {look}." if look and look.casefold() not in said else ""
    otherwise = if_not.rstrip(".") if if_not.rstrip(".").casefold() not in said else ""
    return " ".join(filter(None, (until, f"If not: {otherwise}." if otherwise else "")))


def _heat(low_c: float | None, high_c: float | None) -> str:
    if low_c is None or high_c is None:
        return ""
    return f"{high_c:.0f} °C" if round(low_c) == round(high_c) else f"{low_c:.0f} to {high_c:.0f} °C"


class _Given:
    """What of each printed line has gone in so far, so that its parts add up to the line on the weigh sheet."""

    def __init__(self, sheet: WeighSheet) -> None:
        self.sheet = sheet
        self.rows = {(s, line.spot): line for s, stage in enumerate(sheet.stages) for line in stage.lines}
        self.so_far: dict[tuple[int, ...], tuple[float, Decimal]] = {}
        """Which share of what goes in at first, and how much that was."""

    def part(self, one: GoesIn) -> SheetIn:
        """What goes in at a step, as printed."""
        says = "held back until now" if one.held_back else f"in {one.parts} parts" if one.parts > 1 else ""
        if one.what == "beside" and self.sheet.mixes > 1:
            says = "for all mixes together"
        return SheetIn(name=one.name, printed=self._printed(one), says=says)

    def _printed(self, one: GoesIn) -> Decimal | None:
        if one.what == "beside":
            return self.sheet.beside[one.spot[0]].printed if one.share > NEARLY_ALL and self.sheet.beside[one.spot[0]].printed else None
        if one.what == "stage":
            stage = self.sheet.stages[one.spot[0]]
            return stage.printed - (stage.boiled_off or Decimal(0)) if one.share > NEARLY_ALL else None
        line = self.rows.get((one.spot[0], one.spot[1])) if one.what == "line" else None
        if line is None or not line.printed:
            return None
        held = line.held_back or Decimal(0)
        if one.held_back:
            return held
        at_first, (share, given) = line.printed - held, self.so_far.get(one.spot, (0.0, Decimal(0)))
        part = one.share / (1 - float(held / line.printed)) if held < line.printed else 1.0
        last = share + part > NEARLY_ALL
        printed = at_first - given if last else to_step(at_first * Decimal(part), line.step)
        self.so_far[one.spot] = (share + part, given + printed)
        return printed


def _water(method: Method) -> tuple[str, ...]:
    """The liquid for the dough, in sentences."""
    water = method.water
    if water is None:
        return ()
    name, goal = water.name.casefold(), f"for a dough of {water.wanted_c:.0f} °C"
    if water.stands == "ice":
        first = f"{water.pour_g:.0f} g of {name} at {water.pour_c:.0f} °C with {water.ice_g:.0f} g of ice, {goal}."
    elif water.stands == "water":
        first = f"{water.name} at {water.pour_c:.0f} °C {goal}."
    else:
        first = f"{water.name} at {water.pour_c:.0f} °C: the dough comes out at {water.reached_c:.0f} °C, not at {water.wanted_c:.0f}. {water.says}"
    return tuple(filter(None, (first, water.wakes_says)))
