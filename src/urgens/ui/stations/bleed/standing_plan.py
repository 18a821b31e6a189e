"""The vehicle as it stands, from above: its wheels, joints, and the numbers of what holds it."""

from collections.abc import Mapping, Sequence

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter

from urgens.document import Build
from urgens.guidance.condition.hold import Hold
from urgens.guidance.condition.holds import Condition
from urgens.guidance.condition.joints import MadeJoint
from urgens.guidance.condition.proofs import PROOFS
from urgens.guidance.procedures.facts import said
from urgens.ui.stations.bleed.plan import WHEEL, BleedPlan
from urgens.ui.theme.paint import T, ink
from urgens.ui.widgets.board import write

CHIP = 9.0  # px: radius of a number
APART = 21.0  # px from one number to the next
MOST = 5  # numbers in a row
# What is written of a wheel's fluid, and in which colour.
STATES = {
    "bled": ("bled", "good"), "open": ("OPEN", "danger"), "dry": ("dry", "danger"),
    "not-clear": ("not clear", "warn"), "unknown": ("not known", "muted"),
}  # fmt: skip


class StandingPlan(BleedPlan):
    """Each hold stands where it belongs by its number; what has no place stands at the pedal.

    Proofs have no number here: they are of the whole vehicle.
    """

    @property
    def joints_too(self) -> bool:
        """Whether it shows how far the joints are: holds are numbered at them."""
        return True

    def __init__(self) -> None:
        super().__init__()
        self.states: Mapping[str, str] = {}
        self.numbers: dict[str, list[int]] = {}  # of holds, by wheel, joint, or "" for the pedal
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)

    def show_standing(self, build: Build, found: Condition) -> None:
        """Show a build in its condition."""
        self.show_build(build)
        self.show_steps((), None, found.open_wheels)
        fitted = found.standing.fold.fitted
        self.hosed = {wheel for thing, wheels in fitted for wheel in wheels if "hose" in thing}
        self.states = found.standing.wheels
        self.numbers = self._placed(found.holds)
        told = ", ".join(f"{said(wheel)} {STATES[one][0]}" for wheel, one in self.states.items())
        self.setAccessibleName(f"The vehicle from above: {told}; {len(found.holds)} things hold it")

    def _placed(self, holds: Sequence[Hold]) -> dict[str, list[int]]:
        names = {joint.name for joints in self.joints.values() for joint in joints}
        found: dict[str, list[int]] = {}
        for number, hold in enumerate(holds, start=1):
            if hold.code in PROOFS:  # they are of no place
                continue
            known = hold.place in self.states or hold.place in names
            found.setdefault(hold.place if known else "", []).append(number)
        return found

    @property
    def foot(self) -> str:
        """Nothing: nobody presses."""
        return ""

    # --- painting ----------------------------------------------------------------------------

    def _draw_joint(self, painter: QPainter, at: QPointF, joint: MadeJoint) -> None:
        super()._draw_joint(painter, at, joint)
        self._chips(painter, self.numbers.get(joint.name, ()), at)

    def _draw_cylinder(self, painter: QPainter, box: QRectF) -> None:
        super()._draw_cylinder(painter, box)
        numbers = self.numbers.get("", ())
        self._chips(painter, numbers, QPointF(box.right() + 44, box.center().y()))

    def _name_wheel(self, painter: QPainter, wheel: str, middle: QPointF) -> None:
        """Write beside a wheel what its fluid is, how it is called, and what holds it there."""
        words, color = STATES[self.states.get(wheel, "unknown")]
        side = 1 if wheel.startswith("front") else -1
        at = middle + QPointF(side * 26, 32 if wheel.endswith("right") else -38)
        align = "left" if side > 0 else "right"
        write(painter, words, at, size=17, weight=700, color=str(getattr(T, color)), side=align)  # type: ignore[arg-type]  # fmt: skip
        write(painter, said(wheel), at + QPointF(0, 16), size=14, color=T.ink, side=align)  # type: ignore[arg-type]  # fmt: skip
        down = 1 if wheel.endswith("right") else -1
        spot = middle - QPointF(side * (WHEEL[0] / 2 + CHIP + 5), 0)
        for number in self.numbers.get(wheel, ()):
            self._chips(painter, (number,), spot)
            spot += QPointF(0, down * APART)

    @staticmethod
    def _chips(painter: QPainter, numbers: Sequence[int], at: QPointF) -> None:
        """Draw numbers of holds beside each other, more than a few in rows of four."""
        rows = max(len(numbers) - 1, 0) // MOST
        for place, number in enumerate(numbers):
            spot = at + QPointF(APART * (place % MOST), APART * (place // MOST - rows / 2))
            ink(painter, Qt.PenStyle.NoPen, QColor(T.danger))
            painter.drawEllipse(spot, CHIP, CHIP)
            write(painter, f"{number}", spot + QPointF(0, 5), size=13, weight=700, color=T.sheet,
                  side="middle")  # fmt: skip
