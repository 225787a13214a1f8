"""Over-pours with their results, additions at the mixer, and what is offered as the next revision."""

import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from core.bench.bakes import Writer, begun, counted, line, now, plain, task
from pancount.core.base.models import Band
from pancount.core.bench.events import Accepted, Added, Began, HeldBack, Scaled, Weighed
from pancount.core.bench.mixed import points_words
from pancount.core.count.count import one_target
from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.formula.reckon import reckon
from pancount.core.pantry.role import Role

QUICK = settings(max_examples=60, phases=(Phase.explicit, Phase.reuse, Phase.generate))


def decided(writer: Writer, of, key: str) -> Writer:
    """The baker takes a way to go on."""
    option = next(one for one in now(of, writer).questions[0].options if one.key == key)
    writer.did(*option.deeds)
    return writer


class TestWithinTolerance:
    """Nothing to do, and nothing is asked."""

    @pytest.mark.parametrize(("g", "asked"), [(500, 0), (502, 0), (502.5, 0), (503, 1), (497, 1)])
    def test_flour(self, g, asked):
        """Half a percent of 500 g: 2.5 g."""
        writer = Writer()
        writer.did(Weighed(line="w0.s0.n0", g=g))
        assert len(now(plain(), writer).questions) == asked


class TestTakenOut:
    """Nothing changes."""

    def test_and_it_is_as_meant(self):
        of, writer = plain(), Writer()
        writer.did(Weighed(line="w0.s0.n1", g=330))
        bake = now(of, decided(writer, of, "take_out"))
        assert (line(bake, "Water").in_g, bake.dough.mixed_g, bake.questions) == (300, bake.dough.planned_g, ())

    def test_not_once_it_is_mixed(self):
        """What is stirred in cannot be taken out, so it is not offered."""
        of = begun("Malted seed bagels")
        writer = Writer()
        mix, water = task(now(of), "mix"), next(one for one in now(of).lines if one.name == "Water" and one.of == "Dough")
        writer.did(Began(task=mix.key), Weighed(line=water.key, g=(water.target_g or 0) + 40))
        assert "take_out" not in [one.key for one in now(of, writer).questions[0].options]


