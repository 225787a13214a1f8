"""Several targets from one dough, and the limits a count stays within."""

import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from pancount.core.count.count import PINNABLE, Count, Pins, Target, TargetPins, with_pins
from pancount.core.count.limits import Limit
from pancount.core.count.relations import bare, of
from pancount.core.count.solve import solve
from pancount.core.formula.formula import Usual
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import Griddle, RectanglePan, RoundPan, SheetPan
from pancount.core.pans.shaping import Shaping
from strategies import can_be_pinned, formulas

IRON = RoundPan(name="Iron pan", diameter_cm=30, depth_cm=5)
SHEET = SheetPan(length_cm=46, width_cm=33, depth_cm=2.5)
KIT = Kit(bowl_g=1600, sheet=SHEET, shelves=2, pot_cm=26, griddle=Griddle(diameter_cm=25), fridge_length_cm=50, fridge_width_cm=40)


def target(pan=None, name="", **pins) -> Target:
    return Target(name=name, pins=TargetPins(**pins), pan=pan)


def counted(formula, *targets, limits=(), kit=KIT, looking_at=0, **pins):
    count = Count(pins=Pins(**pins), targets=targets or (Target(),), limits=limits)
    return solve(formula, count, kit=kit, looking_at=looking_at).result


def value(result, name: str) -> float:
    return result.quantities[name].value


class TestSeveralTargets:
    """12 large and 20 small ones and a round pan, each by pieces and weight, by pans, or by what is left."""

    def test_all_of_them_make_the_dough(self, rolls):
        """12 at 90 g, 20 at 45 g and a pan of 700 g are 2 680 g to divide; 2 % lost, 163 % of flour."""
        result = counted(
            rolls, target(pieces=12, piece_g=90), target(pieces=20, piece_g=45), target(IRON, pans=1, pieces_per_pan=1, piece_g=700)
        )
        assert value(result, "divide_g") == pytest.approx(2680)
        assert value(result, "flour_g") == pytest.approx(2680 / 0.98 / 1.63)
        assert not result.fights

    def test_one_takes_what_is_left(self, rolls):
        """1 000 g of flour give 1 597.4 g; 12 at 90 take 1 080; the pan gets 517.4."""
        result = counted(rolls, target(pieces=12, piece_g=90), target(IRON, pieces=1, pieces_per_pan=1), flour_g=1000)
        assert value(result, "piece_g.1") == pytest.approx(517.4)
        assert value(result, "remainder_g") == pytest.approx(0)

    def test_what_is_left_in_whole_pieces(self, rolls):
        """517.4 g at 45 g are 11 pieces and 22.4 g over."""
        result = counted(rolls, target(pieces=12, piece_g=90), target(piece_g=45), flour_g=1000)
        assert (value(result, "pieces.1"), value(result, "remainder_g")) == (11, pytest.approx(22.4))

    def test_open_ones_share_evenly_and_the_last_takes_the_rest(self, rolls):
        """Two open targets of 80 and 40 g share 1 597.4 g: half is 9 of 80, and the rest 21 of 40."""
        result = counted(rolls, target(piece_g=80), target(piece_g=40), flour_g=1000)
        assert (value(result, "pieces.0"), value(result, "pieces.1")) == (9, 21)

    def test_more_than_there_is_fights(self, rolls):
        """Both targets and the flour are named, each with what it would be."""
        (fight,) = counted(rolls, target(pieces=20, piece_g=90), target(pieces=5, piece_g=90), flour_g=1000).fights
        assert {a.pin for a in fight.alternatives} == {"flour_g", "pieces.0", "piece_g.0", "pieces.1", "piece_g.1"}
        gives = {a.pin: a.gives for a in fight.alternatives}
        assert gives["flour_g"] == pytest.approx(25 * 90 / 0.98 / 1.63)
        assert gives["pieces.1"] is None  # the first alone is too much already
        assert gives["pieces.0"] == 12

    def test_baked_weight_from_raw_and_back(self, rolls):
        """68 g baked at 12 % lost is 77.3 g raw; with both pinned the loss follows."""
        result = counted(rolls, target(pieces=10, baked_g=68, bake_loss=0.12))
        assert value(result, "piece_g.0") == pytest.approx(68 / 0.88)
        loss = counted(rolls, target(pieces=10, baked_g=68, piece_g=80)).quantities["bake_loss.0"]
        assert (loss.value, loss.source) == (pytest.approx(0.15), "worked")

    def test_heavier_baked_than_raw_fights(self, rolls):
        """A bun does not gain in the oven."""
        assert counted(rolls, target(pieces=10, baked_g=90, piece_g=80)).fights


