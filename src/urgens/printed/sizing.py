"""The sizing map as the JSON object the command line prints."""

from typing import Any

from urgens.document import Build
from urgens.guidance.words.sizing import why
from urgens.printed.values import figures
from urgens.studies.sizing import SizingMap, Verdict


def printed_sizing(build: Build, found: SizingMap) -> dict[str, Any]:
    """Return a map as plain JSON values, SI throughout, null where there is no figure.

    build: the document [object]; found: its map [object].
    Source: RFC 8259; the names are those of the results.
    """
    return {
        "bores": found.bores.tolist(),
        "rear_bores": found.rear_bores.tolist(),
        "ratios": found.ratios.tolist(),
        **{
            name: figures(getattr(found, name))
            for name in (
                "pressure",
                "effort",
                "pedal_travel",
                "stroke_used",
                "half_failed_travel",
            )
        },
        **({} if found.hold_effort is None else {"hold_effort": figures(found.hold_effort)}),
        "verdict": [[Verdict(int(v)).word for v in row] for row in found.verdict],
        "ranked": [
            {
                "bore": float(found.bores[row]),
                "ratio": float(found.ratios[column]),
                "score": float(found.score[row, column]),
                "why": why(build, found, row, column),
            }
            for row, column in found.ranked()
        ],
    }
