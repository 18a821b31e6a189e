"""Urgens: one build file for the brakes of one vehicle, from measuring to proving."""

__version__ = "0.1.0"
