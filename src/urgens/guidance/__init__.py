"""Judging a solution: findings with reason, basis, place and fix."""

from urgens.guidance import (
    assumed,
    balance,
    circuit,
    faults,
    feeding,
    fitness,
    fittings,
    grip,
    joining,
    joints,
    line_making,
    proofs,
    real_split,
    residual,
    sizing,
    travel,
)
from urgens.guidance.finding import Finding, Fix, Severity
from urgens.guidance.registry import area_of, findings, known_codes

__all__ = [
    "Finding",
    "Fix",
    "Severity",
    "area_of",
    "assumed",
    "balance",
    "circuit",
    "faults",
    "feeding",
    "findings",
    "fitness",
    "fittings",
    "grip",
    "joining",
    "joints",
    "known_codes",
    "line_making",
    "proofs",
    "real_split",
    "residual",
    "sizing",
    "travel",
]
