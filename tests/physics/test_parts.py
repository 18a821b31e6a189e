"""Each part alone: shapes, ends and invariants."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from urgens.physics import booster, cylinder, disc, drum, pedal, tyre, valve, vehicle, volume
from urgens.physics.vehicle import StaticVehicle

pressures = st.floats(0, 2e7)


@pytest.mark.parametrize(
    "function",
    [
        lambda x: pedal.pushrod_force(x, 6.0, 0.95),
        lambda x: booster.output_force(x, crack_force=20, jump_in=50, gain=3, assist_limit=900),
        lambda x: cylinder.pressure(x, 4e-4, 30.0),
        lambda x: valve.reducing(x, 100.0, 0.3),
        lambda x: valve.metering(x, 10.0, 100.0, 250.0),
        lambda x: disc.clamp_force(x, 2e-3, 50.0),
        lambda x: tyre.axle_force(x, 0.3),
        lambda x: volume.brake_volume(x, 1e-6, 1e-13, 300.0),
        lambda x: volume.air_volume(x, 1e-6),
        lambda x: vehicle.stopping_distance(27.0, x),
    ],
)
def test_a_number_a_row_and_a_table_agree(function: Callable[[Any], Any]) -> None:
    row = np.linspace(0.0, 400.0, 12)
    table = row.reshape(3, 4)

    assert function(table) == pytest.approx(function(row).reshape(3, 4))
    assert [float(function(x)) for x in row] == pytest.approx(function(row))


def test_booster_cracks_jumps_and_runs_out() -> None:
    """At run-out the assist is at its limit, and from there the output rises one to one."""
    figures = {"crack_force": 20.0, "jump_in": 60.0, "gain": 3.0, "assist_limit": 500.0}
    end = float(booster.run_out(**figures))

    assert end == pytest.approx(20 + (500 - 60) / 2)
    assert booster.output_force(20.0, **figures) == 0
    assert booster.output_force(20.0 + 1e-9, **figures) == pytest.approx(60)
    assert booster.output_force(end, **figures) == pytest.approx(end - 20 + 500)
    assert booster.output_force(end + 100, **figures) == pytest.approx(end + 80 + 500)
    assert booster.run_out(20.0, 0.0, 1.0, 500.0) == np.inf


def test_booster_lost_leaves_the_foot_alone() -> None:
    lost = booster.output_force(np.array([10.0, 100.0]), crack_force=20, jump_in=60, gain=3)

    assert lost == pytest.approx([0, 80])


@given(pressures, st.floats(1e5, 1e7), st.floats(0, 0.99))
def test_reducing_never_raises_and_never_falls(inlet: float, knee: float, slope: float) -> None:
    outlet = float(valve.reducing(inlet, knee, slope))

    assert outlet <= inlet + 1e-6
    assert float(valve.reducing(inlet * 1.01, knee, slope)) >= outlet - 1e-6
    if inlet <= knee:
        assert outlet == inlet


@given(pressures, st.floats(0, 1e5), st.floats(2e5, 1e6), st.floats(1.1, 4))
def test_metering_stays_between_shut_and_inlet(
    inlet: float, closing: float, opening: float, wide: float
) -> None:
    outlet = float(valve.metering(inlet, closing, opening, wide * opening))

    assert min(inlet, closing) - 1e-6 <= outlet <= inlet + 1e-6


@given(st.floats(0.05, 0.09), st.floats(-0.02, 0.02))
def test_bar_shares_are_moments_about_the_bearing(length: float, offset: float) -> None:
    front, rear = cylinder.bar_shares(length, offset)

    assert front + rear == pytest.approx(1)
    assert front * (length / 2 - offset) == pytest.approx(rear * (length / 2 + offset))


def test_drum_torque_is_shoe_factor_times_cylinder_force_times_radius() -> None:
    assert drum.torque_per_pressure(3e-4, 2.3, 0.127) * 2e6 == pytest.approx(2.3 * 600 * 0.127)


def test_rolling_radius_of_a_size_code() -> None:
    """185/60R14: unloaded 0.5 (14 in + 2 × 111 mm) = 288.8 mm, rolling 0.97 of it (memory)."""
    radius = float(tyre.rolling_radius(*tyre.size_code("185/60R14")))

    assert radius == pytest.approx(0.97 * 0.2888, abs=1e-6)
    with pytest.raises(ValueError, match="185-60"):
        tyre.size_code("185-60")


def test_air_is_halved_by_one_atmosphere() -> None:
    assert volume.air_volume(101325.0, 2e-6) == pytest.approx(1e-6)


def test_stopping_distance_against_an_integrated_stop() -> None:
    def stopped(_: float, state: Any) -> float:
        return float(state[1])

    stopped.terminal = True  # type: ignore[attr-defined]
    run = solve_ivp(
        lambda _, s: [s[1], -0.7 * 9.80665], (0, 20), [0, 26.8], events=stopped, rtol=1e-10
    )

    assert vehicle.stopping_distance(26.8, 0.7) == pytest.approx(run.y[0, -1], rel=1e-6)
    assert vehicle.stopping_distance(26.8, 0.7, 0.5) == pytest.approx(run.y[0, -1] + 13.4, rel=1e-6)
    assert vehicle.stopping_distance(26.8, 0.0) == np.inf


standings = st.builds(
    StaticVehicle,
    st.floats(2000, 12000),
    st.floats(2000, 12000),
    st.floats(0.1, 0.4),
    st.just(0.0),
    st.just(0.0),
    st.sampled_from([1.0, 0.8, 1.3]),
    st.sampled_from([1.0, 0.9, 1.25]),
)


@given(standings, st.floats(0, 1.0))
def test_load_moves_but_does_not_vanish(standing: StaticVehicle, z: float) -> None:
    front, rear = vehicle.axle_loads(standing, z)

    assert front + rear == pytest.approx(standing.weight)


@given(standings, st.floats(0.01, 1.0))
def test_ideal_forces_use_both_axles_alike(standing: StaticVehicle, z: float) -> None:
    front, rear = vehicle.ideal_forces(standing, z)
    loads = vehicle.axle_loads(standing, z)

    if loads[1] > 1:
        assert front + rear == pytest.approx(z * standing.weight)
        road = front / (standing.front_grip * loads[0])
        assert rear / (standing.rear_grip * loads[1]) == pytest.approx(road)
        if standing.front_grip == standing.rear_grip == 1:
            assert road == pytest.approx(z)


@given(standings, st.floats(0, 20000), st.floats(0, 20000), st.floats(0.1, 1.3))
def test_no_more_is_achieved_than_brakes_and_road_give(
    standing: StaticVehicle, front: float, rear: float, surface: float
) -> None:
    found = vehicle.achieved(front, rear, standing, surface)
    grip = surface * max(standing.front_grip, standing.rear_grip)
    most = min((front + rear) / standing.weight, grip, float(standing.lifts))

    assert 0 <= float(found.deceleration) <= most + 1e-9
    if not found.front_locked and not found.rear_locked:
        assert float(found.deceleration) == pytest.approx((front + rear) / standing.weight)


@given(standings, st.floats(0.1, 1.0), st.floats(0, 20000), st.floats(0, 20000))
def test_what_both_axles_can_give_is_the_most(
    standing: StaticVehicle, surface: float, front: float, rear: float
) -> None:
    """No brakes get more out of a road; and with enough of both, the formula of the reference."""
    best = float(vehicle.attainable(standing, surface))
    apart = (standing.front_grip - standing.rear_grip) * standing.transfer
    still = standing.front_grip * standing.front_weight + standing.rear_grip * standing.rear_weight
    plain = surface * still / (standing.weight * (1 - surface * apart))

    if plain < standing.lifts:
        assert best == pytest.approx(plain)
    assert float(vehicle.achieved(front, rear, standing, surface).deceleration) <= best + 1e-9
    with_all = vehicle.achieved(1e6, 1e6, standing, surface)
    assert float(with_all.deceleration) == pytest.approx(min(best, float(standing.lifts)))


def slid_on(
    front: float, rear: float, standing: StaticVehicle, surface: float, kept: float
) -> vehicle.Achieved:
    """What a foot from rest comes to with these forces, the front locking before the rear."""
    found = vehicle.states(front, rear, standing, surface, kept)
    held = vehicle.grip(standing, found.rolling, surface)
    path = vehicle.Path(np.asarray(front >= held[0]), np.asarray(False))
    return vehicle.followed(found, [(front, rear)] * 4, standing, surface, kept, path)


@given(standings, st.floats(0.2, 1.0), st.floats(0.5, 1.0))
def test_a_locked_axle_keeps_its_share(
    standing: StaticVehicle, surface: float, kept: float
) -> None:
    """Front locked only, both locked: written out; what still rolls is not touched."""
    mu = kept * surface * standing.front_grip
    alone = slid_on(1e6, 0.0, standing, surface, kept)
    by_hand = mu * standing.front_weight / (standing.weight * (1 - mu * standing.transfer))
    if by_hand < standing.lifts:
        assert float(alone.deceleration) == pytest.approx(by_hand)
    soft = slid_on(100.0, 50.0, standing, surface, kept)
    assert float(soft.deceleration) == pytest.approx(150.0 / standing.weight)
    both = slid_on(1e6, 1e6, standing, surface, kept)
    least = min(float(vehicle.attainable(standing, kept * surface)), float(standing.lifts))
    assert float(both.deceleration) == pytest.approx(least)


def test_a_lifted_rear_ends_what_is_achieved() -> None:
    """Rear load times wheelbase over weight times height: 1000 / (4000 · 0.4) = 0.625 g."""
    standing = StaticVehicle(3000.0, 1000.0, 0.4)
    found = vehicle.achieved(3600.0, 500.0, standing, 1.0)

    assert found.rear_locked
    assert not found.front_locked
    assert float(found.deceleration) == pytest.approx(0.625)
    assert np.isnan(vehicle.adhesion(500.0, vehicle.axle_loads(standing, 1.0)[1]))


def test_downforce_is_load_not_mass() -> None:
    """½ ρ v² (C_L A): 1.225 kg/m³ and 30 m/s on 0.2 m² is 110.25 N."""
    press = float(vehicle.downforce(30.0, 0.2))
    still = StaticVehicle(3000.0, 3000.0, 0.2)
    pressed = still._replace(front_press=press, rear_press=press)

    assert press == pytest.approx(110.25)
    assert pressed.weight == still.weight
    assert float(vehicle.achieved(1e5, 1e5, pressed, 1.0).deceleration) == pytest.approx(
        (6000 + 2 * press) / 6000
    )


def test_a_corner_leaves_what_the_friction_circle_leaves() -> None:
    left = vehicle.braking_coefficient_in_a_corner(1.0, np.array([0.0, 0.6, 0.8, 1.1]))

    assert left[:3] == pytest.approx([1.0, 0.8, 0.6])
    assert np.isnan(left[3])


@given(standing=standings, mu=st.floats(0.1, 1.1), share=st.floats(0.0, 1.0))
def test_on_a_lock_line_an_axle_uses_just_the_surface(
    standing: StaticVehicle, mu: float, share: float
) -> None:
    weight = float(standing.weight)
    other = share * weight
    front = float(vehicle.front_lock_line(standing, mu, other))
    if np.isfinite(front):
        load = vehicle.axle_loads(standing, (front + other) / weight)[0]
        assert front == pytest.approx(mu * standing.front_grip * float(load))
    rear = float(vehicle.rear_lock_line(standing, mu, other))
    load = vehicle.axle_loads(standing, (rear + other) / weight)[1]
    own = mu * standing.rear_grip
    assert rear == pytest.approx(own * max(float(load), 0.0), abs=1e-6 * weight)
