"""The strip of parts beside the plan: dragged onto a line or a port, or chosen and put by keys."""

from PySide6.QtCore import QPoint, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QResizeEvent
from PySide6.QtWidgets import QApplication, QPushButton, QWidget

from urgens.guidance.advice.by_hand import OFFERED
from urgens.guidance.words.parts import KINDS, ON_PLAN
from urgens.guidance.words.trade import sold_as
from urgens.ui.theme.paint import T
from urgens.ui.widgets.plain import point_out

HIGH, GAP = 28, 3  # px of a tile, and between two
SHORT = {
    **{kind: ON_PLAN[kind].removesuffix(" valve") for kind in OFFERED}, "sensor": "Sensor",
}  # fmt: skip


class PartTile(QPushButton):
    """One part: a press takes it, a drag carries it, Enter puts it by keys."""

    carried = Signal(QPoint)  # where on the screen it is now
    dropped = Signal(QPoint)
    taken = Signal()

    def __init__(self, kind: str) -> None:
        super().__init__(SHORT[kind])
        self.kind = kind
        self._down: QPoint | None = None
        self._moves = False
        self.setProperty("role", "tile")
        self.setCheckable(True)
        sold = sold_as(kind)
        said = f"Put in: {KINDS[kind]}" + (f", sold as {sold}" if sold else "")
        self.setAccessibleName(said)
        point_out(self, f"{said}. Drag it onto the plan, or press Enter and choose its place.")

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if event.button() == Qt.MouseButton.LeftButton:
            self._down, self._moves = event.position().toPoint(), False
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self.taken.emit()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._down is None:
            return
        way = event.position().toPoint() - self._down
        self._moves = self._moves or way.manhattanLength() >= QApplication.startDragDistance()
        if self._moves:
            self.carried.emit(event.globalPosition().toPoint())

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        if self._down is None:
            return
        self._down = None
        if self._moves:
            self.dropped.emit(event.globalPosition().toPoint())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        keys = (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space)
        if Qt.Key(event.key()) in keys:
            self.taken.emit()
        else:
            event.ignore()


class PartsStrip(QWidget):
    """A tile for each part that can be put in by hand, row by row."""

    taken = Signal(str)  # a kind
    carried = Signal(str, QPoint)
    dropped = Signal(str, QPoint)

    def __init__(self) -> None:
        super().__init__()
        self.tiles: dict[str, PartTile] = {}
        for kind in OFFERED:
            tile = PartTile(kind)
            tile.setParent(self)
            tile.taken.connect(lambda kind=kind: self.taken.emit(kind))
            tile.carried.connect(lambda at, kind=kind: self.carried.emit(kind, at))
            tile.dropped.connect(lambda at, kind=kind: self.dropped.emit(kind, at))
            self.tiles[kind] = tile

    def show_taken(self, kind: str) -> None:
        """Show which part is in the hand, none for an empty kind."""
        for name, tile in self.tiles.items():
            tile.setChecked(name == kind)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Put the tiles in rows, each as wide as its word."""
        super().resizeEvent(event)
        x = y = 0
        high, gap = round(HIGH * T.scale), round(GAP * T.scale)
        for tile in self.tiles.values():
            wide = tile.sizeHint().width()
            if x and x + wide > self.width():
                x, y = 0, y + high + gap
            tile.setGeometry(x, y, wide, high)
            x += wide + gap
        self.setFixedHeight(y + high)


def place_words(kind: str, why: str) -> str:
    """Return what is said while a part is in the hand; why: it may go nowhere, if it may not."""
    name = KINDS[kind].lower()
    if why:
        return f"No place for a {name}: {why}."
    return f"The {name} goes where it is lit: click, or Tab and Enter; Esc lets it go."
