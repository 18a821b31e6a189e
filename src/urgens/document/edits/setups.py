"""Set-ups and evidence: what hangs on paths of the build."""

from collections.abc import Iterator, Mapping
from typing import Any

from urgens.document.build import Build
from urgens.document.edits.edit import EVIDENCE, dumped, lay, untouched
from urgens.document.errors import BuildError, BuildErrors
from urgens.document.facts import UNSEEN, SetUp, half_width
from urgens.document.frozen import thawed
from urgens.document.model import DocumentModel
from urgens.document.paths import value_at
from urgens.document.readings import FIGURE_OF
from urgens.document.validation import validated
from urgens.quantity import Quantity, QuantityError

WIDEST = 10.0  # of a figure: with a wider spread nothing is known of it


def is_under(path: str, other: str) -> bool:
    """Tell whether `path` is `other`, or a place inside it."""
    return path == other or path.startswith((f"{other}.", f"{other}["))


def with_setup(build: Build, name: str) -> Build:
    """Return `build` with its set-up called `name` laid over it; raises BuildErrors.

    What is known of a figure belongs to that figure: where the set-up has another one, what the
    build knows of its own does not count.
    """
    for setup in build.setups:
        if setup.name == name:
            return _laid(build, setup)
    known = (
        ", ".join(f'"{setup.name}"' for setup in build.setups) or "none: this build has no set-ups"
    )
    raise BuildErrors.one("setups", f'there is no set-up "{name}"', f"choose one of {known}")


def _laid(build: Build, setup: SetUp) -> Build:
    figures = {p: value for p, value in setup.changes.items() if not p.startswith(EVIDENCE)}
    kept = untouched(build, setup.changes)
    document = dumped(build, kept)
    for path, value in figures.items():
        lay(document, path, thawed(value))
    made = validated(document, kept)
    known = document.get(EVIDENCE, {})
    said = known_still(known, tuple(figures), build, made)
    if said == known and len(figures) == len(setup.changes):
        return made
    document[EVIDENCE] = said
    for path, value in setup.changes.items():
        if path not in figures:
            lay(document, path, thawed(value))
    return validated(document, kept)


def known_still(
    anies: Mapping[str, Any], written: tuple[str, ...], before: Build, after: Build
) -> dict[str, Any]:
    """Return what is known, without what was said of figures that are others now.

    `written` are the paths at which something was laid in. A figure inside a part is the same
    where the part is of the same kind and the same text still stands there; inside a list that
    was written anew none is. What is typed over by itself is no longer only assumed or planned, nor
    worked out from its readings, and else stays as it was said.
    """

    def stays(path: str) -> bool:
        if path in written:
            return anies[path]["state"] not in UNSEEN
        inside = [place for place in written if is_under(path, place)]
        if not inside:
            return True
        same = stands_at(before, path) == stands_at(after, path) is not None
        return same and all(_is_same_part(before, after, place) for place in inside)

    kept = {path: said for path, said in anies.items() if stays(path)}
    for path in written:
        if "readings" in kept.get(path, {}):
            kept[path] = {name: one for name, one in kept[path].items() if name != "readings"}
    return kept


def _is_same_part(before: Build, after: Build, place: str) -> bool:
    was, now = stands_at(before, place), stands_at(after, place)
    if isinstance(was, tuple) or isinstance(now, tuple):
        return not any(isinstance(entry, DocumentModel) for entry in (*(was or ()), *(now or ())))
    return getattr(was, "kind", None) == getattr(now, "kind", None)


def stands_at(build: Build, path: str) -> Any:
    """Return what stands at a path, None where it leads nowhere."""
    try:
        return value_at(build, path)
    except BuildErrors:
        return None


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
            _laid(build, setup)
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
        if isinstance(value, DocumentModel | tuple | Mapping):
            yield BuildError(place, "is no figure", "name one of the figures in it, or take it out")
        elif known.readings is not None and not path.endswith(FIGURE_OF[known.readings.kind]):
            told = f'"{known.readings.kind}" says nothing of this figure'
            yield BuildError(f"{place}.readings", told, "take the readings out")
        elif known.spread is not None:
            yield from _spread_faults(place, known.spread, value)


def _spread_faults(place: str, spread: str, value: object) -> Iterator[BuildError]:
    if isinstance(value, bool) or not isinstance(value, Quantity | int | float):
        yield BuildError(place, "is no figure, so it has no spread", "take the spread out")
        return
    try:
        width = half_width(spread, value)
    except QuantityError as error:
        yield BuildError(f"{place}.spread", error.problem, error.remedy)
        return
    size = abs(value.value if isinstance(value, Quantity) else value)
    if size and not width <= WIDEST * size:
        yield BuildError(
            f"{place}.spread", f'"{spread}" is more than {WIDEST:g} times the figure itself',
            "write a smaller spread",
        )  # fmt: skip
