"""All that has been proved of a build, and what comes next."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from urgens.bench.stops.adjusters import Adjuster
from urgens.bench.stops.next_setting import NextStop, next_stop
from urgens.bench.stops.posterior import Posterior, posterior
from urgens.bench.stops.simulated_stops import stops_left
from urgens.document import Build, edited
from urgens.document.heat import Heat
from urgens.document.ledger.proof import GaugeRun, MeasuredStop, Proof
from urgens.guidance import Severity, findings
from urgens.guidance.condition.proofs import held_from_moving
from urgens.physics.axle import Axle
from urgens.quantity import PRESSURE, Units, in_units
from urgens.solve import solve
from urgens.studies.expected_pressures import (
    Expected,
    expected,
    gauged_valves,
    schedule,
    usual_scale,
)
from urgens.studies.valve_verdict import ValveRead, read_next, read_valve

STANDING_COOLING = 900.0  # s in which iron at rest loses 63 % of its excess: assumed
SET_BY_STOPS = ("rear-locks-first",)  # dangers that the stops themselves are there to settle


@dataclass(frozen=True)
class Gauged:
    """One valve of the build: its place, what it is to show, what was read last and what it says.

    `next` is the inlet pressure to read at next [Pa].
    """

    valve: str
    wanted: Expected
    run: GaugeRun | None
    index: int | None
    read: ValveRead | None
    next: float | None


@dataclass(frozen=True)
class NextOnRoad:
    """The next stop, what holds it back, in words, and how many are likely left."""

    advice: NextStop
    held: tuple[str, ...]
    left: int | None


def gauged(build: Build) -> tuple[Gauged, ...]:
    """Return what gauges say of each valve that they can read."""
    return tuple(gauged_valve(build, valve) for valve in gauged_valves(build))


def gauged_valve(build: Build, valve: str) -> Gauged:
    """Return what gauges say of one valve; valve: its place [text].

    Its last readings that count, of a valve of the same kind.
    """
    wanted = expected(build, valve)
    axle, place = Axle(valve.partition("[")[0]), int(valve.partition("[")[2][:-1])
    kind = (build.valves.front if axle == Axle.FRONT else build.valves.rear)[place].kind
    runs = () if build.proof is None else build.proof.gauges
    own = [
        index
        for index, one in enumerate(runs)
        if one.valve == valve and one.counts and one.kind in ("", kind)
    ]
    unit = in_units(PRESSURE, Units(build.natural_units))
    if not own:
        at = schedule(wanted, usual_scale(unit), unit)
        return Gauged(valve, wanted, None, None, None, float(at[0]) if at.size else None)
    run = runs[own[-1]]
    read = read_valve(run, wanted)
    at = schedule(wanted, run.full_scale.value, unit)
    return Gauged(valve, wanted, run, own[-1], read, read_next(run, read, at))


def stops_of(build: Build) -> tuple[MeasuredStop, ...]:
    """Return the stops on record, in the order they were made."""
    stops = () if build.proof is None else build.proof.stops
    return tuple(sorted(stops, key=lambda stop: stop.at))


def brakes(build: Build) -> Posterior | None:
    """Return what the stops on record say of the brakes, None where there are none."""
    stops = stops_of(build)
    return posterior(build, stops) if stops else None


def on_road(
    build: Build,
    posterior: Posterior,
    ahead: bool = True,
    now: datetime | None = None,
    goes_on: Callable[[], bool] | None = None,
) -> NextOnRoad | None:
    """Return what to do next on the road, None where nothing can be set.

    posterior: of the brakes; ahead: whether to look how many stops
    are left [-]; now: the time, None straight after the last stop; goes_on: asked now and
    then whether to go on [callable].
    """
    stops = stops_of(build)
    advice = next_stop(build, stops, posterior)
    if advice is None:
        return None
    left = stops_left(build, stops, posterior, goes_on=goes_on) if ahead and not advice.done else 0
    held = holding(build, advice.turned, advice.setting, now)
    if advice.done:  # whoever went on without the proofs is not done without them
        held = tuple(dict.fromkeys((*held, *held_from_moving(build))))
    if advice.risky:
        held = (*held, "no setting has the front first often enough")
    return NextOnRoad(advice, held, left if ahead or advice.done else None)


def holding(
    build: Build, turned: Adjuster | None, setting: float, now: datetime | None = None
) -> tuple[str, ...]:
    """Return why no stop is to be made yet, each in words.

    turned: what is turned; setting: that is to be tried [SI]; now:
    the time, None straight after the last stop.

    Open proofs, joints and items; dangers that stand at that setting; hot brakes.
    """
    stops = stops_of(build)
    waived = bool(stops) and any(stop.moved_without_proof for stop in stops)
    held = [] if waived else list(held_from_moving(build))
    tried = build
    if turned is not None:
        tried = edited(build, turned.path, turned.typed(setting))
    for finding in findings(solve(tried)):
        if finding.severity is Severity.DANGER and finding.code not in SET_BY_STOPS:
            held.append(finding.message)
    hot = hottest(build, now)
    if hot is not None:
        held.append(hot)
    return tuple(held)


def hottest(build: Build, now: datetime | None = None) -> str | None:
    """Return what to wait for after the last stop, None where the brakes are cool, or not read.

    now: the time, None straight after the stop.
    Source: Newton cooling at rest, its time assumed.
    """
    stops = stops_of(build)
    if not stops:
        return None
    proof, last = build.proof or Proof(), stops[-1]
    limit = proof.cool_below.value
    read = [
        (axle, one.value)
        for axle, one in (("front", last.front_temperature), ("rear", last.rear_temperature))
        if one is not None and one.value > limit
    ]
    if not read:
        return None
    axle, most = max(read, key=lambda one: one[1])
    wait = cooling_wait(build, most)
    gone = 0.0 if now is None else (now - last.at).total_seconds()
    if gone >= wait:
        return None
    minutes = math.ceil((wait - gone) / 60.0)
    return (
        f"the {axle} brakes were above {proof.cool_below.text} after the last stop: about "
        f"{minutes} min more to cool (assumed)"
    )


def cooling_wait(build: Build, temperature: float) -> float:
    """Return how long brakes cool down to the limit at rest [s]; inf where the air is warmer.

    temperature: of the iron [K].
    Source: Newton cooling of a lump; its time at rest is assumed.
    """
    air = (build.heat or Heat()).air.value
    limit = (build.proof or Proof()).cool_below.value
    if limit <= air:
        return math.inf
    return STANDING_COOLING * math.log(max((temperature - air) / (limit - air), 1.0))
