"""A plot in the look of the house, with labels that keep out of each other's way."""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QContextMenuEvent, QKeyEvent, QPainter, QWheelEvent
from PySide6.QtWidgets import QGraphicsItem, QStyleOptionGraphicsItem, QWidget

from urgens.ui.theme.paint import T, face, laid_out, metrics, pen, width
from urgens.ui.widgets.curve import PlotCurve
from urgens.ui.widgets.label_placer import DIRECTIONS, Box, Label, overlap, place
from urgens.ui.widgets.markers import Marker, MarkerLayer
from urgens.ui.widgets.plot_file import plot_menu
from urgens.ui.widgets.plotting import pg

LEADER_FROM = 26.0  # px between anchor and label from which a line joins them
HANDLE_HALF = 20.0  # px; what a hand can hit
CACHED = QGraphicsItem.CacheMode.DeviceCoordinateCache  # for what a drag leaves as it is
CURVE_STEP = 3  # every how many points of a curve labels keep clear of


@dataclass(frozen=True)
class Note:
    """A label of a plot: words near a point in data coordinates."""

    words: str
    at: tuple[float, float]
    color: str = field(default_factory=lambda: str(T.ink))
    size: int = 15
    weight: int = 500
    sides: Sequence[tuple[int, int]] = field(default=DIRECTIONS)
    leader: bool = True

    @property
    def shown_size(self) -> int:
        """The size of its letters at the scale in use [px]."""
        return round(self.size * T.scale)


def note_size(note: Note) -> tuple[float, float]:
    """Return width and height of a note's words [px]."""
    height = metrics(note.shown_size, note.weight).height() + 1
    return width(note.words, note.shown_size, note.weight) + 2, height


class _Notes(QGraphicsItem):
    """Paints the notes of a plane on top of it, in scene coordinates."""

    def __init__(self) -> None:
        super().__init__()
        self.setZValue(1000)
        self.setAcceptedMouseButtons(Qt.MouseButton.NoButton)
        self.placed: list[tuple[Note, QPointF, QRectF]] = []
        self._bounds = QRectF()

    def show_notes(self, placed: list[tuple[Note, QPointF, QRectF]], bounds: QRectF) -> None:
        if bounds != self._bounds:
            self.prepareGeometryChange()
            self._bounds = bounds
        self.placed = placed
        self.update()

    def boundingRect(self) -> QRectF:
        return self._bounds

    def paint(
        self, painter: QPainter, option: QStyleOptionGraphicsItem, widget: QWidget | None = None
    ) -> None:
        ground = QColor(T.sheet)
        ground.setAlphaF(0.82)
        for note, anchor, box in self.placed:
            near = QPointF(
                min(max(anchor.x(), box.left()), box.right()),
                min(max(anchor.y(), box.top()), box.bottom()),
            )
            if note.leader and (near - anchor).manhattanLength() > LEADER_FROM:
                painter.setPen(pen(T.muted))
                painter.drawLine(anchor, near)
            painter.fillRect(box.adjusted(-2, 1, 2, -1), ground)
            painter.setFont(face(note.shown_size, note.weight))
            painter.setPen(QColor(note.color))
            painter.drawStaticText(
                box.topLeft(), laid_out(note.words, note.shown_size, note.weight)
            )


