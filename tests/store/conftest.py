"""What the store's tests share."""

from collections.abc import Iterator
from contextlib import ExitStack
from pathlib import Path

import pytest
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from started import Started


@pytest.fixture
def session(engine: Engine) -> Iterator[Session]:
    """A session whose work is rolled back."""
    with Session(engine, expire_on_commit=False) as session, session.begin() as started:
        yield session
        started.rollback()


@pytest.fixture
def state(state_folder: Path, request) -> Path:
    folder = state_folder / request.node.name
    folder.mkdir(mode=0o755)
    return folder


@pytest.fixture
def start(state: Path):
    """Starts the application over `state`; whatever the test came to, nothing of it is left."""
    with ExitStack() as closing:

        def start(*arguments: str, deaf: bool = False) -> Started:
            started = Started(state, *arguments, deaf=deaf)
            closing.callback(started.close)
            return started

        yield start
