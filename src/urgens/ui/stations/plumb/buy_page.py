"""What is bought and cut for the layout, and what came of it."""

import csv
import io
from datetime import date, timedelta
from functools import partial

from PySide6.QtWidgets import QGridLayout, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.document.layout.layout import Received
from urgens.guidance.words.trade import item_name, item_sold_as
from urgens.plumbing.cut_list import TooLongError
from urgens.plumbing.edits import section_of
from urgens.plumbing.kit import CLIP_EACH, BuyingList, buying_list
from urgens.plumbing.needed import Needed
from urgens.plumbing.received import Checked, audit
from urgens.plumbing.shopping import SAW, STOCK
from urgens.quantity import LENGTH, QuantityError, ShownFigure, show, whole_number
from urgens.sheet.files import as_text
from urgens.ui.session import Session
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.stations.plumb.stock_view import StockView
from urgens.ui.theme.paint import T
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import worded, wrapped
from urgens.ui.widgets.write_out import write_out

BACK = 14  # days in which what came may usually go back; to be typed over
NOTHING = "This build has no layout of its own yet: take one on the page Layout."
HEADS = ("", "needed", "came", "version", "back by", "")
LAST = len(HEADS) - 1
REST = "Not on the list"
ADVICE = (
    "Check ports, sizes, side and version of each part as it comes, while it can still go back. "
    "Nuts and tube with one in ten spare, a clip for each {each} of line, fluid for filling, "
    "bleeding and a flush (common practice)."
)


