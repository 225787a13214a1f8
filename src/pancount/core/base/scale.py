"""The kitchen's scales: what they show, and in which step."""

from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field, WithJsonSchema

from pancount.core.base.models import Frozen

AS_TEXT = WithJsonSchema({"type": "string", "pattern": r"^\d{1,12}(\.\d{1,3})?$"})
"""Decimals go out as text, so that no reader turns them into binary fractions."""

Printed = Annotated[Decimal, AS_TEXT]
Step = Annotated[Decimal, Field(gt=0, le=1000, decimal_places=3), AS_TEXT]


class Scale(Frozen):
    """The kitchen's scales: what they show, in which step, and a finer one for small amounts, if there is one."""

    unit: Literal["g", "oz"] = "g"
    step: Step = Decimal(1)
    """Smallest step of the main scale, in `unit`."""
    fine_step: Step | None = None
    """Smallest step of the fine scale, in `unit`; None where there is none."""
    fine_under: Annotated[Decimal, Field(ge=0, le=1000, decimal_places=3), AS_TEXT] = Decimal(25)
    """Amounts under this go on the fine scale, in `unit`. Under 25, a step of 1 may round by more than 2 %."""

    def step_for(self, amount: float) -> Decimal:
        """The step of the scale that an amount in `unit` is weighed on."""
        if self.fine_step is not None and amount < float(self.fine_under):
            return min(self.fine_step, self.step)
        return self.step
