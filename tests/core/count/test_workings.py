"""Every worked-out figure opens to a working that comes to that very figure."""

import math
import re

import pytest

from pancount.core.base.derived import Derived
from pancount.core.count.count import one_target
from pancount.core.count.relations import BATCH, TARGET, bare
from pancount.core.count.whole import whole_count
from pancount.core.formula.practice import Practice
from pancount.core.pans.pan import CupTray, LoafTin
from pancount.core.pans.shaping import SHAPES, Shaping
from pancount.core.pantry.ingredients import pantry_with
from pancount.demo.weir_house import BUNS, KIT, OTHERS, RIMMED

NOT_ARITHMETIC = ("where the pan holds", "wide with")
"""A level found by halving, and a layout: their readings say what was done, not a sum."""
SIGNS = {"×": "*", "÷": "/", "−": "-", "²": "**2", "π": "math.pi"}


def come_to(reads: str, inputs: dict[str, float]) -> float:
    """What a reading comes to with its inputs, by Python's own arithmetic."""
    text = re.sub(r"\{([\w.]+)\}", lambda found: f"({inputs[found[1]]!r})", reads)
    for sign, python in SIGNS.items():
        text = text.replace(sign, python)
    text = re.sub(r"([∛√])(\(\(?[^()]*\)|\()", lambda found: ("math.cbrt" if found[1] == "∛" else "math.sqrt") + found[2], text)
    text = re.sub(r"(\(\S+\) / \(\S+\)), up to whole", r"math.ceil(\1 - 1e-9)", text)
    text = re.sub(r"whole pieces in (.*)", r"math.floor(\1 + 1e-9)", text)
    return float(eval(text, {"math": math}))


def agrees(figure: Derived) -> bool:
    inputs = {one.name: one.value / (100 if one.unit == "percent" else 1) for one in figure.inputs}
    shown = figure.value / (100 if figure.unit == "percent" else 1)
    return math.isclose(come_to(figure.reads, inputs), shown, rel_tol=1e-9, abs_tol=1e-9)


@pytest.mark.parametrize(("formula", "count"), [(BUNS, one_target(RIMMED, pieces=24, pans=2)), *OTHERS], ids=lambda x: getattr(x, "name", ""))
def test_figures_of_the_demo_kitchen(formula, count):
    """Depths, loads, mixes, limits, shapes and labels, for each target, with a label of ninety grams."""
    labelled = count.model_copy(update={"targets": tuple(t.model_copy(update={"label_g": 90.0}) for t in count.targets)})
    for i in range(len(count.targets)):
        figures = whole_count(formula, labelled, pantry_with(()), Practice(), KIT, i).figures
        assert {"mixes", "mix", "overweight", "aim_raw"} <= set(figures)
        for name, figure in figures.items():
            assert figure.says.endswith(".")
            if not any(words in figure.reads for words in NOT_ARITHMETIC):
                assert agrees(figure), name


@pytest.mark.parametrize("kind", SHAPES)
@pytest.mark.parametrize("kept", ["thickness_cm", "length_cm", "diameter_cm"])
def test_figures_of_every_shape(kind, kept):
    """Whichever measure is kept."""
    usual = BUNS.usual.model_copy(update={"shaping": Shaping.model_validate({"kind": kind, kept: 14})})
    whole = whole_count(BUNS.model_copy(update={"usual": usual}), one_target(pieces=12), pantry_with(()), Practice(), KIT)
    shapes = [figure for name, figure in whole.figures.items() if name.startswith("shape_")]
    assert shapes
    # An opening that has closed is nothing, where its arithmetic is less than that.
    assert all(agrees(figure) for figure in shapes if figure.value)


@pytest.mark.parametrize(
    "count",
    [
        one_target(pieces=24, baked_g=68),
        one_target(divide_g=1290, piece_g=75),
        one_target(RIMMED, pieces=24, piece_g=77),
        one_target(CupTray(cups=12, diameter_cm=7, depth_cm=3), pans=2, fill=0.6),
        one_target(LoafTin(length_cm=23, width_cm=13, depth_cm=7), pans=2, fill=0.45, pieces_per_pan=1),
    ],
)
def test_quantities_of_the_count(count):
    """Each quantity that a relation gave is what its reading comes to with the other quantities."""
    result = whole_count(BUNS, count, pantry_with(()), Practice(), KIT).count
    relations = {relation.key: relation for relation in (*BATCH, *TARGET)}
    values = {name: worked.value for name, worked in result.quantities.items()}
    checked = 0
    for name, worked in result.quantities.items():
        if worked.relation is None:
            continue
        reads = result.reads.get(name) or relations[worked.relation].ways[bare(name)].reads
        inputs = values | {bare(full): value for full, value in values.items()}
        # A percentage of flour is over a hundred.
        inputs["total_percent"] = values["total_percent"] / 100
        assert come_to(reads, inputs) == pytest.approx(worked.value), name
        checked += 1
    assert checked >= 5
