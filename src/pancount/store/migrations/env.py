"""Alembic's entry: migrates over the connection that `store.database.migrate` hands in."""

from alembic import context

from pancount.store.tables import Base

context.configure(connection=context.config.attributes["connection"], target_metadata=Base.metadata)
with context.begin_transaction():
    context.run_migrations()
