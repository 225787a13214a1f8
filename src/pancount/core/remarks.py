"""Notes worth reading: what is out of the ordinary in a dough, each with its reason, its figure and its source.

They only stand where they apply. A note put to rest for a formula keeps its key in `Formula.rested`.
"""

import tomllib
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

from pancount.core.base import Frozen
from pancount.core.errors import Place
from pancount.core.formula import Formula, Line, Role, StageKind, at, each_line
from pancount.core.gauges import Character, GaugeName, character
from pancount.core.pantry import Pantry
from pancount.core.practice import Practice
from pancount.core.reckon import Reckoned, reckon
from pancount.core.stages import beside_kinds

LEAVENING = ("Baking powder", "Baking soda", "Self-raising flour")
SOAKED = (StageKind.SOAKER, StageKind.MASH, StageKind.PASTE)


class RemarkRule(Frozen):
    """When a note applies, what it says, and where that comes from."""

    title: str
    says: str
    source: str
    under: float = 0
    over: float = 0
    yeast_from: float = 0
    yeast_per_sugar: float = 0
    ingredients: tuple[str, ...] = ()
    words: tuple[str, ...] = ()


class Remark(Frozen):
    """A note on a formula: what it is about, why, and at which line or stage, if at one."""

    key: str
    title: str
    says: str
    source: str
    at: Place
    caution: bool
    """Whether it can hurt someone: shown first, and never hidden."""
    rested: bool


@cache
def _data() -> dict[str, dict[str, object]]:
    text = files("pancount.core").joinpath("data", "remarks.toml").read_text(encoding="utf-8")
    return tomllib.loads(text)


@cache
def remark_rules() -> Mapping[str, RemarkRule]:
    """The rules of notes by key."""
    return {key: RemarkRule.model_validate(rule) for key, rule in _data().items() if key != "drinks"}


def drinks(name: str) -> float:
    """How much water a seed or flake takes up, in parts of its own weight. Common practice, no source."""
    return float(_data()["drinks"].get(name, 0))  # type: ignore[arg-type]


@dataclass(frozen=True, slots=True)
class _Held:
    """A line with its ingredient's own name, its place, and what reaches the dough of it. [%]"""

    line: Line
    name: str
    place: Place
    kind: StageKind
    percent: float


class _Look:
    """A formula as the rules look at it."""

    def __init__(self, formula: Formula, reckoned: Reckoned, character: Character, pantry: Pantry) -> None:
        self.formula = formula
        self.gauge = {key: gauge.value for key, gauge in character.gauges.items()}
        self.held: list[_Held] = []
        self._by_name: dict[str, list[_Held]] = {}
        for s, n, line in each_line(formula):
            known, figures = pantry.find(line.name), reckoned.stages[s]
            percent = figures.lines[n].percent * figures.reach
            name = known.name if known else line.name
            one = _Held(line, name, at(s, n), formula.stages[s].kind, percent)
            self.held.append(one)
            if percent > 0:
                self._by_name.setdefault(name, []).append(one)
        self.beside = [
            (("beside", b, "lines", n), stage.kind, known.name if (known := pantry.find(line.name)) else line.name)
            for b, stage in enumerate(formula.beside)
            for n, line in enumerate(stage.lines)
        ]

    @property
    def begun(self) -> bool:
        """Whether there is leaven in it: before that a dough is still being written, and lacks what comes yet."""
        return self.gauge["yeast"] > 0 or self.gauge["prefermented"] > 0

    def lines_of(self, names: Sequence[str]) -> list[_Held]:
        """Lines of these ingredients with some in them."""
        return [one for name in names for one in self._by_name.get(name, ())]


Found = tuple[Place, dict[str, str]]
"""Where it applies, and the words that its sentence is filled with."""


def _percent(value: float) -> str:
    return f"{value:.2f}".rstrip("0").rstrip(".") + " %"


def _listed(names: Sequence[str]) -> str:
    """Names as they are said: "Yogurt and Quark"."""
    unlike = list(dict.fromkeys(names))
    return " and ".join(filter(None, [", ".join(unlike[:-1]), unlike[-1]]))


def _gauge(key: str, name: GaugeName, role: Role) -> Callable[[_Look], Iterator[Found]]:
    """Applies where a gauge is under or over its figure. `role` tells which line to point at."""

    def applies(look: _Look) -> Iterator[Found]:
        rule, value = remark_rules()[key], look.gauge[name]
        if not look.begun or not (value < rule.under or 0 < rule.over < value):
            return
        lines = [one for one in look.held if one.line.role is role and one.percent > 0]
        place = max(lines, key=lambda one: one.percent).place if lines else ()
        yield place, {"figure": _percent(value)}

    return applies


def _ingredients(key: str) -> Callable[[_Look], Iterator[Found]]:
    """Applies where certain ingredients in the dough come to more than its figure."""

    def applies(look: _Look) -> Iterator[Found]:
        rule = remark_rules()[key]
        found = look.lines_of(rule.ingredients)
        if (percent := sum(one.percent for one in found)) > rule.over:
            yield found[0].place, {"figure": _percent(percent), "names": _listed([one.name for one in found])}

    return applies


def _no_leaven(look: _Look) -> Iterator[Found]:
    """Once there is salt: that goes in last of what every dough has."""
    leavens = [one for one in look.held if one.line.role is Role.LEAVEN or one.name in LEAVENING]
    is_written = any(one.line.role is Role.SALT for one in look.held)
    if is_written and not look.begun and not any(one.line.percent != 0 and one.line.weight_g != 0 for one in leavens):
        yield (), {}


