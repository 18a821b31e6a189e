"""How far figures are usually off, where the build says nothing."""

import re

from urgens.document import Build
from urgens.document.wheel import Drum

# path patterns and spreads: build-file contract, common practice
_USUAL = (
    (r"(front|rear)\.brake\.(pad_friction|shoe\.lining_friction)", "10 %"),
    (r"vehicle\.load_cases\[\d+\]\.cg_height", "5 %"),
    (r"vehicle\.load_cases\[\d+\]\.(front|rear)_axle", "2 %"),
    (r"valves\.(front|rear)\[\d+\]\.(knee|ball_angle)", "5 %"),
    (r"valves\.(front|rear)\[\d+\]\.slope", "0.03"),
)
_SHOE_FACTOR = {"leading-trailing": "15 %", "two-leading": "20 %", "duo-servo": "30 %"}


def default_spread(build: Build, path: str) -> str | None:
    """Return the usual spread of the figure at `path`, None where it counts as exact.

    build: the document [object]; path: in it [text].
    Source: build-file contract; common practice.
    """
    for axle in ("front", "rear"):
        brake = getattr(build, axle).brake
        if path == f"{axle}.brake.shoe_factor" and isinstance(brake, Drum):
            return _SHOE_FACTOR[brake.layout]
    return next((spread for pattern, spread in _USUAL if re.fullmatch(pattern, path)), None)
