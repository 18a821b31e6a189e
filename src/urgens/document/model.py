"""The base of every part of the document, and the field types that hold typed quantities."""

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass
from enum import Enum
from typing import Annotated, Any, NamedTuple

from pydantic import (
    AfterValidator,
    BaseModel,
    ConfigDict,
    Field,
    GetCoreSchemaHandler,
    model_validator,
)
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from urgens.quantity import (
    ANGLE,
    AREA,
    COMPLIANCE,
    DISTANCE,
    FORCE,
    HOSE_EXPANSION,
    LENGTH,
    LOAD,
    MASS,
    PRESSURE,
    SPEED,
    SPRING_RATE,
    TEMPERATURE,
    TORQUE,
    VOLUME,
    Quantity,
    QuantityError,
    QuantityKind,
    parse,
)

_FIGURE = re.compile(r"(?P<number>\d+(?:\.\d+)?)\s*(?P<unit>\D+)")
RULE = "urgens_rule"  # type of the pydantic errors that carry our own words


class PartFault(NamedTuple):
    """A broken rule inside one part: place relative to it, problem and remedy."""

    at: str
    problem: str
    remedy: str


def broken(*faults: PartFault) -> PydanticCustomError:
    """Return the error that carries `faults` out of a validator."""
    words = "; ".join(f.problem for f in faults).replace("{", "(").replace("}", ")")
    return PydanticCustomError(RULE, words, {"faults": list(faults)})


class TableRow(BaseModel):
    """A row of a shipped table: nothing more than it has, and never changed."""

    model_config = ConfigDict(extra="forbid", frozen=True, defer_build=True)


class DocumentModel(BaseModel):
    """A part of the document: immutable, no unknown fields, with rules of its own."""

    model_config = ConfigDict(extra="forbid", frozen=True, defer_build=True)

    @property
    def idle(self) -> tuple[str, ...]:
        """Fields that count nothing beside the ones given."""
        return ()

    def rules(self) -> Iterator[PartFault]:
        """Yield what is wrong between this part's fields, each of which is right alone."""
        yield from ()

    @model_validator(mode="after")
    def _keep_rules(self) -> "DocumentModel":
        faults = tuple(self.rules())
        if faults:
            raise broken(*faults)
        return self


class SignRule(Enum):
    """Which values of a quantity make sense."""

    POSITIVE = "above zero"
    NOT_NEGATIVE = "of zero or more"
    ANY = "of either sign"


@dataclass(frozen=True)
class Typed:
    """Marks a field as a quantity of `kind`, kept as typed."""

    kind: QuantityKind
    sign: SignRule = SignRule.POSITIVE
    largest: float | None = None  # SI; what is larger is a slip of the hand

    def __get_pydantic_core_schema__(
        self, source: type, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        return core_schema.no_info_plain_validator_function(
            self.read,
            serialization=core_schema.plain_serializer_function_ser_schema(lambda q: q.text),
        )

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: Any) -> JsonSchemaValue:
        return {
            "type": "string",
            "description": f"{self.kind.noun} {self.sign.value}, as typed, with its unit",
            "examples": [self.kind.example],
            "x-unit": self.kind.si,
        }

    def read(self, given: object) -> Quantity:
        """Return the quantity in `given`, a string or a quantity read before."""
        if isinstance(given, Quantity):
            given = given.text
        if not isinstance(given, str):
            raise broken(PartFault("", *self._not_text(given)))
        try:
            quantity = parse(given, self.kind)
        except QuantityError as error:
            raise broken(PartFault("", error.problem, error.remedy)) from error
        if quantity.value < 0 and self.sign is not SignRule.ANY:
            raise broken(PartFault("", f'"{given}" is negative', self._wanted()))
        if quantity.value == 0 and self.sign is SignRule.POSITIVE:
            raise broken(PartFault("", f'"{given}" is zero', self._wanted()))
        if self.largest is not None and quantity.value > self.largest:
            problem = f'"{given}" is larger than any vehicle has'
            raise broken(PartFault("", problem, did_you_mean(quantity, self.largest)))
        return quantity

    def _wanted(self) -> str:
        return f'write {self.kind.noun} {self.sign.value}, for example "{self.kind.example}"'

    def _not_text(self, given: object) -> tuple[str, str]:
        units = ", ".join(self.kind.units)
        remedy = f'write {self.kind.noun} in quotes with its unit ({units}), for example "'
        remedy += f'{self.kind.example}"'
        if isinstance(given, int | float) and not isinstance(given, bool):
            if isinstance(given, float) and not math.isfinite(given):
                return "is not a finite number", remedy
            return f"is the bare number {_written(given)}, without a unit", remedy
        return f"is {in_words(given)}, not a quantity", remedy


