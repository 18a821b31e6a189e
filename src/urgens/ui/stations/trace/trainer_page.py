"""The trainer: a hidden fault on this build, tests that cost minutes, a name for it, a debrief."""

import random
from collections.abc import Mapping
from datetime import date
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QMenu,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.bench.trainer.trainer import LEVELS, Exercise, debrief, exercise, rests
from urgens.guidance.procedures.records import title_of
from urgens.guidance.tracing.readings import KINDS, MOST_FOOT
from urgens.quantity import (
    FORCE,
    QuantityError,
    completed,
    parse,
    retype,
    show,
    whole_number,
)  # fmt: skip
from urgens.quantity.whole import LARGEST
from urgens.ui.session import Session
from urgens.ui.session.scores import Score
from urgens.ui.stations.trace.reading_form import CHOICES
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.elided_button import ElidedButton
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import passing, worded, wrapped

SEEDS = 10_000
ABOUT = (
    "Something is wrong with a vehicle built like this one. Test it as cheaply as you can, then "
    "name the cause. Nothing of it goes into the build."
)
OLDER = "The build has been changed since: this exercise goes on with the vehicle as it was."
PLACES = {
    "reservoir": "Reservoir", "cylinder": "Cylinder", "rod": "Pedal and rod", "booster": "Booster",
    "lines": "Lines", "joints": "Joints", "hose": "Hoses", "brake": "Wheel brakes",
    "valve": "Valves", "switch": "Switch", "vehicle": "Tyres, load, road",
}  # fmt: skip
SIDE = 300


