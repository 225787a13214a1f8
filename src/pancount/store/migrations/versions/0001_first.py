"""Kitchens, their own ingredients, formulas and revisions."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY, JSONB, TIMESTAMP

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "kitchens",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("settings", JSONB, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_kitchens"),
    )
    op.create_table(
        "own_ingredients",
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("role", sa.Text, nullable=False),
        sa.PrimaryKeyConstraint("kitchen_id", "name", name="pk_own_ingredients"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_own_ingredients_kitchen_id"),
    )
    op.create_table(
        "formulas",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("latest_number", sa.Integer, nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("styles", ARRAY(sa.Text), nullable=False),
        sa.Column("liquid_percent", sa.Float, nullable=True),
        sa.Column("unsaved", sa.Boolean, nullable=False),
        sa.Column("desk_formula", JSONB, nullable=False),
        sa.Column("desk_count", JSONB, nullable=False),
        sa.Column("desk_base", sa.Integer, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("archived_at", TIMESTAMP(timezone=True), nullable=True),
        sa.Column("changed_at", TIMESTAMP(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_formulas"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_formulas_kitchen_id"),
    )
    op.create_index("ix_formulas_kitchen_id", "formulas", ["kitchen_id"])
    op.create_table(
        "revisions",
        sa.Column("formula_id", sa.Integer, nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("schema_number", sa.Integer, nullable=False),
        sa.Column("body", JSONB, nullable=False),
        sa.Column("note", sa.Text, nullable=False),
        sa.Column("saved_at", TIMESTAMP(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("formula_id", "number", name="pk_revisions"),
        sa.ForeignKeyConstraint(["formula_id"], ["formulas.id"], name="fk_revisions_formula_id", ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_revisions_kitchen_id"),
    )
    op.execute("""
        CREATE FUNCTION revisions_never_change() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN RAISE EXCEPTION 'a revision never changes'; END $$
    """)
    op.execute("""
        CREATE TRIGGER revisions_never_change BEFORE UPDATE ON revisions
        FOR EACH ROW EXECUTE FUNCTION revisions_never_change()
    """)
