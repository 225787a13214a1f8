"""What a baker knows of a dough: lines in stages, each in grams or in percent of all flour."""

from collections.abc import Iterator
from enum import StrEnum
from typing import Annotated, Self, TypeVar

from pydantic import Field, model_validator

from pancount.core.base import most
from pancount.core.base.errors import CannotChange, NoRole, Place, Unnamed
from pancount.core.base.models import (
    PLAIN,
    Band,
    Brief,
    Frozen,
    Grams,
    Name,
    Percent,
    Portion,
    SomeGrams,
    Text,
    Word,
    Words,
)
from pancount.core.formula.step_kinds import kind_of
from pancount.core.formula.steps import Celsius, LineWarmth, OtherPercent, Step
from pancount.core.pans.pan import Pan
from pancount.core.pans.shaping import Shaping
from pancount.core.pantry.role import Role


class StageKind(StrEnum):
    """What a stage of the dough is. `stages.py` says what each of them does."""

    SPONGE = "sponge"
    POOLISH = "poolish"
    BIGA = "biga"
    OLD_DOUGH = "old_dough"
    LEVAIN = "levain"
    PASTE = "paste"
    SCALD = "scald"
    SOAKER = "soaker"
    MASH = "mash"
    AUTOLYSE = "autolyse"
    DOUGH = "dough"
    LATE = "late"
    INCLUSIONS = "inclusions"


class BesideKind(StrEnum):
    """What is scaled with the pieces, the pans or the bench instead of the flour."""

    FILLING = "filling"
    WASH = "wash"
    TOPPING = "topping"
    PAN_OIL = "pan_oil"
    BENCH = "bench"
    BATH = "bath"


class Line(Frozen):
    """One ingredient, in grams or in percent of all flour, as the baker has it. With neither, its amount is open."""

    name: Name = ""
    role: Role | None = None
    """None where the name is not known and no role was chosen yet."""
    weight_g: Grams | None = None
    percent: Percent | None = None
    note: Words = ""
    held_back: Annotated[float, Field(ge=0, le=1)] = 0
    """The share of it that is held back at first, to adjust the dough with. It stays part of the line."""
    parts: Annotated[int, Field(ge=1, le=20)] = 1
    """How many times it goes in: butter in three parts, cheese at each of four folds."""
    hydration: Annotated[float, Field(ge=10, le=1000)] | None = None
    """Of a starter that is one line: its water per 100 of its flour. It splits into both. None for what is no starter."""
    key: Brief = ""
    """What steps call it by; blank where none does."""
    written: Annotated[str, Field(max_length=1000, pattern=PLAIN)] = ""
    """As it stood in the recipe that it was taken in from; it stays, whatever the line becomes."""
    band: Band | None = None
    """How far off the weight may be, where it came from a cup or spoon; None once it is weighed or changed by hand."""

    @property
    def blank(self) -> bool:
        """Whether nothing was typed in it."""
        return not (self.name or self.note) and self.weight_g is None and self.percent is None

    @model_validator(mode="after")
    def _one_amount(self) -> Self:
        if self.weight_g is not None and self.percent is not None:
            raise ValueError("give weight_g or percent, not both: the other follows")
        return self


Lines = Annotated[tuple[Line, ...], Field(max_length=most.LINES)]


class Feed(Frozen):
    """Where a stage goes: into the stage with this key, wholly or in part."""

    into: Word
    share: Portion = 1


class Stage(Frozen):
    """Lines that are mixed together, in mixing order. Every flour that reaches the dough counts toward the 100 %."""

    name: Name = ""
    kind: StageKind = StageKind.DOUGH
    key: Brief = ""
    """What feeds call it by; blank where nothing was told to feed it."""
    feeds: Annotated[tuple[Feed, ...], Field(max_length=10)] = ()
    """Where it goes. None: all of it into the dough. Where the shares come to less than all, the rest is kept back."""
    boiled_off: Annotated[float, Field(ge=0, le=0.9)] = 0
    """Of a cooked stage: the share of its weight that goes off as steam. The same water is made up where the stage goes."""
    lines: Lines = ()


