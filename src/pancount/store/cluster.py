"""A PostgreSQL of our own: one private folder, loopback only, stopped with the application.

As root it runs under Debian's `postgres` account, since PostgreSQL refuses root. It survives `kill -9` of the
application (the next start takes it over) and of itself (the next start recovers it).
"""

import errno
import fcntl
import os
import pwd
import secrets
import shutil
import socket
import subprocess
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import psycopg
from psycopg.conninfo import conninfo_to_dict

from pancount.store.disk import ROOM_NEEDED, is_full, room

ACCOUNT = "postgres"
USER = DATABASE = "pancount"
WHOLE = ("PG_VERSION", "global/pg_control", "postgresql.conf", "base", "pg_wal")
"""What a finished cluster always has."""
PATIENCE = 30.0
"""How long a server found here may take to answer, or its last processes to end. [s]"""


class ClusterTrouble(Exception):
    """The cluster cannot be used; the sentence says why, and the cure."""


def programs(version: str | None = None) -> Path:
    """PostgreSQL's programs, of a version or the newest. Debian keeps them by version."""
    found = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda p: float(p.parts[-3]))
    for initdb in reversed(found):
        if version in (None, initdb.parts[-3]):
            return initdb.parent
    if version:
        raise ClusterTrouble(
            f"These records were made by PostgreSQL {version}, which is not on this machine. "
            f"Cure: apt-get install postgresql-{version}"
        )
    raise ClusterTrouble("PostgreSQL is not on this machine. Cure: apt-get install postgresql")


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def _patiently() -> Iterator[None]:
    """Tries, a tenth of a second apart, until patience ends."""
    deadline = time.monotonic() + PATIENCE
    while time.monotonic() < deadline:
        yield
        time.sleep(0.1)


def _in_use(memory: list[str]) -> bool:
    """Whether any process has a piece of shared memory, by its key and number; so too where Linux has no table of it."""
    try:
        rows = [row.split() for row in Path("/proc/sysvipc/shm").read_text().splitlines()]
    except OSError:
        return True
    return any(row[:2] == memory and row[6] != "0" for row in rows)


def _no_room(folder: Path) -> str:
    return f"The disk that holds {folder} is full. Cure: make room on it; nothing that was kept is lost."


