"""What is wanted of a system, and where wishes exclude themselves."""

from dataclasses import dataclass, fields
from typing import Any

from urgens.document import Build, BuildError, BuildErrors, with_changes
from urgens.quantity import FORCE, LENGTH, QuantityError, QuantityKind, parse
from urgens.quantity.arithmetic import number_of
from urgens.solve.system import rule_for
from urgens.studies.surer_fits import LIMIT

MOST, LEAST = 1.0, -1.0
KINDS: dict[str, QuantityKind | None] = {
    "effort": FORCE, "deceleration": None, "travel": LENGTH, "floor": LENGTH, "half-lost": None,
    "unboosted": None, "rear-first-chance": None, "hold": FORCE,
}  # fmt: skip
# Which way a wish is kept; the deceleration is what the others are asked at.
SENSE = {
    "effort": MOST, "travel": MOST, "floor": LEAST, "half-lost": LEAST, "unboosted": LEAST,
    "rear-first-chance": MOST, "hold": MOST,
}  # fmt: skip


@dataclass(frozen=True)
class Wishes:
    """What is wanted; None is not asked for.

    At most so much `effort` [N] for the `deceleration` [g], pad `travel` then [m] and
    `rear_first_chance` [-]; at least so much pedal above the `floor` [m], `half_lost` [g] with the
    worse half lost, `unboosted` [g] without the booster; `hold` at most so much foot at the line
    [N].
    """

    effort: float
    deceleration: float
    travel: float | None
    floor: float
    half_lost: float
    unboosted: float | None
    rear_first_chance: float
    hold: float | None

    def of(self, name: str) -> float | None:
        """Return a wish [SI]; name: of `KINDS` [text]. Source: by definition."""
        value: float | None = getattr(self, name.replace("-", "_"))
        return value


def usual_wishes(build: Build) -> Wishes:
    """Return what a build's own targets want; source: its targets, its rule for a lost half."""
    targets = build.targets
    launch = build.vehicle.launch is not None
    return Wishes(
        effort=min(targets.comfortable_effort.value, targets.max_effort.value),
        deceleration=targets.deceleration,
        travel=None,
        floor=targets.pedal_reserve.value,
        half_lost=rule_for(build).failed.z,
        unboosted=None,
        rear_first_chance=LIMIT,
        hold=targets.max_effort.value if launch else None,
    )


def wished(build: Build, typed: dict[str, str]) -> Wishes:
    """Return wishes as typed, of the build's targets where they are not.

    typed: by name of `KINDS`. Raises BuildErrors that name what cannot be read, and wishes that
    exclude each other.
    """
    values = {one.name: getattr(usual_wishes(build), one.name) for one in fields(Wishes)}
    faults = []
    for name, text in typed.items():
        if name not in KINDS:
            known = ", ".join(KINDS)
            faults.append(BuildError(f"want {name}", "is no wish", f"write one of {known}"))
            continue
        try:
            values[name.replace("-", "_")] = _read(name, text)
        except QuantityError as error:
            faults.append(BuildError(f"want {name}", error.problem, error.remedy))
    if faults:
        raise BuildErrors(faults)
    found = Wishes(**values)
    faults = list(_excluded(build, found))
    if faults:
        raise BuildErrors(faults)
    return found


def _read(name: str, text: str) -> float:
    kind = KINDS[name]
    value = number_of(text) if kind is None else parse(text, kind).value
    if value is None:
        raise QuantityError(f'"{text}" is no number', "write one, such as 0.9")
    if value <= 0.0 and not (name in ("floor", "rear-first-chance") and value == 0.0):
        raise QuantityError(f'"{text}" is not above zero', "write more")
    return value


def _excluded(build: Build, wishes: Wishes) -> list[BuildError]:
    """Return which wishes no system can keep together."""
    found = []
    room, road = build.pedal.travel_available, build.targets.surface
    if wishes.floor >= room.value:
        found.append(BuildError(
            "want floor", f"more than the whole pedal, which has {room.text} to the floor",
            "wish for less pedal left, or measure the pedal again"))  # fmt: skip
    for name in ("deceleration", "half-lost", "unboosted"):
        value = wishes.of(name)
        if value is not None and value > road:
            found.append(BuildError(
                f"want {name}", f"{value:g} g is more than the road gives, {road:g}",
                "wish for less, or for another road"))  # fmt: skip
    hardest = build.targets.max_effort
    if wishes.effort > hardest.value:
        found.append(BuildError(
            "want effort", f"is more than the hardest foot, {hardest.text}",
            "wish for less, or type another hardest foot"))  # fmt: skip
    if wishes.rear_first_chance > 1.0:
        found.append(BuildError("want rear-first-chance", "is a share of 1", "write 0.05 for 5 %"))
    if wishes.hold is not None and build.vehicle.launch is None:
        found.append(BuildError(
            "want hold", "nothing tells what there is to hold",
            "give the launch on Size first"))  # fmt: skip
    return found


def with_wishes(build: Build, wishes: Wishes) -> Build:
    """Return a build whose targets are the wishes, so that every page judges by them.

    wishes: that are wanted. Raises BuildErrors.
    """
    return with_changes(build, target_changes(build, wishes))


def target_changes(build: Build, wishes: Wishes) -> dict[str, Any]:
    """Return what of a build's targets the wishes change, by path.

    A wish for less foot leaves the comfortable one, by which pressures and ratios are judged.
    Source: by definition.
    """
    targets, found = build.targets, dict[str, Any]()
    if wishes.effort > targets.comfortable_effort.value:
        found["targets.comfortable_effort"] = f"{wishes.effort:.9g} N"
    if wishes.deceleration != targets.deceleration:
        found["targets.deceleration"] = wishes.deceleration
    if wishes.floor != targets.pedal_reserve.value:
        found["targets.pedal_reserve"] = f"{wishes.floor * 1e3:.9g} mm"
    return found
