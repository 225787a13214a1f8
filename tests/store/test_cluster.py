"""A cluster of our own, and the application started on it as a baker would."""

import ctypes
import os
import re
import shutil
import signal
import urllib.request
from pathlib import Path

import psycopg
import pytest

from pancount.store.cluster import Cluster, ClusterTrouble
from started import free_port, get, post, running


def test_from_nothing_to_stopped_and_again(state, start):
    """It starts, fills the demo kitchen once, keeps what was changed, and stops all it started on Ctrl-C."""
    started = start("--port", free_port())
    address = started.address()
    assert get(f"{address}/api/formulas").count('"id"') == 8
    post(f"{address}/api/formulas", '{"formula": {"name": "Kept over the night"}}')
    with urllib.request.urlopen(f"{address}/formulas/7") as page:
        assert "Pan Count" in page.read().decode()
    started.stop()
    assert not running(state)
    again = start("--port", free_port())
    names = get(f"{again.address()}/api/formulas")
    assert "Kept over the night" in names
    assert names.count("Squash rolls") == 1
    again.stop(signal.SIGTERM)
    assert not running(state)


def test_nothing_acknowledged_is_lost_on_kill_9(state, start):
    """The application and then the database killed outright: what was answered with 201 is there."""
    started = start("--port", free_port())
    address = started.address()
    post(f"{address}/api/formulas", '{"formula": {"name": "Before the first kill"}}')
    started.stop(signal.SIGKILL)
    assert running(state)  # left behind; the next start takes it over
    again = start("--port", free_port())
    post(f"{again.address()}/api/formulas", '{"formula": {"name": "Before the second kill"}}')
    postmaster = int((state / "demo/data/postmaster.pid").read_text().splitlines()[0])
    os.kill(postmaster, signal.SIGKILL)
    again.stop(signal.SIGKILL)
    last = start("--port", free_port())
    names = get(f"{last.address()}/api/formulas")
    assert "Before the first kill" in names
    assert "Before the second kill" in names
    last.stop()


@pytest.fixture
def reaps_nothing():
    """Makes this process the parent of what is left behind, which it does not reap, as some machines' first process does not."""
    becomes_parent = 36  # PR_SET_CHILD_SUBREAPER of <linux/prctl.h>
    ctypes.CDLL(None).prctl(becomes_parent, 1)
    yield
    ctypes.CDLL(None).prctl(becomes_parent, 0)


def test_a_killed_server_that_nobody_reaps_is_not_taken_for_running(state, reaps_nothing):
    """Its lock names a process that is there, and dead: the next start and stop see through that."""
    cluster = Cluster(state / "demo")
    with cluster.held():
        with psycopg.connect(cluster.start()) as connection:
            connection.execute("CREATE TABLE kept AS SELECT 1")
        killed = int((cluster.data / "postmaster.pid").read_text().splitlines()[0])
        os.kill(killed, signal.SIGKILL)
        with psycopg.connect(cluster.start()) as connection:
            assert connection.execute("SELECT count(*) FROM kept").fetchone() == (1,)
        assert Path(f"/proc/{killed}/stat").read_text().split()[2] == "Z"
        cluster.stop()
        assert not running(state)


def test_fresh_is_a_cluster_of_its_own(state, start):
    """--fresh starts over each time, and leaves the other demo alone."""
    started = start("--port", free_port(), "--fresh")
    post(f"{started.address()}/api/formulas", '{"formula": {"name": "Gone tomorrow"}}')
    started.stop()
    again = start("--port", free_port(), "--fresh")
    assert "Gone tomorrow" not in get(f"{again.address()}/api/formulas")
    again.stop()
    assert [p.name for p in state.iterdir()] == ["fresh"]


def test_trouble_is_one_sentence_with_its_cure(state, start):
    """A taken port, a second start, an unfinished one, and records that are not whole."""
    port = free_port()
    started = start("--port", port)
    started.address()
    assert "Cure: stop what uses it, or choose another with --port" in start("--port", port).refuses()
    assert "already running" in start("--port", free_port()).refuses()
    started.stop()
    (state / "demo/data/global/pg_control").unlink()
    assert "not whole: global/pg_control is missing" in start("--port", free_port()).refuses()
    shutil.rmtree(state / "demo/data")
    (state / "demo/data.new/base").mkdir(parents=True)
    again = start("--port", free_port())
    again.address()
    again.stop()
    assert not (state / "demo/data.new").exists()


def test_no_room_and_no_right(state, monkeypatch):
    """A full disk and a folder that cannot be written say so before anything is made."""
    cluster = Cluster(state / "demo")
    monkeypatch.setattr(shutil, "disk_usage", lambda _: shutil._ntuple_diskusage(1, 1, 5_000_000))
    with cluster.held(), pytest.raises(ClusterTrouble, match="There are 5 MB free"):
        cluster.start()
    blocked = state / "a file, not a folder"
    blocked.write_text("")
    with pytest.raises(ClusterTrouble, match="cannot be written"), Cluster(blocked / "demo").held():
        pass


def test_only_loopback_and_only_with_the_password(server_url):
    """The server listens on 127.0.0.1 alone and lets nobody in without the password."""
    with psycopg.connect(server_url) as connection:
        assert connection.execute("SHOW listen_addresses").fetchone() == ("127.0.0.1",)
        assert connection.execute("SHOW fsync").fetchone() == ("on",)
    with pytest.raises(psycopg.OperationalError, match="password authentication failed"):
        psycopg.connect(re.sub(r":[^:@]+@", ":wrong@", server_url))
