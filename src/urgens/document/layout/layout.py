"""The hydraulic layout: parts with ports, and the lines and hoses that join them."""

from collections.abc import Iterator, Mapping
from datetime import date
from types import MappingProxyType
from typing import TYPE_CHECKING, Annotated, Any, Literal, TypeAlias

from pydantic import (
    AfterValidator,
    BeforeValidator,
    Field,
    SerializerFunctionWrapHandler,
    WrapSerializer,
    create_model,
)

from urgens.document.dates import read_date
from urgens.document.entry import CALIPER, RULE, TAPE, Entry
from urgens.document.kinds.valves import LAID
from urgens.document.model import (
    Angle,
    DocumentModel,
    HoseExpansion,
    Length,
    LengthOrZero,
    Name,
    Offset,
    PartFault,
    Pressure,
    Share,
    Text,
    Torque,
    broken,
)

PLAIN = (
    "master", "reservoir", "block", "tee", "union", "adapter", "plug", "switch", "combination",
    "banjo", "hose", "wheel-brake", "gauge", "sensor", "light-switch",
)  # fmt: skip
# What an unmarked body may be, beside the kinds of parts that are told by looking.
BODIES = ("block-light-switch", "switch-reducing", "reducing-pair")
if TYPE_CHECKING:
    PartKind: TypeAlias = str
    Priced: TypeAlias = str
    Body: TypeAlias = str
else:
    PartKind = Literal[(*PLAIN, *LAID)]
    Priced = Literal[(*PLAIN, *LAID, "line")]
    Body = Literal[(*PLAIN, *LAID, *BODIES)]
Seat = Literal["inverted", "bubble", "37-degree", "taper", "banjo"]
Wheel = Literal["front-left", "front-right", "rear-left", "rear-right"]
Material = Literal["copper-nickel", "coated-steel", "stainless", "plain-copper"]
ENDS = 2
_DOT = "."


def _plain_id(given: str) -> str:
    if _DOT in given or given != given.strip() or " " in given:
        raise broken(
            PartFault("", f'"{given}" has a dot or a space', "write it in one word, as fl-hose")
        )
    return given


def _stripped(given: str) -> str:
    words = given.strip()
    if not words:
        raise broken(PartFault("", "is empty", "write a name"))
    return words


def _port_name(given: str) -> str:
    part, dot, port = given.partition(_DOT)
    if not (dot and part and port) or _DOT in port:
        raise broken(PartFault("", f'"{given}" names no port', "write part and port, as mc.front"))
    return given


def _written(value: Mapping[str, Any], write: SerializerFunctionWrapHandler) -> Any:
    return write(dict(value))


def nothing() -> Mapping[Any, Any]:
    """Return names that are free, none of them given."""
    return MappingProxyType({})


KEPT = AfterValidator(MappingProxyType), WrapSerializer(_written)  # names that are free, unchanged
Price = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0)]
Id = Annotated[Name, AfterValidator(_plain_id)]
PortName = Annotated[Name, AfterValidator(_port_name)]
Thread = Annotated[Name, AfterValidator(_stripped)]


class Port(DocumentModel):
    """Where something is screwed in; what is not known of it is left out."""

    thread: Thread | None = None
    seat: Seat | None = None