def did_you_mean(quantity: Quantity, largest: float) -> str:
    """Return a guess at what was meant by a quantity [SI] larger than `largest` [SI]."""
    match = _FIGURE.fullmatch(quantity.text.strip())
    guesses = []
    if match is not None:
        for unit in quantity.kind.units:
            guesses.append(f"{match['number']} {unit}")
        for power in (10, 100, 1000):
            guesses.append(f"{float(match['number']) / power:g} {match['unit']}")
    for guess in guesses:
        meant = parse(guess, quantity.kind)
        if largest / 50 < meant.value <= largest:
            return f'did you mean "{guess}"?'
    return "measure it again"


def no_longer_than(largest: float) -> Typed:
    """Mark a field as a length above zero and of at most `largest` [m]."""
    return Typed(LENGTH, largest=largest)


def _written(number: float) -> str:
    """Return a number as an error names it; whole ones can be longer than any float."""
    if isinstance(number, int) and abs(number) >= 10**15:
        return f"{str(number)[:4]}… of {len(str(abs(number)))} digits"
    return f"{number:g}"


def in_words(value: object) -> str:
    """Return what a JSON value is, as an error names it."""
    if value is None:
        return "null"
    if isinstance(value, bool):
        return "true" if value else "false"
    if isinstance(value, str):
        return f'the text "{value[:30]}"'
    if isinstance(value, int | float):
        return f"the number {_written(value)}"
    return "a list" if isinstance(value, list | tuple) else "an object"


Length = Annotated[Quantity, Typed(LENGTH)]
LengthOrZero = Annotated[Quantity, Typed(LENGTH, SignRule.NOT_NEGATIVE)]
Offset = Annotated[Quantity, Typed(LENGTH, SignRule.ANY)]
Area = Annotated[Quantity, Typed(AREA, SignRule.ANY)]
Face = Annotated[Quantity, Typed(AREA)]
Load = Annotated[Quantity, Typed(LOAD)]
LoadOrZero = Annotated[Quantity, Typed(LOAD, SignRule.NOT_NEGATIVE)]
Force = Annotated[Quantity, Typed(FORCE)]
ForceOrZero = Annotated[Quantity, Typed(FORCE, SignRule.NOT_NEGATIVE)]
Pressure = Annotated[Quantity, Typed(PRESSURE)]
PressureOrZero = Annotated[Quantity, Typed(PRESSURE, SignRule.NOT_NEGATIVE)]
VolumeOrZero = Annotated[Quantity, Typed(VOLUME, SignRule.NOT_NEGATIVE)]
ComplianceOrZero = Annotated[Quantity, Typed(COMPLIANCE, SignRule.NOT_NEGATIVE)]
FluidVolume = Annotated[Quantity, Typed(VOLUME)]
Mass = Annotated[Quantity, Typed(MASS)]
Angle = Annotated[Quantity, Typed(ANGLE, SignRule.NOT_NEGATIVE)]
RampAngle = Annotated[Quantity, Typed(ANGLE, largest=1.05)]
Tilt = Annotated[Quantity, Typed(ANGLE, SignRule.ANY, largest=1.4)]
SpringRate = Annotated[Quantity, Typed(SPRING_RATE)]
Speed = Annotated[Quantity, Typed(SPEED)]
Distance = Annotated[Quantity, Typed(DISTANCE)]
Temperature = Annotated[Quantity, Typed(TEMPERATURE)]
Torque = Annotated[Quantity, Typed(TORQUE)]
TorqueOrZero = Annotated[Quantity, Typed(TORQUE, SignRule.NOT_NEGATIVE)]
HoseExpansion = Annotated[Quantity, Typed(HOSE_EXPANSION, SignRule.NOT_NEGATIVE)]

Number = Annotated[float, Field(strict=True, allow_inf_nan=False)]
PositiveNumber = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=1e-3, le=1e3)]
Share = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, lt=1)]
Efficiency = Annotated[float, Field(strict=True, allow_inf_nan=False, ge=1e-3, le=1)]


# a terminal would obey some of them, a sheet could not hold others
_CONTROLS = re.compile(r"[\x00-\x1f\x7f-\x9f]")
_CONTROLS_BUT_LINES = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f]")


def _one_line(given: str) -> str:
    return _without(_CONTROLS, given)


def _of_lines(given: str) -> str:
    return _without(_CONTROLS_BUT_LINES, given)


def _without(refused: re.Pattern[str], given: str) -> str:
    found = refused.search(given)
    if found is not None:
        problem = f"holds the control character U+{ord(found[0]):04X}"
        raise broken(PartFault("", problem, "take it out"))
    return given


Text = Annotated[str, Field(strict=True), AfterValidator(_of_lines)]
Name = Annotated[str, Field(strict=True, min_length=1), AfterValidator(_one_line)]
