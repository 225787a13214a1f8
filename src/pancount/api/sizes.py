"""How much is taken in at once, by endpoint, before any of it is read: the first part of the table in docs/promises.md.

What each holds is limited again where it is described (`core/base/most.py`).
"""

import re

KB = 1_000
BODY_BYTES: tuple[tuple[str, int], ...] = (
    ("POST /api/reckon/(count|change|compare|method|ways)", 2_000 * KB),
    ("POST /api/formulas/import", 2_000 * KB),
    ("(POST|PUT) /api/formulas(/.*)?", 1_000 * KB),
    ("POST /api/reckon/flour-made-up", 1_000 * KB),
    ("POST /api/read/method", 1_000 * KB),
    ("POST /api/take-in/file", 4_000 * KB),
    ("POST /api/take-in/table", 1_000 * KB),
    ("(POST|PUT) /api/(take-in|takings)(/.*)?", 1_000 * KB),
    ("PUT /api/kitchen", 200 * KB),
    ("(POST|PUT) /api/days(/.*)?", 500 * KB),
    ("POST /api/bakes/[^/]+/events", 300 * KB),
    ("POST /api/book/bakes", 300 * KB),
    ("(POST|PUT) /api/book/bakes/[^/]+/(told|outcome)", 150 * KB),
    ("POST /api/book/bakes/[^/]+/photos", 15_000 * KB),
)
"""The first that fits. A formula of 100 lines is about 30 kB; a saved page with all its scripts seldom over 3 MB."""
OTHERS = 64 * KB
MOST_MEMBERS = 50_000
"""Fields and entries in a JSON body, by its commas; a formula of 100 lines has some 1 300, a whole pantry of one's own 15 000."""
MOST_DRAINED = 32_000 * KB
"""Of what is too large, so much is heard out before it is refused; beyond it the connection ends at once."""
READ_S = 10
"""How long all of a request may take to arrive. [s]"""
MOST_TOLD = 50
"""Of many things that are wrong, the first so many are told."""

_RULES = [(re.compile(rule), most) for rule, most in BODY_BYTES]
_FILES = re.compile("/api/(take-in/file|formulas/import|book/bakes/[^/]+/photos)")


def body_bytes(method: str, path: str) -> int:
    """The most that this endpoint takes. [bytes]"""
    return next((most for rule, most in _RULES if rule.fullmatch(f"{method} {path}")), OTHERS)


def is_file(path: str) -> bool:
    """Whether this endpoint takes a file as it is."""
    return _FILES.fullmatch(path) is not None
