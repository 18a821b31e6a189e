"""What can be done from anywhere in the window: one table for menu, keys and documentation."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

from urgens.document import demo_names
from urgens.document.edits.borrow import PARTS
from urgens.guidance.sayings import known
from urgens.quantity import UnitSystem
from urgens.solve import ICE, WET
from urgens.ui.frame.bench import Bench
from urgens.ui.frame.files import FileDesk
from urgens.ui.frame.finding_line import FindingLine
from urgens.ui.frame.help_desk import HelpDesk
from urgens.ui.frame.stations import STATIONS
from urgens.ui.session import Session


class Hands(Protocol):
    """What deeds ask of the window."""

    session: Session
    files: FileDesk
    help: HelpDesk
    bench: Bench
    finding_line: FindingLine

    def show_start(self) -> None: ...
    def find_command(self) -> None: ...
    def choose_units(self) -> None: ...
    def stand_back(self) -> None: ...
    def switch_theme(self) -> None: ...
    def close(self) -> bool: ...
    def press_to_first_lock(self) -> None: ...
    def next_open(self) -> None: ...
    def next_setup(self) -> None: ...


@dataclass(frozen=True)
class Deed:
    """An action: what it is called, its keys, and what it does to the window."""

    name: str
    title: str
    run: Callable[[Hands], object]
    keys: tuple[str, ...] = ()
    anywhere: bool = False  # also where no build is shown


def _units(window: Hands) -> None:
    metric = window.session.units.system is UnitSystem.METRIC
    window.session.set_units(UnitSystem.INCH if metric else UnitSystem.METRIC)


def _opener(name: str) -> Callable[[Hands], object]:
    return lambda window: window.files.open_demo(name)


def _goer(name: str) -> Callable[[Hands], object]:
    return lambda window: window.bench.show_station(name)


def _borrower(part: str) -> Callable[[Hands], object]:
    return lambda window: window.files.borrow(part)


def _sayer(name: str) -> Callable[[Hands], object]:
    return lambda window: window.bench.go_to(f"sayings:{name}")


FILE_DEEDS = (
    Deed("new", "New…", lambda w: w.show_start(), ("Ctrl+N",)),
    Deed("open", "Open…", lambda w: w.files.open(), ("Ctrl+O",), anywhere=True),
    Deed("save", "Save", lambda w: w.files.save(), ("Ctrl+S",)),
    Deed("save-as", "Save as…", lambda w: w.files.save_as(), ("Ctrl+Shift+S",)),
    Deed("rename", "Name of the build…", lambda w: w.files.rename(), ("F2",)),
)
SHEET_DEEDS = (
    Deed("print", "Print the sheet…", lambda w: w.files.print_sheet(), ("Ctrl+P",)),
    Deed(
        "sheet-pdf",
        "Write the sheet as PDF…",
        lambda w: w.files.write_sheet("pdf"),
        ("Ctrl+Shift+P",),
    ),
    Deed(
        "sheet-html",
        "Write the sheet as HTML…",
        lambda w: w.files.write_sheet("html"),
    ),
    Deed("sheet-csv", "Write all figures as CSV…", lambda w: w.files.write_sheet("csv")),
    Deed("preview", "Preview the sheet as it is printed…", lambda w: w.files.preview_sheet()),
)
DEMO_DEEDS = tuple(
    Deed(f"demo-{name}", f"Demo build: {name}", _opener(name), anywhere=True)
    for name in demo_names()
)
BORROW_DEEDS = tuple(
    Deed(f"borrow-{index}", f"Take the {part} of another build…", _borrower(part))
    for index, part in enumerate(PARTS)
)
HELP_DEEDS = (
    Deed("keys", "Keys…", lambda w: w.help.show_keys(listed_keys()), ("F1",), anywhere=True),
    Deed("terms", "Terms explained…", lambda w: w.help.show_terms(), ("Shift+F1",), anywhere=True),
    Deed(
        "scope",
        "What it computes, and what it does not…",
        lambda w: w.help.show_scope(),
        anywhere=True,
    ),
    Deed("walk", "First steps: a walk of one minute", lambda w: w.help.walk()),
)
LOOK_DEEDS = (
    Deed("find", "Find a command…", lambda w: w.find_command(), ("Ctrl+K",), anywhere=True),
    Deed("own-units", "Units of my own…", lambda w: w.choose_units()),
    Deed("stand-back", "Stand back: larger, without reasons", lambda w: w.stand_back(), ("=",)),
    Deed("theme", "Dark or light", lambda w: w.switch_theme(), ("T",), anywhere=True),
)
LAST_DEEDS = (Deed("quit", "Close", lambda w: w.close(), ("Ctrl+Q",), anywhere=True),)
VIEW_DEEDS = (
    Deed("rest", "Let the pedal up", lambda w: w.session.set_effort(0.0), ("Home",)),
    Deed("first-lock", "Press to the first lock", lambda w: w.press_to_first_lock(), ("End",)),
    Deed("next-open", "Next assumed or missing figure", lambda w: w.next_open(), ("Ctrl+Tab",)),
    Deed("next-finding", "Next finding", lambda w: w.finding_line.advance(), ("F",)),
    Deed("fix", "Do what the finding proposes", lambda w: w.finding_line.apply_fix(), ("Shift+F",)),
    Deed("dry", "Road: dry", lambda w: w.session.set_surface(None), ("D",)),
    Deed("wet", "Road: wet", lambda w: w.session.set_surface(WET), ("W",)),
    Deed("ice", "Road: ice", lambda w: w.session.set_surface(ICE), ("I",)),
    Deed("units", "Other units", _units, ("U",)),
    Deed(
        "why",
        "Explain what has the focus, else: why? drawn with this build, and back",
        lambda w: w.help.explain(),
        ("?",),
    ),
    Deed("setup-a", "Set-up A: the build itself", lambda w: w.session.set_setup(None), ("A",)),
    Deed("setup-b", "Set-up B: the next set-up", lambda w: w.next_setup(), ("B",)),
    *(Deed(kind.name.lower(), kind.name, _goer(kind.name), (kind.key,)) for kind in STATIONS),
)
SAYING_DEEDS = tuple(
    Deed(f"saying-{name}", f"Said: {words}", _sayer(name)) for name, words in known().items()
)
ALL_DEEDS = (
    *FILE_DEEDS, *SHEET_DEEDS, *BORROW_DEEDS, *DEMO_DEEDS, *HELP_DEEDS, *LOOK_DEEDS, *LAST_DEEDS,
    *VIEW_DEEDS, *SAYING_DEEDS,
)  # fmt: skip

# Keys that no action has, since they belong to what is focused or to the press.
HAND_KEYS = (
    ("↑ ↓", "Press harder or softer by 1 lbf or 5 N; with Shift ten times as far"),
    ("0 to 9", "Type an effort"),
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
    return (*HAND_KEYS, *((", ".join(deed.keys), deed.title) for deed in ALL_DEEDS if deed.keys))
