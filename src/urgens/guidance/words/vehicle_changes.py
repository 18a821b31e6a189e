"""What changes do, and what the trade says they do, in words."""

from urgens.document import Build
from urgens.document.kinds.valves.inertia_sensing import InertiaSensing
from urgens.document.kinds.valves.load_sensing import LoadSensing

CALLED = {
    "front-tyres": "Front tyres larger by",
    "rear-tyres": "Rear tyres larger by",
    "front-grip": "Grippier front tyres, by",
    "rear-grip": "Grippier rear tyres, by",
    "height": "Ride height, and the centre of gravity, by",
    "front-pads": "Front friction by",
    "rear-pads": "Rear friction by",
    "front-ballast": "Ballast over the front axle",
    "rear-ballast": "Ballast over the rear axle",
    "springs": "Stiffer springs by",
    "wheels": "Wider wheels by",
}  # the amount follows
WHAT = {
    "front-tyres": "A larger tyre takes more torque for the same force: the front brakes less.",
    "rear-tyres": "A larger tyre takes more torque for the same force: the rear brakes less.",
    "front-grip": "The front locks later, at the same force; a softer compound more than width.",
    "rear-grip": "The rear locks later: a main reason why a vehicle needs no rear valve, until its "
    "spare pair is on.",
    "height": "Lower means less load moves forward: the rear keeps more of its own.",
    "front-pads": "More friction in front asks more of the front for the same foot.",
    "rear-pads": "More friction behind brings the rear nearer to locking.",
    "front-ballast": "The front can take more, and there is more to stop.",
    "rear-ballast": "The rear can take more, and there is more to stop.",
    "springs": "Steady load transfer comes from deceleration, height and wheelbase, not from "
    "springs: they change dive and ride height.",
    "wheels": "A wheel's width alone moves nothing: what its tyres grip does, further up.",
}


def what_it_does(build: Build, key: str) -> str:
    """Return the mechanism of a change, with what a valve that feels the vehicle adds to it."""
    said = WHAT[key]
    if key not in ("springs", "height"):
        return said
    valves = (*build.valves.front, *build.valves.rear)
    sensing = [valve for valve in valves if isinstance(valve, LoadSensing)]
    if any(valve.lever is not None for valve in sensing):
        moves = "travels less for the same load" if key == "springs" else "is pressed further"
        return f"{said} The valve's lever {moves}, as computed here: set it again."
    if sensing:
        return f"{said} The load-sensing valve reads the rear's height: set it again."
    if key == "height" and any(isinstance(valve, InertiaSensing) for valve in valves):
        return f"{said} Only one end lower tilts the ball's ramp by the rake: not computed."
    return said
