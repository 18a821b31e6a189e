"""Figures as plain JSON values: null where there is none."""

import math
from collections.abc import Iterable
from typing import Any

import numpy as np


def figure(value: float | np.float64) -> float | None:
    """Return a finite figure, else None; value: of any kind [SI]. Source: RFC 8259, section 6."""
    return float(value) if math.isfinite(value) else None


def figures(values: Iterable[Any]) -> list[Any]:
    """Return figures as nested lists of any depth; values: any shape [SI]."""
    return [figures(v) if np.ndim(v) else figure(v) for v in values]
