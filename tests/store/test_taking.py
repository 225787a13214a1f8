"""Recipes taken in, the kitchen's own ingredients and its cups, as they are kept."""


import pytest

from conftest import make_formula
from pancount.core.count.count import Count
from pancount.core.pantry.ingredients import Composition, Ingredient
from pancount.core.pantry.ingredients import pantry as shipped
from pancount.core.pantry.role import Role
from pancount.core.taking.habits import CupWeighing, Habits
from pancount.core.taking.taken import Settled
from pancount.store import formula as formulas
from pancount.store import kitchen as kitchens
from pancount.store import pantry
from pancount.store import taking as takings
from pancount.store.errors import Behind, NotFound
from pancount.store.kitchen import ONLY_KITCHEN, Settings
from pancount.store.taking import Taking

TEXT = "Weir rolls\nMakes 12\n500 g bread flour\n300 g water\n10 g fine salt\n5 g instant yeast\nBake at 220 °C."


def formula_of(session, state):
    """Its formula, read and kept as the API does."""
    made = takings.read_and_make(*takings.to_be_read(session, ONLY_KITCHEN, state.head.id, state.head.version))
    return takings.keep_formula(session, ONLY_KITCHEN, state.head.id, state.head.version, *made)


class TestTakings:
    """A recipe on its way to a formula."""

    def test_kept_as_it_was(self, session):
        """Text and what was settled, with the title as its name; each change a version."""
        settled = (Settled(written="300 g water", weight_g=310),)
        taking = Taking(text=TEXT, settled=settled, system="us")
        state = takings.start_taking(session, ONLY_KITCHEN, taking)
        assert (state.head.name, state.head.version, state.taking) == ("Weir rolls", 1, taking)
        changed = takings.put_taking(session, ONLY_KITCHEN, state.head.id, Taking(text="Lock buns\n2 eggs"), 1)
        assert (changed.head.name, changed.head.version) == ("Lock buns", 2)
        assert takings.get_taking(session, ONLY_KITCHEN, state.head.id) == changed
        with pytest.raises(Behind):
            takings.put_taking(session, ONLY_KITCHEN, state.head.id, Taking(text="x"), 1)

    def test_a_formula_is_made_and_the_text_goes_with_it(self, session):
        """Saved as revision 1, its lines carrying their text; thrown away, the recipe leaves the formula."""
        state = takings.start_taking(session, ONLY_KITCHEN, Taking(text=TEXT, settled=(Settled(written="300 g water", weight_g=310),)))
        made = formula_of(session, state)
        assert made.head.latest_number == 1
        water = made.formula.stages[0].lines[1]
        assert (water.weight_g, water.written) == (310, "300 g water")
        assert made.count.targets[0].pins.pieces == 12
        head = takings.get_taking(session, ONLY_KITCHEN, state.head.id).head
        assert head.formula_id == made.head.id
        takings.drop_taking(session, ONLY_KITCHEN, head.id, head.version)
        assert formulas.get_formula(session, ONLY_KITCHEN, made.head.id) == made
        with pytest.raises(NotFound):
            takings.get_taking(session, ONLY_KITCHEN, head.id)

    def test_taking_back_the_formula_leaves_the_recipe(self, session):
        """And it can be made again."""
        state = takings.start_taking(session, ONLY_KITCHEN, Taking(text=TEXT))
        made = formula_of(session, state)
        formulas.undo_new(session, ONLY_KITCHEN, made.head.id, made.version)
        session.flush()
        session.expire_all()
        assert takings.get_taking(session, ONLY_KITCHEN, state.head.id).head.formula_id is None

    def test_what_cannot_be_kept_lies_on_the_desk(self, session):
        """A line that nobody knows: the formula is a draft, and its text is there."""
        state = takings.start_taking(session, ONLY_KITCHEN, Taking(text="3 tsp zibrul\n" + TEXT))
        made = formula_of(session, state)
        assert (made.head.latest_number, made.head.unsaved) == (0, True)

    def test_each_kitchen_has_its_own(self, session):
        """Another kitchen's recipes, cups and ingredients are not there."""
        kitchens.open_kitchen(session, 2, "Other", Settings())
        state = takings.start_taking(session, 2, Taking(text=TEXT))
        cup = pantry.add_cup(session, 2, CupWeighing(ingredient="Bread flour", measure="cup", weight_g=140))
        assert state.head not in takings.list_takings(session, ONLY_KITCHEN)
        for attempt in (
            lambda: takings.get_taking(session, ONLY_KITCHEN, state.head.id),
            lambda: formula_of(session, state),
            lambda: pantry.drop_cup(session, ONLY_KITCHEN, cup.id),
        ):
            with pytest.raises(NotFound):
                attempt()
        assert cup not in pantry.list_cups(session, ONLY_KITCHEN)

    def test_the_kitchen_reads_it_with_its_own(self, session):
        """Habits, cups and ingredients of its own, from the records."""
        kitchens.remember_habits(session, ONLY_KITCHEN, Habits(cup_way="scooped"))
        pantry.add_cup(session, ONLY_KITCHEN, CupWeighing(ingredient="Bread flour", measure="cup", way="scooped", count=2, weight_g=280))
        pantry.put_ingredient(session, ONLY_KITCHEN, Ingredient(name="Lock salt", role=Role.SALT), 0)
        found = pantry.reading_kitchen(session, ONLY_KITCHEN)
        assert found.habits.cup_way == "scooped"
        assert found.cup_bands["Bread flour", "cup", "scooped"].usual_g == 140
        assert found.names.exactly("lock salt").ingredient.name == "Lock salt"


