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
_FLOTATION_CODE = re.compile(
    r"\s*(\d{2}(?:\.\d+)?)\s*[xX×]\s*(\d{1,2}(?:\.\d+)?)\s*(?:R|B|D|-)\s*(\d{2})(?:LT)?\s*"
)
INCH = 0.0254  # m


def size_code(code: str) -> tuple[float, float, float]:
    """Return section width [m], aspect ratio [-] and rim diameter [m] of a size code.

    code: metric such as "185/60R14", or flotation such as "28x10.50-15" [text].
    Raises ValueError where it is neither. Older codes such as "6.50-16" are neither: they do not
    say how high the section is.
    Source: ISO 4000-1 (metric) and the flotation designation, outer diameter by width and rim in
    inches (both from memory).
    """
    metric, flotation = _METRIC_CODE.fullmatch(code), _FLOTATION_CODE.fullmatch(code)
    if metric is not None:
        width, aspect, rim = (int(group) for group in metric.groups())
        return width / 1000.0, aspect / 100.0, rim * INCH
    if flotation is not None:
        outer, across, rim_inches = (float(group) for group in flotation.groups())
        if outer > rim_inches:
            return across * INCH, (outer - rim_inches) / 2.0 / across, rim_inches * INCH
    raise ValueError(code)
