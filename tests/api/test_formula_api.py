"""The formula endpoints: each way they can go, with code and place as well as status."""

import json

import pytest
from starlette.testclient import TestClient

from pancount.core.count.count import one_target
from pancount.formats.formula_file import write_formula

FILE = {"Content-Type": "application/octet-stream"}


def url(client: TestClient, name: str, **params: object) -> str:
    return str(client.app.url_path_for(name, **params))


def start(client: TestClient, formula: dict) -> dict:
    answer = client.post(url(client, "start_formula"), json={"formula": formula})
    assert answer.status_code == 201
    return answer.json()


@pytest.fixture
def formula(rolls) -> dict:
    return rolls.model_dump(mode="json")


class TestReckoning:
    """Pure: same body, same answer, no database."""

    def test_the_whole_screen_in_one_answer(self, client, formula):
        """Percentages, count, weights in the count and the pan."""
        pan = {"shape": "round", "diameter_cm": 30, "depth_cm": 5}
        body = {"formula": formula, "count": {"targets": [{"pins": {"pieces": 7}, "pan": pan}]}}
        first, second = (client.post(url(client, "reckon_count"), json=body) for _ in range(2))
        assert first.status_code == 200
        assert first.content == second.content
        whole = first.json()
        assert whole["formula"]["total_percent"] == 163
        assert whole["count"]["quantities"]["pieces.0"] == {"value": 7, "source": "pinned", "relation": None}
        assert whole["looked_at"]["pan"]["layout"]["words"] == "6 around 1"

    @pytest.mark.parametrize(
        ("change", "pointer", "code"),
        [
            ({"percent": -1}, "/formula/stages/0/lines/0/percent", "greater_than_equal"),
            ({"percent": 90}, "/stages/0/lines/0/percent", "flour_not_hundred"),
            ({"percent": None}, "/stages", "no_flour"),
            ({"percent": "x"}, "/formula/stages/0/lines/0/percent", "float_parsing"),
            ({"name": "a\u0000b"}, "/formula/stages/0/lines/0/name", "string_pattern_mismatch"),
            ({"role": "crumb"}, "/formula/stages/0/lines/0/role", "enum"),
        ],
    )
    def test_what_cannot_be_reckoned_points_at_the_field(self, client, formula, change, pointer, code):
        """Problem details with a JSON pointer and a code."""
        formula["stages"][0]["lines"][0].update(change)
        answer = client.post(url(client, "reckon_count"), json={"formula": formula})
        assert answer.status_code == 422
        assert answer.headers["content-type"] == "application/problem+json"
        issue = answer.json()["errors"][0]
        assert (issue["pointer"].startswith(pointer), issue["code"]) == (True, code)
        assert issue["detail"].endswith(".")

    @pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e999", "9" * 400, "9" * 5000])
    def test_numbers_that_are_none(self, client, number):
        """NaN, infinities and endless digits are refused, not passed on."""
        body = '{"formula": {"stages": [{"lines": [{"name": "f", "role": "flour", "weight_g": NUMBER}]}]}}'.replace("NUMBER", number)
        answer = client.post(url(client, "reckon_count"), content=body, headers={"Content-Type": "application/json"})
        assert answer.status_code in (400, 422)
        assert answer.headers["content-type"] == "application/problem+json"

    @pytest.mark.parametrize("grams", [1e-3, 1, 1e6])
    def test_from_a_crumb_to_a_tonne(self, client, grams):
        """10⁻³ g to 10⁶ g of flour, with as many lines as there may be."""
        lines = [{"name": "f", "role": "flour", "weight_g": grams}]
        lines += [{"name": f"n{i}", "role": "salt", "percent": 0.5} for i in range(99)]
        answer = client.post(url(client, "reckon_count"), json={"formula": {"stages": [{"lines": lines}]}})
        assert answer.json()["formula"]["weight_g"] == pytest.approx(grams * (1 + 99 * 0.005))

    def test_the_reference_names_every_quantity_and_relation_it_uses(self, client, formula):
        """A working on screen never meets a relation it has no words for."""
        words = client.get(url(client, "reference")).json()
        whole = client.post(url(client, "reckon_count"), json={"formula": formula}).json()
        for name, worked in whole["count"]["quantities"].items():
            assert words["quantities"][name.partition(".")[0]]["label"]
            if worked["relation"]:
                assert words["relations"][worked["relation"]]["says"]
                reads = whole["count"]["reads"] | words["relations"][worked["relation"]]["reads"]
                assert name in reads or name.partition(".")[0] in reads


