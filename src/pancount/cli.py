"""What ./pancount calls: start the application, and write what is made from it."""

import argparse
import hashlib
import json
import os
import shutil
import signal
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager, nullcontext
from pathlib import Path

from pancount import serving
from pancount.api.app import make_app
from pancount.api.devices import DeviceAt
from pancount.demo.weir_house import fill_demo_kitchen
from pancount.formats.bake_file import bake_schema
from pancount.formats.formula_file import json_schema
from pancount.serving import STOPS, Place, Watch, listening
from pancount.store.backup import bring_back, last_backup, make_backup, note_backup, read_manifest
from pancount.store.cluster import Cluster, ClusterTrouble
from pancount.store.database import connect, migrate, transaction
from pancount.store.errors import Away
from pancount.store.formula import reckon_missing
from pancount.store.kitchen import ONLY_KITCHEN, Settings, open_kitchen
from pancount.store.roles import application_url

ROOT = Path(__file__).resolve().parents[2]
PORT = 8137
FOREIGN = "PANCOUNT_DATABASE_URL"
"""Names a PostgreSQL that is not ours."""


def named_from_here(path: Path) -> Path:
    """A path as the baker named it, from the folder where ./pancount was called."""
    return Path(os.environ.get("PANCOUNT_HERE", ".")).absolute() / path


def state_folder() -> Path:
    """Where clusters are kept: in the checkout, or as root, whose files PostgreSQL may not reach, in /var/lib."""
    if named := os.environ.get("PANCOUNT_STATE"):
        return named_from_here(Path(named))
    if os.geteuid() == 0:
        return Path("/var/lib/pancount") / hashlib.sha256(str(ROOT).encode()).hexdigest()[:12]
    return ROOT / ".pancount" / "state"


@contextmanager
def own_cluster(name: str, *, anew: bool = False) -> Iterator[Cluster]:
    """A cluster of ours, held and running as long as this lasts."""
    cluster = Cluster(state_folder() / name)
    with cluster.held():
        if anew:
            cluster.stop()
            shutil.rmtree(cluster.data, ignore_errors=True)
        try:
            cluster.start()
            yield cluster
        finally:
            cluster.stop()


def prepare(url: str, *, demo: bool) -> str:
    """Tables, figures and the role of the application up to date, and the kitchen there: with the demo's formulas, or
    empty. Gives the address for the application, which may read and write and no more; the same where that is not ours to say."""
    engine = connect(url, unhurried=True)
    try:
        migrate(engine)
        with transaction(engine) as session:
            reckon_missing(session, ONLY_KITCHEN)
            if demo:
                fill_demo_kitchen(session)
            else:
                open_kitchen(session, ONLY_KITCHEN, "My kitchen", Settings())
        return url if FOREIGN in os.environ else application_url(engine, url)
    finally:
        engine.dispose()


@contextmanager
def practice_devices(port: int) -> Iterator[tuple[DeviceAt, ...]]:
    """A scale and a thermometer to practise with, each a process of its own, with their pages on the next ports, or any where those are taken."""
    environment = os.environ | {"PYTHONPATH": str(ROOT / "src")}
    started = [
        subprocess.Popen([sys.executable, "-m", "pancount.devices.served", kind, str(port + n if port else 0)], stdout=subprocess.PIPE, text=True, env=environment)
        for n, kind in enumerate(("scale", "thermometer"), 1)
    ]
    try:
        yield tuple(DeviceAt.model_validate_json(one.stdout.readline()) for one in started if one.stdout is not None)
    finally:
        for one in started:
            one.terminate()
        for one in started:
            one.wait(5)
            if one.stdout is not None:
                one.stdout.close()


def serve(name: str, port: int, *, demo: bool, anew: bool = False) -> None:
    """Run until stopped. Everything started here is stopped with it."""
    hosts = tuple(filter(None, os.environ.get("PANCOUNT_HOSTS", "").split(",")))

    def run(url: str, cluster: Cluster | None) -> None:
        folder = cluster.folder if cluster else None
        with practice_devices(port) if demo else nullcontext(()) as devices:
            place = Place(prepare(url, demo=demo), port, hosts, folder, devices)
            serving.serve(place, Watch(cluster) if cluster else None, lambda: _say(port, cluster, devices))

    listening(port).close()  # before a database is made for nothing
    if given := os.environ.get(FOREIGN):
        run(given, None)
    else:
        with own_cluster(name, anew=anew) as cluster:
            run(cluster.url, cluster)


