"""Whole formulas and whole counts of any kind that may be sent in: each is reckoned, or refused with a sentence.

Nothing in them need make sense: vanishing and enormous numbers, pins that agree by chance or fight, pans that hold nothing.
PANCOUNT_FUZZ=2000 makes a long hunt of it.
"""

import json
import os

import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from pancount.core.base.errors import CoreError
from pancount.core.base.scale import Scale
from pancount.core.count.count import Count
from pancount.core.count.limits import SAYS
from pancount.core.count.whole import whole_count
from pancount.core.formula.changes import Change, change_formula
from pancount.core.formula.compare import compare
from pancount.core.formula.formula import BesideKind, Formula, StageKind
from pancount.core.formula.gauges import MOST_HELD, gauge_rules
from pancount.core.formula.practice import Practice
from pancount.core.pans.fills import fills
from pancount.core.pans.kit import Kit
from pancount.core.pans.pan import SHAPES
from pancount.core.pans.shaping import SHAPES as PIECES
from pancount.core.pantry.ingredients import MOST_REMEMBERED, REMEMBERED, Ingredient, pantry_with
from pancount.core.pantry.role import Role
from pancount.core.sheet.weigh import weigh_sheet

EXAMPLES = int(os.environ.get("PANCOUNT_FUZZ", "60"))
PANTRY = pantry_with(())
any_input = settings(max_examples=EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck))

# Few values, so that pins agree by chance as often as they fight.
amount = st.sampled_from([1e-6, 0.001, 0.5, 1.0, 77.25, 100.0, 1000.0, 1e7])
line_amount = st.one_of(amount, st.sampled_from([0.0, 5e-324, 1e-30, 1e-5, 1e-9]), st.floats(0, 1e5))
name = st.sampled_from(["Bread flour", "Water", "Whole milk", "Butter", "Egg", "Fine salt", "Instant yeast", "Sourdough starter", "Lye", "x", ""])
whole = st.sampled_from([1, 2, 7, 24, 10_000])
share = st.sampled_from([0.0, 0.1, 0.499])
size = st.sampled_from([0.01, 0.5, 5.0, 23.0, 33.0, 1000.0])


def maybe(draw: st.DrawFn, **fields: st.SearchStrategy) -> dict:
    """Some of the fields."""
    return {key: draw(value) for key, value in fields.items() if draw(st.integers(0, 2)) == 0}


@st.composite
def lines(draw: st.DrawFn) -> dict:
    told = {"name": draw(name), "role": draw(st.sampled_from([None, *Role])), "held_back": draw(share), "parts": draw(st.sampled_from([1, 3]))}
    given_as = draw(st.sampled_from(["weight_g", "percent", None]))
    return told | ({given_as: draw(line_amount)} if given_as else {}) | maybe(draw, hydration=st.sampled_from([10, 1000]))


@st.composite
def formulas(draw: st.DrawFn) -> dict:
    last = draw(st.integers(0, 3))
    stages = []
    for s in range(last + 1):
        feeds = [{"into": f"k{draw(st.integers(s + 1, last))}", "share": draw(st.sampled_from([1, 0.5, 0.0001]))}] if s < last else []
        own = draw(st.lists(lines(), max_size=4))
        kind = draw(st.sampled_from(StageKind))
        stages.append({"kind": kind, "key": f"k{s}", "feeds": feeds, "boiled_off": draw(st.sampled_from([0, 0.9])), "lines": own})
    stages[last]["lines"].append({"name": "Bread flour", "role": "flour", **({"weight_g": draw(amount)} if draw(st.booleans()) else {"percent": 100})})
    beside = [{"kind": draw(st.sampled_from(BesideKind)), "lines": [draw(lines())], **maybe(draw, serves=st.sampled_from([0.01, 1, 24]))} for _ in range(draw(st.integers(0, 2)))]
    usual = {"shaping": {"kind": draw(st.sampled_from(sorted(PIECES)))}} | maybe(draw, piece_g=amount, pieces_per_pan=whole, pans=whole, bench_loss=share, fill_kind=st.sampled_from(sorted(fills())))
    return {"stages": stages, "beside": beside, "usual": usual, **maybe(draw, flour_g=amount)}


@st.composite
def pans(draw: st.DrawFn) -> dict:
    shape = draw(st.sampled_from(sorted(SHAPES)))
    fields = SHAPES[shape][1].model_fields
    told = {n: draw(size) for n, field in fields.items() if n.endswith("_cm") and (field.is_required() or draw(st.booleans()))}
    return {"shape": shape} | told | ({"cups": draw(st.sampled_from([1, 12, 200]))} if "cups" in fields else {})


@st.composite
def counts(draw: st.DrawFn) -> dict:
    batch = maybe(draw, flour_g=amount, dough_g=amount, divide_g=amount, bench_loss=share)
    targets = []
    for _ in range(draw(st.integers(1, 3))):
        pins = maybe(
            draw, take_g=amount, piece_g=amount, baked_g=amount, bake_loss=share, pieces=whole, pans=whole,
            pieces_per_pan=whole, fill=st.sampled_from([0.0001, 0.7, 1000.0]),
        )  # fmt: skip
        targets.append({"pins": pins, "leave_gaps": draw(st.booleans()), **maybe(draw, pan=pans(), fill_kind=st.sampled_from(sorted(fills())))})
    limit = st.fixed_dictionaries({"kind": st.sampled_from(sorted(SAYS)), "amount": amount, "ingredient": name})
    return {"pins": batch, "targets": targets, "limits": draw(st.lists(limit, max_size=2)), "leave_remainder": draw(st.booleans())}


