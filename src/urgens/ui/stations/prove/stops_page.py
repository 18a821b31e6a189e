"""Stops on the road: what they say of the brakes, and which setting is next."""

from datetime import datetime
from typing import ClassVar

from PySide6.QtCore import Qt
from PySide6.QtGui import QHideEvent, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from urgens.bench.proof_state import NextOnRoad, hottest, stops_of
from urgens.bench.road.drives import Drive
from urgens.bench.sentences import counted_words, headline
from urgens.bench.stops.adjusters import adjuster
from urgens.bench.stops.brakes_as_measured import brakes_as_measured
from urgens.document import Build
from urgens.guidance.condition.proofs import held_from_moving
from urgens.guidance.words.figures import FigureWords
from urgens.physics.axle import Axle
from urgens.quantity import SPEED, show
from urgens.ui.session import Session
from urgens.ui.stations.prove.advice_panel import AdvicePanel
from urgens.ui.stations.prove.cards_made import cards_made
from urgens.ui.stations.prove.from_above import FromAbove, Lane, lane_words
from urgens.ui.stations.prove.measured import put, rows_of
from urgens.ui.stations.prove.stop_cards import StopCards
from urgens.ui.stations.prove.stop_form import StopForm
from urgens.ui.stations.prove.stops_found import SPEED as TESTED
from urgens.ui.stations.prove.stops_found import Above, StopsFound, worked_out
from urgens.ui.stations.prove.stops_plane import StopsPlane
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.worded import worded, wrapped

PLACE = "Closed, empty, level place only."
MIND = "Helper outside, well off the line. Straight ahead. Let off at the first slide."
NO_ROOM = "From above: on Test road, or in a taller window"
ROW = 54  # px of a lane
ROOMY = 590  # of a page that has room for lanes
NEXT = -1  # the place of the card of the stop that is next


