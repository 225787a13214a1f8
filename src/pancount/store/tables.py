"""The tables as they are now. Every row belongs to a kitchen. Migrations do not import this."""

from datetime import date as Date
from datetime import datetime
from typing import Any
from uuid import UUID

from sqlalchemy import BIGINT, Computed, ForeignKey, Index, MetaData, UniqueConstraint, false, func
from sqlalchemy.dialects.postgresql import ARRAY, BYTEA, JSONB, TEXT, TIMESTAMP, TSVECTOR
from sqlalchemy.dialects.postgresql import UUID as PgUUID
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

Moment = TIMESTAMP(timezone=True)


class Base(DeclarativeBase):
    """Names constraints, so that migrations can speak of them."""

    metadata = MetaData(
        naming_convention={
            "pk": "pk_%(table_name)s",
            "uq": "uq_%(table_name)s_%(column_0_N_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s",
            "ix": "ix_%(table_name)s_%(column_0_N_name)s",
        }
    )


class Kitchen(Base):
    """A kitchen and its settings."""

    __tablename__ = "kitchens"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(TEXT)
    settings: Mapped[dict[str, Any]] = mapped_column(JSONB)
    version: Mapped[int] = mapped_column(default=1)
    learned: Mapped[list[dict[str, Any]]] = mapped_column(JSONB, default=list, server_default="[]")
    """What was taken of the kitchen's own figures, with what stood in the settings before."""


class OwnIngredient(Base):
    """An ingredient that a kitchen added, or one that ships and that it changed."""

    __tablename__ = "own_ingredients"

    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), primary_key=True)
    name: Mapped[str] = mapped_column(TEXT, primary_key=True)
    role: Mapped[str] = mapped_column(TEXT)
    body: Mapped[dict[str, Any]] = mapped_column(JSONB, server_default="{}")
    """The core's Ingredient without name and role; empty for one that was only used in a formula."""
    version: Mapped[int] = mapped_column(server_default="1")


class FormulaRow(Base):
    """A formula: its latest revision's headline, and the desk, where it is being worked on.

    The desk always holds a formula and a count; it is a draft where its formula is not the latest revision's.
    """

    __tablename__ = "formulas"

    id: Mapped[int] = mapped_column(primary_key=True)
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), index=True)
    latest_number: Mapped[int] = mapped_column(default=0)
    name: Mapped[str] = mapped_column(TEXT)
    styles: Mapped[list[str]] = mapped_column(ARRAY(TEXT))
    liquid_percent: Mapped[float | None]
    true_water_percent: Mapped[float | None]
    unsaved: Mapped[bool]
    desk_formula: Mapped[dict[str, Any]] = mapped_column(JSONB)
    desk_schema: Mapped[int] = mapped_column(server_default="2")
    """The schema number that the formula on the desk was laid with."""
    desk_count: Mapped[dict[str, Any]] = mapped_column(JSONB)
    learned: Mapped[list[dict[str, Any]]] = mapped_column(JSONB, default=list, server_default="[]")
    """What was taken of this formula's own figures: the core's Learned."""
    desk_base: Mapped[int] = mapped_column(default=0)
    """The revision that the desk started from; 0 before the first."""
    version: Mapped[int] = mapped_column(default=1)
    """Goes up with every change of the desk, so that two windows cannot overwrite each other."""
    archived_at: Mapped[datetime | None] = mapped_column(Moment)
    example: Mapped[bool] = mapped_column(default=False, server_default=false())
    """One of the examples, to be removed with them while it is as it came."""
    changed_at: Mapped[datetime] = mapped_column(Moment, server_default=func.now())


class RevisionRow(Base):
    """A formula as it was saved, whole and never changed (a trigger sees to it)."""

    __tablename__ = "revisions"

    formula_id: Mapped[int] = mapped_column(ForeignKey("formulas.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"))
    schema_number: Mapped[int]
    body: Mapped[dict[str, Any]] = mapped_column(JSONB)
    note: Mapped[str] = mapped_column(TEXT)
    saved_at: Mapped[datetime] = mapped_column(Moment, server_default=func.now())


class TakingRow(Base):
    """A recipe being taken in: its text as it was, and what the baker settled of its lines."""

    __tablename__ = "takings"

    id: Mapped[int] = mapped_column(primary_key=True)
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), index=True)
    name: Mapped[str] = mapped_column(TEXT)
    text: Mapped[str] = mapped_column(TEXT)
    settled: Mapped[list[dict[str, Any]]] = mapped_column(JSONB)
    system: Mapped[str | None] = mapped_column(TEXT)
    """Whose cups and spoons it uses, where the baker said so for this recipe."""
    formula_id: Mapped[int | None] = mapped_column(ForeignKey("formulas.id", ondelete="SET NULL"))
    """The formula that was made of it; None before."""
    version: Mapped[int] = mapped_column()
    changed_at: Mapped[datetime] = mapped_column(Moment, server_default=func.now())


