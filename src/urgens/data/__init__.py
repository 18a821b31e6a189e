"""Shipped tables, builds, faces and templates."""

from pathlib import Path

FOLDER = Path(__file__).parent


def font_files() -> tuple[Path, ...]:
    """Return the shipped type faces."""
    return tuple(sorted((FOLDER / "fonts").glob("*.ttf")))
