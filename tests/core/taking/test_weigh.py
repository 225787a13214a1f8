"""What lines weigh, by hand-worked cases."""

from decimal import Decimal

import pytest

from pancount.core.base.models import Band
from pancount.core.base.scale import Scale
from pancount.core.pantry.ingredients import Ingredient, MeasureWeight, pantry
from pancount.core.pantry.measures import System, measures
from pancount.core.pantry.role import Role
from pancount.core.taking.habits import CupWeighing, Habits, Kitchen, own_band, questions
from pancount.core.taking.lines import read_line
from pancount.core.taking.weigh import weigh

KITCHEN = Kitchen()


def weight(line: str, kitchen: Kitchen = KITCHEN, **habits):
    reading = read_line(line, kitchen.names)
    return weigh(reading, kitchen, Habits(**habits))


def ends(line: str, kitchen: Kitchen = KITCHEN, **habits) -> tuple[float, float, float]:
    band = weight(line, kitchen, **habits).band
    return band.low_g, band.usual_g, band.high_g


@pytest.mark.parametrize(
    ("line", "habits", "expected"),
    [
        ("2 cups plain flour", {"cup_way": "scooped"}, (280, 300, 330)),  # dipped: 140–165
        ("2 cups plain flour", {"cup_way": "spooned"}, (236, 246, 260)),  # levelled: 118–130
        ("2 cups plain flour", {}, (236, 300, 330)),  # not said: both
        ("2 cups plain flour, spooned and levelled", {"cup_way": "scooped"}, (236, 246, 260)),  # the line's own word
        ("1 tsp fine salt", {}, (5.5, 6, 6.3)),
        ("1 tsp flaky salt", {}, (2.4, 3.8, 4.2)),
        ("1 tsp salt", {"salt": "Flaky salt"}, (2.4, 3.8, 4.2)),
        ("1 tsp salt", {}, (2.4, 6, 6.3)),  # any of them
        ("1 packet dry yeast", {}, (6.8, 7, 7.2)),
        ("½ cube fresh yeast", {}, (20.5, 21, 21.5)),
        ("2 sticks butter", {}, (226, 226.8, 228)),
        ("3 eggs", {}, (132, 150, 174)),
        ("3 eggs", {"egg": "L"}, (163.5, 177, 189)),
        ("1 large egg", {"system": "us"}, (48, 50.3, 54)),  # a US large is a European M
        ("1 large egg", {"system": "metric"}, (54.5, 59, 63)),
        ("500 g flour", {}, (499.5, 500, 500.5)),  # a scale that reads to 1 g
        ("1 lb 4 oz flour", {}, (566.4904, 566.9905, 567.4904)),
        ("100 ml water", {}, (97.17, 100.17, 103.18)),  # a jug to 3 %
        ("1 cup minus 1 tbsp water", {"system": "us"}, (214.4, 222.19, 230.34)),
        ("2–3 tbsp honey", {"system": "us"}, (36, 52.5, 72)),
        ("2 tbsp sugar", {"system": "australian"}, (29.3, 33.27, 38.34)),  # an Australian spoon is 20 ml
        ("1 cup brown sugar", {"system": "us"}, (200, 215, 230)),  # packed unless said
        ("1 heaped tsp sugar", {"system": "us"}, (4.56, 6.15, 9)),
    ],
)
def test_a_measure_in_grams(line, habits, expected):
    """Low, usual and high."""
    assert ends(line, **habits) == pytest.approx(expected, rel=0.002)


def test_the_weight_wins_where_an_amount_is_given_twice():
    """Grams before a cup, millilitres before a cup, whichever comes first."""
    assert ends("1 cup (120 g) plain flour") == pytest.approx((119.5, 120, 120.5))
    assert ends("120 g (1 cup) plain flour") == pytest.approx((119.5, 120, 120.5))
    assert ends("1 cup (240 ml) milk")[1] == pytest.approx(240 / 236.588 * 244, rel=1e-3)