class BuyPage(Page):
    """The buying list with what came, and the stock lengths as they are cut."""

    kept = ("stock_text", "saw_text")

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        units = session.units
        self.stock = TypedLabel("Length that is sold", LENGTH, units, self._typed, start=STOCK.text)
        self.saw = TypedLabel("Lost in a cut", LENGTH, units, self._typed, start=SAW.text)
        self.view = StockView()
        self.rows: list[Checked] = []
        self.came: dict[str, DimensionLabel] = {}
        self.back: dict[str, DimensionLabel] = {}
        self.version: dict[str, DimensionLabel] = {}
        self.list = BuyingList(())
        self.laid = Laid(session)
        self.words = wrapped("muted")
        self.not_counted = wrapped("muted")
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(14)
        self._grid.setVerticalSpacing(0)
        self._grid.setColumnStretch(0, 3)
        self._grid.setColumnStretch(LAST, 2)
        self.save = push_button("Save the list (CSV)…", "quiet", self._save)
        self._lay_out()

    def _lay_out(self) -> None:
        inner = QWidget()
        column = QVBoxLayout(inner)
        column.setContentsMargins(0, 0, 8, 0)
        column.addWidget(self.words)
        column.addLayout(self._grid)
        column.addWidget(self.not_counted)
        column.addSpacing(10)
        column.addWidget(self.view)
        column.addStretch()
        area = rolled(inner)
        for name, label in (("Sold in lengths of", self.stock), ("Lost in each cut", self.saw)):
            self.column.addWidget(worded(name, "muted"))
            self.column.addWidget(label)
        self.column.addWidget(self.save)
        self.advice = wrapped("muted")
        self.column.addWidget(self.advice)
        self.column.addStretch()
        self.lay_out(area)

    @property
    def stock_text(self) -> str:
        """The length that is sold, as typed."""
        return "" if self.stock.quantity is None else self.stock.quantity.text

    @stock_text.setter
    def stock_text(self, typed: str) -> None:
        self.stock.set_text(typed)

    @property
    def saw_text(self) -> str:
        """What a cut takes, as typed."""
        return "" if self.saw.quantity is None else self.saw.quantity.text

    @saw_text.setter
    def saw_text(self, typed: str) -> None:
        self.saw.set_text(typed)

    @property
    def summary(self) -> str:
        """What is wrong with what came, else how much there is to buy."""
        wrong = sum(row.wrong for row in self.rows)
        if wrong:
            return f"{wrong} of {len(self.rows)} rows are not as they should be"
        return f"{sum(not row.received for row in self.rows)} rows to buy"

    def _typed(self) -> None:
        if hasattr(self, "view"):
            self.show_figures()
            self.say()

    # --- what is shown ---------------------------------------------------------------------

    def _bought(self) -> BuyingList:
        """Return what is bought; says in words which line is too long, and what it is for."""
        build, setup = self.session.build, self.session.setup
        stock = self.stock.quantity or STOCK
        saw = 0.0 if self.saw.quantity is None else self.saw.quantity.value
        before = None if setup is None else self.session.base
        if setup is not None:
            self.words.setText(
                f"For “{setup}”, from what is on the vehicle: what stays is left out."
            )
        try:
            return buying_list(build, stock.value, saw, before=before, plan=self.laid.plan)
        except TooLongError as error:
            self.words.setText(f"{error}: {error.name}. Type a longer length that is sold.")
            return BuyingList(())

    def show_figures(self) -> None:
        """Show the list as it is now."""
        build, units = self.session.build, self.session.units
        self.advice.setText(ADVICE.format(each=show(CLIP_EACH, LENGTH, units)))
        self.stock.show_in(units)
        self.saw.show_in(units)
        plumbing = build.plumbing
        self.words.setText(NOTHING if plumbing is None else "")
        self.list = BuyingList(()) if plumbing is None else self._bought()
        self.view.show_cut(self.list.cut, (self.stock.quantity or STOCK).value, units)
        received = () if plumbing is None else plumbing.received
        self.rows = audit(self.list.rows, received, date.today())
        self.words.setVisible(bool(self.words.text()))
        told = "; ".join(self.list.not_counted)
        self.not_counted.setText(f"Not counted: {told}.")
        self.not_counted.setVisible(bool(told))
        self.save.setEnabled(bool(self.rows))
        self._show_rows()

    def _show_rows(self) -> None:
        clear(self._grid)
        self.came, self.back, self.version = {}, {}, {}
        needed = {one.item: one for one in self.list.rows}
        for column, head in enumerate(HEADS if self.rows else ()):
            self._grid.addWidget(worded(head, "small"), 0, column)
        at, shelf = 1, ""
        for row in self.rows:
            need = needed.get(row.item)
            stands = REST if need is None else need.shelf
            if stands != shelf:
                shelf = stands
                title = worded(shelf, "muted")
                title.setContentsMargins(0, round(10 * T.scale), 0, 0)
                self._grid.addWidget(title, at, 0, 1, LAST + 1)
                at += 1
            self._show_row(at, row, need)
            at += 1

    def _show_row(self, at: int, row: Checked, need: Needed | None) -> None:
        """Show one row: what it is, what to look at, how many, what came, what is to be done."""
        name, sold = item_name(row.item), item_sold_as(row.item)
        check = "" if need is None else need.check
        called = name.removesuffix(check).strip() if check else name
        column = spaced(QVBoxLayout(), 0)
        column.addWidget(wrapped("heading", called))
        beneath = "; ".join(filter(None, (f"sold as {sold}" if sold else "", check)))
        if beneath:
            column.addWidget(wrapped("small", beneath))
        self._grid.addLayout(column, at, 0)
        unit = "" if need is None else need.counted_in
        self._grid.addWidget(worded(f"{row.needed} {unit}".strip(), "muted"), at, 1)
        self._put_labels(at, name, row)
        why = "" if need is None else need.why
        told = wrapped("small", "; ".join(filter(None, (row.words, why))))
        if row.wrong:
            told.setStyleSheet(f"color: {T.danger}; font-weight: 600")
        self._grid.addWidget(told, at, LAST)

    def _put_labels(self, index: int, name: str, row: Checked) -> None:
        """Put what came of a row, and until when it may go back."""
        came = DimensionLabel(f"{name}, came", partial(self._take, row.item), size=17)
        came.set_value(ShownFigure(str(row.received), ""), str(row.received))
        came.set_known(Knowledge.YES)
        back = DimensionLabel(f"{name}, back by", partial(self._take_back, row.item), size=15)
        day = "—" if row.back_by is None else row.back_by.isoformat()
        back.set_value(ShownFigure(day, ""), "" if row.back_by is None else day)
        back.set_known(Knowledge.YES)
        known = self._known(row.item)
        told = "" if known is None else known.version
        version = DimensionLabel(f"{name}, version", partial(self._take_version, row.item), size=15)
        version.set_value(ShownFigure(told or "—", ""), told)
        version.set_known(Knowledge.YES)
        self.came[row.item], self.back[row.item], self.version[row.item] = came, back, version
        for column, label in enumerate((came, version, back), start=2):
            self._grid.addWidget(label, index, column)

    # --- what came -------------------------------------------------------------------------

    def _take(self, item: str, typed: str) -> None:
        """Take how many came; raises QuantityError where that is no number."""
        count = whole_number(typed)
        if count is None:
            raise QuantityError(
                f'"{typed[:20]}" is no number of parts', "write a whole number, as 4"
            )
        known = self._known(item)
        back = (date.today() + timedelta(days=BACK)) if known is None else known.back_by
        self._write(item, count, back, "" if known is None else known.version)

    def _take_version(self, item: str, typed: str) -> None:
        """Take which version came; several with commas between."""
        known = self._known(item)
        count, back = (0, None) if known is None else (known.count, known.back_by)
        self._write(item, count, back, typed.strip())

    def _take_back(self, item: str, typed: str) -> None:
        """Take the last day on which it may go back; nothing typed takes it away."""
        day = None
        if typed.strip():
            try:
                day = date.fromisoformat(typed.strip())
            except ValueError:
                said = f'"{typed}" is no date'
                raise QuantityError(said, "write year-month-day: 2026-12-24") from None
        known = self._known(item)
        told = ("", 0) if known is None else (known.version, known.count)
        self._write(item, told[1], day, told[0])

    def _known(self, item: str) -> Received | None:
        plumbing = self.session.build.plumbing
        assert plumbing is not None
        return next((one for one in plumbing.received if one.item == item), None)

    def _write(self, item: str, count: int, back: date | None, version: str) -> None:
        plumbing = self.session.build.plumbing
        assert plumbing is not None
        rows = [row for row in section_of(plumbing).get("received", []) if row["item"] != item]
        if count or back is not None or version:
            made: dict[str, object] = {"item": item, "count": count}
            if back is not None:
                made["back_by"] = back.isoformat()
            if version:
                made["version"] = version
            rows.append(made)
        self.session.make(BuildChange(f"{item}: {count} came", {"plumbing.received": rows}))

    # --- taken out of the window -----------------------------------------------------------

    def table(self) -> bytes:
        """Return list, audit and cuts as CSV."""
        text = io.StringIO()
        writer = csv.writer(text)
        writer.writerow(
            ("where", "item", "sold as", "needed", "came", "back by", "to do", "to look at", "why")
        )
        needed = {one.item: one for one in self.list.rows}
        for row in self.rows:
            need = needed.get(row.item)
            day = "" if row.back_by is None else row.back_by.isoformat()
            beside = ("", "") if need is None else (need.check, need.why)
            shelf = REST if need is None else need.shelf
            cells = (shelf, item_name(row.item), item_sold_as(row.item), row.needed, row.received,
                     day, row.words, *beside)  # fmt: skip
            writer.writerow([as_text(str(cell)) for cell in cells])
        for told in self.list.not_counted:
            writer.writerow(("not counted", as_text(told)))
        writer.writerow(())
        writer.writerow(("tube", "length", "line", "m"))
        for tube, sticks in self.list.cut:
            for index, stick in enumerate(sticks, start=1):
                for name, length in stick.pieces:
                    writer.writerow((as_text(tube.text), index, as_text(name), f"{length:.4f}"))
        return text.getvalue().encode()

    def _save(self) -> None:
        write_out(self, "The buying list", "to-buy", ".csv", self.table)
