"""The order of the work: what is opened once, when, by how many, and what is due after."""

from dataclasses import dataclass
from datetime import date, datetime
from functools import partial
from pathlib import Path
from typing import ClassVar

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QMenu,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from urgens.document import Build, BuildErrors, with_setup
from urgens.guidance import Severity
from urgens.guidance.planning.due import Due, due
from urgens.guidance.planning.plan import Missing, WorkPlan, came, plan
from urgens.guidance.planning.schedule import Hours, Schedule, scheduled
from urgens.quantity import Units
from urgens.sheet.calendar import write_calendar
from urgens.ui.session import Session
from urgens.ui.stations.sheet.plan_jobs import PlanJobs, words
from urgens.ui.stations.sheet.plan_ribbon import PlanRibbon
from urgens.ui.stations.sheet.plan_words import (
    next_morning,
    number_of,
    read_hours,
    read_start,
    sums,
)
from urgens.ui.theme.paint import T
from urgens.ui.widgets.buttons import menu_button, push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.file_choice import file_to_write
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.marked_row import marked_row
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import button_words, point_out
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import passing, worded, wrapped

OPEN = "what is open"
SIDE = 276  # px of the column
MOST = 5  # rows of what is missing, and of what holds the vehicle
NOTHING = "Nothing is open: no joint, no run, no item, no proof. What is due stands beside."

HERE = "Everything that the layout takes is here, or stays."
NOT_LAID = "No layout is drawn, so that nothing is counted: Plumb drafts one."


@dataclass(frozen=True)
class ShownPlan:
    """What is shown: a plan, its times, what is due."""

    plan: WorkPlan
    when: Schedule
    due: tuple[Due, ...]


