"""Days laid out: what must always hold, whatever is to be baked."""

from itertools import pairwise

from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from core.day.days import MORNING, a_day, away, examples, faults, planned, planner, product, ways
from pancount.core.day.day import Absence, Day, DayProduct, Mark, TimePin, ToldStart
from pancount.core.day.ground import NEVER
from pancount.core.day.placing import first_timetable, improved, left_out, score
from pancount.core.day.plan import Asked, Counted, plan
from pancount.core.day.solving import Effort
from pancount.core.day.timetable import timetable
from pancount.core.day.weighing import weigh
from pancount.demo.weir_house import KIT

SOON = (Phase.explicit, Phase.reuse, Phase.generate)
"""A day that fails is small as it is drawn; making it smaller would take minutes."""


@st.composite
def days(draw: st.DrawFn) -> Day:
    """One to five counts of the demo kitchen, with hands and hours as they may be."""
    products = []
    for n in range(draw(st.integers(1, 5))):
        number, way = draw(st.sampled_from(ways()))
        formula, _ = examples()[number]
        pieces = None if "focaccia" in formula.name or "squares" in formula.name else draw(st.integers(1, 30))
        ready = draw(st.sampled_from((None, 300.0, 450.0, 457.0, 600.0, 900.0)))
        products.append(DayProduct(key=f"p{n}", formula_id=number + 1, name=formula.name, way=way, pieces=pieces, ready_min=ready, fresh=draw(st.booleans())))
    bakers = draw(st.integers(1, 2))
    absences = [
        Absence(
            why="away", day=draw(st.sampled_from((None, -1, 0))), baker=draw(st.sampled_from((None, 0))),
            begins_min=(begins := draw(st.integers(0, 1430))), ends_min=min(1440.0, begins + draw(st.integers(1, 300))),
        )
        for _ in range(draw(st.integers(0, 2)))
    ]  # fmt: skip
    return a_day(
        *products, bakers=("",) * bakers, absences=(*a_day().absences, *absences), ready_min=draw(st.sampled_from((None, 450.0))),
        starts_min=draw(st.sampled_from((None, None, -1000.0))), shelves=draw(st.sampled_from((None, 1, 4))),
    )  # fmt: skip


@settings(phases=SOON, max_examples=40)
@given(days())
def test_a_timetable_can_be_followed(day: Day):
    """Nobody does two things at once or anything while away; no machine holds two doughs; the oven is never to be two temperatures; every rise
    has its time; what has no place says so."""
    table = planned(day, 2)
    assert faults(day, table) == []
    assert len(table.products) == len(day.products)
    for one in table.products:
        assert one.cleared == (one.ready_min is not None)
        assert one.cleared or one.says


@settings(phases=SOON, max_examples=15)
@given(days(), st.data())
def test_a_pin_in_time_stays_to_the_minute(day: Day, data: st.DataObject):
    """Whatever block is pinned wherever it may be, it begins just then, and the rest still holds."""
    table = planned(day, 0)
    own = [one for one in table.doings if one.load is None]
    if not own:
        return
    one = data.draw(st.sampled_from(own))
    by = data.draw(st.integers(-23, 23))
    pin = TimePin(step=one.step, kind=one.kind, edge=one.edge, at_min=round(one.begins_min) + by)
    changed = day.model_copy(update={"products": tuple(told if n != one.product else told.model_copy(update={"pins": (pin,)}) for n, told in enumerate(day.products))})
    again = planned(changed, 0, table.starts)
    assert faults(changed, again) == []


@settings(phases=SOON, max_examples=12)
@given(days())
def test_the_same_day_twice_is_the_same_timetable(day: Day):
    """Placing and improving draw nothing anew."""
    assert planned(day, 3) == planned(day, 3)


@settings(phases=SOON, max_examples=12)
@given(days())
def test_improving_never_makes_it_worse(day: Day):
    """And no timetable weighs less than its products do alone."""
    told = planner(day).quick(day, rounds=0)
    better = improved(told.ground, told.starts, 6)
    assert score(told.ground, better) <= score(told.ground, told.starts)
    assert weigh(told.laid.problem, better).total >= sum(
        told.ground.alone[p] for p, goal in enumerate(told.laid.problem.goals) if goal.block in better
    )