class TestDesk:
    """Keeping what is typed."""

    def test_kept_and_read_back(self, client, formula):
        """Text in any script, 300 characters long."""
        formula["name"] = "面包 хлеб خبز" + "x" * 280
        state = start(client, formula)
        at = {"formula_id": state["head"]["id"]}
        count = {"targets": [{"pins": {"pieces": 3}}]}
        body = {"formula": formula, "count": count, "version": state["version"]}
        assert client.put(url(client, "put_on_desk", **at), json=body).status_code == 200
        read = client.get(url(client, "get_formula", **at)).json()
        assert (read["formula"]["name"], read["count"]["targets"][0]["pins"]["pieces"]) == (formula["name"], 3)

    def test_behind(self, client, formula):
        """409 with a sentence, and the stored desk stays."""
        state = start(client, formula)
        path = url(client, "put_on_desk", formula_id=state["head"]["id"])
        body = {"formula": formula, "count": {}, "version": state["version"]}
        assert client.put(path, json=body).status_code == 200
        answer = client.put(path, json=body | {"formula": {"name": "other"}})
        assert (answer.status_code, answer.json()["type"]) == (409, "urn:pancount:problem:behind")
        kept = client.get(url(client, "get_formula", formula_id=state["head"]["id"])).json()
        assert kept["formula"]["name"] == formula["name"]

    @pytest.mark.parametrize("number", [0, -1, 2**31, 10**30, "x"])
    def test_numbers_that_are_no_formula(self, client, number):
        """422 for what cannot be one."""
        assert client.get(f"/api/formulas/{number}").status_code == 422

    def test_not_here(self, client):
        """404 with problem details, for a formula, a revision, and any other address."""
        for path in ("/api/formulas/999999", "/api/formulas/999999/revisions/1", "/api/nothing"):
            answer = client.get(path)
            assert (answer.status_code, answer.headers["content-type"]) == (404, "application/problem+json")

    def test_what_is_not_json(self, client):
        """A sentence, and no 500."""
        answer = client.post("/api/formulas", content=b"{", headers={"Content-Type": "application/json"})
        assert (answer.status_code, answer.json()["errors"][0]["code"]) == (422, "json_invalid")


class TestRevisions:
    """Saving for good."""

    def test_saved_listed_and_read(self, client, formula):
        """The note and the formula come back."""
        state = start(client, formula)
        at = {"formula_id": state["head"]["id"]}
        saved = client.post(
            url(client, "save_revision", **at), json={"formula": formula, "version": state["version"], "note": "less salt"}
        )
        assert (saved.status_code, saved.json()["head"]["latest_number"]) == (201, 1)
        assert client.get(url(client, "list_revisions", **at)).json()[0]["note"] == "less salt"
        assert client.get(url(client, "get_revision", **at, number=1)).json()["formula"] == formula
        assert client.get(url(client, "get_revision", **at, number=2)).status_code == 404

    def test_the_second_window_is_told(self, client, formula):
        """409 where another window saved, and where it only kept what was typed in it: neither is overwritten."""
        state = start(client, formula)
        path = url(client, "save_revision", formula_id=state["head"]["id"])
        body = {"formula": formula, "version": state["version"]}
        typed = json.loads(json.dumps(formula)) | {"note": "typed in the other window"}
        kept = client.put(url(client, "put_on_desk", formula_id=state["head"]["id"]), json=body | {"formula": typed}).json()
        answer = client.post(path, json=body)
        assert (answer.status_code, "another window" in answer.json()["detail"]) == (409, True)
        assert client.get(url(client, "get_formula", formula_id=state["head"]["id"])).json()["formula"] == typed
        assert client.post(path, json=body | {"version": kept["version"]}).status_code == 201
        assert client.post(path, json=body | {"note": "x", "version": kept["version"]}).status_code == 409


