"""A PostgreSQL of our own: one private folder, loopback only, stopped with the application.

As root it runs under Debian's `postgres` account, since PostgreSQL refuses root. It survives `kill -9` of the
application (the next start takes it over) and of itself (the next start recovers it).
"""

import fcntl
import os
import pwd
import secrets
import shutil
import socket
import subprocess
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

import psycopg

ACCOUNT = "postgres"
USER = DATABASE = "pancount"
ROOM_NEEDED = 250_000_000
"""Free space that a new cluster and a first day's work take, with a margin. [bytes]"""
WHOLE = ("PG_VERSION", "global/pg_control", "postgresql.conf", "base", "pg_wal")
"""What a finished cluster always has."""
PATIENCE = 30.0
"""How long a server found here may take to answer, or its last processes to end. [s]"""


class ClusterTrouble(Exception):
    """The cluster cannot be used; the sentence says why, and the cure."""


def _bin(version: str | None = None) -> Path:
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


def _is_dead(pid: int) -> bool:
    """Whether a process is gone, or a zombie: dead, but not yet reaped by its parent."""
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] in "ZX"
    except OSError:
        return True


def any_at_work_in(folder: Path) -> bool:
    """Whether any process has `folder` as its own, as all of PostgreSQL's do. A zombie has none."""
    for own in Path("/proc").glob("[0-9]*/cwd"):
        with suppress(OSError):
            if own.readlink() == folder.resolve():
                return True
    return False


class Cluster:
    """A PostgreSQL cluster in `folder`."""

    def __init__(self, folder: Path) -> None:
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
            lock = (self.folder / "lock").open("w")
        except KeyError as error:
            raise ClusterTrouble(
                f"There is no account '{ACCOUNT}' to run PostgreSQL under. Cure: apt-get install postgresql"
            ) from error
        except OSError as error:
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

    def _run(self, program: str, *arguments: str, check: bool = True) -> subprocess.CompletedProcess[str]:
        version_file = self.data / "PG_VERSION"
        version = version_file.read_text().strip() if version_file.exists() else None
        # stdout to the log: a started server keeps its handles, and a pipe would never end.
        with (self.folder / "start.log").open("w") as log:
            done = subprocess.run(
                [str(_bin(version) / program), *arguments],
                stdin=subprocess.DEVNULL,
                stdout=log,
                stderr=subprocess.STDOUT,
                cwd=self.folder,
                env={"PATH": "/usr/bin:/bin", "LC_ALL": "C.UTF-8"},
                text=True,
                check=False,
                **self._as,  # type: ignore[call-overload]  # user and groups, or nothing
            )
        if check and done.returncode:
            said = (self.folder / "start.log").read_text(errors="replace").strip().splitlines()
            raise ClusterTrouble(
                f"PostgreSQL's {program} did not succeed: {said[-1] if said else 'it said nothing'}. "
                f"Its words are in {self.folder}/start.log and server.log. "
                "Cure: put right what it names, or start over with ./pancount demo --fresh."
            )
        return done  # type: ignore[no-any-return]

    def _make(self) -> None:
        """A new cluster, built beside and moved into place, so that one left half made is never taken for whole."""
        new = self.folder / "data.new"
        if new.exists():
            print("An earlier start did not finish; it is begun again.", flush=True)
            shutil.rmtree(new)
        free = shutil.disk_usage(self.folder).free
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

    def _server(self) -> int | None:
        """The process that the cluster's own lock names, where it is there: alive, or dead and not yet reaped."""
        try:
            pid = int((self.data / "postmaster.pid").read_text().splitlines()[0])
        except (OSError, ValueError, IndexError):
            return None
        return pid if Path(f"/proc/{pid}").exists() else None

    def _running(self) -> bool:
        server = self._server()
        if server is None or _is_dead(server):
            return False
        return self._run("pg_ctl", "status", f"--pgdata={self.data}", check=False).returncode == 0

    def _clear_dead(self) -> None:
        """Take away the lock of a server that was killed and is not reaped, which PostgreSQL takes for one that runs.

        Only once nothing of it works in the folder: the lock is what keeps two servers from one cluster.
        Raises `ClusterTrouble` where its processes do not end.
        """
        server = self._server()
        if server is None or not _is_dead(server):
            return
        deadline = time.monotonic() + PATIENCE
        while any_at_work_in(self.data):
            if time.monotonic() < deadline:
                time.sleep(0.1)
                continue
            raise ClusterTrouble(
                f"A server that was killed still has processes at work in {self.data}. "
                "Cure: wait a little and start again; if that does not help, restart the machine."
            )
        (self.data / "postmaster.pid").unlink(missing_ok=True)

    def _url(self) -> str:
        """Where the running server is; makes the database if there is none. Raises `psycopg.OperationalError`, `OSError`."""
        listens = (self.data / "postmaster.pid").read_text().splitlines()[3]
        server = f"postgresql://{USER}:{(self.folder / 'password').read_text()}@127.0.0.1:{listens}"
        with psycopg.connect(f"{server}/postgres", autocommit=True) as connection:
            if not connection.execute("SELECT 1 FROM pg_database WHERE datname = %s", [DATABASE]).fetchone():
                connection.execute(f"CREATE DATABASE {DATABASE}")
        return f"{server}/{DATABASE}"

    def _taken_over(self) -> str | None:
        """Where a server left running is, or nothing where there is none. One may be starting or just dying: it is waited for.

        Raises `ClusterTrouble` where it neither answers nor ends.
        """
        trouble: Exception | None = None
        deadline = time.monotonic() + PATIENCE
        while self._running():
            try:
                return self._url()
            except (psycopg.OperationalError, OSError, IndexError) as error:
                trouble = error
            if time.monotonic() > deadline:
                raise ClusterTrouble(
                    f"PostgreSQL runs in {self.data} and does not answer. "
                    f"Cure: see {self.folder}/server.log, stop that server, and start again."
                ) from trouble
            time.sleep(0.1)
        return None

    def start(self, port: int | None = None) -> str:
        """Make the cluster if there is none, start it if it does not run (on `port` or a free one), give its address."""
        if not self.data.exists():
            self._make()
        self._check_whole()
        if left_running := self._taken_over():
            return left_running
        self._clear_dead()
        options = f"-p {port or _free_port()} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''"
        log = self.folder / "server.log"
        self._run("pg_ctl", "start", "--wait", f"--pgdata={self.data}", f"--log={log}", f"--options={options}")
        return self._url()

    def stop(self) -> None:
        """Stop the server if it runs; what was committed is kept."""
        if self.data.exists() and self._running():
            try:
                self._run("pg_ctl", "stop", "--wait", "--mode=fast", f"--pgdata={self.data}")
            except ClusterTrouble:
                if self._running():  # one that died of itself meanwhile has stopped too
                    raise
