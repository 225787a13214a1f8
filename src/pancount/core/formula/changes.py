"""Changes of a formula that take more than typing: one function a change, all `Formula -> Formula`, with what they do.

The screen asks for one of these by its `change`; it holds no rule itself. Each comes back with what the dough was and is,
so that both can be seen before it is taken.
"""

from collections.abc import Callable, Mapping
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from pancount.core.base.errors import CannotChange
from pancount.core.base.models import Brief, Frozen, Grams
from pancount.core.formula.aim import Aim, aim
from pancount.core.formula.compare import BringOver, Compared, ComparedGauge, bring_over, compare
from pancount.core.formula.contents import Contents, contents
from pancount.core.formula.formula import Formula, Spot
from pancount.core.formula.gauges import gauge_rules
from pancount.core.formula.moving import NewStage, cooked, feed, keep_back, move_in, move_out, straight
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.formula.rows import RowChange, ShownPercent, change_row, set_shown_percent
from pancount.core.formula.swaps import SwapLine, chosen_swap, free_of, swap, water_words
from pancount.core.formula.ways import in_way, with_yeast
from pancount.core.pantry.ingredients import Allergen, Pantry


class MoveIn(NewStage):
    """Make a stage of part of the dough."""

    change: Literal["move_in"] = "move_in"


class MoveOut(Frozen):
    """Put a stage back into what it goes into; all of them where `stage` is None: a straight dough."""

    change: Literal["move_out"] = "move_out"
    stage: Spot | None = None


class FeedStage(Frozen):
    """Let a share of a stage go into another; 0 lets it go there no more, None all that goes nowhere yet."""

    change: Literal["feed"] = "feed"
    stage: Spot
    into: Spot
    share: Annotated[float, Field(ge=0, le=1)] | None = None


class KeepBack(Frozen):
    """Keep so much of a stage as seed. [g]"""

    change: Literal["keep_back"] = "keep_back"
    stage: Spot
    kept_g: Grams


class Cooked(Frozen):
    """What a cooked stage weighs on the scale. [g]"""

    change: Literal["cooked"] = "cooked"
    stage: Spot
    cooked_g: Grams


class SetRow(RowChange):
    """The total of an ingredient in the whole formula."""

    change: Literal["set_row"] = "set_row"


class SetShown(ShownPercent):
    """A line's percentage as this kitchen shows it."""

    change: Literal["set_shown"] = "set_shown"


class AimAt(Aim):
    """Aim a gauge."""

    change: Literal["aim"] = "aim"


class SwapOne(SwapLine):
    """Swap an ingredient."""

    change: Literal["swap"] = "swap"


class FreeOf(Frozen):
    """Swap everything that holds an allergen."""

    change: Literal["free_of"] = "free_of"
    allergen: Allergen


class Bring(BringOver):
    """Bring a line, a stage or a way over from another formula."""

    change: Literal["bring_over"] = "bring_over"


class WayYeast(Frozen):
    """So much yeast in a way, as instant. [% of flour]"""

    change: Literal["way_yeast"] = "way_yeast"
    way: Brief
    yeast: Annotated[float, Field(ge=1e-4, le=100)]


Change = Annotated[
    MoveIn | MoveOut | FeedStage | KeepBack | Cooked | SetRow | SetShown | AimAt | SwapOne | FreeOf | Bring | WayYeast,
    Field(discriminator="change"),
]


class Changed(Frozen):
    """A changed formula, and what that did to the dough."""

    formula: Formula
    compared: Compared
    """The changed formula as ours, and the one before as theirs."""
    says: tuple[str, ...]
    """What could not be kept, and what it means for the dough, in sentences."""
    gained: tuple[Allergen, ...]
    lost: tuple[Allergen, ...]
    read_packet: tuple[str, ...]
    """Composed foods that came in: what allergens they bring, only their packets tell."""


WORTH_SAYING = {"water": 0.5, "fat": 0.5, "sugars": 0.5, "egg": 1.0, "salt": 0.05, "yeast": 0.05}
"""From how much on a baker would notice a gauge that moved. Common practice, no source. [%]"""
MEANS: Mapping[str, tuple[str, str]] = {
    "water": ("softer", "stiffer"),
    "fat": ("richer and more tender", "leaner, with a shorter keep"),
    "sugars": ("sweeter and browner", "less sweet and paler"),
    "salt": ("saltier, slower", "flatter in taste, quicker"),
    "egg": ("more set by egg", "less set and coloured by egg"),
    "yeast": ("quicker", "slower"),
}
"""What it means where a gauge went up, and where it went down. Common practice, no source."""