class TestChoices:
    """Whole numbers for the target looked at; the others stay."""

    def test_only_the_target_looked_at_moves(self, rolls):
        """Whatever is chosen for the second, the first keeps its pieces and weight."""
        targets = (target(pieces=12, piece_g=90), target(piece_g=45))
        result = counted(rolls, *targets, flour_g=1000, looking_at=1)
        assert {c.kind for c in result.choices} >= {"leave_remainder", "heavier", "lighter", "less_dough", "more_dough"}
        for choice in result.choices:
            assert (choice.values["pieces.0"], choice.values["piece_g.0"]) == (12, 90)

    def test_open_ones_share_what_is_over(self, rolls):
        """80 and 55 g from 1 597.4 g: some whole numbers use all but a little of it."""
        result = counted(rolls, target(piece_g=80), target(piece_g=55), flour_g=1000)
        shared = next(c for c in result.choices if c.kind == "shared")
        n, m = shared.values["pieces.0"], shared.values["pieces.1"]
        best = min(1597.4 - 80 * a - 55 * b for a in range(3, 17) for b in range(4, 22) if 80 * a + 55 * b <= 1597.4)
        assert 1597.4 - 80 * n - 55 * m == pytest.approx(shared.values["remainder_g"])
        assert shared.values["remainder_g"] == pytest.approx(best)

    def test_a_bakers_dozen_and_a_spare(self, rolls):
        """24 become 26, or 25; with the flour pinned the pieces get lighter instead."""
        more = {c.kind: c for c in counted(rolls, target(pieces=24, piece_g=77)).extras}
        assert (more["dozen"].values["pieces.0"], more["spare"].values["pieces.0"]) == (26, 25)
        assert more["spare"].flour_change_g == pytest.approx(77 / 0.98 / 1.63)
        pinned = {c.kind: c for c in counted(rolls, target(pieces=24), flour_g=1000).extras}
        assert pinned["spare"].values["piece_g.0"] == pytest.approx(1597.4 / 25)
        assert pinned["spare"].flour_change_g == pytest.approx(0)

    def test_a_taken_choice_gives_what_it_promised(self, rolls):
        """Each choice of a count with two targets leads to just the numbers it showed."""
        result = counted(rolls, target(piece_g=80), target(IRON, piece_g=61, pieces_per_pan=7), flour_g=1000, looking_at=1)
        assert result.choices
        for choice in (*result.choices, *result.extras):
            then = solve(rolls, choice.count).result
            assert not then.fights
            assert {n: value(then, n) for n in choice.values} == pytest.approx(choice.values)


