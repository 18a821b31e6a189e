"""Thresholds of the trade, none of which has a published source: common practice."""

from urgens.quantity.units import INCH, INCH_OF_MERCURY, PSI

IDLE_REAR = 0.5  # of the front's adhesion used, below which the rear hardly works
DISC_RESIDUAL = 2.5 * PSI  # Pa; more than this makes discs drag
# That are usual
DRUM_RESIDUAL = "10 psi"  # sold as 10 to 15 psi
UNDER_FLOOR_RESIDUAL = "2 psi"
LOWEST_VACUUM = 15.0 * INCH_OF_MERCURY  # Pa of depression at idle
PEDAL_STEP = 2.0 * INCH  # m the brake pad may stand above the throttle's
FLUID_YEARS = 2  # after which fluid is old
METERING = {"kind": "metering", "close": "10 psi", "open": "130 psi"}
# Shoe factor from, to at μ 0.38, and (dC/C)/(dμ/μ) from, to; common practice.
USUAL_SHOES = {
    "leading-trailing": (2.0, 2.4, 1.3, 1.6),
    "two-leading": (3.0, 3.5, 1.9, 2.3),
    "duo-servo": (4.5, 6.0, 2.5, 3.5),
}
