"""The application as it runs: what is killed comes back, what is frozen or full is said, and nothing acknowledged is lost."""

import os
import re
import secrets
import signal
import socket
import subprocess
import threading
import time
from functools import partial
from itertools import count
from pathlib import Path

import psycopg
import pytest
from sqlalchemy import text

from pancount.cli import prepare
from pancount.store.cluster import Cluster, ClusterTrouble
from pancount.store.database import LIMITS, connect
from started import Started, answer_of, children, command, free_port, get, running, until

NAMED = "Wholemeal 面粉 طحين from the mill by the lock " * 6


def postmaster(state: Path) -> int:
    return int(next(state.glob("*/data/postmaster.pid")).read_text().splitlines()[0])


def keep(address: str, name: str, **more: object) -> int:
    status, _ = answer_of(f"{address}/api/formulas", {"formula": {"name": name, **more}})
    return status


def test_the_database_is_killed_and_comes_back_by_itself(state, start):
    """503 in between, then it goes on; each time, and everything that was acknowledged is there."""
    started = start("--port", free_port())
    address = started.address()
    kept, tries = [], count()

    def back(killed: int) -> bool:
        """A connection that outlives the killed one for a moment still keeps things: only the next one's word counts."""
        begun_anew = any(int(p.read_text().split()[0]) != killed for p in state.glob("*/data/postmaster.pid"))
        name = f"Try {next(tries)} of all"
        status = keep(address, name)
        assert status in (201, 503)
        if status == 201:
            kept.append(name)
        return begun_anew and status == 201

    for _ in range(3):
        killed = postmaster(state)
        os.kill(killed, signal.SIGKILL)
        until(partial(back, killed))
    names = get(f"{address}/api/formulas")
    assert all(name in names for name in kept)
    assert "was started again" in started.stop()
    assert not running(state)


def test_begun_in_the_background_of_a_shell(state, start):
    """A shell makes what it begins so deaf to an interrupt; it stops by one all the same, and takes the database with it."""
    started = start("--port", free_port(), deaf=True)
    assert '"id"' in get(f"{started.address()}/api/formulas")
    started.stop(signal.SIGINT)
    assert not running(state)


def test_a_process_that_answers_is_killed(start):
    """The other goes on, and a new one takes its place."""
    started = start("--port", free_port())
    address = started.address()
    workers = [pid for pid in children(started.process.pid) if "pancount.cli" in command(pid)]
    assert len(workers) == 2
    os.kill(workers[0], signal.SIGKILL)
    until(lambda: keep(address, "With one process") == 201)
    until(lambda: len([p for p in children(started.process.pid) if "pancount.cli" in command(p)]) == 2)
    assert "ended and is begun again" in started.stop()


def test_nothing_holds_the_port_once_the_application_was_killed(start):
    """Its processes end with it, even by kill -9, and the next start has the port."""
    port = free_port()
    started = start("--port", port)
    address = started.address()
    workers = children(started.process.pid)
    keep(address, "Before it was killed")
    started.stop(signal.SIGKILL)
    until(lambda: not any("pancount.cli" in command(pid) for pid in workers))
    again = start("--port", port)
    assert "Before it was killed" in get(f"{again.address()}/api/formulas")
    again.stop()


def test_a_frozen_database(state, start):
    """Within five seconds the screen is told, again and again; reckoning goes on; thawed, all is there."""
    started = start("--port", free_port())
    address = started.address()
    keep(address, "Before the frost")
    frozen = [postmaster(state), *children(postmaster(state))]
    for pid in frozen:
        os.kill(pid, signal.SIGSTOP)
    try:
        for _ in range(12):
            begun = time.monotonic()
            status, problem = answer_of(f"{address}/api/formulas")
            assert (status, problem["type"]) == (503, "urn:pancount:problem:away")
            assert time.monotonic() - begun < 5
        counted = {"formula": {"stages": [{"lines": [{"name": "Flour", "role": "flour", "weight_g": 500}]}]}}
        assert answer_of(f"{address}/api/reckon/count", counted)[0] == 200
    finally:
        for pid in frozen:
            os.kill(pid, signal.SIGCONT)
    until(lambda: keep(address, "After the thaw") == 201)
    names = get(f"{address}/api/formulas")
    assert "Before the frost" in names
    started.stop()


@pytest.fixture
def small_disk(state):
    """A file system of 320 MB, with the state on it."""
    if subprocess.run(["mount", "-t", "tmpfs", "-o", "size=320m", "tmpfs", str(state)], check=False, capture_output=True).returncode:
        pytest.skip("only root may make a small file system")
    yield state
    subprocess.run(["umount", "--lazy", str(state)], check=True)


