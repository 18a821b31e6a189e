"""What there is to know of one kind of valve, in one place."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Literal, NamedTuple

import numpy as np

from urgens.document.kinds.one_of import KindRecord
from urgens.document.model import DocumentModel, Text
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.valve_law import ValveLaw
from urgens.quantity import PRESSURE, QuantityKind, Units, UnitSystem, show

InUnits = Units | UnitSystem
Element = Literal["spring", "ball", "adjuster", "lever", "poppet spring", "check disc"]
Seen = str | int | bool  # an answer to what can be seen of a body
LOWEST_KNEE = 1e5  # Pa; a knee stays above zero while it is moved


class ValvePart(DocumentModel):
    """What any valve has: parts with the same `body` sit in one casting."""

    reduces: ClassVar[bool] = False  # takes pressure away above a knee
    holds_front_back: ClassVar[bool] = False  # until the rear is on
    keeps_pressure: ClassVar[bool] = False  # in the line, with the pedal up
    feels_load: ClassVar[bool] = False
    feels_deceleration: ClassVar[bool] = False
    set_by_hand: ClassVar[bool] = False

    kind: str
    body: Text = ""


class Wanted(NamedTuple):
    """A knee that is wanted [Pa], the rear load [N] and the deceleration [g] there, still open."""

    knee: float
    rear_load: float
    deceleration: float


class Move(NamedTuple):
    """One figure of a valve to change: path below it, value [SI], kind (None: a pure number)."""

    path: str
    value: float
    kind: QuantityKind | None


class Sold(NamedTuple):
    """Between which knees [Pa] and slopes [-] valves of a kind are made: common practice."""

    knees: tuple[float, float]
    slopes: tuple[float, float]


class Loads(NamedTuple):
    """The lightest and the heaviest rear axle load a new valve is made for, as typed."""

    light: str
    heavy: str


# What is seen of a body of one line in and one out with nothing on it: what others differ from.
PLAIN: Mapping[str, tuple[Seen, ...]] = {
    "ins": (1,), "outs": (1,), "wire": (False,), "through": (False,), "stem": (False,),
    "knob": (False,), "lever": (False,), "inline": (False,),
}  # fmt: skip


def reduces(valve: Any, inlet: float, outlet: float, units: InUnits) -> str:
    """Return what a valve that reduces does between two pressures [Pa], in a few words."""
    return f"reduces by {show(inlet - outlet, PRESSURE, units)}"


def passes_all(valve: Any, units: InUnits) -> str:
    """Return what a valve does that holds nothing back, in a few words."""
    return "open: passes all"


def anything(part: NumericBuild) -> Bools:
    """Return that any figures of a valve go together."""
    return np.asarray(True)


@dataclass(frozen=True)
class ValveKind(KindRecord):
    """One kind of valve.

    `model` is its part in the document; `law` its outlet over its inlet, of the part as numbers;
    `name`, `what` and `typical` its words, the last for what is usual; `briefly` what one
    is set to, in the units shown; `passes` and `holds` what it does while it passes
    all, and at an inlet and an outlet pressure [Pa] once it does not.
    In `typical` figures stand in braces: {300 psi}.
    `new` are the figures it is put in with, all assumed. `moves` are the edits that bring its knee
    somewhere, None for a valve without one; `knee_figure` what decides it; `dragging` says what a
    drag of the knee does. `together` is the list whose knees one valve has off by one share.
    `possible` tells where figures, as numbers, go together at all.
    `drawing` are the elements of its cross-section beside seat and chambers.
    In a layout it is a part of its own kind, or one `laid_as` another; `fastened` where its body is
    fixed to the vehicle. `looks` are the answers of who looks at an unmarked one, by question (what
    is left out may be either; None: nobody meets one), `seen_by` what tells it then.
    """

    model: type[ValvePart]
    name: str
    what: str
    typical: str
    law: Callable[[NumericBuild], ValveLaw]
    new: Callable[[Loads], dict[str, Any]]
    drawing: tuple[Element, ...]
    briefly: Callable[[Any, InUnits], str]
    holds: Callable[[Any, float, float, InUnits], str] = reduces
    passes: Callable[[Any, InUnits], str] = passes_all
    moves: Callable[[Any, ValveLaw, Wanted], list[Move]] | None = None
    knee_figure: str = "knee"
    dragging: Callable[[Any, str], str] | None = None
    together: str | None = None
    possible: Callable[[NumericBuild], Bools] = anything
    sold: Sold | None = None
    laid_as: str = ""
    fastened: bool = True
    looks: Mapping[str, tuple[Seen, ...]] | None = None
    seen_by: str = ""

    @property
    def has_knee(self) -> bool:
        """Whether it takes pressure away above a knee."""
        return self.moves is not None

    @property
    def has_slope(self) -> bool:
        """Whether something passes above its knee."""
        return "slope" in self.model.model_fields
