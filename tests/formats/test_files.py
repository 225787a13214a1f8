"""Files out and in."""

import csv
import io
import json
import random
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given

from pancount.core.base import most
from pancount.core.count.count import Count, one_target
from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.pans.pan import RoundPan
from pancount.core.pantry.role import Role
from pancount.formats.formula_csv import plain_cell, write_csv
from pancount.formats.formula_file import Unreadable, json_schema, read_formula, write_formula
from strategies import formulas, pins

SCHEMA = jsonschema.Draft202012Validator(json_schema())
COUNT = one_target(RoundPan(name="Iron pan", diameter_cm=30, depth_cm=5), leave_gaps=True, pieces=24, piece_g=77.25)


def shuffled(value, order: random.Random):
    """The same JSON with the keys of every object in another order."""
    if isinstance(value, dict):
        keys = list(value)
        order.shuffle(keys)
        return {key: shuffled(value[key], order) for key in keys}
    return [shuffled(item, order) for item in value] if isinstance(value, list) else value


class TestFormulaFile:
    """A formula and its count as JSON."""

    @given(formulas(), pins)
    def test_out_and_in_is_the_same_in_any_order_of_keys(self, formula, pinned):
        """Nothing is lost or moved, and the file is what its schema says."""
        formula = formula.model_copy(
            update={"stages": tuple(s.model_copy(update={"lines": tuple(map(named, s.lines))}) for s in formula.stages)}
        )
        count = one_target(COUNT.targets[0].pan, **pinned)
        written = json.loads(write_formula(formula, count))
        SCHEMA.validate(written)
        read = read_formula(json.dumps(shuffled(written, random.Random(7))).encode())
        assert (read.formula, read.count) == (formula, count)

    def test_the_published_schema_is_this_one(self):
        """docs/formula.schema.json is what the code writes. Cure: the write command in docs/formats.md."""
        published = Path(__file__).parents[2] / "docs" / "formula.schema.json"
        assert json.loads(published.read_text()) == json_schema()

    @pytest.mark.parametrize(
        ("change", "pointer", "says"),
        [
            (lambda f: f["formula"]["stages"][0]["lines"][1].update(percent=-3, weight_g=None), "lines/1/percent", "Percent must be 0 or more."),
            (lambda f: f["formula"]["stages"][0]["lines"][1].update(percent=3), "lines/1", "not both"),
            (lambda f: f["formula"].update(flavour="nice"), "formula/flavour", "is not a field of this form"),
            (lambda f: f["formula"]["stages"][0]["lines"][0].update(name=""), "lines/0/name", "has no name"),
            (lambda f: f["formula"]["stages"][0]["lines"][0].update(role="salt"), "stages", "There is no flour"),
            (lambda f: f["formula"]["stages"][0]["lines"][0].update(role="crumbs"), "lines/0/role", "must be one of"),
            (lambda f: f["count"]["targets"][0]["pan"].update(shape="heart"), "count/targets/0/pan", "must have a shape out of"),
            (lambda f: f.update(version=7), "version", "must be 1, 2, 3, 4, 5 or 6"),
            (lambda f: f.pop("format"), "format", "not a formula file"),
            (lambda f: f["formula"].update(name="x" * 301), "formula/name", "no longer than 300"),
        ],
    )
    def test_a_wrong_file_says_what_and_where(self, change, pointer, says):
        """Each wrong field is pointed at with a sentence."""
        lines = (Line(name="Flour", role=Role.FLOUR, weight_g=500), Line(name="Water", role=Role.LIQUID, weight_g=300))
        file = json.loads(write_formula(Formula(name="x", stages=(Stage(lines=lines),)), COUNT))
        change(file)
        with pytest.raises(Unreadable) as told:
            read_formula(json.dumps(file).encode())
        places = ["/".join(map(str, at)) for at, _ in told.value.problems]
        assert any(place.endswith(pointer) for place in places), places
        assert any(says in text for _, text in told.value.problems)

    @pytest.mark.parametrize(
        ("data", "says"),
        [
            (b'{"format": "pancount-formula",\n "version" 1}', "line 2, column 12"),
            (b"", "line 1, column 1"),
            (b"[1, 2]", "not a formula file"),
            (b"\xff\xfe{", "not UTF-8 text (byte 1)"),
            (b"[" * 100_000, "nested too deep"),
            (b"9" * 10_000, "number too long"),
            (b'{"format": "pancount-formula", "version": 1, "formula": {"flour_g": NaN}}', "ordinary number"),
        ],
    )
    def test_what_is_no_file_at_all(self, data, says):
        """Broken text is told with its place."""
        with pytest.raises(Unreadable) as told:
            read_formula(data)
        assert says in str(told.value)

    def test_a_byte_order_mark_is_no_harm(self):
        """Some editors put one in."""
        text = write_formula(Formula(name="x", stages=(Stage(lines=(Line(name="f", role=Role.FLOUR, percent=100),)),)), Count())
        assert read_formula(b"\xef\xbb\xbf" + text.encode()).formula.name == "x"


def named(line: Line) -> Line:
    """A drawn line as it could be kept: with a name, and a role."""
    return line.model_copy(update={"name": line.name.strip() or "n", "role": line.role or Role.FLAVOUR})


def test_csv_is_read_back_by_any_reader(rolls):
    """A header and one row a line; a name that a spreadsheet would reckon with is made plain."""
    sly = Line(name="=1+1", role=Role.FLAVOUR, percent=0.5, note='warm, "soft"')
    stage = Stage(name="Dough, wet", lines=(*rolls.stages[0].lines, sly, Line(name="salt")))
    rows = list(csv.DictReader(io.StringIO(write_csv(rolls.model_copy(update={"stages": (stage,)})))))
    assert [float(row["percent_of_flour"]) for row in rows[:5]] == [100, 60, 2, 1, 0.5]
    assert (rows[4]["ingredient"], rows[4]["note"], rows[4]["stage"]) == ("'=1+1", 'warm, "soft"', "Dough, wet")
    assert (rows[5]["weight_g"], rows[5]["role"]) == ("", "")


@pytest.mark.parametrize("text", ["=1+1", " =1+1", "\n=1+1", "\u00a0=1", "\u200b+1", "\ufeff@x", "＝1+1", "－1", "\t5", "\u3000＠x", "−1"])
def test_no_cell_is_taken_for_a_calculation(text):
    """Whatever stands before the sign; read in again, the text is as it was."""
    cell = plain_cell(text)
    assert cell == f"'{text}"
    assert plain_cell(f"5 g {text}") == f"5 g {text}"


def test_more_than_a_file_may_hold():
    """Told before it is read: so many fields, and a formula of so many lines."""
    ones = b'{"format": "pancount-formula", "version": 4, "formula": {}, "x": [' + b"1," * most.FILE_MEMBERS + b"1]}"
    with pytest.raises(Unreadable, match="more than 50000 fields and entries"):
        read_formula(ones)
    line = {"name": "Flour", "role": "flour", "weight_g": 1}
    long = {"format": "pancount-formula", "version": 4, "formula": {"name": "x", "stages": [{"lines": [line] * 60}, {"lines": [line] * 60}]}}
    with pytest.raises(Unreadable, match="more than 100 lines in all"):
        read_formula(json.dumps(long).encode())
