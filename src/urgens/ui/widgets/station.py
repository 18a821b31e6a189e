"""What a station is to the window, whichever it is."""

import pkgutil
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from urgens.guidance import Finding, Severity, area_of
from urgens.ui.session import Session

Kept = Mapping[str, object]


class Station(QWidget):
    """One part of the work on the bench. From far away it shows what can be read from there.

    `command_requested` names something only the window can do, `place_asked` a place of another
    station; `page_shown` tells that another page is seen.
    """

    command_requested = Signal(str)
    place_asked = Signal(str)
    page_shown = Signal()

    def go_to(self, where: str) -> bool:
        """Bring what a finding points at, a path of the build; tell whether it is here."""
        return False

    def show_page_named(self, name: str) -> None:
        """Show one of its pages; one of a single page has nothing to do."""

    def take_focus(self) -> None:
        """Have the keys: what is pressed is meant for what is shown here."""
        self.setFocus()

    def take_file(self, path: Path) -> None:
        """Open a file of its kind's `suffixes` that was let go over the window."""

    @property
    def page_name(self) -> str:
        """The page that is shown, empty where there is only one."""
        return ""

    def forget_unseen(self) -> None:
        """Let go of what is not shown, so that it is not restyled only to be made anew."""

    def keep(self) -> Kept:
        """Return what was typed, chosen and scrolled to here, and is no part of the build."""
        return {}

    def give_back(self, kept: Kept) -> None:
        """Take what another station of this kind has kept."""


@dataclass(frozen=True)
class StationKind:
    """A station in the table: its name and key, its class, and what the rail says of it.

    `place` is `module:Class` in the stations' package, loaded when it is first shown; `fact` is of
    at most twelve letters; `areas` those of the findings that are mended there; what is not
    `judged` has an open ring: there is nothing to judge, or not yet. `pages` are their names; at
    those that are `standing` the vehicle does not move. Files with its `suffixes` are opened there.
    """

    name: str
    key: str
    place: str
    fact: Callable[[Session], str]
    areas: tuple[str, ...] = ()
    judged: Callable[[Session], bool] = lambda _: True
    pages: tuple[str, ...] = ()
    standing: tuple[str, ...] = ()
    suffixes: tuple[str, ...] = ()
    own_mark: Callable[[Session], Severity | None] | None = None  # where it is no finding's

    def make(self, session: Session) -> Station:
        """Return the station for a session."""
        kind = pkgutil.resolve_name(f"urgens.ui.stations.{self.place}")
        made: Station = kind(session)
        return made

    def mark(self, session: Session) -> Severity | None:
        """Return the worst there is to say of it, None where there is nothing."""
        if self.own_mark is not None:
            return self.own_mark(session)
        return worst(found_in(session, self.areas))


def found_in(session: Session, areas: tuple[str, ...]) -> list[Finding]:
    """Return the findings of some areas."""
    return [finding for finding in session.findings if area_of(finding.code) in areas]


def worst(findings: list[Finding]) -> Severity | None:
    """Return the worst of findings, None where there are none."""
    return min((finding.severity for finding in findings), default=None)


def counted(findings: list[Finding], good: str) -> str:
    """Return how many of the worst findings there are, or the good that is said of none."""
    severity = worst(findings)
    if severity is None:
        return good
    count = sum(finding.severity is severity for finding in findings)
    plural = "s" if count > 1 and severity is not Severity.ADVICE else ""
    return f"{count} {severity.word}{plural}"
