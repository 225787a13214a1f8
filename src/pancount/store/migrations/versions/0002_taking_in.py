"""Recipes taken in, the kitchen's own ingredients in full, its cups weighed, and true water of each formula."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB, TIMESTAMP

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.add_column("formulas", sa.Column("true_water_percent", sa.Float, nullable=True))
    op.add_column("own_ingredients", sa.Column("body", JSONB, server_default="{}", nullable=False))
    op.add_column("own_ingredients", sa.Column("version", sa.Integer, server_default="1", nullable=False))
    op.create_table(
        "takings",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("settled", JSONB, nullable=False),
        sa.Column("system", sa.Text, nullable=True),
        sa.Column("formula_id", sa.Integer, nullable=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("changed_at", TIMESTAMP(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_takings"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_takings_kitchen_id"),
        sa.ForeignKeyConstraint(["formula_id"], ["formulas.id"], name="fk_takings_formula_id", ondelete="SET NULL"),
    )
    op.create_index("ix_takings_kitchen_id", "takings", ["kitchen_id"])
    op.create_table(
        "cup_weighings",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("body", JSONB, nullable=False),
        sa.Column("weighed_at", TIMESTAMP(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_cup_weighings"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_cup_weighings_kitchen_id"),
    )
    op.create_index("ix_cup_weighings_kitchen_id", "cup_weighings", ["kitchen_id"])