class CupWeighingRow(Base):
    """One weighing of the kitchen's own cup or spoon."""

    __tablename__ = "cup_weighings"

    id: Mapped[int] = mapped_column(primary_key=True)
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), index=True)
    body: Mapped[dict[str, Any]] = mapped_column(JSONB)
    weighed_at: Mapped[datetime] = mapped_column(Moment, server_default=func.now())


class PanRow(Base):
    """A pan on the kitchen's shelf."""

    __tablename__ = "pans"

    id: Mapped[int] = mapped_column(primary_key=True)
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), index=True)
    body: Mapped[dict[str, Any]] = mapped_column(JSONB)
    """The core's ShelfPan."""
    version: Mapped[int] = mapped_column(default=1)
    archived_at: Mapped[datetime | None] = mapped_column(Moment)


class DayRow(Base):
    """A baking day: what was told of it, and the timetable that is gone by."""

    __tablename__ = "days"

    id: Mapped[int] = mapped_column(primary_key=True)
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), index=True)
    uid: Mapped[UUID] = mapped_column(PgUUID(as_uuid=True))
    """What its touches are known by in calendars, wherever they are taken."""
    name: Mapped[str] = mapped_column(TEXT)
    date: Mapped[Date] = mapped_column()
    body: Mapped[dict[str, Any]] = mapped_column(JSONB)
    """The core's Day."""
    version: Mapped[int] = mapped_column(default=1)
    changed_at: Mapped[datetime] = mapped_column(Moment, server_default=func.now())


class BakeRow(Base):
    """A bake: what it was begun with, as it was. What happened of it stands in its events."""

    __tablename__ = "bakes"

    id: Mapped[UUID] = mapped_column(PgUUID(as_uuid=True), primary_key=True)
    """Made where it was begun, so that beginning it twice is beginning it once."""
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), index=True)
    formula_id: Mapped[int | None] = mapped_column(ForeignKey("formulas.id", ondelete="SET NULL"))
    revision: Mapped[int | None] = mapped_column()
    """The revision that it follows; None where the desk was not saved as one."""
    name: Mapped[str] = mapped_column(TEXT)
    pieces: Mapped[int] = mapped_column()
    mixes: Mapped[int] = mapped_column()
    begun: Mapped[dict[str, Any]] = mapped_column(JSONB, deferred=True)
    """The core's Begun."""
    begun_at: Mapped[datetime] = mapped_column(Moment)
    last_number: Mapped[int] = mapped_column(BIGINT, default=0)
    """Of its events; goes up with each."""
    status: Mapped[str] = mapped_column(TEXT)
    """A cache of what its events say, to list by."""
    ended_at: Mapped[datetime | None] = mapped_column(Moment)
    written: Mapped[bool] = mapped_column(default=False, server_default=false())
    """Written in by hand, not at the bench."""


class BenchEventRow(Base):
    """Something that happened at the bench: only ever added (a trigger sees to it, and another tells who listens)."""

    __tablename__ = "bench_events"

    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), primary_key=True)
    number: Mapped[int] = mapped_column(BIGINT, primary_key=True)
    """In the order in which they were kept, over all of a kitchen's bakes, without gaps: who was away asks for what came after."""
    bake_id: Mapped[UUID] = mapped_column(ForeignKey("bakes.id"))
    id: Mapped[UUID] = mapped_column(PgUUID(as_uuid=True))
    writer: Mapped[str] = mapped_column(TEXT)
    clock: Mapped[int] = mapped_column()
    body: Mapped[dict[str, Any]] = mapped_column(JSONB)
    """The core's Event."""
    received_at: Mapped[datetime] = mapped_column(Moment, server_default=func.now())

    __table_args__ = (
        UniqueConstraint("bake_id", "id", name="uq_bench_events_bake_id_id"),
        UniqueConstraint("bake_id", "writer", "clock", name="uq_bench_events_bake_id_writer_clock"),
        Index("ix_bench_events_bake_id_number", "bake_id", "number"),
    )


class BenchClock(Base):
    """The number of a kitchen's last event; who adds one holds it, so that numbers are seen in order."""

    __tablename__ = "bench_clocks"

    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), primary_key=True)
    last: Mapped[int] = mapped_column(BIGINT, default=0)