class TestScaled:
    """What is in stays; the rest follows."""

    def test_the_rest_follows(self):
        """330 of 300 g of water: everything a tenth more. Worked by hand: 550 flour, 11 salt, 5.5 (6 on this scale) yeast."""
        of, writer = plain(), Writer()
        writer.did(Weighed(line="w0.s0.n1", g=330))
        bake = now(of, decided(writer, of, "scale"))
        assert [line(bake, name).target_g for name in ("Bread flour", "Water", "Fine salt", "Instant yeast")] == [550, 330, 11, 6]
        assert (line(bake, "Water").status, bake.questions) == ("in", ())

    def test_what_is_in_needs_more(self):
        """Flour that was in first is short now, and is to be topped up."""
        of, writer = plain(), Writer()
        writer.did(Weighed(line="w0.s0.n0", g=500), Weighed(line="w0.s0.n1", g=330))
        told = next(one for one in now(of, writer).questions[0].options if one.key == "scale")
        assert any("Bread flour 50 g" in says for says in told.says)
        bake = now(of, decided(writer, of, "scale"))
        flour = line(bake, "Bread flour")
        assert (flour.status, flour.target_g) == ("under", 550)

    def test_several_in_a_row(self):
        """A second over-pour scales from what was meant at first, not from what the first made of it."""
        of, writer = plain(), Writer()
        writer.did(Weighed(line="w0.s0.n1", g=330))
        decided(writer, of, "scale")
        writer.did(Weighed(line="w0.s0.n0", g=600))
        bake = now(of, decided(writer, of, "scale"))
        assert [line(bake, name).target_g for name in ("Bread flour", "Water", "Fine salt")] == [600, 360, 12]

    def test_down_where_flour_ran_out(self):
        """400 of 500 g of flour first: the rest is scaled down; once the water is in, that cannot be."""
        of, writer = plain(), Writer()
        writer.did(Weighed(line="w0.s0.n0", g=400))
        bake = now(of, decided(writer, of, "scale"))
        assert line(bake, "Water").target_g == 240
        late = Writer()
        late.did(Weighed(line="w0.s0.n1", g=300), Weighed(line="w0.s0.n0", g=400))
        assert "scale" not in [one.key for one in now(of, late).questions[0].options]

    def test_what_is_made_already_stays(self):
        """The old dough is mixed and has risen: scaling the dough leaves it, and what comes of it, as it is."""
        of, writer = begun("Malted seed bagels"), Writer()
        old = next(one for one in now(of).tasks if one.on.startswith("Old dough") and one.mix == 0)
        flour = next(one for one in now(of).lines if one.name == "Bread flour" and one.of == "Dough" and one.mix == 0)
        before = {one.key: one.target_g for one in now(of).lines}
        writer.did(Began(task=old.key), Weighed(line=flour.key, g=(flour.target_g or 0) * 1.1))
        bake = now(of, decided(writer, of, "scale"))
        moved = {one.of if one.what != "fed" else f"{one.name} in" for one in bake.lines if one.target_g != before[one.key]}
        assert "Old dough, from the last batch" not in moved
        assert "Old dough, from the last batch in" not in moved
        assert "Dough" in moved
        assert all(one.mix == 0 for one in bake.lines if one.target_g != before[one.key])

    @pytest.mark.parametrize(("yeast_g", "offered"), [(50, True), (51, False), (200_000, False), (0.4, False)])
    def test_no_dough_any_more(self, yeast_g, offered):
        """5 g of yeast were meant: ten times as large a dough is the most that is offered for the sake of it, a tenth the least."""
        of, writer = plain(step="0.1"), Writer()
        writer.did(Weighed(line="w0.s0.n3", g=yeast_g))
        assert ("scale" in [one.key for one in now(of, writer).questions[0].options]) is offered
        writer.did(Scaled(line="w0.s0.n3"))  # a device that does it all the same
        assert line(now(of, writer), "Bread flour").target_g == (5000 if offered else 500)

    @pytest.mark.parametrize("name", ["Malted seed bagels", "Cardamom milk buns", "Tomato pan squares", "Leek and thyme focaccia"])
    def test_a_wild_weight_anywhere(self, name):
        """As much as a scale shows, of any line, scaled or accepted: the bake is still one."""
        of = begun(name)
        for one in now(of).lines:
            writer = Writer()
            writer.did(Weighed(line=one.key, g=200_000), Scaled(line=one.key))
            assert now(of, writer).status == "running"
            writer.did(Accepted(line=one.key))
            assert next(own for own in now(of, writer).lines if own.key == one.key).status in ("accepted", "in")

    def test_too_much_for_the_bowl(self):
        """It is said."""
        of, writer = begun("Malted seed bagels"), Writer()
        flour = next(one for one in now(of).lines if one.name == "Bread flour" and one.of == "Dough")
        writer.did(Weighed(line=flour.key, g=(flour.target_g or 0) * 1.3))
        scale = next(one for one in now(of, writer).questions[0].options if one.key == "scale")
        assert any("The bowl takes" in says for says in scale.says)


class TestAccepted:
    """It is another dough."""

    def test_what_it_makes(self):
        """330 on 500 g of flour is 66 %, six points more; salt and yeast stay."""
        of, writer = plain(), Writer()
        writer.did(Weighed(line="w0.s0.n1", g=330))
        told = next(one for one in now(of, writer).questions[0].options if one.key == "accept")
        assert told.says[0].startswith("Liquid 60 → 66 %")
        bake = now(of, decided(writer, of, "accept"))
        gauge = {one.key: one for one in bake.gauges}
        assert gauge["liquid"].now == pytest.approx(66)
        assert gauge["salt"].now == pytest.approx(gauge["salt"].meant, abs=0.001)  # water holds a trace
        assert (bake.changes.says, bake.questions) == (("Water: 330 g instead of 300 g.",), ())

    def test_the_next_revision(self):
        """Laid on the desk it has the water that went in, and all else as it was."""
        of, writer = plain(), Writer()
        writer.did(Weighed(line="w0.s0.n1", g=330))
        laid = now(of, decided(writer, of, "accept")).changes.formula
        assert [one.weight_g for one in laid.stages[0].lines] == [500, 330, 10, 5]
        assert reckon(laid).liquid_percent == pytest.approx(66)
        assert not laid.ways[0].steps if laid.ways else True  # the steps that stood in are not the baker's


