"""The count: pins, stand-ins, fights, and what does not come out whole."""

import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from pancount.core.count.count import PINNABLE, one_target
from pancount.core.count.relations import BATCH, QUANTITIES, TARGET, bare
from pancount.core.count.solve import solve
from pancount.core.formula.formula import Formula, Usual
from pancount.core.pans.pan import RectanglePan
from strategies import can_be_pinned, formulas, pins, pins_in_pieces

PAN = RectanglePan(length_cm=33, width_cm=23, depth_cm=4.6)


def counted(formula: Formula, *, pan: RectanglePan | None = None, **known: float):
    return solve(formula, one_target(pan, **known)).result


def values(result) -> dict[str, float]:
    """By name, those of the only target without its number."""
    return {bare(name): worked.value for name, worked in result.quantities.items()}


class TestWorkingOut:
    """Enough pins: the rest is worked out."""

    @pytest.mark.parametrize(
        ("known", "expected"),
        [
            # 163 % of flour, 2 % lost: worked by hand
            ({"flour_g": 1000}, {"dough_g": 1630, "divide_g": 1597.4}),
            ({"dough_g": 1630}, {"flour_g": 1000, "divide_g": 1597.4}),
            ({"divide_g": 1597.4}, {"flour_g": 1000, "dough_g": 1630}),
            ({"pieces": 20, "piece_g": 79.87}, {"divide_g": 1597.4, "flour_g": 1000}),
            ({"flour_g": 1000, "pieces": 20}, {"piece_g": 79.87}),
            ({"flour_g": 1000, "piece_g": 79.87}, {"pieces": 20, "remainder_g": 0}),
            ({"flour_g": 1000, "bench_loss": 0}, {"divide_g": 1630}),
        ],
    )
    def test_from_any_side(self, rolls, known, expected):
        """Whatever is pinned, the relations give the rest."""
        found = values(counted(rolls, **known))
        assert {name: found[name] for name in expected} == pytest.approx(expected, abs=1e-9)

    def test_pans(self, rolls):
        """24 pieces of 77 g in pans of 12 are two pans at 1.217 g/cm²."""
        found = values(counted(rolls, pan=PAN, pieces=24, piece_g=77))
        assert (found["pans"], found["pieces_per_pan"]) == (2, 12)
        assert found["fill"] == pytest.approx(77 * 12 / 759)

    def test_a_slab_is_filled(self, rolls):
        """One piece a pan: the usual fill gives its weight."""
        rolls = rolls.model_copy(update={"usual": Usual(pieces_per_pan=1, fill_kind="focaccia", fill=0.9)})
        found = values(counted(rolls, pan=PAN, pans=2))
        assert (found["pieces"], found["piece_g"]) == (2, pytest.approx(0.9 * 759))

    def test_too_few_pins_take_the_usual_and_say_so(self, rolls):
        """Nothing pinned: usual piece, pieces a pan, pans and loss stand in."""
        result = counted(rolls, pan=PAN)
        usual = {bare(name) for name, worked in result.quantities.items() if worked.source == "usual"}
        assert usual == {"bench_loss", "bake_loss", "piece_g", "pieces_per_pan", "pans"}
        assert values(result)["pieces"] == 12

    def test_without_a_pan_the_flour_as_written_stands_in(self, rolls):
        """A batch as written is what a baker without pins means."""
        flour = counted(rolls).quantities["flour_g"]
        assert (flour.value, flour.source) == (1000, "written")

    def test_what_was_worked_out_remembers_its_relation(self, rolls):
        """The working on screen comes from the relation that gave the value."""
        dough = counted(rolls, flour_g=1000).quantities["dough_g"]
        assert (dough.source, dough.relation) == ("worked", "flour_to_dough")

    def test_less_than_one_piece(self, rolls):
        """Dough for less than a piece: none, all left over, and the choices make one of it."""
        result = counted(rolls, divide_g=50, piece_g=80)
        assert (values(result)["pieces"], values(result)["remainder_g"]) == (0, 50)
        assert {c.kind: c.values["pieces.0"] for c in result.choices}["lighter"] == 1


