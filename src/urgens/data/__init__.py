"""Shipped tables, builds, faces and templates."""

import tomllib
from functools import cache
from pathlib import Path
from typing import Any, NamedTuple

FOLDER = Path(__file__).parent
BUILDS = FOLDER / "builds"
SUFFIX = ".urgens.json"  # of a build file
DESKTOP_ID = "org.urgens.Urgens"  # by which a desktop knows the application
ICON = FOLDER / "desktop" / f"{DESKTOP_ID}.svg"


def data_text(place: str) -> str:
    """Return a shipped table as it stands in its file, by its place in this folder."""
    return (FOLDER / place).read_text(encoding="utf-8")


def trace_table(name: str) -> dict[str, Any]:
    """Return a table of tracing as it stands in its file, without its source."""
    found = _read(f"trace/{name}.toml")
    found.pop("source")
    return found


def command_table() -> dict[str, Any]:
    """Return the commands and what they share, as they stand in their file."""
    return _read("commands.toml")


def practice_table() -> dict[str, dict[str, str]]:
    """Return the figures of practice as they stand in their file, without its source."""
    found = _read("practice.toml")
    found.pop("source")
    return found


def body_table() -> dict[Any, dict[str, Any]]:
    """Return the side views of vehicles by their kind, as they stand in their file."""
    return _read("bodies.toml")


@cache
def procedure_table() -> tuple[dict[str, Any], ...]:
    """Return the procedures but the mends, as they stand in their file."""
    return tuple(_read("procedures/procedures.toml")["procedures"])


@cache
def workshop_table() -> dict[str, Any]:
    """Return the workshop that procedures are carried out in: state, things, effects, rules."""
    return _read("procedures/workshop.toml")


@cache
def procedure_titles() -> dict[str, str]:
    """Return what the procedures but the mends are called, by their names."""
    return {row["id"]: row["title"] for row in procedure_table()}


@cache
def chapter_titles() -> dict[str, str]:
    """Return what the chapters of the sheet are called, by their names, in their order."""
    titles: dict[str, str] = _read("sheet/chapters.toml")["titles"]
    return titles


@cache
def sample_table(name: str) -> dict[str, Any]:
    """Return what a page that is still empty shows, by its name."""
    table: dict[str, Any] = _read("samples.toml")[name]
    return table


def _read(place: str) -> dict[str, Any]:
    return tomllib.loads(data_text(place))


class SystemLibrary(NamedTuple):
    """A library of the system that Qt loads, Debian's package, `always` or `screen`."""

    name: str
    package: str
    needed: str


def system_libraries() -> tuple[SystemLibrary, ...]:
    """Return the libraries of the system that Qt loads."""
    lines = data_text("system_libraries.txt").splitlines()
    return tuple(SystemLibrary(*one.split()) for one in lines if not one.startswith("#"))


def manual_text(name: str) -> str:
    """Return a shipped page of the manual or a script of completion: urgens.1, bash, zsh."""
    return data_text(f"manual/{name}")


def font_files() -> tuple[Path, ...]:
    """Return the shipped type faces."""
    return tuple(sorted((FOLDER / "fonts").glob("*.ttf")))


def demo_names() -> tuple[str, ...]:
    """Return the names of the shipped builds, the first one to open first."""
    names = (path.name.removesuffix(SUFFIX) for path in BUILDS.glob(f"*{SUFFIX}"))
    return tuple(sorted(names, key=lambda name: (name != "library", name)))


def logs_folder() -> Path:
    """Return where the logs of the shipped builds lie."""
    return FOLDER / "logs"
