"""Places labels on a drawing so that they overlap neither each other nor what they name.

Pure geometry in pixels: each label tries places around its anchor, the most wanted label first.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Box = tuple[float, float, float, float]  # left, top, width, height
DISTANCES = (9.0, 15.0, 24.0, 36.0, 52.0)  # px from the anchor
DIRECTIONS = ((1, 0), (-1, 0), (0, -1), (0, 1), (1, -1), (1, 1), (-1, -1), (-1, 1))
# What a place costs
ON_CURVE = 10.0
ON_HANDLE = 400.0
PER_PIXEL = 0.35


@dataclass(frozen=True)
class Label:
    """A label of a size, wanted near an anchor, on the given sides first."""

    words: str
    anchor: tuple[float, float]
    size: tuple[float, float]
    sides: Sequence[tuple[int, int]] = DIRECTIONS


def overlap(box: Box, other: Box) -> bool:
    """Tell whether two boxes overlap."""
    return (
        box[0] < other[0] + other[2]
        and other[0] < box[0] + box[2]
        and box[1] < other[1] + other[3]
        and other[1] < box[1] + box[3]
    )


def place(
    labels: Sequence[Label],
    bounds: Box,
    curves: Sequence[NDArray[np.float64]] = (),
    handles: Sequence[Box] = (),
    taken: Sequence[Box] = (),
) -> list[Box | None]:
    """Return a box for each label, in order of priority, None where there is no room.

    labels: most wanted first; bounds: where they may be [px]; curves: points, shape (n, 2) [px];
    handles: boxes to keep clear of [px]; taken: boxes of labels that stand already [px].
    """
    if not labels:
        return []
    boxes, cost, ends = _candidates(labels)
    cost += ON_CURVE * _points_in(np.concatenate([*curves, np.empty((0, 2))]), boxes)
    cost += ON_HANDLE * _overlaps(boxes, np.array(handles, dtype=float).reshape(-1, 4)).sum(axis=1)
    cost[~_inside(boxes, bounds)] = np.inf
    cost[_overlaps(boxes, np.array(taken, dtype=float).reshape(-1, 4)).any(axis=1)] = np.inf
    placed: list[Box | None] = []
    start = 0
    for end in ends:
        best = start + int(np.argmin(cost[start:end]))
        start = end
        if not np.isfinite(cost[best]):
            placed.append(None)
            continue
        left, top, width, height = (float(edge) for edge in boxes[best])
        placed.append((left, top, width, height))
        cost[_overlaps(boxes, boxes[best : best + 1])[:, 0]] = np.inf
    return placed


def _candidates(
    labels: Sequence[Label],
) -> tuple[NDArray[np.float64], NDArray[np.float64], list[int]]:
    """Return all labels' boxes around their anchors, shape (n, 4), their costs and their ends.

    A label has one candidate for each of its sides and each distance.
    """
    counts = [len(label.sides) * len(DISTANCES) for label in labels]
    sides = np.concatenate([np.array(label.sides, dtype=float) for label in labels])
    sides = np.repeat(sides, len(DISTANCES), axis=0)
    distances = np.tile(DISTANCES, len(sides) // len(DISTANCES))
    order = np.concatenate([np.arange(count) // len(DISTANCES) for count in counts])
    anchors = np.repeat([label.anchor for label in labels], counts, axis=0)
    size = np.repeat([label.size for label in labels], counts, axis=0)
    corners = anchors + sides * distances[:, None] - size * (1 - sides) / 2
    return np.hstack((corners, size)), order + PER_PIXEL * distances, list(np.cumsum(counts))


def _overlaps(boxes: NDArray[np.float64], others: NDArray[np.float64]) -> NDArray[np.bool_]:
    """Tell which boxes overlap which others, shape (boxes, others)."""
    one, other = boxes[:, None, :], others[None, :, :]
    near = one[..., :2] < other[..., :2] + other[..., 2:]
    far = other[..., :2] < one[..., :2] + one[..., 2:]
    return np.asarray((near & far).all(axis=-1))


def _inside(boxes: NDArray[np.float64], bounds: Box) -> NDArray[np.bool_]:
    low, size = np.array(bounds[:2]), np.array(bounds[2:])
    fits = (boxes[:, :2] >= low) & (boxes[:, :2] + boxes[:, 2:] <= low + size)
    return np.asarray(fits.all(axis=1))


def _points_in(points: NDArray[np.float64], boxes: NDArray[np.float64]) -> NDArray[np.int_]:
    """Count the points in each box."""
    x, y = points[:, 0], points[:, 1]
    left, top, width, height = (edge[:, None] for edge in boxes.T)
    inside = (x > left) & (x < left + width) & (y > top) & (y < top + height)
    return np.asarray(np.count_nonzero(inside, axis=1))
