"""The database going away and coming back under a running application."""

from pathlib import Path

from starlette.testclient import TestClient

from pancount.api.app import make_app
from pancount.store.cluster import Cluster
from pancount.store.database import connect, migrate, transaction
from pancount.store.kitchens import ONLY_KITCHEN, Settings, open_kitchen


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
