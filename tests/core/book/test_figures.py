"""The kitchen's own figures: one per bake, the trade's beside it, what cannot be left out, what was taken told; and used wherever the usual stood in."""

from uuid import UUID

import pytest

from core.bench.bakes import begun
from pancount.core.bench.state import ground_of
from pancount.core.book.figures import (
    IN_SETTINGS,
    BakeSaid,
    Known,
    as_learned,
    figure_key,
    figure_rules,
    formulas_figures,
    kitchens_figures,
    possible,
)
from pancount.core.book.observed import Observed
from pancount.core.count.learned import Learned
from pancount.core.count.relations import of
from pancount.core.count.solve import solve
from pancount.core.count.whole import whole_count
from pancount.core.day.blocks import cut_way
from pancount.core.formula.formula import Formula
from pancount.core.formula.practice import Practice
from pancount.core.formula.ways import in_way, way_of
from pancount.core.heat.climate import Climate
from pancount.core.method.batch import batch_of
from pancount.core.method.method import Method, whole_method
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import pantry_with

BUNS, BAGELS = "Cardamom milk buns", "Malted seed bagels"
LOSS = Observed(figure="bake_loss", of="pull_apart_buns", value=0.13, usual=0.11)
KNOWN = Known(formula=(), kitchen=(), kit=Kit(), climate=Climate(), ways={"": "By hand"})


def said(*each: tuple[Observed, ...], left_out: dict[int, dict[str, str]] | None = None) -> tuple[BakeSaid, ...]:
    """Bakes, the oldest first, a week apart."""
    return tuple(
        BakeSaid(bake=UUID(int=n + 1), formula_id=1, name=BUNS, begun_s=1.7e9 + n * 604_800, observed=seen, left_out=(left_out or {}).get(n, {})) for n, seen in enumerate(each)
    )


def loss(value: float) -> Observed:
    return LOSS.model_copy(update={"value": value})


def taken(figure: str, value: float, **more: object) -> Learned:
    return Learned.model_validate({"figure": figure, "value": value, "sure": 0.02, "strays": 0.1, "bakes": 6, "on": "2026-11-30"} | more)


