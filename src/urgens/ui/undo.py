"""Steps of the undo stack: from one build to another, a drag as one of them."""

from collections.abc import Callable

from PySide6.QtGui import QUndoCommand

from urgens.document import Build


class Drag:
    """One drag, and the step of the undo stack that holds it."""

    command: "Edit | None" = None


class Edit(QUndoCommand):
    """From one build to another; `show` is how a build is brought to the screen."""

    def __init__(
        self,
        show: Callable[[Build], None],
        before: Build,
        after: Build,
        label: str,
        drag: Drag | None,
    ) -> None:
        super().__init__(label)
        self._show, self._before, self._after = show, before, after
        self._drag = drag
        self.cancelled = False
        if drag is not None and drag.command is None:
            drag.command = self

    def id(self) -> int:
        return 1 if self._drag is not None else -1

    def mergeWith(self, other: QUndoCommand) -> bool:
        if not isinstance(other, Edit) or other._drag is not self._drag:
            return False
        self._after = other._after
        return True

    def redo(self) -> None:
        self._show(self._after)

    def undo(self) -> None:
        self._show(self._before)
        self.setObsolete(self.cancelled)  # what was cancelled cannot be done again
