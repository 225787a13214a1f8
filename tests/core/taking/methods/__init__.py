"""Methods in strangers' hands, with what a baker reads in them, and the score of the reader.

Each: `=== title`, the lines of the formula, the text, `---`, then a row for each step: kinds that will do | minutes | °C | what goes in | some
words of the text that this step is made of. A dash is "not said"; `thing+` where more may go in.
"""

from collections import Counter
from dataclasses import dataclass, field
from functools import cache
from importlib.resources import files

from pancount.core.formula.formula import Formula, Stage, Way
from pancount.core.formula.steps import Step
from pancount.core.method.uses import Weights, uses
from pancount.core.pantry.role import Role
from pancount.core.taking.steps import read_steps
from strategies import PANTRY

SETS = ("first.txt", "second.txt")
ALSO = {"relax": "rest", "press": "shape", "knead_by_hand": "knead", "heat_griddle": "preheat", "heat_bath": "preheat"}
"""Kinds that there were no words for when the rows were written."""
WEIGHTS = {Role.FLOUR: 500, Role.LIQUID: 300, Role.SUGAR: 50, Role.FAT: 60, Role.EGG: 50, Role.SALT: 10, Role.LEAVEN: 7, Role.MASH: 200}
ROLES = {"Potato, mashed": Role.MASH, "Potato water": Role.LIQUID}


@dataclass(frozen=True)
class Row:
    kinds: frozenset[str]
    minutes: tuple[float, float] | None
    heats: tuple[float, float] | None
    takes: frozenset[str]
    more: bool
    words: str


@dataclass(frozen=True)
class Told:
    title: str
    lines: tuple[str, ...]
    text: str
    rows: tuple[Row, ...]


def _span(text: str) -> tuple[float, float] | None:
    if text == "-":
        return None
    low, _, high = text.replace("/", "-").partition("-")
    return (float(low), float(high or low)) if float(low) <= float(high or low) else (float(high), float(low))


def _row(text: str, lines: tuple[str, ...]) -> Row:
    kinds, minutes, heats, takes, words = (part.strip() for part in text.split("|", 4))
    more, names = takes.endswith("+"), takes.rstrip("+")
    taken = frozenset(_listed(names)) if names != "-" else frozenset()
    assert taken <= set(lines), (taken, lines)
    return Row(frozenset(kinds.replace("pan/", "").split("/")), _span(minutes), _span(heats), taken, more, words)


@cache
def told(name: str) -> tuple[Told, ...]:
    text = (files(__package__) / name).read_text()
    found = []
    for part in text.split("\n=== ")[1:] if not text.startswith("=== ") else ("\n" + text).split("\n=== ")[1:]:
        body, rows = part.split("\n---\n")
        title, listed, method = body.split("\n", 2)
        names = _listed(listed.removeprefix("lines: "))
        found.append(Told(title, names, method, tuple(_row(row, names) for row in rows.strip().splitlines())))
    return tuple(found)


def _listed(text: str) -> tuple[str, ...]:
    """Names parted by commas; "Potato, mashed" is one."""
    parts = text.split(", ")
    return tuple(f"{part}, mashed" if parts[n + 1 : n + 2] == ["mashed"] else part for n, part in enumerate(parts) if part != "mashed")


def formula_of(names: tuple[str, ...]) -> Formula:
    lines = []
    for name in names:
        known = PANTRY.find(name)
        role = ROLES.get(name) or (known.role if known else Role.FLAVOUR)
        lines.append({"name": name, "role": role, "hydration": known.hydration if known and role is Role.LEAVEN else None, "weight_g": WEIGHTS.get(role, 20)})
    return Formula(name="drawn", stages=(Stage.model_validate({"name": "Dough", "lines": lines}),))


@dataclass
class Score:
    right: int = 0
    missed: int = 0
    wrong: int = 0
    extra: int = 0
    misses: list[str] = field(default_factory=list)

    @property
    def rows(self) -> int:
        return self.right + self.missed + self.wrong


