"""What is chosen on the plan: a part with its ports, or a line with its ends, to be changed."""

from collections.abc import Mapping
from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.document import BuildChange
from urgens.document.layout.layout import BrakeLine, FittedPart
from urgens.document.layout.threads import thread_table
from urgens.document.part_catalogue import CataloguePart
from urgens.document.paths import path_of
from urgens.guidance.advice.by_hand import OFFERED, places_for
from urgens.guidance.words.block_key import laid_as, named_bodies, telling_test
from urgens.guidance.words.parts import KINDS, MATERIALS, SEATS, line_name, part_name, port_name
from urgens.quantity import PRESSURE, show
from urgens.ui.session import Session
from urgens.ui.stations.plumb.laid import Laid
from urgens.ui.stations.plumb.part_facts import PartFacts
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.chooser import chooser
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.worded import worded, wrapped

UNKNOWN = "not known"
SHORT_SEATS = {seat: words.removesuffix(" flare") for seat, words in SEATS.items()}
KEPT = ("master", "wheel-brake")  # follow from the build, and are not taken out here


class Thing(QWidget):
    """The heading, a row for each port or end, and what can be done with it."""

    gauge_asked = Signal(str)  # a port
    put_asked = Signal(str, object)  # a line, and the part of the catalogue that goes into it
    keep_asked = Signal(str)  # a part, into the builder's own catalogue
    out_asked = Signal(str)  # a part

    def __init__(self, session: Session, laid: Laid) -> None:
        super().__init__()
        self._session, self._laid = session, laid
        self._facts = PartFacts(session)
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 4)
        self._column.setSpacing(4)
        self._inner: QWidget | None = None
        self._shown: object = None
        self._pressures: dict[str, QPushButton] = {}  # of ports, on the buttons of their gauges
        self.hide()

    def show_thing(self, where: str, gauges: tuple[str, ...]) -> None:
        """Show what stands there in the layout, nothing where nothing does."""
        part = self._laid.circuits.parts.get(where)
        line = next((one for one in self._laid.plumbing.lines if one.id == where), None)
        # Where it is drawn says nothing of it: while it is dragged nothing here is made anew.
        still = None if part is None else part.model_copy(update={"drawn_at": None})
        shown = (still, line, gauges, self._laid.own, self._session.units)
        if shown != self._shown:
            self._shown = shown
            self._build(part, line, gauges)
        self.setVisible(part is not None or line is not None)
        self.follow_press()

    def _build(
        self, part: FittedPart | None, line: BrakeLine | None, gauges: tuple[str, ...]
    ) -> None:
        if self._inner is not None:
            self._inner.hide()
            self._inner.deleteLater()
        self._pressures = {}
        self._inner = QWidget()
        rows = tight(QVBoxLayout(self._inner), 2)
        if part is not None:
            self._show_part(rows, part, gauges)
        elif line is not None:
            self._show_line(rows, line, gauges)
        self._column.addWidget(self._inner)

    # --- a part ----------------------------------------------------------------------------

    def _show_part(self, rows: QVBoxLayout, part: FittedPart, gauges: tuple[str, ...]) -> None:
        rows.addWidget(wrapped("heading", part_name(self._laid.circuits, part)))
        kind = "" if part.wheel is None and part.kind != "hose" else KINDS[part.kind]
        if kind:
            rows.addWidget(worded(kind, "small"))
        index = self._laid.plumbing.parts.index(part)
        for name, port in part.ports.items():
            path = path_of(("plumbing", "parts", index, "ports", name))
            face = (port.thread or UNKNOWN, port.seat)
            rows.addLayout(self._port(name.replace("-", " "), f"{part.id}.{name}", gauges))
            rows.addLayout(self._face(name, face, f"{path}.thread", f"{path}.seat"))
        if self._laid.own:
            self._facts.of_part(rows, part, f"plumbing.parts[{index}]")
        if self._laid.own and part.may_be:
            self._told_apart(rows, part, f"plumbing.parts[{index}]")
        if self._laid.own:
            self._as_sold(rows, part, index)
        if self._laid.own and part.kind not in KEPT:
            out = push_button("Take it out", "quiet", lambda: self.out_asked.emit(part.id))
            rows.addWidget(out)
            keep = push_button(
                "Keep it in my parts", "quiet", lambda: self.keep_asked.emit(part.id)
            )
            rows.addWidget(keep)

    def _told_apart(self, rows: QVBoxLayout, part: FittedPart, path: str) -> None:
        """Ask what a body is, once it was gauged or looked through."""
        rows.addWidget(wrapped("", f"May be: {named_bodies(part.may_be)}. Open until gauged."))
        rows.addWidget(wrapped("small", telling_test(part.may_be)))
        for body in part.may_be:
            said = f"Gauged: it is a {named_bodies((body,))}"
            rows.addWidget(push_button(said, "quiet", partial(self._tell, path, body, said)))

    def _tell(self, path: str, body: str, said: str) -> None:
        values = {f"{path}.kind": laid_as((body,)), f"{path}.may_be": []}
        self._session.make(BuildChange(said, values))

    def _as_sold(self, rows: QVBoxLayout, part: FittedPart, index: int) -> None:
        """Offer the ports of those of its kind that are ordinary in shops, or kept."""
        known = {one.name: one for one in self._laid.parts.ordinary((part.kind,))
                 if len(one.ports) == len(part.ports)}  # fmt: skip
        if not known:
            return
        names = {name: name for name in known}
        take = partial(self._take_ports, part, index, known)
        rows.addWidget(chooser("Ports as those of…", "Ports as those of", names, take))

    def _take_ports(
        self, part: FittedPart, index: int, known: Mapping[str, CataloguePart], name: str
    ) -> None:
        values = {}
        for port, face in zip(part.ports, known[name].ports.values(), strict=True):
            path = path_of(("plumbing", "parts", index, "ports", port))
            values[path] = face.model_dump(mode="json", exclude_unset=True)
        self._session.make(BuildChange(f"Ports as those of: {name}", values))

    def _port(self, words: str, port: str, gauges: tuple[str, ...]) -> QHBoxLayout:
        """Return the name of a port, and the button that puts a gauge on it."""
        row = QHBoxLayout()
        row.addWidget(worded(words, "muted"))
        row.addStretch()
        button = QPushButton()
        button.setCheckable(True)
        button.setChecked(port in gauges)
        button.setProperty("role", "small")
        button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        button.clicked.connect(lambda: self.gauge_asked.emit(port))
        self._pressures[port] = button
        row.addWidget(button)
        return row

    def _face(self, name: str, face: tuple[str, str | None], thread: str, seat: str) -> QHBoxLayout:
        """Return what a port or an end shows: its thread and its seat, each with its choices."""
        row = spaced(QHBoxLayout(), 0)
        said = SHORT_SEATS.get(face[1] or "", UNKNOWN)
        if not self._laid.own:
            row.addWidget(worded(f"{face[0]}, {said}", "small"))
            return row
        threads = {one.name: one.name for one in thread_table().threads}
        row.addWidget(chooser(face[0], f"Thread of {name}", threads, partial(self._put, thread)))
        row.addWidget(chooser(said, f"Seat of {name}", SEATS, partial(self._put, seat)))
        row.addStretch()
        return row

    # --- a line ----------------------------------------------------------------------------

    def _show_line(self, rows: QVBoxLayout, line: BrakeLine, gauges: tuple[str, ...]) -> None:
        what = "Screwed together" if line.direct else f"Line {line.id.removeprefix('L')}"
        rows.addWidget(wrapped("heading", f"{what}: {self._lower(line)}"))
        path = f"plumbing.lines[{self._laid.plumbing.lines.index(line)}]"
        if not line.direct:
            rows.addLayout(self._tube(line, path))
        for end, port in enumerate((line.start, str(line.to))):
            words = f"at the {port_name(self._laid.circuits, port)}"
            rows.addLayout(self._port(words, port, gauges))
            if end < len(line.ends):
                face = (line.ends[end].nut, line.ends[end].flare)
                there = f"{path}.ends[{end}]"
                rows.addLayout(
                    self._face(
                        words.removeprefix("at the "), face, f"{there}.nut", f"{there}.flare"
                    )
                )
        if self._laid.own and not line.direct:
            self._facts.of_line(rows, line, path)
            build = self._session.build
            kinds = [kind for kind in OFFERED if line.id in places_for(build, kind).lines]
            parts = {part.name: part for part in self._laid.parts.ordinary(kinds)}
            take = partial(self._put_in, line.id, parts)
            names = {name: name for name in parts}
            rows.addWidget(chooser("Put a part into it", "Into this line", names, take))
            if self._laid.parts.fault:
                rows.addWidget(wrapped("error", self._laid.parts.fault))

    def _lower(self, line: BrakeLine) -> str:
        name = line_name(self._laid.circuits, line)
        return name[:1].lower() + name[1:]

    def _tube(self, line: BrakeLine, path: str) -> QHBoxLayout:
        row = spaced(QHBoxLayout(), 0)
        tube = UNKNOWN if line.tube is None else line.tube.text
        material = MATERIALS.get(line.material or "", UNKNOWN)
        if not self._laid.own:
            row.addWidget(worded(f"{tube}, {material}", "small"))
            return row
        tubes = {one.diameter.text: one.name for one in thread_table().tubes}
        row.addWidget(chooser(tube, "Tube", tubes, partial(self._put, f"{path}.tube")))
        row.addWidget(
            chooser(material, "Material", MATERIALS, partial(self._put, f"{path}.material"))
        )
        row.addStretch()
        return row

    # --- actions -----------------------------------------------------------------------------

    def _put(self, path: str, value: str) -> None:
        self._session.edit(path, value)

    def _put_in(self, line: str, parts: Mapping[str, CataloguePart], name: str) -> None:
        self.put_asked.emit(line, parts[name])

    def follow_press(self) -> None:
        """Show the pressures of the press."""
        if not self._pressures or not self.isVisible():
            return
        found = self._laid.pressures
        for port, button in self._pressures.items():
            lines = (one.id for one in self._laid.plumbing.lines if port in (one.start, one.to))
            pressure = next((found[one] for one in lines if one in found), None)
            units = self._session.units
            said = "not fed" if pressure is None else str(show(pressure, PRESSURE, units))
            button.setText(f"Gauge  {said}")
            button.setAccessibleName(f"Gauge at the {port_name(self._laid.circuits, port)}: {said}")
