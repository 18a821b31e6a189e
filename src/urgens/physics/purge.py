"""Fluid that pushes air along a line: slugs that move without mixing, and what runs by itself."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

import numpy as np

from urgens.physics.arrays import Array, Floats

GRAVITY = 9.81  # m/s²
ALIKE = 1e-12  # of a share of air: slugs that differ by less are one


class Slug(NamedTuple):
    """So much of a line [m³], and the share of it that is air [-]."""

    volume: float
    air: float


Slugs = tuple[Slug, ...]  # from the end where fluid enters


def volume_of(slugs: Iterable[Slug]) -> float:
    """Return what slugs take [m³].

    slugs: of a line. Source: by definition.
    """
    return sum(slug.volume for slug in slugs)


def air_of(slugs: Iterable[Slug]) -> float:
    """Return the air in slugs [m³].

    slugs: of a line. Source: by definition.
    """
    return sum(slug.volume * slug.air for slug in slugs)


def pushed(held: Slugs, entering: Slugs) -> tuple[Slugs, Slugs]:
    """Return what a line holds once something has entered it, and what has left at its far end.

    held: by the line; entering: at its near end. What leaves is as much as enters. Source:
    continuity; slug flow, as slow flow in a thin tube; slugs that do not mix.
    """
    room, inside, left = volume_of(held), list[Slug](), list[Slug]()
    for slug in (*entering, *held):
        stays = min(slug.volume, max(room, 0.0))
        room -= slug.volume
        if stays > 0.0:
            _add(inside, Slug(stays, slug.air))
        if slug.volume - stays > 0.0:
            _add(left, Slug(slug.volume - stays, slug.air))
    return tuple(inside), tuple(left)


def _add(slugs: list[Slug], slug: Slug) -> None:
    """Add a slug behind others, as one with the last where they are alike."""
    if slugs and abs(slugs[-1].air - slug.air) < ALIKE:
        slugs[-1] = Slug(slugs[-1].volume + slug.volume, slug.air)
    else:
        slugs.append(slug)


def until_clear(lines: Sequence[Slugs]) -> float:
    """Return how much has to enter until the last air has left [m³].

    lines: one behind the other, from where fluid enters. Source: slug flow.
    """
    slugs = [slug for line in lines for slug in line]
    first = next((place for place, slug in enumerate(slugs) if slug.air > 0.0), None)
    return 0.0 if first is None else volume_of(slugs[first:])


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
