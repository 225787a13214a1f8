"""The demo kitchen: every formula counts, fits its pan, and prints."""

import pytest

from pancount.core.count import Count, Pins
from pancount.core.formula import complete
from pancount.core.sheet import weigh_sheet
from pancount.core.whole import whole_count
from pancount.demo.weir_house import BUNS, OTHERS, RIMMED, SCALES, fill_demo_kitchen
from pancount.formats.formula_file import read_formula, write_formula
from pancount.store.database import connect, migrate, transaction
from pancount.store.formulas import list_formulas, list_revisions
from pancount.store.kitchens import ONLY_KITCHEN, get_kitchen

ALL = [(BUNS, Count(pins=Pins(pieces=24, pans=2), pan=RIMMED)), *OTHERS]


@pytest.mark.parametrize(("formula", "count"), ALL, ids=[formula.name for formula, _ in ALL])
class TestEach:
    """Each formula with the count it is shown with."""

    def test_it_counts_and_stays_under_the_rim(self, formula, count):
        """No fights, nothing to settle in the formula, and no dough over the edge."""
        complete(formula)
        whole = whole_count(formula, count)
        assert not whole.count.fights
        assert not whole.formula.notes
        assert whole.pan is None or not whole.pan.past_rim

    def test_its_sheet_adds_up_on_the_kitchens_scales(self, formula, count):
        """Printed lines to the printed total, with no line too small for the fine scale."""
        sheet = weigh_sheet(formula, count, SCALES)
        printed = [line.printed for stage in sheet.stages for line in stage.lines]
        assert sum(printed) == sheet.printed_total
        assert sheet.cures == ()

    def test_it_goes_through_a_file(self, formula, count):
        """Out and in again is the same."""
        file = read_formula(write_formula(formula, count).encode())
        assert (file.formula, file.count) == (formula, count)


def test_it_is_filled_once(new_database):
    """Eight formulas, three revisions of the buns with what was tried, the kitchen's two scales; and not twice."""
    engine = connect(new_database("weir_house"))
    migrate(engine)
    with transaction(engine) as session:
        assert fill_demo_kitchen(session)
    with transaction(engine) as session:
        assert not fill_demo_kitchen(session)
        heads = list_formulas(session, ONLY_KITCHEN, archived=False)
        assert len(heads) == 8
        assert not any(head.unsaved for head in heads)
        buns = next(head for head in heads if head.name == BUNS.name)
        notes = [revision.note for revision in list_revisions(session, ONLY_KITCHEN, buns.id)]
        assert notes == ["A little less cardamom", "Less butter: 15 was greasy", "As first written"]
        assert get_kitchen(session, ONLY_KITCHEN).settings.scale == SCALES
    engine.dispose()
