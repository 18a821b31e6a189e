"""The real split of the work between the axles, from wear and from heat, beside the computed."""

from datetime import date
from typing import Any

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPaintEvent
from PySide6.QtWidgets import QGridLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from urgens.document.catalogue import is_figure
from urgens.guidance.rules.real_split import compared, is_rearward
from urgens.quantity import (
    LENGTH,
    Quantity,
    QuantityError,
    Units,
    completed,
    items_of,
    parse,
    retype,
)
from urgens.studies.real_split import Computed, Split
from urgens.ui.session import Session
from urgens.ui.stations.prove.measured import now, put, rows_of
from urgens.ui.theme.paint import T, hatch, ink, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.fields import hinted_field
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.worded import passing, worded, wrapped

WHAT = (
    "What a lining has lost tells the work it has done. Measure thickness now, set it against what "
    "it was: one figure for each lining, or one for each wheel. Temperatures straight after a "
    "series of stops tell it as well. Neither knows who drove, or on which road."
)
ROW = 58
LABEL = 150
FIELDS = (
    ("front", "Front linings lost", "1.2, 1.1"), ("rear", "Rear linings lost", "0.4, 0.5"),
    ("since", "Since", "year-month-day, or nothing"),
)  # fmt: skip


class SplitBars(Painted):
    """The rear's share as it was computed, and as each source has it, with error bars."""

    def __init__(self) -> None:
        super().__init__()
        self._rows: list[tuple[str, float, float]] = []

    def sizeHint(self) -> QSize:
        return self.scaled(420, 3 * ROW + 24)

    def show_splits(self, computed: Computed, splits: list[Split]) -> None:
        """Show these."""
        self._rows = [("Computed", computed.rear_share, computed.spread)]
        self._rows += [(f"By {one.source}", one.rear_share, one.error) for one in splits]
        said = [f"{name} {share:.0%} ± {off:.0%}" for name, share, off in self._rows]
        self.setAccessibleName("The rear's share of the work: " + "; ".join(said))
        self.setFixedHeight(round((len(self._rows) * ROW + 24) * self.scale))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            wide = self.across - LABEL - 104
            for place, (name, share, off) in enumerate(self._rows):
                top = place * ROW + 6
                write(painter, name, QPointF(0, top + 25), size=17, weight=600, color=T.ink)
                ink(painter, Qt.PenStyle.NoPen, QColor(T.front))
                painter.drawRect(QRectF(LABEL, top, wide, 36))
                rear = QRectF(LABEL + wide * (1 - share), top, wide * share, 36)
                painter.setBrush(QColor(T.rear))
                painter.drawRect(rear)
                painter.setBrush(hatch(T.sheet))
                painter.drawRect(rear)
                painter.setPen(pen(T.ink, 2))
                x, half = LABEL + wide * (1 - share), wide * off
                painter.drawLine(QPointF(x - half, top + 18), QPointF(x + half, top + 18))
                for end in (x - half, x + half):
                    painter.drawLine(QPointF(end, top + 11), QPointF(end, top + 25))
                words = f"{100 * share:.0f} % ± {100 * off:.0f} %"
                write(painter, words, QPointF(LABEL + wide + 8, top + 25), size=17, weight=600,
                      color=T.rear)  # fmt: skip
            foot = len(self._rows) * ROW + 14
            write(painter, "front", QPointF(LABEL, foot), size=14, color=T.front)
            write(painter, "rear", QPointF(LABEL + wide, foot), size=14, color=T.rear, side="right")


