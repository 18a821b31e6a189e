"""From a build to figures: the only way there is."""

from urgens.solve.adhesion_curve import Crossings, Regulation, ideal_pressures
from urgens.solve.first_rise import AxleName
from urgens.solve.lock import FirstLock, first_lock
from urgens.solve.press import Presses, press
from urgens.solve.roads import ICE, WET, every_road
from urgens.solve.solution import Solution, solve
from urgens.solve.system import System, system

__all__ = [
    "ICE",
    "WET",
    "AxleName",
    "Crossings",
    "FirstLock",
    "Presses",
    "Regulation",
    "Solution",
    "System",
    "every_road",
    "first_lock",
    "ideal_pressures",
    "press",
    "solve",
    "system",
]
