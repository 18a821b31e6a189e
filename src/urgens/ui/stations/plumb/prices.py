"""Prices in the builder's own money: of this build, else those typed before on this machine."""

from collections.abc import Callable, Iterable, Mapping
from functools import partial
from pathlib import Path

from PySide6.QtCore import QStandardPaths, Signal
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from urgens.document import BuildChange, BuildErrors
from urgens.document.price_list import load_prices, price_of, save_prices
from urgens.document.whole_file import written_to
from urgens.guidance.words.parts import KINDS
from urgens.quantity import QuantityError, ShownFigure
from urgens.ui.session import Session
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded, wrapped

FILE = "prices.json"
LINE = "a line, made"


def priced_name(kind: str) -> str:
    """Return what a price is of; kind: of a part, or "line" [text]."""
    return KINDS.get(kind, LINE.capitalize())


class MachinePrices:
    """The file of prices; `fault` says what of it cannot be read."""

    def __init__(self, path: Path | None = None) -> None:
        place = QStandardPaths.writableLocation(QStandardPaths.StandardLocation.AppConfigLocation)
        self.path = Path(place) / FILE if path is None else path
        self.fault = ""

    def known(self) -> dict[str, float]:
        """Return the prices in the file; none where it cannot be read, which `fault` says."""
        self.fault = ""
        try:
            return {str(kind): price for kind, price in load_prices(self.path).prices.items()}
        except BuildErrors as errors:
            self.fault = f"Your own prices, {self.path}: {errors}"
            return {}

    def keep(self, kind: str, price: float | None) -> None:
        """Keep a price, or none; raises BuildErrors where the file cannot be read or written."""
        found = load_prices(self.path).with_price(kind, price)
        with written_to(self.path, "check the disk"):
            save_prices(found, self.path)


class PriceRows(QWidget):
    """A price for a line and for every kind of part; typed once, kept for all builds."""

    changed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.machine = MachinePrices()
        self.labels: dict[str, DimensionLabel] = {}
        self._rows = tight(QVBoxLayout(self))

    def known(self) -> dict[str, float]:
        """Return what is known: the build's own before what was typed on this machine."""
        plumbing = self._session.build.plumbing
        own = {} if plumbing is None else plumbing.prices
        return {**self.machine.known(), **{str(kind): price for kind, price in own.items()}}

    def show_prices(self, kinds: Iterable[str]) -> None:
        """Show a row for each kind."""
        clear(self._rows)
        self.labels = {}
        prices = self.known()
        if self.machine.fault:
            self._rows.addWidget(wrapped("error", self.machine.fault))
        for kind in kinds:
            self._rows.addWidget(self._row(kind, prices))

    def _row(self, kind: str, prices: Mapping[str, float]) -> QWidget:
        row = QWidget()
        line = tight(QHBoxLayout(row))
        name = priced_name(kind)
        line.addWidget(worded(name, "muted"))
        line.addStretch()
        take: Callable[[str], None] = partial(self._take, kind)
        label = DimensionLabel(f"Price of {name}", take, size=17)
        text = f"{prices[kind]:g}" if kind in prices else ""
        label.set_value(ShownFigure(text or "—", ""), text)
        label.set_known(Knowledge.YES if text else Knowledge.MISSING)
        self.labels[kind] = label
        line.addWidget(label)
        return row

    def _take(self, kind: str, typed: str) -> None:
        """Take what is typed as a price; nothing typed takes it out."""
        price = price_of(typed)
        try:
            self.machine.keep(kind, price)
        except BuildErrors as errors:
            raise QuantityError("it is kept for this build only", str(errors)) from None
        finally:
            self._into_build(kind, price)
        self.changed.emit()

    def _into_build(self, kind: str, price: float | None) -> None:
        plumbing = self._session.build.plumbing
        if plumbing is None:
            return
        kept = {str(one): its for one, its in plumbing.prices.items() if one != kind}
        prices = kept if price is None else {**kept, kind: price}
        change = BuildChange(f"Price of {priced_name(kind)}", {"plumbing.prices": prices})
        self._session.make(change)