Applied = tuple[Formula, tuple[str, ...]]


def _swap(formula: Formula, change: SwapOne, pantry: Pantry, practice: Practice) -> Applied:
    chosen = chosen_swap(formula, change, pantry)
    was = pantry.find(formula.stages[change.stage].lines[change.line].name)
    says = tuple(filter(None, (water_words(was.name, chosen.to[0]) if was and len(chosen.to) == 1 else "", chosen.says)))
    return swap(formula, change.stage, change.line, chosen, pantry, practice), says


def _free(formula: Formula, change: FreeOf, pantry: Pantry, practice: Practice) -> Applied:
    free = free_of(formula, change.allergen, pantry, practice)
    left = f"No swap is known for {', '.join(free.left)}, so {change.allergen} is still in it. Leave it out, or choose another."
    says = (*free.says, left) if free.left else free.says
    unsure = contents(free.formula, reckon(free.formula), pantry).read_packet
    packets = f"Only the packet tells whether {change.allergen} is in {', '.join(unsure)}: read it."
    return free.formula, (*says, packets) if unsure else says


APPLY: Mapping[type[Frozen], Callable[[Formula, Any, Pantry, Practice], Applied]] = {
    MoveIn: lambda f, c, pantry, practice: (move_in(f, c, pantry, practice), ()),
    MoveOut: lambda f, c, pantry, practice: (straight(f) if c.stage is None else move_out(f, c.stage), ()),
    FeedStage: lambda f, c, pantry, practice: (feed(f, c.stage, c.into, c.share), ()),
    KeepBack: lambda f, c, pantry, practice: (keep_back(f, c.stage, c.kept_g), ()),
    Cooked: lambda f, c, pantry, practice: (cooked(f, c.stage, c.cooked_g), ()),
    SetRow: lambda f, c, pantry, practice: (change_row(f, c, practice.starter), ()),
    SetShown: lambda f, c, pantry, practice: (set_shown_percent(f, c, practice.starter), ()),
    AimAt: lambda f, c, pantry, practice: (aim(f, c, pantry, practice), ()),
    SwapOne: _swap,
    FreeOf: _free,
    Bring: lambda f, c, pantry, practice: (bring_over(f, c), ()),
    WayYeast: lambda f, c, pantry, practice: (with_yeast(f, c.way, c.yeast, pantry, practice), ()),
}


def _allergens(found: Contents) -> set[Allergen]:
    return {one.allergen for one in found.contains}


def change_formula(formula: Formula, change: Change, pantry: Pantry, practice: Practice) -> Changed:
    """Make a change, and tell what it does. Raises what the change raises, and what `reckon` raises."""
    changed, says = APPLY[type(change)](formula, change, pantry, practice)
    try:  # what typing may not exceed, a change may not either
        changed = Formula.model_validate(changed.model_dump())
    except ValidationError as error:
        raise CannotChange("That would go beyond what can be weighed or kept.") from error
    before = reckon(formula)
    ours, theirs = (in_way(one, change.way) if isinstance(change, WayYeast) else one for one in (changed, formula))
    compared = compare(ours, theirs, before.flour_g, pantry, practice)
    now, then = contents(changed, reckon(changed), pantry), contents(formula, before, pantry)
    has, had = _allergens(now), _allergens(then)
    moved = [one for one in compared.gauges if one.key in MEANS and abs(one.differs) >= WORTH_SAYING[one.key]]
    return Changed(
        formula=changed,
        compared=compared,
        says=(*says, *map(_means, moved)),
        gained=tuple(sorted(has - had)),
        lost=tuple(sorted(had - has)),
        read_packet=tuple(name for name in now.read_packet if name not in then.read_packet),
    )


def _means(moved: ComparedGauge) -> str:
    up, down = MEANS[moved.key]
    return f"{gauge_rules()[moved.key].label} {moved.theirs:.3g} → {moved.ours:.3g} %: {up if moved.differs > 0 else down}."
