"""The sheet as markup, from the templates that ship with Urgens."""

import base64
import re
from functools import lru_cache
from typing import TYPE_CHECKING

from urgens.data import FOLDER
from urgens.sheet.blocks import Bound, Drawing, Picture, Pictures, drawings_in

if TYPE_CHECKING:
    from jinja2 import Environment

BREAKS = ("vehicle", "layout")  # chapters that begin a page
_NAMED = re.compile(r"""(id="|url\(#|href="#)([^")]+)""")


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


def html(bound: Bound) -> str:
    """Return the chapters as one page for a browser, drawings and pictures inside it.

    bound: the chapters. Source: HTML 5, by the shipped template.
    """
    blocks = bound.blocks
    inline = {one: _inline(one.svg, n) for n, one in enumerate(drawings_in(blocks))}
    pictures = [one for block in blocks if isinstance(block, Pictures) for one in block.pictures]
    data = {one: f"data:image/png;base64,{base64.b64encode(one.png).decode()}" for one in pictures}
    return rendered("page.html", bound=bound, inline=inline, data=data)


def _inline(svg: bytes, number: int) -> str:
    """Return a drawing without its head, its names its own among the others of the page."""
    text = svg.decode()
    text = text[text.index("<svg") :]
    return _NAMED.sub(lambda found: f"{found[1]}{number}-{found[2]}", text)


def rich_text(
    bound: Bound,
    marks: dict[Drawing, str],
    sources: dict[Picture, str],
    anchor: str,
    larger: float = 1.0,
) -> str:
    """Return the chapters in the subset of HTML that Qt's documents set.

    bound: the chapters; marks: words that stand where drawings are put [text]; sources:
    of pictures [text]; anchor: what names of chapters begin with [text]; larger: what hangs on the
    wall, than it is at least [-].
    """
    return rendered(
        "document.html",
        bound=bound,
        marks=marks,
        sources=sources,
        anchor=anchor,
        breaks=BREAKS,
        larger=larger,
    )


def rendered(template: str, **given: object) -> str:
    """Return one of the shipped templates with what is given; template: its name [text]."""
    return _environment().get_template(template).render(**given)