class TestChanges:
    """What takes more than typing: asked of the core, which keeps nothing."""

    def ask(self, client, formula, change, **known):
        return client.post(url(client, "reckon_change"), json={"formula": formula, "change": change, **known})

    def test_into_a_stage_and_out(self, client, formula):
        """The formula comes back changed, with what that does; and the same again, put back."""
        moved = self.ask(client, formula, {"change": "move_in", "kind": "poolish", "flour_percent": 20, "hydration": 100})
        assert moved.status_code == 200
        made = moved.json()
        assert [stage["kind"] for stage in made["formula"]["stages"]] == ["poolish", "dough"]
        assert {g["key"] for g in made["compared"]["gauges"] if abs(g["differs"]) > 1e-9} == {"prefermented"}
        back = self.ask(client, made["formula"], {"change": "move_out", "stage": None}).json()
        assert back["formula"]["stages"] == formula["stages"]

    def test_the_kitchens_own_ways_come_with_it(self, client, formula):
        """Its own ingredient brings its own allergen; its school counts the starter apart."""
        own = {"name": "Water", "role": "liquid", "allergens": ["milk"], "own": True}
        body = {"formula": formula, "own": [own], "practice": {"starter": "apart"}}
        whole = client.post(url(client, "reckon_count"), json=body).json()
        assert [one["allergen"] for one in whole["contents"]["contains"]] == ["milk", "wheat"]

    @pytest.mark.parametrize(
        ("change", "status", "code", "says"),
        [
            ({"change": "aim", "gauge": "salt", "wanted": 2, "stage": 0, "line": 99}, 422, "cannot_change", "no such line"),
            ({"change": "feed", "stage": 0, "into": 0, "share": 1}, 422, "stage_loop", "cannot go into itself"),
            ({"change": "cooked", "stage": 0, "cooked_g": 1e6}, 422, "cannot_change", "cannot come out"),
            ({"change": "swap", "stage": 0, "line": 1, "to": "gold"}, 422, "cannot_change", "No swap"),
            ({"change": "sing"}, 422, "union_tag_invalid", ""),
            ({"change": "aim", "gauge": "joy", "wanted": 2, "stage": 0, "line": 0}, 422, "literal_error", ""),
        ],
    )
    def test_what_cannot_be_changed(self, client, formula, change, status, code, says):
        """A code, and a sentence."""
        answer = self.ask(client, formula, change)
        assert (answer.status_code, answer.json()["errors"][0]["code"]) == (status, code)
        assert says in answer.json()["errors"][0]["detail"]

    def test_side_by_side(self, client, formula):
        """On the flour that was asked for, differences first."""
        other = json.loads(json.dumps(formula))
        other["stages"][0]["lines"][1]["percent"] = 70
        answer = client.post(url(client, "reckon_compare"), json={"ours": other, "theirs": formula, "flour_g": 500})
        first = answer.json()["lines"][0]
        assert (first["name"], first["ours_g"], first["theirs_g"]) == ("Water", 350, 300)

    def test_a_branch(self, client, formula):
        """A formula of its own from a revision; 404 for one that is not there."""
        formula["name"] = "Rolls to branch from"
        state = start(client, formula)
        at = {"formula_id": state["head"]["id"]}
        client.post(url(client, "save_revision", **at), json={"formula": formula, "version": state["version"]})
        assert client.post(url(client, "copy_formula", **at), params={"revision": 1}).status_code == 201
        assert client.post(url(client, "copy_formula", **at), params={"revision": 9}).status_code == 404


class TestPapers:
    """What goes out."""

    def test_sheet_pdf_and_files(self, client, formula):
        """Each in its format, named after the formula in any script."""
        formula["name"] = "Brötchen / хлеб"
        at = {"formula_id": start(client, formula)["head"]["id"]}
        sheet = client.get(url(client, "get_sheet", **at)).json()
        assert (sheet["edition"], sheet["sheet"]["stages"][0]["lines"][0]["printed"]) == ("draft, not saved", "1000")
        pdf = client.get(url(client, "get_sheet_pdf", **at))
        assert (pdf.status_code, pdf.content[:5]) == (200, b"%PDF-")
        assert "Br%C3%B6tchen" in pdf.headers["content-disposition"]
        assert json.loads(client.get(url(client, "export_json", **at)).content)["formula"]["name"] == formula["name"]
        assert client.get(url(client, "export_csv", **at)).text.startswith("stage,ingredient,role")

    def test_a_draft_that_cannot_be_reckoned_has_no_sheet(self, client):
        """422 in words, not a blank page."""
        at = {"formula_id": start(client, {"name": "empty"})["head"]["id"]}
        for name in ("get_sheet", "get_sheet_pdf", "export_csv"):
            assert client.get(url(client, name, **at)).json()["errors"][0]["code"] == "no_flour"

    def test_in_again(self, client, rolls):
        """A file comes in as a formula of its own, with its count."""
        text = write_formula(rolls, one_target(pieces=24))
        answer = client.post(url(client, "import_formula"), content=text, headers=FILE)
        assert answer.status_code == 201
        state = answer.json()
        assert (state["formula"], state["count"]["targets"][0]["pins"]["pieces"]) == (rolls.model_dump(mode="json"), 24)
        assert state["head"]["latest_number"] == 1

    def test_a_wrong_file(self, client):
        """422 with every place, and 413 for one that is far too large."""
        wrong = '{"format": "pancount-formula", "version": 1, "formula": {"name": 5, "stages": [{"lines": [{"percent": -1}]}]}}'
        answer = client.post(url(client, "import_formula"), content=wrong, headers=FILE)
        pointers = {issue["pointer"] for issue in answer.json()["errors"]}
        assert pointers == {"/formula/name", "/formula/stages/0/lines/0/percent"}
        assert client.post(url(client, "import_formula"), content=b"x" * 2_000_001, headers=FILE).status_code == 413
