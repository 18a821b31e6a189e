"""What was tried made a set-up of its own, beside the build as it was."""

from typing import Any

from urgens.document.build import Build
from urgens.document.edits.edit import EVIDENCE, dumped
from urgens.document.edits.past import APART, changes_between
from urgens.document.edits.setups import whole
from urgens.document.errors import BuildErrors
from urgens.document.validation import validated

SETUPS = "setups"


def saved_as_setup(saved: Build, now: Build, name: str, chosen: str | None) -> Build:
    """Return the build with another set-up in it.

    saved: the build as its file has it; now: as it stands; name: of the new one [text];
    chosen: the set-up that is looked at, of which the new one is a copy, None for the build itself
    [text]. Without one, what was changed since it was saved goes into the new set-up, and the
    build itself goes back. Raises BuildErrors where that cannot be.
    Source: by definition.
    """
    if chosen is not None:
        document = dumped(now)
        own = next(one for one in document[SETUPS] if one["name"] == chosen)
        document[SETUPS].append({**own, "name": name})
        return whole(validated(document))
    changes = what_is_tried(saved, now)
    gone = [path for path, (_, new) in changes.items() if new is None]
    if gone:
        raise BuildErrors.one(
            gone[0],
            "was taken out since the build was saved, which no set-up can hold",
            "write what is there instead, or undo that",
        )
    document = _as_saved(saved, now)
    values: dict[str, Any] = {path: new for path, (_, new) in changes.items()}
    known = {path: known for path, known in dumped(now).get(EVIDENCE, {}).items()
             if path in values and known != document.get(EVIDENCE, {}).get(path)}  # fmt: skip
    values.update({f'{EVIDENCE}["{path}"]': one for path, one in known.items()})
    document.setdefault(SETUPS, []).append({"name": name, "changes": values})
    return whole(validated(document))


def what_is_tried(saved: Build, now: Build) -> dict[str, list[Any]]:
    """Return the figures of the build itself that were changed since it was saved.

    saved, now: as `saved_as_setup`.
    """
    return {path: pair for path, pair in changes_between(saved, now).items()
            if not path.startswith(SETUPS)}  # fmt: skip


def _as_saved(saved: Build, now: Build) -> dict[str, Any]:
    """Return the figures as they were saved, beside all else as it is now."""
    before, document = dumped(saved), dumped(now)
    for section in {*before, *document} - {*APART, SETUPS} | {EVIDENCE}:
        if section in before:
            document[section] = before[section]
        else:
            document.pop(section, None)
    return document
