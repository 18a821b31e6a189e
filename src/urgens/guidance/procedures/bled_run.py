"""A run carried out on the stand-in: what its strokes have moved so far, and what is expected."""

from collections import Counter
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass

from urgens.document import Build
from urgens.document.ledger.records import ProcedureRun
from urgens.guidance.procedures import Facts, ProcedureStep
from urgens.guidance.procedures.amounts import TWICE, swept_to
from urgens.guidance.procedures.bled_vehicle import BledVehicle, dry
from urgens.guidance.procedures.facts import FARTHEST
from urgens.guidance.procedures.step import Wheel
from urgens.guidance.procedures.ways import ways_of
from urgens.physics.axle import Axle

MILLILITRE = 1e-6  # m³


@dataclass(frozen=True)
class ExpectedBleeding:
    """What is expected at the step a run stands at: the vehicle now, and what each stroke moves.

    `swept` by wheel [m³].
    """

    now: BledVehicle
    swept: dict[Wheel, float]

    def strokes(self, wheel: Wheel) -> int:
        """Return the strokes that are wanted still at a wheel. Source: `bled_vehicle`."""
        return self.now.strokes_until_clear(wheel, self.swept[wheel])


def expected_bleeding(
    build: Build,
    steps: Sequence[ProcedureStep],
    record: ProcedureRun | None,
    bled: Collection[str] = (),
) -> ExpectedBleeding | None:
    """Return a run as far as it is, on a vehicle whose opened wheels began with nothing but air.

    steps: of the procedure; record: of the run, None where none is begun; bled: wheels that were
    bled before it, whose ways were full [text]. None where the lines are
    not drawn. Strokes are those that were counted; where nobody counted, what flowed is taken as
    what was wanted. Source: continuity (`physics.purge`).
    """
    ways = ways_of(build)
    if ways is None:
        return None
    opened = {wheel for step in steps if step.action == "open" for wheel in step.wheels}
    moved = swept_to(build)
    per_stroke = {wheel: moved[Axle(wheel.partition("-")[0])] for wheel in FARTHEST}
    now = dry(ways, [wheel for wheel in FARTHEST if wheel in opened and wheel not in bled])
    ends = {end.thing: end.wheels for end in Facts(build).dead_ends}
    for step, strokes, amount in _done(steps, record):
        if step.action == "loosen" and step.thing in ends:
            now = now.cracked(ends[step.thing])
        for wheel in step.wheels:
            if step.action == "stroke":
                now, _ = now.given(wheel, strokes * per_stroke[wheel])
            elif step.action == "look":
                wanted = TWICE * now.ways.volume(wheel)
                now, _ = now.given(wheel, wanted if amount is None else amount * MILLILITRE)
    return ExpectedBleeding(now, per_stroke)


def _done(
    steps: Sequence[ProcedureStep], record: ProcedureRun | None
) -> Iterator[tuple[ProcedureStep, int, float | None]]:
    """Yield the steps that were done, as often as they were, with strokes and what was caught."""
    if record is None:
        return
    read: Counter[tuple[int, str]] = Counter()
    figures: dict[tuple[int, str], list[float]] = {}
    for entry in record.entries:
        if isinstance(entry.value, float):
            key, wheel = (entry.step, entry.field), entry.wheel
            first = steps[entry.step - 1].wheels[:1] if entry.step <= len(steps) else ()
            if wheel is None or first in ((), (wheel,)):  # a pair has one stroke for both
                figures.setdefault(key, []).append(entry.value)
    for number in record.done or range(1, record.step):
        if number > len(steps):
            continue
        step, told = steps[number - 1], {}
        for field in ("strokes", "amount"):
            known, at = figures.get((number, field), []), read[number, field]
            told[field] = known[at] if at < len(known) else None
            read[number, field] += 1
        usual = 1.0 if step.press == "down" else 0.0
        strokes = told["strokes"]
        yield step, int(usual if strokes is None else strokes), told["amount"]
    here = steps[min(record.step, len(steps)) - 1] if steps else None
    if here is not None and here.action == "stroke" and record.strokes:
        yield here, record.strokes, None
