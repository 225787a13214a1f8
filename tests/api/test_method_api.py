"""Methods over the wire: read, reckoned, held side by side, and on paper."""

import io

import pytest
from pypdf import PdfReader

from pancount.core.base import most
from pancount.core.formula.steps import Lasts, Step
from pancount.demo.weir_house import examples

BUNS = next(one for one in examples() if one[0].name == "Cardamom milk buns")


@pytest.fixture
def body() -> dict:
    """The milk buns with their two ways, as the screen sends them."""
    formula, count = BUNS
    return {"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")}


@pytest.fixture
def kept(client, body) -> int:
    """The same in the records."""
    return client.post("/api/formulas", json=body).json()["head"]["id"]


class TestReckoning:
    """Pure: the same body, the same answer."""

    def test_a_way(self, client, body):
        """By key; a key that nothing has is the first way."""
        first = client.post("/api/reckon/method", json=body)
        assert first.status_code == 200
        assert first.content == client.post("/api/reckon/method", json=body).content
        keys = [way["key"] for way in body["formula"]["ways"]]
        methods = [client.post("/api/reckon/method", json=body | {"count": body["count"] | {"way": key}}).json() for key in (*keys, "gone")]
        assert [method["way"] for method in methods] == [0, 1, 0]
        assert methods[1]["usual_min"] > 2 * methods[0]["usual_min"]
        assert [len(method["steps"]) for method in methods[:2]] == [len(way["steps"]) for way in body["formula"]["ways"]]

    def test_the_kitchen_and_the_day_are_sent_with_it(self, client, body):
        """A cool counter is slower; ready at seven has its levers."""
        usual = client.post("/api/reckon/method", json=body).json()
        cool = client.post("/api/reckon/method", json=body | {"climate": {"room_c": 15}}).json()
        assert cool["usual_min"] > usual["usual_min"]
        now = {"room_c": 19, "begins_min": 1260, "ready_min": 420}
        night = client.post("/api/reckon/method", json=body | {"count": body["count"] | {"today": now}}).json()
        assert (night["begins_min"], night["ready_min"]) == (1260, 1860)
        assert night["levers"][0]["what"] == "yeast"

    def test_ways_side_by_side(self, client, body):
        """Figures of both, steps in pairs, and what dough each makes."""
        ours, theirs = (way["key"] for way in body["formula"]["ways"])
        side = client.post("/api/reckon/ways", json=body | {"beside": theirs, "count": body["count"] | {"way": ours}}).json()
        assert side["theirs"]["usual_min"] > side["ours"]["usual_min"]
        assert {n for pair in side["pairs"] if (n := pair["ours"]) is not None} == set(range(len(side["ours"]["steps"])))
        assert any(not pair["alike"] for pair in side["pairs"])

    def test_a_proposed_dose_is_taken_by_the_way_alone(self, client, body):
        """The other way's dough, and the formula's own percentages, stay."""
        way = body["formula"]["ways"][0]["key"]
        changed = client.post("/api/reckon/change", json={"formula": body["formula"], "change": {"change": "way_yeast", "way": way, "yeast": 0.4}}).json()["formula"]
        assert changed["stages"] == body["formula"]["stages"]
        assert [one["percent"] for one in changed["ways"][0]["changed"]] == [pytest.approx(0.4)]
        assert changed["ways"][1] == body["formula"]["ways"][1]
        refused = client.post("/api/reckon/change", json={"formula": body["formula"], "change": {"change": "way_yeast", "way": way, "yeast": -1}})
        assert refused.status_code == 422

    @pytest.mark.parametrize(
        ("change", "pointer"),
        [
            ({"kind": "juggle"}, "/formula/ways/0/steps/0/kind"),
            ({"lasts": {"low_min": 9, "usual_min": 5, "high_min": 10}}, "/formula/ways/0/steps/0/lasts"),
            ({"lasts": {"low_min": -1, "usual_min": 5, "high_min": 10}}, "/formula/ways/0/steps/0/lasts/low_min"),
            ({"heat": {"low_c": 20, "high_c": 9000}}, "/formula/ways/0/steps/0/heat/high_c"),
            ({"text": "a\u0000b"}, "/formula/ways/0/steps/0/text"),
            ({"takes": [{"what": "line", "share": 2}]}, "/formula/ways/0/steps/0/takes/0/share"),
            ({"touches": 10_000}, "/formula/ways/0/steps/0/touches"),
        ],
    )
    def test_what_is_not_right_is_pointed_at(self, client, body, change, pointer):
        body["formula"]["ways"][0]["steps"][0].update(change)
        answer = client.post("/api/reckon/method", json=body)
        assert answer.status_code == 422
        assert pointer in [issue["pointer"] for issue in answer.json()["errors"]]

    def test_more_than_is_taken(self, client, body):
        """Ways, steps, rises and words."""
        step = Step(kind="knead", text="x" * 10_000).model_dump(mode="json")
        rise = Step(kind="rise", lasts=Lasts.of(60)).model_dump(mode="json")
        way = body["formula"]["ways"][0]
        for ways in ([way] * (most.FORMULA_WAYS + 1), [way | {"steps": [step] * 7}], [way | {"steps": [rise] * (most.RISES + 1)}], [way | {"steps": [rise | {"kind": "note"}] * (most.STEPS + 1)}]):
            answer = client.post("/api/reckon/method", json=body | {"formula": body["formula"] | {"ways": ways}})
            assert answer.status_code == 422, ways[0]["name"]
            assert answer.json()["errors"][0]["detail"]