def test_the_disk_is_full(small_disk, start):
    """Said in words, on the screen and where it was started; nothing acknowledged is lost; with room it goes on by itself."""
    started = start("--port", free_port())
    address = started.address()
    filler = small_disk / "filler"

    def fill() -> None:
        with filler.open("wb") as file:
            try:
                while True:
                    file.write(b"x" * 1_000_000)
                    file.flush()
            except OSError:
                pass  # that was the last of the room

    fill()
    kept, refused = [], None
    for n in range(900):
        steps = [{"text": secrets.token_hex(4_900)} for _ in range(6)]  # nothing that could be pressed together
        status, problem = answer_of(f"{address}/api/formulas", {"formula": {"name": f"On a small disk {n}", "ways": [{"steps": steps}]}})
        if status != 201:
            refused = problem
            break
        kept.append(f"On a small disk {n}")
    assert (refused["type"], "is full: make room on it" in refused["detail"]) == ("urn:pancount:problem:no_room", True)
    filler.unlink()
    until(lambda: keep(address, "With room again") == 201, 90)
    names = get(f"{address}/api/formulas")
    assert all(f'"{name}"' in names for name in [*kept, "With room again"])
    started.stop()
    fill()
    assert "is full. Cure: make room" in start("--port", free_port()).refuses()
    filler.unlink()
    again = start("--port", free_port())
    assert '"With room again"' in get(f"{again.address()}/api/formulas")
    again.stop()


