"""Beside the card: who does what, what comes next, how much it takes, what to mind, paper."""

from PySide6.QtWidgets import QToolButton, QVBoxLayout, QWidget

from urgens.document import Build
from urgens.guidance.procedures import Facts, Procedure
from urgens.guidance.procedures.amounts import Amounts, amounts
from urgens.guidance.procedures.facts import said
from urgens.guidance.procedures.people import Role, roles
from urgens.guidance.procedures.workshop import standing_before
from urgens.guidance.words.figures import FigureWords
from urgens.ui.stations.bleed.run import BLEED, CurrentRun
from urgens.ui.stations.bleed.who_panel import WhoPanel
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded, wrapped

SHOWN_NEXT = 4
APART = 8  # px above a heading


def _same_lines(one: Build, other: Build) -> bool:
    """Tell whether two builds share all that bleeding takes its amounts from."""
    parts = "plumbing", "master", "circuits", "vehicle", "front", "rear"
    return all(getattr(one, part) is getattr(other, part) for part in parts)


class RunSidebar(QWidget):
    """A column that follows the run."""

    def __init__(self, run: CurrentRun) -> None:
        super().__init__()
        self._run = run
        self._needed: tuple[Build, Amounts] | None = None
        self.who, self.people, self.next = WhoPanel(), wrapped(), wrapped()
        self.who_word = worded("Who does what, now", "heading")
        self.much, self.amounts = worded("How much", "heading"), wrapped()
        self.cautions, self.print = wrapped(), QToolButton()
        self.print.setText("Print the cards")
        self.print.setProperty("role", "kind")
        self.print.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.photographs = push_button("Photograph this step", "quiet")
        self.why = push_button("Why here, not the other way round  W", "quiet")
        self.why.setCheckable(True)
        column = tight(QVBoxLayout(self))
        for heading, widgets in (
            (self.who_word, (self.who, self.people)),
            (worded("Next", "heading"), (self.next, self.why)), (self.much, (self.amounts,)),
            (worded("Mind", "heading"), (self.cautions, self.photographs, self.print)),
        ):  # fmt: skip
            if column.count():
                column.addSpacing(APART)
            for widget in (heading, *widgets):
                column.addWidget(widget)
        column.addStretch()

    def needed(self, build: Build) -> Amounts:
        """Return how much bleeding takes, worked out once for a layout and its cylinder."""
        if self._needed is None or not _same_lines(self._needed[0], build):
            self._needed = build, amounts(build)
        return self._needed[1]

    def show_run(
        self,
        build: Build,
        procedure: Procedure,
        people: int,
        own: Role | None,
        refused: str,
        *,
        doing: bool,
    ) -> None:
        """Show what belongs to the step.

        own: whose card is shown, None where it is everyone's; refused: why the screen may sleep;
        doing: whether a step is done, or begun next: else nobody does anything now.
        """
        run, steps = self._run, procedure.steps
        going = run.record is not None
        done = run.number if going else 0
        who = roles(procedure, people, bar=Facts(build).bar)
        now = standing_before(steps, max(done, 1), procedure.begins)
        self.who.show_roles(who, run.step, now, own)
        needs = "one person" if procedure.people == 1 else f"{procedure.people} people"
        fewer = "" if people >= procedure.people else ", fewer are coming"
        self.people.setText(f"best with {needs}{fewer}; {', '.join(procedure.tools)}".rstrip("; "))
        self.people.setVisible(not going)
        for widget in (self.who, self.who_word):
            widget.setVisible(doing)
        ahead = steps[done : done + SHOWN_NEXT]
        self.next.setText("\n".join(f"{done + n}. {step.text}" for n, step in enumerate(ahead, 1)))
        self.cautions.setText("\n\n".join((*procedure.cautions, *filter(None, [refused]))))
        self.amounts.setText(self._much(build) if run.name == BLEED else "")
        for widget in (self.much, self.amounts):
            widget.setVisible(run.name == BLEED)

    def _much(self, build: Build) -> str:
        need = self.needed(build)
        fluid = "not known without drawn lines" if need.fluid is None else (
            f"about {need.fluid * 1e6:.0f} ml of fresh fluid"
        )  # fmt: skip
        ways = [
            f"{said(wheel)}: {held * 1e6:.0f} ml stand in the way, {need.strokes[wheel]} strokes"
            for wheel, held in need.held.items()
            if held is not None and need.strokes[wheel] is not None
        ]
        depth = FigureWords(self._run.units).practice("behind_pistons")
        told = f"assumed: lines not bled begin empty, {depth} behind each piston, what bodies hold"
        assumed = [told] if ways else []
        return "\n".join([f"{fluid}; about {need.minutes} min", *ways, *assumed])