class Cluster:
    """A PostgreSQL cluster in `folder`."""

    def __init__(self, folder: Path) -> None:
        self.url = ""
        """Where it is, once it was started."""
        self._port: int | None = None
        self.folder = folder
        self.data = folder / "data"
        self._as = {"user": ACCOUNT, "group": ACCOUNT, "extra_groups": []} if os.geteuid() == 0 else {}

    @contextmanager
    def held(self) -> Iterator[None]:
        """Hold the folder for this process. Raises `ClusterTrouble` where another process has it."""
        try:
            self.folder.mkdir(parents=True, exist_ok=True, mode=0o755)
            if self._as:
                account = pwd.getpwnam(ACCOUNT)
                os.chown(self.folder, account.pw_uid, account.pw_gid)
                reached = subprocess.run(["test", "-w", str(self.folder)], check=False, cwd="/", **self._as)  # type: ignore[call-overload]
                if reached.returncode:
                    raise ClusterTrouble(
                        f"The account '{ACCOUNT}', which PostgreSQL runs under, cannot reach {self.folder}: a folder above it is "
                        "closed to others. Cure: set PANCOUNT_STATE to a folder that it can reach."
                    )
            lock = (self.folder / "lock").open("w")
        except KeyError as error:
            raise ClusterTrouble(
                f"There is no account '{ACCOUNT}' to run PostgreSQL under. Cure: apt-get install postgresql"
            ) from error
        except OSError as error:
            if error.errno == errno.ENOSPC:
                raise ClusterTrouble(_no_room(self.folder)) from error
            raise ClusterTrouble(
                f"The folder {self.folder} cannot be written ({error.strerror}). "
                "Cure: give your account the right to write there, or set PANCOUNT_STATE to a folder of your own."
            ) from error
        with lock:
            try:
                fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except BlockingIOError as error:
                raise ClusterTrouble(
                    f"Pan Count is already running on {self.folder}. Cure: use that one, or stop it with Ctrl-C first."
                ) from error
            yield

    def _run(self, program: str, *arguments: str) -> None:
        version_file = self.data / "PG_VERSION"
        version = version_file.read_text().strip() if version_file.exists() else None
        # stdout to the log: a started server keeps its handles, and a pipe would never end.
        with (self.folder / "start.log").open("w") as log:
            done = subprocess.run(
                [str(programs(version) / program), *arguments],
                stdin=subprocess.DEVNULL,
                stdout=log,
                stderr=subprocess.STDOUT,
                cwd=self.folder,
                env={"PATH": "/usr/bin:/bin", "LC_ALL": "C.UTF-8"},
                text=True,
                check=False,
                **self._as,  # type: ignore[call-overload]  # user and groups, or nothing
            )
        if done.returncode and is_full(self.folder):
            raise ClusterTrouble(_no_room(self.folder))
        if done.returncode:
            said = (self.folder / "start.log").read_text(errors="replace").strip().splitlines()
            raise ClusterTrouble(
                f"PostgreSQL's {program} did not succeed: {said[-1] if said else 'it said nothing'}. "
                f"Its words are in {self.folder}/start.log and server.log. "
                "Cure: put right what it names, or start over with ./pancount demo --fresh."
            )

    def _make(self) -> None:
        """A new cluster, built beside and moved into place, so that one left half made is never taken for whole."""
        new = self.folder / "data.new"
        if new.exists():
            print("An earlier start did not finish; it is begun again.", flush=True)
            shutil.rmtree(new)
        free = room(self.folder)
        if free < ROOM_NEEDED:
            raise ClusterTrouble(
                f"There are {free // 1_000_000} MB free at {self.folder}, and {ROOM_NEEDED // 1_000_000} MB are needed. "
                "Cure: make room, or set PANCOUNT_STATE to a folder on another disk."
            )
        password = self.folder / "password"
        password.touch(mode=0o600)
        password.write_text(secrets.token_urlsafe(24))
        if self._as:
            shutil.chown(password, ACCOUNT, ACCOUNT)
        self._run(
            "initdb",
            f"--pgdata={new}",
            f"--username={USER}",
            f"--pwfile={password}",
            "--auth=scram-sha-256",
            "--encoding=UTF8",
            "--locale=C.UTF-8",
            "--no-instructions",
        )
        new.rename(self.data)

    def _check_whole(self) -> None:
        missing = next((name for name in WHOLE if not (self.data / name).exists()), None)
        if missing or not (self.folder / "password").exists():
            raise ClusterTrouble(
                f"The records at {self.data} are not whole: {missing or 'the password file'} is missing. "
                f"Cure: bring the folder back from a copy, or move it away and start again."
            )

    def _lock(self) -> list[str]:
        """The lines of the cluster's own lock: process, folder, start, port, socket, address, shared memory, status."""
        try:
            return (self.data / "postmaster.pid").read_text().splitlines()
        except OSError:
            return []

    def is_up(self) -> bool:
        """Whether the lock names a PostgreSQL that lives.

        One that was killed may stay a zombie until its parent reaps it, or another process may have its number since;
        `pg_ctl` takes both for a server that runs.
        """
        try:
            stat = Path(f"/proc/{int(self._lock()[0])}/stat").read_text()
        except (OSError, ValueError, IndexError):
            return False
        name, _, after = stat.partition("(")[2].rpartition(")")
        return name == "postgres" and after.split()[0] not in "ZX"

    def _clear_lock(self) -> None:
        """Take away the lock of a server that was killed, where PostgreSQL would take it for one that runs.

        Only once the last of its processes has ended, seen as PostgreSQL itself does: by the shared memory that the
        lock names. Raises `ClusterTrouble` where they do not end.
        """
        lock = self._lock()
        if not lock or not Path(f"/proc/{lock[0].strip()}").exists():
            return  # no lock, or one that PostgreSQL knows for an old one
        memory = " ".join(lock[6:7]).split()
        for _ in _patiently():
            if not _in_use(memory):
                (self.data / "postmaster.pid").unlink(missing_ok=True)
                return
        raise ClusterTrouble(
            f"A server that was killed still has processes at work in {self.data}. "
            "Cure: wait a little and start again; if that does not help, restart the machine."
        )

    def _url(self) -> str:
        """Where the running server is; makes the database if there is none.

        Raises `psycopg.OperationalError` where it does not answer, `IndexError` where its lock does not say its port yet.
        """
        listens = self._lock()[3]
        server = f"postgresql://{USER}:{(self.folder / 'password').read_text()}@127.0.0.1:{listens}"
        with psycopg.connect(f"{server}/postgres", autocommit=True) as connection:
            if not connection.execute("SELECT 1 FROM pg_database WHERE datname = %s", [DATABASE]).fetchone():
                connection.execute(f"CREATE DATABASE {DATABASE}")
        return f"{server}/{DATABASE}"

    def address(self) -> str | None:
        """Where a server left running is, or nothing where there is none. One may be starting or just dying: it is waited for.

        Raises `ClusterTrouble` where it neither answers nor ends.
        """
        trouble: Exception | None = None
        for _ in _patiently():
            if not self.is_up():
                return None
            try:
                return self._url()
            except (psycopg.OperationalError, IndexError) as error:
                trouble = error
        raise ClusterTrouble(
            f"PostgreSQL runs in {self.data} and does not answer. "
            f"Cure: see {self.folder}/server.log, stop that server, and start again."
        ) from trouble

    def put_aside(self, name: str) -> Path | None:
        """Move the records, with what opens them, to a folder beside this one, which is a cluster of its own then. None: there are none."""
        if not self.data.exists():
            return None
        kept = self.folder.with_name(f"{self.folder.name}-{name}")
        kept.mkdir(mode=0o755)
        if self._as:
            shutil.chown(kept, ACCOUNT, ACCOUNT)
        for one in (self.data, self.folder / "password"):
            one.rename(kept / one.name)
        return kept

    def take_back(self, kept: Path) -> None:
        """Undo `put_aside`."""
        for name in (self.data.name, "password"):
            (kept / name).rename(self.folder / name)
        kept.rmdir()

    def start(self, port: int | None = None) -> str:
        """Make the cluster if there is none, start it if it does not run, give its address.

        It is on `port`, or where it was when it was started before, or on a free one. Raises `ClusterTrouble`.
        """
        self.url = self._started(port or self._port)
        self._port = int(str(conninfo_to_dict(self.url)["port"]))
        return self.url

    def _started(self, port: int | None) -> str:
        if not self.data.exists():
            self._make()
        self._check_whole()
        if left_running := self.address():
            return left_running
        self._clear_lock()
        options = f"-p {port or _free_port()} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''"
        log = self.folder / "server.log"
        self._run("pg_ctl", "start", "--wait", f"--pgdata={self.data}", f"--log={log}", f"--options={options}")
        try:
            return self._url()
        except (psycopg.Error, IndexError) as error:  # it ended again at once: killed, or no room to go on
            raise ClusterTrouble(_no_room(self.folder) if is_full(self.folder) else f"PostgreSQL did not stay. Its words are in {log}.") from error

    def stop(self) -> None:
        """Stop the server if it runs; what was committed is kept."""
        if self.is_up():
            try:
                self._run("pg_ctl", "stop", "--wait", "--mode=fast", f"--pgdata={self.data}")
            except ClusterTrouble:
                if self.is_up():  # one that died of itself meanwhile has stopped too
                    raise
