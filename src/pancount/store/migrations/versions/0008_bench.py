"""The bench: bakes as they were begun, and what happened of them, only ever added to."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB, TIMESTAMP, UUID

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.create_table(
        "bakes",
        sa.Column("id", UUID(as_uuid=True), nullable=False),
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("formula_id", sa.Integer, nullable=True),
        sa.Column("revision", sa.Integer, nullable=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("pieces", sa.Integer, nullable=False),
        sa.Column("mixes", sa.Integer, nullable=False),
        sa.Column("begun", JSONB, nullable=False),
        sa.Column("begun_at", TIMESTAMP(timezone=True), nullable=False),
        sa.Column("last_number", sa.BigInteger, nullable=False),
        sa.Column("status", sa.Text, nullable=False),
        sa.Column("ended_at", TIMESTAMP(timezone=True), nullable=True),
        sa.PrimaryKeyConstraint("id", name="pk_bakes"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_bakes_kitchen_id"),
        sa.ForeignKeyConstraint(["formula_id"], ["formulas.id"], name="fk_bakes_formula_id", ondelete="SET NULL"),
    )
    op.create_index("ix_bakes_kitchen_id", "bakes", ["kitchen_id"])
    op.create_table(
        "bench_events",
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("number", sa.BigInteger, nullable=False),
        sa.Column("bake_id", UUID(as_uuid=True), nullable=False),
        sa.Column("id", UUID(as_uuid=True), nullable=False),
        sa.Column("writer", sa.Text, nullable=False),
        sa.Column("clock", sa.Integer, nullable=False),
        sa.Column("body", JSONB, nullable=False),
        sa.Column("received_at", TIMESTAMP(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("kitchen_id", "number", name="pk_bench_events"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_bench_events_kitchen_id"),
        sa.ForeignKeyConstraint(["bake_id"], ["bakes.id"], name="fk_bench_events_bake_id"),
        sa.UniqueConstraint("bake_id", "id", name="uq_bench_events_bake_id_id"),
        sa.UniqueConstraint("bake_id", "writer", "clock", name="uq_bench_events_bake_id_writer_clock"),
    )
    op.create_index("ix_bench_events_bake_id_number", "bench_events", ["bake_id", "number"])
    op.create_table(
        "bench_clocks",
        sa.Column("kitchen_id", sa.Integer, nullable=False),
        sa.Column("last", sa.BigInteger, nullable=False),
        sa.PrimaryKeyConstraint("kitchen_id", name="pk_bench_clocks"),
        sa.ForeignKeyConstraint(["kitchen_id"], ["kitchens.id"], name="fk_bench_clocks_kitchen_id"),
    )
    op.execute(
        """
        CREATE FUNCTION bench_events_stay() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            RAISE EXCEPTION 'what happened at the bench is never changed';
        END $$;
        CREATE TRIGGER bench_events_stay BEFORE UPDATE OR DELETE ON bench_events
            FOR EACH ROW EXECUTE FUNCTION bench_events_stay();
        CREATE FUNCTION bench_events_tell() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
            PERFORM pg_notify('bench', NEW.kitchen_id || ' ' || NEW.number);
            RETURN NULL;
        END $$;
        CREATE TRIGGER bench_events_tell AFTER INSERT ON bench_events
            FOR EACH ROW EXECUTE FUNCTION bench_events_tell();
        """
    )