@QUICK
@given(pour=st.floats(0.8, 1.6), which=st.sampled_from(("w0.s0.n0", "w0.s0.n1")), way=st.sampled_from(("take_out", "scale", "accept")), keep=st.sampled_from((True, False)))
def test_mass_is_kept_and_pins_are(pour, which, way, keep):
    """Whatever is chosen: the dough is what is in and what is still meant, pieces and remainder come to the dough to divide, and what was pinned stays."""
    of = plain(pieces=10) if keep else plain(pieces=None, piece_g=80)
    writer = Writer()
    target = next(one for one in now(of).lines if one.key == which).target_g
    writer.did(Weighed(line=which, g=round(target * pour)))
    asked = now(of, writer).questions
    if not asked or way not in [one.key for one in asked[0].options]:
        return
    bake = now(of, decided(writer, of, way))
    assert bake.dough.mixed_g == pytest.approx(sum(one.in_g if one.in_g is not None else one.target_g for one in bake.lines))
    made, divide = bake.making, bake.dough.mixed_g * (1 - of.sheet.bench_loss)
    assert sum(one.pieces * one.piece_g for one in made.targets) + made.remainder_g == pytest.approx(divide, abs=1e-5)
    if keep:
        assert made.targets[0].pieces == 10
    else:
        assert made.targets[0].piece_g == 80


class TestAtTheMixer:
    """A spoon of water, a spoon of flour, what was held back."""

    def test_spoons_in_a_cup_dough(self):
        """Two and a half tablespoons, 37 g, in a dough of 2 cups of flour are 12 to 15 points. Common practice, no source: a cup of flour is 120 to 150 g."""
        flour = Line(name="Bread flour", role=Role.FLOUR, weight_g=270, band=Band(low_g=240, usual_g=270, high_g=300))
        formula = Formula(name="Cup rolls", stages=(Stage(name="Dough", lines=(flour, Line(name="Water", role=Role.LIQUID, weight_g=160))),))
        of, writer = counted(formula, one_target(dough_g=430, pieces=6)), Writer()
        spoon = next(one for one in now(of).adjust if one.role == "liquid")
        writer.did(Added(line=spoon.line, g=round(2.5 * spoon.spoon_g, 1), by="spoons"))
        bake = now(of, writer)
        assert bake.log[0].says == "Water: 37 g added at the mixer, 12 to 15 points."

    def test_weighed_flour_has_no_band(self):
        """Once it was on the scale it is sure."""
        assert points_words(37, (250, 250)) == "15 points"

    def test_gauges_follow(self):
        writer = Writer()
        writer.did(Added(line="w0.s0.n1", g=15), Added(line="w0.s0.n0", g=-50))
        gauge = {one.key: one for one in now(plain(), writer).gauges}
        assert gauge["liquid"].now == pytest.approx(100 * 315 / 450)

    def test_something_else(self):
        """A splash of milk that no line has is a line of the next revision."""
        writer = Writer()
        writer.did(Added(name="Whole milk", g=25))
        bake = now(plain(), writer)
        assert bake.dough.mixed_g == bake.dough.planned_g + 25
        assert bake.changes.formula.stages[0].lines[-1].name == "Whole milk"
        assert bake.changes.formula.stages[0].lines[-1].weight_g == pytest.approx(25)

    def test_held_back_and_not_put_in(self):
        """It stays in its cup: the dough is drier, and it is offered so."""
        of, writer = begun("Cardamom milk buns"), Writer()
        cup = line(now(of), "Whole milk", what="held_back")
        writer.did(Weighed(line=cup.key, g=cup.target_g), HeldBack(line=cup.key, g=0))
        bake = now(of, writer)
        assert bake.dough.mixed_g == pytest.approx(bake.dough.planned_g - cup.target_g)
        assert bake.changes.says == (f"Of the {cup.target_g:.0f} g of Whole milk held back, 0 g went in.",)
