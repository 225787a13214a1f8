"""Formulas of all kinds at the bench: in percent, in ounces, several targets, ways with their own yeast, a levain of which some is kept."""

from decimal import Decimal

import pytest

from core.bench.bakes import BEGUN_S, Writer, begun, line, now, plain
from pancount.core.base.errors import PinsFight, TooMuch
from pancount.core.base.scale import Scale
from pancount.core.bench.begun import begin
from pancount.core.bench.events import Added, Began, Done, Measurement, Skipped, TookOut, Weighed
from pancount.core.bench.state import bake_now
from pancount.core.count.count import Count, Pins, Target, TargetPins, one_target
from pancount.core.formula.formula import Feed, Formula, Line, Stage, StageKind, Way
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.formula.steps import OtherPercent, Step
from pancount.core.formula.ways import in_way
from pancount.core.heat.climate import Climate
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Ingredient
from pancount.core.pantry.role import Role
from pancount.demo.weir_house import examples


def of(formula: Formula, count: Count, scale: Scale | None = None, kit: Kit | None = None, own: tuple[Ingredient, ...] = ()):
    return begin(formula, count, own, Practice(), kit or Kit(), Climate(), scale or Scale())


def in_percent(*, way: Way | None = None) -> Formula:
    """100 flour, 60 water, 2 salt, 1 yeast."""
    lines = tuple(
        Line(name=name, role=role, percent=percent, key=key)
        for key, name, role, percent in (("f", "Bread flour", Role.FLOUR, 100), ("w", "Water", Role.LIQUID, 60), ("s", "Fine salt", Role.SALT, 2), ("y", "Instant yeast", Role.LEAVEN, 1))
    )
    return Formula(name="Weir rolls", stages=(Stage(name="Dough", lines=lines),), ways=(way,) if way else ())


class TestInPercent:
    """The next revision is in percent, as the formula is."""

    def test_water_added(self):
        bake, writer = of(in_percent(), one_target(flour_g=500, pieces=10, leave_remainder=True)), Writer()
        writer.did(Added(line="w0.s0.n1", g=25))
        laid = now(bake, writer).changes.formula
        assert [one.percent for one in laid.stages[0].lines] == [100, 65, 2, 1]

    def test_something_new(self):
        bake, writer = of(in_percent(), one_target(flour_g=500, pieces=10, leave_remainder=True)), Writer()
        writer.did(Added(name="Honey", role=Role.SUGAR, g=10))
        assert now(bake, writer).changes.formula.stages[0].lines[-1].percent == pytest.approx(2)

    def test_flour_taken_as_it_is(self):
        """Flour in percent is 100 whatever there is of it: the others are not changed behind the baker's back, and it is said."""
        bake, writer = of(in_percent(), one_target(flour_g=500, pieces=10, leave_remainder=True)), Writer()
        writer.did(Weighed(line="w0.s0.n0", g=550))
        option = next(one for one in now(bake, writer).questions[0].options if one.key == "accept")
        writer.did(*option.deeds)
        changes = now(bake, writer).changes
        assert changes.says == ("Bread flour: 550 g instead of 500 g.",)
        assert [one.percent for one in changes.formula.stages[0].lines] == [100, 60, 2, 1]


class TestWays:
    """A way with its own yeast."""

    def test_what_was_changed_stays_in_the_way(self):
        """The formula's own percentage is untouched."""
        way = Way(name="Overnight", key="night", steps=(Step(kind="mix"), Step(kind="rise"), Step(kind="bake")), changed=(OtherPercent(key="y", percent=0.4),))
        count = one_target(flour_g=1000, pieces=10, leave_remainder=True).model_copy(update={"way": "night"})
        bake, writer = of(in_percent(way=way), count), Writer()
        yeast = line(now(bake), "Instant yeast")
        assert yeast.target_g == 4
        writer.did(Added(line=yeast.key, g=2))
        laid = now(bake, writer).changes.formula
        assert [(one.key, one.percent) for one in laid.ways[0].changed] == [("y", pytest.approx(0.6))]
        assert laid.stages[0].lines[3].percent == 1

    def test_gauges_are_the_ways(self):
        way = Way(name="Overnight", key="night", steps=(Step(kind="mix"),), changed=(OtherPercent(key="y", percent=0.4),))
        count = one_target(flour_g=1000, pieces=10, leave_remainder=True).model_copy(update={"way": "night"})
        assert {one.key: one.meant for one in now(of(in_percent(way=way), count)).gauges}["yeast"] == pytest.approx(0.4)


