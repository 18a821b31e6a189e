"""Facts beside the figures: fluid, what is known about a figure, set-ups."""

import re
from collections.abc import Iterator, Mapping
from datetime import date
from types import MappingProxyType
from typing import Annotated, Any, Literal

from pydantic import (
    AfterValidator,
    BeforeValidator,
    ConfigDict,
    Field,
    PlainSerializer,
    SerializerFunctionWrapHandler,
    WrapSerializer,
)

from urgens.document.dates import read_date
from urgens.document.frozen import frozen, thawed
from urgens.document.model import DocumentModel, Name, PartFault, Text, broken
from urgens.document.readings import Readings
from urgens.quantity import Quantity, QuantityError, QuantityKind, parse
from urgens.quantity.units import unit

UNSEEN = ("assumed", "planned")  # what is said of figures that nobody has found out
_SHARE = re.compile(r"[±\s]*(?P<number>\d+(?:\.\d+)?)\s*%")
_BARE = re.compile(r"[±\s]*(?P<number>\d+(?:\.\d+)?)")


class Fluid(DocumentModel):
    """What is in the lines, and since when."""

    model_config = ConfigDict(populate_by_name=True)

    grade: Literal["DOT 3", "DOT 4", "DOT 5", "DOT 5.1"] = Field(alias="class")
    filled: Annotated[date, BeforeValidator(read_date)] | None = None


class FigureEvidence(DocumentModel):
    """What is known about one figure; `spread` is ± a quantity or a share, as typed.

    A figure is planned where it was chosen by the program, and nobody has seen it fitted. What it
    was worked out from stands in `readings`.
    """

    state: Literal["assumed", "planned", "measured", "stamped", "published"]
    spread: Text | None = None
    note: Text = ""
    readings: Readings | None = None


def _serialized(
    evidence: Mapping[str, FigureEvidence], handler: SerializerFunctionWrapHandler
) -> Any:
    return handler(dict(evidence))


Known = Annotated[
    Mapping[str, FigureEvidence], AfterValidator(MappingProxyType), WrapSerializer(_serialized)
]  # what is known of figures, by their paths


def _units_known(units: Mapping[str, str]) -> Mapping[str, str]:
    for path, name in units.items():
        if unit(name) is None:
            told = f'"{name}" is not a unit known here'
            raise broken(PartFault(f'["{path}"]', told, "write one such as in, mm, psi or bar"))
    return MappingProxyType(units)


def _units_serialized(units: Mapping[str, str], handler: SerializerFunctionWrapHandler) -> Any:
    return handler(dict(units))


ShownUnits = Annotated[
    Mapping[str, str], AfterValidator(_units_known), WrapSerializer(_units_serialized)
]  # units of figures that have one of their own, by their paths


class SetUp(DocumentModel):
    """A named variant of the build: values laid over it by path; a rung of the builder's ladder.

    `price` is in the builder's own money; `enough_if` says when nothing beyond it is needed.
    """

    name: Name
    changes: Annotated[Mapping[str, Any], AfterValidator(frozen), PlainSerializer(thawed)]
    price: Annotated[float, Field(ge=0, allow_inf_nan=False)] | None = None
    enough_if: Text = ""


def given(place: str, part: object) -> Iterator[str]:
    """Yield the path of everything that a new part at a place, as JSON, gives."""
    if isinstance(part, dict):
        for name, value in part.items():
            yield from given(f"{place}.{name}", value)
    elif isinstance(part, list | tuple):
        for index, value in enumerate(part):
            yield from given(f"{place}[{index}]", value)
    else:
        yield place


def half_width(spread: str, value: Quantity | float) -> float:
    """Return `spread` around `value` in SI.

    "10 %" is a share of the value; a bare number is ± that number of a pure number, and a share
    of a quantity; anything else is a quantity of the value's kind. Raises QuantityError.
    """
    share = _SHARE.fullmatch(spread.strip())
    bare = _BARE.fullmatch(spread.strip())
    size = abs(value.value if isinstance(value, Quantity) else value)
    if share is not None:
        return float(share["number"]) / 100.0 * size
    if bare is not None:
        number = float(bare["number"])
        return number * size if isinstance(value, Quantity) else number
    if isinstance(value, Quantity):
        return abs(parse(spread.strip().lstrip("±").strip(), _plain(value.kind)).value)
    raise QuantityError(f'"{spread}" is no spread', 'write "0.05" or "10 %"')


def _plain(kind: QuantityKind) -> QuantityKind:
    """Return `kind` without the smallest size: a spread may be finer than what it belongs to."""
    return QuantityKind(
        kind.noun, kind.si, kind.exponents, kind.units, kind.example,
        (0.0, kind.bounds[1]), kind.takes_mass,
    )  # fmt: skip


def twin_names(setups: tuple[SetUp, ...]) -> Iterator[PartFault]:
    """Yield the set-ups whose name another one has."""
    seen: dict[str, int] = {}
    for index, setup in enumerate(setups):
        first = seen.setdefault(setup.name, index)
        if first != index:
            yield PartFault(
                f"setups[{index}].name",
                f'"{setup.name}" is also the name of set-up {first + 1}',
                "give each set-up a name of its own",
            )
