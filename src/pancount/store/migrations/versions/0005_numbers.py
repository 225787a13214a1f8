"""True water of every formula is reckoned once more: the pantry's compositions were corrected (hard cheese, flours)."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.execute(sa.text("UPDATE formulas SET true_water_percent = NULL"))
