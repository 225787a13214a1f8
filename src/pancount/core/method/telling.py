"""A step in words: as it is written for others, and on the method sheet."""

from pancount.core.formula.steps import Lasts, Step, Warmth
from pancount.core.method.filled import Filled, filled

HALF_MORE = 1.5
"""As bakers say it of a bath: between seconds and whole minutes. [min]"""


def minutes_words(minutes: float) -> str:
    """A time as bakers say it.

    >>> minutes_words(0.5), minutes_words(1.5), minutes_words(45), minutes_words(90), minutes_words(720), minutes_words(62.3)
    ('30 s', '1½ min', '45 min', '1 h 30 min', '12 h', '1 h 2 min')
    """
    if minutes == HALF_MORE:
        return "1½ min"
    if minutes > 0 and round(minutes * 60) < 60:
        return f"{round(minutes * 60)} s"
    whole = round(minutes)
    hours, rest = divmod(whole, 60)
    if not hours:
        return f"{whole} min"
    return f"{hours} h" + (f" {rest} min" if rest else "")


def span_words(low: float, high: float) -> str:
    """From so long to so long.

    >>> span_words(60, 90), span_words(8, 10), span_words(5, 5), span_words(720, 960)
    ('1 h to 1 h 30 min', '8 to 10 min', '5 min', '12 to 16 h')
    """
    first, last = minutes_words(low), minutes_words(high)
    if first == last:
        return last
    parts = first.split(" ")
    return f"{parts[0]} to {last}" if len(parts) == 2 and last.endswith(f" {parts[1]}") and len(last.split(" ")) == 2 else f"{first} to {last}"


def lasts_words(lasts: Lasts) -> str:
    """How long a step takes, in words."""
    return span_words(lasts.low_min, lasts.high_min)


def warmth_words(heat: Warmth) -> str:
    """How warm, in words: "26 °C", "38 to 43 °C"."""
    low, high = f"{heat.low_c:.0f}", f"{heat.high_c:.0f}"
    return f"{high} °C" if low == high else f"{low} to {high} °C"


def step_words(step: Step, pieces: float = 0.0) -> str:
    """A step in a sentence or two: the baker's own words, or what it is, how long, how warm, and what to look for.

    >>> step_words(Step(kind="rise", lasts=Lasts.of(60, 90)))
    'First rise, 1 h to 1 h 30 min at 26 °C, until doubled, domed, bubbles under the skin.'
    """
    if step.text.strip():
        return step.text.strip()
    return told(filled(step, pieces))


def told(one: Filled) -> str:
    """The same for a step that nothing was written of."""
    label = one.kind.label[:1].upper() + one.kind.label[1:]
    time = lasts_words(one.lasts) if one.lasts.high_min > 0 else ""
    heat = f"at {warmth_words(one.heat)}" if one.heat else ""
    look = f"until {one.look}" if one.look else ""
    said = ", ".join(filter(None, (f"{label}, {time} {heat}".rstrip(", ") if time else f"{label} {heat}".rstrip(), look)))
    return f"{said}."
