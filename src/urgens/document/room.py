"""Room for what is fitted, and the reach of a valve in the cabin: facts, as measured."""

from typing import Annotated

from urgens.document.entry import RULE, TAPE, Entry
from urgens.document.model import DocumentModel, Length

Ahead = Annotated[Length, Entry("Room ahead", TAPE, "From the wall or booster to brace or panel")]
Above = Annotated[Length, Entry("Room above", RULE, "From the bore's middle to bonnet or header")]
Reach = Annotated[Length, Entry("Valve from shoulder", TAPE, "From belted shoulder to the knob")]


class Room(DocumentModel):
    """What there is ahead of and above the cylinder, and how far a valve in the cabin is."""

    ahead: Ahead | None = None
    above: Above | None = None
    valve_reach: Reach | None = None