def test_a_large_one_is_heavier():
    """An onion without its size is 100–200 g or so; a large one is more, a small one less. Eggs have sizes of their own."""
    small, any_size, large = (ends(f"1 {size} onion") for size in ("small", "", "large"))
    assert small < any_size < large
    assert large[1] == pytest.approx(1.5 * any_size[1])
    assert ends("Water 65 % 650 g") == pytest.approx((649.5, 650, 650.5))


def test_what_a_line_hangs_on():
    """Each line says which questions would move it."""
    assert weight("2 cups plain flour").depends == {"cup_way", "system"}
    assert weight("1 tsp salt").depends == {"salt", "system"}
    assert weight("1 egg").depends == {"egg"}
    assert weight("120 g (1 cup) plain flour").depends == set()


@pytest.mark.parametrize("line", ["1 cup zibrul", "2 zibruls", "1 bunch honey", "salt", "1 cup"])
def test_what_nobody_knows_has_no_weight(line):
    """It is open, not guessed."""
    assert weight(line).band is None


def test_own_cups_narrow_the_band():
    """A cup weighed twice at 286 g: 143 g each, the hand ± 4 %, the scale ± 0.25 g."""
    cup = CupWeighing(ingredient="Plain flour", measure="cup", way="scooped", count=2, weight_g=286)
    kitchen = Kitchen(habits=Habits(cup_way="scooped"), cups=(cup,))
    assert ends("4 cups plain flour", kitchen, cup_way="scooped") == pytest.approx((4 * 137.03, 572, 4 * 148.97), rel=1e-4)
    assert ends("4 cups plain flour", kitchen, cup_way="spooned")[1] == 492  # another way of filling is another weight
    assert ends("4 cups bread flour", kitchen, cup_way="scooped")[1] == 600  # and so is another flour


def test_more_weighings_are_surer():
    """Three that agree are within 2 %; those that stray keep all of it."""
    alike = [CupWeighing(ingredient="x", measure="cup", weight_g=140)] * 3
    assert own_band(alike, 0) == Band(low_g=137.2, usual_g=140, high_g=142.8)
    stray = [CupWeighing(ingredient="x", measure="cup", weight_g=g) for g in (120, 140, 160)]
    assert own_band(stray, 0.5) == Band(low_g=120, usual_g=140, high_g=160)


def test_a_finer_scale_narrows_a_weight():
    """2 g on a 1 g scale may be a quarter out; on a 0.01 g scale it is not."""
    assert ends("2 g instant yeast") == (1.5, 2, 2.5)
    fine = Kitchen(scale=Scale(fine_step=Decimal("0.01")))
    assert ends("2 g instant yeast", fine) == pytest.approx((1.995, 2, 2.005))


def test_an_own_ingredient_stands_before_the_shipped_one():
    """By its own name, and where a shipped one's other name is used."""
    own = Ingredient(name="Whole milk", role=Role.LIQUID, own=True, measures=(MeasureWeight(measure="cup", low_g=200, usual_g=201, high_g=202),))
    assert ends("1 cup milk", Kitchen(own=(own,)), system="us") == (200, 201, 202)
    new = Ingredient(name="Zibrul", role=Role.FLOUR, own=True, measures=(MeasureWeight(measure="cup", low_g=90, usual_g=100, high_g=110),))
    assert ends("2 cups zibruls", Kitchen(own=(new,)), system="us") == (180, 200, 220)


def test_the_data_is_whole():
    """Every weight's measure is known, every count measure is of something, and every question names what ships."""
    names = {i.name for i in pantry()}
    assert all(row.measure in measures() for i in pantry() for row in i.measures)
    assert all(row.source for i in pantry() for row in i.measures)
    assert all(i.source and i.composition for i in pantry())
    counted = {row.measure for i in pantry() for row in i.measures}
    assert {m.key for m in measures().values() if m.kind == "count"} <= counted
    for question in questions().values():
        assert len(question.options) >= 2
        assert question.key in Habits.model_fields
        for option in question.options:
            Habits(**{question.key: option})
        if question.key in ("salt", "dry_yeast", "yeast", "squash"):
            assert set(question.options) <= names
    assert set(System) == set(questions()["system"].options)
