"""The shelf: a kitchen's own pans."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB, TIMESTAMP

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "pans",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("body", JSONB, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("archived_at", TIMESTAMP(timezone=True), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_pans"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_pans_kitchen_id"),
    )
    op.create_index("ix_pans_kitchen_id", "pans", ["kitchen_id"])
