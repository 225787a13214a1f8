"""What ./pancount calls: start the application, and write what is made from it."""

import argparse
import gc
import hashlib
import json
import os
import shutil
import signal
import socket
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import Thread

import uvicorn
from sqlalchemy import Engine

from pancount.api.app import make_app
from pancount.core.measures import measures
from pancount.core.taking.vocabulary import shipped_names
from pancount.demo.weir_house import fill_demo_kitchen
from pancount.formats.formula_file import json_schema
from pancount.store.cluster import Cluster, ClusterTrouble
from pancount.store.database import connect, migrate, transaction
from pancount.store.errors import Away
from pancount.store.formulas import reckon_missing
from pancount.store.kitchens import ONLY_KITCHEN, Settings, open_kitchen

ROOT = Path(__file__).resolve().parents[2]
PORT = 8137


def state_folder() -> Path:
    """Where clusters are kept: in the checkout, or as root, whose files PostgreSQL may not reach, in /var/lib."""
    if named := os.environ.get("PANCOUNT_STATE"):
        return Path(named)
    if os.geteuid() == 0:
        return Path("/var/lib/pancount") / hashlib.sha256(str(ROOT).encode()).hexdigest()[:12]
    return ROOT / ".pancount" / "state"


def listening(port: int) -> socket.socket:
    """A socket on loopback. Raises `ClusterTrouble` where the port is taken or not allowed."""
    # Named as TCP, since asyncio turns off Nagle's waiting (40 ms an answer) only where it can see that it is.
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind(("127.0.0.1", port))
    except OSError as error:
        listener.close()
        raise ClusterTrouble(
            f"Port {port} cannot be had ({error.strerror}). Cure: stop what uses it, or choose another with --port."
        ) from error
    return listener


@contextmanager
def own_database(name: str, *, anew: bool) -> Iterator[str]:
    """The address of a database: the one PANCOUNT_DATABASE_URL names, or a cluster that runs as long as we do."""
    if given := os.environ.get("PANCOUNT_DATABASE_URL"):
        yield given
        return
    cluster = Cluster(state_folder() / name)
    with cluster.held():
        if anew:
            cluster.stop()
            shutil.rmtree(cluster.data, ignore_errors=True)
        try:
            yield cluster.start()
        finally:
            cluster.stop()


def prepare(engine: Engine, *, demo: bool) -> None:
    """Tables and figures up to date, and the kitchen there: with the demo's formulas, or empty."""
    migrate(engine)
    with transaction(engine) as session:
        reckon_missing(session, ONLY_KITCHEN)
        if demo:
            fill_demo_kitchen(session)
        else:
            open_kitchen(session, ONLY_KITCHEN, "My kitchen", Settings())


def warm() -> None:
    """Load what the first recipe would wait for: units, words and names. They stay, so nothing need look whether they are
    garbage: that looking is a pause of 50 ms and more in the middle of a request."""
    measures()
    shipped_names()
    gc.freeze()


class _Server(uvicorn.Server):
    """Says where it is once it listens."""

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets)
        if self.started and sockets:
            Thread(target=warm, daemon=True).start()
            print(f"Pan Count is at http://127.0.0.1:{sockets[0].getsockname()[1]}  (Ctrl-C stops it)", flush=True)


def serve(name: str, port: int, *, demo: bool, anew: bool = False) -> None:
    """Run until stopped. Everything started here is stopped with it."""
    with listening(port) as listener, own_database(name, anew=anew) as url:
        engine = connect(url)
        prepare(engine, demo=demo)
        config = uvicorn.Config(make_app(engine), log_level="warning", access_log=False, server_header=False)
        try:
            _Server(config).run(sockets=[listener])
        finally:
            engine.dispose()


def _arguments() -> argparse.Namespace:
    parser = argparse.ArgumentParser(prog="./pancount")
    commands = parser.add_subparsers(dest="command", required=True)
    for name, words in (("demo", "start with the demo kitchen"), ("serve", "start with a kitchen of your own")):
        command = commands.add_parser(name, help=words)
        command.add_argument("--port", type=int, default=PORT, help=f"where to listen on 127.0.0.1 (usually {PORT})")
        if name == "demo":
            command.add_argument("--fresh", action="store_true", help="start over, in a cluster of its own")
    written = commands.add_parser("write", help="write what is made from the code")
    written.add_argument("what", choices=["openapi", "formula-schema"])
    written.add_argument("file", type=Path)
    return parser.parse_args()


def _stop(*_: object) -> None:
    raise SystemExit(0)


def main() -> None:
    """Do what was asked; trouble is told in one sentence with its cure."""
    asked = _arguments()
    signal.signal(signal.SIGTERM, _stop)  # so that what was started is stopped by a plain kill too
    try:
        if asked.command == "write":
            document = json_schema() if asked.what == "formula-schema" else make_app(None, None).openapi()
            asked.file.parent.mkdir(parents=True, exist_ok=True)
            asked.file.write_text(json.dumps(document, ensure_ascii=False, indent=2) + "\n")
        elif asked.command == "serve":
            serve("kitchen", asked.port, demo=False)
        else:
            serve("fresh" if asked.fresh else "demo", asked.port, demo=True, anew=asked.fresh)
    except KeyboardInterrupt:
        sys.exit(0)
    except ClusterTrouble as trouble:
        sys.exit(f"pancount: {trouble}")
    except Away:
        sys.exit("pancount: the database does not answer. Cure: see that the one you named runs, then start again.")


if __name__ == "__main__":
    main()
