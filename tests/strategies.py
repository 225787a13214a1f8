"""Formulas and pins as bakers might have them, and stranger ones."""

from hypothesis import strategies as st

from pancount.core.count import Pins
from pancount.core.formula import Formula, Line, Role, Stage

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


pins = st.builds(
    Pins,
    flour_g=st.none() | st.floats(1, 1e5),
    dough_g=st.none() | st.floats(1, 1e5),
    bench_loss=st.none() | st.floats(0, 0.4),
    divide_g=st.none() | st.floats(1, 1e5),
    pieces=st.none() | st.integers(1, 5000),
    piece_g=st.none() | st.floats(1, 5000),
    pans=st.none() | st.integers(1, 50),
    pieces_per_pan=st.none() | st.integers(1, 100),
    fill=st.none() | st.floats(0.1, 3),
)

pins_in_pieces = st.one_of(
    st.builds(Pins, pans=st.integers(1, 20), pieces_per_pan=st.integers(1, 40), piece_g=st.none() | st.floats(1, 500)),
    st.builds(Pins, pans=st.integers(1, 20), flour_g=st.floats(1000, 1e5)),
    st.builds(Pins, pans=st.integers(1, 20), fill=st.floats(0.1, 3), bench_loss=st.floats(0, 0.4)),
)
"""Pins from which dough comes out in whole pieces and full pans."""
