"""Aiming a gauge and swapping an ingredient: what is kept, what cannot be, and the way back."""

from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pancount.core.base.errors import CannotChange
from pancount.core.formula.aim import Aim, aim
from pancount.core.formula.changes import FreeOf, SwapOne, change_formula
from pancount.core.formula.formula import Beside, BesideKind, Formula, Stage, StageKind, each_line
from pancount.core.formula.gauges import character
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import reckon, weight_of
from pancount.core.formula.swaps import PARTS, free_of, swap, swap_book, swap_offers, swaps_of
from strategies import PANTRY, line_of, mixed_formulas

PRACTICE = Practice()
AMOUNTS = {
    "Bread flour": 90, "Wholemeal flour": 10, "Water": 30, "Whole milk": 25, "Egg": 8, "Butter": 10, "Sugar": 8,
    "Fine salt": 1.9, "Instant yeast": 0.9, "Squash, mashed": 10,
}  # fmt: skip


def dough(**amounts: float) -> Formula:
    """A dough with something of everything, in percent."""
    return Formula(name="x", stages=(Stage(name="Dough", lines=tuple(line_of(k, percent=v) for k, v in amounts.items())),))


def weighed(formula: Formula, flour_g: float = 700) -> Formula:
    """The same in grams."""
    lines = tuple(line.model_copy(update={"percent": None, "weight_g": weight_of(line.percent or 0, flour_g)}) for line in formula.stages[0].lines)
    return formula.model_copy(update={"stages": (formula.stages[0].model_copy(update={"lines": lines}),)})


def gauges(formula: Formula) -> dict[str, float]:
    look = character(formula, reckon(formula), PANTRY, PRACTICE)
    return {key: gauge.value for key, gauge in look.gauges.items()}


def percents(formula: Formula) -> dict[str, float]:
    """Of flour, by name; lines at nothing left out."""
    figures = reckon(formula)
    found = {line.name: figures.stages[s].lines[n].percent for s, n, line in each_line(formula)}
    return {name: percent for name, percent in found.items() if percent > 1e-6}


FULL = dough(**AMOUNTS)
SPOT = {line.name: n for n, line in enumerate(FULL.stages[0].lines)}


class TestAim:
    """One line gives way until the gauge reads what is wanted."""

    @pytest.mark.parametrize(
        ("gauge", "wanted", "line"),
        [("water", 65, "Water"), ("water", 50, "Whole milk"), ("salt", 2.2, "Fine salt"), ("sugars", 12, "Sugar"),
         ("fat", 14, "Butter"), ("yeast", 0.5, "Instant yeast"), ("egg", 0, "Egg"), ("liquid", 60, "Water")],
    )  # fmt: skip
    @pytest.mark.parametrize("formula", [FULL, weighed(FULL)], ids=["percent", "grams"])
    def test_it_is_met_exactly_and_nothing_else_moves(self, formula, gauge, wanted, line):
        """In percent and in grams."""
        aimed = aim(formula, Aim(gauge=gauge, wanted=wanted, stage=0, line=SPOT[line]), PANTRY, PRACTICE)
        assert gauges(aimed)[gauge] == pytest.approx(wanted, abs=1e-9)
        assert reckon(aimed).flour_g == pytest.approx(reckon(formula).flour_g)
        before, after = percents(formula), percents(aimed)
        assert {k: v for k, v in after.items() if k != line} == pytest.approx({k: v for k, v in before.items() if k != line})

    @given(mixed_formulas(), st.floats(40, 120))
    def test_water_of_any_mixed_formula(self, formula, wanted):
        """Through stages that feed each other in part."""
        s = len(formula.stages) - 1
        n = next(n for n, line in enumerate(formula.stages[s].lines) if line.name == "Water")
        try:
            aimed = aim(formula, Aim(gauge="water", wanted=wanted, stage=s, line=n), PANTRY, PRACTICE)
        except CannotChange as told:
            assert "less than nothing" in str(told)
            without = gauges(aim(formula, Aim(gauge="water", wanted=gauges(formula)["water"], stage=s, line=n), PANTRY, PRACTICE))
            assert without["water"] > wanted
        else:
            assert gauges(aimed)["water"] == pytest.approx(wanted)

    @pytest.mark.parametrize(
        ("asked", "says"),
        [
            (Aim(gauge="water", wanted=10, stage=0, line=SPOT["Egg"]), "without any of it, true water is"),
            (Aim(gauge="water", wanted=60, stage=0, line=SPOT["Bread flour"]), "100 %"),
            (Aim(gauge="salt", wanted=2.5, stage=0, line=SPOT["Water"]), None),
            (Aim(gauge="egg", wanted=2, stage=0, line=SPOT["Sugar"]), "brings no egg"),
            (Aim(gauge="egg", wanted=2, stage=0, line=99), "no such line"),
        ],
    )
    def test_what_cannot_be_aimed_says_why(self, asked, says):
        """Less than nothing, flour, a line that brings none; tap water's salt is so little that it would take a flood."""
        if says is None:
            assert percents(aim(FULL, asked, PANTRY, PRACTICE))["Water"] > 500
            return
        with pytest.raises(CannotChange, match=says):
            aim(FULL, asked, PANTRY, PRACTICE)


