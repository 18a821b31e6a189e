"""The pedal's page: ratio along the stroke, where to drill, and what follows."""

import numpy as np
from PySide6.QtCore import QPointF
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.guidance.words.pushrod_pin import consequences, edge_caution, where_to_drill
from urgens.quantity import (
    LENGTH,
    QuantityError,
    ShownFigure,
    decimal,
    in_units,
    retype,
    show,
    shown,
)
from urgens.studies.pedal_linkage import PLACES, along_the_stroke, linkage
from urgens.ui.session import Session
from urgens.ui.stations.size.linkage_board import LinkageBoard
from urgens.ui.theme.paint import T
from urgens.ui.widgets.board import write
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.choice_button import ChoiceButton
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.plain import plain_label
from urgens.ui.widgets.plane import Note, Plane
from urgens.ui.widgets.worded import worded, wrapped

# Ratios that can be asked for
LEAST = 2.0
MOST = 12.0
FIGURES = (
    Spot("pedal.angles.pad", 17),
    Spot("pedal.angles.pushrod", 17),
    Spot("pedal.angles.cylinder", 17),
    Spot("pedal.rod_length", 17),
    Spot("pedal.axis", 17),
    Spot("pedal.hole_diameter", 17),
    Spot("pedal.travel_available", 17),
)
MOUNTS = {"swing": "hangs from above", "floor": "stands on the floor"}
ASSUMED = {"pad": "30 deg", "pushrod": "12 deg"}


class ThreeRatios(Painted):
    """Ratio and rod angle at rest, mid stroke and floor."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.setFixedHeight(round(84 * self.scale))

    def refresh(self) -> None:
        """Show the build as it is now."""
        found = linkage(self._session.build)
        said = "not known: the arms' angles are not given"
        if found is not None:
            said = ", ".join(f"{r:.2f} {p}" for r, p in zip(found.ratio, PLACES, strict=True))
        self.setAccessibleName(f"Pedal ratio along the stroke: {said}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            found = linkage(self._session.build)
            for index, place in enumerate(PLACES):
                x = index * self.across / 3
                write(painter, place, QPointF(x, 15), size=15)
                if found is None:
                    write(painter, "—", QPointF(x, 44), size=26, weight=700)
                    continue
                ratio, tilt = float(found.ratio[index]), float(found.rod_angle[index])
                self._figure(painter, x, ratio)
                words = "rod past reach" if np.isnan(tilt) else f"rod {np.degrees(tilt):+.1f}°"
                write(painter, words.replace("-", "−"), QPointF(x, 66), size=15)

    def _figure(self, painter: QPainter, x: float, ratio: float) -> None:
        words = "—" if np.isnan(ratio) else f"{ratio:.2f}"
        write(painter, words, QPointF(x, 44), size=26, weight=700, color=T.ink)
        at = QPointF(x + 14 + 13 * len(words), 44)
        write(painter, ": 1", at, size=16)


class RatioPlane(Plane):
    """The ratio over the pad's travel."""

    def __init__(self, session: Session) -> None:
        super().__init__("Pedal ratio along the stroke")
        self._session = session
        self.curve = self.add_curve(T.ink, 3)
        self.plain = self.add_curve(T.muted, 1.5)

    def refresh(self) -> None:
        """Draw the build as it is now."""
        session, build = self._session, self._session.build
        found = linkage(build)
        plain = float(session.solution.system.pedal_ratio)
        floor = build.pedal.travel_available.value
        scale = in_units(LENGTH, session.units)
        travel = np.linspace(0.0, floor, 61)
        notes = [Note(f"{plain:.2f}, arm over arm: what all figures use", (0.0, plain), T.muted)]
        ratio = np.full(61, plain)
        if found is not None:
            swing = travel / build.pedal.pivot_to_pad.value
            ratio = along_the_stroke(build, found, swing).ratio
            known = np.isfinite(ratio)
            if known.any():
                end = float(ratio[known][-1])
                notes.append(Note("as it swings", (travel[known][-1] / scale, end), T.ink))
        self.curve.setVisible(found is not None)
        self.curve.set_points(travel / scale, ratio)
        self.plain.set_points(np.array([0.0, floor]) / scale, np.full(2, plain))
        low, high = np.nanmin([*ratio, plain]), np.nanmax([*ratio, plain])
        self.set_range((0.0, floor / scale), (0.93 * low, 1.07 * high))
        self.set_notes(notes, [self.curve.points], [])


