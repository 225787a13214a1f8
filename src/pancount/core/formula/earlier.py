"""Formulas as earlier releases kept them, brought up to what a formula is now.

Each step goes from one schema number to the next and changes no gram: a stage's kind is read off its name, and what
stood beside the dough keeps its weights.
"""

from collections.abc import Callable, Mapping
from typing import Any

from pancount.core.formula.stages import beside_named, kinds_named

Body = dict[str, Any]

SCHEMA_NUMBER = 5
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
    3: lambda body: body,  # 4 added how a piece is shaped, its baking loss and gap, and more shapes of pan
    4: lambda body: body,  # 5 added the scald, and round corners of pans
}
"""From each schema number to the next."""


def brought_up(body: Body, schema_number: int) -> Body:
    """A formula's body as it would be kept now."""
    for number in range(schema_number, SCHEMA_NUMBER):
        body = STEPS[number](body)
    return body


ONE_TARGET = 3
"""Up to this schema number a count had one target."""

TARGET_PINS = ("pieces", "piece_g", "pans", "pieces_per_pan", "fill")
"""What was pinned beside the batch before a count had several targets."""


def count_brought_up(body: Body, schema_number: int) -> Body:
    """A count's body as it would be kept now: up to 3 there was one target, its pins among those of the batch."""
    if schema_number > ONE_TARGET or not isinstance(body.get("pins", {}), dict):
        return body
    pins = body.get("pins", {})
    own = {name: value for name, value in pins.items() if name in TARGET_PINS}
    target: Body = {"pins": own, **{name: body[name] for name in ("pan", "leave_gaps") if name in body}}
    kept = {name: value for name, value in body.items() if name not in ("pins", "pan", "leave_gaps")}
    return kept | {"pins": {k: v for k, v in pins.items() if k not in TARGET_PINS}, "targets": [target]}
