"""The document that is open: the build, the steps that led to it, and its file."""

import hashlib
from datetime import datetime
from pathlib import Path

from PySide6.QtCore import QObject, Signal
from PySide6.QtGui import QUndoStack
from shiboken6 import isValid

from urgens.document import Build, BuildChange, BuildErrors, changed, dumps, load, save
from urgens.document.catalogue import named
from urgens.document.edits.past import with_history
from urgens.document.edits.worked_out import moved_by_readings
from urgens.document.files import is_read_only
from urgens.document.whole_file import content
from urgens.ui.session.undo import Edit, UndoDrag


class OpenDocument(QObject):
    """One build without its set-ups laid over it; all that changes it goes through `take`."""

    replaced = Signal()  # the build is another one now
    file_changed = Signal()

    def __init__(self, build: Build, path: Path | None, parent: QObject) -> None:
        super().__init__(parent)
        self.undo_stack = QUndoStack(self)
        self.undo_stack.cleanChanged.connect(self._clean_changed)
        self.drag: UndoDrag | None = None
        self.base, self.path = build, path
        self.saved = build  # as its file has it, or as it was begun
        self._digest = _digest(path)

    def __del__(self) -> None:
        """Free the steps while everything is whole.

        The collector of garbage may otherwise free a step that the stack still holds, which frees
        it once more.
        """
        if isValid(self.undo_stack):
            self.undo_stack.blockSignals(True)
            self.undo_stack.clear()

    def _clean_changed(self) -> None:
        self.file_changed.emit()

    def start(self, build: Build, path: Path | None) -> None:
        """Take another build; nothing of the one before is left, nor is anyone told yet."""
        self.drag = None
        self.base, self.path = build, path
        self.saved = build
        self.undo_stack.clear()
        self._digest = _digest(path)

    def _show(self, build: Build) -> None:
        self.base = build
        self.replaced.emit()

    def _shown(self) -> Build:
        return self.base

    def put(self, build: Build, label: str, within: UndoDrag | None = None) -> None:
        """Put another build in place of this one, as one step; all `within` something are one.

        A default that is typed is another build as well: it is given then.
        """
        if build != self.base or dumps(build) != dumps(self.base):
            self.undo_stack.push(Edit(self._show, self._shown, build, label, within or self.drag))
            if within is not None:
                within.after = self.base

    def counting(self, before: UndoDrag | None) -> UndoDrag:
        """Return what counts go into as one step: what they went into, while nothing came since."""
        if before is not None and before.after is self.base and not self.undo_stack.isClean():
            return before
        return UndoDrag(self.base)

    def take(self, change: BuildChange, setup: str | None, within: UndoDrag | None = None) -> None:
        """Change the build, or one of its set-ups, as one step; raises BuildErrors.

        While a drag is under way all its steps are one, and so are those `within` something.
        """
        made = changed(self.base, change, setup)
        moved = [named(made, path) for path in moved_by_readings(self.base, made, change.values)]
        again = f"; worked out again: {', '.join(moved)}" if moved else ""
        self.put(made, f"{change.label}{again}", within)

    def begin_drag(self) -> None:
        """From here on edits belong to one drag."""
        self.drag = UndoDrag(self.base)

    def end_drag(self) -> None:
        """End the drag; what it did is one step."""
        self.drag = None

    def cancel_drag(self) -> None:
        """Put back what the drag changed, and leave no step behind."""
        command = self.drag.command if self.drag is not None else None
        self.drag = None
        if command is not None:
            command.cancelled = True
            self.undo_stack.undo()

    # --- its file --------------------------------------------------------------------------

    def save(self, path: Path) -> None:
        """Write the build to `path`, which becomes its file; raises OSError.

        What it changes becomes an entry of its history, which no undo takes away.
        """
        built, written = self.base, with_history(self.saved, self.base, datetime.now())
        save(written, path)
        self.base = self.saved = written
        self.path = path
        self._digest = _digest(path)
        self.undo_stack.setClean()
        self.file_changed.emit()
        if written is not built:
            self.replaced.emit()

    @property
    def modified(self) -> bool:
        """Whether there is something to save."""
        return not self.undo_stack.isClean()

    @property
    def changed_on_disk(self) -> bool:
        """Whether the file is another than was read or written here, or is gone."""
        return self.path is not None and _digest(self.path) != self._digest

    def disk_digest(self) -> bytes | None:
        """Return a digest of the file as it is on the disk now."""
        return _digest(self.path)

    @property
    def read_only(self) -> bool:
        """Whether the file is marked as not to be written."""
        return self.path is not None and self.path.exists() and is_read_only(self.path)


def as_saved(build: Build, path: Path | None) -> tuple[Build, Path | None]:
    """Return what recovered work is compared with: what is in its file, if that can be read."""
    if path is not None and path.is_file():
        try:
            return load(path), path
        except BuildErrors:
            return build, None
    return build, path


def _digest(path: Path | None) -> bytes | None:
    """Return a digest of a file's content, None where there is none to read."""
    if path is None:
        return None
    try:
        return hashlib.sha256(content(path)).digest()
    except OSError:
        return None