class Beside(Frozen):
    """What goes on, under or around the pieces. It counts in no percentage."""

    name: Name = ""
    key: Brief = ""
    """What steps call it by; blank where none does."""
    kind: BesideKind = BesideKind.TOPPING
    serves: Annotated[float, Field(ge=0.01, le=1_000_000)] | None = None
    """How many pieces or pans its weights are for; None: as many as the dough as written makes."""
    border_cm: Annotated[float, Field(ge=0, le=100)] = 1.0
    """Of what goes on a slab: how far from the edge it stops. [cm]"""
    lines: Lines = ()


Spot = Annotated[int, Field(ge=0, le=1000)]
"""Which stage, or which line of one, counted from 0."""

Mixed = TypeVar("Mixed", Stage, Beside)


class Span(Frozen):
    """From low to high; alike where it is one number."""

    low: Annotated[float, Field(ge=-1000, le=10_000_000)]
    high: Annotated[float, Field(ge=-1000, le=10_000_000)]


class Way(Frozen):
    """One way to make the dough: its steps, and what of the dough it has otherwise."""

    name: Name = ""
    key: Brief = ""
    steps: Annotated[tuple[Step, ...], Field(max_length=most.STEPS)] = ()
    changed: Annotated[tuple[OtherPercent, ...], Field(max_length=most.LINES)] = ()
    """Lines with another percentage: most often the yeast."""
    stages: Annotated[tuple[Stage, ...], Field(max_length=most.STAGES)] | None = None
    """Its own stages, where they differ: with a preferment. None: the formula's."""
    dough_c: Celsius | None = None
    """How warm the dough should come out of the mixer. None: as warm as its first rise is told for."""
    warm: Annotated[tuple[LineWarmth, ...], Field(max_length=most.LINES)] = ()
    """Lines that go in warmer or colder than such things are kept."""
    written: Annotated[str, Field(max_length=most.METHOD, pattern=PLAIN)] = ""
    """The method's text as it came; it stays, whatever the steps become."""

    @model_validator(mode="after")
    def _not_too_much(self) -> Self:
        if sum(len(step.text) for step in self.steps) > most.METHOD:
            raise ValueError(f"has a method of more than {most.METHOD} characters: shorten it")
        if sum(len(step.takes) for step in self.steps) > most.TAKES:
            raise ValueError(f"names more than {most.TAKES} things to go in at its steps")
        if sum(kind_of(step).does == "rises" for step in self.steps) > most.RISES:
            raise ValueError(f"has more than {most.RISES} rises: put some of them together")
        return self


class Usual(Frozen):
    """What this formula usually makes: it stands in where the count has too few pins."""

    piece_g: SomeGrams = 80
    pieces_per_pan: Annotated[int, Field(ge=1, le=10_000)] = 12
    pans: Annotated[int, Field(ge=1, le=10_000)] = 1
    bench_loss: Annotated[float, Field(ge=0, lt=0.5)] = 0.02
    fill_kind: Word = "pull_apart_buns"
    fill: Annotated[float, Field(ge=0.0001, le=1000)] | None = None
    """As it came out last time, in the unit of `fill_kind`; None takes the middle of the usual band."""
    pan: Pan | None = None
    bake_loss: Annotated[float, Field(ge=0, lt=0.5)] | None = None
    """What baking takes, where it was measured; None takes the middle of the usual band."""
    gap_cm: Annotated[float, Field(ge=0, le=100)] | None = None
    """Between pieces that lie apart, baked; None takes what is usual for `fill_kind`. [cm]"""
    bake_min: Annotated[float, Field(ge=0.1, le=10_000)] | None = None
    """How long one load is in the heat; None takes what is usual for `fill_kind`. [min]"""
    shaping: Shaping = Shaping()


