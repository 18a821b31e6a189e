"""Something taken out of the window into a file: asked where, written whole, faults said."""

from collections.abc import Callable

from PySide6.QtWidgets import QMessageBox, QWidget

from urgens.document.whole_file import write_whole
from urgens.ui.widgets.file_choice import file_to_write
from urgens.ui.widgets.message import Message


def write_out(parent: QWidget, title: str, name: str, form: str, made: Callable[[], bytes]) -> None:
    """Ask for a place, and write what is made there, with its ending.

    parent: whose it is; title: of the question; name: that is offered; form: its ending; made:
    makes the content, once there is a place for it.
    """
    path = file_to_write(parent, title, name, form, f"*{form}")
    if path is None:
        return
    try:
        write_whole(path, made())
    except OSError as error:
        said = f"{path} cannot be written ({error.strerror})"
        Message(QMessageBox.Icon.Warning, title, said, "Choose another place.", parent).exec()
