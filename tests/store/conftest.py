"""What the store's tests share."""

from collections.abc import Iterator

import pytest
from sqlalchemy import Engine
from sqlalchemy.orm import Session


@pytest.fixture
def session(engine: Engine) -> Iterator[Session]:
    """A session whose work is rolled back."""
    with Session(engine, expire_on_commit=False) as session, session.begin() as started:
        yield session
        started.rollback()
