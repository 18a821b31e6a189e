"""Ways to balance a build as the JSON object the command line prints."""

from collections.abc import Sequence
from typing import Any

from urgens.document import Build
from urgens.guidance.advice.ranked_ways import RankedWays
from urgens.guidance.advice.valve_choice import why
from urgens.printed.values import figure
from urgens.studies.valve_choice import Candidate


def printed_choice(build: Build, ways: RankedWays, surfaces: Sequence[float]) -> dict[str, Any]:
    """Return ways as plain JSON values, SI throughout, null where there is no figure.

    ways: to balance it, ranked; surfaces: that were looked at, and what lies between [-].
    Source: RFC 8259; the names are those of the results.
    """
    best = ways.recommended
    names = [case.name for case in build.vehicle.load_cases]
    return {
        "candidates": [
            {
                "kind": one.kind,
                "knee": one.fitted.knee,
                "slope": one.fitted.slope,
                "bar_offset": one.fitted.bar_offset,
                "size": None if one.fitted.size is None else one.fitted.size.value,
                "rear_first": [
                    {"load_case": names[case], "surface": road}
                    for case, road in one.verdict.rear_first
                ],
                "rear_first_chance": one.chance,
                "margins_missed": one.verdict.missed,
                "mean_efficiency": figure(one.verdict.mean_efficiency),
                "worst_efficiency": figure(one.verdict.worst_efficiency),
                "regulation": {
                    "rear_below_front": one.regulation.rear_below_front,
                    "adhesion_limit": one.regulation.adhesion_limit,
                },
                "sold": _sold(one),
                "lost": list(one.lost),
                "changes": one.fitted.changes,
                "brings": [{"code": f.code, "severity": f.severity.word} for f in brings.new],
                "why": why(build, one, build.natural_units),
            }
            for one, brings in zip(ways.found, ways.brings, strict=True)
        ],
        "recommended": None if best is None else ways.found.index(best),
    }


def _sold(candidate: Candidate) -> dict[str, Any] | None:
    """Return the best of what is sold, with the edits that fit it."""
    if candidate.sold is None:
        return None
    way, verdict = candidate.sold
    return {
        "knee": way.knee,
        "slope": way.slope,
        "mean_efficiency": figure(verdict.mean_efficiency),
        "changes": way.changes,
    }
