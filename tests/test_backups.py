"""Backups are made while lines are kept, and brought back whole."""

import os
import random
import re
import shutil
import threading
import zipfile
from contextlib import closing
from datetime import datetime
from pathlib import Path

import pytest

from teapot.hosting import backups
from tests.console.test_kill import kept_lines
from tests.replies import is_whole
from tests.server import Client, Server
from tests.threads import Thread

COUNT = 'count(shelf("cooling pots").pot)'


def test_a_backup_made_while_lines_are_kept_is_brought_back(tmp_path):
    data, folder = tmp_path / "data", tmp_path / "backups"
    server = Server(data, demo=True)
    server.start()
    client = Client(server)
    client.request("POST", "/samples", {})  # which has a table
    client.open()
    counted = re.search(r'data-text="([1-9]\d*)"', client.preview(COUNT)).group()
    done = threading.Event()
    answered = []

    def type_on():
        while not done.is_set():
            client.keep(f"{len(answered)} + 0.5")
            answered.append(f"{len(answered)}.5")

    typing = Thread(type_on)
    before = len(answered)
    server.manage("back_up", str(folder))
    after = len(answered) + 1  # one may have been on its way
    done.set()
    typing.join()
    server.kill()
    [made] = folder.iterdir()
    assert made.stat().st_mode & 0o077 == 0
    with zipfile.ZipFile(made) as archive:
        names = archive.namelist()
    assert not [name for name in names if name.endswith(backups.BESIDE)]
    shutil.rmtree(data)
    said = server.manage("restore", str(made))
    assert "lines were answered anew, 0 of them otherwise" in said
    server.start()
    kept = [text for text in kept_lines(client) if text.endswith(" + 0.5")]
    assert kept == [f"{n} + 0.5" for n in range(len(kept))]  # by a browser with its old cookies
    assert before <= len(kept) <= after
    _, ahead = client.request("GET", f"{client.sheet}/lines?since=9999")
    assert is_whole(ahead)  # a page that is still open is made anew
    assert counted in client.preview(COUNT)
    server.kill()


def test_what_was_there_before_lies_beside_it(tmp_path):
    made = backup_of(tmp_path)
    data = tmp_path / "other"
    (data / backups.TABLES).mkdir(parents=True)
    (data / backups.DATABASE).write_text("what was there")
    (data / (backups.DATABASE + "-wal")).write_text("and this")
    (data / backups.TABLES / "cups").write_text("x")
    aside = backups.restore(made, data, datetime(2026, 11, 26, 12))
    assert (aside / backups.DATABASE).read_text() == "what was there"
    assert (aside / backups.TABLES / "cups").read_text() == "x"
    assert sorted(path.name for path in data.iterdir()) == [
        "before-2026-11-26T12-00-00", backups.KEY, backups.TABLES, backups.DATABASE,
    ]  # fmt: skip


def without(made: Path, name: str) -> None:
    """Packs a backup anew, as a whole archive that lacks a part."""
    with zipfile.ZipFile(made) as archive:
        parts = {one: archive.read(one) for one in archive.namelist() if not one.startswith(name)}
    made.unlink()
    with zipfile.ZipFile(made, "w") as archive:
        for one, content in parts.items():
            archive.writestr(one, content)


@pytest.mark.parametrize(
    "harm", ["no key", "no table", "cut off", "another file", "not there", "longer"]
)
def test_a_backup_that_is_not_whole_changes_nothing(tmp_path, harm):
    made = backup_of(tmp_path)
    data = tmp_path / "other"
    data.mkdir()
    (data / backups.DATABASE).write_text("what was there")
    if harm.startswith("no "):
        without(made, backups.KEY if harm == "no key" else backups.TABLES)
    elif harm == "cut off":
        os.truncate(made, made.stat().st_size - 1)
    elif harm == "another file":
        made.write_text("1 + 1\n" * 1000)
    elif harm == "longer":
        made.write_bytes(made.read_bytes() + b" ")
    else:
        made = made.with_name("nothing")
    with pytest.raises(backups.Broken):
        backups.restore(made, data, datetime(2026, 11, 26, 12))
    assert [path.name for path in data.iterdir()] == [backups.DATABASE]


def test_any_byte_that_was_changed_is_found(tmp_path):
    made = backup_of(tmp_path)
    backups.check(made)
    whole = made.read_bytes()
    random.seed(23)
    for at in [0, 1, 10, len(whole) - 1, len(whole) - 70, *random.sample(range(len(whole)), 100)]:
        changed = bytearray(whole)
        changed[at] ^= 1 << random.randrange(8)
        made.write_bytes(changed)
        with pytest.raises(backups.Broken):
            backups.check(made)
    made.write_bytes(whole)
    backups.check(made)


@pytest.mark.parametrize("part", [backups.KEY, backups.DATABASE, backups.TABLES])
def test_a_part_that_is_not_that_of_the_manifest_is_found(tmp_path, part):
    """Also in an archive that was packed anew, and is whole as such."""
    folder = tmp_path / "parts"
    made = backup_of(tmp_path)
    with zipfile.ZipFile(made) as archive:
        archive.extractall(folder)
        names = archive.namelist()
    changed = next(folder / name for name in names if name.startswith(part))
    with changed.open("r+b") as file:
        file.seek(changed.stat().st_size // 2)
        file.write(b"?")
    backups._pack(folder, [name for name in names if name != backups.MANIFEST], made, MOMENT)
    with zipfile.ZipFile(made) as archive:
        manifest = archive.read(backups.MANIFEST)
    assert (folder / backups.MANIFEST).read_bytes() != manifest
    with closing(zipfile.ZipFile(made, "w")) as archive:
        for name in names:
            archive.write(folder / name, name)
    with pytest.raises(backups.Broken):
        backups.check(made)


def test_a_file_that_goes_while_the_backup_is_made_does_no_harm(tmp_path, monkeypatch):
    """It was named when the database was copied, and its own copy was made before."""
    data = tmp_path / "data"
    Server(data, demo=True)
    copy = backups._copy_database

    def and_a_table_goes(source, target):
        copy(source, target)
        for file in (data / backups.TABLES).iterdir():
            file.unlink()

    monkeypatch.setattr(backups, "_copy_database", and_a_table_goes)
    made = backups.back_up(data, tmp_path / "backups", MOMENT)
    with zipfile.ZipFile(made) as archive:
        assert [name for name in archive.namelist() if name.startswith(backups.TABLES)]


def test_only_the_last_ones_are_kept(tmp_path):
    for day in range(1, 6):
        with zipfile.ZipFile(tmp_path / f"2026-11-0{day}T00-00-00.zip", "w"):
            pass
    (tmp_path / "notes").mkdir()
    assert [path.name[:10] for path in backups.older_than_the_last(tmp_path, 3)] == [
        "2026-11-01", "2026-11-02",
    ]  # fmt: skip


MOMENT = datetime(2026, 11, 25)


def backup_of(folder: Path) -> Path:
    """A backup of an installation that has the demo."""
    Server(folder / "data", demo=True)
    return backups.back_up(folder / "data", folder / "backups", MOMENT)