class TestStages:
    """What is made before goes in, wholly or in part."""

    def levain(self) -> Formula:
        """200 g of levain, half flour half water, of which 150 g go into the dough."""
        starter = Stage(
            name="Levain", kind=StageKind.LEVAIN, key="l", feeds=(Feed(into="d", share=0.75),),
            lines=(Line(name="Bread flour", role=Role.FLOUR, weight_g=100), Line(name="Water", role=Role.LIQUID, weight_g=100)),
        )  # fmt: skip
        dough = Stage(name="Dough", key="d", lines=(Line(name="Bread flour", role=Role.FLOUR, weight_g=425), Line(name="Water", role=Role.LIQUID, weight_g=245), Line(name="Fine salt", role=Role.SALT, weight_g=10)))
        return Formula(name="Levain rolls", stages=(starter, dough))

    def test_more_of_it_went_in(self):
        """170 instead of 150 g: more of its flour and water are in the dough, and so the dough is heavier."""
        formula = self.levain()
        total = reckon(formula).weight_g
        bake, writer = of(formula, one_target(dough_g=total, pieces=10, leave_remainder=True)), Writer()
        fed = next(one for one in now(bake).lines if one.what == "fed")
        assert (fed.name, fed.target_g) == ("Levain", 150)
        writer.did(Weighed(line=fed.key, g=170))
        told = now(bake, writer)
        assert told.dough.mixed_g == told.dough.planned_g + 20
        meant = {one.key: one for one in told.gauges}
        assert meant["prefermented"].now == pytest.approx(100 * 85 / 510, abs=0.05)

    def test_paste_topped_up(self):
        """What boiled off is topped up with water to the weight that is told."""
        paste = next(one for one in now(begun("Cardamom milk buns")).lines if one.what == "fed")
        assert paste.says == "All of it, topped up with water for what boiled off."


class TestTargets:
    """Several things of one dough."""

    def test_each_has_its_share(self):
        """Ten rolls and a loaf, of a tenth less dough: each a tenth smaller, or the rolls as they were and the loaf what is left."""
        count = Count(pins=Pins(), targets=(Target(name="rolls", pins=TargetPins(pieces=10, piece_g=60)), Target(name="loaf", pins=TargetPins(pieces=1, piece_g=900))))
        bake, writer = of(in_percent(), count), Writer()
        writer.did(Measurement(what="dough_g", value=1350))
        told = now(bake, writer)
        assert [(one.pieces, one.piece_g) for one in told.making.targets] == [(10, 54), (1, 810)]
        assert [(one.pieces, one.piece_g) for one in told.instead.targets] == [(10, 60), (0, 900)]

    def test_a_label_that_is_missed(self):
        """Sold by weight, smaller pieces are told."""
        count = Count(pins=Pins(dough_g=1000), targets=(Target(pins=TargetPins(pieces=10), label_g=88),), leave_remainder=True)
        bake, writer = of(in_percent(), count), Writer()
        writer.did(Measurement(what="dough_g", value=850))
        assert "under the 79 g" in now(bake, writer).making.targets[0].says


