"""Opening and saving in the window: dialogs, words, and never losing work."""

import re
from collections.abc import Sequence
from pathlib import Path

from PySide6.QtWidgets import QInputDialog, QMessageBox, QWidget

from urgens.document import SUFFIX, BuildErrors, demo, load, own_vehicle
from urgens.document.edits.borrow import borrowed
from urgens.ui.frame.recovery import RecoveredWork
from urgens.ui.frame.settings import Settings
from urgens.ui.session import Session
from urgens.ui.widgets.dimension_label import not_entered
from urgens.ui.widgets.file_choice import BUILDS, answered, file_to_read, file_to_write
from urgens.ui.widgets.message import Message

SHOWN_ERRORS = 8  # at once; a screen holds no more


class FileDesk:
    """Asks where, says what went wrong, and asks before anything unsaved would be lost."""

    def __init__(self, session: Session, window: QWidget, settings: Settings | None = None) -> None:
        self._session = session
        self._window = window
        self._settings = settings
        self._asking = False
        self._ignored: tuple[Path | None, bytes | None] = (None, None)
        if settings is not None:
            session.view.units_changed.connect(self._remember_units)

    def open(self) -> None:
        """Ask for a file and show the build in it."""
        path = file_to_read(self._window, "Open a build", self._folder, BUILDS)
        if path is not None:
            self.open_path(path)

    def open_path(self, path: Path) -> None:
        """Show the build in a file, or say what is wrong with it and change nothing."""
        if not self.may_leave():
            return
        try:
            self._session.open_file(path)
        except BuildErrors as errors:
            self._say(f"{path.name} was not opened", "\n".join(errors.lines(SHOWN_ERRORS)))
            return
        self._remember(path)
        self._in_units_last_used()

    def open_demo(self, name: str) -> None:
        """Show a shipped build."""
        if self.may_leave():
            self._session.open(demo(name), None)

    def open_own(self) -> None:
        """Show the build that a builder's own vehicle starts from."""
        if self.may_leave():
            self._session.open(own_vehicle(), None)
            self._in_units_last_used()

    def _remember_units(self) -> None:
        if self._settings is not None:
            self._settings.set_unit_system(self._session.units.system)

    def _in_units_last_used(self) -> None:
        """Show a build of the builder's own in the units he had last; demos have theirs."""
        last = None if self._settings is None else self._settings.unit_system
        if last is not None and last is not self._session.units.system:
            self._session.set_units(last)

    def rename(self) -> None:
        """Ask for another name of the build."""
        now = self._session.base.name
        words = "Name of the build"
        name, taken = QInputDialog.getText(self._window, words, words, text=now)
        if taken and name.strip() and name.strip() != now:
            self._session.edit("name", name.strip(), f"Named {name.strip()}")

    def borrow(self, part: str) -> None:
        """Ask for another build and take a part of it over, as one step that can be undone."""
        title = f"Take the {part} of another build"
        path = file_to_read(self._window, title, self._folder, BUILDS)
        if path is None:
            return
        try:
            other = load(path)
        except BuildErrors as errors:
            self._say(f"{path.name} was not read", "\n".join(errors.lines(SHOWN_ERRORS)))
            return
        self._session.make(borrowed(other, part))

    def save(self) -> bool:
        """Save to the build's file, asking for one if there is none; tell whether it is saved."""
        if self._session.path is None:
            return self.save_as()
        return not_entered(self._window) is None and self._save_to(self._session.path)

    def save_as(self) -> bool:
        """Ask for a file and save to it; tell whether it is saved."""
        if not_entered(self._window) is not None:
            return False
        path = self._where_to("Save the build", SUFFIX, BUILDS)
        return path is not None and self._save_to(path)

    @property
    def _folder(self) -> Path | None:
        return self._session.path.parent if self._session.path else None

    def _where_to(self, title: str, ending: str, kinds: str) -> Path | None:
        """Ask for a file to write, called as the build is."""
        name = file_name(self._session.build.name)
        return file_to_write(self._window, title, name, ending, kinds, self._folder)

    def _save_to(self, path: Path) -> bool:
        mine = path == self._session.path and path.exists()
        if mine and self._session.document.changed_on_disk:
            over = "Save over it"
            said = f"{path.name} was changed by another program."
            if self._ask("Changed on disk", said, (over, "Do not save")) != over:
                return False
        try:
            self._session.save(path)
        except OSError as error:
            said = f"{path.name} was not saved: {error.strerror}. What is on the disk is as it was."
            elsewhere = "Save elsewhere"
            if self._ask("Not saved", said, (elsewhere, "Not now")) != elsewhere:
                return False
            return self.save_as()
        self._remember(path)
        return True

    def _remember(self, path: Path) -> None:
        if self._settings is not None:
            self._settings.add_recent(path)

    def look_at_disk(self) -> None:
        """Ask what to do where another program has changed the file; once for each change."""
        session = self._session
        path = session.path
        if self._asking or path is None or not session.document.changed_on_disk:
            return
        seen = (path, session.document.disk_digest())
        if seen == self._ignored:
            return
        if seen[1] is None:
            self._ignored = seen
            self._say_gone(path)
            return
        lost = " What is not saved here would be lost." if session.modified else ""
        read, keep = "Read it again", "Keep what is here"
        said = f"{path.name} was changed by another program.{lost}"
        if self._ask("Changed on disk", said, (keep, read)) == read:
            try:
                session.open_file(path)
            except BuildErrors as errors:
                self._say(f"{path.name} was not opened", "\n".join(errors.lines(SHOWN_ERRORS)))
        self._ignored = seen

    def _say_gone(self, path: Path) -> None:
        """Say that the build's file is not where it was, or cannot be read, and offer to save."""
        said = f"{path.name} is no longer there to read. What is shown is in this window alone."
        save = "Save it elsewhere"
        if self._ask("File gone", said, (save, "Not now")) == save:
            self.save_as()

    def wants(self, left: RecoveredWork) -> bool:
        """Ask whether work that a killed window left is wanted; tell the answer.

        What is thrown away is never offered again.
        """
        of = f" of {left.path.name}" if left.path is not None else ""
        said = f"Urgens was ended before {left.build.name}{of} was saved. The work is still here."
        take, drop, leave = "Take it up again", "Throw it away", "Leave it for later"
        answer = self._ask("Unsaved work", said, (take, drop, leave))
        if answer == drop:
            try:
                left.forget()
            except OSError as error:
                self._say("It is still there", f"{left.kept}: {error.strerror}")
        return answer == take

    def _ask(self, title: str, words: str, answers: tuple[str, ...]) -> str:
        """Ask a question; meanwhile nobody asks what another program has changed."""
        self._asking = True
        try:
            return answered(self._window, title, words, answers)
        finally:
            self._asking = False

    def write_sheet(self, form: str) -> None:
        """Ask where the sheet goes and write it; form: pdf, html or csv."""
        from urgens.sheet.files import write_solution

        if not_entered(self._window) is not None:
            return
        path = self._where_to("Write the sheet", f".{form}", f"{form.upper()} (*.{form})")
        if path is None:
            return
        try:
            session = self._session
            write_solution(session.solution, path, session.units, session.sheet_asked)
        except BuildErrors as errors:
            self._say("The sheet was not written", "\n".join(errors.lines(SHOWN_ERRORS)))

    def print_sheet(self) -> None:
        """Ask for a printer and print the sheet."""
        from PySide6.QtPrintSupport import QPrintDialog

        from urgens.sheet.files import set_sheet

        if not_entered(self._window) is not None:
            return
        session = self._session
        sheet = set_sheet(session.solution, session.units, session.sheet_asked)
        printer = sheet.printer()
        dialog = QPrintDialog(printer, self._window)
        dialog.setMinMax(1, sheet.pages)
        if dialog.exec() != QPrintDialog.DialogCode.Accepted:
            return
        try:
            sheet.print_on(printer)
        except OSError as error:
            self._say("The sheet was not printed", f"{error}. Write it as PDF and print that.")

    def may_leave(self) -> bool:
        """Ask about what is not entered or not saved; tell whether this build may be left."""
        label = not_entered(self._window)
        if label is not None:
            said = f"{label.name} is typed and cannot be entered: {label.error}"
            leave = "Leave it out"
            if self._ask("Not entered", said, ("Stay here", leave)) != leave:
                return False
            label.leave_out()
        if not self._session.modified:
            return True
        said = f"{self._session.build.name} has changes that are not saved."
        box = Message(QMessageBox.Icon.Warning, "Not saved", said, parent=self._window)
        save = box.addButton("Save", QMessageBox.ButtonRole.AcceptRole)
        drop = box.addButton("Leave without saving", QMessageBox.ButtonRole.DestructiveRole)
        stay = box.addButton("Stay here", QMessageBox.ButtonRole.RejectRole)
        box.setDefaultButton(save)
        box.setEscapeButton(stay)
        box.exec()
        if box.clickedButton() is save:
            return self.save()
        return box.clickedButton() is drop

    def say_refused(self, words: str) -> None:
        """Say why an edit was not made."""
        self._say("Nothing was changed", words)

    def say_not_kept(self, why: str) -> None:
        """Say that unsaved work cannot be kept aside."""
        self._say("Unsaved work is not kept aside", f"{why}. Save often: a crash would lose it.")

    def say_unread(self, paths: Sequence[Path]) -> None:
        """Say that work which was kept aside cannot be read; it is put out of the way."""
        put = [_put_aside(kept) for kept in paths]
        rows = [str(aside) for aside in put[:SHOWN_ERRORS]]
        left = len(put) - len(rows)
        rows += [f"… and {left} more"] if left > 0 else []
        self._say("Work kept aside cannot be read", "\n".join(("It is still there:", *rows)))

    def _say(self, title: str, words: str) -> None:
        Message(QMessageBox.Icon.Warning, title, title, words, self._window).exec()


def file_name(name: str) -> str:
    """Return a file's name for what is called so, its ending still to come."""
    return "-".join(re.findall(r"[\w+]+(?:\.[\w+]+)*", name.lower())) or "build"


def _put_aside(kept: Path) -> Path:
    aside = kept.with_suffix(".unread")
    try:
        return kept.replace(aside)
    except OSError:
        return kept