class TrainerPage(Page):
    """An exercise on the build that is open; it ends with what would have been shortest."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.level = 1
        self.now: Exercise | None = None
        self.tests: dict[str, QPushButton] = {}
        self.levels = SegmentRow(Qt.Orientation.Vertical)
        self.levels.chosen.connect(self.choose_level)
        self.seed, self.another = QLineEdit("1"), QPushButton("Another vehicle")
        self.headline, self.told = wrapped("next"), wrapped("sentence")
        self.last = wrapped("heading")
        self.repaired, self.minutes = wrapped("muted"), worded("", "share")
        self.older = wrapped("muted", OLDER)
        self._tests, self._log, self._best = QVBoxLayout(), QVBoxLayout(), QVBoxLayout()
        self.look, self.name = QToolButton(), QToolButton()
        self.kind, self.foot, self.read = QComboBox(), QLineEdit(), QPushButton("Read it")
        self.refused = passing("error")
        self.scores = wrapped("small")
        self._beside()
        self.lay_out(self._drawing(), side=SIDE)
        self.said.hide()
        session.opened.connect(self._forget)

    def _drawing(self) -> QWidget:
        whole, inner = QWidget(), QWidget()
        stays = tight(QVBoxLayout(whole), 6)  # what came of the last test is never scrolled away
        head = QHBoxLayout()
        head.addWidget(self.headline, 1)
        head.addWidget(self.minutes)
        stays.addLayout(head)
        stays.addWidget(self.last)
        self.area = scrolled(inner, "The exercise")
        stays.addWidget(self.area, 1)
        column = spaced(QVBoxLayout(inner), 6, (0, 0, 8, 0))
        column.addWidget(self.told)
        column.addWidget(self.repaired)
        column.addWidget(self.older)
        column.addLayout(self._best)
        column.addWidget(worded("What it has shown", "heading"))
        column.addLayout(self._log)
        row = QHBoxLayout()
        for button, words in ((self.look, "Look for a sign, 1 min"), (self.name, "Name the cause")):
            button.setText(words)
            button.setProperty("role", "kind")
            button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
            button.setMenu(QMenu(button))
            row.addWidget(button)
        row.addStretch()
        column.addLayout(row)
        column.addLayout(self._reading())
        column.addWidget(self.refused)
        column.addWidget(worded("Tests", "heading"))
        column.addLayout(self._tests)
        column.addStretch()
        return whole

    def _reading(self) -> QHBoxLayout:
        row = QHBoxLayout()
        for name, words in CHOICES.items():
            self.kind.addItem(words, name)
        self.kind.setAccessibleName("What is read")
        self.foot.setAccessibleName("At which foot")
        self.read.setProperty("role", "quiet")
        self.read.clicked.connect(self.take_reading)
        self.foot.returnPressed.connect(self.take_reading)
        self.foot.setFixedWidth(90)
        row.addWidget(self.kind)
        row.addWidget(worded("at", "small"))
        row.addWidget(self.foot)
        row.addWidget(self.read)
        row.addStretch()
        return row

    def _beside(self) -> None:
        self.column.addWidget(wrapped("muted", ABOUT))
        self.head("How hard")
        self.column.addWidget(self.levels)
        self.head("Vehicle")
        self.seed.setAccessibleName("Number of the vehicle")
        self.seed.returnPressed.connect(self.begin)
        self.column.addWidget(self.seed)
        self.another.setProperty("role", "quiet")
        self.another.clicked.connect(self._draw)
        self.column.addWidget(self.another)
        self.head("Before")
        self.column.addWidget(self.scores)
        self.column.addStretch()

    # --- what is shown -----------------------------------------------------------------------

    def keep(self) -> dict[str, object]:
        """Return the exercise, and what is typed beside it."""
        return {"now": self.now, "level": self.level, "seed": self.seed.text()}

    def give_back(self, kept: Mapping[str, object]) -> None:
        """Go on with the exercise of another page of this kind."""
        self.seed.setText(str(kept["seed"]))
        super().give_back({name: kept[name] for name in ("now", "level")})

    @property
    def summary(self) -> str:
        """How far the exercise is."""
        return "" if self.now is None else f"{self.now.minutes} minutes"

    def show_figures(self) -> None:
        """Show the exercise as it stands, or begin one."""
        self.levels.show_choices({key: one.words for key, one in LEVELS.items()}, self.level)
        self.scores.setText(_before(self.session.scores))
        if not self.foot.isModified():
            usual = self.session.build.targets.comfortable_effort.value
            self.foot.setText(retype(usual, FORCE, self.session.units))
        if self.now is None:
            self.begin()
        else:
            self._show_exercise(self.now)

    def begin(self) -> None:
        """Begin with the vehicle of the number that is typed."""
        seed = whole_number(self.seed.text())
        if seed is None:
            words = f"The number of a vehicle is a whole number up to {LARGEST:,}, as 7."
            self.refused.setText(words)
            return
        self.refused.setText("")
        self.now = exercise(self.session.build, self.level, seed)
        self.last.hide()
        self._show_exercise(self.now)

    def choose_level(self, level: object) -> None:
        """Begin anew, harder or easier."""
        assert isinstance(level, int)  # the keys of the levels
        self.level = level
        self.now = None
        self.show_figures()

    def _draw(self) -> None:
        self.seed.setText(str(random.randrange(1, SEEDS)))
        self.begin()

    def _forget(self) -> None:
        self.now = None

    def _show_exercise(self, now: Exercise) -> None:
        signs = {one.id: one.words for one in now.fault.tracing.signs}
        seen = [signs[name] for name, yes in now.evidence.signs.items() if yes]
        self.headline.setText("Found." if now.done else "Something is wrong.")
        self.minutes.setText(f"{now.minutes} min")
        self.older.setVisible(now.build != self.session.build)
        self.told.setText(". ".join(seen) + ".")
        repaired = now.repaired
        self.repaired.setText("" if repaired is None else f"Somebody has mended before: "
                              f"“{repaired.words}”. It is as it was.")  # fmt: skip
        self.repaired.setVisible(repaired is not None)
        self._show_log(now)
        self._show_tests(now)
        self._show_menus(now)
        clear(self._best)
        for widget in (self.look, self.name, self.read, self.kind, self.foot):
            widget.setEnabled(not now.done)
        if now.done:
            self._show_end(now)
        self.say()

    def _show_log(self, now: Exercise) -> None:
        clear(self._log)
        signs = {one.id: one.words for one in now.fault.tracing.signs}
        unseen = [signs[name] for name, yes in now.evidence.signs.items() if not yes]
        lines = [f"{one.test.words}: {one.outcome.words.lower()}" for one in now.told]
        lines += [f"Not seen: {words.lower()}" for words in unseen]
        lines += [self._reading_words(one.kind, one.value, one.effort, one.stroke)
                  for one in now.evidence.readings]  # fmt: skip
        causes = {one.id: one.words for one in now.fault.tracing.causes}
        lines += [f"Mended in vain: {causes[one].lower()}, 30 minutes" for one in now.wrong]
        for line in lines or ["Nothing yet but what is seen."]:
            self._log.addWidget(wrapped("muted", line))

    def _reading_words(self, name: str, value: float, effort: float, stroke: int) -> str:
        kind, units = KINDS[name], self.session.units
        foot = show(effort, FORCE, units)
        read = f"{value:.2f}" if kind.exponents is None else show(value, kind.exponents, units)
        at = f", stroke {stroke}" if name == "travel" else ""
        return f"{kind.words.capitalize()}{at} at {foot}: {read}"

    def _show_tests(self, now: Exercise) -> None:
        clear(self._tests)
        self.tests = {}
        if now.done:
            return
        for test in now.fault.tracing.tests:
            if test.id in now.evidence.outcomes:
                continue
            people = "" if test.people == 1 else f", {test.people} people"
            opens = ", opens a joint" if test.opens else ""
            button = ElidedButton(f"{test.minutes} min{people}{opens}: {test.words}")
            button.setProperty("role", "outcome")
            button.clicked.connect(partial(self.make_test, test.id))
            self.tests[test.id] = button
            self._tests.addWidget(button)

    def _show_menus(self, now: Exercise) -> None:
        menu = self.look.menu()
        menu.clear()
        for sign in now.fault.tracing.signs:
            if sign.id not in now.evidence.signs and not sign.when:
                menu.addAction(button_words(sign.words), partial(self.look_for, sign.id))
        menu = self.name.menu()
        menu.clear()
        into: dict[str, QMenu] = {}
        for cause in now.fault.tracing.causes:
            if cause.id not in (*now.wrong, *now.found):
                if cause.place not in into:
                    into[cause.place] = menu.addMenu(PLACES[cause.place])
                words = button_words(cause.words)
                into[cause.place].addAction(words, partial(self.name_cause, cause.id))

    def _show_end(self, now: Exercise) -> None:
        """Say what each test told, the shortest way, and what was passed over."""
        told = debrief(now)
        for cause in now.fault.causes:
            self._best.addWidget(wrapped("sentence", f"{cause.words}. {title_of(cause.mend)}."))
        said = f"You took {now.minutes} minutes; the shortest way took {told.minutes}."
        self._best.addWidget(wrapped("heading", said))
        for one in told.best:
            self._best.addWidget(
                wrapped(
                    "muted", f"{one.minutes} min: {one.test.words}: {one.outcome.words.lower()}"
                )
            )
        for one in now.told:
            bits = "told nothing" if one.bits < 0.05 else f"told {one.bits:.1f} bit"
            self._best.addWidget(wrapped("small", f"Yours: {one.test.words}: {bits}"))

    # --- what is done ------------------------------------------------------------------------

    def look_for(self, sign: str) -> None:
        """Look for a sign."""
        now = self.now
        assert now is not None  # it is shown
        looked = now.look(now.fault.tracing.sign(sign))
        words = now.fault.tracing.sign(sign).words
        seen = looked.evidence.signs[sign]
        self._go(looked, f"Seen: {words}." if seen else f"Not seen: {words.lower()}.")

    def make_test(self, test: str) -> None:
        """Make a test."""
        now = self.now
        assert now is not None  # it is shown
        made = now.test(now.fault.tracing.test(test))
        last = made.told[-1]
        self._go(made, f"{last.outcome.words}: {last.outcome.means}.")

    def take_reading(self) -> None:
        """Read a figure at a foot."""
        now = self.now
        assert now is not None  # it is shown
        try:
            foot = parse(completed(self.foot.text(), FORCE, self.session.units), FORCE).value
        except QuantityError as error:
            self.refused.setText(f"{error}.")
            return
        if not 0.0 < foot <= MOST_FOOT:
            self.refused.setText("No foot presses so hard; read it at another one.")
            return
        self.refused.setText("")
        name = str(self.kind.currentData())
        kind, stroke = (name[:-2], int(name[-1])) if name.startswith("travel") else (name, 1)
        made, read = now.read(kind, foot, stroke)
        self._go(made, f"{self._reading_words(read.kind, read.value, read.effort, read.stroke)}.")

    def name_cause(self, cause: str) -> None:
        """Name what it comes from; a wrong name costs a mend in vain."""
        now = self.now
        assert now is not None  # it is shown
        named = now.name(cause)
        causes = {one.id: one.words for one in now.fault.tracing.causes}
        vain = f"Not that: {causes[cause].lower()}. Mended in vain, 30 minutes."
        self._go(named, f"Found: {causes[cause]}." if cause in named.found else vain)
        if named.done:
            self.area.verticalScrollBar().setValue(0)  # what would have been shortest
            best = debrief(named).minutes
            score = Score(f"{date.today():%Y-%m-%d}", self.session.build.name, named.level,
                          named.fault.seed, named.minutes, best)  # fmt: skip
            self.session.note_score(score)
            self.scores.setText(_before(self.session.scores))

    def _go(self, now: Exercise, told: str) -> None:
        """Show the exercise once something was done; `told` stays above what is scrolled."""
        self.now = now
        self._show_exercise(now)
        self.last.setText(told)
        self.last.show()
        left = rests(now)
        if now.found and left:
            self.headline.setText(f"One of them. {len(left)} more is wrong.")


def _before(scores: tuple[Score, ...]) -> str:
    if not scores:
        return "No exercise yet. What you reach stays with your own settings."
    last = scores[-8:][::-1]
    return "\n".join(
        f"{one.day}: {one.build}, {LEVELS[one.level].words}: {one.minutes} min, best {one.best}"
        for one in last
        if one.level in LEVELS
    )
