"""What was measured on the vehicle: gauges, stops, logs, wear."""

import re
from collections.abc import Iterator, Mapping
from datetime import date
from types import MappingProxyType
from typing import Annotated, Literal

from pydantic import AfterValidator, BeforeValidator, ConfigDict, Field, PlainSerializer

from urgens.document.dates import read_date
from urgens.document.entry import CALIPER, TAPE, Entry, wish
from urgens.document.frozen import thawed
from urgens.document.ledger.records import At
from urgens.document.model import (
    Distance,
    DocumentModel,
    Force,
    Length,
    LengthOrZero,
    Name,
    Number,
    PartFault,
    Pressure,
    PressureOrZero,
    Speed,
    Temperature,
    Text,
)
from urgens.quantity import (
    FORCE,
    LENGTH,
    PRESSURE,
    SPEED,
    TEMPERATURE,
    QuantityError,
    QuantityKind,
    parse,
)

VALVE = re.compile(r"(front|rear)\[(\d+)\]")
SET_IN = (LENGTH, PRESSURE, FORCE)  # a bar, a knee, a spring
GONE = ""  # of a valve that is no longer fitted
Locked = Literal["none", "front", "rear", "both", "unknown"]
Pull = Literal["none", "left", "right"]
ON_IT = "printed on the gauge"
LOGGER = "logger, or the way"
THERMOMETER = "contact thermometer"
FullScale = Annotated[Pressure, Entry("Gauge's full scale", ON_IT, "Where the gauge's scale ends")]
GaugeClass = Annotated[
    float,
    Field(strict=True, ge=0.05, le=10),
    Entry("Gauge's class", ON_IT, "Largest error of the gauge, in percent of its full scale"),
]
LeverShare = Annotated[float, Field(strict=True, ge=0, le=1)]
Share = Annotated[float, Field(strict=True, gt=0, le=3)]
Deceleration = Annotated[
    Share, Entry("Deceleration, g", LOGGER, "Mean deceleration of the stop", step=0.01)
]
Coefficient = Annotated[
    float,
    Field(strict=True, ge=0.01, le=3),
    Entry("Road, coefficient", "feel, or a locked stop", "What the road was taken for", step=0.05),
]
FromSpeed = Annotated[Speed, Entry("From", "speedometer, or satellites", "Speed at the pedal")]
Way = Annotated[Distance, Entry("Distance", TAPE, "Way from the pedal to the stand")]
WayError = Annotated[Distance, Entry("Distance, within", TAPE, "How far the way may be off")]
Foot = Annotated[Force, Entry("Foot", "load cell at the pad", "Foot force of the stop")]
AFTER = (THERMOMETER, "Rotor or drum, just after the stop")
FrontWarm = Annotated[Temperature, Entry("Front brakes", *AFTER)]
RearWarm = Annotated[Temperature, Entry("Rear brakes", *AFTER)]
LOST = (CALIPER, "Thickness of lining lost since the day")
FrontLost = Annotated[LengthOrZero, Entry("Front lining lost", *LOST)]
RearLost = Annotated[LengthOrZero, Entry("Rear lining lost", *LOST)]
WearError = Annotated[
    Length, Entry("Thickness, within", CALIPER, "How far each reading may be off")
]
SpecificWear = Annotated[
    float,
    Field(strict=True, ge=0.05, le=20),
    Entry(
        "Wear, front to rear",
        "of the linings' maker",
        "How much faster the front pads wear at the same work",
        step=0.05,
    ),
]
GaugePoint = tuple[PressureOrZero, PressureOrZero, Literal["rising", "falling"]]
LeverPoint = tuple[LeverShare, PressureOrZero, PressureOrZero]
Mix = tuple[
    Annotated[Share, wish("Usual stops from, g", "The gentlest of the usual stops", step=0.05)],
    Annotated[Share, wish("Usual stops to, g", "The hardest of the usual stops", step=0.05)],
]

CHANNELS = Literal[
    "time", "front_pressure", "rear_pressure", "foot", "travel", "deceleration", "speed",
    "front_speed", "rear_speed", "front_temperature", "rear_temperature",
]  # fmt: skip


Setting = Annotated[
    Mapping[Name, Number | Text], AfterValidator(MappingProxyType), PlainSerializer(thawed)
]  # what was turned, by its path


def _set_to_figures(setting: Mapping[str, object]) -> Iterator[PartFault]:
    """Yield what is wrong with settings that are words: a number, or a quantity, is what is set."""
    for path, value in setting.items():
        if isinstance(value, str) and not any(_is_of(value, kind) for kind in SET_IN):
            yield PartFault(
                "setting",
                f'{path} is set to "{value}", which is not a figure',
                'write turns or notches as a number, such as 2, else a quantity, such as "4 mm"',
            )


def _is_of(typed: str, kind: QuantityKind) -> bool:
    try:
        parse(typed, kind)
    except QuantityError:
        return False
    return True


Source = Literal["typed", "box", "simulated"] | None  # nothing: typed


