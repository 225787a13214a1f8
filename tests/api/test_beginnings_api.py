"""Something to begin with: outlines, and examples that come and go together."""

from starlette.testclient import TestClient

from pancount.demo.weir_house import FORMULAS

EXAMPLE_NAMES = {formula.name for formula, _ in FORMULAS}


def names(client: TestClient, *, examples: bool = True) -> set[str]:
    return {head["name"] for head in client.get("/api/formulas").json() if head["example"] is examples}


def test_an_outline_becomes_a_draft_of_ones_own(client):
    """As it stands in the list of outlines; nothing of it is a revision until it is saved."""
    outlines = {one["key"]: one for one in client.get("/api/beginnings/outlines").json()}
    made = client.post("/api/beginnings/outlines", params={"key": "bagel"})
    assert made.status_code == 201
    state = made.json()
    assert state["formula"] == outlines["bagel"]["formula"]
    assert (state["head"]["latest_number"], state["head"]["unsaved"], state["head"]["example"]) == (0, True, False)
    missing = client.post("/api/beginnings/outlines", params={"key": "pretend"})
    assert (missing.status_code, missing.json()["type"]) == (404, "urn:pancount:problem:not_found")


def test_examples_come_once_and_go_together(client):
    """A second time brings nothing; they go in one go, and can come again."""
    client.delete("/api/beginnings/examples")  # of other tests
    assert client.post("/api/beginnings/examples").json() == len(FORMULAS)
    assert names(client) == EXAMPLE_NAMES
    assert client.post("/api/beginnings/examples").json() == 0
    assert client.delete("/api/beginnings/examples").json() == {"removed": len(FORMULAS), "kept": 0}
    assert names(client) == set()
    assert client.delete("/api/beginnings/examples").json() == {"removed": 0, "kept": 0}


def test_an_example_that_was_changed_is_the_bakers_own(client):
    """A draft or a revision on it stays, whatever is removed; a pin on its count is no change of the formula."""
    client.delete("/api/beginnings/examples")
    client.post("/api/beginnings/examples")
    heads = {head["name"]: head["id"] for head in client.get("/api/formulas").json() if head["example"]}
    revised, drafted, counted = (client.get(f"/api/formulas/{heads[name]}").json() for name in ("Caraway knots", "Squash rolls", "Yogurt flatbreads"))
    body = {"formula": revised["formula"] | {"note": "Mine"}, "count": revised["count"], "version": revised["version"], "note": "Mine now"}
    assert client.post(f"/api/formulas/{revised['head']['id']}/revisions", json=body).status_code == 201
    body = {"formula": drafted["formula"] | {"note": "Half done"}, "count": drafted["count"], "version": drafted["version"]}
    assert client.put(f"/api/formulas/{drafted['head']['id']}/desk", json=body).status_code == 200
    body = {"formula": counted["formula"], "count": counted["count"] | {"leave_remainder": True}, "version": counted["version"]}
    assert client.put(f"/api/formulas/{counted['head']['id']}/desk", json=body).status_code == 200
    assert client.delete("/api/beginnings/examples").json() == {"removed": len(FORMULAS) - 2, "kept": 2}
    assert names(client) == set()
    assert {"Caraway knots", "Squash rolls"} <= names(client, examples=False)
    for state in (revised, drafted):
        client.put(f"/api/formulas/{state['head']['id']}/archived", params={"archived": True})