def went_in(formula: Formula, way: Way) -> list[frozenset[str]]:
    """What goes in at each step, by name."""
    weights = Weights(lines=tuple(tuple(line.weight_g for line in stage.lines) for stage in formula.stages), stages=(0.0,) * len(formula.stages), beside=())
    found, _ = uses(formula, way.steps, weights)
    return [frozenset(one.name for one in some if one.what == "line") for some in found]


def _plain(text: str) -> str:
    return " ".join("".join(c if c.isalnum() else " " for c in text.casefold()).split())


def _kind(step: Step) -> str:
    return ALSO.get(step.kind, step.kind)


def judge(one: Told, score: Score) -> None:
    formula, way = read_steps(one.text, formula_of(one.lines), PANTRY)
    takes = went_in(formula, way)
    at: dict[int, list[Row]] = {}
    begin = 0
    for row in one.rows:
        words = [_plain(part) for part in row.words.split("/")]
        spots = [i for i in range(len(way.steps)) if any(part in _plain(way.steps[i].text) for part in words)]
        spot = next((i for i in spots if i >= begin and _kind(way.steps[i]) in row.kinds), next((i for i in spots if i >= begin), spots[0] if spots else None))
        if spot is None:
            score.missed += 1
            score.misses.append(f"{one.title}: not found: {row.words}")
            continue
        begin = spot
        at.setdefault(spot, []).append(row)
    for i, rows in at.items():
        step, kind = way.steps[i], _kind(way.steps[i])
        own = [row for row in rows if kind in row.kinds]
        for row in rows:
            if row not in own:
                note = "note" in row.kinds
                if note or kind == "note":
                    score.right += note
                    score.missed += not note
                    if not note:
                        score.misses.append(f"{one.title}: a note: {row.words}")
                else:
                    score.wrong += 1
                    score.misses.append(f"{one.title}: {kind} for {set(row.kinds)}: {row.words}")
        why = _why(step, takes[i], own)
        for row in own:
            if why:
                score.wrong += 1
                score.misses.append(f"{one.title}: {why}: {row.words}")
            else:
                score.right += 1
    extra = [step for i, step in enumerate(way.steps) if i not in at and step.kind != "note"]
    score.extra += len(extra)
    score.misses += [f"{one.title}: besides: {step.kind}: {step.text}" for step in extra]


def _why(step: Step, taken: frozenset[str], rows: list[Row]) -> str:
    """What is not as the baker reads it; blank where all of it is."""
    if not rows or all("note" in row.kinds and len(row.kinds) == 1 for row in rows):
        return ""
    wanted = [row.minutes for row in rows if row.minutes]
    has = (step.lasts.low_min, step.lasts.high_min) if step.lasts else None
    if wanted and (has is None or any(abs(a - b) > 0.05 for a, b in zip(has, wanted[-1], strict=True))):
        return f"{has} min for {wanted[-1]}"
    if not wanted and has and step.kind not in ("chill",):
        return f"{has} min for none"
    heats = [row.heats for row in rows if row.heats]
    if heats and (step.heat is None or not any(h[0] - 0.3 <= step.heat.low_c and step.heat.high_c <= h[1] + 0.3 for h in heats)):
        return f"{step.heat} for {heats[0]}"
    names = frozenset().union(*(row.takes for row in rows))
    if not names <= taken or (taken - names and not any(row.more for row in rows)):
        return f"takes {sorted(taken)} for {sorted(names)}"
    return ""


def report(name: str, *, every: bool = False) -> str:
    """The score of a set, with every miss."""
    score = Score()
    for one in told(name):
        judge(one, score)
    lines = [f"{name}: {score.right} of {score.rows} right, {score.missed} missed, {score.wrong} wrong, {score.extra} besides"]
    return "\n".join(lines + (score.misses if every else []))


def kinds_met() -> Counter[str]:
    return Counter(kind for name in SETS for one in told(name) for row in one.rows for kind in row.kinds)