class TestFigures:
    """From what bakes said."""

    def test_the_trade_and_the_kitchen(self):
        """Beside what stood in (11 %) stands what six bakes say; the range opens to both sides of it."""
        (figure,) = formulas_figures(said(*[(loss(0.13 + 0.002 * n),) for n in range(6)]), KNOWN)
        assert (figure.trade, figure.bakes, figure.in_use, figure.way_name) == (0.11, 6, 0.11, "")
        assert 0.11 < figure.low < figure.usual < figure.high < 0.145
        assert [one.value for one in figure.moved][-1] == figure.usual
        assert figure.says == "More than what stood in."

    def test_left_out(self):
        """What is left out counts no more, and says why; the figure is as if it had not been."""
        key = figure_key("bake_loss", "pull_apart_buns")
        without = formulas_figures(said((loss(0.13),), (loss(0.132),)), KNOWN)[0]
        figure = formulas_figures(said((loss(0.13),), (loss(0.2),), (loss(0.132),), left_out={1: {key: "the door stood open"}}), KNOWN)[0]
        assert (figure.usual, figure.bakes) == (without.usual, 2)
        assert [one.why for one in figure.said] == ["", "Left out: the door stood open", ""]

    def test_what_cannot_be_does_not_count(self):
        """A loss of four fifths is no loss: it is shown, and not counted."""
        figure = formulas_figures(said((loss(0.8),), (loss(0.13),)), KNOWN)[0]
        assert (figure.bakes, figure.said[1].counts) == (1, False)
        assert figure.said[1].why.startswith("This cannot be")

    def test_a_bake_counts_as_one(self):
        """Two rises of one bake are one word about the kitchen's rises: their geometric middle."""
        rises = (Observed(figure="rise", of="rise", value=1.0), Observed(figure="rise", of="proof", value=1.44))
        figure = kitchens_figures(said(rises), KNOWN)[0]
        assert (figure.figure, figure.bakes, figure.said[0].value) == ("rise_all", 1, pytest.approx(1.2))

    def test_other_formulas_stand_in_for_the_model(self):
        """Where the kitchen's other rises are known, theirs stands in for a formula of which little is, and not the model's."""
        pooled = kitchens_figures(said(*[(Observed(figure="rise", of="rise", value=1.3),)] * 8), KNOWN)[0]
        one = said((Observed(figure="rise", of="rise", value=1.3),))
        alone, among = (formulas_figures(one, KNOWN, pool)[0] for pool in (None, pooled))
        assert (alone.trade, among.trade) == (1.0, pytest.approx(pooled.usual))
        assert alone.usual < among.usual

    def test_none_counts(self):
        """With nothing that counts, the figure is what stood in, and nothing is offered."""
        figure = formulas_figures(said((loss(0.9),)), KNOWN)[0]
        assert (figure.bakes, figure.usual, figure.says) == (0, pytest.approx(0.11, abs=1e-3), "No bake counts for it yet.")

    def test_taken(self):
        own = as_learned(formulas_figures(said((loss(0.13),)), KNOWN)[0], "2026-11-30")
        figure = formulas_figures(said((loss(0.13),)), Known((own,), (), Kit(), Climate(), {}))[0]
        assert (figure.taken, figure.in_use) == (own, own.value)

    def test_settings_hold_what_is_possible(self):
        """All that a kitchen's figure may be, its settings may hold: nothing that is offered is refused when it is taken."""
        for name, (part, field) in IN_SETTINGS.items():
            rule, model = figure_rules()[name], Kit if part == "kit" else Climate
            for value in (rule.trade, rule.least, rule.most):
                if possible(name, value) and value >= 0:
                    assert getattr(model.model_validate({field: value}), field) == value

    def test_every_figure_has_its_source(self):
        assert all(rule.source and rule.noise > 0 and rule.least < rule.most for rule in figure_rules().values())


def method_with(name: str, *learned: Learned, climate: Climate | None = None) -> Method:
    own = begun(name)
    count = own.count.model_copy(update={"learned": learned})
    return whole_method(own.formula, count, pantry_with(own.own), own.practice, own.kit, climate or own.climate)


def named(formula: Formula, way: str) -> str:
    return way_of(formula, way).key


