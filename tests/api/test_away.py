"""The database going away and coming back under a running application."""

import asyncio
import threading
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from sqlalchemy.orm import Session
from starlette.testclient import TestClient

from pancount.api.app import make_app
from pancount.api.busy import Busy
from pancount.api.records import Places
from pancount.store import taking as takings
from pancount.store.cluster import Cluster
from pancount.store.database import CONNECTIONS, connect, migrate, transaction
from pancount.store.errors import Away
from pancount.store.kitchen import ONLY_KITCHEN, Settings, open_kitchen


def test_away_and_back(state_folder: Path, rolls):
    """503 in words while it is away; reckoning goes on; all is there when it is back."""
    cluster = Cluster(state_folder / "away")
    with cluster.held():
        engine = connect(cluster.start())
        migrate(engine)
        with transaction(engine) as session:
            open_kitchen(session, ONLY_KITCHEN, "Weir House kitchen", Settings())
        client = TestClient(make_app(engine, web=None), base_url="http://localhost")
        assert client.post("/api/formulas", json={"formula": {"name": "Kept"}}).status_code == 201
        port = engine.url.port
        cluster.stop()
        answer = client.get("/api/formulas")
        assert (answer.status_code, answer.json()["type"]) == (503, "urn:pancount:problem:away")
        counted = client.post("/api/reckon/count", json={"formula": rolls.model_dump(mode="json")})
        assert counted.status_code == 200
        cluster.start(port=port)
        assert client.get("/api/formulas").json()[0]["name"] == "Kept"
        engine.dispose()
        cluster.stop()


def in_a_loop_of_its_own(act):
    """What it gives, run in a thread: this one may have a loop already, of the browser that other tests drive."""
    with ThreadPoolExecutor(1) as pool:
        return pool.submit(lambda: asyncio.run(act())).result()


def test_what_was_given_up_is_not_kept_after_all(engine):
    """Its caller was told that the records are away and sends it again: it must not be there twice."""
    places = Places(engine)
    begun, go_on = threading.Event(), threading.Event()

    def slowly(session: Session) -> None:
        takings.start_taking(session, ONLY_KITCHEN, takings.Taking(text="Given up on"))
        begun.set()
        go_on.wait(30)

    async def give_up() -> None:
        with pytest.raises(Away):
            await places.run(slowly)
        go_on.set()
        async with asyncio.timeout(30):
            for _ in range(CONNECTIONS):  # all places are free once its thread is done
                await places._free.acquire()

    in_a_loop_of_its_own(give_up)
    assert begun.is_set()
    with transaction(engine) as session:
        assert "Given up on" not in [head.name for head in takings.list_takings(session, ONLY_KITCHEN)]


def test_more_at_once_than_there_are_places(engine):
    """Those behind wait a moment, then are told to come again; those at work go on."""
    places = Places(engine)
    go_on = threading.Event()

    async def all_at_once() -> list[object]:
        tasks = [asyncio.create_task(places.run(lambda _: go_on.wait(30))) for _ in range(CONNECTIONS + 3)]
        done, _ = await asyncio.wait(tasks, return_when=asyncio.FIRST_COMPLETED)
        assert all(isinstance(task.exception(), Busy) for task in done)
        await asyncio.wait(tasks[CONNECTIONS:])
        go_on.set()
        return await asyncio.gather(*tasks, return_exceptions=True)

    found = in_a_loop_of_its_own(all_at_once)
    assert found[:CONNECTIONS] == [True] * CONNECTIONS
    assert all(isinstance(one, Busy) for one in found[CONNECTIONS:])
