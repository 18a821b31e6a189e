"""What changes do, and what the trade says they do, in words."""

from urgens.build import Build
from urgens.build.valves import LoadSensing

WHAT = {
    "front-tyres": "A larger tyre takes more torque for the same force: the front brakes less.",
    "rear-tyres": "A larger tyre takes more torque for the same force: the rear brakes less.",
    "height": "Lower means less load moves forward: the rear keeps more of its own.",
    "front-pads": "More friction in front asks more of the front for the same foot.",
    "rear-pads": "More friction behind brings the rear nearer to locking.",
    "front-ballast": "The front can take more, and there is more to stop.",
    "rear-ballast": "The rear can take more, and there is more to stop.",
    "springs": "Steady load transfer comes from deceleration, height and wheelbase, not from "
    "springs: they change dive and ride height.",
    "wheels": "Width alone moves nothing here: both axles' grip counts by the road's coefficient.",
}


def what_it_does(build: Build, key: str) -> str:
    """Return the mechanism of a change, with what a load-sensing valve adds to it."""
    said = WHAT[key]
    felt = any(
        isinstance(valve, LoadSensing) for valve in (*build.valves.front, *build.valves.rear)
    )
    if felt and key in ("springs", "height"):
        return f"{said} The load-sensing valve reads the rear's height: set it again."
    return said
