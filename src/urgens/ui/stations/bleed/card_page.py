"""The work card: one step at a time, read at two metres, driven by keys."""

from functools import partial
from typing import Any

from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QLineEdit,
    QProgressBar,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.document import Build
from urgens.document.records import WORDS
from urgens.guidance.procedures import METHODS, Facts, Step, default_method
from urgens.guidance.procedures.amounts import Amounts, amounts
from urgens.guidance.procedures.facts import both
from urgens.quantity import FORCE, retype, show
from urgens.ui.session import Session
from urgens.ui.stations.bleed.plan import BleedPlan
from urgens.ui.stations.bleed.run import Run
from urgens.ui.theme.paint import T
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import worded, wrapped

NAMES = {
    "open-stroke": "Open stroke", "pedal": "Hold and crack", "pressure": "Pressure",
    "gravity": "Gravity", "vacuum": "Vacuum",
}  # fmt: skip
SHOWN_NEXT = 4
MAIN = ("stroke", "next")  # what the hand wants most
NUMBER = 84  # px of the number of a step
GAP = 16  # px between the number and what it says
START = "Nothing is under way. Choose a method; what the layout rules out says why."


class CardPage(Page):
    """What to do now, to which wheel, who, why; what is read goes into the build for good."""

    kept = ("method", "strokes", "since", "readings")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.run = Run(session)
        self._needed: tuple[Build, Amounts] | None = None
        self.method = default_method(Facts(session.build))
        self.strokes, self.since = 0, 0  # on this step; on these reservoirs since they were filled
        self.readings: dict[str, str] = {}
        self.fields: dict[str, QWidget] = {}
        self.methods: dict[str, QToolButton] = {}
        self.number, self.of = worded("", "step"), worded("", "muted")
        self.sentence, self.why = wrapped("sentence"), wrapped("muted")
        self.counter = worded("", "counter")
        self.counted = wrapped("muted")
        self.plan = BleedPlan()
        self.setFocusProxy(self.plan)
        self.progress = QProgressBar()
        self.progress.setTextVisible(False)
        self.progress.setFixedHeight(8)
        self.buttons: dict[str, QPushButton] = {}
        self._read = QHBoxLayout()
        self.people, self.next = wrapped("muted"), wrapped("muted")
        self.cautions, self.amounts = wrapped("muted"), wrapped("muted")
        self._lay_out()

    def _lay_out(self) -> None:
        card = QWidget()
        column = QVBoxLayout(card)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addLayout(self._methods_row())
        column.addWidget(self.progress)
        head = QHBoxLayout()
        head.setSpacing(GAP)
        left = QVBoxLayout()
        left.setSpacing(0)
        self.number.setMinimumHeight(round(NUMBER * T.scale))
        self.number.setMinimumWidth(round(NUMBER * T.scale))
        left.addWidget(self.number)
        left.addWidget(self.of)
        left.addStretch()
        head.addLayout(left)
        words = QVBoxLayout()
        words.addWidget(self.sentence)
        words.addWidget(self.why)
        words.addStretch()
        head.addLayout(words, 1)
        column.addLayout(head)
        column.addWidget(self.plan, 1)
        row = QHBoxLayout()
        row.setSpacing(GAP)
        row.addWidget(self.counter)
        row.addWidget(self.counted, 1)
        column.addLayout(row)
        column.addLayout(self._read)
        column.addLayout(self._work_buttons())
        self.head("Who and with what")
        self.column.addWidget(self.people)
        self.head("Next")
        self.column.addWidget(self.next)
        self.head("How much")
        self.column.addWidget(self.amounts)
        self.head("Mind")
        self.column.addWidget(self.cautions)
        self.column.addStretch()
        self.lay_out(card)
        self.said.hide()

    def _methods_row(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setSpacing(2)
        group = QButtonGroup(self)
        for method in METHODS:
            button = segment(NAMES[method])
            button.setProperty("narrow", "true")
            button.clicked.connect(partial(self._choose, method))
            group.addButton(button)
            self.methods[method] = button
            row.addWidget(button)
        row.addStretch()
        return row

    def _work_buttons(self) -> QHBoxLayout:
        row = QHBoxLayout()
        acts = {
            "stroke": self.stroke, "next": self.go_on, "bubbles": self.note_bubbles,
            "back": self.go_back, "leave": self.leave,
        }  # fmt: skip
        for name, act in acts.items():
            button = QPushButton()
            button.setProperty("role", "work")
            button.setProperty("main", "true" if name in MAIN else "false")
            if name != "leave":  # the others have a key of the card
                button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            button.clicked.connect(act)
            self.buttons[name] = button
            row.addWidget(button, 2 if name in MAIN else 1)
        return row

    # --- what is shown ---------------------------------------------------------------------

    @property
    def summary(self) -> str:
        """Where the work is."""
        if self.run.record is None:
            return "a procedure made for this layout"
        return f"step {self.run.number} of {len(self.run.procedure(None).steps)}"

    def show_figures(self) -> None:
        """Show the card as it is now."""
        record, step = self.run.record, self.run.step
        found = self.run.procedure(self.method)
        method = record.method if record is not None else self.method
        for name, button in self.methods.items():
            button.setChecked(name == method)
            button.setEnabled(record is None or name == method)
        steps, number = found.steps, self.run.number
        self.progress.setMaximum(max(len(steps), 1))
        self.progress.setValue(number - 1 if record is not None else 0)
        self.number.setText(str(number) if record is not None else "")
        self.of.setText(f"of {len(steps)}" if record is not None else "")
        if record is None:
            refused = found.refused_because or self.run.held
            self.sentence.setText(START if refused is None else f"Not so: {refused}.")
            self.why.setText(f"{len(steps)} steps" if steps else "")
        elif step is not None:
            self.sentence.setText(step.text)
            self.why.setText(step.why)
        done = steps[: number - 1] if record is not None else ()
        self.plan.show_steps(done, step)
        self._show_buttons(step, last=number >= len(steps))
        self._show_reading(step)
        self._show_counter(step)
        self._show_column(steps, number if record is not None else 0)

    def _show_buttons(self, step: Step | None, *, last: bool) -> None:
        going, strokes = step is not None, self._counts
        words = {
            "stroke": "+1 stroke\nSpace",
            "next": ("Done\nEnter" if last else "Next\nEnter") if going else "Begin\nEnter",
            "bubbles": "Bubbles\nB", "back": "Back\nBackspace", "leave": "Leave it",
        }  # fmt: skip
        shown = {"stroke": strokes, "bubbles": strokes, "back": going, "leave": going, "next": True}
        for name, button in self.buttons.items():
            button.setText(words[name])
            button.setAccessibleName(words[name].replace("\n", ", "))
            button.setVisible(shown[name])
        self.buttons["next"].setEnabled(going or self._may_begin)

    @property
    def _may_begin(self) -> bool:
        return self.run.held is None and self.run.procedure(self.method).allowed

    def _show_counter(self, step: Step | None) -> None:
        counts = self._counts
        self.counter.setVisible(counts)
        self.counted.setVisible(counts)
        if step is None or not counts:
            return
        self.counter.setText(str(self.strokes))
        found = self._amounts()
        wanted = [found.strokes.get(wheel) for wheel in step.wheels]
        known = [one for one in wanted if one is not None]
        said = [f"strokes at {both(step.wheels)}" if step.wheels else "strokes"]
        if known:
            said.append(f"about {max(known)} until what stands in the way is through")
        if found.until_low is None:
            said.append("the reservoir is not measured: watch its level")
        else:
            left = max(found.until_low - self.since, 0)
            said.append(f"{left} left until the reservoir is low" if left else
                        "THE RESERVOIR IS LOW: top up now")  # fmt: skip
        self.counted.setText("; ".join(said))

    def _amounts(self) -> Amounts:
        if self._needed is None or self._needed[0] is not self.session.build:
            self._needed = self.session.build, amounts(self.session.build)
        return self._needed[1]

    def _show_column(self, steps: tuple[Step, ...], done: int) -> None:
        found = self.run.procedure(self.method)
        people = "one person" if found.people == 1 else f"{found.people} people"
        self.people.setText(f"{people}; {', '.join(found.tools)}")
        ahead = steps[done : done + SHOWN_NEXT]
        self.next.setText("\n".join(f"{done + n}. {step.text}" for n, step in enumerate(ahead, 1)))
        self.cautions.setText("\n\n".join(found.cautions))
        need = self._amounts()
        fluid = "not known without drawn lines" if need.fluid is None else (
            f"about {need.fluid * 1e6:.0f} ml of fresh fluid"
        )  # fmt: skip
        self.amounts.setText(f"{fluid}; about {need.minutes} min")

    # --- readings --------------------------------------------------------------------------

    def _show_reading(self, step: Step | None) -> None:
        """Offer what this step reads: words as buttons, a figure or a note to be typed."""
        clear(self._read)
        self.fields = {}
        if step is None or step.record is None or step.record.field == "strokes":
            return
        names = ("bubbles", "colour") if step.record.field == "bubbles" else (step.record.field,)
        for name in names:
            self._read.addWidget(worded(name, "muted"))
            if name in WORDS or name in ("ok", "lamp"):
                for word in WORDS.get(name, ("yes", "no")):
                    button = segment(word)
                    button.setProperty("narrow", "true")
                    button.setChecked(self.readings.get(name) == word)
                    button.clicked.connect(partial(self.read, name, word))
                    self.fields[f"{name} {word}"] = button
                    self._read.addWidget(button)
            else:
                field = QLineEdit(self.readings.get(name, ""))
                field.setAccessibleName(f"{name}, {step.record.unit}".rstrip(", "))
                field.textChanged.connect(partial(self.readings.__setitem__, name))
                self.fields[name] = field
                self._read.addWidget(field)
                if step.record.unit:
                    at = f" at {show(self.session.effort, FORCE, self.session.units)}"
                    words = step.record.unit + (at if name == "travel" else "")
                    self._read.addWidget(worded(words, "muted"))
        self._read.addStretch()

    def read(self, name: str, word: str) -> None:
        """Take what was seen."""
        self.readings[name] = word
        for key, field in self.fields.items():
            if isinstance(field, QToolButton) and key.startswith(f"{name} "):
                field.setChecked(key == f"{name} {word}")

    def _entries(self, step: Step) -> list[dict[str, Any]]:
        """Return what was read at a step as entries of the record, once for each of its wheels."""
        read: list[dict[str, Any]] = []
        wheels: tuple[str | None, ...] = step.wheels or (None,)
        found: dict[str, Any] = {k: v for k, v in self.readings.items() if v.strip()}
        if step.action == "stroke" and self.strokes:
            found["strokes"] = float(self.strokes)
        for field, value in found.items():
            said = value
            if field in ("ok", "lamp"):
                said = value == "yes"
            elif field in ("travel", "pressure", "gap", "temperature", "amount"):
                said = _figure(value)
            more: dict[str, Any] = {}
            if field == "travel":
                effort = retype(self.session.effort, FORCE, self.session.units)
                more = {"effort": effort, "when": "now"}
            for wheel in wheels:
                at = {"wheel": wheel} if wheel else {}
                read.append({"field": field, "value": said, **more, **at})
        return read

    # --- hands -----------------------------------------------------------------------------

    def _choose(self, method: str) -> None:
        if self.run.record is None:
            self.method = next(one for one in METHODS if one == method)
        self._show()
        self.setFocus()

    def stroke(self) -> None:
        """Count one stroke."""
        self.strokes += 1
        self.since += 1
        self._show_counter(self.run.step)

    def note_bubbles(self) -> None:
        """Note that bubbles still come."""
        self.readings["bubbles"] = "fine"
        self.counted.setText(f"{self.counted.text()}; bubbles at stroke {self.strokes}")

    def go_on(self) -> None:
        """Begin, go on, or close after the last card; what was read is kept."""
        step = self.run.step
        if step is None:
            if self._may_begin:
                self.run.begin(self.method)
            self._fresh()
            return
        entries = self._entries(step)
        if step.action == "top-up":
            self.since = 0
        if self.run.number >= len(self.run.procedure(None).steps):
            self.run.end(entries)
        else:
            self.run.go(1, entries)
        self._fresh()

    def go_back(self) -> None:
        """Go back by one card."""
        self.run.go(-1)
        self._fresh()

    def leave(self) -> None:
        """Leave the run where it is: what was read stays."""
        self.run.drop()
        self._fresh()

    def _fresh(self) -> None:
        self.strokes, self.readings = 0, {}
        self._show()
        self.setFocus()

    def event(self, event: QEvent) -> bool:
        """Take the card's own keys before the window's: B notes bubbles, it is no set-up here."""
        if (
            event.type() == QEvent.Type.ShortcutOverride
            and isinstance(event, QKeyEvent)
            and event.key() in (Qt.Key.Key_B, Qt.Key.Key_Space)
            and self._counts
        ):
            event.accept()
            return True
        return super().event(event)

    @property
    def _counts(self) -> bool:
        """Whether strokes are counted at this step."""
        step = self.run.step
        return step is not None and step.action == "stroke"

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, step = Qt.Key(event.key()), self.run.step
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            (self.leave if self.buttons["leave"].hasFocus() else self.go_on)()
        elif key == Qt.Key.Key_Backspace and step is not None:
            self.go_back()
        elif key == Qt.Key.Key_Space and self._counts:
            self.stroke()
        elif key == Qt.Key.Key_B and self._counts:
            self.note_bubbles()
        else:
            event.ignore()


def _figure(typed: str) -> float | str:
    """Return a typed figure as a number, else as it was typed."""
    try:
        return float(typed.replace(",", ""))
    except ValueError:
        return typed
