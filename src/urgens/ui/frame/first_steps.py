"""The stops of the walk, on the window as it is."""

from collections.abc import Callable

from PySide6.QtWidgets import QWidget

from urgens.ui.frame.bench import StationStack
from urgens.ui.frame.walk import WalkStop


def stops(
    bench: StationStack, press: Callable[[], QWidget], rail: QWidget, finding: QWidget, top: QWidget
) -> tuple[WalkStop, ...]:
    """Return the stops: the pedal, who locks first, a knee, figures, findings, the record."""
    show = bench.show_station
    return (
        WalkStop(
            press, "Pull the pedal",
            "Drag the pad, or press the up and down keys. Every figure and colour in the window "
            "follows: how far it goes, what pressures it makes, how hard it stops.",
            lambda: show("Balance"),
        ),
        WalkStop(
            press, "Who locks first",
            "The bars tell how near each axle is to locking, the words below which goes first. The "
            "front just before the rear, on every road and with every load: that is the aim.",
        ),
        WalkStop(
            bench.current, "Change the thing itself",
            "Drag the knee of the valve, or click a figure and type it as you read it, such as "
            "15/16. Ctrl+Z takes anything back.",
        ),
        WalkStop(
            lambda: rail, "The order of the work",
            "From measuring to the sheet. A triangle or an octagon says that something is to be "
            "looked at there.",
        ),
        WalkStop(
            lambda: finding, "What there is to say",
            "A fact, its reason, and one thing to do. F goes to the next, Shift+F does what it "
            "proposes.",
        ),
        WalkStop(
            lambda: top, "Your own vehicle",
            "Ctrl+N starts one; what is only assumed looks so. Ctrl+K finds anything, F1 lists "
            "the keys, ? explains what has the focus.",
        ),
    )  # fmt: skip
