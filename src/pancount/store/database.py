"""One engine, one place that commits, and migrations at start."""

from collections.abc import Iterator
from contextlib import contextmanager
from importlib.resources import files

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import Engine, create_engine, text
from sqlalchemy.exc import DBAPIError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from sqlalchemy.orm import Session

from pancount.store.errors import Away, NoRoom

MIGRATION_LOCK = 72_001
"""Advisory lock key: processes that start together migrate one after the other."""

CONNECTIONS = 5
"""Of one application process; no more transactions than this are at work in it at once. More would only wait for each other:
most of their time is Python's own."""
STATEMENT_S, LOCK_S, IDLE_S = 3, 2, 5
"""How long a statement, a wait for a lock, and a transaction that does nothing may last. [s]"""
LIMITS = f"-c statement_timeout={STATEMENT_S}s -c lock_timeout={LOCK_S}s -c idle_in_transaction_session_timeout={IDLE_S}s"


def connect(url: str, *, unhurried: bool = False) -> Engine:
    """An engine for a PostgreSQL address; plain `postgresql://` is taken to mean psycopg 3.

    Nothing in it may take longer than `LIMITS` says, unless it is to be unhurried: for migrations.
    """
    url = url.replace("postgresql://", "postgresql+psycopg://", 1).replace("postgres://", "postgresql+psycopg://", 1)
    # Short waits: while the database is away the screen says so rather than hang.
    return create_engine(
        url,
        pool_pre_ping=True,
        pool_size=CONNECTIONS,
        max_overflow=2,  # of those given up while the database was frozen
        pool_timeout=2,
        connect_args={"connect_timeout": 2, **({} if unhurried else {"options": LIMITS})},
    )


def _migrations() -> Config:
    config = Config()
    config.set_main_option("script_location", str(files("pancount.store").joinpath("migrations")))
    return config


def known_revisions() -> frozenset[str]:
    """Every state of the tables that this release can bring up to date."""
    return frozenset(one.revision for one in ScriptDirectory.from_config(_migrations()).walk_revisions())


def migrate(engine: Engine) -> None:
    """Bring the tables up to date, from nothing or from any earlier state."""
    config = _migrations()
    with engine.begin() as connection:
        connection.execute(text("SELECT pg_advisory_xact_lock(:key)"), {"key": MIGRATION_LOCK})
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


AWAY = ("57P", "08", "53", "57014", "55P03", "25P03", "40001", "40P01")
"""Shutting down or starting up; connection lost; short of something; too slow; locked for too long; idle for too long; a deadlock."""


@contextmanager
def transaction(engine: Engine) -> Iterator[Session]:
    """A session that commits at the end, or rolls back. Raises `Away` where the database cannot be reached."""
    try:
        with Session(engine, expire_on_commit=False) as session, session.begin():
            yield session
    except PoolTimeout as error:
        raise Away from error
    except DBAPIError as error:
        state = getattr(error.orig, "sqlstate", None)
        if state == "53100":
            raise NoRoom from error
        if error.connection_invalidated or state is None or state.startswith(AWAY):
            raise Away from error
        raise