class TestPantry:
    """The kitchen's own ingredients."""

    WETTER = Ingredient(name="Butter", role=Role.FAT, composition=Composition(water=20, fat=80), source="yours")

    def formula(self, session):
        rolls = make_formula(("Bread flour", Role.FLOUR, 100), ("Water", Role.LIQUID, 50), ("unsalted butter", Role.FAT, 10), name="Buttered")
        return formulas.keep_new(session, ONLY_KITCHEN, rolls, Count(), "")

    def test_changing_one_reckons_what_uses_it_again(self, session):
        """Said first, by any of its names; done when it is kept; undone when it goes back to what ships."""
        state = self.formula(session)
        assert state.head.true_water_percent == pytest.approx(50 + 1.7)
        (use,) = (u for u in formulas.uses(session, ONLY_KITCHEN, self.WETTER) if u.formula_id == state.head.id)
        # Without its other name the formula's "unsalted butter" would not be known any more: its water would be a guess.
        assert (use.true_water_now, use.true_water_then) == (pytest.approx(51.7), pytest.approx(53))
        same_names = self.WETTER.model_copy(update={"also": ("unsalted butter",)})
        (use,) = (u for u in formulas.uses(session, ONLY_KITCHEN, same_names) if u.formula_id == state.head.id)
        assert use.true_water_then == pytest.approx(52)
        pantry.put_ingredient(session, ONLY_KITCHEN, same_names, 0)
        assert formulas.reckon_again(session, ONLY_KITCHEN, same_names) >= 1
        assert formulas.get_formula(session, ONLY_KITCHEN, state.head.id).head.true_water_percent == pytest.approx(52)
        pantry.drop_ingredient(session, ONLY_KITCHEN, "Butter", 1)
        formulas.reckon_again(session, ONLY_KITCHEN, same_names)
        assert formulas.get_formula(session, ONLY_KITCHEN, state.head.id).head.true_water_percent == pytest.approx(51.7)

    def test_a_changed_one_stands_in_its_place(self, session):
        """In the list once, marked as own, with the shipped one to go back to."""
        before = len(pantry.list_pantry(session, ONLY_KITCHEN))
        item = pantry.put_ingredient(session, ONLY_KITCHEN, self.WETTER, 0)
        assert (item.version, item.shipped, item.ingredient.own) == (1, True, True)
        listed = pantry.list_pantry(session, ONLY_KITCHEN)
        assert len(listed) == before
        assert item in listed
        with pytest.raises(Behind):
            pantry.put_ingredient(session, ONLY_KITCHEN, self.WETTER, 0)
        with pytest.raises(Behind):
            pantry.drop_ingredient(session, ONLY_KITCHEN, "Butter", 7)
        pantry.drop_ingredient(session, ONLY_KITCHEN, "Butter", 1)
        assert next(i for i in pantry.kitchen_pantry(session, ONLY_KITCHEN).ingredients if i.name == "Butter") in shipped()
        with pytest.raises(NotFound):
            pantry.drop_ingredient(session, ONLY_KITCHEN, "Butter", 1)

    def test_used_once_and_described_later(self, session):
        """What a formula taught the pantry keeps its description when the formula is saved again."""
        rolls = make_formula(("Bread flour", Role.FLOUR, 100), ("Zibrul paste", Role.FLAVOUR, 1))
        state = formulas.keep_new(session, ONLY_KITCHEN, rolls, Count(), "")
        learnt = next(i for i in pantry.list_pantry(session, ONLY_KITCHEN) if i.ingredient.name == "Zibrul paste")
        assert (learnt.ingredient.composition, learnt.shipped) == (None, False)
        described = learnt.ingredient.model_copy(update={"composition": Composition(water=60)})
        pantry.put_ingredient(session, ONLY_KITCHEN, described, learnt.version)
        formulas.save_revision(session, ONLY_KITCHEN, state.head.id, rolls, Count(), state.version, "")
        session.expire_all()
        assert described in pantry.kitchen_pantry(session, ONLY_KITCHEN).ingredients


def test_columns_are_remembered_by_their_head(session):
    """The last fifty kinds of table."""
    for n in range(60):
        kitchens.remember_columns(session, ONLY_KITCHEN, f"head {n}", {"ingredient": n})
    known = kitchens.get_kitchen(session, ONLY_KITCHEN).settings.columns
    assert len(known) == 50
    assert known["head 59"] == {"ingredient": 59}
    assert "head 9" not in known
