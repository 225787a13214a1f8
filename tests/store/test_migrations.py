"""Migrations, from nothing and from filled databases of each release."""

from collections.abc import Callable
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import text

from pancount.core.formula.reckon import reckon
from pancount.store.database import connect, migrate, transaction
from pancount.store.formula import get_formula, get_revision, list_formulas, reckon_missing
from pancount.store.kitchen import ONLY_KITCHEN
from pancount.store.pans import list_pans
from pancount.store.pantry import list_cups, list_pantry
from pancount.store.tables import Base
from pancount.store.taking import get_taking, list_takings

DUMPS = sorted(Path(__file__).parent.glob("released/*.sql"))


def test_from_nothing(new_database: Callable[[str], str]):
    """An empty database gets just the tables that the code knows, and a second run changes nothing."""
    engine = connect(new_database("from_nothing"))
    for _ in range(2):
        migrate(engine)
        with engine.connect() as connection:
            assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []
    engine.dispose()


@pytest.mark.parametrize("dump", DUMPS, ids=lambda path: path.stem)
def test_from_a_filled_database(dump: Path, new_database: Callable[[str], str]):
    """A small dump of each released schema is brought up to date and still opens."""
    engine = connect(new_database(f"from_{dump.stem}"))
    with engine.begin() as connection:
        connection.exec_driver_sql(dump.read_text())
    migrate(engine)
    with engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []
        stored = connection.scalar(text("SELECT count(*) FROM revisions"))
    with transaction(engine) as session:
        reckon_missing(session, ONLY_KITCHEN)
        heads = list_formulas(session, ONLY_KITCHEN, archived=False)
        assert {head.name for head in heads} == {"Caraway knots", "Leek and thyme focaccia"}
        assert all(head.true_water_percent > 50 for head in heads)
        opened = 0
        for head in heads:
            assert get_formula(session, ONLY_KITCHEN, head.id).formula.name == head.name
            for number in range(1, head.latest_number + 1):
                assert get_revision(session, ONLY_KITCHEN, head.id, number).formula.stages
                opened += 1
        assert opened == stored == 3
        focaccia = next(head for head in heads if head.name == "Leek and thyme focaccia")
        first = get_revision(session, ONLY_KITCHEN, focaccia.id, 1).formula
        # Kinds are read off the names of old stages, and no gram moves: 2 019.4 g of dough on 1 000 g of flour.
        assert {"poolish", "dough", "inclusions"} <= {stage.kind for stage in first.stages}
        assert (reckon(first).flour_g, reckon(first).weight_g) == (1000, pytest.approx(2019.4))
        assert get_formula(session, ONLY_KITCHEN, focaccia.id).formula.stages == first.stages
        # What was pinned is pinned, beside the batch in the earlier releases and with its target since.
        knots = get_formula(session, ONLY_KITCHEN, next(head.id for head in heads if head.name == "Caraway knots")).count
        assert (knots.pins.divide_g, knots.targets[0].pins.piece_g) == (1290, 75)
        # From the release that had them on.
        assert all(pan.shelved.pan.name == "Two-pound tin" for pan in list_pans(session, ONLY_KITCHEN))
        for taking in list_takings(session, ONLY_KITCHEN):
            assert get_taking(session, ONLY_KITCHEN, taking.id).taking.settled[0].weight_g == 52
        assert len(list_pantry(session, ONLY_KITCHEN)) >= 120
        assert all(cup.weighing.weight_g == 143 for cup in list_cups(session, ONLY_KITCHEN))
    engine.dispose()
