"""What a baker knows of a dough: lines in stages, each in grams or in percent of all flour."""

from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, model_validator

from pancount.core.base import PLAIN, Band, Frozen, Grams, Name, SomeGrams, Text, Word, Words
from pancount.core.errors import NoRole, Place, Unnamed
from pancount.core.pan import Pan


class Role(StrEnum):
    """What an ingredient does in the dough."""

    FLOUR = "flour"
    LIQUID = "liquid"
    FAT = "fat"
    SUGAR = "sugar"
    SALT = "salt"
    LEAVEN = "leaven"
    EGG = "egg"
    DAIRY = "dairy"
    FLAVOUR = "flavour"
    INCLUSION = "inclusion"


class Line(Frozen):
    """One ingredient, in grams or in percent of all flour, as the baker has it. With neither, its amount is open."""

    name: Name = ""
    role: Role | None = None
    """None where the name is not known and no role was chosen yet."""
    weight_g: Grams | None = None
    percent: Annotated[float, Field(ge=0, le=100_000)] | None = None
    note: Words = ""
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


class Stage(Frozen):
    """Lines that are mixed together, in mixing order. Every flour in a stage counts toward the 100 %."""

    name: Name = ""
    lines: Annotated[tuple[Line, ...], Field(max_length=500)] = ()


class Span(Frozen):
    """From low to high; alike where it is one number."""

    low: Annotated[float, Field(ge=-1000, le=10_000_000)]
    high: Annotated[float, Field(ge=-1000, le=10_000_000)]


class Step(Frozen):
    """A step of the method in the baker's words, with the times [min] and temperatures [°C] that it names."""

    text: Text = ""
    minutes: Annotated[tuple[Span, ...], Field(max_length=20)] = ()
    heat_c: Annotated[tuple[Span, ...], Field(max_length=20)] = ()


class Usual(Frozen):
    """What this formula usually makes: it stands in where the count has too few pins."""

    piece_g: SomeGrams = 80
    pieces_per_pan: Annotated[int, Field(ge=1, le=10_000)] = 12
    pans: Annotated[int, Field(ge=1, le=10_000)] = 1
    bench_loss: Annotated[float, Field(ge=0, lt=0.5)] = 0.02
    fill_kind: Word = "pull_apart_buns"
    fill: Annotated[float, Field(gt=0, le=1000)] | None = None
    """As it came out last time, in the unit of `fill_kind`; None takes the middle of the usual band."""
    pan: Pan | None = None


class Formula(Frozen):
    """A dough. Names and amounts may be blank while it is typed; `complete` says whether it can be kept."""

    name: Name = ""
    styles: Annotated[tuple[Word, ...], Field(max_length=12)] = ()
    flour_g: SomeGrams = 1000
    """All flour of the batch as written, used only where no flour line is given in grams. [g]"""
    stages: Annotated[tuple[Stage, ...], Field(max_length=50)] = ()
    beside: Annotated[tuple[Stage, ...], Field(max_length=20)] = ()
    """What is not mixed into the dough: wash, topping, filling, pan oil, bench flour. It counts in no percentage."""
    steps: Annotated[tuple[Step, ...], Field(max_length=500)] = ()
    """The method as a draft."""
    usual: Usual = Usual()
    note: Text = ""


def complete(formula: Formula) -> None:
    """Refuse a formula that cannot be kept as a revision for want of a name or a role.

    Lines that nothing was typed in do not count. Raises `Unnamed` at the formula's name or the first line without one, `NoRole` at the first line without a role.
    """
    if not formula.name:
        raise Unnamed("Give the formula a name, so that it can be found again.", ("name",))
    for s, stage in enumerate(formula.stages):
        for n, line in enumerate(stage.lines):
            if line.blank:
                continue
            at: Place = ("stages", s, "lines", n)
            if not line.name:
                raise Unnamed(
                    f"Line {n + 1} of {stage.name or 'this stage'} has no name: say what it is.", (*at, "name")
                )
            if line.role is None:
                raise NoRole(f"Say what {line.name} is in the dough: flour, liquid, fat or another.", (*at, "role"))


def without_blank_lines(formula: Formula) -> Formula:
    """The formula without lines and steps that nothing was typed in, and without stages that are left empty by that."""

    def kept(stages: tuple[Stage, ...]) -> tuple[Stage, ...]:
        without = (s.model_copy(update={"lines": tuple(line for line in s.lines if not line.blank)}) for s in stages)
        return tuple(stage for stage in without if stage.lines)

    steps = tuple(step for step in formula.steps if step.text.strip())
    return formula.model_copy(update={"stages": kept(formula.stages), "beside": kept(formula.beside), "steps": steps})
