"""Formulas know whether they are examples, to be removed in one go."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.add_column("formulas", sa.Column("example", sa.Boolean(), server_default=sa.false(), nullable=False))