PAIRS = [
    (old, chosen)
    for old in sorted(swap_offers())
    for chosen in swaps_of(old)
    if any(back.to == (old,) for back in swaps_of(chosen.to[0])) and "Sourdough starter" not in (old, *chosen.to)
]
TOLERANCE = 0.05
"""Swapped and swapped back, every line is within this of what it was: lines that would move by under 0.02 stay, twice,
where enough of the dough's own liquid, fat, sugar and salt is there to make the rest good. [%]"""


class TestSwap:
    """One ingredient for another."""

    @pytest.mark.parametrize(("old", "chosen"), PAIRS, ids=[f"{a} to {b.label}" for a, b in PAIRS])
    def test_water_fat_sugars_and_salt_are_kept_and_back_is_the_same(self, old, chosen):
        """With enough of each to give way, all four are kept to a tenth, and swapping back returns every line."""
        stands_for = old if old in AMOUNTS else next(name for name in AMOUNTS if any(old in one.to for one in swaps_of(name)))
        amounts = {old if name == stands_for else name: percent for name, percent in AMOUNTS.items()}
        amounts = {name: percent for name, percent in amounts.items() if name == "Water" or name not in chosen.to}
        if old in swap_book().family["flour"].members:
            amounts = {old: 100} | {k: v for k, v in amounts.items() if PANTRY.find(k).role != "flour"}
        for formula in (dough(**amounts), weighed(dough(**amounts))):
            n = list(amounts).index(old)
            swapped = swap(formula, 0, n, chosen, PANTRY, PRACTICE)
            before, after = gauges(formula), gauges(swapped)
            absorbs = swap_book().absorbs
            before["water"] += absorbs.get(chosen.to[0], 0) - absorbs.get(old, 0)
            assert [after[part] for part in PARTS] == pytest.approx([before[part] for part in PARTS], abs=0.1)
            assert reckon(swapped).flour_g == pytest.approx(reckon(formula).flour_g)
            back = next(one for one in swaps_of(chosen.to[0]) if one.to == (old,))
            spot = next(m for m, line in enumerate(swapped.stages[0].lines) if line.name == chosen.to[0])
            returned = percents(swap(swapped, 0, spot, back, PANTRY, PRACTICE))
            assert returned == pytest.approx(percents(formula), abs=TOLERANCE)

    def test_butter_for_oil_by_hand(self):
        """10 % butter is 8.111 % fat and 1.7 % water: so much oil, and so much more water."""
        oil = next(one for one in swaps_of("Butter") if one.label == "Sunflower oil")
        after = percents(swap(FULL, 0, SPOT["Butter"], oil, PANTRY, PRACTICE))
        assert (after["Sunflower oil"], after["Water"]) == pytest.approx((8.111, 31.7), abs=0.01)

    def test_yeast_by_weight(self):
        """0.9 % instant is 2.7 % fresh or 1.08 % active dry, 3 : 1.2 : 1 (common practice, no source)."""
        for label, wanted in (("Fresh yeast", 2.7), ("Active dry yeast", 1.08)):
            chosen = next(one for one in swaps_of("Instant yeast") if one.label == label)
            assert percents(swap(FULL, 0, SPOT["Instant yeast"], chosen, PANTRY, PRACTICE))[label] == pytest.approx(wanted)

    def test_sourdough_for_yeast_keeps_flour_and_water(self):
        """1 % instant for 40 % starter at 100 %: 18 % of the flour for 0.9 %, its flour and water out of the dough's own."""
        chosen = next(one for one in swaps_of("Instant yeast") if one.label == "Sourdough starter")
        after = swap(FULL, 0, SPOT["Instant yeast"], chosen, PANTRY, PRACTICE)
        assert percents(after)["Sourdough starter"] == pytest.approx(36)
        assert percents(after)["Bread flour"] == pytest.approx(90 - 18)
        assert percents(after)["Water"] == pytest.approx(30 - 18, abs=0.1)
        assert gauges(after)["prefermented"] == pytest.approx(18)
        assert gauges(after)["water"] == pytest.approx(gauges(FULL)["water"], abs=0.1)
        with pytest.raises(CannotChange, match="not enough flour"):
            little = dough(**{"Bread flour": 100, "Water": 60, "Instant yeast": 10})
            swap(little, 0, 2, chosen, PANTRY, PRACTICE)

    def test_flour_changes_the_water_for_the_same_feel(self):
        """Bread flour takes about 3.5 points more than plain (62.5 against 66, common practice, no source)."""
        lean = dough(**{"Plain flour": 100, "Water": 62.5})
        chosen = next(one for one in swaps_of("Plain flour") if one.label == "Bread flour")
        assert percents(swap(lean, 0, 0, chosen, PANTRY, PRACTICE)) == pytest.approx({"Bread flour": 100, "Water": 66})

    def test_what_cannot_be_kept_is_said(self):
        """Honey without a liquid to take back its water: wetter. Nothing goes below nothing."""
        poor = dough(**{"Bread flour": 100, "Egg": 50, "Sugar": 15, "Instant yeast": 1})
        changed = change_formula(poor, SwapOne(stage=0, line=2, to="Honey"), PANTRY, PRACTICE)
        assert any("True water" in says and "softer" in says for says in changed.says)
        assert any("Browns sooner" in says for says in changed.says)
        assert all(percent >= 0 for percent in percents(changed.formula).values())

    def test_allergens_gained_and_lost(self):
        """Milk for oat drink loses nothing while butter is in it; butter for oil then loses milk."""
        changed = change_formula(FULL, SwapOne(stage=0, line=SPOT["Whole milk"], to="Oat drink"), PANTRY, PRACTICE)
        assert (changed.gained, changed.lost) == (("oats",), ())
        again = change_formula(changed.formula, SwapOne(stage=0, line=SPOT["Butter"], to="Sunflower oil"), PANTRY, PRACTICE)
        assert (again.gained, again.lost) == ((), ("milk",))

    @pytest.mark.parametrize(
        ("line", "to", "says"),
        [(SPOT["Sugar"], "Sawdust", "No swap is known"), (99, "Honey", "no such line"), (SPOT["Fine salt"], "Honey", "No swap")],
    )
    def test_swaps_that_are_not_there(self, line, to, says):
        """Said, not guessed."""
        with pytest.raises(CannotChange, match=says):
            change_formula(FULL, SwapOne(stage=0, line=line, to=to), PANTRY, PRACTICE)

    def test_a_line_without_an_amount_has_nothing_to_swap(self):
        """An open amount stays open."""
        opened = Formula(stages=(Stage(lines=(line_of("Bread flour", percent=100), line_of("Sugar"))),))
        with pytest.raises(CannotChange, match="no amount yet"):
            change_formula(opened, SwapOne(stage=0, line=1, to="Honey"), PANTRY, PRACTICE)