class TestLimits:
    """At most so much: an open count goes up to it, a pinned one is held against it."""

    def state(self, result, n=0):
        return result.limits[n]

    def test_flour_in_the_bag(self, rolls):
        """1 500 g make 2 396.1 g to divide: 29 pieces of 80 g. One more would need 1 502 g."""
        result = counted(rolls, limits=(Limit(kind="flour", amount=1500),))
        assert (value(result, "pieces.0"), result.quantities["pieces.0"].source) == (29, "limit")
        assert value(result, "flour_g") <= 1500
        assert self.state(result).is_ == "binds"

    def test_four_eggs_and_what_loosening_gives(self, rolls):
        """Water at 60 % stands for eggs here: 4 of 50 g let 333 g of flour be used; without them the bag would bind."""
        eggs = Limit(kind="ingredient", ingredient="water", amount=4, each_g=50)
        result = counted(rolls, limits=(eggs, Limit(kind="flour", amount=1500)))
        first, bag = result.limits
        assert value(result, "pieces.0") == 6
        assert (first.is_, bag.is_) == ("binds", "within")
        assert first.need == pytest.approx(value(result, "flour_g") * 0.6 / 50)
        assert first.without.pieces == (29,)

    def test_a_pinned_count_is_over(self, rolls):
        """Nothing is moved that was pinned; the limit says that there is not enough."""
        result = counted(rolls, target(pieces=60, piece_g=80), limits=(Limit(kind="flour", amount=1500),))
        assert value(result, "pieces.0") == 60
        assert self.state(result).is_ == "over"
        assert self.state(result).need == pytest.approx(60 * 80 / 0.98 / 1.63)

    def test_the_bowl(self, rolls):
        """A bowl of 1 600 g: one mix is 19 pieces of 80 g; two are 39."""
        for mixes, pieces in ((1, 19), (2, 39)):
            result = counted(rolls, limits=(Limit(kind="bowl", amount=mixes),))
            assert (value(result, "pieces.0"), self.state(result).need) == (pieces, mixes)

    def test_loads_of_the_oven(self, rolls):
        """Buns of 80 g bake to 10.5 cm; with 4 cm between them 6 lie on a sheet of 46 × 33 (3 × 2), 12 in one load."""
        result = counted(rolls.model_copy(update={"usual": Usual(fill_kind="buns_apart")}), limits=(Limit(kind="oven", amount=1),))
        assert (value(result, "pieces.0"), self.state(result).per_load, self.state(result).is_) == (12, 12, "binds")

    def test_by_when(self, rolls):
        """16 min a load: in 40 min there are two loads; pinned pieces for three need 48."""
        buns = rolls.model_copy(update={"usual": Usual(fill_kind="buns_apart")})
        limit = (Limit(kind="by_when", amount=40),)
        assert value(counted(buns, limits=limit), "pieces.0") == 24
        over = counted(buns, target(pieces=36), limits=limit)
        assert (self.state(over).need, self.state(over).is_) == (48, "over")

    def test_pot_and_griddle(self, rolls):
        """A pot of 26 cm takes 8 balls of 80 g at once (7 around 1); a griddle of 25 cm one round of 15 cm."""
        pot = counted(rolls, target(pieces=20, piece_g=80), limits=(Limit(kind="pot", amount=3),))
        assert (self.state(pot).per_load, self.state(pot).need, self.state(pot).is_) == (8, 3, "within")
        flat = Target(pins=TargetPins(pieces=5, piece_g=85), shaping=Shaping(kind="disc", thickness_cm=0.4))
        griddle = counted(rolls, flat, limits=(Limit(kind="griddle", amount=4),))
        assert (self.state(griddle).per_load, self.state(griddle).is_) == (1, "over")

    def test_what_is_not_known_says_nothing(self, rolls):
        """An ingredient that is not in the formula, and kit that nobody told of."""
        limits = (Limit(kind="ingredient", ingredient="Saffron", amount=1), Limit(kind="oven", amount=1), Limit(kind="bowl", amount=1))
        result = counted(rolls, limits=limits, kit=Kit())
        assert [state.is_ for state in result.limits] == ["silent"] * 3
        assert result.quantities["flour_g"].source == "written"

    def test_less_than_one_piece_is_over(self, rolls):
        """A bag for less than one piece makes one, and says that it is too much."""
        result = counted(rolls, limits=(Limit(kind="flour", amount=10),))
        assert (value(result, "pieces.0"), self.state(result).is_) == (1, "over")


pans = st.sampled_from([None, IRON, RectanglePan(length_cm=33, width_cm=23, depth_cm=4.6), SHEET])
own_pins = st.fixed_dictionaries(
    {},
    optional={
        "pieces": st.integers(1, 60),
        "piece_g": st.floats(10, 900),
        "baked_g": st.floats(10, 900),
        "pans": st.integers(1, 8),
        "pieces_per_pan": st.integers(1, 20),
        "fill": st.floats(0.2, 2),
    },
)
targets = st.builds(lambda pan, pins: target(pan, **pins), pans, own_pins)
batches = st.fixed_dictionaries({}, optional={"flour_g": st.floats(50, 2e4), "divide_g": st.floats(50, 2e4), "bench_loss": st.floats(0, 0.3)})
limits = st.one_of(
    st.builds(Limit, kind=st.just("flour"), amount=st.floats(50, 9000)),
    st.builds(Limit, kind=st.sampled_from(["bowl", "oven", "pot", "griddle", "fridge"]), amount=st.integers(1, 9)),
    st.builds(Limit, kind=st.just("by_when"), amount=st.floats(10, 300)),
)


