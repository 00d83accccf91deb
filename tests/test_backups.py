"""Backups are made while lines are kept, and brought back whole."""

import os
import shutil
import threading
from datetime import datetime
from pathlib import Path

import pytest

from teapot import backups
from tests.console.test_kill import kept_lines
from tests.server import Client, Server
from tests.threads import Thread


def test_a_backup_made_while_lines_are_kept_is_brought_back(tmp_path):
    data, folder = tmp_path / "data", tmp_path / "backups"
    server = Server(data)
    server.start()
    client = Client(server)
    client.keep("0 + 0.5")
    done = threading.Event()
    answered = ["0.5"]

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
    assert {path.stat().st_mode & 0o077 for path in (made, *made.iterdir())} == {0}
    shutil.rmtree(data)
    server.manage("restore", str(made))
    server.start()
    kept = kept_lines(client)  # by a browser that has its cookies of before
    assert kept == [f"{n} + 0.5" for n in range(len(kept))]
    assert before <= len(kept) <= after
    ahead, _ = client.request("GET", f"{client.sheet}/lines?since=999")
    assert ahead.getheader("X-Reload") == "1"  # a page that is still open is made anew
    client.revision = len(kept)
    assert 'data-text="8"' in client.keep("3 + 5")
    server.kill()


def test_what_was_there_before_lies_beside_it(tmp_path):
    made = backup_of(tmp_path)
    data = tmp_path / "other"
    data.mkdir()
    (data / backups.DATABASE).write_text("what was there")
    (data / (backups.DATABASE + "-wal")).write_text("and this")
    aside = backups.restore(made, data, datetime(2026, 11, 26, 12))
    assert (aside / backups.DATABASE).read_text() == "what was there"
    assert sorted(path.name for path in data.iterdir()) == [
        "before-2026-11-26T12-00-00", backups.KEY, backups.DATABASE,
    ]  # fmt: skip


@pytest.mark.parametrize("harm", ["no key", "cut off", "another file", "not there"])
def test_a_backup_that_is_not_whole_changes_nothing(tmp_path, harm):
    made = backup_of(tmp_path)
    data = tmp_path / "other"
    data.mkdir()
    (data / backups.DATABASE).write_text("what was there")
    if harm == "no key":
        (made / backups.KEY).unlink()
    elif harm == "cut off":
        os.truncate(made / backups.DATABASE, 5000)
    elif harm == "another file":
        (made / backups.DATABASE).write_text("1 + 1\n" * 1000)
    else:
        made = made.with_name("nothing")
    with pytest.raises(backups.Broken):
        backups.restore(made, data, datetime(2026, 11, 26, 12))
    assert [path.name for path in data.iterdir()] == [backups.DATABASE]


def test_only_the_last_ones_are_kept(tmp_path):
    for day in range(1, 6):
        folder = tmp_path / f"2026-11-0{day}T00-00-00"
        folder.mkdir()
        (folder / backups.DATABASE).touch()
    (tmp_path / "notes").mkdir()
    assert [path.name[:10] for path in backups.older_than_the_last(tmp_path, 3)] == [
        "2026-11-01", "2026-11-02",
    ]  # fmt: skip


def backup_of(folder: Path) -> Path:
    """A backup of an installation that is new."""
    Server(folder / "data")
    return backups.back_up(folder / "data", folder / "backups", datetime(2026, 11, 25))
