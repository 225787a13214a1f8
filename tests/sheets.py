"""What every weigh sheet must hold, whatever is on it."""

from decimal import Decimal

from pancount.core.sheet.printed import SheetStage, WeighSheet

NONE = Decimal(0)


def in_bowl(stage: SheetStage) -> Decimal:
    """What is weighed into a stage's bowl."""
    own = sum((line.printed for line in stage.lines if line.printed is not None), NONE)
    return own + sum((fed.printed + (fed.made_up or NONE) for fed in stage.fed), NONE)


def adds_up(sheet: WeighSheet) -> bool:
    """Every bowl is the sum of what is weighed into it, and what goes on from stage to stage ends up in the total."""
    bowls = all(in_bowl(stage) == stage.printed for stage in sheet.stages)
    gone = sum(((stage.boiled_off or NONE) + (stage.kept_back or NONE) for stage in sheet.stages), NONE)
    passed = sum((fed.printed for stage in sheet.stages for fed in stage.fed), NONE)
    return bowls and sum((stage.printed for stage in sheet.stages), NONE) - passed - gone == sheet.printed_total
