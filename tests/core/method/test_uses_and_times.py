"""Every gram goes in once or is said to be left; the whole is the longest path; steps lie where they can."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.formula.formula import Beside, BesideKind, Formula, Stage, StageKind
from pancount.core.formula.step_kinds import step_kinds
from pancount.core.formula.steps import Lasts, Step, Takes
from pancount.core.method.filled import filled
from pancount.core.method.timeline import Graph, strands, timeline
from pancount.core.method.uses import Weights, uses
from strategies import line_of

KINDS = sorted(step_kinds())
LINES = ("Bread flour", "Water", "Whole milk", "Butter", "Sugar", "Fine salt", "Instant yeast", "Egg")


made_before = st.lists(st.sampled_from([StageKind.PASTE, StageKind.POOLISH, StageKind.SOAKER]), max_size=2)


@st.composite
def formulas(draw) -> Formula:
    """One to three stages whose lines have keys, some of them held back; a wash."""
    stages = []
    for s, kind in enumerate([*draw(made_before), StageKind.DOUGH]):
        names = draw(st.lists(st.sampled_from(LINES), min_size=1, max_size=6))
        lines = tuple(
            line_of(name, weight_g=draw(st.floats(1, 2000)), key=f"s{s}l{n}", held_back=draw(st.sampled_from([0, 0, 0.1, 0.5, 1]))) for n, name in enumerate(names)
        )
        stages.append(Stage(name=f"stage {s}", kind=kind, key=f"s{s}", lines=lines))
    return Formula(name="drawn", stages=tuple(stages), beside=(Beside(name="Wash", key="wash", kind=BesideKind.WASH, lines=(line_of("Egg", weight_g=50),)),))


@st.composite
def ways(draw) -> tuple[Formula, tuple[Step, ...]]:
    """Steps of every kind, taking all sorts of things, some of which are gone."""
    formula = draw(formulas())
    keys = [line.key for stage in formula.stages for line in stage.lines]
    stages = [stage.key for stage in formula.stages]
    takes = st.one_of(
        st.builds(Takes, what=st.just("line"), key=st.sampled_from([*keys, "gone"]), part=st.sampled_from(["all", "first", "held_back"]), share=st.sampled_from([1, 0.5, 0.25])),
        st.builds(Takes, what=st.just("rest"), key=st.sampled_from(["", *stages, "gone"])),
        st.builds(Takes, what=st.just("stage"), key=st.sampled_from([*stages, "gone"])),
        st.builds(Takes, what=st.just("beside"), key=st.sampled_from(["wash", "gone"])),
    )
    lasts = st.builds(lambda a, b: Lasts.of(a, a + b), st.floats(0, 300), st.floats(0, 300))
    step = st.builds(
        Step, kind=st.sampled_from(KINDS), of=st.sampled_from(["", *stages, "wash", "gone"]), takes=st.lists(takes, max_size=4).map(tuple),
        lasts=st.one_of(st.none(), lasts), during=st.sampled_from([False, False, False, True]), touches=st.one_of(st.none(), st.integers(1, 9)),
    )  # fmt: skip
    return formula, tuple(draw(st.lists(step, max_size=9)))


def weights_of(formula: Formula) -> Weights:
    lines = tuple(tuple(line.weight_g for line in stage.lines) for stage in formula.stages)
    return Weights(lines, tuple(sum(filter(None, row)) for row in lines), (50.0,))


@given(ways())
def test_every_gram_goes_in_once_or_is_said(way):
    """What all steps take of a line, and what is told of it, come to the line."""
    formula, steps = way
    found, troubles = uses(formula, steps, weights_of(formula))
    told = {(one.what, one.spot) for one in troubles}
    for s, stage in enumerate(formula.stages):
        for n, line in enumerate(stage.lines):
            for held, whole in ((False, 1 - line.held_back), (True, line.held_back)):
                own = [one for some in found for one in some if one.what == "line" and one.spot == (s, n) and one.held_back is held]
                taken = sum(one.weight_g for one in own)
                assert taken == pytest.approx(sum(one.share for one in own) * line.weight_g)
                if taken < whole * line.weight_g - 1e-6:
                    assert ("unused", (s, n)) in told
                elif taken > whole * line.weight_g + 1e-6:
                    assert ("twice", (s, n)) in told
    missing = {i for i, step in enumerate(steps) if any(takes.key == "gone" for takes in step.takes)}
    assert {spot[0] for what, spot in told if what == "gone"} == missing


def test_what_is_said():
    """In words: what no step uses, what was held back, what is used twice, what is gone."""
    lines = (line_of("Bread flour", weight_g=500, key="f"), line_of("Water", weight_g=300, key="w", held_back=0.1), line_of("Fine salt", weight_g=9, key="s"))
    formula = Formula(name="x", stages=(Stage(name="Dough", key="d", lines=lines),))
    steps = (
        Step(kind="mix", takes=(Takes(what="line", key="f"), Takes(what="line", key="w", part="first"), Takes(what="line", key="old", called="Honey"))),
        Step(kind="add", takes=(Takes(what="line", key="f", share=0.5),)),
    )
    assert {one.says for one in uses(formula, steps, weights_of(formula))[1]} == {
        "Bread flour is used 1.5 times over.",
        "No step uses what is held back of Water.",
        "No step uses Fine salt.",
        "Honey is not in the formula any more.",
    }


def paths(graph: Graph, minutes: list[float], at: int) -> list[float]:
    """How long every path that ends with a step takes: by trying them all."""
    return [minutes[at]] if not graph.before[at] else [minutes[at] + length for earlier in graph.before[at] for length in paths(graph, minutes, earlier)]


@given(ways(), st.lists(st.floats(0, 600), min_size=9, max_size=9))
def test_the_whole_is_the_longest_path(way, drawn):
    """Whatever waits for whatever; and it is the sum of the path that is shown as its working."""
    formula, steps = way
    full = tuple(filled(step, 12) for step in steps)
    threads = strands(formula, full)
    graph, minutes = Graph(formula, full, threads), drawn[: len(steps)]
    every = [length for i in range(len(steps)) for length in paths(graph, minutes, i)]
    whole = graph.longest(minutes)
    assert whole == pytest.approx(max(every, default=0))
    assert sum(minutes[i] for i in graph.longest_path(minutes)) == pytest.approx(whole)
    placed = timeline(full, threads, graph, minutes)
    for i, when in enumerate(placed):
        if not full[i].step.during:
            assert all(placed[j].end <= when.begin + 1e-6 for j in graph.before[i])
            assert when.begin >= -1e-6
            assert when.end <= whole + 1e-6
            assert when.end - when.begin == pytest.approx(minutes[i])
        assert all(when.begin - 1e-6 <= begin <= end <= when.end + 1e-6 for begin, end in when.touches)
        assert all(a[1] <= b[0] + 1e-6 for a, b in pairwise(when.touches))
    assert {i for thread in threads for i in thread.steps} == set(range(len(steps)))


def test_a_paste_cools_while_the_yeast_wakes():
    """Two things beside each other join where the dough is mixed: the whole takes no longer than the longer of them."""
    stages = (
        Stage(name="Paste", kind=StageKind.PASTE, key="p", lines=(line_of("Bread flour", weight_g=25), line_of("Whole milk", weight_g=125))),
        Stage(name="Dough", key="d", lines=(line_of("Bread flour", weight_g=475), line_of("Water", weight_g=200), line_of("Instant yeast", weight_g=5))),
    )
    steps = (
        Step(kind="paste", of="p", lasts=Lasts.of(5)), Step(kind="cool_off", of="p", lasts=Lasts.of(30)), Step(kind="wake", lasts=Lasts.of(8)),
        Step(kind="mix", takes=(Takes(what="stage", key="p"),), lasts=Lasts.of(3)), Step(kind="preheat", lasts=Lasts.of(20)), Step(kind="bake", lasts=Lasts.of(15)),
    )  # fmt: skip
    formula, full = Formula(name="x", stages=stages), tuple(filled(step, 12) for step in steps)
    threads = strands(formula, full)
    graph = Graph(formula, full, threads)
    minutes = [one.lasts.usual_min for one in full]
    assert graph.longest(minutes) == 5 + 30 + 3 + 15
    paste, cool, wake, mix, preheat, bake = timeline(full, threads, graph, minutes)
    assert (paste.begin, mix.begin) == (0, 35)
    assert wake.end == mix.begin  # as late as may be: awake just when the paste is cool
    assert preheat.end == bake.begin  # and hot just when it is needed
    assert (wake.waits, cool.waits) == (0, 0)
