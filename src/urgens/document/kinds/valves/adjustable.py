"""The adjustable valve: its knee follows from turns or notches by its own table."""

from collections.abc import Iterator
from itertools import pairwise
from typing import Annotated, Any, ClassVar, Literal

import numpy as np
from pydantic import Field

from urgens.document.entry import VALVE_GAUGES, Entry
from urgens.document.kinds.valves.kind import (
    PLAIN,
    InUnits,
    Loads,
    Move,
    ValveKind,
    ValvePart,
    Wanted,
)
from urgens.document.kinds.valves.reducing import SOLD, Slope
from urgens.document.model import Number, PartFault, Pressure
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.valve import adjusted_knee
from urgens.physics.valve_law import ReducingLaw, ValveLaw

TURN_STEP = 0.25  # turns that a hand sets


def _step(part: "Adjustable") -> float:
    return 1.0 if part.counted == "notches" else TURN_STEP


Count = Annotated[Number, Field(ge=0, le=1e4)]
Setting = Annotated[
    Count, Entry("Setting", "count from the stop", "Turns or notches from the end stop", step=_step)
]
Row = tuple[
    Annotated[Count, Entry("Setting of a row", "count from the stop", "Turns or notches")],
    Annotated[Pressure, Entry("Knee of a row", VALVE_GAUGES, "The knee at that setting")],
]


class Adjustable(ValvePart):
    """A reducing valve whose knee follows from its setting by its own table.

    One with a lever has notches: only the settings of its table can be taken.
    """

    reduces: ClassVar[bool] = True
    set_by_hand: ClassVar[bool] = True

    kind: Literal["adjustable"]
    table: Annotated[
        tuple[Row, ...],
        Field(min_length=2),
        Entry("Knees", VALVE_GAUGES, "The knee at every setting"),
    ]
    slope: Slope
    turns: Setting
    counted: Literal["turns", "notches"] = "turns"

    @property
    def settings(self) -> tuple[float, ...]:
        """The settings of its table, rising."""
        return tuple(row[0] for row in self.table)

    def nearest(self, turns: float) -> float:
        """Return the setting next to `turns`: a notch, or a whole number of quarter turns."""
        if self.counted == "notches":
            return min(self.settings, key=lambda setting: abs(setting - turns))
        return self.within(round(turns / TURN_STEP) * TURN_STEP)

    def within(self, turns: float) -> float:
        """Return `turns`, or the end of the table beyond which it is."""
        return min(max(turns, self.settings[0]), self.settings[-1])

    def stepped(self, steps: int) -> float:
        """Return the setting so many notches or quarter turns on, within the table."""
        if self.counted == "notches":
            place = self.settings.index(self.turns) + steps
            return self.settings[min(max(place, 0), len(self.settings) - 1)]
        return self.within(self.turns + TURN_STEP * steps)

    def rules(self) -> Iterator[PartFault]:
        """Check that turns rise strictly, knees do not fall, and a notch is one of its own."""
        for row in range(1, len(self.table)):
            (turns, knee), (turns_before, knee_before) = self.table[row], self.table[row - 1]
            if turns <= turns_before:
                yield PartFault(
                    f"table[{row}][0]",
                    f"{turns:g} turns do not come after {turns_before:g}",
                    "order the rows by rising turns, each once",
                )
            if knee.value < knee_before.value:
                yield PartFault(
                    f"table[{row}][1]",
                    f'the knee falls from "{knee_before.text}" to "{knee.text}"',
                    "write knees that rise with the turns; count turns the other way if need be",
                )
        if self.counted == "notches" and self.turns not in self.settings:
            yield PartFault(
                "turns",
                f"there is no notch {self.turns:g}",
                f"choose one of its table: {', '.join(f'{n:g}' for n in self.settings)}",
            )


def _law(part: NumericBuild) -> ValveLaw:
    rows = part.table("table")
    knee = adjusted_knee(part["turns"], [row[0] for row in rows], [row[1] for row in rows])
    return ReducingLaw(knee, part["slope"])


def _possible(part: NumericBuild) -> Bools:
    rows = part.table("table")
    found: Bools = np.asarray(True)
    for (turns_before, knee_before), (turns, knee) in pairwise(rows):
        found = found & np.less(turns_before, turns) & np.less_equal(knee_before, knee)
    return found


def _briefly(part: Adjustable, units: InUnits) -> str:
    return f"{part.turns:g} {part.counted}, slope {part.slope:.2f}"


def _new(loads: Loads) -> dict[str, Any]:
    rows = [[0, "150 psi"], [2, "250 psi"], [4, "350 psi"], [6, "450 psi"]]
    return {"kind": "adjustable", "table": rows, "slope": 0.4, "turns": 3}


def by_notches(loads: Loads) -> dict[str, Any]:
    """Return the figures a valve with a lever and notches is put in with."""
    rows = [[notch, f"{100 + 75 * notch} psi"] for notch in range(1, 8)]
    return {"kind": "adjustable", "table": rows, "slope": 0.4, "turns": 4, "counted": "notches"}


def _moves(part: Adjustable, law: ValveLaw, wanted: Wanted) -> list[Move]:
    knees = [row[1].value for row in part.table]
    turns = float(np.interp(wanted.knee, knees, part.settings))
    return [Move("turns", part.nearest(turns), None)]


def _dragging(part: Adjustable, knee: str) -> str:
    return f"At this setting the knee is {knee}; from there the rear gets a share of the rise."


ADJUSTABLE = ValveKind(
    model=Adjustable,
    name="Adjustable valve",
    what="A reducing valve whose knee is set by turns or by notches, in the rear line only, never "
    "in a circuit that also feeds a front wheel.",
    typical="usual: slope about 0.3 to 0.6, knee by five or more turns, or about seven notches",
    law=_law,
    briefly=_briefly,
    new=_new,
    drawing=("spring", "adjuster"),
    moves=_moves,
    knee_figure="turns",
    dragging=_dragging,
    together="table",
    possible=_possible,
    sold=SOLD,
    looks={**PLAIN, "knob": (True,)},
    seen_by="a knob: a reducing valve whose knee is set by hand",
)
