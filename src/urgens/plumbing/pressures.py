"""The pressure in every line of a layout at a press."""

from urgens.document.circuits import Circuits, Passage
from urgens.document.kinds.valves import LAID
from urgens.document.layout.layout import FittedPart
from urgens.physics.axle import AXLES, Axle
from urgens.solve import Presses, Solution
from urgens.studies.valve_stages import Stage, stages


class _Walk:
    """A walk from the outlets along the lines, the pressure in hand changed by every valve."""

    def __init__(self, circuits: Circuits, solution: Solution, pressed: Presses) -> None:
        self.circuits, self.pressed = circuits, pressed
        self.stages = {axle: stages(solution, pressed, axle) for axle in AXLES}
        self.found: dict[str, float] = {}

    def from_outlet(self, outlet: Passage, circuit: str) -> None:
        """Follow all lines of an outlet."""
        axle = Axle.FRONT if circuit in ("all", "front") else Axle.REAR
        waiting = [(outlet, float(self.pressed.master(axle)))]
        while waiting:
            here, pressure = waiting.pop()
            for there, line in self.circuits.neighbours[here]:
                if line in self.found:
                    continue
                self.found[line] = pressure
                part = self.circuits.parts[there.part]
                if part.kind != "wheel-brake":
                    waiting.append((there, self._behind(part, there, pressure)))

    def _behind(self, part: FittedPart, entered: Passage, pressure: float) -> float:
        """Return the pressure behind a part; as before it where it holds no valve."""
        if part.kind == "combination":
            return self._behind_body(Axle(entered.side), pressure)
        if part.kind in LAID and part.valve is not None:
            axle, _, index = part.valve.removesuffix("]").partition("[")
            of_axle = self.stages[Axle(axle)] if axle in list(Axle) else ()
            if index.isdecimal() and int(index) < len(of_axle):
                return of_axle[int(index)].outlet
        return pressure

    def _behind_body(self, side: Axle, pressure: float) -> float:
        valves = self.circuits.build.valves.of(side)
        held: list[Stage] = [
            stage for valve, stage in zip(valves, self.stages[side], strict=True) if valve.body
        ]
        return held[-1].outlet if held else pressure


def line_pressures(circuits: Circuits, solution: Solution, pressed: Presses) -> dict[str, float]:
    """Return the pressure [Pa] in each line, by its id; lines that no outlet reaches have none.

    circuits: of the layout; solution: of its build; pressed: one press.
    At a held pedal nothing flows: what is joined without a valve between has one pressure.
    Source: Pascal; `studies.valve_stages`.
    """
    walk = _Walk(circuits, solution, pressed)
    for outlet, circuit in circuits.outlets.items():
        walk.from_outlet(outlet, circuit)
    return walk.found
