"""A procedure on paper: a checklist with boxes for all, and a card for each person."""

from pathlib import Path
from typing import NamedTuple

from urgens.document import Build, BuildErrors
from urgens.document.whole_file import write_whole
from urgens.guidance.procedures import Facts, Procedure
from urgens.guidance.procedures.people import IN_WORDS, card_of, roles
from urgens.guidance.procedures.records import title_of
from urgens.quantity import UnitSystem
from urgens.sheet.markup import rendered

BLANK = "\N{BALLOT BOX}"


class Row(NamedTuple):
    """One step on paper: its number, what is done, why, and what is written beside it."""

    number: int
    text: str
    why: str
    read: str


class Card(NamedTuple):
    """One person's steps."""

    title: str
    rows: tuple[Row, ...]


def cards(build: Build, made: Procedure, title: str, people: int) -> tuple[Card, ...]:
    """Return the checklist of a procedure, then a card for each person where there are more.

    build: the document [object]; made: the procedure [object]; title: of it [text]; people: how
    many come [-]. Source: `guidance.procedures.people`.
    """
    rows = tuple(
        Row(
            number,
            step.text,
            step.why,
            "" if step.record is None else f"{step.record.field} {step.record.unit}".strip(),
        )
        for number, step in enumerate(made.steps, start=1)
    )
    found = [Card(title, rows)]
    who = roles(made, people, bar=Facts(build).bar)
    for role in who if len(who) > 1 else ():
        own = tuple(Row(number, words, "", "") for number, words in card_of(role, made))
        found.append(Card(f"{title}: {IN_WORDS[role]}", own))
    return tuple(found)


def cards_markup(build: Build, made: Procedure, title: str, people: int) -> str:
    """Return checklist and cards in the subset of HTML that Qt's documents set; as `cards`."""
    return rendered(
        "cards.html", cards=cards(build, made, title, people), made=made, name=build.name, box=BLANK
    )


def cards_pdf(build: Build, made: Procedure, title: str, people: int, *, letter: bool) -> bytes:
    """Return checklist and cards as the content of a PDF file; a Qt application has to run."""
    from urgens.sheet.pdf import Pages

    pages = Pages(build.name, title, points=10, letter=letter)
    pages.document.setHtml(cards_markup(build, made, title, people))
    return pages.pdf()


def write_cards(build: Build, made: Procedure, path: Path, people: int) -> None:
    """Write checklist and cards to `path`; as `cards`.

    Raises BuildErrors where it does not end in .pdf, or cannot be written.
    """
    from urgens.sheet.pdf import gui

    if path.suffix.lower() != ".pdf":
        raise BuildErrors.one(str(path), "has no ending of a card", "end it .pdf")
    application = gui()  # kept until the pages are set
    letter = build.natural_units is UnitSystem.INCH
    content = cards_pdf(build, made, title_of(made.name), people, letter=letter)
    del application
    try:
        write_whole(path, content)
    except OSError as error:
        raise BuildErrors.one(
            str(path), f"cannot be written ({error.strerror})", "choose another place"
        ) from None
