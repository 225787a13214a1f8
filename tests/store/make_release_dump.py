"""Writes a small filled dump of the present schema: python tests/store/make_release_dump.py FILE ADDRESS-OF-AN-EMPTY-DATABASE.

Run when a schema is released; the dump then stays as it is, and later migrations are tried on it.
"""

import subprocess
import sys

from pancount.core.pantry.ingredients import Ingredient
from pancount.core.pantry.role import Role
from pancount.core.taking.habits import CupWeighing
from pancount.core.taking.taken import Settled
from pancount.demo.weir_house import CARD, OTHERS, SHELF
from pancount.store.database import connect, migrate, transaction
from pancount.store.formula import keep_new, save_revision
from pancount.store.kitchen import ONLY_KITCHEN, Settings, open_kitchen
from pancount.store.pans import add_pan
from pancount.store.pantry import add_cup, put_ingredient
from pancount.store.taking import Taking, start_taking


def main(file: str, url: str) -> None:
    engine = connect(url)
    migrate(engine)
    with transaction(engine) as session:
        open_kitchen(session, ONLY_KITCHEN, "Weir House kitchen", Settings())
        for formula, count in OTHERS:
            if formula.name in ("Caraway knots", "Leek and thyme focaccia"):
                state = keep_new(session, ONLY_KITCHEN, formula, count, "As first written")
        save_revision(session, ONLY_KITCHEN, state.head.id, state.formula, state.count, state.version, "Again")
        start_taking(session, ONLY_KITCHEN, Taking(text=CARD, settled=(Settled(written="1 egg", weight_g=52),)))
        put_ingredient(session, ONLY_KITCHEN, Ingredient(name="Canal honey", role=Role.SUGAR), 0)
        add_pan(session, ONLY_KITCHEN, SHELF[5])
        add_cup(session, ONLY_KITCHEN, CupWeighing(ingredient="Bread flour", measure="cup", way="scooped", weight_g=143))
    engine.dispose()
    dump = ["pg_dump", "--inserts", "--no-owner", "--no-privileges", url]
    text = subprocess.run(dump, check=True, capture_output=True, text=True).stdout
    lines = (line for line in text.splitlines() if not line.startswith(("--", "SET ", "\\", "SELECT pg_catalog")))
    with open(file, "w") as out:
        out.write("\n".join(line for line in lines if line.strip()) + "\n")


if __name__ == "__main__":
    main(*sys.argv[1:])
