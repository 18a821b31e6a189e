"""The stops of the walk, on the window as it is."""

from collections.abc import Callable

from PySide6.QtWidgets import QWidget

from urgens.ui.frame.bench import Bench
from urgens.ui.frame.walk import Stop


def stops(
    bench: Bench, press: Callable[[], QWidget], rail: QWidget, finding: QWidget, top: QWidget
) -> tuple[Stop, ...]:
    """Return the stops: the pedal, who locks first, a knee, figures, findings, the record."""
    show = bench.show_station
    return (
        Stop(
            press, "Pull the pedal",
            "Drag the pad, or press the up and down keys. Every figure and colour in the window "
            "follows: how far it goes, what pressures it makes, how hard it stops.",
            lambda: show("Balance"),
        ),
        Stop(
            press, "Who locks first",
            "The bars tell how near each axle is to locking, the words below which goes first. The "
            "front just before the rear, on every road and with every load: that is the aim.",
        ),
        Stop(
            bench.current, "Change the thing itself",
            "Drag the knee of the valve, or click a figure and type it as you read it, such as "
            "15/16. Ctrl+Z takes anything back.",
        ),
        Stop(
            lambda: rail, "The order of the work",
            "From measuring to the sheet. A triangle or an octagon says that something is to be "
            "looked at there.",
        ),
        Stop(
            lambda: finding, "What there is to say",
            "A fact, its reason, and one thing to do. F goes to the next, Shift+F does what it "
            "proposes.",
        ),
        Stop(
            lambda: top, "Your own vehicle",
            "Ctrl+N starts one; what is only assumed looks so. Ctrl+K finds any command, F1 lists "
            "the keys, ? explains what has the focus.",
        ),
    )  # fmt: skip
