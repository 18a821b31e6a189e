"""Threads, seats and tubes: which nut goes on a tube, and what goes into a port."""

from functools import lru_cache
from typing import Annotated

from pydantic import Field

from urgens.data import data_text
from urgens.document.layout.layout import Seat
from urgens.document.model import Length, TableRow
from urgens.quantity import Quantity

INCH = 0.0254  # m
SAME_DIAMETER = 0.6e-3  # m; threads this near start in one another, and strip

Face = tuple[str, Seat]  # thread and seat: what a port shows, and what is screwed into it


class Thread(TableRow):
    """One thread: its outer diameter, and its pitch or its turns per inch."""

    name: str
    diameter: Length
    pitch: Length | None = None
    per_inch: Annotated[float, Field(gt=0)] | None = None
    taper: bool = False

    @property
    def rise(self) -> float:
        """Pitch [m]."""
        if self.pitch is not None:
            return self.pitch.value
        assert self.per_inch is not None
        return INCH / self.per_inch


class Tube(TableRow):
    """One size of tube: its bore, and the nuts that go on it for each flare."""

    name: str
    diameter: Length
    bore: Length
    flares: dict[Seat, tuple[str, ...]]

    def takes(self, nut: str, flare: Seat) -> bool:
        """Tell whether a nut goes on it with a flare; nut: its thread [text]; flare: [text]."""
        return nut in self.flares.get(flare, ())


class Adapter(TableRow):
    """A part that is screwed into one port and is another."""

    into: Face
    takes: Face


class ThreadTable(TableRow):
    """What is sold, with its source."""

    source: str
    threads: tuple[Thread, ...]
    tubes: tuple[Tube, ...]
    adapters: tuple[Adapter, ...]

    def thread(self, name: str) -> Thread | None:
        """Return a thread, None where it is not in the table; name: of it [text]."""
        return next((one for one in self.threads if one.name == name), None)

    def tube(self, diameter: Quantity) -> Tube | None:
        """Return the tube of a size, None where none is sold so; diameter: outer [m]."""
        near = (one for one in self.tubes if abs(one.diameter.value - diameter.value) < 2e-4)
        return next(near, None)


@lru_cache(maxsize=1)
def thread_table() -> ThreadTable:
    """Return the shipped threads, tubes and adapters."""
    return ThreadTable.model_validate_json(data_text("threads.json"))


def starts_and_strips(thread: Thread, other: Thread) -> bool:
    """Tell whether one thread starts in the other and strips it.

    thread, other: two threads.
    Source: common practice: diameters within about half a millimetre, pitches that differ.
    """
    near = abs(thread.diameter.value - other.diameter.value) < SAME_DIAMETER
    return near and thread.name != other.name and not (thread.taper or other.taper)
