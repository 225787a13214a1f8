"""Formulas of earlier releases, brought up step by step."""

import pytest

from pancount.core.earlier import SCHEMA_NUMBER, STEPS, brought_up
from pancount.core.formula import Formula
from pancount.core.reckon import reckon

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
