"""Formulas in the store: the desk, revisions that never change, and two windows at once."""


import json

import pytest
from sqlalchemy import text
from sqlalchemy.exc import DBAPIError

from conftest import make_formula
from pancount.core.base.errors import NoFlour, Unnamed
from pancount.core.base.scale import Scale
from pancount.core.count.count import Count, one_target
from pancount.core.formula.formula import Formula, Line, Stage, with_line
from pancount.core.pantry.role import Role
from pancount.store import formula as store
from pancount.store import kitchen as kitchens
from pancount.store import pantry
from pancount.store.errors import Behind, NotFound
from pancount.store.kitchen import ONLY_KITCHEN, Settings


def test_a_draft_becomes_a_revision(session, rolls):
    """Kept as typed, then saved: the revision is the latest, and the desk rests on it."""
    state = store.start_formula(session, ONLY_KITCHEN, Formula(), Count())
    assert (state.head.unsaved, state.head.latest_number, state.head.liquid_percent) == (True, 0, None)
    state = store.put_on_desk(session, ONLY_KITCHEN, state.head.id, rolls, Count(), state.version)
    assert (state.head.name, state.head.liquid_percent) == ("Weir rolls", 60)
    state = store.save_revision(session, ONLY_KITCHEN, state.head.id, rolls, Count(), state.version, "first")
    assert (state.head.latest_number, state.base_number, state.head.unsaved) == (1, 1, False)
    assert store.get_revision(session, ONLY_KITCHEN, state.head.id, 1).formula == rolls


def test_only_a_changed_formula_is_unsaved(session, rolls):
    """Pins on the desk are kept, and are not an unsaved change of the formula."""
    state = store.keep_new(session, ONLY_KITCHEN, rolls, Count(), "first")
    at = (ONLY_KITCHEN, state.head.id)
    pinned = store.put_on_desk(session, *at, rolls, one_target(pieces=9), state.version)
    assert (pinned.head.unsaved, pinned.count.targets[0].pins.pieces) == (False, 9)
    saltier = make_formula(("Bread flour", Role.FLOUR, 100), ("Fine salt", Role.SALT, 2.5))
    changed = store.put_on_desk(session, *at, saltier, pinned.count, pinned.version)
    assert changed.head.unsaved
    assert not store.put_on_desk(session, *at, rolls, pinned.count, changed.version).head.unsaved


def test_two_windows(session, rolls):
    """The second to write is told, and nothing of the first's is lost."""
    state = store.keep_new(session, ONLY_KITCHEN, rolls, Count(), "first")
    at = (ONLY_KITCHEN, state.head.id)
    store.put_on_desk(session, *at, rolls, one_target(pieces=1), state.version)
    with pytest.raises(Behind):
        store.put_on_desk(session, *at, rolls, Count(), state.version)
    saltier = make_formula(("Bread flour", Role.FLOUR, 100), ("Fine salt", Role.SALT, 2.5))
    with pytest.raises(Behind):  # what the first kept as a draft counts as much as what it saved
        store.save_revision(session, *at, saltier, Count(), state.version, "theirs")
    store.save_revision(session, *at, rolls, Count(), state.version + 1, "mine")
    with pytest.raises(Behind):
        store.save_revision(session, *at, saltier, Count(), state.version + 1, "theirs")
    assert [r.note for r in store.list_revisions(session, *at)] == ["mine", "first"]


def test_an_answer_lost_on_the_way(session, rolls):
    """The same text sent again with the version it was first sent with is kept already: no other window, no second revision."""
    state = store.keep_new(session, ONLY_KITCHEN, rolls, Count(), "first")
    at = (ONLY_KITCHEN, state.head.id)
    once = store.put_on_desk(session, *at, rolls, one_target(pieces=1), state.version)
    assert store.put_on_desk(session, *at, rolls, one_target(pieces=1), state.version) == once
    saved = store.save_revision(session, *at, rolls, Count(), once.version, "again")
    assert store.save_revision(session, *at, rolls, Count(), once.version, "again") == saved
    assert len(store.list_revisions(session, *at)) == 2
    with pytest.raises(Behind):
        store.save_revision(session, *at, rolls, Count(), once.version, "another note")


@pytest.mark.parametrize(
    ("formula", "error"),
    [(Formula(name="x"), NoFlour), (make_formula(("f", Role.FLOUR, 100), name=""), Unnamed)],
)
def test_what_cannot_be_reckoned_is_not_a_revision(session, formula, error):
    """It stays on the desk as it is."""
    state = store.keep_new(session, ONLY_KITCHEN, formula, Count(), "")
    assert state.head.latest_number == 0
    with pytest.raises(error):
        store.save_revision(session, ONLY_KITCHEN, state.head.id, formula, Count(), state.version, "")
    assert store.get_formula(session, ONLY_KITCHEN, state.head.id).formula == formula


def test_a_revision_cannot_be_changed_even_by_hand(session, rolls):
    """The database itself refuses."""
    store.keep_new(session, ONLY_KITCHEN, rolls, Count(), "first")
    with pytest.raises(DBAPIError, match="a revision never changes"):
        session.execute(text("UPDATE revisions SET note = 'other'"))


def test_another_kitchen_sees_nothing(session, rolls):
    """Every query takes its kitchen."""
    kitchens.open_kitchen(session, 2, "Other", Settings())
    state = store.keep_new(session, ONLY_KITCHEN, rolls, Count(), "first")
    for look in (store.get_formula, store.list_revisions, store.copy_formula):
        with pytest.raises(NotFound):
            look(session, 2, state.head.id)
    assert store.list_formulas(session, 2, archived=False) == []


