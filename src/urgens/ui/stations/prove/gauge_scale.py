"""Scale and class of the gauges in use, which can be changed once something is read."""

from functools import partial

from PySide6.QtWidgets import QMenu, QToolButton, QVBoxLayout, QWidget

from urgens.bench.proof_state import Gauged
from urgens.quantity import PRESSURE, unit_shown
from urgens.ui.session import Session
from urgens.ui.stations.prove.measured import put, rows_of
from urgens.ui.widgets.buttons import menu_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import tight

# Of EN 837-1
CLASS = 1.6
CLASSES = (0.6, 1.0, 1.6, 2.5, 4.0)


class GaugeScale(QWidget):
    """The scale as a figure of the build, the class from a menu."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.scale: FigureColumn | None = None
        self.grade = QToolButton()
        self._box = tight(QVBoxLayout(self))

    def show_found(self, gauged: Gauged) -> None:
        """Show the gauges that a valve was read with, nothing before the first reading."""
        clear(self._box)
        self.scale = None
        if gauged.index is None or gauged.run is None:
            return
        self.scale = FigureColumn(
            self._session, [Spot(f"proof.gauges[{gauged.index}].full_scale", 17)]
        )
        self._box.addWidget(self.scale)
        self.grade = menu_button()
        self.grade.setText(f"Class {gauged.run.grade:g} of it (EN 837-1)")
        menu = QMenu(self.grade)
        for grade in CLASSES:
            menu.addAction(f"{grade:g}", partial(self._set_class, gauged.index, grade))
        self.grade.setMenu(menu)
        self._box.addWidget(self.grade)

    def _set_class(self, run: int, grade: float) -> None:
        rows = rows_of(self._session, "gauges")
        rows[run]["class"] = grade
        put(self._session, "gauges", rows, f"Gauges of class {grade:g}")


def in_use(gauged: Gauged | None, session: Session) -> dict[str, object]:
    """Return scale and class of the gauges that the next reading is of, as the build has them."""
    if gauged is not None and gauged.run is not None:
        return {"full_scale": gauged.run.full_scale.text, "class": gauged.run.grade}
    inch = unit_shown(PRESSURE, session.units) == "psi"
    return {"full_scale": "1500 psi" if inch else "100 bar", "class": CLASS}
