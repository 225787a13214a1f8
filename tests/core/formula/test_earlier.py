"""Formulas of earlier releases, brought up step by step."""

import pytest

from pancount.core.count.count import Count
from pancount.core.formula.earlier import SCHEMA_NUMBER, STEPS, brought_up, count_brought_up
from pancount.core.formula.formula import Formula
from pancount.core.formula.reckon import reckon

BODY = {
    "name": "old",
    "stages": [
        {"name": "Sponge", "lines": [{"name": "Bread flour", "role": "flour", "percent": 20}, {"name": "Water", "role": "liquid", "percent": 20}]},
        {"name": "", "lines": [{"name": "Bread flour", "role": "flour", "percent": 80}, {"name": "Sourdough starter", "role": "leaven", "percent": 10}]},
    ],
    "beside": [{"name": "For the bench", "lines": [{"name": "Bread flour", "role": "flour", "weight_g": 20}]}],
}


@pytest.mark.parametrize("number", [1, 2])
def test_no_gram_moves(number):
    """A sponge is told by its name; a starter that was one line stays one, at its weight."""
    formula = Formula.model_validate(brought_up(BODY, number))
    assert [stage.kind for stage in formula.stages] == ["sponge", "dough"]
    assert formula.beside[0].kind == "bench"
    reckoned = reckon(formula)
    assert [f.weight_g for s in reckoned.stages for f in s.lines] == [200, 200, 800, 100]
    assert formula.stages[1].lines[1].hydration is None


def test_what_is_new_stays():
    """A formula of now is not touched, and every earlier number has its step."""
    body = Formula.model_validate(brought_up(BODY, 2)).model_dump(mode="json")
    assert brought_up(body, SCHEMA_NUMBER) == body
    assert set(STEPS) == set(range(1, SCHEMA_NUMBER))


def test_the_old_body_is_left_as_it_was():
    """A revision never changes, in memory neither."""
    brought_up(BODY, 1)
    assert "kind" not in BODY["stages"][0]


class TestCounts:
    """Counts as earlier releases kept them, with one target's pins among those of the batch."""

    def test_pins_go_to_the_target(self):
        """Flour stays with the batch; pieces, pans and the pan go with the target; nothing is lost."""
        pan = {"shape": "round", "diameter_cm": 30, "depth_cm": 5}
        old = {"pins": {"flour_g": 1000, "pieces": 24, "pans": None, "fill": 1.2}, "pan": pan, "leave_remainder": True, "leave_gaps": True}
        count = Count.model_validate(count_brought_up(old, 3))
        (target,) = count.targets
        assert (count.pins.flour_g, count.leave_remainder) == (1000, True)
        assert (target.pins.pieces, target.pins.fill, target.pan.diameter_cm, target.leave_gaps) == (24, 1.2, 30, True)

    def test_an_empty_one_and_one_of_now(self):
        """Nothing told is nothing pinned; what is of now stays as it is."""
        assert Count.model_validate(count_brought_up({}, 1)) == Count()
        now = Count().model_dump(mode="json")
        assert count_brought_up(now, SCHEMA_NUMBER) == now
