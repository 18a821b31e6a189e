"""The usual layout of a build, drafted from its cylinder, circuits, valves, brakes and switches."""

from typing import Any, NamedTuple

from urgens.document import Build
from urgens.document.kinds.valves import kind_of
from urgens.physics.axle import AXLES, Axle

# Of new American nuts on the usual tube; common practice, and to be looked at on the car.
THREAD = "3/8-24"
SEAT = "inverted"
TUBE = "3/16 in"
PORT = {"thread": THREAD, "seat": SEAT}
OF_A_SWITCH = {"thread": "1/8-27 NPT", "seat": "taper"}  # for the brake lights; common practice
END = {"nut": THREAD, "flare": SEAT}
SIDES = ("left", "right")
DIAGONALS = {"primary": ("front-left", "rear-right"), "secondary": ("front-right", "rear-left")}
BODY_PORTS = ("front-in", "front-left", "front-right", "rear-in", "rear-out")
Json = dict[str, Any]


class DraftShape(NamedTuple):
    """What is laid otherwise than usual.

    `metering_tee` the metering valve is the front's tee, the switch's second outlet plugged;
    `banjo` both front lines on one bolt; `old_block` an old block stays for the fronts, its rear
    port plugged; `remote` reservoirs away from the cylinder.
    """

    metering_tee: bool = False
    banjo: bool = False
    old_block: bool = False
    remote: bool = False


USUAL = DraftShape()


def drafted(build: Build, shape: DraftShape = USUAL) -> Json:
    """Return the plumbing section of the usual layout, as JSON.

    shape: what is laid otherwise.
    Cylinder, then the warning switch or the one body that holds it and the valves, then each
    circuit's valves, a hose at each front wheel and one to the rear axle. All ports are as they
    are usual, until somebody has looked; no line has a route yet.
    Source: common practice.
    """
    made = _Draft(build, shape)
    if build.split == "single":
        made.single()
    elif build.split == "diagonal":
        made.diagonal()
    else:
        made.front_rear()
    return {"parts": made.parts, "lines": made.lines}


