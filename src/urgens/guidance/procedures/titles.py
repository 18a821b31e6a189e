"""What the procedures are called on cards and on paper."""

from urgens.guidance.procedures.mending import mends

TITLES = {
    "strip-record": "Record before taking apart", "overhaul": "Overhaul the cylinder",
    "assemble": "Put together", "bench-bleed": "Bleed on the bench", "bleed": "Bleed",
    "bleed-at-cylinder": "Bleed the cylinder on the car",
    "rebleed": "Bleed again what was open", "reset-switch": "Reset the warning switch",
    "prove-standing": "All standing proofs", "prove-moving": "Prove moving",
    "gauge-valve": "Gauge the valve", "load-sensing-test": "Move the load-sensing lever",
    "metering-test": "Feel the metering valve", "switch-test": "Prove the warning switch",
    "leak-test": "No leaks", "ports-test": "See the ports open",
    "booster-test": "Prove the booster",
    "half-lost-test": "One half lost, standing", "three-strokes": "Three strokes",
    "pushrod-clearance": "Pushrod clearance", "pedal-height": "Pedal height and switch",
    **{name: one.title for name, one in mends().items()},
}  # fmt: skip
