"""Something taken out of the window into a file: asked where, written whole, faults said."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget

from urgens.document.whole_file import write_whole
from urgens.ui.widgets.plain import Message


def write_out(parent: QWidget, title: str, name: str, form: str, made: Callable[[], bytes]) -> None:
    """Ask for a place, and write what is made there, with its ending.

    parent: whose it is; title: of the question; name: that is offered; form: its ending; made:
    makes the content, once there is a place for it.
    """
    chosen, _ = QFileDialog.getSaveFileName(parent, title, f"{name}{form}", f"*{form}")
    if not chosen:
        return
    path = Path(chosen)
    path = path if path.suffix.lower() == form else path.with_name(path.name + form)
    try:
        write_whole(path, made())
    except OSError as error:
        said = f"{path} cannot be written ({error.strerror})"
        Message(QMessageBox.Icon.Warning, title, said, "Choose another place.", parent).exec()
