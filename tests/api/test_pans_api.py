"""The shelf and the papers of a count through the API."""

import csv
import io

import pytest

from conftest import make_formula
from pancount.core.count.count import Count, Pins, Target, TargetPins
from pancount.core.pantry.role import Role

TIN = {"pan": {"shape": "loaf", "name": "Two-pound tin", "length_cm": 23, "width_cm": 13, "base_length_cm": 20, "base_width_cm": 11, "depth_cm": 7}}
ROUND = {"shape": "round", "diameter_cm": 26, "depth_cm": 6}


def url(client, name: str, **path: object) -> str:
    return client.app.url_path_for(name, **path)


class TestShelf:
    """Pans: added, changed, put away, removed."""

    def test_its_life(self, client):
        """What is acknowledged is there, with what it measures."""
        state = client.post(url(client, "add_pan"), json=TIN).json()
        assert state["measured"]["volume_ml"] == pytest.approx(1809.5)
        path = url(client, "change_pan", pan_id=state["id"])
        changed = client.put(path, json={"shelved": TIN | {"owned": 3}, "version": 1}).json()
        assert (changed["shelved"]["owned"], changed["version"]) == (3, 2)
        assert client.put(path, json={"shelved": TIN, "version": 1}).status_code == 409
        client.put(url(client, "put_pan_away", pan_id=state["id"]), params={"archived": True})
        assert state["id"] not in [pan["id"] for pan in client.get(url(client, "list_pans")).json()]
        assert client.delete(url(client, "remove_pan", pan_id=state["id"]), params={"version": 2}).status_code == 204
        assert client.put(path, json={"shelved": TIN, "version": 2}).status_code == 404

    @pytest.mark.parametrize(
        ("pan", "pointer", "says"),
        [
            ({"shape": "heart"}, "", "must have a shape out of"),
            ({"shape": "round", "diameter_cm": 0, "depth_cm": 5}, "/round/diameter_cm", "Diameter must be 0.01 or more."),
            ({"shape": "ring", "diameter_cm": 20, "hole_cm": 25, "depth_cm": 5}, "/ring", "the hole must be smaller than the ring around it"),
            ({"shape": "cups", "diameter_cm": 7, "depth_cm": 3, "cups": 1.5}, "/cups/cups", "must be a whole number"),
            ({"shape": "round", "diameter_cm": 20, "depth_cm": 5, "brim_ml": -1}, "/round/brim_ml", "must be 0.01 or more"),
        ],
    )
    def test_what_is_not_right(self, client, pan, pointer, says):
        """Problem details that point at the measure."""
        answer = client.post(url(client, "measure_pan"), json=pan)
        assert answer.status_code == 422
        issue = answer.json()["errors"][0]
        assert issue["pointer"].endswith(pointer)
        assert says in issue["detail"]

    def test_held_against_each_other(self, client):
        """The same dough in two pans; and what else on the shelf would take it."""
        body = {"dough_g": 870, "fill_kind": "open_tin", "pans": [TIN["pan"], ROUND]}
        first, second = client.post(url(client, "hold_pans"), json=body).json()
        assert first["keeps_share"] == 1
        assert second["keeps_g"] == pytest.approx(870 * second["measured"]["volume_ml"] / 1809.5)
        kept = client.post(url(client, "add_pan"), json={"pan": ROUND | {"depth_cm": 7}}).json()
        wanted = {"dough_g": 1500, "fill_kind": "open_tin", "pan": ROUND}
        found = client.post(url(client, "find_stand_ins"), json=wanted).json()
        assert kept["id"] in [one["key"] for one in found]
        client.delete(url(client, "remove_pan", pan_id=kept["id"]), params={"version": 1})


@pytest.fixture(scope="module")
def two_targets(client):
    """A formula on the desk with buns and a pan from 1 kg of flour."""
    formula = make_formula(("Bread flour", Role.FLOUR, 100), ("Water", Role.LIQUID, 60), ("Fine salt", Role.SALT, 2), ("Instant yeast", Role.LEAVEN, 1))
    count = Count(
        pins=Pins(flour_g=1000),
        targets=(
            Target(name="=buns", pins=TargetPins(pieces=12, piece_g=80)),
            Target(pins=TargetPins(pieces=1), pan={"shape": "iron", "diameter_cm": 30, "depth_cm": 5}),
        ),
    )
    body = {"formula": formula.model_dump(mode="json"), "count": count.model_dump(mode="json")}
    return client.post(url(client, "start_formula"), json=body).json()["head"]["id"]


class TestPapers:
    """The sheet as CSV and on each paper, the spreadsheet, the ruler."""

    def test_sheet_csv(self, client, two_targets):
        """Lines with what the scale shows, and the targets; a name that looks like a calculation is made plain."""
        answer = client.get(url(client, "get_sheet_csv", formula_id=two_targets))
        rows = list(csv.DictReader(io.StringIO(answer.text)))
        assert [(row["ingredient"], row["amount"], row["scale_shows"]) for row in rows[:2]] == [("Bread flour", "1000", "1000"), ("Water", "600", "1600")]
        assert {"'=buns", "All of it"} <= {row["ingredient"] for row in rows}

    @pytest.mark.parametrize("name", ["get_sheet_pdf", "get_ruler"])
    def test_pdfs(self, client, two_targets, name):
        """On each paper; for a target that is not there, the last."""
        for query in ({"paper": "A4"}, {"paper": "Letter"}, {"paper": "roll"}) if name == "get_sheet_pdf" else ({}, {"target": 11}):
            answer = client.get(url(client, name, formula_id=two_targets), params=query)
            assert (answer.status_code, answer.content[:5]) == (200, b"%PDF-")
        assert client.get(url(client, "get_sheet_pdf", formula_id=two_targets), params={"paper": "A5"}).status_code == 422

    def test_fighting_pins_make_no_spreadsheet(self, client, two_targets):
        """They are told instead."""
        state = client.get(url(client, "get_formula", formula_id=two_targets)).json()
        count = state["count"] | {"pins": {"flour_g": 10, "dough_g": 5000}}
        made = client.post(url(client, "start_formula"), json={"formula": state["formula"], "count": count}).json()
        answer = client.get(url(client, "get_count_ods", formula_id=made["head"]["id"]))
        assert (answer.status_code, answer.json()["errors"][0]["code"]) == (422, "pins_fight")

    def test_looking_at_a_target(self, client, two_targets):
        """What is drawn and chosen follows the target looked at; one that is not there reads as the first."""
        state = client.get(url(client, "get_formula", formula_id=two_targets)).json()
        body = {"formula": state["formula"], "count": state["count"]}
        first, second, gone = (client.post(url(client, "reckon_count"), json=body | {"looking_at": n}).json() for n in (0, 1, 7))
        assert (first["looked_at"]["pan"], second["looked_at"]["pan"]["pan"]["shape"]) == (None, "iron")
        assert gone == first