class PedalPage(Page):
    """Drag the pin, or ask for a ratio."""

    kept = ("wanted",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.board = LinkageBoard(session)
        self.plane = RatioPlane(session)
        self.ratios = ThreeRatios(session)
        self.figures = FigureColumn(session, FIGURES)
        self.wanted = 6.0
        self.asked = DimensionLabel("Wanted ratio", self._ask, size=22, parent=self)
        self.asked.stepped.connect(self._step)
        self.drill = QPushButton()
        self.drill.clicked.connect(self._move)
        self.caution, self.follows = wrapped(), wrapped()
        self.mount = ChoiceButton(session, "Pedal", "pedal.mount", MOUNTS, none="hanging, not said")
        self.angles = push_button("Give the arms' angles", "quiet", self._give_angles)
        self.hole = push_button("This hole is there", "quiet", self._note_hole)
        self._fill()

    def _fill(self) -> None:
        drawing = QWidget()
        column = tight(QVBoxLayout(drawing))
        column.addWidget(self.board, 3)
        self.axis = plain_label()
        self.axis.setProperty("role", "muted")
        column.addWidget(self.axis)
        column.addWidget(self.plane, 2)
        self.column.addWidget(self.mount)
        self.column.addWidget(self.ratios)
        self.column.addWidget(self.angles)
        self.column.addWidget(self.figures)
        self.head("For a ratio of")
        row = QHBoxLayout()
        row.addWidget(self.asked)
        row.addWidget(worded(": 1", "muted"))
        row.addStretch()
        row.addWidget(self.drill)
        self.column.addLayout(row)
        self.column.addWidget(self.caution)
        self.head("With the pin where it is")
        self.column.addWidget(self.follows)
        self.column.addWidget(self.hole)
        self.column.addStretch()
        self.lay_out(drawing)

    @property
    def summary(self) -> str:
        """Pin and ratio."""
        made = self.session.build.pedal
        ratio = float(self.session.solution.system.pedal_ratio)
        at = shown(made.pivot_to_pushrod, LENGTH, self.session.units)
        return f"pin at {at}, {ratio:.2f} : 1; drag it along the arm"

    def show_figures(self) -> None:
        """Show ratios, drilling and consequences of the build as it is now."""
        build, units = self.session.build, self.session.units
        self.figures.refresh()
        self.mount.refresh()
        self.ratios.refresh()
        self.plane.refresh()
        unit = show(0.0, LENGTH, units).unit
        self.axis.setText(f"Pedal ratio over pad travel, {unit}")
        self.angles.setVisible(build.pedal.angles is None)
        pin = where_to_drill(build, self.wanted)
        self.asked.set_value(ShownFigure(f"{self.wanted:.2f}", ""), f"{self.wanted:.2f}")
        self.drill.setText(f"Pin to {retype(pin, LENGTH, units)}")
        self.caution.setText(edge_caution(build, pin, units))
        self.follows.setText("\n".join(consequences(build, units)))
        holes = {round(hole.value, 4) for hole in build.pedal.holes}
        self.hole.setVisible(round(build.pedal.pivot_to_pushrod.value, 4) not in holes)

    def _step(self, steps: int) -> None:
        self.asked.attempt(lambda: self._ask(f"{self.wanted + 0.1 * steps:.2f}"))

    def _ask(self, typed: str) -> None:
        """Take a wanted ratio; raises QuantityError."""
        try:
            ratio = decimal(typed)
        except ValueError:
            raise QuantityError(f'"{typed}" is no ratio', "write it like 6.2") from None
        if not LEAST <= ratio <= MOST:
            raise QuantityError(f"{typed} is no pedal", f"write {LEAST:g} to {MOST:g}")
        self.wanted = ratio
        self.show_figures()

    def _move(self) -> None:
        typed = retype(where_to_drill(self.session.build, self.wanted), LENGTH, self.session.units)
        self.session.plan("pedal.pivot_to_pushrod", typed, f"Pushrod pin at {typed}")

    def _give_angles(self) -> None:
        label = "Angles of the pedal's arms, assumed"
        self.session.make(BuildChange.assuming(label, {"pedal.angles": ASSUMED}))

    def _note_hole(self) -> None:
        made = self.session.build.pedal
        holes = [hole.text for hole in made.holes] + [made.pivot_to_pushrod.text]
        self.session.edit("pedal.holes", holes, "A hole in the pedal's arm")
