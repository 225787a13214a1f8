"""What is made of a timetable: why a time is what it is, what would help, and what goes on paper."""

from decimal import Decimal
from itertools import pairwise

import pytest

from core.day.days import a_day, faults, planned, planner, product
from pancount.core.base.scale import Scale
from pancount.core.day.day import Absence, Day, TimePin
from pancount.core.day.papers import day_papers
from pancount.core.day.plan import planned as plan_and_offers
from pancount.core.day.reliefs import others, reliefs
from pancount.core.day.solving import Effort
from pancount.core.day.timetable import timetable
from pancount.core.day.typed import Candidate, read_counts
from pancount.core.sheet.weigh import weigh_sheet
from pancount.demo.weir_house import KIT, examples

SATURDAY = a_day(
    product("bagels", "Overnight", key="bagels", pieces=18), product("buns", "Overnight", key="buns", pieces=24),
    product("focaccia", "Overnight", key="focaccia"), product("Squash", key="rolls", pieces=16),
)  # fmt: skip


@pytest.fixture(scope="module")
def table():
    """The Saturday's timetable."""
    return planned(SATURDAY, 12)


@pytest.fixture(scope="module")
def told(table):
    """The same, with its papers."""
    asked = planner(SATURDAY).asked
    return table, day_papers(asked.model_copy(update={"day": SATURDAY.model_copy(update={"told": table.starts})}), Scale())


class TestWhy:
    """Every time opens to why it is then."""

    def test_a_slide_keeps_all_else(self, table):
        """Moved to either end of what it may slide to, and pinned there, nothing else need move and all still holds."""
        wide = [one for one in table.slides if one.latest_min > one.begins_min]
        assert wide
        for slide in wide[:4]:
            first = next(one for one in table.doings if one.block == slide.block and one.load is None)
            at = first.begins_min + slide.latest_min - slide.begins_min
            pin = TimePin(step=first.step, kind=first.kind, edge=first.edge, at_min=at)
            products = tuple(one.model_copy(update={"pins": (pin,)}) if n == first.product else one for n, one in enumerate(SATURDAY.products))
            day = SATURDAY.model_copy(update={"products": products})
            assert faults(day, planned(day, 0, table.starts)) == []

    def test_words(self, table):
        """What keeps it is named: a rise, hands at something else with its times, the oven, or nobody being there."""
        says = {one.not_earlier for one in table.slides} | {one.not_later for one in table.slides}
        assert any(" needs " in one for one in says)
        assert any(one.startswith("hands are at ") for one in says)
        assert all(says)
        assert all(one.earliest_min <= one.begins_min <= one.latest_min for one in table.slides)
        assert all(bool(one.costs_later) == (one.latest_min > one.begins_min) for one in table.slides)

    def test_figures_and_their_bounds(self, table):
        """In the order of what counts, none under what it can be at best."""
        assert [one.name for one in table.figures] == ["late", "beyond", "lies", "span", "night", "oven", "changes"]
        assert all(one.value >= one.at_best - 0.01 for one in table.figures)
        assert table.bound <= table.weighs
        assert next(one for one in table.figures if one.name == "late").value == sum(one.late_min for one in table.products)


class TestReliefs:
    """Where it cannot be, what would help; each planned, and not guessed."""

    def test_bagels_begun_too_late(self):
        """Begun at two in the afternoon, asleep until seven and wanted at half past: later, without, or nearer to it; each offer holds when it is planned."""
        day = a_day(product("bagels", "Overnight", pieces=18), starts_min=-600.0, absences=(Absence(why="asleep", begins_min=1320, ends_min=420),))
        own = planner(day)
        told = own.quick(day)
        made = timetable(told)
        assert made.products[0].late_min > 0
        offers = list(reliefs(own, day, told, made))
        settles = [one for one in offers if not one.left_out and not one.late_min]
        assert any("ready at" in one.wish for one in settles)
        assert any(one.late_min for one in offers)
        for one in settles[:3]:
            again = timetable(planner(one.day).quick(one.day))
            assert all(product.late_min == 0 for product in again.products)
            assert faults(one.day, again) == []

    def test_pins_that_fight(self):
        """A pin nothing can keep: letting go of it is offered, and gives a place."""
        bagels = product("bagels", "Overnight")
        shape = next(one for one in planned(a_day(bagels)).doings if one.kind == "shape")
        day = a_day(bagels.model_copy(update={"pins": (TimePin(step=shape.step, kind="shape", at_min=400),)}))
        own = planner(day)
        told = own.quick(day)
        offers = list(reliefs(own, day, told, timetable(told)))
        assert any(one.wish.startswith("Let go of the pin at 6:40") and not one.left_out for one in offers if not one.late_min)

    def test_others_that_differ_in_kind(self):
        """Where all is well, another way of a formula or another day of the work is offered, with what it has more or less of."""
        day = a_day(product("buns", "Overnight", pieces=24))
        own = planner(day)
        told = own.quick(day)
        found = list(others(own, day, told, timetable(told)))
        assert 1 <= len(found) <= 2
        assert any("another way: By machine" in one.wish for one in found)
        assert all(not one.left_out and not one.late_min and one.gives for one in found)

    def test_all_of_it(self):
        """First a timetable, then better ones, then what would help: told in that order, the last with everything."""
        heard = []
        day = a_day(product("focaccia", "Quick"), ready_min=330.0, starts_min=300.0)
        plan_and_offers(planner(day).asked, Effort(rounds=2, counted=0.3, seconds=30), lambda: 0.0, lambda: False, heard.append)
        assert [heard[0].stage, heard[-1].stage] == ["first", "done"]
        weights = [one.timetable.weighs for one in heard if one.timetable]
        assert all(b <= a for a, b in pairwise(weights))
        assert heard[-1].reliefs
        assert not heard[-1].others


