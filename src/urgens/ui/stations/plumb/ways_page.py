"""What could be laid instead: what every school takes and loses, and what a change needs."""

from collections.abc import Mapping
from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.document import Build, BuildChange, changed, with_setup
from urgens.document.circuits import Circuits
from urgens.guidance.advice.layouts import Alternative, alternatives
from urgens.guidance.words.parts import KINDS, part_name
from urgens.plumbing.conversion import Conversion, conversion, layout_of
from urgens.quantity import QuantityError, ShownFigure, decimal
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.worded import worded, wrapped

LINE = "a line, made"
MINUTES = 60
TAKES = (
    "Joints, parts and hours of the usual layout of each way (common practice: 25 min a line, "
    "15 min a part)."
)


def hours(minutes: int) -> str:
    """Return minutes as hours, to the quarter."""
    quarters = round(minutes / (MINUTES / 4))
    return f"{quarters / 4:g} h"


class WayCard(QFrame):
    """One way: its name, what is lost with it, what it takes; chosen to be looked at, or laid."""

    chosen = Signal()
    laid = Signal()

    def __init__(self, name: str, loses: str, takes: str, *, fitted: bool, action: str) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setProperty("fitted", "true" if fitted else "false")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(f"{name}. {loses} {takes}")
        words = spaced(QVBoxLayout(), 1)
        self.name = wrapped("heading", name)
        words.addWidget(self.name)
        words.addWidget(wrapped("muted", loses))
        words.addWidget(worded(takes, "small"))
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 6, 8, 6)
        row.addLayout(words, 1)
        self.button = QPushButton("laid" if fitted else action)
        self.button.setFixedWidth(round(86 * T.scale))
        self.button.setEnabled(not fitted)
        self.button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.button.clicked.connect(self.laid)
        row.addWidget(self.button)
        if not action:
            self.button.hide()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus(Qt.FocusReason.MouseFocusReason)

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        self.chosen.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if Qt.Key(event.key()) in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.button.isEnabled():
            self.laid.emit()
        else:
            event.ignore()


