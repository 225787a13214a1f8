"""A taken-in recipe as a formula: stages from its headings, what is kept out beside it, its yield as the first pins."""

from collections.abc import Sequence
from typing import Any

from pancount.core.base.errors import CoreError
from pancount.core.base.models import MOST_GRAMS, Band
from pancount.core.count.count import Count, one_target
from pancount.core.formula.formula import Beside, BesideKind, Formula, Line, Stage, Usual
from pancount.core.formula.reckon import flour_share, reckon
from pancount.core.formula.stages import kinds_named
from pancount.core.pantry.ingredients import Pantry, pantry_with
from pancount.core.pantry.measures import measures
from pancount.core.pantry.role import Role
from pancount.core.taking.amounts import amount
from pancount.core.taking.plain import sentences
from pancount.core.taking.steps import read_steps
from pancount.core.taking.taken import TakenIn, TakenLine, Thing, Where
from pancount.core.taking.tokens import tokens
from pancount.core.taking.yields import Makes, makes_of

BESIDE: dict[Where, tuple[str, BesideKind]] = {
    "wash": ("Wash", BesideKind.WASH),
    "topping": ("Topping", BesideKind.TOPPING),
    "filling": ("Filling", BesideKind.FILLING),
    "bath": ("Bath", BesideKind.BATH),
    "pan": ("For the pan", BesideKind.PAN_OIL),
    "bench": ("For the bench", BesideKind.BENCH),
}
"""What is kept out of the dough, by where it goes."""
FILL_OF = {"rectangle": "focaccia", "square": "focaccia", "round": "pan_pizza"}
"""The fill rule that a whole pan of dough starts from, by its shape."""


def make_formula(taken: TakenIn) -> tuple[Formula, Count]:
    """The formula and its first count. Lines without a weight come with their amount open.

    Weights are the usual ones, with their band; each line keeps its text. Raises nothing: a formula that lacks flour
    is for the baker to finish.
    """
    stages: dict[str, list[Line]] = {}
    beside: dict[Where, list[Line]] = {}
    for line in taken.lines:
        for thing in line.things:
            if thing.where == "dough":
                own = stages.setdefault(line.group or "Dough", [])
                if thing.part and _is_held_back(thing) and own and own[-1].name == thing.name:
                    own[-1] = _with_held_back(own[-1], _line(line, thing))
                else:
                    own.append(_line(line, thing))
            else:
                beside.setdefault(thing.where, []).append(_line(line, thing))
    formula = Formula(
        name=taken.title,
        stages=_stages(stages)[:50] or (Stage(name="Dough"),),
        beside=tuple(
            Beside(name=BESIDE[where][0], kind=BESIDE[where][1], lines=tuple(found[:500])) for where, found in beside.items()
        ),
        note="\n".join(line.text.strip() for line in taken.lines if line.kind == "note" and line.text.strip())[:10_000] if taken.lines else "",
    )
    told = method_text(taken.lines)
    formula, count = _counted(formula, _with_pan_of(told, taken.makes))
    return with_method(formula, told, pantry_with(())), count


def method_text(lines: Sequence[TakenLine]) -> str:
    """The method in a recipe: its steps, what stands between them, and the heading right above the first."""
    steps = [n for n, line in enumerate(lines) if line.kind == "step" and line.text.strip()]
    if not steps:
        return ""
    begin = steps[0]
    while begin and lines[begin - 1].kind in ("heading", "blank"):
        begin -= 1
    return "\n".join(line.text for line in lines[begin : steps[-1] + 1] if line.kind in ("step", "note", "heading", "yield")).strip()


def with_method(formula: Formula, told: str, pantry: Pantry, name: str = "As written") -> Formula:
    """The formula with a method read as its one way; as it is where nothing is told."""
    if not told:
        return formula
    formula, way = read_steps(told, formula, pantry)
    formula = formula.model_copy(update={"ways": (way.model_copy(update={"name": name}),)})
    baked = next((step.lasts for step in way.steps if step.kind in ("bake", "griddle") and step.lasts), None)
    if baked and baked.usual_min >= 0.1:
        formula = formula.model_copy(update={"usual": formula.usual.model_copy(update={"bake_min": min(baked.usual_min, 10_000)})})
    return formula


