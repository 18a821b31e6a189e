"""The figures under the plot: knee, slope, turns or bar, to step or to type."""

from dataclasses import replace

from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QVBoxLayout, QWidget

from urgens.document import Build, BuildChange
from urgens.document.catalogue import figure
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.guidance.advice.recommendation import best_reducing
from urgens.physics.axle import Axle
from urgens.quantity import (
    LENGTH,
    PRESSURE,
    QuantityError,
    ShownFigure,
    completed,
    number_of,
    parse,
    retype,
    show,
)
from urgens.ui.session import Session
from urgens.ui.stations.balance import valve_edits
from urgens.ui.stations.balance.bar_board import BarBoard
from urgens.ui.stations.balance.bar_setting import bar, step_bar
from urgens.ui.stations.balance.valve_setting import (
    ValveSetting,
    knee_moved,
    knee_stepped,
    sloped,
    turned,
    valve_setting,
)
from urgens.ui.theme.paint import T
from urgens.ui.widgets.background import Background
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.dimension_label import SAID, Knowledge
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.plain import plain_label
from urgens.ui.widgets.seen import WhenSeen
from urgens.ui.widgets.stepper import Stepper

BAR = "Bar, to the front"


class ValveControls(QWidget):
    """Steppers for what the rear circuit's valve and the bar can be set to."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.knee = Stepper("Knee", self._accept_knee, color=T.rear)
        self.knee.stepped.connect(self._step_knee)
        self.slope = Stepper("Slope after the knee", self._accept_slope, color=T.rear)
        self.slope.stepped.connect(self._step_slope)
        self.bar = Stepper(BAR, self._accept_bar, color=T.front)
        self.bar.stepped.connect(self._step_bar)
        self.board = BarBoard(session)
        self.fit = push_button("Fit a reducing valve", "", self._fit_valve)
        self._fitted_to: Build | None = None
        self._work = Background(self)
        self._work.ended.connect(self._take_fit)
        self._work.failed.connect(self._fail_fit)
        self.take_out = push_button("Take it out", "", self._take_out)
        self._words = plain_label()
        self._words.setProperty("role", "muted")
        self._words.setWordWrap(True)
        row = self._row = QHBoxLayout()
        row.setSpacing(12)
        for stepper in (self.knee, self.slope, self.bar):
            row.addWidget(stepper)
        row.addStretch()
        foot = spaced(QHBoxLayout(), 16)
        foot.addWidget(self._words, 1)
        foot.addWidget(self.take_out)
        foot.addWidget(self.fit)
        column = tight(QVBoxLayout(self), 8)
        column.addWidget(self.board)
        column.addLayout(row)
        column.addLayout(foot)
        session.solution_changed.connect(WhenSeen(self, self._refresh).ask)
        self._refresh()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if T.stands_back:
            self._stand()

    def _stand(self) -> None:
        """Stand the steppers beside each other where they fit, or in a column."""
        self.setMinimumWidth(1)  # else what stands in a row could not be made narrower again
        shown = [w for w in (self.knee, self.slope, self.bar) if not w.isHidden()]
        need = sum(w.minimumSizeHint().width() + 12 for w in shown)
        fits = self.width() >= need
        way = QBoxLayout.Direction.LeftToRight if fits else QBoxLayout.Direction.TopToBottom
        self._row.setDirection(way)

    def _refresh(self) -> None:
        setting = valve_setting(self._session)
        master = self._session.build.master
        for widget in (self.knee, self.slope, self.take_out):
            widget.setVisible(setting is not None)
        self.fit.setVisible(setting is None and not T.stands_back)
        self.bar.setVisible(isinstance(master, TwinMaster))
        if T.stands_back:
            self._words.hide()
            self.take_out.hide()
            self._stand()
        if isinstance(master, TwinMaster):
            shown = show(master.bar_offset.value, LENGTH, self._session.units)
            self.bar.set_value(shown, master.bar_offset.text)
            pitch = master.bar_thread_pitch
            turn = "" if pitch is None else f", a turn {pitch.text}"
            self.bar.set_caption(f"{BAR}{turn}")
            self.bar.label.set_known(self._known("master.bar_offset"))
        if self._words.text() != (words := self._sentence(setting)):
            self._words.setText(words)  # a text that is set lays the window out again
        if setting is None:
            return
        self.slope.setVisible(setting.kind.has_slope)
        roomy = not isinstance(master, TwinMaster)  # else there are three beside each other
        self.slope.show_buttons(roomy and not isinstance(setting.valve, Adjustable))
        self._show_knee(setting)
        self.slope.set_value(ShownFigure(f"{setting.slope:.2f}", ""), f"{setting.slope:g}")
        self.knee.label.set_known(self._known(f"{setting.path}.{setting.kind.knee_figure}"))
        self.slope.label.set_known(self._known(f"{setting.path}.slope"))

    def _show_knee(self, setting: ValveSetting) -> None:
        valve = setting.valve
        if isinstance(valve, Adjustable):
            self.knee.set_caption("Valve setting")
            unit = "turns" if valve.counted == "turns" else f"of {valve.table[-1][0]:g}"
            self.knee.set_value(ShownFigure(f"{valve.turns:g}", unit), f"{valve.turns:g}")
            return
        units = self._session.units
        if not setting.reached:
            self.knee.set_caption("Knee in this load case")
            self.knee.set_value(ShownFigure("never", ""), "")
            return
        shown = show(setting.knee, PRESSURE, units)
        if setting.states_knee:
            self.knee.set_caption("Knee")
            self.knee.set_value(shown, figure(self._session.build, f"{setting.path}.knee").text)
        else:
            self.knee.set_caption("Knee in this load case")
            self.knee.set_value(shown, retype(setting.knee, PRESSURE, units))

    def _known(self, path: str) -> Knowledge:
        return SAID.get(self._session.said_of(path), Knowledge.YES)

    def _sentence(self, setting: ValveSetting | None) -> str:
        if setting is None:
            return "Nothing reduces pressure in the rear line. Not every car needs it to."
        if not setting.reached:
            return "No press in this load case reaches its knee: it passes everything."
        knee = show(setting.knee, PRESSURE, self._session.units)
        dragging = setting.kind.dragging
        return "" if dragging is None else dragging(setting.valve, str(knee))

    # --- typing and stepping -----------------------------------------------------------------

    def _setting(self) -> ValveSetting:
        setting = valve_setting(self._session)
        assert setting is not None
        return setting

    def _accept_knee(self, typed: str) -> None:
        setting = self._setting()
        if isinstance(setting.valve, Adjustable):
            turns = _number(typed, "turns", "3.5")
            rows = setting.valve.table
            if not rows[0][0] <= turns <= rows[-1][0]:
                raise QuantityError(
                    f"{turns:g} turns is outside the valve's table",
                    f"write {rows[0][0]:g} to {rows[-1][0]:g}",
                )
            self._session.take(replace(turned(setting, turns), planned={}))  # the hand has set it
        elif setting.states_knee:
            knee_typed = completed(typed, PRESSURE, self._session.units)
            values = {f"{setting.path}.knee": knee_typed}
            self._session.take(BuildChange(f"Knee {knee_typed}", values))
        else:
            knee = parse(completed(typed, PRESSURE, self._session.units), PRESSURE).value
            self._session.take(knee_moved(self._session, setting, knee))

    def _accept_slope(self, typed: str) -> None:
        slope = _number(typed, "slope", "0.3")
        self._session.take(
            BuildChange(f"Slope {slope:g}", {f"{self._setting().path}.slope": slope})
        )

    def _accept_bar(self, typed: str) -> None:
        offset = completed(typed, LENGTH, self._session.units)
        self._session.take(BuildChange(f"Bar {offset}", {"master.bar_offset": offset}))

    def _step_knee(self, steps: int) -> None:
        change = knee_stepped(self._session, self._setting(), steps)
        if change is not None:
            self._session.make(change)

    def _step_slope(self, steps: int) -> None:
        setting = self._setting()
        self._session.make(sloped(setting, setting.slope + 0.01 * steps))

    def _step_bar(self, steps: int) -> None:
        master = bar(self._session)
        assert master is not None
        step_bar(self._session, master, steps)

    def _fit_valve(self) -> None:
        """Fit the reducing valve of Choose's card, which is worked out away from the hand."""
        build, units = self._session.build, self._session.units
        self.fit.setEnabled(False)
        self._fitted_to = build
        self._work.run(lambda progress: best_reducing(build, units, progress))

    def _take_fit(self, change: BuildChange | None) -> None:
        self.fit.setEnabled(True)
        if change is not None and self._fitted_to is self._session.build:  # else it is of another
            self._session.make(change)

    def _fail_fit(self, words: str) -> None:
        self.fit.setEnabled(True)
        self._words.setText(f"Nothing was fitted. {words}")

    def _take_out(self) -> None:
        valve_edits.take_out(self._session, (Axle.REAR, self._setting().index))


def _number(typed: str, noun: str, example: str) -> float:
    """Read a plain number, as a builder types it."""
    value = number_of(typed)
    if value is None:
        raise QuantityError(
            f'"{typed}" is not a number',
            f"write the {noun} as a plain number, for example {example}",
        )
    return value
