"""The shelf as it is kept."""

import pytest

from pancount.core.base import most
from pancount.core.pans.pan import LoafTin, RoundPan
from pancount.core.pans.shelf import ShelfPan
from pancount.store import pans as store
from pancount.store.errors import Behind, Full, NotFound
from pancount.store.kitchen import ONLY_KITCHEN, Settings, open_kitchen

TIN = ShelfPan(pan=LoafTin(name="Two-pound tin", length_cm=23, width_cm=13, depth_cm=7), material="glass", owned=2)


def names(session, *, archived=False) -> list[str]:
    return [state.shelved.pan.name for state in store.list_pans(session, ONLY_KITCHEN, archived=archived)]


def test_kept_changed_put_away_and_back(session):
    """A pan goes through its life, and its figures come with it."""
    before = names(session)
    state = store.add_pan(session, ONLY_KITCHEN, TIN)
    assert (state.shelved, state.version, state.measured.volume_ml) == (TIN, 1, 23 * 13 * 7)
    watered = TIN.model_copy(update={"pan": TIN.pan.model_copy(update={"brim_ml": 2000})})
    changed = store.change_pan(session, ONLY_KITCHEN, state.id, watered, 1)
    assert (changed.version, changed.measured.volume_ml) == (2, 2000)
    store.put_away(session, ONLY_KITCHEN, state.id, archived=True)
    assert (names(session), "Two-pound tin" in names(session, archived=True)) == (before, True)
    store.put_away(session, ONLY_KITCHEN, state.id, archived=False)
    store.remove_pan(session, ONLY_KITCHEN, state.id, 2)
    assert names(session) == before


def test_two_windows(session):
    """The second to change or remove what the first changed is told, and nothing is lost."""
    state = store.add_pan(session, ONLY_KITCHEN, TIN)
    store.change_pan(session, ONLY_KITCHEN, state.id, TIN, 1)
    with pytest.raises(Behind):
        store.change_pan(session, ONLY_KITCHEN, state.id, TIN, 1)
    with pytest.raises(Behind):
        store.remove_pan(session, ONLY_KITCHEN, state.id, 1)


def test_another_kitchens_pan_is_not_there(session):
    """Every query takes its kitchen."""
    open_kitchen(session, 77, "Over the lock", Settings())
    state = store.add_pan(session, 77, ShelfPan(pan=RoundPan(diameter_cm=20, depth_cm=5)))
    for act in (
        lambda: store.change_pan(session, ONLY_KITCHEN, state.id, TIN, 1),
        lambda: store.put_away(session, ONLY_KITCHEN, state.id, archived=True),
        lambda: store.remove_pan(session, ONLY_KITCHEN, state.id, 1),
    ):
        with pytest.raises(NotFound):
            act()


def test_a_full_shelf_says_so(session, monkeypatch):
    """It is drawn as a whole, so it has an end."""
    there = sum(len(store.list_pans(session, ONLY_KITCHEN, archived=archived)) for archived in (False, True))
    monkeypatch.setattr(most, "PANS", there + 1)
    store.add_pan(session, ONLY_KITCHEN, TIN)
    with pytest.raises(Full, match="The shelf holds"):
        store.add_pan(session, ONLY_KITCHEN, TIN)
