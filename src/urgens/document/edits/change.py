"""One step of a builder: figures laid in, what is known of them, lists put in another order."""

import copy
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from urgens.document.build import Build
from urgens.document.catalogue import is_figure
from urgens.document.edits.edit import EVIDENCE, LISTS, UNITS, dumped, lay, reused, untouched
from urgens.document.edits.setups import is_under, known_still, stands_at, whole, with_setup
from urgens.document.edits.worked_out import worked_out_again
from urgens.document.errors import BuildErrors
from urgens.document.facts import given
from urgens.document.model import DocumentModel
from urgens.document.paths import steps, value_at
from urgens.document.validation import validated

Json = dict[str, Any]
Order = Sequence[int | Json]  # what stays, by the place it had; what is new, as JSON
PLUMBING = "plumbing"
SETUPS = "setups"


@dataclass(frozen=True)
class BuildChange:
    """What one step does: `values` by path, `known` of figures by path, `orders` of lists by path.

    Every figure given in the parts that stand in `assumed`, by path, is only assumed; what stands
    in `planned` was chosen by the program: what it changes is no longer what anybody measured, and
    in the parts at `anew` that is all of it, whatever stood there before.
    A list in another order takes along what is known of its entries and what set-ups change in
    them. A part that is replaced takes with it what was known of figures it no longer has.
    """

    label: str
    values: Mapping[str, object] = field(default_factory=dict)
    known: Mapping[str, object] = field(default_factory=dict)
    orders: Mapping[str, Order] = field(default_factory=dict)
    assumed: Mapping[str, object] = field(default_factory=dict)
    planned: Mapping[str, object] = field(default_factory=dict)
    anew: tuple[str, ...] = ()

    @classmethod
    def assuming(cls, label: str, parts: Mapping[str, object], **values: object) -> "BuildChange":
        """Return the change that puts new parts in by path, every figure of them only assumed."""
        return cls(label, {**values, **parts}, assumed=parts)

    @classmethod
    def planning(cls, label: str, parts: Mapping[str, object], **values: object) -> "BuildChange":
        """Return the change that puts in by path what the program chose, each figure planned."""
        return cls(label, {**values, **parts}, planned=parts)

    @classmethod
    def laying(cls, label: str, section: Mapping[str, object]) -> "BuildChange":
        """Return the change that lays a vehicle anew; section: its plumbing, as JSON."""
        return cls(label, {PLUMBING: section}, planned={PLUMBING: section}, anew=(PLUMBING,))

    def known_in(self, before: Build, after: Build) -> Json:
        """Return what is known of figures after it; before, after: the build that it changes."""
        assumed = {path: {"state": "assumed"} for path in _figures(after, self.assumed)}
        planned = {
            path: {"state": "planned"}
            for path in _figures(after, self.planned)
            if any(is_under(path, place) for place in (*self.orders, *self.anew))
            or stands_at(before, path) != stands_at(after, path)
        }
        return {**assumed, **planned, **copy.deepcopy(dict(self.known))}


def _figures(build: Build, parts: Mapping[str, object]) -> Iterator[str]:
    places = (path for place, part in parts.items() for path in given(place, part))
    return (path for path in places if is_figure(build, path))


def changed(base: Build, change: BuildChange, setup: str | None = None) -> Build:
    """Return `base` after a change; with a set-up chosen, its variant of the build is changed.

    Raises BuildErrors where the result is no valid build; `base` itself never changes.
    """
    view = base if setup is None else with_setup(base, setup)
    made = _changed_itself(view, change)  # what is refused is refused at its own path
    values, known = worked_out_again(view, made)
    if known:
        change = replace(
            change,
            values={**change.values, **values},
            known={**change.known, **known},
        )
        made = _changed_itself(view, change)
    if setup is None:
        return made if _is_beside_figures(base, change) else whole(made)
    return whole(_changed_in_setup(base, view, change, setup, change.known_in(view, made)))


def _is_beside_figures(base: Build, change: BuildChange) -> bool:
    """Tell whether a change writes only what no set-up and no evidence can name."""
    written = (*change.orders, *change.values, *change.known)
    named = (path for setup in base.setups for path in setup.changes)
    return all(_is_listed(path) for path in written) and not any(map(_is_listed, named))


def _is_listed(path: str) -> bool:
    return str(steps(path)[0]) in LISTS


def _changed_itself(base: Build, change: BuildChange) -> Build:
    change = _with_lists_in_order(base, change)
    told = (EVIDENCE,) if change.known or change.assumed or change.planned else ()
    kept = untouched(base, (*change.values, *told), change.orders)
    document = dumped(base, kept)
    whole_lists = {name: document[name] for name in LISTS if name in document}
    for path, order in change.orders.items():
        lay(document, path, _in_order(document, path, order))
        _rename_in(document, path, order)
    for path, value in change.values.items():
        lay(document, path, copy.deepcopy(value))
    inside = {str(steps(path)[0]) for path in change.values if path not in LISTS}
    before = {name: rows for name, rows in whole_lists.items() if name not in inside}
    kept |= reused(base, before, document)
    made = validated(document, kept)
    known = document.get(EVIDENCE, {})
    said = {**known_still(known, tuple(change.values), base, made), **change.known_in(base, made)}
    if said == known:
        return made
    return validated({**document, EVIDENCE: said}, kept)


