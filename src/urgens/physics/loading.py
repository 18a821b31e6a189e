"""Axle loads and centre of gravity of a vehicle with people, fuel and cargo added."""

import numpy as np

from urgens.physics.arrays import Array, Floats


def with_items(
    front: Floats,
    rear: Floats,
    cg_height: Floats,
    wheelbase: Floats,
    weights: Array,
    behind_front: Array,
    heights: Array,
) -> tuple[Array, Array, Array]:
    """Return front load [N], rear load [N] and height of the centre of gravity [m], loaded.

    front: axle load without the items [N]; rear: [N]; cg_height: [m]; wheelbase: [m]; weights: of
    the items, along the last axis, (..., n) [N]; behind_front: their distances behind the front
    axle, negative ahead of it [m]; heights: above the road [m].
    Source: moments about the front axle; heights weighted.
    """
    total = np.sum(weights, axis=-1)
    on_rear = np.sum(weights * behind_front, axis=-1) / wheelbase
    whole = np.add(front, rear) + total
    high = (np.add(front, rear) * cg_height + np.sum(weights * heights, axis=-1)) / whole
    return np.asarray(front + total - on_rear), np.asarray(rear + on_rear), np.asarray(high)