class _Draft:
    """Parts and lines as they come about, each laid on from the port before."""

    def __init__(self, build: Build, shape: DraftShape) -> None:
        self.build, self.shape = build, shape
        self.parts: list[Json] = []
        self.lines: list[Json] = []

    # --- parts and lines -------------------------------------------------------------------

    def part(self, name: str, kind: str, ports: tuple[str, ...], **more: Any) -> str:
        """Add a part and return its id."""
        self.parts.append({"id": name, "kind": kind, "ports": dict.fromkeys(ports, PORT), **more})
        return name

    def pipe(self, start: str, end: str) -> None:
        """Join two ports by a rigid line."""
        name = f"L{sum(not line.get('direct', False) for line in self.lines) + 1}"
        line = {"id": name, "from": start, "to": end, "tube": TUBE, "material": "copper-nickel"}
        self.lines.append({**line, "ends": [END, END]})

    def screw(self, start: str, end: str) -> None:
        """Screw one part into another."""
        name = f"D{sum(line.get('direct', False) for line in self.lines) + 1}"
        self.lines.append({"id": name, "from": start, "to": end, "direct": True})

    def wheel(self, wheel: str) -> str:
        """Add the brake of a wheel and return its inlet."""
        axle, side = wheel.split("-")
        return self.part(f"{axle[0]}{side[0]}", "wheel-brake", ("in",), wheel=wheel) + ".in"

    def hose(self, start: str, name: str, end: str) -> None:
        """Lead from a port through a hose into another port."""
        self.part(name, "hose", ("a", "b"))
        self.pipe(start, f"{name}.a")
        self.screw(f"{name}.b", end)

    # --- circuits --------------------------------------------------------------------------

    def valves(
        self, start: str, axle: Axle, mark: str = "", first: int = 0, end: int | None = None
    ) -> str:
        """Lead through an axle's valves that are bodies of their own; return what comes out.

        Of its list from `first` up to `end`, which is left out.
        """
        for index, valve in list(enumerate(self.build.valves.of(axle)))[first:end]:
            if valve.body and self._combined:
                continue
            name = f"{axle[0]}v{index + 1}{mark}"
            kind = kind_of(valve).laid_as or valve.kind
            self.part(name, kind, ("in", "out"), valve=f"{axle}[{index}]")
            self.pipe(start, f"{name}.in")
            start = f"{name}.out"
        return start

    def _body_at(self, axle: Axle) -> int:
        """Return where an axle's list has the valve that is in the one body, else its end."""
        valves = self.build.valves.of(axle)
        return next((i for i, valve in enumerate(valves) if valve.body), len(valves))

    @property
    def _combined(self) -> bool:
        """Whether one body holds switch and valves: where valves are said to be in one."""
        laws = (*self.build.valves.front, *self.build.valves.rear)
        return self.build.split == "front-rear" and any(valve.body for valve in laws)

    def both_fronts(self, left: str, right: str) -> None:
        """Lead from two ports to the front wheels, each through its hose."""
        for start, side in ((left, "left"), (right, "right")):
            self.hose(start, f"hf{side[0]}", self.wheel(f"front-{side}"))

    def rear_axle(self, start: str) -> None:
        """Lead to the rear axle by one hose, and from its tee to both wheels."""
        tee = self.part("rt", "tee", ("in", *SIDES))
        self.hose(start, "hr", f"{tee}.in")
        for side in SIDES:
            self.pipe(f"{tee}.{side}", self.wheel(f"rear-{side}"))

    def plug(self, port: str) -> None:
        """Shut a port that nothing goes on from."""
        name = self.part(
            f"p{sum(part['kind'] == 'plug' for part in self.parts) + 1}", "plug", ("in",)
        )
        self.screw(port, f"{name}.in")

    def fronts_behind_tee(self, start: str) -> None:
        """Lead through the front's valves to a tee, and from there to both front wheels."""
        if self.shape.metering_tee and self.build.valves.front:
            tee = self.part("fv1", "metering", ("in", *SIDES), valve="front[0]")
            self.pipe(start, f"{tee}.in")
            self.both_fronts(f"{tee}.left", f"{tee}.right")
            return
        tee = self.part("ft", "tee", ("in", *SIDES))
        self.pipe(self.valves(start, Axle.FRONT), f"{tee}.in")
        self.both_fronts(f"{tee}.left", f"{tee}.right")

    def light_switch(self, start: str) -> str:
        """Lead past the switch of the brake lights, where pressure closes it; return what is next.

        It hangs on a tee of its own thread.
        """
        if self.build.brake_light_switch != "hydraulic":
            return start
        tee = self.part("lt", "tee", ("in", "out"))
        self.pipe(start, f"{tee}.in")
        self.lamp_port(tee)
        return f"{tee}.out"

    def lamp_port(self, body: str) -> None:
        """Screw the switch of the brake lights into a body, where pressure closes it."""
        if self.build.brake_light_switch != "hydraulic":
            return
        row = next(part for part in self.parts if part["id"] == body)
        row["ports"]["lamp"] = OF_A_SWITCH
        self.parts.append({"id": "ls", "kind": "light-switch", "ports": {"in": OF_A_SWITCH}})
        self.screw("ls.in", f"{body}.lamp")

    def single(self) -> None:
        """Lay out one circuit: a block of one port in and three out, or a valve before its tee."""
        self.part("mc", "master", ("out",))
        fronts = ("front",) if self.build.valves.front else SIDES
        block = self.part("bl", "block", ("in", *fronts, "rear"))
        self.pipe("mc.out", f"{block}.in")
        self.lamp_port(block)
        if self.build.valves.front:
            self.fronts_behind_tee(f"{block}.front")
        else:
            self.both_fronts(f"{block}.left", f"{block}.right")
        self.rear_axle(self.valves(f"{block}.rear", Axle.REAR))

    def front_rear(self) -> None:
        """Lay out a circuit for each axle, behind the switch or the body that holds it."""
        self.part("mc", "master", ("front", "rear"))
        front, rear = "mc.front", "mc.rear"
        if self.shape.remote:
            self.reservoirs()
        if not self.shape.banjo:  # both lines are on the bolt then, and no room is left
            front = self.light_switch(front)
        if self.shape.banjo or self.shape.old_block:
            self.fronts_at_once(front)
            self.rear_axle(self.valves(rear, Axle.REAR))
            return
        if self._combined:
            body = self.part("cv", "combination", BODY_PORTS)
            body_at = self._body_at(Axle.REAR)
            self.pipe(self.valves(front, Axle.FRONT), f"{body}.front-in")
            self.pipe(self.valves(rear, Axle.REAR, end=body_at), f"{body}.rear-in")
            self.both_fronts(f"{body}.front-left", f"{body}.front-right")
            self.rear_axle(self.valves(f"{body}.rear-out", Axle.REAR, first=body_at))
            return
        if self.build.warning_switch != "none":
            ports = tuple(f"{axle}-{way}" for axle in AXLES for way in ("in", "out"))
            second = ("front-out-2",) if self.shape.metering_tee else ()
            switch = self.part("sw", "switch", (*ports, *second))
            for port in second:
                self.plug(f"{switch}.{port}")
            self.pipe(front, f"{switch}.front-in")
            self.pipe(rear, f"{switch}.rear-in")
            front, rear = f"{switch}.front-out", f"{switch}.rear-out"
        self.fronts_behind_tee(front)
        self.rear_axle(self.valves(rear, Axle.REAR))

    def fronts_at_once(self, start: str) -> None:
        """Lead from the cylinder to both front wheels by one bolt, or by a block that was there."""
        if self.shape.banjo:
            part = self.part("bj", "banjo", ("bolt", *SIDES))
            self.screw(start, f"{part}.bolt")
        else:
            part = self.part("bl", "block", ("in", *SIDES, "rear"))
            self.pipe(start, f"{part}.in")
            self.plug(f"{part}.rear")
        self.both_fronts(f"{part}.left", f"{part}.right")

    def reservoirs(self) -> None:
        """Add a reservoir for each circuit, away from the cylinder."""
        cylinder = self.parts[0]
        cylinder["ports"] = {**cylinder["ports"], **{f"reservoir-{axle}": PORT for axle in AXLES}}
        for axle in AXLES:
            name = self.part(f"tank-{axle}", "reservoir", ("supply",))
            self.screw(f"{name}.supply", f"mc.reservoir-{axle}")

    def diagonal(self) -> None:
        """Lay out a front and the opposite rear wheel on each circuit, each through its valves."""
        self.part("mc", "master", tuple(DIAGONALS))
        starts = {circuit: f"mc.{circuit}" for circuit in DIAGONALS}
        if self.build.warning_switch != "none":
            # The shuttle's sides are called front and rear; either circuit is on either.
            ports = tuple(f"{axle}-{way}" for axle in AXLES for way in ("in", "out"))
            switch = self.part("sw", "switch", ports)
            for circuit, side in zip(DIAGONALS, AXLES, strict=True):
                self.pipe(starts[circuit], f"{switch}.{side}-in")
                starts[circuit] = f"{switch}.{side}-out"
        for circuit, (front, rear) in DIAGONALS.items():
            tee = self.part(f"t{circuit[0]}", "tee", ("in", "front", "rear"))
            self.pipe(starts[circuit], f"{tee}.in")
            if circuit == "secondary":
                self.lamp_port(tee)
            mark = rear.partition("-")[2][0]
            ahead = self.valves(f"{tee}.front", Axle.FRONT, front.partition("-")[2][0])
            self.hose(ahead, f"hf{front.partition('-')[2][0]}", self.wheel(front))
            behind = self.valves(f"{tee}.rear", Axle.REAR, mark)
            self.hose(behind, f"hr{mark}", self.wheel(rear))
