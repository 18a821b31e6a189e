"""Procedures made for one build: every name there is, and the one way to ask for them."""

import difflib
from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace

from urgens.document import Build, BuildErrors
from urgens.guidance.procedures.at_cylinder import bench_bleed, bleed_at_cylinder, reset_switch
from urgens.guidance.procedures.bleed import METHODS, bleed, default_method
from urgens.guidance.procedures.bleed_rules import CHECKED, Method
from urgens.guidance.procedures.building import assemble, pedal_height, pushrod_clearance
from urgens.guidance.procedures.closing import closing
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.mending import mend, mends
from urgens.guidance.procedures.proving import (
    booster_test,
    gauge_valve,
    half_lost_test,
    leak_test,
    load_sensing_test,
    metering_test,
    ports_test,
    prove_moving,
    prove_standing,
    switch_test,
    three_strokes,
)
from urgens.guidance.procedures.rebleed import rebleed
from urgens.guidance.procedures.step import Procedure, Step
from urgens.guidance.procedures.taking_apart import overhaul, strip_record
from urgens.guidance.proofs import MOVING, held_from_moving

__all__ = ["MENDS", "METHODS", "NAMES", "Facts", "Method", "Procedure", "Step", "default_method",
           "procedure"]  # fmt: skip

_PLAIN: dict[str, Callable[[Facts], Procedure]] = {
    "strip-record": strip_record, "overhaul": overhaul, "assemble": assemble,
    "bench-bleed": bench_bleed, "pushrod-clearance": pushrod_clearance,
    "pedal-height": pedal_height, "bleed-at-cylinder": bleed_at_cylinder,
    "reset-switch": reset_switch, "prove-standing": prove_standing,
    "prove-moving": prove_moving, "gauge-valve": gauge_valve,
    "load-sensing-test": load_sensing_test, "metering-test": metering_test,
    "switch-test": switch_test, "ports-test": ports_test, "booster-test": booster_test,
    "leak-test": leak_test, "half-lost-test": half_lost_test, "three-strokes": three_strokes,
}  # fmt: skip
MENDS = tuple(mends())
NAMES = (*_PLAIN, "bleed", "rebleed", *MENDS)


def procedure(
    build: Build, name: str, method: str | None = None, opened: Iterable[str] = ()
) -> Procedure:
    """Return a procedure for a build.

    build: the document [object]; name: of it [text]; method: of bleeding [text]; opened: parts or
    lines, of what is bled again [text].
    Raises BuildErrors where there is no such procedure or method, with the nearest name.
    Source: common practice.
    """
    facts = Facts(build)
    if name not in NAMES:
        raise BuildErrors.one("procedure", f'there is no "{name}"', _nearest(name, NAMES))
    if method is not None and method not in METHODS:
        raise BuildErrors.one("--method", f'there is no "{method}"', _nearest(method, METHODS))
    made = _made(facts, name, next((one for one in METHODS if one == method), None), opened)
    last = closing(made.steps)
    steps = made.steps if last is None else (*made.steps, last)
    return replace(made, steps=steps, cautions=tuple(_cautions(build, made)))


def _cautions(build: Build, made: Procedure) -> Iterator[str]:
    """Yield what stands against it now, its own cautions, and who looks at it."""
    if made.name == MOVING:
        for reason in held_from_moving(build):
            yield f"Not yet: {reason}."
    yield from made.cautions
    if made.allowed and not any("ocal rules" in caution for caution in made.cautions):
        yield CHECKED


def _made(facts: Facts, name: str, method: Method | None, opened: Iterable[str]) -> Procedure:
    if name == "bleed":
        return bleed(facts, method)
    if name == "rebleed":
        return rebleed(facts, opened)
    if name in MENDS:
        return mend(name, facts)
    return _PLAIN[name](facts)


def _nearest(name: str, known: Iterable[str]) -> str:
    names = tuple(known)
    near = difflib.get_close_matches(name, names, n=1)
    return f'write "{near[0]}"' if near else f"choose one of {', '.join(names)}"
