"""Formulas and pins as bakers might have them, and stranger ones."""

from hypothesis import strategies as st
from pydantic import ValidationError

from pancount.core.count.count import Pins, TargetPins
from pancount.core.formula.formula import Feed, Formula, Line, Stage, StageKind
from pancount.core.formula.reckon import with_flour_made_up
from pancount.core.pans.pan import (
    CupTray,
    Griddle,
    IronPan,
    LiddedTin,
    LoafTin,
    RectanglePan,
    RingPan,
    RoundPan,
    SheetPan,
    SquarePan,
    Stone,
    volume_ml,
)
from pancount.core.pantry.ingredients import pantry_with
from pancount.core.pantry.role import Role

weights = st.floats(min_value=1e-3, max_value=1e6)
percents = st.floats(min_value=0, max_value=1500)


@st.composite
def formulas(draw: st.DrawFn) -> Formula:
    """One to four stages, flour in at least one, each line in grams or percent or with its amount open."""
    role = st.sampled_from([r for r in Role if r is not Role.FLOUR])
    other = st.one_of(
        st.builds(Line, name=st.text("abcäö ", min_size=1), role=role, weight_g=weights),
        st.builds(Line, name=st.text("abcäö ", min_size=1), role=role, percent=percents),
        st.builds(Line, name=st.just("open"), role=role),
    )
    flour = st.builds(Line, name=st.just("flour"), role=st.just(Role.FLOUR), weight_g=weights)
    stages = [
        Stage(name=f"stage {n}", lines=tuple(draw(st.lists(st.one_of(other, flour), max_size=8))))
        for n in range(draw(st.integers(0, 3)))
    ]
    stages.append(Stage(name="dough", lines=(draw(flour), *draw(st.lists(other, max_size=8)))))
    return Formula(name="drawn", stages=tuple(stages))


PANTRY = pantry_with(())


def line_of(name: str, **amount: object) -> Line:
    """A line of the shipped pantry."""
    known = PANTRY.find(name)
    assert known, name
    return Line.model_validate({"name": known.name, "role": known.role, "hydration": known.hydration, **amount})


FLOURS = ("Bread flour", "Plain flour", "Wholemeal flour")
OTHERS = ("Water", "Whole milk", "Egg", "Butter", "Sugar", "Honey", "Fine salt", "Instant yeast", "Squash, mashed", "Leek")
MIXED = [kind for kind in StageKind if kind not in (StageKind.DOUGH, StageKind.INCLUSIONS)]


@st.composite
def mixed_formulas(draw: st.DrawFn, *, by_weight: bool | None = None) -> Formula:
    """A formula as it is mixed: stages of any kind before the dough, going into it or into each other, in whole or in part.

    All flour by weight, or all in percent making 100 over what reaches the dough; ingredients are the pantry's.
    """
    weigh = draw(st.booleans()) if by_weight is None else by_weight
    count = draw(st.integers(0, 3))
    stages: list[Stage] = []
    share = st.sampled_from([1.0, 1.0, 0.9, 0.5])
    amount = st.floats(1, 500) if weigh else st.floats(0.5, 40)
    for n in range(count):
        kind = draw(st.sampled_from(MIXED))
        names = draw(st.lists(st.sampled_from(OTHERS), max_size=3, unique=True))
        lines = [line_of(name, **{"weight_g" if weigh else "percent": draw(amount)}) for name in names]
        if draw(st.booleans()):
            lines.insert(0, line_of(draw(st.sampled_from(FLOURS)), **({"weight_g": draw(amount)} if weigh else {"percent": draw(st.floats(1, 20))})))
        into = draw(st.sampled_from([*(f"s{m}" for m in range(n + 1, count)), "dough"]))
        boiled = draw(st.sampled_from([0.0, 0.0, 0.06])) if kind is StageKind.PASTE else 0.0
        feeds = (Feed(into=into, share=draw(share)),)
        stages.append(Stage(name=f"stage {n}", kind=kind, key=f"s{n}", feeds=feeds, boiled_off=boiled, lines=tuple(lines)))
    names = ("Water", "Fine salt", *draw(st.lists(st.sampled_from(OTHERS[1:]), max_size=5, unique=True)))
    own = [line_of(name, **{"weight_g" if weigh else "percent": draw(amount)}) for name in dict.fromkeys(names)]
    flour = line_of("Bread flour", weight_g=draw(st.floats(200, 2000))) if weigh else line_of("Bread flour", percent=100.0)
    stages.append(Stage(name="dough", kind=StageKind.DOUGH, key="dough", lines=(flour, *own)))
    formula = Formula(name="mixed", stages=tuple(stages))
    return formula if weigh else with_flour_made_up(formula)


