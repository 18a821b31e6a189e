"""What is open, planned, due and signed; the history."""

from collections.abc import Iterator

from urgens.document.edits.past import figure_words
from urgens.document.frozen import thawed
from urgens.guidance.condition.joints import IN_WORDS, joints
from urgens.guidance.condition.proofs import OPEN, standing_proofs
from urgens.guidance.planning.due import due
from urgens.guidance.planning.plan import plan
from urgens.guidance.procedures.records import title_of
from urgens.guidance.tracing.chronicle import chronicle
from urgens.quantity import ShownFigure
from urgens.sheet.blocks import Block, Paragraphs, Rows
from urgens.sheet.chapters.told import SheetContext
from urgens.sheet.table import Cell, Table

DRY = ("dry", "checked")
BLANK = "____________________"
MOST_FIGURES = 6  # of a change
SIGNED = ("Assembled by", "Bled by", "Proved standing by", "Proved moving by")
QUALIFIED = "Looked at by a qualified person"


def still_open(context: SheetContext) -> Iterator[Block]:
    """Yield what is open; context: of a build."""
    items = tuple(
        (one.what, one.place or "not told", "yes" if one.holds_vehicle else "no",
         "no day" if one.due is None else str(one.due))
        for one in context.base.open_items
        if one.done is None
    )  # fmt: skip
    if items:
        yield Rows(Table("Noted", ("What", "Where", "Holds the vehicle", "Due"), items))
    loose = tuple(
        (one.name, one.where, IN_WORDS[one.state])
        for one in joints(context.base)
        if one.where and one.state is not None and one.state not in DRY
    )
    if loose:
        yield Rows(Table("Joints not proved dry", ("Joint", "Where", "State"), loose))
    proofs = tuple((title_of(one.name), one.why) for one in standing_proofs(context.build)
                   if one.state in OPEN)  # fmt: skip
    if proofs:
        yield Rows(Table("Standing proofs", ("Proof", "Why it is open"), proofs))
    left = tuple(
        (title_of(one.procedure), f"{one.started:%Y-%m-%d}", f"step {one.step}")
        for one in context.base.records
        if one.ended is None
    )
    if left:
        yield Rows(Table("Runs that were left", ("Procedure", "Begun", "Left at"), left))
    if not (items or loose or proofs or left):
        yield Paragraphs(("Nothing is on record as open.",))


def planned(context: SheetContext) -> Iterator[Block]:
    """Yield the order of the work: on the way to the set-up that is looked at, else what is open.

    context: of a build.
    """
    found = plan(context.base, None if context.build == context.base else context.build)
    if not found.jobs:
        return
    said = f" {found.work.supposed}" if found.work.supposed else ""
    yield Paragraphs((f"{found.claim}.{said}",), "lead")
    rows = tuple(
        (str(at), job.name, Cell(ShownFigure(str(job.minutes), "min")),
         Cell(ShownFigure(str(job.people), "")),
         " and ".join(job.opens) or "nothing", job.why)
        for at, job in enumerate(found.jobs, start=1)
    )  # fmt: skip
    yield Rows(Table("Jobs", ("No.", "Job", "Time", "People", "Opens", "Why"), rows))
    missing = tuple(
        (one.what, Cell(ShownFigure(str(one.count), "")), one.job) for one in found.missing
    )
    easy = tuple((one.out, ", ".join(one.things), ", ".join(one.still) or "nothing")
                 for one in found.easy)  # fmt: skip
    if easy:
        yield Rows(Table("Easy while it is out", ("Out", "Easy then", "Still to come"), easy))
    if missing:
        yield Rows(Table("Not here yet", ("What", "How many", "For"), missing))


def coming(context: SheetContext) -> Iterator[Block]:
    """Yield what is due, with dates and reasons; context: of a build."""
    rows = tuple(
        ("no day" if one.when is None else str(one.when), one.what, one.why)
        for one in due(context.build, context.day, units=context.units)
    )
    yield Rows(Table("Due", ("On", "What", "Why"), rows))


def history(context: SheetContext) -> Iterator[Block]:
    """Yield what happened, the latest first; context: of a build."""
    rows = []
    for one in chronicle(context.base):
        figures = []
        if one.entry is not None and one.entry.changes:
            figures = [f"{name} {words}" for name, words
                       in figure_words((context.base,), thawed(one.entry.changes))]  # fmt: skip
        more = [f"and {len(figures) - MOST_FIGURES} more"] if len(figures) > MOST_FIGURES else []
        said = "; ".join([*([one.why] if one.why else []), *figures[:MOST_FIGURES], *more])
        rows.append((f"{one.at:%Y-%m-%d %H:%M}", one.kind, one.what, said))
    if rows:
        yield Rows(Table("History", ("On", "Kind", "What", "More"), tuple(rows)))


def signing(context: SheetContext) -> Iterator[Block]:
    """Yield lines to sign; who is named on record stands beside; context: of a build."""
    named = dict.fromkeys(
        name for run in context.base.records for name in (*run.people, run.checked_by) if name
    )
    rows = tuple((words, BLANK, BLANK) for words in (*SIGNED, QUALIFIED))
    yield Rows(Table("Signed", ("What", "Name and signature", "Date"), rows))
    if named:
        yield Paragraphs((f"Named on record: {', '.join(named)}.",), "muted")
    yield Paragraphs(
        ("Local rules and a look by a qualified person come before the road.",), "warning"
    )