class FittedPart(DocumentModel):
    """One part of the layout.

    `wheel` is a wheel brake's; `valve` names the entry of the build's own list that a valve is,
    as rear[0]; `marking` is the builder's own. `drawn_at` is where its middle is drawn in the plan:
    a share of the way from front to rear, and from the right side to the left. Of a banjo
    `washers` are counted, and `eyes`: one may have two lines; `bleeder_at_top` is a wheel brake's;
    a fitting of `compression` only clamps the tube. What `stays` is on the vehicle and is not
    bought; a hose is there `since`. How a sensor sits is its `attitude`. `may_be` what an
    unmarked body may be, open until it is gauged; it is easily come at while something is out.
    """

    id: Id
    kind: PartKind
    ports: Annotated[Mapping[Id, Port], *KEPT] = Field(default_factory=nothing)
    wheel: Wheel | None = None
    valve: Name | None = None
    fixed: bool | None = None
    marking: Text = ""
    drawn_at: tuple[Share, Share] | None = None
    free_length: (
        Annotated[Length, Entry("Free length", TAPE, "Of the hose, between its fittings")] | None
    ) = None
    bore: Annotated[Length, Entry("Bore of the hose", CALIPER, "Bore of the hose")] | None = None
    expansion: (
        Annotated[
            HoseExpansion,
            Entry("Hose swells by", "of its maker", "Fluid it takes per length and pressure"),
        ]
        | None
    ) = None
    reach: (
        Annotated[
            Length, Entry("Its ends get apart", TAPE, "Farthest apart, at full droop and full lock")
        ]
        | None
    ) = None
    washers: Annotated[int, Field(strict=True, ge=0)] | None = None
    eyes: Annotated[int, Field(strict=True, ge=1)] | None = None
    torque: (
        Annotated[Torque, Entry("Its bolt's torque", "of its maker", "Of the bolt, as given")]
        | None
    ) = None
    bleeder_at_top: bool | None = None
    stays: bool | None = None
    since: Annotated[date, BeforeValidator(read_date)] | None = None
    attitude: Literal["hangs", "up", "level"] | None = None
    may_be: tuple[Body, ...] = ()
    easy_while: Text = ""
    compression: bool | None = None
    full_scale: (
        Annotated[Pressure, Entry("Gauge reads to", "read its dial", "Pressure at its full scale")]
        | None
    ) = None

    @property
    def eyes_on_bolt(self) -> int:
        """How many eyes a banjo's bolt holds: as given, else one for each of its lines."""
        return max(len(self.ports) - 1, 1) if self.eyes is None else self.eyes

    @property
    def washers_wanted(self) -> int:
        """Washers on a banjo's bolt: a face under the head, one between eyes, one at the body."""
        return self.eyes_on_bolt + 1

    def rules(self) -> Iterator[PartFault]:
        """Check that a wheel brake, and nothing else, has a wheel, and a bolt no eye too many."""
        if self.eyes is not None and self.eyes > max(len(self.ports) - 1, 1):
            yield PartFault(
                "eyes", f'"{self.id}" has more eyes than lines', "an eye has one line or two"
            )
        if (self.kind == "wheel-brake") != (self.wheel is not None):
            lacks = self.wheel is None
            problem = f'"{self.id}" is a wheel brake without a wheel' if lacks else (
                f'"{self.id}" is at a wheel and no wheel brake'
            )  # fmt: skip
            yield PartFault(
                "wheel", problem, "name the wheel of a wheel brake, and of nothing else"
            )


class LineEnd(DocumentModel):
    """One end of a rigid line: its nut's thread, and how the tube is flared."""

    nut: Thread
    flare: Seat


Coordinate = Annotated[
    Offset, Entry("Route point", TAPE, "From the firewall datum: forward, to the left, and up")
]
Point = tuple[Coordinate, Coordinate, Coordinate]
# `from` is a word of Python, so that the field cannot be written in a class of its own.
_Joined = create_model("_Joined", __base__=DocumentModel, **{"from": (PortName, ...)})  # type: ignore[call-overload]


class BrakeLine(_Joined):
    """A rigid line from one port to another, or two parts screwed into each other (`direct`).

    `made` where it is bent and flared already, as one that came with a part; `stays` where it is on
    the vehicle and is not bought.
    """

    to: PortName
    id: Id
    direct: bool = False
    tube: Annotated[Length, Entry("Tube", CALIPER, "Outer diameter of the tube")] | None = None
    material: Material | None = None
    ends: Annotated[tuple[LineEnd, ...], Field(max_length=ENDS)] = ()
    route: tuple[Point, ...] = ()
    bend_radius: (
        Annotated[Length, Entry("Bend radius", RULE, "Of the former, to the tube's middle")] | None
    ) = None
    torque: (
        Annotated[Torque, Entry("Its nuts' torque", "of its maker", "Of both nuts, as given")]
        | None
    ) = None
    slide_on_first: tuple[Name, ...] = ()
    marking: Text = ""
    made: bool | None = None
    stays: bool | None = None
    easy_while: Text = ""

    @property
    def start(self) -> str:
        """The port it begins at."""
        return str(getattr(self, "from"))

    def rules(self) -> Iterator[PartFault]:
        """Check that a route has two points or more, each its own, and a line both ends or none."""
        if len(self.ends) == 1:
            yield PartFault("ends", f'"{self.id}" has one end', "give both ends, or none")
        if self.start == self.to:
            yield PartFault("to", f'"{self.id}" ends where it begins', "name another port")
        if len(self.route) == 1:
            yield PartFault("route", f'"{self.id}" has one point', "give both ends of the route")
        for place, (one, other) in enumerate(zip(self.route, self.route[1:], strict=False)):
            if all(a.value == b.value for a, b in zip(one, other, strict=True)):
                yield PartFault(
                    f"route[{place + 1}]",
                    f'point {place + 2} of "{self.id}" stands on the one before',
                    "take one of them out",
                )


