"""Formulas as earlier releases kept them, brought up to what a formula is now.

Each step goes from one schema number to the next and changes no gram: a stage's kind is read off its name, and what
stood beside the dough keeps its weights.
"""

from collections.abc import Callable, Mapping
from typing import Any

from pancount.core.base import most
from pancount.core.formula.stages import beside_named, kinds_named
from pancount.core.formula.steps import LONGEST_MIN, packed

Body = dict[str, Any]

SCHEMA_NUMBER = 6
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


def _with_ways(body: Body) -> Body:
    """6 has ways with steps of a kind; what was a draft of steps is one way of notes, each with its time and temperature where it told just one."""
    draft = [_note(step) for step in body.get("steps", ()) if isinstance(step, dict)]
    if len(draft) > most.STEPS:  # a draft could have more of them
        draft = [{"kind": "note", "text": text} for text in packed(step["text"] for step in draft)]
    kept = {name: value for name, value in body.items() if name != "steps"}
    return kept | ({"ways": [{"name": "As written", "steps": draft}]} if draft else {})


def _note(step: Body) -> Body:
    times, heats = ([one for one in step.get(name, ()) if isinstance(one, dict)] for name in ("minutes", "heat_c"))
    note: Body = {"kind": "note", "text": step.get("text", "")}
    if len(times) == 1 and 0 < times[0].get("low", 0) <= times[0].get("high", 0) <= LONGEST_MIN:
        low, high = times[0]["low"], times[0]["high"]
        note["lasts"] = {"low_min": low, "usual_min": (low + high) / 2, "high_min": high}
    if len(heats) == 1 and -40 <= heats[0].get("low", -100) <= heats[0].get("high", -100) <= 600:
        note["heat"] = {"low_c": heats[0]["low"], "high_c": heats[0]["high"]}
    return note


STEPS: Mapping[int, Callable[[Body], Body]] = {
    1: lambda body: body,  # 2 added what is beside the dough, the steps, and each line's text and band
    2: _with_kinds,
    3: lambda body: body,  # 4 added how a piece is shaped, its baking loss and gap, and more shapes of pan
    4: lambda body: body,  # 5 added the scald, and round corners of pans
    5: _with_ways,
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