class TestFights:
    """Pins that cannot hold together."""

    def test_each_pin_says_what_it_would_be_alone(self, rolls):
        """24 of 60 g need 1440 g; 1000 g flour divides into 1597.4 g."""
        (fight,) = counted(rolls, flour_g=1000, pieces=24, piece_g=60).fights
        gives = {bare(a.pin): a.gives for a in fight.alternatives}
        assert gives == {
            "flour_g": pytest.approx(24 * 60 / 0.98 / 1.63),
            "pieces": 26,
            "piece_g": pytest.approx(1597.4 / 24),
        }

    def test_two_masses_that_disagree(self, rolls):
        """Flour and dough pinned apart fight, and nothing else is dragged in."""
        (fight,) = counted(rolls, flour_g=1000, dough_g=2000, pieces=3).fights
        assert {a.pin for a in fight.alternatives} == {"flour_g", "dough_g"}

    def test_a_pin_is_never_overridden(self, rolls):
        """Even in a fight every pinned value stands as pinned."""
        known = {"flour_g": 1000, "dough_g": 2000, "divide_g": 5, "pieces": 7, "piece_g": 99}
        found = values(counted(rolls, **known))
        assert {name: found[name] for name in known} == known

    def test_pans_without_room(self, rolls):
        """30 pieces do not go into two pans of 12."""
        (fight,) = counted(rolls, pan=PAN, pieces=30, pans=2, pieces_per_pan=12).fights
        assert {bare(a.pin): a.gives for a in fight.alternatives} == {"pieces": 24, "pans": 3, "pieces_per_pan": 15}


class TestRemainders:
    """Dough that does not divide evenly is a decision."""

    def test_the_choices_of_the_worked_example(self, rolls):
        """1 290 g at 75 g: 17 and 15 g over, 17 at 75.9, 18 at 71.7, or dough for 17 or 18."""
        result = counted(rolls, divide_g=1290, piece_g=75)
        assert (values(result)["pieces"], values(result)["remainder_g"]) == (17, pytest.approx(15))
        found = {c.kind: (c.values["pieces.0"], round(c.values["piece_g.0"], 1), round(c.values["divide_g"])) for c in result.choices}
        assert found == {
            "leave_remainder": (17, 75, 1290),
            "heavier": (17, 75.9, 1290),
            "lighter": (18, 71.7, 1290),
            "less_dough": (17, 75, 1275),
            "more_dough": (18, 75, 1350),
        }

    def test_they_are_ranked_by_what_they_move(self, rolls):
        """What changes least stands first."""
        kinds = [c.kind for c in counted(rolls, divide_g=1290, piece_g=75).choices]
        assert kinds.index("heavier") < kinds.index("lighter")
        assert kinds.index("less_dough") < kinds.index("more_dough")

    def test_a_last_pan_that_is_not_full(self, rolls):
        """17 pieces in pans of 12: leave the gaps, spread them 9 and 8, or fill or drop a pan."""
        result = counted(rolls, pan=PAN, pieces=17)
        assert [(load.pans, load.pieces) for load in result.loads[0]] == [(1, 12), (1, 5)]
        spread = next(c for c in result.choices if c.kind == "spread")
        then = solve(rolls, spread.count).result
        assert [(load.pans, load.pieces) for load in then.loads[0]] == [(1, 9), (1, 8)]
        assert {c.kind for c in result.choices} == {
            "leave_gaps", "spread", "fill_lighter", "fill_more", "fewer_heavier", "fewer_less",
        }  # fmt: skip

    @pytest.mark.parametrize("known", [{"divide_g": 1290, "piece_g": 75}, {"pieces": 17}, {"flour_g": 777, "pans": 3}])
    def test_a_taken_choice_gives_what_it_promised(self, rolls, known):
        """Taking a choice leads to just the numbers it showed, with no fight."""
        for choice in counted(rolls, pan=PAN, **known).choices:
            then = solve(rolls, choice.count).result
            assert not then.fights
            assert {n: then.quantities[n].value for n in choice.values} == pytest.approx(choice.values)

    def test_a_billion_crumbs(self, rolls):
        """More pieces than can be pinned are counted, without choices that could not be taken."""
        result = counted(rolls, divide_g=1e6, piece_g=0.0011)
        assert values(result)["pieces"] == 909090909
        assert {c.kind for c in result.choices} <= {"leave_remainder"}