class StopsPage(Page):
    """Cards of the stops, the plane, what is next and why; a stop is entered over it."""

    kept: ClassVar[tuple[str, ...]] = ()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.found: StopsFound | None = None
        self._worked: Build | None = None
        self._editing = NEXT
        self.cards, self.plane = StopCards(), StopsPlane(session)
        self.form, self.above = StopForm(session), FromAbove(row=ROW)
        self.done, self.set_it, self.measure = (QPushButton() for _ in range(3))
        self.advice = AdvicePanel(self._actions())
        self.left, self.said_above = worded("", "small"), wrapped("heading")
        self.stack = QStackedWidget()
        self.stack.addWidget(self._overview())
        self.stack.addWidget(self.form)
        self.lay_out(self.stack, side=0)
        self.said.hide()
        self.cards.opened.connect(self.open_stop)
        self.form.kept.connect(self.keep_stop)
        self.form.left.connect(self.show_overview)
        self.form.dropped.connect(self.drop_stop)
        self._work = Background(self)
        self._work.ended.connect(self._show_found)
        self._work.failed.connect(self.advice.show_failed)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)

    def _overview(self) -> QWidget:
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 8)
        column.addWidget(self._caution())
        column.addWidget(self.cards)
        middle = spaced(QHBoxLayout(), 16)
        middle.addLayout(self._drawing(), 5)
        middle.addWidget(self.advice, 5)
        column.addLayout(middle, 1)
        foot = QHBoxLayout()
        foot.addWidget(self.said_above, 1)
        foot.addWidget(self.left)
        foot.addWidget(self.set_it)
        foot.addWidget(self.measure)
        column.addLayout(foot)
        column.addWidget(self.above)
        return whole

    def _caution(self) -> QWidget:
        strip = QFrame()
        strip.setProperty("role", "caution")
        row = QHBoxLayout(strip)
        row.setContentsMargins(12, 7, 12, 7)
        row.addWidget(worded(PLACE, "warned"))
        row.addWidget(wrapped("plain", MIND), 1)
        return strip

    def _drawing(self) -> QVBoxLayout:
        column = spaced(QVBoxLayout(), 2)
        self.axes = worded("", "heading"), worded("", "heading")
        self.axes[1].setAlignment(Qt.AlignmentFlag.AlignRight)
        column.addWidget(self.axes[0])
        column.addWidget(self.plane, 1)
        column.addWidget(self.axes[1])
        return column

    def _actions(self) -> QPushButton:
        """Dress the buttons; return the one that stands beside the headline."""
        self.done.setText("Enter a stop\nEnter")
        self.done.setProperty("role", "work")
        self.done.setProperty("main", "true")
        self.done.clicked.connect(self.enter_next)
        self.set_it.setProperty("role", "quiet")
        self.set_it.clicked.connect(self.set_in_build)
        for offered in (self.set_it, self.measure):  # nothing is found yet
            offered.hide()
        self.measure.setProperty("role", "quiet")
        self.measure.setText("Take as measured")
        self.measure.setAccessibleName("Take what the stops say of both brakes as measured")
        self.measure.clicked.connect(self.take_measured)
        return self.done

    # --- what is shown -----------------------------------------------------------------------

    @property
    def _words(self) -> FigureWords:
        return FigureWords(self.session.units)

    @property
    def summary(self) -> str:
        """How many stops there are, and what is next."""
        count = len(stops_of(self.session.base))
        road = None if self.found is None else self.found.road
        nexts = "" if road is None else f"; {headline(road.advice, self._words, road.held).lower()}"
        return (f"{count} stops" if count != 1 else "one stop") + nexts

    def show_figures(self) -> None:
        """Show the cards at once; what they say follows, away from the hand."""
        build = self.session.build
        self._show_cards()
        rear, front = self.plane.axes
        self.axes[0].setText(rear)
        self.axes[1].setText(front)
        if self._worked is not build:
            self._worked = build
            if self.found is None:
                self.advice.show_working()
            self._work.run(lambda progress: worked_out(build, progress), SOON)
        elif self.found is not None:
            self._show_found(self.found)

    def _show_cards(self) -> None:
        road = None if self.found is None else self.found.road
        session = self.session
        self.cards.show_cards(cards_made(session.base, session.build, road, session.units))

    def _show_found(self, found: object) -> None:
        if not isinstance(found, StopsFound):
            return
        self.found = found
        self._show_cards()
        self.plane.show_found(found)
        self._show_advice(found)
        self._show_above(found.above)
        self.say()

    def _show_advice(self, stops: StopsFound) -> None:
        self.advice.show_found(stops, self.session.build, self._words)
        self.measure.setVisible(brakes_as_measured(self.session.base, stops.known) is not None)
        self.set_it.hide()
        left = None if stops.road is None else stops.road.left
        words = f"about {left} stop{'s' if left and left > 1 else ''} left, one of them wet"
        self.left.setText(words if left else "")
        if stops.road is not None:
            self._offer_setting(stops.road)

    def _offer_setting(self, road: NextOnRoad) -> None:
        """Offer to set the build as it is to stay, once nothing is left to try."""
        advice = road.advice
        now = advice.turned.now(self.session.build)
        apart = advice.turned.place(now) != advice.turned.place(advice.setting)
        self.set_it.setVisible(advice.done and apart)
        setting = counted_words(advice.turned, advice.setting, self._words)
        self.set_it.setText(f"Set to {setting}")
        self.set_it.setAccessibleName(f"Set {setting} in the build")

    def take_measured(self) -> None:
        """Take what the stops say of both brakes into the build."""
        if self.found is not None:
            change = brakes_as_measured(self.session.base, self.found.known)
            if change is not None:
                self.session.make(change, in_setup=False)

    def set_in_build(self) -> None:
        """Set the build as the stops say it is to stay."""
        road = None if self.found is None else self.found.road
        if road is not None:
            turned, setting = road.advice.turned, road.advice.setting
            label = f"Set to {counted_words(turned, setting, self._words)}, by the stops"
            self.session.plan(turned.path, turned.typed(setting), label)

    def _show_above(self, above: Above) -> None:
        speed = show(TESTED, SPEED, self.session.units)
        told = f"From above, simulated, from {speed}: every half second, locked wheels crimson"
        self.said_above.setText(NO_ROOM if self.low else told)
        lanes = [self._lane(above.here, above.here_setting)]
        if above.rear is not None:
            lanes.append(self._lane(above.rear, above.rear_setting))
        self.above.show_lanes(tuple(lanes), self.session.units)

    def _lane(self, drive: Drive, setting: float | None) -> Lane:
        turned = adjuster(self.session.build)
        words = "as built"
        if turned is not None and setting is not None:
            words = counted_words(turned, setting, self._words)
        axle = drive.locked[0][0] if drive.locked else None
        name = {Axle.FRONT: "front first", Axle.REAR: "rear first", None: "none locks"}[axle]
        return Lane(name, f"{words}: {lane_words(drive)}", drive, axle)

    @property
    def low(self) -> bool:
        """Whether there is no room for the stops seen from above as well."""
        return self.height() < ROOMY

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.above.setVisible(not self.low)
        if self.found is not None:
            self._show_above(self.found.above)

    # --- what is done ------------------------------------------------------------------------

    @property
    def _held(self) -> tuple[str, ...]:
        """Why no stop is to be made yet, of what does not depend on the setting."""
        build = self.session.base
        waived = any(stop.moved_without_proof for stop in stops_of(build))
        hot = hottest(build, datetime.now())
        return (*(() if waived else held_from_moving(build)), *((hot,) if hot else ()))

    def enter_next(self) -> None:
        """Stand ready for the stop that is next."""
        self._editing = NEXT
        road = None if self.found is None else self.found.road
        turned = adjuster(self.session.build)
        setting = turned.now(self.session.build) if turned is not None else None
        wet = False
        if road is not None:
            setting, wet = road.advice.setting, road.advice.wet
        held = self._held if road is None else tuple(dict.fromkeys((*road.held, *self._held)))
        self.form.begin(len(stops_of(self.session.base)) + 1, setting, wet, held)
        self.stack.setCurrentWidget(self.form)

    def open_stop(self, place: int) -> None:
        """Open a stop on record, or the next one."""
        stops = stops_of(self.session.base)
        if not 0 <= place < len(stops):
            self.enter_next()
            return
        self._editing = place
        self.form.show_stop(place + 1, stops[place], ())
        self.stack.setCurrentWidget(self.form)

    def show_overview(self) -> None:
        """Go back to what the stops say."""
        self.stack.setCurrentIndex(0)
        self.done.setFocus()

    def keep_stop(self, row: dict[str, object]) -> None:
        """Write a stop into the build."""
        rows = rows_of(self.session, "stops")
        rows.sort(key=lambda one: str(one["at"]))
        if self._editing == NEXT:
            rows.append(row)
            label = f"Stop {len(rows)}"
        else:
            row = {**row, "load_case": rows[self._editing]["load_case"]}
            rows[self._editing] = row
            label = f"Stop {self._editing + 1} mended"
        put(self.session, "stops", rows, label)
        self.show_overview()

    def drop_stop(self) -> None:
        """Take a stop out of the build; an undo brings it back."""
        rows = rows_of(self.session, "stops")
        rows.sort(key=lambda one: str(one["at"]))
        if self._editing != NEXT:
            del rows[self._editing]
            put(self.session, "stops", rows, f"Stop {self._editing + 1} taken out")
        self.show_overview()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        entering = self.stack.currentWidget() is self.form
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and not entering:
            self.enter_next()
        else:
            super().keyPressEvent(event)

    def hideEvent(self, event: QHideEvent) -> None:
        self._work.stop()
        self._worked = None
        self.seen.forget()
        super().hideEvent(event)
