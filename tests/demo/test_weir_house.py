"""The demo kitchen: every formula counts, fits its pan, and prints."""

import pytest

from pancount.core.count.count import one_target
from pancount.core.count.whole import whole_count
from pancount.core.formula.formula import BesideKind, StageKind, complete
from pancount.core.formula.gauges import character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon
from pancount.core.pantry.ingredients import pantry_with
from pancount.core.sheet.weigh import weigh_sheet
from pancount.demo.weir_house import BUNS, KIT, OTHERS, RIMMED, SCALES, fill_demo_kitchen
from pancount.formats.formula_file import read_formula, write_formula
from pancount.store.database import connect, migrate, transaction
from pancount.store.formula import list_formulas, list_revisions
from pancount.store.kitchen import ONLY_KITCHEN, get_kitchen
from sheets import adds_up

ALL = [(BUNS, one_target(RIMMED, pieces=24, pans=2)), *OTHERS]


@pytest.mark.parametrize(("formula", "count"), ALL, ids=[formula.name for formula, _ in ALL])
class TestEach:
    """Each formula with the count it is shown with."""

    def test_it_counts_and_stays_under_the_rim(self, formula, count):
        """No fights, nothing to settle in the formula, and no dough over the edge."""
        complete(formula)
        whole = whole_count(formula, count, pantry_with(()), Practice())
        assert not whole.count.fights
        assert not whole.formula.notes
        for i in range(len(count.targets)):
            pan = whole_count(formula, count, pantry_with(()), Practice(), KIT, i).looked_at.pan
            assert pan is None or not pan.past_rim

    def test_its_sheet_adds_up_on_the_kitchens_scales(self, formula, count):
        """Printed lines to the printed total, with no line too small for the fine scale."""
        sheet = weigh_sheet(formula, count, SCALES)
        assert adds_up(sheet)
        assert sheet.cures == ()

    def test_it_goes_through_a_file(self, formula, count):
        """Out and in again is the same."""
        file = read_formula(write_formula(formula, count).encode())
        assert (file.formula, file.count) == (formula, count)


def test_every_kind_of_stage_is_shown():
    """The demo kitchen shows each kind of stage, and each kind of thing beside the dough, at least once."""
    formulas = [formula for formula, _ in ALL]
    assert {stage.kind for formula in formulas for stage in formula.stages} == set(StageKind)
    assert {stage.kind for formula in formulas for stage in formula.beside} == set(BesideKind)


def test_the_words_fit_the_style():
    """Stiff for bagels, firm for knots with butter and malt, soft for milk buns, slack for focaccia (the trade's own bands)."""
    feel = {}
    for formula, _ in ALL:
        feel[formula.name] = character(formula, reckon(formula), pantry_with(()), Practice()).feel.key
    assert feel == {
        "Cardamom milk buns": "soft",
        "Oat and honey tin loaf": "soft",
        "Tomato pan squares": "soft",
        "Leek and thyme focaccia": "slack",
        "Yogurt flatbreads": "soft",
        "Caraway knots": "stiff",
        "Malted seed bagels": "stiff",
        "Squash rolls": "soft",
    }


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
