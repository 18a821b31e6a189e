"""From a booster to none, and back: what a set-up for it starts from."""

from urgens.document import Build
from urgens.document.facts import given

USUAL = {"kind": "vacuum", "diaphragm_diameters": ["8 in"], "vacuum": "18 inHg", "gain": 3.0}


def changed_for(build: Build, name: str) -> dict[str, object]:
    """Return the figures to start a manual or a boosted set-up from, each planned.

    Source: common practice.
    """
    ratio = 6.0 if name == "manual" else 4.0
    pin = build.pedal.pivot_to_pad.value / ratio
    changes: dict[str, object] = {"pedal.pivot_to_pushrod": f"{pin * 1000:.1f} mm"}
    if name == "manual":
        changes["booster"] = {"kind": "none"}
    else:
        changes["booster"] = USUAL
    figures = (path for place, part in changes.items() for path in given(place, part))
    planned = {f'evidence["{path}"]': {"state": "planned"} for path in figures
               if not path.endswith(".kind")}  # fmt: skip
    return {**changes, **planned}