def _with_pan_of(told: str, makes: Makes) -> Makes:
    """What a recipe makes, with the pan that its method names where nothing else names one."""
    if makes.pan is not None:
        return makes
    for sentence in sentences(told):
        found = makes_of(tokens(sentence))
        if found.pan is not None:
            return makes.model_copy(update={"pan": found.pan, "pans": makes.pans or found.pans})
    return makes


def _stages(lines: dict[str, list[Line]]) -> tuple[Stage, ...]:
    kinds = kinds_named(list(lines))
    return tuple(
        Stage(name=name[:300], kind=kind, lines=tuple(found[:500]))
        for kind, (name, found) in zip(kinds, lines.items(), strict=True)
    )


def _line(line: TakenLine, thing: Thing) -> Line:
    band, known = thing.band, pantry_with(()).find(thing.name)
    return Line(
        name=thing.name[:300],
        role=thing.role,
        hydration=known.hydration if known and thing.role is Role.LEAVEN else None,
        weight_g=band.usual_g if band else None,
        note=thing.state[:300],
        held_back=_held_back(thing),
        written=line.text.strip()[:1000],
        band=band if band and _uncertain(band) else None,
    )


HELD_BACK = "held back"


def _is_held_back(thing: Thing) -> bool:
    return thing.state.startswith(HELD_BACK)


def _with_held_back(line: Line, rest: Line) -> Line:
    """"300 g water + 30 g held back" is one line of 330 g, of which 30 g are held back."""
    if not line.weight_g or not rest.weight_g:
        return line
    whole = line.weight_g + rest.weight_g
    return line.model_copy(update={"weight_g": whole, "held_back": rest.weight_g / whole, "band": None})


def _held_back(thing: Thing) -> float:
    """The share of a line that its words hold back: "330 g water, hold back 30 g"; for water in spoons too."""
    asked = amount(tokens(thing.state.removeprefix(HELD_BACK).lstrip(", ")), 0) if _is_held_back(thing) else None
    if not asked or thing.band is None or not thing.band.usual_g:
        return 0.0
    part = asked[0].parts[0]
    measure = measures().get(part.measure)
    share = 1.0
    if measure and measure.size and (measure.kind == "weight" or thing.name == "Water"):  # a millilitre is a gram for water alone
        share = part.usual * next(iter(measure.size.values())) / thing.band.usual_g
    return share if share < 1 else 0.0


def _uncertain(band: Band) -> bool:
    """Whether a band is more than a scale's own step."""
    return band.high_g - band.low_g > 0.02 * band.usual_g and band.high_g - band.low_g > 1.01


def _counted(formula: Formula, makes: Makes) -> tuple[Formula, Count]:
    """With the yield as pins, so that the count starts with what the recipe itself makes."""
    try:
        dough_g = reckon(formula).weight_g
    except CoreError:
        return formula, one_target(makes.pan)
    pans = makes.pans or 1
    pieces = makes.pieces or (pans if makes.pan else None)
    usual = Usual(pans=pans)
    if pieces and (piece_g := dough_g * (1 - usual.bench_loss) / pieces) <= MOST_GRAMS and piece_g > 0:
        per_pan = max(1, round(pieces / pans))
        usual = usual.model_copy(
            update={"piece_g": piece_g, "pieces_per_pan": min(per_pan, 10_000), "pan": makes.pan}
        )
    pins: dict[str, Any] = {"pieces": makes.pieces, "pans": makes.pans}
    if makes.pan is not None and not makes.pieces:
        usual = usual.model_copy(update={"fill_kind": FILL_OF[makes.pan.shape], "pieces_per_pan": 1})
        # One slab a pan: as thick as the recipe has it, so its flour stays.
        pins = {"pans": pans, "pieces_per_pan": 1, "flour_g": _flour_g(formula)}
    return formula.model_copy(update={"usual": usual}), one_target(makes.pan, **pins)


def _flour_g(formula: Formula) -> float | None:
    flour = sum((line.weight_g or 0) * flour_share(line) for s in formula.stages for line in s.lines)
    return flour if 0 < flour <= MOST_GRAMS else None
