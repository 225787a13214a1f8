"""Ways of a formula: what they change, how they are told apart and brought over, and what older formulas become."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.base import most
from pancount.core.base.errors import CannotChange
from pancount.core.formula.changes import Bring, change_formula
from pancount.core.formula.compare import compare
from pancount.core.formula.earlier import brought_up
from pancount.core.formula.formula import Formula, Stage, StageKind, Way
from pancount.core.formula.gauges import character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.formula.steps import Lasts, OtherPercent, Step
from pancount.core.formula.ways import in_way, keyed, paired, way_number, with_yeast
from pancount.demo.weir_house import examples
from strategies import PANTRY, line_of

LINES = (
    line_of("Bread flour", weight_g=1000, key="f"), line_of("Water", weight_g=620, key="w"), line_of("Fine salt", weight_g=20, key="s"),
    line_of("Instant yeast", weight_g=10, key="y"),
)  # fmt: skip
QUICK = Way(name="Quick", key="q", steps=(Step(kind="mix"), Step(kind="rise", lasts=Lasts.of(60, 90)), Step(kind="bake", lasts=Lasts.of(20))))
NIGHT = Way(name="Night", key="n", changed=(OtherPercent(key="y", percent=0.3),), steps=(*QUICK.steps[:2], Step(kind="chill"), QUICK.steps[2]))
FORMULA = Formula(name="Rolls", stages=(Stage(name="Dough", key="d", lines=LINES),), ways=(QUICK, NIGHT))


def yeast_of(formula: Formula) -> float:
    return character(formula, reckon(formula), PANTRY, Practice()).gauges["yeast"].value


class TestWhatAWayMakes:
    """The formula as a way has it."""

    def test_its_percentages_and_its_stages(self):
        assert yeast_of(in_way(FORMULA, "q")) == pytest.approx(1)
        assert yeast_of(in_way(FORMULA, "n")) == pytest.approx(0.3)
        own = FORMULA.model_copy(update={"ways": (QUICK, NIGHT.model_copy(update={"stages": (Stage(name="Other", lines=LINES[:2]),)}))})
        assert [stage.name for stage in in_way(own, "n").stages] == ["Other"]
        assert in_way(FORMULA, "q").stages == FORMULA.stages

    def test_a_key_that_is_gone_is_the_first_way(self):
        assert [way_number(FORMULA, key) for key in ("q", "n", "", "gone")] == [0, 1, 0, 0]
        assert in_way(Formula(name="x", stages=FORMULA.stages), "n").stages == FORMULA.stages

    @given(st.floats(0.01, 5))
    def test_a_dose_is_the_dose(self, dose):
        """Of the way alone; its rises keep the dose that their times were told for, and it is told once."""
        changed = with_yeast(FORMULA, "n", dose, PANTRY, Practice())
        assert yeast_of(in_way(changed, "n")) == pytest.approx(dose)
        assert yeast_of(in_way(changed, "q")) == pytest.approx(1)
        again = with_yeast(changed, "n", dose / 2, PANTRY, Practice())
        assert [step.told_yeast for step in again.ways[1].steps if step.kind == "rise"] == [pytest.approx(0.3)]
        assert again.ways[0] == FORMULA.ways[0]

    def test_what_a_sponge_brings_is_counted(self):
        """The dough's own yeast makes up the rest; less than the sponge brings is refused with its figure."""
        sponge = Stage(name="Sponge", kind=StageKind.SPONGE, lines=(line_of("Bread flour", weight_g=300), line_of("Water", weight_g=200), line_of("Instant yeast", weight_g=3)))
        formula = FORMULA.model_copy(update={"stages": (sponge, *FORMULA.stages)})
        assert yeast_of(in_way(with_yeast(formula, "q", 0.5, PANTRY, Practice()), "q")) == pytest.approx(0.5)
        with pytest.raises(CannotChange, match=r"0\.23 % already"):
            with_yeast(formula, "q", 0.2, PANTRY, Practice())
        with pytest.raises(CannotChange, match="no yeast to change"):
            with_yeast(Formula(name="x", stages=(Stage(lines=LINES[:3]),)), "", 1, PANTRY, Practice())


def test_keys_are_given_once_and_stay():
    """Every line, stage and thing beside the dough can be called; those that had a key keep it."""
    for formula, _ in examples():
        bare = formula.model_copy(update={"stages": tuple(stage.model_copy(update={"lines": tuple(line.model_copy(update={"key": ""}) for line in stage.lines)}) for stage in formula.stages)})
        made = keyed(bare)
        keys = [part.key for part in (*made.stages, *made.beside)] + [line.key for stage in made.stages for line in stage.lines]
        assert all(keys) and len(set(keys)) == len(keys)
        assert keyed(made) == made
        assert [stage.key for stage in made.stages if stage.key] == [stage.key or new.key for stage, new in zip(bare.stages, made.stages, strict=True)]


class TestBesideEachOther:
    """Two ways, and two formulas with ways."""

    def test_steps_in_pairs(self):
        assert [(pair.ours, pair.theirs, pair.alike) for pair in paired(QUICK, NIGHT)] == [(0, 0, True), (1, 1, True), (None, 2, False), (2, 3, True)]
        slower = NIGHT.model_copy(update={"steps": (NIGHT.steps[0], Step(kind="rise", lasts=Lasts.of(90, 120)))})
        assert [pair.alike for pair in paired(QUICK, slower)] == [True, False, False]

    def test_compared_and_brought_over(self):
        """By name, differences first; a way that one has not is brought over with its steps."""
        plain = FORMULA.model_copy(update={"ways": (QUICK,)})
        compared = compare(plain, FORMULA, 1000, PANTRY, Practice())
        assert [(way.name, way.ours is None) for way in compared.ways] == [("Night", True), ("Quick", False)]
        brought = change_formula(plain, Bring(what="way", theirs=FORMULA, way=1), PANTRY, Practice()).formula
        assert [(way.name, len(way.steps)) for way in brought.ways] == [("Quick", 3), ("Night", 4)]
        assert yeast_of(in_way(brought, brought.ways[1].key)) == pytest.approx(0.3)


class TestOlderFormulas:
    """A draft of steps becomes one way of notes."""

    def test_as_notes_with_their_time_and_warmth(self):
        body = {"name": "x", "stages": [], "steps": [
            {"text": "Rise 60–90 min at 26 °C.", "minutes": [{"low": 60, "high": 90}], "heat_c": [{"low": 26, "high": 26}]},
            {"text": "Bake 10 min at 250 °C, 20 at 200.", "minutes": [{"low": 10, "high": 10}, {"low": 20, "high": 20}], "heat_c": []},
        ]}  # fmt: skip
        (way,) = Formula.model_validate(brought_up(body, 5)).ways
        assert (way.name, [step.kind for step in way.steps]) == ("As written", ["note", "note"])
        assert (way.steps[0].lasts, way.steps[0].heat.low_c, way.steps[1].lasts) == (Lasts.of(60, 90), 26, None)
        assert Formula.model_validate(brought_up({"name": "x", "stages": [], "steps": []}, 5)).ways == ()

    def test_more_of_them_than_a_way_has(self):
        """No word of them is lost."""
        texts = [f"Step {n}: " + "knead on. " * 20 for n in range(200)]
        (way,) = Formula.model_validate(brought_up({"name": "x", "stages": [], "steps": [{"text": text} for text in texts]}, 2)).ways
        assert len(way.steps) <= most.STEPS
        assert " ".join("\n".join(step.text for step in way.steps).split()) == " ".join(" ".join(texts).split())
