"""What has been tested so far, the last first."""

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QPushButton, QWidget

from urgens.document.ledger.traces import TraceRun
from urgens.guidance.faults.tables import tables
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded, wrapped


class DoneList(QWidget):
    """`taken_back` names a test whose outcome no longer counts."""

    taken_back = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.buttons: dict[str, QPushButton] = {}
        self._grid = tight(QGridLayout(self))
        self._grid.setColumnStretch(1, 1)

    def show_run(self, run: TraceRun | None) -> None:
        """Show the tests of a run."""
        clear(self._grid)
        self.buttons = {}
        tests = {one.id: one for one in tables().tests}
        done = () if run is None else tuple(reversed(run.tests))
        self.setVisible(bool(done))
        if not done:
            return
        minutes = sum(tests[one.test].minutes for one in done if one.test in tests)
        self._grid.addWidget(worded("Done so far", "heading"), 0, 0, 1, 2)
        self._grid.addWidget(worded(f"{minutes} minutes", "small"), 0, 2)
        for row, one in enumerate(done, start=1):
            test = tests.get(one.test)
            words = one.test if test is None else test.words
            told = next((each.words for each in (() if test is None else test.outcomes)
                         if each.id == one.outcome), one.outcome)  # fmt: skip
            self._grid.addWidget(worded(f"{one.at:%H:%M}", "small"), row, 0)
            self._grid.addWidget(wrapped("small", f"{words}: {told.lower()}"), row, 1)
            button = push_button("×", "small")
            button.setAccessibleName(f"Take back: {words}, {told}")
            button.setFixedWidth(34)
            button.clicked.connect(partial(self.taken_back.emit, one.test))
            self.buttons[one.test] = button
            self._grid.addWidget(button, row, 2)
