"""What happened, in a sentence."""

from pancount.core.bench.begun import Begun
from pancount.core.bench.events import (
    Accepted,
    Added,
    Ended,
    Event,
    HeldBack,
    Kept,
    Longer,
    Measurement,
    Noted,
    Piece,
    Resolved,
    Scaled,
    TimerSet,
    TookOut,
    Weighed,
)
from pancount.core.bench.mixed import points_words
from pancount.core.bench.overpour import grams_words, line_words
from pancount.core.bench.plan import Plan
from pancount.core.method.telling import minutes_words

BY = {"scale": "on the scale", "typed": "typed", "spoons": "in spoons", "meant": "taken as meant"}
PLAIN = {"began": "begun", "done": "done", "skipped": "left out", "turned": "turned", "quiet": "heard"}
MEASURED = {"dough_c": "Dough", "room_c": "Room", "middle_c": "Middle", "oven_c": "Oven", "dough_g": "Dough to divide", "baked_g": "Baked"}
ENDED = {"done": "Done.", "stopped": "Stopped.", "thrown_away": "Thrown away."}
ALONE = {"paused": "Put away until later.", "resumed": "Gone on with.", "shared_out": "Shared out by halves.", "undone": "Undone."}


def said(begun: Begun, plan: Plan, event: Event, flour: tuple[float, float]) -> tuple[str, str]:
    """What an event says, and the line or the thing to do that it is about; `flour` from so much to so much. [g]"""
    deed = event.what
    about = str(getattr(deed, "line", None) or getattr(deed, "task", None) or getattr(deed, "timer", None) or "")
    name = _name(plan, about)
    match deed:
        case Weighed():
            grams = line_words(deed.g, plan.lines[about], begun) if about in plan.lines else grams_words(deed.g, begun)
            text = f"{name}: {grams}, {BY[deed.by]}."
        case TookOut():
            text = f"{name}: {grams_words(deed.g, begun)} taken out."
        case Accepted():
            text = f"{name}: left as it is."
        case Scaled():
            text = f"{name}: the rest scaled to it."
        case Resolved():
            text = f"{name}: settled."
        case Added():
            text = f"{name or deed.name or str(deed.role)}: {grams_words(abs(deed.g), begun)} {'added' if deed.g >= 0 else 'taken out'} at the mixer, {points_words(deed.g, flour)}."
        case HeldBack():
            text = f"{name}, held back: {grams_words(deed.g, begun)} went in."
        case Measurement():
            unit = f"{deed.value:.1f} °C" if deed.what.endswith("_c") else grams_words(deed.value, begun)
            text = f"{MEASURED[deed.what]}: {unit}{f' for {deed.pieces}' if deed.pieces > 1 else ''}."
        case Kept():
            text = "The number of pieces stays." if deed.what == "pieces" else "The weight of a piece stays."
        case Piece():
            text = f"A piece of {grams_words(deed.g, begun)}."
        case TimerSet():
            text = f"{deed.name or 'Timer'}: {minutes_words(deed.minutes)}."
        case Longer():
            text = f"{name or 'Timer'}: {minutes_words(abs(deed.minutes))} {'longer' if deed.minutes >= 0 else 'shorter'}."
        case Noted():
            text = deed.text
        case Ended():
            text = ENDED[deed.how]
        case _:
            text = ALONE.get(deed.deed) or f"{name or 'Something'}: {_plain(event)}."
    return text, about if about in plan.lines or about in plan.todos else ""


def _plain(event: Event) -> str:
    deed = event.what
    if deed.deed == "tested":
        return "ready" if deed.passed else "not yet"
    return PLAIN.get(deed.deed, deed.deed)


def _name(plan: Plan, key: str) -> str:
    if key in plan.lines:
        return plan.lines[key].name
    if key in plan.todos:
        todo = plan.todos[key]
        label = plan.steps[todo.step].kind.label
        return f"{label[:1].upper()}{label[1:]}{f', load {todo.load + 1}' if todo.load >= 0 else ''}"
    return ""
