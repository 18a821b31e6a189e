"""The balance bar as Balance changes it: by turns of its adjuster, by steps, or to a place."""

from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.quantity import LENGTH, UnitSystem, parse, places, retype
from urgens.ui.session import Session

STEP = {UnitSystem.INCH: parse("0.02 in", LENGTH).value, UnitSystem.METRIC: 0.0005}  # m
MOST = 0.495  # of the bar's length from its middle


def bar(session: Session) -> TwinMaster | None:
    """Return the cylinders on a bar, None where there is no bar."""
    master = session.build.master
    return master if isinstance(master, TwinMaster) else None


def smallest_step(session: Session, master: TwinMaster) -> float:
    """Return one step [m]: a turn of the adjuster, else what can be read off a rule."""
    pitch = master.bar_thread_pitch
    return STEP[session.units.system] if pitch is None else pitch.value


def set_bar(session: Session, master: TwinMaster, offset: float) -> None:
    """Move the bearing to `offset` [m] from the middle, towards the front; raises BuildErrors."""
    units = session.units
    limit = master.bar_length.value * MOST
    fine = places(LENGTH, units) + (master.bar_thread_pitch is not None)  # finer than a rule
    typed = retype(min(max(offset, -limit), limit), LENGTH, units, fine)
    if typed != master.bar_offset.text:
        session.plan("master.bar_offset", typed, f"Bar {typed}")


def step_bar(session: Session, master: TwinMaster, steps: int) -> None:
    """Move the bearing by turns, or by natural steps; raises BuildErrors."""
    set_bar(session, master, master.bar_offset.value + steps * smallest_step(session, master))


def drag_bar(session: Session, master: TwinMaster, offset: float) -> None:
    """Move the bearing to the nearest quarter turn, or part of a step; raises BuildErrors."""
    grid = smallest_step(session, master) / 4
    set_bar(session, master, round(offset / grid) * grid)