class TestUsed:
    """Wherever the usual stood in."""

    def test_losses_in_the_count(self):
        """A learned loss stands in for the usual, and a pin beats it."""
        own = begun(BUNS)
        learned = (taken("bench_loss", 0.05), taken("bake_loss", 0.14, of=own.formula.usual.fill_kind))
        whole = whole_count(own.formula, own.count.model_copy(update={"learned": learned}), pantry_with(()), Practice())
        quantities = whole.count.quantities
        assert (quantities["bench_loss"].value, quantities["bench_loss"].source) == (0.05, "learned")
        assert (quantities["bake_loss.0"].value, quantities["bake_loss.0"].source) == (0.14, "learned")
        pins = own.count.pins.model_copy(update={"bench_loss": 0.01})
        pinned = whole_count(own.formula, own.count.model_copy(update={"learned": learned, "pins": pins}), pantry_with(()), Practice())
        assert pinned.count.quantities["bench_loss"].source == "pinned"

    def test_more_loss_wants_more_dough(self):
        """For as many pieces of as much, the dough is what the pieces take over what is not lost: 1 ÷ (1 − loss)."""
        own = begun(BUNS)
        before, after = (
            solve(own.formula, own.count.model_copy(update={"learned": learned}), pantry_with(()), Practice(), Kit()).solution.values
            for learned in ((), (taken("bench_loss", 0.10),))
        )
        assert after["divide_g"] == pytest.approx(before["divide_g"])
        assert after["dough_g"] == pytest.approx(before["divide_g"] / 0.9)

    def test_another_kind_of_baking_keeps_its_own(self):
        own = begun(BUNS)
        whole = whole_count(own.formula, own.count.model_copy(update={"learned": (taken("bake_loss", 0.14, of="bagels"),)}), pantry_with(()), Practice())
        assert whole.count.quantities["bake_loss.0"].source == "usual"

    def test_rises_in_the_method(self):
        """A rise that takes a quarter longer here takes a quarter longer, its end and its look with it; the other rise stays."""
        own = begun(BUNS)
        way = named(own.formula, own.count.way)
        before, after = method_with(BUNS), method_with(BUNS, taken("rise", 1.25, of="rise", way=way))
        first, second = ([one for one in method.rises if method.steps[one.step].label == label] for method, label in ((before, "first rise"), (after, "first rise")))
        assert first[0].usual_min is not None
        # Along a course that cools a little: longer by a quarter, give or take a few percent.
        assert second[0].usual_min == pytest.approx(1.25 * first[0].usual_min, rel=0.06)
        others = [[one.told for one in method.rises] for method in (before, after)]
        assert others[0] == others[1]
        assert "kitchen’s own" in after.figures[f"rise.{second[0].step}"].says

    def test_all_rises_of_a_kitchen(self):
        """Where nothing is known of the one rise, the kitchen's own factor stands; where something is, that does."""
        slow = Climate(rise_factor=1.25)
        way = named(begun(BUNS).formula, begun(BUNS).count.way)
        plain, kitchen, own = method_with(BUNS), method_with(BUNS, climate=slow), method_with(BUNS, taken("rise", 1.0, of="rise", way=way), climate=slow)
        at = next(n for n, one in enumerate(plain.rises) if plain.steps[one.step].label == "first rise")
        times = [method.rises[at].usual_min for method in (plain, kitchen, own)]
        assert times[1] > 1.15 * times[0]
        assert times[2] == pytest.approx(times[0], rel=1e-6)

    def test_the_range_is_narrowed(self):
        """What a kitchen's bakes stray by is as far as the range of a rise that is carried far opens."""
        cold = Climate(room_c=14)
        way = named(begun(BUNS).formula, begun(BUNS).count.way)
        wide, narrow = method_with(BUNS, climate=cold), method_with(BUNS, taken("rise", 1.0, of="rise", way=way, strays=0.02), climate=cold)
        at = next(n for n, one in enumerate(wide.rises) if wide.steps[one.step].label == "first rise")
        assert wide.rises[at].widened > 0.02
        assert narrow.rises[at].widened == 0.02

    def test_hands_in_the_method_and_the_day(self):
        """Shaping that takes twice as long a piece takes twice as long, in the method and in what the day lays out."""
        own = begun(BAGELS)
        way = named(own.formula, own.count.way)
        pieces = sum(target.pieces for target in own.sheet.targets)
        learned = (taken("minutes", 1.0, of="shape", way=way),)
        method = method_with(BAGELS, *learned)
        shape = next(n for n, one in enumerate(method.steps) if one.label == "shape")
        assert method.steps[shape].usual_min == pytest.approx(pieces)
        formula, count = in_way(own.formula, own.count.way), own.count.model_copy(update={"learned": learned})
        batch = batch_of(formula, count, pantry_with(own.own), own.practice, own.kit, 0)
        cut = cut_way(formula, own.count.way, method, batch.turns, batch.pieces, learned)
        assert cut is not None
        spans = [part.end - part.begin for chunk in cut.chunks for part in chunk.parts if part.step == shape]
        assert sum(spans) == pytest.approx(pieces, rel=0.05)

    def test_a_bake_stands_on_what_was_learned_when_it_began(self):
        """What a bake is measured against without the book is the model, not what was learned before: a figure is not learned twice over."""
        own = begun(BUNS)
        learned = own.model_copy(update={"count": own.count.model_copy(update={"learned": (taken("bench_loss", 0.05),)})})
        assert ground_of(learned).before["bench_loss"] == 0.05
        assert ground_of(own).before[of("bake_loss", 0)] == pytest.approx(0.10, abs=0.02)
