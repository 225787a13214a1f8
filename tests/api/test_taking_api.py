"""Taking in, the pantry and the cups over HTTP."""

import json

import pytest

from pancount.core.count.count import Count
from pancount.demo.weir_house import BUNS
from pancount.formats.formula_file import write_formula

TEXT = "Lock rolls\nMakes 12\n4 cups bread flour\n300 g water\n2 tsp salt\n5 g instant yeast\n\nMethod\nBake at 220 °C."
CUP = {"ingredient": "Bread flour", "measure": "cup", "way": "scooped", "count": 2, "weight_g": 286}


@pytest.fixture(autouse=True)
def habits(client):
    """No answers and no cups, whatever ran before; the kitchen's answers are put back afterwards."""
    before = client.get("/api/kitchen").json()["settings"]["habits"]
    for cup in client.get("/api/cups").json():
        client.delete(f"/api/cups/{cup['id']}")
    yield client.put("/api/kitchen/habits", json={}).json()["settings"]["habits"]
    client.put("/api/kitchen/habits", json=before)


def figure(client, key: str, text: str = TEXT) -> dict:
    return next(f for f in client.post("/api/take-in", json={"text": text}).json()["figures"] if f["key"] == key)


class TestReading:
    """POST /api/take-in"""

    def test_text_comes_back_with_its_reading(self, client):
        """Every line as it was; figures with their ranges; questions with what they would change."""
        taken = client.post("/api/take-in", json={"text": TEXT}).json()
        assert [line["text"] for line in taken["lines"]] == TEXT.split("\n")
        assert (taken["title"], taken["makes"]["pieces"]) == ("Lock rolls", 12)
        assert {q["key"] for q in taken["questions"]} >= {"cup_way", "salt"}
        assert all(f["low"] <= f["usual"] <= f["high"] for f in taken["figures"])

    def test_answers_and_cups_narrow_it(self, client, habits):
        """An answer is remembered for the kitchen, a cup too; each makes the range smaller."""
        widths = [figure(client, "liquid")["high"] - figure(client, "liquid")["low"]]
        kept = client.put("/api/kitchen/habits", json=habits | {"cup_way": "scooped", "system": "us"})
        assert kept.json()["settings"]["habits"]["cup_way"] == "scooped"
        widths.append(figure(client, "liquid")["high"] - figure(client, "liquid")["low"])
        cup = client.post("/api/cups", json=CUP)
        assert cup.status_code == 201
        widths.append(figure(client, "liquid")["high"] - figure(client, "liquid")["low"])
        assert widths[0] > widths[1] > widths[2] > 0
        assert cup.json() in client.get("/api/cups").json()
        assert client.delete(f"/api/cups/{cup.json()['id']}").status_code == 204
        assert client.delete(f"/api/cups/{cup.json()['id']}").status_code == 404

    @pytest.mark.parametrize(
        ("body", "pointer"),
        [
            ({"text": "x" * 60_001}, "/text"),
            ({"text": "a\u0000b"}, "/text"),
            ({"text": "", "settled": [{"written": "x", "weight_g": -1}]}, "/settled/0/weight_g"),
            ({"text": "", "settled": [{"written": "x", "where": "moon"}]}, "/settled/0/where"),
            ({"text": "", "system": "martian"}, "/system"),
            ({"txt": ""}, "/txt"),
        ],
    )
    def test_what_is_not_right(self, client, body, pointer):
        answer = client.post("/api/take-in", json=body)
        assert (answer.status_code, answer.json()["errors"][0]["pointer"]) == (422, pointer)


class TestFiles:
    """POST /api/take-in/file, /api/take-in/table"""

    def send(self, client, data: bytes, name: str = "x"):
        return client.post("/api/take-in/file", params={"name": name}, content=data, headers={"Content-Type": "application/octet-stream"})

    def test_json_ld(self, client):
        """Its text, to go on with."""
        recipe = {"@type": "Recipe", "name": "Lock rolls", "recipeIngredient": ["500 g flour"]}
        answer = self.send(client, json.dumps({"@graph": [recipe]}).encode()).json()
        assert (answer["kind"], answer["text"]) == ("text", "Lock rolls\n\n\n500 g flour")

    def test_a_formula_file_is_kept_at_once(self, client):
        answer = self.send(client, write_formula(BUNS, Count()).encode()).json()
        assert answer["kind"] == "formula"
        assert client.get(f"/api/formulas/{answer['formula_id']}").json()["formula"]["name"] == BUNS.name

    def test_a_table_is_mapped_once(self, client):
        """The second one with the same head comes mapped."""
        data = b"what,how much\nflour,2 cups\nsalt,1 tsp"
        first = self.send(client, data, "x.csv").json()
        assert (first["kind"], first["table"]["head"], first["table"]["mapping"]) == ("table", ["what", "how much"], {"ingredient": 0})
        mapping = {"ingredient": 0, "amount": 1}
        read = client.post("/api/take-in/table", json={"text": first["text"], "mapping": mapping, "title": "Rolls"})
        assert read.json()["text"] == "Rolls\n\n2 cups flour\n1 tsp salt"
        assert self.send(client, data, "x.csv").json()["table"]["mapping"] == mapping

    @pytest.mark.parametrize("data", [b"", b"{", b"<html>", b'{"@type": "Person"}'])
    def test_what_cannot_be_read(self, client, data):
        answer = self.send(client, data)
        assert (answer.status_code, answer.headers["content-type"]) == (422, "application/problem+json")

    def test_too_large(self, client):
        assert self.send(client, b"x" * 6_000_001).status_code == 413


