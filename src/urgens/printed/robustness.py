"""What draws came to as the JSON object the command line prints."""

from typing import Any

from urgens.printed.values import figures
from urgens.studies.robustness import Robustness


def printed_robustness(robustness: Robustness, anywhere: float) -> dict[str, Any]:
    """Return robustness as plain JSON values.

    robustness: of a build; anywhere: its chance of the rear first with any load on any road [-].

    Source: RFC 8259; the names are those of the results.
    """
    return {
        "draws": robustness.draws,
        "load_case": robustness.load_case,
        "rear_first": {
            f"{mu:g}": share
            for mu, share in zip(robustness.surfaces, robustness.rear_first, strict=True)
        },
        "rear_first_anywhere": anywhere,
        "efficiency": {
            f"{mu:g}": figures(band)
            for mu, band in zip(robustness.surfaces, robustness.efficiency, strict=True)
        },
        "sensitivity": [{"input": path, "share": share} for path, share in robustness.sensitivity],
    }
