"""Thresholds of the trade, none of which has a published source: common practice."""

from urgens.document.practice import practice
from urgens.quantity import PRESSURE, parse
from urgens.quantity.units import INCH, PSI

IDLE_REAR = 0.5  # of the front's adhesion used, below which the rear hardly works
DISC_RESIDUAL = 2.5 * PSI  # Pa; more than this makes discs drag
# That are usual
DRUM_RESIDUAL = practice()["residual_drum"].inch
UNDER_FLOOR_RESIDUAL = practice()["residual_disc"].inch
LOWEST_VACUUM = parse(practice()["vacuum_at_idle"].inch, PRESSURE).value  # Pa, at idle
PEDAL_STEP = 2.0 * INCH  # m the brake pad may stand above the throttle's
HOSE_YEARS = 10  # after which a hose is old
FLUID_YEARS = 2  # after which fluid is old
METERING = {
    "kind": "metering",
    "close": practice()["metering_shuts"].inch,
    "open": practice()["metering_opens"].inch,
}
# Shoe factor from, to at μ 0.38, and (dC/C)/(dμ/μ) from, to; common practice.
USUAL_SHOES = {
    "leading-trailing": (2.0, 2.4, 1.3, 1.6),
    "two-leading": (3.0, 3.5, 1.9, 2.3),
    "duo-servo": (4.5, 6.0, 2.5, 3.5),
}
