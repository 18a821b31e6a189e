"""From a booster to none, and back: what a set-up for it starts from."""

from urgens.document import Build


def changed_for(build: Build, name: str) -> dict[str, object]:
    """Return the figures to start a manual or a boosted set-up from; common practice."""
    ratio = 6.0 if name == "manual" else 4.0
    pin = build.pedal.pivot_to_pad.value / ratio
    changes: dict[str, object] = {"pedal.pivot_to_pushrod": f"{pin * 1000:.1f} mm"}
    if name == "manual":
        changes["booster"] = {"kind": "none"}
    else:
        changes["booster"] = {
            "kind": "vacuum", "diaphragm_diameters": ["8 in"], "vacuum": "18 inHg", "gain": 3.0,
        }  # fmt: skip
    return changes
