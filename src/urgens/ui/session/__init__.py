"""The open document, how it is looked at, and the one face of both."""

from urgens.ui.session.session import READING, Session
from urgens.ui.session.view import Overrides

__all__ = ["READING", "Overrides", "Session"]
