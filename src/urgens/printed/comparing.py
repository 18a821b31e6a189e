"""Two builds compared, as the JSON object the command line prints."""

from typing import Any

from urgens.document import Build
from urgens.guidance.advice.build_comparison import ComparedFigure, compared
from urgens.printed.values import figure
from urgens.studies.attribution import Attribution
from urgens.studies.compare import column


def printed_comparison(
    here: Build, other: Build, names: tuple[str, str], unknown: tuple[str, ...] = ()
) -> dict[str, Any]:
    """Return every figure that differs, SI where it is worked out, as typed where it is typed.

    here, other: the documents; names: what each is called [text]; unknown: paths of the
    history that lead nowhere [text].
    """
    return {
        "here": names[0],
        "other": names[1],
        "load_case": column(here, None, None, None).solution.case_name,
        "figures": [_row(one) for one in compared(here, other)],
        "unknown": list(unknown),
    }


def printed_parts(found: Attribution) -> dict[str, Any]:
    """Return each change's own part, SI; they add up from the other build to this one.

    found: of both builds.
    """
    return {
        "why": [
            {
                "change": one.change.what,
                "at": None if one.change.at is None else one.change.at.isoformat(),
                "paths": sorted(one.change.values),
                **one.parts,
            }
            for one in found.changes
        ],
        "why_from": found.before,
        "why_to": found.after,
        "why_exact": found.exact,
        "why_missing": found.missing,
        "crossed": found.crossed,
    }


def _row(one: ComparedFigure) -> dict[str, Any]:
    values = (value if isinstance(value, str) else figure(value) for value in (one.here, one.other))
    here, other = values
    unit = one.kind.si if one.kind is not None else one.unit
    return {
        "figure": one.name, "path": one.path or None, "here": here, "other": other, "unit": unit,
        "better": one.better or None, "why": one.why,
    }  # fmt: skip
