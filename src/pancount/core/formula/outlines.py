"""Outlines: what a dough of a kind usually is, as a place to start from. Common practice, no source."""

from functools import cache
from typing import Any

from pancount.core.base.datafiles import entries
from pancount.core.base.models import Frozen
from pancount.core.formula.formula import Beside, Formula, Line, Stage, StageKind, Usual
from pancount.core.formula.stages import kinds
from pancount.core.pans.shaping import Shaping
from pancount.core.pantry.ingredients import pantry_with

SOURCE = "common practice, no source"


class UsualLine(Frozen):
    """An ingredient with its usual share of all flour, and the band it moves in. [%]"""

    name: str
    percent: float
    low: float
    high: float
    stage: str = ""
    """What the stage is that it goes into; blank for the dough itself."""


class Outline(Frozen):
    """A dough of a kind: what it is, its lines with their bands, and the formula that starts from them."""

    key: str
    name: str
    says: str
    lines: tuple[UsualLine, ...]
    formula: Formula
    source: str = SOURCE


def _usual(told: list[Any], stage: str = "") -> UsualLine:
    name, percent, *band = told
    low, high = band[:2] if len(band) > 1 else (percent, percent)
    return UsualLine(name=name, percent=percent, low=low, high=high, stage=stage)


def shipped_line(name: str, **given: object) -> Line:
    """A line of an ingredient that ships, under that name, with what else is given of it. Raises `KeyError` for any other."""
    known = pantry_with(()).find(name)
    if known is None:
        raise KeyError(name)
    return Line.model_validate({"name": name, "role": known.role, "hydration": known.hydration, **given})


def _line(told: list[Any]) -> Line:
    """A line at its usual share. Its band stays in its written words, where the ledger shows it."""
    usual = _usual(told)
    written = f"usually {usual.low:g}–{usual.high:g} % of the flour: {SOURCE}" if usual.low < usual.high else ""
    note = told[4] if len(told) > 4 else ""
    return shipped_line(usual.name, percent=usual.percent, note=note, written=written)


def _beside(told: dict[str, Any]) -> Beside:
    """What is beside the dough, its lines in grams."""
    lines = tuple(shipped_line(name, weight_g=weight_g) for name, weight_g in told["lines"])
    return Beside(name=told["name"], kind=told["kind"], lines=lines)


def _outline(key: str, told: dict[str, Any]) -> Outline:
    stages = [(StageKind(stage["kind"]), stage["lines"]) for stage in told["stages"]]
    formula = Formula(
        name=told["name"],
        styles=tuple(told["styles"]),
        stages=tuple(
            Stage(name=kinds()[kind].label.capitalize(), kind=kind, lines=tuple(map(_line, lines))) for kind, lines in stages
        ),
        beside=tuple(map(_beside, told.get("beside", ()))),
        usual=Usual(**told["usual"], shaping=Shaping(kind=told.get("shaping", "ball"))),
        note=f"Begun from an outline: {SOURCE}. Each line holds the band it usually moves in.",
    )
    return Outline(
        key=key,
        name=told["name"],
        says=told["says"],
        lines=tuple(
            _usual(line, "" if kind is StageKind.DOUGH else kinds()[kind].label) for kind, lines in stages for line in lines
        ),
        formula=formula,
    )


@cache
def outlines() -> dict[str, Outline]:
    """The outlines by key, the plainest first."""
    return {key: _outline(key, told) for key, told in entries(__name__, "outlines.toml").items()}