class TestScales:
    """In ounces, and on a fine scale."""

    def test_ounces(self):
        """Weights stay in grams inside; what is said is in ounces."""
        bake, writer = of(in_percent(), one_target(flour_g=567, pieces=10, leave_remainder=True), Scale(unit="oz", step=Decimal("0.1"))), Writer()
        flour = line(now(bake), "Bread flour")
        assert flour.target_g == pytest.approx(20 * 28.349523125)
        writer.did(Weighed(line=flour.key, g=flour.target_g + 28.35))
        assert now(bake, writer).questions[0].title == "Bread flour: 1.0 oz over"

    def test_fine(self):
        fine = of(in_percent(), one_target(flour_g=500, pieces=10, leave_remainder=True), Scale(fine_step=Decimal("0.01")))
        salt, flour = (line(now(fine), name) for name in ("Fine salt", "Bread flour"))
        assert (salt.fine, salt.step_g, salt.tolerance_g) == (True, 0.01, pytest.approx(0.2))
        assert (flour.fine, flour.step_g) == (False, 1)


class TestRefused:
    """What cannot be baked is told where it is begun."""

    def test_more_mixes_than_one_stands_at(self):
        with pytest.raises(TooMuch, match="13 mixes"):
            of(in_percent(), one_target(dough_g=12_500, pieces=100, leave_remainder=True), kit=Kit(bowl_g=1000))

    def test_pins_that_fight(self):
        with pytest.raises(PinsFight):
            of(in_percent(), one_target(dough_g=1000, pieces=10, piece_g=500))


class TestAllAtOnce:
    """Odd things that happen."""

    def test_all_flour_taken_out(self):
        """There is no dough, and it can still be shown."""
        bake, writer = plain(), Writer()
        writer.did(Weighed(line="w0.s0.n0", g=500), TookOut(line="w0.s0.n0", g=500))
        told = now(bake, writer)
        assert told.gauges == ()
        assert told.dough.mixed_g == told.dough.planned_g - 500

    def test_everything_left_out(self):
        writer = Writer()
        bake = plain()
        writer.did(*(Skipped(task=key) for key in now(bake).order))
        told = now(bake, writer)
        assert {one.status for one in told.lines} | {one.status for one in told.tasks} == {"skipped"}
        assert told.dough.mixed_g == 0

    def test_everything_done_at_once(self):
        """In no time: nothing rings, nothing waits."""
        writer, bake = Writer(), begun("Malted seed bagels")
        for one in now(bake).tasks:
            writer.did(Began(task=one.key), Done(task=one.key))
        told = now(bake, writer)
        assert (told.timers, {one.status for one in told.tasks}) == ((), {"done"})

    def test_two_over_at_once_are_asked_one_after_the_other(self):
        """The most that is worked out at once; the others come when these are decided."""
        writer, bake = Writer(), begun("Malted seed bagels")
        lines = [one for one in now(bake).lines if one.what == "line" and one.target_g][:6]
        writer.did(*(Weighed(line=one.key, g=one.target_g * 2) for one in lines))
        asked = now(bake, writer).questions
        assert len(asked) == 2
        writer.did(*(deed for one in asked for deed in one.options[-1].deeds))
        assert {one.line for one in now(bake, writer).questions}.isdisjoint(one.line for one in asked)

    @pytest.mark.parametrize("name", [formula.name for formula, _ in examples()])
    def test_every_formula_of_the_demo(self, name):
        """Weighed as meant it is the dough that was meant, gauge by gauge, and makes the pieces that were meant."""
        writer, bake = Writer(), begun(name)
        writer.did(*(Weighed(line=one.key, g=one.target_g) for one in now(bake).lines if one.target_g))
        told = bake_now(bake, writer.events, BEGUN_S)
        assert told.questions == ()
        assert told.changes.says == ()
        assert [round(one.now, 6) for one in told.gauges] == [round(one.meant, 6) for one in told.gauges]
        assert told.dough.mixed_g == pytest.approx(told.dough.planned_g)
        planned = reckon(in_way(bake.formula, bake.count.way))
        assert told.dough.planned_g == pytest.approx(float(bake.sheet.printed_total) * bake.sheet.mixes)
        assert planned.flour_g > 0
