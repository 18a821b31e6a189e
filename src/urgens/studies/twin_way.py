"""Twin cylinders with a balance bar in place of the cylinder that is there."""

import math

from urgens.document import Build, with_changes
from urgens.document.kinds.bores import sold_bores
from urgens.quantity import Quantity
from urgens.solve.roads import every_road
from urgens.studies.balance_verdict import verdict_of
from urgens.studies.valve_choice import Candidate, judged
from urgens.studies.valve_fits import FittedWay, Search, fit_bar, without_valve


def twin_way(build: Build, margin: float) -> Candidate | None:
    """Return how the brakes would be with twin cylinders and a bar; None where they are so.

    margin: wanted, of the road's coefficient [-]. Both bores start
    from half the area of the present one, as each rod gets half of the foot; then the bar is set.
    Source: statics; `studies.valve_fits`.
    """
    master = build.master
    if master.has_bar:
        return None
    bore = _nearest(master.main_bore.value / math.sqrt(2.0))
    shared = {"stroke", "port_travel", "spring_preload", "efficiency"}
    kept = master.model_dump(mode="json", exclude_unset=True, include=shared)
    twin = {"kind": "twin", "front_bore": bore.text, "rear_bore": bore.text, **kept}
    values = {**without_valve(build), "master": twin, "circuits": "front-rear"}
    made, roads = with_changes(build, values), every_road(build)
    (bar,) = fit_bar(Search(made, roads, margin, made))
    twin["bar_offset"] = bar.changes["master.bar_offset"]
    way = FittedWay("bar", values, bar_offset=bar.bar_offset, size=bore)
    return judged(build, way, None, margin, verdict_of(build, margin=margin))


def _nearest(diameter: float) -> Quantity:
    """Return the bore that is sold nearest to a diameter [m]."""
    return min(sold_bores(), key=lambda bore: abs(bore.value - diameter))
