"""What has been proved, logs and drives as the JSON objects the command line prints."""

from datetime import datetime
from typing import Any

import numpy as np

from urgens.bench.logs.channels import Mapped
from urgens.bench.logs.compare import Along, BeforeAfter, BesideModel
from urgens.bench.logs.faults import LogFault
from urgens.bench.logs.presses import Press
from urgens.bench.proof_state import Gauged, NextOnRoad, brakes, gauged, on_road
from urgens.bench.road.drives import Drive
from urgens.bench.stops.posterior import Posterior, posterior, summed_up
from urgens.document import Build
from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.proofs import standing_proofs
from urgens.guidance.rules.real_split import compared
from urgens.guidance.words.figures import FigureWords
from urgens.printed.values import figure, figures
from urgens.quantity import UnitSystem
from urgens.solve import solve


def printed_proof(build: Build) -> dict[str, Any]:
    """Return what has been proved of a build, SI throughout, null where there is no figure.

    Source: RFC 8259; the names are those of the results.
    """
    read = gauged(build)
    known = brakes(build)
    ahead = on_road(build, posterior(build, ()) if known is None else known, now=datetime.now())
    return {
        "proofs": [
            {"name": one.name, "state": one.state, "why": one.why} for one in standing_proofs(build)
        ],
        "condition": _condition(build),
        "valves": [_valve(one) for one in read],
        "brakes": None if known is None or not known.counted else _brakes(build, known),
        "next_stop": None if ahead is None else _next(ahead),
        "split": _split(build),
    }


def _condition(build: Build) -> dict[str, Any]:
    """Return the vehicle as it stands now."""
    found = condition(build)
    return {
        "wheels": found.standing.wheels,
        "holds": [
            {
                "code": one.code,
                "words": one.words,
                "since": None if one.since is None else one.since.isoformat(timespec="minutes"),
                "place": one.place,
                "ends_by": one.ends_by,
            }
            for one in found.holds
        ],
        "may_move": found.may_move,
        "runs": [
            {"procedure": one.procedure, "outcome": one.outcome, "answered": one.answered,
             "asked": one.asked}
            for one in found.standing.runs
        ],
    }  # fmt: skip


def _valve(gauged: Gauged) -> dict[str, Any]:
    read = gauged.read
    fit = None if read is None or not read.knows_line else read.fitted
    offset = None if read is None or read.fitted is None else read.fitted.offset
    metered = None if read is None else read.metered
    return {
        "valve": gauged.valve,
        "verdict": None if read is None else str(read.verdict),
        "knee": None if fit is None else fit.knee,
        "knee_limits": None if fit is None else list(fit.knee_limits),
        "slope": None if fit is None else fit.slope,
        "slope_limits": None if fit is None else list(fit.slope_limits),
        "offset": offset,
        "hysteresis": None if read is None else read.hysteresis,
        "opens": None if metered is None else list(metered.at),
        "opens_limits": None if metered is None else [list(pair) for pair in metered.limits],
        "expected": {"knee": gauged.wanted.knee, "slope": gauged.wanted.slope},
        "within": None if read is None else read.within,
        "read_next": gauged.next,
    }


def _brakes(build: Build, posterior: Posterior) -> dict[str, Any]:
    (front, front_limits), (rear, rear_limits) = posterior.of_front, posterior.of_rear
    target = build.targets.surface
    nearest = min(posterior.roads, key=lambda mu: abs(mu - target))
    road, road_limits = summed_up(*posterior.roads[nearest])
    return {
        "front_factor": front,
        "front_limits": list(front_limits),
        "rear_factor": rear,
        "rear_limits": list(rear_limits),
        "surface": road,
        "surface_limits": list(road_limits),
        "stops": posterior.counted,
        "left_out": list(posterior.left_out),
    }


def _next(ahead: NextOnRoad) -> dict[str, Any]:
    from urgens.bench.sentences import advice_words

    advice = ahead.advice
    setting = advice.turned.typed(advice.setting)
    return {
        "setting": {advice.turned.path: setting},
        "why": advice_words(advice, FigureWords(UnitSystem.METRIC)),
        "rear_first": advice.chance,
        "wet": advice.wet,
        "done": advice.done,
        "stops_left": ahead.left,
        "held_by": list(ahead.held),
    }


def _split(build: Build) -> dict[str, Any] | None:
    found, computed = compared(solve(build))
    told = [one for one in found if not isinstance(one, str)]
    if not told:
        return None
    first = told[0]
    return {
        "rear_share": first.rear_share,
        "limits": list(first.limits),
        "source": first.source,
        "computed": computed.rear_share,
        "computed_spread": computed.spread,
    }


def printed_log(
    channels: dict[str, Mapped],
    faults: tuple[LogFault, ...],
    press: tuple[Press, ...],
    beside: BeforeAfter | None,
    model: tuple[BesideModel, ...] = (),
) -> dict[str, Any]:
    """Return what a log says, SI throughout, null where there is no figure.

    channels: by name; faults: of the log; press: its presses; beside:
    the other log; model: its figures beside the build's.
    Source: RFC 8259; the names are those of the results.
    """
    return {
        "channels": {
            name: {"column": one.column, "unit": one.unit} for name, one in channels.items()
        },
        "faults": [{"at": one.at, "what": one.what} for one in faults],
        "presses": [_press(one) for one in press],
        "before_after": None if beside is None else _beside(beside),
        "model": [
            {
                "figure": one.figure,
                "logged": one.logged,
                "model": one.model,
                "spread": one.spread,
                "differs": one.differs,
            }
            for one in model
        ],
    }


def _press(press: Press) -> dict[str, Any]:
    return {
        "start": press.start,
        "end": press.end,
        "front_peak": press.front_peak,
        "rear_peak": press.rear_peak,
        "effort": press.effort,
        "travel": press.travel,
        "rise": press.rise,
        "rear_delay": press.rear_delay,
        "knee": press.knee,
        "slope": press.slope,
        "knee_limits": _limits(press, "knee_limits"),
        "slope_limits": _limits(press, "slope_limits"),
        "too_quick": press.quick,
        "deceleration": press.deceleration,
        "locked": [{"axle": axle, "at": at} for axle, at in press.locked],
    }


def _limits(press: Press, of: str) -> list[float] | None:
    """Return the limits of a bend that shows, None where none does."""
    return list(getattr(press.fit, of)) if press.knee is not None else None


BY = {"foot": "effort", "front_pressure": "front-pressure", "peak": "peak"}


def _beside(after: BeforeAfter) -> dict[str, Any]:
    if after.why_not:
        return {"why_not": after.why_not}

    def rows(of: Along) -> list[Any]:
        return figures(np.asarray(of.quartiles))

    return {
        "by": BY[after.before.by],
        "of": after.what.replace("_", "-"),
        "at": figures(after.before.at),
        "before": rows(after.before),
        "after": rows(after.after),
        "apart": after.apart,
        "clear": after.clear,
    }


def printed_drive(went: Drive) -> dict[str, Any]:
    """Return a stop on the test road as plain JSON values; went: the stop.

    Source: RFC 8259; the names are those of the results.
    """
    return {
        "distance": figure(went.distance),
        "mean_deceleration": went.mean_deceleration,
        "locked": [{"axle": str(axle), "at": at} for axle, at in went.locked],
        "heading": went.turned,
        "energy_error": went.energy_error,
    }
