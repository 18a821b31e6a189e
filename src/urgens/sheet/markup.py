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
    return rendered("page.html", sheet=sheet, chart=inline)


def rich_text(sheet: Sheet, mark: str) -> str:
    """Return the sheet in the subset of HTML that Qt's documents set; a mark is for the chart."""
    return rendered("document.html", sheet=sheet, mark=mark)


def rendered(template: str, **given: object) -> str:
    """Return one of the shipped templates with what is given; template: its name [text]."""
    return _environment().get_template(template).render(**given)
