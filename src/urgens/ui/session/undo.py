"""Steps of the undo stack: what a build differs in from the one before, a drag as one of them."""

from collections.abc import Callable

from PySide6.QtGui import QUndoCommand

from urgens.document import Build
from urgens.document.edits.difference import Difference, difference


class UndoDrag:
    """One drag: the build it began with and came to, and the step of the stack that holds it."""

    def __init__(self, before: Build) -> None:
        self.before = self.after = before
        self.command: Edit | None = None


class Edit(QUndoCommand):
    """From one build to the next, kept as their difference; `show` brings a build to the screen.

    While a drag is under way its build so far is at hand, so that nothing is worked out twice.
    """

    def __init__(
        self,
        show: Callable[[Build], None],
        shown: Callable[[], Build],
        after: Build,
        label: str,
        drag: UndoDrag | None,
    ) -> None:
        super().__init__(label.replace("&", "&&"))  # a step is named in menus
        self._show, self._shown, self._drag = show, shown, drag
        self._fresh: Build | None = after  # to be shown as it was made, the first time
        self.cancelled = False
        self._difference = Difference(())
        if drag is None or drag.command is None:  # else it becomes part of the drag's own step
            self._difference = difference(shown(), after)
        if drag is not None and drag.command is None:
            drag.command = self

    def id(self) -> int:
        return 1 if self._drag is not None else -1

    def mergeWith(self, other: QUndoCommand) -> bool:
        if not isinstance(other, Edit) or self._drag is None or other._drag is not self._drag:
            return False
        self._difference = difference(self._drag.before, self._shown())
        return True

    def redo(self) -> None:
        fresh, self._fresh = self._fresh, None
        self._show(self._difference.forward(self._shown()) if fresh is None else fresh)

    def undo(self) -> None:
        self._show(self._difference.back(self._shown()))
        self.setObsolete(self.cancelled)  # what was cancelled cannot be done again
