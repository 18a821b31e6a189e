"""A procedure on paper: a checklist with boxes for all, and a card for each person."""

from datetime import date
from itertools import groupby
from pathlib import Path
from typing import NamedTuple

from urgens.document import Build, BuildErrors
from urgens.document.whole_file import write_whole, written_to
from urgens.guidance.procedures import Facts, Procedure
from urgens.guidance.procedures.people import IN_WORDS, card_of, roles
from urgens.guidance.procedures.records import title_of
from urgens.guidance.words.parts import wheel_name
from urgens.quantity import UnitSystem
from urgens.sheet.markup import rendered

BLANK = "\N{BALLOT BOX}"
BEFORE, AFTER = "before", "after"  # the wheels, or the proofs
SIZES = (1.2, 1.1, 1.0, 0.92, 0.85)  # of the usual one


class CardRow(NamedTuple):
    """One step on paper: its number, what is done, why, and what is written beside it."""

    number: int
    text: str
    why: str
    read: str


class CardPart(NamedTuple):
    """Steps that stand under one title: a wheel, a proof, what comes before and after."""

    title: str
    rows: tuple[CardRow, ...]


class PersonCard(NamedTuple):
    """One person's steps, in parts."""

    title: str
    parts: tuple[CardPart, ...]

    @property
    def rows(self) -> tuple[CardRow, ...]:
        """All steps in their order."""
        return tuple(row for part in self.parts for row in part.rows)

    @property
    def columns(self) -> tuple[tuple[CardPart, ...], tuple[CardPart, ...]]:
        """The parts in two columns, the first at least as long."""
        rows, first = len(self.rows), 0
        for count, part in enumerate(self.parts):
            if 2 * first >= rows:
                return self.parts[:count], self.parts[count:]
            first += len(part.rows)
        return self.parts, ()


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
    titles = _titles(procedure)
    found = [PersonCard(title, _in_parts(rows, titles))]
    who = roles(procedure, people, bar=Facts(build).bar)
    for role in who if apart and len(who) > 1 else ():
        own = tuple(
            CardRow(number, words, "", "") for number, words in card_of(role, procedure, who)
        )
        found.append(PersonCard(f"{title}: {IN_WORDS[role]}", _in_parts(own, titles)))
    return tuple(found)


def _titles(procedure: Procedure) -> list[str]:
    """Return for each step the title it stands under, none where all steps are of one kind.

    What is done between two wheels stands with the one before.
    """
    named = [
        title_of(step.proof) if step.proof else " and ".join(map(wheel_name, step.wheels))
        for step in procedure.steps
    ]
    told = [at for at, name in enumerate(named) if name]
    if not told:
        return named
    for at, name in enumerate(named):
        if not name:
            before = named[at - 1] if at else BEFORE
            named[at] = AFTER if at > told[-1] else before
    return named


def _in_parts(rows: tuple[CardRow, ...], titles: list[str]) -> tuple[CardPart, ...]:
    grouped = groupby(rows, key=lambda row: titles[row.number - 1])
    return tuple(
        CardPart(f"{title[:1].upper()}{title[1:]}", tuple(part)) for title, part in grouped
    )


def _with_loop(text: str, back_to: int | None) -> str:
    return text if back_to is None else f"{text} Until then: from step {back_to} again."


def cards_markup(
    build: Build,
    procedure: Procedure,
    title: str,
    people: int,
    *,
    apart: bool = True,
    larger: float = 1.0,
    beside: bool = True,
) -> str:
    """Return checklist and cards in the subset of HTML that Qt's documents set; as `cards`.

    larger: than usual, down to words of 8.5 points [-]; beside: each person's steps in two columns.
    """
    return rendered(
        "cards.html",
        cards=cards(build, procedure, title, people, apart=apart),
        made=procedure,
        people=people,
        box=BLANK,
        larger=larger,
        beside=beside,
    )


def cards_pdf(
    build: Build, procedure: Procedure, title: str, people: int, *, letter: bool, apart: bool = True
) -> bytes:
    """Return checklist and cards as the content of a PDF file; a Qt application has to run.

    As large as goes onto as few pages as there can be.
    """
    from urgens.sheet.pdf import Pages

    day = date.today().isoformat()

    def pages(larger: float, *, beside: bool) -> Pages:
        made = Pages(build.name, title, day=day, points=10 * larger, letter=letter)
        made.document.setHtml(
            cards_markup(build, procedure, title, people, apart=apart, larger=larger, beside=beside)
        )
        return made

    smallest = pages(SIZES[-1], beside=True)
    beside = not smallest.overfull  # else a person's two columns are higher than a page
    if not beside:
        smallest = pages(SIZES[-1], beside=False)
    smallest.keep_whole()
    for larger in SIZES[:-1]:
        made = pages(larger, beside=beside)
        made.keep_whole()
        if made.pages == smallest.pages and not (beside and made.overfull):
            return made.pdf()
    return smallest.pdf()


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
