"""Records in one file and back: all of them, or a sentence and nothing changed."""

import json
import shutil
import tarfile
from pathlib import Path

import pytest

from pancount.api.papers import _page, _told
from pancount.core.count.whole import whole_count
from pancount.core.pantry.ingredients import pantry_with
from pancount.demo.weir_house import fill_demo_kitchen
from pancount.store.backup import BackupTrouble, bring_back, last_backup, make_backup, note_backup, read_manifest
from pancount.store.cluster import Cluster
from pancount.store.database import connect, migrate, transaction
from pancount.store.formula import list_formulas, list_revisions
from pancount.store.kitchen import ONLY_KITCHEN
from pancount.store.taking import get_taking, list_takings, read_and_make, to_be_read


def reckonings(url: str) -> list[str]:
    """Everything that the demo kitchen comes to: each formula's screen and sheet in each revision, each recipe as it is read."""
    engine = connect(url)
    try:
        with transaction(engine) as session:
            found = []
            for head in sorted(list_formulas(session, ONLY_KITCHEN, archived=False), key=lambda head: head.id):
                for revision in (None, *(one.number for one in list_revisions(session, ONLY_KITCHEN, head.id))):
                    told = _told(session, ONLY_KITCHEN, head.id, revision)
                    kitchen = told.settings
                    found.append(whole_count(told.formula, told.count, pantry_with(told.own), kitchen.practice, kitchen.kit, 0, kitchen.scale).model_dump_json())
                    found.append(_page(told).model_dump_json())
            for head in list_takings(session, ONLY_KITCHEN):
                assert get_taking(session, ONLY_KITCHEN, head.id)
                found.append(str(read_and_make(*to_be_read(session, ONLY_KITCHEN, head.id, head.version))))
            return found
    finally:
        engine.dispose()


@pytest.fixture(scope="module")
def saved(state_folder: Path):
    """The demo kitchen's backup, what it reckons, and the cluster that it was made of, which stopped."""
    cluster = Cluster(state_folder / "saved")
    file = state_folder / "demo.backup"
    with cluster.held():
        url = cluster.start()
        engine = connect(url, unhurried=True)
        migrate(engine)
        with transaction(engine) as session:
            fill_demo_kitchen(session)
        engine.dispose()
        manifest = make_backup(url, file)
        before = reckonings(url)
        cluster.stop()
    assert manifest.rows["formulas"] == 8
    assert len(before) > 25
    return file, before


def test_into_an_empty_state(saved, state_folder):
    """Every reckoning is as it was; a note says when and where it was backed up."""
    file, before = saved
    cluster = Cluster(state_folder / "empty")
    with cluster.held():
        assert bring_back(file, cluster) is None
        assert reckonings(cluster.start()) == before
        cluster.stop()
    assert last_backup(cluster.folder) == "never backed up (./pancount backup FILE)."
    note_backup(cluster.folder, file, read_manifest(file))
    assert str(file) in last_backup(cluster.folder)


def test_into_a_used_state(saved, state_folder):
    """What was there is kept beside it, as a cluster of its own that still opens; and a second time, beside that."""
    file, before = saved
    cluster = Cluster(state_folder / "used")
    with cluster.held():
        assert bring_back(file, cluster) is None
        engine = connect(cluster.start())
        with transaction(engine) as session:
            kept_too = list_formulas(session, ONLY_KITCHEN, archived=False)[0]
        with engine.begin() as connection:
            connection.exec_driver_sql("UPDATE formulas SET name = 'Typed after the backup' WHERE id = %(id)s", {"id": kept_too.id})
        engine.dispose()
        cluster.stop()
        kept = bring_back(file, cluster)
        assert reckonings(cluster.start()) == before
        cluster.stop()
    old = Cluster(kept)
    with old.held():
        engine = connect(old.start())
        with transaction(engine) as session:
            assert "Typed after the backup" in [head.name for head in list_formulas(session, ONLY_KITCHEN, archived=False)]
        engine.dispose()
        old.stop()


def changed(file: Path, to: Path, **manifest: object) -> Path:
    """The same backup with something else in its manifest."""
    with tarfile.open(file) as tar, tarfile.open(to, "w") as out:
        for member in tar:
            held = tar.extractfile(member)
            if member.name == "manifest.json":
                data = json.dumps(json.load(held) | manifest).encode()
                part = to.with_suffix(".json")
                part.write_bytes(data)
                out.add(part, member.name)
            else:
                out.addfile(member, held)
    return to


def test_what_is_no_backup_or_damaged_or_too_new(saved, state_folder):
    """Each is told in a sentence with its cure, before anything is touched."""
    file, _ = saved
    whole = file.read_bytes()
    middle = len(whole) // 2
    broken = {
        "text.backup": (b"500 g flour", "no backup of Pan Count"),
        "empty.backup": (b"", "no backup of Pan Count"),
        "half.backup": (whole[:middle], "no backup|damaged"),
        "flipped.backup": (whole[:middle] + bytes([whole[middle] ^ 1]) + whole[middle + 1 :], "is damaged"),
    }
    cluster = Cluster(state_folder / "untouched")
    with cluster.held():
        for name, (data, says) in broken.items():
            (state_folder / name).write_bytes(data)
            with pytest.raises(BackupTrouble, match=says):
                bring_back(state_folder / name, cluster)
        for name, manifest in (("version", {"version": 2, "more": 1}), ("tables", {"revision": "9999_to_come"})):
            with pytest.raises(BackupTrouble, match="newer Pan Count"):
                bring_back(changed(file, state_folder / f"{name}.backup", **manifest), cluster)
        with pytest.raises(BackupTrouble, match="cannot be read"):
            bring_back(state_folder / "not there", cluster)
    assert not cluster.data.exists()


def test_one_that_does_not_come_back_whole_leaves_what_was_there(saved, state_folder):
    """Its manifest says more than its dump holds: the old records are in their place again, and open."""
    file, before = saved
    cluster = Cluster(state_folder / "stays")
    with cluster.held():
        bring_back(file, cluster)
        false = changed(file, state_folder / "false.backup", rows={"formulas": 9})
        with pytest.raises(BackupTrouble, match="did not come back whole"):
            bring_back(false, cluster)
        assert reckonings(cluster.start()) == before
        cluster.stop()
    assert not list(state_folder.glob("stays-before-*"))


def test_where_it_cannot_be_written(saved, state_folder, monkeypatch):
    """A folder that is not there, and no room: said, and no half a file is left."""
    cluster = Cluster(state_folder / "empty")
    with cluster.held():
        url = cluster.start()
        with pytest.raises(BackupTrouble, match="cannot be written"):
            make_backup(url, state_folder / "no" / "such" / "folder.backup")
        cluster.stop()
    monkeypatch.setattr(shutil, "disk_usage", lambda _: shutil._ntuple_diskusage(1, 1, 5_000_000))
    with cluster.held(), pytest.raises(BackupTrouble, match="not enough room"):
        bring_back(saved[0], cluster)
    assert not list(state_folder.glob("*.part"))
