"""Urgens: one build file for the brakes of one vehicle, from measuring to proving."""

__version__ = "1.0.0"
__date__ = "2026-11-27"  # of this version
