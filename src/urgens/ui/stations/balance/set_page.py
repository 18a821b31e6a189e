"""The Balance station."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout

from urgens.physics.axle import AXLES, Axle
from urgens.quantity import PRESSURE, unit_shown
from urgens.ui.session import Session
from urgens.ui.stations.balance.adhesion_plane import AdhesionPlane
from urgens.ui.stations.balance.lock_table import LockTable
from urgens.ui.stations.balance.pressure_plane import PressurePlane
from urgens.ui.stations.balance.valve_controls import ValveControls
from urgens.ui.stations.balance.valve_setting import valve_setting
from urgens.ui.theme.paint import T
from urgens.ui.widgets.layouts import spaced, upright
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import plain_label
from urgens.ui.widgets.scrolled import RING, scrolled
from urgens.ui.widgets.worded import worded


class SetPage(Page):
    """Pressures and what sets them on the left, grip and the verdicts on the right."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.pressures = PressurePlane(session)
        self.adhesion = AdhesionPlane(session)
        self.controls = ValveControls(session)
        self.locks = LockTable(session)
        self._rear_axis = _axis_label(T.rear, Qt.AlignmentFlag.AlignLeft)
        self._front_axis = _axis_label(T.front, Qt.AlignmentFlag.AlignRight)
        self._shaded = worded("shaded: valve ±5 %, slope ±0.03, as made", "small")
        self._lay_out()

    def _lay_out(self) -> None:
        left = spaced(QVBoxLayout(), 0)
        left.addWidget(self._rear_axis)
        left.addWidget(self.pressures, 1)
        under = QHBoxLayout()
        under.addWidget(self._shaded)
        under.addStretch()
        under.addWidget(self._front_axis)
        left.addLayout(under)
        left.addSpacing(4)
        left.addWidget(self.controls)
        column = spaced(QVBoxLayout(self), 8, (0, 0, 0, 4))
        if T.stands_back:
            for widget in (self.adhesion, self.locks):
                widget.setParent(self)
                widget.hide()
            column.addLayout(left, 1)
        else:
            column.addLayout(self._beside(left), 1)

    def _beside(self, left: QVBoxLayout) -> QHBoxLayout:
        """Return the left column beside grip and verdicts."""
        grip = worded("Grip used on each axle, against deceleration", "heading")
        against = _axis_label(T.muted, Qt.AlignmentFlag.AlignRight)
        against.setText("g")
        right = spaced(QVBoxLayout(), 0)
        right.addWidget(grip)
        right.addWidget(self.adhesion, 1)
        foot = QHBoxLayout()
        spread = plain_label("thin: open figures at the ends of their spread")
        spread.setProperty("role", "small")
        foot.addWidget(spread)
        foot.addStretch()
        foot.addWidget(against)
        right.addLayout(foot)
        right.addSpacing(10)
        right.addWidget(worded("Which axle locks first, at what foot", "heading"))
        area = scrolled(self.locks, "Which axle locks first")

        def fit() -> None:
            area.setFixedHeight(self.locks.shown_height() + 2 * RING)

        self.locks.rows_changed.connect(fit)
        fit()
        right.addWidget(area)
        hairline = upright()
        body = spaced(QHBoxLayout(), 18)
        body.addLayout(left, 60)
        body.addWidget(hairline)
        body.addLayout(right, 40)
        return body

    def show_figures(self) -> None:
        """Name the axes."""
        unit = unit_shown(PRESSURE, self.session.units)
        self._rear_axis.setText(f"Rear line, {unit}")
        self._front_axis.setText(f"Front line, {unit}")
        shown = valve_setting(self.session) is not None and not T.stands_back
        self._shaded.setVisible(shown)

    @property
    def summary(self) -> str:
        """What is fitted; from far away what is looked at."""
        return self.view() if T.stands_back else self.fitted()

    def view(self) -> str:
        """Return what is looked at, for where the top bar does not say it."""
        solution = self.session.solution
        return f"{solution.case_name} · μ {solution.surface:.2f}"

    def fitted(self) -> str:
        """One line on what is fitted."""
        build = self.session.build
        bar = "twin cylinders on a balance bar; " if build.master.has_bar else ""
        named = {
            place: " and ".join(valve.kind for valve in build.valves.of(place)) or "no"
            for place in AXLES
        }
        brakes = f"front {build.front.brake.kind}s, rear {build.rear.brake.kind}s"
        if not build.valves.front:
            return f"{bar}{named[Axle.REAR]} valve in the rear line; {brakes}"
        return f"{bar}{named[Axle.FRONT]} valve in front, {named[Axle.REAR]} valve behind; {brakes}"


def _axis_label(color: str, side: Qt.AlignmentFlag) -> QLabel:
    label = plain_label()
    size = round(15 * T.scale)
    label.setStyleSheet(f"color: {color}; font-size: {size}px; font-weight: 600")
    label.setAlignment(side)
    return label
