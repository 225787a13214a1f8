"""Baking days: what a baker told of each, and the timetable that is gone by."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB, TIMESTAMP, UUID

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.create_table(
        "days",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("uid", UUID(as_uuid=True), nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("date", sa.Date, nullable=False),
        sa.Column("body", JSONB, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("changed_at", TIMESTAMP(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_days"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_days_kitchen_id_kitchens"),
    )
    op.create_index("ix_days_kitchen_id", "days", ["kitchen_id"])
