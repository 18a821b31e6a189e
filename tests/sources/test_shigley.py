"""Worked examples of Shigley's Mechanical Engineering Design, clutches and brakes (from memory)."""

from math import pi, radians

import numpy as np
import pytest
from scipy.integrate import quad

from urgens.physics import cylinder, disc, drum

INCH, LBF = 0.0254, 4.4482216152605
PSI = LBF / INCH**2
# Internal expanding rim: radius, hinge distance, arm [m], lining friction, heel and toe [rad]
RIM = {"radius": 0.150, "hinge": 0.1227, "arm": 0.212, "friction": 0.32}
HEEL, TOE = 0.0, radians(126)
FACE, LARGEST = 0.032, 1e6  # m, Pa


def test_caliper_brake() -> None:
    """Pads 3.875 to 5.5 in over 108°, μ 0.37, 13,000 lbf·in from two pads, piston 1.5 in."""
    inner, outer, angle = 3.875 * INCH, 5.5 * INCH, radians(108)
    radius = float(disc.effective_radius(inner, outer))
    force = 13000 * LBF * INCH / 2 / 0.37 / radius
    area = float(cylinder.bore_area(1.5 * INCH))
    pressure = force / area
    largest = force / (angle * inner * (outer - inner))  # uniform wear

    assert radius / INCH == pytest.approx(4.69, abs=0.005)
    assert force / LBF == pytest.approx(3748, abs=1)
    assert pressure / PSI == pytest.approx(2121, abs=1)
    assert largest / PSI == pytest.approx(315.8, abs=0.2)
    torque = float(disc.torque_per_pressure(area, 0.37, radius)) * pressure
    assert torque / (LBF * INCH) == pytest.approx(13000)


def test_internal_expanding_rim_moments() -> None:
    """M_f 304 N·m, M_N 787 N·m, force 2.28 kN for 1 MPa on the leading shoe; within 1 %."""
    moments = drum.shoe_moments(RIM["friction"], RIM["radius"], RIM["hinge"], HEEL, TOE)
    friction, normal = (float(moment) * LARGEST * FACE for moment in moments)

    assert friction == pytest.approx(304, rel=0.01)
    assert normal == pytest.approx(787, rel=0.01)
    assert (normal - friction) / RIM["arm"] == pytest.approx(2280, rel=0.01)


def test_internal_expanding_rim_torques() -> None:
    """Torques 366 leading and 162 N·m trailing (largest pressure there 443 kPa), together 528."""
    arguments = (RIM["friction"], RIM["radius"], RIM["hinge"])
    friction, normal = (float(m) for m in drum.shoe_moments(*arguments, HEEL, TOE))
    force = (normal - friction) * LARGEST * FACE / RIM["arm"]
    both = float(drum.pinned_shoe_factor(*arguments, RIM["arm"], HEEL, TOE))
    leading = (
        float(drum.pinned_shoe_factor(*arguments, RIM["arm"], HEEL, TOE, two_leading=True)) / 2
    )
    trailing_pressure = force * RIM["arm"] / ((normal + friction) * FACE)

    assert leading * force * RIM["radius"] == pytest.approx(366, rel=0.01)
    assert (both - leading) * force * RIM["radius"] == pytest.approx(162, rel=0.01)
    assert both * force * RIM["radius"] == pytest.approx(528, rel=0.01)
    assert trailing_pressure == pytest.approx(443e3, rel=0.01)


@pytest.mark.parametrize("toe", [radians(70), radians(90), radians(126), pi])
def test_closed_integrals_against_quadrature(toe: float) -> None:
    mu, radius, hinge, heel = 0.35, 0.14, 0.11, 0.1
    top = np.sin(min(toe, pi / 2))
    friction = quad(lambda t: np.sin(t) * (radius - hinge * np.cos(t)), heel, toe)[0]
    normal = quad(lambda t: np.sin(t) ** 2, heel, toe)[0]

    found = drum.shoe_moments(mu, radius, hinge, heel, toe)

    assert found[0] == pytest.approx(mu * radius * friction / top)
    assert found[1] == pytest.approx(radius * hinge * normal / top)


def test_a_shoe_that_grabs_has_no_figure() -> None:
    with pytest.raises(ValueError, match=r"^the leading shoe grabs$"):
        drum.pinned_shoe_factor(1.2, 0.15, 0.1227, 0.212, HEEL, TOE)