def backup(name: str, file: Path) -> None:
    """Write a kitchen's records to a file, whether the application runs or not."""
    if given := os.environ.get(FOREIGN):
        print(f"Backed up {make_backup(given, file).says()}, to {file}")
        return
    cluster = Cluster(state_folder() / name)
    if not cluster.data.exists():
        raise ClusterTrouble(f"There are no records in {cluster.folder}. Cure: {NAMED[name]}")
    if url := cluster.address():
        manifest = make_backup(url, file)
    else:
        with own_cluster(name) as started:
            manifest = make_backup(started.url, file)
    note_backup(cluster.folder, file, manifest)
    print(f"Backed up {manifest.says()}, to {file}")


def restore(name: str, file: Path, *, sure: bool) -> None:
    """Bring a kitchen's records back from a file; what is there now is kept beside them."""
    if FOREIGN in os.environ:
        raise ClusterTrouble("Records in a database of yours are brought back with its own tools. Cure: unset PANCOUNT_DATABASE_URL to restore into ours.")
    manifest = read_manifest(file)
    cluster = Cluster(state_folder() / name)
    with cluster.held():
        cluster.stop()  # one left running by a killed application
        if cluster.data.exists() and not sure:
            print(f"{file} holds {manifest.says()}.\nThere are records in {cluster.folder}. They will be kept beside it, and these take their place.")
            if not sys.stdin.isatty():
                raise ClusterTrouble("Nothing was changed. Cure: add --yes where that is what you want.")
            if input("Go on? Type yes: ").strip().lower() != "yes":
                raise ClusterTrouble("Nothing was changed.")
        kept = bring_back(file, cluster)
    print(f"Brought back {manifest.says()}." + (f"\nWhat was there before is in {kept}" if kept else ""))


NAMED = {
    "kitchen": "start it once with ./pancount serve, or add --demo for those of ./pancount demo.",
    "demo": "start it once with ./pancount demo, or leave out --demo for those of ./pancount serve.",
}


def _say(port: int, cluster: Cluster | None, devices: tuple[DeviceAt, ...]) -> None:
    where = f"Records lie in {cluster.folder}; {last_backup(cluster.folder)}" if cluster else "Records lie in the database you named."
    told = "".join(f"\nA practice {one.kind} is at {one.page}" for one in devices)
    print(f"{where}\nPan Count is at http://127.0.0.1:{port}  (Ctrl-C stops it){told}", flush=True)


def _port(text: str) -> int:
    if not text.isdecimal() or not 1 <= int(text) <= 65_535:
        raise argparse.ArgumentTypeError(f"{text} is no port: give a number from 1 to 65535")
    return int(text)


def _arguments() -> argparse.Namespace:
    parser = argparse.ArgumentParser(prog="./pancount")
    commands = parser.add_subparsers(dest="command", required=True)
    for name, words in (("demo", "start with the demo kitchen"), ("serve", "start with a kitchen of your own")):
        command = commands.add_parser(name, help=words)
        command.add_argument("--port", type=_port, default=PORT, help=f"where to listen on 127.0.0.1 (usually {PORT})")
        if name == "demo":
            command.add_argument("--fresh", action="store_true", help="start over, in a cluster of its own")
    for name, words in (("backup", "all records into a file"), ("restore", "all records back from a file")):
        command = commands.add_parser(name, help=words)
        command.add_argument("file", type=Path)
        command.add_argument("--demo", action="store_true", help="those of ./pancount demo, not of ./pancount serve")
        if name == "restore":
            command.add_argument("--yes", action="store_true", help="do not ask; what is there is kept beside it")
    written = commands.add_parser("write", help="write what is made from the code")
    written.add_argument("what", choices=["openapi", "formula-schema", "bake-schema"])
    written.add_argument("file", type=Path)
    return parser.parse_args()


def _stop(*_: object) -> None:
    raise SystemExit(0)


def main() -> None:
    """Do what was asked; trouble is told in one sentence with its cure."""
    asked = _arguments()
    for what in STOPS:
        signal.signal(what, _stop)
    try:
        if asked.command == "write":
            document = {"formula-schema": json_schema, "bake-schema": bake_schema}.get(asked.what, lambda: make_app(None, None).openapi())()
            asked.file.parent.mkdir(parents=True, exist_ok=True)
            asked.file.write_text(json.dumps(document, ensure_ascii=False, indent=2) + "\n")
        elif asked.command == "backup":
            backup("demo" if asked.demo else "kitchen", named_from_here(asked.file))
        elif asked.command == "restore":
            restore("demo" if asked.demo else "kitchen", named_from_here(asked.file), sure=asked.yes)
        elif asked.command == "serve":
            serve("kitchen", asked.port, demo=False)
        else:
            serve("fresh" if asked.fresh else "demo", asked.port, demo=True, anew=asked.fresh)
    except ClusterTrouble as trouble:
        sys.exit(f"pancount: {trouble}")
    except Away:
        sys.exit("pancount: the database does not answer. Cure: see that the one you named runs, then start again.")


if __name__ == "__main__":
    main()