def _yeast_low(look: _Look) -> Iterator[Found]:
    """A starter does the work of yeast, and is not measured by it."""
    if look.gauge["yeast"] > 0 and look.gauge["prefermented"] == 0:
        yield from _gauge("yeast_low", "yeast", Role.LEAVEN)(look)


def _leaven_for_sugar(look: _Look) -> Iterator[Found]:
    rule, sugars, yeast = remark_rules()["leaven_for_sugar"], look.gauge["sugars"], look.gauge["yeast"]
    wanted = rule.yeast_from + rule.yeast_per_sugar * (sugars - rule.over)
    if sugars > rule.over and 0 < yeast < wanted:
        place = next((one.place for one in look.held if one.line.role is Role.LEAVEN), ())
        yield place, {"figure": _percent(yeast), "wanted": _percent(wanted)}


def _thirsty(look: _Look) -> Iterator[Found]:
    rule = remark_rules()["thirsty"]
    found = [one for one in look.lines_of(rule.ingredients) if one.kind not in SOAKED]
    percent = sum(one.percent for one in found)
    if percent > rule.over:
        wanted = sum(one.percent * drinks(one.name) for one in found)
        names = _listed([one.name for one in found])
        yield found[0].place, {"figure": _percent(percent), "names": names, "wanted": _percent(wanted)}


def _hot_paste(look: _Look) -> Iterator[Found]:
    pastes = [s for s, stage in enumerate(look.formula.stages) if stage.kind is StageKind.PASTE]
    if pastes and look.gauge["yeast"] > 0:
        name = look.formula.stages[pastes[0]].name or "paste"
        yield ("stages", pastes[0]), {"names": f"the {name[:1].lower()}{name[1:]}"}


def _starter_whole(look: _Look) -> Iterator[Found]:
    for one in look.held:
        if one.name in ("Sourdough starter", "Rye sourdough", "Stiff starter") and one.line.hydration is None:
            yield one.place, {"names": one.line.name}
            return


def _is_lye(name: str) -> bool:
    return any(word in name.casefold() for word in remark_rules()["lye"].words)


def _lye(look: _Look) -> Iterator[Found]:
    for place, _, name in look.beside:
        if _is_lye(name):
            yield place, {"names": name}
            return


def _lye_in_dough(look: _Look) -> Iterator[Found]:
    for one in look.held:
        if _is_lye(one.name):
            yield one.place, {"names": one.name}
            return


def _garlic_oil(look: _Look) -> Iterator[Found]:
    by_stage: dict[str | int, list[str]] = {}
    for place, _, name in look.beside:
        by_stage.setdefault(place[1], []).append(name)
    for b, names in by_stage.items():
        if "Garlic" in names and any(name.endswith(" oil") for name in names):
            yield ("beside", b), {}
            return


APPLIES: Mapping[str, Callable[[_Look], Iterator[Found]]] = {
    "lye": _lye,
    "lye_in_dough": _lye_in_dough,
    "garlic_oil": _garlic_oil,
    "hot_paste": _hot_paste,
    "no_leaven": _no_leaven,
    "salt_low": _gauge("salt_low", "salt", Role.SALT),
    "salt_high": _gauge("salt_high", "salt", Role.SALT),
    "yeast_low": _yeast_low,
    "yeast_high": _gauge("yeast_high", "yeast", Role.LEAVEN),
    "leaven_for_sugar": _leaven_for_sugar,
    "sugar_slows": _gauge("sugar_slows", "sugars", Role.SUGAR),
    "acid": _ingredients("acid"),
    "spice": _ingredients("spice"),
    "thirsty": _thirsty,
    "starter_whole": _starter_whole,
}
CAUTIONS = ("lye", "lye_in_dough", "garlic_oil", "hot_paste")


def remarks(formula: Formula, reckoned: Reckoned, character: Character, pantry: Pantry) -> tuple[Remark, ...]:
    """Every note that applies, cautions first; those put to rest last, but for cautions."""
    look, found = _Look(formula, reckoned, character, pantry), []
    for key, applies in APPLIES.items():
        rule = remark_rules()[key]
        for place, words in applies(look):
            caution = key in CAUTIONS
            found.append(
                Remark(
                    key=key,
                    title=rule.title,
                    says=rule.says.format(**words),
                    source=rule.source,
                    at=place,
                    caution=caution,
                    rested=key in formula.rested,
                )
            )
    for kind in dict.fromkeys(stage.kind for stage in formula.beside if stage.lines):
        beside = beside_kinds()[kind]
        if beside.caution:
            key, title = f"beside_{kind}", beside.label[:1].upper() + beside.label[1:]
            found.append(
                Remark(
                    key=key, title=title, says=beside.caution, source=beside.source, at=(), caution=True,
                    rested=key in formula.rested,
                )
            )  # fmt: skip
    return tuple(sorted(found, key=lambda remark: (remark.rested and not remark.caution, not remark.caution)))


def cautions(formula: Formula, pantry: Pantry) -> tuple[str, ...]:
    """What can hurt someone in the making of it, each as a sentence or two. Raises what `reckon` raises."""
    reckoned = reckon(formula)
    look = character(formula, reckoned, pantry, Practice())
    return tuple(one.says for one in remarks(formula, reckoned, look, pantry) if one.caution)