class TestFreeOf:
    """Every line that holds an allergen, at once."""

    MILKY = Formula(
        name="x",
        stages=(
            Stage(name="Paste", kind=StageKind.PASTE, lines=(line_of("Bread flour", percent=5), line_of("Whole milk", percent=20))),
            Stage(name="Dough", lines=(line_of("Bread flour", percent=95), line_of("Whole milk", percent=33), line_of("Butter", percent=12),
                                       line_of("Sugar", percent=10), line_of("Fine salt", percent=1.8), line_of("Instant yeast", percent=0.9))),
        ),
        beside=(Beside(name="Wash", kind=BesideKind.WASH, lines=(line_of("Whole milk", weight_g=15), line_of("Egg yolk", weight_g=18))),),
    )  # fmt: skip

    def test_dairy_free_through_stages_and_wash(self):
        """No milk is left, water and fat are kept to a tenth, and the wash is brushed with oat drink."""
        changed = change_formula(self.MILKY, FreeOf(allergen="milk"), PANTRY, PRACTICE)
        assert changed.lost == ("milk",)
        assert [line.name for line in changed.formula.beside[0].lines] == ["Oat drink", "Egg yolk"]
        before, after = gauges(self.MILKY), gauges(changed.formula)
        assert [after[part] for part in PARTS] == pytest.approx([before[part] for part in PARTS], abs=0.1)

    def test_egg_free_says_what_is_lost(self):
        """Egg goes; what it did for crumb and colour is said."""
        changed = change_formula(FULL, FreeOf(allergen="egg"), PANTRY, PRACTICE)
        assert "egg" in changed.lost
        assert any("No egg to set the crumb" in says for says in changed.says)

    def test_what_no_swap_is_known_for_stays_and_is_named(self):
        """Cheese is not guessed at; nor is an allergen without a rule."""
        cheesy = dough(**(AMOUNTS | {"Feta": 10}))
        assert free_of(cheesy, "milk", PANTRY, PRACTICE).left == ("Feta",)
        changed = change_formula(FULL, FreeOf(allergen="wheat"), PANTRY, PRACTICE)
        assert "wheat is still in it" in changed.says[0]
        assert changed.formula == FULL


def test_the_swap_book_names_what_the_pantry_has():
    """Every member is in the pantry, and every part that is matched is one that can be."""
    names = {name for one in product(swap_offers()) for name in one}
    for name in names:
        for chosen in swaps_of(name):
            assert all(PANTRY.find(new) is not None for new in (name, *chosen.to))
            assert set(chosen.matches) <= {*PARTS, "weight", "leaven"}
    assert set(swap_book().absorbs) == set(swap_book().family["flour"].members)