@settings(phases=SOON, max_examples=10)
@given(days(), st.integers(0, 60))
def test_what_has_happened_stays(day: Day, late: int):
    """Half way through, one thing late: a new plan changes nothing that has begun, and nothing not begun lies in the past."""
    table = planned(day, 0)
    if not table.doings or any(not one.cleared for one in table.products):
        return
    middle = table.doings[len(table.doings) // 2]
    now = middle.begins_min + late
    mark = Mark(step=middle.step, kind=middle.kind, began_min=middle.begins_min + late)
    products = tuple(told.model_copy(update={"marks": (mark,) if n == middle.product and middle.edge == "begin" else ()}) for n, told in enumerate(day.products))
    running = day.model_copy(update={"products": products, "now_min": now, "told": table.starts})
    again = planned(running, 0, table.starts)
    told = {(one.product, one.step, one.load, one.edge): one.begins_min for one in table.doings}
    for one in again.doings:
        if not one.happened:
            assert one.begins_min >= now - 5
            assert one.product == middle.product or told[one.product, one.step, one.load, one.edge] >= now - 30 or one.load is not None
        elif one.product != middle.product and one.kind not in ("preheat", "bathe") and one.load is None and len([o for o in again.doings if o.block == one.block]) > 1:
            assert abs(one.begins_min - told[one.product, one.step, one.load, one.edge]) < 2.6
    assert all(one.cleared for n, one in enumerate(again.products) if n != middle.product) or late > 0
    own = [one for one in again.doings if one.product == middle.product and one.step == middle.step and one.load == middle.load and one.happened]
    if middle.load is None and mark in products[middle.product].marks and again.products[middle.product].cleared:
        assert min(one.begins_min for one in own) == mark.began_min


class TestHandMade:
    """Days of which a baker knows how they go. Common practice, no source."""

    def test_bagels_are_shaped_in_the_evening_and_baked_in_the_morning(self):
        """Ready at half past seven: shaped before bed, at least twelve hours in the fridge, boiled and baked after five."""
        day = a_day(product("bagels", "Overnight", pieces=18))
        table = planned(day)
        assert faults(day, table) == []
        assert table.products[0].late_min == 0
        shaped = next(one for one in table.doings if one.kind == "shape")
        baked = next(one for one in table.doings if one.kind == "bake")
        assert shaped.ends_min <= -120
        assert baked.begins_min >= 300
        chill = next(gap for gap in table.giving if gap.place == "fridge" and gap.label == "chill")
        assert 720 <= chill.ends_min - chill.begins_min <= 1080
        assert all(h.begins_min >= 300 or h.ends_min <= -120 for one in table.doings for h in one.hands)

    def test_bagels_two_loads_one_after_the_other(self):
        """More than two sheets hold: the second load is boiled while the first bakes, and goes in as that comes out."""
        table = planned(a_day(product("bagels", "Overnight", pieces=40)))
        loads = [one for one in table.doings if one.kind == "bake"]
        assert len(loads) >= 2
        for first, then in pairwise(loads):
            assert 0 <= then.begins_min - first.ends_min <= 15
        bathed = [one for one in table.doings if one.kind == "bathe" and one.load == 1]
        assert max(one.ends_min for one in bathed) <= loads[1].begins_min + 0.01

    def test_twelve_flatbreads_take_an_hour_on_one_griddle(self):
        """Five minutes each, one at a time, hands at it throughout."""
        day = a_day(product("flatbreads", pieces=12), ready_min=600)
        table = planned(day)
        cooked = [one for one in table.doings if one.kind == "griddle"]
        assert len(cooked) == 12
        assert 55 <= cooked[-1].ends_min - cooked[0].begins_min <= 75
        assert faults(day, table) == []

    def test_a_quick_focaccia_and_one_of_the_night_share_one_oven(self):
        """One of two hours and one over night, as hot: both ready, and the oven is heated once."""
        quick, night = product("focaccia", "Quick", key="quick"), product("focaccia", "Overnight", key="night")
        day = a_day(quick, night, ready_min=600)
        table = planned(day, 20)
        assert faults(day, table) == []
        assert [one.late_min for one in table.products] == [0, 0]
        assert sum(1 for one in table.heat if one.what == "heats") == 1
        began = {n: min(one.begins_min for one in table.doings if one.product == n) for n in range(2)}
        assert began[0] > 300
        assert began[1] < 0

    def test_two_cannot_be_at_once_what_two_bakers_can(self):
        """Two doughs that each want all of one baker's morning: two bakers are ready sooner."""
        products = (product("flatbreads", key="a", pieces=12), product("flatbreads", key="b", pieces=12))
        alone = planned(a_day(*products, ready_min=None, starts_min=300.0), 6)
        kit = KIT.model_copy(update={"griddles": 2})
        both = planned(a_day(*products, ready_min=None, starts_min=300.0, bakers=("Ada", "Bo")), 6, kit=kit)
        assert max(one.ready_min for one in both.products) < max(one.ready_min for one in alone.products) - 30
        assert {h.baker for one in both.doings for h in one.hands} == {0, 1}

    def test_from_now_on(self):
        """No time to be ready: as soon as it can be, and nothing before it begins."""
        day = a_day(product("focaccia", "Quick"), ready_min=None, starts_min=610.0)
        table = planned(day)
        assert min(one.begins_min for one in table.doings) == 610
        assert 700 < table.products[0].ready_min < 790

    def test_both_ends_and_then_what_gives(self):
        """Begun at six and wanted at half past seven, a bun of four hours is late by what it lacks."""
        day = a_day(product("buns", "By machine"), starts_min=360.0)
        table = planned(day)
        assert table.products[0].late_min > 120
        assert faults(day, table) == []

    def test_work_stands_aside_for_an_absence(self):
        """Away in the morning: the same day is laid around it, and nothing is touched meanwhile."""
        day = a_day(product("squares"), ready_min=1080.0, absences=(*a_day().absences, MORNING.model_copy(update={"day": 0})))
        table = planned(day)
        assert faults(day, table) == []
        assert table.products[0].cleared
        assert away(day, 0, 500)
        assert not away(day, 0, 730)

    def test_an_empty_day(self):
        """Nothing to bake is no timetable, and no fault."""
        table = planned(a_day())
        assert (table.doings, table.weighs, table.products) == ((), 0, ())

    def test_a_pin_that_cannot_be(self):
        """Baked at six, shaped at half past five the same morning: the bagels have no place, and are told so; the others stay."""
        bagels = product("bagels", "Overnight")
        table = planned(a_day(bagels))
        shape, bake = (next(one for one in table.doings if one.kind == kind) for kind in ("shape", "bake"))
        pins = (TimePin(step=shape.step, kind="shape", at_min=330), TimePin(step=bake.step, kind="bake", at_min=360))
        day = a_day(bagels.model_copy(update={"pins": pins}), product("focaccia", "Quick"), ready_min=600)
        told = planner(day).quick(day)
        assert told.ground.alone[0] >= NEVER
        assert left_out(told.ground, told.starts) == (0,)
        assert not timetable(told).products[0].cleared
        assert timetable(told).products[1].cleared

    def test_a_pin_of_another_way_is_told_and_not_kept(self):
        """Steps change; a pin on what is not there any more says so."""
        day = a_day(product("focaccia", "Quick", pins=(TimePin(step=0, kind="knead", at_min=400),)), ready_min=600)
        table = planned(day)
        assert any("not in this way any more" in line for line in table.says)


class TestSolved:
    """With the solver behind it."""

    def test_proven_and_the_same_twice(self):
        """Two products: proven best, within what is counted and not timed, twice the same; nothing that was told before is better."""
        day = a_day(product("focaccia", "Quick"), product("Squash"), ready_min=720)
        asked = planner(day).asked
        told = []
        ends = [plan(asked, Effort(rounds=4, counted=2, seconds=60), lambda: 0.0, lambda one: told.append(one.timetable.weighs)) for _ in range(2)]
        assert ends[0].starts == ends[1].starts
        tables = [timetable(end) for end in ends]
        assert tables[0] == tables[1]
        assert tables[0].proven
        assert tables[0].bound == tables[0].weighs <= min(told)
        assert faults(day, tables[0]) == []

    def test_stopped_at_once_it_keeps_what_it_has(self):
        """Told to stop before it has begun to look: the first timetable is the answer."""
        day = a_day(product("bagels", "Overnight"), product("buns", "Overnight"))
        end = plan(planner(day).asked, Effort(rounds=50, counted=2, seconds=60), lambda: 0.0, lambda _: None, lambda: True)
        assert faults(day, timetable(end)) == []

    def test_goes_on_from_the_last_answer(self):
        """What is told before is taken up where it still holds."""
        day = a_day(product("bagels", "Overnight"), product("Squash"))
        table = planned(day, 10)
        told = planner(day).as_told(day.model_copy(update={"told": table.starts}))
        assert timetable(told).starts == table.starts

    def test_a_formula_that_is_gone(self):
        """Left out, with what is the matter; the others are planned."""
        day = a_day(product("focaccia", "Quick"), DayProduct(key="gone", formula_id=99, name="Gone"), ready_min=600)
        counted = (Counted(key=day.products[0].key, formula=examples()[day.products[0].formula_id - 1][0], count=examples()[day.products[0].formula_id - 1][1]),)
        heard = []
        plan(Asked(day=day, counted=counted, kit=KIT), Effort(rounds=0, counted=0.1, seconds=5), lambda: 0.0, heard.append)
        assert [one.product for one in heard[0].troubles] == ["gone"]
        assert heard[0].timetable.products[0].cleared


def test_a_hint_of_nonsense_is_no_timetable():
    """Starts that fit nothing are repaired, not believed."""
    day = a_day(product("bagels", "Overnight"), product("focaccia", "Quick"))
    nonsense = tuple(ToldStart(product=one.key, step=n, at_min=at) for one in day.products for n, at in enumerate((0.0, 10.0, -300.0, 299.0)))
    told = planner(day).quick(day, nonsense, 0)
    assert faults(day, timetable(told)) == []
    assert first_timetable(told.ground)
