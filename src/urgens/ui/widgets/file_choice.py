"""The one way to ask for a file: to read, or to write, which never writes over one unasked."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget

from urgens.data import SUFFIX
from urgens.ui.widgets.file_chooser import FileChooser
from urgens.ui.widgets.message import Message

ALL = "All files (*)"
BUILDS = f"Urgens builds (*{SUFFIX});;{ALL}"
CSV = "CSV (*.csv)"
Mode = QFileDialog.FileMode


def file_to_read(parent: QWidget, title: str, folder: Path | None, kinds: str) -> Path | None:
    """Return the file that is chosen to be read, None where none is."""
    names = FileChooser.ask(parent, title, folder or Path.home(), kinds, Mode.ExistingFile)
    return Path(names[0]) if names else None


def files_to_read(parent: QWidget, title: str, folder: Path | None, kinds: str) -> list[Path]:
    """Return the files that are chosen to be read."""
    names = FileChooser.ask(parent, title, folder or Path.home(), kinds, Mode.ExistingFiles)
    return [Path(name) for name in names]


def file_to_write(
    parent: QWidget, title: str, name: str, ending: str, kinds: str, folder: Path | None = None
) -> Path | None:
    """Return the file that is chosen to be written, with its ending; None where none is.

    One that is there is asked about.
    """
    start = (folder or Path.home()) / (name + ending)
    names = FileChooser.ask(parent, title, start, kinds, Mode.AnyFile)
    if not names:
        return None
    path = with_ending(Path(names[0]), ending)
    if path.exists():
        message, over = f"{path.name} is there already.", "Write over it"
        if answered(parent, "It is there already", message, (over, "Do not write")) != over:
            return None
    return path


def answered(parent: QWidget, title: str, message: str, answers: Sequence[str]) -> str:
    """Return the answer to a question; the first is the default, the last what Esc means."""
    box = Message(QMessageBox.Icon.Question, title, message, parent=parent)
    buttons = [box.addButton(answer, QMessageBox.ButtonRole.AcceptRole) for answer in answers]
    box.setDefaultButton(buttons[0])
    box.setEscapeButton(buttons[-1])
    box.exec()
    clicked = box.clickedButton()
    return next((a for a, b in zip(answers, buttons, strict=True) if b is clicked), answers[-1])


def with_ending(path: Path, ending: str) -> Path:
    """Return a path with the ending its content has; a dot in a name makes none."""
    first, _, last = ending.rpartition(".")
    if path.name.lower().endswith(f".{last}"):
        return path
    return path.with_name(path.name.removesuffix(first) + ending)
