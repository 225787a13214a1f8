"""A bake in a few words, beside others: the same that its own screen asks for first."""

import pytest

from core.bench.bakes import BEGUN_S, Writer, begun, now, plain
from pancount.core.base.scale import Scale
from pancount.core.bench.begun import begin
from pancount.core.bench.card import Card, card_of
from pancount.core.bench.events import Accepted, Began, Deed, Done, Ended, Skipped, Weighed
from pancount.core.bench.state import ground_of
from pancount.core.count.count import one_target
from pancount.core.formula.formula import Formula, Line, Stage, Usual
from pancount.core.formula.practice import Practice
from pancount.core.heat.climate import Climate
from pancount.core.pans.kit import Kit
from pancount.core.pantry.role import Role


def card(of, *writers: Writer) -> Card:
    return card_of(ground_of(of), [event for writer in writers for event in writer.events], BEGUN_S)


@pytest.mark.parametrize(
    ("deeds", "says"),
    [
        ((), "Weigh Bread flour, 500 g"),
        ((Weighed(line="w0.s0.n0", g=480),), "Weigh Bread flour, 20 g more"),
        ((Weighed(line="w0.s0.n0", g=501),), "Weigh Water, 300 g"),
        ((Weighed(line="w0.s0.n0", g=509),), "Bread flour: 9 g over"),
        ((Weighed(line="w0.s0.n0", g=509), Accepted(line="w0.s0.n0")), "Weigh Water, 300 g"),
        ((Skipped(task="w0.s0.n0"),), "Weigh Water, 300 g"),
        ((Weighed(line="w0.s0.n0", g=500), Weighed(line="w0.s0.n1", g=330)), "Water: 30 g over"),
    ],
)
def test_the_next_line(deeds: tuple[Deed, ...], says: str):
    """What is off is told before what is next, for the screen asks it first."""
    writer = Writer()
    writer.did(*deeds)
    assert card(plain(), writer).next == says


def test_weighed_by_two():
    """Neither knew of the other."""
    one, other = Writer("tablet"), Writer("phone")
    one.did(Weighed(line="w0.s0.n2", g=10))
    other.did(Weighed(line="w0.s0.n2", g=10.5))
    assert card(plain(), one, other).next == "Fine salt was weighed twice"


def test_a_finer_scale():
    """In the steps that the line is weighed in, as on the sheet."""
    assert card(plain(500.4, step="0.1")).next == "Weigh Bread flour, 500.4 g"


def test_in_ounces():
    """A kitchen that weighs in ounces reads ounces: a pound of flour is 16 (453.59237 g, the international pound)."""
    pound = Stage(name="Dough", lines=(Line(name="Bread flour", role=Role.FLOUR, weight_g=453.59237), Line(name="Water", role=Role.LIQUID, weight_g=283.495)))
    of = begin(Formula(name="Weir rolls", stages=(pound,), usual=Usual(piece_g=80)), one_target(leave_remainder=True, dough_g=737.087), (), Practice(), Kit(), Climate(), Scale.model_validate({"unit": "oz", "step": "0.1"}))
    writer = Writer()
    assert card(of).next == "Weigh Bread flour, 16.0 oz"
    writer.did(Weighed(line="w0.s0.n0", g=17 * 28.349523125))
    assert card(of, writer).next == "Bread flour: 1.0 oz over"


def test_agrees_with_the_screen():
    """From the first press to the last: a line that is open, what is asked, or something that may be begun."""
    of, writer = begun("Cardamom milk buns"), Writer()
    for key in now(of).order:
        bake, told = now(of, writer), card(of, writer)
        lines = {f"Weigh {one.name}" for one in bake.lines if one.status == "open"}
        todo = {one.label[:1].upper() + one.label[1:] for one in bake.tasks if one.status == "open" and not one.on}
        on = {f"{one.on}: {one.label}" for one in bake.tasks if one.status == "open" and one.on}
        name = told.next.split(",")[0]
        assert name in lines or any(told.next.startswith(one) for one in (*lines, *todo, *on)), told.next
        line = next((one for one in bake.lines if one.key == key), None)
        writer.did(*((Weighed(line=key, g=line.target_g or 0),) if line else (Began(task=key), Done(task=key))))
    assert card(of, writer).next == ""
    writer.did(Ended(how="done"))
    assert now(of, writer).status == "done"
