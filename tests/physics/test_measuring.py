"""What is computed from tape and scales: raised axle, loads added, friction codes."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from urgens.physics import loading, raised_axle
from urgens.physics.friction_code import friction_range


def gained_load(
    weight: float, wheelbase: float, radius: float, rear: float, high: float, lift: float
) -> float:
    """The load the rear axle gains with the front raised, by rotating a rigid body.

    Hub to hub is the wheelbase; the rear hub stays where it is; scipy's rotation moves the rest.
    """
    hubs = np.array([-wheelbase, 0.0, 0.0])  # the front hub, seen from the rear one
    center = np.array([-wheelbase * (1.0 - rear / weight), 0.0, high - radius])
    turn = Rotation.from_euler("y", np.arcsin(lift / wheelbase))
    front_hub, moved = turn.apply(hubs), turn.apply(center)
    assert front_hub[2] == pytest.approx(lift)
    # Moments about the rear contact: the front's share of the weight is by level distances.
    on_front = weight * moved[0] / front_hub[0]
    return (weight - on_front) - rear


vehicles = {
    "weight": st.floats(5e3, 3e4),
    "wheelbase": st.floats(1.8, 4.0),
    "radius": st.floats(0.25, 0.45),
    "share": st.floats(0.35, 0.65),
    "high": st.floats(0.46, 1.2),
    "tilt": st.floats(0.05, 0.4),
}


@given(**vehicles)
def test_the_raised_axle_formula_is_a_rigid_body(
    weight: float, wheelbase: float, radius: float, share: float, high: float, tilt: float
) -> None:
    lift = tilt * wheelbase
    gained = gained_load(weight, wheelbase, radius, share * weight, high, lift)

    assert raised_axle.height(weight, wheelbase, radius, gained, lift) == pytest.approx(high)


def test_several_liftings_of_one_vehicle_agree() -> None:
    lifts = np.array([0.2, 0.4, 0.6])
    gained = np.array([gained_load(12e3, 2.6, 0.3, 5e3, 0.55, lift) for lift in lifts])

    assert raised_axle.fitted_height(12e3, 2.6, 0.3, gained, lifts) == pytest.approx(0.55)


def test_the_error_bar_is_that_of_a_monte_carlo_run() -> None:
    """Readings drawn around the truth scatter as the first-order formula says, within 5 %."""
    weight, wheelbase, radius, high, lift = 12e3, 2.6, 0.3, 0.55, 0.5
    scale, tape = 20.0, 0.005
    rng = np.random.default_rng(7)
    gained = gained_load(weight, wheelbase, radius, 5e3, high, lift)
    read = gained + rng.normal(0, scale, 200_000) - rng.normal(0, scale, 200_000)
    lifted = lift + rng.normal(0, tape, 200_000)
    drawn = raised_axle.height(weight, wheelbase, radius, read, lifted)
    said = raised_axle.height_error(weight, wheelbase, high - radius, lift, scale, tape)

    assert said == pytest.approx(drawn.std(), rel=0.05)


def test_a_higher_lift_is_more_exact_and_the_least_is_found() -> None:
    figures = (12e3, 2.6, 0.25)
    lifts = np.linspace(0.05, 1.0, 50)
    errors = raised_axle.height_error(*figures, lifts, 20.0, 0.003)
    assert (np.diff(errors) < 0).all()
    wanted = 0.0254
    least = raised_axle.least_lift(*figures, 20.0, 0.003, wanted)

    assert raised_axle.height_error(*figures, least, 20.0, 0.003) <= wanted
    assert raised_axle.height_error(*figures, least - 0.01, 20.0, 0.003) > wanted
    assert np.isnan(raised_axle.least_lift(*figures, 2000.0, 0.003, 0.001))


@given(
    st.floats(1e3, 1e4), st.floats(1e3, 1e4), st.lists(st.floats(0, 2e3), min_size=1, max_size=4)
)
def test_items_add_up_and_balance(front: float, rear: float, weights: list[float]) -> None:
    """Forces and moments about any point: here the rear axle, which the code does not use."""
    wheelbase = 2.5
    at = np.linspace(-0.3, 2.8, len(weights))
    new_front, new_rear, high = loading.with_items(
        front, rear, 0.6, wheelbase, np.array(weights), at, np.full(len(weights), 0.6)
    )

    assert new_front + new_rear == pytest.approx(front + rear + sum(weights))
    about_rear = front * wheelbase + sum(
        w * (wheelbase - x) for w, x in zip(weights, at, strict=True)
    )
    assert new_front * wheelbase == pytest.approx(about_rear)
    assert high == pytest.approx(0.6)


@pytest.mark.parametrize(
    ("code", "low", "high"),
    [
        ("C", 0.0, 0.15),
        ("D", 0.15, 0.25),
        ("E", 0.25, 0.35),
        ("F", 0.35, 0.45),
        ("G", 0.45, 0.55),
        ("H", 0.55, float("inf")),
        ("fe", 0.25, 0.45),
        ("GG", 0.45, 0.55),
    ],
)
def test_friction_codes(code: str, low: float, high: float) -> None:
    """SAE J866 (from memory)."""
    assert friction_range(code) == (low, high)


@pytest.mark.parametrize("code", ["", "A", "FFF", "0.4", "F1"])
def test_what_is_no_friction_code(code: str) -> None:
    with pytest.raises(ValueError, match=f"^{code}$"):
        friction_range(code)
