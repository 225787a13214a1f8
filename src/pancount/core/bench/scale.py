"""What a scale on the bench shows, report by report: the bowl is tared by itself, a weight is taken when it stands, trouble is said.

State in, state out: the screen sends back what it was told last, with what the scale said since.
"""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field

from pancount.core.base.models import Frozen
from pancount.core.bench.rules import rules

ScaleStatus = Literal["fault", "zero", "moving", "steady", "under", "over", "calibrate", "rezero"]
Shown = Annotated[float, Field(ge=-1e9, le=1e9)]


class Reading(Frozen):
    """One report of a scale, read. `g` is None where what it says is no weight. [g]"""

    at_s: Annotated[float, Field(ge=0, le=1e11)]
    status: ScaleStatus
    g: Shown | None
    step_g: Annotated[float, Field(ge=0, le=1e9)]
    unit: str
    """As the scale has it: "g", "oz"."""


WAITS = "It counts as nothing as soon as it stands still."

Phase = Literal["none", "empty", "bowl", "pouring", "within", "over"]


class OnScale(Frozen):
    """A scale as the bench goes by it. [g]"""

    tare_g: Shown | None = None
    """What it showed when the line was begun; None before anything stood on it."""
    gross_g: Shown | None = None
    net_g: Shown | None = None
    step_g: Annotated[float, Field(ge=0, le=1e9)] = 0.0
    """The steps that it shows; nothing finer is known of it."""
    coarse: bool = False
    """Its steps are wider than what is weighed may be off: nothing is taken by itself."""
    steady: bool = False
    since_s: Annotated[float, Field(ge=0, le=1e11)] | None = None
    """Since when it stands still."""
    heard_s: Annotated[float, Field(ge=0, le=1e11)] | None = None
    """When it last said anything."""
    was_off: bool = False
    """The bowl was taken off since."""
    zeroing: bool = False
    """It is to count as nothing, as soon as it stands."""
    phase: Phase = "none"
    armed: bool = True
    """Of pieces, one after the other: the scale was empty since the last was taken."""
    take: bool = False
    """It stands within the tolerance, for long enough: this weight may be taken."""
    says: str = ""
    trouble: bool = False


TROUBLE = {
    "fault": "The scale reports a fault: switch it off and on again, or type the weight.",
    "over": "More is on it than the scale bears: take something off.",
    "calibrate": "The scale wants to be calibrated: do not trust it. Type what another one shows.",
    "rezero": "The scale wants its zero set: take everything off and press its zero key.",
}


def _silent(before: OnScale, now_s: float) -> OnScale:
    if before.heard_s is None:
        return before
    quiet = now_s - before.heard_s
    if quiet <= rules()["frozen_s"]:
        return before.model_copy(update={"take": False})
    says = f"The scale has said nothing for {quiet:.0f} s. Is it off, or unplugged? Type what is in meanwhile."
    return before.model_copy(update={"take": False, "trouble": True, "steady": False, "says": says})


def watch(
    before: OnScale, readings: Sequence[Reading], target_g: float | None, tolerance_g: float, now_s: float, *, bowl: bool = True
) -> OnScale:
    """The scale after these reports, while so much is being weighed: into a bowl, or piece by piece as they are. [g]"""
    state = before
    for reading in readings:
        state = _after(state, reading, target_g, tolerance_g, bowl=bowl)
        if state.take and not bowl:
            break  # taken once, and as it was then
    return _silent(state, now_s) if not readings else state


def zeroed(before: OnScale) -> OnScale:
    """What is on it now counts as nothing: a line begins from here. While it moves it waits, as a scale's own key does."""
    if before.steady and before.gross_g is not None:
        return _from_here(before, before.gross_g)
    return before.model_copy(update={"zeroing": True, "phase": "empty", "take": False, "was_off": False, "says": WAITS})


def _from_here(state: OnScale, gross_g: float) -> OnScale:
    return state.model_copy(update={"tare_g": gross_g, "net_g": 0.0, "phase": "bowl", "take": False, "was_off": False, "zeroing": False, "says": ""})


def _stood(state: OnScale, reading: Reading, rule: str) -> bool:
    """Whether it stands for so long."""
    return state.since_s is not None and reading.at_s - state.since_s >= rules()[rule]


