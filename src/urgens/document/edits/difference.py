"""What one build differs in from another: kept instead of the builds, to go there and back."""

from collections.abc import Collection, Iterator
from dataclasses import dataclass
from typing import Any

from urgens.document.build import Build
from urgens.document.edits.edit import LISTS, dumped, same_part
from urgens.document.model import DocumentModel
from urgens.document.validation import validated

Way = tuple[str | int, ...]
Names = tuple[str, ...]
HISTORY = "history"  # saving adds to it beside all steps, so that it is kept entry by entry


@dataclass(frozen=True)
class ChangedPlace:
    """One place at which two documents differ, as JSON: None where there is nothing."""

    way: Way
    before: Any
    after: Any
    was_there: bool
    is_there: bool


@dataclass(frozen=True)
class Order:
    """A place whose names stand in another order, or are others."""

    way: Way
    before: Names
    after: Names


@dataclass(frozen=True)
class Entries:
    """Entries of the history that go, and that come."""

    gone: tuple[Any, ...] = ()
    come: tuple[Any, ...] = ()


@dataclass(frozen=True)
class Difference:
    """All places at which one build differs from another."""

    steps: tuple[ChangedPlace, ...]
    orders: tuple[Order, ...] = ()
    entries: Entries = Entries()

    def forward(self, build: Build) -> Build:
        """Return the later build, from the earlier one."""
        return _gone(
            build,
            [(s.way, s.is_there, s.after) for s in self.steps],
            [(o.way, o.after) for o in self.orders],
            self.entries,
        )

    def back(self, build: Build) -> Build:
        """Return the earlier build, from the later one."""
        return _gone(
            build,
            [(s.way, s.was_there, s.before) for s in self.steps],
            [(o.way, o.before) for o in self.orders],
            Entries(self.entries.come, self.entries.gone),
        )


def _gone(
    build: Build,
    steps: list[tuple[Way, bool, Any]],
    orders: list[tuple[Way, Names]],
    entries: Entries,
) -> Build:
    written = {str(way[0]) for way in (*(way for way, _, _ in steps), *(way for way, _ in orders))}
    written |= {HISTORY} if entries != Entries() else set()
    kept = {name: getattr(build, name) for name in build.model_fields_set - written}
    document: Any = dumped(build, kept)
    for way, there, value in steps:
        here = _at(document, way[:-1])
        if there:
            here[way[-1]] = value
        else:
            del here[way[-1]]
    for way, names in orders:
        here = _at(document, way)
        found = {name: here[name] for name in names}
        here.clear()
        here.update(found)
    if entries != Entries():
        left = [one for one in document.get(HISTORY, []) if one not in entries.gone]
        document[HISTORY] = sorted([*left, *entries.come], key=lambda one: str(one["at"]))
        if not document[HISTORY]:
            del document[HISTORY]
    return validated(document, kept)  # which copies what is laid in


def _at(document: Any, way: Way) -> Any:
    for step in way:
        document = document[step]
    return document


def difference(before: Build, after: Build) -> Difference:
    """Return what `after` differs in from `before`, as typed."""
    same = _same_parts(before, after)  # which are not written out to be compared
    entries = tuple(_entries(before, after, same))
    apart = {*same, *(str(way[0]) for way, _, _ in entries)}
    old, new = dumped(before, apart), dumped(after, apart)
    had, has = old.pop(HISTORY, []), new.pop(HISTORY, [])
    found = [*_steps(old, new, ())]
    for way, one, other in entries:
        found += _steps(one, other, way)
    return Difference(
        tuple(one for one in found if isinstance(one, ChangedPlace)),
        tuple(one for one in found if isinstance(one, Order)),
        Entries(
            tuple(one for one in had if one not in has), tuple(one for one in has if one not in had)
        ),
    )


def _entries(
    before: Build, after: Build, same: Collection[str]
) -> Iterator[tuple[Way, dict[str, Any], dict[str, Any]]]:
    """Yield the entries that differ of long lists that are as long as they were, as JSON."""
    for name in LISTS:
        one, other = getattr(before, name), getattr(after, name)
        if name in same or name == HISTORY or len(one) != len(other):
            continue
        for place, (was, now) in enumerate(zip(one, other, strict=True)):
            if was is not now:
                yield (name, place), _written(was), _written(now)


def _written(entry: DocumentModel) -> dict[str, Any]:
    return entry.model_dump(mode="json", exclude_unset=True, by_alias=True)


def _same_parts(before: Build, after: Build) -> tuple[str, ...]:
    """Return the parts that are the same one in both builds, lists by every entry."""
    both = before.model_fields_set & after.model_fields_set
    return tuple(name for name in both if same_part(getattr(before, name), getattr(after, name)))


def _steps(before: Any, after: Any, way: Way) -> Iterator[ChangedPlace | Order]:
    """Yield where two values differ; lists of other lengths are one value."""
    if isinstance(before, dict) and isinstance(after, dict):
        for name in before.keys() | after.keys():
            there = name in before, name in after
            if all(there):
                yield from _steps(before[name], after[name], (*way, name))
            else:
                yield ChangedPlace((*way, name), before.get(name), after.get(name), *there)
        if way and list(before) != list(after):  # names given by a builder stand in his order
            yield Order(way, tuple(before), tuple(after))
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        for index, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from _steps(one, other, (*way, index))
    elif before != after or type(before) is not type(after):
        yield ChangedPlace(way, before, after, True, True)
