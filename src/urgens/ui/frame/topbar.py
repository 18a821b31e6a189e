"""The top bar: the build, and how it is looked at."""

from collections.abc import Callable, Iterable
from typing import Any

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QAction, QResizeEvent, QShowEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QComboBox,
    QFrame,
    QHBoxLayout,
    QLabel,
    QMenu,
    QToolButton,
    QWidget,
)

from urgens.quantity import (
    LENGTH,
    PRESSURE,
    SPEED,
    ShownFigure,
    Units,
    UnitSystem,
    completed,
    parse,
    retype,
    show,
    unit_shown,
)
from urgens.quantity.limits import ROADS, road
from urgens.solve import ICE, WET
from urgens.ui.session import Session
from urgens.ui.theme.icons import icon
from urgens.ui.theme.paint import metrics
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.plain import button_words, plain_label, point_out
from urgens.ui.widgets.setup_menu import SetupMenu

MANY_SETUPS = 2  # besides the build itself, from which on a list is shown
# px; longer names elide
NAME_WIDTH = 190
CASE_WIDTH = 180
SETUP_WIDTH = 170
CASE_NARROW = 116  # px of a load case's name where there is little room


class TopBar(QFrame):
    """Name and menu of the build; load case, road, units; undo and redo."""

    def __init__(
        self, session: Session, make_menu: Callable[[QWidget], QMenu], parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.setObjectName("top")
        self.setFixedHeight(48)
        self._session = session
        self.name = QToolButton()
        self.name.setProperty("role", "name")
        self.name.setMenu(make_menu(self.name))
        self.name.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.name.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.use = plain_label()
        self.use.setProperty("role", "muted")
        self.case = QComboBox()
        self.case.setAccessibleName("Load case")
        self.case.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.case.setMaximumWidth(CASE_WIDTH)
        self.case.activated.connect(lambda index: session.set_load_case(self.case.itemData(index)))
        self.setups: list[QToolButton] = []
        self._setup_row = QHBoxLayout()
        self._setup_row.setSpacing(4)
        self._setup_names: tuple[str, ...] = ()
        self._fitted: object = None  # for what there was room last
        self.more_setups = QComboBox()
        self.more_setups.setAccessibleName("Set-up")
        self.more_setups.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.more_setups.activated.connect(
            lambda index: session.set_setup(self.more_setups.itemData(index))
        )
        self.setup_menu: SetupMenu = SetupMenu(session, "+ set-up")
        self.setup_menu.setProperty("role", "add")
        self._setup_caption = _caption("Set-up")
        self._captions = _caption("Load"), _caption("Road")
        self.roads = self._segments(
            (("Dry", None), ("Wet", WET), ("Ice", ICE)), session.set_surface, "Road"
        )
        self.mu = DimensionLabel("Road, tyre-road coefficient", self._accept_mu, size=18)
        self.mu.stepped.connect(self._step_mu)
        self.speed = DimensionLabel("Speed, for downforce", self._accept_speed, size=18)
        self.units = self._segments(
            tuple((system.value, system) for system in UnitSystem), session.set_units, "Units"
        )
        self.undo = self._button("Undo")
        self.redo = self._button("Redo")
        self._lay_out()
        session.told.connect(self._refresh)
        session.units_changed.connect(self._refresh)
        session.file_changed.connect(self._refresh)
        self._refresh()

    def _segments(
        self, choices: Iterable[tuple[str, Any]], choose: Callable[[Any], None], name: str
    ) -> list[QToolButton]:
        group = QButtonGroup(self)
        group.setExclusive(False)  # a road that is typed is none of them
        buttons = []
        for words, value in choices:
            button = QToolButton()
            button.setText(button_words(words))
            button.setCheckable(True)
            button.setProperty("segment", "true")
            button.setProperty("value", value)
            button.setAccessibleName(f"{name} {words}")
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(lambda _=False, v=value: choose(v))
            group.addButton(button)
            buttons.append(button)
        return buttons

    @staticmethod
    def _button(words: str) -> QToolButton:
        button = QToolButton()
        button.setIconSize(QSize(22, 22))
        button.setAccessibleName(words)
        button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        return button

    def _lay_out(self) -> None:
        row = self._row = QHBoxLayout(self)
        row.setContentsMargins(14, 0, 12, 0)
        row.setSpacing(6)
        row.addWidget(self.name)
        row.addWidget(self.use)
        row.addStretch(1)
        row.addWidget(self._setup_caption)
        row.addLayout(self._setup_row)
        row.addWidget(self.more_setups)
        row.addWidget(self.setup_menu)
        row.addSpacing(10)
        row.addWidget(self._captions[0])
        row.addWidget(self.case)
        row.addSpacing(16)
        row.addWidget(self._captions[1])
        for button in self.roads:
            row.addWidget(button)
        row.addWidget(self.mu)
        row.addWidget(self.speed)
        row.addStretch(2)
        for button in self.units:
            row.addWidget(button)
        row.addSpacing(14)
        row.addWidget(self.undo)
        row.addWidget(self.redo)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        for part in self.findChildren(QWidget):
            part.ensurePolished()  # else the theme's widths are not known yet
        self._fit()

    def _fit(self) -> None:
        """Leave out what says least until the rest has room; what a set-up is called comes last."""
        units = tuple(button.text() for button in self.units)
        said = (self.name.text(), self._setup_names, self.case.count(), self.use.text(), *units)
        room = (self.width(), self.isVisible(), self.speed.isHidden(), said)
        if room == self._fitted:
            return
        self._fitted = room
        captioned = bool(self._setup_names)
        self.use.show()
        self.setup_menu.show()
        self._setup_caption.setVisible(captioned)
        for caption in self._captions:
            caption.show()
        self._narrow(False)
        self.case.setMaximumWidth(CASE_WIDTH)
        self._name_setups(0)
        steps: list[Callable[[], object]] = [
            self.use.hide,
            self._setup_caption.hide,
            lambda: self._narrow(True),
            *(caption.hide for caption in self._captions),
            lambda: self.case.setMaximumWidth(CASE_NARROW),
            self.setup_menu.hide,  # which Size has as well
        ]
        for leave_out in steps:
            if self._short() <= 0:
                return
            leave_out()
        self._name_setups(max(self._short(), 0))

    def _short(self) -> int:
        """Return how many px are lacking."""
        self._setup_row.invalidate()
        self._row.invalidate()
        return self._row.sizeHint().width() - self.width()

    def _narrow(self, tight: bool) -> None:
        for button in (*self.setups, *self.roads, *self.units):
            if bool(button.property("narrow")) is not tight:
                button.setProperty("narrow", "true" if tight else None)
                button.style().unpolish(button)
                button.style().polish(button)

    def _name_setups(self, short: int) -> None:
        """Name the set-ups beside the build, the last one shorter by so many px."""
        if not self.setups:
            return
        button, whole = self.setups[-1], f"B  {self._setup_names[-1]}"
        metric = button.fontMetrics()
        room = min(metric.horizontalAdvance(whole) + 1, SETUP_WIDTH) - short
        button.setText(button_words(metric.elidedText(whole, Qt.TextElideMode.ElideRight, room)))
        point_out(button, "" if button.text() == button_words(whole) else self._setup_names[-1])

    def _refresh(self) -> None:
        session, build = self._session, self._session.build
        star = " •" if session.modified else ""
        room = metrics(22, 700, condensed=False)
        shown = room.elidedText(build.name, Qt.TextElideMode.ElideRight, NAME_WIDTH)
        self.name.setText(button_words(shown + star))
        unsaved = ", not saved" if session.modified else ""
        self.name.setAccessibleName(f"Build {build.name}{unsaved}: menu")
        point_out(self.name, f"{build.name}{unsaved}")
        self.use.setText(build.vehicle.use)
        names = list(session.solution.system.case_names)
        if [self.case.itemData(i) for i in range(self.case.count())] != names:
            self.case.clear()
            for name in names:
                self.case.addItem(name, name)
        self.case.setCurrentIndex(session.solution.case)
        surface = session.solution.surface
        for button in self.roads:
            value = button.property("value")
            own = session.surface_is_own
            button.setChecked(own if value is None else not own and surface == value)
        self.mu.set_value(ShownFigure(f"μ {surface:.2f}", ""), f"{surface:g}")
        self.speed.setVisible(build.vehicle.downforce is not None)
        speed = show(session.speed, SPEED, session.units)
        self.speed.set_value(speed, retype(session.speed, SPEED, session.units))
        self._refresh_setups()
        for button in self.units:
            system = button.property("value")
            shown_in = Units(system, session.units.overrides)
            button.setText(" · ".join(unit_shown(k, shown_in) for k in (LENGTH, PRESSURE)))
            button.setChecked(system is session.units.system)
        self._fit()

    def _accept_mu(self, typed: str) -> None:
        self._session.set_surface(road(typed))

    def _accept_speed(self, typed: str) -> None:
        self._session.set_speed(parse(completed(typed, SPEED, self._session.units), SPEED).value)

    def _step_mu(self, steps: int) -> None:
        low, high = ROADS
        surface = round(self._session.solution.surface + 0.05 * steps, 2)
        self._session.set_surface(min(max(surface, low), high))

    def _refresh_setups(self) -> None:
        """Show the build itself and its set-ups: side by side, or from three on in a list."""
        names = tuple(setup.name for setup in self._session.base.setups)
        if names != self._setup_names:
            self._setup_names = names
            for button in self.setups:
                self._setup_row.removeWidget(button)
                button.hide()
                button.deleteLater()
            choices = [("A  Base", None), *(((f"B  {name}"), name) for name in names)]
            few = 0 < len(names) < MANY_SETUPS
            self.setup_menu.setText("+" if names else "+ set-up")
            self.setups = self._segments(choices, self._session.set_setup, "Set-up") if few else []
            for button in self.setups:
                self._setup_row.addWidget(button)
            self.more_setups.clear()
            self.more_setups.addItem("Base", None)
            for name in names:
                self.more_setups.addItem(name, name)
        self.more_setups.setVisible(len(names) >= MANY_SETUPS)
        for button in self.setups:
            button.setChecked(button.property("value") == self._session.setup)
        chosen = (None, *names).index(self._session.setup)
        self.more_setups.setCurrentIndex(chosen)

    def set_actions(self, undo: QAction, redo: QAction) -> None:
        """Let the two buttons show and do these actions."""
        for button, action, name in ((self.undo, undo, "undo-2"), (self.redo, redo, "redo-2")):
            action.setIcon(icon(name, 22))
            button.setDefaultAction(action)


def _caption(words: str) -> QLabel:
    label = plain_label(words)
    label.setProperty("role", "muted")
    return label