class GaugeRun(DocumentModel):
    """Readings of two gauges across one valve: into it, out of it, pressed or let go.

    `lever` holds readings with the inlet held and a load-sensing valve's lever moved by hand: where
    it stands from droop (0) to bump (1), into it, out of it, in the order they were read.
    """

    model_config = ConfigDict(populate_by_name=True)

    at: At
    valve: Text  # "rear[0]"; nothing where it is no longer fitted
    kind: Text = ""  # of the valve then; nothing: not told
    full_scale: FullScale
    grade: GaugeClass = Field(1.6, alias="class")
    points: tuple[GaugePoint, ...] = ()
    lever: tuple[LeverPoint, ...] = ()
    counts: bool = True
    source: Source = None
    note: Text = ""

    def rules(self) -> Iterator[PartFault]:
        """Check that a valve is named as its place in the build, and no needle is past its end."""
        if self.valve != GONE and VALVE.fullmatch(self.valve) is None:
            yield PartFault(
                "valve", f'"{self.valve}" is no valve', 'write its place, such as "rear[0]"'
            )
        rows = [*(("points", row[:2]) for row in self.points)]
        rows += [*(("lever", row[1:]) for row in self.lever)]
        most = self.full_scale.value * (1.0 + 1e-9)
        for name, pair in rows:
            over = next((read for read in pair if read.value > most), None)
            if over is not None:
                yield PartFault(
                    name,
                    f'"{over.text}" is more than the gauge shows: "{self.full_scale.text}"',
                    "read it again, or write the gauge's full scale",
                )
                return


class MeasuredStop(DocumentModel):
    """One stop on the road: what was set, how hard, who locked.

    `counts` is false where it is left out of what is worked out; `moved_without_proof` the reason
    where a standing proof was open.
    """

    at: At
    load_case: Name
    surface: Coefficient
    setting: Setting = Field(default_factory=dict, validate_default=True)
    speed: FromSpeed | None = None
    distance: Way | None = None
    distance_error: WayError | None = None
    deceleration: Deceleration | None = None
    effort: Foot | None = None
    locked: Locked = "unknown"
    pull: Pull = "none"
    front_temperature: FrontWarm | None = None
    rear_temperature: RearWarm | None = None
    wet: bool = False
    counts: bool = True
    taken: bool = False  # what it says stands in the build as measured
    moved_without_proof: Text = ""
    note: Text = ""

    def rules(self) -> Iterator[PartFault]:
        """Check that a distance comes with the speed it is from."""
        if self.distance is not None and self.speed is None:
            yield PartFault(
                "speed", "is missing, and a distance is given", "write from which speed"
            )
        yield from _set_to_figures(self.setting)


class MappedChannel(DocumentModel):
    """Where one channel stands in a log: its column, and the unit of its numbers."""

    column: Name
    unit: Text


class Log(DocumentModel):
    """A log that is a file of its own beside the build: its name, its digest, its channels."""

    at: At
    file: Name
    sha256: Annotated[str, Field(strict=True, pattern=r"^[0-9a-f]{64}$")]
    channels: Annotated[
        Mapping[CHANNELS, MappedChannel],
        AfterValidator(MappingProxyType),
        PlainSerializer(lambda held: {n: c.model_dump(mode="json") for n, c in held.items()}),
    ] = Field(default_factory=dict, validate_default=True)
    left_out: tuple[CHANNELS, ...] = ()  # channels that no column of it is
    load_case: Text = ""
    setting: Setting = Field(default_factory=dict, validate_default=True)
    counts: bool = True
    source: Source = None
    note: Text = ""

    def rules(self) -> Iterator[PartFault]:
        """Check that its name is one of a file beside the build, wherever that lies."""
        if "/" in self.file or "\\" in self.file or self.file in (".", ".."):
            yield PartFault(
                "file", f'"{self.file}" is no name beside the build', "write its name only"
            )
        yield from _set_to_figures(self.setting)


class Wear(DocumentModel):
    """What pads or linings of each axle lost since a day: one figure each, or one of a wheel."""

    at: At
    since: Annotated[date, BeforeValidator(read_date)] | None = None
    front: Annotated[tuple[FrontLost, ...], Field(min_length=1, max_length=8)]
    rear: Annotated[tuple[RearLost, ...], Field(min_length=1, max_length=8)]
    error: WearError = parse("0.1 mm", LENGTH)
    specific_wear: SpecificWear | None = None
    counts: bool = True
    note: Text = ""


class Proof(DocumentModel):
    """Everything measured on the vehicle.

    `cool_below` is the temperature under which the next stop is made; `usual_stops` between which
    decelerations [g] it is mostly braked; `reaction` how far [s] a whole distance begins before
    the brakes act.
    """

    gauges: tuple[GaugeRun, ...] = ()
    stops: tuple[MeasuredStop, ...] = ()
    logs: tuple[Log, ...] = ()
    wear: tuple[Wear, ...] = ()
    speed: Annotated[Speed, wish("Tried from", "Speed of the stops on the road")] = parse(
        "45 mph", SPEED
    )
    cool_below: Annotated[
        Temperature, wish("Next stop below", "Brakes cool down to this before the next stop")
    ] = parse("150 °C", TEMPERATURE)
    reaction: Annotated[
        float,
        Field(strict=True, ge=0, le=3),
        Entry("Build-up, s", "a logger", "Time of a measured way before the brakes act", step=0.05),
    ] = 0.15
    usual_stops: Mix = (0.1, 0.4)

    def rules(self) -> Iterator[PartFault]:
        """Check that the usual stops go from the gentle to the hard."""
        if self.usual_stops[0] >= self.usual_stops[1]:
            yield PartFault("usual_stops", "do not rise", "write the gentler one first: [0.1, 0.4]")
