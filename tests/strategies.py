"""Vehicles to draw: documents of every kind this version knows, within what could be built."""

from typing import Any

from hypothesis import strategies as st


def _typed(low: float, high: float, unit: str, digits: int = 3) -> st.SearchStrategy[str]:
    return st.floats(low, high).map(lambda value: f"{value:.{digits}f} {unit}")


def _number(low: float, high: float, digits: int = 3) -> st.SearchStrategy[float]:
    return st.floats(low, high).map(lambda value: round(value, digits))


discs = st.fixed_dictionaries(
    {
        "kind": st.just("disc"),
        "caliper": st.sampled_from(["opposed", "sliding"]),
        "piston_diameters": st.lists(_typed(25, 70, "mm", 1), min_size=1, max_size=3),
        "pad_friction": _number(0.25, 0.55),
        "effective_radius": _typed(90, 160, "mm", 1),
        "threshold": _typed(0, 1, "bar"),
        "efficiency": _number(0.9, 1.0),
    }
)
drums = st.fixed_dictionaries(
    {
        "kind": st.just("drum"),
        "layout": st.sampled_from(["leading-trailing", "two-leading", "duo-servo"]),
        "cylinder_diameter": _typed(15, 27, "mm", 2),
        "drum_diameter": _typed(180, 310, "mm", 1),
        "shoe_factor": _number(1.8, 5.5, 2),
        "threshold": _typed(1, 6, "bar"),
    }
)
shoes = st.fixed_dictionaries(
    {
        "kind": st.just("drum"),
        "layout": st.sampled_from(["leading-trailing", "two-leading"]),
        "cylinder_diameter": _typed(15, 27, "mm", 2),
        "drum_diameter": st.just("250 mm"),
        "shoe": st.fixed_dictionaries(
            {
                "lining_friction": _number(0.2, 0.42),
                "hinge_distance": _typed(95, 110, "mm", 1),
                "arm": _typed(180, 215, "mm", 1),
                "heel_angle": _typed(5, 30, "deg", 1),
                "toe_angle": _typed(80, 140, "deg", 1),
            }
        ),
    }
)
reducing = st.fixed_dictionaries(
    {
        "kind": st.just("reducing"),
        "knee": _typed(5, 70, "bar", 2),
        "slope": _number(0.0, 0.6),
    }
)
adjustable = st.fixed_dictionaries(
    {
        "kind": st.just("adjustable"),
        "table": st.just([[0, "10 bar"], [3, "18 bar"], [8, "45 bar"]]),
        "slope": _number(0.2, 0.6),
        "turns": _number(0, 10, 2),
    }
)
limiting = st.fixed_dictionaries({"kind": st.just("limiting"), "knee": _typed(5, 70, "bar", 2)})
load_sensing = st.fixed_dictionaries(
    {
        "kind": st.just("load-sensing"),
        "points": st.just([["200 kg", "8 bar"], ["900 kg", "60 bar"]]),
        "slope": _number(0.1, 0.6),
        "follows": st.sampled_from(["static", "dynamic"]),
    }
)
lever = st.fixed_dictionaries(
    {
        "kind": st.just("load-sensing"),
        "lever": st.fixed_dictionaries(
            {
                "arm": _typed(80, 200, "mm", 1),
                "piston_arm": _typed(15, 40, "mm", 1),
                "piston_diameter": _typed(10, 20, "mm", 2),
                "spring_rate": _typed(1, 10, "N/mm", 2),
                "preload": _typed(20, 300, "N", 1),
                "at_load": _typed(250, 900, "kg", 1),
                "suspension_rate": _typed(20, 90, "N/mm", 1),
            },
            optional={"bump": _typed(30, 120, "mm", 0), "droop": _typed(30, 120, "mm", 0)},
        ),
        "slope": _number(0.1, 0.6),
        "follows": st.sampled_from(["static", "dynamic"]),
    }
)
inertia = st.fixed_dictionaries(
    {
        "kind": st.just("inertia-sensing"),
        "ball_angle": _typed(5, 35, "deg", 1),
        "slope": _number(0.0, 0.6),
    }
)
residual = st.fixed_dictionaries(
    {"kind": st.just("residual"), "pressure": _typed(0.1, 1.2, "bar", 2)}
)
rear_valves = st.one_of(reducing, adjustable, limiting, load_sensing, lever, residual)


@st.composite
def rear_lists(draw: st.DrawFn) -> list[Any]:
    """Up to two valves, of which one may have a ball."""
    some: list[Any] = draw(st.lists(rear_valves, max_size=2))
    if some and draw(st.booleans()):
        some[draw(st.integers(0, len(some) - 1))] = draw(inertia)
    return some


