"""The trade's sayings, tried on a build: true here, not here, true within limits, not computed."""

from urgens.guidance.sayings import bores, fluids, roads, springs, valves
from urgens.guidance.sayings.saying import SAID, Bar, SayingVerdict, TriedSaying, known, tried

__all__ = [
    "SAID",
    "Bar",
    "SayingVerdict",
    "TriedSaying",
    "bores",
    "fluids",
    "known",
    "roads",
    "springs",
    "tried",
    "valves",
]