class WaysPage(Page):
    """Cards of the schools and of the set-ups; beside them what the change needs, and prices."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.found: tuple[Alternative, ...] = ()
        self.cards: list[WayCard] = []
        self._of: Build | None = None
        self._list = QVBoxLayout()
        self._list.setSpacing(6)
        self._list.setContentsMargins(0, 0, 8, 0)
        inner = QWidget()
        inner.setLayout(self._list)
        area = rolled(inner)
        self.title = wrapped("heading", "What a change needs")
        self.needs = {
            name: wrapped("muted") for name in ("Stays", "Goes", "New", "Plugged", "Lost")
        }
        self.column.addWidget(self.title)
        for label in self.needs.values():
            self.column.addWidget(label)
        self.head("Prices, each in your own money")
        self.prices = QVBoxLayout()
        self.price_labels: dict[str, DimensionLabel] = {}
        self.column.addLayout(self.prices)
        self.column.addWidget(wrapped("muted", TAKES))
        self.column.addStretch()
        self.lay_out(area)
        self.said.hide()

    @property
    def summary(self) -> str:
        """How many there are."""
        return f"{len(self.found)} ways to lay this build, the fewest joints first"

    def show_figures(self) -> None:
        """Show the ways of the build as it is now."""
        build = self.session.build
        if build is self._of:
            return
        self._of = build
        self.found = tuple(alternatives(build))
        for card in self.cards:
            card.blockSignals(True)  # the focus goes over them as they are taken away
        clear(self._list)
        self.cards = []
        prices = self._known_prices()
        for one in self.found:
            self._add_school(one, prices)
        names = [setup.name for setup in build.setups if setup.name != self.session.setup]
        if names:
            self._list.addWidget(worded("From here to another set-up", "heading"))
        for name in names:
            self._add_setup(name)
        self._list.addStretch()
        self._show_prices(prices)
        self._show_needs("", None)

    # --- cards -----------------------------------------------------------------------------

    def _add_school(self, alternative: Alternative, prices: Mapping[str, float]) -> None:
        spent = f"about {hours(alternative.minutes)}"
        takes = f"{alternative.joints} joints  ·  {alternative.parts} parts  ·  {spent}"
        known, missing = alternative.price(prices)
        if known:
            rest = f", without {', '.join(KINDS.get(k, LINE).lower() for k in missing)}"
            takes += f"  ·  {known:g}{rest if missing else ''}"
        card = WayCard(
            alternative.school.words, f"Loses {alternative.school.loses}.", takes,
            fitted=self._is_laid(alternative), action="Lay it",
        )  # fmt: skip
        card.chosen.connect(partial(self._look_at, alternative))
        card.laid.connect(partial(self.session.make, alternative.change))
        self._put(card)

    def _add_setup(self, name: str) -> None:
        base, build = self.session.base, self.session.build
        needed = conversion(build, with_setup(base, name))
        takes = f"{len(needed.new)} new, {len(needed.goes)} go, {len(needed.lost)} lost"
        card = WayCard(f"To “{name}”", "As the set-up has it.", takes, fitted=False, action="")
        card.chosen.connect(partial(self._show_needs, name, needed))
        self._put(card)

    def _put(self, card: WayCard) -> None:
        self.cards.append(card)
        self._list.addWidget(card)

    def _is_laid(self, alternative: Alternative) -> bool:
        """Tell whether a way is what is laid: the same parts with the same lines between them."""
        plumbing, section = self.session.build.plumbing, alternative.change.values["plumbing"]
        assert isinstance(section, dict)
        if plumbing is None:
            return False
        its = {(line["from"], line["to"]) for line in section["lines"]}
        return its == {(line.start, line.to) for line in plumbing.lines} and {
            (part["id"], part["kind"]) for part in section["parts"]
        } == {(part.id, part.kind) for part in plumbing.parts}

    # --- what a change needs ---------------------------------------------------------------

    def _look_at(self, alternative: Alternative) -> None:
        build = self.session.build
        self._show_needs(
            alternative.school.words, conversion(build, changed(build, alternative.change))
        )

    def _show_needs(self, name: str, needed: Conversion | None) -> None:
        self.title.setText(name or "Choose a way: what stays, goes and is new stands here")
        for label in self.needs.values():
            label.setVisible(needed is not None)
        if needed is None:
            return
        rows = (needed.stays, needed.goes, needed.new, needed.plugged, needed.lost)
        for (word, label), names in zip(self.needs.items(), rows, strict=True):
            said = ", ".join(names if word in ("Lost", "Plugged") else map(self._name, names))
            label.setText(f"{word}: {said or 'nothing'}")

    def _name(self, part: str) -> str:
        """Return what a part is called, of this layout or of any."""
        build = self.session.build
        plumbing = layout_of(build)
        found = {one.id: one for one in plumbing.parts}
        if part not in found:
            return part
        name = part_name(Circuits(build, plumbing), found[part])
        return f"{name[:1].lower()}{name[1:]}"

    # --- prices ----------------------------------------------------------------------------

    def _known_prices(self) -> dict[str, float]:
        plumbing = self.session.build.plumbing
        prices = {} if plumbing is None else plumbing.prices
        return {str(kind): price for kind, price in prices.items()}

    def _show_prices(self, prices: Mapping[str, float]) -> None:
        """Show a price for a line and for every kind of part that any way takes."""
        clear(self.prices)
        self.price_labels = {}
        if self.session.build.plumbing is None:
            words = "Lay one of them, and prices are kept with the build."
            self.prices.addWidget(wrapped("muted", words))
            return
        kinds = dict.fromkeys(kind for one in self.found for kind in one.kinds)
        for kind in kinds:
            row = QWidget()
            line = tight(QHBoxLayout(row))
            name = KINDS.get(kind, LINE.capitalize())
            line.addWidget(worded(name, "muted"))
            line.addStretch()
            label = DimensionLabel(f"Price of {name}", partial(self._price, kind), size=17)
            known = kind in prices
            label.set_value(ShownFigure(f"{prices[kind]:g}" if known else "—", ""),
                            f"{prices[kind]:g}" if known else "")  # fmt: skip
            label.set_known(Knowledge.YES if known else Knowledge.MISSING)
            self.price_labels[kind] = label
            line.addWidget(label)
            self.prices.addWidget(row)

    def _price(self, kind: str, typed: str) -> None:
        """Take what is typed as a price; nothing typed takes it out."""
        prices: dict[str, float] = self._known_prices()
        if not typed.strip():
            prices.pop(kind, None)
        else:
            try:
                price = decimal(typed)
            except ValueError:
                raise QuantityError(f'"{typed}" is no price', "write a number, as 12.50") from None
            if not 0 <= price < float("inf"):
                raise QuantityError(f'"{typed}" is no price', "write a number from 0 up")
            prices[kind] = price
        self.session.make(BuildChange(f"Price of {kind}", {"plumbing.prices": prices}))