class PlanPage(Page):
    """Headline, ribbon and jobs; what is missing, what holds the vehicle, what is due beside."""

    kept: ClassVar[tuple[str, ...]] = ("aim", "start", "hours")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.aim: str | None = session.setup
        self.start = next_morning(datetime.now())
        self.hours = Hours()
        self.shown: ShownPlan | None = None
        self.came: list[QPushButton] = []
        self._of: tuple[object, ...] = ()
        self.ribbon, self.jobs = PlanRibbon(), PlanJobs()
        self.ribbon.pressed = self.choose
        self.jobs.chose.connect(self.choose)
        self.jobs.entered.connect(self.open_procedure)
        self.aims = menu_button()
        self.aims.setMenu(QMenu(self.aims))
        self.begin, self.day = QLineEdit(), QLineEdit()
        self.headline, self.sums = wrapped("sentence"), wrapped("muted")
        self.supposed, self.refused = wrapped("muted"), passing()
        self.wrote = wrapped("good")
        self.told, self.card = wrapped("muted"), QPushButton("Open its card")
        self.card.setProperty("role", "quiet")
        self.card.clicked.connect(lambda: self.open_procedure(self.jobs.chosen))
        self.calendar = push_button("Write calendar…", "quiet", self.write)
        self.missing, self.holds, self.dues = QGridLayout(), QGridLayout(), QGridLayout()
        for title, rows in (
            ("Not here yet", self.missing),
            ("Holds the vehicle", self.holds),
            ("Due afterwards", self.dues),
        ):
            self.head(title)
            rows.setColumnStretch(0 if rows is self.dues else 1, 1)
            rows.setContentsMargins(0, 0, 8, 0)
            rows.setVerticalSpacing(2)
            self.column.addLayout(rows)
        self.easy_head = self.head("Easy while it is out")
        self.easy = wrapped("muted")
        self.column.addWidget(self.easy)
        self._ask_when()
        self.column.addStretch()
        self.lay_out(self._drawing(), side=SIDE)
        self.said.hide()

    def _drawing(self) -> QWidget:
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 6)
        top = QHBoxLayout()
        top.addWidget(self.headline, 1)
        top.addWidget(self.aims, 0, Qt.AlignmentFlag.AlignTop)
        column.addLayout(top)
        below = QHBoxLayout()
        below.addWidget(self.sums, 1)
        below.addWidget(self.calendar, 0, Qt.AlignmentFlag.AlignTop)
        column.addLayout(below)
        for said in (self.refused, self.wrote, self.supposed):
            column.addWidget(said)
        self.wrote.hide()
        column.addWidget(self.ribbon)
        column.addWidget(scrolled(self.jobs, "Jobs"), 1)
        foot = QHBoxLayout()
        foot.addWidget(self.told, 1)
        foot.addWidget(self.card, 0, Qt.AlignmentFlag.AlignTop)
        column.addLayout(foot)
        if T.stands_back:  # from far away only what is done next is read
            for widget in (self.sums, self.calendar, self.told):
                widget.hide()
        return whole

    def _ask_when(self) -> None:
        """Put the day and the hours of work into the column."""
        self.head("When")
        rows = QGridLayout()
        for row, (field, name) in enumerate(((self.begin, "From"), (self.day, "Hours of a day"))):
            field.setAccessibleName(name)
            field.editingFinished.connect(self._take)
            rows.addWidget(worded(name, "muted"), row, 0)
            rows.addWidget(field, row, 1)
        self.column.addLayout(rows)

    @property
    def summary(self) -> str:
        """How much it is."""
        if self.shown is None or not self.shown.plan.jobs:
            return "nothing is open"
        return f"{len(self.shown.plan.jobs)} jobs"

    # --- what is asked for -----------------------------------------------------------------

    def look_at(self, where: str) -> None:
        """Plan the way to the set-up of a name, or what is open for none."""
        self.aim_at(where or None)

    def aim_at(self, aim: str | None) -> None:
        """Plan the way to a set-up, or what is open."""
        self.aim = aim
        self._show()

    def _take(self) -> None:
        """Take the day and the hours that are typed; what cannot be is said."""
        try:
            start = read_start(self.begin.text())
            hours = read_hours(self.day.text())
        except ValueError as error:
            self.refused.setText(str(error))
            return
        self.refused.setText("")
        if (start, hours) != (self.start, self.hours):
            self.start, self.hours = start, hours
            self._show()

    # --- what is shown ---------------------------------------------------------------------

    def show_figures(self) -> None:
        """Show the plan of the build as it is now."""
        names = [one.name for one in self.session.base.setups]
        if self.aim not in names:
            self.aim = None
        self.aims.setText(button_words(f"To {self.aim or OPEN}"))
        menu = self.aims.menu()
        menu.clear()
        for name in (None, *names):
            menu.addAction(button_words(name or OPEN), partial(self.aim_at, name))
        self.aims.setEnabled(bool(names))
        self.begin.setText(f"{self.start:%Y-%m-%d %H:%M}")
        self.day.setText(f"{self.hours.begin.hour}–{self.hours.end.hour}")
        units = self.session.units
        key = (self.session.base, self.aim, self.start, self.hours, units)
        if key != self._of:
            self._of = key
            self.shown = _planned(self.session.base, self.aim, self.start, self.hours, units)
        assert self.shown is not None
        self._show_plan(self.shown)

    def _show_plan(self, plan: ShownPlan) -> None:
        found = plan.plan
        self.headline.setText(found.claim)
        self.sums.setText(sums(found, self.aim))
        said = found.work.supposed or ("" if found.jobs else NOTHING)
        self.supposed.setText(said)
        self.supposed.setVisible(bool(said) and not T.stands_back)
        self.ribbon.show_plan(found, plan.when, self.hours)
        self.jobs.show_plan(found)
        self.choose(self.jobs.chosen)
        missing = [(f"{one.count} × {one.what}" if one.count > 1 else one.what,
                    number_of(found, one.job)) for one in found.missing]  # fmt: skip
        holds = [(one.what, number_of(found, one.job)) for one in found.holds]
        none = HERE if found.work.build.plumbing is not None else NOT_LAID
        self._fill(self.missing, missing, Severity.WARNING, none)
        self.came = []
        for row, one in enumerate(found.missing[:MOST] if self.session.base.plumbing else ()):
            button = push_button("here", "small")
            button.setAccessibleName(f"{one.what} is here now")
            button.clicked.connect(partial(self._take_in, one))
            self.missing.addWidget(button, row, 3)
            self.came.append(button)
        self._fill(self.holds, holds, Severity.DANGER, "Nothing on record holds it.")
        self.easy.setText("\n".join(one.words for one in found.easy))
        for widget in (self.easy_head, self.easy):
            widget.setVisible(bool(found.easy))
        clear(self.dues)
        for row, coming in enumerate(plan.due):
            when = "no day" if coming.when is None else f"{coming.when.day} {coming.when:%b %Y}"
            self.dues.addWidget(wrapped("heading", f"{when}  {coming.what}"), 2 * row, 0)
            self.dues.addWidget(wrapped("small", coming.why), 2 * row + 1, 0)

    def _fill(
        self, grid: QGridLayout, rows: list[tuple[str, str]], severity: Severity, none: str
    ) -> None:
        clear(grid)
        if not rows:
            grid.addWidget(wrapped("muted", none), 0, 0, 1, 3)
        for row, (said, job) in enumerate(rows[:MOST]):
            marked_row(grid, row, severity, said, job)
        if len(rows) > MOST:
            rest = "; ".join(said for said, _ in rows[MOST:])
            more: QLabel = wrapped("muted", f"and {len(rows) - MOST} more")
            point_out(more, rest)
            more.setAccessibleDescription(rest)
            grid.addWidget(more, MOST, 1)

    def _take_in(self, missing: Missing) -> None:
        """Note that something is here."""
        self.session.make(came(self.session.base, missing), in_setup=False)
        self._show()

    def choose(self, job: int) -> None:
        """Let one job stand out, in the list and on the ribbon."""
        self.jobs.choose(job)
        self.ribbon.choose(job)
        named = self.jobs.jobs[job] if self.jobs.jobs else None
        self.told.setText("" if named is None else f"{job + 1}. {words(named)}.")
        shown = named is not None and bool(named.procedure) and not T.stands_back
        self.card.setVisible(shown)

    def open_procedure(self, job: int) -> None:
        """Show the procedure of a job on Bleed's card, where it has one."""
        if self.jobs.jobs and self.jobs.jobs[job].procedure:
            self.place_asked.emit(f"procedure:{self.jobs.jobs[job].procedure}")

    # --- the calendar ----------------------------------------------------------------------

    def write(self) -> None:
        """Ask where the calendar goes and write jobs and what is due into it."""
        assert self.shown is not None
        folder = self.session.path.parent if self.session.path else None
        kinds = "Calendars (*.ics)"
        path = file_to_write(self, "Write jobs and what is due", "plan", ".ics", kinds, folder)
        if path is not None:
            self.write_to(path)

    def write_to(self, path: Path) -> None:
        """Write jobs and what is due; how much it came to, or why not, is said."""
        assert self.shown is not None
        try:
            plan, when, due = self.shown.plan, self.shown.when, self.shown.due
            held = write_calendar(self.session.base.name, plan.jobs, when, due, path)
        except BuildErrors as errors:
            self.wrote.hide()
            self.refused.setText("\n".join(str(one) for one in errors.errors))
            return
        self.refused.setText("")
        self.wrote.setText(f"Written to {path.name}: {held.words}.")
        self.wrote.show()


def _planned(
    base: Build, aim: str | None, start: datetime, hours: Hours, units: Units
) -> ShownPlan:
    found = plan(base, None if aim is None else with_setup(base, aim))
    when = scheduled(found.jobs, start, hours, found.work.begun)
    end = None if when.end is None else when.end.date()
    coming = due(found.work.build, date.today(), end, renewed=found.renews, units=units)
    return ShownPlan(found, when, coming)
