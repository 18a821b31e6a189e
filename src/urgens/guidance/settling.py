"""What an open figure is called, and how it is settled: common practice."""

import re

from urgens.document import Build

_AXLE = {"front": "Front", "rear": "Rear"}
_CASE = r"vehicle\.load_cases\[(\d+)\]"
# pattern of the path, name, how it is settled
_FIGURES: tuple[tuple[str, str, str], ...] = (
    (r"(front|rear)\.brake\.pad_friction", "{axle} pad friction", "ask for cold and hot figures"),
    (r"(front|rear)\.brake\.shoe_factor", "{axle} shoe factor", "two gauges and one measured stop"),
    (
        r"(front|rear)\.brake\.shoe\.lining_friction",
        "{axle} lining friction",
        "two gauges and one measured stop",
    ),
    (r"(front|rear)\.brake\.threshold", "{axle} shoes move at", "a gauge, and a hand on the drum"),
    (r"(front|rear)\.brake\.piston_diameters\[\d+\]", "{axle} piston", "caliper gauge"),
    (r"(front|rear)\.brake\.cylinder_diameter", "{axle} wheel cylinder", "stamped, or bore gauge"),
    (r"(front|rear)\.brake\.drum_diameter", "{axle} drum", "drum gauge; stamped at the rim"),
    (r"(front|rear)\.brake\.effective_radius", "{axle} effective radius", "rule, to mid-pad"),
    (r"(front|rear)\.brake\.rotor_outer_diameter", "{axle} rotor", "rule or caliper gauge"),
    (r"(front|rear)\.brake\.pad_height", "{axle} pad height", "rule, along the radius"),
    (r"(front|rear)\.tyre\..*", "{axle} tyre", "mark it and roll it out two turns"),
    (_CASE + r"\.cg_height", "Centre of gravity{case}", "raise one axle, weigh again"),
    (_CASE + r"\.front_axle", "Front axle load{case}", "scales, as driven"),
    (_CASE + r"\.rear_axle", "Rear axle load{case}", "scales, as driven"),
    (r"vehicle\.wheelbase", "Wheelbase", "tape, both sides"),
    (r"valves\.(front|rear)\[\d+\]\.knee", "{axle} valve's knee", "two gauges across the valve"),
    (r"valves\.(front|rear)\[\d+\]\.(?:table|points)", "{axle} valve's knees", "two gauges"),
    (r"valves\.(front|rear)\[\d+\]\.ball_angle", "{axle} valve's ramp", "level, as mounted"),
    (r"valves\.(front|rear)\[\d+\]\.lever\..*", "{axle} valve's lever", "rule, spring scale"),
    (r"valves\.(front|rear)\[\d+\]\.slope", "{axle} valve's slope", "two gauges across the valve"),
    (r"pedal\.pivot_to_pad", "Pivot to pad", "tape, square to the foot's force"),
    (r"pedal\.pivot_to_pushrod", "Pivot to pushrod", "rule, square to the pushrod"),
    (r"master\..*bore", "Master cylinder bore", "stamped on the body, or bore gauge"),
    (r"booster\.vacuum", "Vacuum at idle", "vacuum gauge, warm engine"),
    (r"pedal\.angles\..*", "Angle of a pedal arm", "spirit level with a scale, pedal at rest"),
    (r"booster\.reservoir\.volume", "Vacuum reservoir", "fill it with water and weigh"),
    (r"booster\.(envelope|room)\..*", "Room for the booster", "tape; let the engine rock"),
    (r"shuttle_volume", "Fluid that shuts the switch", "push it with a rod, weigh what comes out"),
    (r"vehicle\.launch\..*", "Driveline at the line", "stall it on a dynamometer, or its papers"),
    (r"(front|rear)\.brake\.(rotor|drum)_mass", "{axle} iron", "kitchen scales"),
    (r"(front|rear)\.brake\.pad_thickness", "{axle} lining", "caliper gauge"),
)  # fmt: skip


def named(build: Build, path: str) -> str:
    """Return what a builder calls the figure at `path`.

    build: the document [object]; path: in it [text].
    Source: common practice.
    """
    for pattern, name, _ in _FIGURES:
        match = re.fullmatch(pattern, path)
        if match is None:
            continue
        which = match[1] if match.groups() else ""
        cases = build.vehicle.load_cases
        case = f", {cases[int(which)].name}" if which.isdigit() and len(cases) > 1 else ""
        return name.format(axle=_AXLE.get(which, ""), case=case)
    return path


def how_to_settle(path: str) -> str:
    """Return how the figure at a path is found out; path: in the document [text].

    Source: common practice.
    """
    found = (how for pattern, _, how in _FIGURES if re.fullmatch(pattern, path))
    return next(found, "measure it")
