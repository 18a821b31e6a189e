"""Tyres: their size and the force they pass to the road."""

import re

import numpy as np

from urgens.physics.arrays import Array, Floats

ROLLING_SHARE = 0.97  # rolling over unloaded radius of a radial tyre; from memory


def rolling_radius(section_width: Floats, aspect: Floats, rim_diameter: Floats) -> Array:
    """Return the rolling radius [m] that belongs to a size code, about.

    section_width: [m].
    aspect: section height over width [-].
    rim_diameter: [m].
    Source: ISO 4000-1 size designation; 0.97 of the unloaded radius is from memory.
    """
    return np.asarray(ROLLING_SHARE * (np.divide(rim_diameter, 2.0) + section_width * aspect))


def axle_force(torque: Floats, radius: Floats) -> Array:
    """Return the force [N] at the road of both wheels of an axle.

    torque: of one wheel's brake [N·m].
    radius: rolling radius [m].
    Source: moments about the hub.
    """
    return np.asarray(2.0 * np.divide(torque, radius))


_METRIC_CODE = re.compile(r"\s*(?:P|LT)?(\d{2,3})\s*/\s*(\d{2,3})\s*(?:ZR|R|B|D|-)?\s*(\d{2})\s*")


def size_code(code: str) -> tuple[float, float, float]:
    """Return section width [m], aspect ratio [-] and rim diameter [m] of a metric size code.

    code: such as "185/60R14" [text].
    Raises ValueError where it is no such code.
    Source: ISO 4000-1 size designation (from memory).
    """
    match = _METRIC_CODE.fullmatch(code)
    if match is None:
        raise ValueError(code)
    width, aspect, rim = (int(group) for group in match.groups())
    return width / 1000.0, aspect / 100.0, rim * 0.0254
