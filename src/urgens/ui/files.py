"""Opening and saving in the window: dialogs, words, and never losing work."""

from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget

from urgens.build import SUFFIX, BuildErrors, demo
from urgens.sheet.files import write_solution
from urgens.ui.session import Session

FILTER = f"Urgens builds (*{SUFFIX});;All files (*)"
SHOWN_ERRORS = 8  # at once; a screen holds no more


class FileDesk:
    """Asks where, says what went wrong, and asks before anything unsaved would be lost."""

    def __init__(self, session: Session, window: QWidget) -> None:
        self._session = session
        self._window = window

    def open(self) -> None:
        """Ask for a file and show the build in it."""
        start = str(self._session.path.parent) if self._session.path else str(Path.home())
        name, _ = QFileDialog.getOpenFileName(self._window, "Open a build", start, FILTER)
        if name:
            self.open_path(Path(name))

    def open_path(self, path: Path) -> None:
        """Show the build in a file, or say what is wrong with it and change nothing."""
        if not self.may_leave():
            return
        try:
            self._session.open_file(path)
        except BuildErrors as errors:
            self._say(f"{path.name} was not opened", _listed(errors))

    def open_demo(self, name: str) -> None:
        """Show a shipped build."""
        if self.may_leave():
            self._session.open(demo(name), None)

    def save(self) -> bool:
        """Save to the build's file, asking for one if there is none; tell whether it is saved."""
        return self._save_to(self._session.path) if self._session.path else self.save_as()

    def save_as(self) -> bool:
        """Ask for a file and save to it; tell whether it is saved."""
        folder = self._session.path.parent if self._session.path else Path.home()
        start = str(folder / (self._session.build.name.lower().replace(" ", "-") + SUFFIX))
        name, _ = QFileDialog.getSaveFileName(self._window, "Save the build", start, FILTER)
        if not name:
            return False
        path = Path(name)
        return self._save_to(path if path.suffix else path.with_name(path.name + SUFFIX))

    def _save_to(self, path: Path) -> bool:
        try:
            self._session.save(path)
        except OSError as error:
            self._say(
                f"{path.name} was not saved",
                f"{error.strerror}. What was on the disk is as it was; choose another place.",
            )
            return False
        return True

    def write_sheet(self, form: str) -> None:
        """Ask where the sheet goes and write it; form: pdf or html."""
        folder = self._session.path.parent if self._session.path else Path.home()
        start = str(folder / f"{self._session.build.name.lower().replace(' ', '-')}.{form}")
        kinds = f"{form.upper()} (*.{form})"
        name, _ = QFileDialog.getSaveFileName(self._window, "Write the sheet", start, kinds)
        if not name:
            return
        path = Path(name)
        path = path if path.suffix else path.with_suffix(f".{form}")
        try:
            write_solution(self._session.solution, path, self._session.units)
        except BuildErrors as errors:
            self._say("The sheet was not written", _listed(errors))

    def may_leave(self) -> bool:
        """Ask about unsaved changes; tell whether this build may be left."""
        if not self._session.modified:
            return True
        box = QMessageBox(self._window)
        box.setIcon(QMessageBox.Icon.Warning)
        box.setWindowTitle("Not saved")
        box.setText(f"{self._session.build.name} has changes that are not saved.")
        save = box.addButton("Save", QMessageBox.ButtonRole.AcceptRole)
        drop = box.addButton("Leave without saving", QMessageBox.ButtonRole.DestructiveRole)
        stay = box.addButton("Stay here", QMessageBox.ButtonRole.RejectRole)
        box.setDefaultButton(save)
        box.setEscapeButton(stay)
        box.exec()
        if box.clickedButton() is save:
            return self.save()
        return box.clickedButton() is drop

    def _say(self, title: str, words: str) -> None:
        box = QMessageBox(self._window)
        box.setIcon(QMessageBox.Icon.Warning)
        box.setWindowTitle(title)
        box.setText(title)
        box.setInformativeText(words)
        box.exec()


def _listed(errors: BuildErrors) -> str:
    rows = [str(error) for error in errors.errors[:SHOWN_ERRORS]]
    left = len(errors.errors) - len(rows)
    return "\n".join([*rows, f"… and {left} more"] if left > 0 else rows)
