"""Keeping the history while a build is worked on, and going back in it."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any

from urgens.document.build import Build
from urgens.document.catalogue import named
from urgens.document.edits.difference import difference
from urgens.document.edits.edit import dumped, lay, with_changes
from urgens.document.edits.setups import is_under
from urgens.document.errors import BuildErrors
from urgens.document.facts import UNSEEN
from urgens.document.frozen import thawed
from urgens.document.ledger.history import HistoryEntry
from urgens.document.model import DocumentModel
from urgens.document.paths import path_of, steps
from urgens.document.validation import UNKNOWN, validated

Pair = list[Any]  # the old value and the new one, None for nothing
RUN = timedelta(hours=2)  # savings no further apart are one run of work
# What is done, read or seen, by date: a value that it was made with is not to be forgotten.
RECORDED = ("records", "joints", "open_items", "noted", "proof", "traces")
MOST_NAMED = 3  # figures that the words of a change name
LONGEST = 200  # letters of them
# What is no figure of the vehicle: it has dates of its own, or is only about the build.
APART = ("format", "version", "name", "notes", "records", "joints", "open_items", "noted", "proof",
         "traces", "history", "photographs", "evidence", "units")  # fmt: skip
# What a field is called after, where the catalogue has no name of its own for it.
PARTS = {
    "master": "Cylinder's", "booster": "Booster's", "fluid": "Fluid's", "plumbing": "Layout's",
    "pedal": "Pedal's", "vehicle": "Vehicle's",
}  # fmt: skip
# What changes nothing of the vehicle: how it is drawn, bought, come at.
ONLY_DRAWN = ("drawn_at", "received", "prices", "stays", "since", "made", "easy_while")


_VEHICLE = tuple(name for name in Build.model_fields if name not in (*APART, "setups"))


def same_vehicle(one: Build, other: Build) -> bool:
    """Tell whether builds differ at most in what is done, read and known of one vehicle.

    An edit keeps the parts that it does not touch, so that they are looked at by what they are.
    """
    return one is other or all(getattr(one, name) is getattr(other, name) for name in _VEHICLE)


@dataclass(frozen=True)
class Once:
    """A build as it was on a day; `unknown` are paths of later changes that lead nowhere in it."""

    build: Build
    unknown: tuple[str, ...]


def changes_between(before: Build, after: Build) -> dict[str, Pair]:
    """Return every figure of the vehicle that differs, by path, as typed."""
    found = (
        one
        for one in difference(before, after).steps
        if one.way[0] not in APART and not set(one.way) & set(ONLY_DRAWN)
    )
    rows = sorted(found, key=lambda one: [str(part) for part in one.way])
    return {path_of(one.way): [one.before, one.after] for one in rows}


def with_history(saved: Build, now: Build, at: datetime) -> Build:
    """Return `now` with what it changes against `saved` as an entry of its history.

    saved: the build as its file has it; now: as it is to be saved; at: the time.
    A figure that is changed again within two hours, with nothing recorded in between, is one change
    from its first value to its last, of the last saving; what is not changed again keeps its date.
    """
    changes = changes_between(saved, now)
    if not changes:
        return now
    at = at.replace(second=0, microsecond=0)
    kind = "note" if _only_settled(saved, changes) else "change"
    last = _last_of_run(saved, now, at, kind)
    gone_on = None if last is None else _gone_on(saved, now, last, at)
    if gone_on is not None:
        return gone_on
    rows = [*_rows(now.history), _entry(now, at, kind, changes)]
    return with_changes(now, {"history": rows})


def _rows(history: Sequence[HistoryEntry]) -> list[dict[str, Any]]:
    return [one.model_dump(mode="json", exclude_unset=True) for one in history]


def _entry(now: Build, at: datetime, kind: str, changes: Mapping[str, Pair]) -> dict[str, Any]:
    what = change_words(now, changes)
    return {"at": at.isoformat(), "what": what, "kind": kind, "changes": dict(changes)}


def _gone_on(saved: Build, now: Build, last: HistoryEntry, at: datetime) -> Build | None:
    """Return `now` with a run of work gone on with, None where it leads back to another beginning.

    What the last entry says and nobody touched stays there.
    """
    begun = _begun(saved, last)
    if begun is None:
        return None
    whole, before = changes_between(begun, now), thawed(last.changes)
    stays = {
        path: pair for path, pair in whole.items() if at > last.at and before.get(path) == pair
    }
    moves = {path: pair for path, pair in whole.items() if path not in stays}
    rows = _rows([one for one in now.history if one != last])
    rows += [_entry(now, *one) for one in ((last.at, last.kind, stays), (at, last.kind, moves))
             if one[2]]  # fmt: skip
    made = with_changes(now, {"history": rows})
    back: Build | None = made
    for entry in reversed(made.history[len(now.history) - 1 :]):
        back = None if back is None else _begun(back, entry)
    return None if back is None or changes_between(back, begun) else made


def _only_settled(saved: Build, changes: Mapping[str, Pair]) -> bool:
    """Tell whether nothing of the vehicle changed: more is known of what was only assumed."""
    known = saved.evidence
    return all(path in known and known[path].state in UNSEEN for path in changes)


def _begun(saved: Build, last: HistoryEntry) -> Build | None:
    """Return the build before a run of work, None where that cannot be put together any more."""
    try:
        once = as_of(saved, last)
    except BuildErrors:
        return None
    return None if once.unknown else once.build


def _last_of_run(saved: Build, now: Build, at: datetime, kind: str) -> HistoryEntry | None:
    """Return the entry of this run of work, None where there is none, or a builder worded it."""
    last = max((one for one in saved.history if one.changes), key=lambda one: one.at, default=None)
    if last is None or last.why or last.kind != kind or not timedelta() <= at - last.at <= RUN:
        return None
    if last not in now.history or any(_between(last.at, time, at) for time in _recorded(now)):
        return None
    return last if last.what == change_words(saved, thawed(last.changes)) else None


def _between(first: datetime, time: date, last: datetime) -> bool:
    """Tell whether a time, or a day of which no time is told, may lie between two."""
    if isinstance(time, datetime):
        return first <= time
    return first.date() <= time <= last.date()


def _recorded(build: Build) -> Iterator[date]:
    """Yield every time, or day, at which something was done, read or seen on the vehicle."""
    waiting: list[object] = [getattr(build, name) for name in RECORDED]
    while waiting:
        one = waiting.pop()
        if isinstance(one, date):  # which a time is as well
            yield one
        elif isinstance(one, DocumentModel):
            waiting += [getattr(one, name) for name in type(one).model_fields]
        elif isinstance(one, tuple):
            waiting += one


def as_of(build: Build, day: datetime | HistoryEntry) -> Once:
    """Return a build as it was at a time, or before one entry of its history.

    day: the time, of which the entry itself is still counted.
    Raises BuildErrors where what was then makes no build beside what is now.

    Old values of all later changes, laid back, the latest first.
    """
    later = sorted(
        (
            one
            for one in build.history
            if one.changes and (one == day if isinstance(day, HistoryEntry) else one.at > day)
        ),
        key=lambda one: one.at,
        reverse=True,
    )
    rows = [(path, thawed(old)) for entry in later
            for path, (old, _) in sorted(entry.changes.items(), reverse=True)]  # fmt: skip
    return _gone_back(build, rows, ())


def _gone_back(build: Build, rows: list[tuple[str, object]], unknown: tuple[str, ...]) -> Once:
    """Lay old values back; what turns out to be no field of a build is left out, and named."""
    document = dumped(build)
    lost = [path for path, old in rows if not _laid_back(document, path, old)]
    try:
        return Once(validated(document), (*unknown, *lost))
    except BuildErrors as errors:
        nowhere = [one.path for one in errors.errors if one.problem == UNKNOWN]
        strange = {path for path, _ in rows if any(is_under(path, place) for place in nowhere)}
        if not strange:
            raise
        known = [row for row in rows if row[0] not in strange]
        return _gone_back(build, known, (*unknown, *sorted(strange)))


def undone(build: Build, entry: HistoryEntry) -> dict[str, Any]:
    """Return what takes one change of the history back by itself, by path; None takes a place out.

    entry: of the build. A place that stands otherwise than it left it has changed since, and stays.
    """
    pairs = thawed(entry.changes)
    now = dumped(build)
    return {path: old for path, (old, new) in pairs.items() if _there(now, path) == new}


def _there(document: dict[str, Any], path: str) -> Any:
    """Return what stands at a path, None where nothing does."""
    here: Any = document
    try:
        for step in steps(path):
            here = here[step]
    except (BuildErrors, KeyError, IndexError, TypeError):
        return None
    return here


def with_values(build: Build, values: Mapping[str, object]) -> Build:
    """Return a build with values laid over their places, and what is None taken out.

    values: by path, as in a file. Raises BuildErrors where that makes no build.
    """
    document = dumped(build)
    for path, value in values.items():
        if not _laid_back(document, path, thawed(value)) and value is not None:
            raise BuildErrors.one(path, "leads nowhere", "choose a field that is there")
    return validated(document)


def _laid_back(document: dict[str, Any], path: str, old: object) -> bool:
    """Lay an old value where it was, nothing where there was none; tell whether it has a place."""
    try:
        if old is not None:
            lay(document, path, old)
            return True
        *way, last = steps(path)
        here: Any = document
        for step in way:
            here = here[step]
        del here[last]
    except (BuildErrors, KeyError, IndexError, TypeError):
        return False
    return True


def change_words(build: Build, changes: Mapping[str, Any]) -> str:
    """Return what was changed in a line; build: after it; changes: pairs by path."""
    rows = list(figure_words((build,), layout_last(changes)))
    if len(rows) <= MOST_NAMED:
        said = "; ".join(f"{name} {words}" for name, words in rows)
    else:
        names = list(dict.fromkeys(_place(path) for path in changes))
        said = f"{len(rows)} figures: {', '.join(names)}"
    line = " ".join(said.split())  # a note of a part may have lines of its own
    return line if len(line) <= LONGEST else f"{line[: LONGEST - 1]}…"


def layout_last(changes: Mapping[str, Any]) -> dict[str, Any]:
    """Return changes with those of the layout, which mostly follow from others, at the end.

    changes: pairs by path. Source: by definition.
    """
    return dict(sorted(changes.items(), key=lambda row: row[0].startswith("plumbing")))


def figure_words(builds: Sequence[Build], changes: Mapping[str, Any]) -> Iterator[tuple[str, str]]:
    """Yield what each changed figure is called, and its old and new value.

    builds: the first that has it names it; changes: pairs by path.
    """
    for path, (old, new) in changes.items():
        if old is None:
            words = "is new" if _is_whole(new) else f"{new}, new"
        elif new is None:
            words = "is taken out" if _is_whole(old) else f"{old}, taken out"
        else:
            words = "is another" if _is_whole(new) or _is_whole(old) else f"{old} → {new}"
        yield _called(builds, path), words


def _is_whole(value: object) -> bool:
    """Tell whether a value is a part or a list, which no line can show."""
    return isinstance(value, dict | list)


def _called(builds: Sequence[Build], path: str) -> str:
    for build in builds:
        try:
            return named(build, path)
        except BuildErrors:  # a choice, a whole part, or what is there no more
            continue
    way = [step for step in _steps(path) if isinstance(step, str)] or [path]
    last = way[-1].replace("_", " ")
    if way[0] == "valves" and len(way) > 2:
        return f"{way[1].capitalize()} valve's {last}"
    if len(way) == 1:
        return last.capitalize()
    return f"{PARTS.get(way[0], way[0].capitalize())} {last}"


def _steps(path: str) -> list[str | int]:
    """Return the steps of a path; of what is none, all of it as one: a hand may have written it."""
    try:
        return steps(path)
    except BuildErrors:
        return [path]


def _place(path: str) -> str:
    return str(_steps(path)[0]).replace("_", " ")
