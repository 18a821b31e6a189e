"""The command line of what is measured: proofs, logs, the test road, the gauge box."""

import argparse
import signal
import time
from typing import Any

import numpy as np

from urgens.bench.logs.channels import Mapped
from urgens.bench.logs.compare import BeforeAfter, BesideModel, before_after, beside_model
from urgens.bench.logs.faults import LogFault
from urgens.bench.logs.presses import Press
from urgens.bench.logs.read import read_through
from urgens.cli.exits import DONE
from urgens.cli.printing import loaded, print_json
from urgens.document import BuildErrors, load
from urgens.guidance.condition.holds import condition
from urgens.printed.proving import printed_drive, printed_log, printed_proof


def _prove(options: argparse.Namespace) -> int:
    build = loaded(options)
    found = printed_proof(build)
    if options.json:
        print_json(found)
        return DONE
    for place in condition(build).standing.future:
        print(f"not yet by this machine's clock, so it proves nothing: {place}")
    for hold in found["condition"]["holds"]:
        print(f"holds  {hold['words']}; ends by: {hold['ends_by']}")
    for one in found["proofs"]:
        if one["state"] != "not-needed":
            print(f"{one['state']}  {one['name']}  {one['why']}")
    for one in found["valves"]:
        print(f"{one['verdict'] or 'not read'}  valves.{one['valve']}")
    ahead = found["next_stop"]
    if ahead is None:
        print("nothing to set between two stops: no adjustable valve, no bar")
        return DONE
    setting = ", ".join(f"{path} = {value}" for path, value in ahead["setting"].items())
    for reason in ahead["held_by"]:
        print(f"not yet  {reason}")
    settled = "found" if ahead["held_by"] else "done"
    print(f"{settled if ahead['done'] else 'next'}  {setting}  {ahead['why']}")
    return DONE


def _log(options: argparse.Namespace) -> int:
    told = {name: Mapped(column, unit) for name, column, unit in options.channel}
    found = read_through(options.file, told)
    asked = [LogFault(None, f"{name}: {said}") for name, said in found.questions.items()]
    faults = (*asked, *found.faults)
    beside = None
    if options.against is not None:
        other = read_through(options.against, told)
        beside = before_after((other.signals, other.presses), (found.signals, found.presses))
    if options.output is not None:
        from urgens.bench.logs.write import write_csv, written_anew

        above = written_anew(found.file, options.file.name)
        write_csv(options.output, found.signals, above)
    model: tuple[BesideModel, ...] = ()
    if options.build is not None:
        model = beside_model(load(options.build), 0, found.presses)
    if options.json:
        print_json(printed_log(dict(found.channels), faults, found.presses, beside, model))
        return DONE
    if found.file.simulated:
        print("simulated: it says nothing of the vehicle")
    for name, one in found.channels.items():
        print(f"{name}: “{one.column}” in {one.unit}")
    for fault in faults:
        place = "" if fault.at is None else f"at {fault.at:.2f} s: "
        print(f"look: {place}{fault.what}")
    for number, press in enumerate(found.presses, start=1):
        print(f"press {number}: {_press_words(press)}")
    for row in model:
        differs = "differs by more than both spreads" if row.differs else "as in the build"
        logged, computed = (_figure_words(row.figure, one) for one in (row.logged, row.model))
        print(f"{row.figure}: {logged} logged, {computed} computed: {differs}")
    if beside is not None:
        print(_beside_words(beside))
    return DONE


def _beside_words(beside: BeforeAfter) -> str:
    """Return how two logs stand beside each other, or why that cannot be said."""
    if beside.why_not or beside.apart is None:
        return f"not compared: {beside.why_not}"
    clear = "clear of both spreads" if beside.clear else "within the spreads"
    what, by = beside.what.replace("_", " "), beside.before.by.replace("_", " ")
    at = "peak by peak" if by == "peak" else f"at equal {by}"
    return f"{what} now {beside.apart / 1e5:+.1f} bar {at}: {clear}"


def _figure_words(figure: str, value: float) -> str:
    """Return a figure of a log with its unit; a slope has none."""
    return f"{value:.2f}" if figure == "slope" else f"{value / 1e5:.1f} bar"


def _press_words(press: Press) -> str:
    words = [f"{press.start:.2f} to {press.end:.2f} s"]
    for name, value in (("front", press.front_peak), ("rear", press.rear_peak)):
        if value is not None:
            words.append(f"{name} {value / 1e5:.1f} bar")
    if press.quick:
        words.append("too quick to tell its knee")
    if press.fit is not None and press.fit.bends:
        slope = np.ptp(press.fit.slope_limits) / 2.0
        words.append(f"knee {press.fit.knee / 1e5:.1f} ± {press.fit.knee_off / 1e5:.1f} bar")
        words.append(f"slope {press.fit.slope:.2f} ± {slope:.2f}")
    if press.rear_delay is not None:
        words.append(f"rear {press.rear_delay * 1e3:.0f} ms later")
    if press.deceleration is not None:
        words.append(f"{press.deceleration:.2f} g")
    words += [f"{axle} locked at {at:.2f} s" for axle, at in press.locked]
    return ", ".join(words)


def _drive(options: argparse.Namespace) -> int:
    from urgens.bench.plant.plant import plant
    from urgens.bench.road.drives import drives, foot_to_lock, trial
    from urgens.bench.road.torque import hold

    build = loaded(options)
    vehicle = plant(build, options.seed)
    case = 0 if options.load_case is None else vehicle.case_index(options.load_case)
    surface = build.targets.surface if options.surface is None else options.surface
    if options.speed <= 1.0:
        raise BuildErrors.one("--speed", "is no speed to stop from", "write 10 km/h or more")
    foot = hold(0.0 if options.effort is None else options.effort)
    made = trial(build, vehicle.system, case, surface, options.speed, foot)
    if options.to_lock:
        made = made._replace(foot=foot_to_lock(made))
    [went] = drives([made])
    if options.output is not None:
        from urgens.bench.logs.write import sensed, write_csv

        write_csv(options.output, sensed(went, options.seed or 1), (f"simulated, {build.name}",))
    print_json(printed_drive(went))
    return DONE


def _device(options: argparse.Namespace) -> int:
    from urgens.bench.gauges.simulated_box import Box, SimulatedBox, cycling
    from urgens.bench.plant.plant import plant
    from urgens.bench.plant.valve_faults import cause
    from urgens.studies.expected_pressures import expected, gauged_valves

    build = loaded(options)
    fault = None if options.fault is None else cause(options.fault)
    valves = gauged_valves(build)
    valve = options.valve or (valves[-1] if valves else None)
    if valve is not None:
        if valve not in valves:
            known = ", ".join(valves) or "none"
            raise BuildErrors.one("--valve", f'"{valve}" cannot be gauged', f"choose of: {known}")
        expected(build, valve)
    vehicle = plant(build, options.seed, fault)
    most = float(np.asarray(vehicle.system.max_effort))
    box = SimulatedBox(Box(vehicle, valve, options.seed), cycling(most))
    signal.signal(signal.SIGINT, signal.default_int_handler)  # a shell ignores it behind an &
    try:
        print(box.port, flush=True)  # in here: whoever reads it may interrupt at once
        while True:
            time.sleep(1.0)
    except KeyboardInterrupt:
        return DONE
    finally:
        box.close()


RUN: dict[str, Any] = {"prove": _prove, "log": _log, "drive": _drive, "device": _device}
