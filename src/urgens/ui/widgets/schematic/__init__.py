"""Drawings of parts, their ports and the lines between them: chosen, dragged, gone to by key."""

from urgens.ui.widgets.schematic.model import Schematic, SchematicLine, SchematicPart, SchematicPort
from urgens.ui.widgets.schematic.view import SchematicView

__all__ = ["Schematic", "SchematicLine", "SchematicPart", "SchematicPort", "SchematicView"]
