"""Set-ups and evidence: what hangs on paths of the build."""

from collections.abc import Iterator

from urgens.document.build import Build
from urgens.document.edit import value_at, with_changes
from urgens.document.errors import BuildError, BuildErrors
from urgens.document.facts import half_width
from urgens.quantity import Quantity, QuantityError


def with_setup(build: Build, name: str) -> Build:
    """Return `build` with its set-up called `name` laid over it; raises BuildErrors."""
    for setup in build.setups:
        if setup.name == name:
            return with_changes(build, setup.changes)
    known = (
        ", ".join(f'"{setup.name}"' for setup in build.setups) or "none: this build has no set-ups"
    )
    raise BuildErrors.one("setups", f'there is no set-up "{name}"', f"choose one of {known}")


def whole(build: Build) -> Build:
    """Return `build` if what its set-ups and its evidence name is there; raises BuildErrors."""
    faults = list(_hanging_faults(build))
    if faults:
        raise BuildErrors(faults)
    return build


def _hanging_faults(build: Build) -> Iterator[BuildError]:
    """Yield what is wrong with the paths that set-ups and evidence name."""
    for index, setup in enumerate(build.setups):
        try:
            with_changes(build, setup.changes)
        except BuildErrors as errors:
            for error in errors.errors:
                place = f'setups[{index}].changes["{error.path}"]'
                yield BuildError(place, error.problem, error.remedy)
    for path, known in build.evidence.items():
        place = f'evidence["{path}"]'
        try:
            value = value_at(build, path)
        except BuildErrors as errors:
            yield BuildError(place, errors.errors[0].problem, errors.errors[0].remedy)
            continue
        if known.spread is not None:
            yield from _spread_faults(place, known.spread, value)


def _spread_faults(place: str, spread: str, value: object) -> Iterator[BuildError]:
    if isinstance(value, bool) or not isinstance(value, Quantity | int | float):
        yield BuildError(place, "is no figure, so it has no spread", "take the spread out")
        return
    try:
        half_width(spread, value)
    except QuantityError as error:
        yield BuildError(f"{place}.spread", error.problem, error.remedy)
