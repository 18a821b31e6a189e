"""Photographs of parts, joints and runs: taken in, named, looked at; one that is gone is said."""

from datetime import datetime
from functools import partial
from pathlib import Path
from typing import Any, ClassVar

from PySide6.QtCore import Qt
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import (
    QGridLayout,
    QLabel,
    QLineEdit,
    QMenu,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from urgens.document import Build, BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.ledger.photograph_files import put_beside
from urgens.document.ledger.photographs import Photograph
from urgens.guidance.condition.joints import joints
from urgens.guidance.planning.work import laid_circuits
from urgens.guidance.procedures.records import title_of
from urgens.guidance.words.parts import part_name
from urgens.sheet.small_copies import (
    ENDINGS,
    KEPT,
    UnreadPhotographError,
    check_photograph,
    is_at_hand,
    small_copies,
    small_copy,
)
from urgens.ui.session import Session
from urgens.ui.widgets.background import Background
from urgens.ui.widgets.buttons import menu_button, push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.file_choice import ALL, files_to_read
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import button_words, plain_label
from urgens.ui.widgets.sample import Sample
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import passing, wrapped

ACROSS = 2  # photographs in a row
WIDE = 244  # px of each
SIDE = 252  # px of the column
WHOLE = "the whole vehicle"
EMPTY = (
    "No photograph yet. Take some before anything comes off: outlets, lines, levers and settings. "
    "They are kept as files beside the build, small copies of them go on the sheet."
)
READING = "is being read…"
UNSAVED = "Save the build first: photographs lie beside its file."


class PhotographsPage(Page):
    """Small copies with what they show; what a new one is of is chosen beside."""

    kept: ClassVar[tuple[str, ...]] = ("of",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.of = ""
        inner = QWidget()
        self._grid = QGridLayout(inner)
        self._grid.setVerticalSpacing(12)
        self.cards: list[tuple[QLabel, QLineEdit, QPushButton]] = []
        self._shown: tuple[object, ...] = ()  # of which photographs these are the cards
        self._pictures: dict[bytes, QPixmap] = {}
        self.what = menu_button()
        self.what.setMenu(QMenu(self.what))
        self.note = QLineEdit()
        self.note.setPlaceholderText("what is to be seen")
        self.note.setAccessibleName("What is to be seen")
        self.add = push_button("Add a photograph…", "primary", self.ask)
        self.refused = passing()
        self.head("A new one, of")
        for widget in (self.what, self.note, self.add, self.refused):
            self.column.addWidget(widget)
        self.column.addStretch()
        whole = QWidget()
        column = tight(QVBoxLayout(whole))
        column.addWidget(scrolled(inner, "Photographs"), 1)
        self.lay_out(whole, side=SIDE)
        self.said.hide()
        self._work = Background(self)
        self._work.ended.connect(self._read)
        self._work.failed.connect(self.refused.setText)
        session.file_changed.connect(self.seen.ask)

    @property
    def summary(self) -> str:
        """How many there are."""
        count = len(self.session.base.photographs)
        return f"{count} photograph{'s' if count != 1 else ''}"

    def show_figures(self) -> None:
        """Show the photographs there are, and what a new one can be of."""
        places = subjects(self.session.base)
        if self.of not in places:
            self.of = ""
        self.what.setText(button_words(places[self.of]))
        menu = self.what.menu()
        menu.clear()
        for place, words in places.items():
            menu.addAction(button_words(words), partial(self.choose, place))
        shots = self.session.base.photographs
        self._read_pictures()
        named = tuple((one.file, one.sha256, one.at, _named(one, places)) for one in shots)
        if self._shown == (self._folder, named) and shots:  # only what was worded is another
            for (_, note, _), one in zip(self.cards, shots, strict=True):
                if not note.hasFocus():
                    note.setText(one.note)
            if not self._work.busy:
                self._read()
            return
        self._shown = self._folder, named
        clear(self._grid)
        self.cards = []
        if not shots:
            self._grid.addWidget(wrapped("muted", EMPTY), 0, 0)
            self._grid.addWidget(Sample(self.session, "photographs"), 1, 0)
            self._grid.setRowStretch(2, 1)
        for number, one in enumerate(shots):
            card = self._card(number, one, places)
            self._grid.addWidget(card, number // ACROSS, number % ACROSS)
        self._grid.setRowStretch(len(shots) // ACROSS + 1, 1)

    @property
    def _folder(self) -> Path | None:
        return None if self.session.path is None else self.session.path.parent

    def _read_pictures(self) -> None:
        """Read pictures that were not read before, away from the hand."""
        build, folder = self.session.base, self._folder
        if not all(is_at_hand(one, folder) for one in build.photographs):
            self._work.run(lambda progress: small_copies(build, folder))

    def _read(self) -> None:
        """Put the pictures that were read into their cards; what is typed there stays."""
        shots, places = self.session.base.photographs, subjects(self.session.base)
        for (picture, _, _), one in zip(self.cards, shots, strict=False):
            self._put_picture(picture, one, _named(one, places), read=True)

    def _put_picture(
        self, picture: QLabel, photograph: Photograph, named: str, *, read: bool = False
    ) -> None:
        """Show a photograph's small copy, or why there is none, or that it is being read."""
        picture.setAccessibleName(f"Photograph of {named}: {photograph.note or photograph.file}")
        if not read and not is_at_hand(photograph, self._folder):
            picture.setText(READING)
            return
        try:
            copy = small_copy(photograph, self._folder)
        except UnreadPhotographError as error:
            picture.setText(f"{photograph.file}: {error}.")
            picture.setProperty("role", "danger")
            picture.style().polish(picture)
            return
        picture.setPixmap(self._pixmap(copy.png))

    def _pixmap(self, png: bytes) -> QPixmap:
        """Return a small copy as it is shown, made once."""
        if png not in self._pictures:
            if len(self._pictures) >= KEPT:
                self._pictures.clear()
            pixmap = QPixmap()
            pixmap.loadFromData(png)
            smooth = Qt.TransformationMode.SmoothTransformation
            self._pictures[png] = pixmap.scaledToWidth(WIDE, smooth)
        return self._pictures[png]

    def _card(self, number: int, photograph: Photograph, places: dict[str, str]) -> QWidget:
        card = QWidget()
        column = tight(QVBoxLayout(card))
        picture, note, named = plain_label(), QLineEdit(photograph.note), _named(photograph, places)
        picture.setWordWrap(True)
        self._put_picture(picture, photograph, named)
        note.setPlaceholderText("what is to be seen")
        note.setAccessibleName(f"What is to be seen on photograph {number + 1}")
        note.editingFinished.connect(lambda: self._word(number, note.text()))
        drop = push_button("Take it out", "small")
        drop.setAccessibleName(f"Take photograph {number + 1} out; its file stays")
        drop.clicked.connect(partial(self._drop, number))
        when = "" if photograph.at is None else f", {photograph.at:%Y-%m-%d}"
        for widget in (picture, wrapped("heading", f"{named}{when}"), note, drop):
            column.addWidget(widget)
        column.addStretch()
        self.cards.append((picture, note, drop))
        return card

    # --- into the build --------------------------------------------------------------------

    def look_at(self, name: str) -> None:
        """Say what a new photograph is of; name: its place, then what it shows, if anything.

        Both are parted by a comma; without either it is of the whole.
        """
        place, _, shows = name.partition(", ")
        self.choose(place)
        self.note.setText(shows)

    def choose(self, place: str) -> None:
        """Say what a new photograph is of."""
        self.of = place
        self._show()

    def ask(self) -> None:
        """Ask for photographs and take them in."""
        if self.session.path is None:
            self.refused.setText(UNSAVED)
            return
        kinds = " ".join(f"*.{one}" for one in ENDINGS)
        pictures = f"Pictures ({kinds});;{ALL}"
        for path in files_to_read(self, "Photographs", self.session.path.parent, pictures):
            self.take(path)

    def take(self, path: Path) -> None:
        """Take a photograph in, or say why it cannot be."""
        build_file = self.session.path
        if build_file is None:
            self.refused.setText(UNSAVED)
            return
        try:
            check_photograph(path)  # before it is copied
            name, digest = put_beside(path, build_file)
        except UnreadPhotographError as error:
            self.refused.setText(f"{path.name} {error}; choose another one.")
            return
        except OSError as error:
            self.refused.setText(f"{path.name} cannot be put beside the build ({error.strerror}).")
            return
        self.refused.setText("")
        made = {"file": name, "at": datetime.now().isoformat(timespec="minutes"), "sha256": digest}
        made |= {name: text for name, text in (("of", self.of), ("note", self.note.text().strip()))
                 if text}  # fmt: skip
        self.note.clear()
        self._put([*self._rows(), made], f"Photograph {path.name}")

    def _rows(self) -> list[dict[str, Any]]:
        rows: list[dict[str, Any]] = dumped(self.session.base).get("photographs", [])
        return rows

    def _put(self, rows: list[dict[str, Any]], label: str) -> None:
        self.session.make(BuildChange(label, {"photographs": rows}), in_setup=False)
        self.refresh()

    def _word(self, number: int, text: str) -> None:
        rows = self._rows()
        if number < len(rows) and rows[number].get("note", "") != text.strip():
            rows[number]["note"] = text.strip()
            self._put(rows, f"Photograph {number + 1}, worded")

    def _drop(self, number: int) -> None:
        rows = self._rows()
        gone = rows.pop(number)
        self._put(rows, f"Photograph {gone['file']} taken out")


def _named(photograph: Photograph, places: dict[str, str]) -> str:
    """Return what a photograph is of, in words."""
    return places.get(photograph.of, photograph.of) if photograph.of else WHOLE


def subjects(build: Build) -> dict[str, str]:
    """Return what a photograph can be of: the whole, runs, parts, lines, joints; by place."""
    found = {"": WHOLE}
    for index, run in enumerate(build.records):
        title = title_of(run.procedure)
        found[f"records[{index}]"] = f"{title}, {run.started:%Y-%m-%d}"
    if build.plumbing is not None:
        circuits = laid_circuits(build)
        found |= {part.id: part_name(circuits, part) for part in build.plumbing.parts}
        lines = [line for line in build.plumbing.lines if not line.direct]
        found |= {line.id: f"Line {line.id.removeprefix('L')}" for line in lines}
        found |= {one.name: f"Joint {one.where}" for one in joints(build) if one.where}
    return found
