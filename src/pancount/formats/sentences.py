"""Plain sentences for what validation finds wrong."""

from collections.abc import Callable, Mapping
from typing import Any

Problem = Mapping[str, Any]

SENTENCES: dict[str, Callable[[Problem], str]] = {
    "missing": lambda p: "is missing",
    "extra_forbidden": lambda p: "is not a field of this form",
    "finite_number": lambda p: "must be an ordinary number",
    "float_type": lambda p: "must be a number",
    "float_parsing": lambda p: "must be a number",
    "int_type": lambda p: "must be a whole number",
    "int_parsing": lambda p: "must be a whole number",
    "int_from_float": lambda p: "must be a whole number",
    "decimal_parsing": lambda p: "must be a number",
    "decimal_max_places": lambda p: f"must have no more than {p['ctx']['decimal_places']} places behind the point",
    "greater_than": lambda p: f"must be more than {p['ctx']['gt']:g}",
    "greater_than_equal": lambda p: f"must be {p['ctx']['ge']:g} or more",
    "less_than": lambda p: f"must be less than {p['ctx']['lt']:g}",
    "less_than_equal": lambda p: f"must be {p['ctx']['le']:g} or less",
    "string_type": lambda p: "must be text",
    "string_unicode": lambda p: "holds characters that are not text",
    "string_too_long": lambda p: f"must be no longer than {p['ctx']['max_length']} characters",
    "string_too_short": lambda p: "must not be blank",
    "string_pattern_mismatch": lambda p: "holds a character that cannot be kept",
    "too_long": lambda p: f"must have no more than {p['ctx']['max_length']} entries",
    "enum": lambda p: f"must be one of {p['ctx']['expected']}",
    "literal_error": lambda p: f"must be {p['ctx']['expected']}",
    "value_error": lambda p: str(p["ctx"]["error"]),
    "union_tag_invalid": lambda p: f"must have a shape out of {p['ctx']['expected_tags']}",
    "union_tag_not_found": lambda p: "must say its shape",
    "json_invalid": lambda p: "is not JSON",
}

NAMES = {
    "weight_g": "Weight",
    "percent": "Percent",
    "flour_g": "Flour",
    "piece_g": "Piece weight",
    "pieces_per_pan": "Pieces a pan",
    "bench_loss": "Bench loss",
    "length_cm": "Length",
    "width_cm": "Width",
    "depth_cm": "Depth",
    "diameter_cm": "Diameter",
}
"""Names of fields that a baker would not guess from the field itself."""


def sentence(problem: Problem) -> str:
    """One sentence for one validation error: the field's name and what is wrong with it.

    >>> sentence({"type": "greater_than_equal", "loc": ("stages", 0, "lines", 1, "weight_g"), "ctx": {"ge": 0}})
    'Weight must be 0 or more.'
    """
    say = SENTENCES.get(problem["type"])
    wrong = say(problem) if say else str(problem.get("msg", "is not right"))
    field = next((part for part in reversed(problem["loc"]) if isinstance(part, str)), "this")
    name = NAMES.get(field) or field.replace("_", " ").capitalize()
    return f"{name} {wrong}."