@given(formulas(), batches, st.lists(targets, min_size=1, max_size=4), st.lists(limits, max_size=3))
def test_what_must_hold_of_any_count(formula, batch, made, limited):
    """Pins stand; nothing is unknown or below nought; targets and what is left over are the dough."""
    count = Count(pins=Pins(**batch), targets=tuple(made), limits=tuple(limited))
    found = solve(formula, count, kit=KIT, looking_at=len(made) - 1)
    result, values = found.result, found.solution.values
    for name, pinned in count.known().items():
        assert values[name] == pinned
    assert all(number >= 0 for number in values.values())
    for i in range(len(made)):
        assert {of(name, i) for name in ("take_g", "pieces", "piece_g", "bake_loss", "baked_g")} <= set(values)
    if not result.fights:
        pieces = sum(values[of("pieces", i)] * values[of("piece_g", i)] for i in range(len(made)))
        assert pieces + values["remainder_g"] == pytest.approx(values["divide_g"], rel=1e-6, abs=1e-6)
    assert len(result.limits) in (0, len(limited))


mostly_fighting = settings(suppress_health_check=[HealthCheck.filter_too_much, HealthCheck.too_slow])
"""For tests of pins that do, or do not, fight: of many at random most do."""


@given(formulas(), batches, st.lists(targets, min_size=1, max_size=3))
@mostly_fighting
def test_letting_go_of_a_fighting_pin_makes_the_rest_hold(formula, batch, made):
    """With a single fight, each pin that is offered with what it would be settles all of it."""
    count = Count(pins=Pins(**batch), targets=tuple(made))
    fights = solve(formula, count).result.fights
    assume(len(fights) == 1)
    pins = count.known()
    for alternative in fights[0].alternatives:
        if alternative.gives is None:
            continue
        freed = with_pins(count, {name: n for name, n in pins.items() if name != alternative.pin})
        then = solve(formula, freed).result
        assert not any(alternative.pin in {a.pin for a in fight.alternatives} for fight in then.fights)
        assert value(then, alternative.pin) == pytest.approx(alternative.gives)


@given(formulas(), st.lists(targets, min_size=1, max_size=3))
@mostly_fighting
def test_pins_that_can_be_met_are_met(formula, made):
    """Pinning what was worked out, as it stands, makes no fight and moves nothing."""
    count = Count(targets=tuple(made))
    result = solve(formula, count).result
    assume(not result.fights)
    found = {name: worked.value for name, worked in result.quantities.items()}
    assume(all(1 <= found[of("pieces", i)] <= 1e6 and found.get(of("fill", i), 1) <= 1000 for i in range(len(made))))
    assume(1e-3 < found["dough_g"] <= 1e7 and all(can_be_pinned(bare(name), n) for name, n in found.items() if bare(name) in PINNABLE))
    again = solve(formula, with_pins(count, {name: n for name, n in found.items() if bare(name) in PINNABLE})).result
    assert not again.fights
    assert {name: value(again, name) for name in found} == pytest.approx(found, rel=1e-9, abs=1e-6)


@given(st.lists(limits, min_size=1, max_size=4), st.sampled_from(["buns_apart", "pull_apart_buns", "flatbread"]))
def test_an_open_count_never_goes_over_a_limit(limited, kind):
    """Unless even one piece is too much."""
    from conftest import make_formula
    from pancount.core.pantry.role import Role

    rolls = make_formula(("f", Role.FLOUR, 100), ("w", Role.LIQUID, 60)).model_copy(update={"usual": Usual(fill_kind=kind)})
    result = counted(rolls, limits=tuple(limited))
    assert value(result, "pieces.0") == 1 or all(state.is_ != "over" for state in result.limits)
