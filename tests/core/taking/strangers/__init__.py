"""Whole recipes in strangers' hands, and the score of a reading of them.

Each thing that a baker reads in a recipe is one of four:
- right: what it is, where it goes and what it weighs, as a baker reads it;
- asked: not so, but the page says that it is not sure: a question at the line, or one that covers its group;
- wrong: not so, and nothing is said. The worst;
- unread: nothing was made of its line, which the screen shows as a note or a step.
What a reading finds in the dough that no baker reads there is wrong too, unless it is asked about.
"""

from collections import Counter
from dataclasses import dataclass
from pathlib import Path
from typing import Literal, NamedTuple

from pancount.core.taking.habits import Kitchen
from pancount.core.taking.take_in import take_in
from pancount.core.taking.taken import TakenIn, TakenLine, Thing

Verdict = Literal["right", "asked", "wrong", "unread"]
ANY = {
    "?salt": {"fine salt", "flaky salt", "coarse salt", "salt"},
    "?yeast": {"fresh yeast", "instant yeast", "active dry yeast"},
}


@dataclass(frozen=True)
class Expected:
    """A thing in a recipe; `names` that will do ("~word": an unknown name with that word), grams low and high."""

    part: str
    names: tuple[str, ...] = ()
    where: str = ""
    low_g: float = 0
    high_g: float = float("inf")
    weighed: bool = False

    def is_called(self, name: str) -> bool:
        name = name.casefold()
        return any(
            name in ANY[n] if n in ANY else n[1:].casefold() in name if n.startswith("~") else name == n.casefold()
            for n in self.names
        )


@dataclass(frozen=True)
class Recipe:
    """A recipe's text and what is in it."""

    name: str
    text: str
    expected: tuple[Expected, ...]


class Mark(NamedTuple):
    """How one thing was read; `cause` says what is not right about it: name, place, weight, line, extra, page."""

    verdict: Verdict
    cause: str
    expected: str
    found: str


def recipes(file: str) -> list[Recipe]:
    """The recipes of a file in this folder."""
    text = (Path(__file__).parent / file).read_text(encoding="utf-8")
    found = []
    for block in text.split("\n=== ")[1:]:
        name, _, rest = block.partition("\n")
        page, _, said = rest.partition("\n---\n")
        found.append(Recipe(name, page, tuple(_expected(line) for line in said.split("\n") if line.strip())))
    return found


def _expected(line: str) -> Expected:
    part, *rest = [field.strip() if n else field.rstrip(" ") for n, field in enumerate(line.split("|"))]
    if part in ("title", "pieces"):
        return Expected(part, (rest[0],))
    low, _, high = (rest[2] if len(rest) > 2 else "").partition("–")
    names = tuple(rest[0].split("/"))
    if not low:
        return Expected(part, names, rest[1])
    return Expected(part, names, rest[1], float(low), float(high or low), weighed=True)


def score(recipe: Recipe, kitchen: Kitchen) -> list[Mark]:
    """How each thing of a recipe was read."""
    taken = take_in(recipe.text, (), kitchen)
    left: dict[int, list[Thing]] = {n: list(line.things) for n, line in enumerate(taken.lines)}
    marks = []
    covered: set[int] = set()
    for expected in recipe.expected:
        if expected.part in ("title", "pieces"):
            marks.append(_page(expected, taken))
            continue
        at = next((n for n, line in enumerate(taken.lines) if expected.part in line.text), None)
        assert at is not None, f"{recipe.name}: no line holds {expected.part!r}"
        covered.add(at)
        marks.append(_mark(expected, taken.lines[at], left[at]))
    for n, things in left.items():
        for thing in things:
            if thing.where == "dough":
                verdict: Verdict = "asked" if _is_asked(thing, taken.lines[n]) else "wrong"
                marks.append(Mark(verdict, "extra", "nothing", _shown(thing, taken.lines[n])))
    return marks