def test_many_at_once_wait_their_turn(start):
    """120 that need the records at the same moment: none waits for ever, each is answered or told when to ask again."""
    started = start("--port", free_port())
    address = started.address()
    answers: list[int] = []

    def ask() -> None:
        answers.append(answer_of(f"{address}/api/formulas")[0])

    threads = [threading.Thread(target=ask) for _ in range(120)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(answers) == 120
    assert set(answers) <= {200, 503}
    assert answers.count(200) > 30
    assert answer_of(f"{address}/api/formulas")[0] == 200
    started.stop()


def long_workers(started: Started) -> list[int]:
    return [pid for pid in children(started.process.pid) if "to_process" in command(pid)]


def processor(pid: int) -> int:
    """Time that a process has worked. [hundredths of a second]"""
    after = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
    return int(after[11]) + int(after[12])


def at_a_long_paper(started: Started, address: str) -> tuple[socket.socket, int]:
    """Asks for a sheet that takes a while; gives the connection, and the process that is at work on it."""
    lines = [{"name": "Flour", "role": "flour", "weight_g": 500}, *({"name": f"{NAMED[:280]} {n}", "role": "salt", "weight_g": 1} for n in range(99))]
    _, state = answer_of(f"{address}/api/formulas", {"formula": {"name": "Long", "stages": [{"lines": lines}]}})
    asking = socket.create_connection(("127.0.0.1", int(address.rpartition(":")[2])))
    where, host = f"/api/formulas/{state['head']['id']}", f"Host: {address[7:]}\r\n\r\n"
    asking.sendall(f"GET {where}/sheet HTTP/1.1\r\n{host}".encode())  # a process for papers is begun
    assert asking.recv(12) == b"HTTP/1.1 200"
    [worker] = until(lambda: long_workers(started))
    known = [0, 0]

    def rests() -> bool:
        known.append(processor(worker))
        time.sleep(0.3)
        return known[-1] > 50 and known[-1] == known[-2] == known[-3]

    until(rests)
    asking.sendall(f"GET {where}/sheet.pdf?paper=roll HTTP/1.1\r\n{host}".encode())
    until(lambda: processor(worker) > known[-1] + 3)
    return asking, worker


def test_long_work_ends_when_its_client_leaves(start):
    """The process that was at it is gone, and the next paper is had."""
    started = start("--port", free_port())
    address = started.address()
    _, short = answer_of(f"{address}/api/formulas", {"formula": {"name": "Short", "stages": [{"lines": [{"name": "Flour", "role": "flour", "weight_g": 500}]}]}})
    asking, worker = at_a_long_paper(started, address)
    asking.close()
    until(lambda: worker not in long_workers(started), 10)

    def had() -> bool:
        """On a machine that is busy with more it may be refused while a new process begins, as promised: try again in a moment."""
        with socket.create_connection(("127.0.0.1", int(address.rpartition(":")[2]))) as again:
            again.sendall(f"GET /api/formulas/{short['head']['id']}/sheet.pdf HTTP/1.1\r\nHost: {address[7:]}\r\n\r\n".encode())
            answer = again.recv(100)
            assert answer.startswith((b"HTTP/1.1 200", b"HTTP/1.1 503")), answer
            return answer.startswith(b"HTTP/1.1 200")

    until(had)
    started.stop()


def test_long_work_keeps_nobody_from_stopping(state, start):
    """Ctrl-C in the middle of it: all that was started ends."""
    started = start("--port", free_port())
    asking, worker = at_a_long_paper(started, started.address())
    with asking:
        started.stop()
    until(lambda: not command(worker), 10)
    assert not running(state)


def raw(port: str, data: bytes) -> bytes:
    """What comes back for these very bytes, until the connection is closed."""
    with socket.create_connection(("127.0.0.1", int(port))) as connection:
        connection.settimeout(30)
        connection.sendall(data)
        received = b""
        try:
            while part := connection.recv(65536):
                received += part
        except ConnectionResetError:
            pass
        return received


def test_what_is_slow_or_has_no_end(start):
    """A head that never ends, a body that never comes, two lengths, and no name: each connection is ended."""
    port = free_port()
    started = start("--port", port)
    started.address()
    host = f"Host: 127.0.0.1:{port}\r\n".encode()
    post = b"POST /api/reckon/count HTTP/1.1\r\n" + host + b"Content-Type: application/json\r\n"
    answers: dict[str, bytes] = {}
    tries = {
        "half a head": b"GET /api/kitchen HTTP/1.1\r\nX",
        "nothing": b"",
        "half a body": post + b'Content-Length: 50\r\n\r\n{"a"',
        "two lengths": post + b"Content-Length: 5\r\nTransfer-Encoding: chunked\r\n\r\n0\r\n\r\n",
        "no name": b"GET /api/kitchen HTTP/1.1\r\nConnection: close\r\n\r\n",
    }
    threads = [threading.Thread(target=lambda what=what, data=data: answers.update({what: raw(port, data)})) for what, data in tries.items()]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert (answers["half a head"], answers["nothing"]) == (b"", b"")
    assert answers["half a body"].startswith(b"HTTP/1.1 408")
    assert answers["two lengths"].startswith(b"HTTP/1.1 400")
    assert answers["no name"].startswith(b"HTTP/1.1 421")
    with pytest.raises((ConnectionResetError, BrokenPipeError)), socket.create_connection(("127.0.0.1", int(port))) as endless:
        for _ in range(1000):
            endless.sendall(b"GET / HTTP/1.1\r\n" + host + b"X: " if _ == 0 else b"a" * 10_000)
    started.stop()


def test_the_application_is_no_superuser(state):
    """It reads and writes rows. It makes no tables, and nothing of it may take long."""
    cluster = Cluster(state / "role")
    with cluster.held():
        url = prepare(cluster.start(), demo=False)
        with psycopg.connect(url, options=LIMITS, autocommit=True) as connection:
            assert connection.execute("SELECT rolsuper, rolcreatedb, rolcreaterole FROM pg_roles WHERE rolname = current_user").fetchone() == (False,) * 3
            assert connection.execute("SELECT count(*) FROM formulas").fetchone() == (0,)
            for forbidden in ("CREATE TABLE mine (x int)", "DROP TABLE formulas", "CREATE ROLE other", "COPY formulas TO PROGRAM 'cat'"):
                with pytest.raises(psycopg.errors.InsufficientPrivilege):
                    connection.execute(forbidden)
            with pytest.raises(psycopg.errors.QueryCanceled):
                connection.execute("SELECT pg_sleep(30)")
        again = prepare(cluster.start(), demo=False)
        assert again != url  # a new password with each start
        engine = connect(again)
        with engine.connect() as connection:
            shown = [connection.execute(text(f"SHOW {name}")).scalar() for name in ("statement_timeout", "lock_timeout", "idle_in_transaction_session_timeout")]
        engine.dispose()
        assert shown == ["3s", "2s", "5s"]
        cluster.stop()


@pytest.mark.parametrize("port", ["0", "65536", "-1", "99999999999", "eight"])
def test_a_port_that_is_none(start, port):
    """Said before anything is started."""
    started = start("--port", port)
    _, said = started.process.communicate(timeout=60)
    assert started.process.returncode == 2
    assert re.search(r"is no port: give a number from 1 to 65535|expected one argument", said)


def test_a_folder_that_the_database_cannot_reach(state):
    """As root, under a folder closed to others: said, with what to do."""
    if os.geteuid():
        pytest.skip("only root runs PostgreSQL under another account")
    closed = state / "closed"
    closed.mkdir(mode=0o700)
    with pytest.raises(ClusterTrouble, match=r"cannot reach .* a folder above it is closed"), Cluster(closed / "kitchen").held():
        pass


def test_a_state_folder_named_from_here(state, start, monkeypatch):
    """PANCOUNT_STATE need not begin with a slash: it is named from where ./pancount was called."""
    here = state.parent
    monkeypatch.setenv("PANCOUNT_HERE", str(here))
    started = Started(state.relative_to(here), "--port", free_port())
    try:
        assert '"id"' in get(f"{started.address()}/api/formulas")
        started.stop()
        assert (state / "demo" / "data").is_dir()
    finally:
        started.close()