class SplitPage(Page):
    """Bars, why there are none, and where wear and temperatures are entered."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.bars, self.verdict = SplitBars(), wrapped("sentence")
        self.why = wrapped("muted")
        self.fields: dict[str, QLineEdit] = {}
        self.add, self.refused = QPushButton("Add it"), passing()
        self._runs = QGridLayout()
        self.gone: list[QPushButton] = []
        self._figures = QVBoxLayout()
        self.column_of: FigureColumn | None = None
        self._beside()
        self.lay_out(self._drawing(), side=300)
        self.said.hide()

    def _drawing(self) -> QWidget:
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 10)
        column.addWidget(worded("The rear's share of the work", "heading"))
        column.addWidget(self.bars)
        column.addWidget(self.verdict)
        column.addWidget(self.why)
        column.addWidget(wrapped("muted", WHAT))
        self.sample = Sample(self.session, "real-split")
        column.addWidget(self.sample)
        column.addStretch()
        return whole

    def _beside(self) -> None:
        self.head("Wear, entered")
        for name, words, hint in FIELDS:
            field = self.fields[name] = hinted_field(words, hint, self.take)
            self.column.addWidget(worded(words, "small"))
            self.column.addWidget(field)
        self.add.setProperty("role", "quiet")
        self.add.clicked.connect(self.take)
        self.column.addWidget(self.add)
        self.column.addWidget(self.refused)
        self.column.addLayout(self._runs)
        self.head("What it rests on")
        self.column.addLayout(self._figures)
        self.column.addStretch()

    @property
    def summary(self) -> str:
        """What wear and heat tell."""
        found = [one for one in compared(self.session.solution)[0] if not isinstance(one, str)]
        if not found:
            return "nothing measured yet"
        return "; ".join(f"by {one.source} {one.rear_share:.0%} at the rear" for one in found)

    def show_figures(self) -> None:
        """Show what is computed, and what wear and heat tell."""
        found, computed = compared(self.session.solution)
        told = [one for one in found if isinstance(one, Split)]
        self.bars.show_splits(computed, told)
        self.verdict.setText(_verdict(told, computed))
        missing = [f"{name}: {one}." for name, one in zip(("Wear", "Heat"), found, strict=True)
                   if isinstance(one, str)]  # fmt: skip
        self.why.setText("\n".join(missing))
        self.why.setVisible(bool(missing))
        self.sample.setVisible(not told)
        self._show_runs()
        self._show_rests()

    def _show_runs(self) -> None:
        clear(self._runs)
        self.gone = []
        proof = self.session.base.proof
        for row, one in enumerate(() if proof is None else proof.wear):
            lost = " and ".join(self._lost(side) for side in (one.front, one.rear))
            self._runs.addWidget(wrapped("small", f"{one.at:%Y-%m-%d}: {lost}"), row, 0)
            button = push_button("Take out", "small")
            button.setAccessibleName(f"Take the wear of {one.at:%Y-%m-%d} out")
            button.clicked.connect(lambda _=False, place=row: self._drop(place))
            self.gone.append(button)
            self._runs.addWidget(button, row, 1)

    def _lost(self, linings: tuple[Quantity, ...]) -> str:
        return ", ".join(retype(one.value, LENGTH, self.session.units) for one in linings)

    def _show_rests(self) -> None:
        clear(self._figures)
        build = self.session.base
        paths = [f"{axle}.brake.{name}" for axle in ("front", "rear")
                 for name in ("pad_area", "lining_area", "rotor_mass", "drum_mass")]  # fmt: skip
        paths += ["heat.front_measured", "heat.rear_measured"]
        there = [path for path in paths if _could_be(build, path)]
        self.column_of = FigureColumn(
            self.session, [Spot(path, 16) for path in there], of_one_part=False
        )
        self._figures.addWidget(self.column_of)

    # --- what is done ------------------------------------------------------------------------

    def take(self) -> None:
        """Add the wear that is typed."""
        units = self.session.units
        try:
            row: dict[str, Any] = {
                "at": now(),
                "front": _lengths(self.fields["front"].text(), units),
                "rear": _lengths(self.fields["rear"].text(), units),
            }
            since = self.fields["since"].text().strip()
            if since:
                row["since"] = date.fromisoformat(since).isoformat()
        except QuantityError as error:
            self.refused.setText(f"{error}.")
            return
        except ValueError:
            self.refused.setText("Since: write year-month-day, such as 2026-05-31.")
            return
        self.refused.setText("")
        for field in self.fields.values():
            field.clear()
        put(self.session, "wear", [*rows_of(self.session, "wear"), row], "Wear measured")
        self._show()

    def _drop(self, place: int) -> None:
        rows = rows_of(self.session, "wear")
        del rows[place]
        put(self.session, "wear", rows, "Wear taken out")
        self._show()


def _could_be(build: Any, path: str) -> bool:
    return is_figure(build, path) or hasattr(
        build.axle(path.partition(".")[0]).brake if path[0] in "fr" else build.heat or object(),
        path.rpartition(".")[2],
    )


def _lengths(typed: str, units: Units) -> list[str]:
    """Return lengths as typed, a bare number in the unit shown; raises QuantityError."""
    parts = items_of(typed)
    if not parts:
        raise QuantityError("nothing is typed", "write what each lining lost, such as 1.2, 1.1")
    return [parse(completed(one, LENGTH, units), LENGTH).text for one in parts]


def _verdict(splits: list[Split], computed: Computed) -> str:
    if not splits:
        return "Nothing measured yet: only computed."
    rearward = [one for one in splits if is_rearward(one, computed)]
    if rearward:
        return f"By {rearward[0].source} the rear does more than computed, beyond both errors."
    less = [
        one for one in splits if computed.rear_share - one.rear_share > one.error + computed.spread
    ]
    if less:
        return f"By {less[0].source} the rear does less than computed, beyond both errors."
    return "Within the errors of both: nothing speaks against the computed split."