def test_copies_are_numbered_and_can_be_taken_back(session, rolls):
    """Until something happens to them."""
    state = store.keep_new(session, ONLY_KITCHEN, rolls, one_target(pieces=5), "first")
    first = store.copy_formula(session, ONLY_KITCHEN, state.head.id)
    second = store.copy_formula(session, ONLY_KITCHEN, state.head.id)
    assert (first.head.name, second.head.name) == ("Weir rolls, copy", "Weir rolls, copy 2")
    assert first.count.targets[0].pins.pieces == 5
    store.undo_new(session, ONLY_KITCHEN, first.head.id, first.version)
    with pytest.raises(NotFound):
        store.get_formula(session, ONLY_KITCHEN, first.head.id)
    store.put_on_desk(session, ONLY_KITCHEN, second.head.id, rolls, Count(), second.version)
    with pytest.raises(Behind):
        store.undo_new(session, ONLY_KITCHEN, second.head.id, second.version)


def test_archived_and_back(session, rolls):
    """Archived formulas stand in a list of their own."""
    head = store.keep_new(session, ONLY_KITCHEN, rolls, Count(), "first").head
    store.archive_formula(session, ONLY_KITCHEN, head.id, archived=True)
    assert head.id in [h.id for h in store.list_formulas(session, ONLY_KITCHEN, archived=True)]
    assert head.id not in [h.id for h in store.list_formulas(session, ONLY_KITCHEN, archived=False)]
    assert not store.archive_formula(session, ONLY_KITCHEN, head.id, archived=False).archived


def test_the_kitchen_learns_an_ingredient_with_its_role(session):
    """A name the pantry does not ship is offered from then on, with the role chosen last."""
    lines = (Line(name="Bread flour", role=Role.FLOUR, percent=100), Line(name="Zibrul paste", role=Role.FLAVOUR, percent=1))
    formula = Formula(name="x", stages=(Stage(lines=lines),))
    state = store.keep_new(session, ONLY_KITCHEN, formula, Count(), "")
    dairy = formula.model_copy(update={"stages": (Stage(lines=(lines[0], lines[1].model_copy(update={"role": Role.DAIRY}))),)})
    store.save_revision(session, ONLY_KITCHEN, state.head.id, dairy, Count(), state.version, "")
    known = {item.name: item.role for item in pantry.kitchen_pantry(session, ONLY_KITCHEN).ingredients}
    assert known["Zibrul paste"] is Role.DAIRY
    assert list(known).count("Bread flour") == 1


def test_settings_rest_on_a_version(session):
    """Two windows changing settings: the second is told."""
    state = kitchens.get_kitchen(session, ONLY_KITCHEN)
    ounces = Settings(scale=Scale(unit="oz", step="0.125"))
    kitchens.change_kitchen(session, ONLY_KITCHEN, "Weir House", ounces, state.version)
    assert kitchens.get_kitchen(session, ONLY_KITCHEN).settings == ounces
    with pytest.raises(Behind):
        kitchens.change_kitchen(session, ONLY_KITCHEN, "x", ounces, state.version)


def test_a_branch_starts_from_its_revision(session, rolls):
    """Not from what lies on the desk; where it came from is its first note."""
    state = store.keep_new(session, ONLY_KITCHEN, rolls, one_target(pieces=9), "first")
    wetter = with_line(rolls, 0, 1, percent=70.0)
    store.save_revision(session, ONLY_KITCHEN, state.head.id, wetter, state.count, state.version, "wetter")
    branch = store.copy_formula(session, ONLY_KITCHEN, state.head.id, 1)
    assert branch.formula.stages == rolls.stages
    assert branch.count.targets[0].pins.pieces == 9
    (revision,) = store.list_revisions(session, ONLY_KITCHEN, branch.head.id)
    assert revision.note == "Branched from Weir rolls, revision 1"
    with pytest.raises(NotFound):
        store.copy_formula(session, ONLY_KITCHEN, state.head.id, 7)


def test_what_an_earlier_release_left_on_the_desk_is_brought_up(session, rolls):
    """Its stages get their kinds as it is read, and it is no change that anybody made."""
    state = store.keep_new(session, ONLY_KITCHEN, rolls, Count(), "first")
    old = {"name": "Weir rolls", "stages": [{"name": "Poolish, overnight", "lines": [{"name": "Bread flour", "role": "flour", "percent": 20}]},
                                            {"name": "Mix", "lines": [{"name": "Bread flour", "role": "flour", "percent": 80}]}],
           "beside": [{"name": "Egg wash", "lines": []}]}  # fmt: skip
    session.execute(
        text("UPDATE formulas SET desk_formula = cast(:body AS jsonb), desk_schema = 2 WHERE id = :id"),
        {"body": json.dumps(old), "id": state.head.id},
    )
    session.expire_all()
    read = store.get_formula(session, ONLY_KITCHEN, state.head.id)
    assert [stage.kind for stage in read.formula.stages] == ["poolish", "dough"]
    assert read.formula.beside[0].kind == "wash"
    before = read.head.changed_at
    assert store.put_on_desk(session, ONLY_KITCHEN, state.head.id, read.formula, Count(), read.version).head.changed_at == before
