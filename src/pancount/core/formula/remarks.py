"""Notes worth reading: what is out of the ordinary in a dough, each with its reason, its figure and its source.

They only stand where they apply. A note put to rest for a formula keeps its key in `Formula.rested`.
"""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache, lru_cache

from pancount.core.base.datafiles import entries
from pancount.core.base.errors import Place
from pancount.core.base.models import Frozen
from pancount.core.base.words import listed
from pancount.core.formula.formula import BesideKind, Formula, Line, StageKind, at, each_line, each_step
from pancount.core.formula.gauges import Character, GaugeName, character
from pancount.core.formula.practice import SUGAR_TOLERANT, Practice
from pancount.core.formula.reckon import Reckoned, reckon
from pancount.core.formula.stages import beside_kinds, kinds
from pancount.core.pantry.ingredients import Pantry
from pancount.core.pantry.role import Role

LEAVENING = ("Baking powder", "Baking soda", "Self-raising flour")
SOAKED = (StageKind.SOAKER, StageKind.MASH, StageKind.PASTE, StageKind.SCALD)


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
    """Whole words and phrases that it is told by; a star stands for the rest of a word."""

    def is_said(self, text: str) -> bool:
        """Whether one of its words stands in a text."""
        return bool(self.words) and _any_of(self.words).search(text.casefold()) is not None


@lru_cache(maxsize=64)
def _any_of(words: tuple[str, ...]) -> re.Pattern[str]:
    written = (re.escape(word.casefold()).replace(r"\*", r"\w*").replace(r"\ ", r"[\s-]+") for word in words)
    return re.compile(rf"(?<!\w)(?:{'|'.join(written)})(?!\w)")


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
    return entries(__name__, "remarks.toml")


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
        self.lactose = 0.0
        """Milk sugar in the dough. [%]"""
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
                self.lactose += percent * known.lactose / 100 if known else 0.0
        self.beside = [
            (("beside", b, "lines", n), stage.kind, known.name if (known := pantry.find(line.name)) else line.name)
            for b, stage in enumerate(formula.beside)
            for n, line in enumerate(stage.lines)
        ]
        named = [stage.name for stage in formula.stages] + [stage.name for stage in formula.beside]
        self.told = [*(step.text for step in each_step(formula)), *named]
        """What its method and the names of its parts say."""

    def lines_beside(self, b: int) -> list[str]:
        """The names of what is in one thing beside the dough."""
        return [name for place, _, name in self.beside if place[1] == b]

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
    return f"{value:.{2 if value >= 0.1 else 3}f}".rstrip("0").rstrip(".") + " %"


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
            yield found[0].place, {"figure": _percent(percent), "names": listed([one.name for one in found])}

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


def _sugars_that_slow(look: _Look) -> float:
    """Sugars that hold back yeast: milk's own are left out, and none do where the yeast is a strain for them. [%]"""
    return 0.0 if look.lines_of([SUGAR_TOLERANT]) else look.gauge["sugars"] - look.lactose


def _sugar_slows(look: _Look) -> Iterator[Found]:
    rule, sugars = remark_rules()["sugar_slows"], _sugars_that_slow(look)
    if look.begun and sugars > rule.over:
        lines = [one for one in look.held if one.line.role is Role.SUGAR and one.percent > 0]
        aside = ", milk's own left out" if look.lactose >= 0.05 else ""
        yield max(lines, key=lambda one: one.percent).place if lines else (), {"figure": _percent(sugars), "milk_sugar": aside}


def _leaven_for_sugar(look: _Look) -> Iterator[Found]:
    rule, sugars, yeast = remark_rules()["leaven_for_sugar"], _sugars_that_slow(look), look.gauge["yeast"]
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
        names = listed([one.name for one in found])
        yield found[0].place, {"figure": _percent(percent), "names": names, "wanted": _percent(wanted)}


HOT = (StageKind.PASTE, StageKind.SCALD)
"""Stages that are always hot when they are made. A mash is too, unless it says that it is cold; a soaker where it says so."""
COLD = re.compile(r"\b(?:cool|cold|chilled|kalt|abgekühlt)")


def _hot_paste(look: _Look) -> Iterator[Found]:
    rule = remark_rules()["hot_paste"]
    if not (look.gauge["yeast"] > 0 or look.gauge["prefermented"] > 0):
        return
    for s, stage in enumerate(look.formula.stages):
        said = [stage.name, *(f"{line.name} {line.note} {line.written}" for line in stage.lines)]
        hot_mash = stage.kind is StageKind.MASH and not any(COLD.search(text.casefold()) for text in said)
        hot_soaker = stage.kind is StageKind.SOAKER and any(map(rule.is_said, said))
        if stage.kind in HOT or hot_mash or hot_soaker:
            name = stage.name or kinds()[stage.kind].label
            yield ("stages", s), {"names": f"the {name[:1].lower()}{name[1:]}"}
            return


