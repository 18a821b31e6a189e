"""Judging a solution: findings with reason, basis, place and fix."""

from urgens.guidance.condition import held, joints, proofs
from urgens.guidance.rules import (
    assumed,
    balance,
    circuit,
    feeding,
    fittings,
    line_limits,
    parts_match,
    real_split,
    residual,
    sizing,
    switches,
    threads,
    travel,
    tyre_grip,
)
from urgens.guidance.rules.finding import Finding, Fix, Severity
from urgens.guidance.rules.registry import area_of, findings, known_codes
from urgens.guidance.tracing import open_faults

__all__ = [
    "Finding",
    "Fix",
    "Severity",
    "area_of",
    "assumed",
    "balance",
    "circuit",
    "feeding",
    "findings",
    "fittings",
    "held",
    "joints",
    "known_codes",
    "line_limits",
    "open_faults",
    "parts_match",
    "proofs",
    "real_split",
    "residual",
    "sizing",
    "switches",
    "threads",
    "travel",
    "tyre_grip",
]