metering = st.fixed_dictionaries(
    {"kind": st.just("metering"), "close": st.just("10 psi"), "open": _typed(6, 12, "bar", 2)}
)
one_bore = st.fixed_dictionaries(
    {
        "kind": st.sampled_from(["single", "tandem"]),
        "bore": _typed(17, 32, "mm", 2),
        "spring_preload": _typed(0, 60, "N", 1),
        "efficiency": _number(0.9, 1.0),
    }
)
stepped = st.fixed_dictionaries(
    {
        "kind": st.just("stepped"),
        "small_bore": _typed(17, 26, "mm", 2),
        "large_bore": _typed(27, 36, "mm", 2),
        "relief_pressure": _typed(2, 12, "bar", 1),
        "spring_preload": _typed(0, 60, "N", 1),
        "efficiency": _number(0.9, 1.0),
    }
)
twin = st.fixed_dictionaries(
    {
        "kind": st.just("twin"),
        "front_bore": _typed(15, 25, "mm", 2),
        "rear_bore": _typed(15, 25, "mm", 2),
        "bar_length": st.just("65 mm"),
        "bar_offset": _typed(-15, 15, "mm", 2),
    }
)
boosters = st.one_of(
    st.just({"kind": "none"}),
    st.fixed_dictionaries(
        {
            "kind": st.just("vacuum"),
            "diaphragm_diameters": st.lists(_typed(150, 260, "mm", 0), min_size=1, max_size=2),
            "vacuum": _typed(10, 25, "inHg", 1),
            "gain": _number(1.0, 5.0, 2),
            "crack_force": _typed(0, 60, "N", 1),
            "jump_in": st.one_of(st.just("0 N"), _typed(20, 300, "N", 1)),
            "working": st.booleans(),
        }
    ),
    st.fixed_dictionaries(
        {
            "kind": st.just("hydraulic"),
            "gain": _number(1.5, 6.0, 2),
            "max_assist": _typed(500, 4000, "N", 0),
            "crack_force": _typed(0, 60, "N", 1),
        }
    ),
)


tyres = st.fixed_dictionaries(
    {"rolling_radius": _typed(240, 380, "mm", 1)}, optional={"grip": _number(0.7, 1.4, 2)}
)


@st.composite
def load_cases(draw: st.DrawFn) -> list[dict[str, Any]]:
    count = draw(st.integers(1, 3))
    return [
        {
            "name": f"case {index}",
            "front_axle": draw(_typed(250, 1300, "kg", 1)),
            "rear_axle": draw(_typed(250, 1500, "kg", 1)),
            "cg_height": draw(_typed(0.35, 1.1, "m")),
        }
        for index in range(count)
    ]


@st.composite
def documents(draw: st.DrawFn) -> dict[str, Any]:
    """A whole build file as parsed JSON."""
    master = draw(st.one_of(one_bore, twin, stepped))
    halves = ["front-rear", "diagonal"]
    circuits = {"single": ["single"], "tandem": halves, "twin": halves[:1], "stepped": halves}
    return {
        "format": "urgens.build",
        "version": 2,
        "name": "drawn",
        "vehicle": {
            "use": "street",
            "wheelbase": draw(_typed(2.0, 3.6, "m")),
            "load_cases": draw(load_cases()),
            "downforce": {
                "front_cl_area": draw(_typed(-0.2, 0.8, "m^2")),
                "rear_cl_area": draw(_typed(-0.2, 0.8, "m^2")),
            },
            "engine_drag": draw(st.sampled_from(["0 N.m", "60 N.m"])),
        },
        "front": {
            "tyre": draw(tyres),
            "brake": draw(discs),
        },
        "rear": {
            "tyre": draw(tyres),
            "brake": draw(st.one_of(discs, drums, shoes)),
        },
        "pedal": {
            "pivot_to_pad": draw(_typed(200, 380, "mm", 1)),
            "pivot_to_pushrod": draw(_typed(40, 80, "mm", 1)),
            "efficiency": draw(_number(0.9, 1.0)),
        },
        "booster": draw(boosters),
        "master": master,
        "circuits": draw(st.sampled_from(circuits[master["kind"]])),
        "valves": {
            "front": draw(st.lists(metering, max_size=1)),
            "rear": draw(rear_lists()),
        },
        "targets": {
            "surface": draw(_number(0.3, 1.2, 2)),
            "max_effort": draw(_typed(300, 900, "N", 0)),
            "locked_grip": draw(st.sampled_from([1.0, 0.8, 0.8, 0.6])),
        },
    }