def _rye_tin(look: _Look) -> Iterator[Found]:
    rye = sum(one.percent for one in look.held if one.line.role is Role.FLOUR and "Rye" in one.name)
    if rye > remark_rules()["rye_tin"].over and look.formula.usual.fill_kind in ("open_tin", "lidded_tin"):
        yield (), {"figure": _percent(rye)}


def _starter_whole(look: _Look) -> Iterator[Found]:
    for one in look.held:
        if one.name in ("Sourdough starter", "Rye sourdough", "Stiff starter") and one.line.hydration is None:
            yield one.place, {"names": one.line.name}
            return


def is_lye(name: str) -> bool:
    """Whether an ingredient's name is one for caustic lye, in either language. Baking soda's names are not.

    >>> [is_lye(name) for name in ("Caustic soda", "NaOH", "Brezellauge 4 %", "Natron", "baking soda")]
    [True, True, True, False, False]
    """
    return name == "Lye" or remark_rules()["lye"].is_said(name)


def _lye(look: _Look) -> Iterator[Found]:
    """In what is beside the dough, in the method, or in the name of a bath that has no soda in it."""
    for place, _, name in look.beside:
        if is_lye(name):
            yield place, {"names": name}
            return
    for b, stage in enumerate(look.formula.beside):
        if is_lye(stage.name) and "Baking soda" not in look.lines_beside(b):
            yield ("beside", b), {"names": stage.name}
            return
    if any(is_lye(step.text) and "soda" not in step.text.casefold() for step in each_step(look.formula)) and not any(
        name == "Baking soda" for *_, name in look.beside
    ):
        yield (), {"names": "Lye"}


def _lye_in_dough(look: _Look) -> Iterator[Found]:
    for one in look.held:
        if is_lye(one.name):
            yield one.place, {"names": one.name}
            return


def _garlic_oil(look: _Look) -> Iterator[Found]:
    """Garlic and oil in one bowl that is not the dough itself, or in a name."""
    bowls = [(("beside", b), look.lines_beside(b)) for b in range(len(look.formula.beside))]
    bowls += [
        (("stages", s), [one.name for one in look.held if one.place[1] == s])
        for s, stage in enumerate(look.formula.stages)
        if stage.kind in (StageKind.INCLUSIONS, StageKind.SOAKER, StageKind.MASH)
    ]
    rule = remark_rules()["garlic_oil"]
    for place, names in bowls:
        oiled = any(name.endswith((" oil", "öl")) for name in names)
        if ("Garlic" in names and oiled) or any(map(rule.is_said, names)):
            yield place, {}
            return
    if any(map(rule.is_said, look.told)):
        yield (), {}


def _said(key: str) -> Callable[[_Look], Iterator[Found]]:
    """Applies where the method, or the name of a part, says so."""

    def applies(look: _Look) -> Iterator[Found]:
        rule = remark_rules()[key]
        if any(map(rule.is_said, look.told)):
            yield (), {}

    return applies


def _eaten_raw(look: _Look) -> Iterator[Found]:
    """Raw egg in a filling or a topping may go on after baking; nothing tells, so it is said."""
    wanted = remark_rules()["eaten_raw"].ingredients
    for place, kind, name in look.beside:
        if name in wanted and kind in (BesideKind.TOPPING, BesideKind.FILLING):
            yield place, {"names": name}
            return


APPLIES: Mapping[str, Callable[[_Look], Iterator[Found]]] = {
    "lye": _lye,
    "lye_in_dough": _lye_in_dough,
    "garlic_oil": _garlic_oil,
    "hot_paste": _hot_paste,
    "hot_sugar": _said("hot_sugar"),
    "deep_fat": _said("deep_fat"),
    "steam": _said("steam"),
    "broiler": _said("broiler"),
    "mixer": _said("mixer"),
    "eaten_raw": _eaten_raw,
    "no_leaven": _no_leaven,
    "salt_low": _gauge("salt_low", "salt", Role.SALT),
    "salt_high": _gauge("salt_high", "salt", Role.SALT),
    "yeast_low": _yeast_low,
    "yeast_high": _gauge("yeast_high", "yeast", Role.LEAVEN),
    "leaven_for_sugar": _leaven_for_sugar,
    "sugar_slows": _sugar_slows,
    "acid": _ingredients("acid"),
    "spice": _ingredients("spice"),
    "thirsty": _thirsty,
    "warm_butter": _ingredients("warm_butter"),
    "malt": _ingredients("malt"),
    "ascorbic": _ingredients("ascorbic"),
    "gluten": _ingredients("gluten"),
    "rye_tin": _rye_tin,
    "starter_whole": _starter_whole,
}
CAUTIONS = (
    "lye", "lye_in_dough", "garlic_oil", "hot_paste", "hot_sugar", "deep_fat", "steam", "broiler", "mixer", "eaten_raw",
)  # fmt: skip


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