pins = st.fixed_dictionaries(
    {},
    optional={
        "flour_g": st.floats(1, 1e5),
        "dough_g": st.floats(1, 1e5),
        "bench_loss": st.floats(0, 0.4),
        "divide_g": st.floats(1, 1e5),
        "take_g": st.floats(1, 1e5),
        "pieces": st.integers(1, 5000),
        "piece_g": st.floats(1, 5000),
        "bake_loss": st.floats(0, 0.4),
        "baked_g": st.floats(1, 5000),
        "pans": st.integers(1, 50),
        "pieces_per_pan": st.integers(1, 100),
        "fill": st.floats(0.1, 3),
    },
)
"""Pins of a count with one target, by name."""

pins_in_pieces = st.one_of(
    st.fixed_dictionaries(
        {"pans": st.integers(1, 20), "pieces_per_pan": st.integers(1, 40)}, optional={"piece_g": st.floats(1, 500)}
    ),
    st.fixed_dictionaries({"pans": st.integers(1, 20), "flour_g": st.floats(1000, 1e5)}),
    st.fixed_dictionaries({"pans": st.integers(1, 20), "fill": st.floats(0.1, 3), "bench_loss": st.floats(0, 0.4)}),
)
"""Pins from which dough comes out in whole pieces and full pans."""

sizes = st.floats(4, 60)
deep = st.floats(1, 15)
slope = st.floats(0.6, 1)


def _sloping(model: type, top: tuple[str, ...], **fixed: st.SearchStrategy) -> st.SearchStrategy:
    """Pans whose base is a little smaller than their top, some of them measured by water."""

    @st.composite
    def draw_pan(draw: st.DrawFn):
        measures = {name: draw(sizes) for name in top}
        share = draw(slope)
        measures |= {f"base_{name}": size * share for name, size in measures.items()}
        if "corner_cm" in model.model_fields:
            measures["corner_cm"] = draw(st.none() | st.floats(0.05, 0.49).map(lambda part: max(0.1, part * min(measures.values()))))
        pan = model(depth_cm=draw(deep), **measures, **{name: draw(value) for name, value in fixed.items()})
        return pan.model_copy(update={"brim_ml": draw(st.none() | st.floats(0.8, 1.2).map(lambda s: s * volume_ml(pan)))})

    return draw_pan()


pans = st.one_of(
    _sloping(RectanglePan, ("length_cm", "width_cm")),
    _sloping(SquarePan, ("side_cm",)),
    _sloping(RoundPan, ("diameter_cm",)),
    _sloping(IronPan, ("diameter_cm",)),
    _sloping(LoafTin, ("length_cm", "width_cm")),
    _sloping(LiddedTin, ("length_cm", "width_cm")),
    _sloping(RingPan, ("diameter_cm",), hole_cm=st.floats(0.5, 2)),
    _sloping(CupTray, ("diameter_cm",), cups=st.integers(1, 24)),
    st.builds(SheetPan, length_cm=sizes, width_cm=sizes, depth_cm=deep),
    st.builds(Griddle, diameter_cm=sizes),
    st.builds(Stone, length_cm=sizes, width_cm=sizes),
)
"""A pan of any shape."""


def can_be_pinned(name: str, value: float) -> bool:
    """Whether a pin may be so much: a ten-thousandth of a pan, or a millionth of a gram, is none."""
    pins = Pins if name in Pins.model_fields else TargetPins
    try:
        return bool(pins.model_validate({name: value}))
    except ValidationError:
        return False
