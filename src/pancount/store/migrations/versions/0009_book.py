"""The book: records of bakes with what they came to, photos, tastings, and what a kitchen took of what it learned."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import ARRAY, BYTEA, JSONB, TIMESTAMP, TSVECTOR, UUID

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    for table in ("kitchens", "formulas"):
        op.add_column(table, sa.Column("learned", JSONB, server_default="[]", nullable=False))
    op.add_column("bakes", sa.Column("written", sa.Boolean, server_default=sa.false(), nullable=False))
    op.create_table(
        "book",
        sa.Column("bake_id", UUID(as_uuid=True), nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("formula_id", sa.Integer, nullable=True),
        sa.Column("begun_at", TIMESTAMP(timezone=True), nullable=False),
        sa.Column("number", sa.BigInteger, nullable=False),
        sa.Column("edition", sa.Integer, nullable=False),
        sa.Column("record", JSONB, nullable=False),
        sa.Column("numbers", JSONB, nullable=False),
        sa.Column("observed", JSONB, nullable=False),
        sa.Column("outcome", JSONB, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("left_out", JSONB, server_default="{}", nullable=False),
        sa.Column("ingredients", ARRAY(sa.Text), nullable=False),
        sa.Column("score", sa.Float, nullable=True),
        sa.Column("told", sa.Text, nullable=False),
        sa.Column("told_en", TSVECTOR, sa.Computed("to_tsvector('english', told)", persisted=True), nullable=False),
        sa.Column("told_de", TSVECTOR, sa.Computed("to_tsvector('german', told)", persisted=True), nullable=False),
        sa.PrimaryKeyConstraint("bake_id", name="pk_book"),
        sa.ForeignKeyConstraint(["bake_id"], ["bakes.id"], name="fk_book_bake_id"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_book_kitchen_id"),
        sa.ForeignKeyConstraint(["formula_id"], ["formulas.id"], name="fk_book_formula_id", ondelete="SET NULL"),
    )
    op.create_index("ix_book_kitchen_id_begun_at", "book", ["kitchen_id", "begun_at"])
    op.create_index("ix_book_formula_id_begun_at", "book", ["formula_id", "begun_at"])
    for column in ("told_en", "told_de", "ingredients"):
        op.create_index(f"ix_book_{column}", "book", [column], postgresql_using="gin")
    op.create_table(
        "photos",
        sa.Column("id", UUID(as_uuid=True), nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("bake_id", UUID(as_uuid=True), nullable=False),
        sa.Column("caption", sa.Text, nullable=False),
        sa.Column("square", sa.Boolean, nullable=False),
        sa.Column("width", sa.Integer, nullable=False),
        sa.Column("height", sa.Integer, nullable=False),
        sa.Column("large", BYTEA, nullable=False),
        sa.Column("small", BYTEA, nullable=False),
        sa.Column("kept_at", TIMESTAMP(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_photos"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_photos_kitchen_id"),
        sa.ForeignKeyConstraint(["bake_id"], ["bakes.id"], name="fk_photos_bake_id"),
    )
    op.create_index("ix_photos_kitchen_id", "photos", ["kitchen_id"])
    op.create_index("ix_photos_bake_id", "photos", ["bake_id"])
    # Photos are small files already: to pack them again costs time and saves nothing.
    op.execute("ALTER TABLE photos ALTER COLUMN large SET STORAGE EXTERNAL, ALTER COLUMN small SET STORAGE EXTERNAL")
    op.create_table(
        "tastings",
        sa.Column("id", UUID(as_uuid=True), nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("bakes", ARRAY(UUID(as_uuid=True)), nullable=False),
        sa.Column("scales", ARRAY(sa.Text), nullable=False),
        sa.Column("begun_at", TIMESTAMP(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.Column("opened_at", TIMESTAMP(timezone=True), nullable=True),
        sa.Column("knows", ARRAY(UUID(as_uuid=True)), server_default="{}", nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_tastings"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_tastings_kitchen_id"),
    )
    op.create_index("ix_tastings_kitchen_id", "tastings", ["kitchen_id"])
    op.create_table(
        "tasted",
        sa.Column("tasting_id", UUID(as_uuid=True), nullable=False),
        sa.Column("taster", UUID(as_uuid=True), nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("body", JSONB, nullable=False),
        sa.PrimaryKeyConstraint("tasting_id", "taster", name="pk_tasted"),
        sa.ForeignKeyConstraint(["tasting_id"], ["tastings.id"], name="fk_tasted_tasting_id"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_tasted_kitchen_id"),
    )
