"""A save that is killed at any of its steps leaves a whole file: the one before or the new one."""

import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from urgens.document import Build, edited, load, save


class Killed(BaseException):
    """Stands for the process being gone: nothing after it runs, not even cleaning up."""


STEPS = ("mkstemp", "write", "fsync", "copymode", "link", "replace .bak", "replace", "sync")


def kill_at(monkeypatch: pytest.MonkeyPatch, step: str) -> None:
    def deadly(*_: Any, **__: Any) -> None:
        raise Killed

    def kill_replace(of_backup: bool) -> Callable[..., Path]:
        real = Path.replace

        def replace(self: Path, target: Path) -> Path:
            if str(target).endswith(".bak") is of_backup:
                raise Killed
            return real(self, target)

        return replace

    if step == "mkstemp":
        monkeypatch.setattr("urgens.document.whole_file.tempfile.mkstemp", deadly)
    elif step == "write":
        monkeypatch.setattr("urgens.document.whole_file.os.fdopen", deadly)
    elif step == "fsync":
        monkeypatch.setattr(os, "fsync", deadly)
    elif step == "copymode":
        monkeypatch.setattr("urgens.document.whole_file.shutil.copymode", deadly)
    elif step == "link":
        monkeypatch.setattr(os, "link", deadly)
    elif step == "sync":
        monkeypatch.setattr("urgens.document.whole_file._sync_directory", deadly)
    else:
        monkeypatch.setattr(Path, "replace", kill_replace(step == "replace .bak"))
    monkeypatch.setattr(Path, "unlink", lambda *_, **__: None)  # the dead do not tidy up


@pytest.mark.parametrize("step", STEPS)
def test_a_killed_save_leaves_a_whole_file(
    step: str, bakery: Build, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "truck.urgens.json"
    save(bakery, path)
    changed = edited(bakery, "name", "Changed")
    with monkeypatch.context() as patched:
        kill_at(patched, step)
        with pytest.raises(Killed):
            save(changed, path)

    assert load(path) in (bakery, changed)
    backup = path.with_name(path.name + ".bak")
    assert not backup.exists() or load(backup) == bakery

    save(changed, path)  # what the dead left does not hinder the next

    assert load(path) == changed


def test_a_process_killed_while_saving_over_and_over(bakery: Build, tmp_path: Path) -> None:
    """The real thing: SIGKILL in the middle of thousands of saves."""
    import signal
    import subprocess
    import time

    path = tmp_path / "truck.urgens.json"
    save(bakery, path)
    code = (
        "import sys; from pathlib import Path; from urgens.document import *\n"
        "p = Path(sys.argv[1]); "
        "b = load(p); n = 0\nprint('go', flush=True)\n"
        "while True: n += 1; b = edited(b, 'name', f'n{n}'); save(b, p)"
    )
    for wait in (0.05, 0.11, 0.17):
        run = subprocess.Popen([sys.executable, "-c", code, str(path)], stdout=subprocess.PIPE)
        assert run.stdout is not None
        run.stdout.readline()
        time.sleep(wait)
        run.send_signal(signal.SIGKILL)
        run.wait()
        run.stdout.close()

        assert load(path).master == bakery.master
