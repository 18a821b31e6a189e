"""Drawings of parts, their ports and the lines between them: chosen, dragged, gone to by key."""

from urgens.ui.widgets.schematic.model import Line, Part, Port, Schematic
from urgens.ui.widgets.schematic.view import SchematicView

__all__ = ["Line", "Part", "Port", "Schematic", "SchematicView"]
