"""What can be done from anywhere in the window: one table for menu, keys and documentation."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

from urgens.document import demo_names
from urgens.document.edits.borrow import PARTS
from urgens.guidance.advice.by_hand import OFFERED
from urgens.guidance.sayings import known
from urgens.guidance.words.parts import KINDS
from urgens.guidance.words.trade import trade_names
from urgens.quantity import UnitSystem
from urgens.solve import ICE, WET
from urgens.ui.frame.bench import StationStack
from urgens.ui.frame.files import FileDesk
from urgens.ui.frame.finding_line import FindingLine
from urgens.ui.frame.help_panel import HelpPanel
from urgens.ui.frame.stations import STATIONS
from urgens.ui.session import Session


class CommandTarget(Protocol):
    """What commands need from the main window."""

    session: Session
    files: FileDesk
    help: HelpPanel
    bench: StationStack
    finding_line: FindingLine

    def show_start(self) -> None: ...
    def find_command(self) -> None: ...
    def choose_units(self) -> None: ...
    def stand_back(self) -> None: ...
    def switch_theme(self) -> None: ...
    def close(self) -> bool: ...
    def press_to_first_lock(self) -> None: ...
    def show_sheet(self) -> None: ...
    def go_to_foot(self) -> None: ...
    def go_to_station(self, name: str) -> None: ...
    def next_open(self) -> None: ...
    def next_setup(self) -> None: ...


@dataclass(frozen=True)
class Command:
    """An action: what it is called, its keys, and what it does to the window."""

    name: str
    title: str
    run: Callable[[CommandTarget], object]
    keys: tuple[str, ...] = ()
    anywhere: bool = False  # also where no build is shown


def _units(window: CommandTarget) -> None:
    metric = window.session.units.system is UnitSystem.METRIC
    window.session.set_units(UnitSystem.INCH if metric else UnitSystem.METRIC)


def _opener(name: str) -> Callable[[CommandTarget], object]:
    return lambda window: window.files.open_demo(name)


def _goer(name: str) -> Callable[[CommandTarget], object]:
    return lambda window: window.go_to_station(name)


def _borrower(part: str) -> Callable[[CommandTarget], object]:
    return lambda window: window.files.borrow(part)


def _putter(kind: str) -> Callable[[CommandTarget], object]:
    return lambda window: window.bench.go_to(f"put:{kind}")


def _put_words(kind: str) -> str:
    """Return how a part is put in, with all that shops call it, so that it is found by either."""
    names = [name for one in trade_names() if one.kind == kind for name in one.sold_as]
    return f"Put in: {KINDS[kind].lower()}" + (f" ({', '.join(names)})" if names else "")


def _sayer(name: str) -> Callable[[CommandTarget], object]:
    return lambda window: window.bench.go_to(f"sayings:{name}")


FILE_COMMANDS = (
    Command("new", "New…", lambda w: w.show_start(), ("Ctrl+N",)),
    Command("open", "Open…", lambda w: w.files.open(), ("Ctrl+O",), anywhere=True),
    Command("save", "Save", lambda w: w.files.save(), ("Ctrl+S",)),
    Command("save-as", "Save as…", lambda w: w.files.save_as(), ("Ctrl+Shift+S",)),
    Command("rename", "Name of the build…", lambda w: w.files.rename(), ("F2",)),
)
SHEET_COMMANDS = (
    Command("print", "Print the sheet…", lambda w: w.files.print_sheet(), ("Ctrl+P",)),
    Command(
        "sheet-pdf",
        "Write the sheet as PDF…",
        lambda w: w.files.write_sheet("pdf"),
        ("Ctrl+Shift+P",),
    ),
    Command("sheet-html", "Write the sheet as HTML…", lambda w: w.files.write_sheet("html")),
    Command("sheet-csv", "Write all figures as CSV…", lambda w: w.files.write_sheet("csv")),
    Command("preview", "Look at the sheet as it is printed", lambda w: w.show_sheet()),
)
DEMO_COMMANDS = tuple(
    Command(f"demo-{name}", f"Demo build: {name}", _opener(name), anywhere=True)
    for name in demo_names()
)
BORROW_COMMANDS = tuple(
    Command(f"borrow-{index}", f"Take the {part} of another build…", _borrower(part))
    for index, part in enumerate(PARTS)
)
HELP_COMMANDS = (
    Command("keys", "Keys…", lambda w: w.help.show_keys(listed_keys()), ("F1",), anywhere=True),
    Command(
        "terms", "Terms explained…", lambda w: w.help.show_terms(), ("Shift+F1",), anywhere=True
    ),
    Command(
        "scope",
        "What it computes, and what it does not…",
        lambda w: w.help.show_scope(),
        anywhere=True,
    ),
    Command("walk", "First steps: a walk of one minute", lambda w: w.help.walk()),
)
LOOK_COMMANDS = (
    Command("find", "Find anything…", lambda w: w.find_command(), ("Ctrl+K",), anywhere=True),
    Command("own-units", "Units of my own…", lambda w: w.choose_units()),
    Command("stand-back", "Stand back: larger, without reasons", lambda w: w.stand_back(), ("=",)),
    Command("theme", "Dark or light", lambda w: w.switch_theme(), ("T",), anywhere=True),
)
LAST_COMMANDS = (Command("quit", "Close", lambda w: w.close(), ("Ctrl+Q",), anywhere=True),)
VIEW_COMMANDS = (
    Command("rest", "Let the pedal up", lambda w: w.session.set_effort(0.0), ("Home",)),
    Command("first-lock", "Press to the first lock", lambda w: w.press_to_first_lock(), ("End",)),
    Command("next-open", "Next assumed or missing figure", lambda w: w.next_open(), ("Ctrl+Tab",)),
    Command("next-finding", "Next finding", lambda w: w.finding_line.advance(), ("F",)),
    Command(
        "fix", "Do what the finding proposes", lambda w: w.finding_line.apply_fix(), ("Shift+F",)
    ),
    Command("dry", "Road: dry", lambda w: w.session.set_surface(None), ("D",)),
    Command("wet", "Road: wet", lambda w: w.session.set_surface(WET), ("W",)),
    Command("ice", "Road: ice", lambda w: w.session.set_surface(ICE), ("I",)),
    Command("units", "Other units", _units, ("U",)),
    Command(
        "why",
        "Explain what has the focus, else: why? drawn with this build, and back",
        lambda w: w.help.explain(),
        ("?",),
    ),
    Command("foot", "Type an effort: go to the foot", lambda w: w.go_to_foot(), ("Alt+0",)),
    Command("setup-a", "Set-up A: the build itself", lambda w: w.session.set_setup(None), ("A",)),
    Command("setup-b", "Set-up B: the next set-up", lambda w: w.next_setup(), ("B",)),
    *(Command(kind.name.lower(), kind.name, _goer(kind.name), (kind.key,)) for kind in STATIONS),
)
PART_COMMANDS = tuple(Command(f"put-{kind}", _put_words(kind), _putter(kind)) for kind in OFFERED)
SAYING_COMMANDS = tuple(
    Command(f"saying-{name}", f"Said: {words}", _sayer(name)) for name, words in known().items()
)
COMMANDS = (
    *FILE_COMMANDS,
    *SHEET_COMMANDS,
    *BORROW_COMMANDS,
    *DEMO_COMMANDS,
    *HELP_COMMANDS,
    *LOOK_COMMANDS,
    *LAST_COMMANDS,
    *VIEW_COMMANDS,
    *PART_COMMANDS,
    *SAYING_COMMANDS,
)

# Keys that no action has, since they belong to what is focused or to the press.
HAND_KEYS = (
    ("↑ ↓", "Press harder or softer by 1 lbf or 5 N; with Shift ten times as far"),
    ("0 to 9", "Type an effort, while the press has the focus"),
    ("Ctrl+Z", "Undo"),
    ("Shift+Ctrl+Z", "Redo"),
    ("Tab", "The next figure that can be changed; then ↑ ↓, wheel or typing change it"),
    ("Enter", "Type in a figure, or take what is typed"),
    ("M S P G", "Say of a focused figure: measured, stamped, published, a guess"),
    ("Ctrl+C", "Copy a focused figure; a plot has a menu under the right button"),
    ("Esc", "Leave a figure, or put back what a drag has changed"),
    ("Ctrl+wheel", "Zoom a plot"),
    ("Space B", "On Bleed's card: a stroke more, bubbles still come"),
    ("T P", "On the card: start the clock, the next person's card"),
    ("Backspace", "On the card: one step back"),
)


def listed_keys() -> tuple[tuple[str, str], ...]:
    """Return every key with what it does."""
    return (
        *HAND_KEYS,
        *((", ".join(command.keys), command.title) for command in COMMANDS if command.keys),
    )
