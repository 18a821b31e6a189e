"""Shipped tables, builds, faces and templates."""

import tomllib
from pathlib import Path
from typing import Any

FOLDER = Path(__file__).parent
BUILDS = FOLDER / "builds"
SUFFIX = ".urgens.json"  # of a build file
DESKTOP_ID = "org.urgens.Urgens"  # by which a desktop knows the application
ICON = FOLDER / "desktop" / f"{DESKTOP_ID}.svg"


def trace_table(name: str) -> dict[str, Any]:
    """Return a table of tracing as it stands in its file, without its source."""
    found = tomllib.loads((FOLDER / "trace" / f"{name}.toml").read_text(encoding="utf-8"))
    found.pop("source")
    return found


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
