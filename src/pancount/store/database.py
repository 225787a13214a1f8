"""One engine, one place that commits, and migrations at start."""

from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import files

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, text
from sqlalchemy.exc import DBAPIError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from sqlalchemy.orm import Session

from pancount.store.errors import Away

MIGRATION_LOCK = 72_001
"""Advisory lock key: processes that start together migrate one after the other."""


def connect(url: str) -> Engine:
    """An engine for a PostgreSQL address; plain `postgresql://` is taken to mean psycopg 3."""
    url = url.replace("postgresql://", "postgresql+psycopg://", 1).replace("postgres://", "postgresql+psycopg://", 1)
    # Short waits: while the database is away the screen says so rather than hang.
    return create_engine(url, pool_pre_ping=True, pool_timeout=5, connect_args={"connect_timeout": 3})


def migrate(engine: Engine) -> None:
    """Bring the tables up to date, from nothing or from any earlier state."""
    config = Config()
    config.set_main_option("script_location", str(files("pancount.store").joinpath("migrations")))
    with engine.begin() as connection:
        connection.execute(text("SELECT pg_advisory_xact_lock(:key)"), {"key": MIGRATION_LOCK})
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


@contextmanager
def transaction(engine: Engine) -> Iterator[Session]:
    """A session that commits at the end, or rolls back. Raises `Away` where the database cannot be reached."""
    try:
        with Session(engine, expire_on_commit=False) as session, session.begin():
            yield session
    except PoolTimeout as error:
        raise Away from error
    except DBAPIError as error:
        # 57P: shutting down or starting up; 08: connection lost; none: never connected.
        state = getattr(error.orig, "sqlstate", None)
        if error.connection_invalidated or state is None or state[:3] == "57P" or state[:2] in ("08", "53"):
            raise Away from error
        raise
