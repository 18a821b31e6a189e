"""The cards on paper."""

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QMenu, QWidget

from urgens.guidance.procedures import Procedure
from urgens.guidance.procedures.records import title_of
from urgens.quantity import UnitSystem
from urgens.sheet.cards import cards_pdf
from urgens.ui.session import Session
from urgens.ui.widgets.write_out import write_out


def cards_menu(
    parent: QWidget, session: Session, shown: Callable[[], tuple[Procedure, int]]
) -> QMenu:
    """Return what can be printed; shown: returns the procedure and how many people come."""
    menu = QMenu(parent)

    def write(*, alone: bool) -> None:
        made, people = shown()
        _write(parent, session, made, people, apart=not alone)

    menu.addAction("Checklist, and a card for each person (PDF)", partial(write, alone=False))
    menu.addAction("Checklist alone (PDF)", partial(write, alone=True))
    return menu


def _write(
    parent: QWidget, session: Session, procedure: Procedure, people: int, *, apart: bool
) -> None:
    write_out(
        parent,
        "Print the cards to a file",
        f"{session.build.name}, {procedure.name}",
        ".pdf",
        lambda: content(session, procedure, people, apart=apart),
    )


def content(session: Session, procedure: Procedure, people: int, *, apart: bool = True) -> bytes:
    """Return the pages of a procedure, on the paper that goes with the units shown."""
    units = session.units
    letter = (units if isinstance(units, UnitSystem) else units.system) is UnitSystem.INCH
    title = title_of(procedure.name)
    return cards_pdf(session.build, procedure, title, people, letter=letter, apart=apart)