def taken(model: type, body: dict):
    """The body as it comes in; what is refused there is not what is tried here."""
    try:
        return model.model_validate(body)
    except ValidationError:
        assume(False)


KIT = Kit(bowl_g=3000, bowl_ml=5000, pot_ml=4000)


@any_input
@given(formulas(), counts(), st.integers(0, 2))
def test_any_count_is_reckoned_or_refused(formula, count, looking_at):
    """On the screen and on the sheet; every number of both is one."""
    formula, count = taken(Formula, formula), taken(Count, count)
    for reckon in (
        lambda: whole_count(formula, count, PANTRY, Practice(), KIT, looking_at, Scale()),
        lambda: weigh_sheet(formula, count, Scale(), (), "joined", KIT, PANTRY),
    ):
        try:
            told = reckon().model_dump_json()
        except CoreError as refused:
            assert str(refused)
        else:
            json.loads(told, parse_constant=lambda word: pytest.fail(f"{word} is no number"))


CHANGE = TypeAdapter(Change)
spot = st.integers(0, 3)
change = st.one_of(
    st.fixed_dictionaries({"change": st.just("move_out"), "stage": st.one_of(st.none(), spot)}),
    st.fixed_dictionaries({"change": st.just("move_in"), "kind": st.sampled_from(StageKind), "flour_percent": st.sampled_from([0.01, 20, 100]), "hydration": st.sampled_from([0, 100, 1000])}),
    st.fixed_dictionaries({"change": st.just("feed"), "stage": spot, "into": spot, "share": st.sampled_from([None, 0, 0.3, 1])}),
    st.fixed_dictionaries({"change": st.just("keep_back"), "stage": spot, "kept_g": amount}),
    st.fixed_dictionaries({"change": st.just("cooked"), "stage": spot, "cooked_g": amount}),
    st.fixed_dictionaries({"change": st.just("set_row"), "name": name, "role": st.sampled_from([None, *Role]), "percent": line_amount}),
    st.fixed_dictionaries({"change": st.just("set_shown"), "stage": spot, "line": spot, "percent": line_amount}),
    st.fixed_dictionaries({"change": st.just("aim"), "gauge": st.sampled_from(sorted(gauge_rules())), "wanted": st.sampled_from([0, 1, 60, 1000]), "stage": spot, "line": spot}),
    st.fixed_dictionaries({"change": st.just("swap"), "stage": spot, "line": spot, "to": st.sampled_from(["Olive oil", "Butter", "Water", "Plain flour", "Fresh yeast"])}),
    st.fixed_dictionaries({"change": st.just("free_of"), "allergen": st.sampled_from(["milk", "egg", "wheat"])}),
    st.fixed_dictionaries({"change": st.just("bring_over"), "what": st.sampled_from(["line", "stage"]), "theirs": formulas(), "stage": spot, "line": spot}),
)


@any_input
@given(formulas(), change, formulas())
def test_any_change_is_made_or_refused(formula, change, other):
    """What comes of it may be sent in again; two formulas are laid side by side."""
    formula, other = taken(Formula, formula), taken(Formula, other)
    try:
        change = CHANGE.validate_python(change)
    except ValidationError:
        assume(False)
    for attempt in (
        lambda: Formula.model_validate(change_formula(formula, change, PANTRY, Practice()).formula.model_dump(mode="json")),
        lambda: compare(formula, other, 1000, PANTRY, Practice()),
    ):
        try:
            attempt()
        except CoreError as refused:
            assert str(refused)
        except ValidationError as past:  # what it came to is more than can be weighed; the API says so (`problems.py`)
            assert "than or equal" in str(past)


def test_what_is_remembered_of_pantries_has_an_end():
    """Each kitchen sends its own with every count; so many strange ones leave no more behind than a few do."""
    for n in range(200):
        own = tuple(Ingredient(name=f"Own {n}.{m}", role=Role.FLOUR, also=(f"Other {n}.{m}",)) for m in range(100))
        found = pantry_with(own)
        assert found.find(f"other {n}.99") == own[99]
        assert pantry_with(own) is found
    assert 0 < REMEMBERED.currsize <= MOST_REMEMBERED
    assert len(REMEMBERED) < 40
    lines = [{"name": f"Line {n}", "role": "salt", "weight_g": 1} for n in range(99)]
    for n in range(50):
        whole_count(Formula.model_validate({"stages": [{"lines": [{"name": f"Flour {n}", "role": "flour", "weight_g": 500}, *({**line, "name": f"{n} {line['name']}"} for line in lines)]}]}), Count(), found, Practice(), KIT, 0, Scale())
    assert len(found.remembered) <= MOST_HELD