class BendingTools(DocumentModel):
    """What the builder's own tools do to a line."""

    nut_and_grip: (
        Annotated[Length, Entry("Straight before a flare", RULE, "Least straight for nut and tool")]
        | None
    ) = None
    former_grip: (
        Annotated[
            LengthOrZero,
            Entry("Straight between bends", RULE, "Least straight that the former grips"),
        ]
        | None
    ) = None
    inverted_flare: (
        Annotated[
            LengthOrZero,
            Entry(
                "An inverted flare takes", "flare a piece and measure", "Tube that the flare takes"
            ),
        ]
        | None
    ) = None
    bubble_flare: (
        Annotated[
            LengthOrZero,
            Entry("A bubble flare takes", "flare a piece and measure", "Tube that the flare takes"),
        ]
        | None
    ) = None
    springback: (
        Annotated[
            Angle,
            Entry(
                "Springs back of a square bend", "bend a piece by 90 degrees", "What it opens again"
            ),
        ]
        | None
    ) = None


class Received(DocumentModel):
    """Something that came: what of the buying list it is to be, how many, of which version.

    `back_by` is the last day on which it may go back.
    """

    item: Name
    count: Annotated[int, Field(strict=True, ge=0)]
    version: Text = ""
    back_by: Annotated[date, BeforeValidator(read_date)] | None = None


class Plumbing(DocumentModel):
    """The layout of a build; `where` of a finding is the id of a part or of a line.

    `received` is what came of what it takes, to be checked against it before it cannot go back;
    `prices` are what the builder was asked for, by kind of part and for a line, each in one money.
    """

    parts: tuple[FittedPart, ...] = ()
    lines: tuple[BrakeLine, ...] = ()
    bench: BendingTools = BendingTools()
    received: tuple[Received, ...] = ()
    prices: Annotated[Mapping[Priced, Price], *KEPT] = Field(default_factory=nothing)

    def rules(self) -> Iterator[PartFault]:
        """Check that every id is there once, and that every line ends in ports that are there."""
        seen: dict[str, str] = {}
        places = [(f"parts[{i}].id", part.id) for i, part in enumerate(self.parts)]
        places += [(f"lines[{i}].id", line.id) for i, line in enumerate(self.lines)]
        for place, name in places:
            if name in seen:
                yield PartFault(
                    place, f'"{name}" is also the id of {seen[name]}', "give it another id"
                )
            seen.setdefault(name, place.removesuffix(".id"))
        ports = {part.id: part.ports for part in self.parts}
        for index, line in enumerate(self.lines):
            for end, name in (("from", line.start), ("to", str(line.to))):
                part, _, port = name.partition(_DOT)
                if part not in ports:
                    problem = f'line "{line.id}": there is no part "{part}"'
                    yield PartFault(f"lines[{index}].{end}", problem, _choose(ports))
                elif port not in ports[part]:
                    problem = f'line "{line.id}": part "{part}" has no port "{port}"'
                    yield PartFault(f"lines[{index}].{end}", problem, _choose(ports[part]))


def _choose(names: object) -> str:
    known = ", ".join(f'"{name}"' for name in list(names)[:8])  # type: ignore[call-overload]
    return f"choose one of {known}" if known else "write it first"
