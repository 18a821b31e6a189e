"""The sheet as markup, from the templates that ship with Urgens."""

from functools import lru_cache
from typing import TYPE_CHECKING

from urgens.data import FOLDER
from urgens.sheet.content import Sheet

if TYPE_CHECKING:
    from jinja2 import Environment


@lru_cache(maxsize=1)
def _environment() -> "Environment":
    from jinja2 import Environment, FileSystemLoader, StrictUndefined

    return Environment(
        loader=FileSystemLoader(FOLDER / "sheet"),
        autoescape=True,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
    )


def html(sheet: Sheet, chart: bytes) -> str:
    """Return the sheet as a page for a browser, the SVG `chart` inside it."""
    svg = chart.decode()
    inline = svg[svg.index("<svg") :]
    return _environment().get_template("page.html").render(sheet=sheet, chart=inline)


def rich_text(sheet: Sheet, mark: str) -> str:
    """Return the sheet in the subset of HTML that Qt's documents set; a mark is for the chart."""
    return _environment().get_template("document.html").render(sheet=sheet, mark=mark)
