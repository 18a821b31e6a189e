"""The layout that the station shows: the build's own, else the usual one, drafted."""

from urgens.document import Build, BuildChange, edited
from urgens.document.circuits import Circuits
from urgens.document.layout.layout import Plumbing
from urgens.plumbing.draft import drafted
from urgens.plumbing.drawing import plan_of
from urgens.plumbing.plan_shapes import LayoutPlan
from urgens.plumbing.pressures import line_pressures
from urgens.ui.session import Session
from urgens.ui.stations.plumb.my_parts import MyParts

DRAFT = "The usual layout"


def draft_change(build: Build) -> BuildChange:
    """Return the change that takes the usual layout into the build, all of it assumed."""
    return BuildChange.laying(DRAFT, drafted(build))


class Laid:
    """Works out once what several widgets show of the layout."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self.parts = MyParts()
        self._of: Build | None = None  # the build it was worked out for
        self._planned: tuple[Plumbing, LayoutPlan] | None = None
        self._circuits: Circuits | None = None

    @property
    def own(self) -> bool:
        """Whether the build has a layout of its own."""
        return self._session.build.plumbing is not None

    @property
    def circuits(self) -> Circuits:
        """The circuits of what is shown."""
        build = self._session.build
        if self._circuits is None or self._of is not build:
            self._of = build
            shown = build if self.own else edited(build, "plumbing", drafted(build))
            assert shown.plumbing is not None
            self._circuits = Circuits(shown, shown.plumbing)
        return self._circuits

    @property
    def plumbing(self) -> Plumbing:
        """The layout that is shown."""
        return self.circuits.plumbing

    @property
    def plan(self) -> LayoutPlan:
        """Where its parts are drawn."""
        plumbing, planned = self.plumbing, self._planned
        if planned is None or (planned[0] is not plumbing and planned[0] != plumbing):
            planned = plumbing, plan_of(self.circuits)
        self._planned = plumbing, planned[1]  # so that the next look is quick
        return planned[1]

    @property
    def pressures(self) -> dict[str, float]:
        """The pressure in each line at the press [Pa]."""
        return line_pressures(self.circuits, self._session.solution, self._session.presses)