class Formula(Frozen):
    """A dough. Names and amounts may be blank while it is typed; `complete` says whether it can be kept."""

    name: Name = ""
    styles: Annotated[tuple[Word, ...], Field(max_length=12)] = ()
    flour_g: SomeGrams = 1000
    """All flour of the batch as written, used only where no flour line is given in grams. [g]"""
    stages: Annotated[tuple[Stage, ...], Field(max_length=most.STAGES)] = ()
    beside: Annotated[tuple[Beside, ...], Field(max_length=most.BESIDE)] = ()
    """What is not mixed into the dough: wash, topping, filling, pan oil, bench flour, bath."""
    ways: Annotated[tuple[Way, ...], Field(max_length=most.FORMULA_WAYS)] = ()
    """How it is made; the first is the one that is shown."""
    usual: Usual = Usual()
    bands: dict[Word, Span] = Field({}, max_length=20)
    """The baker's own band for a gauge of this dough, by the gauge's key; the style's stands where there is none."""
    rested: Annotated[tuple[Word, ...], Field(max_length=100)] = ()
    """Notes that were read and put to rest, by key."""
    note: Text = ""

    @model_validator(mode="after")
    def _not_too_much(self) -> Self:
        if sum(len(stage.lines) for stage in everything(self)) > most.LINES:
            raise ValueError(f"has more than {most.LINES} lines in all: make two formulas of it")
        return self


def each_line(formula: Formula) -> Iterator[tuple[int, int, Line]]:
    """Every line of the dough with its place: stage, line."""
    for s, stage in enumerate(formula.stages):
        for n, line in enumerate(stage.lines):
            yield s, n, line


def each_step(formula: Formula) -> Iterator[Step]:
    """Every step of every way."""
    for way in formula.ways:
        yield from way.steps


def everything(formula: Formula) -> Iterator[Stage | Beside]:
    """Stages of the dough, then what is beside it."""
    yield from formula.stages
    yield from formula.beside


def at(stage: int, line: int, *field: str) -> Place:
    """The place of a line, or of a field of it."""
    return ("stages", stage, "lines", line, *field)


def line_at(formula: Formula, s: int, n: int) -> Line:
    """A line. Raises `CannotChange` for one that is not there: another window may have taken it away."""
    if s >= len(formula.stages) or n >= len(formula.stages[s].lines):
        raise CannotChange("There is no such line any more.", at(s, n))
    return formula.stages[s].lines[n]


def with_stage(formula: Formula, s: int, **changes: object) -> Formula:
    """The formula with one of its stages changed."""
    stages = list(formula.stages)
    stages[s] = stages[s].model_copy(update=changes)
    return formula.model_copy(update={"stages": tuple(stages)})


def with_line(formula: Formula, s: int, n: int, **changes: object) -> Formula:
    """The formula with one of its lines changed."""
    lines = list(formula.stages[s].lines)
    lines[n] = lines[n].model_copy(update=changes)
    return with_stage(formula, s, lines=tuple(lines))


def complete(formula: Formula) -> None:
    """Refuse a formula that cannot be kept as a revision for want of a name or a role.

    Lines that nothing was typed in do not count. Raises `Unnamed` at the formula's name or the first line without one, `NoRole` at the first line without a role.
    """
    if not formula.name:
        raise Unnamed("Give the formula a name, so that it can be found again.", ("name",))
    for s, n, line in each_line(formula):
        if line.blank:
            continue
        if not line.name:
            stage = formula.stages[s].name or "this stage"
            raise Unnamed(f"Line {n + 1} of {stage} has no name: say what it is.", at(s, n, "name"))
        if line.role is None:
            raise NoRole(f"Say what {line.name} is in the dough: flour, liquid, fat or another.", at(s, n, "role"))


def without_blank_lines(formula: Formula) -> Formula:
    """The formula without lines and steps that nothing was typed in, and without stages that are
    left empty by that; a stage that another goes into stays."""

    own = (formula.stages, *(way.stages or () for way in formula.ways))
    fed = {feed.into for stages in own for stage in stages for feed in stage.feeds}

    def kept(stages: tuple[Mixed, ...]) -> tuple[Mixed, ...]:
        without = (s.model_copy(update={"lines": tuple(line for line in s.lines if not line.blank)}) for s in stages)
        return tuple(stage for stage in without if stage.lines or (isinstance(stage, Stage) and stage.key in fed))

    def steps(way: Way) -> Way:
        told = tuple(step for step in way.steps if step != Step())
        return way.model_copy(update={"steps": told, "stages": None if way.stages is None else kept(way.stages)})

    return formula.model_copy(update={"stages": kept(formula.stages), "beside": kept(formula.beside), "ways": tuple(map(steps, formula.ways))})
