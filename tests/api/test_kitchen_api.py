"""The kitchen endpoints."""

import pytest

KITCHEN = "/api/kitchen"


@pytest.fixture
def state(client):
    """The kitchen as it is, put back afterwards."""
    before = client.get(KITCHEN).json()
    yield before
    now = client.get(KITCHEN).json()
    client.put(KITCHEN, json=before | {"version": now["version"]})


def test_set_and_read_back(client, state):
    """Ounces on a scale of an eighth, inches and Letter."""
    scale = {"unit": "oz", "step": "0.125", "fine_step": "0.005", "fine_under": "0.35"}
    settings = {"scale": scale, "length_unit": "in", "paper": "Letter"}
    answer = client.put(KITCHEN, json={"name": "Weir House", "settings": settings, "version": state["version"]})
    assert (answer.status_code, answer.json()["version"]) == (200, state["version"] + 1)
    assert client.get(KITCHEN).json() == answer.json()
    assert {key: answer.json()["settings"][key] for key in settings} == settings


def test_behind(client, state):
    """A change that rests on an older state is told, and nothing is changed."""
    answer = client.put(KITCHEN, json=state | {"name": "x", "version": state["version"] - 1})
    assert answer.status_code == 409
    assert client.get(KITCHEN).json() == state


@pytest.mark.parametrize(
    ("change", "pointer", "says"),
    [
        ({"name": ""}, "/name", "Name must not be blank."),
        ({"settings": {"scale": {"step": "0"}}}, "/settings/scale/step", "Step must be more than 0."),
        ({"settings": {"scale": {"step": "0.0001"}}}, "/settings/scale/step", "no more than 3 places"),
        ({"settings": {"scale": {"unit": "cups"}}}, "/settings/scale/unit", "Unit must be 'g' or 'oz'."),
        ({"settings": {"paper": "A5"}}, "/settings/paper", "Paper must be 'A4', 'Letter' or 'roll'."),
        ({"settings": None}, "/settings", "Settings"),
    ],
)
def test_what_is_not_right(client, state, change, pointer, says):
    """422 points at the field, in words."""
    answer = client.put(KITCHEN, json=state | change)
    assert answer.status_code == 422
    (issue,) = answer.json()["errors"]
    assert issue["pointer"] == pointer
    assert says in issue["detail"]