def _page(expected: Expected, taken: TakenIn) -> Mark:
    said = expected.names[0]
    if expected.part == "title":
        found = taken.title
        right = found.casefold().startswith(said.casefold()) or (found and said.casefold().startswith(found.casefold()) and len(found) > 8)
    else:
        found = str(taken.makes.pieces)
        right = found == said
    verdict: Verdict = "right" if right else "unread" if found in ("", "None") else "wrong"
    return Mark(verdict, "page", f"{expected.part} {said}", found)


def _is_asked(thing: Thing, line: TakenLine) -> bool:
    return bool(thing.asks) or bool(getattr(line, "asks", ""))


def _mark(expected: Expected, line: TakenLine, things: list[Thing]) -> Mark:
    says = f"{expected.part}: {'/'.join(expected.names)} {expected.where}" + (
        f" {expected.low_g:g}–{expected.high_g:g} g" if expected.weighed else ""
    )
    named = [t for t in things if expected.is_called(t.name)]
    fits = [t for t in named if _problem(expected, t) == ""]
    if expected.where == "out":
        inside = [t for t in named if t.where == "dough"] if expected.names != ("-",) else [t for t in things if t.where == "dough"]
        for t in named:
            things.remove(t)
        if not inside:
            return Mark("right", "", says, "")
        if inside[0] in things:
            things.remove(inside[0])
        return Mark("asked" if _is_asked(inside[0], line) else "wrong", "place", says, _shown(inside[0], line))
    best = (fits or named or [None])[0]
    if best is not None:
        things.remove(best)
        problem = _problem(expected, best)
        if not problem:
            return Mark("right", "", says, _shown(best, line))
        return Mark("asked" if _is_asked(best, line) else "wrong", problem, says, _shown(best, line))
    asked = next((t for t in things if _is_asked(t, line)), None)
    if asked is not None:
        things.remove(asked)
        return Mark("asked", "name", says, _shown(asked, line))
    if things:
        other = things.pop(0)
        return Mark("wrong", "name", says, _shown(other, line))
    return Mark("unread", "line", says, f"[{line.kind}] {line.text[:60]}")


def _problem(expected: Expected, thing: Thing) -> str:
    if (thing.where == "dough") != (expected.where == "dough"):
        return "place"
    if expected.where != "dough" and thing.where != expected.where and {thing.where, expected.where} != {"wash", "topping"}:
        return "place"
    if expected.weighed and (thing.band is None or not expected.low_g <= thing.band.usual_g <= expected.high_g):
        return "weight"
    if expected.weighed and thing.role is None and expected.where == "dough":
        return "name"
    return ""


def _shown(thing: Thing, line: TakenLine) -> str:
    grams = f"{thing.band.usual_g:g} g" if thing.band else "? g"
    return f"{thing.name} {thing.where} {grams} {'(' + thing.asks + ')' if thing.asks else ''} in {line.text.strip()[:50]!r}"


def shares(marks: list[Mark]) -> dict[Verdict, float]:
    """What share of them is right, asked, wrong and unread."""
    count = Counter(mark.verdict for mark in marks)
    return {verdict: count[verdict] / len(marks) for verdict in ("right", "asked", "wrong", "unread")}


def report(file: str, *, every: bool = False) -> str:
    """The score of a file by cause, and each thing that is not right."""
    marks = [(r.name, m) for r in recipes(file) for m in score(r, Kitchen())]
    lines = [f"{file}: {len(marks)} things in {len(recipes(file))} recipes"]
    lines += [f"  {verdict:7} {share:6.1%}" for verdict, share in shares([m for _, m in marks]).items()]
    causes = Counter((m.verdict, m.cause) for _, m in marks if m.verdict != "right")
    lines += [f"  {verdict}, {cause}: {n}" for (verdict, cause), n in sorted(causes.items())]
    if every:
        lines += [f"{m.verdict:6} {m.cause:6} {name}: {m.expected} ← {m.found}" for name, m in marks if m.verdict != "right"]
    return "\n".join(lines)
