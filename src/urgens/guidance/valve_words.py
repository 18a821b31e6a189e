"""Valves in words: what each kind is, what it does now, and what it starts from."""

from collections.abc import Mapping

from urgens.build.valves import Valve
from urgens.quantity import PRESSURE, Units, UnitSystem, show

NAMES = {
    "reducing": "Reducing valve",
    "limiting": "Limiting valve",
    "adjustable": "Adjustable valve",
    "metering": "Metering valve",
    "load-sensing": "Load-sensing valve",
    "residual": "Residual valve",
}
WHAT = {
    "reducing": "Passes pressure up to its knee, then a share of the rise. It reduces pressure; it "
    "slows nothing and stops nothing.",
    "limiting": "Passes pressure up to its knee and nothing of what comes on top.",
    "adjustable": "A reducing valve whose knee is set by turns, in the rear line only, never in a "
    "circuit that also feeds a front wheel.",
    "metering": "Holds the front discs back until the rear shoes have overcome their springs. With "
    "rear discs it is not wanted.",
    "load-sensing": "A reducing valve whose knee moves with the rear suspension. Other springs or "
    "another ride height change its setting; it can seize.",
    "residual": "Keeps a little pressure in the line when the pedal is up: for cups of drums, "
    "never for discs.",
}
TYPICAL = {  # common practice
    "reducing": "usual on older road cars: knee 250 to 300 psi, slope about one half",
    "limiting": "usual: 300 to 600 psi",
    "adjustable": "usual: slope about 0.3 to 0.6, knee by five or more turns",
    "metering": "usual: shut at about 10 psi, open from about 130",
    "load-sensing": "usual: the light knee a third to a half of the heavy one",
    "residual": "usual: about 15 psi for drums",
}
NOTHING = (
    "A distribution block or a tee may hold a switch; it never changes balance, so it is not here. "
    "A combination valve is its metering part in front and its reducing part behind, in one body."
)
NEW: dict[str, Mapping[str, object]] = {
    "reducing": {"kind": "reducing", "knee": "300 psi", "slope": 0.5},
    "limiting": {"kind": "limiting", "knee": "450 psi"},
    "adjustable": {
        "kind": "adjustable",
        "table": [[0, "150 psi"], [2, "250 psi"], [4, "350 psi"], [6, "450 psi"]],
        "slope": 0.4,
        "turns": 3,
    },
    "metering": {"kind": "metering"},
    "residual": {"kind": "residual", "pressure": "15 psi"},
}


def state(valve: Valve, inlet: float, outlet: float, units: Units | UnitSystem) -> str:
    """Return what a valve does at an inlet and outlet pressure [Pa], in a few words."""
    if inlet <= 0:
        return "at rest"
    if valve.kind == "residual":
        return f"passes all, keeps {show(valve.pressure.value, PRESSURE, units)}"
    if outlet >= inlet * (1 - 1e-9):
        return "open: passes all"
    if valve.kind == "metering":
        shut = outlet <= valve.close.value * (1 + 1e-9)
        return "shut: holds the front off" if shut else "opening"
    lost = show(inlet - outlet, PRESSURE, units)
    if valve.kind == "limiting":
        return f"shut: {lost} kept back"
    return f"reduces by {lost}"
