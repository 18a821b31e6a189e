"""The vehicle as it stands: wheels, proofs, what holds it, and whether it may move."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from urgens.document import Build
from urgens.document.edits.edit import same_figures
from urgens.document.ledger.proof import GaugeRun
from urgens.document.ledger.records import ProcedureRun
from urgens.guidance.condition.deeds import asking, deeds, in_the_future, shown, steps_of
from urgens.guidance.condition.fold import Fold, folded
from urgens.guidance.condition.limits import Limits, limits_of
from urgens.guidance.procedures import procedure
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.proving import PROOFS
from urgens.guidance.procedures.records import records
from urgens.studies.expected_pressures import expected
from urgens.studies.lever_verdict import LeverVerdict, read_lever
from urgens.studies.valve_verdict import ValveRead, ValveVerdict, read_valve

State = Literal["open", "begun", "failed", "done", "lapsed", "not-needed"]
UNTOLD = (ValveVerdict.TOO_FEW, ValveVerdict.GAUGES_DIFFER)
GAUGED = {"gauge-valve": "rear", "metering-test": "front", "load-sensing-test": "rear"}


@dataclass(frozen=True)
class StandingProof:
    """One proof that is made standing: its name, its state, why it is so, and when it was made."""

    name: str
    state: State
    why: str
    at: datetime | None = None


@dataclass(frozen=True)
class RunOutcome:
    """One run: how far it is, and how much of what it asks was answered."""

    procedure: str
    outcome: Literal["going-on", "finished", "given-up"]
    answered: int
    asked: int
    step: int

    @property
    def words(self) -> str:
        """What is to be said of it, empty where it went to its end and all was answered."""
        if self.outcome == "going-on":
            return f"at step {self.step}, not ended"
        left = f"{self.answered} of {self.asked} answered"
        if self.outcome == "given-up":
            return f"given up at step {self.step}, {left}"
        return left if self.answered < self.asked else ""


@dataclass(frozen=True)
class Standing:
    """What the fold of everything that happened comes to, without what holds the vehicle."""

    build: Build
    at: datetime
    fold: Fold
    proofs: tuple[StandingProof, ...]
    runs: tuple[RunOutcome, ...]
    future: tuple[str, ...]
    limits: Limits

    @property
    def wheels(self) -> dict[str, str]:
        """The state of each wheel's fluid."""
        return {wheel: one.state for wheel, one in self.fold.wheels.items()}


def standing(build: Build, at: datetime) -> Standing:
    """Return how a vehicle stands at a time; what is dated later proves nothing.

    Source: common practice: what was earned falls when its ground goes.
    """
    fold, limits = folded(build, deeds(build, at)), limits_of(build)
    return Standing(
        build, at, fold, _proofs(build, fold, limits, at),
        tuple(_outcomes(build)),
        in_the_future(build, at), limits,
    )  # fmt: skip


_told: dict[int, tuple[ProcedureRun, RunOutcome]] = {}  # of runs that were looked at before


def _outcomes(build: Build) -> Iterator[RunOutcome]:
    """Yield how each run ended; one that tells its steps is looked at once, while it is kept."""
    global _told
    known, _told = _told, {}
    for run in build.records:
        kept = known.get(id(run))
        if kept is None or kept[0] is not run or not run.steps:
            kept = run, outcome_of(build, run)
        _told[id(run)] = kept
        yield kept[1]


def outcome_of(build: Build, run: ProcedureRun) -> RunOutcome:
    """Return how a run of a build ended, and how much of what it asks was answered."""
    asks = asking(run.procedure, steps_of(build, run))
    answered = {(one.step, one.field) for one in run.entries}
    got = sum((number, ask.field) in answered for number, ask in asks.items())
    how: Literal["going-on", "finished", "given-up"] = "finished"
    if run.ended is None:
        how = "going-on"
    elif run.outcome == "given-up" or run.note == f"left at step {run.step}":
        how = "given-up"
    return RunOutcome(run.procedure, how, got, len(asks), run.step)


def _proofs(build: Build, fold: Fold, limits: Limits, at: datetime) -> tuple[StandingProof, ...]:
    facts, found = Facts(build), []
    for name in PROOFS:
        refused = records()[name].refusal(facts)
        if refused is not None:
            found.append(StandingProof(name, "not-needed", refused))
            continue
        by_gauges = _gauged(build, name, fold, at)
        if by_gauges is not None and (name == "gauge-valve" or by_gauges.state == "failed"):
            found.append(by_gauges)
        else:
            found.append(_answered(build, name, fold, limits))
    return tuple(found)


