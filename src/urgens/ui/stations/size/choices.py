"""The map of the build that is open, and choosing a bore and a ratio on it."""

import numpy as np

from urgens.document import Build, BuildChange
from urgens.document.kinds.bores import sold_bores
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.quantity import LENGTH, Quantity, retype
from urgens.studies.sizing import SizingMap, rear_bores_of, sizing_map
from urgens.studies.sizing_regions import Regions, regions
from urgens.ui.session import Session

# Pedal ratios of the map
LOWEST = 3.0
HIGHEST = 9.0
STEP = 0.05
RATIOS = np.round(np.arange(LOWEST, HIGHEST + STEP / 2, STEP), 2)


class BoreRatioGrid:
    """Rows are bores that are sold, and the build's own; columns are pedal ratios.

    What the map shows is the same whichever bore and ratio of it is chosen: `before` is taken
    over where nothing else has changed.
    """

    def __init__(self, session: Session, before: "BoreRatioGrid | None" = None) -> None:
        self._session = session
        self.map: SizingMap
        self.own_map: SizingMap  # of the build's own bore and ratio alone, exactly
        self.regions: Regions
        build = session.build
        master = build.master
        own = master.main_bore
        bores = {bore.value: bore for bore in sold_bores()}
        bores.setdefault(own.value, own)
        rows = sorted(bores.values(), key=lambda bore: bore.value)
        values = np.array([bore.value for bore in rows])
        rears = rear_bores_of(build, values)
        keep = rears > 0
        self.bores: tuple[Quantity, ...] = tuple(b for b, k in zip(rows, keep, strict=True) if k)
        self.own = next(i for i, bore in enumerate(self.bores) if bore.value == own.value)
        self.case, self._of = session.solution.case, build
        if before is not None and self._shares_map(before):
            self.map, self.regions = before.map, before.regions
            self.own_map = self.one(self.own, self.ratio)
            return
        case, pairs = session.solution.case, (values[keep], rears[keep])
        # With one column more for the ratio as it is: what is chosen is known exactly at once.
        whole = sizing_map(build, case, *pairs, np.append(RATIOS, self.ratio))
        self.map = whole.part(slice(None), slice(0, RATIOS.size))
        self.own_map = whole.part(slice(self.own, self.own + 1), slice(RATIOS.size, None))
        self.regions = regions(build, case, *pairs, (LOWEST, HIGHEST))

    def _shares_map(self, before: "BoreRatioGrid") -> bool:
        """Tell whether another map differs from this one in nothing but what is chosen."""
        if (before.case, before.bores) != (self.case, self.bores):
            return False
        return _unchosen(before._of) == _unchosen(self._of)

    def one(self, row: int, ratio: float) -> SizingMap:
        """Return the map of one bore and one ratio alone, exactly."""
        bores = np.array([self.bores[row].value])
        rears = self.map.rear_bores[row : row + 1]
        case = self._session.solution.case
        return sizing_map(self._session.build, case, bores, rears, np.array([ratio]))

    @property
    def ratio(self) -> float:
        """The build's own pedal ratio."""
        return float(self._session.solution.system.pedal_ratio)

    def column(self, ratio: float) -> int:
        """Return the column nearest to a ratio."""
        return int(np.clip(round((ratio - LOWEST) / STEP), 0, RATIOS.size - 1))

    def changes(self, row: int, ratio: float) -> dict[str, object]:
        """Return the edits that put a bore and a ratio into the build."""
        session = self._session
        build, bore = session.build, self.bores[row]
        ratio = min(max(ratio, LOWEST), HIGHEST)
        changes: dict[str, object] = {}
        if abs(ratio - self.ratio) > 1e-3:
            pin = build.pedal.pivot_to_pad.value / ratio
            changes["pedal.pivot_to_pushrod"] = retype(pin, LENGTH, session.units)
        if row == self.own:
            return changes
        if build.master.has_bar:
            changes["master.front_bore"] = bore.text
            rear = float(self.map.rear_bores[row])
            changes["master.rear_bore"] = retype(rear, LENGTH, session.units, 2)
        else:
            changes |= {f"master.{name}": text for name, text in build.master.of_bore(bore).items()}
        return changes

    def choose(self, row: int, ratio: float) -> None:
        """Put a bore and a ratio into the build as one step, or into the drag that is under way."""
        changes = self.changes(row, ratio)
        if changes:
            self._session.make(BuildChange.planning(self.called(row, ratio), changes))

    def called(self, row: int, ratio: float) -> str:
        """Return what a choice is called."""
        return f"Bore {self.bores[row].text}, ratio {ratio:.2f}"

    def look_at(self, row: int, ratio: float) -> None:
        """Let the press show a bore and a ratio that are not fitted."""
        changes = self.changes(row, ratio)
        self._session.consider(BuildChange(self.called(row, ratio), changes) if changes else None)


def _unchosen(build: Build) -> tuple[object, ...]:
    """Return what of a build the map depends on: all but the pin and the bores."""
    pin = {"pivot_to_pushrod": build.pedal.travel_available}
    master = build.master
    kept = master.model_copy(update=dict.fromkeys(master.bore_fields))
    if isinstance(master, TwinMaster):
        apart = [master.rear_bore.value - master.front_bore.value]
    else:
        others = (getattr(master, name) for name in master.bore_fields[1:])
        apart = [0.0 if one is None else one.value / master.main_bore.value for one in others]
    parts = (build.vehicle, build.front, build.rear, build.booster, build.circuits, build.valves)
    more = (build.lines, build.targets, build.warning_switch, build.shuttle_volume)
    return (*parts, *more, build.pedal.model_copy(update=pin), kept, np.round(apart, 9).tolist())
