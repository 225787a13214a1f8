"""Weir House kitchen's Saturday: six products for the stall at the lock."""

from datetime import date, timedelta

from sqlalchemy.orm import Session

from pancount.core.day.day import Day, DayProduct
from pancount.store.formula import list_formulas
from pancount.store.kitchen import ONLY_KITCHEN

STALL = (
    ("Malted seed bagels", "", 18),
    ("Cardamom milk buns", "way 2", 24),
    ("Caraway knots", "", 16),
    ("Leek and thyme focaccia", "", None),
    ("Squash rolls", "", 16),
    ("Yogurt flatbreads", "", 10),
)
"""What goes to the stall at the lock: formula, way, pieces."""


def saturday(session: Session) -> Day:
    """The next Saturday, with six products for the stall at half past seven."""
    numbers = {head.name: head.id for head in list_formulas(session, ONLY_KITCHEN, archived=False)}
    today = date.today()  # noqa: DTZ011  # the kitchen's own day
    products = (
        DayProduct(key=f"p{n}", formula_id=numbers[name], name=name, way=way, pieces=pieces) for n, (name, way, pieces) in enumerate(STALL, 1)
    )
    when = today + timedelta(days=(5 - today.weekday()) % 7 or 7)
    return Day(name="Saturday stall", date=when.isoformat(), products=tuple(products))