class BookRow(Base):
    """A bake in the book: its record, worked out of its events, and what the baker says it came to."""

    __tablename__ = "book"

    bake_id: Mapped[UUID] = mapped_column(ForeignKey("bakes.id"), primary_key=True)
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"))
    formula_id: Mapped[int | None] = mapped_column(ForeignKey("formulas.id", ondelete="SET NULL"))
    begun_at: Mapped[datetime] = mapped_column(Moment)
    number: Mapped[int] = mapped_column(BIGINT)
    """Up to which of its events the record is."""
    edition: Mapped[int] = mapped_column()
    """Of what makes records: those of an earlier one are worked out anew."""
    record: Mapped[dict[str, Any]] = mapped_column(JSONB, deferred=True)
    """The core's Record."""
    numbers: Mapped[dict[str, Any]] = mapped_column(JSONB)
    """The core's Numbers: what charts and lists look at."""
    observed: Mapped[list[dict[str, Any]]] = mapped_column(JSONB, deferred=True)
    """What it says of the kitchen's figures."""
    outcome: Mapped[dict[str, Any]] = mapped_column(JSONB)
    """The core's Outcome."""
    version: Mapped[int] = mapped_column()
    """Goes up with every change of the outcome."""
    left_out: Mapped[dict[str, Any]] = mapped_column(JSONB, server_default="{}")
    """Figures that it does not count for, with the reason."""
    ingredients: Mapped[list[str]] = mapped_column(ARRAY(TEXT))
    score: Mapped[float | None] = mapped_column()
    told: Mapped[str] = mapped_column(TEXT, deferred=True)
    """All its words, in all their spellings."""
    told_en: Mapped[Any] = mapped_column(TSVECTOR, Computed("to_tsvector('english', told)", persisted=True), deferred=True)
    told_de: Mapped[Any] = mapped_column(TSVECTOR, Computed("to_tsvector('german', told)", persisted=True), deferred=True)

    __table_args__ = (
        Index("ix_book_kitchen_id_begun_at", "kitchen_id", "begun_at"),
        Index("ix_book_formula_id_begun_at", "formula_id", "begun_at"),
        Index("ix_book_told_en", "told_en", postgresql_using="gin"),
        Index("ix_book_told_de", "told_de", postgresql_using="gin"),
        Index("ix_book_ingredients", "ingredients", postgresql_using="gin"),
    )


class PhotoRow(Base):
    """A photo of a bake, made smaller, upright, without where and with what it was taken. It lies with the records, so a backup has it."""

    __tablename__ = "photos"

    id: Mapped[UUID] = mapped_column(PgUUID(as_uuid=True), primary_key=True)
    """Made where it was taken, so that what is sent twice is one photo."""
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), index=True)
    bake_id: Mapped[UUID] = mapped_column(ForeignKey("bakes.id"), index=True)
    caption: Mapped[str] = mapped_column(TEXT)
    square: Mapped[bool] = mapped_column()
    """Shown cropped to its middle."""
    width: Mapped[int] = mapped_column()
    height: Mapped[int] = mapped_column()
    large: Mapped[bytes] = mapped_column(BYTEA, deferred=True)
    small: Mapped[bytes] = mapped_column(BYTEA, deferred=True)
    kept_at: Mapped[datetime] = mapped_column(Moment, server_default=func.now())


class TastingRow(Base):
    """Bakes tasted blind: which is which stands in `bakes`, letter by letter, and is told to nobody before it is opened."""

    __tablename__ = "tastings"

    id: Mapped[UUID] = mapped_column(PgUUID(as_uuid=True), primary_key=True)
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"), index=True)
    bakes: Mapped[list[UUID]] = mapped_column(ARRAY(PgUUID(as_uuid=True)))
    scales: Mapped[list[str]] = mapped_column(ARRAY(TEXT))
    begun_at: Mapped[datetime] = mapped_column(Moment, server_default=func.now())
    opened_at: Mapped[datetime | None] = mapped_column(Moment)
    knows: Mapped[list[UUID]] = mapped_column(ARRAY(PgUUID(as_uuid=True)), server_default="{}")
    """Those who lay them out: they know which is which, and do not taste."""


class TastedRow(Base):
    """What one taster says."""

    __tablename__ = "tasted"

    tasting_id: Mapped[UUID] = mapped_column(ForeignKey("tastings.id"), primary_key=True)
    taster: Mapped[UUID] = mapped_column(PgUUID(as_uuid=True), primary_key=True)
    """Made on the taster's device."""
    kitchen_id: Mapped[int] = mapped_column(ForeignKey("kitchens.id"))
    body: Mapped[dict[str, Any]] = mapped_column(JSONB)
    """The core's Tasted."""
