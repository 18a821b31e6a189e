"""What is longer than its room, to be scrolled by wheel, by bar, or by keys."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QScrollArea, QWidget

RING = 2  # px around it that show the focus


def scrolled(inner: QWidget, name: str, *, across: bool = False) -> QScrollArea:
    """Return an area around `inner`; `name` is said to who listens.

    `across`: also from side to side, where `inner` is wider than its room.
    """
    area = QScrollArea()
    area.setAccessibleName(f"{name}, to be scrolled")
    area.setProperty("ring", "true")
    area.setFrameShape(QFrame.Shape.Box)
    area.setWidgetResizable(True)
    if not across:
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    area.setWidget(inner)
    return area


class _Steady(QScrollArea):
    """Is as wide inside with its bar as without it: nothing moves under a hand when it comes."""

    def __init__(self) -> None:
        super().__init__()
        self.verticalScrollBar().rangeChanged.connect(self._keep_wide)
        self._keep_wide(0, 0)

    def _keep_wide(self, _: int, most: int) -> None:
        bar = 0 if most else self.verticalScrollBar().sizeHint().width()
        self.setViewportMargins(0, 0, bar, 0)


def rolled(inner: QWidget, *, across: bool = False, steady: bool = False) -> QScrollArea:
    """Return an area around what takes the focus itself, so that nothing is cut in a low window.

    `across`: also from side to side; `steady`: as wide inside whether there is a bar or not.
    """
    area = _Steady() if steady else QScrollArea()
    area.setWidget(inner)
    area.setWidgetResizable(True)
    if not across:
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    return area