def _after(before: OnScale, reading: Reading, target_g: float | None, tolerance_g: float, *, bowl: bool) -> OnScale:
    state = before.model_copy(update={"heard_s": reading.at_s, "take": False, "trouble": False, "says": ""})
    if reading.status in TROUBLE or reading.g is None:
        says = TROUBLE.get(reading.status, f"The scale shows a unit that is not known here ({reading.unit}): set it to grams.")
        return state.model_copy(update={"trouble": True, "steady": False, "since_s": None, "says": says})
    gross, still = reading.g, reading.status in ("steady", "zero")
    moved = before.gross_g is None or abs(gross - before.gross_g) > max(reading.step_g, tolerance_g / 2)
    since = None if not still else (reading.at_s if moved or before.since_s is None else before.since_s)
    state = state.model_copy(update={"gross_g": gross, "step_g": reading.step_g, "steady": still, "since_s": since})
    if state.zeroing:
        return _from_here(state, gross) if _stood(state, reading, "tared_s") else state.model_copy(update={"net_g": gross, "says": WAITS})
    state = _tared(before, state, reading) if bowl else _as_it_is(state)
    state = _judged(state, reading, target_g, tolerance_g)
    if bowl:
        return state
    return state.model_copy(update={"take": state.take and state.armed, "armed": state.armed and not state.take})


def _as_it_is(state: OnScale) -> OnScale:
    """Nothing is tared by itself, but for a board that the baker set to nothing; empty again, the next piece may come."""
    gross, least = state.gross_g or 0.0, rules()["tare_g"]
    if abs(gross) < least:
        return state.model_copy(update={"phase": "empty", "net_g": gross, "tare_g": None, "was_off": False, "armed": True})
    net = gross - (state.tare_g or 0.0)
    armed = state.armed or abs(net) < least
    return state.model_copy(update={"phase": "pouring", "net_g": net, "was_off": False, "armed": armed})


def _tared(before: OnScale, state: OnScale, reading: Reading) -> OnScale:
    """A bowl put on an empty scale is tared by itself; one that was taken off and comes back weighs what it did."""
    gross, least = state.gross_g or 0.0, rules()["tare_g"]
    if abs(gross) < least and (state.tare_g is None or abs(state.tare_g) < least):
        return state.model_copy(update={"phase": "empty", "net_g": gross, "tare_g": None})
    if state.tare_g is None:
        return _from_here(state, gross) if _stood(state, reading, "tared_s") else state.model_copy(update={"phase": "empty", "net_g": gross})
    net = gross - state.tare_g
    return state.model_copy(update={"net_g": net, "was_off": before.was_off or gross < max(least, state.tare_g / 2), "phase": "pouring"})


def _judged(state: OnScale, reading: Reading, target_g: float | None, tolerance_g: float) -> OnScale:
    net, says, phase, trouble = state.net_g or 0.0, "", state.phase, False
    if phase == "empty":
        if abs(net) >= rules()["tare_g"]:
            says = WAITS
        elif state.steady and abs(net) > reading.step_g:
            says = f"It shows {net:.0f} g with nothing on it: press its zero key, or put the bowl on."
    elif reading.status == "under" or net < -max(tolerance_g, 2 * reading.step_g):
        says = f"{-net:.0f} g under what it was: is the bowl on it? If something was taken out, press Zero."
    elif target_g is not None and phase == "pouring":
        phase = "within" if abs(net - target_g) <= tolerance_g + 1e-9 else "over" if net > target_g else "pouring"
        if state.was_off and state.steady and phase != "within" and net > tolerance_g:
            says = f"{net:.0f} g more than when this line began, and the bowl was off: is it another bowl? Then press Zero."
    coarse = bool(target_g) and reading.step_g > max(tolerance_g, 1e-9) * 1.001
    if coarse and target_g and not says:
        says = f"The scale is in {'ounces' if reading.unit == 'oz' else reading.unit} and shows steps of {reading.step_g:.3g} g: too coarse for {target_g:.3g} g."
        trouble = reading.step_g > 0.1 * target_g
    return state.model_copy(update={"phase": phase, "says": says, "trouble": trouble, "coarse": coarse, "take": phase == "within" and not coarse and _stood(state, reading, "settled_s")})
