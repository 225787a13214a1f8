"""All records in one file, and back: PostgreSQL's own dump with a manifest that says what is in it and how to tell whether
it is whole.

A backup is a tar of `manifest.json` and `records.dump` (pg_dump's custom format). It can be made while the application
runs: the dump and the counted rows are of one moment.
"""

import hashlib
import json
import os
import shutil
import subprocess
import tarfile
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Literal

import psycopg
from psycopg.conninfo import conninfo_to_dict, make_conninfo
from pydantic import BaseModel, ConfigDict, ValidationError
from sqlalchemy import text

from pancount.store.cluster import Cluster, ClusterTrouble, programs
from pancount.store.database import connect, known_revisions, migrate
from pancount.store.disk import ROOM_NEEDED, room

MANIFEST, DUMP, NOTED = "manifest.json", "records.dump", "last-backup.json"
PIECE = 1_000_000


class Manifest(BaseModel):
    """What a backup says of itself."""

    model_config = ConfigDict(frozen=True)

    format: Literal["pancount-backup"] = "pancount-backup"
    version: int = 1
    made_at: datetime
    revision: str
    """Of the tables: the last migration that they went through."""
    postgresql: int
    """Major version of the server that the records come from."""
    rows: dict[str, int]
    """How many there are in each table."""
    sha256: str
    """Of the dump."""

    def says(self) -> str:
        """What is in it, in words."""
        counted = [f"{self.rows.get(table, 0)} {words}" for table, words in (("formulas", "formulas"), ("revisions", "revisions"), ("pans", "pans"))]
        return f"{', '.join(counted)}, of {self.made_at:%Y-%m-%d %H:%M} UTC"


class BackupTrouble(ClusterTrouble):
    """A backup that cannot be made or brought back; nothing was changed. The sentence says why, and the cure."""


def _run(program: str, url: str, *arguments: str) -> None:
    """One of PostgreSQL's programs on a database. Its password goes by the environment, where no list of processes shows it."""
    told = {key: str(value) for key, value in conninfo_to_dict(url).items()}
    password = told.pop("password", "")
    target = make_conninfo(**told)
    done = subprocess.run(
        [str(programs() / program), *arguments, f"--dbname={target}"],
        stdin=subprocess.DEVNULL,
        capture_output=True,
        text=True,
        check=False,
        env={"PATH": "/usr/bin:/bin", "LC_ALL": "C.UTF-8", "PGPASSWORD": password},
    )
    if done.returncode:
        said = done.stderr.strip().splitlines()
        raise BackupTrouble(f"PostgreSQL's {program} did not succeed: {said[0] if said else 'it said nothing'}. Cure: put right what it names, then try again.")


