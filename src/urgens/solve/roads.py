"""Which roads a build is looked at on."""

from urgens.document import Build

ICE = 0.15  # tyre-road coefficients [-]
WET = 0.5  # common practice
STEP = 0.05  # between roads that are judged [-]


def named_roads(build: Build) -> tuple[float, ...]:
    """Return the roads that have a name: ice, wet and the target's [-].

    Source: common practice.
    """
    return tuple(dict.fromkeys((ICE, WET, build.targets.surface)))


def every_road(build: Build) -> tuple[float, ...]:
    """Return the roads who locks first is judged on, rising [-].

    From ice to the target's, so that a build that is right on both is not wrong between.
    Source: by definition.
    """
    target = build.targets.surface
    steps = int((target - ICE) / STEP - 1e-9) + 1 if target > ICE else 0
    return (*(round(ICE + STEP * step, 2) for step in range(steps)), target)
