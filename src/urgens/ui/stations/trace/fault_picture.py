"""Where the fault may sit: the vehicle from above, each place as dark as its share."""

from collections.abc import Mapping
from itertools import pairwise
from typing import Literal

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy

from urgens.guidance.tracing.fault_places import FaultPlace, shading
from urgens.ui.theme.paint import T, ink, outline, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted, ring
from urgens.ui.widgets.plain import point_out

USUAL = (320, 196)  # px
LEAST = 0.08  # of full shade: what is fainter is left white
DARK = 0.55  # shade from which its figure is written light
# What a place is called in it, the longest that fits; others by their own name.
SHORT = {"booster": ("boost",), "switch": ("sw.",), "vehicle": ("tyres, load, road", "tyres, road",
                                                              "road")}  # fmt: skip
SIDE_Y = {"right": 0.0, "left": 1.0}
WHEEL = (92.0, 24.0)
HOSE = (22.0, 32.0)
BOX = 24.0  # px: of a valve
PIPE = 6.0


class FaultPicture(Painted):
    """`chosen` names the place that a click or an arrow key is at; the front is on the left."""

    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self._places: dict[str, FaultPlace] = {}
        self._shade: Mapping[str, float] = {}
        self.boxes: dict[str, QRectF] = {}
        self.at, self._crossed = "", False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setMinimumHeight(self.scaled(*USUAL).height())
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName("Where the fault may sit")

    def sizeHint(self) -> QSize:
        return self.scaled(*USUAL)

    @property
    def place(self) -> FaultPlace | None:
        """The place that is looked at, the likeliest where none is chosen."""
        return self._places.get(self.at) or next(iter(self._places.values()), None)

    def show_places(self, places: tuple[FaultPlace, ...], *, crossed: bool = False) -> None:
        """Show every place of a build, the likeliest first; lines that are `crossed` go singly."""
        self._crossed = crossed
        self._places = {one.id: one for one in places}
        self._shade = shading(places)
        if self.at not in self._places:
            self.at = ""
        self._tell()
        self.update()

    def _tell(self) -> None:
        place = self.place
        self.setAccessibleDescription("" if place is None else told(place))
        point_out(self, "" if place is None else told(place))

    # --- choosing ----------------------------------------------------------------------------

    def choose(self, place: str) -> None:
        """Look at one place."""
        self.at = place
        self._tell()
        self.update()
        self.chosen.emit(place)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        found = self._under(event)
        if found:
            self.choose(found)

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        found = self._under(event)
        point_out(self, told(self._places[found]) if found else "")

    def _under(self, event: QMouseEvent) -> str:
        spot = self.spot(event)
        over = [place for place, box in self.boxes.items()
                if box.adjusted(-3, -3, 3, 3).contains(spot)]  # fmt: skip
        return over[-1] if over else ""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {Qt.Key.Key_Right: 1, Qt.Key.Key_Down: 1, Qt.Key.Key_Left: -1, Qt.Key.Key_Up: -1}
        step = steps.get(Qt.Key(event.key()))
        if step is None or not self._places:
            event.ignore()
            return
        names = [*self._places]  # the likeliest first
        now = names.index(self.at) if self.at in names else 0
        self.choose(names[(now + step) % len(names)])

    # --- painting ----------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        if not self._places:
            return
        self.boxes = self._laid()
        with self.begin() as painter:
            self._draw_pipes(painter)
            for place in self._places:
                if not place.startswith("lines:"):
                    self._draw(painter, place, self.boxes[place])
            if self.hasFocus():
                ring(painter, self)

    @property
    def _sides(self) -> tuple[float, float]:
        """Where the wheels of front and rear are, across."""
        return 34.0, self.across - 34.0

    def _laid(self) -> dict[str, QRectF]:
        """Return where every place is drawn."""
        left, right = self._sides
        middle = self.across * 0.5 + 6.0
        main, low = self.down * 0.42, self.down * 0.66
        boxes = {
            "cylinder": QRectF(middle - 46, main - 12, 62, 24),
            "reservoir": QRectF(middle - 52, main - 42, 74, 22),
            "booster": QRectF(middle + 20, main - 14, 40, 46),
            "rod": QRectF(middle + 63, main - 12, 46, 24),
            "switch": QRectF(middle - 88, main - 12, 36, 24),
            "joints": QRectF(left + 28, low - (22 if self._crossed else 11), 56, 22),
            "vehicle": QRectF(WHEEL[0] + 8, self.down - 25, self.across - 2 * WHEEL[0] - 16, 22),
            "lines:front": QRectF(left, main - 5, middle - 46 - left, 10),
            "lines:rear": QRectF(middle, low - 5, right - middle, 10),
        }
        if "booster" not in self._places:
            boxes["rod"].translate(-38, 0)
        for axle, x in (("front", left), ("rear", right)):
            for side, share in SIDE_Y.items():
                y = 14.0 + share * (self.down - 28.0)
                outer = 2 + WHEEL[0] / 2 if axle == "front" else self.across - 2 - WHEEL[0] / 2
                boxes[f"brake:{axle}-{side}"] = _around(QPointF(outer, y), WHEEL)
                inside = y + (34.0 if side == "right" else -34.0)
                boxes[f"hose:{axle}-{side}"] = _around(QPointF(x, inside), HOSE)
        for axle, y, start, end in (("front", main, left + 6, middle - 88),
                                    ("rear", low, middle + 12, right - 8)):  # fmt: skip
            valves = [one for one in self._places if one.startswith(f"valve:{axle}")]
            if self._crossed:  # each wheel has a line of its own: its pair looks the same
                y = boxes[f"hose:{axle}-right"].center().y()
            for place, name in enumerate(sorted(valves, reverse=axle == "front"), start=1):
                x = start + (end - start) * place / (len(valves) + 1)
                boxes[name] = _around(QPointF(x, y), (BOX, BOX))
        return boxes

    def _draw_pipes(self, painter: QPainter) -> None:
        """Draw both lines, from the cylinder to the hoses, each shaded by its own share."""
        for axle, place in (("front", "lines:front"), ("rear", "lines:rear")):
            ways = self._ways(axle, self.boxes[place])
            for colour, across in ((T.muted, PIPE + 3), (self._ground(place).name(), PIPE)):
                painter.setPen(pen(colour, across))
                for way in ways:
                    for begin, end in pairwise(way):
                        painter.drawLine(begin, end)
            self._figure(painter, place)

    def _ways(self, axle: str, box: QRectF) -> list[list[QPointF]]:
        """Return the way of an axle's lines: one to both hoses, or one to each where they cross."""
        x, y = self._sides[axle == "rear"], box.center().y()
        hoses = [self.boxes[f"hose:{axle}-{side}"].center() for side in SIDE_Y]
        cylinder = self.boxes["cylinder"]
        if self._crossed:
            out = cylinder.left() + 12 if axle == "front" else cylinder.right() - 14
            ends = (cylinder.top(), cylinder.bottom())
            return [[QPointF(out, end), QPointF(out, hose.y()), hose]
                    for end, hose in zip(ends, hoses, strict=True)]  # fmt: skip
        trunk = [QPointF(cylinder.left() + 8, y), QPointF(x, y)]
        if axle == "rear":
            start = QPointF(cylinder.right() - 14, cylinder.bottom())
            trunk = [start, QPointF(start.x(), y), QPointF(x, y)]
        return [trunk, hoses]

    def _ground(self, place: str) -> QColor:
        shade = self._shade.get(place, 0.0)
        if self._places[place].out or shade < LEAST:
            return QColor(T.sheet)
        return _mixed(QColor(T.sheet), QColor(T.ink), shade)

    def _draw(self, painter: QPainter, place: str, box: QRectF) -> None:
        found = self._places[place]
        first = place == next(iter(self._places))
        line = pen(T.hair, 1.5, Qt.PenStyle.DashLine) if found.out else pen(T.muted, 1.5)
        ink(painter, pen(T.danger, 3) if first and not found.out else line, self._ground(place))
        round_ = 8.0 if place.startswith(("brake", "hose")) else 3.0
        painter.drawRoundedRect(box, round_, round_)
        if place == self.at:
            outline(painter, T.front, 2)
            painter.drawRoundedRect(box.adjusted(-4, -4, 4, 4), round_ + 3, round_ + 3)
        self._letter(painter, place, box)

    def _letter(self, painter: QPainter, place: str, box: QRectF) -> None:
        """Write into a place what it is, as far as there is room, and of 100 how much."""
        found, shade = self._places[place], self._shade.get(place, 0.0)
        colour = T.muted if found.out else (T.sheet if shade >= DARK else T.ink)
        figure = f"{100 * found.share:.0f}" if found.share >= 0.005 and not found.out else ""
        words = [f"{name} {figure}".strip() for name in _names(place)] + [figure]
        fits = next((one for one in words if width(one, 13, 600) < box.width() - 6), "")
        at = QPointF(box.center().x(), box.center().y() + 5)
        write(painter, fits, at, size=13, weight=600, color=colour, side="middle")

    def _figure(self, painter: QPainter, place: str) -> None:
        """Write beside a line of how many of 100 it is."""
        found, x = self._places[place], self._sides[place == "lines:rear"]
        if found.share < 0.005 or found.out:
            return
        said, side = f"lines {100 * found.share:.0f}", 1 if place == "lines:front" else -1
        y = self.down * (0.72 if self._crossed else 0.56 if side > 0 else 0.26)
        align: Literal["left", "right"] = "left" if side > 0 else "right"
        at = QPointF(x + side * 12, y)
        write(painter, said, at, size=13, weight=600, color=T.ink, side=align)


def told(place: FaultPlace) -> str:
    """Return a place with its share, or why it is ruled out."""
    name = place.words[:1].upper() + place.words[1:]
    if place.out:
        return f"{name}: ruled out, {place.out}"
    return f"{name}: {100 * place.share:.0f} of 100"


def _names(place: str) -> tuple[str, ...]:
    kind, _, at = place.partition(":")
    if kind == "brake":
        return (at.replace("-", " "),)
    if kind in ("hose", "valve"):
        return (kind,)
    return SHORT.get(kind, (kind,))


def _around(middle: QPointF, size: tuple[float, float]) -> QRectF:
    wide, high = size
    return QRectF(middle.x() - wide / 2, middle.y() - high / 2, wide, high)


def _mixed(light: QColor, dark: QColor, share: float) -> QColor:
    ends = (
        (light.redF(), dark.redF()),
        (light.greenF(), dark.greenF()),
        (light.blueF(), dark.blueF()),
    )
    return QColor.fromRgbF(*(a + (b - a) * share for a, b in ends))
