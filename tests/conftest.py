"""A PostgreSQL of the tests' own, the application over it, and formulas to use."""

import shutil
import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from hypothesis import HealthCheck, settings
from sqlalchemy import Engine, text
from starlette.testclient import TestClient

from pancount.api.app import make_app
from pancount.api.planning import Planners
from pancount.core.formula.formula import Formula, Line, Stage
from pancount.core.pantry.role import Role
from pancount.store.cluster import Cluster
from pancount.store.database import connect, migrate, transaction
from pancount.store.kitchen import ONLY_KITCHEN, Settings, change_kitchen, open_kitchen

# On a busy machine an example may take its time, to be drawn and to be tried; what it must hold stays the same.
settings.register_profile(
    "unhurried",
    settings.get_profile(settings.get_current_profile_name()),
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow],
)
settings.load_profile("unhurried")


@pytest.fixture(scope="session")
def state_folder() -> Iterator[Path]:
    """A folder that PostgreSQL's account can reach, which pytest's own are not when run as root."""
    folder = Path(tempfile.mkdtemp(prefix="pancount-tests-", dir="/tmp"))
    folder.chmod(0o755)
    yield folder
    shutil.rmtree(folder, ignore_errors=True)


@pytest.fixture(scope="session")
def server_url(state_folder: Path) -> Iterator[str]:
    cluster = Cluster(state_folder / "shared")
    with cluster.held():
        yield cluster.start()
        cluster.stop()


@pytest.fixture(scope="session")
def new_database(server_url: str) -> Iterator[Callable[[str], str]]:
    """Makes an empty database and gives its address."""
    admin = connect(server_url)

    def make(name: str) -> str:
        with admin.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
            connection.execute(text(f"CREATE DATABASE {name}"))
        return server_url.rsplit("/", 1)[0] + "/" + name

    yield make
    admin.dispose()


@pytest.fixture(scope="session")
def engine(server_url: str) -> Iterator[Engine]:
    """The shared database, with tables and an empty kitchen."""
    engine = connect(server_url)
    migrate(engine)
    with transaction(engine) as session:
        open_kitchen(session, ONLY_KITCHEN, "Weir House kitchen", Settings())
        change_kitchen(session, ONLY_KITCHEN, "Weir House kitchen", Settings(), 1)  # nobody's first visit: no welcome
    yield engine
    engine.dispose()


@pytest.fixture(scope="session")
def client(engine: Engine) -> Iterator[TestClient]:
    app = make_app(engine, web=None)
    app.state.planners = Planners(counted=0.15)  # a good timetable is enough here
    with TestClient(app, base_url="http://localhost") as client:
        yield client


@pytest.fixture
def rolls() -> Formula:
    """A small formula in percent: 100 flour, 60 water, 2 salt, 1 yeast; 163 in all."""
    return make_formula(("Bread flour", Role.FLOUR, 100), ("Water", Role.LIQUID, 60), ("Fine salt", Role.SALT, 2), ("Instant yeast", Role.LEAVEN, 1))


def make_formula(*lines: tuple[str, Role, float], name: str = "Weir rolls") -> Formula:
    """A formula of one stage, in percent."""
    return Formula(
        name=name,
        stages=(Stage(name="Dough", lines=tuple(Line(name=n, role=role, percent=p) for n, role, p in lines)),),
    )


