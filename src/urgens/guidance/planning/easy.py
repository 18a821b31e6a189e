"""What is come at easily while something is out: grouped by that, with what is still to come."""

from collections.abc import Iterator
from dataclasses import dataclass

from urgens.document import Build
from urgens.document.circuits import circuits_of
from urgens.guidance.condition.joints import joints
from urgens.guidance.words.parts import thing_called

MADE = ("dry", "checked")


@dataclass(frozen=True)
class EasyWhile:
    """What has to be out, all that is easy then, and what of it is not tight and dry yet."""

    out: str
    things: tuple[str, ...]
    still: tuple[str, ...]

    @property
    def words(self) -> str:
        """What is still to come there, in a sentence."""
        if not self.still:
            return f"While the {self.out} is out: all of it is tight and dry."
        return f"While the {self.out} is out, still to come: {', '.join(self.still)}."


def easy_while(build: Build) -> tuple[EasyWhile, ...]:
    """Return what is easy while each thing is out: parts, lines and what is noted as open.

    build: the document.

    Source: what the builder says of parts and lines; by definition.
    """
    groups: dict[str, list[tuple[str, bool]]] = {}
    for what, out, done in _told(build):
        if out.strip():
            groups.setdefault(out.strip().casefold(), []).append((what, done))
    return tuple(
        EasyWhile(
            out,
            tuple(what for what, _ in things),
            tuple(what for what, done in things if not done),
        )
        for out, things in groups.items()
    )


def _told(build: Build) -> Iterator[tuple[str, str, bool]]:
    """Yield parts, lines, open items: what each is called, easy while what, if it is done."""
    laid = circuits_of(build)
    if laid is not None:
        done = _done(build)
        for part in laid.plumbing.parts:
            yield thing_called(laid, part.id), part.easy_while, done.get(part.id, False)
        for line in laid.plumbing.lines:
            yield thing_called(laid, line.id), line.easy_while, done.get(line.id, False)
    for item in build.open_items:
        yield item.what, item.easy_while, item.done is not None


def _done(build: Build) -> dict[str, bool]:
    """Return of each part and line whether all of its joints are dry."""
    found: dict[str, bool] = {}
    laid = circuits_of(build)
    assert laid is not None
    states = {one.name: one.state in MADE for one in joints(build)}
    for line in laid.plumbing.lines:
        names = (str(line.to),) if line.direct else (f"{line.id}.a", f"{line.id}.b")
        whole = all(states.get(name, False) for name in names)
        ends = (line.start.partition(".")[0], str(line.to).partition(".")[0])
        for thing in (line.id, *ends):
            found[thing] = found.get(thing, True) and whole
    return found
