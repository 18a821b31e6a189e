"""What a build has on record that bears on a fault: used without typing it again, or left out."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

import numpy as np

from urgens.bench.logs.file import read_log
from urgens.bench.logs.read import ReadLog, lies, look_through, told_by
from urgens.bench.proof_state import gauged, stops_of
from urgens.document import Build, BuildErrors
from urgens.document.ledger.proof import Log
from urgens.document.ledger.traces import TraceRun
from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.limits import MILLIMETRE
from urgens.guidance.condition.proofs import standing_proofs
from urgens.guidance.faults.tables import tables
from urgens.guidance.tracing.ranking import TraceEvidence
from urgens.guidance.tracing.readings import KINDS, MOST, MOST_FOOT, TraceReading, reading
from urgens.guidance.tracing.simulated import HowRead
from urgens.guidance.tracing.trace import last_change, raised_by
from urgens.quantity import FORCE, QuantityError, parse
from urgens.studies.valve_verdict import ValveRead, ValveVerdict

MOVES = 0.05  # g: a press that slows nothing down is one at rest
# What a standing proof that was done well means as the outcome of a test.
PROVED = {
    "leak-test": ("hold", "holds"), "ports-test": ("vent", "swirl"),
    "booster-test": ("booster", "works"), "switch-test": ("switch", "works"),
    "metering-test": ("metering", "bump"), "load-sensing-test": ("lever", "follows"),
}  # fmt: skip


@dataclass(frozen=True)
class RecordedEvidence:
    """One thing on record: its name, where it stands, when; what it is as evidence.

    `sign` with the `answers` to what it asks, `outcome` (a test's, with its own) or `reading`: one
    of them.
    """

    name: str
    words: str
    at: datetime
    sign: str = ""
    outcome: tuple[str, str] | None = None
    reading: TraceReading | None = None
    answers: tuple[str, ...] = ()


def already_known(build: Build) -> tuple[RecordedEvidence, ...]:
    """Return all on record that bears on a fault, the latest last.

    Records of procedures, standing proofs, gauges across valves, stops on the road.
    """
    found = [*_proofs(build), *_travels(build), *_gauges(build), *_stops(build)]
    return tuple(sorted(found, key=lambda one: one.at))


def counting(
    evidence: Sequence[RecordedEvidence],
    since: datetime | None,
    left_out: Sequence[str] = (),
    taken_in: Sequence[str] = (),
) -> tuple[RecordedEvidence, ...]:
    """Return what counts: recorded since the fault began and not left out, or taken in by hand.

    evidence: on record; since: when the fault began, None where nobody says; left_out, taken_in:
    by name [text].
    Source: common practice: what was read before the fault says nothing of it.
    """
    return tuple(
        one
        for one in evidence
        if one.name in taken_in
        or (since is not None and one.at >= since and one.name not in left_out)
    )


def evidence_of(
    build: Build, own: TraceEvidence, evidence: Sequence[RecordedEvidence]
) -> TraceEvidence:
    """Return all there is to a fault: what stands on record, then what was seen and done.

    own: seen and done now; evidence: that counts.

    The last word on each counts; the last change raises what it can have brought, unless somebody
    says on what was worked.
    """
    told = {answer for answers in own.answers.values() for answer in answers}
    worked = any(one.id in told for ask in tables().asks if ask.raises for one in ask.answers)
    signs = {one.sign: True for one in evidence if one.sign}
    answers = {one.sign: one.answers for one in evidence if one.answers}
    outcomes = dict(one.outcome for one in evidence if one.outcome is not None)
    readings = tuple(one.reading for one in evidence if one.reading is not None)
    return TraceEvidence(
        {**signs, **own.signs}, {**outcomes, **own.outcomes}, (*readings, *own.readings),
        {} if worked else raised_by(last_change(build)), {**answers, **own.answers},
    )  # fmt: skip


def of_run(run: TraceRun) -> TraceEvidence:
    """Return what was seen, tested and read in a run; run: of the fault.

    Raises BuildErrors for a reading that is none.
    """
    return TraceEvidence(
        {one.sign: one.seen for one in run.signs},
        {one.test: one.outcome for one in run.tests},
        tuple(reading(one.reading, one.value, one.effort, one.how) for one in run.readings),
        answers={one.sign: one.how for one in run.signs if one.seen and one.how},
    )


def _proofs(build: Build) -> Iterator[RecordedEvidence]:
    for proof in standing_proofs(build):
        told = PROVED.get(proof.name)
        if told is not None and proof.state == "done" and proof.at is not None:
            yield RecordedEvidence(
                f"proof {proof.name}", f"{proof.name}: done", proof.at, outcome=told
            )


def _travels(build: Build) -> Iterator[RecordedEvidence]:
    """Yield the travels of the whole vehicle, as far as their foot and their help are known."""
    for deed in condition(build).standing.fold.travels:
        entry = deed.entry
        if entry is None or not entry.effort:
            continue
        if build.booster.fitted and entry.booster is None:
            continue  # nobody says whether it helped
        try:
            foot = parse(entry.effort, FORCE).value
        except QuantityError:
            continue  # the record's own page says so
        stroke = int(entry.when[-1]) if entry.when and entry.when.startswith("stroke-") else 1
        value = float(entry.value) * MILLIMETRE
        if not (0.0 < foot <= MOST_FOOT and 0.0 <= value <= MOST["travel"]):
            continue
        words = f"travel {entry.value:g} mm at {entry.effort}, stroke {stroke}"
        source = f"{deed.owner} {entry.at:%Y-%m-%d}"
        how = HowRead(engine=entry.booster != "out")
        read = TraceReading("travel", value, foot, stroke, source, how)
        yield RecordedEvidence(
            f"travel {stroke} {entry.at:%Y-%m-%d %H:%M}", words, entry.at, reading=read
        )


def _gauges(build: Build) -> Iterator[RecordedEvidence]:
    for one in gauged(build):
        if one.run is None or one.read is None or one.run.source == "simulated":
            continue
        told = _outcome(one.read)
        if told is not None:
            words = f"gauges at the {one.valve} valve: {one.read.verdict}"
            yield RecordedEvidence(f"gauges {one.valve}", words, one.run.at, outcome=told)


def _outcome(read: ValveRead) -> tuple[str, str] | None:
    """Return the outcome that a verdict of gauges is, None where it tells none."""
    match read.verdict:
        case ValveVerdict.METERS:
            return "metering", "bump"
        case ValveVerdict.DOES_NOT_METER:
            return "metering", "no-bump"
        case ValveVerdict.BLOCKED:
            return "gauges", "rear-none"
        case ValveVerdict.PASSES_ALL:
            return "gauges", "rear-high"
        case ValveVerdict.TWO:
            return "gauges", "rear-low"
        case ValveVerdict.REDUCES | ValveVerdict.LIMITS:
            return _beside(read)
    return None


def _beside(read: ValveRead) -> tuple[str, str] | None:
    """Return whether more or less comes out at the hardest press than the build has it."""
    if read.within or read.fitted is None or read.expected.knee is None:
        return ("gauges", "as-reckoned") if read.within else None
    at = np.asarray(max(read.expected.reach, read.fitted.knee))
    out = float(read.fitted.outlet(at)) + read.fitted.offset
    high = out > float(read.expected.outlet(at))
    return "gauges", "rear-high" if high else "rear-low"


def _stops(build: Build) -> Iterator[RecordedEvidence]:
    for number, stop in enumerate(stops_of(build), start=1):
        if not stop.counts:
            continue
        if stop.pull != "none":
            yield RecordedEvidence(
                f"stop {number}: pull",
                f"stop {number}: it pulled to the {stop.pull}",
                stop.at,
                sign="pulls",
                answers=(stop.pull,),
            )
        if stop.locked == "rear":
            yield RecordedEvidence(
                f"stop {number}",
                f"stop {number}: the rear locked first",
                stop.at,
                sign="rear-first",
            )
        elif stop.locked == "none" and stop.deceleration is not None and stop.effort is not None:
            read = TraceReading("deceleration", stop.deceleration, stop.effort.value, 1,
                                f"stop {number}", HowRead(moving=True))  # fmt: skip
            words = f"stop {number}: {stop.deceleration:.2f} g at {stop.effort.text}"
            yield RecordedEvidence(f"stop {number}", words, stop.at, reading=read)


def of_logs(
    build: Build, own: Path | None, since: datetime | None = None
) -> tuple[tuple[RecordedEvidence, ...], tuple[str, ...]]:
    """Return what the logs since a fault tell, and in words which could not be read.

    own: its file, None without one; since: when the fault began, None for all logs.
    """
    found: list[RecordedEvidence] = []
    said = []
    for log in () if build.proof is None else build.proof.logs:
        if since is not None and log.at < since:
            continue
        if log.source == "simulated":
            said.append(f"{log.file} is simulated: it tells nothing of the vehicle")
            continue
        path = lies(log, own)
        if path is None:
            said.append(f"{log.file} is gone: what it tells is left out")
            continue
        try:
            read = look_through(read_log(path), told_by(log), log.left_out)
        except BuildErrors as errors:
            said += [f"{log.file}: {one.problem}" for one in errors.errors]
            continue
        if read.file.simulated:
            said.append(f"{log.file} is simulated: it tells nothing of the vehicle")
        else:
            found += of_log(log, read)
    return tuple(found), tuple(said)


def of_log(log: Log, read: ReadLog) -> tuple[RecordedEvidence, ...]:
    """Return what the hardest press of a log tells; log: as noted; read: it."""
    presses = [one for one in read.presses if one.effort and one.effort <= MOST_FOOT]
    if not presses:
        return ()
    press = max(presses, key=lambda one: one.effort or 0.0)
    moving = press.deceleration is not None and press.deceleration > MOVES
    found = []
    for kind, value in (
        ("front-pressure", press.front_peak), ("rear-pressure", press.rear_peak),
        ("travel", press.travel),
    ):  # fmt: skip
        if value is not None and press.effort is not None and 0.0 <= value <= MOST[kind]:
            told = TraceReading(kind, value, press.effort, 1, log.file, HowRead(moving))
            words = f"{KINDS[kind].words} in {log.file}"
            found.append(RecordedEvidence(f"{log.file} {kind}", words, log.at, reading=told))
    return tuple(found)