mostly_fighting = settings(suppress_health_check=[HealthCheck.filter_too_much, HealthCheck.too_slow])
"""For tests of pins that do, or do not, fight: of many at random most do."""


@given(formulas(), pins, st.sampled_from([None, PAN]))
def test_pinned_values_stand_and_all_else_is_known(formula, pinned, pan):
    """Any pins at all: nothing is overridden, nothing is left unknown, nothing is below nought."""
    result = counted(formula, pan=pan, **pinned)
    wanted = set(QUANTITIES) - (set() if pan else {"pans", "pieces_per_pan", "fill", "pan_size"})
    assert {bare(name) for name in result.quantities} == wanted
    assert all(worked.value >= 0 for worked in result.quantities.values())
    for name, value in pinned.items():
        assert name not in wanted or values(result)[name] == value


@given(formulas(), pins, st.sampled_from([None, PAN]))
@mostly_fighting
def test_solving_then_pinning_what_was_worked_out_gives_the_same(formula, pinned, pan):
    """Pinning every number on the screen as it stands changes nothing and makes no fight."""
    result = counted(formula, pan=pan, **pinned)
    found = values(result)
    assume(not result.fights and 1 <= found["pieces"] <= 1e6)
    assume(1e-3 < found["dough_g"] <= 1e7 and found.get("fill", 1) <= 1000 and found.get("pieces_per_pan", 1) <= 10_000)
    assume(all(can_be_pinned(name, value) for name, value in found.items() if name in PINNABLE))
    again = counted(formula, pan=pan, **{n: v for n, v in found.items() if n in PINNABLE})
    assert not again.fights
    assert values(again) == pytest.approx(found, rel=1e-9, abs=1e-6)


@given(formulas(), pins_in_pieces, st.sampled_from([None, PAN]))
@mostly_fighting
def test_pinning_one_worked_out_number_changes_nothing_where_it_comes_out_whole(formula, pinned, pan):
    """With nothing left over and full pans, any single number can be pinned as it stands."""
    result = counted(formula, pan=pan, **pinned)
    found = values(result)
    assume(not result.fights and not result.choices and found["remainder_g"] < 1e-6)
    assume(1e-3 < found["dough_g"] <= 1e7 and found.get("fill", 1) <= 1000)
    for name, worked in result.quantities.items():
        if bare(name) in PINNABLE and worked.source == "worked" and can_be_pinned(bare(name), worked.value):
            again = counted(formula, pan=pan, **(pinned | {bare(name): worked.value}))
            assert not again.fights
            assert values(again) == pytest.approx(found, rel=1e-9, abs=1e-6)


@given(formulas(), pins)
@mostly_fighting
def test_letting_go_of_a_fighting_pin_settles_that_fight(formula, pinned):
    """With a single fight, each offered release leaves none, and gives the value it told."""
    fights = counted(formula, pan=PAN, **pinned).fights
    assume(len(fights) == 1)
    offered = [a for a in fights[0].alternatives if a.gives is not None]
    for alternative in offered:
        freed = {n: v for n, v in pinned.items() if n != bare(alternative.pin)}
        then = solve(formula, one_target(PAN, **freed)).result
        assert values(then)[bare(alternative.pin)] == pytest.approx(alternative.gives)


@given(formulas(), st.floats(1, 1e5))
def test_flour_to_dough_and_back(formula, flour_g):
    """Flour gives dough; that dough gives that flour."""
    dough = values(solve(formula, one_target(flour_g=flour_g)).result)["dough_g"]
    assume(dough <= 1e7)
    assert values(solve(formula, one_target(dough_g=dough)).result)["flour_g"] == pytest.approx(flour_g)


def test_every_relation_speaks_of_known_quantities():
    """A relation over an unknown quantity could never be worked or shown."""
    for relation in (*BATCH, *TARGET):
        assert set(relation.over) <= set(QUANTITIES)
        assert set(relation.ways) <= set(relation.over)
        for way in relation.ways.values():
            assert all("{" + n + "}" in way.reads for n in relation.over if relation.ways.get(n) is not way)
