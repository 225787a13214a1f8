"""The corpus of ingredient lines: each line of corpus.txt with the form it stands under, and readings in its notation."""

from pathlib import Path
from typing import NamedTuple

from pancount.core.taking.lines import Reading
from pancount.core.taking.vocabulary import Named


class Case(NamedTuple):
    form: str
    line: str
    expected: tuple[str, str, str, str, str, str]


def cases() -> list[Case]:
    """Every line of the corpus."""
    found, form = [], ""
    for raw in Path(__file__).with_name("corpus.txt").read_text(encoding="utf-8").splitlines():
        if raw.startswith("## "):
            form = raw[3:]
        elif raw and not raw.startswith("# "):
            line, *rest = (part.strip() for part in raw.split("|"))
            rest += [""] * 6
            found.append(Case(form, line, tuple(rest[:6])))
    return found


def _number(value: float) -> str:
    return f"{value:.4g}" if value < 1000 else f"{value:g}"


def _parts(parts) -> str:
    text = ""
    for part in parts:
        low, high = _number(part.low), _number(part.high)
        number = low if low == high else f"{low}..{high}"
        words = [number, part.fill.name if part.fill else "", part.way, part.measure]
        text += (" + " if part.sign > 0 else " - ") * bool(text) + " ".join(filter(None, words))
    return text


def _amount(reading: Reading) -> str:
    asked = reading.amount
    if asked is None:
        return "-"
    return _parts(asked.parts) + (f" = {_parts(asked.doubled)}" if asked.doubled else "")


def _named(named: Named | None, called: str) -> str:
    if named is None:
        return f"!{called}"
    return named.ingredient.name if named.ingredient else f"?{named.question}"


def _brief(reading: Reading) -> str:
    amount = "" if reading.amount is None else _amount(reading)
    return " ".join(filter(None, [amount, _named(reading.named, reading.called), f"@{reading.apart}" if reading.apart else ""]))


def noted(reading: Reading) -> tuple[str, str, str, str, str, str]:
    """A reading in the corpus's notation."""
    return (
        _amount(reading),
        _named(reading.named, reading.called),
        ", ".join(filter(None, [reading.size, reading.way, *reading.states])),
        reading.apart,
        "; ".join(map(_brief, reading.or_else)),
        "; ".join(map(_brief, reading.extra)),
    )