class Plane(pg.PlotWidget):
    """A plot: fixed range, no menu, zoomed only with Ctrl and the wheel."""

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent, background=T.sheet, enableMenu=False)
        self.setAccessibleName(name)
        self.setFrameShape(self.Shape.NoFrame)
        # A cosmetic pen is wider than its bounds in data units say: smaller updates leave traces.
        self.setViewportUpdateMode(self.ViewportUpdateMode.FullViewportUpdate)
        self.plotItem.ctrlMenu.setParent(self, Qt.WindowType.Popup)  # else it outlives the plot
        self.plotItem.hideButtons()
        self.plotItem.setMouseEnabled(False, False)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        self.viewport().setFocusPolicy(Qt.FocusPolicy.NoFocus)  # it would be one more stop of Tab
        for side in ("left", "bottom"):
            axis = self.plotItem.getAxis(side)
            axis.setStyle(
                tickFont=face(round(13 * T.scale)),
                tickLength=0,
                tickTextOffset=6,
                maxTickLevel=0,
                hideOverlappingLabels=False,
            )
            axis.setPen(pen(T.hair))
            axis.setTextPen(pen(T.muted))
            axis.enableAutoSIPrefix(False)
            axis.setCacheMode(CACHED)
        self.plotItem.showGrid(x=True, y=True, alpha=0.55)
        self._notes: list[Note] = []
        self._moving: Note | None = None
        self._still: list[tuple[Note, QPointF, QRectF]] = []
        self._obstacles: list[NDArray[np.float64]] = []
        self._handles: list[tuple[float, float]] = []
        self._scene_curves: list[NDArray[np.float64]] = []
        self._scene_handles: list[Box] = []
        self._markers: list[Marker] = []
        self._marker_layer = MarkerLayer()
        self._layer = _Notes()
        self.scene().addItem(self._marker_layer)
        self.scene().addItem(self._layer)
        self.box = self.plotItem.vb
        for changed in (self.box.sigResized, self.box.sigRangeChanged):
            changed.connect(self.place_notes)
            changed.connect(self._place_markers)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        menu = plot_menu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        menu.popup(event.globalPos())

    def add_curve(
        self,
        color: str,
        width: float = 1.0,
        style: Qt.PenStyle = Qt.PenStyle.SolidLine,
        *,
        name: str = "",
    ) -> PlotCurve:
        """Add an empty curve and return it; `name` is what its figures are called in a file."""
        curve = PlotCurve(color, width, style)
        curve.name = name
        self.plotItem.addItem(curve, ignoreBounds=True)
        return curve

    def set_range(self, x: tuple[float, float], y: tuple[float, float]) -> None:
        """Show these ranges exactly."""
        if self.box.viewRange() == [list(x), list(y)]:
            return
        self.plotItem.setRange(xRange=x, yRange=y, padding=0)

    def set_markers(self, markers: list[Marker]) -> None:
        """Show markers, the last on top."""
        self._markers = markers
        self._place_markers()

    def _place_markers(self) -> None:
        corner, size = self._bounds()
        points = self._to_scene(np.array([m.at for m in self._markers]).reshape(-1, 2))
        self._marker_layer.show_points(
            [(m.shape, QPointF(*p)) for m, p in zip(self._markers, points, strict=True)],
            QRectF(*corner, *size),
        )

    def set_notes(
        self,
        notes: list[Note],
        curves: list[tuple[NDArray[np.float64], NDArray[np.float64]]],
        handles: list[tuple[float, float]],
    ) -> None:
        """Show notes that keep clear of curves and handles, all in data coordinates.

        Where there is a moving note it is expected to be set anew after this.
        """
        self._notes = notes
        self._obstacles = [np.column_stack(curve)[::CURVE_STEP] for curve in curves]
        self._handles = handles
        self._place_still()
        if self._moving is None:
            self._layer.show_notes(self._still, QRectF(*sum(self._bounds(), ())))

    def set_moving_note(self, note: Note) -> None:
        """Show one more note, which keeps clear of the others and often moves."""
        self._moving = note
        self._place_moving()

    def covers_a_note(self, point: tuple[float, float]) -> bool:
        """Tell whether a handle at a point of the data would stand on a note."""
        around = self._around(point)
        boxes = [(b.x(), b.y(), b.width(), b.height()) for _, _, b in self._still]
        return any(overlap(box, around) for box in boxes)

    def notes(self) -> list[tuple[str, Box]]:
        """Return the words shown and where they are [px]."""
        return [(n.words, (b.x(), b.y(), b.width(), b.height())) for n, _, b in self._layer.placed]

    def place_notes(self) -> None:
        """Find room for all notes at the present size."""
        self._place_still()
        self._layer.show_notes(self._still, QRectF(*sum(self._bounds(), ())))
        self._place_moving()

    def _place_still(self) -> None:
        self._scene_curves = [self._to_scene(curve) for curve in self._obstacles]
        self._scene_handles = [self._around(handle) for handle in self._handles]
        self._still = self._placed(self._notes)

    def _place_moving(self) -> None:
        if self._moving is None:
            return
        corner, size = self._bounds()
        others = [(b.x(), b.y(), b.width(), b.height()) for _, _, b in self._still]
        moving = self._placed([self._moving], others)
        self._layer.show_notes([*self._still, *moving], QRectF(*corner, *size))

    def _placed(
        self, notes: list[Note], taken: Sequence[Box] = ()
    ) -> list[tuple[Note, QPointF, QRectF]]:
        """Place notes inside the plot, clear of what is `taken`, handles and curves."""
        corner, size = self._bounds()
        anchors = self._to_scene(np.array([note.at for note in notes]).reshape(-1, 2))
        labels = [
            Label(note.words, (float(x), float(y)), note_size(note), note.sides)
            for note, (x, y) in zip(notes, anchors, strict=True)
        ]
        inner = (corner[0] + 3, corner[1] + 2, size[0] - 6, size[1] - 4)
        boxes = place(labels, inner, self._scene_curves, self._scene_handles, taken)
        return [
            (note, QPointF(*anchor), QRectF(*box))
            for note, anchor, box in zip(notes, anchors, boxes, strict=True)
            if box is not None
        ]

    def _bounds(self) -> tuple[tuple[float, float], tuple[float, float]]:
        box = self.box.mapRectToScene(self.box.boundingRect())
        return (box.x(), box.y()), (box.width(), box.height())

    def scene_point(self, x: float, y: float) -> QPointF:
        """Return where a point of the data is in the scene [px]."""
        return QPointF(self.box.mapViewToScene(QPointF(x, y)))

    def _around(self, point: tuple[float, float]) -> Box:
        half = HANDLE_HALF * 0.6 * T.scale
        x, y = self._to_scene(np.array([point]))[0]
        return (float(x) - half, float(y) - half, 2 * half, 2 * half)

    def _to_scene(self, points: NDArray[np.float64]) -> NDArray[np.float64]:
        """Map points, shape (n, 2), from data to scene [px], all at once."""
        (left, top), (width, height) = self._bounds()
        (x0, x1), (y0, y1) = self.box.viewRange()
        x = left + (points[:, 0] - x0) * width / (x1 - x0)
        y = top + (y1 - points[:, 1]) * height / (y1 - y0)
        return np.column_stack((x, y))

    def wheelEvent(self, event: QWheelEvent) -> None:
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            factor = 0.87 if event.angleDelta().y() > 0 else 1 / 0.87
            self.box.scaleBy((factor, factor), self.box.mapSceneToView(event.position()))
            event.accept()
        else:
            event.ignore()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        event.ignore()  # arrows belong to the press, or to a handle of a subclass