def _answered(build: Build, name: str, fold: Fold, limits: Limits) -> StandingProof:
    """Return the state of a proof by the answers to its own steps since its last lapse."""
    asked = set(enumerate(fold.asked.get(name) or _fields(build, name), start=1))
    own = {key: deed for key, deed in fold.answers.items() if key[0] == name and key[1:] in asked}
    lapse, passed = fold.lapses.get(name), fold.passed.get(name, set())
    given = {(ordinal, field) for _, ordinal, field in own}
    if not own and not passed:
        if lapse is None:
            return StandingProof(name, "open", "not on record")
        return StandingProof(name, "lapsed", lapse.why, lapse.at)
    last = max((deed.at for deed in own.values() if deed.at is not None), default=None)
    for deed in own.values():
        wrong = limits.wrong(deed)
        if wrong is not None:
            return StandingProof(name, "failed", f"{deed.field} read: {wrong}", last)
    left = len(asked - given)
    if name == "gauge-valve" and not left:
        return StandingProof(name, "begun", "answered, and no gauges are on record", last)
    if left or passed:
        told = f"{len(asked & given)} of {len(asked)} answered"
        return StandingProof(name, "begun", told, last)
    return StandingProof(name, "done", f"{last:%Y-%m-%d}" if last else "undated", last)


def _fields(build: Build, name: str) -> tuple[str, ...]:
    """Return what a proof asks as it is made now, where no run of it says what it was shown."""
    wanted = asking(name, shown(procedure(build, name).steps))
    return tuple(ask.field for ask in wanted.values())


def _gauged(build: Build, name: str, fold: Fold, at: datetime) -> StandingProof | None:
    """Return what gauges say of the valves that a proof is about, None where none were read.

    Readings of a stand-in are none; those before the ground went do not count.
    """
    axle, lapse = GAUGED.get(name), fold.lapses.get(name)
    if axle is None:
        return None
    since = lapse.at if lapse is not None else None
    states = [
        _valve(build, f"{axle}[{index}]", valve.kind, name, at, since)
        for index, valve in enumerate(build.valves.rear if axle == "rear" else build.valves.front)
        if valve.reduces or valve.holds_front_back
    ]
    told = [one for one in states if one is not None]
    if not told:
        return None
    for state in ("failed", "begun"):
        bad = next((one for one in told if one.state == state), None)
        if bad is not None:
            return bad
    if len(told) < len(states):
        return StandingProof(name, "begun", f"{len(told)} of {len(states)} valves read")
    return told[-1]


def _valve(
    build: Build, place: str, kind: str, name: str, at: datetime, since: datetime | None
) -> StandingProof | None:
    runs = [
        run
        for run in (() if build.proof is None else build.proof.gauges)
        if run.valve == place and run.counts and run.source != "simulated"
        and run.kind in ("", kind) and run.at <= at and (since is None or run.at > since)
    ]  # fmt: skip
    if name == "load-sensing-test":
        runs = [run for run in runs if run.lever]
    if not runs:
        return None
    run = max(runs, key=lambda one: one.at)
    if name == "load-sensing-test":
        return _lever(build, place, name, run)
    read = _read(build, place, run)
    day = f"read with gauges, {run.at:%Y-%m-%d}"
    if read.verdict in UNTOLD:
        return StandingProof(name, "begun", f"{day}: {read.verdict}", run.at)
    right = (ValveVerdict.METERS,) if name == "metering-test" else (
        ValveVerdict.REDUCES, ValveVerdict.LIMITS
    )  # fmt: skip
    if read.verdict not in right:
        return StandingProof(name, "failed", f"the gauges say: {read.verdict}", run.at)
    if not read.within and name == "gauge-valve":
        said = "the gauges say: another knee or slope than the build's"
        return StandingProof(name, "failed", said, run.at)
    return StandingProof(name, "done", day, run.at)


_gauges: tuple[Build, dict[tuple[int, str], tuple[GaugeRun, ValveRead]]] | None = None


def _read(build: Build, place: str, run: GaugeRun) -> ValveRead:
    """Return what gauges say of a valve, read once as long as figures and readings are the same."""
    global _gauges
    if _gauges is None or not same_figures(_gauges[0], build):
        _gauges = build, {}
    known, key = _gauges[1], (id(run), place)
    if key not in known or known[key][0] is not run:
        known[key] = run, read_valve(run, expected(build, place))
    return known[key][1]


def _lever(build: Build, place: str, name: str, run: GaugeRun) -> StandingProof | None:
    found = read_lever(run, expected(build, place))
    if found is None or found.verdict is LeverVerdict.TOO_FEW:
        return None
    if found.verdict is not LeverVerdict.FOLLOWS:
        return StandingProof(name, "failed", f"the lever: {found.verdict}", run.at)
    return StandingProof(name, "done", f"lever swept, {run.at:%Y-%m-%d}", run.at)
