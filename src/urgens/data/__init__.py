"""Shipped tables, builds, faces and templates."""

from pathlib import Path

FOLDER = Path(__file__).parent
BUILDS = FOLDER / "builds"
SUFFIX = ".urgens.json"  # of a build file


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
