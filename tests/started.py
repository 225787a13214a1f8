"""The application started as a baker starts it, in a state folder of its own."""

import json
import os
import re
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).parents[1]


def _deaf() -> None:
    signal.signal(signal.SIGINT, signal.SIG_IGN)


class Started:
    """`./pancount demo` without its set-up, in a state folder of its own."""

    def __init__(self, state: Path, *arguments: str, deaf: bool = False) -> None:
        """`deaf`: begun by something that lets interrupts pass, as a shell does with what it begins in the background."""
        env = os.environ | {"PANCOUNT_STATE": str(state), "PYTHONPATH": str(ROOT / "src")}
        command = [sys.executable, "-m", "pancount.cli", "demo", *arguments]
        self.process = subprocess.Popen(command, env=env, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True, cwd=ROOT, preexec_fn=_deaf if deaf else None)

    def address(self) -> str:
        for line in self.process.stdout:
            if found := re.search(r"http://127\.0\.0\.1:\d+", line):
                return found[0]
        raise AssertionError(self.process.stderr.read())

    def stop(self, how: signal.Signals = signal.SIGINT) -> str:
        self.process.send_signal(how)
        _, said = self.process.communicate(timeout=60)
        return said

    def close(self) -> None:
        """Nothing of it is left, whatever the test came to."""
        self.process.kill()
        self.process.wait()
        self.process.stdout.close()
        self.process.stderr.close()

    def refuses(self) -> str:
        """What it says when it cannot start: one line."""
        _, said = self.process.communicate(timeout=60)
        assert self.process.returncode == 1
        assert len(said.strip().splitlines()) == 1
        return said


def free_port() -> str:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return str(probe.getsockname()[1])


def get(address: str) -> str:
    with urllib.request.urlopen(address, timeout=10) as answer:
        return answer.read().decode()


def post(address: str, body: str) -> str:
    request = urllib.request.Request(address, body.encode(), {"Content-Type": "application/json"})
    with urllib.request.urlopen(request, timeout=10) as answer:
        return answer.read().decode()


def running(state: Path) -> bool:
    pids = [p.read_text().splitlines()[0] for p in state.glob("*/data/postmaster.pid")]
    return any(Path(f"/proc/{pid}").exists() for pid in pids)


def answer_of(address: str, body: object = None, method: str | None = None) -> tuple[int, object]:
    """Status and JSON of an answer, whatever it is; status 0 where nothing answered."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address, data, {"Content-Type": "application/json"} if data else {}, method=method)
    try:
        with urllib.request.urlopen(request, timeout=30) as answer:
            return answer.status, json.loads(answer.read() or b"null")
    except urllib.error.HTTPError as refused:
        return refused.code, json.loads(refused.read())
    except OSError as lost:
        return 0, repr(lost)


def until(holds: Callable[[], object], seconds: float = 60) -> object:
    """Waits for what is awaited, and gives it."""
    deadline = time.monotonic() + seconds
    while not (found := holds()):
        assert time.monotonic() < deadline, "it did not come about"
        time.sleep(0.05)
    return found


def children(pid: int) -> list[int]:
    """Processes that a process began, and theirs."""
    found = []
    for stat in Path("/proc").glob("[0-9]*/stat"):
        try:
            after = stat.read_text().rpartition(")")[2].split()
        except OSError:
            continue
        if int(after[1]) == pid and after[0] not in "ZX":
            found += [int(stat.parent.name), *children(int(stat.parent.name))]
    return found


def command(pid: int) -> str:
    """How a process was begun; blank once it is gone."""
    try:
        return Path(f"/proc/{pid}/cmdline").read_text()
    except OSError:
        return ""