def _rows(connection: psycopg.Connection) -> dict[str, int]:
    tables = [name for (name,) in connection.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1")]
    return {
        name: connection.execute(psycopg.sql.SQL("SELECT count(*) FROM {}").format(psycopg.sql.Identifier(name))).fetchone()[0]  # type: ignore[index]
        for name in tables
    }


def _digest(file: Path) -> str:
    with file.open("rb") as opened:
        return hashlib.file_digest(opened, "sha256").hexdigest()


def make_backup(url: str, file: Path) -> Manifest:
    """Write all records at `url` to `file`, then read it back. An older file of that name is replaced only by a whole one.

    Raises `BackupTrouble`.
    """
    part = file.with_name(file.name + ".part")
    try:
        with TemporaryDirectory(dir=file.parent) as folder, psycopg.connect(url, connect_timeout=5) as connection:
            dump = Path(folder) / DUMP
            connection.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ, READ ONLY")
            [snapshot] = connection.execute("SELECT pg_export_snapshot()").fetchone() or [""]
            version = connection.info.server_version // 10_000
            rows = _rows(connection)
            [revision] = connection.execute("SELECT version_num FROM alembic_version").fetchone() or [""]
            _run("pg_dump", url, "--format=custom", "--no-owner", "--no-privileges", f"--snapshot={snapshot}", f"--file={dump}")
            manifest = Manifest(made_at=datetime.now(UTC), revision=revision, postgresql=version, rows=rows, sha256=_digest(dump))
            told = Path(folder) / MANIFEST
            told.write_text(manifest.model_dump_json(indent=2) + "\n")
            with part.open("wb") as opened:
                with tarfile.open(fileobj=opened, mode="w") as tar:
                    tar.add(told, MANIFEST)
                    tar.add(dump, DUMP)
                opened.flush()
                os.fsync(opened.fileno())
        read_manifest(part)
        part.replace(file)
    except OSError as error:
        raise BackupTrouble(f"{file} cannot be written ({error.strerror}). Cure: name a place where there is room and that you may write to.") from error
    except psycopg.Error as error:
        raise BackupTrouble(f"The records cannot be read ({str(error).strip().splitlines()[0]}). Cure: see that they can be reached, then try again.") from error
    finally:
        part.unlink(missing_ok=True)
    return manifest


@contextmanager
def _opened(file: Path) -> Iterator[tarfile.TarFile]:
    try:
        with tarfile.open(file, "r:") as tar:
            yield tar
    except (tarfile.TarError, KeyError, EOFError) as error:
        raise BackupTrouble(f"{file} is no backup of Pan Count, or it is damaged. Cure: take another one.") from error
    except OSError as error:
        raise BackupTrouble(f"{file} cannot be read ({error.strerror}). Cure: see whether that is its name.") from error


def read_manifest(file: Path) -> Manifest:
    """What a backup says of itself, once its dump was found to be whole. Raises `BackupTrouble`."""
    with _opened(file) as tar:
        told, dump = tar.extractfile(MANIFEST), tar.extractfile(DUMP)
        if told is None or dump is None:
            raise KeyError(file)
        try:
            found = json.loads(told.read(PIECE))
            if isinstance(found, dict) and isinstance(version := found.get("version"), int) and version > Manifest.model_fields["version"].default:
                raise BackupTrouble(f"{file} was made by a newer Pan Count. Cure: bring it back with that one.")
            manifest = Manifest.model_validate(found)
        except (ValueError, ValidationError) as error:
            raise KeyError(file) from error
        digest = hashlib.sha256()
        while piece := dump.read(PIECE):
            digest.update(piece)
    if digest.hexdigest() != manifest.sha256:
        raise BackupTrouble(f"{file} is damaged: what is in it is not what was put in. Cure: take another one.")
    if manifest.revision not in known_revisions():
        raise BackupTrouble(f"{file} was made by a newer Pan Count. Cure: bring it back with that one.")
    return manifest


def bring_back(file: Path, cluster: Cluster) -> Path | None:
    """Lay a backup's records into a cluster that is held and does not run. What was there is kept, in the folder that is given.

    Raises `BackupTrouble`; then what was there is there again.
    """
    manifest = read_manifest(file)
    cluster.folder.mkdir(parents=True, exist_ok=True)
    if room(cluster.folder) < ROOM_NEEDED + 4 * file.stat().st_size:
        raise BackupTrouble(f"There is not enough room at {cluster.folder}. Cure: make room, then try again.")
    kept = cluster.put_aside(f"before-{datetime.now(UTC):%Y%m%d-%H%M%S}")
    try:
        url = cluster.start()
        with TemporaryDirectory() as folder:
            with _opened(file) as tar:
                tar.extract(DUMP, folder, filter="data")
            _run("pg_restore", url, "--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction", str(Path(folder) / DUMP))
        with psycopg.connect(url) as connection:
            if (rows := _rows(connection)) != manifest.rows:
                raise BackupTrouble(f"{file} did not come back whole: {manifest.rows} were put in, {rows} came out. Cure: take another one.")
        engine = connect(url, unhurried=True)
        try:
            migrate(engine)
            with engine.begin() as opened:
                opened.execute(text("ANALYZE"))
        finally:
            engine.dispose()
    except BaseException:
        cluster.stop()
        shutil.rmtree(cluster.data, ignore_errors=True)
        if kept is not None:
            cluster.take_back(kept)
        raise
    cluster.stop()
    return kept


def note_backup(folder: Path, file: Path, manifest: Manifest) -> None:
    """Remember when the records in a folder were last backed up, and where to."""
    (folder / NOTED).write_text(json.dumps({"at": manifest.made_at.isoformat(), "file": str(file.absolute())}))


def last_backup(folder: Path) -> str:
    """When they were last backed up, in words."""
    try:
        noted = json.loads((folder / NOTED).read_text())
        return f"last backed up {datetime.fromisoformat(noted['at']):%Y-%m-%d %H:%M} UTC to {noted['file']}."
    except (OSError, ValueError, KeyError, TypeError):
        return "never backed up (./pancount backup FILE)."
