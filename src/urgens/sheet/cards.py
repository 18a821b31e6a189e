"""A procedure on paper: a checklist with boxes for all, and a card for each person."""

from pathlib import Path
from typing import NamedTuple

from urgens.document import Build, BuildErrors
from urgens.document.whole_file import write_whole, written_to
from urgens.guidance.procedures import Facts, Procedure
from urgens.guidance.procedures.people import IN_WORDS, card_of, roles
from urgens.guidance.procedures.records import title_of
from urgens.quantity import UnitSystem
from urgens.sheet.markup import rendered

BLANK = "\N{BALLOT BOX}"


class CardRow(NamedTuple):
    """One step on paper: its number, what is done, why, and what is written beside it."""

    number: int
    text: str
    why: str
    read: str


class PersonCard(NamedTuple):
    """One person's steps."""

    title: str
    rows: tuple[CardRow, ...]


def cards(
    build: Build, procedure: Procedure, title: str, people: int, *, apart: bool = True
) -> tuple[PersonCard, ...]:
    """Return the checklist of a procedure, then a card for each person where there are more.

    procedure: the procedure; title: of it [text]; people: how many come [-]; apart: whether each
    has a card.
    """
    rows = tuple(
        CardRow(
            number,
            _with_loop(step.text, procedure.back_to(number)),
            step.why,
            "" if step.record is None else f"{step.record.field} {step.record.unit}".strip(),
        )
        for number, step in enumerate(procedure.steps, start=1)
    )
    found = [PersonCard(title, rows)]
    who = roles(procedure, people, bar=Facts(build).bar)
    for role in who if apart and len(who) > 1 else ():
        own = tuple(
            CardRow(number, words, "", "") for number, words in card_of(role, procedure, who)
        )
        found.append(PersonCard(f"{title}: {IN_WORDS[role]}", own))
    return tuple(found)


def _with_loop(text: str, back_to: int | None) -> str:
    return text if back_to is None else f"{text} Until then: from step {back_to} again."


def cards_markup(
    build: Build, procedure: Procedure, title: str, people: int, *, apart: bool = True
) -> str:
    """Return checklist and cards in the subset of HTML that Qt's documents set; as `cards`."""
    return rendered(
        "cards.html",
        cards=cards(build, procedure, title, people, apart=apart),
        made=procedure,
        people=people,
        name=build.name,
        box=BLANK,
    )


def cards_pdf(
    build: Build, procedure: Procedure, title: str, people: int, *, letter: bool, apart: bool = True
) -> bytes:
    """Return checklist and cards as the content of a PDF file; a Qt application has to run."""
    from urgens.sheet.pdf import Pages

    pages = Pages(build.name, title, points=10, letter=letter)
    pages.document.setHtml(cards_markup(build, procedure, title, people, apart=apart))
    return pages.pdf()


def write_cards(build: Build, procedure: Procedure, path: Path, people: int) -> None:
    """Write checklist and cards to `path`; as `cards`.

    Raises BuildErrors where it does not end in .pdf, or cannot be written.
    """
    from urgens.sheet.pdf import gui

    if path.suffix.lower() != ".pdf":
        raise BuildErrors.one(str(path), "has no ending of a card", "end it .pdf")
    application = gui()  # kept until the pages are set
    letter = build.natural_units is UnitSystem.INCH
    content = cards_pdf(build, procedure, title_of(procedure.name), people, letter=letter)
    del application
    with written_to(path):
        write_whole(path, content)
