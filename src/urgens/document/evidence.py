"""What is known of a build's figures: who says so, and how far each may be off."""

from dataclasses import dataclass
from typing import Literal

from urgens.document.build import Build
from urgens.document.catalogue import Figure, counting, figure, is_figure
from urgens.document.edits.past import same_vehicle
from urgens.document.facts import UNSEEN, half_width

State = Literal["assumed", "planned", "measured", "stamped", "published", "as typed"]


@dataclass(frozen=True)
class KnownFigure:
    """One figure, what the build says of it, and half its width [SI]; `spread` None is exact."""

    figure: Figure
    state: State
    spread: str | None
    half_width: float

    @property
    def path(self) -> str:
        """Its place in the build."""
        return self.figure.path

    @property
    def value(self) -> float:
        """What stands there [SI]."""
        return self.figure.number

    @property
    def text(self) -> str:
        """What stands there, as typed."""
        return self.figure.text


def known_figures(build: Build) -> tuple[KnownFigure, ...]:
    """Return the figures of which the build says something, and those that usually spread.

    Those of the build that was asked last are kept: draws, limits and words ask for them.
    Source: by definition: what is said counts before what is usual.
    """
    global _last
    last = _last
    if last is None or not _same_known(last[0], build):
        last = _last = build, _known_figures(build)
    return last[1]


def _same_known(one: Build, other: Build) -> bool:
    """Tell whether two builds have the same figures, those read on the vehicle among them."""
    read = one.proof is other.proof and one.traces is other.traces
    return same_vehicle(one, other) and read and one.evidence == other.evidence


_last: tuple[Build, tuple[KnownFigure, ...]] | None = None


def _known_figures(build: Build) -> tuple[KnownFigure, ...]:
    usual = {f.path: f for f in counting(build) if f.usual_spread is not None}
    said = {path: figure(build, path) for path in build.evidence if is_figure(build, path)}
    found = []
    for path, one in (said | usual).items():
        if one.kind == "text":
            continue
        known = build.evidence.get(path)
        spread = (known.spread if known is not None else None) or one.usual_spread
        value = one.value
        assert value is not None
        assert not isinstance(value, str)
        width = 0.0 if spread is None else half_width(spread, value)
        found.append(KnownFigure(one, "as typed" if known is None else known.state, spread, width))
    return tuple(found)


def open_figures(build: Build) -> tuple[KnownFigure, ...]:
    """Return the figures that nobody found out, and those that usually spread unless they are.

    Source: by definition: what is marked or lacks.
    """
    return tuple(one for one in known_figures(build) if one.state in (*UNSEEN, "as typed"))
