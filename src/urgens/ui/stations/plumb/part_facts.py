"""What else is known of a part or a line: its figures, its marking, and what was looked at."""

from collections.abc import Callable, Mapping
from datetime import date
from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QVBoxLayout

from urgens.document import BuildErrors, value_at
from urgens.document.kinds.valves import LAID, kind_of
from urgens.document.layout.layout import BrakeLine, FittedPart
from urgens.quantity import whole_number
from urgens.ui.session import Session
from urgens.ui.widgets.chooser import chooser
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.worded import worded

HOSE = ("free_length", "reach", "bore", "expansion")
FIGURES: Mapping[str, tuple[str, ...]] = {
    "hose": HOSE, "gauge": ("full_scale",), "sensor": ("full_scale",), "banjo": ("torque",),
}  # fmt: skip
VALVES = tuple(kind for kind in LAID if kind_of(kind).fastened)
FASTENED = ("tee", "block", "switch", "combination", *VALVES, "sensor", "gauge")
JOINING = ("union", "adapter", "tee")
YES = "yes"
NO = "no"
UNKNOWN = ""
ANSWERS = {UNKNOWN: "not looked at", YES: "yes", NO: "no"}
STAYS = {UNKNOWN: "not said", YES: "kept, it is there", NO: "new"}
MADE = {UNKNOWN: "not said", YES: "already, bent and flared", NO: "not yet"}
ATTITUDES = {UNKNOWN: "not looked at", "hangs": "hangs down", "up": "stands up", "level": "level"}
Facts = tuple[tuple[str, str, tuple[str, ...]], ...]
LOOKED_AT: Facts = (
    ("fixed", "Fixed to the body", FASTENED),
    ("bleeder_at_top", "Bleed screw at the top", ("wheel-brake",)),
    ("compression", "Clamps the tube with a ring", JOINING),
)


class PartFacts:
    """Puts rows under a part or a line; what is typed or chosen goes into the build."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def of_part(self, rows: QVBoxLayout, part: FittedPart, path: str) -> None:
        """Put the figures and facts of a part that stands at a path of the build."""
        self._figures(rows, path, FIGURES.get(part.kind, ()))
        for name, words, kinds in LOOKED_AT:
            if part.kind in kinds:
                now = {True: YES, False: NO}.get(getattr(part, name), UNKNOWN)
                take = partial(self._answer, f"{path}.{name}", words)
                rows.addWidget(chooser(f"{words}: {ANSWERS[now]}", words, ANSWERS, take))
        if part.kind == "banjo":
            for name, words in (("eyes", "Eyes on it"), ("washers", "New washers")):
                now = getattr(part, name)
                text = "" if now is None else str(now)
                self._typed(rows, words, text, partial(self._whole, f"{path}.{name}"))
        if part.kind == "sensor":
            self._chosen(rows, f"{path}.attitude", "How it sits", part.attitude, ATTITUDES)
        self._chosen(rows, f"{path}.stays", "Kept or new", _word(part.stays), STAYS)
        if part.kind == "hose":
            since = "" if part.since is None else part.since.isoformat()
            self._typed(rows, "There since", since, partial(self._day, f"{path}.since"))
        self._typed(rows, "Marking", part.marking, partial(self._text, f"{path}.marking"))
        self._typed(rows, "Easy while out", part.easy_while,
                    partial(self._text, f"{path}.easy_while"))  # fmt: skip

    def of_line(self, rows: QVBoxLayout, line: BrakeLine, path: str) -> None:
        """Put the figures and words of a line that stands at a path of the build."""
        self._figures(rows, path, ("bend_radius", "torque"))
        self._chosen(rows, f"{path}.stays", "Kept or new", _word(line.stays), STAYS)
        self._chosen(rows, f"{path}.made", "Made", _word(line.made), MADE)
        first = ", ".join(line.slide_on_first)
        self._typed(rows, "On before", first, partial(self._slide, f"{path}.slide_on_first"))
        self._typed(rows, "Marking", line.marking, partial(self._text, f"{path}.marking"))
        self._typed(rows, "Easy while out", line.easy_while,
                    partial(self._text, f"{path}.easy_while"))  # fmt: skip

    def _chosen(
        self, rows: QVBoxLayout, path: str, words: str, now: str | None, answers: Mapping[str, str]
    ) -> None:
        """Put a row of which one is chosen."""
        take = partial(self._choose, path, words, answers)
        rows.addWidget(chooser(f"{words}: {answers[now or UNKNOWN]}", words, answers, take))

    def _choose(self, path: str, words: str, answers: Mapping[str, str], answer: str) -> None:
        value: object = {YES: True, NO: False, UNKNOWN: None}.get(answer, answer)
        self._session.edit(path, value, f"{words}: {answers[answer]}")

    def _figures(self, rows: QVBoxLayout, path: str, names: tuple[str, ...]) -> None:
        if names:
            spots = [Spot(f"{path}.{name}", 17) for name in names]
            rows.addWidget(FigureColumn(self._session, spots))

    @staticmethod
    def _typed(rows: QVBoxLayout, name: str, now: str, take: Callable[[str], None]) -> None:
        field = QLineEdit(now)
        field.setAccessibleName(name)
        field.editingFinished.connect(lambda: take(field.text()))
        row = QHBoxLayout()
        row.addWidget(worded(name, "muted"))
        row.addWidget(field, 1)
        rows.addLayout(row)

    # --- into the build --------------------------------------------------------------------

    def _answer(self, path: str, words: str, answer: str) -> None:
        value = {YES: True, NO: False}.get(answer)
        self._session.edit(path, value, f"{words}: {ANSWERS[answer]}")

    def _text(self, path: str, typed: str) -> None:
        self._put(path, typed.strip())

    def _day(self, path: str, typed: str) -> None:
        self._put(path, typed.strip() or None)

    def _whole(self, path: str, typed: str) -> None:
        count = whole_number(typed)
        self._put(path, typed.strip() or None if count is None else count)

    def _slide(self, path: str, typed: str) -> None:
        self._put(path, [one.strip() for one in typed.split(",") if one.strip()])

    def _put(self, path: str, value: object) -> None:
        """Put a value in, where it is another one."""
        try:
            now = value_at(self._session.build, path)
        except BuildErrors:
            now = None
        if isinstance(now, date):
            now = now.isoformat()
        if (list(now) if isinstance(now, tuple) else now) != value:
            self._session.edit(path, value)


def _word(said: bool | None) -> str:
    return {True: YES, False: NO}.get(said, UNKNOWN) if said is not None else UNKNOWN