class TestReading:
    """A method's text."""

    def test_read(self, client, body):
        """Steps with keys of the formula's own lines; nothing is kept."""
        text = "Mix all but the butter, 3 min. Add the butter. Let rise 1 h. Tuck the cat in. Bake 15 min at 190 °C."
        read = client.post("/api/read/method", json={"formula": body["formula"], "text": text}).json()
        assert [step["kind"] for step in read["way"]["steps"]] == ["mix", "add", "rise", "note", "bake"]
        assert read["way"]["written"] == text
        keys = {line["key"] for stage in read["formula"]["stages"] for line in stage["lines"]}
        assert {takes["key"] for step in read["way"]["steps"] for takes in step["takes"] if takes["what"] == "line"} <= keys

    @pytest.mark.parametrize("text", ["a\u0000b", "x" * (most.METHOD + 1), 5, None])
    def test_what_is_not_read(self, client, body, text):
        answer = client.post("/api/read/method", json={"formula": body["formula"], "text": text})
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["pointer"] == "/text"


class TestSheet:
    """The method sheet, on screen and as PDF."""

    def test_it_says_what_the_weigh_sheet_weighs(self, client, kept):
        """What goes in at all steps adds up to the printed lines."""
        method = client.get(f"/api/formulas/{kept}/method").json()["sheet"]
        sheet = client.get(f"/api/formulas/{kept}/sheet").json()["sheet"]
        printed: dict[str, float] = {}
        for step in method["steps"]:
            for one in step["goes_in"]:
                if one["printed"] is not None:
                    printed[one["name"]] = printed.get(one["name"], 0) + float(one["printed"])
        lines: dict[str, float] = {}
        for stage in sheet["stages"]:
            for line in stage["lines"]:
                lines[line["name"]] = lines.get(line["name"], 0) + float(line["printed"])
        assert {name: printed.get(name) for name in lines} == pytest.approx(lines)

    @pytest.mark.parametrize("paper", ["A4", "Letter", "roll"])
    def test_on_paper(self, client, kept, paper):
        """One page, with every step and its time; what it was like has room."""
        answer = client.get(f"/api/formulas/{kept}/method.pdf", params={"paper": paper})
        assert answer.headers["content-type"] == "application/pdf"
        pages = PdfReader(io.BytesIO(answer.content)).pages
        assert len(pages) == 1
        text = " ".join(pages[0].extract_text().replace("\u202f", " ").split())
        for words in ("Cardamom milk buns", "Cook the paste", "0:29", "held back until now", "Second rise", "190 °C", "Hot paste sticks"):
            assert words in text
        assert ("as it was" in text) == (paper != "roll")

    def test_by_the_clock_and_late(self, client, body):
        """Wanted sooner than it can be: it is said where the times stand."""
        body["count"]["today"] = {"begins_min": 1260, "ready_min": 1380}
        kept = client.post("/api/formulas", json=body).json()["head"]["id"]
        sheet = client.get(f"/api/formulas/{kept}/method").json()["sheet"]
        assert sheet["begins"] == "21:00"
        assert sheet["ready"].startswith("01:3")
        assert "wanted at 23:00, so 2 h" in sheet["late"] and "too late" in sheet["late"]
        assert sheet["steps"][0]["when"] == "21:00"

    def test_of_a_revision_and_of_none(self, client, kept):
        state = client.get(f"/api/formulas/{kept}").json()
        saved = client.post(f"/api/formulas/{kept}/revisions", json={"formula": state["formula"], "count": state["count"], "note": "as it is", "version": state["version"]})
        assert saved.status_code == 201
        assert client.get(f"/api/formulas/{kept}/method", params={"revision": 1}).json()["edition"] == "revision 1"
        assert client.get(f"/api/formulas/{kept}/method", params={"revision": 99}).status_code == 404
        assert client.get("/api/formulas/999999/method.pdf").status_code == 404


def test_a_formula_without_a_method(client, rolls):
    """An empty way: nothing to tell, and no fault."""
    body = {"formula": rolls.model_dump(mode="json")}
    method = client.post("/api/reckon/method", json=body).json()
    assert (method["steps"], method["usual_min"], method["water"]) == ([], 0, None)
    kept = client.post("/api/formulas", json=body).json()["head"]["id"]
    assert client.get(f"/api/formulas/{kept}/method").json()["sheet"]["steps"] == []
    assert client.get(f"/api/formulas/{kept}/method.pdf").status_code == 200