class TestPapers:
    """The wall, the evening before, what is to be weighed."""

    def test_every_touch_is_on_the_wall(self, told):
        """In order of time, each that needs hands, when the timetable has it; cautions where the step is."""
        table, papers = told
        times = [one.begins_min for one in papers.lines]
        assert times == sorted(times)
        touched = {(one.product, round(h.begins_min)) for one in table.doings for h in one.hands}
        first = {(one.product, round(min(h.begins_min for h in one.hands))) for one in table.doings if one.hands}
        on_wall = {(one.product, round(one.begins_min)) for one in papers.lines}
        changed = {(one.product, round(one.begins_min)) for one in table.doings if one.label.startswith("oven to")}
        assert on_wall <= touched | first | changed
        assert any("burns" in one.caution or "burn" in one.caution for one in papers.lines)
        for one in table.doings:
            for h in one.hands:
                assert any(line.product == one.product and line.begins_min - 0.01 <= h.begins_min <= line.ends_min + 10.01 for line in papers.lines)

    def test_the_evening_before(self, told):
        """What is touched from four on the day before, and butter that is to be soft."""
        _, papers = told
        assert all(one.at_min < 0 or one.kind == "out" for one in papers.evening)
        assert any("Butter out of the fridge" in one.what for one in papers.evening)
        assert any(one.kind == "touch" for one in papers.evening)

    def test_weighed_as_on_each_sheet(self, told):
        """Every line as its dough's own weigh sheet has it; in all is their sum, to the gram."""
        _, papers = told
        total: dict[str, Decimal] = {}
        for line in papers.mise.lines:
            total[line.name.casefold()] = total.get(line.name.casefold(), Decimal(0)) + line.printed * line.mixes
        assert {one.name.casefold(): one.printed for one in papers.mise.in_all} == total
        made = next(one for one in planner(SATURDAY).made(SATURDAY)[0] if one.told.key == "rolls")
        sheet = weigh_sheet(made.formula, made.count, Scale(), (), "joined", KIT)
        own = [(line.name, line.printed) for line in papers.mise.lines if line.product == 3]
        assert own == [(line.name, line.printed) for stage in (*sheet.stages, *sheet.beside) for line in stage.lines if line.printed]


KNOWN = tuple(Candidate(formula_id=n, name=formula.name) for n, (formula, _) in enumerate(examples(), 1))


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("24 buns", [(24, None, ["Cardamom milk buns"])]),
        ("24 buns, 2 pans of squares", [(24, None, ["Cardamom milk buns"]), (None, 2, ["Tomato pan squares"])]),
        ("two dozen bagels and 12 knots", [(24, None, ["Malted seed bagels"]), (12, None, ["Caraway knots"])]),
        ("a dozen squash rolls", [(12, None, ["Squash rolls"])]),
        ("leek and thyme focaccia", [(None, None, ["Leek and thyme focaccia"])]),
        ("7 croissants", [(7, None, [])]),
        ("0 buns", [(None, None, ["Cardamom milk buns"])]),
        ("", []),
        (" , ;\n", []),
    ],
)
def test_counts_as_they_are_typed(text, expected):
    """A number, a name or a part of one; pans where pans are said; what nobody knows means nothing."""
    assert [(one.pieces, one.pans, [c.name for c in one.means]) for one in read_counts(text, KNOWN)] == expected


def test_a_word_that_several_have():
    """It is asked which."""
    both = (Candidate(formula_id=1, name="Milk buns"), Candidate(formula_id=2, name="Squash buns"))
    assert len(read_counts("6 buns", both)[0].means) == 2


@pytest.mark.parametrize("date", ["2026-02-29", "2026-13-01", "26-1-1", "2026-04-31", ""])
def test_days_that_there_are_not(date):
    with pytest.raises(ValueError, match="date"):
        Day(date=date)
