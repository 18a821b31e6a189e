"""What draws came to as the JSON object the command line prints."""

from typing import Any

from urgens.printed.values import figures
from urgens.studies.robustness import Robustness


def printed_robustness(found: Robustness) -> dict[str, Any]:
    """Return robustness as plain JSON values; found: of a build [object].

    Source: RFC 8259; the names are those of the results.
    """
    return {
        "draws": found.draws,
        "load_case": found.load_case,
        "rear_first": {
            f"{mu:g}": share for mu, share in zip(found.surfaces, found.rear_first, strict=True)
        },
        "efficiency": {
            f"{mu:g}": figures(band)
            for mu, band in zip(found.surfaces, found.efficiency, strict=True)
        },
        "sensitivity": [{"input": path, "share": share} for path, share in found.sensitivity],
    }
