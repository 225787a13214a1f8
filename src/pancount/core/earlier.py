"""Formulas as earlier releases kept them, brought up to what a formula is now.

Each step goes from one schema number to the next and changes no gram: a stage's kind is read off its name, and what
stood beside the dough keeps its weights.
"""

from collections.abc import Callable, Mapping
from typing import Any

from pancount.core.stages import beside_named, kinds_named

Body = dict[str, Any]

SCHEMA_NUMBER = 3
"""Of a formula as it is kept now. A change of `Formula` raises it and adds a step here."""


def _with_kinds(body: Body) -> Body:
    """3 knows what each stage is; what feeds it, what is held back and how wet a starter is are new and stay untold."""
    stages = body.get("stages", ())
    names = kinds_named([str(stage.get("name", "")) for stage in stages])
    beside = [{"kind": beside_named(str(stage.get("name", ""))), **stage} for stage in body.get("beside", ())]
    return body | {
        "stages": [{"kind": kind, **stage} for kind, stage in zip(names, stages, strict=True)],
        "beside": beside,
    }


STEPS: Mapping[int, Callable[[Body], Body]] = {
    1: lambda body: body,  # 2 added what is beside the dough, the steps, and each line's text and band
    2: _with_kinds,
}
"""From each schema number to the next."""


def brought_up(body: Body, schema_number: int) -> Body:
    """A formula's body as it would be kept now."""
    for number in range(schema_number, SCHEMA_NUMBER):
        body = STEPS[number](body)
    return body