def _with_lists_in_order(base: Build, change: BuildChange) -> BuildChange:
    """Return a change in which a list of parts that is written anew is one of new entries."""
    lists = {path: value for path, value in change.values.items() if _are_parts(base, path, value)}
    if not lists:
        return change
    return BuildChange(
        change.label,
        {path: value for path, value in change.values.items() if path not in lists},
        change.known,
        {**change.orders, **lists},  # type: ignore[dict-item]
        change.assumed,
        change.planned,
        change.anew,
    )


def _are_parts(base: Build, path: str, value: object) -> bool:
    try:
        now = value_at(base, path)
    except BuildErrors:
        return False
    entries = (*now, *value) if isinstance(now, tuple) and isinstance(value, list | tuple) else ()
    return bool(entries) and all(isinstance(entry, DocumentModel | dict) for entry in entries)


def _in_order(document: Json, path: str, order: Order) -> list[Any]:
    now = _json_at(document, path) or []
    try:
        if path in LISTS:  # whose entries are made from what is given, and never written into
            return [now[one] if isinstance(one, int) else _apart(one) for one in order]
        return [now[one] if isinstance(one, int) else copy.deepcopy(one) for one in order]
    except IndexError:
        raise BuildErrors.one(path, "has no such entry", "choose one that is there") from None


def _apart(entry: Any) -> Any:
    """Return an entry of its own, whatever becomes of the one that was given."""
    return dict(entry) if isinstance(entry, dict) else copy.deepcopy(entry)


def _json_at(document: Json, path: str) -> Any:
    here: Any = document
    for step in path.split("."):
        here = here.get(step) if isinstance(here, dict) else None
    return here


# --- what hangs on the entries of a list ---------------------------------------------------------


def _rename_in(document: Json, path: str, order: Order) -> None:
    """Let everything that names an entry of the list name it where it is now, or go with it.

    Whatever else comes to hold paths into the document is renamed here too.
    """
    places = {old: new for new, old in enumerate(order) if isinstance(old, int)}
    if EVIDENCE in document:
        document[EVIDENCE] = dict(_renamed(document[EVIDENCE], path, places))
    if UNITS in document:
        document[UNITS] = dict(_renamed(document[UNITS], path, places))
    _rename_measured(document.get("proof") or {}, path, places)
    for setup in document.get("setups", []):
        own = setup["changes"]
        if not any(is_under(path, written) for written in own):  # else it has a list of its own
            setup["changes"] = dict(_renamed(own, path, places))


def _rename_measured(proof: Json, path: str, places: Mapping[int, int]) -> None:
    """Let gauges and settings of stops follow their valve; of one that went they name none."""
    for run in proof.get("gauges", []):
        followed = dict(_renamed({f"valves.{run['valve']}": None}, path, places))
        run["valve"] = next(iter(followed), "").removeprefix("valves.")
    for one in (*proof.get("stops", []), *proof.get("logs", [])):
        if "setting" in one:
            one["setting"] = dict(_renamed(one["setting"], path, places))


def _renamed(
    held: Mapping[str, Any], path: str, places: Mapping[int, int]
) -> Iterator[tuple[str, Any]]:
    for name, value in held.items():
        inside = name.removeprefix(f'{EVIDENCE}["').removesuffix('"]')
        if not inside.startswith(f"{path}["):
            yield name, value
            continue
        index, _, rest = inside.removeprefix(f"{path}[").partition("]")
        if int(index) in places:
            moved = f"{path}[{places[int(index)]}]{rest}"
            yield (moved if inside == name else f'{EVIDENCE}["{moved}"]'), value


# --- a set-up that is chosen ---------------------------------------------------------------------


def _changed_in_setup(
    base: Build, view: Build, change: BuildChange, name: str, facts: Json
) -> Build:
    """Return the base build with a change laid into one of its set-ups."""
    kept = untouched(base, (SETUPS, EVIDENCE))
    document = dumped(base, kept)
    setup = next(setup for setup in document["setups"] if setup["name"] == name)
    own: Json = setup["changes"]
    seen = dumped(view)
    change = _with_lists_in_order(view, change)
    for path, order in change.orders.items():
        places = {old: new for new, old in enumerate(order) if isinstance(old, int)}
        renamed = dict(_renamed(_evidence_under(view, path), path, places))
        _write(own, path, _in_order(seen, path, order))
        own.update({f'{EVIDENCE}["{place}"]': known for place, known in renamed.items()})
    for path, value in change.values.items():
        _write(own, path, copy.deepcopy(value))
    for path, known in facts.items():
        mine = any(is_under(path, written) for written in own if not written.startswith(EVIDENCE))
        where = own if mine else document.setdefault(EVIDENCE, {})
        where[f'{EVIDENCE}["{path}"]' if mine else path] = known
    return validated(document, kept)


def _evidence_under(view: Build, path: str) -> Json:
    return {
        place: known.model_dump(mode="json", exclude_unset=True)
        for place, known in view.evidence.items()
        if place.startswith(f"{path}[")
    }


def _write(own: Json, path: str, value: object) -> None:
    """Write one change into a set-up; it replaces those that were made below it before."""
    for written in [w for w in own if is_under(_of_evidence(w), path) and w != path]:
        del own[written]
    own.pop(path, None)
    own[path] = value


def _of_evidence(path: str) -> str:
    return path.removeprefix(f'{EVIDENCE}["').removesuffix('"]')
