"""The OpenAPI document: nothing sent by its rules, or against them, makes the server fail."""

import os

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis import GenerationMode
from schemathesis.checks import not_a_server_error
from sqlalchemy import Engine

from pancount.api.app import make_app

EXAMPLES = int(os.environ.get("PANCOUNT_FUZZ", "15"))
"""Inputs tried for each operation and mode; set PANCOUNT_FUZZ for a long hunt."""

OPERATIONS = {
    f"{method.upper()} {path}"
    for path, item in make_app(None, None).openapi()["paths"].items()
    for method in item
}


@pytest.fixture(scope="session")
def operations(engine: Engine) -> dict:
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", make_app(engine, web=None, hosts=["testserver"]))
    return {result.ok().label: result.ok() for result in schema.get_all_operations()}


TAKES_NOTHING = {
    "GET /api/reference", "GET /api/kitchen", "GET /api/pantry", "GET /api/cups", "GET /api/takings",
    "GET /api/days", "GET /api/days/calendar.ics",
    "GET /api/bench", "GET /api/bakes", "GET /api/devices",
    "GET /api/beginnings/outlines", "POST /api/beginnings/examples", "DELETE /api/beginnings/examples",
}  # fmt: skip
ENDLESS = {"GET /api/bench/live"}
"""Tells for as long as one listens; `test_bench_api.py` does."""
CASES = [
    (label, mode)
    for label in sorted(OPERATIONS - ENDLESS)
    for mode in GenerationMode
    if mode is GenerationMode.POSITIVE or label not in TAKES_NOTHING
]


@pytest.mark.parametrize(("label", "mode"), CASES)
def test_no_input_fails_the_server(operations, label, mode):
    """Any body, path or query, by the document's rules or against them, gets an answer under 500."""
    answers = 0

    @settings(max_examples=EXAMPLES, deadline=None, database=None, suppress_health_check=list(HealthCheck))
    @given(case=operations[label].as_strategy(generation_mode=mode))
    def attempt(case):
        nonlocal answers
        case.call_and_validate(checks=[not_a_server_error])
        answers += 1

    attempt()
    assert answers
