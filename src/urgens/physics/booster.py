"""The booster: assist that follows the pushrod until it runs out."""

from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array, Floats


@dataclass(frozen=True)
class Assist:
    """Crack force [N], jump-in [N], gain [-] and assist limit [N]; the defaults pass force on."""

    crack_force: Floats = 0.0
    jump_in: Floats = 0.0
    gain: Floats = 1.0
    assist_limit: Floats = 0.0


def vacuum_assist_limit(diaphragm_diameters: Floats, vacuum: Floats) -> Array:
    """Return the largest assist [N] of a vacuum booster.

    diaphragm_diameters: effective diameters [m], one per diaphragm along the last axis.
    vacuum: depression below the air around [Pa], without that last axis.
    Source: force is pressure difference times area, diaphragms in series add.
    """
    area = np.sum(np.pi / 4.0 * np.square(diaphragm_diameters), axis=-1)
    return np.asarray(area * vacuum)


def output_force(
    pushrod: Floats,
    *,
    crack_force: Floats = 0.0,
    jump_in: Floats = 0.0,
    gain: Floats = 1.0,
    assist_limit: Floats = 0.0,
) -> Array:
    """Return the force on the master cylinder's piston [N].

    pushrod: force from the pedal [N].
    crack_force: pushrod force below which nothing comes out [N].
    jump_in: assist that is there as soon as it has cracked [N].
    gain: output over input slope before run-out, 1 or more [-].
    assist_limit: largest assist [N]; 0 is a booster lost.
    With the defaults there is no booster and the force passes unchanged.
    Source: Limpert, Brake Design and Safety, booster characteristic (from memory).
    """
    above = np.maximum(np.subtract(pushrod, crack_force), 0.0)
    assist = np.minimum(jump_in + (np.asarray(gain) - 1.0) * above, assist_limit)
    return np.asarray(np.where(above > 0.0, above + assist, 0.0))


def run_out(crack_force: Floats, jump_in: Floats, gain: Floats, assist_limit: Floats) -> Array:
    """Return the pushrod force [N] from which the assist no longer grows; inf with no gain.

    crack_force: pushrod force at which output starts [N].
    jump_in: assist there [N].
    gain: output over input slope before run-out [-].
    assist_limit: largest assist [N].
    Source: the booster relation of `output_force`, solved for its knee.
    """
    slope = np.asarray(gain, dtype=float) - 1.0
    rest = np.maximum(np.subtract(assist_limit, jump_in), 0.0)
    with np.errstate(divide="ignore", invalid="ignore"):
        over = np.where(rest > 0.0, rest / slope, 0.0)
    return np.asarray(crack_force + over)


def input_force(
    output: Floats,
    *,
    crack_force: Floats = 0.0,
    jump_in: Floats = 0.0,
    gain: Floats = 1.0,
    assist_limit: Floats = 0.0,
) -> Array:
    """Return the smallest pushrod force [N] that gives at least an output.

    output: force wanted on the master cylinder's piston, above zero [N].
    crack_force: pushrod force below which nothing comes out [N].
    jump_in: assist that is there as soon as it has cracked [N].
    gain: output over input slope before run-out, 1 or more [-].
    assist_limit: largest assist [N]; 0 is a booster lost.
    An output inside the jump is reached at the crack force.
    Source: the relation of `output_force`, the lower of two rising lines, solved for its input.
    """
    with_assist = np.subtract(output, jump_in) / np.asarray(gain, dtype=float)
    run_out_passed = np.subtract(output, assist_limit)
    return np.asarray(crack_force + np.maximum(np.maximum(with_assist, run_out_passed), 0.0))
