"""Facts of the trade: common practice, without a published source."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest

from urgens.document import Build
from urgens.solve import solve

LBF = 4.4482216152605  # N
PSI = LBF / 0.0254**2  # Pa
Built = Callable[..., Build]


def manual(bore: str, ratio: float) -> dict[str, Any]:
    return {
        "booster": {"kind": "none"},
        "pedal.pivot_to_pad": "12 in",
        "pedal.pivot_to_pushrod": f"{12 / ratio:.9f} in",
        "master.bore": bore,
    }


@pytest.mark.parametrize(
    ("foot", "ratio", "bore", "psi"),
    [
        (75, 6, "3/4 in", 1019),
        (75, 6, "15/16 in", 652),
        (75, 6, "1 in", 573),
        (75, 6, "1-1/8 in", 453),
        (100, 7, "15/16 in", 1014),
    ],
)
def test_pressure_by_bore(built: Built, foot: float, ratio: float, bore: str, psi: float) -> None:
    presses = solve(built(manual(bore, ratio)), efforts=np.array([foot * LBF])).presses

    assert presses.master_front[0] / PSI == pytest.approx(psi, abs=0.5)


@pytest.mark.parametrize(("knee", "outlet"), [(275, 387.5), (300, 400.0)])
def test_outlet_of_a_road_valve_at_500_psi(built: Built, knee: float, outlet: float) -> None:
    """Knee 275 psi, slope one half: 387.5 psi out with 500 psi in; knee 300: 400."""
    changes = {
        **manual("15/16 in", 6),
        "valves.rear": [{"kind": "reducing", "knee": f"{knee} psi", "slope": 0.5}],
    }
    build = built(changes)
    effort = 500 * PSI * np.pi / 4 * (15 / 16 * 0.0254) ** 2 / 6
    presses = solve(build, efforts=np.array([effort])).presses

    assert presses.master_rear[0] / PSI == pytest.approx(500, abs=1e-6)
    assert presses.rear_pressure[0] / PSI == pytest.approx(outlet, abs=1e-6)
    assert 350 <= outlet <= 400  # what is accepted of a production valve


def test_boosted_cylinder_on_a_manual_pedal_needs_1_44_times_the_effort(built: Built) -> None:
    """A boosted 1-1/8 in cylinder instead of a manual 15/16 in one: (18/15)² = 1.44."""
    efforts = np.array([75 * LBF])
    small = solve(built(manual("15/16 in", 6)), efforts=efforts).presses.master_front
    large = solve(built(manual("1-1/8 in", 6)), efforts=efforts).presses.master_front

    assert small / large == pytest.approx([1.44])


def test_piston_area_times_pressure_is_a_force() -> None:
    """A piston area of 4 in² at 700 psi gives 2,800 lbf of clamp, not psi."""
    from urgens.physics.disc import clamp_force

    assert clamp_force(700 * PSI, 4 * 0.0254**2) / LBF == pytest.approx(2800)


@pytest.mark.parametrize(
    ("inlet", "outlet"), [(5, 5), (10, 10), (60, 10), (130, 10), (195, 135), (260, 260), (500, 500)]
)
def test_metering_valve_holds_between_10_and_130_psi(
    built: Built, inlet: float, outlet: float
) -> None:
    build = built({**manual("1 in", 6), "valves.front[0].open": "130 psi"})
    effort = inlet * PSI * np.pi / 4 * 0.0254**2 / 6
    presses = solve(build, efforts=np.array([effort])).presses

    assert presses.front_pressure[0] / PSI == pytest.approx(outlet, abs=1e-6)