class TestTakings:
    """/api/takings"""

    def test_from_text_to_formula(self, client):
        """Kept, changed, made, and thrown away."""
        state = client.post("/api/takings", json={"text": TEXT}).json()
        where = f"/api/takings/{state['head']['id']}"
        changed = client.put(where, json={"text": TEXT, "settled": [{"written": "300 g water", "weight_g": 310}], "version": 1})
        assert changed.json()["head"]["version"] == 2
        assert client.put(where, json={"text": "x", "settled": [], "version": 1}).status_code == 409
        made = client.post(f"{where}/formula", params={"version": 2})
        assert made.status_code == 201
        assert made.json()["formula"]["stages"][0]["lines"][1]["weight_g"] == 310
        assert made.json()["head"]["true_water_percent"] > 50
        assert client.get(where).json()["head"]["formula_id"] == made.json()["head"]["id"]
        assert client.delete(where, params={"version": 1}).status_code == 409
        assert client.delete(where, params={"version": 2}).status_code == 204
        assert client.get(where).status_code == 404

    def test_out_as_a_recipe_for_others(self, client):
        """schema.org, with the yield; what is not there is told."""
        state = client.post("/api/takings", json={"text": TEXT}).json()
        made = client.post(f"/api/takings/{state['head']['id']}/formula", params={"version": 1}).json()
        out = client.get(f"/api/formulas/{made['head']['id']}/recipe.jsonld")
        assert out.headers["content-type"] == "application/ld+json"
        assert out.json()["recipeYield"] == "12 pieces"
        assert out.json()["recipeInstructions"][-1] == {"@type": "HowToStep", "name": "bake", "text": "Bake at 220 °C"}
        assert client.get("/api/formulas/99999/recipe.jsonld").status_code == 404


NUL = "a\u0000b"


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("POST", "/api/takings", {"text": "x", "settled": [{"written": "x", "way": NUL}]}),
        ("POST", "/api/takings", {"text": "x", "settled": [{"written": NUL}]}),
        ("POST", "/api/cups", CUP | {"way": NUL}),
        ("POST", "/api/cups", CUP | {"ingredient": NUL}),
        ("PUT", "/api/pantry", {"ingredient": {"name": "x", "role": "fat", "source": NUL}, "version": 0}),
        ("PUT", "/api/pantry", {"ingredient": {"name": "x", "role": "fat", "also": [NUL]}, "version": 0}),
        ("PUT", "/api/pantry", {"ingredient": {"name": "x", "role": "fat", "measures": [{"measure": "cup", "way": NUL, "low_g": 1, "usual_g": 1, "high_g": 1}]}, "version": 0}),
        ("PUT", "/api/kitchen", {"name": "x", "settings": {"columns": {NUL: {"line": 0}}}, "version": 1}),
    ],
)
def test_what_the_records_cannot_hold_is_refused(client, method, path, body):
    """PostgreSQL stores no NUL: it is told at the field, not by the database."""
    answer = client.request(method, path, json=body)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["code"] == "string_pattern_mismatch"


class TestPantry:
    """/api/pantry"""

    def test_one_as_it_ships(self, client):
        """Composition, measures, names, allergens and where each comes from."""
        item = next(i for i in client.get("/api/pantry").json() if i["ingredient"]["name"] == "Egg")
        egg = item["ingredient"]
        assert (item["version"], item["shipped"], egg["own"], egg["allergens"]) == (0, True, False, ["egg"])
        assert egg["composition"]["water"] == 76.2
        assert egg["source"].startswith("USDA FoodData Central")
        assert "Eier" in egg["also_de"]
        assert all(row["source"] for row in egg["measures"])

    def test_add_change_and_remove(self, client):
        """An ingredient of one's own, with versions."""
        body = {"ingredient": {"name": "Canal honey", "role": "sugar", "composition": {"water": 18, "carbohydrate": 81, "sugars": 80}}, "version": 0}
        kept = client.put("/api/pantry", json=body)
        assert (kept.status_code, kept.json()["item"]["version"]) == (200, 1)
        assert client.put("/api/pantry", json=body).status_code == 409
        assert client.post("/api/pantry/uses", json=body["ingredient"]).json() == []
        gone = client.delete("/api/pantry", params={"name": "Canal honey", "version": 1})
        assert gone.status_code == 204
        assert client.delete("/api/pantry", params={"name": "Canal honey", "version": 1}).status_code == 404

    @pytest.mark.parametrize(
        ("change", "says"),
        [
            ({"composition": {"water": 60, "fat": 60}}, "come to 120 g in 100 g"),
            ({"composition": {"carbohydrate": 10, "sugars": 20}}, "sugars are part of the carbohydrate"),
            ({"composition": {"water": 101}}, "100 or less"),
            ({"measures": [{"measure": "cup", "low_g": 5, "usual_g": 4, "high_g": 6}]}, "in order"),
            ({"allergens": ["dust"]}, "Allergens must be 'wheat'"),
            ({"name": ""}, "must not be blank"),
        ],
    )
    def test_what_is_not_right_is_told(self, client, change, says):
        ingredient = {"name": "Canal honey", "role": "sugar"} | change
        answer = client.put("/api/pantry", json={"ingredient": ingredient, "version": 0})
        assert answer.status_code == 422
        assert says in answer.json()["errors"][0]["detail"]
