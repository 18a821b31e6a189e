"""The sizing map as the JSON object the command line prints."""

from typing import Any

from urgens.document import Build
from urgens.guidance.words.sizing import why
from urgens.printed.values import figures
from urgens.solve import solve
from urgens.studies.sizing import SizingMap
from urgens.studies.sizing_windows import MissedWindow


def printed_sizing(build: Build, case: int, sizing_map: SizingMap) -> dict[str, Any]:
    """Return a map as plain JSON values, SI throughout, null where there is no figure.

    case: place of the load case that it is for [-]; sizing_map: its map.
    Source: RFC 8259; the names are those of the results.
    """
    return {
        "bores": sizing_map.bores.tolist(),
        "rear_bores": sizing_map.rear_bores.tolist(),
        "ratios": sizing_map.ratios.tolist(),
        **{
            name: figures(getattr(sizing_map, name))
            for name in ("pressure", "effort", "pedal_travel", "stroke_used", "half_failed_travel")
        },
        **(
            {}
            if sizing_map.hold_effort is None
            else {"hold_effort": figures(sizing_map.hold_effort)}
        ),
        "locks_before": _locks_before(build, case),
        "half_failed_meets_rule": sizing_map.half_failed_holds.tolist(),
        "verdict": [[MissedWindow(int(v)).word for v in row] for row in sizing_map.verdict],
        "ranked": [
            {
                "bore": float(sizing_map.bores[row]),
                "rear_bore": float(sizing_map.rear_bores[row]),
                "ratio": float(sizing_map.ratios[column]),
                "score": float(sizing_map.score[row, column]),
                "why": why(build, sizing_map, row, column),
            }
            for row, column in sizing_map.ranked()
        ],
    }


def _locks_before(build: Build, case: int) -> dict[str, Any] | None:
    """Return what locks before the wanted deceleration on the target road, as it is fitted."""
    before = solve(build, load_case=build.vehicle.load_cases[case].name).locks_before_wanted
    if before is None:
        return None
    axle, effort, z = before
    return {"axle": axle.name.lower(), "effort": effort, "z": z}
