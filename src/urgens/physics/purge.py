"""Fluid that pushes air along a line: plugs that move without mixing, and what runs by itself."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

import numpy as np

from urgens.physics.arrays import Array, Floats

GRAVITY = 9.81  # m/s²
ALIKE = 1e-12  # of a share of air: plugs that differ by less are one


class Plug(NamedTuple):
    """So much of a line [m³], and the share of it that is air [-]."""

    volume: float
    air: float


Plugs = tuple[Plug, ...]  # from the end where fluid enters


def volume_of(plugs: Iterable[Plug]) -> float:
    """Return what plugs take [m³].

    plugs: of a line. Source: by definition.
    """
    return sum(plug.volume for plug in plugs)


def air_of(plugs: Iterable[Plug]) -> float:
    """Return the air in plugs [m³].

    plugs: of a line. Source: by definition.
    """
    return sum(plug.volume * plug.air for plug in plugs)


def pushed(held: Plugs, entering: Plugs) -> tuple[Plugs, Plugs]:
    """Return what a line holds once something has entered it, and what has left at its far end.

    held: by the line; entering: at its near end. What leaves is as much as enters. Source:
    continuity; plug flow, as slow flow in a thin tube.
    """
    room, inside, left = volume_of(held), list[Plug](), list[Plug]()
    for plug in (*entering, *held):
        stays = min(plug.volume, max(room, 0.0))
        room -= plug.volume
        if stays > 0.0:
            _add(inside, Plug(stays, plug.air))
        if plug.volume - stays > 0.0:
            _add(left, Plug(plug.volume - stays, plug.air))
    return tuple(inside), tuple(left)


def _add(plugs: list[Plug], plug: Plug) -> None:
    """Add a plug behind others, as one with the last where they are alike."""
    if plugs and abs(plugs[-1].air - plug.air) < ALIKE:
        plugs[-1] = Plug(plugs[-1].volume + plug.volume, plug.air)
    else:
        plugs.append(plug)


def until_clear(lines: Sequence[Plugs]) -> float:
    """Return how much has to enter until the last air has left [m³].

    lines: one behind the other, from where fluid enters. Source: plug flow.
    """
    plugs = [plug for line in lines for plug in line]
    first = next((place for place, plug in enumerate(plugs) if plug.air > 0.0), None)
    return 0.0 if first is None else volume_of(plugs[first:])


def flow_by_pressure(pressure: Floats, length: Array, bore: Array, viscosity: Floats) -> Array:
    """Return what runs through tubes one behind the other [m³/s].

    pressure: that drives it [Pa]; length: of each tube, (n,) [m]; bore: of each, (n,) [m];
    viscosity: dynamic, of the fluid [Pa·s].
    Source: Hagen–Poiseuille's law (White, Fluid Mechanics, from memory).
    """
    resistance = np.sum(128.0 * np.asarray(viscosity) * length / (np.pi * bore**4), axis=-1)
    return np.asarray(pressure / resistance)


def head(height: Floats, density: Floats) -> Array:
    """Return the pressure of a column of fluid [Pa]; height: [m]; density: [kg/m³].

    Source: hydrostatics (White, Fluid Mechanics, from memory).
    """
    return np.asarray(density * GRAVITY * np.asarray(height))
