"""The schema number of what lies on the desk."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.add_column("formulas", sa.Column("desk_schema", sa.Integer, server_default="2", nullable=False))
