"""Judging a solution: findings with reason, basis, place and fix."""

from urgens.guidance import balance, circuit, sizing
from urgens.guidance.finding import Finding, Fix, Severity
from urgens.guidance.registry import findings, known_codes

__all__ = [
    "Finding",
    "Fix",
    "Severity",
    "balance",
    "circuit",
    "findings",
    "known_codes",
    "sizing",
]
