"""Axle loads from four corners, and load cases from a base with people and cargo added."""

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPaintEvent, QShowEvent
from PySide6.QtWidgets import QDialog, QGridLayout, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.document.readings import CornerReadings
from urgens.physics.axle import AXLES
from urgens.physics.loading import with_items
from urgens.quantity import LENGTH, LOAD, QuantityKind, retype, show
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import spaced, tab_by_eye
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.side_view import SideView
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded

AS_WEIGHED = "As weighed"  # the first load case of an own vehicle, until somebody says more
MOST_ITEMS = 5
MOST_OFF = 0.02  # of the whole, between four corners and one weighing of all
CORNERS = ("front left", "front right", "rear left", "rear right")


class _Dialog(QDialog):
    """A drawing on the left, what is typed on the right, one thing to take over."""

    def __init__(self, session: Session, title: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(title)
        self.session = session
        self.said = worded("", "heading")
        self.said.setWordWrap(True)
        self.take = push_button("Take it", "primary", self._take)

    def typed(
        self, name: str, kind: QuantityKind, *, signed: bool = False, zero: bool = True
    ) -> TypedLabel:
        """Return a label for a figure that is kept here."""
        units = self.session.units
        return TypedLabel(name, kind, units, self.refresh, signed=signed, zero=zero, parent=self)

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.layout().activate()  # type: ignore[union-attr]  # each has one
        tab_by_eye(self)
        self.first.setFocus()

    @property
    def first(self) -> QWidget:
        """What is typed first."""
        raise TypeError(f"{type(self).__name__} asks for nothing")

    def feet(self) -> QHBoxLayout:
        """Return the buttons at the foot."""
        close = push_button("Close", "", self.reject)
        row = QHBoxLayout()
        row.addWidget(close)
        row.addWidget(self.take, 1)
        return row

    def refresh(self) -> None:
        """Show what the figures say."""
        raise TypeError(f"{type(self).__name__} shows nothing")

    def _take(self) -> None:
        raise TypeError(f"{type(self).__name__} takes nothing over")


class CornerWeights(_Dialog):
    """Four scales, and perhaps one weighing of the whole vehicle to check them with."""

    def __init__(self, session: Session, parent: QWidget) -> None:
        super().__init__(session, "Axle loads from four corners", parent)
        self.corners: list[TypedLabel] = []
        self.corners = [self.typed(f"Corner {name}", LOAD) for name in CORNERS]
        self.whole = self.typed("The whole vehicle, if weighed at once", LOAD, zero=False)
        self.who = QLineEdit()
        self.who.setPlaceholderText("who sat in it, how full was the tank")
        self.who.setAccessibleName("Who sat in it")
        grid = spaced(QGridLayout(), 14)
        plan = _Plan()
        for index, label in enumerate(self.corners):
            # The car faces left: its left side is the lower one, seen from above.
            column, row = (0, 2)[index // 2], (1, 0)[index % 2]
            grid.addWidget(worded(CORNERS[index], "muted"), row * 2, column)
            grid.addWidget(label, row * 2 + 1, column)
        grid.addWidget(plan, 0, 1, 4, 1)
        check = QHBoxLayout()
        check.addWidget(worded("all of it on one scale, to check", "muted"))
        check.addWidget(self.whole)
        check.addStretch()
        column_ = spaced(QVBoxLayout(self), 12)
        column_.addLayout(grid)
        column_.addLayout(check)
        column_.addWidget(self.who)
        column_.addWidget(self.said)
        column_.addLayout(self.feet())
        self.resize(620, 380)
        self._recall()
        self.refresh()

    @property
    def first(self) -> QWidget:
        """The corner that stands first: front right, the vehicle facing left."""
        return self.corners[1]

    def _path(self, axle: str) -> str:
        return f"vehicle.load_cases[{self.session.solution.case}].{axle}_axle"

    def _recall(self) -> None:
        """Show again what the loads were worked out from, if that is kept."""
        for index, axle in enumerate(AXLES):
            known = self.session.build.evidence.get(self._path(axle))
            if known is not None and isinstance(known.readings, CornerReadings):
                self.corners[2 * index].set_text(known.readings.left.text)
                self.corners[2 * index + 1].set_text(known.readings.right.text)

    def loads(self) -> tuple[float, float] | str | None:
        """Return both axles' loads [N], what is wrong with the corners, or None if one lacks."""
        if not self.corners:
            return None
        values = [label.value for label in self.corners]
        known = [value for value in values if value is not None]
        if len(known) < len(values):
            return None
        front, rear = known[0] + known[1], known[2] + known[3]
        if min(front, rear) <= 0:
            return "An axle without load is none: look at the readings again."
        whole = self.whole.value
        if whole is not None and abs(front + rear - whole) > MOST_OFF * whole:
            off = abs(front + rear - whole) / whole
            sum_ = show(front + rear, LOAD, self.session.units)
            return (
                f"The corners add up to {sum_}, {100 * off:.1f} % off the whole: level the scales, "
                "roll the vehicle to and fro, weigh again."
            )
        return front, rear

    def refresh(self) -> None:
        """Show both axles' loads."""
        found, units = self.loads(), self.session.units
        self.take.setEnabled(isinstance(found, tuple))
        if isinstance(found, tuple):
            front, rear = (show(value, LOAD, units) for value in found)
            share = 100 * found[0] / sum(found)
            self.said.setText(f"Front {front}, rear {rear}: {share:.0f} % in front.")
        else:
            self.said.setText(found or "Type what each wheel's scale reads.")

    def _take(self) -> None:
        found, session = self.loads(), self.session
        if not isinstance(found, tuple):
            return
        values: dict[str, object] = {}
        for axle, value in zip(AXLES, found, strict=True):
            values[self._path(axle)] = retype(value, LOAD, session.units)
        who = self.who.text().strip()
        note = f"four corners, {who}" if who else "four corners"
        place = f"vehicle.load_cases[{session.solution.case}].name"
        names = {one.name for one in session.build.vehicle.load_cases}
        if who and session.solution.case_name == AS_WEIGHED and who not in names:
            values[place] = who  # now it is said how it was weighed
        known = {
            path: {"state": "measured", "note": note, "readings": {
                "kind": "four-corners", "left": left.quantity.text, "right": right.quantity.text,
            }}
            for path, left, right in zip(
                [self._path(axle) for axle in AXLES], self.corners[::2], self.corners[1::2],
                strict=True,
            )
            if left.quantity is not None and right.quantity is not None
        }  # fmt: skip
        session.make(BuildChange("Axle loads from four corners", values, known))
        self.accept()


class _Plan(Painted):
    """The vehicle from above, facing left."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumSize(self.scaled(240, 150))
        self.setAccessibleName("The vehicle from above, facing left")

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            body = QRectF(14, self.down / 2 - 42, self.across - 28, 84)
            ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
            for x in (0.2, 0.72):
                for y in (body.top() - 7, body.bottom() - 7):
                    painter.drawRoundedRect(QRectF(body.left() + x * body.width(), y, 34, 14), 3, 3)
            ink(painter, pen(T.ink, 2), QColor(T.steel))
            painter.drawRoundedRect(body, 22, 22)
            write(painter, "front", QPointF(body.left() + 14, body.center().y() + 5), color=T.ink)


class AddLoad(_Dialog):
    """A new load case: the one that is looked at, with people, fuel and cargo."""

    def __init__(self, session: Session, parent: QWidget) -> None:
        super().__init__(session, "A load case with people and cargo", parent)
        self.items: list[tuple[TypedLabel, TypedLabel, TypedLabel]] = []
        self.name = QLineEdit(f"{session.solution.case_name}, loaded")
        self.name.setAccessibleName("Name of the new load case")
        self.view = _Loaded(self)
        self._rows = QGridLayout()
        self._rows.setHorizontalSpacing(14)
        for column, words in enumerate(("weight", "behind the front axle", "height")):
            self._rows.addWidget(worded(words, "muted"), 0, column)
        self.more = push_button("One more thing", "", self.add_item)
        right = spaced(QVBoxLayout(), 10)
        right.addWidget(worded("name of the new load case", "muted"))
        right.addWidget(self.name)
        right.addLayout(self._rows)
        right.addWidget(self.more)
        right.addWidget(self.said)
        right.addStretch()
        right.addLayout(self.feet())
        row = spaced(QHBoxLayout(self), 24)
        row.addWidget(self.view, 1)
        row.addLayout(right)
        self.name.textChanged.connect(self.refresh)
        self.add_item()
        self.resize(940, 460)

    @property
    def first(self) -> QWidget:
        """Its name, before its figures."""
        return self.name

    def add_item(self) -> None:
        """Ask for one more thing."""
        row = len(self.items) + 1
        labels = (
            self.typed(f"Weight {row}", LOAD),
            self.typed(f"Distance {row} behind the front axle", LENGTH, signed=True),
            self.typed(f"Height {row}", LENGTH),
        )
        self.items.append(labels)
        for column, label in enumerate(labels):
            self._rows.addWidget(label, row, column)
            label.show()
        self.more.setEnabled(row < MOST_ITEMS)
        self.refresh()
        if self.isVisible():
            self.layout().activate()  # type: ignore[union-attr]  # it has one
            tab_by_eye(self)
            labels[0].setFocus()

    def whole_items(self) -> list[tuple[float, float, float]]:
        """Return what is typed in full: weights [N], distances [m], heights [m]."""
        found = []
        for weight, behind, high in self.items:
            if weight.value is not None and behind.value is not None and high.value is not None:
                found.append((weight.value, behind.value, high.value))
        return found

    def loaded(self) -> tuple[float, float, float] | str | None:
        """Return both axles' loads [N] and the height [m], or what is wrong; None without items."""
        items = self.whole_items()
        if not items:
            return None
        build = self.session.build
        case = build.vehicle.load_cases[self.session.solution.case]
        weights, behind, heights = np.array(items).T
        front, rear, high = with_items(
            case.front_axle.value,
            case.rear_axle.value,
            case.cg_height.value,
            build.vehicle.wheelbase.value,
            weights,
            behind,
            heights,
        )
        if min(float(front), float(rear)) <= 0:
            end = "front" if front <= 0 else "rear"
            return (
                f"So loaded the {end} axle lifts: the centre of gravity is outside the wheelbase."
            )
        names = {known.name for known in build.vehicle.load_cases}
        if self.name.text().strip() in names or not self.name.text().strip():
            return "Give the new load case a name of its own."
        return float(front), float(rear), float(high)

    def refresh(self) -> None:
        """Show the new loads."""
        found, units = self.loaded(), self.session.units
        self.take.setEnabled(isinstance(found, tuple))
        if isinstance(found, tuple):
            front, rear = (show(value, LOAD, units) for value in found[:2])
            high = show(found[2], LENGTH, units)
            self.said.setText(f"Front {front}, rear {rear}, centre of gravity {high} high.")
        else:
            self.said.setText(found or "Type a weight, where it is, and how high.")
        self.view.update()

    def _take(self) -> None:
        found, session = self.loaded(), self.session
        if not isinstance(found, tuple):
            return
        name, units = self.name.text().strip(), session.units
        now = range(len(session.build.vehicle.load_cases))
        new = {
            "name": name,
            "front_axle": retype(found[0], LOAD, units),
            "rear_axle": retype(found[1], LOAD, units),
            "cg_height": retype(found[2], LENGTH, units),
        }
        session.make(BuildChange(name, orders={"vehicle.load_cases": [*now, new]}))
        session.set_load_case(name)
        self.accept()


class _Loaded(Painted):
    """The vehicle with what is added as weights where they are."""

    def __init__(self, dialog: AddLoad) -> None:
        super().__init__()
        self._dialog = dialog
        self.setMinimumSize(self.scaled(440, 240))
        self.setAccessibleName("The vehicle and what is added to it")

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            session = self._dialog.session
            solution = session.solution
            view = SideView.of(solution.build, solution.system)
            road = self.down - 40
            to_px = view.fitted(QRectF(20, 40, self.across - 40, road - 40))
            view.paint(painter, to_px)
            painter.setPen(pen(T.ink, 2))
            painter.drawLine(QPointF(0, road), QPointF(self.across, road))
            for weight, behind, high in self._dialog.whole_items():
                at = to_px.map(QPointF(behind, high))
                ink(painter, pen(T.ink, 2), QColor(T.fluid[1]))
                painter.drawEllipse(at, 9, 9)
                painter.drawLine(at + QPointF(0, 9), QPointF(at.x(), road))
                words = str(show(weight, LOAD, session.units))
                write(painter, words, QPointF(at.x(), road + 20), side="middle", color=T.ink)
