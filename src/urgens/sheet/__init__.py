"""The build sheet: one page that the next person can trust, as HTML, PDF or CSV."""

from urgens.sheet.content import Sheet, content
from urgens.sheet.files import write

__all__ = ["Sheet", "content", "write"]
